package org.greenbead.core.stock;

import java.time.Instant;
import java.time.ZoneId;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;

/** A thing taken from stock for a job: its counters become records of the job, which the rules read, and the job is one more use of it. */
public final class StockUse {
    private static final List<StockItem.Kind> LOTS = List.of(StockItem.Kind.PASTE, StockItem.Kind.FLUX,
            StockItem.Kind.SPHERES, StockItem.Kind.WICK, StockItem.Kind.SOLDER);

    private StockUse() {
    }

    /** Both as they are afterwards. */
    public record Taken(Job job, StockItem item) {}

    /**
     * @param part   of the chip that is worked on; empty = not known
     * @param amount that is used up, in the item's unit; 0 = not counted
     * @throws IllegalArgumentException when it was thrown away
     */
    public static Taken take(Job job, String part, StockItem item, double amount, Instant at, ZoneId zone,
            String by) {
        StockCounters now = StockCounters.of(item, at);
        if (now.scrapped()) {
            throw new IllegalArgumentException(
                    item.id() + " was thrown away; undo that first if it is still here");
        }
        Job longer = record(job, part, item, now, at, zone, by);
        if (amount > 0 && item.price() > 0) {
            longer = longer.with(cost(longer, item, amount, at, by));
        }
        return new Taken(JobFacts.settled(longer),
                item.with(new StockItem.Moment(at, StockItem.Act.USED, amount, job.id(), by)));
    }

    private static Job record(Job job, String part, StockItem item, StockCounters now, Instant at,
            ZoneId zone,
            String by) {
        if (LOTS.contains(item.kind())) {
            Job with = job.with(merged(job, "lot", item.id(), lot(item, now, zone), at, by));
            return item.kind() == StockItem.Kind.SPHERES
                    ? with.with(merged(with, "spheres", "", spheres(item), at, by))
                    : with;
        }
        if (item.kind() == StockItem.Kind.STENCIL) {
            return job.with(merged(job, "stencil", "", stencil(item, now, part), at, by));
        }
        return job.with(merged(job, "kit", "", Map.of("item", item.name() + " " + item.id()), at, by));
    }

    private static Map<String, Object> lot(StockItem item, StockCounters now, ZoneId zone) {
        var fields = new LinkedHashMap<String, Object>();
        fields.put("material", item.kind().word());
        fields.put("item", item.id());
        put(fields, "alloy", item.alloy());
        put(fields, "lot", item.lot());
        now.openedDay(zone).ifPresent(day -> fields.put("opened", day));
        if (item.kind().ages()) {
            fields.put("hours_out", Math.round(now.hoursOut() * 10) / 10.0);
        }
        item.limitHours().ifPresent(h -> fields.put("limit_hours", h));
        return fields;
    }

    private static Map<String, Object> spheres(StockItem item) {
        var fields = new LinkedHashMap<String, Object>();
        put(fields, "alloy", item.alloy());
        item.diameterMm().ifPresent(d -> fields.put("diameter_mm", d));
        return fields;
    }

    private static Map<String, Object> stencil(StockItem item, StockCounters now, String part) {
        var fields = new LinkedHashMap<String, Object>();
        fields.put("item", item.id());
        item.apertureMm().ifPresent(v -> fields.put("aperture_mm", v));
        item.thicknessMm().ifPresent(v -> fields.put("thickness_mm", v));
        fields.put("uses", (double) now.uses());
        fields.put("sonic_cycles", (double) now.washes());
        item.usesMax().ifPresent(v -> fields.put("uses_max", v));
        item.washesMax().ifPresent(v -> {
            fields.put("sonic_max", v);
            fields.put("coated", true);
        });
        fields.put("flat", now.flat().map(f -> f ? "ok" : "bowed").orElse("unknown"));
        fields.put("blocked", now.blocked());
        if (!part.isEmpty() && !item.fits().isEmpty()) {
            fields.put("other_part", !item.fits(part));
        }
        return fields;
    }

    private static void put(Map<String, Object> fields, String name, String value) {
        if (!value.isEmpty()) {
            fields.put(name, value);
        }
    }

    /** The record of this item, or the one of its type, or a new one, with what is known now; what else stands in it stays. */
    private static Kept merged(Job job, String type, String item, Map<String, Object> known, Instant at,
            String by) {
        Optional<Kept> there = type.equals("kit")
                ? Optional.empty()
                : job.records(type).stream().filter(r -> item.isEmpty() || r.text("item").equals(item))
                        .findFirst();
        var fields = new LinkedHashMap<String, Object>(there.map(Kept::fields).orElse(Map.of()));
        fields.putAll(known);
        return new Kept(there.map(Kept::id).orElseGet(() -> job.freeId(type)), type, at, by, fields);
    }

    private static Kept cost(Job job, StockItem item, double amount, Instant at, String by) {
        var fields = new LinkedHashMap<String, Object>();
        fields.put("what", item.name() + " " + item.id());
        fields.put("material", Math.round(amount * item.price() * 100) / 100.0);
        return new Kept(job.freeId("cost"), "cost", at, by, fields);
    }
}
