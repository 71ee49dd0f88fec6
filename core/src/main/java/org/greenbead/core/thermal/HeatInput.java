package org.greenbead.core.thermal;

import java.util.Optional;
import org.greenbead.core.quantity.Check;
import org.greenbead.core.recipe.AirSetting;

/**
 * What heater, air and fan are set to during a step.
 *
 * @param heaterSetC set-point, °C; empty = off
 * @param fanTopWPerM2K    forced convection on the blown side, 0 to 200; 0 = no fan
 * @param fanBottomWPerM2K the same on the shaded side
 */
public record HeatInput(Optional<Double> heaterSetC, Optional<AirSetting> air, double fanTopWPerM2K,
        double fanBottomWPerM2K) {
    public static final HeatInput OFF = new HeatInput(Optional.empty(), Optional.empty(), 0, 0);

    public HeatInput {
        Check.present("heater set-point", heaterSetC);
        Check.present("air", air);
        Check.within("fan on top", fanTopWPerM2K, 0, 200, "W/m2K");
        Check.within("fan below", fanBottomWPerM2K, 0, 200, "W/m2K");
    }

    public static HeatInput of(Optional<Double> heaterSetC, Optional<AirSetting> air) {
        return new HeatInput(heaterSetC, air, 0, 0);
    }
}
