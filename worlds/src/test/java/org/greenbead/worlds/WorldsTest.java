package org.greenbead.worlds;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.greenbead.core.inspect.BeadCheck;
import org.greenbead.core.inspect.BeadReport;
import org.greenbead.core.inspect.BeadState;
import org.greenbead.core.inspect.UnclearPhotoException;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The truth that is given with a photo is what the photo shows. */
public class WorldsTest {
    private static final ChipScene.Lot FEW = new ChipScene.Lot(5, 6, 0.2, 2);

    @DataProvider
    Object[][] worlds() {
        return new Object[][]{{new TracedWorld(4)}, {new CompositeWorld()}, {new PaintedWorld()},
                {new MirroredWorld()}};
    }

    private static MadePhoto photo(World world, long seed, double ballPx) {
        var random = new Random(seed);
        return world.photo(ChipScene.drawn(random, FEW), ballPx, random);
    }

    @Test(dataProvider = "worlds")
    public void sameSeedSamePhoto(World world) {
        MadePhoto one = photo(world, 41, 14);
        MadePhoto two = photo(world, 41, 14);
        assertTrue(Arrays.equals(one.rgb(), two.rgb()));
        assertFalse(Arrays.equals(one.rgb(), photo(world, 42, 14).rgb()));
    }

    private static void assertFalse(boolean same) {
        assertTrue(!same, "another seed, another photo");
    }

    /** Where the truth says a ball ends, the light changes more than it does on the board round it. */
    @Test(dataProvider = "worlds")
    public void ballsLieWhereTheTruthSays(World world) {
        int best = 0;
        int all = 0;
        for (long seed = 60; seed < 63; seed++) {
            MadePhoto photo = photo(world, seed, 26);
            for (double[] o : photo.outlines().values()) {
                double here = edge(photo, o, 1);
                all++;
                best += here > edge(photo, o, 1.45) ? 1 : 0;
            }
        }
        assertTrue(best > 0.75 * all, best + " of " + all + " balls of " + world.name());
    }

    /** Mean change of light across a circle of this part of the radius. */
    private static double edge(MadePhoto photo, double[] o, double part) {
        double sum = 0;
        for (int a = 0; a < 24; a++) {
            double in = light(photo, o, part - 0.14, a);
            double out = light(photo, o, part + 0.14, a);
            sum += (in - out) / 24;
        }
        return Math.abs(sum);
    }

    private static double light(MadePhoto photo, double[] o, double part, int a) {
        int x = Math.clamp((int) (o[0] + part * o[2] * Math.cos(a * Math.PI / 12)), 0, photo.width() - 1);
        int y = Math.clamp((int) (o[1] + part * o[2] * Math.sin(a * Math.PI / 12)), 0, photo.height() - 1);
        int rgb = photo.rgb()[y * photo.width() + x];
        return Math.log(20 + (rgb >> 16 & 255) + (rgb >> 8 & 255) + (rgb & 255));
    }

    /** Every state of the truth is drawn by lot, and what is surely good or bad keeps away from the limits. */
    @Test
    public void truthKeepsItsLimits() {
        var random = new Random(9);
        int[] seen = new int[BeadState.values().length];
        for (int i = 0; i < 60; i++) {
            ChipScene scene = ChipScene.drawn(random, new ChipScene.Lot(5, 9, 0.3, 1));
            for (var site : scene.map().sites()) {
                BeadState state = scene.truth().get(site.name());
                seen[state.ordinal()]++;
                ChipScene.Ball ball = scene.balls().get(site.name());
                assertEquals(ball == null, state == BeadState.MISSING);
                if (ball == null || scene.between().contains(site.name())) {
                    continue;
                }
                double size = Math.abs(ball.diameterMm() / site.diameterMm().orElseThrow() - 1);
                double off = Math.hypot(ball.xMm() - site.xMm(), ball.yMm() - site.yMm())
                        / scene.map().pitchMm();
                if (state == BeadState.OK) {
                    assertTrue(size < 0.0851 && off < 0.0501, site.name() + " " + size + " " + off);
                } else if (state == BeadState.SMALL || state == BeadState.LARGE) {
                    assertTrue(size > 0.1499, site.name() + " " + size);
                }
            }
            scene.necks().forEach(n -> {
                assertEquals(scene.truth().get(n.from()), BeadState.BRIDGED);
                assertTrue(scene.joined(n.to()).contains(n.from()));
            });
        }
        for (BeadState s : List.of(BeadState.OK, BeadState.MISSING, BeadState.SMALL, BeadState.LARGE,
                BeadState.DISPLACED, BeadState.BRIDGED)) {
            assertNotEquals(seen[s.ordinal()], 0, s + " was never drawn");
        }
    }

    @Test
    public void albumRoundTrip() throws IOException {
        Path folder = Files.createTempDirectory("album");
        Album.make(new CompositeWorld(), 77, 2, FEW, new double[]{14, 16}, folder);
        List<Album.Page> pages = Album.read(folder);
        assertEquals(pages.size(), 2);
        var random = new Random(77);
        ChipScene scene = ChipScene.drawn(random, FEW);
        MadePhoto again = new CompositeWorld().photo(scene,
                14 * Math.exp(random.nextDouble() * Math.log(16 / 14.0)),
                random);
        Album.Page page = pages.getFirst();
        assertEquals(page.picture().width(), again.width());
        assertEquals(page.map().sites().size(), scene.map().sites().size());
        assertEquals(page.lines().toString(),
                Album.lines(again).stream().map(l -> Album.Line.of(l.csv())).toList().toString());
    }

    /** Balls that outlines alone find lie where the truth has them: two programs that share nothing agree on places. */
    @Test
    public void outlinesAgreeOnPlaces() throws UnclearPhotoException {
        var random = new Random(4);
        ChipScene scene = ChipScene.drawn(random, new ChipScene.Lot(7, 8, 0, 0));
        MadePhoto photo = new PaintedWorld().photo(scene, 24, random);
        BeadReport report = BeadCheck.of(photo.picture(), scene.map(), Optional.empty());
        double far = photo.outlines().values().stream().mapToDouble(o -> report.sites().stream()
                .mapToDouble(s -> Math.hypot(s.xPx() - o[0], s.yPx() - o[1])).min().orElse(99)).max()
                .orElseThrow();
        assertTrue(far < 0.8, "a ball is told " + far + " px off");
    }
}
