package org.greenbead.core.picture;

import java.util.List;
import org.greenbead.core.board.Point;
import org.greenbead.core.quantity.Check;

/**
 * How large a board in a photo is, from two points whose distance was measured: lengths of edges over the scale there. Right for a photo taken
 * from straight above; how far opposite edges differ tells how far it was not.
 *
 * @param pxPerMm over 0.2, or nothing on the board could be told apart
 */
public record Ruled(double pxPerMm) {
    private static final double LEAST_PX = 20;
    /** Opposite edges differ by more: the photo was not taken from straight above. Judgement: what a ruler is read to on a small board. */
    private static final double SLANTED = 0.02;

    /**
     * @param sizeMm of the board, to a tenth of a millimetre
     * @param slant  by which part opposite edges differ; so far, or more, may sizes be off
     */
    public record Outline(List<Px> corners, Point sizeMm, double slant) {
        public boolean slanted() {
            return slant > SLANTED;
        }
    }

    public Ruled {
        Check.within("scale of the photo", pxPerMm, 0.2, 1000, "px/mm");
    }

    /** @param mm measured from one to the other, 1 to 500 */
    public static Ruled of(Px a, Px b, double mm) {
        Check.within("distance between the points", mm, 1, 500, "mm");
        double px = length(a, b);
        if (px < LEAST_PX) {
            throw new IllegalArgumentException("the points lie " + Math.round(px)
                    + " px apart; mark two that lie at least " + Math.round(LEAST_PX) + " px apart");
        }
        return new Ruled(px / mm);
    }

    /** @param corners lower left, lower right, upper right, upper left */
    public Outline outline(List<Px> corners) {
        double below = length(corners.get(0), corners.get(1));
        double above = length(corners.get(3), corners.get(2));
        double left = length(corners.get(0), corners.get(3));
        double right = length(corners.get(1), corners.get(2));
        double wide = (below + above) / 2;
        double high = (left + right) / 2;
        if (wide == 0 || high == 0) {
            throw new IllegalArgumentException("the corners lie on one another; mark four different ones");
        }
        return new Outline(List.copyOf(corners), new Point(tenth(wide / pxPerMm), tenth(high / pxPerMm)),
                Math.max(Math.abs(below - above) / wide, Math.abs(left - right) / high));
    }

    private static double tenth(double mm) {
        return Math.round(mm * 10) / 10.0;
    }

    private static double length(Px a, Px b) {
        return Math.hypot(a.x() - b.x(), a.y() - b.y());
    }
}
