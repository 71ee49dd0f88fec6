package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.greenbead.core.alloy.Alloy;

/**
 * Everything that spoke for melt during a run, with what the estimate had the joint at. Judged when it comes, and again when a probe turns out
 * false. Time is never in it.
 */
final class EvidenceLedger {
    /** A value over liquidus has to last this long to be evidence, s. */
    private static final double LASTS_S = 3;
    private static final double PROBE_OVER_K = 5;
    private final Alloy alloy;
    private final List<Evidence> all = new ArrayList<>();
    private double estimateSinceS = Double.NaN;
    private double probeSinceS = Double.NaN;

    EvidenceLedger(Alloy alloy) {
        this.alloy = alloy;
    }

    private boolean has(Evidence.Kind kind) {
        return all.stream().anyMatch(e -> e.kind() == kind && e.counts());
    }

    private Evidence add(Evidence.Kind kind, double timeS, Estimate cold, String source,
            Evidence.Standing standing) {
        var evidence = new Evidence(kind, timeS, cold.celsius(), cold.lowC(), cold.highC(), source, standing);
        all.add(evidence);
        return evidence;
    }

    /** A nudge that moved, or something that was seen. It counts unless the joint cannot have been that hot. */
    Evidence seen(Evidence.Kind kind, double timeS, Estimate cold, Estimate hot) {
        double highest = kind == Evidence.Kind.NUDGE ? cold.highC() : hot.highC();
        return add(kind, timeS, cold, "",
                highest < alloy.solidusC() ? Evidence.Standing.DOUBTED : Evidence.Standing.COUNTS);
    }

    /** The coldest joint over liquidus by its whole interval, for a while. */
    void estimate(double timeS, Estimate cold) {
        if (cold.lowC() <= alloy.liquidusC()) {
            estimateSinceS = Double.NaN;
            return;
        }
        estimateSinceS = Double.isNaN(estimateSinceS) ? timeS : estimateSinceS;
        if (timeS - estimateSinceS >= LASTS_S && !has(Evidence.Kind.ESTIMATE)) {
            add(Evidence.Kind.ESTIMATE, timeS, cold, "", Evidence.Standing.COUNTS);
        }
    }

    /** A believed probe at the joint. @param celsius what it shows */
    void probeAtJoint(double timeS, String probe, double celsius, Estimate cold) {
        if (celsius < alloy.liquidusC() + PROBE_OVER_K || cold.highC() < alloy.solidusC()) {
            probeSinceS = Double.NaN;
            return;
        }
        probeSinceS = Double.isNaN(probeSinceS) ? timeS : probeSinceS;
        if (timeS - probeSinceS >= LASTS_S && !has(Evidence.Kind.PROBE_AT_JOINT)) {
            add(Evidence.Kind.PROBE_AT_JOINT, timeS, cold, probe, Evidence.Standing.COUNTS);
        }
    }

    void plateau(double timeS, String probe, Estimate cold) {
        if (!has(Evidence.Kind.PLATEAU)) {
            add(Evidence.Kind.PLATEAU, timeS, cold, probe, Evidence.Standing.COUNTS);
        }
    }

    /**
     * These probes were false: what they showed since then falls, and what the estimate said with their help.
     *
     * @param since for each probe, s
     * @return what fell
     */
    List<Evidence> fell(Map<String, Double> since) {
        double first = since.values().stream().mapToDouble(Double::doubleValue).min()
                .orElse(Double.NEGATIVE_INFINITY);
        var fallen = new ArrayList<Evidence>();
        for (int i = 0; i < all.size(); i++) {
            Evidence e = all.get(i);
            boolean own = since.containsKey(e.source()) && e.timeS() >= since.get(e.source());
            if (e.counts() && (own || e.kind() == Evidence.Kind.ESTIMATE && e.timeS() >= first)) {
                all.set(i, e.as(Evidence.Standing.FELL));
                fallen.add(e);
            }
        }
        estimateSinceS = Double.NaN;
        return fallen;
    }

    /** Time went by that nobody saw: nothing lasts across it. */
    void interrupted() {
        estimateSinceS = Double.NaN;
        probeSinceS = Double.NaN;
    }

    MeltProof proof() {
        return new MeltProof(all);
    }
}
