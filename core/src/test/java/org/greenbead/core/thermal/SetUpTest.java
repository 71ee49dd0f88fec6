package org.greenbead.core.thermal;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.bench.AirStation;
import org.greenbead.core.bench.BottomHeater;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Layer;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Shield;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Set-ups beyond one chip on one board: symmetry, foil, stacks, stencils, supports, air beside the chip, order of convergence. */
public class SetUpTest {
    private static final AirStation AIR = new AirStation("air", List.of(10.0), 480, 120, 0.05, 6, 1);
    private static final BottomHeater PLATE = new BottomHeater("plate", false, new Point(120, 120), 10, 0.9,
            6.5, 45,
            240, 400, 1);

    private static Chip chip(String name, Side side, double x, double y, double size, List<Layer> layers) {
        return new Chip(name, "QX", side, new Point(x, y), new Point(size, size), layers, 250, 0, 3, 168, 0);
    }

    private static List<Layer> plain(String alloy) {
        return List.of(new Layer.Joint(0.2, 0.5, 0.28, Alloys.require(alloy), false, 0.9),
                new Layer.Plain(Layer.Material.SUBSTRATE, 0.3), new Layer.Die(0.2, new Point(6, 6), false),
                new Layer.Plain(Layer.Material.MOLD, 0.35));
    }

    private static Board board(Chip... chips) {
        return new Board("T", "test board", new Point(60, 60), 1.0, 8, 18, 0.5, 0.38, List.of(chips),
                List.of());
    }

    private static HeatScene scene(Board board, String target) {
        return new HeatScene(board, target, 25, Optional.of(PLATE), new Point(30, 30), 25, AIR, List.of(),
                0.9, 1e-3,
                Optional.empty());
    }

    private static HeatInput hot(double heater, double air, double circle) {
        return HeatInput.of(Optional.of(heater), Optional.of(new AirSetting(air, 28, 10, 20, circle)));
    }

    private static SheetModel after(HeatScene scene, Resolution resolution, HeatInput input, int seconds) {
        var model = new SheetModel(scene, Multipliers.NOMINAL, resolution);
        for (int t = 0; t < seconds; t += 2) {
            model.advance(input, 2);
        }
        return model;
    }

    @Test
    public void mirrorImagesAreEqual() {
        // A misplaced cell is off by tenths; what is left here is rounding, carried on by the solver.
        Board board = board(chip("U1", Side.TOP, 30, 30, 12, plain("SAC305")),
                chip("L", Side.TOP, 12, 30, 6, plain("SAC305")),
                chip("R", Side.TOP, 48, 30, 6, plain("SAC305")));
        SheetModel model = after(scene(board, "U1"), Resolution.FULL, hot(200, 340, 4), 90);
        assertEquals(model.jointC("L"), model.jointC("R"), 1e-4);
        for (double y : new double[]{5, 22, 51}) {
            assertEquals(model.boardC(Side.TOP, new Point(20, y)), model.boardC(Side.TOP, new Point(40, y)),
                    1e-4);
            assertEquals(model.boardC(Side.BOTTOM, new Point(7, y)),
                    model.boardC(Side.BOTTOM, new Point(53, y)), 1e-4);
        }
    }

    @DataProvider
    Object[][] resolutions() {
        return new Object[][]{{Resolution.FULL}, {Resolution.SEARCH}, {Resolution.OBSERVER},
                {Resolution.SEARCH_FINER}};
    }

    @Test(dataProvider = "resolutions")
    public void heatIsConservedWhateverTheCells(Resolution resolution) {
        Board board = board(chip("U1", Side.TOP, 30, 30, 12, plain("Sn63Pb37")),
                chip("B", Side.BOTTOM, 33, 28, 5, plain("SAC305")));
        var model = new SheetModel(scene(board, "U1"), Multipliers.NOMINAL, resolution);
        for (int i = 0; i < 30; i++) {
            model.advance(HeatInput.of(Optional.of(220.0), Optional.empty()), 8);
        }
        for (int i = 0; i < 30; i++) {
            model.advance(hot(220, 360, 4), 3);
        }
        model.advance(HeatInput.OFF, 40);
        assertTrue(model.energy().throughputJ() > 500);
        assertTrue(model.energy().error() < 1e-6, resolution + ": " + model.energy());
    }

    /** First order in the step, and no great change when the cells are made finer. */
    @Test
    public void convergesInStepAndGrid() {
        Board board = board(chip("U1", Side.TOP, 30, 30, 12, plain("SAC305")));
        HeatScene scene = scene(board, "U1");
        double[] joint = new double[3];
        double[] steps = {2, 1, 0.5};
        for (int i = 0; i < steps.length; i++) {
            joint[i] = after(scene, Resolution.FULL.stepping(steps[i]), hot(180, 300, 4), 60).jointCentreC();
        }
        double first = Math.abs(joint[1] - joint[0]);
        double second = Math.abs(joint[2] - joint[1]);
        assertTrue(second < 0.75 * first && second > 0.25 * first, "errors " + first + " then " + second);
        double finer = after(scene, Resolution.FULL.finer(1.5), hot(180, 300, 4), 60).jointCentreC();
        assertEquals(finer, joint[2], 1.0);
    }

    @Test
    public void foilKeepsANeighbourALittleCoolerAndNothingElse() {
        Board board = board(chip("U1", Side.TOP, 30, 30, 12, plain("SAC305")),
                chip("N", Side.TOP, 44, 30, 6, plain("SAC305")));
        HeatScene bare = scene(board, "U1");
        HeatScene foil = bare.shielded(List.of(new Shield(new Point(37, 20), new Point(54, 40), 0.2, 0.08)));
        SheetModel open = after(bare, Resolution.FULL, hot(150, 380, 0), 90);
        SheetModel covered = after(foil, Resolution.FULL, hot(150, 380, 0), 90);
        double helped = open.jointC("N") - covered.jointC("N");
        assertTrue(helped > 0.3 && helped < 10, "foil helps by " + helped);
        assertEquals(covered.jointCentreC(), open.jointCentreC(), 2);
    }

    @Test
    public void stackedPackageHasTwoJointLayersAndTheUpperOneLeads() {
        var layers = new ArrayList<Layer>(plain("SAC305"));
        layers.add(new Layer.Joint(0.18, 0.4, 0.24, Alloys.require("SAC305"), false, 0.6));
        layers.add(new Layer.Plain(Layer.Material.SUBSTRATE, 0.2));
        layers.add(new Layer.Plain(Layer.Material.MOLD, 0.4));
        SheetModel model = after(scene(board(chip("U1", Side.TOP, 30, 30, 12, layers)), "U1"),
                Resolution.FULL,
                hot(200, 360, 3), 60);
        List<HeatModel.JointView> joints = model.targetJoints();
        assertEquals(joints.size(), 2);
        assertEquals(joints.getFirst().centreC(), model.jointCentreC());
        assertTrue(joints.get(1).centreC() > joints.getFirst().centreC() + 2, joints.toString());
        assertTrue(model.packageTopC() > joints.get(1).centreC());
    }

    @Test
    public void airBesideTheChipHeatsThatSideMore() {
        Board board = board(chip("U1", Side.TOP, 30, 30, 12, plain("SAC305")),
                chip("L", Side.TOP, 12, 30, 6, plain("SAC305")),
                chip("R", Side.TOP, 48, 30, 6, plain("SAC305")));
        HeatScene at = scene(board, "U1");
        var beside = new HeatScene(board, "U1", 25, at.heater(), at.heaterCentre(), 25, AIR, List.of(), 0.9,
                1e-3,
                Optional.empty(), new Point(40, 30), List.of(), Optional.empty());
        SheetModel model = after(beside, Resolution.FULL, hot(150, 360, 0), 60);
        assertTrue(model.jointC("R") > model.jointC("L") + 30);
    }

    private static SheetModel ballForming(List<Layer> below, Optional<Support> support) {
        var layers = new ArrayList<Layer>();
        layers.add(new Layer.Joint(0.12, 0.5, 0.3, Alloys.require("Sn63Pb37"), false, 0.9));
        layers.add(new Layer.Plain(Layer.Material.SUBSTRATE, 0.3));
        layers.add(new Layer.Plain(Layer.Material.MOLD, 0.6));
        layers.addAll(below);
        var stencil = new Board("stencil", "stencil", new Point(40, 40), 0.12, 1, 35, 0.5, 16,
                List.of(chip("U1", Side.BOTTOM, 20, 20, 12, layers)), List.of());
        var scene = new HeatScene(stencil, "U1", 25, Optional.empty(), new Point(20, 20), 25, AIR, List.of(),
                0.25, 0,
                Optional.of(new HeatScene.Laminate(16, 4e6)), new Point(20, 20), List.of(), support);
        return after(scene, Resolution.FULL,
                HeatInput.of(Optional.empty(), Optional.of(new AirSetting(330, 25, 10, 20, 4))), 60);
    }

    /** On paper the balls form; a cold block takes the heat away; a block on a hot plate does not. */
    @Test
    public void ballsUnderAStencilDependOnWhatTheChipStandsOn() {
        SheetModel paper = ballForming(List.of(new Layer.Plain(Layer.Material.PAPER, 2.0)), Optional.empty());
        SheetModel cold = ballForming(List.of(), Optional.of(new Support("U1", 1500, 47, 0.1, 25, 25)));
        SheetModel warm = ballForming(List.of(), Optional.of(new Support("U1", 1500, 47, 5, 210, 210)));
        assertTrue(paper.jointMinC() > 183.5, "paper " + paper.jointMinC());
        assertTrue(cold.jointMaxC() < 150, "cold block " + cold.jointMaxC());
        assertTrue(warm.jointMinC() > 183.5, "warm block " + warm.jointMinC());
        assertTrue(cold.supportC() > 26 && cold.supportC() < 80, "the block warms: " + cold.supportC());
        assertTrue(cold.energy().error() < 1e-6 && Double.isNaN(paper.supportC()));
        // The body is as hot as what it hangs from, whatever hides its other face.
        for (SheetModel hung : List.of(paper, warm)) {
            assertTrue(
                    hung.packageTopC() > hung.jointMinC() - 6 && hung.packageTopC() < hung.jointMaxC() + 15,
                    hung.packageTopC() + " beside " + hung.jointMinC() + " to " + hung.jointMaxC());
        }
    }

    @Test
    public void fieldShowsTheHotSpotWhereTheAirIs() {
        HeatField field = after(scene(board(chip("U1", Side.TOP, 20, 40, 12, plain("SAC305"))), "U1"),
                Resolution.SEARCH,
                hot(150, 360, 0), 60).field(Side.TOP);
        int hottest = 0;
        for (int i = 0; i < field.celsius().length; i++) {
            hottest = field.celsius()[i] > field.celsius()[hottest] ? i : hottest;
        }
        int ix = hottest % field.columns();
        int iy = hottest / field.columns();
        assertTrue(field.xMm()[ix] < 20.1 && field.xMm()[ix + 1] > 13, "x " + field.xMm()[ix]);
        assertTrue(field.yMm()[iy] > 33 && field.yMm()[iy] < 46.1, "y " + field.yMm()[iy]);
        assertEquals(field.rows() * field.columns(), field.celsius().length);
    }
}
