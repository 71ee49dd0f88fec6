package org.greenbead.core.inspect;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;

/**
 * Where one photo lies in another, roughly and whatever way up: both are made tiny, freed of uneven light, and tried over turns, sizes and
 * places by normalised correlation (Lewis 1995).
 */
final class Overview {
    private static final int WIDTH = 72;
    private static final int TURNS = 72;
    private static final double SIZE_STEP = 1.1;
    private static final int SIZES = 5;
    private static final double REACH = 0.35;
    private static final int PLACE_STEP = 2;
    private static final int MOST_POINTS = 500;
    private static final double LEAST_SEEN = 0.5;
    private static final double LOCAL = 7;
    private static final double CALM = 0.9;
    private static final int BORDER = 2;

    private Overview() {
    }

    /**
     * A similarity: place {@code (x, y)} of the first lies at {@code (x0 + c x - s y, y0 + s x + c y)} of the second, pixels.
     *
     * @param like correlation, 1 at most
     */
    record Guess(double c, double s, double x0, double y0, double like) {
        double turnDeg() {
            return Math.toDegrees(Math.atan2(s, c));
        }
    }

    /** @return the best of each turn, the best first, @param most how many */
    static List<Guess> guesses(Plane before, Plane after, int most) {
        double shrinkA = before.width / (double) WIDTH;
        double shrinkB = after.width / (double) WIDTH;
        Plane a = even(tiny(before, shrinkA));
        Plane b = even(tiny(after, shrinkB));
        int step = 1;
        while (a.width * a.height / (step * step) > MOST_POINTS) {
            step++;
        }
        var points = new ArrayList<double[]>();
        for (int y = BORDER; y < a.height - BORDER; y += step) {
            for (int x = BORDER; x < a.width - BORDER; x += step) {
                points.add(new double[]{x + 0.5 - a.width / 2.0, y + 0.5 - a.height / 2.0,
                        a.v[y * a.width + x]});
            }
        }
        double[][] all = points.toArray(double[][]::new);
        List<Guess> best = IntStream.range(0, TURNS).parallel()
                .mapToObj(t -> turned(all, b, 2 * Math.PI * t / TURNS))
                .sorted(Comparator.comparingDouble(Guess::like).reversed()).toList();
        return best.stream().limit(most)
                .map(g -> inPixels(g, a, shrinkA, shrinkB)).toList();
    }

    private static Guess inPixels(Guess g, Plane a, double shrinkA, double shrinkB) {
        double c = g.c * shrinkB / shrinkA;
        double s = g.s * shrinkB / shrinkA;
        double midX = a.width * shrinkA / 2;
        double midY = a.height * shrinkA / 2;
        return new Guess(c, s, g.x0 * shrinkB - c * midX + s * midY, g.y0 * shrinkB - s * midX - c * midY,
                g.like);
    }

    /** Places of a guess are those of the middle of the first picture. */
    private static Guess turned(double[][] points, Plane b, double angle) {
        Guess best = new Guess(1, 0, 0, 0, -1);
        int[] offset = new int[points.length];
        double[] value = new double[points.length];
        int[] dx = new int[points.length];
        int[] dy = new int[points.length];
        for (int k = -SIZES; k <= SIZES; k++) {
            double size = Math.pow(SIZE_STEP, k);
            double c = size * Math.cos(angle);
            double s = size * Math.sin(angle);
            for (int i = 0; i < points.length; i++) {
                dx[i] = (int) Math.round(c * points[i][0] - s * points[i][1]);
                dy[i] = (int) Math.round(s * points[i][0] + c * points[i][1]);
                offset[i] = dy[i] * b.width + dx[i];
                value[i] = points[i][2];
            }
            int reachX = (int) (REACH * b.width);
            int reachY = (int) (REACH * b.height);
            for (int y = b.height / 2 - reachY; y <= b.height / 2 + reachY; y += PLACE_STEP) {
                for (int x = b.width / 2 - reachX; x <= b.width / 2 + reachX; x += PLACE_STEP) {
                    double like = like(b, x, y, dx, dy, offset, value);
                    if (like > best.like) {
                        best = new Guess(c, s, x + 0.5, y + 0.5, like);
                    }
                }
            }
        }
        return best;
    }

    private static double like(Plane b, int x, int y, int[] dx, int[] dy, int[] offset, double[] value) {
        double ab = 0;
        double aa = 0;
        double bb = 0;
        int seen = 0;
        int at = y * b.width + x;
        for (int i = 0; i < value.length; i++) {
            int px = x + dx[i];
            int py = y + dy[i];
            if (px >= 0 && py >= 0 && px < b.width && py < b.height) {
                double v = b.v[at + offset[i]];
                ab += v * value[i];
                aa += value[i] * value[i];
                bb += v * v;
                seen++;
            }
        }
        return seen < LEAST_SEEN * value.length ? -1 : ab / Math.sqrt(aa * bb + 1e-9);
    }

    private static Plane tiny(Plane plane, double shrink) {
        Plane soft = plane;
        double left = shrink;
        while (left >= 2) {
            soft = soft.half();
            left /= 2;
        }
        soft = soft.smooth(0.5 * left);
        var out = new Plane(WIDTH, Math.max(8, (int) Math.round(plane.height / shrink)));
        for (int y = 0; y < out.height; y++) {
            for (int x = 0; x < WIDTH; x++) {
                out.v[y * WIDTH + x] = (float) soft.at((x + 0.5) * left, (y + 0.5) * left);
            }
        }
        return out;
    }

    /** Each place over what lies round it. */
    private static Plane even(Plane plane) {
        Plane base = plane.smooth(LOCAL);
        var off = new Plane(plane.width, plane.height);
        var squares = new Plane(plane.width, plane.height);
        for (int i = 0; i < off.v.length; i++) {
            off.v[i] = plane.v[i] - base.v[i];
            squares.v[i] = off.v[i] * off.v[i];
        }
        Plane power = squares.smooth(LOCAL);
        for (int i = 0; i < off.v.length; i++) {
            off.v[i] /= (float) Math.sqrt(power.v[i] + 1e-5);
        }
        return off.smooth(CALM);
    }
}
