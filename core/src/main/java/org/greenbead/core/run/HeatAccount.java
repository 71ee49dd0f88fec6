package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.thermal.HeatModel;

/** How hot everything has been during a run, by the estimate. */
final class HeatAccount {
    private final RunPlan plan;
    private final Alloy alloy;
    private final List<Protected> guarded;
    private final double[] peakC;
    private final double[] highestC;
    private final Trace jointTrace = new Trace();
    private double aboveS;
    private double peakJointC = Double.NEGATIVE_INFINITY;
    private double peakTopC = Double.NEGATIVE_INFINITY;
    private Optional<Estimate> peak = Optional.empty();
    private double highestJointC = Double.NEGATIVE_INFINITY;
    private double firstMeltS = Double.NaN;
    private boolean reached;

    HeatAccount(RunPlan plan) {
        this.plan = plan;
        alloy = plan.target().joint().alloy();
        guarded = Protected.of(plan);
        peakC = new double[guarded.size()];
        highestC = new double[guarded.size()];
        Arrays.fill(peakC, Double.NEGATIVE_INFINITY);
        Arrays.fill(highestC, Double.NEGATIVE_INFINITY);
    }

    List<Protected> guarded() {
        return guarded;
    }

    Trace jointTrace() {
        return jointTrace;
    }

    void follow(double timeS, double stepS, JointEstimator estimator, Estimate cold, Estimate hot,
            Estimate top) {
        jointTrace.add(timeS, estimator.of(HeatModel::jointCentreC).celsius());
        if (hot.celsius() > peakJointC) {
            peakJointC = hot.celsius();
            peak = Optional.of(hot);
        }
        highestJointC = Math.max(highestJointC, hot.highC());
        peakTopC = Math.max(peakTopC, top.celsius());
        for (int i = 0; i < peakC.length; i++) {
            Estimate part = estimator.of(guarded.get(i).celsius());
            peakC[i] = Math.max(peakC[i], part.celsius());
            highestC[i] = Math.max(highestC[i], part.highC());
        }
        if (Double.isNaN(firstMeltS) && hot.celsius() >= alloy.liquidusC()) {
            firstMeltS = timeS;
        }
        if (cold.celsius() >= alloy.liquidusC()) {
            aboveS += stepS;
            reached = true;
        }
    }

    /** Whether every joint has been over liquidus by the best estimate. */
    boolean reached() {
        return reached;
    }

    /** Whether any joint of the target may have been liquid. */
    boolean mayHaveMelted() {
        return highestJointC >= alloy.solidusC();
    }

    double firstMeltS() {
        return firstMeltS;
    }

    double aboveS() {
        return aboveS;
    }

    double peakJointC() {
        return peakJointC;
    }

    /** What is shown as ± of the peak, K; NaN before any heat. */
    double peakPlusMinusK() {
        return peak.map(Estimate::plusMinusK).orElse(Double.NaN);
    }

    double peakTopC() {
        return peakTopC;
    }

    Map<Protected, Double> peaks() {
        var peaks = new LinkedHashMap<Protected, Double>();
        for (int i = 0; i < peakC.length; i++) {
            peaks.put(guarded.get(i), peakC[i]);
        }
        return peaks;
    }

    /** Joints of neighbours that may have been liquid. */
    List<Protected> neighboursThatMayHaveMelted() {
        var may = new ArrayList<Protected>();
        for (int i = 0; i < peakC.length; i++) {
            if (guarded.get(i).kind() == Room.Kind.JOINTS && highestC[i] >= guarded.get(i).limitC()) {
                may.add(guarded.get(i));
            }
        }
        return may;
    }

    /** What everything has and will have. @param rehearsal adds what is still to come by the plan; empty once it is not heating */
    List<Room> room(JointEstimator estimator, Estimate cold, Optional<Rehearsal> rehearsal, int stage,
            double stageS) {
        var rooms = new ArrayList<Room>();
        rooms.add(new Room(Phrase.of("room.melt", new Quantity.Name(plan.target().name())),
                Room.Kind.MUST_MELT, cold.celsius(), Math.max(peakJointC, cold.celsius()),
                alloy.liquidusC()));
        for (int i = 0; i < peakC.length; i++) {
            Protected part = guarded.get(i);
            double now = estimator.of(part.celsius()).celsius();
            double peak = Math.max(peakC[i], now);
            if (rehearsal.isPresent()) {
                peak = Math.max(peak, now + rehearsal.get().stillToRiseK(stage, stageS, i));
            }
            rooms.add(new Room(part.what(), part.kind(), now, peak, part.limitC()));
        }
        return rooms;
    }
}
