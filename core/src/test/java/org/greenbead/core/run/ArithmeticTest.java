package org.greenbead.core.run;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Slopes, lags and cooling against their exact answers. */
public class ArithmeticTest {
    @DataProvider
    Object[][] lines() {
        return new Object[][]{{0.0}, {2.5}, {-6.0}};
    }

    /** Up to 29 % outliers leave the median of slopes alone. */
    private static MeltProof proof(Evidence.Kind... kinds) {
        return new MeltProof(java.util.Arrays.stream(kinds)
                .map(k -> new Evidence(k, 10, 200, 195, 205, "", Evidence.Standing.COUNTS)).toList());
    }

    @Test(dataProvider = "lines")
    public void robustSlopeIgnoresOutliers(double slope) {
        var random = new Random(7);
        double[] x = new double[20];
        double[] y = new double[20];
        for (int i = 0; i < x.length; i++) {
            x[i] = i * 0.5;
            y[i] = 100 + slope * x[i] + (i % 5 == 3 ? 200 * random.nextGaussian() : 0);
        }
        assertEquals(RobustSlope.of(x, y), slope, 1e-9);
    }

    @Test
    public void slopeNeedsThreePoints() {
        assertTrue(Double.isNaN(RobustSlope.of(new double[]{0, 1}, new double[]{0, 1})));
        assertTrue(Double.isNaN(RobustSlope.of(new double[]{1, 1, 1}, new double[]{0, 1, 2})));
    }

    @Test
    public void traceKnowsItsSpan() {
        var trace = new Trace();
        for (int i = 0; i <= 40; i++) {
            trace.add(i * 0.5, 20 + i * 0.5 * 1.5);
        }
        assertEquals(trace.slope(10, 20), 1.5, 1e-9);
        assertEquals(trace.median(10, 1), 35, 0.8);
        assertTrue(Double.isNaN(trace.slope(30, 40)), "nothing there");
        assertEquals(trace.unchangedS(), 0.0);
        assertEquals(trace.rangeSince(10), 15, 1e-9);
    }

    @Test
    public void traceForgetsAfterTwoMinutesAndSeesStandstill() {
        var trace = new Trace();
        for (int i = 0; i <= 400; i++) {
            trace.add(i, i < 370 ? i : 370);
        }
        assertEquals(trace.unchangedS(), 30, 1e-9);
        assertTrue(trace.values().length <= 122);
    }

    /** 60, 92, 114 at 30 s: q 0.6875, tau 80 s, plateau 162.4; 150 is reached 109 s after the third. */
    @Test
    public void lagOfThreeReadings() {
        HeatLag lag = HeatLag.from(60, 92, 114, 30).orElseThrow();
        assertEquals(lag.tauS(), 80, 0.1);
        assertEquals(lag.plateauC(), 162.4, 0.05);
        assertEquals(lag.arrivesInS(150).orElseThrow(), 109, 0.6);
        assertTrue(lag.arrivesInS(170).isEmpty());
        assertEquals(lag.arrivesInS(100).orElseThrow(), 0.0);
    }

    @DataProvider
    Object[][] rises() {
        return new Object[][]{{40.0, 150.0, 25.0}, {120.0, 200.0, 60.0}, {300.0, 90.0, 23.0}};
    }

    /** Exact first-order rise: the three readings give tau and plateau back. */
    @Test(dataProvider = "rises")
    public void lagIsExactForAFirstOrderRise(double tau, double plateau, double start) {
        double[] t = new double[3];
        for (int i = 0; i < 3; i++) {
            t[i] = plateau + (start - plateau) * Math.exp(-(20 + 25.0 * i) / tau);
        }
        HeatLag lag = HeatLag.from(t[0], t[1], t[2], 25).orElseThrow();
        assertEquals(lag.tauS(), tau, 1e-6 * tau);
        assertEquals(lag.plateauC(), plateau, 1e-6 * plateau);
        double target = (t[2] + plateau) / 2;
        double wanted = lag.arrivesInS(target).orElseThrow();
        assertEquals(plateau + (t[2] - plateau) * Math.exp(-wanted / tau), target, 1e-6);
        assertEquals(lag.plateauToReach(target, wanted), plateau, 1e-6 * plateau);
    }

    @Test
    public void noLagWithoutASlowingRise() {
        assertTrue(HeatLag.from(100, 100, 100, 25).isEmpty());
        assertTrue(HeatLag.from(100, 90, 80, 25).isEmpty());
        assertTrue(HeatLag.from(100, 110, 125, 25).isEmpty(), "a rise that gets faster has no plateau");
    }

    /** Gain 0.5 over the room: 10 K more plateau need 20 K more set-point. */
    @Test
    public void curingSetPointFollowsTheGain() {
        var lag = new HeatLag(80, 123, 110);
        assertEquals(lag.curingSetC(133, 223, 23), 243, 1e-9);
    }

    /** 238 to 163 at room 22, tau 75: 32 s; to 40: 186 s. */
    @Test
    public void coolDownTimes() {
        assertEquals(CoolDown.secondsTo(238, 163, 22, 75), 32, 0.5);
        assertEquals(CoolDown.secondsTo(238, 40, 22, 75), 186, 0.5);
        assertEquals(CoolDown.secondsTo(30, 40, 22, 75), 0.0);
        assertThrows(IllegalArgumentException.class, () -> CoolDown.secondsTo(100, 20, 22, 75));
    }

    @Test
    public void evidenceAddsUp() {
        assertEquals(MeltProof.NONE.strength(), MeltProof.Strength.UNPROVEN);
        assertEquals(proof(Evidence.Kind.NUDGE).strength(), MeltProof.Strength.PROBABLE);
        assertEquals(proof(Evidence.Kind.NUDGE, Evidence.Kind.NUDGE).strength(), MeltProof.Strength.PROBABLE);
        assertEquals(proof(Evidence.Kind.NUDGE, Evidence.Kind.PLATEAU).strength(), MeltProof.Strength.PROVEN);
        assertEquals(proof(Evidence.Kind.NUDGE, Evidence.Kind.ESTIMATE).strength(),
                MeltProof.Strength.PROVEN);
        assertEquals(proof(Evidence.Kind.NUDGE, Evidence.Kind.EYE).strength(), MeltProof.Strength.PROVEN);
        assertEquals(proof(Evidence.Kind.PROBE_AT_JOINT).strength(), MeltProof.Strength.PROVEN);
        assertEquals(proof(Evidence.Kind.PLATEAU, Evidence.Kind.ESTIMATE).strength(),
                MeltProof.Strength.PROBABLE);
    }
}
