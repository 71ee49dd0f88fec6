package org.greenbead.core.book;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.LiftSide;
import org.greenbead.core.board.NozzleChoice;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProtectedPart;
import org.greenbead.core.board.Side;
import org.greenbead.core.chip.Orientation;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.record.RecordFacts;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;

/** The facts that a job's route, board, bench and recipe say by themselves; what a person has noted outranks them. */
public final class JobFacts {
    private JobFacts() {
    }

    /** What the route's attestations say. */
    public static Facts of(Job job) {
        var said = new LinkedHashMap<String, Object>();
        return finished(said, job);
    }

    /** With the route's attestations, then the records, then what a person has noted, the last outranking the first. */
    private static Facts finished(Map<String, Object> said, Job job) {
        put(said, "job", "id", job.id());
        attested(said, job, "extraction_on", "ppe", "extraction");
        attested(said, job, "gloves_on", "ppe", "gloves");
        attested(said, job, "esd_on", "ppe", "esd");
        attested(said, job, "zero_set", "mill", "zero_set");
        attested(said, job, "stop_depth_set", "mill", "stop_depth");
        attested(said, job, "dust_control_on", "mill", "dust_control");
        attested(said, job, "dust_control_on", "ppe", "dust_control");
        attested(said, job, "donor_tested", "donor", "tested");
        attested(said, job, "donor_fits", "donor", "matches");
        attested(said, job, "memory_pass_done", "test", "memory_pass");
        if (job.attested("data_copied") != Attest.UNKNOWN) {
            put(said, "job", "backup",
                    job.attested("data_copied") == Attest.NO
                            ? "none"
                            : job.attested("copy_verified") == Attest.YES ? "verified" : "attested");
        }
        job.facts().at("job.kind").map(String::valueOf).map(k -> k.toUpperCase(Locale.ROOT))
                .ifPresent(kind -> ofKind(said, JobKind.valueOf(kind)));
        Facts all = over(RecordFacts.over(new Facts(said), job.records()), job.facts());
        // The steps of the kind's route, where nobody has written others.
        if (all.at("plan.steps").isEmpty() && all.at("job.kind").isPresent()) {
            JobKind kind = JobKind.valueOf(String.valueOf(all.at("job.kind").get()).toUpperCase(Locale.ROOT));
            var steps = new LinkedHashMap<String, Object>();
            put(steps, "plan", "steps", List.<Object>copyOf(Routes.shipped().steps(kind, job.beads())));
            all = over(new Facts(steps), all);
        }
        return all;
    }

    /** What a kind of job is in the words of the rules. */
    private static void ofKind(Map<String, Object> said, JobKind kind) {
        put(said, "job", "type", switch (kind) {
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
        if (kind == JobKind.MILLED) {
            put(said, "plan", "lift_method", "mill");
        }
        if (kind == JobKind.MEMORY) {
            put(said, "job", "touches_memory", true);
        }
        if (kind == JobKind.TRANSPLANT || kind == JobKind.FLEX) {
            put(said, "job", "goal", "data");
        }
    }

    /** Every alloy that the work meets, with what it holds and where it melts. */
    private static List<Object> alloys(Job job, Chip target) {
        var names = new java.util.LinkedHashSet<String>();
        names.add(target.joint().alloy().name());
        job.facts().at("plan.ball_alloy").map(String::valueOf).ifPresent(names::add);
        for (String type : List.of("plan", "lot", "joint")) {
            for (org.greenbead.core.record.Kept record : job.records(type)) {
                for (String field : List.of("ball_alloy", "diluent", "alloy")) {
                    if (org.greenbead.core.record.RecordTypes.shipped().require(type).item(field).isPresent()
                            && !record.text(field).isEmpty()) {
                        names.add(record.text(field));
                    }
                }
            }
        }
        var facts = new ArrayList<Object>();
        for (String name : names) {
            org.greenbead.core.alloy.MeltingTable.standard().find(name).ifPresent(row -> {
                var fact = new LinkedHashMap<String, Object>();
                fact.put("id", row.name());
                fact.put("solidus_c", row.solidusC());
                fact.put("liquidus_c", row.liquidusC());
                fact.put("has_pb", row.made().pct("Pb") > 0);
                fact.put("has_bi", row.made().pct("Bi") > 0);
                facts.add(fact);
            });
        }
        return facts;
    }

    /** The same with board, bench and recipe. */
    public static Facts of(Job job, Board board, Bench bench, Recipe recipe) {
        var said = new LinkedHashMap<String, Object>();
        Chip target = board.requireChip(job.target());
        put(said, "board", "id", board.id());
        put(said, "board", "stacked", target.layers().stream()
                .filter(l -> l instanceof org.greenbead.core.board.Layer.Joint).count() > 1);
        put(said, "board", "factory_alloy", target.joint().alloy().name());
        put(said, "chip", "id", target.name());
        put(said, "chip", "pn", target.part());
        put(said, "chip", "side_mm", Math.max(target.sizeMm().xMm(), target.sizeMm().yMm()));
        put(said, "chip", "thickness_mm", target.bodyMm());
        put(said, "chip", "volume_mm3", target.bodyMm() * target.sizeMm().xMm() * target.sizeMm().yMm());
        put(said, "chip", "pitch_mm", target.joint().pitchMm());
        put(said, "chip", "body_limit_c", target.bodyLimitC());
        put(said, "probes", "count", (double) bench.probes().size());
        put(said, "station", "id", bench.air().name());
        put(said, "station", "flow_scale", switch (bench.air().dial().scale()) {
            case LITRES -> "litres";
            case PERCENT -> "percent";
            case STEPS -> "level";
        });
        said.put("alloys", alloys(job, target));
        said.put("joints", board.chips().stream().map(JobFacts::joint).toList());
        said.put("parts", parts(board, target));
        put(said, "plan", "lift_side_clear_mm", liftClearMm(job, board, target));
        put(said, "plan", "stages", recipe.stages().stream().filter(s -> s.purpose() != Stage.Purpose.COOL)
                .map(s -> stage(s, bench)).toList());
        put(said, "plan", "bottom", recipe.stages().stream().anyMatch(s -> s.heaterC().isPresent())
                ? bench.heater().contact() ? "plate" : "ir"
                : "none");
        return finished(said, job);
    }

    private static void put(Map<String, Object> said, String entity, String field, Object value) {
        @SuppressWarnings("unchecked")
        var fields = (Map<String, Object>) said.computeIfAbsent(entity,
                e -> new LinkedHashMap<String, Object>());
        fields.put(field, value);
    }

    private static void attested(Map<String, Object> said, Job job, String check, String entity,
            String field) {
        Attest word = job.attested(check);
        if (word != Attest.UNKNOWN) {
            put(said, entity, field, word == Attest.YES);
        }
    }

    private static Map<String, Object> joint(Chip chip) {
        Alloy alloy = chip.joint().alloy();
        var joint = new LinkedHashMap<String, Object>();
        joint.put("site", chip.name());
        joint.put("side", chip.side() == Side.TOP ? "top" : "underside");
        joint.put("alloy", alloy.name());
        joint.put("solidus_c", alloy.solidusC());
        joint.put("liquidus_c", alloy.liquidusC());
        return joint;
    }

    /** Free way of the tool on the side that was chosen, else on the freest, mm. */
    private static double liftClearMm(Job job, Board board, Chip target) {
        List<LiftSide.Way> ways = LiftSide.of(board, target, LiftSide.TOOL_WIDTH_MM, LiftSide.TOOL_THICK_MM);
        String chosen = job.records("plan").stream().map(r -> r.text("lift_side")).filter(s -> !s.isEmpty())
                .findFirst().orElse("");
        return ways.stream().filter(w -> w.side().name().equalsIgnoreCase(chosen)).findFirst()
                .orElse(ways.getFirst()).clearMm();
    }

    private static List<Object> parts(Board board, Chip target) {
        List<String> inAir = NozzleChoice.of(board, target).inAir();
        var parts = new ArrayList<Object>();
        for (ProtectedPart part : board.parts()) {
            var fact = new LinkedHashMap<String, Object>();
            fact.put("id", part.name());
            fact.put("distance_mm", gap(part.centreMm(), part.sizeMm(), target.centreMm(), target.sizeMm()));
            fact.put("body_limit_c", part.limitC());
            fact.put("in_nozzle", inAir.contains(part.name()));
            if (part.holds().contains(ProtectedPart.Holds.DATA)) {
                fact.put("data_critical", true);
            }
            if (part.holds().contains(ProtectedPart.Holds.CELL)) {
                fact.put("kind", "cell");
            }
            if (part.holds().contains(ProtectedPart.Holds.UNDERFILL)) {
                fact.put("underfilled", true);
            }
            parts.add(fact);
        }
        return parts;
    }

    /** Free space between two upright rectangles, mm. */
    private static double gap(Point a, Point aSize, Point b, Point bSize) {
        double x = Math.max(0, Math.abs(a.xMm() - b.xMm()) - (aSize.xMm() + bSize.xMm()) / 2);
        double y = Math.max(0, Math.abs(a.yMm() - b.yMm()) - (aSize.yMm() + bSize.yMm()) / 2);
        return Math.hypot(x, y);
    }

    private static Map<String, Object> stage(Stage stage, Bench bench) {
        var fact = new LinkedHashMap<String, Object>();
        fact.put("id", stage.name());
        fact.put("kind", switch (stage.purpose()) {
            case DRY_OUT -> "bake";
            case PEAK -> "peak";
            default -> "soak";
        });
        stage.jointGoalC().ifPresent(c -> {
            fact.put("target_c", c);
            fact.put("target_body", "joint");
        });
        stage.air().ifPresent(air -> blown(fact, air, bench));
        if (stage.end() instanceof StageEnd.AfterTime after) {
            fact.put("min_s", after.seconds());
        }
        return fact;
    }

    private static void blown(Map<String, Object> fact, AirSetting air, Bench bench) {
        fact.put("air_c", air.setC());
        fact.put("flow", air.flowLpm());
        fact.put("station_id", bench.air().name());
    }

    /** Entity by entity and field by field; a list that a person wrote stands for the whole list. */
    static Facts over(Facts below, Facts above) {
        var all = new LinkedHashMap<String, Object>(below.root());
        above.root().forEach((entity, value) -> {
            if (value instanceof Map<?, ?> fields && all.get(entity) instanceof Map<?, ?> under) {
                var both = new LinkedHashMap<String, Object>();
                under.forEach((k, v) -> both.put(String.valueOf(k), v));
                fields.forEach((k, v) -> both.put(String.valueOf(k), v));
                all.put(entity, both);
            } else {
                all.put(entity, value);
            }
        });
        return new Facts(all);
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
