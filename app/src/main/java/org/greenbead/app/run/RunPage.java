package org.greenbead.app.run;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import javafx.util.Subscription;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Cues;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Lessons;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.board.Side;
import org.greenbead.core.book.NotKnown;
import org.greenbead.core.book.Noticed;
import org.greenbead.core.book.Wording;
import org.greenbead.core.calibrate.SightFit;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.finding.Remedy;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.forming.Act;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Strands;
import org.greenbead.core.run.AfterRun;
import org.greenbead.core.run.Coaching;
import org.greenbead.core.run.ProbeView;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.Room;
import org.greenbead.core.run.RunEvent;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.RunState;
import org.greenbead.core.run.Say;
import org.greenbead.core.run.Sight;
import org.greenbead.core.run.SimulatedBench;
import org.greenbead.core.run.Verdict;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.store.RunEntry;
import org.greenbead.store.RunLog;

/** The run: what to do now, what comes next, and the numbers. Everything is one key or the pedal. */
public final class RunPage extends Page implements RunDriver.Listener {
    private static final Duration REDRAW = Duration.millis(50);
    private static final double TRY_S = 92;
    /** Half a degree more or less turns a whole one over; under three quarters the digits would only flicker, K. */
    private static final double SEEN_K = 0.75;
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final Consumer<RunPage> changed;
    private final RunDriver driver;
    private final RunPlan plan;
    private final RunHistory history = new RunHistory();
    private final Label now = Looks.label("", "now");
    private final Label next = Looks.label("", "next");
    private final Label caution = Looks.label("", "caution");
    private final Label said = Looks.label("", "said");
    private final TextField note = Looks.as(new TextField(), "text-line");
    private final Dials dials = new Dials();
    private final Optional<FormingPane> forming;
    private final Label sight = Looks.label("", "sight", "small");
    private final FlowPane sights = Looks.as(new FlowPane(8, 4), "sights");
    private final FlowPane simulated = Looks.as(new FlowPane(10, 4), "sim");
    private final Label farNow = Looks.label("", "far-now");
    private final Label farDigits = new Label();
    private final Label farUnit = new Label();
    private final Label farStage = Looks.label("", "far-stage");
    private final VBox far;
    private final StackPane page;
    private final Set<String> heard = new HashSet<>();
    private final Subscription watching;
    private final Timeline redraw;
    private RunPlan running;
    private Optional<RunState> state = Optional.empty();
    private boolean started;
    private boolean dirty;
    private boolean takingUp;
    /** Began before this program was started. */
    private boolean resumed;
    private Optional<Rehearsal> atStart = Optional.empty();
    private int heardStage = -1;
    private int heardCount = Integer.MAX_VALUE;
    private Side heatSide = Side.TOP;
    private Optional<Stage> tried = Optional.empty();

    public RunPage(Desk desk, JobModel model, Navigator go, RunPlan plan, Optional<Rehearsal> rehearsal,
            Consumer<RunPage> changed) {
        this.desk = desk;
        this.model = model;
        this.go = go;
        this.plan = plan;
        this.running = plan;
        this.changed = changed;
        Texts texts = desk.texts();
        now.setId("coach-now");
        next.setId("coach-next");
        said.setId("run-said");
        sight.setId("sight");
        note.setPromptText(texts.get("run.note.prompt"));
        note.setId("note-field");
        note.setOnAction(enter -> keepNote());
        hide(note, true);
        hide(said, true);
        var instruction = Looks.as(new VBox(now, next, caution, said, note), "instruction");
        buildSimulated(texts);
        forming = plan.forming().map(f -> new FormingPane(this::act));
        forming.ifPresent(dials::forming);
        buildSights(texts);
        var normal = Looks.as(new VBox(instruction, sights, dials, simulated), "page");
        forming.ifPresent(f -> normal.getChildren().add(1, f.line()));
        VBox.setVgrow(dials, Priority.ALWAYS);
        farDigits.getStyleClass().add("far-digits");
        farUnit.getStyleClass().add("far-unit");
        farDigits.setId("far-digits");
        var digits = new HBox(14, farDigits, farUnit);
        digits.setAlignment(Pos.BASELINE_LEFT);
        far = Looks.as(new VBox(farNow, digits, farStage), "far");
        far.setId("far-view");
        far.setVisible(false);
        page = new StackPane(normal, far);
        driver = new RunDriver(desk, plan, this);
        driver.speed(desk.settings().speed().get());
        // Played once for what is new, so that a page at rest draws nothing.
        redraw = new Timeline(new KeyFrame(REDRAW, tick -> drawIfNew()));
        watching = Subscription.combine(desk.settings().speed().subscribe(v -> driver.speed(v.intValue())),
                model.findingsProperty().subscribe(f -> {
                    renew();
                    pedalNow();
                }),
                model.judgedProperty().subscribe(j -> pedalNow()),
                model.jobProperty().subscribe(j -> pedalNow()),
                desk.settings().unit().subscribe(u -> renew()));
        backWord("");
        noteWord(texts.get("key.note"));
        clock("0:00");
    }

    /** What is seen at the chip, to press: the only instrument of a run that is led by eye. */
    private void buildSights(Texts texts) {
        sights.setId("sights");
        sights.getChildren().add(Looks.label(texts.get("run.sights"), "caps"));
        for (Sight sight : Sight.values()) {
            var button = Looks.as(new Button(6 + sight.ordinal() + "  " + texts.say(sight.word())), "act",
                    "small");
            button.setId("sight-" + sight.name().toLowerCase(java.util.Locale.ROOT));
            button.setMinWidth(Region.USE_PREF_SIZE);
            button.setFocusTraversable(false);
            button.setOnAction(press -> see(sight));
            sights.getChildren().add(button);
        }
        hide(sights, true);
    }

    private void see(Sight sight) {
        driver.saw(sight);
        tell(desk.texts().get("run.saw", desk.texts().say(sight.word()), clockProperty().get()), false);
    }

    private void buildSimulated(Texts texts) {
        Label head = Looks.label(texts.get("run.sim"), "caps");
        head.setMinWidth(Region.USE_PREF_SIZE);
        sight.setPrefWidth(320);
        simulated.getChildren().addAll(head, sight);
        if (plan.bench().probes().isEmpty()) {
            // There is nothing to pull off.
            return;
        }
        String probe = plan.bench().probes().getFirst().name();
        fault("sim-probe", "run.sim.probe", (b, on) -> b.breakProbe(probe, on), texts);
        fault("sim-freeze", "run.sim.freeze", (b, on) -> b.freezeProbe(probe, on), texts);
        fault("sim-cable", "run.sim.cable", SimulatedBench::dropLink, texts);
    }

    private void fault(String id, String word, java.util.function.BiConsumer<SimulatedBench, Boolean> cause,
            Texts texts) {
        var button = Looks.as(new Button(texts.get(word)), "act", "small");
        button.setId(id);
        button.setMinWidth(Region.USE_PREF_SIZE);
        button.setOnAction(press -> {
            boolean on = !Boolean.TRUE.equals(button.getUserData());
            button.setUserData(on);
            button.pseudoClassStateChanged(Looks.ON, on);
            driver.bench().ifPresent(b -> cause.accept(b, on));
        });
        simulated.getChildren().add(button);
    }

    private static void hide(Region node, boolean hidden) {
        node.setVisible(!hidden);
        node.setManaged(!hidden);
    }

    /** Shows the probes alive until it is started. */
    public RunPage waiting() {
        driver.idle();
        return this;
    }

    /** Goes on with a run that was left open. What was last known of its heat stands there at once, its past is played behind it. */
    public void resume(RunEntry left, RunLog log) {
        started = true;
        takingUp = true;
        resumed = true;
        Texts texts = desk.texts();
        double awayS = Math.max(0, java.time.Duration.between(left.startedAt(), desk.clock().instant())
                .toMillis() / 1000.0 - log.lengthS());
        now.setText(texts.get("run.taking"));
        next.setText(log.lastKnown()
                .map(k -> texts.get("run.taking.known", texts.temp(k.jointC()),
                        texts.rise((k.highC() - k.lowC()) / 2), Words.clock(k.timeS()), Words.clock(awayS)))
                .orElse(texts.get("run.taking.unknown", Words.clock(awayS))));
        log.lastKnown().ifPresent(k -> {
            farDigits.setText(texts.words().bare(k.jointC()));
            clock(Words.clock(k.timeS()));
        });
        hide(simulated, true);
        hide(caution, true);
        findings(List.of(Finding.of(org.greenbead.core.finding.Rule.RESUMED_AFTER_GAP, "run", Severity.CARE,
                new org.greenbead.core.quantity.Quantity.Seconds(awayS))));
        pedalNow();
        driver.resume(left, log, rehearsal());
    }

    /** Of this very plan, as soon as it is made. */
    private Optional<Rehearsal> rehearsal() {
        return atStart.or(() -> model.nextRun().filter(b -> b.id().equals(plan.bead()))
                .flatMap(b -> model.rehearsalProperty().get()));
    }

    private boolean calibrates() {
        return plan.task() == RunPlan.Task.CALIBRATE;
    }

    /** True from start to the end of the run. */
    public boolean going() {
        return started;
    }

    public Optional<RunState> state() {
        return state;
    }

    public String jobId() {
        return plan.job().id();
    }

    public RunPlan plan() {
        return running;
    }

    @Override
    public void states(List<RunState> states, RunPlan newPlan) {
        running = newPlan;
        for (RunState s : states) {
            if (started && s.status() != RunState.Status.READY) {
                history.add(s);
            }
            cue(s);
        }
        RunState last = states.getLast();
        boolean same = !started && state.filter(s -> looksTheSame(s, last)).isPresent();
        takingUp = false;
        if (!same) {
            state = Optional.of(last);
            renew();
        }
    }

    /** Before the start probes flicker by tenths; what nobody would see is not drawn again. */
    static boolean looksTheSame(RunState drawn, RunState now) {
        return drawn.status() == now.status() && drawn.linkUp() == now.linkUp()
                && drawn.coaching().equals(now.coaching()) && drawn.findings().equals(now.findings())
                && drawn.forming().equals(now.forming())
                && drawn.probes().keySet().equals(now.probes().keySet())
                && drawn.probes().entrySet().stream().allMatch(e -> {
                    ProbeView then = e.getValue();
                    ProbeView is = now.probes().get(e.getKey());
                    return then.health() == is.health()
                            && (Double.isNaN(then.celsius()) && Double.isNaN(is.celsius())
                                    || Math.abs(then.celsius() - is.celsius()) < SEEN_K);
                });
    }

    private void renew() {
        dirty = true;
        if (redraw.getStatus() != javafx.animation.Animation.Status.RUNNING) {
            redraw.playFromStart();
        }
    }

    @Override
    public void past(List<RunState> states, RunPlan of) {
        running = of;
        history.setAll(states);
    }

    @Override
    public void troubled(String message) {
        tell(message, true);
    }

    private void drawIfNew() {
        if (dirty && state.isPresent()) {
            dirty = false;
            draw(state.get());
            if (dirty) {
                // Something was renewed while it was drawn: the timeline is not over before its tick is.
                javafx.application.Platform.runLater(this::renew);
            }
        }
    }

    private void draw(RunState s) {
        Texts texts = desk.texts();
        Coaching coaching = s.coaching();
        now.setText(texts.say(coaching.now()));
        next.setText(texts.say(coaching.next()));
        caution.setText(coaching.caution().map(texts::say).orElse(""));
        hide(caution, coaching.caution().isEmpty());
        dials.compact(Looks.compact(desk.settings().textPercent().get()));
        dials.heat(heatSide, driver.heat(heatSide));
        dials.show(running, s, history, history.size(), rehearsal(), texts);
        hide(simulated, driver.bench().isEmpty());
        driver.bench().ifPresent(b -> sight.setText(texts.get("run.sim.eye", texts.say(b.sight()))));
        clock(started ? Words.clock(s.timeS()) : "0:00");
        hide(sights, !(started && s.standing().byEye() && s.status() == RunState.Status.HEATING
                && running.recipe().stages().get(s.stage()).purpose() == Stage.Purpose.PEAK));
        s.forming().ifPresent(f -> forming.ifPresent(p -> p.show(s, f, texts)));
        farNow.setText(texts.say(coaching.now()));
        Optional<Double> count = counting(s);
        farDigits.setText(count.map(left -> Long.toString(Math.round(left)))
                .orElseGet(() -> texts.words().bare(s.joint().celsius())));
        farUnit.setText(count.isPresent()
                ? "s"
                : texts.words().unit().sign() + "  ±"
                        + texts.rise(s.joint().plusMinusK()).replaceAll(" .*", ""));
        farStage.setText(running.recipe().stages().get(s.stage()).name() + "   " + Words.clock(s.timeS()));
        if (started) {
            findings(s.findings());
        } else {
            findings(model.findingsProperty().get());
        }
        pedalNow();
        changed.accept(this);
    }

    private void pedalNow() {
        Texts texts = desk.texts();
        if (!started) {
            backWord("");
            pedal(startPedal(texts));
            findings(model.findingsProperty().get());
            return;
        }
        if (takingUp || state.isEmpty()) {
            Texts words = desk.texts();
            pedal(Pedal.shut(words.get("run.taking.pedal"), words.get("run.taking.pedal.so")));
            return;
        }
        RunState s = state.get();
        Coaching c = s.coaching();
        String word = texts.say(c.pedalWord());
        String so = texts.say(c.consequence());
        if (c.act().isPresent()) {
            pedal(Pedal.stating(word, so, () -> driver.act(c.act().get())));
        } else if (c.sight().isPresent()) {
            pedal(Pedal.stating(word, so, () -> driver.saw(c.sight().get())));
        } else if (c.pedal().isPresent()) {
            pedal(Pedal.stating(word, so, () -> driver.say(c.pedal().get(), "")));
        } else {
            pedal(Pedal.shut(word, so));
        }
        backWord(s.status() == RunState.Status.HEATING && s.stage() > 0 ? texts.get("run.stage.back") : "");
    }

    private Pedal startPedal(Texts texts) {
        Optional<Bead> hand = model.job().inHand();
        if (!calibrates() && hand.isPresent() && !hand.get().id().equals(plan.bead())) {
            return new Pedal(texts.get("work.next", texts.say("bead." + hand.get().id())),
                    texts.get("work.next.so"), true, go::home);
        }
        if (model.thinkingProperty().get() || !model.looked()) {
            return Pedal.shut(texts.get("run.wait"), texts.get("run.wait.so"));
        }
        Optional<Finding> stop = model.stop();
        if (stop.isPresent()) {
            return Pedal.shut(texts.get("run.stopfirst", texts.say(stop.get().what())),
                    texts.get("run.stopfirst.so"));
        }
        Optional<Bead> gate = calibrates() ? Optional.empty() : model.job().gateBefore(plan.bead());
        if (gate.isPresent()) {
            String gateId = gate.get().id();
            return new Pedal(texts.get("work.next", texts.say("bead." + gateId)),
                    texts.get("work.gate", texts.say("bead." + gateId)), true, () -> go.bead(gateId));
        }
        Optional<Strands.Held> elsewhere = model.heldByItsJob(plan.bead());
        if (elsewhere.isPresent() && !calibrates()) {
            Strands.Held there = elsewhere.get();
            return new Pedal(
                    there.gate().map(b -> texts.get("strand.held", texts.say("bead." + b.id()), there.job()))
                            .orElse(texts.get("strand.lost", there.job())),
                    texts.get(there.gate().isPresent() ? "strand.held.so" : "strand.lost.so"), true,
                    go::strands);
        }
        List<Noticed> held = model.holding(plan.bead());
        if (!held.isEmpty()) {
            return Pedal.shut(texts.get("work.held", held.getFirst().rule().what()),
                    texts.get("work.held.so", new Wording(texts.words()).remedy(held.getFirst())));
        }
        List<NotKnown> unknown = model.unknown(plan.bead());
        if (!unknown.isEmpty()) {
            return Pedal.shut(texts.get("work.unknown.held", unknown.getFirst().rule().what()),
                    texts.get("work.find", unknown.getFirst().find()));
        }
        Optional<Act> first = state.flatMap(s -> s.coaching().act());
        return first.isPresent()
                ? Pedal.stating(texts.say(state.get().coaching().pedalWord()), texts.get("forming.begin.so"),
                        () -> act(first.get()))
                : Pedal.stating(texts.say("pedal.start"), texts.say("pedal.start.so"), this::start);
    }

    /** Something was done at the stencil; the first of it begins the log, once nothing holds it. */
    private void act(Act act) {
        if (!started) {
            if (!mayStart()) {
                return;
            }
            start();
        }
        driver.act(act);
    }

    private boolean mayStart() {
        return model.job().inHand().map(b -> b.id().equals(plan.bead())).orElse(true)
                && !model.thinkingProperty().get() && model.looked() && model.stop().isEmpty()
                && model.job().gateBefore(plan.bead()).isEmpty()
                && model.heldByItsJob(plan.bead()).isEmpty() && model.holding(plan.bead()).isEmpty()
                && model.unknown(plan.bead()).isEmpty();
    }

    private void start() {
        if (!started) {
            started = true;
            // A calibration run follows its own recipe, which nobody rehearsed for the job.
            atStart = calibrates() ? Optional.empty() : model.rehearsalProperty().get();
            driver.start(rehearsal());
        }
    }

    /** What is left of the count from the first ball, s, not under nothing; empty while none runs. */
    private static Optional<Double> counting(RunState s) {
        return s.status() == RunState.Status.HEATING
                ? s.forming().filter(f -> f.countS().isPresent())
                        .map(f -> Math.max(0, f.countS().getAsDouble()))
                : Optional.empty();
    }

    private void cue(RunState s) {
        if (!started) {
            return;
        }
        if (s.stage() != heardStage) {
            heardStage = s.stage();
            desk.cues().play(Cues.Cue.TICK);
        }
        counting(s).ifPresent(left -> {
            int whole = (int) Math.ceil(left);
            if (whole != heardCount) {
                heardCount = whole;
                desk.cues().play(whole > 0 ? Cues.Cue.TICK : Cues.Cue.TWO_TONE);
            }
        });
        for (Finding f : s.findings()) {
            if (heard.add(f.id())) {
                desk.cues().play(f.severity() == Severity.STOP ? Cues.Cue.URGENT : Cues.Cue.TWO_TONE);
            }
        }
        if (s.status() == RunState.Status.SAFE && heard.add("safe")) {
            desk.cues().play(Cues.Cue.TWO_TONE);
        }
    }

    @Override
    public void ended(RunEntry entry, RunPlan ran, List<RunEvent> told, Verdict verdict, RunState end) {
        started = false;
        if (!resumed || !AfterRun.held(model.job(), ran.bead(), entry.startedAt())) {
            model.runOver(ran, told, verdict, entry.simulated());
        }
        changed.accept(this);
        var page = new VerdictPage(desk, model, go, ran, entry, verdict, end, history);
        go.page(page, entry.jobId(), entry.bead());
        learn(entry, ran, told, end, page);
    }

    /** A run led by eye teaches its bench by what was seen; one on a simulated bench teaches no real one. */
    private void learn(RunEntry entry, RunPlan ran, List<RunEvent> told, RunState end, VerdictPage page) {
        if (!ran.bench().probes().isEmpty() || entry.simulated() && !desk.demo()
                || ran.forming().isPresent()) {
            return;
        }
        desk.background(() -> SightFit.fit(entry.id(), plan, end.marks(), told, () -> false),
                learned -> Lessons.keep(desk, ran.bench().id(), learned.calibration(), () -> {
                    page.taught(learned);
                    go.benchChanged(ran.bench().id());
                }), page::notTaught);
    }

    @Override
    public void failed(String messageKey, String detail) {
        started = false;
        tell(desk.texts().get(messageKey, detail), true);
        pedalNow();
        changed.accept(this);
    }

    private void tell(String text, boolean bad) {
        said.setText(text);
        said.pseudoClassStateChanged(Looks.BAD, bad);
        hide(said, false);
    }

    /** Said before the start. */
    public void remark(String text) {
        tell(text, false);
    }

    /** The window is about to close on a run. */
    public void warnLeaving() {
        tell(desk.texts().get("run.leave"), true);
    }

    @Override
    public boolean planned() {
        return !started;
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        if (started && state.isPresent() && state.get().status() == RunState.Status.HEATING) {
            driver.say(Say.BACK, "");
        }
    }

    @Override
    public void note() {
        hide(note, false);
        note.requestFocus();
    }

    private void keepNote() {
        String text = note.getText().strip();
        if (!text.isEmpty() && started) {
            driver.say(Say.NOTE, text.substring(0, Math.min(400, text.length())));
            tell(desk.texts().get("run.note.kept", clockProperty().get()), false);
        }
        note.clear();
        hide(note, true);
        page.requestFocus();
    }

    @Override
    public void remedy(Finding finding) {
        if (!started) {
            if (!model.remedy(finding)) {
                go.recipe(plan.bead());
            }
            return;
        }
        finding.remedy().ifPresent(r -> {
            switch (r) {
                case Remedy.SetHeater h -> driver.change(h.stage(),
                        running.recipe().stages().get(h.stage()).withHeater(Optional.of(h.celsius())));
                case Remedy.SetAir a -> driver.change(a.stage(),
                        running.recipe().stages().get(a.stage()).withAir(Optional.of(a.air())));
                case Remedy.SetEnd e ->
                    driver.change(e.stage(), running.recipe().stages().get(e.stage()).withEnd(e.end()));
                case Remedy.Attest a -> model.remedy(finding);
                case Remedy.Tell t -> {
                    switch (t.what()) {
                        case BOARD_IS_WARM -> driver.say(Say.BOARD_IS_WARM, "");
                    }
                }
                case Remedy.OpenRecipe o -> {
                    // Nothing to open while it is hot.
                }
            }
        });
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (code == KeyCode.F && !control) {
            far.setVisible(!far.isVisible());
            return true;
        }
        if (code == KeyCode.U && !control) {
            heatSide = heatSide == Side.TOP ? Side.BOTTOM : Side.TOP;
            renew();
            return true;
        }
        if (started && !control && tries(code)) {
            return true;
        }
        if (code == KeyCode.X && !control && started) {
            driver.say(Say.MOVED, "");
            return true;
        }
        if (code == KeyCode.H && control && started) {
            driver.say(Say.HEAT_OFF, "");
            return true;
        }
        if (code == KeyCode.B && control && started) {
            driver.say(Say.STOP, "");
            return true;
        }
        return false;
    }

    /** What is seen at the chip, each by its number. */
    private boolean sees(KeyCode code) {
        Optional<Sight> sight = switch (code) {
            case DIGIT6, NUMPAD6 -> Optional.of(Sight.FLUX_SHIMMERS);
            case DIGIT7, NUMPAD7 -> Optional.of(Sight.CORNER_SHINES);
            case DIGIT8, NUMPAD8 -> Optional.of(Sight.FIRST_BALL);
            case DIGIT9, NUMPAD9 -> Optional.of(Sight.FLOATS);
            default -> Optional.empty();
        };
        sight.ifPresent(this::see);
        return sight.isPresent();
    }

    /** Keys that ask what would come of a change, and the one that makes it. */
    private boolean tries(KeyCode code) {
        if (state.isEmpty() || state.get().status() != RunState.Status.HEATING) {
            return false;
        }
        if (sees(code)) {
            return true;
        }
        Stage stage = running.recipe().stages().get(state.get().stage());
        switch (code) {
            case PLUS, ADD, EQUALS -> tryHeater(stage, 15);
            case MINUS, SUBTRACT -> tryHeater(stage, -15);
            case UP -> tryAir(stage, 10);
            case DOWN -> tryAir(stage, -10);
            case A -> tried.ifPresent(t -> {
                driver.change(state.get().stage(), t);
                tried = Optional.empty();
                tell(desk.texts().get("run.try.set"), false);
            });
            default -> {
                return false;
            }
        }
        return true;
    }

    private void tryHeater(Stage stage, double by) {
        Stage from = tried.filter(t -> t.name().equals(stage.name())).orElse(stage);
        from.heaterC().map(c -> c + by)
                .filter(c -> c >= 30 && running.bench().heater().filter(h -> c <= h.maxC()).isPresent())
                .ifPresent(c -> tryOut(from.withHeater(Optional.of(c)),
                        desk.texts().get("run.try.heater", desk.texts().temp(c))));
    }

    private void tryAir(Stage stage, double by) {
        Stage from = tried.filter(t -> t.name().equals(stage.name())).orElse(stage);
        from.air().filter(a -> a.setC() + by >= 50 && a.setC() + by <= running.bench().air().maxC())
                .map(a -> new AirSetting(a.setC() + by, a.flowLpm(), a.nozzleMm(), a.distanceMm(),
                        a.circleMm()))
                .ifPresent(a -> tryOut(from.withAir(Optional.of(a)),
                        desk.texts().get("run.try.air", desk.texts().temp(a.setC()))));
    }

    /** Asks the estimate what the next ninety seconds bring, and says it; nothing is changed yet. */
    private void tryOut(Stage stage, String what) {
        tried = Optional.of(stage);
        Texts texts = desk.texts();
        driver.ahead(HeatInput.of(stage.heaterC(), stage.air()), TRY_S, a -> {
            Room least = a.rooms().stream().min(java.util.Comparator.comparingDouble(Room::leftAtPeakK))
                    .orElseThrow();
            tell(texts.get("run.try.says", what,
                    a.meltsInS().isPresent()
                            ? texts.get("run.try.melts", Words.clock(a.meltsInS().getAsDouble()))
                            : texts.get("run.try.joint", texts.temp(a.jointC()), Words.clock(a.seconds())),
                    texts.say(least.what()), texts.rise(least.leftAtPeakK())), least.leftAtPeakK() < 0);
        });
    }

    @Override
    public void dispose() {
        watching.unsubscribe();
        redraw.stop();
        driver.close();
    }
}
