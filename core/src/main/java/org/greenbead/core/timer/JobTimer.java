package org.greenbead.core.timer;

import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.greenbead.core.quantity.Check;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;

/**
 * A wait of a job, read from its account.
 *
 * @param job     whose it is
 * @param record  id of the record that keeps it, {@code timer-1}
 * @param words   what exactly waits; may be empty
 * @param minutes how long it is to last, above 0 to 30 days
 * @param ended   when somebody ended it; empty while it runs or rings
 * @param stopped ended before its time
 * @param serves  id of the record that its end is written into; may be empty
 */
public record JobTimer(String job, String record, Kind kind, String words, Instant started, double minutes,
        Optional<Instant> ended, boolean stopped, String serves) {
    /** What is waited for. Its word in a record is the name in small letters. */
    public enum Kind {
        BAKE, CURE, COOL, DRY, REST, TEST, OTHER;

        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }

        /** Something is heated, so that a temperature belongs to it and a record of type bake. */
        public boolean heats() {
            return this == BAKE || this == CURE;
        }
    }

    static final String TYPE = "timer";
    /** A month: longer than the longest bake of any table. */
    static final double MOST_MINUTES = 30 * 24 * 60;

    public JobTimer {
        Check.text("job of a timer", job);
        Check.text("record of a timer", record);
        Check.present("kind of a timer", kind);
        Check.present("start of a timer", started);
        Check.within("minutes of a timer", minutes, 1e-3, MOST_MINUTES, "min");
        Check.present("end of a timer", ended);
    }

    /** All timers of a job in the order of writing. One whose start or length cannot be read is left out; its record stays to be corrected. */
    public static List<JobTimer> of(Job job) {
        return job.records(TYPE).stream().flatMap(r -> read(job.id(), r).stream()).toList();
    }

    private static Optional<JobTimer> read(String job, Kept r) {
        double minutes = r.number("minutes");
        Optional<Instant> started = instant(r.text("started"));
        if (started.isEmpty() || !(minutes >= 1e-3 && minutes <= MOST_MINUTES) || r.text("what").isEmpty()) {
            return Optional.empty();
        }
        return Optional.of(new JobTimer(job, r.id(), Kind.valueOf(r.text("what").toUpperCase(Locale.ROOT)),
                r.text("words"), started.get(), minutes, instant(r.text("ended")), r.yes("stopped"),
                r.text("serves")));
    }

    private static Optional<Instant> instant(String text) {
        try {
            return text.isEmpty() ? Optional.empty() : Optional.of(Instant.parse(text));
        } catch (DateTimeException e) {
            return Optional.empty();
        }
    }

    /** When it rings. */
    public Instant due() {
        return started.plusMillis(Math.round(minutes * 60_000));
    }

    public boolean running() {
        return ended.isEmpty();
    }

    /** Its time is over and nobody has ended it yet. */
    public boolean rings(Instant now) {
        return running() && !now.isBefore(due());
    }

    /** What is left, s; below 0 since it rang. */
    public double leftS(Instant now) {
        return Duration.between(now, due()).toMillis() / 1000.0;
    }

    /** Part of its time that is over, 0 to 1. A clock that was set back shows nothing gone. */
    public double gone(Instant now) {
        return Math.clamp(1 - leftS(now) / (minutes * 60), 0, 1);
    }

    /** How long it lasted until it was ended, or so far, min; never below 0. */
    public double lastedMin(Instant now) {
        return Math.max(0, Duration.between(started, ended.orElse(now)).toMillis() / 60_000.0);
    }
}
