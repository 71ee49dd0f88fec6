package org.greenbead.core.thermal;

import java.util.Random;

/**
 * Draws that take every one of {@code count} equal shares of a distribution once, in shuffled order (McKay, Beckman and Conover 1979,
 * Technometrics 21), so that twenty say as much as a few hundred loose ones.
 */
public final class LatinHypercube {
    private LatinHypercube() {
    }

    /** Standard normal. */
    public static double[] normal(int count, Random random) {
        double[] z = new double[count];
        for (int i = 0; i < count; i++) {
            double share = (i + random.nextDouble()) / count;
            z[i] = Math.sqrt(2)
                    * org.hipparchus.special.Erf.erfInv(2 * Math.clamp(share, 1e-4, 1 - 1e-4) - 1);
        }
        for (int i = count - 1; i > 0; i--) {
            int j = random.nextInt(i + 1);
            double t = z[i];
            z[i] = z[j];
            z[j] = t;
        }
        return z;
    }
}
