package org.greenbead.core.run;

import org.greenbead.core.board.ProbePlace;

/**
 * A probe as the technician sees it.
 *
 * @param celsius last good value, NaN before the first
 * @param rampKPerS over the robust window, NaN when unknown
 */
public record ProbeView(ProbePlace place, double celsius, double rampKPerS, Health health) {
    /** Whether a probe may be believed. */
    public enum Health {
        GOOD, OPEN, FROZEN, DISAGREES, SILENT, JUMPED, IMPOSSIBLE
    }
}
