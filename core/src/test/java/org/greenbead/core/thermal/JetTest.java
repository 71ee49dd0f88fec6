package org.greenbead.core.thermal;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Martin's correlation as integrals of what the model uses locally. */
public class JetTest {
    @DataProvider
    Object[][] means() {
        return new Object[][]{{2.0, 2.5, 163.2}, {2.0, 4.0, 123.3}, {2.0, 7.0, 78.2}, {4.0, 2.5, 149.0},
                {4.0, 4.0, 116.8}, {4.0, 7.0, 75.9}, {8.0, 2.5, 127.0},
                {8.0, 4.0, 105.7}, {8.0, 7.0, 71.7}};
    }

    /** D 10 mm, 60 L/min, exit 347 °C: the area mean of the local coefficient is Martin's mean, W/m2K. */
    @Test(dataProvider = "means")
    public void localCoefficientIntegratesToMartinsMean(double heightOverD, double bigR, double wanted) {
        double strength = Jet.strength(60, 10, 347);
        double sum = 0;
        int n = 20_000;
        for (int i = 0; i < n; i++) {
            double r = bigR * (i + 0.5) / n;
            sum += Jet.local(r, heightOverD) * 2 * r * bigR / n;
        }
        assertEquals(strength * sum / (bigR * bigR), wanted, 0.006 * wanted);
        assertEquals(strength * Jet.mean(bigR, heightOverD), wanted, 0.006 * wanted);
    }

    @Test
    public void localCoefficientIsContinuousWhereTheBellEnds() {
        for (double tall : new double[]{2, 4, 8}) {
            assertEquals(Jet.local(2.4999, tall), Jet.local(2.5001, tall), 0.02 * Jet.local(2.5, tall),
                    "the bell's tail at its end is exp(-(2.5/1.2)^2) = 1.3 % of its height");
        }
    }

    @Test
    public void nozzleLosesHeatOnItsWay() {
        assertEquals(Jet.exitC(360, 25, 24, 0.05), 327.4, 0.1);
        assertEquals(Jet.exitC(360, 25, 24, 0), 360, 1e-9);
        assertTrue(Jet.exitC(360, 25, 10, 0.05) < Jet.exitC(360, 25, 24, 0.05), "slow air loses more");
    }

    /** The wall cannot take more than the jet brings. */
    @Test
    public void wallTakesLessHeatThanTheJetCarries() {
        double exit = 347;
        double ambient = 25;
        for (double tall : new double[]{2, 4, 8}) {
            for (double wall : new double[]{100, 200}) {
                double strength = Jet.strength(60, 10, exit);
                double watt = 0;
                double dr = 1e-5;
                for (double r = dr / 2; r < 0.08; r += dr) {
                    double bigR = r / 0.010;
                    double aw = ambient
                            + Jet.axisShare(tall, exit, ambient) * Jet.radialShare(bigR) * (exit - ambient);
                    watt += strength * Jet.local(bigR, tall) * (aw - wall) * 2 * Math.PI * r * dr;
                }
                double carried = Jet.massFlow(60) * Jet.CP_AIR * (exit - wall);
                assertTrue(watt < 0.6 * carried,
                        tall + " at " + wall + " °C: " + watt + " of " + carried + " W");
            }
        }
    }

    @Test
    public void airIsDilutedWithDistanceAndRadius() {
        assertTrue(Jet.axisShare(2, 350, 25) > Jet.axisShare(5, 350, 25));
        assertEquals(Jet.radialShare(0), 1.0);
        assertTrue(Jet.radialShare(5) < 0.5);
    }
}
