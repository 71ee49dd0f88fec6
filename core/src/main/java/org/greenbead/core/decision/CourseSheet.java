package org.greenbead.core.decision;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.book.Condition;
import org.greenbead.core.book.Facts;
import org.greenbead.core.kind.Table;
import org.greenbead.core.odds.Odds;
import org.greenbead.core.odds.Outcomes;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Strands;

/** Gathers what a decision rests on: what is noted with the job, what the ledger shows, and where neither says it a stated assumption. */
public final class CourseSheet {
    /** What this bench came to with a course on any board is worth so many tries of it on this chip. */
    private static final double WEIGHT = 2;
    /** Scatter of the minutes where the ledger shows none: a third either way. Judgement. */
    private static final double USUAL_MINUTES_SD = 0.3;
    private static final int FEW = 3;

    private static final Map<Course, double[]> USUAL = usual();
    private static final List<Closed> CLOSED = closed();

    private record Closed(Course course, String reason, Condition when) {}

    private CourseSheet() {
    }

    /**
     * What the decision rests on.
     *
     * @param rate  of an hour; empty = nobody noted it: nothing is weighed then
     * @param value of the working unit with its data; empty as well
     */
    public record Sheet(Optional<Double> rate, Optional<Double> value, List<Estimate> estimates) {
        /** Empty where the rate or the value is not known. */
        public Optional<Decision> decision() {
            return rate.isPresent() && value.isPresent()
                    ? Optional.of(new Decision(rate.get(), value.get(), estimates))
                    : Optional.empty();
        }

        /** What has to be noted before anything can be weighed, by field. */
        public List<String> wanted() {
            var wanted = new ArrayList<String>();
            if (rate.isEmpty()) {
                wanted.add("rate");
            }
            if (value.isEmpty()) {
                wanted.add("unit");
            }
            return List.copyOf(wanted);
        }
    }

    /** @param facts what is known of the job, @param ledger all jobs, this one included or not */
    public static Sheet of(Job job, Facts facts, List<Job> ledger) {
        List<Job> others = ledger.stream().filter(j -> !j.id().equals(job.id())).toList();
        Optional<Kept> worth = job.records("worth").stream().reduce((a, b) -> b);
        Optional<Double> rate = worth.flatMap(w -> number(w, "rate")).or(() -> rate(List.of(job)))
                .or(() -> rate(others));
        double data = worth.flatMap(w -> number(w, "data")).orElse(0.0);
        Optional<Double> value = worth.flatMap(w -> number(w, "unit")).map(v -> v + data);
        double delayDay = worth.flatMap(w -> number(w, "delay_day")).orElse(0.0);
        Map<String, List<Job>> strands = Strands.byJob(ledger);
        var estimates = new ArrayList<Estimate>();
        for (Course course : Course.values()) {
            Optional<Kept> noted = job.records("course").stream()
                    .filter(c -> c.text("course").equals(course.key())).reduce((a, b) -> b);
            estimates.add(estimate(course, job, facts, noted, others, strands, delayDay));
        }
        return new Sheet(rate, value, List.copyOf(estimates));
    }

    private static Estimate estimate(Course course, Job job, Facts facts, Optional<Kept> noted,
            List<Job> others, Map<String, List<Job>> strands, double delayDay) {
        var assumed = new ArrayList<String>();
        List<Job> same = others.stream().filter(j -> kind(j).filter(course.kinds()::contains).isPresent())
                .toList();
        double[] minutes = same.stream().map(CourseSheet::minutes).filter(m -> m > 0).mapToDouble(m -> m)
                .sorted()
                .toArray();
        double attended = noted.flatMap(n -> number(n, "attended_min"))
                .orElseGet(() -> minutes.length > 0
                        ? median(minutes)
                        : assumed("attended_min", course, 0, assumed));
        double unattended = noted.flatMap(n -> number(n, "unattended_min"))
                .orElseGet(() -> USUAL.get(course)[1]);
        double worth = noted.flatMap(n -> number(n, "worth_pct"))
                .orElseGet(() -> assumed("worth_pct", course, 2, assumed)) / 100;
        double material = noted.flatMap(n -> number(n, "material")).orElse(0.0);
        double part = noted.flatMap(n -> number(n, "part")).orElse(0.0)
                + noted.flatMap(n -> number(n, "freight")).orElse(0.0);
        double delay = noted.flatMap(n -> number(n, "wait_days")).orElse(0.0) * delayDay;
        double loss = noted.flatMap(n -> number(n, "loss")).orElse(0.0);
        Optional<String> shut = CLOSED.stream().filter(c -> c.course() == course && c.when().holds(facts))
                .map(Closed::reason).findFirst();
        boolean buys = course == Course.REPLACE || course == Course.UPGRADE;
        if (buys && shut.isEmpty() && noted.flatMap(n -> number(n, "part")).isEmpty()) {
            shut = Optional.of("no_price");
        }
        return new Estimate(course, attended, unattended, spread(minutes), material, part, delay, loss,
                Math.clamp(worth, 0, 1), odds(job, same, strands), assumed, shut);
    }

    private static double assumed(String field, Course course, int column, List<String> assumed) {
        if (course != Course.DECLINE) {
            assumed.add(field);
        }
        return USUAL.get(course)[column];
    }

    /** How it went with this chip of this board; what it came to on all others is thought beforehand, weakly. */
    private static Odds odds(Job job, List<Job> same, Map<String, List<Job>> strands) {
        Odds all = count(same.stream().filter(j -> !alike(j, job)).toList(), strands, new Odds(0, 0, 1));
        return count(same.stream().filter(j -> alike(j, job)).toList(), strands,
                Odds.thinking(0, 0, all.chance(), WEIGHT));
    }

    private static boolean alike(Job a, Job b) {
        return a.board().equals(b.board()) && a.target().equals(b.target());
    }

    private static Odds count(List<Job> jobs, Map<String, List<Job>> strands, Odds prior) {
        List<Boolean> told = jobs.stream().filter(j -> !Outcomes.drill(j))
                .flatMap(j -> Outcomes.ofTry(j, strands).stream()).toList();
        return new Odds((int) told.stream().filter(w -> w).count(), told.size(), prior.priorGood(),
                prior.priorBad());
    }

    private static Optional<JobKind> kind(Job job) {
        return job.facts().at("job.kind").map(String::valueOf)
                .map(k -> JobKind.valueOf(k.toUpperCase(Locale.ROOT)));
    }

    private static double minutes(Job job) {
        return job.records("cost").stream().mapToDouble(c -> c.number("attended_min"))
                .filter(Double::isFinite)
                .sum();
    }

    private static double median(double[] sorted) {
        return (sorted[(sorted.length - 1) / 2] + sorted[sorted.length / 2]) / 2;
    }

    /** Standard deviation of the logarithm of the minutes. */
    private static double spread(double[] minutes) {
        if (minutes.length < FEW) {
            return USUAL_MINUTES_SD;
        }
        double mean = Arrays.stream(minutes).map(Math::log).average().orElseThrow();
        double sum = Arrays.stream(minutes).map(m -> Math.pow(Math.log(m) - mean, 2)).sum();
        return Math.sqrt(sum / (minutes.length - 1));
    }

    private static Optional<Double> rate(List<Job> jobs) {
        return jobs.stream().flatMap(j -> j.records().stream())
                .filter(r -> r.type().equals("worth") || r.type().equals("cost"))
                .filter(r -> r.number("rate") > 0).max(java.util.Comparator.comparing(Kept::at))
                .map(r -> r.number("rate"));
    }

    private static Optional<Double> number(Kept record, String field) {
        return Optional.of(record.number(field)).filter(v -> v >= 0);
    }

    private static Course course(String key) {
        return Course.valueOf(key.toUpperCase(Locale.ROOT));
    }

    private static Map<Course, double[]> usual() {
        var usual = new EnumMap<Course, double[]>(Course.class);
        Table.rows(CourseSheet.class, "courses.txt", 4).forEach(c -> usual.put(course(c[0]),
                Arrays.stream(c).skip(1).mapToDouble(Double::parseDouble).toArray()));
        return Collections.unmodifiableMap(usual);
    }

    private static List<Closed> closed() {
        return Table.rows(CourseSheet.class, "closed.txt", 3).stream()
                .map(c -> new Closed(course(c[0]), c[1], new Condition(c[2])))
                .toList();
    }
}
