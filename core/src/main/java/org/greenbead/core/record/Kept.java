package org.greenbead.core.record;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.greenbead.core.book.Vocabulary;
import org.greenbead.core.quantity.Check;

/**
 * One record of a job.
 *
 * @param id     unique in its job
 * @param type   one of {@link RecordTypes}
 * @param at     when it was last written
 * @param author who wrote it, "technician A"; may be empty
 * @param fields what was noted: numbers as {@code Double}, yes or no as {@code Boolean}, words as {@code String} or {@code List<String>}; what is not in it is not noted
 */
public record Kept(String id, String type, Instant at, String author, Map<String, Object> fields) {
    private static final int MOST_TEXT = 2000;

    public Kept {
        Check.text("record id", id);
        Check.present("time of record " + id, at);
        author = author == null ? "" : author;
        RecordType known = RecordTypes.shipped().require(type);
        // One text for all of a type: a ledger holds hundreds of thousands of records.
        type = known.id();
        var sound = new LinkedHashMap<String, Object>();
        Check.present("fields of record " + id, fields).forEach((name, value) -> {
            if (value != null) {
                Object plain = value instanceof Number n
                        ? (Object) n.doubleValue()
                        : value instanceof List<?> list
                                ? list.stream().map(String::valueOf)
                                        .collect(Collectors.toUnmodifiableList())
                                : value;
                RecordType.Item item = known.item(name).orElseThrow(() -> new IllegalArgumentException(
                        "\"" + name + "\" is no field of a record of type " + known.id() + "; use one of "
                                + String.join(", ",
                                        known.fields().stream().map(RecordType.Item::name).toList())));
                if (!fits(item.field(), plain)) {
                    throw new IllegalArgumentException("\"" + plain + "\" does not fit " + name
                            + " of a record of type " + known.id() + "; " + wanted(item.field()));
                }
                sound.put(name, plain);
            }
        });
        fields = java.util.Collections.unmodifiableMap(sound);
    }

    private static boolean fits(Vocabulary.Field field, Object value) {
        return switch (field.kind()) {
            case NUMBER -> value instanceof Double d && Double.isFinite(d) && Math.abs(d) <= 1e9;
            case YES_NO -> value instanceof Boolean;
            case TEXT -> value instanceof String s && s.length() <= MOST_TEXT;
            case WORD -> value instanceof String s && field.has(s);
            case WORDS -> value instanceof List<?> list && list.size() <= 100
                    && list.stream().allMatch(w -> w instanceof String s && s.length() <= MOST_TEXT
                            && (field.words().isEmpty() || field.has(s)));
            case ITEMS -> false;
        };
    }

    private static String wanted(Vocabulary.Field field) {
        return switch (field.kind()) {
            case NUMBER -> "write a number";
            case YES_NO -> "write yes or no";
            case TEXT -> "write at most 2,000 characters";
            case WORD, WORDS -> field.words().isEmpty()
                    ? "write a list of words"
                    : "write " + String.join(", ", field.words());
            case ITEMS -> "leave it out";
        };
    }

    public Optional<Object> noted(String field) {
        return Optional.ofNullable(fields.get(field));
    }

    /** The word in a field; empty where nothing is noted. */
    public String text(String field) {
        Object value = fields.get(field);
        return value == null ? "" : String.valueOf(value);
    }

    /** The number in a field; NaN where nothing is noted. */
    public double number(String field) {
        return fields.get(field) instanceof Double d ? d : Double.NaN;
    }

    public boolean yes(String field) {
        return Boolean.TRUE.equals(fields.get(field));
    }

    /** The same record with one field changed; null takes it away. */
    public Kept with(String field, Object value, Instant now, String by) {
        var changed = new LinkedHashMap<>(fields);
        if (value == null) {
            changed.remove(field);
        } else {
            changed.put(field, value);
        }
        return new Kept(id, type, now, by, changed);
    }
}
