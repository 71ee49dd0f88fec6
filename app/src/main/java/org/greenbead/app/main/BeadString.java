package org.greenbead.app.main;

import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Line;
import org.greenbead.app.look.Looks;
import org.greenbead.app.look.Shapes;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.book.Phase;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Job;

/** The job's route, a bead a step, across the top. */
final class BeadString extends HBox {
    private final Label id = Looks.label("", "job-id");
    private final Label title = Looks.label("", "job-title");
    private final HBox string = new HBox();
    private final VBox names = new VBox(1);
    private final Button strands = Looks.as(new Button(), "strand-key");
    private final Consumer<String> open;
    private final Map<String, Button> buttons = new HashMap<>();
    private final Map<Phase, Label> groups = new EnumMap<>(Phase.class);
    private Optional<Shown> drawn = Optional.empty();

    /** All that the beads are drawn from: while it stays the same they stay, too. */
    private record Shown(List<Bead> beads, Optional<String> hand, Optional<String> here, Texts texts) {
        boolean likeRoute(Shown other) {
            return texts.equals(other.texts) && names(beads).equals(names(other.beads));
        }

        private static List<String> names(List<Bead> beads) {
            return beads.stream().map(b -> b.phase() + " " + b.id()).toList();
        }

        boolean likeBead(Shown other, Bead bead) {
            return beads.contains(bead) && hand.equals(Optional.of(bead.id())) == other.hand.equals(
                    Optional.of(bead.id()));
        }

        boolean isIn(Phase phase) {
            return beads.stream().anyMatch(b -> b.phase() == phase && here.equals(Optional.of(b.id())));
        }
    }

    BeadString(Consumer<String> open, Runnable chips) {
        this.open = open;
        getStyleClass().add("string-bar");
        id.setId("job-id");
        strands.setId("strand-key");
        strands.setMinWidth(Region.USE_PREF_SIZE);
        strands.setFocusTraversable(false);
        id.setWrapText(false);
        id.setMinWidth(Region.USE_PREF_SIZE);
        strands.setVisible(false);
        strands.managedProperty().bind(strands.visibleProperty());
        strands.setOnAction(press -> chips.run());
        var first = new HBox(8, id, strands);
        first.setAlignment(Pos.CENTER_LEFT);
        names.getChildren().addAll(first, title);
        names.setMinWidth(188);
        names.setPrefWidth(188);
        names.setMaxWidth(188);
        string.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(string, Priority.ALWAYS);
        setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(names, string);
    }

    void compact(boolean compact) {
        // Which job it is, and which chip of it, is never cut off.
        names.setMinWidth(compact ? Region.USE_PREF_SIZE : 188);
        names.setPrefWidth(compact ? Region.USE_COMPUTED_SIZE : 188);
        names.setMaxWidth(compact ? Region.USE_PREF_SIZE : 188);
        title.setVisible(!compact);
        title.setManaged(!compact);
    }

    /**
     * @param shown  the bead whose page lies on the workbench
     * @param family the job and its further chips; empty where it has but one
     */
    void show(Job job, Optional<String> shown, List<Job> family, Texts texts) {
        id.setText(job.id());
        strands.setText(family.isEmpty()
                ? texts.get("string.chips.one", job.target())
                : texts.get(job.strandOf().isEmpty() ? "string.chips" : "string.chips.strand", job.target(),
                        1 + family.stream().map(Job::id).toList()
                                .indexOf(job.id()),
                        family.size()));
        strands.setVisible(true);
        title.setText(job.title() + " · " + job.complaint());
        title.setWrapText(true);
        Optional<String> hand = job.inHand().map(Bead::id);
        var now = new Shown(job.beads(), hand, shown.or(() -> hand), texts);
        if (drawn.filter(before -> before.likeRoute(now)).isEmpty()) {
            lay(now);
        }
        groups.forEach((phase, name) -> name.pseudoClassStateChanged(Looks.HERE, now.isIn(phase)));
        for (Bead bead : now.beads()) {
            if (drawn.filter(before -> before.likeBead(now, bead)).isEmpty()) {
                fill(buttons.get(bead.id()), bead, now);
            }
        }
        drawn = Optional.of(now);
    }

    private void lay(Shown now) {
        drawn = Optional.empty();
        string.getChildren().clear();
        buttons.clear();
        groups.clear();
        for (Phase phase : Phase.values()) {
            List<Bead> beads = now.beads().stream().filter(b -> b.phase() == phase).toList();
            if (!beads.isEmpty()) {
                string.getChildren().add(group(phase, beads, now.texts()));
            }
        }
    }

    /** There is no job yet. */
    void none(Texts texts) {
        id.setText(texts.get("app.title"));
        title.setText(texts.get("string.none"));
        drawn = Optional.empty();
        strands.setVisible(false);
        string.getChildren().clear();
    }

    private void fill(Button button, Bead bead, Shown now) {
        button.setGraphic(Shapes.bead(bead, now.hand().equals(Optional.of(bead.id()))));
        String name = now.texts().say("bead." + bead.id()) + ", "
                + now.texts().say("report." + bead.state().name().toLowerCase(Locale.ROOT));
        button.setAccessibleText(name);
        Looks.tip(button, name);
    }

    private VBox group(Phase phase, List<Bead> beads, Texts texts) {
        var row = new HBox(9);
        row.setAlignment(Pos.CENTER);
        for (Bead bead : beads) {
            var button = Looks.as(new Button(), "bead");
            button.setId("bead-" + bead.id());
            button.setOnAction(press -> open.accept(bead.id()));
            buttons.put(bead.id(), button);
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
        groups.put(phase, name);
        var group = new VBox(2, stack, name);
        group.setAlignment(Pos.CENTER);
        HBox.setHgrow(group, Priority.ALWAYS);
        return group;
    }
}
