package org.greenbead.core.run;

import org.greenbead.core.quantity.Phrase;

/**
 * Degrees between a part and its limit.
 *
 * @param what      the part and what gives way
 * @param kind      how it is judged
 * @param nowC      now, °C
 * @param peakC     highest so far or expected, °C; NaN when unknown
 * @param limitC    its limit, °C
 */
public record Room(Phrase what, Kind kind, double nowC, double peakC, double limitC) {
    /** Joints that must melt, or something that must stay under its limit. */
    public enum Kind {
        MUST_MELT, BODY, JOINTS, PART
    }

    /** Degrees left now; negative when passed. */
    public double leftK() {
        return limitC - nowC;
    }

    /** Degrees left at the peak. */
    public double leftAtPeakK() {
        return limitC - peakC;
    }
}
