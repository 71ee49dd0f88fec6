package org.greenbead.core.book;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedSet;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.greenbead.core.finding.Severity;

/** All rules, read once. Asking is free of side effects and may be done from any thread. */
public final class RuleBook {
    private static final Pattern GAP = Pattern.compile("\\{([a-z][a-z0-9_.]*)}");
    private static final RuleBook SHIPPED = new RuleBook(BookReader.read(Shipped.text("rulebook.txt")),
            Vocabulary.ofTheTrade());
    private final List<Ready> rules = new ArrayList<>();

    private record Ready(BookRule rule, Condition when, Optional<Condition> worst, Optional<Condition> asked,
            List<String> gaps,
            List<RemedyGap> cures,
            Map<String, Double> standard) {}

    /** Thresholds that a bench has changed, by {@code rule id/limit name}. */
    public record Settings(Map<String, Double> limits) {
        public static final Settings STANDARD = new Settings(Map.of());

        public Settings {
            limits = Map.copyOf(limits);
        }

        /** Reads {@code rule/limit=value} lines; a line that cannot be read is left out. */
        public static Settings read(String lines) {
            var limits = new LinkedHashMap<String, Double>();
            lines.lines().map(l -> l.split("=", 2)).filter(p -> p.length == 2).forEach(p -> {
                try {
                    double value = Double.parseDouble(p[1].strip());
                    if (Double.isFinite(value)) {
                        limits.put(p[0].strip(), value);
                    }
                } catch (NumberFormatException e) {
                    // The default of that threshold holds.
                }
            });
            return new Settings(limits);
        }

        /** As {@link #read} takes it. */
        public String text() {
            return String.join("\n", limits.entrySet().stream().sorted(Map.Entry.comparingByKey())
                    .map(e -> e.getKey() + "=" + e.getValue()).toList());
        }

        /** With one threshold changed; its standard again where the value is empty. */
        public Settings with(String limit, Optional<Double> value) {
            var changed = new LinkedHashMap<>(limits);
            value.ifPresentOrElse(v -> changed.put(limit, v), () -> changed.remove(limit));
            return new Settings(changed);
        }
    }

    private RuleBook(List<BookRule> read, Vocabulary vocabulary) {
        for (BookRule rule : read) {
            var when = new Condition(rule.when());
            var known = new LinkedHashSet<String>();
            rule.each().ifPresent(e -> known.add(e.name()));
            var gaps = new ArrayList<String>();
            Matcher gap = GAP.matcher(rule.why());
            while (gap.find()) {
                gaps.add(gap.group(1));
            }
            if (gap.reset().replaceAll("").contains("{")) {
                throw new IllegalArgumentException("rule " + rule.id()
                        + ": a gap of its reason holds something else than a path: " + rule.why());
            }
            for (String path : when.paths()) {
                vocabulary.require(path, rule);
            }
            gaps.forEach(path -> vocabulary.require(path, rule));
            var standard = new LinkedHashMap<String, Double>();
            rule.limits().forEach((name, limit) -> standard.put(name, limit.standard()));
            Optional<Condition> asked = rule.unknown().map(BookRule.Unknown::asked).filter(a -> !a.isEmpty())
                    .map(Condition::new);
            asked.ifPresent(a -> a.paths().forEach(path -> vocabulary.require(path, rule)));
            List<RemedyGap> cures = RemedyGap.of(rule);
            cures.forEach(c -> c.number().paths().forEach(path -> vocabulary.require(path, rule)));
            Optional<Condition> worst = Optional.of(rule.worst()).filter(w -> !w.isEmpty())
                    .map(Condition::new);
            worst.ifPresent(w -> w.paths().forEach(path -> vocabulary.require(path, rule)));
            rules.add(new Ready(rule, when, worst, asked, gaps, cures, standard));
        }
    }

    /** The book as shipped. */
    public static RuleBook shipped() {
        return SHIPPED;
    }

    /**
     * A book of one's own, in the form of the shipped one.
     *
     * @throws IllegalArgumentException naming the rule that cannot be read, or that asks for what no job holds
     */
    public static RuleBook read(String text) {
        return new RuleBook(BookReader.read(text), Vocabulary.ofTheTrade());
    }

    public List<BookRule> rules() {
        return rules.stream().map(Ready::rule).toList();
    }

    public Optional<BookRule> rule(String id) {
        return rules().stream().filter(r -> r.id().equals(id)).findFirst();
    }

    /** The facts that a rule asks for. */
    public List<String> inputs(BookRule rule) {
        SequencedSet<String> inputs = new LinkedHashSet<>();
        Ready ready = rules.stream().filter(r -> r.rule.equals(rule)).findFirst().orElseThrow();
        ready.when.paths().forEach(path -> inputs.add(rule.full(path)));
        return List.copyOf(inputs);
    }

    /** Paths of the facts that a finding rests on, with the number of the item where its rule walks a list. */
    public List<String> spots(Noticed noticed) {
        return rules.stream().filter(r -> r.rule.id().equals(noticed.rule().id())).findFirst()
                .map(ready -> ready.when.paths().stream().filter(p -> !p.contains("[]"))
                        .map(path -> ready.rule.each().filter(e -> path.startsWith(e.name() + "."))
                                .map(e -> noticed.at().substring(1).replace('/', '.')
                                        + path.substring(e.name().length()))
                                .orElse(path))
                        .distinct().toList())
                .orElse(List.of());
    }

    /** One rule looking at the whole job, or at one item of its list. */
    private interface Looking {
        void at(Ready ready, Condition.Scope scope, String pointer);
    }

    private void walk(Facts facts, Settings settings, Predicate<BookRule> which, Looking looking) {
        Facts.Spot root = facts.spot();
        var functions = new TradeFunctions(root);
        for (Ready ready : rules) {
            if (!which.test(ready.rule)) {
                continue;
            }
            var limits = new LinkedHashMap<>(ready.standard);
            limits.replaceAll(
                    (name, value) -> settings.limits().getOrDefault(ready.rule.id() + "/" + name, value));
            var whole = new Condition.Scope(root, Map.of(), limits, functions);
            if (ready.rule.each().isPresent()) {
                BookRule.Each each = ready.rule.each().get();
                for (Facts.Spot item : worstFirst(ready, whole, each)) {
                    looking.at(ready, whole.with(each.name(), item), item.pointer());
                }
            } else {
                looking.at(ready, whole, pointer(ready, whole));
            }
        }
    }

    /** The items of a rule's list, where it says which is the worst that first; those without the number last. */
    private static List<Facts.Spot> worstFirst(Ready ready, Condition.Scope whole, BookRule.Each each) {
        List<Facts.Spot> items = whole.spot(each.path()).items();
        return ready.worst.map(worst -> items.stream()
                .sorted(Comparator.comparingDouble((Facts.Spot item) -> worst
                        .value(whole.with(each.name(), item)) instanceof Number n
                                ? -n.doubleValue()
                                : Double.POSITIVE_INFINITY))
                .toList()).orElse(items);
    }

    /** Every rule that fires, the worst first, then in the order of work. */
    public List<Noticed> check(Facts facts, Settings settings) {
        var found = new ArrayList<Noticed>();
        walk(facts, settings, rule -> true, (ready, scope, at) -> look(ready, scope, at, found));
        found.sort(Comparator.comparing((Noticed n) -> n.rule().severity()).reversed()
                .thenComparing(n -> n.rule().phase()));
        return List.copyOf(found);
    }

    /**
     * What is not known and would decide a rule that says so: what guards a person or data holds the work until it is found out. Nothing
     * where the rule fires or is silent either way.
     *
     * @param phase in hand; what matters later is not asked yet
     */
    public List<NotKnown> notKnown(Facts facts, Settings settings, Phase phase) {
        var open = new ArrayList<NotKnown>();
        walk(facts, settings, rule -> rule.unknown().isPresent() && rule.phase().compareTo(phase) <= 0,
                (ready, scope, at) -> ask(ready, scope, at, open));
        return List.copyOf(open);
    }

    private static void ask(Ready ready, Condition.Scope scope, String at, List<NotKnown> open) {
        List<String> missing = ready.when.paths().stream().filter(p -> scope.spot(p).value() == null)
                .map(p -> ready.rule.full(p)).distinct().toList();
        boolean asked = ready.asked.map(a -> a.holds(scope))
                .orElse(missing.size() < ready.when.paths().size());
        if (asked && !missing.isEmpty() && !ready.when.holds(scope)
                && ready.when.truth(scope) == Condition.Truth.UNKNOWN) {
            open.add(new NotKnown(ready.rule, missing, at));
        }
    }

    private static void look(Ready ready, Condition.Scope scope, String at, List<Noticed> found) {
        if (ready.when.holds(scope)) {
            found.add(new Noticed(ready.rule,
                    ready.gaps.stream().map(g -> new Noticed.Value(g, scope.spot(g).value())).toList(),
                    ready.cures.stream()
                            .map(c -> new Noticed.Cure(c.text(), c.number().value(scope), c.unit()))
                            .toList(),
                    at));
        }
    }

    /** Where a rule of the whole job points: where it says, or the first of its facts that stands there. */
    private static String pointer(Ready ready, Condition.Scope scope) {
        if (!ready.rule.at().isEmpty()) {
            return "/" + ready.rule.at().replace('.', '/');
        }
        return ready.when.paths().stream().map(scope::spot).filter(s -> s.value() != null)
                .map(Facts.Spot::pointer).findFirst()
                .orElse(ready.when.paths().isEmpty()
                        ? ""
                        : "/" + ready.when.paths().getFirst().replace('.', '/'));
    }

    /** Reads the book's text. */
    static final class BookReader {
        private final List<BookRule> rules = new ArrayList<>();
        private final Map<String, String> keys = new LinkedHashMap<>();
        private final Map<String, BookRule.Limit> limits = new LinkedHashMap<>();
        private String id = "";

        private BookReader() {
        }

        /** @throws IllegalArgumentException naming the rule that cannot be read */
        static List<BookRule> read(String text) {
            var reader = new BookReader();
            text.lines().forEach(reader::line);
            reader.close();
            return reader.rules;
        }

        private void line(String line) {
            if (line.isBlank() || line.startsWith("#")) {
                return;
            }
            if (line.startsWith("[")) {
                close();
                id = line.substring(1, line.indexOf(']'));
                return;
            }
            int eq = line.indexOf(" = ");
            if (eq < 0) {
                throw new IllegalArgumentException(
                        "rule " + id + ": \"" + line + "\" is no line such as what = ...");
            }
            String key = line.substring(0, eq).strip();
            String value = line.substring(eq + 3).strip();
            if (key.startsWith("limit ")) {
                String[] part = value.split("\\|", 2);
                String[] number = part[0].strip().split(" ", 2);
                limits.put(key.substring(6),
                        new BookRule.Limit(Double.parseDouble(number[0]),
                                number.length > 1 ? number[1].strip() : "",
                                part.length > 1 ? part[1].strip() : "rule of thumb"));
            } else if (keys.put(key, value) != null) {
                throw new IllegalArgumentException("rule " + id + " says " + key + " twice");
            }
        }

        /** "4 14" as T004 and T014. */
        private static List<String> numbers(String covers) {
            return Arrays.stream(covers.split("\\s+"))
                    .map(n -> String.format(Locale.ROOT, "T%03d", Integer.parseInt(n))).toList();
        }

        /** "stop | where it is asked | how it is found out". */
        private static Optional<BookRule.Unknown> unknown(String text) {
            if (text == null) {
                return Optional.empty();
            }
            String[] part = text.split("\\|", 3);
            return Optional.of(new BookRule.Unknown(
                    BookRule.Unknown.Kind.valueOf(part[0].strip().toUpperCase(Locale.ROOT)), part[1].strip(),
                    part[2].strip()));
        }

        private void close() {
            if (!id.isEmpty()) {
                String[] each = keys.getOrDefault("each", "").split(": ", 2);
                rules.add(new BookRule(id, numbers(keys.get("covers")),
                        Phase.valueOf(keys.get("phase").toUpperCase(Locale.ROOT)),
                        Severity.valueOf(keys.get("severity").toUpperCase(Locale.ROOT)),
                        each.length == 2
                                ? Optional.of(new BookRule.Each(each[0], each[1]))
                                : Optional.empty(),
                        keys.get("when"), keys.getOrDefault("worst", ""),
                        keys.getOrDefault("at", ""), unknown(keys.get("unknown")), limits, keys.get("what"),
                        keys.get("why"),
                        keys.get("remedy"),
                        keys.getOrDefault("source", "Practice of the trade; judgement."), keys.get("fires"),
                        keys.get("silent")));
            }
            keys.clear();
            limits.clear();
        }
    }
}
