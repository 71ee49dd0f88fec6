package org.greenbead.core.run;

/**
 * Sees the latent heat in a probe: the slope falls to less than 60 % of what it was 10 to 15 s before while heater and air
 * stay as they are and the joint estimate is near the alloy's melting range. Weak evidence; a changed setting looks the same,
 * so it is silent for a while after one.
 */
final class PlateauHint {
    private static final double QUIET_S = 20;
    private static final double NEAR_K = 12;
    private boolean seen;

    void look(Trace trace, double nowS, double lastChangeS, double jointC, double liquidusC) {
        if (seen || nowS - lastChangeS < QUIET_S || Math.abs(jointC - liquidusC) > NEAR_K
                || trace.isEmpty()) {
            return;
        }
        double before = trace.slope(nowS - 17, nowS - 10);
        double now = trace.slope(nowS - 5, nowS);
        seen = before > 0.3 && now < 0.6 * before;
    }

    boolean seen() {
        return seen;
    }
}
