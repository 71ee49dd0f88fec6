package org.greenbead.core.plan;

import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.run.RunPlan;

/** The ways of bringing heat to a joint between which benches differ. */
public enum School {
    AIR_ALONE, HEATER_AND_AIR, PLATE;

    /** Whether the bench has what the school needs. */
    public boolean possible(RunPlan plan) {
        if (plan.loose()) {
            return this == (plan.onPlate() ? PLATE : AIR_ALONE);
        }
        return switch (this) {
            case AIR_ALONE -> true;
            case HEATER_AND_AIR -> plan.bench().heater().isPresent();
            case PLATE -> plan.bench().plate();
        };
    }

    /** The one that a recipe belongs to on the bench of a plan. */
    public static School of(RunPlan plan, Recipe recipe) {
        boolean heater = (!plan.loose() || plan.onPlate())
                && recipe.stages().stream().anyMatch(s -> s.heaterC().isPresent());
        return !heater ? AIR_ALONE : plan.bench().plate() ? PLATE : HEATER_AND_AIR;
    }
}
