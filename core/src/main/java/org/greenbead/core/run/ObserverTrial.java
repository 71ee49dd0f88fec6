package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import java.util.function.IntConsumer;
import java.util.stream.IntStream;

/**
 * How honest the joint estimate is: whole runs on simulated benches whose multipliers nobody is told, the shown interval held
 * against the coldest joint that the bench knows.
 */
public final class ObserverTrial {
    private static final double STEP_S = 1;
    private static final double LONGEST_S = 1800;

    private ObserverTrial() {
    }

    /**
     * One run.
     *
     * @param moments   seconds looked at
     * @param inside    seconds in which the interval held the truth
     * @param squaresK2 sum of the squared errors
     * @param worstK    largest error
     * @param hotError  estimate minus truth when the truth was hottest
     * @param cues      seconds in which the coach asked for a nudge
     * @param falseCues of these, with a joint still solid
     * @param falseSafe seconds in which moving was called safe with a joint not solid
     */
    public record Score(long seed, int moments, int inside, double squaresK2, double worstK,
            double hotError, int cues, int falseCues, int falseSafe) {
        public double share() {
            return (double) inside / moments;
        }

        public double rmsK() {
            return Math.sqrt(squaresK2 / moments);
        }
    }

    /** All runs together. */
    public record Summary(List<Score> runs) {
        public double share() {
            return runs.stream().mapToInt(Score::inside).sum()
                    / (double) runs.stream().mapToInt(Score::moments).sum();
        }

        public double rmsK() {
            return Math.sqrt(runs.stream().mapToDouble(Score::squaresK2).sum()
                    / runs.stream().mapToInt(Score::moments).sum());
        }

        /** Share of the run that came off worst. */
        public double worstShare() {
            return runs.stream().mapToDouble(Score::share).min().orElse(Double.NaN);
        }

        public int cues() {
            return runs.stream().mapToInt(Score::cues).sum();
        }

        public int falseCues() {
            return runs.stream().mapToInt(Score::falseCues).sum();
        }

        public int falseSafe() {
            return runs.stream().mapToInt(Score::falseSafe).sum();
        }

        public double hotRmsK() {
            return Math.sqrt(runs.stream().mapToDouble(r -> r.hotError() * r.hotError()).average().orElse(0));
        }
    }

    /**
     * @param adversity how the benches differ beyond the usual scatter
     * @param from     first seed; the others follow it
     * @param progress told how many runs are done
     */
    public static Summary of(RunPlan plan, Adversity adversity, long from, int runs, IntConsumer progress,
            BooleanSupplier cancelled) {
        var done = new java.util.concurrent.atomic.AtomicInteger();
        return new Summary(IntStream.range(0, runs).parallel().filter(i -> !cancelled.getAsBoolean())
                .mapToObj(i -> {
                    Score score = run(plan, adversity, from + i);
                    progress.accept(done.incrementAndGet());
                    return score;
                }).toList());
    }

    private static Score run(RunPlan plan, Adversity adversity, long seed) {
        var bench = new SimulatedBench(plan, seed, adversity);
        var eyes = new Eyes(bench, seed);
        double liquidus = plan.target().joint().alloy().liquidusC();
        double solidus = plan.target().joint().alloy().solidusC();
        int cues = 0;
        int falseCues = 0;
        int falseSafe = 0;
        RunEngine engine = RunEngine.live(plan, Optional.empty());
        var technician = new SimulatedTechnician(plan.task(), true);
        var errors = new ArrayList<double[]>();
        engine.apply(new RunEvent.Started(0));
        RunState state = engine.state();
        for (double t = STEP_S; state.status() != RunState.Status.ENDED && t < LONGEST_S; t += STEP_S) {
            bench.set(engine.input());
            bench.timeIs(t);
            engine.apply(new RunEvent.Sampled(t, readings(bench)));
            state = engine.state();
            double truth = bench.jointMinC();
            errors.add(new double[]{state.joint().celsius() - truth, state.joint().plusMinusK(), truth});
            if (state.status() == RunState.Status.HEATING && state.coaching().name().equals("peak.nudge")) {
                cues++;
                falseCues += truth < liquidus ? 1 : 0;
            }
            falseSafe += state.status() == RunState.Status.SAFE && bench.jointMaxC() > solidus ? 1 : 0;
            Optional<RunEvent> word = technician.act(state, engine.plan(), eyes);
            if (word.isPresent()) {
                engine.apply(word.get());
                state = engine.state();
            }
        }
        double[] hottest = errors.stream().max(java.util.Comparator.comparingDouble(e -> e[2])).orElseThrow();
        return new Score(seed, errors.size(),
                (int) errors.stream().filter(e -> Math.abs(e[0]) <= e[1]).count(),
                errors.stream().mapToDouble(e -> e[0] * e[0]).sum(),
                errors.stream().mapToDouble(e -> Math.abs(e[0])).max().orElse(0), hottest[0], cues, falseCues,
                falseSafe);
    }

    private static List<Reading> readings(SimulatedBench bench) {
        try {
            return bench.sweep();
        } catch (LinkLostException e) {
            return List.of();
        }
    }
}
