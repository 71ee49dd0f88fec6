package org.greenbead.core.thermal;

/**
 * A round jet of hot air on a flat wall. Heat transfer: Martin 1977, Heat and mass transfer between impinging gas jets and
 * solid surfaces, Advances in Heat Transfer 13, single round nozzle, valid for 2000 &lt; Re &lt; 4e5, 2 &lt; H/D &lt; 12,
 * 2.5 &lt; r/D &lt; 7.5; inside 2.5 D a bell that keeps Martin's average. The air that reaches the wall is diluted with room
 * air (structure: Hollworth and Wilson 1984; entrainment of a hot jet: Ricou and Spalding 1961).
 */
final class Jet {
    static final double CP_AIR = 1030;
    private static final double RHO_25C = 1.184;
    private static final double KELVIN = 273.15;
    private static final double PR_POW = Math.pow(0.70, 0.42);

    private Jet() {
    }

    /** kg/s of a flow counted at 25 °C. */
    static double massFlow(double litresPerMinute) {
        return RHO_25C * litresPerMinute / 60_000;
    }

    /** Steady exit temperature, °C, of air set to {@code setC} that loses {@code lossWPerK} on its way to the nozzle. */
    static double exitC(double setC, double ambientC, double flowLpm, double lossWPerK) {
        return ambientC + (setC - ambientC) * Math.exp(-lossWPerK / (massFlow(flowLpm) * CP_AIR));
    }

    static double reynolds(double flowLpm, double nozzleMm, double exitC) {
        double kelvin = exitC + KELVIN;
        double viscosity = 1.716e-5 * Math.pow(kelvin / 273.15, 1.5) * (273.15 + 110.4) / (kelvin + 110.4); // Sutherland
        return 4 * massFlow(flowLpm) / (Math.PI * nozzleMm / 1000 * viscosity);
    }

    /** The factor of h that is the same for every place on the wall, W/m2K. */
    static double strength(double flowLpm, double nozzleMm, double exitC) {
        double re = reynolds(flowLpm, nozzleMm, exitC);
        double film = 0.02414 * Math.pow(((exitC + 150) / 2 + KELVIN) / 273.15, 0.82);
        return PR_POW * 2 * Math.sqrt(re * (1 + 0.005 * Math.pow(re, 0.55))) * film / (nozzleMm / 1000);
    }

    /** Martin's area mean out to R = r/D, without the strength; R at least 2.5. */
    static double mean(double bigR, double heightOverD) {
        return (1 / bigR) * (1 - 1.1 / bigR) / (1 + bend(heightOverD) / bigR);
    }

    /** Local share of the strength at R = r/D. */
    static double local(double bigR, double heightOverD) {
        double b = bend(heightOverD);
        if (bigR >= 2.5) {
            return ((2 * bigR - 1.1) * (bigR + b) - bigR * (bigR - 1.1))
                    / (2 * bigR * (bigR + b) * (bigR + b));
        }
        double rim = local(2.5, heightOverD);
        double m = Math.pow(1.2 / 2.5, 2) * (1 - Math.exp(-Math.pow(2.5 / 1.2, 2)));
        double centre = rim + (mean(2.5, heightOverD) - rim) / m;
        return rim + (centre - rim) * Math.exp(-Math.pow(bigR / 1.2, 2));
    }

    /** Part of the jet's excess temperature that is left on its axis at the wall. */
    static double axisShare(double heightOverD, double exitC, double ambientC) {
        double s = Math.sqrt((exitC + KELVIN) / (ambientC + KELVIN));
        return Math.pow(1 + Math.pow(s * heightOverD / 6, 4), -0.25);
    }

    /** Part of the axis excess that is left at R = r/D along the wall. */
    static double radialShare(double bigR) {
        return 1 / Math.sqrt(1 + Math.pow(bigR / 2.2, 2));
    }

    private static double bend(double heightOverD) {
        return 0.1 * (Math.max(2, heightOverD) - 6);
    }
}
