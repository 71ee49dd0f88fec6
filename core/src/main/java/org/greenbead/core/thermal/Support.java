package org.greenbead.core.thermal;

import org.greenbead.core.quantity.Check;

/**
 * A block, a sheet or a holder that a bare chip stands on, as one lump.
 *
 * @param chip            name of the chip whose outer face it touches
 * @param contactWPerM2K  1 to 20000; 1500 is metal on a chip
 * @param capacityJPerK   0.1 to 5000; 40 x 40 x 12 mm of aluminium have 47
 * @param lossWPerK       to what surrounds it, 0 to 50
 * @param surroundingsC   the room, or the plate that it stands on, °C
 * @param startC          °C
 * @param onHeater        it lies on the heater, which then is what surrounds it, as long as that is on; with the heater off everything is lifted off
 */
public record Support(String chip, double contactWPerM2K, double capacityJPerK, double lossWPerK,
        double surroundingsC, double startC, boolean onHeater) {
    public Support(String chip, double contactWPerM2K, double capacityJPerK, double lossWPerK,
            double surroundingsC, double startC) {
        this(chip, contactWPerM2K, capacityJPerK, lossWPerK, surroundingsC, startC, false);
    }

    public Support {
        Check.text("chip on the support", chip);
        Check.within("support contact", contactWPerM2K, 1, 20_000, "W/m2K");
        Check.within("support heat capacity", capacityJPerK, 0.1, 5000, "J/K");
        Check.within("support loss", lossWPerK, 0, 50, "W/K");
        Check.within("surroundings of the support", surroundingsC, -10, 400, "°C");
        Check.within("support start", startC, -10, 400, "°C");
    }
}
