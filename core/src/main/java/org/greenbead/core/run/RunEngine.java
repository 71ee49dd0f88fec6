package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.ToDoubleFunction;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.finding.Remedy;
import org.greenbead.core.finding.Rule;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.forming.Judged;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.thermal.HeatField;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.HeatModel;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;

/**
 * The state machine of a run. Events go in one by one, in order of time; the state can be asked for after each. It reads no
 * clock, so a log played through it gives the same states and findings as the run that wrote it.
 */
public final class RunEngine {
    private static final double LOOK_AHEAD_EVERY_S = 4;
    private static final double LOOK_AHEAD_STEP_S = 4;
    private static final double LOOK_AHEAD_S = 240;
    /** How far ahead a part is looked after, s, and how long the heat stays on after the melt. */
    private static final double EARLY_S = 48;
    private static final double AFTER_MELT_S = 8;
    private static final double SOFT_WINDOW_S = 10;
    private static final long ESTIMATOR_SEED = 4_17;

    private final RunPlan original;
    private final JointEstimator estimator;
    private final Optional<Rehearsal> rehearsal;
    private final Optional<SwapWatch> swaps;
    private final Map<String, ProbeWatch> probes = new LinkedHashMap<>();
    private final Map<String, PlateauHint> plateaus = new LinkedHashMap<>();
    private final List<Protected> guarded;
    private final double[] guardedPeakC;
    private final Trace jointTrace = new Trace();
    private final List<StageMark> marks = new ArrayList<>();
    private final Map<String, Finding> raised = new LinkedHashMap<>();
    private final RunRules rules = new RunRules();
    private final Coach coach;
    private final Optional<BallLine> balls;
    private final Alloy alloy;
    private RunPlan plan;
    private RunState.Status status = RunState.Status.READY;
    private boolean started;
    private double timeS;
    private double stageStartS;
    private double settingsChangedS;
    private double reachedSinceS = Double.NaN;
    private int stage;
    private boolean linkUp = true;
    private boolean nudged;
    private int doubtedNudges;
    private boolean estimateShowedMelt;
    private boolean jointProbeShowedMelt;
    private boolean everMolten;
    private double aboveS;
    private double peakJointC = Double.NEGATIVE_INFINITY;
    private double peakTopC = Double.NEGATIVE_INFINITY;
    private double lookedS = Double.NEGATIVE_INFINITY;
    private OptionalDouble meltsAtS = OptionalDouble.empty();
    private OptionalDouble safeAtS = OptionalDouble.empty();
    private boolean brokenOff;
    private double firstMeltS = Double.NaN;
    private List<Finding> early = List.of();

    private RunEngine(RunPlan plan, JointEstimator estimator, Optional<Rehearsal> rehearsal,
            Optional<SwapWatch> swaps) {
        this.swaps = swaps;
        this.original = plan;
        this.plan = plan;
        this.estimator = estimator;
        this.rehearsal = rehearsal;
        this.alloy = plan.target().joint().alloy();
        this.coach = new Coach();
        this.balls = plan.forming().map(f -> new BallLine(plan, f));
        for (ProbePlace place : plan.bench().probes()) {
            probes.put(place.name(), new ProbeWatch(place));
            plateaus.put(place.name(), new PlateauHint());
        }
        guarded = Protected.of(plan);
        guardedPeakC = new double[guarded.size()];
        java.util.Arrays.fill(guardedPeakC, Double.NEGATIVE_INFINITY);
    }

    /** An engine for real readings: a live run or the replay of one. */
    public static RunEngine live(RunPlan plan, Optional<Rehearsal> rehearsal) {
        return new RunEngine(plan, new EnsembleEstimator(plan.scene(), plan.knowledge(), ESTIMATOR_SEED),
                rehearsal, Optional.of(new SwapWatch(
                        new SheetModel(plan.scene(), plan.knowledge().mean(), Resolution.OBSERVER))));
    }

    /** An engine that takes {@code bench} itself for the truth. */
    static RunEngine rehearsing(RunPlan plan, HeatModel bench) {
        return new RunEngine(plan, new ModelIsTruth(bench), Optional.empty(), Optional.empty());
    }

    /** The model of the plan's bench with what is known of it. */
    public static HeatModel nominalModel(RunPlan plan) {
        return new SheetModel(plan.scene(), plan.knowledge().mean(), Resolution.SEARCH);
    }

    /** The plan with the stages as they have been changed so far. */
    public RunPlan plan() {
        return plan;
    }

    /** What one side of the board looks like by the estimate. */
    public HeatField field(Side side) {
        return estimator.field(side);
    }

    /** What heater and air should be set to now. */
    public HeatInput input() {
        if (started && status == RunState.Status.SAFE) {
            return balls.flatMap(BallLine::warm).orElse(HeatInput.OFF);
        }
        if (!started || status == RunState.Status.ENDED) {
            return HeatInput.OFF;
        }
        Stage now = current();
        return HeatInput.of(now.heaterC(), now.air());
    }

    private Stage current() {
        return plan.recipe().stages().get(stage);
    }

    /** @throws IllegalArgumentException when the event lies before the last one */
    public void apply(RunEvent event) {
        if (event.timeS() < timeS - 1e-9) {
            throw new IllegalArgumentException(
                    "event at " + event.timeS() + " s comes after one at " + timeS + " s");
        }
        if (status == RunState.Status.ENDED) {
            return;
        }
        switch (event) {
            case RunEvent.Started s -> start(s.timeS());
            case RunEvent.Sampled s -> sample(s);
            case RunEvent.Said s -> said(s);
            case RunEvent.Acted a -> balls.ifPresent(b -> act(b, a));
            case RunEvent.Changed c -> change(c);
            case RunEvent.Resumed r -> {
                timeS = r.timeS();
                settingsChangedS = r.timeS();
                probes.values().forEach(ProbeWatch::forget);
                note(rules.resumed(r.awayS()));
            }
        }
    }

    private void start(double atS) {
        if (!started) {
            started = true;
            timeS = atS;
            status = RunState.Status.HEATING;
            balls.ifPresent(BallLine::heated);
            enter(0);
        }
    }

    /** What hands did at the stencil. Heat begins with it only where it may; everything else has happened, right or wrong. */
    private void act(BallLine line, RunEvent.Acted acted) {
        advance(acted.timeS());
        double ballsC = joint().celsius();
        Judged judged = line.ask(acted.act(), ballsC);
        line.act(acted.act(), timeS, ballsC).ifPresent(f -> note(List.of(f)));
        boolean may = judged.rating() != Judged.Rating.WRONG && judged.rating() != Judged.Rating.IDLE;
        switch (acted.act()) {
            case HEAT, SETTLE -> {
                if (may) {
                    start(timeS);
                }
            }
            case FIRST_BALL -> {
                if (may && status == RunState.Status.HEATING) {
                    line.first(timeS,
                            Double.isNaN(firstMeltS)
                                    ? firstTime(m -> m.jointMaxC() - alloy.liquidusC())
                                    : OptionalDouble.of(firstMeltS),
                            firstTime(m -> m.jointMinC() - alloy.liquidusC()));
                }
            }
            case HEAT_OFF -> {
                moves();
                if (status == RunState.Status.MOLTEN) {
                    leave(StageMark.EndedBy.MELT);
                }
            }
            default -> {
            }
        }
    }

    private void enter(int index) {
        stage = index;
        stageStartS = timeS;
        settingsChangedS = timeS;
        reachedSinceS = Double.NaN;
        lookedS = Double.NEGATIVE_INFINITY;
        meltsAtS = OptionalDouble.empty();
        marks.add(new StageMark(index, current().name(), timeS, Double.NaN, StageMark.EndedBy.RUNNING));
        if (current().purpose() == Stage.Purpose.COOL && status != RunState.Status.SAFE) {
            status = RunState.Status.COOLING;
        }
    }

    private void leave(StageMark.EndedBy by) {
        StageMark open = marks.removeLast();
        marks.add(new StageMark(open.index(), open.name(), open.startS(), timeS, by));
        if (stage + 1 < plan.recipe().stages().size()) {
            enter(stage + 1);
        } else {
            status = RunState.Status.SAFE;
        }
    }

    private void change(RunEvent.Changed change) {
        advance(change.timeS());
        plan = plan.with(plan.recipe().with(change.index(), change.stage()));
        if (change.index() == stage) {
            settingsChangedS = timeS;
            lookedS = Double.NEGATIVE_INFINITY;
        }
    }

    private void advance(double toS) {
        if (started && toS > timeS) {
            double left = toS - timeS;
            while (left > 1e-9) {
                double step = Math.min(60, left);
                estimator.advance(input(), step);
                swaps.ifPresent(s -> s.advance(input(), step));
                left -= step;
            }
        }
        timeS = Math.max(timeS, toS);
    }

    private void sample(RunEvent.Sampled sample) {
        double stepS = sample.timeS() - timeS;
        advance(sample.timeS());
        linkUp = !sample.readings().isEmpty();
        var seen = new ArrayList<ProbeWatch>();
        double movedK = jointTrace.rangeSince(timeS - 15);
        for (Reading reading : sample.readings()) {
            ProbeWatch watch = probes.get(reading.probe());
            if (watch != null) {
                seen.add(watch);
                double expected = estimator.of(m -> m.probeC(watch.place())).celsius();
                if (watch.take(timeS, reading, expected, movedK)) {
                    estimator.correct(watch.place(), watch.trace().last());
                }
            }
        }
        estimator.swept();
        probes.values().stream().filter(p -> !seen.contains(p)).forEach(ProbeWatch::silent);
        if (started) {
            follow(stepS);
            endStages();
            note(rules.look(view()));
            swaps.ifPresent(s -> note(s.look(timeS, seen)));
        }
    }

    private Estimate joint() {
        return estimator.of(HeatModel::jointMinC);
    }

    private void follow(double stepS) {
        Estimate cold = joint();
        jointTrace.add(timeS, estimator.of(HeatModel::jointCentreC).celsius());
        peakJointC = Math.max(peakJointC, estimator.of(HeatModel::jointMaxC).celsius());
        peakTopC = Math.max(peakTopC, estimator.of(HeatModel::packageTopC).celsius());
        for (int i = 0; i < guardedPeakC.length; i++) {
            guardedPeakC[i] = Math.max(guardedPeakC[i], estimator.of(guarded.get(i).celsius()).celsius());
        }
        if (Double.isNaN(firstMeltS)
                && estimator.of(HeatModel::jointMaxC).celsius() >= alloy.liquidusC()) {
            firstMeltS = timeS;
        }
        if (cold.celsius() >= alloy.liquidusC()) {
            aboveS += stepS;
            everMolten = true;
        }
        estimateShowedMelt |= cold.celsius() - cold.plusMinusK() > alloy.liquidusC();
        for (ProbeWatch probe : probes.values()) {
            if (probe.good()) {
                jointProbeShowedMelt |= probe.place().role() == ProbePlace.Role.JOINT
                        && probe.trace().last() >= alloy.liquidusC() + 5;
                if (current().purpose() == Stage.Purpose.PEAK) {
                    plateaus.get(probe.place().name()).look(probe.trace(), timeS, settingsChangedS,
                            cold.celsius(), alloy.liquidusC());
                }
            }
        }
        lookAhead(cold);
    }

    private void lookAhead(Estimate cold) {
        // A rehearsal is itself the look ahead.
        if (estimator instanceof ModelIsTruth || timeS - lookedS < LOOK_AHEAD_EVERY_S) {
            return;
        }
        lookedS = timeS;
        boolean peak = current().purpose() == Stage.Purpose.PEAK;
        if (peak && cold.celsius() < alloy.liquidusC()) {
            meltsAtS = firstTime(m -> m.jointMinC() - alloy.liquidusC());
        } else {
            meltsAtS = OptionalDouble.empty();
        }
        early = runningOut();
        note(early);
        if (status == RunState.Status.COOLING) {
            double margin = estimator.of(HeatModel::jointMaxC).plusMinusK();
            safeAtS = firstTime(m -> movingC() - margin - m.jointMaxC());
        }
    }

    private OptionalDouble from(OptionalDouble atS) {
        return atS.isPresent() ? OptionalDouble.of(Math.max(0, atS.getAsDouble() - timeS)) : atS;
    }

    /**
     * What would come of other settings, everything else as it is.
     *
     * @param seconds 4 to 240
     */
    public Ahead ahead(HeatInput settings, double seconds) {
        HeatModel ahead = estimator.lookAhead();
        double[] peak = new double[guarded.size()];
        double[] now = new double[guarded.size()];
        for (int i = 0; i < peak.length; i++) {
            now[i] = guarded.get(i).celsius().applyAsDouble(ahead);
            peak[i] = now[i];
        }
        double last = ahead.jointMinC() - alloy.liquidusC();
        OptionalDouble melts = last >= 0 ? OptionalDouble.of(0) : OptionalDouble.empty();
        for (double s = 0; s < Math.clamp(seconds, LOOK_AHEAD_STEP_S, LOOK_AHEAD_S); s += LOOK_AHEAD_STEP_S) {
            ahead.advance(settings, LOOK_AHEAD_STEP_S);
            double over = ahead.jointMinC() - alloy.liquidusC();
            if (melts.isEmpty() && over >= 0) {
                melts = OptionalDouble.of(s + LOOK_AHEAD_STEP_S * last / (last - over));
            }
            last = over;
            for (int i = 0; i < peak.length; i++) {
                peak[i] = Math.max(peak[i], guarded.get(i).celsius().applyAsDouble(ahead));
            }
        }
        var rooms = new ArrayList<Room>();
        for (int i = 0; i < peak.length; i++) {
            Protected part = guarded.get(i);
            rooms.add(new Room(part.what(), part.kind(), now[i], peak[i], part.limitC()));
        }
        return new Ahead(seconds, ahead.jointMinC(), melts, rooms);
    }

    /** A part that will run out of room before the joints have melted, with the setting that keeps it. */
    private List<Finding> runningOut() {
        Stage now = current();
        if (status != RunState.Status.HEATING && status != RunState.Status.MOLTEN
                || now.purpose() == Stage.Purpose.COOL) {
            return List.of();
        }
        double horizon = Math.min(EARLY_S,
                meltsAtS.isPresent() ? meltsAtS.getAsDouble() - timeS + AFTER_MELT_S : EARLY_S);
        Ahead as = ahead(input(), Math.max(LOOK_AHEAD_STEP_S, horizon));
        for (int i = 0; i < guarded.size(); i++) {
            Protected part = guarded.get(i);
            double allowed = part.limitC() - part.marginK();
            double peak = as.rooms().get(i).peakC();
            if (peak > allowed && as.rooms().get(i).nowC() <= allowed) {
                var gaps = new ArrayList<Quantity>(
                        List.of(new Quantity.Name(part.name()), new Quantity.TempC(peak),
                                new Quantity.TempC(allowed), new Quantity.Seconds(horizon)));
                Optional<Remedy> cure = cure(now, i, allowed, horizon);
                cure.ifPresent(c -> gaps.add(new Quantity.TempC(
                        c instanceof Remedy.SetAir air
                                ? air.air().setC()
                                : ((Remedy.SetHeater) c).celsius())));
                Rule rule = cure.isPresent() ? Rule.ROOM_RUNS_OUT : Rule.ROOM_CANNOT_HOLD;
                return List.of(new Finding(rule, part.name(), Severity.CARE, gaps, cure));
            }
        }
        return List.of();
    }

    /** The mildest cut of the air, or of the heater where none blows, that keeps a part within its limit. */
    private Optional<Remedy> cure(Stage now, int part, double allowed, double horizon) {
        for (double cut = 10; cut <= 60; cut += 10) {
            double less = cut;
            Optional<Stage> milder = now.air().isPresent()
                    ? now.air().filter(a -> a.setC() - less >= 50)
                            .map(a -> now.withAir(
                                    Optional.of(new AirSetting(a.setC() - less, a.flowLpm(), a.nozzleMm(),
                                            a.distanceMm(), a.circleMm()))))
                    : now.heaterC().filter(c -> c - less >= 30)
                            .map(c -> now.withHeater(Optional.of(c - less)));
            if (milder.isEmpty()) {
                return Optional.empty();
            }
            HeatInput settings = HeatInput.of(milder.get().heaterC(), milder.get().air());
            if (ahead(settings, horizon).rooms().get(part).peakC() <= allowed) {
                return Optional.of(milder.get().air().isPresent()
                        ? new Remedy.SetAir(stage, milder.get().air().get())
                        : new Remedy.SetHeater(stage, milder.get().heaterC().orElseThrow()));
            }
        }
        return Optional.empty();
    }

    /** First time at which {@code over} rises through nothing, if settings stay as they are. */
    private OptionalDouble firstTime(ToDoubleFunction<HeatModel> over) {
        HeatModel ahead = estimator.lookAhead();
        double last = over.applyAsDouble(ahead);
        if (last >= 0) {
            return OptionalDouble.of(timeS);
        }
        for (double s = 0; s < LOOK_AHEAD_S; s += LOOK_AHEAD_STEP_S) {
            ahead.advance(input(), LOOK_AHEAD_STEP_S);
            double now = over.applyAsDouble(ahead);
            if (now >= 0) {
                return OptionalDouble.of(timeS + s + LOOK_AHEAD_STEP_S * last / (last - now));
            }
            last = now;
        }
        return OptionalDouble.empty();
    }

    /** The temperature under which everything that melted may be moved. */
    private double movingC() {
        return alloy.solidusC() - plan.recipe().limits().moveUnderK();
    }

    /** The target's joints, and those of every neighbour that may have melted too, are solid with the margin. */
    private boolean safeToMove() {
        Estimate hot = estimator.of(HeatModel::jointMaxC);
        boolean safe = hot.celsius() + hot.plusMinusK() <= movingC();
        for (int i = 0; i < guardedPeakC.length; i++) {
            Protected part = guarded.get(i);
            if (part.kind() == Room.Kind.JOINTS && guardedPeakC[i] >= part.limitC()) {
                safe &= estimator.of(part.celsius()).celsius() <= part.limitC()
                        - plan.recipe().limits().moveUnderK();
            }
        }
        return safe;
    }

    private void endStages() {
        double inStage = timeS - stageStartS;
        switch (current().end()) {
            case StageEnd.AfterTime t -> {
                // A clock never ends a peak: melt has to be shown.
                if (current().purpose() != Stage.Purpose.PEAK && inStage >= t.seconds() - 1e-9) {
                    leave(StageMark.EndedBy.TIME);
                }
            }
            case StageEnd.ProbeReaches p -> {
                ProbeWatch probe = probes.get(p.probe());
                if (probe != null && probe.good() && probe.trace().median(timeS, 2) >= p.celsius()) {
                    reachedSinceS = Double.isNaN(reachedSinceS) ? timeS : reachedSinceS;
                    if (timeS - reachedSinceS >= p.holdS() - 1e-9
                            && current().purpose() != Stage.Purpose.PEAK) {
                        leave(StageMark.EndedBy.PROBE);
                    }
                } else {
                    reachedSinceS = Double.NaN;
                }
            }
            case StageEnd.SafeToMove s -> {
                if (status == RunState.Status.COOLING && safeToMove()) {
                    leave(StageMark.EndedBy.SAFE);
                    status = RunState.Status.SAFE;
                    balls.ifPresent(b -> b.solid(timeS));
                }
            }
            case StageEnd.TechnicianSays t -> {
            }
            case StageEnd.MeltShown m -> {
            }
        }
    }

    private void said(RunEvent.Said said) {
        advance(said.timeS());
        Stage now = current();
        switch (said.word()) {
            case GO_ON -> {
                if (status == RunState.Status.HEATING && now.purpose() != Stage.Purpose.PEAK) {
                    leave(StageMark.EndedBy.WORD);
                }
            }
            case BACK -> {
                if (status == RunState.Status.HEATING && stage > 0) {
                    StageMark open = marks.removeLast();
                    marks.add(new StageMark(open.index(), open.name(), open.startS(), timeS,
                            StageMark.EndedBy.WORD));
                    enter(stage - 1);
                }
            }
            case MOVES -> moves();
            case HEAT_OFF -> {
                if (status == RunState.Status.MOLTEN) {
                    leave(StageMark.EndedBy.MELT);
                }
            }
            case MOVED -> {
                if (everMolten && status != RunState.Status.SAFE && !safeToMove()) {
                    note(rules.movedEarly(view(), movingC()));
                }
            }
            case FINISH -> {
                if (status == RunState.Status.SAFE && balls.map(BallLine::free).orElse(true)) {
                    status = RunState.Status.ENDED;
                }
            }
            case STOP -> {
                brokenOff = true;
                StageMark open = marks.isEmpty() ? null : marks.removeLast();
                if (open != null) {
                    marks.add(Double.isNaN(open.endS())
                            ? new StageMark(open.index(), open.name(), open.startS(), timeS,
                                    StageMark.EndedBy.BROKEN_OFF)
                            : open);
                }
                status = RunState.Status.ENDED;
            }
            case NOTE -> {
            }
        }
    }

    /** A nudge that moves while the estimate says solid is asked for twice: the probe, or the alloy, is not what we think. */
    private void moves() {
        if (status != RunState.Status.HEATING || current().purpose() != Stage.Purpose.PEAK) {
            return;
        }
        Estimate cold = joint();
        if (cold.celsius() + cold.plusMinusK() < alloy.solidusC() && doubtedNudges == 0) {
            doubtedNudges++;
            note(rules.meltDoubted(cold, alloy));
            return;
        }
        nudged = true;
        everMolten = true;
        status = RunState.Status.MOLTEN;
    }

    private void note(List<Finding> findings) {
        for (Finding finding : findings) {
            Finding before = raised.get(finding.id());
            if (before == null || finding.severity().compareTo(before.severity()) >= 0) {
                raised.put(finding.id(), finding);
            }
        }
    }

    private MeltProof melt() {
        return new MeltProof(jointProbeShowedMelt, nudged,
                plateaus.values().stream().anyMatch(PlateauHint::seen), estimateShowedMelt);
    }

    private RunView view() {
        return new RunView(plan, status, timeS, stage, current(), timeS - stageStartS,
                timeS - settingsChangedS, probes, joint(), jointTrace,
                estimator.of(HeatModel::packageTopC), room(), aboveS, from(meltsAtS), from(safeAtS), linkUp,
                melt(), reachedSinceS, everMolten, movingC(), lookedS >= stageStartS,
                balls.map(b -> b.view(timeS, joint().celsius(),
                        jointTrace.isEmpty() ? Double.NaN : jointTrace.slope(timeS - SOFT_WINDOW_S, timeS))));
    }

    private List<Room> room() {
        var rooms = new ArrayList<Room>();
        Estimate cold = joint();
        rooms.add(new Room(
                Phrase.of("room.melt", new Quantity.Name(plan.target().name())),
                Room.Kind.MUST_MELT, cold.celsius(),
                Math.max(peakJointC, cold.celsius()), alloy.liquidusC()));
        for (int i = 0; i < guardedPeakC.length; i++) {
            Protected part = guarded.get(i);
            double now = estimator.of(part.celsius()).celsius();
            double peak = Math.max(guardedPeakC[i], now);
            if (rehearsal.isPresent()
                    && (status == RunState.Status.HEATING || status == RunState.Status.READY)) {
                peak = Math.max(peak, now + rehearsal.get().stillToRiseK(stage, timeS - stageStartS, i));
            }
            rooms.add(new Room(part.what(), part.kind(), now, peak, part.limitC()));
        }
        return rooms;
    }

    /** Where the run stands after the last event. */
    public RunState state() {
        var views = new LinkedHashMap<String, ProbeView>();
        probes.forEach((name, watch) -> views.put(name, watch.view()));
        RunView view = view();
        List<Finding> now = started && status != RunState.Status.ENDED ? rules.look(view) : List.of();
        var shown = new ArrayList<>(now);
        if (started && status != RunState.Status.ENDED) {
            swaps.ifPresent(s -> shown.addAll(s.found()));
            early.stream().filter(e -> now.stream().noneMatch(f -> f.subject().equals(e.subject())))
                    .forEach(shown::add);
        }
        balls.flatMap(BallLine::wrong).ifPresent(shown::add);
        raised.values().stream()
                .filter(f -> RunRules.stays(f.rule()) && shown.stream().noneMatch(s -> s.id().equals(f.id())))
                .forEach(shown::add);
        shown.sort(Comparator.comparing(Finding::severity).reversed());
        double ramp = jointTrace.isEmpty()
                ? Double.NaN
                : jointTrace.slope(timeS - ProbeWatch.RAMP_WINDOW_S, timeS);
        return new RunState(status, timeS, stage, started ? timeS - stageStartS : 0, views, joint(),
                estimator.of(HeatModel::jointMaxC),
                estimator.of(HeatModel::packageTopC), ramp, from(meltsAtS), from(safeAtS), aboveS, peakJointC,
                peakTopC, melt(), room(), marks,
                coach.say(view, started), shown, List.copyOf(raised.values()), linkUp, view.forming());
    }

    /** What the run came to, as far as it has come. */
    public Verdict verdict() {
        var peaks = new LinkedHashMap<Protected, Double>();
        for (int i = 0; i < guardedPeakC.length; i++) {
            peaks.put(guarded.get(i), guardedPeakC[i]);
        }
        return Judge.judge(plan, original, peaks, peakJointC, aboveS, peakTopC, timeS, melt(), status,
                brokenOff, everMolten,
                List.copyOf(raised.values()), marks, balls);
    }

    List<Protected> guarded() {
        return guarded;
    }
}
