package org.greenbead.core.search;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.alloy.MeltingTable;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Layer;
import org.greenbead.core.board.LiftSide;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProtectedPart;
import org.greenbead.core.board.Side;
import org.greenbead.core.cue.Cue;
import org.greenbead.core.cue.CueClock;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Data that ships, and properties that hold whatever is put in. */
public class WordsOfTheBenchTest {
    @DataProvider
    Object[][] heard() throws Exception {
        var all = new ArrayList<Object[]>();
        try (InputStream in = BenchWords.class.getResourceAsStream("benchwords.txt")) {
            for (String line : new String(in.readAllBytes(), StandardCharsets.UTF_8).lines()
                    .filter(l -> !l.startsWith("#")).toList()) {
                String[] c = line.split("\\|", -1);
                for (String one : c[0].strip().split("\\s*,\\s*")) {
                    all.add(new Object[]{one, List.of(c[1].strip().split("\\s*,\\s*"))});
                }
            }
        }
        return all.toArray(Object[][]::new);
    }

    /** What is heard is one wish, alone or between other words, and stands for all that it means. */
    @Test(dataProvider = "heard")
    public void isReadAsOneWish(String heard, List<String> means) {
        List<BenchWords.Wish> alone = BenchWords.shipped()
                .read("  " + heard.toUpperCase(java.util.Locale.ROOT) + " ");
        assertEquals(alone.size(), 1, heard);
        assertTrue(alone.getFirst().anyOf().containsAll(means), heard);
        List<BenchWords.Wish> between = BenchWords.shipped().read("qqq " + heard + " zzz");
        assertEquals(between.size(), 3, heard);
        assertEquals(between.get(1), alone.getFirst());
    }

    private static Job job(String id, String title, String complaint) {
        return new Job(id, title, complaint, "Survey vessel Tarn", "WB-7", "U1", "quay-1",
                Routes.shipped().beads(JobKind.REVIVE, Routes.recipes("WB-7", "U1")));
    }

    @Test
    public void jobIsFoundByItsOwnWordsAndBeforeOthers() {
        var random = new Random(2);
        String[] words = {"kelp", "anode", "thwart", "gimbal", "sextant", "fathom", "binnacle", "scupper",
                "halyard", "transom"};
        for (int trial = 0; trial < 100; trial++) {
            var jobs = new ArrayList<Job>();
            for (int i = 0; i < 8; i++) {
                jobs.add(job("SB-" + i, words[random.nextInt(10)] + " " + words[random.nextInt(10)],
                        "does not " + words[random.nextInt(10)]));
            }
            Job wanted = jobs.get(random.nextInt(8));
            List<JobSearch.Hit> hits = JobSearch.find(jobs, wanted.title());
            assertTrue(hits.stream().anyMatch(h -> h.job().equals(wanted)));
            for (int i = 1; i < hits.size(); i++) {
                assertTrue(hits.get(i - 1).score() >= hits.get(i).score());
            }
            assertEquals(JobSearch.find(jobs, wanted.id()).getFirst().job(), wanted);
            assertTrue(JobSearch.find(jobs, wanted.title() + " xylophone").isEmpty());
        }
    }

    /** However seldom or often one looks, the same is said, each once and in order. */
    @Test
    public void countsSayTheSameHoweverOftenOneLooks() {
        var random = new Random(8);
        for (int trial = 0; trial < 300; trial++) {
            var cue = new Cue("c", "e", 1 + random.nextInt(130), random.nextBoolean(), false);
            double event = random.nextDouble() * 1e6;
            var clock = new CueClock(cue, event);
            var said = new ArrayList<Integer>();
            double now = event;
            while (now < event + cue.seconds() + 1) {
                now += random.nextDouble() * (random.nextInt(5) == 0 ? 30 : 0.4);
                said.addAll(clock.due(now));
            }
            List<Integer> expected = cue.saidAt().stream().map(at -> cue.spoken() ? at : cue.seconds() - at)
                    .toList();
            assertEquals(said, expected);
            assertTrue(clock.over(now));
        }
    }

    @DataProvider
    Object[][] alloys() {
        return MeltingTable.standard().rows().stream().map(r -> new Object[]{r.name(), r})
                .toArray(Object[][]::new);
    }

    @Test(dataProvider = "alloys")
    public void alloyIsSound(String name, MeltingTable.Row row) {
        assertTrue(row.solidusC() <= row.liquidusC() && row.solidusC() >= 90 && row.liquidusC() <= 300);
        double density = row.made().densityGPerCm3();
        assertTrue(density > 7.2 && density < 11.4, "between its lightest and heaviest element: " + density);
        assertFalse(row.source().isBlank());
        // The few that the twin knows have the same range, within the half degree by which it opens a eutectic.
        Alloys.find(name).ifPresent(a -> {
            assertEquals(a.solidusC(), row.solidusC(), 1);
            assertEquals(a.liquidusC(), row.liquidusC(), 1);
            assertEquals(a.hasPb(), row.made().pct("Pb") > 0);
            assertEquals(a.hasBi(), row.made().pct("Bi") > 0);
        });
    }

    private static Point turned(Point p, double side) {
        return new Point(p.yMm(), side - p.xMm());
    }

    /** The board turned by a quarter clockwise: the answer turns with it. */
    @Test
    public void liftSideTurnsWithTheBoard() {
        var random = new Random(12);
        double side = 80;
        for (int trial = 0; trial < 100; trial++) {
            var parts = new ArrayList<ProtectedPart>();
            var partsTurned = new ArrayList<ProtectedPart>();
            for (int i = 0; i < 12; i++) {
                var at = new Point(3 + random.nextDouble() * 74, 3 + random.nextDouble() * 74);
                var size = new Point(1 + random.nextDouble() * 3, 1 + random.nextDouble() * 3);
                parts.add(new ProtectedPart("P" + i, "part", Side.TOP, at, size, 200));
                partsTurned.add(new ProtectedPart("P" + i, "part", Side.TOP, turned(at, side),
                        new Point(size.yMm(), size.xMm()), 200));
            }
            Chip chip = new Chip("U1", "QX-510", Side.TOP, new Point(38, 43), new Point(14, 10),
                    List.of(new Layer.Joint(0.2, 0.4, 0.25, Alloys.require("SAC305"), false, 0.9),
                            new Layer.Plain(Layer.Material.SUBSTRATE, 0.4)),
                    250, 1, 3, 168, 10);
            Chip chipTurned = new Chip("U1", "QX-510", Side.TOP, turned(chip.centreMm(), side),
                    new Point(10, 14), chip.layers(), 250, 1, 3, 168, 10);
            var ways = LiftSide.of(
                    new Board("B", "b", new Point(side, side), 1.2, 6, 35, 0.5, 0.3, List.of(chip), parts),
                    chip, 6, 1);
            var turnedWays = LiftSide.of(
                    new Board("B", "b", new Point(side, side), 1.2, 6, 35, 0.5, 0.3, List.of(chipTurned),
                            partsTurned),
                    chipTurned, 6, 1);
            for (LiftSide.Way way : ways) {
                LiftSide.Side4 now = LiftSide.Side4.values()[(way.side().ordinal() + 1) % 4];
                LiftSide.Way other = turnedWays.stream().filter(w -> w.side() == now).findFirst()
                        .orElseThrow();
                assertEquals(other.clearMm(), way.clearMm(), 1e-9);
                assertEquals(other.by(), way.by());
            }
        }
    }
}
