package org.greenbead.core.run;

import java.util.OptionalDouble;
import org.greenbead.core.board.ProbePlace;

/** Follows one thermocouple: its trace, whether it lives, whether it can be believed. */
final class ProbeWatch {
    static final double RAMP_WINDOW_S = 10;
    /** A logger with 0.1 K resolution and noise repeats itself for a few samples, not for this long while others move. */
    private static final double FROZEN_S = 15;
    private static final double OTHERS_MOVED_K = 4;
    /** No thermocouple of a bench reads outside this, °C: type K on a board at room temperature to hot air. */
    private static final double LOWEST_C = -60;
    private static final double HIGHEST_C = 600;
    /**
     * A bead taped to a board follows it; the fastest boards rise by 12 K/s in the first seconds of full air and fall by 7 K/s under a fan
     * (docs/thermal.md). Faster than this it is not the board that it shows.
     */
    private static final double FASTEST_K_PER_S = 15;
    private static final double JITTER_K = 5;
    /** Judgement: a bead that has jumped is named after this long, and believed again after that long at a believable value, s. */
    private static final double JUMP_NAMED_S = 1.5;
    private static final double BELIEVED_AGAIN_S = 5;
    private static final double DISAGREE_K = 30;
    private static final double DISAGREE_SD = 4;
    private static final double DISAGREE_S = 12;
    private final ProbePlace place;
    private final Trace trace = new Trace();
    private ProbeView.Health health = ProbeView.Health.SILENT;
    private double lastC = Double.NaN;
    private double lastS = Double.NaN;
    private double shownC = Double.NaN;
    private double strangeSinceS = Double.NaN;
    private double glitchS = Double.NaN;
    private double fitsSinceS = Double.NaN;
    private double disagreeSinceS = Double.NaN;
    private boolean barred;

    ProbeWatch(ProbePlace place) {
        this.place = place;
    }

    /**
     * @param expected      what the estimate has it show, with its spread
     * @param expectedMoveK how far the joint has moved in the last seconds by the estimate
     * @return true when the reading may be used
     */
    boolean take(double timeS, Reading reading, Estimate expected, double expectedMoveK) {
        if (!(reading instanceof Reading.Measured measured)) {
            health = ProbeView.Health.OPEN;
            trace.clear();
            lastC = Double.NaN;
            return false;
        }
        double value = measured.celsius();
        shownC = value;
        if (!(value >= LOWEST_C && value <= HIGHEST_C)) {
            return strange(timeS, ProbeView.Health.IMPOSSIBLE);
        }
        if (!Double.isNaN(lastC)
                && Math.abs(value - lastC) > JITTER_K + FASTEST_K_PER_S * (timeS - lastS)) {
            return strange(timeS, ProbeView.Health.JUMPED);
        }
        if (health == ProbeView.Health.JUMPED || health == ProbeView.Health.IMPOSSIBLE) {
            if (!fitsAgain(timeS, value, expected)) {
                return false;
            }
        } else if (!Double.isNaN(strangeSinceS)) {
            glitchS = timeS;
        }
        strangeSinceS = Double.NaN;
        lastC = value;
        lastS = timeS;
        trace.add(timeS, value);
        if (barred) {
            health = ProbeView.Health.DISAGREES;
            return false;
        }
        if (trace.unchangedS() >= FROZEN_S && expectedMoveK > OTHERS_MOVED_K) {
            health = ProbeView.Health.FROZEN;
            return false;
        }
        if (Math.abs(value - expected.celsius()) > Math.max(DISAGREE_K, DISAGREE_SD * expected.sigmaK())) {
            // Not believed from the first moment; named once it has lasted.
            disagreeSinceS = Double.isNaN(disagreeSinceS) ? timeS : disagreeSinceS;
            if (timeS - disagreeSinceS > DISAGREE_S) {
                health = ProbeView.Health.DISAGREES;
            }
            return false;
        }
        disagreeSinceS = Double.NaN;
        health = ProbeView.Health.GOOD;
        return true;
    }

    private boolean strange(double timeS, ProbeView.Health as) {
        strangeSinceS = Double.isNaN(strangeSinceS) ? timeS : strangeSinceS;
        fitsSinceS = Double.NaN;
        if (timeS - strangeSinceS >= JUMP_NAMED_S) {
            health = as;
        }
        return false;
    }

    /** After a jump the bead has to show what the board may have, for a while. */
    private boolean fitsAgain(double timeS, double value, Estimate expected) {
        if (Math.abs(value - expected.celsius()) > Math.max(8, 2.5 * expected.sigmaK())) {
            fitsSinceS = Double.NaN;
            lastC = value;
            lastS = timeS;
            return false;
        }
        fitsSinceS = Double.isNaN(fitsSinceS) ? timeS : fitsSinceS;
        return timeS - fitsSinceS >= BELIEVED_AGAIN_S;
    }

    /** When a single sample last stood apart from those before and after it; empty where none did. */
    OptionalDouble glitchS() {
        return Double.isNaN(glitchS) ? OptionalDouble.empty() : OptionalDouble.of(glitchS);
    }

    /** Shown to be false by more than its own trace: not believed until it is let in again. */
    void bar(boolean out) {
        barred = out;
        if (out) {
            health = ProbeView.Health.DISAGREES;
        }
    }

    boolean barred() {
        return barred;
    }

    /** Nothing was seen for a while: what was known is old. */
    void forget() {
        trace.clear();
        lastC = Double.NaN;
        silent();
    }

    /** It lives, and is another place's from now on. */
    void beginAnew() {
        trace.clear();
        lastC = Double.NaN;
        disagreeSinceS = Double.NaN;
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
        boolean strange = health == ProbeView.Health.JUMPED || health == ProbeView.Health.IMPOSSIBLE;
        return new ProbeView(place, strange ? shownC : trace.isEmpty() ? Double.NaN : trace.last(),
                rampKPerS(), health);
    }
}
