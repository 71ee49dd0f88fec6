package org.greenbead.core.bead;

import java.util.Optional;
import org.greenbead.core.quantity.Check;

/**
 * One place for a ball.
 *
 * @param name       "F18"; "B:A1" in a second field
 * @param xMm        from the middle of the body, seen from the balls, to the right
 * @param yMm        upwards, row A at the top
 * @param diameterMm of its ball; empty = not noted
 * @param net        what it carries; empty = not noted
 */
public record Site(String name, double xMm, double yMm, Optional<Double> diameterMm, String net,
        Critical critical) {
    /** What it costs when it is open. */
    public enum Critical {
        /** Nobody noted it. */
        UNKNOWN,
        /** Not connected, or spare. */
        SPARE,
        /** One of many that carry the same supply. */
        MANY,
        /** The only one of its net. */
        ONLY
    }

    public Site {
        Check.text("site", name);
        if (!RowNames.isSite(name)) {
            throw new IllegalArgumentException("\"" + name
                    + "\" is no site; rows are letters without I, O, Q, S, X and Z, columns count from 1, such as F18");
        }
        Check.within("x of site " + name, xMm, -60, 60, "mm");
        Check.within("y of site " + name, yMm, -60, 60, "mm");
        diameterMm = diameterMm == null ? Optional.empty() : diameterMm;
        diameterMm.ifPresent(d -> Check.within("diameter of site " + name, d, 0.05, 2, "mm"));
        net = net == null ? "" : net;
        critical = critical == null ? Critical.UNKNOWN : critical;
    }

    public double distanceMm(Site other) {
        return Math.hypot(xMm - other.xMm, yMm - other.yMm);
    }

    Site at(double x, double y) {
        return new Site(name, x, y, diameterMm, net, critical);
    }
}
