package org.greenbead.core.calibrate;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import java.util.function.IntConsumer;
import java.util.stream.IntStream;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.run.Adversity;
import org.greenbead.core.run.Eyes;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunEvent;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.RunState;
import org.greenbead.core.run.SimulatedBench;
import org.greenbead.core.run.SimulatedTechnician;

/**
 * What runs without a thermocouple teach: on each simulated bench the same job is worked again and again, by somebody who presses what is seen, late
 * and sometimes wrongly; after each run the bench's file learns from it, and the next begins with what was learned.
 */
public final class EyeTrial {
    private static final double STEP_S = 0.5;
    private static final double LONGEST_S = 1800;
    private static final double NEAR_PEAK_K = 12;

    private EyeTrial() {
    }

    /**
     * One run of one bench.
     *
     * @param earlier     runs that this bench had learned from
     * @param unseenK     estimate minus truth of the coldest joint as it came within 12 K of melting, nothing having been seen to melt
     * @param unseenPlusMinusK what was stated with it
     * @param peakK       estimate minus truth when the truth was hottest
     * @param peakPlusMinusK what was stated with it
     * @param learned     whether the run could be learned from
     */
    public record Ran(long seed, int earlier, double unseenK, double unseenPlusMinusK, double peakK,
            double peakPlusMinusK, boolean learned) {}

    /**
     * @param plan     its bench's probes are put aside, its calibrations are what is known to begin with
     * @param from     first seed; the others follow it
     * @param runs     of each bench, one after the other
     * @param progress told how many benches are done
     */
    public static List<Ran> of(RunPlan plan, Adversity adversity, long from, int benches, int runs,
            IntConsumer progress, BooleanSupplier cancelled) {
        var done = new java.util.concurrent.atomic.AtomicInteger();
        return IntStream.range(0, benches).parallel().filter(i -> !cancelled.getAsBoolean())
                .mapToObj(i -> {
                    List<Ran> all = bench(plan, adversity, from + i, runs);
                    progress.accept(done.incrementAndGet());
                    return all;
                }).flatMap(List::stream).toList();
    }

    private static List<Ran> bench(RunPlan plan, Adversity adversity, long seed, int runs) {
        Bench known = plan.bench().blind();
        var all = new ArrayList<Ran>();
        for (int r = 0; r < runs; r++) {
            Bench now = known;
            var after = new ArrayList<>(List.of(now));
            all.add(run(plan.with(now), adversity, seed, r,
                    lesson -> after.add(History.with(now, lesson.calibration()))));
            known = after.getLast();
        }
        return all;
    }

    private static Ran run(RunPlan plan, Adversity adversity, long seed, int earlier,
            java.util.function.Consumer<SightFit.Learned> taught) {
        var bench = new SimulatedBench(plan, seed, adversity);
        var eyes = new Eyes(bench, seed * 31 + earlier);
        var technician = new SimulatedTechnician(plan.task(), true);
        double melts = plan.target().joint().alloy().solidusC();
        RunEngine engine = RunEngine.live(plan, Optional.empty());
        var told = new ArrayList<RunEvent>();
        engine.apply(new RunEvent.Started(0));
        RunState state = engine.state();
        double[] unseen = {Double.NaN, Double.NaN};
        double[] peak = {Double.NaN, Double.NaN};
        double hottest = 0;
        for (double t = STEP_S; state.status() != RunState.Status.ENDED && t < LONGEST_S; t += STEP_S) {
            bench.set(engine.input());
            bench.timeIs(t);
            engine.apply(new RunEvent.Sampled(t, List.of()));
            state = engine.state();
            double truth = bench.jointMinC();
            double[] stands = {state.joint().celsius() - truth, state.joint().plusMinusK()};
            if (Double.isNaN(unseen[0]) && truth > melts - NEAR_PEAK_K) {
                unseen = stands;
            }
            if (truth > hottest) {
                hottest = truth;
                peak = stands;
            }
            Optional<RunEvent> word = technician.act(state, engine.plan(), eyes);
            if (word.isPresent()) {
                told.add(word.get());
                engine.apply(word.get());
                state = engine.state();
            }
        }
        boolean learned;
        try {
            taught.accept(SightFit.fit("run-" + earlier, plan, state.marks(), told, () -> false));
            learned = true;
        } catch (RefusedException e) {
            learned = false;
        }
        return new Ran(seed, earlier, unseen[0], unseen[1], peak[0], peak[1], learned);
    }
}
