package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Layer;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.quantity.Check;
import org.greenbead.core.thermal.HeatScene;
import org.greenbead.core.thermal.Support;

/**
 * Balls made on a loose chip: a steel stencil on top, the chip hanging under it, something under the chip.
 *
 * @param stencilMm   sides of the stencil, 10 to 150 each
 * @param thicknessMm of the stencil, 0.05 to 0.5
 * @param balls       what the balls are made of
 * @param base        what the chip lies on
 */
public record BallForming(Point stencilMm, double thicknessMm, Alloy balls, Base base) {
    /** Stainless steel: in-plane conductivity W/mK and heat capacity J/m3K. */
    private static final HeatScene.Laminate STEEL = new HeatScene.Laminate(16, 4.0e6);
    private static final double STEEL_EMISSIVITY = 0.25;
    private static final double PAPER_MM = 2;
    /** The same probe-name on every bench: a bead held on the stencil beside the chip. */
    public static final String PROBE = "stencil";

    /** What lies under the chip: several sheets of paper, a block of aluminium 40 x 40 x 12 mm, or nothing but a holder's edges. */
    public enum Base {
        PAPER, BLOCK, HOLDER
    }

    public BallForming {
        Check.present("stencil size", stencilMm);
        Check.within("stencil side", Math.min(stencilMm.xMm(), stencilMm.yMm()), 10, 150, "mm");
        Check.within("stencil side", Math.max(stencilMm.xMm(), stencilMm.yMm()), 10, 150, "mm");
        Check.within("stencil thickness", thicknessMm, 0.05, 0.5, "mm");
        Check.present("ball alloy", balls);
        Check.present("base", base);
    }

    /** 0.12 mm of steel that shows 15 mm round the chip, on paper: the usual start. */
    public static BallForming usual(Chip chip, Alloy balls) {
        return new BallForming(new Point(chip.sizeMm().xMm() + 30, chip.sizeMm().yMm() + 30), 0.12, balls,
                Base.PAPER);
    }

    /** The stencil as a board with the chip under its middle, its joints the balls to be made. */
    Board board(Chip chip) {
        Layer.Joint joint = chip.joint();
        var layers = new ArrayList<Layer>();
        layers.add(new Layer.Joint(joint.ballMm(), joint.pitchMm(), joint.ballMm(), balls, false,
                joint.coverage()));
        layers.addAll(chip.layers().subList(1, chip.layers().size()));
        if (base == Base.PAPER) {
            layers.add(new Layer.Plain(Layer.Material.PAPER, PAPER_MM));
        }
        var hung = new Chip(chip.name(), chip.part(), Side.BOTTOM, middle(), chip.sizeMm(), layers,
                chip.bodyLimitC(),
                chip.melts(), chip.meltsLimit(), chip.floorLifeH(), chip.openH());
        return new Board("stencil", "Stencil over " + chip.name(), stencilMm, thicknessMm, 1, 18, 0.5, 16,
                List.of(hung), List.of());
    }

    private Point middle() {
        return new Point(stencilMm.xMm() / 2, stencilMm.yMm() / 2);
    }

    /** The same tools with one bead on the stencil, a pitch outside the chip. */
    Bench bench(Bench bench, Chip chip) {
        double x = Math.min(middle().xMm() + chip.sizeMm().xMm() / 2 + 3, stencilMm.xMm() - 1);
        int channel = bench.probes().stream().mapToInt(ProbePlace::channel).findFirst().orElse(1);
        return new Bench(bench.id(), bench.title(), bench.ambientC(), bench.heater(), bench.air(),
                List.of(new ProbePlace(PROBE, ProbePlace.Role.BOARD, channel, Side.TOP,
                        new Point(x, middle().yMm()))),
                bench.calibrations());
    }

    HeatScene scene(RunPlan plan) {
        Bench bench = plan.bench();
        Optional<Support> support = base == Base.BLOCK
                ? Optional.of(
                        new Support(plan.target().name(), 1500, 47, 0.1, bench.ambientC(), bench.ambientC()))
                : Optional.empty();
        return new HeatScene(plan.board(), plan.target().name(), bench.ambientC(), Optional.empty(), middle(),
                bench.ambientC(), bench.air(), bench.probes(), STEEL_EMISSIVITY, 0, Optional.of(STEEL),
                middle(),
                plan.recipe().shields(), support);
    }
}
