package org.greenbead.core.board;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Classification temperatures of J-STD-020: worked checks, corners of the table, and that bigger is never rated higher. */
public class BodyRatingTest {
    @DataProvider
    Object[][] table() {
        return new Object[][]{
                // 27 x 27 x 2.2, 35 x 35 x 3.1 and 12 x 12 x 0.9 mm
                {2.2, 1604, true, 250}, {3.1, 3798, true, 245}, {0.9, 130, true, 260},
                {1.59, 5000, true, 260},
                {1.6, 349, true, 260}, {1.6, 350, true, 250}, {2.5, 2000, true, 250}, {2.5, 2001, true, 245},
                {2.51, 349, true, 250}, {2.51, 350, true, 245}, {2.49, 349, false, 235},
                {2.5, 100, false, 220},
                {1.0, 350, false, 220}};
    }

    @Test(dataProvider = "table")
    public void asTheTableSays(double thicknessMm, double volumeMm3, boolean leadFree, double peakC) {
        assertEquals(BodyRating.peakC(thicknessMm, volumeMm3, leadFree), peakC, 0);
    }

    @Test
    public void thickerOrLargerIsNeverRatedHigher() {
        for (boolean leadFree : new boolean[]{true, false}) {
            for (double t = 0.5; t < 5; t += 0.1) {
                for (double v = 50; v < 4000; v += 75) {
                    double here = BodyRating.peakC(t, v, leadFree);
                    assertTrue(BodyRating.peakC(t + 0.1, v, leadFree) <= here, t + " mm, " + v);
                    assertTrue(BodyRating.peakC(t, v + 75, leadFree) <= here, t + " mm, " + v);
                }
            }
        }
    }
}
