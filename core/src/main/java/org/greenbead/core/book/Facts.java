package org.greenbead.core.book;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.quantity.Check;

/**
 * What is known of a job: entities with fields, lists of entities, nothing where nobody noted anything. Values are {@code Double},
 * {@code Boolean}, {@code String}, {@code List} and {@code Map}.
 */
public final class Facts {
    private final Map<String, Object> root;

    /** @param root is not copied; nobody changes it any more */
    public Facts(Map<String, Object> root) {
        this.root = Check.present("facts", root);
    }

    public static Facts none() {
        return new Facts(Map.of());
    }

    public Map<String, Object> root() {
        return root;
    }

    /** A place in the tree and what stands there; the value is null where nothing does. */
    record Spot(Object value, String pointer) {
        static final Spot EMPTY = new Spot(null, "");

        Spot field(String name) {
            return value instanceof Map<?, ?> map
                    ? new Spot(map.get(name), pointer + "/" + name)
                    : new Spot(null, pointer + "/" + name);
        }

        List<Spot> items() {
            if (!(value instanceof List<?> list)) {
                return List.of();
            }
            var items = new ArrayList<Spot>();
            for (int i = 0; i < list.size(); i++) {
                items.add(new Spot(list.get(i), pointer + "/" + i));
            }
            return items;
        }
    }

    Spot spot() {
        return new Spot(root, "");
    }

    /** The value at a path such as {@code plan.stages.0.air_c}. */
    public Optional<Object> at(String path) {
        Object value = root;
        for (String step : path.split("\\.")) {
            value = switch (value) {
                case Map<?, ?> map -> map.get(step);
                case List<?> list -> step.matches("\\d{1,4}") && Integer.parseInt(step) < list.size()
                        ? list.get(Integer.parseInt(step))
                        : null;
                case null, default -> null;
            };
        }
        return Optional.ofNullable(value);
    }

    /**
     * The same facts with some changed: {@code "joints.0.bi_pct=7; job.goal=data; joints.0.flat_proof="}. A number, yes or no, a word, '7' for text that
     * looks like a number, [a, b] for a list; nothing after the = takes the fact away.
     *
     * @throws IllegalArgumentException when an assignment cannot be read
     */
    public Facts with(String assignments) {
        Map<String, Object> changed = copy(root);
        for (String one : assignments.split(";")) {
            if (one.isBlank()) {
                continue;
            }
            int eq = one.indexOf('=');
            if (eq < 1) {
                throw new IllegalArgumentException(
                        "\"" + one.strip() + "\" is no assignment such as job.goal=data");
            }
            set(changed, one.substring(0, eq).strip().split("\\."), 0, read(one.substring(eq + 1).strip()));
        }
        return new Facts(changed);
    }

    private static Object read(String text) {
        if (text.isEmpty()) {
            return null;
        }
        if (text.startsWith("[") && text.endsWith("]")) {
            var list = new ArrayList<Object>();
            for (String item : text.substring(1, text.length() - 1).split(",")) {
                if (!item.isBlank()) {
                    list.add(read(item.strip()));
                }
            }
            return list;
        }
        if (text.length() > 1 && text.startsWith("'") && text.endsWith("'")) {
            return text.substring(1, text.length() - 1);
        }
        return switch (text) {
            case "yes" -> true;
            case "no" -> false;
            default -> text.matches("-?\\d+(\\.\\d+)?") ? (Object) Double.valueOf(text) : text;
        };
    }

    @SuppressWarnings("unchecked")
    private static void set(Object at, String[] path, int depth, Object value) {
        String step = path[depth];
        boolean last = depth == path.length - 1;
        boolean nextIsItem = !last && path[depth + 1].matches("\\d{1,3}");
        if (at instanceof Map<?, ?> map) {
            var fields = (Map<String, Object>) map;
            if (last && value == null) {
                fields.remove(step);
            } else if (last) {
                fields.put(step, value);
            } else {
                set(fields.computeIfAbsent(step,
                        s -> nextIsItem ? new ArrayList<>() : new LinkedHashMap<String, Object>()),
                        path, depth + 1, value);
            }
        } else if (at instanceof List<?> list) {
            var items = (List<Object>) list;
            int index = Integer.parseInt(step);
            while (items.size() <= index) {
                items.add(new LinkedHashMap<String, Object>());
            }
            if (last) {
                items.set(index, value);
            } else {
                set(items.get(index), path, depth + 1, value);
            }
        } else {
            throw new IllegalArgumentException(String.join(".", path) + " leads through a plain value");
        }
    }

    private static Map<String, Object> copy(Map<String, Object> map) {
        var copy = new LinkedHashMap<String, Object>();
        map.forEach((k, v) -> copy.put(k, copied(v)));
        return copy;
    }

    @SuppressWarnings("unchecked")
    private static Object copied(Object value) {
        return switch (value) {
            case Map<?, ?> map -> copy((Map<String, Object>) map);
            case List<?> list -> {
                var items = new ArrayList<Object>();
                list.forEach(i -> items.add(copied(i)));
                yield items;
            }
            case null, default -> value;
        };
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Facts facts && facts.root.equals(root);
    }

    @Override
    public int hashCode() {
        return root.hashCode();
    }

    @Override
    public String toString() {
        return root.toString();
    }
}
