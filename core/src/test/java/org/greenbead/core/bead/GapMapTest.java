package org.greenbead.core.bead;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.DoubleBinaryOperator;
import org.greenbead.core.bead.GapMap.Edge;
import org.greenbead.core.bead.GapMap.Reading;
import org.greenbead.core.picture.Px;
import org.testng.annotations.Test;

public class GapMapTest {
    private static final double WIDE = 15;
    private static final double DEEP = 12;

    /** Photos of four edges, each turned a little in its picture, marked by a hand that is off by a pixel. */
    private static List<Reading> seen(DoubleBinaryOperator gapMm, double pxPerMm, double handPx,
            Random random) {
        var all = new ArrayList<Reading>();
        for (Edge edge : Edge.values()) {
            boolean along = edge == Edge.SOUTH || edge == Edge.NORTH;
            double length = along ? WIDE : DEEP;
            double turn = 0.05 * random.nextGaussian();
            for (double t : new double[]{0.05, 0.5, 0.95}) {
                double s = (t - 0.5) * length;
                double gap = switch (edge) {
                    case SOUTH -> gapMm.applyAsDouble(s, -DEEP / 2);
                    case NORTH -> gapMm.applyAsDouble(-s, DEEP / 2);
                    case EAST -> gapMm.applyAsDouble(WIDE / 2, s);
                    case WEST -> gapMm.applyAsDouble(-WIDE / 2, -s);
                };
                all.add(Reading.of(edge, px(0, 0, turn, pxPerMm, handPx, random),
                        px(length, 0, turn, pxPerMm, handPx, random), length,
                        px(t * length, 0, turn, pxPerMm, handPx, random),
                        px(t * length + (handPx > 0 ? 0.1 : 0), gap, turn, pxPerMm, handPx, random), 1));
            }
        }
        return all;
    }

    private static Px px(double x, double y, double turn, double pxPerMm, double handPx, Random random) {
        return new Px(
                300 + pxPerMm * (x * Math.cos(turn) - y * Math.sin(turn)) + handPx * random.nextGaussian(),
                500 + pxPerMm * (x * Math.sin(turn) + y * Math.cos(turn)) + handPx * random.nextGaussian());
    }

    /** Marked without error a leaning plane comes out as it is, whatever the turn of the photos. */
    @Test
    public void aPlaneIsFoundExactly() {
        GapMap map = GapMap.of(seen((x, y) -> 0.42 + 0.004 * x - 0.006 * y, 40, 0, new Random(3)), WIDE,
                DEEP);
        assertEquals(map.tiltDeg(), Math.toDegrees(Math.atan(Math.hypot(0.004, 0.006))), 1e-6);
        assertEquals(map.gap().meanMm(), 0.42, 1e-6);
        assertEquals(map.lowest(), Edge.NORTH);
        assertEquals(map.restMm(), 0, 1e-6);
        map.bowMm().values().forEach(b -> assertEquals(b, 0, 1e-6));
    }

    /** A body that is bowed along one edge alone is named there and nowhere else. */
    @Test
    public void aBowIsToldByItsEdge() {
        GapMap map = GapMap.of(
                seen((x, y) -> 0.4 + (y < -5.9 ? 0.06 * (1 - 4 * x * x / (WIDE * WIDE)) : 0), 40, 0,
                        new Random(5)),
                WIDE, DEEP);
        assertEquals(map.bowMm().get(Edge.SOUTH), 0.06 * 0.9 * 0.9, 1e-3);
        assertEquals(map.bowMm().get(Edge.EAST), 0, 1e-6);
        assertTrue(map.bowed().isEmpty(), "0.05 mm is within what a hand scatters at 40 px/mm");
        GapMap bent = GapMap.of(
                seen((x, y) -> 0.4 + (y < -5.9 ? 0.15 * (1 - 4 * x * x / (WIDE * WIDE)) : 0), 40, 0,
                        new Random(5)),
                WIDE, DEEP);
        assertEquals(bent.bowed(), java.util.Optional.of(Edge.SOUTH));
        GapMap flat = GapMap.of(seen((x, y) -> 0.4 + 0.001 * x, 40, 0, new Random(5)), WIDE, DEEP);
        assertTrue(flat.bowed().isEmpty() && !flat.leans(WIDE), "within the error of the marks");
        assertTrue(GapMap.of(seen((x, y) -> 0.4 + 0.01 * x, 40, 0, new Random(5)), WIDE, DEEP).leans(WIDE));
    }

    /** With a hand that is off by a pixel: what is said is true, or it is said that these photos do not tell. */
    @Test
    public void aVerdictIsRarelyWrong() {
        int wrong = 0;
        int told = 0;
        for (int seed = 0; seed < 400; seed++) {
            var random = new Random(seed);
            double slope = 0.02 * random.nextDouble();
            double range = slope * WIDE;
            boolean uneven = range > 0.4 / 4;
            GapMap map = GapMap.of(seen((x, y) -> 0.4 + slope * x, 25 + 40 * random.nextDouble(), 1, random),
                    WIDE, DEEP);
            if (map.verdict() != GapMap.Verdict.NOT_TOLD) {
                told++;
                wrong += uneven != (map.verdict() == GapMap.Verdict.UNEVEN) ? 1 : 0;
            }
        }
        assertTrue(told > 240, told + " told");
        assertTrue(wrong <= 0.03 * told, wrong + " wrong of " + told);
    }

    /** A photo in which a pixel is a tenth of the gap decides nothing near the limit. */
    @Test
    public void aCoarsePhotoDoesNotTell() {
        GapMap map = GapMap.of(seen((x, y) -> 0.4 + 0.11 / WIDE * x, 8, 0, new Random(7)), WIDE, DEEP);
        assertEquals(map.verdict(), GapMap.Verdict.NOT_TOLD);
    }

    @Test
    public void whatIsNoReadingIsRefused() {
        Px a = new Px(0, 0);
        Px b = new Px(600, 0);
        assertThrows(IllegalArgumentException.class,
                () -> Reading.of(Edge.EAST, a, new Px(20, 0), 12, a, new Px(0, 9), 1));
        assertThrows(IllegalArgumentException.class,
                () -> Reading.of(Edge.EAST, a, b, 12, new Px(900, 0), new Px(900, 20), 1));
        assertThrows(IllegalArgumentException.class,
                () -> Reading.of(Edge.EAST, a, b, 12, new Px(300, 0), new Px(300, 900), 1));
        var three = new ArrayList<>(seen((x, y) -> 0.4, 40, 0, new Random(1)));
        three.removeIf(r -> r.edge() == Edge.WEST);
        assertThrows(IllegalArgumentException.class, () -> GapMap.of(three, WIDE, DEEP));
    }
}
