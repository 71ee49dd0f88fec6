package org.greenbead.core.inspect;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.Random;
import java.util.function.DoubleBinaryOperator;
import org.testng.annotations.Test;

public class PatchTest {
    private static final int HALF = 8;

    /** Smooth everywhere, so that it may be read between pixels. */
    private static double scene(double x, double y) {
        return 0.5 + 0.2 * Math.sin(0.31 * x + 0.12 * y) + 0.15 * Math.cos(0.27 * y - 0.19 * x)
                + 0.1 * Math.sin(0.17 * x * Math.cos(0.02 * y));
    }

    private static Plane seen(int side, DoubleBinaryOperator light) {
        var plane = new Plane(side, side);
        for (int y = 0; y < side; y++) {
            for (int x = 0; x < side; x++) {
                plane.v[y * side + x] = (float) light.applyAsDouble(x + 0.5, y + 0.5);
            }
        }
        return plane;
    }

    /** Shifted by parts of a pixel, brighter and with a haze over it: found to a tenth of a pixel. */
    @Test
    public void shiftIsFoundWhateverTheLight() {
        var random = new Random(11);
        for (int turn = 0; turn < 40; turn++) {
            double dx = 6 * random.nextDouble() - 3;
            double dy = 6 * random.nextDouble() - 3;
            double gain = 0.3 + 2 * random.nextDouble();
            double haze = random.nextDouble();
            Plane a = seen(64, PatchTest::scene);
            Plane b = seen(64, (x, y) -> haze + gain * scene(x - dx, y - dy));
            Patch.Found found = Patch.of(a, 32, 32, HALF, (x, y) -> x, (x, y) -> y).best(b, 32, 32, 5)
                    .orElseThrow();
            assertEquals(found.x(), 32 + dx, 0.1);
            assertEquals(found.y(), 32 + dy, 0.1);
            assertTrue(found.like() > 0.98, "like " + found.like());
        }
    }

    /** Seen turned and nearer: the patch is taken as the other camera would see it. */
    @Test
    public void patchFollowsTurnAndSize() {
        Plane a = seen(96, PatchTest::scene);
        for (double degrees : new double[]{-170, -90, -33, 20, 71, 135}) {
            double c = 1.2 * Math.cos(Math.toRadians(degrees));
            double s = 1.2 * Math.sin(Math.toRadians(degrees));
            DoubleBinaryOperator toX = (x, y) -> 48 + c * (x - 48) - s * (y - 48);
            DoubleBinaryOperator toY = (x, y) -> 48 + s * (x - 48) + c * (y - 48);
            Plane b = seen(96, (x, y) -> scene(48 + (c * (x - 48) + s * (y - 48)) / 1.44,
                    48 + (-s * (x - 48) + c * (y - 48)) / 1.44));
            Patch.Found found = Patch.of(a, 52, 45, HALF, toX, toY)
                    .best(b, toX.applyAsDouble(52, 45) + 1, toY.applyAsDouble(52, 45) - 2, 4).orElseThrow();
            assertEquals(found.x(), toX.applyAsDouble(52, 45), 0.1, "at " + degrees);
            assertEquals(found.y(), toY.applyAsDouble(52, 45), 0.1, "at " + degrees);
        }
    }

    @Test
    public void nothingIsFoundBeyondTheBorder() {
        Plane a = seen(64, PatchTest::scene);
        assertTrue(Patch.of(a, 32, 32, HALF, (x, y) -> x, (x, y) -> y).best(a, -20, 32, 3).isEmpty());
    }

    /** What is read along a line is what is read place by place, over borders and in the middle. */
    @Test
    public void readingAlongALineIsReadingEachPlace() {
        var random = new Random(12);
        Plane a = seen(48, PatchTest::scene);
        for (int turn = 0; turn < 500; turn++) {
            double x = 60 * random.nextDouble() - 6;
            double y = 60 * random.nextDouble() - 6;
            double stepX = 2 * random.nextDouble() - 1;
            double stepY = 2 * random.nextDouble() - 1;
            double[] line = new double[20];
            a.along(x, y, stepX, stepY, line);
            for (int k = 0; k < line.length; k++) {
                assertEquals(line[k], a.at(x + k * stepX, y + k * stepY), 1e-6);
            }
        }
    }
}
