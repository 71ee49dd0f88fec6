package org.greenbead.core.account;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.bench.Calibration;
import org.greenbead.core.board.Assumed;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Layer;
import org.greenbead.core.board.LiftSide;
import org.greenbead.core.board.Mark;
import org.greenbead.core.board.NozzleChoice;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.ProtectedPart;
import org.greenbead.core.board.Side;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.route.Job;

/** What board, bench and recipe say. */
final class BoardFacts {
    /** Least flatness of a ball field by its pitch: up to this pitch, mm, so much, mm (JEDEC Publication 95, design guide 4.5, from memory: verify). */
    private static final double[][] COPLANAR = {{0.5, 0.08}, {0.65, 0.10}, {0.8, 0.12}, {1.0, 0.15},
            {9, 0.20}};
    /** A collapsing ball's land is 0.8 of its diameter (IPC-7351, from memory: verify); half of it is what surface tension pulls in. */
    private static final double LAND_OF_A_BALL = 0.8;

    private BoardFacts() {
    }

    static void say(FactTree tree, Job job, Board board, Bench bench, Recipe recipe) {
        Chip target = board.requireChip(job.target());
        board(tree, board, target);
        parts(tree, board, target);
        marks(tree, board, target);
        tree.from(Origin.Source.LEDGER, "bench " + bench.id());
        tree.put("probes.count", (double) bench.probes().size());
        tree.put("station.id", bench.air().name());
        tree.put("station.flow_scale", switch (bench.air().dial().scale()) {
            case LITRES -> "litres";
            case PERCENT -> "percent";
            case STEPS -> "level";
        });
        calibrated(tree, board, bench);
        plan(tree, job, bench, recipe);
        tree.from(Origin.Source.COMPUTED, "board " + board.id() + " around " + target.name());
        tree.put("plan.lift_side_clear_mm", liftClearMm(job, board, target));
        target.layers().stream().filter(Layer.Joint.class::isInstance).map(Layer.Joint.class::cast)
                .findFirst()
                .ifPresent(j -> tree.put("plan.offset_max_mm", LAND_OF_A_BALL * j.ballMm() / 2));
        coplanar(tree, target.joint().pitchMm());
    }

    /** What fits to runs have told of this bench; the last that told a factor counts. */
    private static void calibrated(FactTree tree, Board board, Bench bench) {
        List<Calibration> counted = bench.calibrations().stream().filter(Calibration::counted).toList();
        tree.from(Origin.Source.LEDGER, counted.isEmpty()
                ? "bench " + bench.id()
                : "calibration by run " + counted.getLast().run());
        tree.put("bench.calibrations", (double) counted.size());
        tree.put("bench.calibrated_here", counted.stream().anyMatch(c -> c.board().equals(board.id())));
        counted.stream().filter(c -> c.jet().determined() && bench.blewHere(c)).reduce((a, b) -> b)
                .ifPresent(c -> tree.put("bench.jet_factor", c.jet().value()));
        counted.stream().filter(c -> c.preheater().determined()).reduce((a, b) -> b)
                .ifPresent(c -> tree.put("bench.heater_factor", c.preheater().value()));
    }

    private static void coplanar(FactTree tree, double pitchMm) {
        for (double[] row : COPLANAR) {
            if (pitchMm <= row[0]) {
                tree.put("balls.coplanar_limit_mm", row[1]);
                return;
            }
        }
    }

    private static void board(FactTree tree, Board board, Chip target) {
        tree.from(Origin.Source.LEDGER, "board " + board.id());
        tree.put("board.id", board.id());
        tree.put("board.diagonal_mm", Math.hypot(board.sizeMm().xMm(), board.sizeMm().yMm()));
        tree.put("board.stacked",
                target.layers().stream().filter(l -> l instanceof Layer.Joint).count() > 1);
        tree.from(source(board, Assumed.alloyOf(target.name())), "board " + board.id());
        tree.put("board.factory_alloy", target.joint().alloy().name());
        tree.from(Origin.Source.LEDGER, "board " + board.id());
        tree.put("board.alloy_assumed",
                board.assumed().contains(Assumed.alloyOf(target.name())) ? true : null);
        tree.put("board.coin_cell",
                board.parts().stream().anyMatch(p -> p.holds().contains(ProtectedPart.Holds.CELL)));
        boolean below = board.parts().stream().anyMatch(p -> p.side() == Side.BOTTOM)
                || board.chips().stream().anyMatch(c -> c.side() == Side.BOTTOM);
        if (below) {
            tree.put("board.underside_known", true);
        }
        tree.put("chip.id", target.name());
        tree.put("chip.pn", target.part());
        tree.put("chip.side_mm", Math.max(target.sizeMm().xMm(), target.sizeMm().yMm()));
        tree.put("chip.pitch_mm", target.joint().pitchMm());
        tree.from(source(board, Assumed.packageOf(target.name())), "board " + board.id());
        tree.put("chip.thickness_mm", target.bodyMm());
        tree.put("chip.volume_mm3", target.bodyMm() * target.sizeMm().xMm() * target.sizeMm().yMm());
        tree.put("chip.body_limit_c", target.bodyLimitC());
        for (Chip chip : board.chips()) {
            joint(tree, board, chip, !chip.name().equals(target.name()));
        }
    }

    private static void joint(FactTree tree, Board board, Chip chip, boolean neighbour) {
        boolean assumed = board.assumed().contains(Assumed.alloyOf(chip.name()));
        tree.from(Origin.Source.LEDGER, "board " + board.id());
        int at = tree.item("joints", "site", chip.name());
        tree.put("joints", at, "site", chip.name());
        tree.put("joints", at, "neighbour", neighbour);
        tree.put("joints", at, "side", chip.side() == Side.TOP ? "top" : "underside");
        tree.put("joints", at, "alloy_assumed", assumed ? true : null);
        tree.from(source(board, Assumed.alloyOf(chip.name())), "board " + board.id());
        tree.put("joints", at, "alloy", chip.joint().alloy().name());
        tree.put("joints", at, "solidus_c", chip.joint().alloy().solidusC());
        tree.put("joints", at, "liquidus_c", chip.joint().alloy().liquidusC());
    }

    /** What a board was given without anybody knowing it is told from what was read. */
    private static Origin.Source source(Board board, String assumed) {
        return board.assumed().contains(assumed) ? Origin.Source.ASSUMED : Origin.Source.LEDGER;
    }

    private static void parts(FactTree tree, Board board, Chip target) {
        List<String> inAir = NozzleChoice.of(board, target).inAir();
        for (ProtectedPart part : board.parts()) {
            int at = tree.item("parts", "id", part.name());
            tree.put("parts", at, "id", part.name());
            tree.put("parts", at, "distance_mm",
                    gap(part.centreMm(), part.sizeMm(), target.centreMm(), target.sizeMm()));
            tree.put("parts", at, "body_limit_c", part.limitC());
            tree.put("parts", at, "in_nozzle", inAir.contains(part.name()));
            tree.put("parts", at, "in_cone", inAir.contains(part.name()));
            board.regionAt(part.side(), part.centreMm())
                    .ifPresent(m -> tree.put("parts", at, "zone", m.kind().key()));
            if (part.holds().contains(ProtectedPart.Holds.DATA)) {
                tree.put("parts", at, "data_critical", true);
            }
            if (part.holds().contains(ProtectedPart.Holds.CELL)) {
                tree.put("parts", at, "kind", "cell");
            }
            if (part.holds().contains(ProtectedPart.Holds.UNDERFILL)) {
                tree.put("parts", at, "underfilled", true);
            }
        }
    }

    /** Screws that the type has; shields that the target lies under. */
    private static void marks(FactTree tree, Board board, Chip target) {
        int screws = board.marks(Mark.Kind.SCREW).size();
        if (screws > 0) {
            tree.put("intake.screws_expected", (double) screws);
        }
        List<String> over = board.marks(Mark.Kind.SHIELD).stream()
                .filter(m -> m.covers(target.side(), target.centreMm())).map(Mark::name).toList();
        if (!over.isEmpty()) {
            tree.put("shield.over", over);
        }
    }

    private static void plan(FactTree tree, Job job, Bench bench, Recipe recipe) {
        tree.from(Origin.Source.LEDGER, "recipe " + recipe.id());
        tree.put("plan.bottom", recipe.stages().stream().anyMatch(s -> s.heaterC().isPresent())
                ? bench.plate() ? "plate" : "ir"
                : "none");
        tree.put("plan.cool_steps", (double) recipe.stages().stream()
                .filter(s -> s.purpose() == Stage.Purpose.COOL).count());
        recipe.stages().stream().filter(s -> s.purpose() == Stage.Purpose.PEAK)
                .flatMap(s -> s.jointGoalC().stream()).max(Double::compare)
                .ifPresent(c -> tree.put("plan.predicted_joint_c", c));
        boolean seatUsesLift = job.bead("lift_run").flatMap(b -> b.recipe())
                .filter(r -> job.bead("seat_run").flatMap(b -> b.recipe()).filter(r::equals).isPresent())
                .isPresent();
        for (Stage stage : recipe.stages()) {
            if (stage.purpose() == Stage.Purpose.COOL) {
                continue;
            }
            int at = tree.item("plan_stages", "id", null);
            stage(tree, at, stage, bench);
            if (seatUsesLift && stage.purpose() == Stage.Purpose.PEAK) {
                tree.put("plan_stages", at, "copied_from", "lift");
            }
        }
        tree.rename("plan_stages", "plan", "stages");
    }

    private static void stage(FactTree tree, int at, Stage stage, Bench bench) {
        tree.put("plan_stages", at, "id", stage.name());
        tree.put("plan_stages", at, "kind", switch (stage.purpose()) {
            case DRY_OUT -> "bake";
            case PEAK -> "peak";
            default -> "soak";
        });
        tree.put("plan_stages", at, "scope", stage.air().isPresent() ? "site" : "board");
        stage.jointGoalC().ifPresent(c -> {
            tree.put("plan_stages", at, "target_c", c);
            tree.put("plan_stages", at, "target_body", "joint");
        });
        stage.air().ifPresent(air -> blown(tree, at, air, bench));
        if (stage.end() instanceof StageEnd.AfterTime after) {
            tree.put("plan_stages", at, "min_s", after.seconds());
        }
        if (stage.purpose() == Stage.Purpose.PEAK && stage.end() instanceof StageEnd.ProbeReaches reaches) {
            bench.probes().stream().filter(p -> p.name().equals(reaches.probe())).findFirst()
                    .ifPresent(p -> {
                        tree.put("plan_stages", at, "probe_position",
                                p.role() == ProbePlace.Role.JOINT ? "joint" : "board");
                        tree.put("plan_stages", at, "evidence", List.of("probe"));
                    });
        }
    }

    private static void blown(FactTree tree, int at, AirSetting air, Bench bench) {
        tree.put("plan_stages", at, "air_c", air.setC());
        tree.put("plan_stages", at, "flow", air.flowLpm());
        tree.put("plan_stages", at, "station_id", bench.air().name());
    }

    /** Free way of the tool on the side that was chosen, else on the freest, mm. */
    private static double liftClearMm(Job job, Board board, Chip target) {
        List<LiftSide.Way> ways = LiftSide.of(board, target, LiftSide.TOOL_WIDTH_MM, LiftSide.TOOL_THICK_MM);
        Optional<String> chosen = job.records("plan").stream().map(r -> r.text("lift_side"))
                .filter(s -> !s.isEmpty()).findFirst();
        return ways.stream().filter(w -> chosen.filter(w.side().name()::equalsIgnoreCase).isPresent())
                .findFirst().orElse(ways.getFirst()).clearMm();
    }

    /** Free space between two upright rectangles, mm. */
    private static double gap(Point a, Point aSize, Point b, Point bSize) {
        double x = Math.max(0, Math.abs(a.xMm() - b.xMm()) - (aSize.xMm() + bSize.xMm()) / 2);
        double y = Math.max(0, Math.abs(a.yMm() - b.yMm()) - (aSize.yMm() + bSize.yMm()) / 2);
        return Math.hypot(x, y);
    }
}
