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
}
