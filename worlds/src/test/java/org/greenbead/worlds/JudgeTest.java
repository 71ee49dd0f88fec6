package org.greenbead.worlds;

import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import org.greenbead.core.inspect.PhotoJudge;
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
            net.add(page);
            limits.add(page);
        }
        int[] found = net.faults();
        assertTrue(net.refused() <= 1, net.table());
        assertTrue(found[0] >= least * found[1], net.table());
        assertTrue(net.falseSites() <= 2, net.table());
        assertTrue(net.falseSites() <= limits.falseSites(), limits.table());
        assertTrue(net.meanMiss() < mostMiss, net.table());
    }
}
