package org.greenbead.core.account;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.greenbead.core.board.Chip;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.RunPlan;

/**
 * Whether a chip is planned with other settings than its like in the same job was worked with: two chips of one part on one board want one heat, and
 * where the numbers differ one of them is meant. What was run counts, not what had been planned.
 */
final class SecondChip {
    /** Settings that a hand takes for the same. */
    private static final double SAME_K = 5;
    private static final double SAME_FLOW = 0.1;
    private static final double SAME_NOZZLE_MM = 0.6;
    private static final double SAME_DISTANCE_MM = 3;

    private SecondChip() {
    }

    /** @param family the job and its strands, as far as they are others than this one */
    static void say(FactTree tree, Job own, RunPlan plan, List<Job> family) {
        String kind = plan.task().name().toLowerCase(Locale.ROOT);
        Optional<Stage> peak = plan.recipe().stages().stream()
                .filter(s -> s.purpose() == Stage.Purpose.PEAK).findFirst();
        if (peak.isEmpty() || !worked(own, kind).isEmpty()) {
            return;
        }
        Chip mine = plan.board().requireChip(own.target());
        for (Job other : family) {
            boolean alike = !other.id().equals(own.id()) && other.board().equals(own.board()) && plan.board()
                    .chip(other.target()).filter(c -> c.part().equals(mine.part())).isPresent();
            List<Kept> runs = alike ? worked(other, kind) : List.of();
            if (!runs.isEmpty()) {
                List<String> differ = differ(peak.get(), runs.getLast());
                tree.from(Origin.Source.COMPUTED, "the run of " + other.target() + " in " + other.id());
                tree.put("plan.other_chip", other.target());
                tree.put("plan.other_differs", !differ.isEmpty());
                tree.put("plan.other_what", differ.isEmpty() ? null : String.join("; ", differ));
                return;
            }
        }
    }

    /** Runs of a kind that came to an end of their own. */
    private static List<Kept> worked(Job job, String kind) {
        return job.records("run").stream().filter(r -> r.text("kind").equals(kind))
                .filter(r -> !r.text("outcome").equals("broken_off")).toList();
    }

    private static List<String> differ(Stage peak, Kept run) {
        var found = new ArrayList<String>();
        differs(found, "heater", "°C", peak.heaterC().orElse(Double.NaN), run.number("heater_c"), SAME_K);
        AirSetting air = peak.air().orElse(null);
        differs(found, "air", "°C", air == null ? Double.NaN : air.setC(), run.number("peak_air_c"), SAME_K);
        differs(found, "flow", "L/min", air == null ? Double.NaN : air.flowLpm(), run.number("flow_lpm"),
                SAME_FLOW * Math.max(1, run.number("flow_lpm")));
        differs(found, "nozzle", "mm", air == null ? Double.NaN : air.nozzleMm(), run.number("nozzle_mm"),
                SAME_NOZZLE_MM);
        differs(found, "distance", "mm", air == null ? Double.NaN : air.distanceMm(),
                run.number("distance_mm"), SAME_DISTANCE_MM);
        return found;
    }

    /** What was not kept of a run says nothing. */
    private static void differs(List<String> found, String what, String unit, double planned, double ran,
            double same) {
        if (Double.isFinite(ran) && !(Math.abs(planned - ran) <= same)) {
            found.add(String.format(Locale.ROOT, "%s %s against %.0f %s", what,
                    Double.isFinite(planned) ? String.format(Locale.ROOT, "%.0f", planned) : "off", ran,
                    unit));
        }
    }
}
