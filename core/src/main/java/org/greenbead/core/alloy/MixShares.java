package org.greenbead.core.alloy;

/** Shares by mass for one site, factory ball taken as 1. Assumed until weighed on the own bench. */
public final class MixShares {
    /** Thinning solder. */
    public static final double ADDED = 1.5;
    /** New ball. */
    public static final double BALL = 1.2;
    /** One pass of fresh wick leaves about an eighth. */
    private static final double LEFT_BY_A_PASS = 0.12;
    /** The skin that solder leaves on copper. */
    private static final double SKIN = 0.02;

    private MixShares() {
    }

    /** Part of the solder that this many wick passes leave on a pad. */
    public static double leftBy(int wickPasses) {
        return Math.max(SKIN, Math.pow(LEFT_BY_A_PASS, wickPasses));
    }
}
