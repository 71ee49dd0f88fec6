package org.greenbead.core.recipe;

import org.greenbead.core.quantity.Check;

/**
 * How the hot air is set. All of it, or it is no recipe.
 *
 * @param setC       station set-point, °C, 50 to 600
 * @param flowLpm    displayed flow, L/min, 1 to 300
 * @param nozzleMm   inner diameter, 3 to 60
 * @param distanceMm nozzle to package top, 2 to 120
 * @param circleMm   radius of the circle it is moved on, 0 = held still, to 40
 */
public record AirSetting(double setC, double flowLpm, double nozzleMm, double distanceMm, double circleMm) {
    public AirSetting {
        Check.within("air temperature", setC, 50, 600, "°C");
        Check.within("air flow", flowLpm, 1, 300, "L/min");
        Check.within("nozzle", nozzleMm, 3, 60, "mm");
        Check.within("nozzle distance", distanceMm, 2, 120, "mm");
        Check.within("circle radius", circleMm, 0, 40, "mm");
    }

    /** A wider nozzle needs more air to bring as much to each mm²; below the least nothing comes out warm. Judgement. */
    private static final double LEAST_LPM = 12;
    private static final double LPM_PER_MM = 1.4;

    /** The flow to begin with through a nozzle, L/min. @param mostLpm what the station gives */
    public static double usualLpm(double nozzleMm, double mostLpm) {
        return Math.min(mostLpm, LEAST_LPM + LPM_PER_MM * nozzleMm);
    }

    /** The circle to begin with, mm: none where the nozzle covers the chip, else so that its rim passes 2 mm over the chip's edge. */
    public static double usualCircleMm(double chipMm, double nozzleMm) {
        return chipMm > nozzleMm ? (chipMm - nozzleMm) / 2 + 2 : 0;
    }
}
