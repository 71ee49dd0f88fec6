package org.greenbead.core.run;

import org.greenbead.core.board.ProbePlace;

/** Follows one thermocouple: its trace, whether it lives, whether it can be believed. */
final class ProbeWatch {
    static final double RAMP_WINDOW_S = 10;
    /** A logger with 0.1 K resolution and noise repeats itself for a few samples, not for this long while others move. */
    private static final double FROZEN_S = 15;
    private static final double OTHERS_MOVED_K = 4;
    private static final double SPIKE_K = 25;
    private static final double DISAGREE_K = 30;
    private static final double DISAGREE_S = 12;
    private final ProbePlace place;
    private final Trace trace = new Trace();
    private ProbeView.Health health = ProbeView.Health.SILENT;
    private int spikes;
    private double disagreeSinceS = Double.NaN;

    ProbeWatch(ProbePlace place) {
        this.place = place;
    }

    /** @return true when the reading may be used */
    boolean take(double timeS, Reading reading, double expectedC, double expectedMoveK) {
        if (!(reading instanceof Reading.Measured measured)) {
            health = ProbeView.Health.OPEN;
            trace.clear();
            return false;
        }
        double value = measured.celsius();
        if (!trace.isEmpty() && Math.abs(value - trace.last()) > SPIKE_K && timeS - trace.lastTimeS() < 3
                && spikes < 3) {
            spikes++;
            return false;
        }
        spikes = 0;
        trace.add(timeS, value);
        if (trace.unchangedS() >= FROZEN_S && expectedMoveK > OTHERS_MOVED_K) {
            health = ProbeView.Health.FROZEN;
            return false;
        }
        if (Math.abs(value - expectedC) > DISAGREE_K) {
            disagreeSinceS = Double.isNaN(disagreeSinceS) ? timeS : disagreeSinceS;
            if (timeS - disagreeSinceS > DISAGREE_S) {
                health = ProbeView.Health.DISAGREES;
                return false;
            }
            return health == ProbeView.Health.GOOD;
        }
        disagreeSinceS = Double.NaN;
        health = ProbeView.Health.GOOD;
        return true;
    }

    /** Nothing was seen for a while: what was known is old. */
    void forget() {
        trace.clear();
        silent();
    }

    void silent() {
        health = ProbeView.Health.SILENT;
    }

    /** It measures something of its own, whether or not that can be believed. */
    boolean live() {
        return health == ProbeView.Health.GOOD || health == ProbeView.Health.DISAGREES;
    }

    boolean good() {
        return health == ProbeView.Health.GOOD;
    }

    Trace trace() {
        return trace;
    }

    ProbePlace place() {
        return place;
    }

    double rampKPerS() {
        return trace.isEmpty()
                ? Double.NaN
                : trace.slope(trace.lastTimeS() - RAMP_WINDOW_S, trace.lastTimeS());
    }

    ProbeView view() {
        return new ProbeView(place, trace.isEmpty() ? Double.NaN : trace.last(), rampKPerS(), health);
    }
}
