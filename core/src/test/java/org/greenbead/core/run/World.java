package org.greenbead.core.run;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.bench.AirStation;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.bench.BottomHeater;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Layer;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.ProtectedPart;
import org.greenbead.core.board.Side;
import org.greenbead.core.book.Phase;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Limits;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.CheckItem;
import org.greenbead.core.route.Job;

/** A small invented board on an invented bench, for tests. */
public final class World {
    private World() {
    }

    public static Chip processor(String alloy, int melts, double openH) {
        return new Chip("U1", "QX-510", Side.TOP, new Point(36, 58), new Point(14, 14),
                List.of(new Layer.Joint(0.2, 0.4, 0.25, Alloys.require(alloy), false, 0.9),
                        new Layer.Plain(Layer.Material.SUBSTRATE, 0.3),
                        new Layer.Die(0.2, new Point(9, 9), false),
                        new Layer.Plain(Layer.Material.MOLD, 0.35)),
                245, melts, 3,
                168, openH);
    }

    public static Chip neighbour(String name, Side side, double x, double y, String alloy) {
        return new Chip(name, "UL-24", side, new Point(x, y), new Point(5, 5),
                List.of(new Layer.Joint(0.2, 0.5, 0.28, Alloys.require(alloy), false, 0.7),
                        new Layer.Plain(Layer.Material.SUBSTRATE, 0.2),
                        new Layer.Die(0.2, new Point(3, 3), false),
                        new Layer.Plain(Layer.Material.MOLD, 0.3)),
                250, 1, 3, 168, 0);
    }

    public static Board board(Chip target, Chip... more) {
        var chips = new java.util.ArrayList<Chip>();
        chips.add(target);
        chips.addAll(List.of(more));
        return new Board("WB-7", "Wave buoy logger", new Point(70, 95), 1.0, 8, 18, 0.5, 0.38, chips,
                List.of(new ProtectedPart("J9", "cell connector", Side.TOP, new Point(12, 10),
                        new Point(8, 5), 150)));
    }

    public static Bench bench() {
        return new Bench("quay-1", "Quay bench", 23,
                Optional.of(new BottomHeater("plate", false, new Point(120, 100), 10, 0.9, 6.5, 45, 240, 400,
                        1)),
                new AirStation("air", List.of(6.0, 10.0, 14.0), 480, 120, 0.05, 6, 1),
                List.of(new ProbePlace("board_top", ProbePlace.Role.BOARD, 1, Side.TOP, new Point(36, 41)),
                        new ProbePlace("board_under", ProbePlace.Role.BOARD, 2, Side.BOTTOM,
                                new Point(36, 58))));
    }

    public static Stage soak(double heaterC, double toC, double holdS) {
        return new Stage("Soak", Stage.Purpose.SOAK, Optional.of(heaterC), Optional.empty(), Optional.empty(),
                new StageEnd.ProbeReaches("board_top", toC, holdS), 200);
    }

    public static Stage peak(double airC) {
        return new Stage("Lift", Stage.Purpose.PEAK, Optional.of(240.0),
                Optional.of(new AirSetting(airC, 28, 10, 20, 6)), Optional.of(199.0),
                new StageEnd.MeltShown(), 110);
    }

    public static Stage cool() {
        return new Stage("Cool", Stage.Purpose.COOL, Optional.empty(), Optional.empty(), Optional.empty(),
                new StageEnd.SafeToMove(), 240);
    }

    public static Recipe recipe(Stage... stages) {
        return new Recipe("test-lift", "Test lift", List.of(stages), Limits.usual());
    }

    public static Recipe usualRecipe() {
        return recipe(soak(240, 108, 10),
                new Stage("Ramp up", Stage.Purpose.APPROACH, Optional.of(245.0),
                        Optional.of(new AirSetting(265, 24, 10, 25, 6)), Optional.empty(),
                        new StageEnd.ProbeReaches("board_top", 138, 0), 90),
                peak(322), cool());
    }

    /** A route of preparation and one lift; every check attested as {@code word}. */
    public static Job job(Attest word) {
        List<CheckItem> checks = List
                .of("cell_off", "supply_off", "board_flat", "extraction_on", "gloves_on",
                        "orientation_recorded")
                .stream()
                .map(c -> new CheckItem(c, word, "")).toList();
        return new Job("SB-0001", "Wave buoy logger", "no boot", "Buoy station Hethra", "WB-7", "U1",
                "quay-1",
                List.of(new Bead("prepare_power", Phase.PREPARE, Bead.Kind.CHECK, true,
                        word == Attest.YES ? BeadState.GREEN : BeadState.OPEN, checks, Optional.empty()),
                        new Bead("lift_run", Phase.LIFT, Bead.Kind.RUN, false, BeadState.OPEN, List.of(),
                                Optional.of("test-lift"))));
    }

    public static RunPlan plan(Recipe recipe) {
        return plan(recipe, processor("Sn63Pb37", 1, 10));
    }

    public static RunPlan plan(Recipe recipe, Chip target) {
        return new RunPlan(RunPlan.Task.LIFT, job(Attest.YES), "lift_run",
                board(target, neighbour("U2", Side.TOP, 57, 58, "SAC305"),
                        neighbour("U9", Side.BOTTOM, 46, 26, "Sn63Pb37")),
                bench(), recipe);
    }
}
