package org.greenbead.core.forming;

import org.greenbead.core.alloy.Alloy;

/**
 * Between which temperatures a stencil comes off: above {@value #SOFT_C} °C the rosin of the flux is soft (softening points of rosins by ring
 * and ball, ASTM E28, lie at 70 to 85 °C), and {@value #UNDER_K} K under the solidus of the balls they bear the pull (they creep above).
 * Air that is never hotter than the upper end cannot melt a ball however long it blows.
 *
 * @param lowC  where the flux lets go, °C
 * @param highC where the balls still bear it, °C
 */
public record ReleaseWarm(double lowC, double highC) {
    public static final double SOFT_C = 80;
    public static final double UNDER_K = 20;
    /** No flux asks for more than this; higher only tires the chip. */
    private static final double MOST_AIR_C = 150;
    private static final double OVER_SOFT_K = 10;

    public static ReleaseWarm of(Alloy balls) {
        return new ReleaseWarm(SOFT_C, balls.solidusC() - UNDER_K);
    }

    /** False where the balls soften as early as the flux: then the stencil is taken off cold, flux dissolved. */
    public boolean possible() {
        return highC >= lowC + OVER_SOFT_K;
    }

    /** What the air is set to, °C. */
    public double airC() {
        return Math.min(MOST_AIR_C, highC);
    }

    /** Warmed up to here the stencil is slid, °C. */
    public double slideC() {
        return Math.min(lowC + OVER_SOFT_K, highC);
    }

    public boolean soft(double celsius) {
        return celsius >= lowC && celsius <= highC;
    }
}
