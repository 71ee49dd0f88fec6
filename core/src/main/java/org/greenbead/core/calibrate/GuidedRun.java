package org.greenbead.core.calibrate;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.plan.Constraint;
import org.greenbead.core.plan.Drive;
import org.greenbead.core.plan.Outcome;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;

/**
 * A run that melts nothing and tells everything: more than three minutes of heater alone, more than ninety seconds of air, and
 * ninety of cooling, which together separate all four factors. Where no heater is, mild air comes in its place.
 */
public final class GuidedRun {
    private static final double HEATER_S = 210;
    private static final double AIR_S = 110;
    private static final double COOL_S = 100;
    /** Without a heater the first air is so much milder than the second: two levels tell more than one. Judgement. */
    private static final double MILDER_K = 100;
    /** Colder than the joints' solidus by this much even where the bench is stronger than the model says, K. */
    private static final double UNDER_SOLIDUS_K = 35;

    private GuidedRun() {
    }

    /**
     * The hottest such run that stays well under every solidus and limit of the plan's board.
     *
     * @throws IllegalArgumentException when even the mildest would not
     */
    public static RunPlan of(RunPlan plan) {
        for (double milder = 0; milder <= 120; milder += 20) {
            double less = milder;
            Optional<Double> heater = plan.bench().heater()
                    .map(h -> Math.max(80, Math.min(h.maxC(), 220) - less));
            AirSetting air = plan.gentleAir(Math.max(120, Math.min(plan.bench().air().maxC(), 300) - milder));
            RunPlan guided = plan.guided(recipe(plan, heater, air));
            Outcome outcome = Drive.of(guided, guided.recipe(),
                    new SheetModel(guided.scene(), guided.knowledge().mean(), Resolution.SEARCH),
                    () -> false);
            boolean cold = outcome.peakMaxC() < plan.target().joint().alloy().solidusC() - UNDER_SOLIDUS_K;
            boolean kept = Constraint.of(guided, outcome).stream()
                    .filter(c -> c.kind() != Constraint.Kind.MELT && c.kind() != Constraint.Kind.RAMP)
                    .allMatch(c -> c.room() > 10 || c.kind() == Constraint.Kind.SPREAD);
            if (cold && kept) {
                return guided;
            }
        }
        throw new IllegalArgumentException("no calibration run is mild enough for board " + plan.board().id()
                + "; calibrate on a scrap board with the same copper");
    }

    private static Recipe recipe(RunPlan plan, Optional<Double> heater, AirSetting air) {
        Optional<AirSetting> mild = heater.isPresent()
                ? Optional.empty()
                : Optional.of(plan.gentleAir(Math.max(100, air.setC() - MILDER_K)));
        return new Recipe("calibration", "Calibration run", List.of(
                new Stage(heater.isPresent() ? "Heater" : "Mild air", Stage.Purpose.SOAK, heater, mild,
                        Optional.empty(),
                        new StageEnd.AfterTime(HEATER_S), HEATER_S + 30),
                new Stage("Air", Stage.Purpose.APPROACH, heater, Optional.of(air),
                        Optional.empty(),
                        new StageEnd.AfterTime(AIR_S), AIR_S + 30),
                new Stage("Cool", Stage.Purpose.COOL, Optional.empty(), Optional.empty(), Optional.empty(),
                        new StageEnd.AfterTime(COOL_S), COOL_S + 60)),
                plan.recipe().limits());
    }
}
