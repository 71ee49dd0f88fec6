package org.greenbead.worlds;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.Random;
import org.greenbead.core.inspect.BeadCheck;
import org.greenbead.core.inspect.BeadReport;
import org.greenbead.core.inspect.BeadVerdict;
import org.greenbead.core.inspect.PhotoJudge;
import org.greenbead.core.inspect.UnclearPhotoException;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The shipped judge on photos of seeds it was never trained on. */
public class JudgeTest {
    @DataProvider
    Object[][] worlds() {
        return new Object[][]{{"traced", 3, 0.85, 0.035}, {"composite", 6, 0.95, 0.02},
                {"painted", 6, 0.97, 0.015}};
    }

    @Test(dataProvider = "worlds")
    public void faultsFoundAndGoodLeftAlone(String world, int photos, double least, double mostMiss)
            throws IOException {
        Path folder = Files.createTempDirectory("judged");
        Album.make(MakePhotos.world(world), 7_000_000, photos, new ChipScene.Lot(7, 9, 0.08, 0),
                new double[]{16, 28}, folder);
        var net = new Score(Optional.of(PhotoJudge.shipped()));
        var limits = new Score(Optional.empty());
        for (Album.Page page : Album.read(folder)) {
            if (!doubted(page)) {
                net.add(page);
                limits.add(page);
            }
        }
        int[] found = net.faults();
        assertTrue(net.refused() <= 1, net.table());
        assertTrue(found[0] >= least * found[1], net.table());
        assertTrue(net.falseSites() <= 2, net.table());
        assertTrue(net.falseSites() <= limits.falseSites(), limits.table());
        assertTrue(net.meanMiss() < mostMiss, net.table());
    }

    /** A board as bright as its balls: told, never called good, and not held against what is found elsewhere. */
    private static boolean doubted(Album.Page page) {
        try {
            BeadReport report = BeadCheck.of(page.picture(), page.map());
            if (report.paleBoard()) {
                assertTrue(report.doubt().isPresent());
                assertNotEquals(report.verdict().act(), BeadVerdict.Act.GOOD);
            }
            return report.paleBoard();
        } catch (UnclearPhotoException e) {
            return false;
        }
    }

    /** Dark balls on a board that is burnt out: the bright board between them is a denser grid turned by an eighth, and is not taken for the field. */
    @Test
    public void theBoardBetweenTheBallsIsNotTheirField() {
        var random = new Random(993_009);
        ChipScene scene = ChipScene.drawn(random, new ChipScene.Lot(7, 14, 0.03, 0.8));
        double ballPx = 13 * Math.exp(random.nextDouble() * Math.log(40 / 13.0));
        MadePhoto photo = new TracedWorld(2).photo(scene, ballPx, random);
        double far = 0;
        try {
            BeadReport report = BeadCheck.of(photo.picture(), scene.map(), Optional.empty());
            far = report.sites().stream().mapToDouble(s -> photo.sites().values().stream()
                    .mapToDouble(p -> Math.hypot(p[0] - s.xPx(), p[1] - s.yPx()) / p[2]).min().orElseThrow())
                    .max()
                    .orElseThrow();
        } catch (UnclearPhotoException e) {
            assertEquals(e.why(), UnclearPhotoException.Why.GLARE,
                    "the board is burnt out, and that is what is said");
        }
        assertTrue(far < 0.3 * scene.map().pitchMm(), "a site is told " + far + " mm beside any");
    }
}
