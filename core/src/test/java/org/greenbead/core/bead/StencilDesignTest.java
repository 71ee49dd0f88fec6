package org.greenbead.core.bead;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.Map;
import java.util.stream.Collectors;
import org.greenbead.core.bead.StencilDesign.Level;
import org.greenbead.core.bead.StencilDesign.Point;
import org.testng.annotations.Test;

public class StencilDesignTest {
    /** Half of the volume is metal: 88.5 % by mass at 7.4 and 1.0 g/cm3 is 0.51. */
    private static final Paste PASTE = new Paste(88.5, 7.4, 1.0, 0);

    private static StencilDesign round(double width, double thickness, double pitch) {
        return new StencilDesign(new Aperture.Round(width), thickness, pitch, PASTE, 1);
    }

    private static Map<Point, Level> levels(StencilDesign design, double wanted) {
        return design.says(wanted).stream().collect(Collectors.toMap(s -> s.point(), s -> s.level()));
    }

    @Test
    public void followsTheClosedFormOfTheBall() {
        StencilDesign d = round(0.40, 0.10, 0.65);
        double eta = Balls.released(1.0);
        assertEquals(d.areaRatio(), 1.0, 1e-9);
        assertEquals(d.ballMm(), Math.cbrt(1.5 * 0.16 * 0.10 * PASTE.metalVolumePart() * eta), 1e-9);
        assertEquals(d.webMm(), 0.25, 1e-9);
        assertEquals(d.gapMm(), 0.65 - d.ballMm(), 1e-12);
    }

    @Test
    public void whatIsSoundIsCalledSound() {
        StencilDesign d = round(0.40, 0.12, 0.65);
        assertTrue(levels(d, d.ballMm()).values().stream().filter(l -> l != Level.GOOD).count() == 0,
                d.says(d.ballMm()).toString());
    }

    @Test
    public void eachFaultIsNamedAndItsNeighbourIsNot() {
        assertEquals(levels(round(0.30, 0.12, 0.65), Double.NaN).get(Point.RELEASE), Level.CARE);
        assertEquals(levels(round(0.32, 0.12, 0.65), Double.NaN).get(Point.RELEASE), Level.GOOD);
        assertEquals(levels(round(0.22, 0.15, 0.65), Double.NaN).get(Point.RELEASE), Level.BAD);
        assertEquals(levels(round(0.22, 0.15, 0.65), Double.NaN).get(Point.ASPECT), Level.CARE);
        assertEquals(levels(round(0.31, 0.10, 0.40), Double.NaN).get(Point.WEB), Level.BAD);
        assertEquals(levels(round(0.25, 0.10, 0.40), Double.NaN).get(Point.WEB), Level.GOOD);
        // A ball thicker than its hole is wide stays in the sheet.
        assertEquals(levels(round(0.30, 0.112, 0.65), Double.NaN).get(Point.GRIP), Level.GOOD);
        StencilDesign tight = new StencilDesign(new Aperture.Round(0.30), 0.112, 0.65,
                new Paste(92, 7.4, 1.0, 0.9), 2);
        assertTrue(levels(tight, Double.NaN).get(Point.GRIP) != Level.GOOD, tight.ballMm() + "");
        assertEquals(levels(round(0.40, 0.12, 0.65), 0.20).get(Point.WANTED), Level.BAD);
        Paste dry = new Paste(92, 7.4, 1.0, 0.9);
        assertEquals(
                levels(new StencilDesign(new Aperture.Round(0.60), 0.22, 0.65, dry, 1), Double.NaN)
                        .get(Point.BRIDGE),
                Level.CARE);
        assertEquals(
                levels(new StencilDesign(new Aperture.Round(0.60), 0.22, 0.65, dry, 2), Double.NaN)
                        .get(Point.BRIDGE),
                Level.BAD);
        assertEquals(levels(round(0.60, 0.22, 0.65), Double.NaN).get(Point.BRIDGE), Level.GOOD);
    }

    /** Inverse and forward agree over the range of the trade. */
    @Test
    public void theOpeningForABallMakesThatBall() {
        for (double pitch : new double[]{0.4, 0.5, 0.65, 0.8, 1.0}) {
            for (int fills = 1; fills <= 2; fills++) {
                double wanted = 0.45 * pitch;
                var any = new StencilDesign(new Aperture.Round(0.1), pitch <= 0.5 ? 0.10 : 0.15, pitch, PASTE,
                        fills);
                StencilDesign made = any.forBall(wanted);
                assertEquals(made.ballMm(), wanted, 0.002, pitch + " " + fills);
            }
        }
        assertThrows(IllegalArgumentException.class, () -> round(0.2, 0.05, 0.4).forBall(0.35));
    }

    @Test
    public void aSecondFillAddsWhatTheBallLeavesOfItsHole() {
        StencilDesign once = round(0.40, 0.12, 0.65);
        StencilDesign twice = new StencilDesign(once.opening(), 0.12, 0.65, PASTE, 2);
        double r = once.ballMm() / 2;
        double inside = Math.PI * 0.12 * 0.12 * (3 * r - 0.12) / 3;
        double added = (Math.PI / 4 * 0.16 * 0.12 - inside) * PASTE.metalVolumePart() * once.releasedPart();
        assertEquals(Math.pow(twice.ballMm(), 3), Math.pow(once.ballMm(), 3) + 6 / Math.PI * added, 1e-9);
        assertTrue(twice.ballMm() > once.ballMm() && twice.ballMm() < once.ballMm() * Math.cbrt(2));
        assertTrue(twice.spreadPct() > once.spreadPct());
    }

    @Test
    public void dryPasteMakesLargerBallsAndPoorReleaseUnevenOnes() {
        StencilDesign fresh = round(0.40, 0.12, 0.65);
        var dry = new StencilDesign(fresh.opening(), 0.12, 0.65, new Paste(88.5, 7.4, 1.0, 0.5), 1);
        assertTrue(dry.ballMm() > fresh.ballMm());
        assertTrue(round(0.26, 0.13, 0.65).spreadPct() > fresh.spreadPct());
        assertEquals(fresh.spreadPct(), 10, 1e-9,
                "six standard deviations of 5 % of the volume, a third of it in the diameter");
    }

    @Test
    public void absurdOpeningsAreRefusedWithWords() {
        assertTrue(org.testng.Assert.expectThrows(IllegalArgumentException.class, () -> round(0.7, 0.1, 0.65))
                .getMessage().contains("leaves no metal"));
        assertThrows(IllegalArgumentException.class, () -> round(0.4, 0.9, 0.65));
        assertThrows(IllegalArgumentException.class,
                () -> new StencilDesign(new Aperture.Round(0.3), 0.1, 0.65, PASTE, 3));
    }

    @Test
    public void squareOpeningsKeepTheirCornersWhenTheyGrow() {
        var square = new StencilDesign(new Aperture.Square(0.3, 0.06), 0.1, 0.65, PASTE, 1);
        Aperture.Square grown = (Aperture.Square) square.wide(0.4).opening();
        assertEquals(grown.radiusMm() / grown.sideMm(), 0.2, 1e-9);
    }
}
