package org.greenbead.core.run;

/** Free cooling towards the room, t = tau ln((T0 - Ta)/(T - Ta)) (lumped body; Incropera and DeWitt, transient conduction). */
public final class CoolDown {
    private CoolDown() {
    }

    /** Seconds from {@code fromC} to {@code safeC}; 0 when already there. All °C, tau s, {@code safeC} above the room. */
    public static double secondsTo(double fromC, double safeC, double roomC, double tauS) {
        if (safeC <= roomC) {
            throw new IllegalArgumentException(
                    "safe temperature " + safeC + " °C is not above the room's " + roomC + " °C");
        }
        return fromC <= safeC ? 0 : tauS * Math.log((fromC - roomC) / (safeC - roomC));
    }
}
