package org.greenbead.core.cue;

/** Laps of a nozzle that is led in a circle, one press each time it passes the same place. Clock readings are handed in, s. Not for several threads. */
public final class NozzleLaps {
    /** Two presses so close are one. */
    private static final double BOUNCE_S = 0.25;
    private double firstS = Double.NaN;
    private double lastS = Double.NaN;
    private double lapS = Double.NaN;
    private double slowestS;
    private int laps;

    /** It passes the place. */
    public void press(double nowS) {
        if (Double.isNaN(lastS)) {
            firstS = nowS;
            lastS = nowS;
        } else if (nowS - lastS >= BOUNCE_S) {
            lapS = nowS - lastS;
            lastS = nowS;
            slowestS = Math.max(slowestS, lapS);
            laps++;
        }
    }

    public boolean begun() {
        return !Double.isNaN(lastS);
    }

    /** Since it last passed, s; 0 before the first. */
    public double sinceS(double nowS) {
        return begun() ? Math.max(0, nowS - lastS) : 0;
    }

    /** The lap before, s; not a number before the first is whole. */
    public double lapS() {
        return lapS;
    }

    public int laps() {
        return laps;
    }

    /** s; 0 before the first. */
    public double slowestS() {
        return slowestS;
    }

    /** s; not a number before the first is whole. */
    public double meanS() {
        return laps == 0 ? Double.NaN : (lastS - firstS) / laps;
    }
}
