package org.greenbead.core.odds;

import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.TreeMap;
import java.util.function.Function;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;

/**
 * What jobs took, put together by one thing: time by hand and unattended, material, parts. Only what was noted counts: a job without a note of its cost is
 * not one that took nothing.
 *
 * @param silent jobs of which nothing was noted
 */
public record Effort(Outcomes.By by, List<Group> groups, int silent) {
    /**
     * The middle of what was noted and the quarters on both sides of it.
     *
     * @param of from how many jobs
     */
    public record Spread(int of, double low, double middle, double high) {}

    /**
     * Jobs alike in one thing; a spread is empty where none of them notes it.
     *
     * @param jobs that note anything of their cost
     */
    public record Group(String name, int jobs, Spread attendedMin, Spread unattendedMin, Spread material,
            Spread parts) {}

    private static final Spread NOTHING = new Spread(0, Double.NaN, Double.NaN, Double.NaN);

    public Effort {
        groups = List.copyOf(groups);
    }

    /** @param zone whose months count; groups with most jobs first, months in their order */
    public static Effort by(Outcomes.By by, List<Job> jobs, ZoneId zone) {
        Function<Job, String> name = Outcomes.name(by, zone);
        Map<String, List<Job>> all = new TreeMap<>();
        int silent = 0;
        for (Job job : jobs) {
            if (job.strandOf().isPresent() || Outcomes.drill(job)) {
                // A strand's cost is noted with the job it belongs to; practice takes the time it wants.
                continue;
            }
            if (job.records("cost").isEmpty()) {
                silent++;
            } else {
                all.computeIfAbsent(name.apply(job), k -> new ArrayList<>()).add(job);
            }
        }
        var groups = new ArrayList<Group>();
        all.forEach((k, of) -> groups.add(new Group(k, of.size(), spread(of, "attended_min", ""),
                spread(of, "unattended_min", ""), spread(of, "material", ""), spread(of, "price", "part"))));
        if (by != Outcomes.By.MONTH) {
            groups.sort(Comparator.comparingInt(Group::jobs).reversed());
        }
        return new Effort(by, groups, silent);
    }

    /** @param kind of the cost, where only one counts */
    private static Spread spread(List<Job> jobs, String field, String kind) {
        double[] sums = jobs.stream().map(j -> sum(j, field, kind)).filter(OptionalDouble::isPresent)
                .mapToDouble(OptionalDouble::getAsDouble).sorted().toArray();
        return sums.length == 0
                ? NOTHING
                : new Spread(sums.length, quantile(sums, 0.25), quantile(sums, 0.5), quantile(sums, 0.75));
    }

    private static OptionalDouble sum(Job job, String field, String kind) {
        double[] noted = job.records("cost").stream()
                .filter(c -> kind.isEmpty() || c.text("kind").equals(kind))
                .map((Kept c) -> c.number(field)).filter(v -> Double.isFinite(v) && v >= 0)
                .mapToDouble(Double::doubleValue)
                .toArray();
        return noted.length == 0 ? OptionalDouble.empty() : OptionalDouble.of(Arrays.stream(noted).sum());
    }

    /** Straight between the values (Hyndman and Fan 1996, Sample quantiles in statistical packages, definition 7). */
    static double quantile(double[] sorted, double part) {
        double at = (sorted.length - 1) * part;
        int below = (int) at;
        int above = Math.min(below + 1, sorted.length - 1);
        return sorted[below] + (at - below) * (sorted[above] - sorted[below]);
    }
}
