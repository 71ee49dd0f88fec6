package org.greenbead.core.inspect;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/**
 * Where the true outline lies in the mean rim of many balls. The light over the distance from the middle is laid out as what is seen
 * without blur, inside the outline and outside it, blurred by a round Gaussian (exact in polar coordinates by the modified Bessel function
 * I0): radius, blur and the two courses of light are fitted together to the three channels. Radius and blur alone could be traded for one
 * another; what holds them apart is that the outermost seventh of a ball of metal is evenly lit, since beyond some three quarters of its
 * radius it mirrors what lies round it and no lamp.
 */
final class RimEdge {
    private static final double FROM = 0.6;
    private static final double STEP = 0.02;
    private static final int COUNT = 41;
    private static final int SECTORS = 8;
    private static final int RAYS = 5;
    private static final int RIM_AT = 15;
    private static final double[] INSIDE = {0.36, 0.48, 0.6, 0.68, 0.76, 0.86, 1};
    private static final double[] OUTSIDE = {1, 1.12, 1.26, 1.45};
    /** Level at the outline over that at 0.86 of the radius, and how firmly it is believed. */
    private static final double EVEN = 0.78;
    private static final double FIRM = 0.2;
    /** The rim stands out from the ground by this part and more of what the flank does: else an outline could be laid into the ground. */
    private static final double RIM = 0.22;
    private static final double SMOOTH_IN = 1e-4;
    private static final double SECTOR_SMOOTH = 5e-4;
    private static final double SMOOTH_OUT = 0.01;
    private static final double SOFT = 0.2;
    private static final int CELLS = 240;
    private static final double REACH = 2.1;
    /** The steepest place lies about there; it decides only where blur has taken nearly all shape from the rim. */
    private static final double EXPECTED = 1.01;
    private static final double EXPECTED_SD = 0.04;
    private static final double BELIEF = 3e-5;
    static final double MIDDLE = 1.02;
    static final double FAR = 0.1;
    private static final double NEAR = 0.03;
    private static final double RADIUS_STEP = 0.00125;
    private static final int COARSE_RADIUS = 16;
    private static final double BLUR_STEP = 1.03;
    private static final int COARSE_BLUR = 8;
    private static final double LEAST_BLUR = 0.015;
    private static final double MOST_BLUR = 0.2;
    private final double[][] light;
    private final double smooth;
    private final Shapes shapes;

    private RimEdge(Shapes shapes, double[][] light, double smooth) {
        this.shapes = shapes;
        this.light = light;
        this.smooth = smooth;
    }

    /** Blurred shapes that were laid out already, over the lattice of radius and blur. */
    static final class Shapes {
        private final Map<Integer, double[][]> known = new ConcurrentHashMap<>();

        private double[][] of(int radius, int blur) {
            return known.computeIfAbsent(radius * 1000 + blur,
                    key -> blurred(radius * RADIUS_STEP, LEAST_BLUR * Math.pow(BLUR_STEP, blur)));
        }
    }

    /** True radius over the measured one, and the blur, both as parts of the measured one. */
    record Found(double radius, double blur) {}

    /** Mean light over the distance from the middle of one ball: eight directions, three channels, one after the other. */
    static double[] profile(Raster picture, Circle ball) {
        Plane[] planes = {picture.red, picture.green, picture.blue};
        double[] seen = new double[SECTORS * 3 * COUNT];
        for (int s = 0; s < SECTORS; s++) {
            for (int i = 0; i < RAYS; i++) {
                double angle = 2 * Math.PI * (s + (i + 0.5) / RAYS - 0.5) / SECTORS;
                double cos = Math.cos(angle) * ball.rPx();
                double sin = Math.sin(angle) * ball.rPx();
                for (int c = 0; c < 3; c++) {
                    int at = (s * 3 + c) * COUNT;
                    for (int k = 0; k < COUNT; k++) {
                        double u = FROM + STEP * k;
                        seen[at + k] += planes[c].at(ball.xPx() + u * cos, ball.yPx() + u * sin) / RAYS;
                    }
                }
            }
        }
        return seen;
    }

    /** Mean rims of balls, those of each place in the order of their light, so that any weights can be laid on them. */
    static final class Rims {
        private final double[][] light = new double[3 * COUNT][];
        private final int[][] order = new int[3 * COUNT][];

        Rims(List<double[]> profiles) {
            java.util.stream.IntStream.range(0, light.length).parallel().forEach(at -> {
                double[] seen = new double[profiles.size()];
                long[] keys = new long[seen.length];
                for (int b = 0; b < seen.length; b++) {
                    for (int s = 0; s < SECTORS; s++) {
                        seen[b] += profiles.get(b)[s * 3 * COUNT + at] / SECTORS;
                    }
                    keys[b] = (long) (seen[b] * 1e9) << 16 | b;
                }
                Arrays.sort(keys);
                light[at] = seen;
                order[at] = Arrays.stream(keys).mapToInt(k -> (int) (k & 0xffff)).toArray();
            });
        }

        /** Weighted mean without the outer eighths. */
        private double trimmed(int at, double[] weights, double all) {
            double passed = 0;
            double sum = 0;
            double total = 0;
            for (int b : order[at]) {
                double middle = (passed + weights[b] / 2) / all;
                passed += weights[b];
                if (middle > 0.125 && middle < 0.875) {
                    sum += weights[b] * light[at][b];
                    total += weights[b];
                }
            }
            return total > 0 ? sum / total : BeadCheck.median(light[at]);
        }
    }

    /** @param weights how much each ball counts, @param near where the radius is looked for */
    static Found of(Shapes shapes, Rims rims, double[] weights, double near) {
        double all = Arrays.stream(weights).sum();
        double[][] light = new double[3][COUNT];
        for (int c = 0; c < 3; c++) {
            for (int k = 0; k < COUNT; k++) {
                light[c][k] = rims.trimmed(c * COUNT + k, weights, all);
            }
        }
        return new RimEdge(shapes, light, SMOOTH_IN).best(near, NEAR);
    }

    private static double[][] stacked(List<double[]> profiles, int sector) {
        double[][] light = new double[3][COUNT];
        double[] seen = new double[profiles.size()];
        int cut = seen.length / 8;
        for (int c = 0; c < 3; c++) {
            for (int k = 0; k < COUNT; k++) {
                for (int b = 0; b < seen.length; b++) {
                    seen[b] = profiles.get(b)[(sector * 3 + c) * COUNT + k];
                }
                Arrays.sort(seen);
                light[c][k] = Arrays.stream(seen, cut, seen.length - cut).average().orElse(0);
            }
        }
        return light;
    }

    /** Of all balls alike, parts of the measured radius: where the true middle lies from the measured one, and the true radius. */
    record Beside(double x, double y, double radius) {}

    private static double middle(double[] values, double[] weights) {
        Integer[] order = new Integer[values.length];
        Arrays.setAll(order, i -> i);
        Arrays.sort(order, (a, b) -> Double.compare(values[a], values[b]));
        double half = Arrays.stream(weights).sum() / 2;
        double at = 0;
        for (int i : order) {
            at += weights[i];
            if (at >= half) {
                return values[i];
            }
        }
        return 1;
    }

    /** How far the true middle lies beside the measured one on all balls alike, parts of the measured radius: light from one side pulls. */
    static Beside beside(Shapes shapes, List<double[]> profiles, double near, double reach) {
        double[] radius = new double[SECTORS];
        double[] trust = new double[SECTORS];
        java.util.stream.IntStream.range(0, SECTORS).parallel().forEach(s -> {
            double[][] light = stacked(profiles, s);
            radius[s] = new RimEdge(shapes, light, SECTOR_SMOOTH).best(near, reach).radius();
            for (double[] channel : light) {
                trust[s] += Math.max(0, channel[RIM_AT] - channel[COUNT - 1]);
            }
        });
        double[][] normal = new double[3][3];
        double[] right = new double[3];
        for (int s = 0; s < SECTORS; s++) {
            double angle = 2 * Math.PI * s / SECTORS;
            double[] row = {1, Math.cos(angle), Math.sin(angle)};
            for (int a = 0; a < 3; a++) {
                right[a] += trust[s] * row[a] * radius[s];
                for (int b = 0; b < 3; b++) {
                    normal[a][b] += trust[s] * row[a] * row[b];
                }
            }
        }
        double[] x = Solve.spd(normal, right);
        return x == null
                ? new Beside(0, 0, 1)
                : new Beside(x[1], x[2], middle(radius, trust));
    }

    /** Radii within reach of one; radius and blur go over a lattice, so that all fits of a photo share the blurred shapes. */
    private Found best(double near, double reach) {
        int low = (int) Math.round((near - reach) / RADIUS_STEP);
        int high = (int) Math.round((near + reach) / RADIUS_STEP);
        int widest = (int) Math.round(Math.log(MOST_BLUR / LEAST_BLUR) / Math.log(BLUR_STEP));
        double best = Double.MAX_VALUE;
        int radius = low;
        int blur = 0;
        for (int r = low; r <= high; r += COARSE_RADIUS) {
            for (int s = COARSE_BLUR; s <= widest; s += COARSE_BLUR) {
                double now = misfit(r, s);
                if (now < best) {
                    best = now;
                    radius = r;
                    blur = s;
                }
            }
        }
        int across = COARSE_RADIUS / 2;
        int share = COARSE_BLUR / 2;
        while (across > 0) {
            int r0 = radius;
            int s0 = blur;
            for (int i = -1; i <= 1; i++) {
                for (int j = -1; j <= 1; j++) {
                    int r = Math.clamp(r0 + i * across, low, high);
                    int s = Math.clamp(s0 + j * share, 0, widest);
                    double now = r == r0 && s == s0 ? best : misfit(r, s);
                    if (now < best) {
                        best = now;
                        radius = r;
                        blur = s;
                    }
                }
            }
            if (radius == r0 && blur == s0) {
                across /= 2;
                share = Math.max(1, share / 2);
            }
        }
        return new Found(radius * RADIUS_STEP, LEAST_BLUR * Math.pow(BLUR_STEP, blur));
    }

    private static double hat(double[] knots, int k, double t) {
        double middle = knots[k];
        if (t <= middle) {
            return k == 0 ? 1 : Math.clamp((t - knots[k - 1]) / (middle - knots[k - 1]), 0, 1);
        }
        return k == knots.length - 1 ? 1 : Math.clamp((knots[k + 1] - t) / (knots[k + 1] - middle), 0, 1);
    }

    /** exp(-x) I0(x) (Abramowitz and Stegun 9.8.1 and 9.8.2). */
    static double scaledBessel(double x) {
        if (x < 3.75) {
            double t = x / 3.75 * (x / 3.75);
            return Math.exp(-x) * (1 + t * (3.5156229 + t * (3.0899424
                    + t * (1.2067492 + t * (0.2659732 + t * (0.0360768 + t * 0.0045813))))));
        }
        double t = 3.75 / x;
        return (0.39894228 + t * (0.01328592 + t * (0.00225319 + t * (-0.00157565 + t * (0.00916281
                + t * (-0.02057706 + t * (0.02635537 + t * (-0.01647633 + t * 0.00392377))))))))
                / Math.sqrt(x);
    }

    private static double[][] blurred(double radius, double blur) {
        int in = INSIDE.length;
        int all = in + OUTSIDE.length;
        double cell = REACH / CELLS;
        double[][] sharp = new double[CELLS][all];
        for (int j = 0; j < CELLS; j++) {
            double rho = (j + 0.5) * cell;
            double t = rho / radius;
            double within = Math.clamp((radius - (rho - cell / 2)) / cell, 0, 1);
            for (int k = 0; k < in; k++) {
                sharp[j][k] = within * hat(INSIDE, k, Math.min(t, 1));
            }
            for (int k = 0; k < OUTSIDE.length; k++) {
                sharp[j][in + k] = (1 - within) * hat(OUTSIDE, k, Math.max(t, 1));
            }
        }
        double[][] out = new double[COUNT][all];
        double s2 = blur * blur;
        for (int i = 0; i < COUNT; i++) {
            double r = FROM + i * STEP;
            int low = (int) Math.max(0, (r - 4.5 * blur) / cell);
            int high = (int) Math.min(CELLS - 1, (r + 4.5 * blur) / cell + 1);
            double total = 0;
            for (int j = low; j <= high; j++) {
                double q = (j + 0.5) * cell;
                double kernel = q * Math.exp(-(r - q) * (r - q) / (2 * s2)) * scaledBessel(r * q / s2);
                total += kernel;
                for (int k = 0; k < all; k++) {
                    out[i][k] += kernel * sharp[j][k];
                }
            }
            for (int k = 0; k < all; k++) {
                out[i][k] /= total;
            }
        }
        return out;
    }

    private double misfit(int radius, int blur) {
        double[][] parts = shapes.of(radius, blur);
        int in = INSIDE.length;
        int all = in + OUTSIDE.length;
        double total = 0;
        double rim = 0;
        double wall = 0;
        for (double[] seen : light) {
            double level = Math.max(1e-4, seen[RIM_AT]);
            double ground = seen[COUNT - 1] + 0.05 * level;
            var fit = new Fit(all);
            for (int i = 0; i < COUNT; i++) {
                fit.add(parts[i], seen[i], 1 / (seen[i] + SOFT * level));
            }
            bends(fit, INSIDE, 0, smooth / level);
            bends(fit, OUTSIDE, in, SMOOTH_OUT / ground);
            double[] even = new double[all];
            even[in - 1] = 1;
            even[in - 2] = -EVEN;
            fit.add(even, 0, FIRM / level);
            double[] x = fit.solved();
            if (x == null) {
                return Double.MAX_VALUE / 8;
            }
            total += fit.misfit(x);
            rim += (0.5 * (x[in - 1] + x[in - 2]) - x[in]) / level;
            wall += (x[in - 4] - x[in]) / level;
        }
        double missing = Math.max(0, RIM - rim / Math.max(1e-6, wall));
        double off = (radius * RADIUS_STEP - EXPECTED) / EXPECTED_SD;
        return total + missing * missing + BELIEF * off * off;
    }

    private static void bends(Fit fit, double[] knots, int from, double weight) {
        for (int k = 1; k < knots.length - 1; k++) {
            double[] row = new double[fit.right.length];
            row[from + k - 1] = 1 / (knots[k] - knots[k - 1]);
            row[from + k + 1] = 1 / (knots[k + 1] - knots[k]);
            row[from + k] = -row[from + k - 1] - row[from + k + 1];
            fit.add(row, 0, weight);
        }
    }

    /** Least squares by normal equations. */
    private static final class Fit {
        final double[][] normal;
        final double[] right;
        double squares;

        Fit(int size) {
            normal = new double[size][size];
            right = new double[size];
        }

        void add(double[] row, double value, double weight) {
            double w = weight * weight;
            squares += w * value * value;
            for (int a = 0; a < right.length; a++) {
                if (row[a] == 0) {
                    continue;
                }
                right[a] += w * row[a] * value;
                for (int b = 0; b <= a; b++) {
                    normal[a][b] += w * row[a] * row[b];
                }
            }
        }

        double[] solved() {
            for (int a = 0; a < right.length; a++) {
                normal[a][a] += 1e-10 * (1 + normal[a][a]);
            }
            return Solve.spd(normal, right);
        }

        double misfit(double[] x) {
            double sum = squares;
            for (int a = 0; a < x.length; a++) {
                sum -= x[a] * right[a];
            }
            return sum;
        }
    }
}
