package org.greenbead.core.work;

import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.record.Answer;
import org.greenbead.core.record.Kept;
import org.greenbead.core.record.RecordType;
import org.greenbead.core.record.RecordTypes;
import org.greenbead.core.route.Job;

/** Writing down, correcting and taking back. */
public final class WriteDown {
    private WriteDown() {
    }

    /**
     * What is written.
     *
     * @param id     of the record that is meant; empty = the one of its kind, the thing of that name, or a new one
     * @param fields by name, as a person types them; an empty value takes a field away
     * @param unit   in which bare temperatures are read
     */
    public record Entry(String type, Optional<String> id, Map<String, String> fields, TempUnit unit) {}

    /** The record that an entry means; empty where it begins a new one. */
    public static Optional<Kept> meant(Job job, Entry entry) {
        RecordType known = RecordTypes.shipped().require(entry.type());
        if (entry.id().isPresent()) {
            return Optional.of(job.record(entry.id().get()).filter(r -> r.type().equals(entry.type()))
                    .orElseThrow(() -> new IllegalArgumentException("job " + job.id() + " has no record "
                            + entry.id().get() + " of type " + entry.type())));
        }
        if (!known.many()) {
            return job.records(entry.type()).stream().findFirst();
        }
        String named = entry.fields().getOrDefault(known.key(), "");
        return known.named() ? called(job, known, named) : Optional.empty();
    }

    private static Optional<Kept> called(Job job, RecordType type, String name) {
        return job.records(type.id()).stream()
                .filter(r -> !name.isEmpty() && r.text(type.key()).equalsIgnoreCase(name)).findFirst();
    }

    /**
     * The record with what was written.
     *
     * @throws IllegalArgumentException when a field is not known, a value does not fit, or no person writes this type
     */
    public static Kept record(Job job, Entry entry, Instant at, String by) {
        RecordType known = RecordTypes.shipped().require(entry.type());
        if (!known.byHand()) {
            throw new IllegalArgumentException("a record of type " + entry.type()
                    + " is written by the program from what it measured, never by hand");
        }
        Kept record = meant(job, entry).orElseGet(
                () -> new Kept(job.freeId(entry.type()), entry.type(), at, by, Map.of()));
        for (Map.Entry<String, String> field : entry.fields().entrySet()) {
            RecordType.Item item = known.item(field.getKey())
                    .orElseThrow(() -> new IllegalArgumentException("\"" + field.getKey()
                            + "\" is no field of " + entry.type() + "; it has " + String.join(", ",
                                    known.fields().stream().map(RecordType.Item::name).toList())));
            record = record.with(item.name(), Answer.read(item, field.getValue(), entry.unit()), at, by);
        }
        return record;
    }

    /** The record to take back: by its id, or by the name in its first field. */
    public static Kept takenBack(Job job, Entry entry) {
        RecordType known = RecordTypes.shipped().require(entry.type());
        Optional<Kept> there = entry.id().isPresent() || !known.many()
                ? meant(job, entry)
                : called(job, known, entry.fields().getOrDefault(known.key(), ""));
        return there.orElseThrow(() -> new IllegalArgumentException(
                "there is no such record of type " + entry.type() + " to take back"));
    }
}
