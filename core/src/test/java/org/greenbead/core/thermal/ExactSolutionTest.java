package org.greenbead.core.thermal;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Optional;
import java.util.function.IntToDoubleFunction;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.bench.AirStation;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Layer;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;
import org.hipparchus.special.Erf;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The sheets against solutions that are known in closed form (Carslaw and Jaeger 1959, Conduction of Heat in Solids). */
public class ExactSolutionTest {
    private static final double NOTHING = 1e-9;

    /** Faces with a coefficient and a temperature of their own. */
    private record Fixed(IntToDoubleFunction h, IntToDoubleFunction ref) implements Surroundings {
        @Override
        public void advance(HeatInput input, double stepS) {
            // Nothing has a lag.
        }

        @Override
        public void exchange(double[] surfaceC, double[] hWPerM2K, double[] refC, double supportC) {
            for (int f = 0; f < surfaceC.length; f++) {
                hWPerM2K[f] = h.applyAsDouble(f);
                refC[f] = ref.applyAsDouble(f);
            }
        }

        @Override
        public double heaterC() {
            return 25;
        }

        @Override
        public double airExitC() {
            return 25;
        }

        @Override
        public Surroundings copy() {
            return this;
        }
    }

    /** A plain plate with a speck of a chip in one corner, far from where anything is read. */
    private static HeatScene plate(double xMm, double yMm, double thickMm, double k, double kThrough,
            double heat,
            double ambientC) {
        var layers = List.<Layer>of(new Layer.Joint(0.01, 0.4, 0.1, Alloys.require("SAC305"), false, 0.02),
                new Layer.Plain(Layer.Material.SUBSTRATE, 0.01));
        var chip = new Chip("U1", "speck", Side.TOP, new Point(xMm - 0.6, yMm - 0.6), new Point(1, 1), layers,
                250,
                0, 3, 168, 0);
        var board = new Board("plate", "plate", new Point(xMm, yMm), thickMm, 1, 35, 0.5, kThrough,
                List.of(chip),
                List.of());
        var air = new AirStation("none", List.of(10.0), 400, 100, 0.05, 6, 1);
        return new HeatScene(board, "U1", ambientC, Optional.empty(), new Point(0, 0), ambientC, air,
                List.of(),
                0.9, 0, Optional.of(new HeatScene.Laminate(k, heat)));
    }

    private static Resolution cut(int sheets, double boardShare, double stepS) {
        return new Resolution(2, 1, sheets, 1, 0.3, boardShare, stepS, stepS, false, 1e-6);
    }

    private static void run(SheetModel model, double seconds, double step) {
        for (int i = 0; i < Math.round(seconds / step); i++) {
            model.advance(HeatInput.OFF, step);
        }
    }

    /** Temperature of the sheet {@code up} from below in the corner column away from the speck. */
    private static double sheet(SheetGrid grid, SheetModel model, int up) {
        return model.celsius(grid.boardCell(0, Side.BOTTOM) + up);
    }

    @Test
    public void slabHeatedFromBothFaces() {
        HeatScene scene = plate(10, 10, 2, 0.35, 0.35, 2.0e6, 25);
        Resolution cut = cut(16, 4, 0.05);
        var grid = new SheetGrid(scene, Multipliers.NOMINAL, cut);
        var model = new SheetModel(scene, grid, cut,
                new Fixed(f -> grid.facing[f] == SheetGrid.Facing.SIDEWAYS ? NOTHING : 120, f -> 150));
        run(model, 20, 0.05);
        // First eigenvalues of the Biot number 120 * 0.001 / 0.35, four terms; 105.16 and 111.87 in the middle and at the skin.
        assertEquals((sheet(grid, model, 7) + sheet(grid, model, 8)) / 2, 105.16, 0.3);
        assertEquals(model.boardC(Side.BOTTOM, new Point(1, 1)), 111.87, 0.3);
    }

    @Test
    public void halfSpaceBehindAConvectingFace() {
        double k = 0.35;
        double heat = 2.0e6;
        double h = 200;
        HeatScene scene = plate(10, 10, 5, k, k, heat, 25);
        Resolution cut = cut(50, 4, 0.02);
        var grid = new SheetGrid(scene, Multipliers.NOMINAL, cut);
        var model = new SheetModel(scene, grid, cut,
                new Fixed(f -> grid.facing[f] == SheetGrid.Facing.DOWN ? h : NOTHING, f -> 250));
        double t = 8;
        run(model, t, 0.02);
        for (int i : new int[]{0, 10, 20}) {
            double x = (i + 0.5) * 1e-4;
            double root = Math.sqrt(k / heat * t);
            double exact = Erf.erfc(x / (2 * root)) - Math.exp(h * x / k + h * h * root * root / (k * k))
                    * Erf.erfc(x / (2 * root) + h * root / k);
            assertEquals(sheet(grid, model, i), 25 + 225 * exact, 0.4, "depth " + x);
        }
    }

    @Test
    public void inPlaneSpotSpreadsAsAGaussian() {
        HeatScene scene = plate(80, 80, 1, 20, 0.35, 2.0e6, 25);
        Resolution cut = cut(1, 80, 0.05);
        var grid = new SheetGrid(scene, Multipliers.NOMINAL, cut);
        var model = new SheetModel(scene, grid, cut, new Fixed(f -> NOTHING, f -> 25));
        int nx = grid.xMm.length - 1;
        for (int col = 0; col < grid.columns; col++) {
            double dx = grid.middleX(col % nx) - 40;
            double dy = grid.middleY(col / nx) - 40;
            model.startAt(grid.boardCell(col, Side.TOP),
                    25 + 100 * Math.exp(-(dx * dx + dy * dy) / (2 * 25)));
        }
        run(model, 4, 0.05);
        assertEquals(model.boardC(Side.TOP, new Point(40, 40)) - 25, 100 * 25e-6 / (25e-6 + 2 * 1e-5 * 4),
                0.5);
    }

    @Test
    public void finHeldHotAtOneEnd() {
        HeatScene scene = plate(60, 10, 1, 15, 400, 2.0e6, 25);
        Resolution cut = cut(1, 60, 5);
        var grid = new SheetGrid(scene, Multipliers.NOMINAL, cut);
        int nx = grid.xMm.length - 1;
        double h = 20;
        // The first column is held hot through both of its faces.
        IntToDoubleFunction hot = f -> grid.facing[f] == SheetGrid.Facing.SIDEWAYS
                ? NOTHING
                : grid.faceColumn[f] % nx == 0 ? 1e7 : h;
        var model = new SheetModel(scene, grid, cut,
                new Fixed(hot, f -> hot.applyAsDouble(f) > 1e6 ? 125 : 25));
        run(model, 4000, 5);
        double m = Math.sqrt(2 * h / (15 * 0.001));
        for (double x : new double[]{5, 15, 30, 45}) {
            double exact = Math.cosh(m * (0.060 - x / 1000)) / Math.cosh(m * 0.0595);
            assertEquals(model.boardC(Side.TOP, new Point(x, 5)) - 25, 100 * exact, 0.6, "at " + x);
        }
    }

    @Test
    public void lumpCoolsExponentially() {
        HeatScene scene = plate(20, 20, 1, 300, 300, 2.0e6, 25);
        Resolution cut = cut(2, 10, 0.5);
        var grid = new SheetGrid(scene, Multipliers.NOMINAL, cut);
        double h = 15;
        var model = new SheetModel(scene, grid, cut, new Fixed(f -> h, f -> 25));
        double capacity = 0;
        for (int i = 0; i < grid.cells; i++) {
            model.startAt(i, 125);
            capacity += grid.heatJPerK[i];
        }
        double area = java.util.Arrays.stream(grid.areaM2).sum();
        run(model, 60, 0.5);
        assertEquals(model.boardC(Side.TOP, new Point(5, 5)) - 25, 100 * Math.exp(-h * area * 60 / capacity),
                0.4);
        assertTrue(model.energy().error() < 1e-6, model.energy().toString());
    }

    /** Neumann's solution of a melting front that starts at the melting point. */
    @Test
    public void stefanFrontMovesAsItShould() {
        double k = 30;
        double heat = 1.67e6;
        double latent = 4e8;
        HeatScene scene = plate(10, 10, 5, k, k, heat, 25);
        Resolution cut = cut(100, 4, 0.01);
        var grid = new SheetGrid(scene, Multipliers.NOMINAL, cut);
        for (int i = 0; i < grid.cells; i++) {
            double volume = grid.heatJPerK[i] / heat;
            grid.latentJ[i] = latent * volume;
            grid.solidusC[i] = 217;
            grid.liquidusC[i] = 217.02;
            grid.betaPerK[i] = 0;
        }
        var model = new SheetModel(scene, grid, cut,
                new Fixed(f -> grid.facing[f] == SheetGrid.Facing.DOWN ? 1e8 : NOTHING, f -> 257));
        java.util.stream.IntStream.range(0, grid.cells).forEach(i -> model.startAt(i, 217));
        double t = 20 * Math.pow(4.0 / 10.668, 2);
        run(model, t, 0.01);
        int molten = 0;
        double part = 0;
        for (int i = 0; i < 100; i++) {
            double at = sheet(grid, model, i);
            molten += at > 217.02 ? 1 : 0;
            part += at > 217 && at <= 217.02 ? (at - 217) / 0.02 : 0;
        }
        assertEquals((molten + part) * 0.05, 4.0, 0.06, "front, mm");
        double stefan = heat * 40 / latent;
        double low = 0.01;
        double high = 2;
        for (int i = 0; i < 60; i++) {
            double lambda = (low + high) / 2;
            boolean over = lambda * Math.exp(lambda * lambda) * Erf.erf(lambda) > stefan / Math.sqrt(Math.PI);
            low = over ? low : lambda;
            high = over ? lambda : high;
        }
        double x = 1.025e-3;
        double exact = 257 - 40 * Erf.erf(x / (2 * Math.sqrt(k / heat * t))) / Erf.erf(low);
        assertEquals(sheet(grid, model, 20), exact, 0.3);
    }

    @DataProvider
    Object[][] steps() {
        return new Object[][]{{0.01}, {0.5}, {60.0}};
    }

    /** Constant power into cells that melt: the plateau lasts latent heat plus the range's own heat over the power, in one step or many. */
    @Test(dataProvider = "steps")
    public void plateauLastsAsLongAsItsHeat(double step) {
        HeatScene scene = plate(10, 10, 1, 400, 400, 1.67e6, 25);
        Resolution cut = new Resolution(2, 1, 1, 1, 0.3, 4, Math.min(step, 10), Math.min(step, 10), false,
                1e-9);
        var grid = new SheetGrid(scene, Multipliers.NOMINAL, cut);
        double latent = 0;
        double heat = 0;
        for (int i = 0; i < grid.cells; i++) {
            grid.latentJ[i] = grid.heatJPerK[i] * 200;
            grid.solidusC[i] = 217;
            grid.liquidusC[i] = 220;
            grid.betaPerK[i] = 0;
            latent += grid.latentJ[i];
            heat += grid.heatJPerK[i];
        }
        double watt = 4.0;
        double area = 0;
        for (int f = 0; f < grid.areaM2.length; f++) {
            area += grid.facing[f] == SheetGrid.Facing.UP ? grid.areaM2[f] : 0;
        }
        // A power source: a weak coupling to something very far away.
        double far = 1e9;
        double h = watt / area / far;
        var model = new SheetModel(scene, grid, cut,
                new Fixed(f -> grid.facing[f] == SheetGrid.Facing.UP ? h : NOTHING * 1e-6, f -> far));
        java.util.stream.IntStream.range(0, grid.cells).forEach(i -> model.startAt(i, 217));
        double lasts = (latent + heat * 3) / watt;
        double over = 40 * heat / watt;
        double left = lasts + over;
        while (left > 1e-9) {
            double part = Math.min(step, left);
            model.advance(HeatInput.OFF, part);
            left -= part;
        }
        assertEquals(model.boardC(Side.BOTTOM, new Point(2, 2)), 220 + 40, 0.3);
    }
}
