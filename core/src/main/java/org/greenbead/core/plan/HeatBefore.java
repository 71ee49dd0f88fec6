package org.greenbead.core.plan;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.Verdict;

/**
 * Settings that were run on this type of board before, with what became of them.
 *
 * @param run        the newest run with them
 * @param practice   it was run on the simulated bench: told apart, and after what was run on a board
 * @param plan       what it was run with
 * @param aboveS     time with the coldest joint over liquidus, s
 * @param noProbeK   where it was led by eye, how sure the peak is, ± K
 * @param times      how often these settings were run
 * @param timesWell  jobs among them whose last tests all passed
 * @param timesBadly jobs among them of which a last test failed; of the rest nothing is told
 */
public record HeatBefore(String run, boolean practice, String job, Instant at, RunPlan plan,
        Verdict.Outcome outcome,
        double peakJointC, double aboveS, Optional<Double> noProbeK, int times, int timesWell,
        int timesBadly) {
    /** One run. @param well whether its job ended well, where that is told */
    public static HeatBefore once(String run, boolean practice, String job, Instant at, RunPlan plan,
            Verdict.Outcome outcome,
            double peakJointC, double aboveS, Optional<Double> noProbeK, Optional<Boolean> well) {
        return new HeatBefore(run, practice, job, at, plan, outcome, peakJointC, aboveS, noProbeK, 1,
                well.filter(w -> w).isPresent() ? 1 : 0, well.filter(w -> !w).isPresent() ? 1 : 0);
    }

    /**
     * Whether settings of then mean anything now: the same chip of the same board for the same purpose. Joints may be of another alloy since; what the settings
     * would do to those of today is tried anyway, and the other alloy is said.
     */
    public static boolean comparable(RunPlan then, RunPlan now) {
        return then.task() == now.task() && then.forming().isEmpty() && now.forming().isEmpty()
                && then.board().id().equals(now.board().id())
                && then.target().name().equals(now.target().name());
    }

    /** The alloy of the joints then, where it is not that of today. */
    public Optional<String> otherAlloy(RunPlan now) {
        return Optional.of(plan.target().joint().alloy().name())
                .filter(a -> !a.equals(now.target().joint().alloy().name()));
    }

    /** The same settings told once, with their newest run; what went well and was proven first, then the newer. */
    public static List<HeatBefore> ranked(List<HeatBefore> all) {
        Map<List<Object>, HeatBefore> byRecipe = new LinkedHashMap<>();
        for (HeatBefore one : all) {
            byRecipe.merge(one.settings(), one, HeatBefore::and);
        }
        return new ArrayList<>(byRecipe.values()).stream().sorted(Comparator
                .comparing(HeatBefore::practice)
                .thenComparingInt(h -> h.timesBadly - h.timesWell)
                .thenComparing(HeatBefore::outcome)
                .thenComparing(HeatBefore::at, Comparator.reverseOrder())).toList();
    }

    private List<Object> settings() {
        Recipe r = plan.recipe();
        return List.of(practice, plan.bench().id(), r.stages(), r.shields(), r.placing());
    }

    private HeatBefore and(HeatBefore other) {
        HeatBefore newer = at.isBefore(other.at) ? other : this;
        return new HeatBefore(newer.run, newer.practice, newer.job, newer.at, newer.plan, newer.outcome,
                newer.peakJointC,
                newer.aboveS, newer.noProbeK, times + other.times, timesWell + other.timesWell,
                timesBadly + other.timesBadly);
    }

    /**
     * These settings under the name and the limits of a plan. A stage that waited for a thermocouple which the bench of the plan has not got ends
     * after the time that it takes in the model.
     */
    public Recipe on(RunPlan now) {
        Recipe own = plan.recipe();
        Optional<Outcome> outcome = own.stages().stream().anyMatch(s -> absent(s, now))
                ? Optional.of(Drive.of(plan, own, RunEngine.nominalModel(plan), () -> false))
                : Optional.empty();
        var stages = new ArrayList<Stage>();
        double from = 0;
        for (int i = 0; i < own.stages().size(); i++) {
            Stage stage = own.stages().get(i);
            if (outcome.isPresent() && i < outcome.get().stages().size()) {
                double to = outcome.get().stages().get(i).atS();
                if (absent(stage, now)) {
                    stage = stage.withEnd(new StageEnd.AfterTime(Math.max(1, Math.rint(to - from))));
                }
                from = to;
            }
            stages.add(stage);
        }
        return new Recipe(now.recipe().id(), now.recipe().title(), stages, now.recipe().limits(),
                own.shields(), own.placing(), now.recipe().station());
    }

    private static boolean absent(Stage stage, RunPlan now) {
        return stage.end() instanceof StageEnd.ProbeReaches p
                && now.bench().probes().stream().noneMatch(b -> b.name().equals(p.probe()));
    }
}
