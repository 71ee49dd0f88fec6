package org.greenbead.core.timer;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.book.Noticed;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.quantity.Check;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;

/** Starting and ending the waits of a job. What a wait was for is written into the account with it. */
public final class Timers {
    private static final DateTimeFormatter AS_WRITTEN = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm");

    private Timers() {
    }

    /**
     * What is begun.
     *
     * @param words    what exactly; for a kind of one's own it must not be empty
     * @param minutes  above 0 to 30 days
     * @param c        of the oven or plate, °C; for a bake or a cure
     * @param labelC   what the label asks for, °C
     * @param labelMin the same, min
     * @param cycles   how often a soak goes warm and cool; 0 for every other kind
     */
    public record Start(JobTimer.Kind kind, String words, double minutes, OptionalDouble c,
            OptionalDouble labelC, OptionalDouble labelMin, int cycles) {
        /** Half a cycle is no shorter: a board follows within minutes. */
        private static final double LEAST_HALF_MIN = 1;

        public Start {
            Check.present("kind of a timer", kind);
            words = words == null ? "" : words.strip();
            Check.within("minutes", minutes, 1e-3, JobTimer.MOST_MINUTES, "min");
            if (kind == JobTimer.Kind.OTHER && words.isEmpty()) {
                throw new IllegalArgumentException("a timer of one's own needs words that say what for");
            }
            if (kind.heats() && c.isEmpty()) {
                throw new IllegalArgumentException(
                        "a " + kind.word() + " needs its temperature: without it nothing can be checked");
            }
            if (!kind.heats() && (c.isPresent() || labelC.isPresent() || labelMin.isPresent())) {
                throw new IllegalArgumentException("a temperature or a label belongs to a bake or a cure");
            }
            c.ifPresent(t -> Check.within("temperature", t, 25, 300, "°C"));
            labelC.ifPresent(t -> Check.within("temperature on the label", t, 0, 300, "°C"));
            labelMin.ifPresent(m -> Check.within("time on the label", m, 0, JobTimer.MOST_MINUTES, "min"));
            if (kind != JobTimer.Kind.SOAK && cycles != 0) {
                throw new IllegalArgumentException("cycles belong to a soak");
            }
            if (kind == JobTimer.Kind.SOAK) {
                Check.within("cycles of a soak", cycles, 1, JobTimer.MOST_CYCLES, "");
                if (minutes / (2 * cycles) < LEAST_HALF_MIN) {
                    throw new IllegalArgumentException(
                            "%d cycles in %s min are too quick: a board needs a minute and more to follow; take longer or fewer"
                                    .formatted(cycles,
                                            minutes == Math.rint(minutes)
                                                    ? "%.0f".formatted(minutes)
                                                    : minutes));
                }
            }
        }

        /** One without cycles. */
        public Start(JobTimer.Kind kind, String words, double minutes, OptionalDouble c,
                OptionalDouble labelC,
                OptionalDouble labelMin) {
            this(kind, words, minutes, c, labelC, labelMin, 0);
        }

        /** Warm and cool by turns, the whole so many minutes. */
        public static Start soak(String words, double minutes, int cycles) {
            return new Start(JobTimer.Kind.SOAK, words, minutes, OptionalDouble.empty(),
                    OptionalDouble.empty(),
                    OptionalDouble.empty(), cycles);
        }

        public static Start plain(JobTimer.Kind kind, double minutes) {
            return new Start(kind, "", minutes, OptionalDouble.empty(), OptionalDouble.empty(),
                    OptionalDouble.empty());
        }
    }

    /** How a long test came out. */
    public enum Result {
        PASS, FAIL
    }

    /** The job with a wait begun; a bake or a cure has its own record from then on. */
    public static Job start(Job job, Start start, Instant at, ZoneId zone, String by) {
        Job longer = job;
        String serves = switch (start.kind()) {
            case DRY -> job.records("wash").isEmpty() ? "" : job.records("wash").getLast().id();
            case PRESS -> job.records("enclosure").isEmpty() ? "" : job.records("enclosure").getLast().id();
            default -> "";
        };
        if (start.kind().heats()) {
            serves = job.freeId("bake");
            var fields = new LinkedHashMap<String, Object>();
            fields.put("what", start.kind().word());
            fields.put("parts", start.words().isEmpty() ? null : start.words());
            fields.put("c", start.c().getAsDouble());
            fields.put("minutes", start.minutes());
            fields.put("label_c", start.labelC().isPresent() ? start.labelC().getAsDouble() : null);
            fields.put("label_min", start.labelMin().isPresent() ? start.labelMin().getAsDouble() : null);
            fields.put("start", written(at, zone));
            longer = longer.with(new Kept(serves, "bake", at, by, fields));
        }
        var fields = new LinkedHashMap<String, Object>();
        fields.put("what", start.kind().word());
        fields.put("words", start.words().isEmpty() ? null : start.words());
        fields.put("minutes", start.minutes());
        fields.put("started", at.truncatedTo(ChronoUnit.MILLIS).toString());
        fields.put("serves", serves.isEmpty() ? null : serves);
        fields.put("cycles", start.cycles() == 0 ? null : (double) start.cycles());
        return JobFacts.settled(
                longer.with(new Kept(job.freeId(JobTimer.TYPE), JobTimer.TYPE, at, by, fields)));
    }

    /**
     * The job with a wait ended, before its time or after it, and what it was for written down.
     *
     * @param result of a long test; without it the test counts as not finished
     * @throws IllegalArgumentException when there is no such timer, or it has ended already
     */
    public static Job end(Job job, String timer, Optional<Result> result, Instant at, ZoneId zone,
            String by) {
        JobTimer running = JobTimer.of(job).stream().filter(t -> t.record().equals(timer)).findFirst()
                .orElseThrow(() -> new IllegalArgumentException("job " + job.id() + " has no timer \"" + timer
                        + "\"; it has " + names(job)));
        if (!running.running()) {
            throw new IllegalArgumentException(
                    "timer " + timer + " of job " + job.id() + " has ended already");
        }
        boolean early = at.isBefore(running.due());
        Kept kept = job.record(timer).orElseThrow()
                .with("ended", at.truncatedTo(ChronoUnit.MILLIS).toString(), at, by)
                .with("stopped", early, at, by);
        return JobFacts.settled(served(job.with(kept), running, early, result, at, zone, by));
    }

    /**
     * The job with a long test ended by its log: the log says how it came out, and a whole pass counts however short the time was.
     *
     * @throws IllegalArgumentException as above, or when the wait is no test
     */
    public static Job end(Job job, String timer, LongTest told, Instant at, ZoneId zone, String by,
            Words words) {
        JobTimer running = JobTimer.of(job).stream().filter(t -> t.record().equals(timer)).findFirst()
                .orElse(null);
        if (running != null && !running.tests()) {
            throw new IllegalArgumentException(
                    "timer " + timer + " of job " + job.id()
                            + " waits for no test; a log says nothing of it");
        }
        Job ended = end(job, timer, Optional.empty(), at, zone, by);
        Kept plain = ended.records("tested").getLast();
        Kept byLog = told.record(job, running.words(), OptionalDouble.of(plain.number("minutes")), at, by,
                words);
        var fields = new LinkedHashMap<>(byLog.fields());
        plain.noted("cycles").ifPresent(c -> fields.put("cycles", c));
        return JobFacts.settled(ended.with(new Kept(plain.id(), "tested", at, by, fields)));
    }

    private static Job served(Job job, JobTimer timer, boolean early, Optional<Result> result, Instant at,
            ZoneId zone, String by) {
        double lasted = Math.round(timer.lastedMin(at) * 10) / 10.0;
        Optional<Kept> into = job.record(timer.serves());
        return switch (timer.kind()) {
            case BAKE, CURE -> into.map(b -> job.with(b.with("end", written(at, zone), at, by))).orElse(job);
            case DRY -> into.map(w -> job.with(w.with("dried_min", lasted, at, by))).orElse(job);
            case PRESS -> into.map(p -> job.with(p.with("pressed_min", lasted, at, by))).orElse(job);
            case TEST, SOAK -> {
                var fields = new LinkedHashMap<String, Object>();
                boolean soaks = timer.kind() == JobTimer.Kind.SOAK;
                fields.put("what", !timer.words().isEmpty()
                        ? timer.words()
                        : soaks ? "soak through heat cycles" : "long test");
                fields.put("result", early && !result.equals(Optional.of(Result.FAIL)) || result.isEmpty()
                        ? "not_tested"
                        : result.get() == Result.PASS ? "pass" : "fail");
                fields.put("minutes", lasted);
                fields.put("cycles", soaks ? (double) timer.cyclesDone(at) : null);
                yield job.with(new Kept(job.freeId("tested"), "tested", at, by, fields));
            }
            case COOL, REST, OTHER -> job;
        };
    }

    private static String names(Job job) {
        List<String> names = JobTimer.of(job).stream().filter(JobTimer::running).map(JobTimer::record)
                .toList();
        return names.isEmpty() ? "none that runs" : String.join(", ", names);
    }

    /** What stops a heat that was begun, of all that the rule book holds against the job: what an oven does to solder, parts and people. */
    public static List<Noticed> stops(List<Noticed> open) {
        return open.stream().filter(n -> n.rule().severity() == Severity.STOP
                && n.values().stream()
                        .anyMatch(v -> v.path().startsWith("bake.") || v.path().startsWith("heater.")))
                .toList();
    }

    private static String written(Instant at, ZoneId zone) {
        return AS_WRITTEN.format(LocalDateTime.ofInstant(at, zone));
    }

    /** Every wait of these jobs that nobody has ended, the one that rings first in front. */
    public static List<JobTimer> running(List<Job> jobs) {
        return jobs.stream().flatMap(j -> JobTimer.of(j).stream()).filter(JobTimer::running)
                .sorted(java.util.Comparator.comparing(JobTimer::due)).toList();
    }

    /** What has ended on these jobs, the latest in front. */
    public static List<JobTimer> over(List<Job> jobs) {
        return jobs.stream().flatMap(j -> JobTimer.of(j).stream()).filter(t -> !t.running())
                .sorted(java.util.Comparator.comparing((JobTimer t) -> t.ended().orElseThrow()).reversed())
                .toList();
    }
}
