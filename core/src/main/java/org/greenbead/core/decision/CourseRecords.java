package org.greenbead.core.decision;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** A decision as a record of its job. */
public final class CourseRecords {
    private CourseRecords() {
    }

    /** Fields of a record of type {@code decision}: the course that was taken and what it rested on. @param turns as they stood */
    public static Map<String, Object> fields(Decision.Weighed taken, List<Decision.Turn> turns) {
        Map<String, Object> out = new LinkedHashMap<>();
        out.put("course", taken.estimate().course().key());
        out.put("expected", rounded(taken.expected()));
        out.put("low", rounded(taken.low()));
        out.put("high", rounded(taken.high()));
        out.put("chance_pct", (double) Math.round(taken.estimate().chance() * 100));
        out.put("tries", (double) taken.estimate().odds().tries());
        out.put("cheapest_pct", (double) Math.round(taken.cheapest() * 100));
        turns.stream().findFirst().ifPresent(t -> {
            out.put("hangs_on", t.number());
            out.put("turns_at", rounded(t.turnsAt()));
        });
        return out;
    }

    private static double rounded(double v) {
        return Math.round(v * 100) / 100.0;
    }
}
