package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.finding.Severity;

/**
 * A run at one moment.
 *
 * @param standing where in its stages it is
 * @param probes   by name
 * @param heat     what is hot, and what is left
 * @param outlook  what comes if the settings stay
 * @param melt     what speaks for melt
 * @param told     what is said
 * @param forming  how far the balls are; empty where none are made
 */
public record RunState(Standing standing, Map<String, ProbeView> probes, Heat heat, Outlook outlook,
        MeltProof melt, Told told, Optional<FormingView> forming) {
    /** Where a run stands. */
    public enum Status {
        READY, HEATING, MOLTEN, COOLING, SAFE, ENDED
    }

    /**
     * Where in its stages a run is.
     *
     * @param stage  index of the stage in hand
     * @param stageS time in it, s
     * @param linkUp false while the logger is silent
     * @param byEye  true where no thermocouple is set up: led by eye, nudge and clock
     */
    public record Standing(Status status, double timeS, int stage, double stageS, List<StageMark> marks,
            boolean linkUp, boolean byEye) {
        public Standing {
            marks = List.copyOf(marks);
        }
    }

    /**
     * What is hot.
     *
     * @param joint     coldest joint of the target
     * @param jointHot  hottest joint of the target
     * @param chipTop   body of the target
     * @param rampKPerS of the joint estimate
     * @param aboveS    time above liquidus so far, s
     * @param room      for every protected part
     */
    public record Heat(Estimate joint, Estimate jointHot, Estimate chipTop, double rampKPerS, double aboveS,
            double peakJointC, double peakTopC, List<Room> room) {
        public Heat {
            room = List.copyOf(room);
        }
    }

    /**
     * What comes if the settings stay.
     *
     * @param meltsInS until the coldest joint is liquid; empty when it is, or will not at these settings
     * @param safeInS  until moving is safe; empty before cooling
     */
    public record Outlook(OptionalDouble meltsInS, OptionalDouble safeInS) {}

    /**
     * What is said.
     *
     * @param findings worst first; those of this moment
     * @param raised   everything that was found during the run
     */
    public record Told(Coaching coaching, List<Finding> findings, List<Finding> raised) {
        public Told {
            findings = List.copyOf(findings);
            raised = List.copyOf(raised);
        }
    }

    public RunState {
        probes = Map.copyOf(probes);
    }

    /** The same with one finding more, in its place by weight. */
    public RunState with(Finding finding) {
        var more = new ArrayList<>(told.findings());
        more.add(finding);
        more.sort(Comparator.comparing(Finding::severity, Comparator.<Severity>naturalOrder()).reversed());
        return new RunState(standing, probes, heat, outlook, melt,
                new Told(told.coaching(), more, told.raised()), forming);
    }

    public boolean hot() {
        return status() == Status.HEATING || status() == Status.MOLTEN || status() == Status.COOLING;
    }

    public Status status() {
        return standing.status();
    }

    public double timeS() {
        return standing.timeS();
    }

    public int stage() {
        return standing.stage();
    }

    public double stageS() {
        return standing.stageS();
    }

    public List<StageMark> marks() {
        return standing.marks();
    }

    public boolean linkUp() {
        return standing.linkUp();
    }

    public Estimate joint() {
        return heat.joint();
    }

    public Estimate jointHot() {
        return heat.jointHot();
    }

    public Estimate chipTop() {
        return heat.chipTop();
    }

    public double rampKPerS() {
        return heat.rampKPerS();
    }

    public double aboveS() {
        return heat.aboveS();
    }

    public double peakJointC() {
        return heat.peakJointC();
    }

    public double peakTopC() {
        return heat.peakTopC();
    }

    public List<Room> room() {
        return heat.room();
    }

    public OptionalDouble meltsInS() {
        return outlook.meltsInS();
    }

    public OptionalDouble safeInS() {
        return outlook.safeInS();
    }

    public Coaching coaching() {
        return told.coaching();
    }

    public List<Finding> findings() {
        return told.findings();
    }

    public List<Finding> raised() {
        return told.raised();
    }
}
