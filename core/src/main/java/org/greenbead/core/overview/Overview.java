package org.greenbead.core.overview;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.alloy.AlloyChoice;
import org.greenbead.core.alloy.Dilution;
import org.greenbead.core.alloy.MeltingTable;
import org.greenbead.core.alloy.MixShares;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.LiftSide;
import org.greenbead.core.board.NozzleChoice;
import org.greenbead.core.book.Facts;
import org.greenbead.core.moisture.Moisture;
import org.greenbead.core.recipe.ShieldChoice;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.Kit;
import org.greenbead.core.run.RunPlan;

/**
 * What the plan of a job comes to.
 *
 * @param ceiling  the lowest solidus on the board, and what each later heat leaves below it
 * @param mix      what the balls become on their pads
 * @param alloys   choices for the balls, the best first
 * @param moisture how long the chip may lie open, and how it is dried
 * @param lift     sides for the tool, the freest first
 * @param nozzle   opening, and what then stands in the air
 * @param shields  parts to keep the air from, with the foil
 * @param kit      what is still to be put out
 */
public record Overview(Ceiling ceiling, Mixed mix, List<AlloyChoice.Option> alloys, Dry moisture,
        List<LiftSide.Way> lift, NozzleChoice nozzle, List<ShieldChoice> shields, List<String> kit) {
    /** @param lowestC NaN when no joint is known */
    public record Ceiling(double lowestC, String site, List<Heat> heats) {}

    /** A planned heat of the whole board. */
    public record Heat(String what, double celsius, double marginK, Moisture.Verdict verdict) {}

    /** @param wickPasses as noted; 0 = not noted, one is assumed */
    public record Mixed(String factory, String diluent, String ball, int wickPasses, double leftPart,
            double leftAllowed, Dilution.Mix mix) {}

    /** @param leftH NaN when the level is not noted */
    public record Dry(String level, double openH, double leftH, List<Moisture.Bake> bakes) {}

    public static Overview of(Job job, RunPlan plan) {
        Facts facts = JobFacts.of(job, plan.board(), plan.bench(), plan.recipe());
        Board board = plan.board();
        Chip target = plan.target();
        Ceiling ceiling = ceiling(facts);
        Mixed mix = mix(job, facts, target);
        AlloyChoice.Duty duty = switch (text(job, "duty", "portable")) {
            case "fixed" -> AlloyChoice.Duty.FIXED;
            case "scrap" -> AlloyChoice.Duty.SCRAP;
            default -> AlloyChoice.Duty.PORTABLE;
        };
        boolean lead = facts.at("job.consent").filter(c -> c instanceof List<?> l && l.contains("lead_alloy"))
                .isPresent();
        // What stays on the pads is the film; the ball that is chosen comes on top of it.
        List<AlloyChoice.Option> alloys = AlloyChoice.of(mix.factory(), duty, target.bodyLimitC(),
                film(mix, "Pb"), film(mix, "Bi"), lowestBeside(facts, target.name()), lead, hands(facts));
        return new Overview(ceiling, mix, alloys, dry(facts, target, ceiling.lowestC()),
                LiftSide.of(board, target, LiftSide.TOOL_WIDTH_MM, LiftSide.TOOL_THICK_MM),
                NozzleChoice.of(board, target), ShieldChoice.of(board, target),
                Kit.shipped().missing(job));
    }

    private static AlloyChoice.Hands hands(Facts facts) {
        return new AlloyChoice.Hands(
                facts.at("tech.practice").filter(Double.class::isInstance).map(d -> ((Double) d).intValue())
                        .orElse(0),
                facts.at("chip.pads").filter(Double.class::isInstance).map(d -> ((Double) d).intValue())
                        .orElse(0));
    }

    private static double film(Mixed mix, String element) {
        double f = MeltingTable.standard().require(mix.factory()).made().pct(element);
        double a = MeltingTable.standard().find(mix.diluent()).map(r -> r.made().pct(element)).orElse(0.0);
        double added = MeltingTable.standard().find(mix.diluent()).isPresent() ? MixShares.ADDED : 0;
        double film = mix.leftPart() * (f + added * a);
        return film / (mix.leftPart() * (1 + added) + MixShares.BALL);
    }

    private static String text(Job job, String field, String otherwise) {
        return job.records("plan").stream().map(r -> r.text(field)).filter(t -> !t.isEmpty()).findFirst()
                .orElse(otherwise);
    }

    /** Lowest solidus of the joints other than the chip's own, °C; NaN where none is known. */
    private static double lowestBeside(Facts facts, String target) {
        double lowest = Double.NaN;
        for (Object one : facts.at("joints").filter(List.class::isInstance).map(l -> (List<?>) l)
                .orElse(List.of())) {
            if (one instanceof Map<?, ?> joint && !target.equals(joint.get("site"))) {
                double here = solidus(joint);
                lowest = Double.isFinite(here) && !(here >= lowest) ? here : lowest;
            }
        }
        return lowest;
    }

    private static Ceiling ceiling(Facts facts) {
        double lowest = Double.NaN;
        String site = "";
        List<?> joints = facts.at("joints").filter(List.class::isInstance).map(List.class::cast)
                .orElse(List.of());
        for (Object one : joints) {
            if (one instanceof Map<?, ?> joint) {
                double here = solidus(joint);
                if (Double.isFinite(here) && !(here >= lowest)) {
                    lowest = here;
                    site = String.valueOf(joint.get("site"));
                }
            }
        }
        var heats = new ArrayList<Heat>();
        List<?> stages = facts.at("plan.stages").filter(List.class::isInstance).map(List.class::cast)
                .orElse(List.of());
        for (Object one : stages) {
            if (one instanceof Map<?, ?> stage && stage.get("target_c") instanceof Double c
                    && List.of("bake", "cure", "release_warm", "glue_soften", "opening")
                            .contains(String.valueOf(stage.get("kind")))
                    && Double.isFinite(lowest)) {
                heats.add(new Heat(String.valueOf(stage.get("id")), c, lowest - c, Moisture.heat(c, lowest)));
            }
        }
        return new Ceiling(lowest, site, List.copyOf(heats));
    }

    /** Where the first of a joint melts: its traces outrank what its label says. */
    private static double solidus(Map<?, ?> joint) {
        double bi = joint.get("bi_pct") instanceof Double d ? d : 0;
        double pb = joint.get("pb_pct") instanceof Double d ? d : 0;
        double said = joint.get("solidus_c") instanceof Double d
                ? d
                : joint.get("alloy") instanceof String a
                        ? MeltingTable.standard().find(a).map(MeltingTable.Row::solidusC).orElse(Double.NaN)
                        : Double.NaN;
        if (joint.get("alloy") instanceof String a) {
            double table = MeltingTable.standard().find(a).map(MeltingTable.Row::solidusC).orElse(Double.NaN);
            said = Double.isNaN(said) ? table : Double.isNaN(table) ? said : Math.min(said, table);
        }
        double traces = Dilution.tracesSolidusC(bi, pb);
        return Double.isNaN(traces) ? said : Double.isNaN(said) ? traces : Math.min(traces, said);
    }

    private static Mixed mix(Job job, Facts facts, Chip target) {
        MeltingTable table = MeltingTable.standard();
        String factory = target.joint().alloy().name();
        String diluent = text(job, "diluent", job.records("school").stream()
                .filter(r -> r.text("point").equals("diluent")).map(r -> r.text("choice")).findFirst()
                .orElse("tin_lead"));
        diluent = switch (diluent) {
            case "tin_lead" -> "Sn63Pb37";
            case "bismuth" -> "Sn42Bi58";
            default -> diluent;
        };
        String ball = facts.at("plan.ball_alloy").map(String::valueOf).filter(a -> table.find(a).isPresent())
                .orElse(factory);
        int passes = (int) job.records("joint").stream().filter(r -> r.text("site").equals(target.name()))
                .mapToDouble(r -> r.number("wick_passes")).filter(Double::isFinite).max().orElse(0);
        double left = MixShares.leftBy(passes == 0 ? 1 : passes);
        var f = new Dilution.Part(table.require(factory).made(), 1);
        Optional<MeltingTable.Row> thin = table.find(diluent);
        var a = new Dilution.Part(thin.orElse(table.require(factory)).made(),
                thin.isPresent() ? MixShares.ADDED : 0);
        var b = new Dilution.Part(table.require(ball).made(), MixShares.BALL);
        return new Mixed(factory, thin.map(MeltingTable.Row::name).orElse(""), table.require(ball).name(),
                passes, left, Dilution.leftAllowed(f, a, b),
                Dilution.of(new Dilution.Mixed(f, a, left, b)));
    }

    private static Dry dry(Facts facts, Chip target, double lowestSolidusC) {
        String level = facts.at("chip.msl").map(String::valueOf).orElse("");
        double openH = facts.at("chip.open_days").filter(Double.class::isInstance)
                .map(d -> (Double) d * 24).orElse(target.openH());
        double left = level.isEmpty()
                ? target.floorLifeH() - openH
                : Moisture.standard().leftH(level, openH).orElse(Double.NaN);
        return new Dry(level, openH, left,
                level.isEmpty()
                        ? List.of()
                        : Moisture.standard().bakes(level, target.bodyMm(), openH, lowestSolidusC));
    }
}
