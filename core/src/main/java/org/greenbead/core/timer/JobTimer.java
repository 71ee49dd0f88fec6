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
 * @param cycles  how often a soak goes warm and cool, each half as long; 0 for every other kind
 */
public record JobTimer(String job, String record, Kind kind, String words, Instant started, double minutes,
        Optional<Instant> ended, boolean stopped, String serves, int cycles) {
    /** What is waited for. Its word in a record is the name in small letters. */
    public enum Kind {
        BAKE, CURE, COOL, DRY, REST, TEST, OTHER, SOAK, PRESS;

        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }

        /** Something is heated, so that a temperature belongs to it and a record of type bake. */
        public boolean heats() {
            return this == BAKE || this == CURE;
        }
    }

    /** How often a soak may go warm and cool. */
    public static final int MOST_CYCLES = 50;
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
        if (kind == Kind.SOAK) {
            Check.within("cycles of a soak", cycles, 1, MOST_CYCLES, "");
        }
    }

    /** All timers of a job in the order of writing. One whose start or length cannot be read is left out; its record stays to be corrected. */
    public static List<JobTimer> of(Job job) {
        return job.records(TYPE).stream().flatMap(r -> read(job.id(), r).stream()).toList();
    }

    private static Optional<JobTimer> read(String job, Kept r) {
        double minutes = r.number("minutes");
        Optional<Instant> started = instant(r.text("started"));
        double cycles = r.number("cycles");
        boolean soaks = r.text("what").equals(Kind.SOAK.word());
        if (soaks && !(cycles >= 1 && cycles <= MOST_CYCLES && cycles == Math.rint(cycles))) {
            return Optional.empty();
        }
        if (started.isEmpty() || !(minutes >= 1e-3 && minutes <= MOST_MINUTES) || r.text("what").isEmpty()) {
            return Optional.empty();
        }
        return Optional.of(new JobTimer(job, r.id(), Kind.valueOf(r.text("what").toUpperCase(Locale.ROOT)),
                r.text("words"), started.get(), minutes, instant(r.text("ended")), r.yes("stopped"),
                r.text("serves"), soaks ? (int) cycles : 0));
    }

    private static Optional<Instant> instant(String text) {
        try {
            return text.isEmpty() ? Optional.empty() : Optional.of(Instant.parse(text));
        } catch (DateTimeException e) {
            return Optional.empty();
        }
    }

    /** Somebody, or a log, has to say how it came out. */
    public boolean tests() {
        return kind == Kind.TEST || kind == Kind.SOAK;
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

    /**
     * Where a soak stands.
     *
     * @param cycle from 1
     * @param warm  whether it is to be warmed; else it cools
     * @param leftS until it turns or ends, s
     */
    public record Turn(int cycle, boolean warm, double leftS) {}

    /** Where a soak stands; empty for every other kind, and when its time is over. A clock that was set back shows its first warming. */
    public Optional<Turn> turn(Instant now) {
        if (cycles == 0 || !now.isBefore(due())) {
            return Optional.empty();
        }
        double halfS = minutes * 60 / (2 * cycles);
        double goneS = Math.max(0, Duration.between(started, now).toMillis() / 1000.0);
        int half = Math.min(2 * cycles - 1, (int) (goneS / halfS));
        return Optional.of(new Turn(half / 2 + 1, half % 2 == 0, (half + 1) * halfS - goneS));
    }

    /** Cycles that were gone through whole until it was ended, or so far. */
    public int cyclesDone(Instant now) {
        // What is short by a second's hundredth was waited for.
        return cycles == 0
                ? 0
                : (int) Math.min(cycles, Math.floor(lastedMin(now) / (minutes / cycles) + 1e-6));
    }

    /** How long it lasted until it was ended, or so far, min; never below 0. */
    public double lastedMin(Instant now) {
        return Math.max(0, Duration.between(started, ended.orElse(now)).toMillis() / 60_000.0);
    }
}
