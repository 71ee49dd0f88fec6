package org.greenbead.core.run;

import org.greenbead.core.quantity.Check;

/**
 * One thing that speaks for melt.
 *
 * @param timeS    when
 * @param jointC   coldest joint by the estimate then, °C, with its interval
 * @param source   the probe that showed it; empty for the eye and the estimate
 * @param standing whether it counts
 */
public record Evidence(Kind kind, double timeS, double jointC, double lowC, double highC, String source,
        Standing standing) {
    /** What was seen, and how much it counts: three points are proof, two make melt probable (docs/run.md). */
    public enum Kind {
        PROBE_AT_JOINT(3), NUDGE(2), PLATEAU(1), ESTIMATE(1), EYE(1);

        private final int points;

        Kind(int points) {
            this.points = points;
        }

        public int points() {
            return points;
        }
    }

    /** It counts; or it contradicts what is known of the joint; or what it rests on turned out false. */
    public enum Standing {
        COUNTS, DOUBTED, FELL
    }

    public Evidence {
        Check.present("kind of evidence", kind);
        Check.present("standing", standing);
        source = source == null ? "" : source;
    }

    public Evidence as(Standing other) {
        return new Evidence(kind, timeS, jointC, lowC, highC, source, other);
    }

    public boolean counts() {
        return standing == Standing.COUNTS;
    }
}
