package org.greenbead.core.plan;

import org.greenbead.core.run.RunPlan;

/** The ways of bringing heat to a joint between which benches differ. */
public enum School {
    AIR_ALONE, HEATER_AND_AIR, PLATE;

    /** Whether the bench has what the school needs. */
    public boolean possible(RunPlan plan) {
        if (plan.forming().isPresent()) {
            return this == AIR_ALONE;
        }
        return this != PLATE || plan.bench().heater().contact();
    }
}
