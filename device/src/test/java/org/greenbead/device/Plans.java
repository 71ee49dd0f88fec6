package org.greenbead.device;

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
import org.greenbead.core.board.Side;
import org.greenbead.core.book.Phase;
import org.greenbead.core.recipe.Limits;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.RunPlan;

/** The least plan a simulated bench can stand on. */
final class Plans {
    private Plans() {
    }

    static List<ProbePlace> probes() {
        return List.of(new ProbePlace("board_top", ProbePlace.Role.BOARD, 1, Side.TOP, new Point(20, 8)),
                new ProbePlace("board_under", ProbePlace.Role.BOARD, 4, Side.BOTTOM, new Point(20, 20)));
    }

    static RunPlan small() {
        var chip = new Chip("U1", "PW-36", Side.TOP, new Point(20, 20), new Point(5, 5),
                List.of(new Layer.Joint(0.2, 0.5, 0.28, Alloys.require("SAC305"), false, 1),
                        new Layer.Plain(Layer.Material.MOLD, 0.5)),
                245, 0, 3, 168, 0);
        var board = new Board("SR-3", "Sonar receiver", new Point(40, 40), 1, 4, 18, 0.5, 0.38, List.of(chip),
                List.of());
        var bench = new Bench("quay-3", "Quay bench", 23,
                java.util.Optional.of(
                        new BottomHeater("plate", false, new Point(100, 100), 10, 0.9, 6.5, 45, 240, 400, 1)),
                new AirStation("air", List.of(6.0), 480, 120, 0.05, 6, 1), probes());
        var soak = new Stage("Soak", Stage.Purpose.SOAK, Optional.of(200.0), Optional.empty(),
                Optional.empty(), new StageEnd.TechnicianSays(), 600);
        var job = new Job("SB-0001", "t", "c", "k", "SR-3", "U1", "quay-3", List.of(new Bead("lift_run",
                Phase.LIFT, Bead.Kind.RUN, false, BeadState.OPEN, List.of(), Optional.of("r"))));
        return new RunPlan(RunPlan.Task.LIFT, job, "lift_run", board, bench,
                new Recipe("r", "r", List.of(soak), Limits.usual()));
    }
}
