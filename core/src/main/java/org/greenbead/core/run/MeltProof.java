package org.greenbead.core.run;

import java.util.Arrays;
import java.util.List;

/**
 * How well it is shown that every joint was liquid. Points: a probe at the joint 5 K over liquidus 3; a nudge that moves 2; the plateau of
 * melting seen by a probe 1; the estimate over liquidus by its whole uncertainty 1; a ball or corner seen to melt 1. Each kind counts once,
 * and only while it stands. Three are proof, two make it probable, time alone is nothing.
 */
public record MeltProof(List<Evidence> evidence) {
    public static final MeltProof NONE = new MeltProof(List.of());

    /** How the points add up. */
    public enum Strength {
        UNPROVEN, PROBABLE, PROVEN
    }

    public MeltProof {
        evidence = List.copyOf(evidence);
    }

    public boolean has(Evidence.Kind kind) {
        return evidence.stream().anyMatch(e -> e.kind() == kind && e.counts());
    }

    public boolean probeAtJoint() {
        return has(Evidence.Kind.PROBE_AT_JOINT);
    }

    public boolean nudge() {
        return has(Evidence.Kind.NUDGE);
    }

    public boolean plateau() {
        return has(Evidence.Kind.PLATEAU);
    }

    public boolean estimate() {
        return has(Evidence.Kind.ESTIMATE);
    }

    public boolean eye() {
        return has(Evidence.Kind.EYE);
    }

    public int points() {
        return Arrays.stream(Evidence.Kind.values()).filter(this::has).mapToInt(Evidence.Kind::points).sum();
    }

    public Strength strength() {
        return points() >= 3 ? Strength.PROVEN : points() == 2 ? Strength.PROBABLE : Strength.UNPROVEN;
    }
}
