package org.greenbead.core.bead;

import org.greenbead.core.quantity.Check;

/**
 * How evenly a chip or an upper board sits, from the gaps at its four edges.
 *
 * @param rangeMm  largest less smallest
 * @param tiltDeg  {@code atan(range / length)}
 */
public record EdgeGap(double meanMm, double rangeMm, double tiltDeg) {
    /** Edges may differ by so much of their mean (practice of the trade). */
    static final double EVEN_PART = 0.25;

    /** Whether gaps differ by no more than a quarter of their mean. */
    public static boolean even(double... gapsMm) {
        var all = java.util.Arrays.stream(gapsMm).summaryStatistics();
        return all.getMax() - all.getMin() <= all.getAverage() * EVEN_PART;
    }

    public static EdgeGap of(double northMm, double eastMm, double southMm, double westMm, double lengthMm) {
        double[] gaps = {northMm, eastMm, southMm, westMm};
        for (double gap : gaps) {
            Check.within("gap", gap, 0, 10, "mm");
        }
        Check.within("length of the edge", lengthMm, 1, 500, "mm");
        double least = Math.min(Math.min(northMm, eastMm), Math.min(southMm, westMm));
        double most = Math.max(Math.max(northMm, eastMm), Math.max(southMm, westMm));
        return new EdgeGap((northMm + eastMm + southMm + westMm) / 4, most - least,
                Math.toDegrees(Math.atan((most - least) / lengthMm)));
    }

    /** Bow or twist of a board, percent of its length or diagonal; over 0.75 it is refused (IPC, bow and twist; verify). */
    public static double bowPct(double heightMm, double lengthMm) {
        Check.within("height over the flat", heightMm, 0, 50, "mm");
        Check.within("length of the board", lengthMm, 5, 800, "mm");
        return heightMm / lengthMm * 100;
    }
}
