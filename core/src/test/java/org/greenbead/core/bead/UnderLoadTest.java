package org.greenbead.core.bead;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.Random;
import org.testng.annotations.Test;

/** Joints that carry a chip. */
public class UnderLoadTest {
    private static final double BALL = Balls.sphereMm3(0.45);

    /** Without load it stands as the sphere cut flat twice, whose pressure and edges are in balance. */
    @Test
    public void withoutLoadItStandsAsTheFreeJoint() {
        UnderLoad none = UnderLoad.of(BALL, 0.18, 0.18, 0, UnderLoad.LEAD_FREE_N_PER_M);
        assertEquals(none.freeMm(), Collapse.of(BALL, 0.18, 0.18).heightMm(), 1e-9);
        assertEquals(none.loadedMm(), none.freeMm(), 0.002);
        assertEquals(none.bulgeMm(), Collapse.of(BALL, 0.18, 0.18).bulgeMm(), 0.03);
    }

    /** For small loads the joint is a spring: twice the load, twice the way. More tension, less way. */
    @Test
    public void smallLoadsPressInProportion() {
        double free = UnderLoad.of(BALL, 0.18, 0.18, 0, 0.5).loadedMm();
        double one = free - UnderLoad.of(BALL, 0.18, 0.18, 2, 0.5).loadedMm();
        double two = free - UnderLoad.of(BALL, 0.18, 0.18, 4, 0.5).loadedMm();
        double stiff = free - UnderLoad.of(BALL, 0.18, 0.18, 4, 1.0).loadedMm();
        assertTrue(one > 0);
        assertEquals(two / one, 2, 0.15);
        assertEquals(stiff, one, 0.1 * one, "twice the tension is half the load");
    }

    @Test
    public void heavierStandsLowerUntilItCannotBeCarried() {
        var random = new Random(2);
        for (int i = 0; i < 40; i++) {
            double ball = 0.2 + 0.5 * random.nextDouble();
            double pad = ball * (0.36 + 0.06 * random.nextDouble());
            double volume = Balls.sphereMm3(ball);
            double last = Double.MAX_VALUE;
            double bulge = 0;
            for (double load = 0; load <= 8; load += 2) {
                UnderLoad now = UnderLoad.of(volume, pad, pad, load * ball / 0.45, 0.5);
                assertTrue(now.loadedMm() < last && now.loadedMm() > 0, "ball " + ball + " load " + load);
                assertTrue(now.bulgeMm() > bulge);
                last = now.loadedMm();
                bulge = now.bulgeMm();
            }
        }
        assertEquals(UnderLoad.of(BALL, 0.18, 0.18, 5000, 0.5).loadedMm(), 0.0);
    }

    /** A ball of 0.45 on a pad of 0.36 stands 0.225 + 0.135 = 0.360 mm high; the rest is what it sinks. */
    @Test
    public void bowThatIsBridged() {
        Collapse joint = Collapse.of(BALL, 0.18, 0.18);
        assertEquals(UnderLoad.bridgesMm(0.45, 0.18, joint), 0.360 - joint.heightMm(), 1e-9);
        assertTrue(UnderLoad.bridgesMm(0.45, 0.18, joint) > 0.03);
    }
}
