package org.greenbead.core.inspect;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Random;
import java.util.function.DoubleBinaryOperator;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** A board of bright rectangles, seen turned, nearer and in a light that fades. */
public class OverviewTest {
    private static final int W = 640;
    private static final int H = 480;

    private static DoubleBinaryOperator board(int seed) {
        var random = new Random(seed);
        double[][] parts = new double[60][];
        for (int i = 0; i < parts.length; i++) {
            parts[i] = new double[]{W * random.nextDouble(), H * random.nextDouble(),
                    6 + 34 * random.nextDouble(),
                    6 + 24 * random.nextDouble(), random.nextDouble()};
        }
        return (x, y) -> {
            double light = 0.25;
            for (double[] p : parts) {
                light = Math.abs(x - p[0]) < p[2] / 2 && Math.abs(y - p[1]) < p[3] / 2 ? p[4] : light;
            }
            return light;
        };
    }

    private static Plane seen(DoubleBinaryOperator scene) {
        var plane = new Plane(W, H);
        for (int y = 0; y < H; y++) {
            for (int x = 0; x < W; x++) {
                plane.v[y * W + x] = (float) scene.applyAsDouble(x + 0.5, y + 0.5);
            }
        }
        return plane;
    }

    @DataProvider
    Object[][] turns() {
        return new Object[][]{{0.0, 1.0}, {27.0, 0.9}, {90.0, 1.0}, {-118.0, 1.15}, {180.0, 0.85}};
    }

    @Test(dataProvider = "turns")
    public void turnSizeAndPlaceAreAmongTheGuesses(double degrees, double size) {
        double c = size * Math.cos(Math.toRadians(degrees));
        double s = size * Math.sin(Math.toRadians(degrees));
        DoubleBinaryOperator scene = board(4);
        double midX = W / 2.0 + 12;
        double midY = H / 2.0 - 9;
        Plane after = seen((x, y) -> (0.6 + 0.6 * x / W) * scene.applyAsDouble(
                W / 2.0 + (c * (x - midX) + s * (y - midY)) / (size * size),
                H / 2.0 + (-s * (x - midX) + c * (y - midY)) / (size * size)));
        List<Overview.Guess> guesses = Overview.guesses(seen(scene), after, 8);
        assertTrue(guesses.size() <= 8);
        Overview.Guess best = guesses.stream()
                .min(java.util.Comparator.comparingDouble(g -> Math.hypot(g.c() - c, g.s() - s)))
                .orElseThrow();
        double off = Math.IEEEremainder(best.turnDeg() - degrees, 360);
        assertEquals(off, 0, 5, "turn");
        assertEquals(Math.hypot(best.c(), best.s()), size, 0.12, "size");
        assertEquals(best.x0() + best.c() * W / 2 - best.s() * H / 2, midX, 20, "place");
        assertEquals(best.y0() + best.s() * W / 2 + best.c() * H / 2, midY, 20, "place");
        for (int i = 1; i < guesses.size(); i++) {
            assertTrue(guesses.get(i).like() <= guesses.get(i - 1).like(), "the best first");
        }
    }
}
