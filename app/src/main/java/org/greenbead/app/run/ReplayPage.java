package org.greenbead.app.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.RunState;
import org.greenbead.core.run.Verdict;
import org.greenbead.store.RunEntry;
import org.greenbead.store.RunLog;

/** A kept run, played through the engine again and shown at any moment of it. */
public final class ReplayPage extends Page {
    private static final double TICK_S = 0.05;
    private static final double STEP_S = 5;
    private final Desk desk;
    private final Navigator go;
    private final RunEntry entry;
    private final Keeper keeper;
    private final RunHistory history = new RunHistory();
    private final Label title = Looks.label("", "now");
    private final Label about = Looks.label("", "next");
    private final Label said = Looks.note("said");
    private final Dials dials = new Dials();
    private final Slider slider = new Slider(0, 1, 0);
    private final VBox page;
    private final Timeline play;
    private Optional<RunPlan> plan = Optional.empty();
    private double atS;

    /** A log read and played. */
    private record Played(RunLog log, List<RunState> states, RunPlan plan, Verdict verdict) {}

    public ReplayPage(Desk desk, Navigator go, RunEntry entry) {
        this.desk = desk;
        this.go = go;
        this.entry = entry;
        Texts texts = desk.texts();
        said.setId("replay-said");
        keeper = new Keeper(desk, said);
        title.setId("replay-title");
        title.setText(entry.jobId() + " · " + entry.recipe());
        var head = Looks.as(new VBox(2, Looks.label(texts.get("replay.caps"), "caps"), title, about, said),
                "instruction");
        slider.setId("replay-slider");
        slider.setFocusTraversable(false);
        HBox.setHgrow(slider, Priority.ALWAYS);
        var acts = new HBox(10, slider,
                act("replay-csv", texts.get("verdict.csv") + "  E", () -> keeper.csv(entry)),
                act("replay-pdf", texts.get("verdict.pdf") + "  P", () -> keeper.pdf(entry)),
                act("replay-calibrate", texts.get("verdict.calibrate"), () -> go.calibrate(entry)));
        acts.setAlignment(Pos.CENTER_LEFT);
        page = Looks.as(new VBox(head, dials, acts), "page");
        VBox.setVgrow(dials, Priority.ALWAYS);
        slider.valueProperty().subscribe(v -> {
            if (Math.abs(v.doubleValue() - atS) > 1e-6) {
                show(v.doubleValue());
            }
        });
        play = new Timeline(new KeyFrame(Duration.seconds(TICK_S),
                t -> show(atS + TICK_S * Math.max(10, desk.settings().speed().get()))));
        play.setCycleCount(Animation.INDEFINITE);
        backWord(texts.get("place.ledger"));
        desk.compute(this::readAndPlay, this::loaded);
    }

    private Played readAndPlay() {
        try {
            RunLog log = RunLog.read(desk.ledger().logFile(entry), desk.files());
            var states = new ArrayList<RunState>();
            var engine = log.replay(Optional.empty(), states::add);
            return new Played(log, states, engine.plan(), engine.verdict());
        } catch (org.greenbead.store.BadFileException e) {
            desk.trouble(desk.texts().get("ledger.bad", e.getMessage()));
            throw new IllegalStateException(e.getMessage(), e);
        }
    }

    private void loaded(Played played) {
        Texts texts = desk.texts();
        history.setAll(played.states());
        plan = Optional.of(played.plan());
        about.setText(entry.chip() + " · "
                + texts.say("verdict.outcome." + played.verdict().outcome().name().toLowerCase(Locale.ROOT))
                + " · " + texts.get("replay.step")
                + (played.log().torn() ? " · " + texts.get("replay.torn") : ""));
        slider.setMax(Math.max(1, played.log().lengthS()));
        show(played.log().lengthS() * 0.9);
    }

    private void show(double timeS) {
        if (plan.isEmpty() || history.size() == 0) {
            return;
        }
        double end = slider.getMax();
        atS = Math.clamp(timeS, 0, end);
        if (atS >= end) {
            play.stop();
        }
        slider.setValue(atS);
        int index = history.at(atS);
        RunState state = history.get(index);
        dials.compact(Looks.compact(desk.settings().textPercent().get()));
        dials.show(plan.get(), state, history, index + 1, Optional.empty(), desk.texts());
        findings(state.findings().stream().map(Finding::past).toList());
        clock(Words.clock(atS));
        pedalNow();
    }

    private void pedalNow() {
        Texts texts = desk.texts();
        boolean over = atS >= slider.getMax() - 1e-6;
        int speed = Math.max(10, desk.settings().speed().get());
        if (play.getStatus() == Animation.Status.RUNNING) {
            pedal(new Pedal(texts.get("replay.pause"), texts.get("replay.pause.so", Words.clock(atS)), true,
                    () -> {
                        play.pause();
                        pedalNow();
                    }));
        } else if (over) {
            pedal(new Pedal(texts.get("replay.again"), texts.get("replay.again.so"), true, () -> {
                show(0);
                play.play();
                pedalNow();
            }));
        } else {
            pedal(new Pedal(texts.get("replay.play"), texts.get("replay.play.so", Words.clock(atS), speed),
                    true, () -> {
                        play.play();
                        pedalNow();
                    }));
        }
    }

    private static Button act(String id, String word, Runnable action) {
        var button = Looks.as(new Button(word), "act");
        button.setId(id);
        button.setMinWidth(Region.USE_PREF_SIZE);
        button.setOnAction(press -> action.run());
        return button;
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        go.ledger();
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        switch (code) {
            case LEFT -> show(atS - STEP_S);
            case RIGHT -> show(atS + STEP_S);
            case HOME -> show(0);
            case END -> show(slider.getMax());
            case ESCAPE -> go.ledger();
            case E -> keeper.csv(entry);
            case P -> keeper.pdf(entry);
            case C -> go.calibrate(entry);
            default -> {
                return false;
            }
        }
        return true;
    }

    @Override
    public void dispose() {
        play.stop();
    }
}
