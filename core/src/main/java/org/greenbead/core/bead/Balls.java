package org.greenbead.core.bead;

import java.util.function.DoubleUnaryOperator;
import org.greenbead.core.quantity.Check;

/** Balls out of openings, and openings for balls. A ball is a sphere of the metal that an opening released: {@code d^3 = 6 V / pi}. */
public final class Balls {
    /** Area ratio and part released; between them straight lines. Assumed, with the knee at the 0.66 of IPC-7525: nothing here was measured, learn it on the own bench. */
    private static final double[][] RELEASED = {{0.3, 0.1}, {0.4, 0.25}, {0.5, 0.45}, {0.6, 0.65},
            {0.66, 0.78}, {0.75, 0.88},
            {0.9, 0.94}, {1.2, 0.97}, {2.0, 0.99}};

    private Balls() {
    }

    /**
     * The width of an opening whose ball has a wanted diameter, by halving: the release depends on the opening that is looked for. Balls
     * grow with their openings.
     *
     * @param ballMm of an opening of a width
     */
    public static double widthMm(double lowMm, double highMm, DoubleUnaryOperator ballMm, double wantedMm) {
        double low = lowMm;
        double high = highMm;
        for (int i = 0; i < 60; i++) {
            double middle = (low + high) / 2;
            if (ballMm.applyAsDouble(middle) < wantedMm) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return Math.round(high * 1000) / 1000.0;
    }

    /** Part of the paste in an opening that stays on the pad. */
    public static double released(double areaRatio) {
        Check.within("area ratio", areaRatio, 0, 50, "");
        if (areaRatio <= RELEASED[0][0]) {
            return RELEASED[0][1] * areaRatio / RELEASED[0][0];
        }
        for (int i = 1; i < RELEASED.length; i++) {
            if (areaRatio <= RELEASED[i][0]) {
                double part = (areaRatio - RELEASED[i - 1][0]) / (RELEASED[i][0] - RELEASED[i - 1][0]);
                return RELEASED[i - 1][1] + part * (RELEASED[i][1] - RELEASED[i - 1][1]);
            }
        }
        return RELEASED[RELEASED.length - 1][1];
    }

    public static double sphereMm3(double diameterMm) {
        return Math.PI / 6 * diameterMm * diameterMm * diameterMm;
    }

    public static double diameterMm(double volumeMm3) {
        return Math.cbrt(6 * volumeMm3 / Math.PI);
    }

    /** @param released part of the paste that stays on the pad, 0 to 1 */
    public static double diameterMm(Aperture opening, double thicknessMm, double metalPart, double released) {
        return diameterMm(opening.volumeMm3(thicknessMm) * metalPart * released);
    }

    /**
     * What a ball that stands in its hole leaves of it: the hole less the part of a sphere within the sheet, {@code pi t^2 (3R - t) / 3}.
     *
     * @return mm³, 0 where the ball fills it
     */
    public static double freeMm3(Aperture opening, double thicknessMm, double ballMm) {
        double r = ballMm / 2;
        double t = Math.min(thicknessMm, ballMm);
        return Math.max(0, opening.volumeMm3(thicknessMm) - Math.PI * t * t * (3 * r - t) / 3);
    }

    /** A second fill on balls that stand. */
    public static double filledAgainMm(double firstMm, double addedMm) {
        return diameterMm(sphereMm3(firstMm) + sphereMm3(addedMm));
    }

    /**
     * The round opening for a wanted ball.
     *
     * @param webMm  metal between two openings; below 0.10 to 0.15 a sheet tears and prints join (rule of thumb)
     * @param areaRatio of that opening
     */
    public record Wanted(double diameterMm, double webMm, double areaRatio) {}

    /** {@code D = sqrt(d^3 / (1.5 t f eta))}, from the two volumes. */
    public static Wanted openingFor(double ballMm, double thicknessMm, double metalPart, double released,
            double pitchMm) {
        Check.within("ball", ballMm, 0.05, 3, "mm");
        Check.within("thickness of the stencil", thicknessMm, 0.02, 0.5, "mm");
        double opening = Math.sqrt(ballMm * ballMm * ballMm / (1.5 * thicknessMm * metalPart * released));
        return new Wanted(opening, pitchMm - opening, opening / (4 * thicknessMm));
    }

    /** Mass of one sphere, mg. */
    public static double massMg(double diameterMm, double gPerCm3) {
        return sphereMm3(diameterMm) * gPerCm3;
    }

    /** Spheres to order: the field and a share over it, rounded up. */
    public static int order(int balls, double overPct) {
        Check.within("overage", overPct, 0, 100, "%");
        return (int) Math.ceil(balls * (1 + overPct / 100) - 1e-9);
    }
}
