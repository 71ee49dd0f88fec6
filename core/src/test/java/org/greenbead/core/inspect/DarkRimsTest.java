package org.greenbead.core.inspect;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;
import org.testng.annotations.Test;

/** Balls no brighter than their board, told by their dark rims alone: the bright gaps between them are a field of their own. */
public class DarkRimsTest {
    private static final BeadMap MAP = BeadMap.grid(9, 12, 0.8, Optional.of(0.5)).without("A1", "B2");
    private static final Set<String> GONE = Set.of("C4", "G9");
    private static final int WIDE = 720;
    private static final int TALL = 560;
    private static final double PX_PER_MM = 52;
    private static final double TURN = 0.12;

    /** A ball mirrors the bright board at its foot, dark surroundings above that and a lamp in its middle; where one is gone a copper pad lies. */
    private static Raster photo(double blur) {
        double[][] v = new double[3][WIDE * TALL];
        for (double[] c : v) {
            java.util.Arrays.fill(c, 0.82);
        }
        for (Site s : MAP.sites()) {
            double x = x(s.xMm(), s.yMm());
            double y = y(s.xMm(), s.yMm());
            double r = 0.25 * PX_PER_MM;
            boolean gone = GONE.contains(s.name());
            for (int py = (int) (y - r - 2); py <= y + r + 2; py++) {
                for (int px = (int) (x - r - 2); px <= x + r + 2; px++) {
                    double out = Math.hypot(px + 0.5 - x, py + 0.5 - y);
                    double share = Math.clamp(r - out + 0.5, 0, 1);
                    double part = out / r;
                    double light = part < 0.45 ? 0.95 : part < 0.9 ? 0.12 + 0.25 * (part - 0.45) : 0.3;
                    double[] colour = gone
                            ? new double[]{0.8, 0.42, 0.22}
                            : new double[]{light, light, light};
                    for (int c = 0; c < 3; c++) {
                        v[c][py * WIDE + px] += share * (colour[c] - v[c][py * WIDE + px]);
                    }
                }
            }
        }
        var random = new Random(8);
        Plane[] soft = new Plane[3];
        for (int c = 0; c < 3; c++) {
            var plane = new Plane(WIDE, TALL);
            for (int i = 0; i < plane.v.length; i++) {
                plane.v[i] = (float) v[c][i];
            }
            soft[c] = plane.smooth(blur);
        }
        int[] rgb = new int[WIDE * TALL];
        for (int i = 0; i < rgb.length; i++) {
            for (int c = 0; c < 3; c++) {
                double light = Math.clamp(soft[c].v[i] * (1 + 0.02 * random.nextGaussian()), 0, 1);
                rgb[i] = rgb[i] << 8 | (int) Math.round(255 * (1.055 * Math.pow(light, 1 / 2.4) - 0.055));
            }
        }
        return Raster.ofSrgb(WIDE, TALL, rgb);
    }

    private static double x(double mmX, double mmY) {
        return WIDE / 2.0 + PX_PER_MM * (Math.cos(TURN) * mmX + Math.sin(TURN) * mmY);
    }

    private static double y(double mmX, double mmY) {
        return TALL / 2.0 + PX_PER_MM * (Math.sin(TURN) * mmX - Math.cos(TURN) * mmY);
    }

    /** The map lies on the balls, not on the gaps; the two that are gone are named, and nothing else is called a fault. */
    @Test
    public void theMapLiesOnTheBalls() throws UnclearPhotoException {
        BeadReport report = BeadCheck.of(photo(0.9), MAP);
        Map<String, Site> sites = MAP.sites().stream().collect(Collectors.toMap(Site::name, s -> s));
        for (BeadReport.Seen seen : report.sites()) {
            Site s = sites.get(seen.site());
            assertEquals(seen.xPx(), x(s.xMm(), s.yMm()), 0.1 * 0.8 * PX_PER_MM, s.name());
            assertEquals(seen.yPx(), y(s.xMm(), s.yMm()), 0.1 * 0.8 * PX_PER_MM, s.name());
        }
        Set<String> missing = report.with(BeadState.MISSING).stream().map(BeadReport.Seen::site)
                .collect(Collectors.toSet());
        assertEquals(missing, GONE);
        assertEquals(report.doubt().orElseThrow().key(), "beadall.pale");
        assertTrue(report.with(BeadState.OK).size() >= MAP.sites().size() - GONE.size() - 3,
                report.with(BeadState.UNKNOWN).toString());
    }

    /** The same out of focus is refused. */
    @Test
    public void outOfFocusItIsRefused() {
        var why = expectThrows(UnclearPhotoException.class, () -> BeadCheck.of(photo(5.5), MAP)).why();
        assertTrue(why == UnclearPhotoException.Why.BLURRED || why == UnclearPhotoException.Why.NO_FIELD
                || why == UnclearPhotoException.Why.WRONG_CHIP, why.toString());
    }
}
