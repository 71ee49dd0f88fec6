package org.greenbead.app.work;

import java.util.List;
import java.util.Optional;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.chip.LookAlikes;
import org.greenbead.core.chip.StockChip;

/** Asks for the label of the chip in hand where another could be taken for it; nothing goes on until the right one was read. */
final class LabelGate extends VBox {
    private final Desk desk;
    private final JobModel model;
    private final Runnable changed;
    private final Line entry;
    private final Label said = Looks.note("said");
    private Optional<StockChip> wanted = Optional.empty();
    private List<StockChip> all = List.of();
    private List<StockChip> alike = List.of();
    private boolean answered;

    LabelGate(Desk desk, JobModel model, Runnable changed) {
        this.desk = desk;
        this.model = model;
        this.changed = changed;
        entry = new Line("label-line", desk.texts().get("work.label.prompt"));
        entry.setOnAction(enter -> answer(entry.getText()));
        said.setId("label-said");
        setSpacing(4);
        getChildren().addAll(entry, said);
        setVisible(false);
        setManaged(false);
    }

    /** Looks whether there is anything to ask. */
    void begin(boolean chipInHand) {
        if (!chipInHand) {
            return;
        }
        desk.io(() -> desk.ledger().chips(), chips -> {
            all = chips;
            String part = model.planProperty().get().map(p -> p.target().part()).orElse("");
            wanted = LookAlikes.wanted(model.job().id(), part, chips);
            alike = wanted.map(w -> LookAlikes.of(w, chips)).orElse(List.of());
            boolean ask = waits();
            setVisible(ask);
            setManaged(ask);
            changed.run();
        });
    }

    boolean waits() {
        return wanted.isPresent() && !alike.isEmpty() && !answered;
    }

    String question() {
        return desk.texts().get("work.label", wanted.map(StockChip::part).orElse(""),
                String.join(", ", alike.stream().map(StockChip::label).limit(3).toList()));
    }

    /** The line takes the keyboard. */
    void open() {
        entry.open();
    }

    private void answer(String text) {
        Texts texts = desk.texts();
        StockChip chip = wanted.orElseThrow();
        LookAlikes.Answer answer = LookAlikes.answer(chip, text, all);
        said.setText(switch (answer) {
            case RIGHT -> "";
            case OTHER_CHIP -> texts.get("work.label.other", text.strip(), chip.label());
            case UNKNOWN_LABEL -> texts.get("work.label.unknown", text.strip());
            case NO_LABEL -> texts.get("work.label.none", text.strip());
        });
        said.pseudoClassStateChanged(Looks.BAD, true);
        if (answer == LookAlikes.Answer.RIGHT) {
            answered = true;
            setVisible(false);
            setManaged(false);
            getScene().getRoot().requestFocus();
            desk.cues().play(org.greenbead.app.shell.Cues.Cue.TICK);
            model.said("label read", chip.label());
        } else {
            desk.cues().play(org.greenbead.app.shell.Cues.Cue.URGENT);
            entry.selectAll();
        }
        changed.run();
    }
}
