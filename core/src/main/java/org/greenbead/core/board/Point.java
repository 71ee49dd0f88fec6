package org.greenbead.core.board;

import org.greenbead.core.quantity.Check;

/** A place or an extent on the board, mm from its lower left corner. */
public record Point(double xMm, double yMm) {
    public Point {
        Check.within("x", xMm, -500, 1000, "mm");
        Check.within("y", yMm, -500, 1000, "mm");
    }

    public double distanceMm(Point other) {
        return Math.hypot(xMm - other.xMm, yMm - other.yMm);
    }

    /** Width times height of an extent, mm2. */
    public double areaMm2() {
        return xMm * yMm;
    }
}
