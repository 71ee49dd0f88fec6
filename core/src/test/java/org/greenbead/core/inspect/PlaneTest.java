package org.greenbead.core.inspect;

import static org.testng.Assert.assertEquals;

import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Windows over a plane against their plain definitions. */
public class PlaneTest {
    @DataProvider
    public Object[][] sizes() {
        return new Object[][]{{7, 5, 1}, {40, 33, 2}, {300, 21, 3}, {17, 60, 7}, {9, 9, 12}, {530, 8, 4}};
    }

    private static Plane noise(int width, int height) {
        var random = new Random(width * 31L + height);
        var out = new Plane(width, height);
        for (int i = 0; i < out.v.length; i++) {
            out.v[i] = random.nextFloat();
        }
        return out;
    }

    private static float[] extreme(Plane in, int reach, boolean most) {
        float[] out = new float[in.v.length];
        for (int y = 0; y < in.height; y++) {
            for (int x = 0; x < in.width; x++) {
                float best = in.v[y * in.width + x];
                for (int b = Math.max(0, y - reach); b <= Math.min(in.height - 1, y + reach); b++) {
                    for (int a = Math.max(0, x - reach); a <= Math.min(in.width - 1, x + reach); a++) {
                        float v = in.v[b * in.width + a];
                        best = most ? Math.max(best, v) : Math.min(best, v);
                    }
                }
                out[y * in.width + x] = best;
            }
        }
        return out;
    }

    @Test(dataProvider = "sizes")
    public void openingIsTheMostOfTheLeast(int width, int height, int reach) {
        Plane in = noise(width, height);
        Plane least = new Plane(width, height, extreme(in, reach, false));
        assertEquals(in.opened(reach).v, extreme(least, reach, true));
    }

    @Test(dataProvider = "sizes")
    public void smoothingIsTheWeightedMeanAndKeepsWhatIsEven(int width, int height, int reach) {
        double sigma = reach / 2.8;
        Plane in = noise(width, height);
        float[] smooth = in.smooth(sigma).v;
        int span = Math.max(1, (int) Math.ceil(2.8 * sigma));
        for (int y = 0; y < height; y += 3) {
            for (int x = 0; x < width; x += 5) {
                double sum = 0;
                double weights = 0;
                for (int b = -span; b <= span; b++) {
                    for (int a = -span; a <= span; a++) {
                        double w = Math.exp(-(a * a + b * b) / (2 * sigma * sigma));
                        weights += w;
                        sum += w * in.v[Math.clamp(y + b, 0, height - 1) * width
                                + Math.clamp(x + a, 0, width - 1)];
                    }
                }
                assertEquals(smooth[y * width + x], sum / weights, 2e-6, x + ", " + y);
            }
        }
        Plane even = new Plane(width, height);
        java.util.Arrays.fill(even.v, 0.37f);
        for (float v : even.smooth(sigma).v) {
            assertEquals(v, 0.37, 1e-6);
        }
    }
}
