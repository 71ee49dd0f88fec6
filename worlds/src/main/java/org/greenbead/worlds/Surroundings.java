package org.greenbead.worlds;

import java.util.Random;

/**
 * What stands round a chip and shines on it, as a picture of the sky over it: by azimuth and by the sine of the height, so that every sample covers
 * the same solid angle. Softer pictures of it, blurred by the law of von Mises and Fisher, are what rougher surfaces mirror (Greene 1986).
 */
final class Surroundings {
    private static final int WIDE = 256;
    private static final int HIGH = 64;
    private static final int COARSE_WIDE = 64;
    private static final int COARSE_HIGH = 16;
    /** Concentrations of the softer pictures; the sharpest is the picture itself. */
    private static final double[] KAPPA = {300, 70, 18, 5};
    private final float[] sharp = new float[3 * WIDE * HIGH];
    private final float[][] soft = new float[KAPPA.length][];
    private final double[][] lamps;

    /** @param count how many directions stand for all the light when shadows are cast */
    Surroundings(Random random, int count) {
        painted(random);
        float[] coarse = coarse();
        for (int k = 0; k < KAPPA.length; k++) {
            soft[k] = blurred(coarse, KAPPA[k]);
        }
        lamps = lamps(random, count);
    }

    /** Directions with their share of the light that falls on a level board: x, y, z, red, green, blue. */
    double[][] lamps() {
        return lamps;
    }

    private void painted(Random random) {
        double ground = 0.02 + 0.25 * random.nextDouble() * random.nextDouble();
        double up = random.nextDouble();
        double[] warm = {1 + 0.25 * random.nextGaussian() * 0.6, 1, 1 + 0.25 * random.nextGaussian() * 0.6};
        for (int y = 0; y < HIGH; y++) {
            for (int x = 0; x < WIDE; x++) {
                double level = ground * (1 + up * (y + 0.5) / HIGH);
                put(x, y, level * warm[0], level, level * warm[2], true);
            }
        }
        double what = random.nextDouble();
        if (what < 0.3) {
            ring(random, 0.55 + 0.3 * random.nextDouble(), 4 + random.nextInt(60), 6);
        } else if (what < 0.42) {
            // Light through the lens.
            disc(0, 0.99 + 0.008 * random.nextDouble(), 0.06 + 0.12 * random.nextDouble(), 12, warm);
        } else if (what < 0.62) {
            for (int i = 1 + random.nextInt(2); i > 0; i--) {
                disc(2 * Math.PI * random.nextDouble(), 0.3 + 0.55 * random.nextDouble(),
                        0.05 + 0.2 * random.nextDouble(), 8, warm);
            }
        } else if (what < 0.8) {
            // A dome or tent of cloth: bright all round, with a dark hole for the lens.
            double edge = 0.2 + 0.4 * random.nextDouble();
            for (int y = (int) (edge * HIGH); y < HIGH; y++) {
                for (int x = 0; x < WIDE; x++) {
                    double v = 1 + 0.5 * Math.cos(2 * Math.PI * x / WIDE);
                    put(x, y, v, v, v, false);
                }
            }
        } else {
            // Long lamps beside the board.
            for (int i = 1 + random.nextInt(3); i > 0; i--) {
                panel(random, 0.25 + 0.6 * random.nextDouble(), 0.8, 0.06, 5, warm);
            }
        }
        for (int i = random.nextInt(4); i > 0; i--) {
            panel(random, 0.1 + 0.7 * random.nextDouble(), 0.3, 0.25, 1.5 * random.nextDouble(), warm);
        }
        if (random.nextDouble() < 0.3) {
            // Tiles and lamps of a ceiling.
            for (int k = 0; k < 12; k++) {
                panel(random, 0.75 + 0.2 * random.nextDouble(), 0.12, 0.05, 1, warm);
            }
        }
        if (random.nextDouble() < 0.6) {
            // Who sits before the board keeps light away.
            double turn = 2 * Math.PI * random.nextDouble();
            double wide = 0.4 + 0.7 * random.nextDouble();
            double high = 0.3 + 0.5 * random.nextDouble();
            for (int y = 0; y < high * HIGH; y++) {
                for (int x = 0; x < WIDE; x++) {
                    double off = Math.abs(
                            Math.IEEEremainder(2 * Math.PI * x / WIDE - turn, 2 * Math.PI));
                    if (off < wide * (1 - 0.6 * y / (high * HIGH))) {
                        put(x, y, 0.03, 0.025, 0.02, false);
                    }
                }
            }
        }
        if (random.nextDouble() < 0.75) {
            double half = 0.08 + 0.2 * random.nextDouble();
            double dark = 0.01 + 0.08 * random.nextDouble();
            double least = Math.cos(half);
            if (what < 0.3 || what >= 0.42) {
                for (int y = (int) Math.ceil(least * HIGH); y < HIGH; y++) {
                    for (int x = 0; x < WIDE; x++) {
                        put(x, y, dark, dark, dark, false);
                    }
                }
            }
        }
        double sum = 0;
        for (int i = 0; i < WIDE * HIGH; i++) {
            sum += sharp[3 * i + 1] * (i / WIDE + 0.5) / HIGH;
        }
        float by = (float) (WIDE * HIGH / (2 * sum));
        for (int i = 0; i < sharp.length; i++) {
            sharp[i] *= by;
        }
    }

    private void put(int x, int y, double r, double g, double b, boolean add) {
        int i = 3 * (Math.clamp(y, 0, HIGH - 1) * WIDE + Math.floorMod(x, WIDE));
        sharp[i] = (float) (r + (add ? sharp[i] : 0));
        sharp[i + 1] = (float) (g + (add ? sharp[i + 1] : 0));
        sharp[i + 2] = (float) (b + (add ? sharp[i + 2] : 0));
    }

    private void ring(Random random, double sine, int parts, double strong) {
        double thick = 0.02 + 0.06 * random.nextDouble();
        double filled = 0.3 + 0.6 * random.nextDouble();
        double fall = random.nextDouble() < 0.3 ? 0.9 : 0;
        for (int y = 0; y < HIGH; y++) {
            if (Math.abs((y + 0.5) / HIGH - sine) > thick) {
                continue;
            }
            for (int x = 0; x < WIDE; x++) {
                double turn = x / (double) WIDE * parts;
                if (turn - Math.floor(turn) < filled) {
                    double v = strong * (1 + fall * Math.cos(2 * Math.PI * x / WIDE));
                    put(x, y, v, v, v, true);
                }
            }
        }
    }

    private void disc(double turn, double sine, double half, double strong, double[] warm) {
        double level = Math.sqrt(1 - sine * sine);
        double[] to = {level * Math.cos(turn), level * Math.sin(turn), sine};
        double least = Math.cos(half);
        for (int y = 0; y < HIGH; y++) {
            double s = (y + 0.5) / HIGH;
            double l = Math.sqrt(1 - s * s);
            for (int x = 0; x < WIDE; x++) {
                double a = 2 * Math.PI * (x + 0.5) / WIDE;
                if (l * Math.cos(a) * to[0] + l * Math.sin(a) * to[1] + s * to[2] > least) {
                    double v = strong / Math.max(0.02, 20 * half * half);
                    put(x, y, v * warm[0], v, v * warm[2], true);
                }
            }
        }
    }

    private void panel(Random random, double sine, double wide, double high, double strong, double[] warm) {
        int from = random.nextInt(WIDE);
        int many = (int) (WIDE * wide * (0.1 + 0.5 * random.nextDouble()));
        double cross = random.nextDouble() < 0.4 ? 0.5 : 2;
        for (int y = (int) ((sine - high / 2) * HIGH); y < (sine + high / 2) * HIGH; y++) {
            if (y < 0 || y >= HIGH) {
                continue;
            }
            for (int x = 0; x < many; x++) {
                // The bars of a window.
                if (Math.abs(x / (double) many - cross) > 0.03) {
                    put(from + x, y, strong * warm[0], strong, strong * warm[2], true);
                }
            }
        }
    }

    private float[] coarse() {
        float[] out = new float[3 * COARSE_WIDE * COARSE_HIGH];
        int by = WIDE / COARSE_WIDE;
        for (int y = 0; y < HIGH; y++) {
            for (int x = 0; x < WIDE; x++) {
                int to = 3 * (y / by * COARSE_WIDE + x / by);
                for (int c = 0; c < 3; c++) {
                    out[to + c] += sharp[3 * (y * WIDE + x) + c] / (by * by);
                }
            }
        }
        return out;
    }

    private static double[] direction(int i, int wide, int high) {
        double s = (i / wide + 0.5) / high;
        double l = Math.sqrt(1 - s * s);
        double a = 2 * Math.PI * (i % wide + 0.5) / wide;
        return new double[]{l * Math.cos(a), l * Math.sin(a), s};
    }

    private static float[] blurred(float[] in, double kappa) {
        int n = COARSE_WIDE * COARSE_HIGH;
        double[][] to = new double[n][];
        for (int i = 0; i < n; i++) {
            to[i] = direction(i, COARSE_WIDE, COARSE_HIGH);
        }
        float[] out = new float[in.length];
        for (int i = 0; i < n; i++) {
            double sum = 0;
            double r = 0;
            double g = 0;
            double b = 0;
            for (int j = 0; j < n; j++) {
                double w = kappa * (to[i][0] * to[j][0] + to[i][1] * to[j][1] + to[i][2] * to[j][2] - 1);
                if (w > -9) {
                    double k = Math.exp(w);
                    sum += k;
                    r += k * in[3 * j];
                    g += k * in[3 * j + 1];
                    b += k * in[3 * j + 2];
                }
            }
            out[3 * i] = (float) (r / sum);
            out[3 * i + 1] = (float) (g / sum);
            out[3 * i + 2] = (float) (b / sum);
        }
        return out;
    }

    /** What comes from a direction (z above nothing) as a surface of this roughness (0 to 1) mirrors it, added to {@code out} so many times. */
    void seen(double x, double y, double z, double rough, double times, double[] out) {
        double level = rough * rough * 6;
        int k = (int) level;
        if (k <= 0) {
            added(sharp, WIDE, HIGH, x, y, z, times * (1 - level), out);
            added(soft[0], COARSE_WIDE, COARSE_HIGH, x, y, z, times * level, out);
        } else if (k >= KAPPA.length) {
            added(soft[KAPPA.length - 1], COARSE_WIDE, COARSE_HIGH, x, y, z, times, out);
        } else {
            added(soft[k - 1], COARSE_WIDE, COARSE_HIGH, x, y, z, times * (1 - level + k), out);
            added(soft[k], COARSE_WIDE, COARSE_HIGH, x, y, z, times * (level - k), out);
        }
    }

    private static void added(float[] map, int wide, int high, double x, double y, double z, double times,
            double[] out) {
        if (times <= 0) {
            return;
        }
        double u = Math.atan2(y, x) / (2 * Math.PI) * wide - 0.5;
        double v = Math.clamp(z * high - 0.5, 0, high - 1.001);
        int u0 = (int) Math.floor(u);
        int v0 = (int) v;
        double fu = u - u0;
        double fv = v - v0;
        for (int b = 0; b < 2; b++) {
            for (int a = 0; a < 2; a++) {
                double w = times * (a == 0 ? 1 - fu : fu) * (b == 0 ? 1 - fv : fv);
                int i = 3 * ((v0 + b) * wide + Math.floorMod(u0 + a, wide));
                out[0] += w * map[i];
                out[1] += w * map[i + 1];
                out[2] += w * map[i + 2];
            }
        }
    }

    /** Drawn by how much each direction gives, evenly spread over the sum. */
    private double[][] lamps(Random random, int count) {
        double[] sums = new double[WIDE * HIGH + 1];
        for (int i = 0; i < WIDE * HIGH; i++) {
            double sine = (i / WIDE + 0.5) / HIGH;
            sums[i + 1] = sums[i] + sine * (sharp[3 * i] + sharp[3 * i + 1] + sharp[3 * i + 2]);
        }
        double all = sums[WIDE * HIGH];
        double[][] out = new double[count][];
        double start = random.nextDouble();
        int at = 0;
        for (int k = 0; k < count; k++) {
            double want = (k + start) / count * all;
            while (at < WIDE * HIGH - 1 && sums[at + 1] < want) {
                at++;
            }
            double[] d = direction(at, WIDE, HIGH);
            double own = sharp[3 * at] + sharp[3 * at + 1] + sharp[3 * at + 2];
            double unit = all / (WIDE * HIGH) * 2 / count;
            out[k] = new double[]{d[0], d[1], d[2], unit * sharp[3 * at] / own,
                    unit * sharp[3 * at + 1] / own,
                    unit * sharp[3 * at + 2] / own};
        }
        return out;
    }
}
