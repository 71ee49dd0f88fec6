package org.greenbead.core.calibrate;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.concurrent.CancellationException;
import java.util.function.BooleanSupplier;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.bench.Calibration;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.run.JointField;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunEvent;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.Sight;
import org.greenbead.core.run.StageMark;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;

/**
 * Learns a bench from what was seen at the chip in a run that no thermocouple watched. Each sight is a measurement of the joint at a moment, as in the
 * run itself; the four factors and one offset for all that the model leaves out take it up together. One sight fixes hardly any factor and a good
 * part of what they do together to the joint, so the calibration keeps their correlations. A sight that is likelier an error of the eye counts as
 * little as it is believed.
 */
public final class SightFit {
    /** Under this a press is taken for an error of the eye. */
    public static final double BELIEVED = 0.5;
    private static final double MOMENT_S = 1;
    private static final double MOST_RESIDUAL_K = 100;
    private static final double GOES_ON_S = 90;
    /** The ramp is read over this long, ending so far short of the solidus. */
    private static final double RAMP_S = 5;
    private static final double SHORT_K = 1;
    private static final double LEAST_RAMP_K_PER_S = 0.2;

    private final RunPlan plan;
    private final List<Witness.Step> steps;
    private final List<RunEvent.Saw> saws;
    private final double endS;

    /**
     * What one sight was against the model.
     *
     * @param beforeK model less what was seen, with nothing learned
     * @param afterK  the same after the fit
     * @param trust   how far it was believed, 0 to 1
     */
    public record Looked(Sight sight, double timeS, double beforeK, double afterK, double trust) {}

    /**
     * What was learned.
     *
     * @param timesS  of the two curves of the coldest joint
     * @param beforeC by a bench nobody has measured
     * @param afterC  by what was learned
     */
    public record Learned(Calibration calibration, List<Looked> sights, double[] timesS, double[] beforeC,
            double[] afterC) {
        public Learned {
            sights = List.copyOf(sights);
        }

        /** Root mean square of what was missed with nothing learned, sights weighed as they are believed, K. */
        public double beforeRmsK() {
            double squares = sights.stream().mapToDouble(s -> s.trust() * s.beforeK() * s.beforeK()).sum();
            return Math.sqrt(squares / sights.stream().mapToDouble(Looked::trust).sum());
        }

        public long believed() {
            return sights.stream().filter(s -> s.trust() >= BELIEVED).count();
        }
    }

    /**
     * The joints second by second.
     *
     * @param leadK of what surrounds a joint that has just melted, at 1 K/s; it goes with the root of the ramp
     */
    private record Joints(List<JointField> each, double leadK) {
        private JointField at(double timeS) {
            double when = Math.clamp(timeS / MOMENT_S, 0, each.size() - 1.0);
            int low = (int) Math.min(each.size() - 2.0, Math.floor(when));
            return each.get(low).towards(each.get(low + 1), when - low);
        }

        double looksAt(Sight sight, double timeS) {
            return sight.looksAt(at(timeS));
        }

        /** When what is looked at gets there, s, between the seconds; empty where it never does. */
        OptionalDouble reaches(Sight sight, double celsius) {
            for (int i = 1; i < each.size(); i++) {
                double now = sight.looksAt(each.get(i));
                if (now >= celsius) {
                    double before = sight.looksAt(each.get(i - 1));
                    return OptionalDouble.of((i - 1 + (celsius - before) / (now - before)) * MOMENT_S);
                }
            }
            return OptionalDouble.empty();
        }

        /** How fast it rises while it comes within some degrees of the melting range, K/s; on the range itself it stands still. */
        double ramp(Sight sight, double solidusC) {
            double end = reaches(sight, solidusC - SHORT_K).orElse((each.size() - 1) * MOMENT_S);
            double start = Math.max(0, end - RAMP_S);
            return Math.max(LEAST_RAMP_K_PER_S,
                    (looksAt(sight, end) - looksAt(sight, start)) / Math.max(MOMENT_S, end - start));
        }

        double acrossK(double timeS) {
            return at(timeS).maxC() - at(timeS).minC();
        }

        double[] coldest(int seconds) {
            return each.stream().limit(seconds).mapToDouble(JointField::minC).toArray();
        }
    }

    private SightFit(RunPlan plan, List<Witness.Step> steps, List<RunEvent.Saw> saws, double endS) {
        this.plan = plan;
        this.steps = steps;
        this.saws = saws;
        this.endS = endS;
    }

    /**
     * @param run   its name
     * @param steps what heater and air were set to, in order of time
     * @param saws  what was seen, and when it was pressed
     * @param endS  when the heat was off
     * @throws RefusedException      when nothing was seen that can be believed
     * @throws CancellationException when cancelled
     */
    public static Learned fit(String run, RunPlan plan, List<Witness.Step> steps, List<RunEvent.Saw> saws,
            double endS, BooleanSupplier cancelled) throws RefusedException {
        List<RunEvent.Saw> seen = saws.stream().filter(s -> s.timeS() > 2 && s.timeS() <= endS).toList();
        if (seen.isEmpty() || steps.isEmpty()) {
            throw new RefusedException(Phrase.of("fit.nothing_seen"));
        }
        return new SightFit(plan, steps, seen, endS).fit(run, cancelled);
    }

    /**
     * Of a run by its stages.
     *
     * @param plan  as the run began
     * @param marks of its stages
     * @param told  everything that happened, in order of time
     */
    public static Learned fit(String run, RunPlan plan, List<StageMark> marks, List<RunEvent> told,
            BooleanSupplier cancelled) throws RefusedException {
        Recipe recipe = plan.recipe();
        List<RunEvent.Changed> changes = told.stream().filter(RunEvent.Changed.class::isInstance)
                .map(RunEvent.Changed.class::cast).toList();
        var steps = new ArrayList<Witness.Step>();
        int next = 0;
        double end = 0;
        for (StageMark mark : marks) {
            for (; next < changes.size() && changes.get(next).timeS() <= mark.startS(); next++) {
                recipe = recipe.with(changes.get(next).index(), changes.get(next).stage());
            }
            double leftS = Double.isNaN(mark.endS()) ? told.getLast().timeS() : mark.endS();
            if (recipe.stages().get(mark.index()).purpose() == Stage.Purpose.COOL) {
                continue;
            }
            steps.add(step(mark.startS(), recipe.stages().get(mark.index())));
            end = leftS;
            for (; next < changes.size() && changes.get(next).timeS() < leftS; next++) {
                recipe = recipe.with(changes.get(next).index(), changes.get(next).stage());
                if (changes.get(next).index() == mark.index()) {
                    steps.add(step(changes.get(next).timeS(), changes.get(next).stage()));
                }
            }
        }
        return fit(run, plan, steps, told.stream().filter(RunEvent.Saw.class::isInstance)
                .map(RunEvent.Saw.class::cast).toList(), end, cancelled);
    }

    private static Witness.Step step(double fromS, Stage stage) {
        return new Witness.Step(fromS, stage.heaterC(), stage.air());
    }

    /** Of a kept log: played through the engine to learn what was set when. */
    public static Learned fit(String run, RunPlan plan, List<RunEvent> events, BooleanSupplier cancelled)
            throws RefusedException {
        RunEngine engine = RunEngine.live(plan, Optional.empty());
        for (RunEvent event : events) {
            if (cancelled.getAsBoolean()) {
                throw new CancellationException("calibration was cancelled");
            }
            engine.apply(event);
        }
        return fit(run, plan, engine.state().marks(), events, cancelled);
    }

    private Learned fit(String run, BooleanSupplier cancelled) throws RefusedException {
        double[] zero = new double[Calibrator.FACTORS + 1];
        Joints before = simulate(zero);
        double[] trust = trust(before);
        if (java.util.Arrays.stream(trust).allMatch(t -> t < BELIEVED)) {
            throw new RefusedException(Phrase.of("fit.nothing_believed"));
        }
        var unknowns = new ArrayList<>(Calibrator.unknowns());
        unknowns.add(WitnessFit.offset());
        MapFit.Solved best = MapFit.solve(unknowns, zero, at -> misses(at, trust), cancelled);
        Joints after = simulate(best.at());
        double offset = best.at()[Calibrator.FACTORS];
        var looked = new ArrayList<Looked>();
        double squares = 0;
        double believed = 0;
        for (int i = 0; i < saws.size(); i++) {
            RunEvent.Saw saw = saws.get(i);
            double afterK = missK(after, saw, offset);
            looked.add(new Looked(saw.sight(), saw.timeS(), missK(before, saw, 0), afterK, trust[i]));
            squares += trust[i] * afterK * afterK;
            believed += trust[i];
        }
        Optional<AirSetting> air = longest();
        List<Calibration.Factor> f = java.util.stream.IntStream.range(0, Calibrator.FACTORS)
                .mapToObj(p -> best.factor(p, Calibrator.priorLn(p))).toList();
        var calibration = new Calibration(run, plan.board().id(), air.map(AirSetting::nozzleMm).orElse(0.0),
                air.map(AirSetting::flowLpm).orElse(0.0), f.get(0), f.get(1), f.get(2), f.get(3),
                Math.min(MOST_RESIDUAL_K, Math.sqrt(squares / believed)), true,
                best.correlations(Calibrator.FACTORS, Calibrator.FACTORS),
                air.map(a -> plan.bench().air().name()).orElse(""));
        double[] times = new double[(int) Math.ceil(endS / MOMENT_S) + 1];
        java.util.Arrays.setAll(times, i -> i * MOMENT_S);
        return new Learned(calibration, looked, times, before.coldest(times.length),
                after.coldest(times.length));
    }

    /** The air that blew longest. */
    private Optional<AirSetting> longest() {
        AirSetting best = null;
        double most = 0;
        for (int i = 0; i < steps.size(); i++) {
            double until = i + 1 < steps.size() ? steps.get(i + 1).fromS() : endS;
            if (steps.get(i).air().isPresent() && until - steps.get(i).fromS() > most) {
                most = until - steps.get(i).fromS();
                best = steps.get(i).air().get();
            }
        }
        return Optional.ofNullable(best);
    }

    /** How far each sight is to be believed, by what any bench could have shown at that moment. */
    private double[] trust(Joints nominal) {
        double[] variance = new double[saws.size()];
        for (int p = 0; p < Calibrator.FACTORS; p++) {
            double[] shifted = new double[Calibrator.FACTORS + 1];
            shifted[p] = Calibrator.STEP_LN;
            Joints moved = simulate(shifted);
            for (int i = 0; i < variance.length; i++) {
                double slope = (missK(moved, saws.get(i), 0) - missK(nominal, saws.get(i), 0))
                        / Calibrator.STEP_LN;
                variance[i] += Math.pow(slope * Calibrator.priorLn(p), 2);
            }
        }
        double[] trust = new double[saws.size()];
        for (int i = 0; i < trust.length; i++) {
            RunEvent.Saw saw = saws.get(i);
            trust[i] = saw.sight().trust(missK(nominal, saw, 0), variance[i]
                    + WitnessFit.BOARD_K * WitnessFit.BOARD_K + errorK2(nominal, saw));
        }
        return trust;
    }

    private static double when(RunEvent.Saw saw) {
        return Math.max(0, saw.timeS() - saw.sight().delayS());
    }

    /**
     * What the model has where that sight looks, less what was seen, K. Where solder melts the temperature stands still and tells nothing, so there it is
     * the time since it came near that is compared, at the rate at which it came, less what its surroundings lead by when it has melted. What says "at
     * least" is missed from below only.
     */
    private double missK(Joints joints, RunEvent.Saw saw, double offsetK) {
        Alloy alloy = plan.target().joint().alloy();
        double wanted = saw.sight().celsius(alloy.solidusC(), alloy.liquidusC());
        if (!saw.sight().molten()) {
            return offsetK + joints.looksAt(saw.sight(), when(saw)) - wanted;
        }
        double ramp = joints.ramp(saw.sight(), alloy.solidusC());
        double solid = alloy.solidusC() - SHORT_K;
        OptionalDouble near = joints.reaches(saw.sight(), solid);
        double came = near.isPresent() && when(saw) > near.getAsDouble()
                ? solid + (when(saw) - near.getAsDouble()) * ramp
                : joints.looksAt(saw.sight(), when(saw));
        double over = offsetK + came - wanted - joints.leadK() * Math.sqrt(ramp);
        return saw.sight().atLeast() ? Math.min(0, over) : over;
    }

    private double errorK2(Joints joints, RunEvent.Saw saw) {
        return saw.sight().errorK2(joints.ramp(saw.sight(), plan.target().joint().alloy().solidusC()),
                joints.acrossK(when(saw)));
    }

    private double[] misses(double[] at, double[] trust) {
        Joints joints = simulate(at);
        double[] r = new double[saws.size()];
        for (int i = 0; i < r.length; i++) {
            RunEvent.Saw saw = saws.get(i);
            r[i] = Math.sqrt(trust[i] / errorK2(joints, saw)) * missK(joints, saw, at[at.length - 1]);
        }
        return r;
    }

    private Joints simulate(double[] at) {
        var bench = new SheetModel(plan.scene(), Calibrator.multipliers(at), Resolution.SEARCH);
        // As if the heat went on for a while, so that a bench too weak to melt in time is not all alike.
        int seconds = (int) Math.ceil((endS + GOES_ON_S) / MOMENT_S);
        var each = new ArrayList<JointField>();
        each.add(JointField.of(bench));
        List<Witness.Step> inOrder = steps.stream().sorted(Comparator.comparingDouble(Witness.Step::fromS))
                .toList();
        int step = -1;
        for (int t = 0; t < seconds; t++) {
            while (step + 1 < inOrder.size() && inOrder.get(step + 1).fromS() <= t * MOMENT_S + 1e-9) {
                step++;
            }
            bench.advance(step < 0
                    ? HeatInput.OFF
                    : HeatInput.of(inOrder.get(step).heaterC(), inOrder.get(step).air()), MOMENT_S);
            each.add(JointField.of(bench));
        }
        return new Joints(each, bench.meltingLeadK(1));
    }
}
