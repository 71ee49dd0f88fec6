package org.greenbead.core.recipe;

import java.util.Optional;
import org.greenbead.core.quantity.Check;

/**
 * One stage of staged heat.
 *
 * @param name     the technician's word for it
 * @param purpose  what the stage is for; rules depend on it
 * @param heaterC  bottom heater set-point, °C; empty = off
 * @param air      hot air; empty = off
 * @param jointGoalC what the joint should reach by the end, °C; empty where the stage has no joint goal
 * @param end      what ends it
 * @param latestS  when the coach says that it takes too long, s in stage, 1 to 172800
 */
public record Stage(String name, Purpose purpose, Optional<Double> heaterC, Optional<AirSetting> air,
        Optional<Double> jointGoalC,
        StageEnd end, double latestS) {
    /** What a stage is for. */
    public enum Purpose {
        DRY_OUT, SOAK, APPROACH, PEAK, COOL
    }

    public Stage {
        Check.text("stage name", name);
        Check.present("stage purpose", purpose);
        Check.present("heater of stage " + name, heaterC);
        Check.present("air of stage " + name, air);
        Check.present("joint goal of stage " + name, jointGoalC);
        heaterC.ifPresent(c -> Check.within("heater of stage " + name, c, 30, 600, "°C"));
        jointGoalC.ifPresent(c -> Check.within("joint goal of stage " + name, c, 30, 400, "°C"));
        Check.present("end of stage " + name, end);
        Check.within("latest end of stage " + name, latestS, 1, 172_800, "s");
        if (purpose == Purpose.COOL && air.isPresent()) {
            throw new IllegalArgumentException("stage " + name + " cools, so its hot air must be off");
        }
    }

    public Stage withHeater(Optional<Double> celsius) {
        return new Stage(name, purpose, celsius, air, jointGoalC, end, latestS);
    }

    public Stage withAir(Optional<AirSetting> setting) {
        return new Stage(name, purpose, heaterC, setting, jointGoalC, end, latestS);
    }

    public Stage withEnd(StageEnd newEnd) {
        return new Stage(name, purpose, heaterC, air, jointGoalC, newEnd, latestS);
    }
}
