package org.greenbead.core.configure;

import org.greenbead.core.quantity.Check;

/**
 * One strap: a pair of places for a resistor, one to the supply and one to ground. What is fitted decides the level at the pin.
 *
 * @param up       designator of the place to the supply
 * @param upOhm    its resistor, ohm
 * @param down     designator of the place to ground
 * @param downOhm  its resistor, ohm
 */
public record Strap(String name, String up, double upOhm, String down, double downOhm) {
    public Strap {
        Check.text("name of a strap", name);
        Check.text("place to the supply of " + name, up);
        Check.text("place to ground of " + name, down);
        if (up.equals(down)) {
            throw new IllegalArgumentException("strap " + name + ": both places are called " + up);
        }
        Check.within("resistor " + up, upOhm, 0.01, 1e8, "ohm");
        Check.within("resistor " + down, downOhm, 0.01, 1e8, "ohm");
    }

    /** What a pin reads. */
    public enum Level {
        LOW, HIGH,
        /** Between what counts as low and what counts as high. */
        UNDEFINED,
        /** Nothing fitted: nobody says what it reads. */
        FLOATING
    }

    /**
     * The supply and what its pins take for low and high.
     *
     * @param vccV             nominal, V
     * @param vccTolerancePct  of the supply
     * @param resistorTolPct   of the resistors
     * @param lowPart          up to this part of the supply it is low; 0.35 unless the sheet says otherwise (JESD8 logic levels; verify)
     * @param highPart         from this part on it is high; 0.65 likewise
     */
    public record Supply(double vccV, double vccTolerancePct, double resistorTolPct, double lowPart,
            double highPart) {
        public Supply {
            Check.within("supply", vccV, 0.5, 30, "V");
            Check.within("tolerance of the supply", vccTolerancePct, 0, 30, "%");
            Check.within("tolerance of the resistors", resistorTolPct, 0, 30, "%");
            Check.within("part that is low", lowPart, 0.01, 0.98, "");
            Check.within("part that is high", highPart, lowPart + 0.01, 0.99, "");
        }
    }

    /** What a strap reads as it is fitted. @param lowV lowest over all tolerances; NaN = floating, as @param highV */
    public record Reading(Level level, double nominalV, double lowV, double highV) {}

    /** {@code V = Vcc R_down / (R_up + R_down)}; one alone is the rail or ground. The level is that of every corner of the tolerances. */
    public Reading reading(boolean upFitted, boolean downFitted, Supply supply) {
        if (!upFitted && !downFitted) {
            return new Reading(Level.FLOATING, Double.NaN, Double.NaN, Double.NaN);
        }
        double tolerance = supply.resistorTolPct() / 100;
        double least = part(upFitted, downFitted, upOhm * (1 + tolerance), downOhm * (1 - tolerance));
        double most = part(upFitted, downFitted, upOhm * (1 - tolerance), downOhm * (1 + tolerance));
        // The thresholds follow the same supply, so that its tolerance moves the volts and not the level.
        Level level = most <= supply.lowPart()
                ? Level.LOW
                : least >= supply.highPart() ? Level.HIGH : Level.UNDEFINED;
        double v = supply.vccV();
        double wide = supply.vccTolerancePct() / 100;
        return new Reading(level, v * part(upFitted, downFitted, upOhm, downOhm), v * (1 - wide) * least,
                v * (1 + wide) * most);
    }

    private static double part(boolean up, boolean down, double upOhm, double downOhm) {
        return up && down ? downOhm / (upOhm + downOhm) : up ? 1 : 0;
    }
}
