package org.greenbead.core.book;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Every fact that a job may hold: entity, field, kind, allowed words. What is not in it is refused. */
public final class Vocabulary {
    private static final Vocabulary SHIPPED = read(Shipped.text("vocabulary.txt"));
    /** What no job is given any more. Files of earlier versions hold it: it is kept as it was typed, and no rule reads it. */
    private static final Vocabulary RETIRED = read(Shipped.text("retired.txt"));
    private final Map<String, Entity> entities = new LinkedHashMap<>();

    /** An entity: one, or a list of them. */
    private record Entity(String name, boolean many, Map<String, Field> fields) {}

    /**
     * A field: number, yes or no, text, one of some words, or a list of words; or a list of entities of another name.
     *
     * @param words that may be written
     * @param once  words of earlier versions, which are read and kept and no longer offered
     */
    public record Field(String name, Kind kind, List<String> words, List<String> once, String of) {
        private Field(String name, Kind kind, List<String> words, String of) {
            this(name, kind, words, List.of(), of);
        }

        /** Whether a word is one of it, now or once. */
        public boolean has(String word) {
            return words.contains(word) || once.contains(word);
        }
    }

    /** What a field holds. */
    public enum Kind {
        NUMBER, YES_NO, TEXT, WORD, WORDS, ITEMS
    }

    /** A fact that does not fit, where, and what is allowed. */
    public record Misfit(String pointer, String what, String remedy) {}

    private Vocabulary() {
    }

    /** The vocabulary as shipped. */
    public static Vocabulary ofTheTrade() {
        return SHIPPED;
    }

    /** Lines such as {@code joints[]: site text, side top|underside, bi_pct number}. */
    static Vocabulary read(String text) {
        var made = new Vocabulary();
        text.lines().filter(l -> !l.isBlank() && !l.startsWith("#")).forEach(line -> {
            String head = line.substring(0, line.indexOf(':')).strip();
            boolean many = head.endsWith("[]");
            String name = many ? head.substring(0, head.length() - 2) : head;
            var fields = new LinkedHashMap<String, Field>();
            for (String one : line.substring(line.indexOf(':') + 1).split(",")) {
                String[] part = one.strip().split("\\s+", 2);
                fields.put(part[0], field(part[0], part[1]));
            }
            made.entities.put(name, new Entity(name, many, fields));
        });
        return made;
    }

    /** A field from its kind, such as {@code yn} or {@code some a|b}. */
    public static Field field(String name, String kind) {
        return switch (kind) {
            case "number" -> new Field(name, Kind.NUMBER, List.of(), "");
            case "yn" -> new Field(name, Kind.YES_NO, List.of(), "");
            case "text" -> new Field(name, Kind.TEXT, List.of(), "");
            case "texts" -> new Field(name, Kind.WORDS, List.of(), "");
            default -> kind.startsWith("@")
                    ? new Field(name, Kind.ITEMS, List.of(), kind.substring(1))
                    : kind.startsWith("some ")
                            ? worded(name, Kind.WORDS, kind.substring(5))
                            : worded(name, Kind.WORD, kind);
        };
    }

    /** {@code a|b ~c}: a and b may be written, c stands in files of earlier versions. */
    private static Field worded(String name, Kind kind, String words) {
        String[] part = words.split("\\s*~");
        return new Field(name, kind, List.of(part[0].split("\\|")),
                part.length > 1 ? List.of(part[1].split("\\|")) : List.of(), "");
    }

    /** The field that a path of a rule means. @throws IllegalArgumentException when there is none */
    void require(String path, BookRule rule) {
        String plain = path.replace("[]", "");
        String full = rule.each().filter(e -> plain.equals(e.name()) || plain.startsWith(e.name() + "."))
                .map(e -> e.path() + plain.substring(e.name().length())).orElse(plain);
        if (find(full).isEmpty()) {
            throw new IllegalArgumentException(
                    "rule " + rule.id() + " asks for " + full + ", which no job holds");
        }
    }

    /** @return empty when no job holds such a fact */
    public Optional<Field> find(String path) {
        String[] steps = path.split("\\.");
        Entity entity = entities.get(steps[0]);
        if (entity == null) {
            return Optional.empty();
        }
        Field field = new Field(entity.name, Kind.ITEMS, List.of(), entity.name);
        for (int i = 1; i < steps.length; i++) {
            if (entity == null) {
                return Optional.empty();
            }
            field = entity.fields.get(steps[i]);
            if (field == null) {
                return Optional.empty();
            }
            entity = field.kind == Kind.ITEMS ? entities.get(field.of) : null;
        }
        return Optional.of(field);
    }

    /** What does not fit, in the order of reading. */
    public List<Misfit> misfits(Facts facts) {
        var found = new ArrayList<Misfit>();
        facts.root().forEach((name, value) -> {
            Entity entity = entities.getOrDefault(name, RETIRED.entities.get(name));
            if (entity == null) {
                found.add(new Misfit("/" + name, "\"" + name + "\" is no entity of a job",
                        "Use one of " + String.join(", ", entities.keySet())));
            } else if (entity.many) {
                items(entity, value, "/" + name, found);
            } else {
                entity(entity, value, "/" + name, found);
            }
        });
        return List.copyOf(found);
    }

    private void items(Entity entity, Object value, String at, List<Misfit> found) {
        if (!(value instanceof List<?> list)) {
            found.add(new Misfit(at, "a list is wanted", "Write [ … ]"));
            return;
        }
        for (int i = 0; i < list.size(); i++) {
            entity(entity, list.get(i), at + "/" + i, found);
        }
    }

    private void entity(Entity entity, Object value, String at, List<Misfit> found) {
        if (!(value instanceof Map<?, ?> map)) {
            found.add(new Misfit(at, "an object is wanted", "Write { … }"));
            return;
        }
        map.forEach((key, inner) -> {
            String here = at + "/" + key;
            Field field = Optional.ofNullable(entity.fields.get(String.valueOf(key)))
                    .or(() -> retired(entity.name, String.valueOf(key))).orElse(null);
            if (field == null) {
                found.add(new Misfit(here, "\"" + key + "\" is no field of " + entity.name,
                        "Use one of " + String.join(", ", entity.fields.keySet())));
            } else if (inner != null && field.kind == Kind.ITEMS) {
                items(entities.get(field.of), inner, here, found);
            } else if (inner != null) {
                value(field, inner, here, found);
            }
        });
    }

    private static Optional<Field> retired(String entity, String field) {
        return Optional.ofNullable(RETIRED.entities.get(entity)).map(e -> e.fields.get(field));
    }

    private static void value(Field field, Object value, String at, List<Misfit> found) {
        boolean fits = switch (field.kind) {
            case NUMBER -> value instanceof Double d && Double.isFinite(d) && Math.abs(d) <= 1e9;
            case YES_NO -> value instanceof Boolean;
            case TEXT -> value instanceof String s && s.length() <= 2000;
            case WORD -> value instanceof String s && field.has(s);
            case WORDS -> value instanceof List<?> list && list.size() <= 500
                    && list.stream().allMatch(
                            w -> w instanceof String s && (field.words.isEmpty() || field.has(s)));
            case ITEMS -> false;
        };
        if (!fits) {
            found.add(new Misfit(at, "\"" + value + "\" does not fit", switch (field.kind) {
                case NUMBER -> "Write a number within a thousand million";
                case YES_NO -> "Write true or false";
                case TEXT -> "Write text of at most 2,000 characters";
                case WORD -> "Write one of " + String.join(", ", field.words);
                default ->
                    "Write a list of " + (field.words.isEmpty() ? "words" : String.join(", ", field.words));
            }));
        }
    }
}
