package org.greenbead.core.bead;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import org.testng.annotations.Test;

/** Spread, pull-in, edges and bow against worked numbers. */
public class SeatingTest {
    @Test
    public void spreadOfDiametersAndVolumes() {
        Spread spread = Spread.of(0.298, 0.305, 0.301, 0.312, 0.284);
        assertEquals(spread.meanMm(), 0.300, 1e-12);
        assertEquals(spread.spreadPct(), 9.33, 0.01);
        assertEquals(spread.count(), 5);
        assertEquals(Spread.of(1.0, 1.1).volumePct(), 33.1, 0.01,
                "ten percent in diameter is a third in volume");
        assertEquals(Spread.of(0.3, 0.3).spreadPct(), 0.0);
        expectThrows(IllegalArgumentException.class, () -> Spread.of(0.3));
        expectThrows(IllegalArgumentException.class, () -> Spread.of(0.3, Double.NaN));
    }

    @Test
    public void offsetAndTurnAddUpAtTheCorner() {
        PullIn border = PullIn.of(0.08, 0.05, 0.4, 8, 0.30);
        assertEquals(border.cornerMm(), 0.150, 0.0005);
        assertEquals(border.verdict(), PullIn.Verdict.BORDER);
        PullIn far = PullIn.of(0.08, 0.05, 1.5, 8, 0.30);
        assertEquals(far.cornerMm(), 0.304, 0.0005);
        assertEquals(far.verdict(), PullIn.Verdict.MOVE_IT);
        assertEquals(PullIn.of(0.02, 0, 0, 8, 0.3).verdict(), PullIn.Verdict.RECOVERS);
        assertEquals(PullIn.of(0.08, 0.05, -1.5, 8, 0.30).cornerMm(), far.cornerMm(), 1e-12,
                "either way round");
    }

    @Test
    public void edgesSayTilt() {
        EdgeGap gap = EdgeGap.of(0.42, 0.45, 0.47, 0.43, 62);
        assertEquals(gap.meanMm(), 0.4425, 1e-12);
        assertEquals(gap.rangeMm(), 0.05, 1e-12);
        assertEquals(gap.tiltDeg(), 0.046, 0.0005);
        assertEquals(EdgeGap.bowPct(0.42, 95), 0.44, 0.005);
        assertTrue(EdgeGap.bowPct(0.9, 112) > 0.75);
    }
}
