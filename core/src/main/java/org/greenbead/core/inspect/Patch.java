package org.greenbead.core.inspect;

import java.util.Optional;
import java.util.function.DoubleBinaryOperator;

/** A square of a picture, without its mean and of length one, to be looked for elsewhere. */
final class Patch {
    private final double[] values;
    private final int half;

    private Patch(double[] values, int half) {
        this.values = values;
        this.half = half;
    }

    static double variance(Plane a, int x, int y, int half) {
        double sum = 0;
        double squares = 0;
        int n = 0;
        for (int dy = -half; dy <= half; dy += 2) {
            for (int dx = -half; dx <= half; dx += 2) {
                double v = a.v[(y + dy) * a.width + x + dx];
                sum += v;
                squares += v * v;
                n++;
            }
        }
        return squares / n - sum / n * (sum / n);
    }

    /**
     * The square round a place as the other picture would show it.
     *
     * @param toX where a place lies in the other picture
     */
    static Patch of(Plane a, double x, double y, int half, DoubleBinaryOperator toX,
            DoubleBinaryOperator toY) {
        double jxx = toX.applyAsDouble(x + 1, y) - toX.applyAsDouble(x, y);
        double jxy = toX.applyAsDouble(x, y + 1) - toX.applyAsDouble(x, y);
        double jyx = toY.applyAsDouble(x + 1, y) - toY.applyAsDouble(x, y);
        double jyy = toY.applyAsDouble(x, y + 1) - toY.applyAsDouble(x, y);
        double det = jxx * jyy - jxy * jyx;
        double xx = jyy / det;
        double xy = -jxy / det;
        double yx = -jyx / det;
        double yy = jxx / det;
        int side = 2 * half + 1;
        double[] values = new double[side * side];
        double mean = 0;
        for (int v = -half; v <= half; v++) {
            for (int u = -half; u <= half; u++) {
                double value = a.at(x + xx * u + xy * v, y + yx * u + yy * v);
                values[(v + half) * side + u + half] = value;
                mean += value / values.length;
            }
        }
        double length = 0;
        for (int i = 0; i < values.length; i++) {
            values[i] -= mean;
            length += values[i] * values[i];
        }
        length = Math.sqrt(length) + 1e-12;
        for (int i = 0; i < values.length; i++) {
            values[i] /= length;
        }
        return new Patch(values, half);
    }

    /** Where it was found. @param like 1 = the same but for light */
    record Found(double x, double y, double like) {}

    double like(Plane b, double x, double y) {
        int side = 2 * half + 1;
        double[] there = new double[side * side];
        for (int v = 0; v < side; v++) {
            for (int u = 0; u < side; u++) {
                there[v * side + u] = b.at(x + u - half, y + v - half);
            }
        }
        return like(there, 0, side);
    }

    /** @param at first number of the square, @param stride of its rows */
    private double like(double[] there, int at, int stride) {
        int side = 2 * half + 1;
        double sum = 0;
        double squares = 0;
        double cross = 0;
        for (int v = 0; v < side; v++) {
            for (int u = 0; u < side; u++) {
                double value = there[at + v * stride + u];
                sum += value;
                squares += value * value;
                cross += value * values[v * side + u];
            }
        }
        double n = values.length;
        double length = Math.sqrt(Math.max(0, squares - sum * sum / n));
        return length < 1e-9 ? 0 : cross / length;
    }

    /** The best place within reach, to a fraction of a pixel; empty where it would hang over the border. */
    Optional<Found> best(Plane b, double x, double y, int reach) {
        int side = 2 * half + 1;
        int wide = 2 * reach + side;
        double[] near = new double[wide * wide];
        for (int dy = 0; dy < wide; dy++) {
            for (int dx = 0; dx < wide; dx++) {
                near[dy * wide + dx] = b.at(x + dx - reach - half, y + dy - reach - half);
            }
        }
        double best = -2;
        int bx = 0;
        int by = 0;
        for (int dy = -reach; dy <= reach; dy++) {
            for (int dx = -reach; dx <= reach; dx++) {
                if (b.holds(x + dx, y + dy, half + 1)) {
                    double like = like(near, (dy + reach) * wide + dx + reach, wide);
                    if (like > best) {
                        best = like;
                        bx = dx;
                        by = dy;
                    }
                }
            }
        }
        if (best < -1) {
            return Optional.empty();
        }
        double px = x + bx;
        double py = y + by;
        double left = like(b, px - 1, py);
        double right = like(b, px + 1, py);
        double up = like(b, px, py - 1);
        double down = like(b, px, py + 1);
        double bendX = left - 2 * best + right;
        double bendY = up - 2 * best + down;
        double fx = bendX < -1e-9 ? Math.clamp((left - right) / (2 * bendX), -0.5, 0.5) : 0;
        double fy = bendY < -1e-9 ? Math.clamp((up - down) / (2 * bendY), -0.5, 0.5) : 0;
        return Optional.of(new Found(px + fx, py + fy, best));
    }
}
