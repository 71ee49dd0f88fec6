package org.greenbead.app.work;

import java.util.List;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.chip.LookAlikes;
import org.greenbead.core.chip.StockChip;
import org.greenbead.core.route.Job;

/** Asks for the label of the chip in hand where another could be taken for it; nothing goes on until the right one was read. */
final class LabelGate extends VBox {
    private final Desk desk;
    private final JobModel model;
    private final Runnable changed;
    private final Line entry;
    private final Label said = Looks.note("said");
    private String part = "";
    private List<StockChip> mayBe = List.of();
    private List<StockChip> all = List.of();
    private List<StockChip> confused = List.of();
    private boolean answered;
    private Look look = Look.NOT_WANTED;

    /** Until the ledger has answered nobody knows whether another chip could be taken for this one. */
    private enum Look {
        NOT_WANTED, LOOKING, FAILED, DONE
    }

    private record InHouse(List<StockChip> chips, String part) {}

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
        look = Look.LOOKING;
        Job job = model.job();
        desk.io(() -> new InHouse(desk.ledger().chips(), desk.ledger().targetPart(job)),
                house -> {
                    look = Look.DONE;
                    all = house.chips();
                    part = house.part();
                    mayBe = LookAlikes.mayBe(job.id(), part, all);
                    confused = LookAlikes.confused(mayBe, all);
                    boolean ask = asks();
                    setVisible(ask);
                    setManaged(ask);
                    changed.run();
                }, failed -> {
                    look = Look.FAILED;
                    desk.explain(failed);
                    changed.run();
                });
    }

    /** Nothing is taken in hand yet: the label is wanted, or it is not known whether it is. */
    boolean waits() {
        return asks() || look == Look.LOOKING || look == Look.FAILED;
    }

    /** A label is asked for. */
    boolean asks() {
        return look == Look.DONE && !confused.isEmpty() && !answered;
    }

    /** What the pedal says while it waits. */
    Pedal pedal() {
        Texts texts = desk.texts();
        return asks()
                ? Pedal.shut(texts.get("work.label.pedal"), texts.get("work.label.pedal.so"))
                : look == Look.LOOKING
                        ? Pedal.shut(texts.get("work.label.looking"), texts.get("work.label.looking.so"))
                        : new Pedal(texts.get("work.label.failed"), texts.get("work.label.failed.so"), true,
                                this::again);
    }

    private void again() {
        begin(true);
        changed.run();
    }

    String question() {
        return desk.texts().get(mayBe.size() == 1 ? "work.label" : "work.label.which", part,
                String.join(", ", confused.stream().map(StockChip::label).limit(3).toList()));
    }

    /** The line takes the keyboard. */
    void open() {
        entry.open();
    }

    private void answer(String text) {
        Texts texts = desk.texts();
        LookAlikes.Answer answer = LookAlikes.answer(mayBe, text, all);
        said.setText(switch (answer) {
            case RIGHT -> "";
            case OTHER_CHIP -> texts.get("work.label.other", text.strip(),
                    String.join(", ", mayBe.stream().map(StockChip::label).toList()));
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
            model.said("label read", text.strip());
        } else {
            desk.cues().play(org.greenbead.app.shell.Cues.Cue.URGENT);
            entry.selectAll();
        }
        changed.run();
    }
}
