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
    /** Fall, part of the way from balls to ground, from which on a place of the rim counts in full; judgement. */
    private double full = 0.35;
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

    /** Takes this part of the fall that was needed so far for a place of the rim that is seen clearly. */
    void ease(double part) {
        full *= part;
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
                add(m, cos[i], sin[i], 1, at - radius);
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
        var rays = new Rays(x0, y0, expected, from, to);
        rays.read();
        return rays.fitted(rays.start(usual));
    }

    /** What is seen along the rays from one place: how far it falls from bright to dark at each step outwards. */
    private final class Rays {
        private final double x0;
        private final double y0;
        private final double expected;
        private final double first;
        private final double h;
        private final int count;
        private final int half;
        private final double[][] fall;
        private final double[] dark;
        private final double[] miss = new double[RAYS];
        private final double[] weight = new double[RAYS];

        Rays(double x0, double y0, double expected, double from, double to) {
            this.x0 = x0;
            this.y0 = y0;
            this.expected = expected;
            first = from * expected;
            h = Math.max(0.35, expected / 50);
            count = (int) ((to - from) * expected / h) + 1;
            half = Math.max(2, (int) Math.round(Math.max(1.3, 0.07 * expected) / h));
            fall = new double[RAYS][count];
            dark = new double[count];
        }

        void read() {
            var profile = new double[count];
            var sums = new double[count + 1];
            for (int i = 0; i < RAYS; i++) {
                tin.along(x0 + first * cos[i], y0 + first * sin[i], h * cos[i], h * sin[i], profile);
                for (int k = 0; k < count; k++) {
                    sums[k + 1] = sums[k] + profile[k];
                    dark[k] += (profile[k] - ground) / RAYS;
                }
                fallen(sums, fall[i]);
            }
        }

        private void fallen(double[] sums, double[] out) {
            for (int k = 0; k < count; k++) {
                int lo = Math.max(0, k - half);
                int hi = Math.min(count, k + half);
                out[k] = k - lo < 1 || hi - k < 1
                        ? 0
                        : Math.clamp(((sums[k] - sums[lo]) / (k - lo) - (sums[hi] - sums[k]) / (hi - k))
                                / (level - ground), -0.3, 1);
            }
        }

        /** The radius at which most rays fall; a slack of a few pixels for a middle that is not known well yet. */
        double start(double usual) {
            int slack = Math.max(1, (int) Math.round(0.06 * expected / h));
            double best = -1;
            int bestK = (int) ((expected - first) / h);
            double[] standing = standing(slack);
            for (int k = slack; k < count - slack; k++) {
                // Of two outlines, one in the other, the one closer to the usual size is the ball, unless it is far clearer.
                standing[k] *= likely((first + k * h) / usual);
                if (standing[k] > best) {
                    best = standing[k];
                    bestK = k;
                }
            }
            // The innermost outline beyond which it is dark: glints of flux lie farther out, highlights on the ball farther in.
            for (int k = slack; k < bestK; k++) {
                if (standing[k] > 0.55 * best && standing[k] >= standing[k - 1]
                        && standing[k] >= standing[k + 1]
                        && dark[Math.min(count - 1, k + half)] < 0.55 * (level - ground)) {
                    return first + k * h;
                }
            }
            return first + bestK * h;
        }

        private double[] standing(int slack) {
            var standing = new double[count];
            var most = new double[count];
            for (double[] ray : fall) {
                Arrays.fill(most, 0);
                for (int j = -slack; j <= slack; j++) {
                    for (int k = slack; k < count - slack; k++) {
                        most[k] = ray[k + j] > most[k] ? ray[k + j] : most[k];
                    }
                }
                for (int k = slack; k < count - slack; k++) {
                    standing[k] += most[k] < 0.7 ? most[k] : 0.7;
                }
            }
            return standing;
        }

        Circle fitted(double radius) {
            double dx = 0;
            double dy = 0;
            double r = radius;
            double gate = 0.2 * r;
            double sigma = r;
            double cover = 0;
            double[] sized = new double[RAYS];
            for (int turn = 0; turn < 7; turn++) {
                int n = 0;
                for (int i = 0; i < RAYS; i++) {
                    double along = dx * cos[i] + dy * sin[i];
                    double side = -dx * sin[i] + dy * cos[i];
                    edge(i, along + Math.sqrt(Math.max(0.04 * r * r, r * r - side * side)), gate);
                    if (weight[i] > 0) {
                        sized[n++] = Math.abs(miss[i]);
                    }
                }
                if (n < RAYS / 5) {
                    return new Circle(x0 + dx, y0 + dy, r, 0, r);
                }
                Arrays.sort(sized, 0, n);
                double[] step = step(Math.max(0.8, 4.7 * 1.48 * sized[n / 2]), r);
                double limit = 0.3 * r;
                dx += Math.clamp(step[0], -limit, limit);
                dy += Math.clamp(step[1], -limit, limit);
                r = Math.clamp(r + step[2], 0.15 * expected, 2.2 * expected);
                cover = step[3];
                sigma = step[4] / Math.sqrt(Math.max(1, n - 3));
                double narrower = Math.max(0.1 * r + 0.8, gate * 0.65);
                if (narrower == gate && Math.abs(step[0]) + Math.abs(step[1]) + Math.abs(step[2]) < 0.01) {
                    break;
                }
                gate = narrower;
            }
            return new Circle(x0 + dx, y0 + dy, r, cover, sigma);
        }

        /** The first clear fall on the way out, near {@code rho}: a glint beyond the ball falls too, but later. */
        private void edge(int i, double rho, double gate) {
            double[] ray = fall[i];
            int mid = (int) Math.round((rho - first) / h);
            int reach = (int) Math.ceil(gate / h);
            int lo = Math.max(1, mid - reach);
            int hi = Math.min(count - 2, mid + reach);
            double steepest = 0;
            for (int k = lo; k <= hi; k++) {
                steepest = Math.max(steepest, ray[k]);
            }
            weight[i] = 0;
            double least = Math.max(0.08, FIRST * steepest);
            for (int k = lo; k <= hi; k++) {
                if (ray[k] > least && ray[k] >= ray[k - 1] && ray[k] > ray[k + 1]) {
                    double bend = ray[k - 1] - 2 * ray[k] + ray[k + 1];
                    double fine = bend < -1e-9 ? (ray[k - 1] - ray[k + 1]) / (2 * bend) : 0;
                    // A fall is the step at the boundary before its sample.
                    miss[i] = first + (k + Math.clamp(fine, -0.5, 0.5) - 0.5) * h - rho;
                    weight[i] = Math.min(0.6, ray[k]);
                    return;
                }
            }
        }

        /** Tukey's weights. @return step in x, y and radius, share of the rim that was found, root mean square of what misses */
        private double[] step(double cut, double r) {
            double[][] m = new double[3][4];
            double total = 0;
            double squares = 0;
            double cover = 0;
            for (int i = 0; i < RAYS; i++) {
                double q = miss[i] / cut;
                if (weight[i] > 0 && Math.abs(q) < 1) {
                    double w = weight[i] * (1 - q * q) * (1 - q * q);
                    add(m, cos[i], sin[i], w, miss[i]);
                    total += w;
                    squares += w * miss[i] * miss[i];
                    if (Math.abs(miss[i]) < 0.9 + 0.05 * r) {
                        cover += Math.min(1, weight[i] / full);
                    }
                }
            }
            double[] by = solve(m);
            return new double[]{by[0], by[1], by[2], cover / RAYS,
                    Math.sqrt(squares / Math.max(1e-9, total))};
        }
    }

    /** One place of the rim, towards (c, s), into the equations of a circle. */
    private static void add(double[][] m, double c, double s, double weight, double miss) {
        double[] slope = {c, s, 1};
        for (int a = 0; a < 3; a++) {
            for (int b = 0; b < 3; b++) {
                m[a][b] += weight * slope[a] * slope[b];
            }
            m[a][3] += weight * slope[a] * miss;
        }
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
