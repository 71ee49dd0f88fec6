package org.greenbead.core.thermal;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.bench.AirStation;
import org.greenbead.core.bench.BottomHeater;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Layer;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;
import org.greenbead.core.recipe.AirSetting;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The second level of the heat solver: what it promises of its blocks, and what it is worth on a board that conducts well. */
public class CoarseLevelTest {
    private static HeatScene scene(double boardMm, int copperLayers, double copperUm) {
        var chip = new Chip("U1", "QX", Side.TOP, new Point(0.6 * boardMm, 0.4 * boardMm), new Point(15, 15),
                List.of(new Layer.Joint(0.3, 0.5, 0.28, Alloys.require("Sn63Pb37"), false, 0.9),
                        new Layer.Plain(Layer.Material.SUBSTRATE, 0.4),
                        new Layer.Plain(Layer.Material.MOLD, 0.6)),
                250, 0, 3, 168, 0);
        var board = new Board("T", "test board", new Point(boardMm, boardMm), 1.6, copperLayers, copperUm,
                0.8,
                0.38, List.of(chip), List.of());
        var plate = new BottomHeater("plate", false, new Point(boardMm, boardMm), 10, 0.9, 6.5, 45, 240, 400,
                1);
        return new HeatScene(board, "U1", 25, Optional.of(plate), new Point(boardMm / 2, boardMm / 2), 25,
                new AirStation("air", List.of(10.0), 480, 120, 0.05, 6, 1), List.of(), 0.9, 1e-3,
                Optional.empty());
    }

    @DataProvider
    Object[][] cuts() {
        return new Object[][]{{Resolution.FULL}, {Resolution.SEARCH}, {Resolution.OBSERVER}};
    }

    /** What it adds is the same all over a block, and with it each block's balance closes. */
    @Test(dataProvider = "cuts")
    public void everyBlockIsBalanced(Resolution cut) {
        var grid = new SheetGrid(scene(80, 8, 18), Multipliers.NOMINAL, cut);
        var random = new Random(4);
        double[] links = new SheetSolver(grid).links();
        double[] diagonal = new double[grid.cells];
        double[] residual = new double[grid.cells];
        for (int i = 0; i < grid.cells; i++) {
            diagonal[i] = links[i] + 0.001 + 0.05 * random.nextDouble();
            residual[i] = random.nextGaussian();
        }
        var level = new CoarseLevel(grid);
        level.factor(diagonal, links);
        double[] added = new double[grid.cells];
        double product = level.correct(residual, added);

        Map<Double, Double> leftOver = new HashMap<>();
        double dot = 0;
        for (int i = 0; i < grid.cells; i++) {
            double balance = residual[i] - diagonal[i] * added[i];
            if (i + 1 < grid.cells) {
                balance += grid.upWPerK[i] * added[i + 1];
            }
            if (i > 0) {
                balance += grid.upWPerK[i - 1] * added[i - 1];
            }
            leftOver.merge(added[i], balance, Double::sum);
            dot += residual[i] * added[i];
        }
        for (int l = 0; l < grid.linkWPerK.length; l++) {
            leftOver.merge(added[grid.linkA[l]], grid.linkWPerK[l] * added[grid.linkB[l]], Double::sum);
            leftOver.merge(added[grid.linkB[l]], grid.linkWPerK[l] * added[grid.linkA[l]], Double::sum);
        }
        assertTrue(leftOver.size() >= 9 && leftOver.size() <= 36, leftOver.size() + " blocks");
        leftOver.forEach((block, watt) -> assertEquals(watt, 0.0, 1e-9));
        assertEquals(product, dot, 1e-9 * Math.abs(dot));
    }

    /** A copy of a solver shares what stands and not what it works with: two that take turns do as one alone. */
    @Test
    public void copiesDoNotDisturbEachOther() {
        HeatScene scene = scene(80, 8, 18);
        var alone = new SheetModel(scene, Multipliers.NOMINAL, Resolution.SEARCH);
        var mine = new SheetModel(scene, Multipliers.NOMINAL, Resolution.SEARCH);
        SheetModel other = mine.copy();
        HeatInput hot = HeatInput.of(Optional.of(220.0), Optional.empty());
        HeatInput hotter = HeatInput.of(Optional.of(320.0),
                Optional.of(new AirSetting(350, 25, 10, 20, 3)));
        for (int t = 0; t < 60; t += 2) {
            alone.advance(hot, 2);
            mine.advance(hot, 2);
            other.advance(hotter, 2);
        }
        assertEquals(mine.jointCentreC(), alone.jointCentreC(), 0.0);
        assertTrue(other.jointCentreC() > mine.jointCentreC() + 20);
    }

    /**
     * Heat that wanders across a wide board of heavy copper is what a sweep through the thickness is slowest at: with it alone
     * the usual tolerance left the joint 0.43 K off, now 0.17.
     */
    @Test
    public void heavyCopperIsSolvedAsWellAsThinBoards() {
        HeatScene heavy = scene(160, 12, 70);
        Resolution usual = Resolution.SEARCH;
        var exact = new Resolution(usual.targetCells(), usual.neighbourCells(), usual.sheets(),
                usual.finestMm(), usual.mergeMm(), usual.boardShare(), usual.shortestS(), usual.longestS(),
                true, 1e-6);
        var quick = new SheetModel(heavy, Multipliers.NOMINAL, usual);
        var slow = new SheetModel(heavy, Multipliers.NOMINAL, exact);
        double worst = 0;
        Set<Long> looked = new HashSet<>();
        for (int t = 0; t < 400; t += 4) {
            HeatInput input = HeatInput.of(Optional.of(t < 250 ? 240.0 : 280.0),
                    t < 250 ? Optional.empty() : Optional.of(new AirSetting(380, 28, 12, 15, 4)));
            quick.advance(input, 4);
            slow.advance(input, 4);
            looked.add(Math.round(slow.jointCentreC()));
            worst = Math.max(worst, Math.abs(quick.jointCentreC() - slow.jointCentreC()));
        }
        assertTrue(looked.size() > 50, "the joint went through " + looked.size() + " degrees");
        assertTrue(worst < 0.3, worst + " K");
    }

    /** The library's own cube root is the reference. */
    @Test
    public void cubeRootsAgreeWithTheLibrary() {
        for (double x = 1e-9; x < 1e12; x *= 1.037) {
            assertEquals(BenchSurroundings.cubeRoot(x) / StrictMath.cbrt(x), 1.0, 1e-13, "of " + x);
        }
    }
}
