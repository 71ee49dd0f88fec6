package org.greenbead.core.bead;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.Random;
import org.greenbead.core.alloy.MeltingTable;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Openings, balls and joints against worked numbers and what geometry says. */
public class BallsTest {
    @DataProvider
    Object[][] balls() {
        return new Object[][]{{0.40, 0.10, 0.5, 0.9, 0.221}, {0.40, 0.10, 0.6, 0.9, 0.235}};
    }

    @Test(dataProvider = "balls")
    public void pasteBecomesABall(double opening, double thick, double metal, double released, double ball) {
        assertEquals(Balls.diameterMm(new Aperture.Round(opening), thick, metal, released), ball, 0.0005);
    }

    @Test
    public void areaRatioOfRoundAndSquareIsAQuarterOfWidthOverThickness() {
        assertEquals(new Aperture.Round(0.28).areaRatio(0.11), 0.636, 0.001);
        assertEquals(new Aperture.Round(0.40).areaRatio(0.10), 1.0, 1e-12);
        assertEquals(new Aperture.Square(0.28, 0).areaRatio(0.10), 0.70, 1e-12);
        Aperture rounded = new Aperture.Square(0.3, 0.15);
        assertEquals(rounded.areaMm2(), new Aperture.Round(0.3).areaMm2(), 1e-12,
                "a square rounded fully is a circle");
        assertEquals(rounded.girthMm(), new Aperture.Round(0.3).girthMm(), 1e-12);
        expectThrows(IllegalArgumentException.class, () -> new Aperture.Square(0.3, 0.2));
    }

    @Test
    public void openingForABallGivesThatBall() {
        Balls.Wanted wanted = Balls.openingFor(0.25, 0.12, 0.5, 0.9, 0.65);
        assertEquals(wanted.diameterMm(), 0.439, 0.001);
        assertEquals(wanted.webMm(), 0.211, 0.001);
        assertEquals(wanted.areaRatio(), 0.915, 0.001);
        var random = new Random(5);
        for (int i = 0; i < 200; i++) {
            double ball = 0.15 + 0.5 * random.nextDouble();
            double thick = 0.08 + 0.1 * random.nextDouble();
            double metal = 0.45 + 0.2 * random.nextDouble();
            Balls.Wanted opening = Balls.openingFor(ball, thick, metal, 0.9, 1);
            assertEquals(Balls.diameterMm(new Aperture.Round(opening.diameterMm()), thick, metal, 0.9), ball,
                    1e-9);
        }
    }

    @Test
    public void releaseNeverFallsWithTheAreaRatio() {
        double before = 0;
        for (double ratio = 0.05; ratio < 3; ratio += 0.01) {
            double now = Balls.released(ratio);
            assertTrue(now >= before && now < 1, "at " + ratio);
            before = now;
        }
        assertTrue(Balls.released(0.66) > 0.7 && Balls.released(0.5) < 0.5);
    }

    @Test
    public void halfOfThePasteIsMetalAndDryingAddsToIt() {
        var fresh = Paste.of(MeltingTable.standard().require("SAC305").made(), 88.5, 0);
        assertEquals(fresh.metalVolumePart(), 0.51, 0.01);
        var dried = Paste.of(MeltingTable.standard().require("SAC305").made(), 88.5, 0.3);
        assertTrue(dried.metalVolumePart() > fresh.metalVolumePart());
        assertTrue(
                Paste.of(MeltingTable.standard().require("Sn63Pb37").made(), 90, 0.9).metalVolumePart() < 1);
    }

    @Test
    public void spheresByNumberAndMass() {
        assertEquals(Balls.massMg(0.50, 8.4), 0.55, 0.001);
        assertEquals(Balls.order(264, 8), 286);
        assertEquals(Balls.order(100, 5), 105);
        assertEquals(Balls.filledAgainMm(0.24, 0.18), 0.270, 0.0005);
    }

    @Test
    public void ballCollapsesToASegment() {
        Collapse joint = Collapse.of(Balls.sphereMm3(0.45), 0.19, 0.20);
        assertEquals(joint.heightMm(), 0.291, 0.0005);
        assertEquals(joint.bulgeMm(), 0.487, 0.0005);
        assertEquals(joint.gapMm(0.80), 0.313, 0.0005);
        var random = new Random(9);
        for (int i = 0; i < 300; i++) {
            double a = 0.1 + 0.2 * random.nextDouble();
            double b = 0.1 + 0.2 * random.nextDouble();
            double volume = Balls.sphereMm3(0.3 + 0.4 * random.nextDouble());
            Collapse c = Collapse.of(volume, a, b);
            assertEquals(Collapse.segment(c.heightMm(), a, b), volume, 1e-9, "the solder is kept");
            assertEquals(Collapse.of(volume, b, a).heightMm(), c.heightMm(), 1e-9, "pads may be swapped");
            assertTrue(c.bulgeMm() >= 2 * Math.max(a, b) - 1e-12);
        }
    }

    /** Two equal pads and the volume of a barrel of known sphere: the middle lies half way. */
    @Test
    public void bulgeOfEqualPadsIsTheSphereItself() {
        double radius = 0.3;
        double half = 0.2;
        double pad = Math.sqrt(radius * radius - half * half);
        double volume = 2 * Math.PI * (radius * radius * half - half * half * half / 3);
        Collapse c = Collapse.of(volume, pad, pad);
        assertEquals(c.heightMm(), 2 * half, 1e-9);
        assertEquals(c.bulgeMm(), 2 * radius, 1e-9);
    }
}
