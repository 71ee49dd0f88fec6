package org.greenbead.core.inspect;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Balls judged on painted photos whose truth is known. */
public class BeadCheckTest {
    private static final BeadMap RING = BeadMap.grid(12, 12, 0.65, Optional.of(0.4)).without("D4", "J9");
    private static final BeadMap CORNER = BeadMap.grid(10, 14, 0.8, Optional.of(0.5)).without("A1", "A1");
    private static final Map<String, Painted.Wrong> WRONG = Map.of("B3", new Painted.Wrong(0, 0, 0), "C7",
            new Painted.Wrong(0.7, 0, 0), "K11", new Painted.Wrong(1.22, 0, 0), "L5",
            new Painted.Wrong(1, 0.13, 0.06));

    @DataProvider
    Object[][] poses() {
        return new Object[][]{{new Painted.Pose(60, 3, 2, 0, 0.9, 0.004, 1)},
                {new Painted.Pose(60, 93, 6, 0, 1.2, 0.006, 2)},
                {new Painted.Pose(45, 181, 12, 0, 0.8, 0.004, 3)},
                {new Painted.Pose(55, -37, 5, 0, 1.4, 0.008, 4)},
                {new Painted.Pose(60, 12, 8, 1, 0.9, 0.004, 5)},
                {new Painted.Pose(50, 268, 3, 0.6, 1.1, 0.006, 6)},
                {new Painted.Pose(60, 20, 4, 0, 0.9, 0.004, 7, 0.5)},
                {new Painted.Pose(60, 140, 3, 0, 1.0, 0.004, 8, 1)}};
    }

    private static Map<String, BeadState> states(BeadReport report) {
        return report.sites().stream().filter(s -> s.state() != BeadState.OK)
                .collect(Collectors.toMap(BeadReport.Seen::site, BeadReport.Seen::state));
    }

    /** Every defect and nothing else, whatever the turn, the tilt, the light and the blur; names of sites by the mark alone. */
    @Test(dataProvider = "poses")
    public void everyDefectAndNothingElse(Painted.Pose pose) throws UnclearPhotoException {
        Painted.Truth truth = Painted.balls(RING, WRONG, List.<String[]>of(new String[]{"M8", "M9"}), pose);
        BeadReport report = BeadCheck.of(truth.picture(), RING);
        assertEquals(new TreeMap<>(states(report)).toString(),
                "{B3=MISSING, C7=SMALL, K11=LARGE, L5=DISPLACED, M8=BRIDGED, M9=BRIDGED}");
        assertEquals(report.mark(), BeadReport.Mark.SEEN);
        assertTrue(report.strays().isEmpty(), report.strays().toString());
        double sum = 0;
        int n = 0;
        for (BeadReport.Seen seen : report.with(BeadState.OK)) {
            sum += Math.abs(seen.diameterMm().orElseThrow() / truth.diameters().get(seen.site()) - 1);
            n++;
        }
        assertTrue(sum / n < 0.02, "mean error of diameters " + sum / n);
        assertEquals(report.tiltDeg(), pose.tiltDeg(), 3);
        assertEquals(report.verdict().act(), BeadVerdict.Act.TOUCH_UP);
        assertEquals(report.with(BeadState.BRIDGED).getFirst().bridgedWith(), List.of("M9"));
    }

    @Test(dataProvider = "poses")
    public void goodChipRaisesNothing(Painted.Pose pose) throws UnclearPhotoException {
        BeadReport report = BeadCheck.of(Painted.balls(CORNER, Map.of(), List.of(), pose).picture(), CORNER);
        assertEquals(states(report).toString(), "{}");
        assertEquals(report.verdict().act(), BeadVerdict.Act.GOOD);
        double turn = Math.IEEEremainder(report.turnDeg() - pose.rollDeg(), 360);
        assertEquals(turn, 0, 1.5, "the corner without a ball says how it lies");
    }

    @DataProvider
    Object[][] falls() {
        return new Object[][]{{0.7, 0.0}, {-0.5, 0.6}, {0.4, -0.9}};
    }

    /** Light that falls by a factor of two to six over the photo: the same faults, and the same diameters, to a two-hundredth on average. */
    @Test(dataProvider = "falls")
    public void lightThatFallsOffChangesNothing(double alongX, double alongY) throws UnclearPhotoException {
        Painted.Truth truth = Painted.balls(RING, WRONG, List.<String[]>of(new String[]{"M8", "M9"}),
                new Painted.Pose(60, 33, 5, 0, 0.9, 0.003, 9));
        int[] rgb = new int[truth.rgb().length];
        for (int i = 0; i < rgb.length; i++) {
            double u = 2.0 * (i % truth.width()) / truth.width() - 1;
            double v = 2.0 * (i / truth.width()) / truth.height() - 1;
            // Light times e^(au + bv), on the encoded scale to the power 1 / 2.2 or so.
            double by = Math.exp((alongX * u + alongY * v) / 2.2);
            for (int shift = 0; shift < 24; shift += 8) {
                rgb[i] |= (int) Math.min(255, Math.round(by * (truth.rgb()[i] >> shift & 255))) << shift;
            }
        }
        BeadReport even = BeadCheck.of(truth.picture(), RING);
        BeadReport fallen = BeadCheck.of(Raster.ofSrgb(truth.width(), truth.height(), rgb), RING);
        assertEquals(new TreeMap<>(states(fallen)).toString(),
                "{B3=MISSING, C7=SMALL, K11=LARGE, L5=DISPLACED, M8=BRIDGED, M9=BRIDGED}");
        double mean = IntStream.range(0, RING.sites().size())
                .filter(i -> even.sites().get(i).state() == BeadState.OK)
                .mapToDouble(i -> fallen.sites().get(i).diameterMm().orElseThrow()
                        / even.sites().get(i).diameterMm().orElseThrow() - 1)
                .map(Math::abs).average().orElseThrow();
        assertTrue(mean < 0.005, "diameters differ by " + mean);
    }

    @Test
    public void wrongChipAndWrongSideAreRefused() {
        Raster seen = Painted.balls(RING, Map.of(), List.of(), Painted.Pose.plain()).picture();
        BeadMap other = BeadMap.grid(9, 17, 0.5, Optional.of(0.3));
        var wrong = expectThrows(UnclearPhotoException.class, () -> BeadCheck.of(seen, other));
        assertTrue(wrong.why() == UnclearPhotoException.Why.WRONG_CHIP
                || wrong.why() == UnclearPhotoException.Why.NO_FIELD);
        BeadMap lopsided = new BeadMap(
                BeadMap.grid(10, 10, 0.8, Optional.of(0.5)).without("A1", "D4").sites().stream()
                        .filter(s -> !s.name().startsWith("K") || s.xMm() > 0).toList());
        BeadMap mirrored = lopsided.mirrored();
        Raster chip = Painted.balls(lopsided, Map.of(), List.of(), Painted.Pose.plain()).picture();
        var side = expectThrows(UnclearPhotoException.class, () -> BeadCheck.of(chip, mirrored));
        assertEquals(side.why(), UnclearPhotoException.Why.MIRRORED);
        assertTrue(side.getMessage().contains("mirror"), side.getMessage());
    }

    @Test
    public void nothingToSeeIsSaidSo() {
        int[] grey = new int[600 * 500];
        java.util.Arrays.fill(grey, 0x707070);
        var blank = expectThrows(UnclearPhotoException.class,
                () -> BeadCheck.of(Raster.ofSrgb(600, 500, grey), RING));
        assertEquals(blank.why(), UnclearPhotoException.Why.NO_FIELD);
        Raster far = Painted.balls(RING, Map.of(), List.of(), new Painted.Pose(14, 3, 2, 0, 0.6, 0.002, 1))
                .picture();
        assertEquals(expectThrows(UnclearPhotoException.class, () -> BeadCheck.of(far, RING)).why(),
                UnclearPhotoException.Why.TOO_SMALL);
        expectThrows(IllegalArgumentException.class, () -> Raster.ofSrgb(20, 20, new int[400]));
    }

    /** Critical nets come first, each with the paste it asks for: the missing ball in paste of which half is metal. */
    @Test
    public void touchUpListHasTheCriticalNetsFirst() throws UnclearPhotoException {
        BeadMap map = new BeadMap(RING.sites().stream()
                .map(s -> new Site(s.name(), s.xMm(), s.yMm(), s.diameterMm(),
                        s.name().equals("L5") ? "RESET" : "",
                        s.name().equals("L5") ? Site.Critical.ONLY : Site.Critical.MANY))
                .toList());
        BeadReport report = BeadCheck
                .of(Painted.balls(RING, WRONG, List.of(), Painted.Pose.plain()).picture(), map);
        List<BeadVerdict.Todo> todo = report.verdict().todo();
        assertEquals(todo.getFirst().site(), "L5");
        assertEquals(todo.getFirst().fix(), BeadVerdict.Fix.SETTLE);
        BeadVerdict.Todo missing = todo.stream().filter(t -> t.site().equals("B3")).findFirst().orElseThrow();
        assertEquals(missing.fix(), BeadVerdict.Fix.ADD_BALL);
        assertEquals(missing.pasteMm3(), 2 * Math.PI / 6 * 0.4 * 0.4 * 0.4, 1e-9);
        assertTrue(report.verdict().coplanarityMm() > 0.01 && report.verdict().coplanarityMm() < 0.06);
    }

    @Test
    public void pastManyFaultsItIsStripped() throws UnclearPhotoException {
        Map<String, Painted.Wrong> many = RING.sites().stream().limit(20)
                .collect(Collectors.toMap(Site::name, s -> new Painted.Wrong(0.7, 0, 0)));
        assertEquals(
                BeadCheck.of(Painted.balls(RING, many, List.of(), Painted.Pose.plain()).picture(), RING)
                        .verdict().act(),
                BeadVerdict.Act.STRIP);
    }

    @DataProvider
    Object[][] alike() {
        return new Object[][]{{1.17}, {0.83}};
    }

    /** Other spheres than the map has: the size is doubted, not every ball, and the one that differs from the rest is named. */
    @Test(dataProvider = "alike")
    public void allAlikeIsOneDoubt(double size) throws UnclearPhotoException {
        Map<String, Painted.Wrong> all = new TreeMap<>();
        RING.sites().forEach(s -> all.put(s.name(), new Painted.Wrong(size, 0, 0)));
        all.put("C7", new Painted.Wrong(0.72 * size, 0, 0));
        BeadReport report = BeadCheck
                .of(Painted.balls(RING, all, List.of(), Painted.Pose.plain()).picture(), RING);
        assertEquals(states(report).toString(), "{C7=SMALL}");
        assertEquals(report.commonPart(), size, 0.04);
        assertEquals(report.doubt().orElseThrow().key(), size > 1 ? "beadall.larger" : "beadall.smaller");
        assertTrue(report.with(BeadState.OK).stream().allMatch(
                s -> Math.abs(s.diameterMm().orElseThrow() - 0.4 * size) < 1.5 * s.diameterSdMm()),
                "what is stated holds the truth");
        all.put("C7", new Painted.Wrong(size, 0, 0));
        assertEquals(BeadCheck.of(Painted.balls(RING, all, List.of(), Painted.Pose.plain()).picture(), RING)
                .verdict().act(), BeadVerdict.Act.LOOK_AGAIN);
    }
}
