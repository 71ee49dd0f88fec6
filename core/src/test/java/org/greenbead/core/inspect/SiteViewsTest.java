package org.greenbead.core.inspect;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;
import org.testng.annotations.Test;

public class SiteViewsTest {
    private static final BeadMap MAP = BeadMap.grid(7, 7, 0.8, Optional.of(0.5));
    private static final int SAMPLES = SiteViews.SIDE * SiteViews.SIDE;

    private static SiteViews views(double pxPerMm, double rollDeg, Map<String, Painted.Wrong> wrong) {
        Painted.Truth truth = Painted.balls(MAP, wrong, List.of(),
                new Painted.Pose(pxPerMm, rollDeg, 0, 0, 0.5, 0, 4));
        var at = new ArrayList<SiteViews.At>();
        for (Site s : MAP.sites()) {
            double[] p = truth.seen(s.xMm(), s.yMm(), 0.5);
            double[] q = truth.seen(s.xMm() + 0.01, s.yMm(), 0.5);
            at.add(new SiteViews.At(p[0], p[1], 2 * p[2] / 0.5, Math.atan2(q[1] - p[1], q[0] - p[0])));
        }
        return new SiteViews(truth.picture(), MAP.sites(), at, 0.5, 0.8);
    }

    private static double apart(float[] a, float[] b, int from, int to) {
        double sum = 0;
        for (int k = from; k < to; k++) {
            sum += Math.abs(a[k] - b[k]);
        }
        return sum / (to - from);
    }

    /** However the chip lies and however large it is seen, a site looks alike. */
    @Test
    public void turnAndScaleAreTakenOut() {
        Map<String, Painted.Wrong> wrong = Map.of("D5", new Painted.Wrong(0.7, 0.1, 0));
        int site = MAP.sites().indexOf(MAP.site("D4").orElseThrow());
        float[] plain = views(50, 0, wrong).of(site);
        assertTrue(apart(plain, views(50, 137, wrong).of(site), 0, 3 * SAMPLES) < 0.02);
        assertTrue(apart(plain, views(130, 20, wrong).of(site), 0, 3 * SAMPLES) < 0.03);
        assertTrue(apart(plain, views(50, 0, Map.of()).of(site), 0, 3 * SAMPLES) > 0.002,
                "the neighbour to the right is smaller and beside its place");
    }

    /** The usual site is what most neighbours look like, whatever stands on the site itself. */
    @Test
    public void oneOddSiteDoesNotChangeTheUsual() {
        int site = MAP.sites().indexOf(MAP.site("D4").orElseThrow());
        float[] odd = views(50, 0, Map.of("D4", new Painted.Wrong(0, 0, 0))).of(site);
        float[] good = views(50, 0, Map.of()).of(site);
        assertTrue(apart(odd, good, 3 * SAMPLES, 6 * SAMPLES) < 0.02);
        assertTrue(apart(odd, good, 0, 3 * SAMPLES) > 0.01);
    }

    /** Balls are expected at the site and, in rows, one pitch off: 1.6 diameters. */
    @Test
    public void maskSaysWhereBallsBelong() {
        int corner = MAP.sites().indexOf(MAP.site("A1").orElseThrow());
        float[] view = views(50, 0, Map.of()).of(corner);
        int mid = SiteViews.SIDE / 2;
        double pitch = 1.6 * SiteViews.SIDE / SiteViews.WIDTH_DIAMETERS;
        int from = 6 * SAMPLES;
        assertEquals(view[from + mid * SiteViews.SIDE + mid], 1f);
        assertEquals(view[from + mid * SiteViews.SIDE + (int) (mid + pitch)], 1f, "to the right");
        assertEquals(view[from + (int) (mid + pitch) * SiteViews.SIDE + mid], 1f, "below");
        assertEquals(view[from + mid * SiteViews.SIDE + (int) (mid - pitch)], 0f, "none to the left of A1");
    }

    /** Turning a view and naming it turned are the same thing. */
    @Test
    public void turnedViewIsTheViewOfATurnedField() {
        float[] view = new float[SiteViews.CHANNELS * SAMPLES];
        // A mark right of the middle.
        view[(SiteViews.SIDE / 2) * SiteViews.SIDE + 40] = 1;
        float[] turned = SiteViews.turned(view, false, 1);
        int at = 0;
        for (int k = 0; k < SAMPLES; k++) {
            at = turned[k] > 0 ? k : at;
        }
        assertEquals(at / SiteViews.SIDE, SiteViews.SIDE - 1 - 40,
                "a quarter against the clock: right comes up");
        float[] back = SiteViews.turned(SiteViews.turned(view, true, 0), true, 0);
        assertEquals(back, view);
    }
}
