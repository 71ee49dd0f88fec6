package org.greenbead.core.account;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.electric.Rails;
import org.greenbead.core.odds.Outcomes;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.Strands;

/**
 * What the rails of a type of board read on healthy ones: after the work on boards that passed every test, and what was noted as reference for
 * the same type in other jobs. The median of them, so that one slip of the pen does not move it.
 */
public final class RailReferences {
    private RailReferences() {
    }

    /** @param ohm median, leads taken off; @param boards jobs that it rests on; @param spreadPct largest departure of one of them from it, percent */
    public record Reference(double ohm, int boards, double spreadPct) {}

    /** By name in small letters. @param except the job in hand, which is no proof of itself */
    public static Map<String, Reference> learn(List<Job> jobs, String board, String except) {
        Map<String, List<Double>> read = new HashMap<>();
        Map<String, List<Job>> strands = Strands.byJob(jobs);
        for (Job job : jobs) {
            if (!job.board().equals(board) || job.id().equals(except)) {
                continue;
            }
            boolean well = Outcomes.of(job, strands).orElse(false);
            for (Kept rail : job.records("rail")) {
                double after = rail.number("after_ohm");
                double ohm = well && Double.isFinite(after) && !RecordFacts.readAfter(rail).turned()
                        ? new Rails.Rail("", after, rail.number("lead_ohm"), Double.NaN).bareOhm()
                        : rail.number("reference_ohm");
                if (ohm > 0) {
                    read.computeIfAbsent(key(rail.text("name")), k -> new ArrayList<>()).add(ohm);
                }
            }
        }
        Map<String, Reference> out = new LinkedHashMap<>();
        read.forEach((name, ohms) -> {
            Collections.sort(ohms);
            int n = ohms.size();
            double median = (ohms.get((n - 1) / 2) + ohms.get(n / 2)) / 2;
            double spread = Math.max(ohms.getLast() - median, median - ohms.getFirst()) / median * 100;
            out.put(name, new Reference(median, n, spread));
        });
        return Map.copyOf(out);
    }

    /** The records with what was learned put in where a rail has no reference of its own. */
    static List<Kept> filled(List<Kept> records, Map<String, Reference> learned) {
        return learned.isEmpty()
                ? records
                : records.stream().map(r -> r.type().equals("rail") && r.noted("reference_ohm").isEmpty()
                        ? Optional.ofNullable(learned.get(key(r.text("name"))))
                                .map(l -> r.with("reference_ohm", l.ohm(), r.at(), r.author())).orElse(r)
                        : r).toList();
    }

    public static String key(String name) {
        return name.strip().toLowerCase(Locale.ROOT);
    }
}
