package org.greenbead.core.account;

import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.greenbead.core.bench.Calibration;
import org.greenbead.core.board.Assumed;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Mark;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.book.BookRule;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.book.Vocabulary;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.record.Kept;
import org.greenbead.core.record.RecordType;
import org.greenbead.core.record.RecordTypes;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.greenbead.core.route.School;
import org.greenbead.core.route.Schools;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.RunPlan;

/**
 * Where the facts of every rule can come from when a job is worked: found by asking the code that makes facts, with every tick, every
 * record and every way of working in turn, not out of a list that somebody keeps. A fact that nothing says but a person who types it by its
 * name reaches no rule.
 */
public final class Reach {
    /** How a rule is reached at best. */
    public enum Class {
        /** From board, bench, recipe, runs, meters, photos, times or arithmetic over records. */
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
    public record Rule(String id, Severity severity, Map<String, Set<Origin.Source>> sources, Class reached,
            String ofUnknown) {}

    /** What the photo check writes into the record of the balls. */
    private static final Set<String> BY_PHOTO = Set.of("balls.count", "balls.missing", "balls.bridged",
            "balls.spread_pct", "balls.coplanar_mm", "balls.verified");
    private static final Set<Origin.Source> NOBODY = Set.of(Origin.Source.TYPED);
    private static final Set<Origin.Source> BY_ITSELF = EnumSet.of(Origin.Source.MEASURED,
            Origin.Source.COMPUTED, Origin.Source.LEDGER);

    private final Map<String, Set<Origin.Source>> sources = new TreeMap<>();
    /** Facts that are a plain yes or no. */
    private final Set<String> yesNo = new TreeSet<>();

    /** A job as it may lie on a bench; its route and records do not matter. */
    public record Sample(RunPlan plan, Optional<Rehearsal> rehearsal) {}

    /** @param samples jobs whose boards show what boards can hold */
    public Reach(List<Sample> samples) {
        for (Sample sample : samples) {
            for (JobKind kind : JobKind.values()) {
                RunPlan plan = sample.plan();
                Job job = plan.job();
                Job bare = new Job(job.id(), job.title(), job.complaint(), job.customer(), job.board(),
                        job.target(), job.bench(),
                        Routes.shipped().beads(kind, Routes.recipes(plan.board().id(), job.target())),
                        Facts.none().with("job.kind=" + kind.key()));
                // A further chip of it: what the ledger says of a job's strands.
                List<Job> strand = List.of(bare.asStrandOf(bare.id()));
                from(JobFacts.known(bare, Optional.of(plan),
                        Optional.of(new Around(1, 1, new Practice(0, 0, 0, 10, 160), Optional.empty(),
                                java.util.Map.of(), strand)),
                        sample.rehearsal()));
                bare.beads().stream().flatMap(b -> b.checks().stream()).forEach(check -> {
                    for (Attest word : List.of(Attest.YES, Attest.NO)) {
                        from(JobFacts.known(bare.attest(check.id(), word), Optional.empty(),
                                Optional.empty()));
                    }
                });
                if (kind == JobKind.REVIVE) {
                    recipes(bare, plan);
                    second(bare, plan);
                    records(bare, plan);
                    ways(bare);
                }
            }
        }
        BY_PHOTO.forEach(p -> sources.computeIfAbsent(p, x -> EnumSet.noneOf(Origin.Source.class))
                .add(Origin.Source.MEASURED));
        for (String path : sources.keySet()) {
            Vocabulary.ofTheTrade().find(path.replace("[]", ""))
                    .filter(f -> f.kind() == Vocabulary.Kind.YES_NO).ifPresent(f -> yesNo.add(path));
        }
    }

    /** One recipe for lift and seat, its peak ended by a probe. */
    private void recipes(Job bare, RunPlan plan) {
        Recipe recipe = plan.recipe();
        for (ProbePlace probe : plan.bench().probes()) {
            for (int i = 0; i < recipe.stages().size(); i++) {
                if (recipe.stages().get(i).purpose() == Stage.Purpose.PEAK) {
                    recipe = recipe.with(i, recipe.stages().get(i)
                            .withEnd(new StageEnd.ProbeReaches(probe.name(), 225, 5)));
                }
            }
        }
        Job same = bare.withBeads(Routes.shipped().beads(JobKind.REVIVE,
                Map.of("lift", "one", "seat", "one", "form", "form", "shape", "shape")));
        from(JobFacts.known(same, Optional.of(new RunPlan(plan.task(), same, plan.bead(), plan.board(),
                plan.bench(), recipe)), Optional.empty()));
    }

    /** The board with what can be drawn on it. */
    private static Board drawn(RunPlan plan) {
        Chip target = plan.target();
        Board board = guessed(plan.board());
        return board
                .put(new Mark(board.freeName("SH"), Mark.Kind.SHIELD, target.side(), target.centreMm(),
                        target.sizeMm(), Optional.empty()))
                .put(new Mark(board.freeName("S"), Mark.Kind.SCREW, target.side(), target.centreMm(),
                        new Point(3, 3), Optional.empty()))
                .put(new Mark(board.freeName("ZX"), Mark.Kind.HANDS_OFF, target.side(),
                        new Point(board.sizeMm().xMm() / 2, board.sizeMm().yMm() / 2), board.sizeMm(),
                        Optional.empty()));
    }

    /** Nobody knows what anything on it is soldered with. */
    private static Board guessed(Board board) {
        Board guessed = board;
        for (Chip chip : board.chips()) {
            var assumed = new ArrayList<>(guessed.assumed());
            assumed.add(Assumed.alloyOf(chip.name()));
            guessed = guessed.put(chip, assumed);
        }
        return guessed;
    }

    /** Every record with all its fields, once with each word that a field allows. */
    private void records(Job bare, RunPlan plan) {
        for (RecordType type : RecordTypes.shipped().all()) {
            for (Map<String, Object> fields : variants(type)) {
                Job noted = bare
                        .with(new Kept(type.id() + "-1", type.id(), Instant.EPOCH, "", fields));
                from(JobFacts.known(noted, Optional.of(plan), Optional.empty()));
            }
        }
        from(JobFacts.known(bare, Optional.of(plan.with(drawn(plan))), Optional.empty()));
        Job heatedSince = bare
                .with(new Kept("tested-1", "tested", Instant.EPOCH, "",
                        Map.of("what", "it", "result", "pass")))
                .with(new Kept("run-1", "run", Instant.EPOCH.plusSeconds(60), "",
                        Map.of("bead", "seat_run", "kind", "seat", "outcome", "proven")));
        from(JobFacts.known(heatedSince, Optional.of(plan), Optional.empty()));
        // Things that only two records say together.
        Job mixed = bare.with(new Kept("plan-1", "plan", Instant.EPOCH, "", Map.of("diluent", "Sn42Bi58")))
                .with(new Kept("joint-1", "joint", Instant.EPOCH, "",
                        Map.of("site", bare.target(), "wick_passes", 1.0)))
                .with(new Kept("neighbour-1", "neighbour", Instant.EPOCH, "",
                        Map.of("id", "C1", "wetted", true)))
                .with(new Kept("run-1", "run", Instant.EPOCH, "",
                        Map.of("bead", "lift_run", "kind", "lift", "outcome", "proven", "end_c", 90.0)))
                .with(new Kept("tested-1", "tested", Instant.EPOCH.plusSeconds(60), "",
                        Map.of("what", "it", "result", "pass")))
                .with(new Kept("covering-1", "covering", Instant.EPOCH.plusSeconds(60), "",
                        Map.of("what", "mask", "done", "removed")))
                .with(new Kept("bake-1", "bake", Instant.EPOCH, "",
                        Map.of("what", "bake", "start", "2031-04-02 08:00", "end", "2031-04-03 08:00")))
                .with(new Kept("exposure-1", "exposure", Instant.EPOCH, "",
                        Map.of("part", bare.target(), "above_s", 60.0)))
                .with(new Kept("inspection-1", "inspection", Instant.EPOCH, "",
                        Map.of("gap_n_mm", 0.1, "gap_e_mm", 0.5, "gap_s_mm", 0.5, "gap_w_mm", 0.5,
                                "obstruction_check", true)))
                .with(new Kept("balls-1", "balls", Instant.EPOCH, "",
                        Map.of("count", 9.0, "faults", "B3 missing [net]", "photo", "x")))
                .with(new Kept("pads-1", "pads", Instant.EPOCH, "",
                        Map.of("faults", "B3 glue", "photo", "x")))
                .with(new Kept("plan-2", "run_note", Instant.EPOCH, "",
                        Map.of("deviation", "350 degrees, then 235 °C (400 °F)")));
        var told = new Calibration.Factor(1, 0.1, true);
        RunPlan calibrated = plan.with(plan.bench().with(List.of(
                new Calibration("run", plan.board().id(), 6, 28, told, told, told, told, 3, true))));
        from(JobFacts.known(mixed, Optional.of(calibrated), Optional.empty()));
    }

    /** A like chip of the job that was worked before. */
    private void second(Job bare, RunPlan plan) {
        Job other = new Job(bare.id() + "-2", bare.title(), bare.complaint(), bare.customer(),
                plan.board().id(),
                bare.target(), bare.bench(), bare.beads())
                .with(new Kept("run-1", "run", Instant.EPOCH, "", Map.of("bead", plan.bead(), "kind",
                        plan.task().name().toLowerCase(java.util.Locale.ROOT), "outcome", "proven",
                        "heater_c", 1.0)));
        from(JobFacts.known(bare, Optional.of(plan),
                Optional.of(
                        new Around(1, 0, Practice.ofAny(0), Optional.empty(), Map.of(), List.of(other)))));
    }

    private static List<Map<String, Object>> variants(RecordType type) {
        var all = new ArrayList<Map<String, Object>>();
        var plain = new LinkedHashMap<String, Object>();
        type.fields().forEach(i -> plain.put(i.name(), sample(i.name(), i.field())));
        all.add(plain);
        for (RecordType.Item item : type.fields()) {
            if (item.field().kind() == Vocabulary.Kind.WORD) {
                for (String word : item.field().words()) {
                    var other = new LinkedHashMap<>(plain);
                    other.put(item.name(), word);
                    all.add(other);
                }
            }
            if (item.field().kind() == Vocabulary.Kind.WORDS) {
                for (String word : item.field().words()) {
                    var other = new LinkedHashMap<>(plain);
                    other.put(item.name(), List.of(word));
                    all.add(other);
                }
            }
            if (item.field().kind() == Vocabulary.Kind.YES_NO) {
                var other = new LinkedHashMap<>(plain);
                other.put(item.name(), false);
                all.add(other);
            }
        }
        return all;
    }

    private static Object sample(String name, Vocabulary.Field field) {
        return switch (field.kind()) {
            // No room has a pressure of one kilopascal.
            case NUMBER -> name.equals("ambient_kpa") ? 100.0 : 1.0;
            case YES_NO -> true;
            case WORD -> field.words().getFirst();
            case WORDS -> field.words().isEmpty() ? List.of("x") : List.of(field.words().getFirst());
            // A figure, since some texts are read as one: a torque, a limit.
            case TEXT, ITEMS -> "1";
        };
    }

    private void ways(Job bare) {
        for (School school : Schools.shipped().all()) {
            for (School.Choice choice : school.choices()) {
                from(JobFacts.known(
                        bare.with(new Kept("school-1", "school", Instant.EPOCH, "",
                                Map.of("point", school.id(), "choice", choice.id()))),
                        Optional.empty(), Optional.empty()));
            }
        }
    }

    private void from(KnownFacts known) {
        known.origins().forEach((path, origin) -> {
            if (origin.source() != Origin.Source.TYPED) {
                sources.computeIfAbsent(path.replaceAll("\\.\\d+(\\.|$)", "[]$1"),
                        p -> EnumSet.noneOf(Origin.Source.class)).add(origin.source());
            }
        });
    }

    /** Every rule of a book. */
    public List<Rule> of(RuleBook book) {
        return book.rules().stream().map(rule -> {
            var facts = new LinkedHashMap<String, Set<Origin.Source>>();
            for (String path : book.inputs(rule)) {
                if (sources.keySet().stream().noneMatch(known -> known.startsWith(path + "[]"))) {
                    facts.put(path, sources.getOrDefault(path, NOBODY));
                }
            }
            // What a function of the trade walks by itself: the steps of the route.
            if (rule.when().contains("planned(") || rule.when().contains("before(")) {
                facts.put("plan.steps", sources.getOrDefault("plan.steps", NOBODY));
            }
            return new Rule(rule.id(), rule.severity(), facts, reached(facts), unknown(rule));
        }).toList();
    }

    private Class reached(Map<String, Set<Origin.Source>> facts) {
        if (facts.values().stream().anyMatch(NOBODY::equals)) {
            return Class.UNREACHABLE;
        }
        var asked = new TreeMap<>(facts);
        asked.values().removeIf(s -> s.stream().anyMatch(BY_ITSELF::contains));
        // The route and the kind of a job stand without anybody's word.
        asked.keySet().removeIf(p -> p.equals("plan.steps") || p.equals("job.type") || p.equals("job.kind"));
        if (asked.isEmpty()) {
            return Class.DERIVED;
        }
        if (asked.entrySet().stream()
                .anyMatch(
                        e -> e.getValue().contains(Origin.Source.RECORDED) && !yesNo.contains(e.getKey()))) {
            return Class.RECORDED;
        }
        return asked.values().stream()
                .anyMatch(s -> s.contains(Origin.Source.TICKED) || s.contains(Origin.Source.CHOSEN))
                        ? Class.TICKED
                        : Class.CONFESSED;
    }

    /** What its own word on it says; else whether it speaks where a fact is empty or not said to be so. */
    private static String unknown(BookRule rule) {
        if (rule.unknown().isPresent()) {
            return rule.unknown().get().kind().name().toLowerCase(Locale.ROOT);
        }
        boolean speaks = rule.when().replace("is not empty", "").matches(".*is empty.*|.*\\bnot [a-z(].*");
        return !speaks ? "silent" : rule.severity() == Severity.STOP ? "stop" : "ask";
    }
}
