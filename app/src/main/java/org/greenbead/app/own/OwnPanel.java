package org.greenbead.app.own;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.DoubleConsumer;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.Line;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.board.Assumed;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Mark;
import org.greenbead.core.board.ProtectedPart;
import org.greenbead.core.kind.BoardKind;
import org.greenbead.core.kind.MappedJoint;
import org.greenbead.core.kind.PackageKind;
import org.greenbead.core.kind.PartKind;
import org.greenbead.core.quantity.Quantity;

/** Beside the drawing: how the board is built, what is chosen, and what of both is only assumed. */
final class OwnPanel extends VBox {
    /** What can be written of a chip. */
    enum Field {
        NAME, PART, AT, SIZE, PITCH, ALLOY, LENGTH
    }

    /** What a press here does. */
    record Acts(Consumer<BoardKind> build, DoubleConsumer thick, Consumer<PackageKind> built,
            Consumer<PartKind> part, Consumer<Mark.Kind> mark, BiConsumer<Field, String> write,
            Runnable map) {}

    private final Texts texts;
    private final Acts acts;
    private Optional<Line> first = Optional.empty();

    OwnPanel(Texts texts, Acts acts) {
        super(10);
        this.texts = texts;
        this.acts = acts;
    }

    /** The first line that can be written in takes the keyboard. */
    void first() {
        first.ifPresent(Line::open);
    }

    /** @param map of what is printed on the chosen chip, where there is one */
    void show(Board board, Optional<String> chosen, Optional<String> kind, Optional<BeadMap> map) {
        first = Optional.empty();
        Optional<Chip> chip = chosen.flatMap(board::chip);
        Optional<ProtectedPart> part = chosen
                .flatMap(c -> board.parts().stream().filter(p -> p.name().equals(c)).findFirst());
        getChildren().clear();
        chip.ifPresent(c -> getChildren().add(chip(c, kind, map)));
        part.ifPresent(p -> getChildren().add(part(p)));
        chosen.flatMap(board::mark).ifPresent(m -> getChildren().add(mark(m)));
        getChildren().addAll(build(board), assumed(board));
    }

    private VBox chip(Chip chip, Optional<String> kind, Optional<BeadMap> map) {
        var card = Looks.as(new VBox(5, Looks.label(texts.get("own.chosen", chip.name()), "caps")), "card");
        card.getChildren().addAll(field(Field.NAME, chip.name()), field(Field.PART, chip.part()),
                field(Field.SIZE, two(chip.sizeMm().xMm(), chip.sizeMm().yMm())),
                field(Field.AT, two(chip.centreMm().xMm(), chip.centreMm().yMm())),
                field(Field.PITCH, number(chip.joint().pitchMm())),
                field(Field.ALLOY, chip.joint().alloy().name()),
                Looks.label(texts.get("own.body", number(chip.bodyMm()), number(chip.joint().ballMm()),
                        texts.temp(chip.bodyLimitC())), "muted", "small"));
        map.filter(m -> m.sites().size() > 1).map(MappedJoint::of)
                .ifPresent(m -> card.getChildren().add(m.is(chip)
                        ? Looks.label(texts.get("own.map.is", m.balls()), "muted", "small")
                        : key("own-map", texts.get("own.map", m.balls(), number(m.pitchMm())), false,
                                acts.map)));
        card.getChildren().add(Looks.label(texts.get("own.kind"), "muted", "small"));
        var kinds = new FlowPane(5, 5);
        for (PackageKind k : PackageKind.shipped()) {
            kinds.getChildren().add(key("own-kind-" + k.id(), texts.say("packagekind." + k.id()),
                    kind.equals(Optional.of(k.id())), () -> acts.built.accept(k)));
        }
        card.getChildren().addAll(kinds, Looks.label(texts.get("own.no_chip"), "muted", "small"), parts(),
                marks(Optional.empty()));
        return card;
    }

    private VBox part(ProtectedPart part) {
        return Looks.as(new VBox(5, Looks.label(texts.get("own.chosen", part.name()), "caps"),
                Looks.label(texts.get("own.part", part.kind(), texts.temp(part.limitC())), "text-ink"),
                parts(), marks(Optional.empty())), "card");
    }

    private VBox mark(Mark mark) {
        var card = Looks.as(new VBox(5, Looks.label(texts.get("own.chosen", mark.name()), "caps"),
                Looks.label(texts.say("markkind." + mark.kind().key() + ".so"), "text-ink"),
                field(Field.NAME, mark.name()),
                field(Field.SIZE, two(mark.sizeMm().xMm(), mark.sizeMm().yMm())),
                field(Field.AT, two(mark.centreMm().xMm(), mark.centreMm().yMm()))), "card");
        if (mark.kind() == Mark.Kind.SCREW) {
            card.getChildren().add(field(Field.LENGTH, mark.lengthMm().map(OwnPanel::number).orElse("")));
        }
        card.getChildren().addAll(marks(Optional.of(mark.kind())), parts());
        return card;
    }

    private FlowPane marks(Optional<Mark.Kind> now) {
        var keys = new FlowPane(5, 5);
        for (Mark.Kind k : Mark.Kind.values()) {
            keys.getChildren()
                    .add(key("own-mark-" + k.key().replace('_', '-'), texts.say("markkind." + k.key()),
                            now.equals(Optional.of(k)), () -> acts.mark.accept(k)));
        }
        return keys;
    }

    private FlowPane parts() {
        var keys = new FlowPane(5, 5);
        for (PartKind k : PartKind.values()) {
            String word = k.name().toLowerCase(Locale.ROOT);
            keys.getChildren().add(key("own-part-" + word, texts.say("partkind." + word), false,
                    () -> acts.part.accept(k)));
        }
        return keys;
    }

    private VBox build(Board board) {
        var card = Looks.as(new VBox(5, Looks.label(texts.get("own.build"), "caps")), "card");
        card.getChildren().add(Looks.label(texts.get("own.build.now", number(board.sizeMm().xMm()),
                number(board.sizeMm().yMm()), number(board.thicknessMm()), board.copperLayers()),
                "text-ink"));
        boolean open = board.assumed().contains(Assumed.THICKNESS)
                || board.assumed().contains(Assumed.COPPER);
        if (open) {
            var kinds = new VBox(4);
            var compare = new HBox(10, BuildPicture.card(),
                    Looks.label(texts.get("own.build.card"), "muted", "small"));
            compare.setAlignment(Pos.CENTER_LEFT);
            compare.setPadding(new Insets(0, 0, 0, 9));
            kinds.getChildren().add(compare);
            for (BoardKind k : BoardKind.shipped()) {
                boolean on = k.copperLayers() == board.copperLayers()
                        && k.kThroughWPerMK() == board.kThroughWPerMK()
                        && k.copperCoverage() == board.copperCoverage();
                Button build = key("own-build-" + k.id(), texts.say("boardkind." + k.id()), on,
                        () -> acts.build.accept(k));
                build.setGraphic(BuildPicture.of(k));
                build.setGraphicTextGap(10);
                build.setAlignment(Pos.CENTER_LEFT);
                build.setMaxWidth(Double.MAX_VALUE);
                build.setWrapText(true);
                kinds.getChildren().add(build);
            }
            card.getChildren().add(kinds);
        }
        var line = new Line("own-thickness", texts.get("own.thick.prompt"));
        line.setOnAction(enter -> {
            try {
                acts.thick.accept(Double.parseDouble(line.getText().strip().replace(',', '.')));
            } catch (NumberFormatException e) {
                line.selectAll();
            }
        });
        card.getChildren().add(row(texts.get("own.thick"), line));
        return card;
    }

    private VBox assumed(Board board) {
        var card = Looks.as(new VBox(3, Looks.label(texts.get("own.assumed"), "caps")), "card");
        card.setId("own-assumed");
        List<String> all = board.assumed();
        if (all.isEmpty()) {
            card.getChildren().add(Looks.label(texts.get("own.assumed.none"), "muted", "small"));
        }
        for (String one : all) {
            card.getChildren().add(Looks.label(texts.words().say("assumed." + Assumed.what(one),
                    new Quantity.Name(Assumed.chip(one))), "ink-amber", "small"));
        }
        return card;
    }

    private HBox field(Field field, String value) {
        String word = field.name().toLowerCase(Locale.ROOT);
        var line = new Line("own-" + word, texts.say("own.field." + word));
        line.setText(value);
        line.setOnAction(enter -> acts.write.accept(field, line.getText().strip()));
        if (first.isEmpty()) {
            first = Optional.of(line);
        }
        return row(texts.say("own.field." + word), line);
    }

    private static HBox row(String name, Line line) {
        Label label = Looks.label(name, "muted", "small");
        label.setMinWidth(92);
        label.setPrefWidth(92);
        HBox.setHgrow(line, Priority.ALWAYS);
        return Looks.as(new HBox(label, line), "own-row");
    }

    private static Button key(String id, String words, boolean on, Runnable press) {
        var button = Looks.as(new Button(words), "act", "small");
        button.setId(id);
        button.pseudoClassStateChanged(Looks.ON, on);
        button.setFocusTraversable(false);
        button.setOnAction(p -> press.run());
        return button;
    }

    private static String number(double mm) {
        return mm == Math.rint(mm)
                ? Long.toString((long) mm)
                : String.format(Locale.ROOT, "%.2f", mm).replaceAll("0$", "");
    }

    private static String two(double a, double b) {
        return number(a) + " x " + number(b);
    }
}
