package org.greenbead.core.book;

import java.time.Instant;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.record.Kept;
import org.greenbead.core.record.RecordFacts;
import org.greenbead.core.record.RecordType;
import org.greenbead.core.record.RecordTypes;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.greenbead.core.route.School;
import org.greenbead.core.route.Schools;

/**
 * Where the facts of every rule can come from when a job is worked: found by asking the code that makes facts, with every tick, every
 * record and every way of working in turn, not out of a list that somebody keeps. A fact that nothing says but a person who types it by its
 * name reaches no rule.
 */
public final class Reach {
    /** Where a fact can come from. */
    public enum Source {
        COMPUTED, MEASURED, RECORDED, TICKED, CHOSEN, TYPED
    }

    /** How a rule is reached at best. */
    public enum Class {
        /** From board, bench, recipe, meters, photos or arithmetic over records. */
        DERIVED,
        /** Needs a record of a thing: a number, a word, a name. */
        RECORDED,
        /** Needs a tick or a chosen way. */
        TICKED,
        /** Only a yes or no that says the mistake itself. */
        CONFESSED,
        /** Needs a fact that only typing gives. */
        UNREACHABLE
    }

    /**
     * One rule.
     *
     * @param sources  for each of its facts where it can come from
     * @param ofUnknown what it says while a fact is not known: stop, ask or silent
     */
    public record Rule(String id, Severity severity, Map<String, Set<Source>> sources, Class reached,
            String ofUnknown) {}

    /** What the photo check keeps of balls. */
    private static final List<String> BY_PHOTO = List.of("balls.count", "balls.missing", "balls.bridged",
            "balls.spread_pct", "balls.coplanar_mm", "balls.verified");
    private static final Set<Source> NOBODY = Set.of(Source.TYPED);

    private final Map<String, Set<Source>> sources = new TreeMap<>();
    /** Facts that are a plain yes or no. */
    private final Set<String> yesNo = new TreeSet<>();

    /** A job as it may lie on a bench; its route and records do not matter. */
    public record Sample(Job job, Board board, Bench bench, Recipe recipe) {}

    /** @param samples jobs whose boards show what boards can hold */
    public Reach(List<Sample> samples) {
        for (Sample plan : samples) {
            for (JobKind kind : JobKind.values()) {
                Job job = plan.job().withBeads(Routes.shipped().beads(kind,
                        Routes.recipes(plan.board().id(), plan.job().target())))
                        .with(Facts.none().with("job.kind=" + kind.key()));
                Job bare = new Job(job.id(), job.title(), job.complaint(), job.customer(), job.board(),
                        job.target(), job.bench(), job.beads(), job.facts());
                Set<String> computed = paths(
                        JobFacts.of(bare, plan.board(), plan.bench(), plan.recipe()));
                computed.forEach(p -> from(p, Source.COMPUTED));
                bare.beads().stream().flatMap(b -> b.checks().stream()).forEach(check -> {
                    Set<String> ticked = paths(JobFacts.of(bare.attest(check.id(), Attest.YES), plan.board(),
                            plan.bench(), plan.recipe()));
                    ticked.removeAll(computed);
                    ticked.forEach(p -> {
                        from(p, Source.TICKED);
                        yesNo.add(p);
                    });
                });
            }
        }
        records();
        for (School school : Schools.shipped().all()) {
            for (School.Choice choice : school.choices()) {
                paths(Facts.none().with(choice.facts())).forEach(p -> from(p, Source.CHOSEN));
            }
        }
        BY_PHOTO.forEach(p -> from(p, Source.MEASURED));
    }

    /** Every field of every record says its own fact; what several of them say together is arithmetic. */
    private void records() {
        for (RecordType type : RecordTypes.shipped().all()) {
            String id = type.id();
            var fields = new LinkedHashMap<String, Object>();
            var own = new TreeSet<String>();
            for (RecordType.Item item : type.fields()) {
                fields.put(item.name(), sample(item.field()));
                item.fact().ifPresent(f -> {
                    own.add(f);
                    if (item.field().kind() == Vocabulary.Kind.YES_NO) {
                        yesNo.add(f);
                    }
                });
            }
            Facts said = RecordFacts.over(Facts.none(),
                    List.of(new Kept(id + "-1", id, Instant.EPOCH, "", fields)));
            for (String path : paths(said)) {
                from(path, own.contains(path.replace("[]", "")) ? Source.RECORDED : Source.COMPUTED);
            }
        }
    }

    private static Object sample(Vocabulary.Field field) {
        return switch (field.kind()) {
            case NUMBER -> 1.0;
            case YES_NO -> true;
            case WORD -> field.words().getFirst();
            case WORDS -> field.words().isEmpty() ? List.of("x") : List.of(field.words().getFirst());
            case TEXT, ITEMS -> "x";
        };
    }

    private void from(String path, Source source) {
        sources.computeIfAbsent(path, p -> EnumSet.noneOf(Source.class)).add(source);
    }

    /** Every path that holds something: {@code "chip.pads"}, {@code "plan.stages[].kind"}. */
    private static Set<String> paths(Facts facts) {
        var found = new TreeSet<String>();
        facts.root().forEach((entity, value) -> walk(entity, value, found));
        return found;
    }

    private static void walk(String path, Object value, Set<String> found) {
        switch (value) {
            case Map<?, ?> map -> map.forEach((k, v) -> walk(path + "." + k, v, found));
            case List<?> list -> {
                found.add(path);
                list.stream().filter(Map.class::isInstance).forEach(i -> walk(path + "[]", i, found));
            }
            case null -> {
            }
            default -> found.add(path);
        }
    }

    /** Every rule of a book. */
    public List<Rule> of(RuleBook book) {
        return book.rules().stream().map(rule -> {
            var facts = new LinkedHashMap<String, Set<Source>>();
            for (String path : book.inputs(rule)) {
                facts.put(path, sources.getOrDefault(path, NOBODY));
            }
            // What a function of the trade walks by itself: the steps of the route.
            if (rule.when().contains("planned(")) {
                facts.put("plan.steps", sources.getOrDefault("plan.steps", NOBODY));
            }
            return new Rule(rule.id(), rule.severity(), facts, reached(facts), unknown(rule));
        }).toList();
    }

    private Class reached(Map<String, Set<Source>> facts) {
        if (facts.values().stream().anyMatch(NOBODY::equals)) {
            return Class.UNREACHABLE;
        }
        if (facts.values().stream()
                .allMatch(s -> s.contains(Source.COMPUTED) || s.contains(Source.MEASURED))) {
            return Class.DERIVED;
        }
        var asked = new TreeMap<>(facts);
        asked.values().removeIf(s -> s.contains(Source.COMPUTED) || s.contains(Source.MEASURED));
        if (asked.entrySet().stream()
                .anyMatch(e -> e.getValue().contains(Source.RECORDED) && !yesNo.contains(e.getKey()))) {
            return Class.RECORDED;
        }
        return asked.values().stream().anyMatch(s -> s.contains(Source.TICKED) || s.contains(Source.CHOSEN))
                ? Class.TICKED
                : Class.CONFESSED;
    }

    /** A condition that fires on what is empty, or on what is not said to be so, speaks while nothing is known. */
    private static String unknown(BookRule rule) {
        boolean speaks = rule.when().matches(".*(?<! not) empty.*|.*\\bnot [a-z(].*")
                && rule.when().replace("is not empty", "").matches(".*is empty.*|.*\\bnot [a-z(].*");
        return !speaks ? "silent" : rule.severity() == Severity.STOP ? "stop" : "ask";
    }
}
