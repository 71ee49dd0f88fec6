package org.greenbead.core.record;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.book.Facts;
import org.greenbead.core.electric.Rails;

/** The facts that a job's records say. */
public final class RecordFacts {
    private RecordFacts() {
    }

    /**
     * The facts below with what the records say put over them, field by field; an item of a list is found again by its first
     * field (a site, a part) and joins the one that is there.
     */
    public static Facts over(Facts below, List<Kept> records) {
        var root = new LinkedHashMap<>(below.root());
        for (Kept record : records) {
            RecordType type = RecordTypes.shipped().require(record.type());
            for (RecordType.Item item : type.fields()) {
                if (item.fact().isPresent() && record.noted(item.name()).isPresent()) {
                    String[] path = item.fact().get().split("\\.");
                    Map<String, Object> into = Lists.MANY.contains(path[0])
                            ? member(root, path[0], type, record)
                            : entity(root, path[0]);
                    into.put(path[1], record.fields().get(item.name()));
                }
            }
        }
        counted(root, records);
        return new Facts(root);
    }

    /** Entities of which a job has several. */
    private static final class Lists {
        static final List<String> MANY = List.of("symptoms", "joints", "parts", "connectors", "waivers",
                "alloys", "values");
    }

    private static Map<String, Object> entity(Map<String, Object> root, String name) {
        var copy = new LinkedHashMap<String, Object>();
        if (root.get(name) instanceof Map<?, ?> there) {
            there.forEach((k, v) -> copy.put(String.valueOf(k), v));
        }
        root.put(name, copy);
        return copy;
    }

    private static Map<String, Object> member(Map<String, Object> root, String list, RecordType type,
            Kept record) {
        var items = new ArrayList<Object>(root.get(list) instanceof List<?> there ? there : List.of());
        String named = type.item(type.key()).flatMap(RecordType.Item::fact)
                .map(f -> f.substring(f.indexOf('.') + 1)).orElse("");
        int at = -1;
        for (int i = 0; i < items.size(); i++) {
            if (items.get(i) instanceof Map<?, ?> map && !record.text(type.key()).isEmpty()
                    && record.text(type.key()).equals(map.get(named))) {
                at = i;
            }
        }
        var copy = new LinkedHashMap<String, Object>();
        if (at >= 0 && items.get(at) instanceof Map<?, ?> there) {
            there.forEach((k, v) -> copy.put(String.valueOf(k), v));
            items.set(at, copy);
        } else {
            items.add(copy);
        }
        root.put(list, items);
        return copy;
    }

    /** What is counted over several records: screws, loose pads, the worst rail, pictures, open complaints. */
    private static void counted(Map<String, Object> root, List<Kept> records) {
        List<Kept> screws = of(records, "screw");
        if (!screws.isEmpty()) {
            var facts = entity(root, "screws");
            facts.putIfAbsent("out", (double) screws.stream().filter(s -> s.yes("out")).count());
            if (screws.stream().anyMatch(s -> s.noted("in").isPresent())) {
                facts.putIfAbsent("in", (double) screws.stream().filter(s -> s.yes("in")).count());
            }
            facts.putIfAbsent("length_by_hole",
                    screws.stream().allMatch(s -> s.noted("length_mm").isPresent()));
        }
        List<Kept> pads = of(records, "pad");
        if (!pads.isEmpty()) {
            var facts = entity(root, "pads");
            facts.putIfAbsent("loose_count",
                    (double) pads.stream().filter(p -> p.text("kind").equals("lifted")).count());
            facts.putIfAbsent("loose_mapped", pads.stream().allMatch(p -> !p.text("net").isEmpty()));
        }
        List<Rails.Rail> rails = rails(records);
        if (!rails.isEmpty()) {
            var facts = entity(root, "rails");
            Rails.Compared compared = Rails.compare(rails);
            if (compared.read() > 0) {
                facts.putIfAbsent("worst_deviation_pct", compared.worstDeviationPct());
            }
            facts.putIfAbsent("missing", (double) compared.missing());
        }
        List<Kept> pictures = of(records, "picture");
        if (!pictures.isEmpty()) {
            var facts = entity(root, "intake");
            facts.putIfAbsent("photos", (double) pictures.size());
            facts.putIfAbsent("board_photo",
                    pictures.stream().anyMatch(p -> p.text("view").startsWith("board")));
        }
        afterTheWork(root, records);
        tested(root, records);
        baked(root, records);
    }

    /** Rails once more, after the work: against the healthy reference, else against what the same rail was before. */
    private static void afterTheWork(Map<String, Object> root, List<Kept> records) {
        List<Rails.Rail> after = of(records, "rail").stream()
                .filter(r -> Double.isFinite(r.number("after_ohm")))
                .map(r -> new Rails.Rail(r.text("name"), r.number("after_ohm"), r.number("lead_ohm"),
                        r.number("reference_ohm") > 0
                                ? r.number("reference_ohm")
                                : new Rails.Rail("", r.number("ohm"), r.number("lead_ohm"), Double.NaN)
                                        .bareOhm()))
                .toList();
        if (!after.isEmpty()) {
            var facts = entity(root, "rails");
            facts.putIfAbsent("after_worst_pct", Rails.compare(after).worstDeviationPct());
            facts.putIfAbsent("after_shorts",
                    (double) after.stream().filter(r -> r.verdict() == Rails.Verdict.SHORT).count());
        }
    }

    /** Of several tests of one thing the last counts, however its words are written; one that failed fails the whole. */
    private static void tested(Map<String, Object> root, List<Kept> records) {
        List<Kept> tests = of(records, "tested");
        if (tests.isEmpty()) {
            return;
        }
        var last = new LinkedHashMap<String, Kept>();
        tests.forEach(t -> {
            last.remove(plain(t.text("what")));
            last.put(plain(t.text("what")), t);
        });
        var test = entity(root, "test");
        test.putIfAbsent("symptoms_open", (double) of(records, "symptom").stream()
                .filter(s -> !Optional.ofNullable(last.get(plain(s.text("words"))))
                        .map(t -> t.text("result")).orElse("").equals("pass"))
                .count());
        boolean failed = last.values().stream().anyMatch(t -> t.text("result").equals("fail"));
        boolean passed = last.values().stream().anyMatch(t -> t.text("result").equals("pass"));
        if (failed || passed) {
            test.putIfAbsent("result", failed ? "fail" : "pass");
        }
        last.values().stream().map(t -> t.text("configuration")).filter(c -> !c.isEmpty())
                .reduce((a, b) -> b).ifPresent(c -> test.putIfAbsent("configuration", c));
        last.values().stream().map(t -> t.number("minutes")).filter(Double::isFinite)
                .max(Double::compare).ifPresent(m -> test.putIfAbsent("minutes", m));
    }

    private static String plain(String words) {
        return words.strip().toLowerCase(java.util.Locale.ROOT).replaceAll("\\s+", " ");
    }

    /** An oven is a heater: how hot it is on counts for whoever leaves it alone. */
    private static void baked(Map<String, Object> root, List<Kept> records) {
        of(records, "bake").stream().map(r -> r.number("c")).filter(Double::isFinite).max(Double::compare)
                .ifPresent(c -> entity(root, "heater").putIfAbsent("on_c", c));
    }

    /** Every rail that was read, with its reference. */
    public static List<Rails.Rail> rails(List<Kept> records) {
        return of(records, "rail").stream().map(r -> new Rails.Rail(r.text("name"), r.number("ohm"),
                r.number("lead_ohm"), r.number("reference_ohm"))).toList();
    }

    private static List<Kept> of(List<Kept> records, String type) {
        return records.stream().filter(r -> r.type().equals(type)).toList();
    }
}
