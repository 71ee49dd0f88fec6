package org.greenbead.core.inspect;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.greenbead.core.bead.BeadMap;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The blur of a photo from its edges, whichever side of them is bright. */
public class SharpnessTest {
    private static final int SIDE = 620;
    private static final BeadMap MAP = BeadMap.grid(6, 6, 1, Optional.of(0.6));

    /** Discs of 60 % of the pitch, 90 px apart, smoothed by a Gaussian. */
    private static Raster discs(double ball, double board, double blur) {
        var plane = new Plane(SIDE, SIDE);
        for (int y = 0; y < SIDE; y++) {
            for (int x = 0; x < SIDE; x++) {
                double dx = Math.IEEEremainder(x + 0.5 - SIDE / 2.0 - 45, 90);
                double dy = Math.IEEEremainder(y + 0.5 - SIDE / 2.0 - 45, 90);
                boolean field = Math.abs(x + 0.5 - SIDE / 2.0) < 270 && Math.abs(y + 0.5 - SIDE / 2.0) < 270;
                double share = field ? Math.clamp(27 - Math.hypot(dx, dy) + 0.5, 0, 1) : 0;
                plane.v[y * SIDE + x] = (float) (board + share * (ball - board));
            }
        }
        Plane soft = plane.smooth(blur);
        var random = new Random(5);
        int[] rgb = new int[SIDE * SIDE];
        for (int i = 0; i < rgb.length; i++) {
            double v = Math.clamp(soft.v[i] * (1 + 0.01 * random.nextGaussian()), 0, 1);
            rgb[i] = (int) Math.round(255 * (1.055 * Math.pow(v, 1 / 2.4) - 0.055)) * 0x10101;
        }
        return Raster.ofSrgb(SIDE, SIDE, rgb);
    }

    private static double seen(Raster picture) {
        double mid = SIDE / 2.0;
        var projection = Projection.affine(90, 0, mid, 0, -90, mid, SIDE, SIDE);
        return Sharpness.blurPx(picture, new Field(MAP.sites(), projection, 1, 0.6, 1));
    }

    @DataProvider
    Object[][] edges() {
        return new Object[][]{{0.6, 0.1}, {0.1, 0.6}, {0.2, 0.5}};
    }

    /** Light on dark or dark on light: what the discs were smoothed by comes out, to a fifth and a tenth of a pixel; of a very soft edge the noise is the sharpest part. */
    @Test(dataProvider = "edges")
    public void whatAnEdgeWasSmoothedByComesOut(double ball, double board) {
        for (double blur : List.of(1.0, 2.0, 3.0)) {
            assertEquals(seen(discs(ball, board, blur)), blur, 0.2 * blur + 0.1,
                    ball + " on " + board + " smoothed by " + blur);
        }
        double soft = seen(discs(ball, board, 4.5));
        assertTrue(soft > 2.5 && soft < 5.5, ball + " on " + board + " smoothed by 4.5: " + soft);
    }

    /** Where the sites lie in nothing there is no edge: as soft as it can be said, never sharp. */
    @Test
    public void nothingIsNotSharp() {
        int[] rgb = new int[SIDE * SIDE];
        java.util.Arrays.fill(rgb, 0x808080);
        assertTrue(seen(Raster.ofSrgb(SIDE, SIDE, rgb)) > 5);
    }
}
