package org.greenbead.core.account;

import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.Phase;
import org.greenbead.core.chip.Orientation;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.record.Kept;
import org.greenbead.core.record.RecordTypes;
import org.greenbead.core.record.Tested;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Kit;
import org.greenbead.core.route.Routes;
import org.greenbead.core.route.Strands;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.RunPlan;

/**
 * Everything that is known of a job: board, bench and recipe, then the kind, ticks and ways, then runs and records with what they say together,
 * and over all of it what a person typed by name. The later outranks the earlier; each fact keeps its origin.
 */
public final class JobFacts {
    private JobFacts() {
    }

    /** What the job says without its board. */
    public static Facts of(Job job) {
        return known(job, Optional.empty(), Optional.empty()).facts();
    }

    /** The same with board, bench and recipe. */
    public static Facts of(Job job, Board board, Bench bench, Recipe recipe) {
        return gather(job, tree -> BoardFacts.say(tree, job, board, bench, recipe),
                Optional.of(board.requireChip(job.target()).joint().alloy().name()), Optional.empty(), true)
                .facts();
    }

    /** With where each fact comes from, and what the ledger says beside the job. */
    public static KnownFacts known(Job job, Optional<RunPlan> plan, Optional<Around> around) {
        return known(job, plan, around, Optional.empty());
    }

    /** The same with what the rehearsal of the next heat says. */
    public static KnownFacts known(Job job, Optional<RunPlan> plan, Optional<Around> around,
            Optional<Rehearsal> rehearsal) {
        return gather(job, said(job, plan, rehearsal, around), alloy(job, plan), around, true);
    }

    /** What records, runs, photos and arithmetic show, without anybody's tick and without anything typed by name. */
    public static KnownFacts evidence(Job job, Optional<RunPlan> plan, Optional<Around> around) {
        return gather(job, said(job, plan, Optional.empty(), around), alloy(job, plan), around, false);
    }

    /**
     * How far the work is: the phase of the bead in hand, or of the latest thing on record. A reading after the work is of the proof, whoever
     * forgot to tick what lies before it.
     */
    public static Phase phase(Job job) {
        Phase latest = job.inHand().map(Bead::phase).orElse(Phase.CLOSE);
        for (Kept record : job.records()) {
            Phase of = record.type().equals("run")
                    ? Routes.shipped().phase(record.text("bead")).orElse(Phase.INTAKE)
                    : record.type().equals("rail") && record.noted("after_ohm").isPresent()
                            ? Phase.PROVE
                            : earliest(job, RecordTypes.shipped().require(record.type()).beads());
            latest = of.compareTo(latest) > 0 ? of : latest;
        }
        // What is proved and closed is so for the whole job, and is asked there.
        return job.strandOf().isPresent() && latest == Phase.CLOSE ? Phase.PROVE : latest;
    }

    /** The earliest phase of these beads in the job's own route, else in any. */
    private static Phase earliest(Job job, List<String> beads) {
        return beads.stream().flatMap(b -> job.bead(b).map(Bead::phase).stream())
                .min(Comparator.naturalOrder())
                .or(() -> beads.stream().flatMap(b -> Routes.shipped().phase(b).stream())
                        .min(Comparator.naturalOrder()))
                .orElse(Phase.INTAKE);
    }

    private interface Said {
        void say(FactTree tree);
    }

    private static Said said(Job job, Optional<RunPlan> plan, Optional<Rehearsal> rehearsal,
            Optional<Around> around) {
        return tree -> plan.ifPresent(p -> {
            BoardFacts.say(tree, job, p.board(), p.bench(), p.recipe());
            rehearsal.ifPresent(r -> Rehearsed.say(tree, p, r));
            around.ifPresent(a -> SecondChip.say(tree, job, p, a.family()));
        });
    }

    private static Optional<String> alloy(Job job, Optional<RunPlan> plan) {
        return plan.map(p -> p.board().requireChip(job.target()).joint().alloy().name());
    }

    private static KnownFacts gather(Job own, Said board, Optional<String> factory, Optional<Around> around,
            boolean ticks) {
        Job job = around.map(a -> Strands.told(own, a.family())).orElse(own);
        var tree = new FactTree();
        board.say(tree);
        around.ifPresent(a -> around(tree, own, a));
        tree.from(Origin.Source.LEDGER, "job " + job.id());
        tree.put("job.id", job.id());
        // How far this strand is, whatever has been read of the unit since.
        tree.put("job.phase", (double) phase(own).ordinal());
        kind(job).ifPresent(k -> ofKind(tree, job, k));
        if (ticks) {
            CheckFacts.shipped().say(tree, job);
            backup(tree, job);
            ways(tree, job);
        }
        List<Instant> elsewhere = around.map(a -> Strands.heatedElsewhere(own, a.family()))
                .orElse(List.of());
        List<Kept> standing = Tested.standing(job.records(), elsewhere);
        RecordFacts.say(tree, standing);
        overtaken(tree, Tested.overtaken(job.records(), elsewhere));
        practice(tree, job, around);
        Counted.say(tree, RailReferences.filled(standing, around.map(Around::rails).orElse(Map.of())));
        onTarget(tree, job);
        Materials.say(tree, job.records(), factory, job.target());
        Times.say(tree, job.records());
        Spoken.say(tree, job.records());
        if (ticks) {
            tree.over(job.facts());
        }
        kind(job).ifPresent(k -> {
            tree.from(Origin.Source.COMPUTED, "kind of the job");
            tree.put("job.kind", k.key());
        });
        if (tree.at("plan.steps").isEmpty() && kind(job).isPresent()) {
            tree.from(Origin.Source.COMPUTED, "steps in the order in which they were worked");
            tree.put("plan.steps",
                    List.<Object>copyOf(Routes.shipped().steps(kind(job).get(), Account.worked(job))));
        }
        return tree.known();
    }

    /** Tests that the last heat on the board made void, where nothing of the kind was tested since. */
    private static void overtaken(FactTree tree, List<Kept> old) {
        if (!old.isEmpty()) {
            tree.from(Origin.Source.COMPUTED,
                    old.size() == 1 ? "record " + old.getFirst().id() : "records of tests and of runs");
            tree.putIfAbsent("test.before_heat", (double) old.size());
            tree.putIfAbsent("test.before_heat_what",
                    String.join(", ", old.stream().map(t -> t.text("what")).toList()));
        }
    }

    /** Heats of the ledger that were like this job, and what was practised for it and went well. */
    private static void practice(FactTree tree, Job job, Optional<Around> around) {
        around.map(Around::practice).ifPresent(p -> {
            tree.from(Origin.Source.LEDGER, "proven heats of the ledger");
            tree.put("tech.practice", (double) p.hands());
            tree.put("tech.practice_simulated", (double) p.simulated());
            tree.put("tech.class_mm", Math.rint(p.fromMm() * 10) / 10);
            tree.put("tech.class_c", Math.rint(p.fromC()));
        });
        long noted = job.records("practice").stream().filter(r -> r.text("result").equals("good")).count();
        if (noted > 0) {
            double so = tree.number("tech.practice");
            tree.from(Origin.Source.RECORDED, "practice noted in this job");
            tree.put("tech.practice", (Double.isFinite(so) ? so : 0) + noted);
        }
    }

    /** What a job is for; empty where that is not noted. */
    public static Optional<JobKind> kind(Job job) {
        return job.facts().at("job.kind").map(String::valueOf)
                .map(k -> JobKind.valueOf(k.toUpperCase(Locale.ROOT)));
    }

    private static void around(FactTree tree, Job job, Around around) {
        List<Job> open = around.openStrands(job);
        if (!around.family().isEmpty() && job.strandOf().isEmpty()) {
            tree.from(Origin.Source.LEDGER, "strands of the job");
            tree.put("job.strands_open", (double) open.size());
            tree.put("job.strand_open", open.isEmpty() ? null : open.getFirst().id());
        }
        tree.from(Origin.Source.LEDGER, "the ledger");
        tree.put("job.open_same_client", (double) around.openOfCustomer());
        if (around.lookAlikes() > 0) {
            tree.put("chip.look_alikes", (double) around.lookAlikes());
        }
        around.chip().ifPresent(chip -> {
            tree.from(Origin.Source.LEDGER, "chip " + chip.label());
            tree.put("chip.label", chip.label());
            tree.put("chip.origin", chip.origin().name().toLowerCase(Locale.ROOT));
            tree.put("chip.health", chip.health().name().toLowerCase(Locale.ROOT));
            tree.put("chip.health_test", chip.proof().isBlank() ? null : chip.proof());
            tree.put("chip.ball_alloy", chip.alloy().isBlank() ? null : chip.alloy());
            tree.put("chip.exposure_count", (double) chip.melts());
            if (chip.pads() > 0) {
                tree.put("chip.pads", (double) chip.pads());
            }
        });
    }

    /** What a kind of job is in the words of the rules. */
    private static void ofKind(FactTree tree, Job job, JobKind kind) {
        tree.from(Origin.Source.COMPUTED, "kind of the job");
        tree.put("job.kind", kind.key());
        tree.put("job.type", switch (kind) {
            case REVIVE, PACKAGE, LOOSE -> "reball";
            case REPLACE -> "replace";
            case REFLOW -> "reflow_only";
            case TRANSPLANT -> "transplant";
            case MEMORY, STORAGE -> "upgrade";
            case BOARDS -> "join";
            case MILLED -> "mill";
            case FLEX -> "flex";
            case HARVEST -> "harvest";
        });
        tree.put("chip.keep", kind.keepsChip());
        if (kind == JobKind.MILLED) {
            tree.put("plan.lift_method", "mill");
        }
        if (kind == JobKind.MEMORY) {
            tree.put("job.touches_memory", true);
        }
        if (kind == JobKind.TRANSPLANT || kind == JobKind.FLEX) {
            tree.put("job.goal", "data");
        }
        if (job.asks("data_copied")) {
            tree.put("plan.copy_required", true);
        }
    }

    /** Both ticks by hand say a copy that was read back; of irreplaceable data only the record of it does. */
    private static void backup(FactTree tree, Job job) {
        boolean said = job.beads().stream().flatMap(b -> b.checks().stream())
                .filter(c -> List.of("data_copied", "copy_verified").contains(c.id()))
                .filter(c -> c.state() == Attest.YES && !c.tickedItself()).count() == 2;
        if (said && !job.holdsIrreplaceableData()) {
            tree.from(Origin.Source.TICKED, "ticks data_copied and copy_verified");
            tree.put("job.backup", "verified");
        }
    }

    /** The ways that were chosen say their facts where nobody typed them. */
    private static void ways(FactTree tree, Job job) {
        for (var record : job.records("school")) {
            org.greenbead.core.route.Schools.shipped().find(record.text("point"))
                    .flatMap(s -> s.choices().stream().filter(c -> c.id().equals(record.text("choice")))
                            .findFirst())
                    .ifPresent(choice -> {
                        tree.from(Origin.Source.CHOSEN, "way " + record.text("point"));
                        Facts.none().with(choice.facts()).root().forEach((entity, fields) -> {
                            if (fields instanceof java.util.Map<?, ?> map) {
                                map.forEach((f, v) -> tree.put(entity + "." + f, v));
                            }
                        });
                    });
        }
    }

    /** What counts for the chip that is worked on. */
    private static void onTarget(FactTree tree, Job job) {
        var heats = job.records("exposure").stream().filter(e -> e.text("part").equals(job.target()))
                .toList();
        if (!heats.isEmpty()) {
            tree.from(Origin.Source.COMPUTED, "exposures of " + job.target());
            // The chip's own life in the ledger may be longer than this job.
            tree.put("chip.exposure_count", Math.max(heats.size(),
                    Double.isNaN(tree.number("chip.exposure_count"))
                            ? 0
                            : tree.number("chip.exposure_count")));
            tree.put("chip.exposure_tal_s", heats.stream().mapToDouble(e -> e.number("above_s"))
                    .filter(Double::isFinite).sum());
        }
        if (!job.records("kit").isEmpty()) {
            tree.from(Origin.Source.COMPUTED, "kit that was put out");
            tree.put("plan.kit_missing", (double) Kit.shipped().missing(job).size());
        }
        var joints = job.records("joint");
        if (!joints.isEmpty()) {
            tree.from(Origin.Source.COMPUTED, "joint records");
            tree.put("board.joints_noted", (double) joints.size());
        }
        tree.from(Origin.Source.COMPUTED, "chip record");
        if (!tree.text("chip.vendor").isEmpty() && !tree.text("chip.vendor_before").isEmpty()) {
            tree.put("chip.vendor_changed",
                    !tree.text("chip.vendor").equalsIgnoreCase(tree.text("chip.vendor_before")));
        }
        job.records("chip").stream().map(c -> c.text("part")).filter(p -> !p.isEmpty()).findFirst()
                .ifPresent(p -> tree.put("chip.pn_read", p));
        var faces = job.records("face");
        if (!faces.isEmpty()) {
            tree.from(Origin.Source.COMPUTED, "face records");
            tree.put("stack.faces", (double) faces.size());
            tree.put("stack.unlabelled",
                    (double) faces.stream().filter(f -> f.text("label").isEmpty()).count());
        }
        var fixture = job.records("fixture").stream().findFirst();
        fixture.ifPresent(f -> {
            tree.from(Origin.Source.COMPUTED, "record " + f.id());
            tree.put("board.underside_known", Double.isFinite(f.number("underside_max_mm"))
                    || tree.yes("board.underside_known"));
            tree.put("board.bow_pct", f.number("bow_mm") / tree.number("board.diagonal_mm") * 100);
        });
        if (job.records("inspection").stream().anyMatch(i -> Double.isFinite(i.number("gap_n_mm")))) {
            tree.from(Origin.Source.COMPUTED, "record inspection-1");
            tree.put("seat.gaps_seen", true);
        }
        if (tree.text("intake.contamination").matches(".*(liquid|corrosion).*")) {
            tree.from(Origin.Source.COMPUTED, "what the intake found on it");
            tree.putIfAbsent("board.corrosion_history", true);
        }
        job.records("condition").stream().filter(c -> c.fields().keySet().stream()
                .anyMatch(f -> !List.of("seal", "missing_noted", "mask").contains(f))).findFirst()
                .ifPresent(c -> {
                    tree.from(Origin.Source.COMPUTED, "record " + c.id());
                    tree.putIfAbsent("intake.condition", "noted");
                });
    }

    /** The job with the checks ticked that its records show by themselves. What its board shows is not asked, so nothing is taken back, and no gate is opened. */
    public static Job settled(Job job) {
        return Gates.ticked(job, evidence(job, Optional.empty(), Optional.empty()), false);
    }

    /** Corner of the mark as one looks at the chip on its board; north-west where nobody noted another. */
    public static Orientation.Corner mark(Job job) {
        Facts facts = of(job);
        Orientation.View view = facts.at("orientation.view").filter("ball"::equals)
                .map(v -> Orientation.View.BALL).orElse(Orientation.View.TOP);
        return facts.at("orientation.corner").map(String::valueOf).flatMap(Orientation.Corner::read)
                .map(c -> Orientation.seen(c, view, Orientation.View.TOP)).orElse(Orientation.Corner.NW);
    }
}
