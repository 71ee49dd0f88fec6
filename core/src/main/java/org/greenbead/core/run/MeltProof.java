package org.greenbead.core.run;

/**
 * How well it is shown that every joint was liquid. Points: a probe at the joint 5 K over liquidus 3; a nudge that moves 2;
 * the plateau of melting seen by a probe 1; the estimate over liquidus by its whole uncertainty 1. Three are proof, two make
 * it probable, time alone is nothing.
 */
public record MeltProof(boolean probeAtJoint, boolean nudge, boolean plateau, boolean estimate) {
    public static final MeltProof NONE = new MeltProof(false, false, false, false);

    /** How the points add up. */
    public enum Strength {
        UNPROVEN, PROBABLE, PROVEN
    }

    public int points() {
        return (probeAtJoint ? 3 : 0) + (nudge ? 2 : 0) + (plateau ? 1 : 0) + (estimate ? 1 : 0);
    }

    public Strength strength() {
        return points() >= 3 ? Strength.PROVEN : points() == 2 ? Strength.PROBABLE : Strength.UNPROVEN;
    }
}
