package org.greenbead.core.inspect;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Random;
import org.testng.annotations.Test;

/** Colours of places, linear light. */
public class LookTest {
    private static final double[] MASK = {0.02, 0.11, 0.04};
    private static final double[] TRACE = {0.03, 0.16, 0.06};
    private static final double[] METAL = {0.42, 0.41, 0.4};
    private static final double[] BODY = {0.4, 0.25, 0.12};
    private static final double[] BLACK = {0.045, 0.045, 0.048};

    private static double[] times(double[] rgb, double gain) {
        return new double[]{gain * rgb[0], gain * rgb[1], gain * rgb[2]};
    }

    private static double far(double[] one, double[] two) {
        return Look.far(Look.of(one), Look.of(two));
    }

    @Test
    public void lightDoesNotMatterWhereThereIsColour() {
        for (double gain = 0.7; gain <= 3; gain += 0.1) {
            assertTrue(far(MASK, times(MASK, gain)) < 0.05,
                    "gain " + gain + ": " + far(MASK, times(MASK, gain)));
            assertTrue(far(BODY, times(MASK, gain)) > Look.PART, "a part is told from the mask");
            assertTrue(far(METAL, times(MASK, gain)) > Look.PART, "metal is told from the mask");
        }
        assertTrue(far(MASK, TRACE) < 0.5 * Look.PART, "copper under mask is board");
    }

    /** On a black board metal has no colour to tell it by; there its light counts. */
    @Test
    public void metalOnABlackBoardIsToldByItsLight() {
        assertTrue(far(METAL, BLACK) > Look.PART);
        assertTrue(far(BLACK, times(BLACK, 1.5)) < 0.05, "shades of the board are not");
        assertTrue(far(METAL, times(METAL, 0.7)) < 0.05, "nor shades of the metal");
    }

    @Test
    public void thereIsNoColourInDeepShadow() {
        assertEquals(far(times(BODY, 0.02), times(MASK, 0.02)), 0, 1e-9);
    }

    @Test
    public void differenceIsSymmetricAndNoneToItself() {
        var random = new Random(2);
        for (int i = 0; i < 2000; i++) {
            double[] a = {random.nextDouble(), random.nextDouble(), random.nextDouble()};
            double[] b = {random.nextDouble(), random.nextDouble(), random.nextDouble()};
            assertEquals(far(a, b), far(b, a), 1e-12);
            assertEquals(far(a, a), 0, 1e-12);
        }
    }

    /** Six tenths of a frame are board, the rest parts of two kinds: board is what it is taken for. */
    @Test
    public void mostOfAFrameIsBoard() {
        var random = new Random(3);
        var frame = new ArrayList<double[]>();
        for (int i = 0; i < 400; i++) {
            double[] kind = i % 10 < 6 ? MASK : i % 10 < 8 ? METAL : BODY;
            frame.add(Look.of(times(kind, 0.7 + random.nextDouble())));
        }
        Collections.shuffle(frame, random);
        assertTrue(Look.far(Look.most(frame).orElseThrow(), Look.of(MASK)) < 0.05);
        assertTrue(Look.most(java.util.List.of()).isEmpty());
    }
}
