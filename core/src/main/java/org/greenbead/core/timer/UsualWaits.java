package org.greenbead.core.timer;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.greenbead.core.account.Times;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.LowestSolidus;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.moisture.Moisture;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;

/** How long each kind of wait is to last on a job, from what is known of it. */
public final class UsualWaits {
    /** Skin stands this for ten minutes without a burn: ISO 13732-1, burn threshold of all materials at that contact; verify against the current edition. */
    static final double TOUCH_C = 48;
    /** A board that was heated in vain is left alone so long before it is heated again: practice of the trade. */
    static final double REST_MIN = 30;
    /** First guess for a test that runs by itself: practice of the trade. */
    static final double TEST_MIN = 60;
    /** Four times a quarter of an hour warm and a quarter cool: practice of the trade. */
    static final double SOAK_MIN = 120;
    public static final int SOAK_CYCLES = 4;
    private static final String DRY_RULE = "safety.solvent-and-heat";
    private static final String DRY_LIMIT = "wait";

    /** Where a length comes from. */
    public enum Because {
        /** Bake table by moisture level, thickness and days out, at an oven that leaves the joints of the board alone. */
        BAKE_TABLE,
        /** Nobody knows level, thickness or lowest solidus. */
        NOT_KNOWN,
        /** The label of the glue decides. */
        LABEL,
        /** What is noted of that label. */
        PRESS_LABEL,
        /** Free cooling from the end of the last heat. */
        COOLING,
        /** The rule of the book about solvent and heat. */
        RULE,
        /** Practice of the trade. */
        PRACTICE
    }

    /**
     * A length that is offered.
     *
     * @param minutes empty where it has to be asked
     * @param c       of the oven, °C, where something is heated and known
     */
    public record Wait(JobTimer.Kind kind, OptionalDouble minutes, OptionalDouble c, Because because) {}

    private UsualWaits() {
    }

    /**
     * One for each kind, in the order of the kinds.
     *
     * @param facts  what is known of the job
     * @param bodyMm thickness of the chip's body; empty where it is not known
     */
    public static List<Wait> of(Job job, Facts facts, OptionalDouble bodyMm, RuleBook book,
            RuleBook.Settings settings, Instant now) {
        var waits = new ArrayList<Wait>();
        for (JobTimer.Kind kind : JobTimer.Kind.values()) {
            waits.add(switch (kind) {
                case BAKE -> bake(facts, bodyMm);
                case CURE -> open(kind, Because.LABEL);
                case COOL -> new Wait(kind, OptionalDouble.of(cool(job, now)), OptionalDouble.empty(),
                        Because.COOLING);
                case DRY -> new Wait(kind, OptionalDouble.of(dry(book, settings)), OptionalDouble.empty(),
                        Because.RULE);
                case REST -> fixed(kind, REST_MIN);
                case TEST -> fixed(kind, TEST_MIN);
                case SOAK -> fixed(kind, SOAK_MIN);
                case OTHER -> open(kind, Because.NOT_KNOWN);
                case PRESS -> facts.at("enclosure.press_min").filter(Double.class::isInstance)
                        .map(m -> new Wait(kind, OptionalDouble.of((Double) m), OptionalDouble.empty(),
                                Because.PRESS_LABEL))
                        .orElseGet(() -> open(kind, Because.LABEL));
            });
        }
        return List.copyOf(waits);
    }

    private static Wait open(JobTimer.Kind kind, Because because) {
        return new Wait(kind, OptionalDouble.empty(), OptionalDouble.empty(), because);
    }

    private static Wait fixed(JobTimer.Kind kind, double minutes) {
        return new Wait(kind, OptionalDouble.of(minutes), OptionalDouble.empty(), Because.PRACTICE);
    }

    /** The quickest bake that leaves the joints alone; without level, thickness, age and lowest solidus none is offered. */
    private static Wait bake(Facts facts, OptionalDouble bodyMm) {
        Optional<String> level = facts.at("chip.msl").map(String::valueOf);
        Optional<Double> days = facts.at("chip.open_days").filter(Double.class::isInstance)
                .map(Double.class::cast);
        OptionalDouble lowest = LowestSolidus.of(facts);
        if (level.isEmpty() || days.isEmpty() || bodyMm.isEmpty() || lowest.isEmpty()) {
            return open(JobTimer.Kind.BAKE, Because.NOT_KNOWN);
        }
        return Moisture.standard()
                .bakes(level.get(), bodyMm.getAsDouble(), days.get() * 24, lowest.getAsDouble()).stream()
                .filter(b -> b.verdict() == Moisture.Verdict.PASS)
                .min(Comparator.comparing(Moisture.Bake::hours))
                .map(b -> new Wait(JobTimer.Kind.BAKE, OptionalDouble.of(b.hours() * 60),
                        OptionalDouble.of(b.bakeC()), Because.BAKE_TABLE))
                .orElseGet(() -> open(JobTimer.Kind.BAKE, Because.NOT_KNOWN));
    }

    /** From the end of the last heat to what may be touched; from a liquid joint where no run is on record. */
    private static double cool(Job job, Instant now) {
        Optional<Kept> last = job.records("run").stream().filter(r -> Double.isFinite(r.number("end_c")))
                .reduce((a, b) -> b);
        double fromC = last.map(r -> r.number("end_c")).orElse(220.0);
        double goneS = last.map(r -> Math.max(0, Duration.between(r.at(), now).toSeconds())).orElse(0L);
        return Math.max(1, Math.ceil((Times.coolingS(fromC, TOUCH_C) - goneS) / 60));
    }

    private static double dry(RuleBook book, RuleBook.Settings settings) {
        double standard = book.rule(DRY_RULE).orElseThrow().limits().get(DRY_LIMIT).standard();
        return settings.limits().getOrDefault(DRY_RULE + "/" + DRY_LIMIT, standard);
    }
}
