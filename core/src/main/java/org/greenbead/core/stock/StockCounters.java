package org.greenbead.core.stock;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.Noticed;
import org.greenbead.core.book.RuleBook;

/**
 * What follows from all that was done with a thing.
 *
 * @param left      amount that is there; never below 0
 * @param hoursOut  out of its store, all times together
 * @param out       out of it now
 * @param opened    when it was opened first
 * @param uses      since it is here
 * @param washes    the same
 * @param dirty     used and not washed since
 * @param flat      as it was last looked at; empty = nobody has looked
 * @param blocked   an opening was seen blocked and not cleared or washed since
 * @param scrapped  thrown away
 */
public record StockCounters(double left, double hoursOut, boolean out, Optional<Instant> opened, int uses,
        int washes, boolean dirty, Optional<Boolean> flat, boolean blocked, boolean scrapped) {

    public static StockCounters of(StockItem item, Instant now) {
        var count = new Counting();
        item.moments().forEach(count::take);
        if (count.outSince != null) {
            count.hours += hours(count.outSince, now);
        }
        return new StockCounters(Math.max(0, count.left), count.hours, count.outSince != null,
                Optional.ofNullable(count.opened), count.uses, count.washes, count.dirty,
                Optional.ofNullable(count.flat), count.blocked, count.scrapped);
    }

    private static final class Counting {
        private double left;
        private double hours;
        private Instant outSince;
        private Instant opened;
        private int uses;
        private int washes;
        private boolean dirty;
        private Boolean flat;
        private boolean blocked;
        private boolean scrapped;

        void take(StockItem.Moment m) {
            switch (m.act()) {
                case TAKEN_IN -> left += m.amount();
                case COUNTED -> left = m.amount();
                case OPENED -> {
                    opened = opened == null ? m.at() : opened;
                    outSince = outSince == null ? m.at() : outSince;
                }
                case OUT -> outSince = outSince == null ? m.at() : outSince;
                case BACK -> {
                    if (outSince != null) {
                        hours += hours(outSince, m.at());
                        outSince = null;
                    }
                }
                case USED -> {
                    uses++;
                    left -= m.amount();
                    dirty = true;
                }
                case WASHED -> {
                    washes++;
                    dirty = false;
                    blocked = false;
                }
                case BOWED -> flat = false;
                case FLAT -> flat = true;
                case BLOCKED -> blocked = true;
                case CLEAR -> blocked = false;
                case SCRAPPED -> scrapped = true;
            }
        }
    }

    /** A clock that was set back adds nothing. */
    private static double hours(Instant from, Instant to) {
        return Math.max(0, Duration.between(from, to).toMillis() / 3_600_000.0);
    }

    /** So little is there that more is to be ordered. */
    public boolean low(StockItem item) {
        return !scrapped && item.least() > 0 && left <= item.least();
    }

    /** What the rule book knows of it, under the names of the vocabulary. */
    public Facts facts(StockItem item) {
        var own = new LinkedHashMap<String, Object>();
        switch (item.kind()) {
            case STENCIL -> {
                own.put("uses", (double) uses);
                item.usesMax().ifPresent(v -> own.put("uses_max", v));
                own.put("sonic_cycles", (double) washes);
                item.washesMax().ifPresent(v -> {
                    own.put("sonic_max", v);
                    own.put("coated", true);
                });
                flat.ifPresent(f -> own.put("flat", f ? "ok" : "bowed"));
            }
            case PASTE -> {
                own.put("open_hours", hoursOut);
                item.limitHours().ifPresent(v -> own.put("limit_hours", v));
            }
            default -> {
                return Facts.none();
            }
        }
        return new Facts(Map.of(item.kind() == StockItem.Kind.STENCIL ? "stencil" : "paste", own, "plan",
                Map.of("steps", List.of("print", "form"))));
    }

    /** What the rules of the trade say of it as it lies there. */
    public List<Noticed> noticed(StockItem item, RuleBook book, RuleBook.Settings settings) {
        Facts facts = facts(item);
        String own = item.kind() == StockItem.Kind.STENCIL ? "stencil." : "paste.";
        return book.check(facts, settings).stream()
                .filter(n -> book.inputs(n.rule()).stream()
                        .anyMatch(i -> i.startsWith(own) && facts.at(i).isPresent()))
                .toList();
    }

    /** The day it was opened, as it is written on a jar. */
    public Optional<String> openedDay(ZoneId zone) {
        return opened.map(o -> DateTimeFormatter.ISO_LOCAL_DATE.format(o.atZone(zone)));
    }
}
