package org.greenbead.core.thermal;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.bench.AirStation;
import org.greenbead.core.bench.BottomHeater;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.run.World;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class SheetModelTest {
    private static final AirStation AIR = new AirStation("air", List.of(10.0), 480, 120, 0.05, 6, 1);

    private static HeatScene scene(Optional<BottomHeater> heater, double ambient, double start) {
        Board board = World.board(World.processor("SAC305", 0, 0),
                World.neighbour("U2", Side.TOP, 57, 58, "SAC305"));
        return new HeatScene(board, "U1", ambient, heater, new Point(36, 58), start, AIR,
                World.bench().probes(), 0.9, 1e-3, Optional.empty());
    }

    private static BottomHeater open(double multiplier) {
        return new BottomHeater("plate", false, new Point(120, 100), 10, 0.9, 6.5, 45, 240, 400, multiplier);
    }

    private static HeatInput heating(double heaterC, double airC) {
        return HeatInput.of(Optional.of(heaterC),
                airC > 0 ? Optional.of(new AirSetting(airC, 28, 10, 20, 6)) : Optional.empty());
    }

    private static void run(HeatModel model, HeatInput input, double seconds, double step) {
        for (double t = 0; t < seconds - 1e-9; t += step) {
            model.advance(input, step);
        }
    }

    @Test
    public void nothingMovesAtRoomTemperature() {
        var model = new SheetModel(scene(Optional.of(open(1)), 25, 25), Multipliers.NOMINAL, Resolution.FULL);
        run(model, HeatInput.of(Optional.of(25.0), Optional.empty()), 60, 0.5);
        assertEquals(model.jointCentreC(), 25, 1e-9);
        assertEquals(model.packageTopC(), 25, 1e-9);
        assertEquals(model.boardC(Side.BOTTOM, new Point(5, 5)), 25, 1e-9);
    }

    @DataProvider
    Object[][] heatings() {
        return new Object[][]{{"heater alone", 200.0, 0.0}, {"heater and air", 240.0, 340.0},
                {"air alone", 25.0, 400.0}};
    }

    /** What is stored came in through the faces: error below 0.5 % wanted, rounding expected. */
    @Test(dataProvider = "heatings")
    public void heatAddsUp(String name, double heater, double air) {
        var model = new SheetModel(scene(Optional.of(open(1)), 25, 25), Multipliers.NOMINAL, Resolution.FULL);
        run(model, heating(heater, air), 300, 0.5);
        run(model, HeatInput.OFF, 120, 0.5);
        assertTrue(model.energy().throughputJ() > 100, name);
        assertTrue(model.energy().error() < 1e-9, name + ": " + model.energy());
    }

    @Test
    public void heaterFollowsItsSetPointExactlyForAnyStep() {
        for (double step : new double[]{0.1, 0.5, 5}) {
            var model = new SheetModel(scene(Optional.of(open(1)), 25, 25), Multipliers.NOMINAL,
                    Resolution.FULL);
            run(model, heating(125, 0), 45, step);
            assertEquals(model.heaterC(), 25 + 100 * (1 - Math.exp(-1)), 1e-9,
                    "after one time constant, step " + step);
        }
    }

    @Test
    public void nozzleFollowsItsLag() {
        var model = new SheetModel(scene(Optional.empty(), 25, 25), Multipliers.NOMINAL, Resolution.FULL);
        run(model, HeatInput.of(Optional.empty(), Optional.of(new AirSetting(360, 24, 10, 20, 0))), 6, 0.5);
        double goal = Jet.exitC(360, 25, 24, 0.05);
        assertEquals(model.airExitC(), 25 + (goal - 25) * (1 - Math.exp(-1)), 1e-9);
    }

    /** A weak coupling everywhere: after the fast modes have died, equal times of the rise stand in one ratio, that of a lumped body. */
    @Test
    public void risesLikeALumpedBodyWhenOneResistanceRules() {
        var weak = new BottomHeater("plate", true, new Point(400, 400), 10, 0.9, 20, 1, 1, 400, 1);
        var model = new SheetModel(scene(Optional.of(weak), 25, 25), Multipliers.NOMINAL, Resolution.FULL);
        run(model, heating(60, 0), 3000, 1);
        run(model, heating(70, 0), 60, 1);
        double[] at = new double[4];
        for (int i = 0; i < at.length; i++) {
            at[i] = model.jointCentreC();
            run(model, heating(70, 0), 40, 1);
        }
        double first = (at[2] - at[1]) / (at[1] - at[0]);
        double second = (at[3] - at[2]) / (at[2] - at[1]);
        assertTrue(first > 0.3 && first < 0.9, "slows: " + first);
        assertEquals(second, first, 0.02);
    }

    @Test
    public void steadyStateDoesNotDependOnTheStep() {
        double[] found = new double[3];
        double[] steps = {0.25, 0.5, 2};
        for (int i = 0; i < steps.length; i++) {
            var model = new SheetModel(scene(Optional.of(open(1)), 25, 25), Multipliers.NOMINAL,
                    Resolution.FULL);
            run(model, heating(160, 250), 1500, steps[i]);
            found[i] = model.jointCentreC();
        }
        assertEquals(found[0], found[1], 0.05);
        assertEquals(found[2], found[1], 0.05);
    }

    @Test
    public void halvingTheStepChangesTheTraceByLessThanADegree() {
        var coarse = new SheetModel(scene(Optional.of(open(1)), 25, 25), Multipliers.NOMINAL,
                Resolution.FULL);
        var fine = new SheetModel(scene(Optional.of(open(1)), 25, 25), Multipliers.NOMINAL, Resolution.FULL);
        for (int i = 0; i < 240; i++) {
            coarse.advance(heating(200, 0), 0.5);
            fine.advance(heating(200, 0), 0.25);
            fine.advance(heating(200, 0), 0.25);
            assertEquals(coarse.jointCentreC(), fine.jointCentreC(), 1.0, "at " + i);
        }
    }

    /** With heat the joint rests near its melting range for about latent heat over power; without it, it does not. */
    @Test
    public void meltingHoldsTheJointBack() {
        var model = new SheetModel(scene(Optional.of(open(1)), 25, 25), Multipliers.NOMINAL, Resolution.FULL);
        run(model, heating(250, 0), 300, 0.5);
        double before = 0;
        double during = 0;
        double last = model.jointCentreC();
        for (int i = 0; i < 600 && model.jointCentreC() < 228; i++) {
            model.advance(heating(250, 360), 0.25);
            double rate = (model.jointCentreC() - last) / 0.25;
            if (last > 205 && last < 214) {
                before = Math.max(before, rate);
            }
            if (last > 217.2 && last < 219.8) {
                during = Math.max(during, rate);
            }
            last = model.jointCentreC();
        }
        assertTrue(last >= 228, "it melts");
        assertTrue(during < 0.8 * before, "slope " + during + " on the plateau, " + before + " before it");
    }

    @Test
    public void liquidPartGoesFromNothingToAll() {
        var model = new SheetModel(scene(Optional.of(open(1)), 25, 25), Multipliers.NOMINAL, Resolution.FULL);
        assertEquals(model.liquidFraction(), 0.0);
        run(model, heating(250, 0), 240, 0.5);
        double last = 0;
        for (int i = 0; i < 400; i++) {
            model.advance(heating(250, 400), 0.5);
            assertTrue(model.liquidFraction() >= last - 1e-12, "melts on while it heats");
            last = model.liquidFraction();
        }
        assertEquals(last, 1.0, 1e-9);
        assertTrue(model.jointMinC() >= 220);
        assertTrue(model.jointMinC() <= model.jointCentreC() && model.jointCentreC() <= model.jointMaxC());
    }

    @DataProvider
    Object[][] stronger() {
        return new Object[][]{{"hotter air", new AirSetting(360, 28, 10, 20, 6)},
                {"more flow", new AirSetting(340, 34, 10, 20, 6)},
                {"closer", new AirSetting(340, 28, 10, 12, 6)},
                {"held still", new AirSetting(340, 28, 10, 20, 0)}};
    }

    @Test(dataProvider = "stronger")
    public void moreAirNeverHeatsLess(String name, AirSetting air) {
        double usual = after(new AirSetting(340, 28, 10, 20, 6), 1);
        assertTrue(after(air, 1) > usual, name);
    }

    @Test
    public void strongerHeaterHeatsMore() {
        AirSetting air = new AirSetting(340, 28, 10, 20, 6);
        assertTrue(after(air, 1.3) > after(air, 1) && after(air, 1) > after(air, 0.7));
    }

    private static double after(AirSetting air, double heaterMultiplier) {
        var model = new SheetModel(scene(Optional.of(open(heaterMultiplier)), 25, 25), Multipliers.NOMINAL,
                Resolution.FULL);
        run(model, heating(200, 0), 120, 0.5);
        run(model, HeatInput.of(Optional.of(200.0), Optional.of(air)), 60, 0.5);
        return model.jointCentreC();
    }

    @Test
    public void sameInputSameBits() {
        var a = new SheetModel(scene(Optional.of(open(1)), 25, 25), new Multipliers(1.1, 0.9, 1.05, 0.8),
                Resolution.FULL);
        var b = new SheetModel(scene(Optional.of(open(1)), 25, 25), new Multipliers(1.1, 0.9, 1.05, 0.8),
                Resolution.FULL);
        run(a, heating(220, 330), 100, 0.5);
        run(b, heating(220, 330), 100, 0.5);
        assertEquals(Double.doubleToLongBits(a.jointCentreC()), Double.doubleToLongBits(b.jointCentreC()));
        assertEquals(a.energy(), b.energy());
    }

    @Test
    public void copyGoesItsOwnWay() {
        var model = new SheetModel(scene(Optional.of(open(1)), 25, 25), Multipliers.NOMINAL, Resolution.FULL);
        run(model, heating(220, 0), 60, 0.5);
        HeatModel copy = model.copy();
        assertEquals(copy.jointCentreC(), model.jointCentreC());
        run(copy, heating(220, 0), 30, 0.5);
        run(model, HeatInput.OFF, 30, 0.5);
        assertNotEquals(copy.jointCentreC(), model.jointCentreC());
        assertEquals(copy.timeS(), 90, 1e-9);
    }

    @Test
    public void fanCoolsFaster() {
        var still = new SheetModel(scene(Optional.of(open(1)), 25, 25), Multipliers.NOMINAL, Resolution.FULL);
        run(still, heating(250, 350), 200, 0.5);
        HeatModel blown = still.copy();
        run(still, HeatInput.OFF, 30, 0.5);
        run(blown, new HeatInput(Optional.empty(), Optional.empty(), 45, 20), 30, 0.5);
        assertTrue(blown.jointCentreC() < still.jointCentreC() - 10);
    }

    @Test
    public void shiftedHeatIsCountedInTheBalance() {
        var model = new SheetModel(scene(Optional.of(open(1)), 25, 25), Multipliers.NOMINAL, Resolution.FULL);
        run(model, heating(150, 0), 60, 0.5);
        for (int i = 0; i < model.cells(); i++) {
            model.addHeatJ(i, 0.1);
        }
        assertTrue(model.energy().error() < 1e-9);
    }

    @Test
    public void refusesAnUnknownChipAndSenselessSteps() {
        var model = new SheetModel(scene(Optional.empty(), 25, 25), Multipliers.NOMINAL, Resolution.SEARCH);
        assertThrows(IllegalArgumentException.class, () -> model.jointC("U77"));
        assertThrows(IllegalArgumentException.class, () -> model.advance(HeatInput.OFF, 0));
        assertThrows(IllegalArgumentException.class, () -> model.advance(HeatInput.OFF, Double.NaN));
    }

    @Test
    public void boardMaterialFollowsItsCopper() {
        HeatScene.Laminate thin = scene(Optional.empty(), 25, 25).boardMaterial();
        double copper = 8 * 0.018;
        assertEquals(thin.kInPlaneWPerMK(),
                390 * copper * Math.pow(0.5, 1.5) / 1.0 + 0.8 * (1 - copper * 0.5), 1e-9);
        assertEquals(thin.heatJPerM3K(), 3.45e6 * copper * 0.5 + 1.95e6 * (1 - copper * 0.5), 1e-3);
    }
}
