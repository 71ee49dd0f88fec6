package org.greenbead.core.recipe;

import org.greenbead.core.board.Point;
import org.greenbead.core.quantity.Check;

/**
 * Foil tape laid over the top side with some air under it.
 *
 * @param fromMm     one corner of the covered rectangle
 * @param toMm       the opposite corner
 * @param gapMm      air under the foil, 0 to 10
 * @param emissivity of the foil, 0.01 to 1
 */
public record Shield(Point fromMm, Point toMm, double gapMm, double emissivity) {
    /** Conductivity of still air in the gap, W/mK, at about 100 °C. */
    public static final double AIR_W_PER_MK = 0.03;

    public Shield {
        Check.present("shield corner", fromMm);
        Check.present("shield corner", toMm);
        if (!(toMm.xMm() > fromMm.xMm() && toMm.yMm() > fromMm.yMm())) {
            throw new IllegalArgumentException(
                    "a shield's second corner must lie right of and above its first; it runs from "
                            + fromMm.xMm() + ", " + fromMm.yMm() + " to " + toMm.xMm() + ", " + toMm.yMm());
        }
        Check.within("gap under a shield", gapMm, 0, 10, "mm");
        Check.within("emissivity of a shield", emissivity, 0.01, 1, "");
    }

    public boolean covers(double xMm, double yMm) {
        return xMm > fromMm.xMm() && xMm < toMm.xMm() && yMm > fromMm.yMm() && yMm < toMm.yMm();
    }

    public double resistanceM2KPerW() {
        return gapMm / 1000 / AIR_W_PER_MK;
    }
}
