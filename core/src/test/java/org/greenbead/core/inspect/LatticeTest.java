package org.greenbead.core.inspect;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.RowNames;
import org.greenbead.core.bead.Site;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Fields whose nearest neighbours do not lie along the axes of the map. */
public class LatticeTest {
    /** Rows that stand between one another; a corner is bare, so that one turn alone fits. */
    private static BeadMap staggered(double stepX, double stepY, double ball) {
        var sites = new ArrayList<Site>();
        for (int r = 0; r < 10; r++) {
            for (int c = 0; c < 12; c++) {
                if ((r + c) % 2 == 0 && r + c > 2) {
                    sites.add(new Site(RowNames.site(r, c), (c - 5.5) * stepX, (4.5 - r) * stepY,
                            Optional.of(ball), "", Site.Critical.UNKNOWN));
                }
            }
        }
        return new BeadMap(sites);
    }

    @DataProvider
    Object[][] fields() {
        double half = 0.65 / Math.sqrt(2);
        return new Object[][]{{staggered(half, half, 0.4), 0}, {staggered(half, half, 0.4), 33},
                {staggered(half, half, 0.4), 180},
                {staggered(0.325, 0.325 * Math.sqrt(3), 0.4), 8},
                {staggered(0.325 * Math.sqrt(3), 0.325, 0.4), 250}};
    }

    @Test(dataProvider = "fields")
    public void neighboursAslant(BeadMap map, int rollDeg) throws UnclearPhotoException {
        var pose = new Painted.Pose(50, rollDeg, 3, 0, 0.9, 0.004, 3);
        Painted.Truth truth = Painted.balls(map, Map.of("E5", new Painted.Wrong(0, 0, 0)), List.of(), pose);
        BeadReport report = BeadCheck.of(truth.picture(), map, Optional.empty());
        assertEquals(Math.IEEEremainder(report.turnDeg() - rollDeg, 360), 0, 1.5);
        assertEquals(report.with(BeadState.MISSING).stream().map(BeadReport.Seen::site).toList(),
                List.of("E5"));
        double far = report.with(BeadState.OK).stream().mapToDouble(s -> {
            double[] o = truth.outlines().get(s.site());
            return Math.hypot(s.xPx() - o[0], s.yPx() - o[1]);
        }).max().orElseThrow();
        assertTrue(far < 1, "a ball is told " + far + " px beside its place");
    }
}
