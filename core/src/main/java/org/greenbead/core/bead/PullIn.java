package org.greenbead.core.bead;

import org.greenbead.core.quantity.Check;

/**
 * Whether surface tension will centre a chip: offset and turn add up at the farthest corner, {@code sqrt(x^2 + y^2) + theta r}; it recovers
 * under half a pad, with good wetting, no glue and no heavy lid. Rule of thumb; a wrong corner is never recovered.
 *
 * @param cornerMm  total departure at the corner
 * @param allowedMm half the pad
 */
public record PullIn(double cornerMm, double allowedMm, Verdict verdict) {
    /** What to expect. */
    public enum Verdict {
        RECOVERS, BORDER, MOVE_IT
    }

    /** Within this part of the limit nobody can tell. */
    private static final double BORDER_PART = 0.1;

    public static PullIn of(double xMm, double yMm, double turnDeg, double cornerRadiusMm, double padMm) {
        Check.within("offset", Math.hypot(xMm, yMm), 0, 20, "mm");
        Check.within("turn", turnDeg, -45, 45, "°");
        Check.within("distance of the corner", cornerRadiusMm, 0.5, 80, "mm");
        Check.within("pad", padMm, 0.05, 2, "mm");
        double total = Math.hypot(xMm, yMm) + Math.toRadians(Math.abs(turnDeg)) * cornerRadiusMm;
        double allowed = padMm / 2;
        return new PullIn(total, allowed, total > allowed * (1 + BORDER_PART)
                ? Verdict.MOVE_IT
                : total < allowed * (1 - BORDER_PART) ? Verdict.RECOVERS : Verdict.BORDER);
    }
}
