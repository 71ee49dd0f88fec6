package org.greenbead.core.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.greenbead.core.quantity.Check;
import org.greenbead.core.thermal.Multipliers;

/**
 * What is known of a bench: multipliers and the standard deviations of their natural logarithms, 0 to 0.6.
 *
 * @param calibrated whether a run of this bench stands behind it
 */
public record Uncertainty(Multipliers mean, double jetLn, double preheaterLn, double boardHeatLn,
        double boardConductivityLn, boolean calibrated) {
    /** A bench nobody has measured: hot-air correlations are worth 30 %, heaters as much, laminate 15 %. */
    public static final Uncertainty UNCALIBRATED = new Uncertainty(Multipliers.NOMINAL, 0.30, 0.30, 0.15,
            0.30,
            false);

    public Uncertainty {
        Check.present("multipliers", mean);
        Check.within("spread of the jet", jetLn, 0, 0.6, "");
        Check.within("spread of the preheater", preheaterLn, 0, 0.6, "");
        Check.within("spread of the board's heat", boardHeatLn, 0, 0.6, "");
        Check.within("spread of the board's conductivity", boardConductivityLn, 0, 0.6, "");
    }

    /**
     * Benches that this one may be. Each multiplier takes every one of {@code count} equal shares of its distribution once, in
     * shuffled order (Latin hypercube, McKay, Beckman and Conover 1979), so that thirty-two say as much as a few hundred loose draws.
     */
    public List<Multipliers> draw(int count, long seed) {
        var random = new Random(seed);
        double[][] z = new double[4][];
        for (int p = 0; p < z.length; p++) {
            z[p] = shuffled(count, random);
        }
        var all = new ArrayList<Multipliers>();
        for (int m = 0; m < count; m++) {
            all.add(new Multipliers(times(mean.jet(), jetLn * z[0][m]),
                    times(mean.preheater(), preheaterLn * z[1][m]),
                    times(mean.boardHeat(), boardHeatLn * z[2][m]),
                    times(mean.boardConductivity(), boardConductivityLn * z[3][m])));
        }
        return all;
    }

    private static double times(double mean, double ln) {
        return Math.clamp(mean * Math.exp(ln), 0.31, 2.9);
    }

    private static double[] shuffled(int count, Random random) {
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
