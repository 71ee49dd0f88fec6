package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.forming.Judged;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.thermal.HeatField;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.HeatModel;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;

/**
 * A run, event by event: what happened goes in, in order of time, and the state can be asked for after each. It leads {@link StageMachine},
 * {@link Readings}, {@link JointEstimator}, {@link EvidenceLedger}, {@link HeatAccount}, {@link Forecast} and {@link CoolGuard}, each of which
 * knows its own part. It reads no clock, so a log played through it gives the same states and findings as the run that wrote it.
 */
public final class RunEngine {
    private static final double SOFT_WINDOW_S = 10;
    private static final double MOVED_WINDOW_S = 15;
    /** The estimate goes in steps of about this, however often readings come, s. */
    private static final double TICK_S = 0.45;
    private static final double LONGEST_STEP_S = 2;
    private static final long ESTIMATOR_SEED = 4_17;
    /** Where a probe that a recipe speaks of would be, beside the chip, when none is set up, mm. */
    private static final double BESIDE_MM = 10;
    /** By this much one probe has to be the odder one to be left out, standard deviations of benches. */
    private static final double CLEARLY_ODDER = 0.8;
    /** Crossed back, the readings have to fit as those of any bench do. */
    private static final double CROSSED_SURPRISE = 2;

    private final RunPlan original;
    private final Optional<Rehearsal> rehearsal;
    private final Readings readings;
    private final Optional<Recollection> recollection;
    private final Map<String, PlateauHint> plateaus = new LinkedHashMap<>();
    private final HeatAccount account;
    private final StageMachine stages;
    private final EvidenceLedger evidence;
    private final Forecast forecast;
    private final Map<String, Finding> raised = new LinkedHashMap<>();
    private final RunRules rules = new RunRules();
    private final Coach coach = new Coach();
    private final Optional<BallLine> balls;
    private final Alloy alloy;
    private JointEstimator estimator;
    private Optional<CoolGuard> guard = Optional.empty();
    private RunPlan plan;
    private double timeS;
    private double estimatedS;
    private double followedS;
    private boolean linkUp = true;
    private boolean brokenOff;
    private boolean nudgedOpen;
    /** Whether the case is held open that all readings are false. */
    private boolean openCase;
    private Optional<RunState> known = Optional.empty();

    private RunEngine(RunPlan plan, JointEstimator estimator, Optional<Rehearsal> rehearsal,
            Optional<Envelope> envelope) {
        this.original = plan;
        this.plan = plan;
        this.estimator = estimator;
        this.rehearsal = rehearsal;
        alloy = plan.target().joint().alloy();
        readings = new Readings(plan, envelope);
        recollection = envelope.map(e -> new Recollection(estimator));
        balls = plan.forming().map(f -> new BallLine(plan, f));
        plan.bench().probes().forEach(p -> plateaus.put(p.name(), new PlateauHint()));
        account = new HeatAccount(plan);
        stages = new StageMachine(plan.recipe());
        evidence = new EvidenceLedger(alloy);
        forecast = new Forecast(alloy, account.guarded());
    }

    /** An engine for real readings: a live run or the replay of one. */
    public static RunEngine live(RunPlan plan, Optional<Rehearsal> rehearsal) {
        return new RunEngine(plan, new EnsembleEstimator(plan.scene(), plan.knowledge(), ESTIMATOR_SEED),
                rehearsal, Optional.of(new Envelope(plan.scene(), plan.knowledge())));
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
        if (stages.started() && stages.status() == RunState.Status.SAFE) {
            return balls.flatMap(BallLine::warm).orElse(HeatInput.OFF);
        }
        if (!stages.started() || stages.over()) {
            return HeatInput.OFF;
        }
        Stage now = stages.current();
        return HeatInput.of(now.heaterC(), now.air());
    }

    /** @throws IllegalArgumentException when the event lies before the last one */
    public void apply(RunEvent event) {
        if (event.timeS() < timeS - 1e-9) {
            throw new IllegalArgumentException(
                    "event at " + event.timeS() + " s comes after one at " + timeS + " s");
        }
        if (stages.over() || event instanceof RunEvent.Checkpoint) {
            return;
        }
        known = Optional.empty();
        switch (event) {
            case RunEvent.Started s -> start(s.timeS());
            case RunEvent.Sampled s -> sample(s);
            case RunEvent.Said s -> said(s);
            case RunEvent.Saw s -> saw(s);
            case RunEvent.Acted a -> balls.ifPresent(b -> act(b, a));
            case RunEvent.Changed c -> change(c);
            case RunEvent.Resumed r -> resumed(r);
            case RunEvent.Checkpoint c -> {
            }
        }
    }

    private void start(double atS) {
        if (!stages.started()) {
            timeS = atS;
            estimatedS = atS;
            followedS = atS;
            balls.ifPresent(BallLine::heated);
            stages.start(atS);
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
                if (may && stages.status() == RunState.Status.HEATING) {
                    look(Sight.FIRST_BALL);
                    OptionalDouble first = Double.isNaN(account.firstMeltS())
                            ? forecast.firstTime(timeS, estimator, input(),
                                    m -> m.jointMaxC() - alloy.liquidusC())
                            : OptionalDouble.of(account.firstMeltS());
                    OptionalDouble last = forecast.firstTime(timeS, estimator, input(),
                            m -> m.jointMinC() - alloy.liquidusC());
                    line.first(timeS, first, last, EdgeSweep.behindS(plan));
                }
            }
            case HEAT_OFF -> {
                moves();
                heatOff();
            }
            default -> {
            }
        }
    }

    private void change(RunEvent.Changed change) {
        advance(change.timeS());
        plan = plan.with(plan.recipe().with(change.index(), change.stage()));
        stages.changed(plan.recipe(), change.index(), timeS);
        if (change.index() == stages.index()) {
            forecast.stale();
        }
    }

    /** Time that went by unseen: the heater may have gone on or not, and nobody knows what was liquid. */
    private void resumed(RunEvent.Resumed resumed) {
        double awayS = Math.max(0, Math.min(resumed.awayS(), resumed.timeS() - estimatedS));
        advance(resumed.timeS() - awayS);
        if (stages.started()) {
            step(awayS, true);
        }
        timeS = resumed.timeS();
        estimatedS = timeS;
        followedS = timeS;
        stages.interrupted(timeS);
        stages.molten(joint().lowC() > alloy.liquidusC());
        evidence.interrupted();
        readings.forget();
        forecast.stale();
        note(rules.resumed(resumed.awayS()));
    }

    private void advance(double toS) {
        if (stages.started() && toS > estimatedS) {
            step(toS - estimatedS, false);
        }
        timeS = Math.max(timeS, toS);
        estimatedS = Math.max(estimatedS, toS);
    }

    private void step(double seconds, boolean unseen) {
        HeatInput input = input();
        double left = seconds;
        while (left > 1e-9) {
            double step = Math.min(LONGEST_STEP_S, left);
            if (unseen) {
                estimator.advanceUnseen(input, step);
            } else {
                estimator.advance(input, step);
            }
            recollection.ifPresent(r -> r.went(input, step, unseen));
            readings.advance(input, step);
            guard.ifPresent(g -> g.advance(input, step));
            left -= step;
        }
    }

    private void sample(RunEvent.Sampled sample) {
        boolean tick = !stages.started() || sample.timeS() - estimatedS >= TICK_S;
        if (tick) {
            advance(sample.timeS());
        }
        timeS = Math.max(timeS, sample.timeS());
        linkUp = !sample.readings().isEmpty() || byEye();
        boolean heating = stages.status() == RunState.Status.HEATING
                || stages.status() == RunState.Status.MOLTEN;
        readings.take(sample, stages.started() ? timeS - stages.startedS() : Double.NaN, heating, estimator,
                account.jointTrace().rangeSince(timeS - MOVED_WINDOW_S));
        judgeAgain();
        if (tick) {
            readings.believed().forEach((place, celsius) -> estimator.correct(place, celsius));
            estimator.swept();
            if (stages.started()) {
                recollection.filter(r -> readings.trust() == Readings.Trust.FITS)
                        .ifPresent(r -> r.read(timeS, readings.believed()));
            }
        }
        if (stages.started()) {
            if (tick) {
                follow();
            }
            endStages();
            note(rules.look(view()));
            note(readings.look(timeS, timeS - stages.startedS()));
        }
    }

    /** A probe that turned out false takes with it what it showed; readings that all contradict the bench make two estimates of one. */
    private void judgeAgain() {
        if (recollection.isEmpty()) {
            return;
        }
        Map<String, Double> gone = readings.newlyFalse();
        if (!gone.isEmpty()) {
            estimator = recollection.get().forget(gone);
            fell(gone);
        }
        if (readings.conflict() && readings.believed().size() > 1) {
            settle();
        }
        boolean off = readings.trust() == Readings.Trust.ALL_OFF
                || readings.trust() == Readings.Trust.WARM_OR_WRONG;
        if (off && !openCase) {
            openCase = true;
            Set<String> all = Set
                    .copyOf(plan.bench().probes().stream().map(ProbePlace::name).toList());
            JointEstimator read = estimator.copy();
            readings.warmStartC().ifPresent(read::startAt);
            estimator = new Contested(read, Set.of(), recollection.get().without(all), all);
            fell(Map.of());
        } else if (!off && openCase && estimator instanceof Contested both) {
            openCase = false;
            estimator = both.one();
            recollection.get().startAt(estimator);
        }
    }

    /**
     * Two probes cannot both be right. The one without which the bench looks most like a bench is the false one; where none stands out, both cases
     * are held possible.
     */
    private void settle() {
        var cases = new ArrayList<Case>();
        for (ProbePlace place : readings.believed().keySet()) {
            JointEstimator without = recollection.orElseThrow().without(Set.of(place.name()));
            cases.add(new Case(place.name(), without,
                    Math.abs(without.strain()) + Math.log(Math.max(1, without.surprise()))));
        }
        cases.sort(Comparator.comparingDouble(Case::odd));
        if (uncrossed(cases.getFirst().odd())) {
            return;
        }
        Case likely = cases.get(0);
        Case second = cases.get(1);
        if (second.odd() - likely.odd() >= CLEARLY_ODDER) {
            readings.isFalse(likely.probe());
            Map<String, Double> always = Map.of(likely.probe(), Double.NEGATIVE_INFINITY);
            estimator = recollection.orElseThrow().forget(always);
            fell(always);
        } else {
            readings.inConflict(List.of(likely.probe(), second.probe()));
            estimator = new Contested(likely.without(), Set.of(likely.probe()), second.without(),
                    Set.of(second.probe()));
            fell(Map.of(likely.probe(), Double.NEGATIVE_INFINITY, second.probe(),
                    Double.NEGATIVE_INFINITY));
        }
    }

    /** Whether two probes taken for one another explain everything, and better than leaving one out. */
    private boolean uncrossed(double leaveOneOut) {
        List<ProbePlace> all = List.copyOf(readings.believed().keySet());
        for (int i = 0; i < all.size(); i++) {
            for (int j = i + 1; j < all.size(); j++) {
                ProbePlace a = all.get(i);
                ProbePlace b = all.get(j);
                JointEstimator turned = recollection.orElseThrow().crossed(a, b, false);
                double odd = Math.abs(turned.strain()) + Math.log(Math.max(1, turned.surprise()));
                if (turned.surprise() < CROSSED_SURPRISE && odd < Math.max(CLEARLY_ODDER, leaveOneOut)) {
                    double shown = readings.believed().get(a) - readings.believed().get(b);
                    double expected = turned.shows(a).celsius() - turned.shows(b).celsius();
                    recollection.orElseThrow().crossed(a, b, true);
                    estimator = turned;
                    readings.crossed(a, b, shown, expected);
                    note(readings.look(timeS, timeS - stages.startedS()));
                    Map<String, Double> always = Map.of(a.name(), Double.NEGATIVE_INFINITY, b.name(),
                            Double.NEGATIVE_INFINITY);
                    fell(always);
                    return true;
                }
            }
        }
        return false;
    }

    /** What if this probe is the false one. @param odd how unlike a bench the bench then looks */
    private record Case(String probe, JointEstimator without, double odd) {}

    private void fell(Map<String, Double> since) {
        List<Evidence> fallen = evidence.fell(since);
        if (!fallen.isEmpty()) {
            note(rules.evidenceFell(fallen));
            stages.molten(evidence.proof().nudge());
        }
    }

    private Estimate joint() {
        return estimator.of(HeatModel::jointMinC);
    }

    private void follow() {
        double stepS = timeS - followedS;
        followedS = timeS;
        Estimate cold = joint();
        account.follow(timeS, stepS, estimator, cold, estimator.of(HeatModel::jointMaxC),
                estimator.of(HeatModel::packageTopC));
        boolean heating = stages.status() == RunState.Status.HEATING
                || stages.status() == RunState.Status.MOLTEN;
        if (heating) {
            evidence.estimate(timeS, cold);
        }
        for (ProbeWatch probe : readings.watches().values()) {
            if (probe.good() && heating) {
                String name = probe.place().name();
                if (probe.place().role() == ProbePlace.Role.JOINT) {
                    evidence.probeAtJoint(timeS, name, probe.trace().last(), cold);
                }
                if (stages.current().purpose() == Stage.Purpose.PEAK) {
                    plateaus.get(name).look(probe.trace(), timeS, stages.clock().settingsChangedS(),
                            cold.celsius(), alloy.liquidusC());
                    if (plateaus.get(name).seen()) {
                        evidence.plateau(timeS, name, cold);
                    }
                }
            }
        }
        if (forecast.look(timeS, stages, estimator, input(), cold, movingC())) {
            note(forecast.early());
        }
    }

    /**
     * What would come of other settings, everything else as it is.
     *
     * @param seconds 4 to 240
     */
    public Ahead ahead(HeatInput settings, double seconds) {
        return forecast.ahead(estimator, settings, seconds);
    }

    /** The temperature under which everything that melted may be moved. */
    private double movingC() {
        return plan.recipe().limits().movingC(alloy);
    }

    /** The same for the joints of a neighbour. */
    private double movingC(Protected part) {
        return plan.board().chip(part.name())
                .map(c -> plan.recipe().limits().movingC(c.joint().alloy()))
                .orElse(part.limitC() - plan.recipe().limits().moveUnderK());
    }

    private boolean byEye() {
        return plan.bench().probes().isEmpty();
    }

    private void endStages() {
        if (stages.status() == RunState.Status.COOLING) {
            if (guard.isEmpty()) {
                guard = Optional
                        .of(new CoolGuard(movingC(), this::movingC, estimator));
            }
            if (guard.get().safe(estimator, account.neighboursThatMayHaveMelted())) {
                stages.safe(timeS);
                balls.ifPresent(b -> b.solid(timeS));
                return;
            }
        }
        RunState.Status before = stages.status();
        int stage = stages.index();
        stages.look(timeS, this::shows, byEye() ? StageMark.EndedBy.TWIN : StageMark.EndedBy.PROBE);
        if (stages.index() != stage || stages.status() != before) {
            forecast.stale();
        }
    }

    /** What the probe of a stage's end shows: a probe that may be believed, or where none is set up the twin at that place. */
    private double shows(StageEnd.ProbeReaches end) {
        ProbeWatch probe = readings.watches().get(end.probe());
        if (probe != null) {
            return probe.good() ? probe.trace().median(timeS, 2) : Double.NaN;
        }
        return byEye() ? estimator.of(m -> m.probeC(where(end.probe()))).celsius() : Double.NaN;
    }

    /** Under the chip, or beside it where the board is bare. */
    private ProbePlace where(String probe) {
        boolean under = probe.contains("under") || probe.contains("bottom");
        Point chip = plan.target().centreMm();
        double x = plan.target().sizeMm().xMm() / 2 + BESIDE_MM;
        double y = plan.target().sizeMm().yMm() / 2 + BESIDE_MM;
        Point beside = List.of(new Point(chip.xMm() + x, chip.yMm()), new Point(chip.xMm(), chip.yMm() - y),
                new Point(chip.xMm() - x, chip.yMm()), new Point(chip.xMm(), chip.yMm() + y)).stream()
                .filter(this::bare).findFirst().orElse(chip);
        return new ProbePlace(probe, ProbePlace.Role.BOARD, 1, under ? Side.BOTTOM : Side.TOP,
                under ? chip : beside);
    }

    private boolean bare(Point at) {
        Point size = plan.board().sizeMm();
        boolean onBoard = at.xMm() >= 0 && at.yMm() >= 0 && at.xMm() <= size.xMm() && at.yMm() <= size.yMm();
        return onBoard && plan.board().chips().stream().filter(c -> c.side() == Side.TOP)
                .noneMatch(c -> Math.abs(at.xMm() - c.centreMm().xMm()) <= c.sizeMm().xMm() / 2
                        && Math.abs(at.yMm() - c.centreMm().yMm()) <= c.sizeMm().yMm() / 2);
    }

    private void said(RunEvent.Said said) {
        advance(said.timeS());
        int stage = stages.index();
        RunState.Status before = stages.status();
        switch (said.word()) {
            case GO_ON -> stages.goOn(timeS);
            case BACK -> stages.back(timeS);
            case MOVES -> moves();
            case HEAT_OFF -> heatOff();
            case BOARD_IS_WARM -> {
                double warmC = readings.boardIsWarm();
                if (!Double.isNaN(warmC)) {
                    judgeAgain();
                }
            }
            case MOVED -> {
                boolean melted = account.mayHaveMelted() || nudgedOpen;
                if (melted && stages.status() != RunState.Status.SAFE && !solidNow()) {
                    note(rules.movedEarly(view(), movingC()));
                }
            }
            case FINISH -> {
                if (balls.map(BallLine::free).orElse(true)) {
                    stages.finish();
                }
            }
            case STOP -> {
                brokenOff = true;
                stages.breakOff(timeS);
            }
            case NOTE -> {
            }
        }
        if (stages.index() != stage || stages.status() != before) {
            forecast.stale();
        }
    }

    private boolean solidNow() {
        return estimator.of(HeatModel::jointMaxC).highC() <= movingC();
    }

    /** Heat away is always obeyed: it is the safe thing. What it proves is another matter. */
    private void heatOff() {
        if (stages.status() == RunState.Status.MOLTEN || stages.atPeak()) {
            stages.heatOff(timeS, stages.status() == RunState.Status.MOLTEN
                    ? StageMark.EndedBy.MELT
                    : StageMark.EndedBy.WORD);
        }
    }

    /** A nudge that moves while no joint can be liquid proves nothing, however often it is said. */
    private void moves() {
        if (!stages.atPeak()) {
            return;
        }
        Estimate cold = joint();
        Evidence nudge = evidence.seen(Evidence.Kind.NUDGE, timeS, cold,
                estimator.of(HeatModel::jointMaxC));
        if (!nudge.counts()) {
            note(rules.meltDoubted(cold, alloy));
            return;
        }
        look(Sight.FLOATS);
        nudgedOpen = true;
        stages.molten();
    }

    private void saw(RunEvent.Saw saw) {
        advance(saw.timeS());
        if (stages.status() != RunState.Status.HEATING) {
            return;
        }
        if (saw.sight() == Sight.FLOATS) {
            moves();
            return;
        }
        Estimate cold = joint();
        Estimate hot = estimator.of(HeatModel::jointMaxC);
        if (saw.sight() == Sight.FLUX_SHIMMERS) {
            look(saw.sight());
            return;
        }
        Evidence seen = evidence.seen(Evidence.Kind.EYE, timeS, cold, hot);
        if (seen.counts()) {
            look(saw.sight());
        } else {
            note(rules.sightDoubted(hot, alloy));
        }
    }

    private void look(Sight sight) {
        estimator.saw(sight, alloy.solidusC(), alloy.liquidusC());
        recollection.ifPresent(r -> r.saw(sight, alloy.solidusC(), alloy.liquidusC()));
        forecast.stale();
    }

    private void note(List<Finding> findings) {
        for (Finding finding : findings) {
            raised.merge(finding.id(), finding, RunRules::kept);
        }
    }

    private RunView view() {
        Estimate cold = joint();
        boolean heating = stages.status() == RunState.Status.HEATING
                || stages.status() == RunState.Status.READY;
        double stageS = stages.started() ? timeS - stages.clock().stageStartS() : 0;
        Trace trace = account.jointTrace();
        double ramp = trace.isEmpty() ? Double.NaN : trace.slope(timeS - ProbeWatch.RAMP_WINDOW_S, timeS);
        return new RunView(plan,
                new RunState.Standing(stages.status(), timeS, stages.index(), stageS, stages.marks(), linkUp,
                        byEye()),
                stages.current(), stages.clock(), readings.watches(),
                new RunState.Heat(cold, estimator.of(HeatModel::jointMaxC),
                        estimator.of(HeatModel::packageTopC), ramp, account.aboveS(), account.peakJointC(),
                        account.peakTopC(),
                        account.room(estimator, cold, rehearsal.filter(r -> heating), stages.index(),
                                stageS)),
                trace, forecast.outlook(timeS), evidence.proof(),
                new RunView.Bounds(account.reached() || nudgedOpen, movingC(),
                        forecast.lookedS() >= stages.clock().stageStartS(),
                        byEye() && stages.current().end() instanceof StageEnd.ProbeReaches p
                                ? shows(p)
                                : Double.NaN),
                balls.map(b -> b.view(timeS, cold.celsius(),
                        trace.isEmpty() ? Double.NaN : trace.slope(timeS - SOFT_WINDOW_S, timeS))));
    }

    /** Where the run stands after the last event. */
    public RunState state() {
        if (known.isEmpty()) {
            known = Optional.of(look());
        }
        return known.get();
    }

    private RunState look() {
        var views = new LinkedHashMap<String, ProbeView>();
        readings.watches().forEach((name, watch) -> views.put(name, watch.view()));
        RunView view = view();
        boolean going = stages.started() && !stages.over();
        var shown = new ArrayList<Finding>();
        if (going) {
            List<Finding> now = rules.look(view);
            shown.addAll(now);
            shown.addAll(readings.look(timeS, timeS - stages.startedS()));
            forecast.early().stream()
                    .filter(e -> now.stream().noneMatch(f -> f.subject().equals(e.subject())))
                    .forEach(shown::add);
        }
        balls.flatMap(BallLine::wrong).ifPresent(shown::add);
        raised.values().stream()
                .filter(f -> RunRules.stays(f.rule()) && shown.stream().noneMatch(s -> s.id().equals(f.id())))
                .forEach(shown::add);
        shown.sort(Comparator.comparing(Finding::severity).reversed());
        return new RunState(view.standing(), views, view.heat(), view.outlook(), view.melt(),
                new RunState.Told(coach.say(view, stages.started()), shown, List.copyOf(raised.values())),
                view.forming());
    }

    /** What to write down so that a run that is taken up again shows its last heat at once. */
    public RunEvent.Checkpoint checkpoint() {
        RunState s = state();
        return new RunEvent.Checkpoint(timeS, s.status(), s.stage(), s.joint().celsius(), s.joint().lowC(),
                s.joint().highC(), s.jointHot().highC(), Optional.of(s.chipTop().celsius()));
    }

    /** What the run came to, as far as it has come. */
    public Verdict verdict() {
        return Judge.judge(plan, original, account, evidence.proof(), stages, timeS,
                new Judge.Course(brokenOff, account.reached() || nudgedOpen, byEye(),
                        List.copyOf(raised.values())),
                balls);
    }

    List<Protected> guarded() {
        return account.guarded();
    }
}
