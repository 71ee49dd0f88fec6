package org.greenbead.core.inspect;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** True outlines from blurred ones: discs of known size, whose rim is four fifths as bright as the rest, on a dark ground. */
public class OutlinesTest {
    private static final int SIDE = 640;
    private static final int ACROSS = 7;

    /** Round ones in rows, each a little beside its place; blurred. */
    private static Raster discs(double radius, double blur, List<Circle> truth) {
        var plane = new Plane(SIDE, SIDE);
        java.util.Arrays.fill(plane.v, 0.02f);
        var random = new Random(4);
        for (int i = 0; i < ACROSS * ACROSS; i++) {
            double x = 60 + 86 * (i % ACROSS) + random.nextDouble();
            double y = 60 + 86 * (i / ACROSS) + random.nextDouble();
            truth.add(new Circle(x, y, radius, 1, 0));
            for (int py = (int) (y - radius - 2); py < y + radius + 2; py++) {
                for (int px = (int) (x - radius - 2); px < x + radius + 2; px++) {
                    double out = Math.hypot(px + 0.5 - x, py + 0.5 - y);
                    double share = Math.clamp(radius - out + 0.5, 0, 1);
                    double fallen = Math.clamp((out / radius - 0.86) / 0.14, 0, 1);
                    plane.v[py * SIDE + px] = (float) (0.02 + share * (0.2 - 0.04 * fallen));
                }
            }
        }
        Plane soft = plane.smooth(blur);
        int[] rgb = new int[SIDE * SIDE];
        for (int i = 0; i < rgb.length; i++) {
            double v = soft.v[i] * (1 + 0.02 * random.nextGaussian());
            rgb[i] = (int) Math.round(255 * (1.055 * Math.pow(v, 1 / 2.4) - 0.055)) * 0x10101;
        }
        return Raster.ofSrgb(SIDE, SIDE, rgb);
    }

    @DataProvider
    Object[][] sizes() {
        return new Object[][]{{24, 1.0, 1.0}, {24, 2.0, 1.04}, {14, 1.2, 0.97}, {14, 1.8, 1.0},
                {10, 1.0, 1.03}};
    }

    /** Whatever the circles were taken for, within 4 %, the true radius comes out, to 2 % and a little, and the blur to a fifth. */
    @Test(dataProvider = "sizes")
    public void theTrueRadiusComesOut(double radius, double blur, double taken) {
        var truth = new ArrayList<Circle>();
        Raster picture = discs(radius, blur, truth);
        List<double[]> profiles = truth.stream()
                .map(c -> RimEdge.profile(picture, new Circle(c.xPx(), c.yPx(), taken * radius, 1, 0)))
                .toList();
        double[] weights = new double[truth.size()];
        java.util.Arrays.fill(weights, 1);
        RimEdge.Found found = RimEdge.of(new RimEdge.Shapes(), new RimEdge.Rims(profiles), weights,
                1 / taken);
        assertEquals(found.radius() * taken, 1, 0.022);
        assertEquals(found.blur() * taken * radius, blur, 0.2 * blur);
    }

    /** All taken a twelfth of a radius beside their places in one direction: said, to a hundredth. */
    @Test
    public void whatPullsAllAlikeIsFound() {
        var truth = new ArrayList<Circle>();
        Raster picture = discs(20, 1.2, truth);
        List<double[]> profiles = truth.stream()
                .map(c -> RimEdge.profile(picture, new Circle(c.xPx() - 1.2, c.yPx() + 0.8, 20, 1, 0)))
                .toList();
        RimEdge.Beside beside = RimEdge.beside(new RimEdge.Shapes(), profiles, 1, 0.1);
        assertEquals(beside.x(), 1.2 / 20, 0.01);
        assertEquals(beside.y(), -0.8 / 20, 0.01);
    }

    /** A circle laid beside and too large is brought back on a ball that looks like the rest. */
    @Test
    public void likenessBringsACircleBack() {
        var truth = new ArrayList<Circle>();
        Raster picture = discs(20, 1.2, truth);
        var likeness = new RimLikeness(picture.green, truth);
        Circle there = truth.get(10);
        Circle back = likeness.refined(new Circle(there.xPx() + 1.3, there.yPx() - 0.9, 21.2, 1, 0.1),
                new Circle(there.xPx(), there.yPx(), 20, 0, 0));
        assertTrue(Math.hypot(back.xPx() - there.xPx(), back.yPx() - there.yPx()) < 0.05, back.toString());
        assertEquals(back.rPx(), 20, 0.05);
    }

    /** Abramowitz and Stegun, table 9.8. */
    @Test
    public void besselAsTabled() {
        assertEquals(RimEdge.scaledBessel(0), 1, 1e-7);
        assertEquals(RimEdge.scaledBessel(1), 0.4657596077, 2e-7);
        assertEquals(RimEdge.scaledBessel(5), 0.1835408126, 2e-7);
        assertEquals(RimEdge.scaledBessel(10), 0.1278333371, 2e-7);
    }

    @Test
    public void smallSystemsAreSolved() {
        double[] x = Solve.spd(new double[][]{{4, 2, 0.5}, {2, 5, 1}, {0.5, 1, 3}},
                new double[]{4.5, 5, 8.5});
        assertEquals(4 * x[0] + 2 * x[1] + 0.5 * x[2], 4.5, 1e-12);
        assertEquals(0.5 * x[0] + x[1] + 3 * x[2], 8.5, 1e-12);
        assertTrue(Solve.spd(new double[][]{{1, 2}, {2, 1}}, new double[]{1, 1}) == null,
                "not positive definite");
    }
}
