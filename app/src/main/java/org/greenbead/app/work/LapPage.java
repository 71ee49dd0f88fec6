package org.greenbead.app.work;

import java.util.OptionalDouble;
import java.util.concurrent.atomic.AtomicBoolean;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import org.greenbead.app.look.LifeBar;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Cues;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.cue.NozzleLaps;
import org.greenbead.core.record.Kept;
import org.greenbead.core.run.LapRipple;

/** The circle of the nozzle, practised cold: each press of the pedal is a lap, held against the slowest that still heats evenly. */
public final class LapPage extends Page {
    private static final double BEAT_MS = 50;
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final String beadId;
    private final NozzleLaps laps = new NozzleLaps();
    private final Label now = Looks.label("", "now");
    private final Label seconds = Looks.as(new Label(), "far-digits");
    private final Label counted = Looks.label("", "text-ink", "strong");
    private final Label limit = Looks.label("", "muted");
    private final LifeBar bar = new LifeBar();
    private final Timeline beat = new Timeline();
    private final AtomicBoolean left = new AtomicBoolean();
    private final VBox page;
    private OptionalDouble mostS = OptionalDouble.empty();
    private boolean called;

    public LapPage(Desk desk, JobModel model, Navigator go, String beadId) {
        this.desk = desk;
        this.model = model;
        this.go = go;
        this.beadId = beadId;
        Texts texts = desk.texts();
        now.setId("laps-now");
        seconds.setId("laps-seconds");
        counted.setId("laps-counted");
        limit.setId("laps-limit");
        limit.setWrapText(true);
        var head = Looks.as(new VBox(4, Looks.label(texts.get("laps.caps"), "caps"), now, limit),
                "instruction");
        var middle = Looks.as(new VBox(18, seconds, bar, counted), "far");
        middle.setAlignment(Pos.CENTER);
        VBox.setVgrow(middle, Priority.ALWAYS);
        page = Looks.as(new VBox(head, middle, Looks.label(texts.get("laps.keys"), "muted", "small")),
                "page");
        backWord(texts.get("key.back"));
        pedal(new Pedal(texts.get("laps.round"), texts.get("laps.round.so"), true, this::press));
        beat.getKeyFrames().setAll(new KeyFrame(Duration.millis(BEAT_MS), tick -> show()));
        beat.setCycleCount(Timeline.INDEFINITE);
        beat.play();
        ask();
        show();
    }

    private void ask() {
        Texts texts = desk.texts();
        var plan = model.planProperty().get();
        if (plan.isEmpty()) {
            limit.setText(texts.get("laps.limit.none"));
            return;
        }
        limit.setText(texts.get("laps.limit.asking"));
        desk.background(() -> LapRipple.of(plan.get(), left::get), swings -> {
            mostS = LapRipple.mostS(swings);
            limit.setText(swings.isEmpty()
                    ? texts.get("laps.limit.none")
                    : mostS.isEmpty()
                            ? texts.get("laps.limit.never", texts.rise(swings.getFirst().jointK()))
                            : texts.get("laps.limit", tenths(mostS.getAsDouble()),
                                    texts.rise(LapRipple.SMOOTH_K), texts.rise(swings.getLast().jointK()),
                                    tenths(swings.getLast().lapS())));
            show();
        });
    }

    private double nowS() {
        return desk.clock().instant().toEpochMilli() / 1000.0;
    }

    private void press() {
        laps.press(nowS());
        called = false;
        desk.cues().play(Cues.Cue.TICK);
        show();
    }

    private void show() {
        Texts texts = desk.texts();
        double since = laps.sinceS(nowS());
        boolean over = mostS.isPresent() && since > mostS.getAsDouble();
        if (over && !called) {
            called = true;
            desk.cues().play(Cues.Cue.URGENT);
        }
        seconds.setText(texts.get("iron.seconds", tenths(since)));
        seconds.pseudoClassStateChanged(Looks.BAD, over);
        bar.show(mostS.isPresent() ? since / mostS.getAsDouble() : 0, over);
        now.setText(texts.get(over ? "laps.late" : laps.begun() ? "laps.on" : "laps.ready"));
        counted.setText(laps.laps() == 0
                ? texts.get("laps.counted.none")
                : texts.get("laps.counted", laps.laps(), tenths(laps.meanS()), tenths(laps.slowestS())));
    }

    private static String tenths(double value) {
        return String.format(java.util.Locale.ROOT, "%.1f", value);
    }

    /** What was practised last counts. */
    private void leave() {
        if (laps.laps() > 0) {
            Kept record = model.job().records("laps").stream().findFirst()
                    .orElseGet(() -> model.fresh("laps"));
            var at = desk.clock().instant();
            String by = desk.settings().technician().get();
            Kept with = record.with("count", (double) laps.laps(), at, by)
                    .with("mean_s", tenth(laps.meanS()), at, by)
                    .with("slowest_s", tenth(laps.slowestS()), at, by);
            model.note(mostS.isPresent() ? with.with("most_s", mostS.getAsDouble(), at, by) : with);
        }
        go.bead(beadId);
    }

    private static double tenth(double seconds) {
        return Math.round(seconds * 10) / 10.0;
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        leave();
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (!control && code == KeyCode.ESCAPE) {
            leave();
            return true;
        }
        return false;
    }

    @Override
    public void dispose() {
        left.set(true);
        beat.stop();
    }
}
