package org.greenbead.core.account;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.greenbead.core.book.Facts;

/** Facts as they are gathered, each with where it comes from. Used while they are gathered, by one thread. */
final class FactTree {
    private final Map<String, Object> root = new LinkedHashMap<>();
    private final Map<String, Origin> origins = new TreeMap<>();
    private Origin now = new Origin(Origin.Source.COMPUTED, "the job");

    /** What is said from here on comes from there. */
    FactTree from(Origin.Source source, String place) {
        now = new Origin(source, place);
        return this;
    }

    /** Says {@code "rails.count"}; an empty value says nothing. */
    void put(String path, Object value) {
        if (value == null || value instanceof Double d && !Double.isFinite(d)) {
            return;
        }
        int dot = path.indexOf('.');
        entity(path.substring(0, dot)).put(path.substring(dot + 1), value);
        origins.put(path, now);
    }

    /** Says it only where nothing is said yet. */
    void putIfAbsent(String path, Object value) {
        if (at(path).isEmpty()) {
            put(path, value);
        }
    }

    Optional<Object> at(String path) {
        return new Facts(root).at(path);
    }

    String text(String path) {
        return at(path).map(String::valueOf).orElse("");
    }

    double number(String path) {
        return at(path).filter(Double.class::isInstance).map(Double.class::cast).orElse(Double.NaN);
    }

    boolean yes(String path) {
        return at(path).filter(Boolean.TRUE::equals).isPresent();
    }

    @SuppressWarnings("unchecked")
    private Map<String, Object> entity(String name) {
        return (Map<String, Object>) root.computeIfAbsent(name, n -> new LinkedHashMap<String, Object>());
    }

    @SuppressWarnings("unchecked")
    private List<Object> list(String name) {
        return (List<Object>) root.computeIfAbsent(name, n -> new ArrayList<>());
    }

    /** The items of a list, each to be read; changed by {@link #item}. */
    @SuppressWarnings("unchecked")
    List<Map<String, Object>> items(String name) {
        return root.get(name) instanceof List<?> there
                ? there.stream().map(i -> (Map<String, Object>) i).toList()
                : List.of();
    }

    /** Where in a list the item with this key stands; a new one where there is none, or where it has no key. */
    int item(String name, String keyField, Object key) {
        List<Map<String, Object>> there = items(name);
        for (int i = 0; i < there.size(); i++) {
            if (key != null && key.equals(there.get(i).get(keyField))) {
                return i;
            }
        }
        list(name).add(new LinkedHashMap<String, Object>());
        return there.size();
    }

    /** Says a field of an item of a list. */
    void put(String name, int at, String field, Object value) {
        if (value == null || value instanceof Double d && !Double.isFinite(d)) {
            return;
        }
        items(name).get(at).put(field, value);
        origins.put(name + "." + at + "." + field, now);
    }

    /** Forgets what was said of an item. */
    void clear(String name, int at) {
        items(name).get(at).clear();
        origins.keySet().removeIf(p -> p.startsWith(name + "." + at + "."));
    }

    /** Moves a list that was gathered under a name of its own to a field of an entity. */
    void rename(String list, String entity, String field) {
        Object items = root.remove(list);
        if (items != null) {
            entity(entity).put(field, items);
            var moved = new TreeMap<String, Origin>();
            origins.forEach((path, origin) -> {
                if (path.startsWith(list + ".")) {
                    moved.put(entity + "." + field + path.substring(list.length()), origin);
                }
            });
            origins.keySet().removeIf(path -> path.startsWith(list + "."));
            origins.putAll(moved);
        }
    }

    /** Puts what a person typed over everything, field by field; a typed list stands for the whole list. */
    void over(Facts typed) {
        from(Origin.Source.TYPED, "typed by name");
        typed.root().forEach((entity, value) -> {
            if (value instanceof Map<?, ?> fields) {
                fields.forEach((field, v) -> put(entity + "." + field, copied(v)));
            } else {
                root.put(entity, copied(value));
                origins.keySet().removeIf(p -> p.startsWith(entity + "."));
                origins.put(entity, now);
            }
        });
    }

    private static Object copied(Object value) {
        return switch (value) {
            case Map<?, ?> map -> {
                var copy = new LinkedHashMap<String, Object>();
                map.forEach((k, v) -> copy.put(String.valueOf(k), copied(v)));
                yield copy;
            }
            case List<?> list -> {
                var copy = new ArrayList<Object>();
                list.forEach(i -> copy.add(copied(i)));
                yield copy;
            }
            case null, default -> value;
        };
    }

    KnownFacts known() {
        return new KnownFacts(new Facts(root), origins);
    }
}
