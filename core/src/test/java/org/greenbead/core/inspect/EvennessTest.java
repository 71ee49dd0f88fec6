package org.greenbead.core.inspect;

import static org.testng.Assert.assertEquals;

import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class EvennessTest {
    /** Slopes of the logarithm of light over the picture, and the part of the places that look otherwise. */
    @DataProvider
    Object[][] lights() {
        return new Object[][]{{0.0, 0.0, 0.0}, {0.8, -0.3, 0.0}, {-0.6, 0.9, 0.15}, {0.2, -0.7, 0.25}};
    }

    /** A patch of a quarter that is another colour does not pull the light of the rest. */
    @Test(dataProvider = "lights")
    public void lightIsFoundBesideAPatchThatIsOther(double alongX, double alongY, double other) {
        var random = new Random(4);
        int n = 900;
        double[] x = new double[n];
        double[] y = new double[n];
        double[] light = new double[n];
        double half = 500 * Math.sqrt(other);
        for (int i = 0; i < n; i++) {
            x[i] = 1000 * random.nextDouble();
            y[i] = 1000 * random.nextDouble();
            light[i] = 0.3 * Math.exp(alongX * (x[i] / 500 - 1) + alongY * (y[i] / 500 - 1)
                    + 0.03 * random.nextGaussian());
            if (Math.abs(x[i] - 450) < half && Math.abs(y[i] - 520) < half) {
                light[i] *= 1.8;
            }
        }
        var even = new Evenness(x, y, light);
        for (double[] at : new double[][]{{0, 0}, {1000, 0}, {500, 500}, {1000, 1000}, {0, 1000}}) {
            double expected = 0.3 * Math.exp(alongX * (at[0] / 500 - 1) + alongY * (at[1] / 500 - 1));
            assertEquals(even.at(at[0], at[1]) / expected, 1, 0.03);
        }
    }

    /** Three places have no slope to speak of: their middle value everywhere. */
    @Test
    public void fewPlacesGiveTheirMiddle() {
        var even = new Evenness(new double[]{0, 10, 20}, new double[]{0, 5, 0}, new double[]{0.1, 0.2, 0.4});
        assertEquals(even.at(0, 0), 0.2, 1e-9);
        assertEquals(even.at(500, -500), 0.2, 1e-9);
    }
}
