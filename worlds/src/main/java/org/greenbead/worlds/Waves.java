package org.greenbead.worlds;

import java.util.Random;

/** Random swellings without a grid: a sum of plane waves of one length in random directions, its standard deviation 1. */
final class Waves {
    private final double[][] waves;

    Waves(Random random, int count, double lengthMm) {
        waves = new double[count][];
        for (int i = 0; i < count; i++) {
            double a = 2 * Math.PI * random.nextDouble();
            double k = 2 * Math.PI / lengthMm * (0.6 + 0.8 * random.nextDouble());
            waves[i] = new double[]{k * Math.cos(a), k * Math.sin(a), 2 * Math.PI * random.nextDouble()};
        }
    }

    double at(double x, double y) {
        double sum = 0;
        for (double[] w : waves) {
            sum += Math.sin(w[0] * x + w[1] * y + w[2]);
        }
        return sum * Math.sqrt(2.0 / waves.length);
    }
}
