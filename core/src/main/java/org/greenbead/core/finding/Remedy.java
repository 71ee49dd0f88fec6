package org.greenbead.core.finding;

import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.StageEnd;

/** A remedy that can be carried out with one key. */
public sealed interface Remedy {
    /** The technician attests a check of the job. */
    record Attest(String check) implements Remedy {}

    /** Set the heater of a stage, °C. */
    record SetHeater(int stage, double celsius) implements Remedy {}

    /** Set the air of a stage. */
    record SetAir(int stage, AirSetting air) implements Remedy {}

    /** Let something else end a stage. */
    record SetEnd(int stage, StageEnd end) implements Remedy {}

    /** Go and look at the recipe. */
    record OpenRecipe() implements Remedy {}

    /** Say something that only hands or eyes can know. */
    record Tell(Told what) implements Remedy {}

    /** What can be said so. */
    enum Told {
        BOARD_IS_WARM
    }
}
