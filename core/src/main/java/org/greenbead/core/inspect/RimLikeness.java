package org.greenbead.core.inspect;

import java.util.Arrays;
import java.util.List;

/**
 * How the rims of the good balls of one photo look, in each direction, and by that the outline of any ball: the middle and the radius at
 * which it looks most like the rest. The whole rim speaks, not its steepest place alone, which on small balls jumps between the edge of
 * the mirrored light and the outline.
 */
final class RimLikeness {
    private static final int RAYS = 20;
    private static final double FROM = 0.62;
    private static final double STEP = 0.036;
    private static final int COUNT = 19;
    private static final int TURNS = 6;
    /** Turns that look at the slopes anew; after these they hardly change. */
    private static final int SLOPES = 3;
    private static final int MOST_BALLS = 240;
    private static final double TUKEY = 4.7;
    private static final double ODD = 0.06;
    private static final double FINE = 0.25;
    private static final double GROWN = 1.03;
    private static final double FLUX = 0.2;
    private static final double FAR_LIKER = 0.5;
    private final Plane plane;
    private final double spread;
    private final double[] cos = new double[RAYS];
    private final double[] sin = new double[RAYS];
    private final double[][] usual = new double[RAYS][COUNT];

    RimLikeness(Plane plane, List<Circle> good) {
        this.plane = plane;
        for (int i = 0; i < RAYS; i++) {
            cos[i] = Math.cos(2 * Math.PI * i / RAYS);
            sin[i] = Math.sin(2 * Math.PI * i / RAYS);
        }
        int step = Math.max(1, good.size() / MOST_BALLS);
        List<Circle> some = java.util.stream.IntStream.range(0, good.size()).filter(i -> i % step == 0)
                .mapToObj(good::get).toList();
        double[][] raw = new double[RAYS][COUNT];
        double[] seen = new double[some.size()];
        for (int i = 0; i < RAYS; i++) {
            for (int k = 0; k < COUNT; k++) {
                for (int b = 0; b < seen.length; b++) {
                    Circle c = some.get(b);
                    double rho = (FROM + STEP * k) * c.rPx();
                    seen[b] = plane.at(c.xPx() + rho * cos[i], c.yPx() + rho * sin[i]);
                }
                raw[i][k] = BeadCheck.median(seen);
            }
        }
        spread = TUKEY * 1.48 * around(some, raw);
        for (int i = 0; i < RAYS; i++) {
            for (int k = 0; k < COUNT; k++) {
                usual[i][k] = (raw[(i + RAYS - 1) % RAYS][k] + 2 * raw[i][k] + raw[(i + 1) % RAYS][k]) / 4;
            }
        }
    }

    private double around(List<Circle> some, double[][] middle) {
        var off = new java.util.ArrayList<Float>();
        for (Circle c : some) {
            for (int i = 0; i < RAYS; i += 2) {
                for (int k = 0; k < COUNT; k++) {
                    double rho = (FROM + STEP * k) * c.rPx();
                    off.add((float) Math.abs(
                            plane.at(c.xPx() + rho * cos[i], c.yPx() + rho * sin[i]) - middle[i][k]));
                }
            }
        }
        return Math.max(1e-6, BeadCheck.median(off));
    }

    /**
     * As {@link #fitted}, from the outline that was found, from one of the usual size there and from where a ball is expected. One that
     * grows and yet does not look like the rest stays as it was found, unless it looks far more like them than before and has their size: flux round a ball draws a second outline.
     */
    Circle refined(Circle start, Circle expected) {
        Circle own = fitted(start);
        if (Math.abs(start.rPx() / expected.rPx() - 1) > ODD || unlike(own) > FINE) {
            for (Circle from : List.of(start, expected)) {
                Circle plain = fitted(new Circle(from.xPx(), from.yPx(), expected.rPx(), start.cover(),
                        start.sigmaPx()));
                own = unlike(plain) < unlike(own) ? plain : own;
            }
        }
        boolean grown = own.rPx() > GROWN * start.rPx() && unlike(own) > FLUX;
        boolean usual = Math.abs(own.rPx() / expected.rPx() - 1) < ODD
                && unlike(own) < FAR_LIKER * unlike(start);
        return grown && !usual ? start : own;
    }

    /** How far a ball is from looking like the rest, 0 to 1, its brightness as a whole left out. */
    private double unlike(Circle c) {
        double[] miss = new double[RAYS * COUNT];
        for (int i = 0; i < RAYS; i++) {
            for (int k = 0; k < COUNT; k++) {
                double u = (FROM + STEP * k) * c.rPx();
                miss[i * COUNT + k] = usual[i][k] - plane.at(c.xPx() + u * cos[i], c.yPx() + u * sin[i]);
            }
        }
        double middle = BeadCheck.median(miss);
        double sum = 0;
        for (double m : miss) {
            double q = Math.min(1, Math.abs(m - middle) / spread);
            sum += q * q * (3 - q * q * (3 - q * q));
        }
        return sum / miss.length;
    }

    /**
     * Gauss-Newton with Tukey's weights for middle, radius and brightness as a whole.
     *
     * @return the circle as it was where it does not become like the rest within reach
     */
    private Circle fitted(Circle start) {
        double x = start.xPx();
        double y = start.yPx();
        double r = start.rPx();
        double bright = 0;
        double h = Math.max(0.4, 0.03 * r);
        double sd = start.sigmaPx();
        double cover = 0;
        double[] miss = new double[RAYS * COUNT];
        double[] sized = new double[RAYS * COUNT];
        double[] slopeX = new double[RAYS * COUNT];
        double[] slopeY = new double[RAYS * COUNT];
        double[] slopeR = new double[RAYS * COUNT];
        for (int turn = 0; turn < TURNS; turn++) {
            for (int i = 0; i < RAYS; i++) {
                for (int k = 0; k < COUNT; k++) {
                    double u = FROM + STEP * k;
                    double px = x + u * r * cos[i];
                    double py = y + u * r * sin[i];
                    int n = i * COUNT + k;
                    if (turn < SLOPES) {
                        slopeX[n] = (plane.at(px + h, py) - plane.at(px - h, py)) / (2 * h);
                        slopeY[n] = (plane.at(px, py + h) - plane.at(px, py - h)) / (2 * h);
                        slopeR[n] = u * (slopeX[n] * cos[i] + slopeY[n] * sin[i]);
                    }
                    miss[n] = usual[i][k] + bright - plane.at(px, py);
                    sized[n] = Math.abs(miss[n]);
                }
            }
            double cut = turn < 2 ? Math.max(TUKEY * 1.48 * BeadCheck.median(sized), spread) : spread;
            double[][] normal = new double[4][4];
            double[] right = new double[4];
            double[] slope = {0, 0, 0, -1};
            double squares = 0;
            double total = 0;
            int counted = 0;
            for (int n = 0; n < miss.length; n++) {
                double q = miss[n] / cut;
                if (Math.abs(q) >= 1) {
                    continue;
                }
                double w = (1 - q * q) * (1 - q * q);
                counted += Math.abs(q) < 0.7 ? 1 : 0;
                total += w;
                squares += w * miss[n] * miss[n];
                slope[0] = slopeX[n];
                slope[1] = slopeY[n];
                slope[2] = slopeR[n];
                for (int a = 0; a < 4; a++) {
                    right[a] += w * slope[a] * miss[n];
                    for (int b = 0; b <= a; b++) {
                        normal[a][b] += w * slope[a] * slope[b];
                    }
                }
            }
            double[] step = Solve.spd(normal, right);
            if (step == null) {
                return start;
            }
            double most = 0.08 * r;
            x += Math.clamp(step[0], -most, most);
            y += Math.clamp(step[1], -most, most);
            r += Math.clamp(step[2], -most, most);
            bright += step[3];
            cover = counted / (double) miss.length;
            // Neighbouring samples share pixels: about one in six is worth a look of its own.
            sd = Math.sqrt(6 * squares / Math.max(1, total) / Math.max(1e-9, normal[2][2]));
            if (Math.abs(step[0]) + Math.abs(step[1]) + Math.abs(step[2]) < 0.02) {
                break;
            }
        }
        boolean far = Math.abs(r / start.rPx() - 1) > 0.16
                || Math.hypot(x - start.xPx(), y - start.yPx()) > 0.16 * start.rPx();
        return far || cover < 0.5 ? start : new Circle(x, y, r, start.cover(), sd);
    }
}
