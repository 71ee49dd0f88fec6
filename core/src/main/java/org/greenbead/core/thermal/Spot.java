package org.greenbead.core.thermal;

import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Point;

/**
 * A place on a package among the middles of its cells: the four cells round it, counted row by row along x, and where it lies between them. Outside of
 * the middles it is carried on linearly.
 */
record Spot(int near, int right, int above, int aslant, double alongX, double alongY) {
    /** Outermost joints lie this far inside the body's edge at most, mm. */
    private static final double MOST_INSET_MM = 0.75;
    private static final double INSET_SHARE = 0.1;

    /** Where a package is looked at: middle, upper right corner, and the eight places of the rim. */
    record Places(Spot middle, Spot corner, Spot[] rim) {
        static Places of(double[] xMm, double[] yMm, int ix0, int ix1, int iy0, int iy1, Chip chip) {
            Point at = chip.centreMm();
            double inset = Math.min(MOST_INSET_MM,
                    INSET_SHARE * Math.min(chip.sizeMm().xMm(), chip.sizeMm().yMm()));
            double reachX = chip.sizeMm().xMm() / 2 - inset;
            double reachY = chip.sizeMm().yMm() / 2 - inset;
            var rim = new Spot[8];
            int k = 0;
            for (int ix = -1; ix <= 1; ix++) {
                for (int iy = -1; iy <= 1; iy++) {
                    if (ix != 0 || iy != 0) {
                        rim[k++] = Spot.of(xMm, yMm, ix0, ix1, iy0, iy1, at.xMm() + ix * reachX,
                                at.yMm() + iy * reachY);
                    }
                }
            }
            return new Places(Spot.of(xMm, yMm, ix0, ix1, iy0, iy1, at.xMm(), at.yMm()),
                    Spot.of(xMm, yMm, ix0, ix1, iy0, iy1, at.xMm() + chip.sizeMm().xMm() / 2 - inset,
                            at.yMm() + chip.sizeMm().yMm() / 2 - inset),
                    rim);
        }
    }

    static Spot of(double[] xMm, double[] yMm, int ix0, int ix1, int iy0, int iy1, double x, double y) {
        int wide = ix1 - ix0;
        int deep = iy1 - iy0;
        double fx = among(xMm, ix0, ix1, x);
        double fy = among(yMm, iy0, iy1, y);
        int ix = (int) Math.clamp(Math.floor(fx), 0, Math.max(0, wide - 2));
        int iy = (int) Math.clamp(Math.floor(fy), 0, Math.max(0, deep - 2));
        int right = Math.min(ix + 1, wide - 1);
        int above = Math.min(iy + 1, deep - 1);
        return new Spot(iy * wide + ix, iy * wide + right, above * wide + ix, above * wide + right, fx - ix,
                fy - iy);
    }

    /** Position among the middles of cells {@code from} to {@code to}: 0 in the middle of the first. */
    static double among(double[] lines, int from, int to, double at) {
        int i = from;
        while (i < to - 2 && at > (lines[i + 1] + lines[i + 2]) / 2) {
            i++;
        }
        if (to - from < 2) {
            return 0;
        }
        double low = (lines[i] + lines[i + 1]) / 2;
        double high = (lines[i + 1] + lines[i + 2]) / 2;
        return i - from + (at - low) / (high - low);
    }

    /** What it has of a quantity that its four cells have. */
    double between(double atNear, double atRight, double atAbove, double atAslant) {
        return (1 - alongY) * ((1 - alongX) * atNear + alongX * atRight)
                + alongY * ((1 - alongX) * atAbove + alongX * atAslant);
    }

    double of(int[] cells, double[] celsius) {
        return between(celsius[cells[near]], celsius[cells[right]], celsius[cells[above]],
                celsius[cells[aslant]]);
    }
}
