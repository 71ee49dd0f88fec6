package org.greenbead.app.shell;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Line;
import org.greenbead.app.look.Looks;
import org.greenbead.app.look.Shapes;
import org.greenbead.core.book.Phase;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Job;

/** The job's route, a bead a step, across the top. */
final class BeadString extends HBox {
    private final Label id = Looks.label("", "job-id");
    private final Label title = Looks.label("", "job-title");
    private final HBox string = new HBox();
    private final VBox names = new VBox(1);
    private final Consumer<String> open;

    BeadString(Consumer<String> open) {
        this.open = open;
        getStyleClass().add("string-bar");
        id.setId("job-id");
        names.getChildren().addAll(id, title);
        names.setMinWidth(188);
        names.setPrefWidth(188);
        names.setMaxWidth(188);
        string.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(string, Priority.ALWAYS);
        setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(names, string);
    }

    void compact(boolean compact) {
        double width = compact ? 150 : 188;
        names.setMinWidth(width);
        names.setPrefWidth(width);
        names.setMaxWidth(width);
        title.setVisible(!compact);
        title.setManaged(!compact);
    }

    /** @param shown the bead whose page lies on the workbench */
    void show(Job job, Optional<String> shown, Texts texts) {
        id.setText(job.id());
        title.setText(job.title() + " · " + job.complaint());
        title.setWrapText(true);
        string.getChildren().clear();
        Optional<String> hand = job.inHand().map(Bead::id);
        for (Phase phase : Phase.values()) {
            List<Bead> beads = job.beads().stream().filter(b -> b.phase() == phase).toList();
            if (!beads.isEmpty()) {
                string.getChildren().add(group(phase, beads, hand, shown, texts));
            }
        }
    }

    /** There is no job yet. */
    void none(Texts texts) {
        id.setText(texts.get("app.title"));
        title.setText(texts.get("string.none"));
        string.getChildren().clear();
    }

    private VBox group(Phase phase, List<Bead> beads, Optional<String> hand, Optional<String> shown,
            Texts texts) {
        var row = new HBox(9);
        row.setAlignment(Pos.CENTER);
        for (Bead bead : beads) {
            boolean inHand = hand.equals(Optional.of(bead.id()));
            var button = Looks.as(new Button(), "bead");
            button.setId("bead-" + bead.id());
            button.setGraphic(Shapes.bead(bead, inHand));
            String name = texts.say("bead." + bead.id()) + ", "
                    + texts.say("report." + bead.state().name().toLowerCase(Locale.ROOT));
            button.setAccessibleText(name);
            button.setTooltip(new Tooltip(name));
            button.setOnAction(press -> open.accept(bead.id()));
            row.getChildren().add(button);
        }
        var wire = Looks.as(new Line(0, 0, 0, 0), "bead-wire");
        var stack = new StackPane(wire, row);
        stack.setMinHeight(26);
        wire.endXProperty().bind(stack.widthProperty().subtract(4));
        wire.setManaged(false);
        wire.startXProperty().set(4);
        wire.layoutYProperty().bind(stack.heightProperty().divide(2));
        Label name = new Label(texts.say("phase." + phase.name().toLowerCase(Locale.ROOT)));
        name.getStyleClass().add("phase");
        name.pseudoClassStateChanged(Looks.HERE,
                beads.stream().anyMatch(b -> shown.or(() -> hand).equals(Optional.of(b.id()))));
        var group = new VBox(2, stack, name);
        group.setAlignment(Pos.CENTER);
        HBox.setHgrow(group, Priority.ALWAYS);
        return group;
    }
}
