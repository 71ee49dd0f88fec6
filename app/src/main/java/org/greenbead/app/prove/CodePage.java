package org.greenbead.app.prove;

import java.nio.file.Path;
import java.util.List;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Drops;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Rows;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.account.BlinkCodes;
import org.greenbead.core.lines.CodeTable;
import org.greenbead.core.lines.Tapping;
import org.greenbead.core.proof.RailRound;
import org.greenbead.core.record.Kept;

/** A blink code, counted by following the lamp with the pedal, and looked up in the table that the user keeps of the board. */
public final class CodePage extends Leaf {
    private static final String TYPE = "baseline";
    private static final Duration BEAT = Duration.millis(100);
    private static final double LIT_S = 0.2;
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final Label title = Looks.label("", "now");
    private final Label says = Looks.label("", "next");
    private final Label meaning = Looks.label("", "big");
    private final Label said = Looks.note("muted");
    private final BlinkStrip strip = new BlinkStrip(this::tap);
    private final Button keep;
    private final Rows<CodeTable.Meaning> rows;
    private final Timeline beat = new Timeline();
    private CodeTable table = new CodeTable(List.of());
    private Tapping tapping = Tapping.NONE;
    private boolean kept;
    private final boolean after;

    public CodePage(Desk desk, JobModel model, Navigator go) {
        super(go::proofs, desk.texts().get("code.back"));
        this.desk = desk;
        this.model = model;
        this.go = go;
        after = RailRound.afterTheWork(model.job());
        Texts texts = desk.texts();
        title.setId("code-title");
        says.setId("code-says");
        meaning.setId("code-meaning");
        said.setId("code-note");
        keep = button("code-keep", texts.get("code.keep.key"), this::keep);
        var acts = new HBox(8, keep, button("code-silent", texts.get("code.silent"), this::silent),
                button("code-again", texts.get("code.again"), this::anew));
        var lamp = Looks.as(new VBox(10, strip, meaning, acts), "card");
        VBox.setVgrow(strip, Priority.ALWAYS);
        HBox.setHgrow(lamp, Priority.ALWAYS);
        rows = new Rows<>("code-rows", m -> "row-" + m.code(), this::row, (m, press) -> {
        });
        VBox.setVgrow(rows, Priority.ALWAYS);
        var side = Looks.as(
                new VBox(6, Looks.label(texts.get("code.table", model.job().board()), "caps"), rows), "card");
        side.setPrefWidth(330);
        side.setMinWidth(240);
        var middle = new HBox(10, lamp, side);
        VBox.setVgrow(middle, Priority.ALWAYS);
        var head = Looks.as(new VBox(2, Looks.label(texts.get("code.caps"), "caps"), title, says),
                "instruction");
        VBox page = Looks.as(
                new VBox(head, middle, said, Looks.label(texts.get("code.keys"), "muted", "small")),
                "page");
        lay(page);
        Drops.onto(page, this::take);
        noteWord(texts.get("code.choose"));
        watch(model.findingsProperty().subscribe(this::findings));
        String board = model.job().board();
        desk.io(() -> desk.ledger().tables().codes(board), found -> found.ifPresent(this::known),
                this::failed);
        beat.getKeyFrames().setAll(new KeyFrame(BEAT, tick -> show()));
        beat.setCycleCount(Animation.INDEFINITE);
        show();
    }

    private static Button button(String id, String word, Runnable does) {
        var button = Looks.as(new Button(word), "act", "small");
        button.setId(id);
        button.setFocusTraversable(false);
        button.setOnAction(press -> does.run());
        return button;
    }

    private double nowS() {
        return desk.clock().millis() / 1e3;
    }

    private void tap() {
        if (kept) {
            tapping = Tapping.NONE;
            kept = false;
        }
        said.setText("");
        tapping = tapping.tapped(nowS());
        beat.play();
        show();
    }

    private void anew() {
        tapping = Tapping.NONE;
        kept = false;
        said.setText("");
        show();
    }

    private void known(CodeTable found) {
        table = found;
        show();
    }

    private void failed(Throwable error) {
        said.setText(String.valueOf(error.getMessage()));
    }

    private void take(Path file) {
        said.setText("");
        String board = model.job().board();
        desk.io(() -> desk.ledger().tables().takeCodes(board, file), this::known, this::failed);
    }

    private void choose() {
        Texts texts = desk.texts();
        desk.picker()
                .file(node().getScene().getWindow(), texts.get("code.choose"), texts.get("code.kinds"),
                        "*.csv",
                        "*.txt")
                .ifPresent(this::take);
    }

    private void show() {
        Texts texts = desk.texts();
        double now = nowS();
        List<Double> taps = tapping.tapsS();
        boolean over = tapping.over(now);
        strip.show(tapping, now, !taps.isEmpty() && now - taps.getLast() < LIT_S);
        rows.show(table.rows());
        keep.setDisable(taps.isEmpty() || tapping.differs() || kept);
        if (taps.isEmpty()) {
            title.setText(texts.get("code.title"));
            says.setText(table.rows().isEmpty() ? texts.get("code.table.none") : texts.get("code.tap.so"));
            meaning.setText("");
        } else {
            CodeTable.Reading reading = table.read(tapping);
            List<String> may = tapping.mayBe();
            title.setText(may.size() > 1 && reading.told() == CodeTable.Told.UNKNOWN
                    ? texts.get("code.title.or", may.get(0), may.get(1))
                    : texts.get("code.title.counted", reading.code()));
            says.setText(tapping.differs()
                    ? texts.get("code.differs")
                    : !over && !kept
                            ? texts.get("code.waiting")
                            : tapping.agreeing() > 1
                                    ? texts.get("code.following", tapping.agreeing())
                                    : texts.get("code.following.once"));
            meaning.setText(told(reading, texts));
            table.rows().stream().filter(reading.meanings()::contains).findFirst().ifPresent(rows::choose);
        }
        if (over || kept) {
            beat.stop();
        }
        pedalNow(over, texts);
    }

    private void pedalNow(boolean over, Texts texts) {
        if (kept) {
            pedal(new Pedal(texts.get("code.done"), texts.get("code.done.so"), true, go::proofs));
        } else if (over && !tapping.differs()) {
            pedal(Pedal.stating(texts.get("code.keep", table.read(tapping).code()),
                    texts.get(after ? "code.keep.after" : "code.keep.so"),
                    this::keep));
        } else {
            pedal(new Pedal(texts.get("code.tap"), texts.get("code.tap.so"), true, this::tap));
        }
    }

    private static String told(CodeTable.Reading reading, Texts texts) {
        return switch (reading.told()) {
            case SOURCED -> texts.get("code.said.sourced", reading.meanings().getFirst().meaning(),
                    reading.provenance());
            case UNSOURCED -> texts.get("code.said.unsourced", reading.meanings().getFirst().meaning());
            case CONTRADICTED -> texts.get("code.said.contradicted", reading.meanings().size());
            case UNKNOWN -> texts.get("code.said.unknown");
        };
    }

    private void keep() {
        if (!keep.isDisabled()) {
            CodeTable.Reading reading = table.read(tapping);
            keep(reading.code(), reading.provenance());
        }
    }

    /** No blink at all is a reading too, and another one than none that was taken. */
    private void silent() {
        tapping = Tapping.NONE;
        keep(BlinkCodes.NONE, "");
    }

    /** With the unit as it came in, who says what the code means beside it; or, once the chip was lifted, as it is now. */
    private void keep(String code, String provenance) {
        Kept record = model.job().records(TYPE).stream().reduce((a, b) -> b)
                .orElseGet(() -> model.fresh(TYPE));
        String author = desk.settings().technician().get();
        record = record.with(after ? "codes_after" : "codes", code, desk.clock().instant(), author);
        if (!after) {
            record = record.with("code_provenance", provenance, desk.clock().instant(), author);
        }
        kept = true;
        model.note(record);
        Texts texts = desk.texts();
        said.setText(code.equals(BlinkCodes.NONE)
                ? texts.get(after ? "code.silent.after" : "code.silent.before")
                : provenance.isEmpty()
                        ? texts.get("code.kept", code)
                        : texts.get("code.kept.sourced", code, provenance));
        show();
    }

    private Region row(CodeTable.Meaning m) {
        Label code = Looks.label(m.code(), "mono", "strong", "text-ink");
        code.setMinWidth(Region.USE_PREF_SIZE);
        return new VBox(0, new HBox(10, code, Looks.label(m.meaning(), "text-ink")),
                Looks.label(m.source().isBlank() ? desk.texts().get("code.sourceless") : m.source(),
                        m.source().isBlank() ? "ink-amber" : "muted", "small"));
    }

    @Override
    public List<String> about() {
        return List.of("curve", "symptoms", "diagnosis");
    }

    @Override
    public void note() {
        choose();
    }

    @Override
    boolean key(KeyCode code) {
        switch (code) {
            case ENTER -> keep();
            case DIGIT0, NUMPAD0 -> silent();
            case Z -> anew();
            default -> {
                return false;
            }
        }
        return true;
    }

    @Override
    public void dispose() {
        beat.stop();
        super.dispose();
    }
}
