package org.greenbead.app.work;

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
import org.greenbead.core.cue.IronPasses;
import org.greenbead.core.record.Kept;

/** Times an iron on pads by the pedal: a tick each second, a call when it lingers, and the longest pass goes into the job by itself. */
public final class IronPage extends Page {
    private static final double BEAT_MS = 50;
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final String beadId;
    private final IronPasses iron;
    private final Label now = Looks.label("", "now");
    private final Label caution = Looks.label("", "caution");
    private final Label seconds = Looks.as(new Label(), "far-digits");
    private final Label passes = Looks.label("", "text-ink", "strong");
    private final LifeBar bar = new LifeBar();
    private final Timeline beat = new Timeline();
    private final VBox page;
    private int ticked;
    private boolean called;

    public IronPage(Desk desk, JobModel model, Navigator go, String beadId) {
        this.desk = desk;
        this.model = model;
        this.go = go;
        this.beadId = beadId;
        Texts texts = desk.texts();
        iron = new IronPasses(
                IronPasses.mostS(model.judgedProperty().get().look().evidence().facts(), desk.book(),
                        desk.limits()));
        now.setId("iron-now");
        seconds.setId("iron-seconds");
        passes.setId("iron-passes");
        caution.setText(texts.get("iron.caution"));
        var head = Looks.as(new VBox(4, Looks.label(texts.get("iron.caps"), "caps"), now, caution),
                "instruction");
        var middle = Looks.as(new VBox(18, seconds, bar, passes), "far");
        middle.setAlignment(Pos.CENTER);
        VBox.setVgrow(middle, Priority.ALWAYS);
        page = Looks.as(new VBox(head, middle, Looks.label(texts.get("iron.keys"), "muted", "small")),
                "page");
        backWord(texts.get("key.back"));
        beat.getKeyFrames().setAll(new KeyFrame(Duration.millis(BEAT_MS), tick -> show()));
        beat.setCycleCount(Timeline.INDEFINITE);
        beat.play();
        show();
    }

    private double nowS() {
        return desk.clock().instant().toEpochMilli() / 1000.0;
    }

    private void press() {
        iron.press(nowS());
        ticked = 0;
        called = false;
        desk.cues().play(Cues.Cue.TICK);
        show();
    }

    private void show() {
        Texts texts = desk.texts();
        double s = nowS();
        double on = iron.thisS(s);
        boolean over = iron.part(s) > 1;
        if (iron.down() && (int) on > ticked) {
            ticked = (int) on;
            desk.cues().play(over ? Cues.Cue.URGENT : Cues.Cue.TICK);
        }
        if (over && !called) {
            called = true;
            desk.cues().play(Cues.Cue.URGENT);
        }
        seconds.setText(texts.get("iron.seconds", tenths(on)));
        seconds.pseudoClassStateChanged(Looks.BAD, over);
        bar.show(iron.part(s), over);
        now.setText(
                texts.get(over ? "iron.lift" : iron.down() ? "iron.on" : "iron.ready", tenths(iron.mostS())));
        passes.setText(texts.get("iron.passes", iron.passes(), tenths(iron.longestS()), iron.tooLong()));
        Pedal next = new Pedal(texts.get(iron.down() ? "iron.up" : "iron.down"),
                texts.get(iron.down() ? "iron.up.so" : "iron.down.so"), true, this::press);
        if (!pedalProperty().get().word().equals(next.word())) {
            pedal(next);
        }
    }

    private static String tenths(double value) {
        return String.format(java.util.Locale.ROOT, "%.1f", value);
    }

    /** The longest pass, where the rules look for it; a longer one that is on record stays. */
    private void leave() {
        if (iron.down()) {
            iron.press(nowS());
        }
        if (iron.passes() > 0) {
            Kept record = model.job().records("iron").stream().findFirst()
                    .orElseGet(() -> model.fresh("iron"));
            double was = record.number("dwell_s");
            double longest = Math
                    .round(Double.isNaN(was) ? iron.longestS() * 10 : Math.max(was, iron.longestS()) * 10)
                    / 10.0;
            model.note(record.with("dwell_s", longest, desk.clock().instant(),
                    desk.settings().technician().get()));
        }
        go.bead(beadId);
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
        beat.stop();
    }
}
