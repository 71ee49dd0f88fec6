package org.greenbead.core.inspect;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertSame;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The size of a ball by what it mirrors, on balls painted with known outlines. */
public class HighlightsTest {
    private static final BeadMap MAP = BeadMap.grid(9, 9, 0.8, Optional.of(0.5));
    private static final double SCALE = 60;
    private Painted.Truth truth;
    private Highlights highlights;
    private double usual;

    @BeforeClass
    public void paint() {
        truth = Painted.balls(MAP,
                Map.of("C3", new Painted.Wrong(1.25, 0, 0), "G7", new Painted.Wrong(0.7, 0, 0), "E5",
                        new Painted.Wrong(0, 0, 0)),
                List.of(), new Painted.Pose(SCALE, 20, 4, 0, 0.9, 0.004, 5));
        List<Circle> good = MAP.sites().stream().map(Site::name)
                .filter(n -> !List.of("C3", "G7", "E5").contains(n)).map(n -> drawn(n, 1)).toList();
        highlights = new Highlights(truth.picture().light(), good);
        usual = drawn("D5", 1).rPx() / truth.diameters().get("D5") * 0.5;
    }

    private Circle drawn(String site, double wider) {
        double[] at = truth.outlines().get(site);
        return new Circle(at[0], at[1], wider * at[2], 1, 0.1);
    }

    /** Site, how much too wide its outline was drawn, and the size of the ball, parts of the usual one. */
    @DataProvider
    Object[][] outlines() {
        return new Object[][]{{"D4", 1.22, 1.0}, {"B8", 1.3, 1.0}, {"G7", 1.3, 0.7}, {"C3", 1.2, 1.25}};
    }

    @Test(dataProvider = "outlines")
    public void ballWithinAnOutlineDrawnTooWide(String site, double wider, double size) {
        Circle within = highlights.within(drawn(site, wider), usual);
        assertEquals(within.rPx() / usual, size, 0.06 * size);
        assertEquals(within.xPx(), drawn(site, 1).xPx(), 0.1 * usual);
        assertEquals(within.yPx(), drawn(site, 1).yPx(), 0.1 * usual);
    }

    @Test
    public void outlineThatIsTheBallsStays() {
        for (Circle own : List.of(drawn("D4", 1), drawn("C3", 1), drawn("G7", 1))) {
            assertSame(highlights.within(own, usual), own);
        }
    }

    /** A place without a ball has nothing that looks like one. */
    @Test
    public void nothingIsMadeOfABarePad() {
        double[] west = truth.outlines().get("E4");
        double[] east = truth.outlines().get("E6");
        var pad = new Circle((west[0] + east[0]) / 2, (west[1] + east[1]) / 2, 0.75 * usual, 1, 0.1);
        assertSame(highlights.within(pad, usual), pad);
    }
}
