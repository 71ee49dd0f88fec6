package org.greenbead.core.run;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.Job;

/**
 * What a run leaves in the records of its job: what it came to, from its events; the exposure of the chip and of each neighbour that melted, and which alloy was liquid at
 * the site. Balls made on a loose chip are an exposure of it and leave the site as it was. A run whose joints
 * stayed solid leaves no exposure.
 */
public final class AfterRun {
    private AfterRun() {
    }

    /**
     * Whether a job already holds the record of a run that began then: its end can have been kept there while the ledger's list of runs did not take it, and a chip
     * that is melted once must not be counted twice.
     */
    public static boolean held(Job job, String bead, Instant began) {
        return job.records("run").stream()
                .anyMatch(r -> r.text("bead").equals(bead) && !r.at().isBefore(began));
    }

    /**
     * The job when a run of one of its beads is over: the bead is green when melt was proven, open again when it was broken off, else worked.
     *
     * @param simulated the bench was no real one; written into the record
     */
    public static Job over(Job job, RunPlan ran, List<RunEvent> events, Verdict verdict, Instant at,
            String by, boolean simulated) {
        BeadState state = switch (verdict.outcome()) {
            case PROVEN -> BeadState.GREEN;
            case WORKED, LIMIT_BROKEN -> BeadState.DONE;
            case BROKEN_OFF -> BeadState.OPEN;
        };
        Job heated = written(job.with(ran.bead(), state), ran, events, verdict, at, by);
        Kept run = heated.records("run").getLast();
        return simulated ? heated.with(run.with("simulated", true, run.at(), run.author())) : heated;
    }

    /**
     * @param events the log of the run
     * @param at     when it ended
     * @param by     who worked
     */
    public static Job written(Job job, RunPlan ran, List<RunEvent> events, Verdict verdict, Instant at,
            String by) {
        Map<String, Object> digest = RunDigest.of(ran, events, verdict);
        digest.put("ended", at.toString());
        Job longer = job.with(new Kept(job.freeId("run"), "run", at, by, digest));
        if (!verdict.targetMelted()) {
            return longer;
        }
        String site = ran.target().name();
        longer = longer.with(
                new Kept(longer.freeId("exposure"), "exposure", at, by, exposure(site, ran.bead(), verdict)));
        for (String neighbour : verdict.neighboursMelted()) {
            // Its peak is an estimate of the twin and no reading, so it is left blank; that it melted is what counts.
            longer = longer.with(new Kept(longer.freeId("exposure"), "exposure", at, by,
                    Map.of("part", neighbour, "event", ran.bead())));
        }
        if (ran.task() == RunPlan.Task.FORM) {
            return longer;
        }
        Optional<Kept> known = longer.records("joint").stream().filter(r -> r.text("site").equals(site))
                .findFirst();
        Kept joint = known.orElse(new Kept(longer.freeId("joint"), "joint", at, by, Map.of("site", site)));
        return longer.with(joint.with("date", at.toString().substring(0, 10), at, by)
                .with("alloy", alloy(longer, ran), at, by).with("by", by, at, by));
    }

    /** Seated joints are of the alloy that the balls were planned in; others of what was there. */
    private static String alloy(Job job, RunPlan ran) {
        String there = ran.target().joint().alloy().name();
        if (ran.task() != RunPlan.Task.SEAT) {
            return there;
        }
        return BallForming.noted(job).orElse(there);
    }

    private static Map<String, Object> exposure(String part, String event, Verdict verdict) {
        var fields = new LinkedHashMap<String, Object>();
        fields.put("part", part);
        fields.put("event", event);
        if (Double.isFinite(verdict.peakTopC())) {
            fields.put("peak_c", verdict.peakTopC());
        }
        fields.put("above_s", verdict.aboveLiquidusS());
        fields.put("minutes", verdict.lengthS() / 60);
        return fields;
    }
}
