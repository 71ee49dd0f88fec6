package org.greenbead.core.account;

import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.record.Kept;

/** What the times of records say: a test, a wash or an unmasking soon after a heat met a warm board. */
public final class Times {
    /** Free cooling of a board in still air: time constant, s. Assumed, the slow end of what boards of this size show, so that nothing is called cool too early. */
    static final double COOLING_S = 150;
    /** Usual room, °C. */
    private static final double ROOM_C = 23;
    /** A longer bake is a slip of the pen, h. */
    private static final double MOST_BAKE_H = 24 * 14;

    private Times() {
    }

    static void say(FactTree tree, List<Kept> records) {
        List<Kept> runs = RecordFacts.of(records, "run").stream()
                .filter(r -> Double.isFinite(r.number("end_c")) && !r.text("kind").equals("form"))
                // The clock of a simulated bench is not that of the day.
                .filter(r -> !r.yes("simulated")).toList();
        tree.from(Origin.Source.COMPUTED, "times of runs and records");
        after(runs, records.stream().filter(r -> r.type().equals("tested")
                && !r.text("result").equals("not_tested")).toList())
                .ifPresent(c -> tree.putIfAbsent("run.powered_c", c));
        after(runs, records.stream().filter(r -> r.type().equals("covering")
                && r.text("what").equals("mask") && r.text("done").equals("removed")).toList())
                .ifPresent(c -> tree.putIfAbsent("run.unmasked_c", c));
        for (Kept bake : RecordFacts.of(records, "bake")) {
            tree.from(Origin.Source.COMPUTED, "record " + bake.id());
            if (!bake.text("start").isEmpty() || Double.isFinite(bake.number("c"))) {
                tree.putIfAbsent("bake.started", true);
            }
            hours(bake.text("start"), bake.text("end")).ifPresent(h -> tree.putIfAbsent("bake.total_h", h));
        }
    }

    /** How warm the board still was at the first of these records after a run's end, °C; empty where none followed a run. */
    private static Optional<Double> after(List<Kept> runs, List<Kept> acts) {
        return acts.stream().flatMap(act -> runs.stream()
                .filter(r -> !act.at().isBefore(ended(r)))
                .max(Comparator.comparing(Times::ended)).stream()
                .map(r -> ROOM_C + (r.number("end_c") - ROOM_C)
                        * Math.exp(-Duration.between(ended(r), act.at()).toMillis() / 1000.0 / COOLING_S)))
                .max(Double::compare);
    }

    /** How long free cooling takes from one temperature to another, s; 0 where it is as cold already. */
    public static double coolingS(double fromC, double toC) {
        return fromC <= toC || toC <= ROOM_C
                ? 0
                : COOLING_S * Math.log((fromC - ROOM_C) / (toC - ROOM_C));
    }

    private static Instant ended(Kept run) {
        return instant(run.text("ended")).orElse(run.at());
    }

    private static Optional<Instant> instant(String text) {
        try {
            return text.isEmpty() ? Optional.empty() : Optional.of(Instant.parse(text));
        } catch (java.time.format.DateTimeParseException e) {
            return Optional.empty();
        }
    }

    /** Hours between two times as people write them, {@code 2031-04-02 18:00} or with a T; empty where they are no times. */
    private static Optional<Double> hours(String start, String end) {
        Optional<Instant> from = local(start);
        Optional<Instant> to = local(end);
        if (from.isEmpty() || to.isEmpty()) {
            return Optional.empty();
        }
        double h = Duration.between(from.get(), to.get()).toMinutes() / 60.0;
        return h >= 0 && h <= MOST_BAKE_H ? Optional.of(h) : Optional.empty();
    }

    private static Optional<Instant> local(String text) {
        try {
            return text.isEmpty()
                    ? Optional.empty()
                    : Optional.of(java.time.LocalDateTime.parse(text.strip().replace(' ', 'T'))
                            .toInstant(java.time.ZoneOffset.UTC));
        } catch (java.time.format.DateTimeParseException e) {
            return instant(text);
        }
    }
}
