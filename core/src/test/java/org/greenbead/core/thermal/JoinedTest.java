package org.greenbead.core.thermal;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.List;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.bench.Calibration;
import org.greenbead.core.run.World;
import org.testng.annotations.Test;

/** Runs of a bench put together: nothing counted twice, nothing learned from what was not told, what was told together stays together. */
public class JoinedTest {
    private static final List<Double> PRIOR = Calibration.FIT_PRIOR_LN;
    private static final double BETWEEN = 0.06;

    private static Calibration run(String name, double jet, double sdLn, List<Double> correlations) {
        var untold = new Calibration.Factor(1, PRIOR.get(2), false);
        return new Calibration(name, "WB-7", 10, 26, new Calibration.Factor(jet, sdLn, sdLn < 0.3),
                new Calibration.Factor(1 / jet, sdLn, sdLn < 0.3), untold,
                new Calibration.Factor(1, PRIOR.get(3), false), 2, true, correlations);
    }

    private static Uncertainty of(Calibration... runs) {
        Bench bench = World.bench().with(List.of(runs));
        return Uncertainty.of(bench, "WB-7", 10, 26);
    }

    /** A run that told nothing leaves what is held of any bench, however often it is added. */
    @Test
    public void whatWasNotToldTeachesNothing() {
        var untold = new Calibration.Factor(1, PRIOR.get(0), false);
        var none = new Calibration("r", "WB-7", 10, 26, untold, untold,
                new Calibration.Factor(1, PRIOR.get(2), false), untold, 2, true);
        var again = new Calibration("s", "WB-7", 10, 26, untold, untold,
                new Calibration.Factor(1, PRIOR.get(2), false), untold, 2, true);
        Uncertainty known = of(none, again);
        assertEquals(known.jetLn(), Uncertainty.UNCALIBRATED.jetLn(), 1e-9);
        assertEquals(known.preheaterLn(), Uncertainty.UNCALIBRATED.preheaterLn(), 1e-9);
        assertEquals(known.mean().jet(), 1, 1e-9);
    }

    /** One factor told alone, by hand: the fit's prior is taken out, the run's scatter put in, the bench's prior joined. */
    @Test
    public void oneRunByHand() {
        double sd = 0.1;
        double said = 1 / (sd * sd) - 1 / (0.4 * 0.4);
        double meanSaid = Math.log(0.8) / (sd * sd) / said;
        double blurred = 1 / (1 / said + BETWEEN * BETWEEN);
        double prior = 1 / Math.pow(Uncertainty.UNCALIBRATED.jetLn(), 2);
        Uncertainty known = of(run("a", 0.8, sd, List.of()));
        assertEquals(known.jetLn(), Math.sqrt(1 / (prior + blurred)), 1e-9);
        assertEquals(Math.log(known.mean().jet()), blurred * meanSaid / (prior + blurred), 1e-9);
    }

    /** Jet and heater known only together: each stays wide, their sum is narrow, and the draws show it. */
    @Test
    public void whatWasToldTogetherStaysTogether() {
        List<Double> opposed = List.of(-0.99, 0.0, 0.0, 0.0, 0.0, 0.0);
        Uncertainty known = of(run("a", 0.9, 0.28, opposed), run("b", 0.9, 0.28, opposed));
        assertTrue(known.jetLn() > 0.15 && known.preheaterLn() > 0.15,
                known.jetLn() + " " + known.preheaterLn());
        double[] sums = known.draw(200, 5).stream().mapToDouble(m -> Math.log(m.jet() * m.preheater()))
                .toArray();
        double mean = java.util.Arrays.stream(sums).average().orElseThrow();
        double sd = Math.sqrt(java.util.Arrays.stream(sums).map(s -> (s - mean) * (s - mean)).average()
                .orElseThrow());
        double apart = Math.hypot(known.jetLn(), known.preheaterLn());
        assertTrue(sd < 0.45 * apart, "together " + sd + ", apart " + apart);
        Uncertainty loose = of(run("a", 0.9, 0.28, List.of()), run("b", 0.9, 0.28, List.of()));
        assertTrue(loose.correlations().stream().allMatch(c -> Math.abs(c) < 1e-9));
    }

    /** The board's own factors are not carried to another board, and order does not matter. */
    @Test
    public void boardStaysWithItsBoardAndOrderDoesNotMatter() {
        var heavy = new Calibration("h", "WB-7", 10, 26, new Calibration.Factor(1, 0.1, true),
                new Calibration.Factor(1, 0.1, true), new Calibration.Factor(1.2, 0.05, true),
                new Calibration.Factor(1, 0.4, false), 2, true);
        Bench bench = World.bench().with(List.of(heavy));
        assertEquals(Uncertainty.of(bench, "other", 10, 26).mean().boardHeat(), 1.0, 1e-9);
        assertTrue(Uncertainty.of(bench, "WB-7", 10, 26).mean().boardHeat() > 1.1);
        Calibration a = run("a", 0.8, 0.1, List.of(0.3, 0.1, -0.2, 0.0, 0.2, 0.1));
        Uncertainty one = of(a, heavy);
        Uncertainty other = of(heavy, a);
        assertEquals(one.jetLn(), other.jetLn(), 1e-9);
        assertEquals(one.mean().preheater(), other.mean().preheater(), 1e-9);
    }

    @Test
    public void correlationsAreSixOrNone() {
        assertThrows(IllegalArgumentException.class, () -> run("a", 1, 0.1, List.of(0.5)));
        assertThrows(IllegalArgumentException.class,
                () -> run("a", 1, 0.1, List.of(1.5, 0.0, 0.0, 0.0, 0.0, 0.0)));
        Calibration c = run("a", 1, 0.1, List.of(0.1, 0.2, 0.3, 0.4, 0.5, 0.6));
        assertEquals(c.correlation(3, 0), 0.3, 0);
        assertEquals(c.correlation(1, 2), 0.4, 0);
        assertEquals(c.correlation(3, 2), 0.6, 0);
    }
}
