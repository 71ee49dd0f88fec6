package org.greenbead.core.thermal;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/**
 * Draws that take every one of {@code count} equal shares of a distribution once, in shuffled order (McKay, Beckman and Conover 1979,
 * Technometrics 21), so that twenty say as much as a few hundred loose ones.
 */
public final class LatinHypercube {
    private LatinHypercube() {
    }

    /** Points in the unit cube, as many as {@code count}, no two in the same share of any side. */
    public static List<double[]> uniform(int count, int sides, long seed) {
        var random = new Random(seed);
        var points = new ArrayList<double[]>();
        for (int i = 0; i < count; i++) {
            points.add(new double[sides]);
        }
        for (int side = 0; side < sides; side++) {
            double[] drawn = new double[Math.max(0, count)];
            for (int i = 0; i < count; i++) {
                drawn[i] = (i + random.nextDouble()) / count;
            }
            shuffle(drawn, random);
            for (int i = 0; i < count; i++) {
                points.get(i)[side] = drawn[i];
            }
        }
        return points;
    }

    /** Standard normal. */
    public static double[] normal(int count, Random random) {
        double[] z = new double[count];
        for (int i = 0; i < count; i++) {
            double share = (i + random.nextDouble()) / count;
            z[i] = Math.sqrt(2)
                    * org.hipparchus.special.Erf.erfInv(2 * Math.clamp(share, 1e-4, 1 - 1e-4) - 1);
        }
        shuffle(z, random);
        return z;
    }

    private static void shuffle(double[] z, Random random) {
        for (int i = z.length - 1; i > 0; i--) {
            int j = random.nextInt(i + 1);
            double t = z[i];
            z[i] = z[j];
            z[j] = t;
        }
    }
}
