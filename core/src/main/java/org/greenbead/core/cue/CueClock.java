package org.greenbead.core.cue;

import java.util.ArrayList;
import java.util.List;

/** A cue that runs. Its clock is handed in with every call, so it can be driven by any. Not for several threads. */
public final class CueClock {
    /** Differences of clock readings are exact to far less than this. */
    private static final double ROUNDING_S = 1e-6;
    private final Cue cue;
    private final double eventS;
    private double lookedS;

    /** @param eventS when the event was called, s on the caller's clock */
    public CueClock(Cue cue, double eventS) {
        this.cue = cue;
        this.eventS = eventS;
        this.lookedS = eventS;
    }

    public Cue cue() {
        return cue;
    }

    /** Seconds since the event. */
    public double goneS(double nowS) {
        return Math.max(0, nowS - eventS);
    }

    /** Seconds left; 0 when it is over. */
    public double leftS(double nowS) {
        return Math.max(0, cue.seconds() - goneS(nowS));
    }

    public boolean over(double nowS) {
        return leftS(nowS) <= ROUNDING_S;
    }

    /** What is to be said since the last look, in order; a late look does not lose a number, and none is said twice. */
    public List<Integer> due(double nowS) {
        var due = new ArrayList<Integer>();
        for (int at : cue.saidAt()) {
            if (eventS + at > lookedS + ROUNDING_S && eventS + at <= nowS + ROUNDING_S) {
                due.add(cue.spoken() ? at : cue.seconds() - at);
            }
        }
        lookedS = Math.max(lookedS, nowS);
        return List.copyOf(due);
    }
}
