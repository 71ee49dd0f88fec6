package org.greenbead.core.picture;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.List;
import java.util.Random;
import org.greenbead.core.board.Point;
import org.testng.annotations.Test;

/** A board squared up from four corners. */
public class SquaredTest {
    private static final Point SIZE = new Point(80, 60);

    @Test
    public void straightPictureIsScaledAndTurnedOver() {
        Squared squared = Squared
                .of(List.of(new Px(100, 700), new Px(900, 700), new Px(900, 100), new Px(100, 100)), SIZE);
        assertEquals(squared.pxPerMm(), 10, 1e-9);
        Point middle = squared.toMm(new Px(500, 400));
        assertEquals(middle.xMm(), 40, 1e-9);
        assertEquals(middle.yMm(), 30, 1e-9);
        assertEquals(squared.toMm(new Px(100, 100)).yMm(), 60, 1e-9, "y counts upwards on the board");
        assertFalse(squared.holds(squared.toMm(new Px(50, 400))));
    }

    /** A pinhole camera that looks at a slant: every point of the board comes back to where it is. */
    @Test
    public void slantedCameraIsUndone() {
        var random = new Random(3);
        for (int trial = 0; trial < 50; trial++) {
            double tilt = 0.5 * random.nextDouble();
            double turn = Math.PI * 2 * random.nextDouble();
            double distance = 150 + 100 * random.nextDouble();
            java.util.function.Function<Point, Px> camera = p -> {
                double x = p.xMm() - 40;
                double y = p.yMm() - 30;
                double u = x * Math.cos(turn) - y * Math.sin(turn);
                double v = x * Math.sin(turn) + y * Math.cos(turn);
                double depth = distance + v * Math.sin(tilt);
                return new Px(2000 + 3000 * u / depth, 1500 - 3000 * v * Math.cos(tilt) / depth);
            };
            Squared squared = Squared
                    .of(List.of(camera.apply(new Point(0, 0)), camera.apply(new Point(80, 0)),
                            camera.apply(SIZE), camera.apply(new Point(0, 60))), SIZE);
            for (int i = 0; i < 20; i++) {
                var there = new Point(80 * random.nextDouble(), 60 * random.nextDouble());
                Point back = squared.toMm(camera.apply(there));
                assertEquals(back.xMm(), there.xMm(), 1e-7);
                assertEquals(back.yMm(), there.yMm(), 1e-7);
                Px again = squared.toPx(there);
                assertEquals(again.x(), camera.apply(there).x(), 1e-6);
            }
        }
    }

    @Test
    public void refusesCornersThatCannotBeABoard() {
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> Squared.of(List.of(new Px(0, 0), new Px(9, 0), new Px(9, 9)), SIZE)).getMessage()
                .contains("3 corners"));
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> Squared.of(
                        List.of(new Px(100, 100), new Px(900, 100), new Px(900, 700), new Px(100, 700)),
                        SIZE))
                .getMessage().contains("wrong way"), "mirrored");
        expectThrows(IllegalArgumentException.class,
                () -> Squared.of(
                        List.of(new Px(100, 700), new Px(900, 100), new Px(900, 700), new Px(100, 100)),
                        SIZE));
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> Squared.of(List.of(new Px(0, 9), new Px(9, 9), new Px(9, 0), new Px(0, 0)), SIZE))
                .getMessage()
                .contains("400 pixels"));
    }

    @Test
    public void cornersOfARecordAreReadOrLeft() {
        var size = new org.greenbead.core.board.Point(80, 60);
        Squared read = Squared.read("100,700; 900,700; 900,100; 100,100", size).orElseThrow();
        assertEquals(read.toMm(new Px(500, 400)).xMm(), 40, 1e-6);
        assertEquals(read.toMm(new Px(500, 400)).yMm(), 30, 1e-6);
        for (String bad : java.util.List.of("", " ", "100,700", "a,b; c,d; e,f; g,h", "1,1; 2,2; 3,3; 4,4",
                "100,100; 900,100; 900,700; 100,700", "100,700; 900; 900,100; 100,100")) {
            org.testng.Assert.assertTrue(Squared.read(bad, size).isEmpty(), bad);
        }
    }
}
