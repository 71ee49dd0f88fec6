package org.greenbead.core.refit;

import org.greenbead.core.quantity.Check;

/**
 * A weight or a press on a strip of glue: pressure is force over area, {@code p = m g / A}, with g = 9.80665 m/s² (standard acceleration of free fall, CGPM 1901).
 *
 * @param massKg  laid on, or shown by the press, 0.01 to 500
 * @param areaCm2 of the glue or the strip that is pressed, not of the panel, 0.01 to 2000
 */
public record PressLoad(double massKg, double areaCm2) {
    private static final double G = 9.80665;

    public PressLoad {
        Check.within("mass on the panel", massKg, 0.01, 500, "kg");
        area(areaCm2);
    }

    private static double area(double cm2) {
        return Check.within("area that is pressed", cm2, 0.01, 2000, "cm²");
    }

    public double newton() {
        return massKg * G;
    }

    /** Pressure on the strip, kPa. */
    public double kpa() {
        // N/cm² is 10 kPa.
        return newton() / areaCm2 * 10;
    }

    /** The mass that brings what a label asks for, kg. @param kpa 0.1 to 5000 */
    public static double massKg(double kpa, double areaCm2) {
        Check.within("pressure on the label", kpa, 0.1, 5000, "kPa");
        return kpa / 10 * area(areaCm2) / G;
    }
}
