package org.greenbead.core.inspect;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.Test;

/** How a telling of the size of all balls and the map are weighed. */
public class BelievedSizeTest {
    @Test
    public void aMapIsBelievedUntilMuchSpeaksAgainstIt() {
        assertEquals(SiteJudge.believed(1), 1, 1e-12);
        assertTrue(SiteJudge.believed(1.05) < 1.025, "within what the telling scatters");
        assertTrue(SiteJudge.believed(1.16) > 1.12, "no telling of a right map is so far off");
        double before = 0;
        for (double told = 0.8; told < 1.25; told += 0.005) {
            double believed = SiteJudge.believed(told);
            assertTrue(believed > before, told + ": more told is more believed");
            assertTrue(Math.abs(Math.log(believed)) <= Math.abs(Math.log(told)) + 1e-12,
                    "between map and telling");
            assertEquals(SiteJudge.believed(1 / told), 1 / believed, 1e-12, "large and small alike");
            before = believed;
        }
    }

    /** The closed form against the mean reckoned by summing over all sizes there may be. */
    @Test
    public void itIsTheMeanOfWhatMayBe() {
        double told = Math.log(1.09);
        double sum = 0;
        double mean = 0;
        for (double r = -0.6; r < 0.6; r += 1e-5) {
            double prior = 0.85 * normal(r, 0.02) + 0.15 * normal(r, 0.1);
            double weight = prior * normal(told - r, 0.035);
            sum += weight;
            mean += weight * r;
        }
        assertEquals(Math.log(SiteJudge.believed(1.09)), mean / sum, 1e-6);
    }

    private static double normal(double x, double sd) {
        return Math.exp(-x * x / (2 * sd * sd)) / sd;
    }
}
