package org.greenbead.core.run;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.greenbead.core.finding.Finding;

/**
 * A run at one moment.
 *
 * @param stage      index of the stage in hand
 * @param stageS     time in it, s
 * @param joint      coldest joint of the target
 * @param chipTop    body of the target
 * @param rampKPerS  of the joint estimate
 * @param meltsInS   until the coldest joint is liquid; empty when it is, or will not at these settings
 * @param safeInS    until moving is safe; empty before cooling
 * @param aboveS     time above liquidus so far
 * @param room       for every protected part
 * @param findings   worst first; those of this moment
 * @param raised     everything that was found during the run
 * @param forming    how far the balls are; empty where none are made
 */
public record RunState(Status status, double timeS, int stage, double stageS, Map<String, ProbeView> probes,
        Estimate joint, Estimate jointHot,
        Estimate chipTop, double rampKPerS, OptionalDouble meltsInS, OptionalDouble safeInS, double aboveS,
        double peakJointC,
        double peakTopC, MeltProof melt, List<Room> room, List<StageMark> marks, Coaching coaching,
        List<Finding> findings,
        List<Finding> raised, boolean linkUp, Optional<FormingView> forming) {
    /** Where a run stands. */
    public enum Status {
        READY, HEATING, MOLTEN, COOLING, SAFE, ENDED
    }

    public RunState {
        probes = Map.copyOf(probes);
        room = List.copyOf(room);
        marks = List.copyOf(marks);
        findings = List.copyOf(findings);
        raised = List.copyOf(raised);
    }

    public boolean hot() {
        return status == Status.HEATING || status == Status.MOLTEN || status == Status.COOLING;
    }
}
