package org.greenbead.core.inspect;

import java.util.List;
import java.util.stream.IntStream;

/**
 * What the balls of one photo mirror well inside their rims. A sphere mirrors each lamp at one and the same part of its radius, so that
 * the size of this picture is the size of the ball, whatever flux draws round it. Rays, steps and reach give sizes to a hundredth of the
 * radius; the limits of likeness are judgement, set where rendered photos with known truth were told apart.
 */
final class Highlights {
    private static final int RAYS = 16;
    private static final double FROM = 0.05;
    private static final double STEP = 0.035;
    private static final int COUNT = 19;
    private static final int MOST_BALLS = 160;
    /** Below the lower quarter of the good balls by so many times its way to the middle. */
    private static final double FAR = 2;
    /** What is less alike than this is no ball; what a size lacks of likeness must be less than this part of what the outline lacks, and the size under this part of it. */
    private static final double LEAST = 0.75;
    private static final double BETTER = 0.6;
    private static final double SMALLER = 0.94;
    /** How far the ball may stand from the middle of an outline: flux gathers on one side, a pad lies under its ball. */
    private static final double BESIDE_FLUX = 0.36;
    private static final double BESIDE_PAD = 0.18;
    /** Standard uncertainty of a radius by what is mirrored: spread on good balls of rendered photos. */
    private static final double UNSURE = 0.035;
    /** Of balls that differ by 3 % (standard deviation), measured to 3.5 %: 3² / (3² + 3.5²) of what is measured. Beyond this off, it is a fault. */
    private static final double NORMAL = 0.12;
    private static final double NEARER = 0.42;
    private static final double SMALLEST = 0.6;
    private static final double LARGEST = 1.1;
    private static final double SIZE_STEP = 0.04;
    private static final double REACH = 0.4;
    private static final double PLACE_STEP = 0.1;
    private static final int FINER = 3;
    private final Plane light;
    private final double[] cos = new double[RAYS];
    private final double[] sin = new double[RAYS];
    private final double[] usual = new double[RAYS * COUNT];
    private final double unlike;

    /** @param light in which highlights are not all burnt out, @param good balls as most of them are */
    Highlights(Plane light, List<Circle> good) {
        this.light = light;
        for (int i = 0; i < RAYS; i++) {
            cos[i] = Math.cos(2 * Math.PI * i / RAYS);
            sin[i] = Math.sin(2 * Math.PI * i / RAYS);
        }
        int step = Math.max(1, good.size() / MOST_BALLS);
        double[][] seen = IntStream.range(0, good.size()).filter(i -> i % step == 0)
                .mapToObj(i -> seen(good.get(i).xPx(), good.get(i).yPx(), good.get(i).rPx()))
                .toArray(double[][]::new);
        for (int n = 0; n < usual.length; n++) {
            int at = n;
            usual[n] = BeadCheck.median(java.util.Arrays.stream(seen).mapToDouble(s -> s[at]).toArray());
        }
        double[] likes = java.util.Arrays.stream(seen).mapToDouble(this::like).sorted().toArray();
        double quarter = likes[likes.length / 4];
        unlike = quarter - FAR * (likes[likes.length / 2] - quarter);
    }

    /**
     * The ball inside an outline that flux, or the pad round a small ball, has drawn too wide; the circle itself where its inside looks as
     * it should, or nothing in it looks like a ball.
     */
    Circle within(Circle circle, double usualRadius) {
        double own = like(seen(circle.xPx(), circle.yPx(), circle.rPx()));
        if (own >= unlike) {
            return circle;
        }
        Fit best = best(circle, usualRadius);
        boolean other = best.rPx < SMALLER * circle.rPx() && best.like > LEAST
                && 1 - best.like < BETTER * (1 - own)
                && Math.hypot(best.xPx - circle.xPx(),
                        best.yPx - circle.yPx()) < (circle.rPx() > usualRadius ? BESIDE_FLUX : BESIDE_PAD)
                                * usualRadius;
        return other
                ? new Circle(best.xPx, best.yPx, likely(best.rPx / usualRadius) * usualRadius, circle.cover(),
                        UNSURE * best.rPx)
                : circle;
    }

    /** A size near the usual one is most likely nearer still: good balls differ less than this measure does. */
    private static double likely(double ratio) {
        return Math.abs(ratio - 1) < NORMAL ? 1 + NEARER * (ratio - 1) : ratio;
    }

    /** @param like correlation with the usual picture, 1 at most */
    private record Fit(double xPx, double yPx, double rPx, double like) {}

    /** The best place and size from somewhat less than the usual size to somewhat more than a circle. */
    private Fit best(Circle circle, double usualRadius) {
        double least = SMALLEST * Math.min(usualRadius, circle.rPx());
        double most = LARGEST * Math.max(usualRadius, circle.rPx());
        Fit best = new Fit(circle.xPx(), circle.yPx(), circle.rPx(), -1);
        double place = PLACE_STEP * usualRadius;
        int reach = (int) Math.round(REACH / PLACE_STEP);
        for (double r = least; r <= most; r *= 1 + SIZE_STEP) {
            best = around(best, circle.xPx(), circle.yPx(), r, place, reach);
        }
        double size = SIZE_STEP;
        for (int turn = 0; turn < FINER; turn++) {
            place /= 2;
            size /= 2;
            Fit from = best;
            for (int k = -1; k <= 1; k++) {
                best = around(best, from.xPx, from.yPx, from.rPx * (1 + k * size), place, 1);
            }
        }
        return best;
    }

    private Fit around(Fit best, double x, double y, double r, double step, int reach) {
        Fit found = best;
        for (int i = -reach; i <= reach; i++) {
            for (int j = -reach; j <= reach; j++) {
                if (i * i + j * j <= reach * reach + 1) {
                    double px = x + i * step;
                    double py = y + j * step;
                    Fit now = new Fit(px, py, r, like(seen(px, py, r)));
                    found = now.like > found.like ? now : found;
                }
            }
        }
        return found;
    }

    private double like(double[] here) {
        double meanA = 0;
        double meanB = 0;
        for (int n = 0; n < here.length; n++) {
            meanA += usual[n] / here.length;
            meanB += here[n] / here.length;
        }
        double ab = 0;
        double aa = 0;
        double bb = 0;
        for (int n = 0; n < here.length; n++) {
            double a = usual[n] - meanA;
            double b = here[n] - meanB;
            ab += a * b;
            aa += a * a;
            bb += b * b;
        }
        return ab / Math.sqrt(aa * bb + 1e-12);
    }

    private double[] seen(double x, double y, double r) {
        double[] seen = new double[RAYS * COUNT];
        for (int i = 0; i < RAYS; i++) {
            for (int k = 0; k < COUNT; k++) {
                double rho = (FROM + STEP * k) * r;
                seen[i * COUNT + k] = light.at(x + rho * cos[i], y + rho * sin[i]);
            }
        }
        return seen;
    }
}
