package org.greenbead.core.bead;

import org.greenbead.core.quantity.Check;

/**
 * A molten ball between two round pads that it wets to their edge, without load: a sphere cut flat twice. The height solves
 * {@code V = pi h / 6 (3 a^2 + 3 b^2 + h^2)} (volume of a spherical segment between two parallel planes; Bronshtein and Semendyayev).
 *
 * @param heightMm standoff
 * @param bulgeMm  widest diameter; at a pad's edge where the sphere's middle lies outside the segment
 */
public record Collapse(double heightMm, double bulgeMm) {
    /**
     * @param volumeMm3 of the ball, above 0
     * @param padAMm    radius of one pad
     * @param padBMm    radius of the other
     * @throws IllegalArgumentException when the ball is too small to reach both pads
     */
    public static Collapse of(double volumeMm3, double padAMm, double padBMm) {
        Check.within("volume of the ball", volumeMm3, 1e-6, 100, "mm3");
        Check.within("radius of the pad", padAMm, 0.02, 2, "mm");
        Check.within("radius of the other pad", padBMm, 0.02, 2, "mm");
        double low = 0;
        double high = Math.cbrt(6 * volumeMm3 / Math.PI) + 1;
        // The volume grows with the height, so halving finds the one root.
        for (int i = 0; i < 200 && high - low > 1e-12; i++) {
            double middle = (low + high) / 2;
            if (segment(middle, padAMm, padBMm) < volumeMm3) {
                low = middle;
            } else {
                high = middle;
            }
        }
        double height = (low + high) / 2;
        double middleAboveA = (height * height + padBMm * padBMm - padAMm * padAMm) / (2 * height);
        double bulge = middleAboveA >= 0 && middleAboveA <= height
                ? 2 * Math.hypot(padAMm, middleAboveA)
                : 2 * Math.max(padAMm, padBMm);
        return new Collapse(height, bulge);
    }

    static double segment(double height, double a, double b) {
        return Math.PI * height / 6 * (3 * a * a + 3 * b * b + height * height);
    }

    /** Free space to the next joint. */
    public double gapMm(double pitchMm) {
        return pitchMm - bulgeMm;
    }
}
