package org.greenbead.core.calibrate;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.CancellationException;
import java.util.function.DoubleFunction;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.bench.Calibration;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.World;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.Multipliers;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;
import org.greenbead.core.thermal.Uncertainty;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class CalibratorTest {
    private static final RunPlan PLAN = World.plan(World.usualRecipe());

    /** Three minutes of heater, ninety seconds of air, a minute of cooling. */
    private static HeatInput whole(double timeS) {
        return timeS < 190
                ? HeatInput.of(Optional.of(230.0), Optional.empty())
                : timeS < 285
                        ? HeatInput.of(Optional.of(230.0), Optional.of(new AirSetting(320, 26, 10, 22, 5)))
                        : HeatInput.OFF;
    }

    /** Another heating: cooler plate, hotter and stronger air, nearer, wider circle. */
    private static HeatInput other(double timeS) {
        return timeS < 150
                ? HeatInput.of(Optional.of(180.0), Optional.empty())
                : timeS < 250
                        ? HeatInput.of(Optional.of(180.0), Optional.of(new AirSetting(370, 32, 10, 16, 8)))
                        : HeatInput.OFF;
    }

    private static HeatInput heaterOnly(double timeS) {
        return HeatInput.of(Optional.of(230.0), Optional.empty());
    }

    /** A log of the full model with other multipliers, through lagging beads with a kelvin of noise. */
    private static Logged log(Multipliers truth, DoubleFunction<HeatInput> program, int seconds, long seed) {
        var model = new SheetModel(PLAN.scene(), truth, Resolution.FULL);
        var random = new Random(seed);
        double[] bead = {23, 23};
        var moments = new ArrayList<Logged.Moment>();
        for (int t = 1; t <= seconds; t++) {
            HeatInput input = program.apply(t - 0.5);
            model.advance(input, 1);
            double[] shown = new double[2];
            for (int p = 0; p < 2; p++) {
                bead[p] += (model.probeC(PLAN.bench().probes().get(p)) - bead[p]) * (1 - Math.exp(-1 / 1.5));
                shown[p] = bead[p] + random.nextGaussian();
            }
            moments.add(new Logged.Moment(t, input, shown));
        }
        return new Logged("run-" + seed, PLAN, moments);
    }

    private static Logged changed(Logged log, java.util.function.UnaryOperator<double[]> how) {
        return new Logged(log.run(), log.plan(), log.moments().stream()
                .map(m -> new Logged.Moment(m.timeS(), m.input(), how.apply(m.probesC().clone()))).toList());
    }

    private static Fit fit(Logged log) throws RefusedException {
        return Calibrator.fit(log, d -> {
        }, () -> false);
    }

    private static double[] joint(Multipliers multipliers, DoubleFunction<HeatInput> program) {
        var model = new SheetModel(PLAN.scene(), multipliers, Resolution.FULL);
        double[] joint = new double[300];
        for (int t = 0; t < joint.length; t++) {
            model.advance(program.apply(t + 0.5), 1);
            joint[t] = model.jointCentreC();
        }
        return joint;
    }

    private static double rms(double[] a, double[] b) {
        double squares = 0;
        for (int i = 0; i < a.length; i++) {
            squares += (a[i] - b[i]) * (a[i] - b[i]);
        }
        return Math.sqrt(squares / a.length);
    }

    @DataProvider
    Object[][] benches() {
        return new Object[][]{{new Multipliers(0.70, 1.30, 1.25, 0.65), 1L},
                {new Multipliers(1.30, 0.70, 0.80, 1.40), 2L}, {new Multipliers(0.62, 0.75, 1.20, 1.30), 3L}};
    }

    @Test(dataProvider = "benches")
    public void oneRunPredictsTheJointOfAnother(Multipliers truth, long seed) throws RefusedException {
        Fit fit = fit(log(truth, CalibratorTest::whole, 345, seed));
        Calibration said = fit.calibration();
        double[] wanted = {truth.jet(), truth.preheater(), truth.boardHeat(), truth.boardConductivity()};
        Calibration.Factor[] found = {said.jet(), said.preheater(), said.boardHeat(),
                said.boardConductivity()};
        for (int p = 0; p < 4; p++) {
            // The search model it is fitted with is not the full one that made the log; that is worth a few per cent of its own.
            double slack = 3 * found[p].sdLn() + 0.08;
            assertTrue(Math.abs(Math.log(found[p].value() / wanted[p])) < slack,
                    "factor " + p + ": " + found[p]);
            assertTrue(found[p].determined(), "factor " + p);
        }
        double[] reality = joint(truth, CalibratorTest::other);
        double[] predicted = joint(new Multipliers(found[0].value(), found[1].value(), found[2].value(),
                found[3].value()), CalibratorTest::other);
        double[] blind = joint(Multipliers.NOMINAL, CalibratorTest::other);
        assertTrue(rms(reality, predicted) < 3, "joint rms " + rms(reality, predicted));
        assertEquals(max(predicted), max(reality), 5, "peak");
        assertTrue(rms(reality, predicted) < 0.5 * rms(reality, blind), "better than without");
        assertTrue(fit.afterK()[0] < 2 && fit.afterK()[1] < 2, "residual");
        assertTrue(fit.remarks().isEmpty(), fit.remarks().toString());
    }

    private static double max(double[] values) {
        return java.util.Arrays.stream(values).max().orElseThrow();
    }

    @Test
    public void whatARunDoesNotTellIsSaid() throws RefusedException {
        Fit fit = fit(log(new Multipliers(1.2, 1.2, 1, 1), CalibratorTest::heaterOnly, 260, 4));
        assertFalse(fit.calibration().jet().determined(), "no air was blown: " + fit.calibration().jet());
        assertEquals(fit.calibration().jet().value(), 1, 0.05);
        assertTrue(fit.calibration().preheater().determined());
        assertEquals(fit.calibration().nozzleMm(), 0.0);
    }

    @Test
    public void tooLittleIsRefusedWithTheReason() {
        Logged good = log(Multipliers.NOMINAL, CalibratorTest::whole, 345, 5);
        Logged brief = new Logged("r", PLAN, good.moments().subList(0, 100));
        assertEquals(expectThrows(RefusedException.class, () -> fit(brief)).why().key(), "fit.short");
        Logged cold = log(Multipliers.NOMINAL, t -> HeatInput.OFF, 200, 6);
        assertEquals(expectThrows(RefusedException.class, () -> fit(cold)).why().key(), "fit.cold");
        Logged single = changed(good, p -> new double[]{p[0], Double.NaN});
        assertEquals(expectThrows(RefusedException.class, () -> fit(single)).why().key(), "fit.few_probes");
    }

    @Test
    public void aFrozenProbeIsLeftOutAndNamed() {
        double[] last = {Double.NaN};
        int[] at = {0};
        Logged stuck = changed(log(Multipliers.NOMINAL, CalibratorTest::whole, 345, 7), p -> {
            at[0]++;
            last[0] = at[0] <= 60 ? p[1] : last[0];
            return new double[]{p[0], last[0]};
        });
        RefusedException refused = expectThrows(RefusedException.class, () -> fit(stuck));
        assertEquals(refused.why().key(), "fit.few_probes");
    }

    @Test
    public void gapsAreBridgedAndSwappedProbesAreSeen() throws RefusedException {
        Multipliers truth = new Multipliers(0.8, 1.2, 1.1, 0.8);
        Logged log = log(truth, CalibratorTest::whole, 345, 8);
        int[] at = {0};
        Fit holed = fit(changed(log, p -> at[0]++ % 9 < 2 ? new double[]{Double.NaN, p[1]} : p));
        assertEquals(holed.calibration().jet().value(), truth.jet(), 0.12);
        assertFalse(holed.swapped());
        Fit crossed = fit(changed(log, p -> new double[]{p[1], p[0]}));
        assertTrue(crossed.swapped(), crossed.remarks().toString());
    }

    @Test
    public void canBeCancelled() {
        Logged log = log(Multipliers.NOMINAL, CalibratorTest::whole, 200, 9);
        expectThrows(CancellationException.class, () -> Calibrator.fit(log, d -> {
        }, () -> true));
    }

    private static Calibration said(String run, double jet, double nozzle) {
        var sure = new Calibration.Factor(1.1, 0.03, true);
        return new Calibration(run, "WB-7", nozzle, 26, new Calibration.Factor(jet, 0.04, true), sure, sure,
                sure, 1.2,
                true);
    }

    @Test
    public void aBenchGathersItsRunsAndDoubtsAnOutlier() {
        Bench bench = World.bench();
        bench = History.with(bench, said("a", 0.80, 10));
        Uncertainty one = Uncertainty.of(bench, "WB-7", 10, 26);
        bench = History.with(bench, said("b", 0.84, 10));
        bench = History.with(bench, said("c", 0.82, 10));
        Uncertainty three = Uncertainty.of(bench, "WB-7", 10, 26);
        assertEquals(three.mean().jet(), 0.82, 0.02);
        assertTrue(three.jetLn() < one.jetLn() && one.jetLn() < Uncertainty.UNCALIBRATED.jetLn());
        assertTrue(Uncertainty.of(bench, "WB-7", 14, 26).jetLn() > three.jetLn(),
                "another nozzle is less known");
        assertEquals(Uncertainty.of(bench, "TG-2", 10, 26).boardHeatLn(),
                Uncertainty.UNCALIBRATED.boardHeatLn(), 1e-9,
                "another board is not known at all");
        Bench odd = History.with(bench, said("d", 1.9, 10));
        assertFalse(odd.calibrations().getLast().counted(), "kept, not counted");
        assertEquals(Uncertainty.of(odd, "WB-7", 10, 26).mean().jet(), three.mean().jet(), 1e-12);
        Bench trusted = History.counting(odd, "d", true);
        assertTrue(Uncertainty.of(trusted, "WB-7", 10, 26).mean().jet() > three.mean().jet());
        assertEquals(History.with(odd, said("a", 0.81, 10)).calibrations().size(), 4,
                "the same run again replaces itself");
    }

    @Test
    public void drawsSpreadAsTheySay() {
        List<Multipliers> drawn = Uncertainty.UNCALIBRATED.draw(32, 5);
        double mean = drawn.stream().mapToDouble(m -> Math.log(m.jet())).average().orElseThrow();
        double sd = Math
                .sqrt(drawn.stream().mapToDouble(m -> Math.pow(Math.log(m.jet()) - mean, 2)).sum() / 31);
        assertEquals(mean, 0, 0.02);
        assertEquals(sd, 0.30, 0.03);
        assertEquals(drawn, Uncertainty.UNCALIBRATED.draw(32, 5), "same seed, same benches");
    }
}
