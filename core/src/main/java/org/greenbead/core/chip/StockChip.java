package org.greenbead.core.chip;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;
import org.greenbead.core.quantity.Check;

/**
 * One physical package.
 *
 * @param label       its number, {@link ChipLabel#text()}
 * @param part        what is printed on it, "QX-510"
 * @param pads        number of balls, 0 = not noted
 * @param sideMm      longer side, 0 = not noted
 * @param origin      where it comes from
 * @param from        which unit or donor, in words
 * @param place       what it is in or on
 * @param where       which board, slot or drawer
 * @param proof       what shows its health, in words; empty = nothing
 * @param orientation its mark, "dot north-west, seen from the top"
 * @param alloy       on its balls; empty = not noted
 * @param melts       times its joints were liquid
 * @param hotMin      minutes it was hot, above 150 °C, all runs together
 * @param job         the job it belongs to; empty = stock
 * @param life        what happened to it, in order
 */
public record StockChip(String label, String part, int pads, double sideMm, Origin origin, String from,
        Place place, String where, Health health, String proof, String orientation, String alloy, int melts,
        double hotMin, Optional<String> job, List<Moment> life) {
    /** Where it comes from. */
    public enum Origin {
        OWN, NEW, HARVESTED
    }

    /** What it is in or on. */
    public enum Place {
        BOARD, TRAY, DRAWER, GONE
    }

    /** Where a chip was put, by its first word; any other word names a board. */
    public record Put(Place place, String where) {
        private static final Pattern FIRST = Pattern.compile("(?i)(tray|drawer|gone|board)\\b\\s*");

        /** "drawer 3", "tray", "board AB-1 U1", "AB-1 U1", "gone". */
        public static Put read(String text) {
            var first = FIRST.matcher(text.strip());
            return first.lookingAt()
                    ? new Put(Place.valueOf(first.group(1).toUpperCase(Locale.ROOT)),
                            text.strip().substring(first.end()))
                    : new Put(Place.BOARD, text.strip());
        }
    }

    /** Known, or not. */
    public enum Health {
        GOOD, BAD, UNKNOWN
    }

    /** One thing that happened. */
    public record Moment(Instant at, String what) {
        public Moment {
            Check.present("time of a moment", at);
            Check.text("what happened", what);
        }
    }

    public StockChip {
        if (ChipLabel.read(label).isEmpty()) {
            throw new IllegalArgumentException(
                    "\"" + label
                            + "\" is no chip label; it looks like GB-0042-7 and its last digit checks the rest");
        }
        Check.text("part of chip " + label, part);
        Check.within("balls of " + label, pads, 0, 20_000, "");
        Check.within("side of " + label, sideMm, 0, 100, "mm");
        Check.present("origin of " + label, origin);
        from = from == null ? "" : from;
        Check.present("place of " + label, place);
        where = where == null ? "" : where;
        Check.present("health of " + label, health);
        proof = proof == null ? "" : proof;
        if (health != Health.UNKNOWN && proof.isBlank()) {
            throw new IllegalArgumentException("chip " + label + " is called "
                    + (health == Health.GOOD ? "good" : "bad")
                    + " without a proof; write what shows it, or leave it unknown");
        }
        orientation = orientation == null ? "" : orientation;
        alloy = alloy == null ? "" : alloy;
        Check.within("melts of " + label, melts, 0, 50, "");
        Check.within("minutes hot of " + label, hotMin, 0, 1e5, "min");
        job = job == null ? Optional.empty() : job;
        life = life == null ? List.of() : List.copyOf(life);
    }

    private List<Moment> longer(Instant at, String what) {
        var longer = new ArrayList<>(life);
        longer.add(new Moment(at, what));
        return longer;
    }

    /** Put somewhere else. */
    public StockChip moved(Place to, String at, Optional<String> forJob, Instant when, String what) {
        return new StockChip(label, part, pads, sideMm, origin, from, to, at, health, proof, orientation,
                alloy,
                melts, hotMin, forJob, longer(when, what));
    }

    /** Told which part it is. */
    public StockChip named(String printedPart, Instant when, String what) {
        return new StockChip(label, printedPart, pads, sideMm, origin, from, place, where, health, proof,
                orientation, alloy, melts, hotMin, job, longer(when, what));
    }

    /** Known better. */
    public StockChip known(Health now, String shownBy, Instant when, String what) {
        return new StockChip(label, part, pads, sideMm, origin, from, place, where, now, shownBy, orientation,
                alloy, melts, hotMin, job, longer(when, what));
    }

    /** After heat. */
    public StockChip heated(int moreMelts, double moreMin, Instant when, String what) {
        return new StockChip(label, part, pads, sideMm, origin, from, place, where, health, proof,
                orientation,
                alloy, melts + moreMelts, hotMin + moreMin, job, longer(when, what));
    }

    /** With other balls, or with its mark noted. */
    public StockChip with(String balls, String mark, Instant when, String what) {
        return new StockChip(label, part, pads, sideMm, origin, from, place, where, health, proof, mark,
                balls,
                melts, hotMin, job, longer(when, what));
    }
}
