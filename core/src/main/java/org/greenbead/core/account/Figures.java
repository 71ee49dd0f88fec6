package org.greenbead.core.account;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.greenbead.core.book.Wording;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.RecordType;
import org.greenbead.core.record.RecordTypes;
import org.greenbead.core.route.Entry;
import org.greenbead.core.route.Job;

/** Every figure that is known of a job, with where it comes from, who said it when, and what was said before. */
public final class Figures {
    private Figures() {
    }

    /**
     * @param path    of the fact, {@code board.revision} or {@code rails.0.ohm}
     * @param what    in words
     * @param of      the thing it is of where there are several of a kind: a rail, a site; may be empty
     * @param value   with its unit
     * @param from    the place, in words
     * @param said    when it was written and by whom; empty for what is reckoned or stands in the ledger
     * @param earlier what a later entry took the place of, the newest first
     */
    public record Figure(String path, String what, String of, String value, Origin.Source source, String from,
            Optional<Said> said, List<Said> earlier) {
        public Figure {
            earlier = List.copyOf(earlier);
        }
    }

    /** One entry of the account. @param value with its unit; what was taken back is empty */
    public record Said(String value, Instant at, String by) {}

    /**
     * Numbers, then words, then yes and no, each in the order of their paths.
     *
     * @param about the things they are of, such as {@code rails} or {@code chip}; empty = all
     */
    public static List<Figure> of(Job job, KnownFacts known, List<String> about, Words words) {
        var wording = new Wording(words);
        var figures = new ArrayList<Figure>();
        Map<String, List<Entry>> account = entries(job);
        new TreeMap<>(known.origins()).forEach((path, origin) -> {
            String entity = path.contains(".") ? path.substring(0, path.indexOf('.')) : path;
            Object value = value(known.facts().root(), path);
            if (value == null || value instanceof Map || !about.isEmpty() && !about.contains(entity)) {
                return;
            }
            String plain = path.replaceAll("\\.\\d+", "");
            List<Said> said = told(account, place(origin, plain), plain, wording);
            boolean now = !said.isEmpty() && !said.getFirst().value().isEmpty();
            figures.add(new Figure(path, FactWords.of(plain, words), thing(known, path),
                    shown(wording, plain, value),
                    origin.source(), FactWords.from(origin.from(), words),
                    now ? Optional.of(said.getFirst()) : Optional.empty(),
                    now ? said.subList(1, said.size()) : said));
        });
        figures.sort(Comparator.comparingInt(f -> kind(value(known.facts().root(), f.path()))));
        return List.copyOf(figures);
    }

    /** Numbers first, then words, then yes and no. */
    private static int kind(Object value) {
        return value instanceof Number ? 0 : value instanceof Boolean ? 2 : 1;
    }

    /** What the records that are asked for at a bead are of. */
    public static List<String> askedAt(String beadId) {
        return RecordTypes.shipped().all().stream().filter(t -> t.byHand() && t.beads().contains(beadId))
                .flatMap(t -> t.fields().stream()).flatMap(f -> f.fact().stream())
                .map(f -> f.substring(0, f.indexOf('.'))).distinct().toList();
    }

    private static Map<String, List<Entry>> entries(Job job) {
        return job.account().stream().collect(java.util.stream.Collectors.groupingBy(Entry::what));
    }

    /** Where in the account the entries of a figure stand; empty where it is none of its own. */
    private static String place(Origin origin, String plain) {
        String from = origin.from();
        if (from.startsWith("tick ")) {
            return "check/" + from.substring("tick ".length());
        }
        if (origin.source() == Origin.Source.TYPED) {
            return "fact/" + plain;
        }
        if (!from.startsWith("record ")) {
            return "";
        }
        String id = from.substring("record ".length());
        int dash = id.lastIndexOf('-');
        return dash < 0
                ? ""
                : RecordTypes.shipped().all().stream().filter(t -> t.id().equals(id.substring(0, dash)))
                        .flatMap(t -> t.fields().stream())
                        .filter(f -> f.fact().filter(plain::equals).isPresent()).findFirst()
                        .map(RecordType.Item::name).map(field -> "record/" + id + "/" + field).orElse("");
    }

    /** The newest first. */
    private static List<Said> told(Map<String, List<Entry>> account, String place, String plain,
            Wording wording) {
        return account.getOrDefault(place, List.of()).stream()
                .sorted(Comparator.comparingInt(Entry::number).reversed())
                .map(e -> new Said(e.is() == null ? "" : shown(wording, plain, e.is()), e.at(), e.by()))
                .toList();
    }

    private static String shown(Wording wording, String plain, Object value) {
        return wording.figure(plain, value instanceof Number n ? (Object) n.doubleValue() : value);
    }

    private static Object value(Map<?, ?> root, String path) {
        Object at = root;
        for (String step : path.split("\\.")) {
            at = switch (at) {
                case Map<?, ?> map -> map.get(step);
                case List<?> list when step.matches("\\d{1,6}") && Integer.parseInt(step) < list.size() ->
                    list.get(Integer.parseInt(step));
                case null, default -> null;
            };
        }
        return at;
    }

    /** What tells one item of a list from the others. */
    private static String thing(KnownFacts known, String path) {
        java.util.regex.Matcher item = java.util.regex.Pattern.compile("^(.*?\\.\\d+)\\.").matcher(path);
        if (!item.find()) {
            return "";
        }
        Object there = value(known.facts().root(), item.group(1));
        if (there instanceof Map<?, ?> fields) {
            for (String key : List.of("name", "site", "id", "part", "site_id", "bead")) {
                if (fields.get(key) instanceof String text && !path.endsWith("." + key)) {
                    return text;
                }
            }
        }
        return "";
    }
}
