package org.greenbead.core.thermal;

import java.util.Optional;
import org.greenbead.core.board.Point;
import org.greenbead.core.quantity.Check;
import org.greenbead.core.recipe.AirSetting;

/**
 * What heater, air and fan are set to during a step.
 *
 * @param heaterSetC set-point, °C; empty = off
 * @param fanTopWPerM2K    forced convection on the blown side, 0 to 200; 0 = no fan
 * @param fanBottomWPerM2K the same on the shaded side
 * @param aside where the nozzle is now, from where it stands by the scene, mm
 */
public record HeatInput(Optional<Double> heaterSetC, Optional<AirSetting> air, double fanTopWPerM2K,
        double fanBottomWPerM2K, Point aside) {
    private static final Point STRAIGHT = new Point(0, 0);
    public static final HeatInput OFF = new HeatInput(Optional.empty(), Optional.empty(), 0, 0);

    public HeatInput(Optional<Double> heaterSetC, Optional<AirSetting> air, double fanTopWPerM2K,
            double fanBottomWPerM2K) {
        this(heaterSetC, air, fanTopWPerM2K, fanBottomWPerM2K, STRAIGHT);
    }

    public HeatInput {
        Check.present("where the nozzle is", aside);
        Check.present("heater set-point", heaterSetC);
        Check.present("air", air);
        Check.within("fan on top", fanTopWPerM2K, 0, 200, "W/m2K");
        Check.within("fan below", fanBottomWPerM2K, 0, 200, "W/m2K");
    }

    /** The same with the nozzle led elsewhere. */
    public HeatInput led(Point to) {
        return new HeatInput(heaterSetC, air, fanTopWPerM2K, fanBottomWPerM2K, to);
    }

    public static HeatInput of(Optional<Double> heaterSetC, Optional<AirSetting> air) {
        return new HeatInput(heaterSetC, air, 0, 0);
    }
}
