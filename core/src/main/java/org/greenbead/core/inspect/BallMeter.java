package org.greenbead.core.inspect;

import java.util.Arrays;

/**
 * The outline of a ball: along rays the steepest fall from bright to dark is looked for, and a circle is fitted to these places with
 * Tukey's weights. A sphere is seen as a circle whatever the tilt.
 */
final class BallMeter {
    private static final int RAYS = 64;
    private static final int COARSE_RAYS = 24;
    private static final double PRIOR = 0.2;
    private static final double FIRST = 0.5;
    private final Plane tin;
    private final double level;
    private final double ground;
    private final double[] cos = new double[RAYS];
    private final double[] sin = new double[RAYS];
    private final double[] rim = new double[RAYS];

    /** @param level of balls, @param ground of what lies between them */
    BallMeter(Plane tin, double level, double ground) {
        this.tin = tin;
        this.level = level;
        this.ground = ground;
        for (int i = 0; i < RAYS; i++) {
            cos[i] = Math.cos(2 * Math.PI * i / RAYS);
            sin[i] = Math.sin(2 * Math.PI * i / RAYS);
            rim[i] = ground + 0.47 * (level - ground);
        }
    }

    Plane plane() {
        return tin;
    }

    /** @param radius expected, px */
    Circle measure(double x, double y, double radius) {
        Circle rough = around(x, y, radius, 0.2, 1.9, radius);
        double moved = Math.hypot(rough.xPx() - x, rough.yPx() - y);
        boolean other = moved > 0.08 * radius || Math.abs(rough.rPx() - radius) > 0.25 * radius;
        return other && rough.cover() > 0.2
                ? around(rough.xPx(), rough.yPx(), rough.rPx(), 0.5, 1.7, radius)
                : rough;
    }

    /**
     * Learns from good balls how bright it is, in each direction, well inside the rim and a little beyond it: light from one side makes
     * these differ.
     */
    void learn(java.util.List<Circle> all) {
        int step = Math.max(1, all.size() / 400);
        java.util.List<Circle> good = java.util.stream.IntStream.range(0, all.size())
                .filter(i -> i % step == 0).mapToObj(all::get).toList();
        for (int i = 0; i < RAYS; i++) {
            double[] in = new double[good.size()];
            double[] out = new double[good.size()];
            for (int k = 0; k < good.size(); k++) {
                Circle c = good.get(k);
                double beyond = c.rPx() + Math.max(1.4, 0.085 * c.rPx());
                in[k] = tin.at(c.xPx() + 0.87 * c.rPx() * cos[i], c.yPx() + 0.87 * c.rPx() * sin[i]);
                out[k] = tin.at(c.xPx() + beyond * cos[i], c.yPx() + beyond * sin[i]);
            }
            rim[i] = (BeadCheck.median(in) + BeadCheck.median(out)) / 2;
        }
    }

    /** How far out, as part of the radius, the mean profile of good balls falls to a quarter of what it is well inside. */
    double haze(java.util.List<Circle> good) {
        double inside = profile(good, 0.7);
        for (double part = 0.8; part < 1.8; part += 0.01) {
            if (profile(good, part) < 0.25 * inside) {
                return part;
            }
        }
        return 1.8;
    }

    private double profile(java.util.List<Circle> good, double part) {
        double sum = 0;
        int step = Math.max(1, good.size() / 60);
        int n = 0;
        for (int k = 0; k < good.size(); k += step) {
            Circle c = good.get(k);
            for (int i = 0; i < RAYS; i += 4) {
                sum += tin.at(c.xPx() + part * c.rPx() * cos[i], c.yPx() + part * c.rPx() * sin[i]) - ground;
                n++;
            }
        }
        return sum / n;
    }

    /** The outline from those directions alone in which it is dark a little beyond a circle; its middle stays near the place. */
    Circle within(double x, double y, double radius) {
        double beyond = radius + Math.max(1.4, 0.085 * radius);
        double h = Math.max(0.3, radius / 60);
        double half = Math.max(1.3, 0.07 * radius);
        double[][] m = new double[3][4];
        int used = 0;
        double squares = 0;
        for (int i = 0; i < RAYS; i++) {
            if (tin.at(x + beyond * cos[i], y + beyond * sin[i]) > rim[i]) {
                continue;
            }
            double best = 0.05 * (level - ground);
            double at = Double.NaN;
            for (double rho = 0.82 * radius; rho < 1.12 * radius; rho += h) {
                double inner = 0;
                double outer = 0;
                for (double t = half / 4; t <= half; t += half / 4) {
                    inner += tin.at(x + (rho - t) * cos[i], y + (rho - t) * sin[i]);
                    outer += tin.at(x + (rho + t) * cos[i], y + (rho + t) * sin[i]);
                }
                if ((inner - outer) / 4 > best) {
                    best = (inner - outer) / 4;
                    at = rho;
                }
            }
            if (Double.isFinite(at)) {
                double[] slope = {cos[i], sin[i], 1};
                for (int a = 0; a < 3; a++) {
                    for (int c = 0; c < 3; c++) {
                        m[a][c] += slope[a] * slope[c];
                    }
                    m[a][3] += slope[a] * (at - radius);
                }
                squares += (at - radius) * (at - radius);
                used++;
            }
        }
        if (used < RAYS / 6) {
            return new Circle(x, y, radius, 0, radius);
        }
        m[0][0] += 0.5 * used;
        m[1][1] += 0.5 * used;
        m[2][2] += 0.05 * used;
        double[] step = solve(m);
        return new Circle(x + step[0], y + step[1], radius + step[2], used / (double) RAYS + 0.3,
                Math.sqrt(squares / used / used) + 0.02 * radius);
    }

    /** Looks for any ball within reach of a place, whatever its size. */
    Circle search(double x, double y, double radius, double reach) {
        double step = 0.2 * radius;
        double best = 0;
        double bx = x;
        double by = y;
        double br = radius;
        for (double dy = -reach; dy <= reach; dy += step) {
            for (double dx = -reach; dx <= reach; dx += step) {
                if (dx * dx + dy * dy > reach * reach) {
                    continue;
                }
                for (double r = 0.34 * radius; r <= 1.5 * radius; r += 0.1 * radius) {
                    double score = ring(x + dx, y + dy, r, Math.max(1.2, 0.13 * r)) * likely(r / radius);
                    if (score > best) {
                        best = score;
                        bx = x + dx;
                        by = y + dy;
                        br = r;
                    }
                }
            }
        }
        return around(bx, by, br, 0.6, 1.5, radius);
    }

    /** How readily a size is believed, before anything is seen; a clear outline of any other size wins all the same. */
    static double likely(double ratio) {
        double off = (ratio - 1) / PRIOR;
        return 1 / (1 + 0.5 * off * off);
    }

    private double ring(double x, double y, double r, double half) {
        double sum = 0;
        for (int i = 0; i < COARSE_RAYS; i++) {
            int k = i * RAYS / COARSE_RAYS;
            double inner = tin.at(x + (r - half) * cos[k], y + (r - half) * sin[k]);
            double outer = tin.at(x + (r + half) * cos[k], y + (r + half) * sin[k]);
            sum += Math.clamp((inner - outer) / (level - ground), -0.3, 0.8);
        }
        return sum / COARSE_RAYS;
    }

    private Circle around(double x0, double y0, double expected, double from, double to, double usual) {
        double h = Math.max(0.35, expected / 50);
        int count = (int) ((to - from) * expected / h) + 1;
        int half = Math.max(2, (int) Math.round(Math.max(1.3, 0.07 * expected) / h));
        var fall = new double[RAYS][count];
        var profile = new double[count];
        var sums = new double[count + 1];
        var dark = new double[count];
        for (int i = 0; i < RAYS; i++) {
            for (int k = 0; k < count; k++) {
                double rho = from * expected + k * h;
                profile[k] = tin.at(x0 + rho * cos[i], y0 + rho * sin[i]);
            }
            for (int k = 0; k < count; k++) {
                sums[k + 1] = sums[k] + profile[k];
                dark[k] += (profile[k] - ground) / RAYS;
            }
            for (int k = 0; k < count; k++) {
                int lo = Math.max(0, k - half);
                int hi = Math.min(count, k + half);
                fall[i][k] = k - lo < 1 || hi - k < 1
                        ? 0
                        : Math.clamp(((sums[k] - sums[lo]) / (k - lo) - (sums[hi] - sums[k]) / (hi - k))
                                / (level - ground), -0.3, 1);
            }
        }
        // The radius at which most rays fall; a slack of a few pixels for a middle that is not known well yet.
        int slack = Math.max(1, (int) Math.round(0.06 * expected / h));
        double best = -1;
        int bestK = (int) ((1 - from) * expected / h);
        var standing = new double[count];
        var most = new double[count];
        for (double[] ray : fall) {
            java.util.Arrays.fill(most, 0);
            for (int j = -slack; j <= slack; j++) {
                for (int k = slack; k < count - slack; k++) {
                    most[k] = ray[k + j] > most[k] ? ray[k + j] : most[k];
                }
            }
            for (int k = slack; k < count - slack; k++) {
                standing[k] += most[k] < 0.7 ? most[k] : 0.7;
            }
        }
        for (int k = slack; k < count - slack; k++) {
            double rho = from * expected + k * h;
            // Of two outlines, one in the other, the one closer to the usual size is the ball, unless it is far clearer.
            standing[k] *= likely(rho / usual);
            if (standing[k] > best) {
                best = standing[k];
                bestK = k;
            }
        }
        // The innermost outline beyond which it is dark: glints of flux lie farther out, highlights on the ball farther in.
        for (int k = slack; k < bestK; k++) {
            if (standing[k] > 0.55 * best && standing[k] >= standing[k - 1] && standing[k] >= standing[k + 1]
                    && dark[Math.min(count - 1, k + half)] < 0.55 * (level - ground)) {
                bestK = k;
                break;
            }
        }
        double dx = 0;
        double dy = 0;
        double r = from * expected + bestK * h;
        double gate = 0.2 * r;
        double sigma = r;
        double cover = 0;
        var miss = new double[RAYS];
        var weight = new double[RAYS];
        for (int turn = 0; turn < 7; turn++) {
            for (int i = 0; i < RAYS; i++) {
                double along = dx * cos[i] + dy * sin[i];
                double side = -dx * sin[i] + dy * cos[i];
                double rho = along + Math.sqrt(Math.max(0.04 * r * r, r * r - side * side));
                int mid = (int) Math.round((rho - from * expected) / h);
                int reach = (int) Math.ceil(gate / h);
                int lo = Math.max(1, mid - reach);
                int hi = Math.min(count - 2, mid + reach);
                double steepest = 0;
                for (int k = lo; k <= hi; k++) {
                    steepest = Math.max(steepest, fall[i][k]);
                }
                // The first clear fall on the way out: a glint beyond the ball falls too, but later.
                int at = -1;
                double clear = 0;
                for (int k = lo; k <= hi && at < 0; k++) {
                    if (fall[i][k] > Math.max(0.08, FIRST * steepest) && fall[i][k] >= fall[i][k - 1]
                            && fall[i][k] > fall[i][k + 1]) {
                        clear = fall[i][k];
                        at = k;
                    }
                }
                weight[i] = 0;
                if (at > 0) {
                    double bend = fall[i][at - 1] - 2 * fall[i][at] + fall[i][at + 1];
                    double fine = bend < -1e-9 ? (fall[i][at - 1] - fall[i][at + 1]) / (2 * bend) : 0;
                    // fall[k] is the step at the boundary before sample k.
                    miss[i] = from * expected + (at + Math.clamp(fine, -0.5, 0.5) - 0.5) * h - rho;
                    weight[i] = Math.min(0.6, clear);
                }
            }
            double[] sized = new double[RAYS];
            int n = 0;
            for (int i = 0; i < RAYS; i++) {
                if (weight[i] > 0) {
                    sized[n++] = Math.abs(miss[i]);
                }
            }
            if (n < RAYS / 5) {
                return new Circle(x0 + dx, y0 + dy, r, 0, r);
            }
            Arrays.sort(sized, 0, n);
            double cut = Math.max(0.8, 4.7 * 1.48 * sized[n / 2]);
            double[][] m = new double[3][4];
            double total = 0;
            double squares = 0;
            cover = 0;
            for (int i = 0; i < RAYS; i++) {
                double q = miss[i] / cut;
                if (weight[i] > 0 && Math.abs(q) < 1) {
                    double w = weight[i] * (1 - q * q) * (1 - q * q);
                    double[] slope = {cos[i], sin[i], 1};
                    for (int a = 0; a < 3; a++) {
                        for (int b = 0; b < 3; b++) {
                            m[a][b] += w * slope[a] * slope[b];
                        }
                        m[a][3] += w * slope[a] * miss[i];
                    }
                    total += w;
                    squares += w * miss[i] * miss[i];
                    if (Math.abs(miss[i]) < 0.9 + 0.05 * r) {
                        cover += Math.min(1, weight[i] / 0.35);
                    }
                }
            }
            cover /= RAYS;
            double[] step = solve(m);
            double limit = 0.3 * r;
            dx += Math.clamp(step[0], -limit, limit);
            dy += Math.clamp(step[1], -limit, limit);
            r = Math.clamp(r + step[2], 0.15 * expected, 2.2 * expected);
            sigma = Math.sqrt(squares / Math.max(1e-9, total)) / Math.sqrt(Math.max(1, n - 3));
            double narrower = Math.max(0.1 * r + 0.8, gate * 0.65);
            if (narrower == gate && Math.abs(step[0]) + Math.abs(step[1]) + Math.abs(step[2]) < 0.01) {
                break;
            }
            gate = narrower;
        }
        return new Circle(x0 + dx, y0 + dy, r, cover, sigma);
    }

    private static double[] solve(double[][] m) {
        for (int a = 0; a < 3; a++) {
            m[a][a] += 1e-9;
            for (int b = a + 1; b < 3; b++) {
                double f = m[b][a] / m[a][a];
                for (int c = a; c < 4; c++) {
                    m[b][c] -= f * m[a][c];
                }
            }
        }
        double z = m[2][3] / m[2][2];
        double y = (m[1][3] - m[1][2] * z) / m[1][1];
        double x = (m[0][3] - m[0][2] * z - m[0][1] * y) / m[0][0];
        return new double[]{x, y, z};
    }

    /** A value between ground, 0, and the balls, 1. */
    double part(double value) {
        return (value - ground) / (level - ground);
    }

    Plane tin() {
        return tin;
    }
}
