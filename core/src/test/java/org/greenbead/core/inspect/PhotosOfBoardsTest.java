package org.greenbead.core.inspect;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.RowNames;
import org.greenbead.core.bead.Site;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Cleaned pads, two photos of one place, and the projection beneath all of it. */
public class PhotosOfBoardsTest {
    private static final BeadMap FIELD = BeadMap.grid(10, 12, 0.65, Optional.of(0.4)).without("A1", "A1");

    @DataProvider
    Object[][] poses() {
        return new Object[][]{{new Painted.Pose(60, 3, 2, 0, 0.8, 0.003, 1)},
                {new Painted.Pose(60, 100, 7, 0, 1, 0.005, 2)},
                {new Painted.Pose(70, -171, 10, 0, 1, 0.004, 3)}};
    }

    /** The map lies where its balls were found, and between them. */
    @Test(dataProvider = "poses")
    public void theMapLiesOverThePhoto(Painted.Pose pose) throws UnclearPhotoException {
        Painted.Truth truth = Painted.balls(FIELD, Map.of("E5", new Painted.Wrong(0, 0, 0)), List.of(), pose);
        BeadReport report = BeadCheck.of(truth.picture(), FIELD);
        Projection onto = report.onto(FIELD, truth.width(), truth.height()).orElseThrow();
        double worst = 0;
        for (BeadReport.Seen seen : report.with(BeadState.OK)) {
            var site = FIELD.site(seen.site()).orElseThrow();
            worst = Math.max(worst, Math.hypot(onto.xPx(site.xMm(), site.yMm()) - seen.xPx(),
                    onto.yPx(site.xMm(), site.yMm()) - seen.yPx()));
        }
        assertTrue(worst < 2.5, "farthest from its ball: " + worst + " px");
        assertEquals(report.meanMm(), 0.4, 0.4 * 0.02);
        assertTrue(report.farthest().orElseThrow().offsetMm().orElseThrow() < 0.03);
        var empty = FIELD.site("E5").orElseThrow();
        var left = report.sites().stream().filter(s -> s.site().equals("E4")).findFirst().orElseThrow();
        var right = report.sites().stream().filter(s -> s.site().equals("E6")).findFirst().orElseThrow();
        assertEquals(onto.xPx(empty.xMm(), empty.yMm()), (left.xPx() + right.xPx()) / 2, 1.5);
    }

    @Test(dataProvider = "poses")
    public void padsAreToldApart(Painted.Pose pose) throws UnclearPhotoException {
        Raster picture = Painted.pads(FIELD, Map.of("B3", "bump", "D8", "gone", "H5", "glue"),
                List.<String[]>of(new String[]{"F10", "F11"}), pose);
        Map<String, PadState> odd = PadCheck.of(picture, FIELD).sites().stream()
                .filter(s -> s.state() != PadState.OK)
                .collect(Collectors.toMap(PadReport.Seen::site, PadReport.Seen::state));
        assertEquals(new java.util.TreeMap<>(odd).toString(),
                new java.util.TreeMap<>(
                        Map.of("B3", PadState.BUMP, "D8", PadState.MISSING_PAD, "H5", PadState.GLUE, "F10",
                                PadState.SMEAR, "F11", PadState.SMEAR))
                        .toString());
    }

    private static List<double[]> parts() {
        return parts(3);
    }

    private static List<double[]> parts(int seed) {
        var random = new Random(seed);
        var parts = new ArrayList<double[]>();
        for (int row = 0; row < 5; row++) {
            for (int column = 0; column < 8; column++) {
                if (random.nextDouble() < 0.75) {
                    boolean flat = random.nextBoolean();
                    parts.add(new double[]{-7.6 + 2.1 * column + 0.4 * random.nextDouble(),
                            -4.6 + 2.2 * row + 0.4 * random.nextDouble(), flat ? 1.0 : 0.5,
                            flat ? 0.5 : 1.0});
                }
            }
        }
        return parts;
    }

    /** One part taken away, one shifted by 1.2 mm; the camera moved and the light changed between. */
    @Test
    public void vanishedAndMovedPartsAreNamed() throws UnclearPhotoException {
        List<double[]> before = parts();
        var after = new ArrayList<>(before);
        double[] gone = after.remove(12);
        double[] was = before.get(20);
        after.set(after.indexOf(was), new double[]{was[0] + 0.1, was[1] + 1.1, was[2], was[3]});
        var one = new Painted.Pose(55, 1, 3, 0, 0.9, 0.004, 1);
        Change change = BoardCompare.of(Painted.board(before, one),
                Painted.board(after, new Painted.Pose(57, -3, 5, 0, 1.1, 0.005, 2)));
        assertEquals(change.vanished().size(), 1, change.toString());
        assertEquals(change.moved().size(), 1, change.toString());
        double[] px = seen(one, gone);
        assertEquals(change.vanished().getFirst().xPx(), px[0], 12);
        assertEquals(change.vanished().getFirst().yPx(), px[1], 12);
        Change.Moved moved = change.moved().getFirst();
        assertEquals(moved.yPx() - moved.toYPx(), 1.1 * 55, 14);
        Change none = BoardCompare.of(Painted.board(before, one),
                Painted.board(before, new Painted.Pose(54, 4, 1, 0, 0.8, 0.004, 9)));
        assertTrue(none.vanished().isEmpty() && none.moved().isEmpty(), none.toString());
        assertTrue(none.agreed() > 0.97, "agreed " + none.agreed());
    }

    /** How far the second photo is turned, degrees, and the mask: over bare board, and over copper. */
    @DataProvider
    Object[][] boards() {
        double[] green = {0.015, 0.05, 0.02};
        double[] greenCopper = {0.03, 0.12, 0.05};
        double[] black = {0.008, 0.008, 0.009};
        double[] blackCopper = {0.012, 0.012, 0.013};
        return new Object[][]{{62.0, green, greenCopper}, {-151.0, green, greenCopper},
                {9.0, black, blackCopper},
                {90.0, black, blackCopper}};
    }

    /** Whatever way up, on a green board and on a black one; the part that moved lies over where it lay. */
    @Test(dataProvider = "boards")
    public void partsAreFollowedOnTurnedPhotos(double turn, double[] mask, double[] copper)
            throws UnclearPhotoException {
        List<double[]> before = parts();
        var after = new ArrayList<>(before);
        // In the middle, where both photos show them whatever the turn.
        List<double[]> inner = before.stream()
                .sorted(java.util.Comparator.comparingDouble(p -> Math.hypot(p[0], p[1]))).toList();
        double[] gone = inner.get(1);
        double[] was = inner.get(6);
        after.remove(gone);
        double shift = 0.7 * was[3];
        after.set(after.indexOf(was), new double[]{was[0], was[1] + shift, was[2], was[3]});
        var one = new Painted.Pose(55, 0, 0, 0, 0.9, 0.004, 1);
        Change change = BoardCompare.of(Painted.board(before, one, mask, copper),
                Painted.board(after, new Painted.Pose(52, turn, 3, 0, 1.1, 0.004, 2), mask, copper));
        assertEquals(change.vanished().size(), 1, change.toString());
        assertEquals(change.moved().size(), 1, change.toString());
        double[] px = seen(one, gone);
        assertEquals(change.vanished().getFirst().xPx(), px[0], 8);
        assertEquals(change.vanished().getFirst().yPx(), px[1], 8);
        Change.Moved moved = change.moved().getFirst();
        double[] from = seen(one, was);
        assertEquals(moved.xPx(), from[0], 8);
        assertEquals(moved.yPx(), from[1], 8);
        assertEquals(moved.yPx() - moved.toYPx(), 55 * shift, 8);
    }

    private static double[] seen(Painted.Pose pose, double[] part) {
        double roll = Math.toRadians(pose.rollDeg());
        double x = part[0] * Math.cos(roll) + part[1] * Math.sin(roll);
        double y = -part[0] * Math.sin(roll) + part[1] * Math.cos(roll);
        return new double[]{550 + pose.pxPerMm() * x, 400 - pose.pxPerMm() * y};
    }

    @Test
    public void otherPlacesAreRefused() {
        Raster one = Painted.board(parts(), Painted.Pose.plain());
        Raster balls = Painted.balls(FIELD, Map.of(), List.of(), Painted.Pose.plain()).picture();
        assertEquals(expectThrows(UnclearPhotoException.class, () -> BoardCompare.of(one, balls)).why(),
                UnclearPhotoException.Why.NO_FIELD);
        for (int seed : new int[]{40, 41}) {
            // The same outline, mask and size of parts; they lie elsewhere.
            Raster other = Painted.board(parts(seed), new Painted.Pose(53, 4, 2, 0, 1, 0.004, seed));
            assertEquals(expectThrows(UnclearPhotoException.class, () -> BoardCompare.of(one, other)).why(),
                    UnclearPhotoException.Why.NO_FIELD);
        }
    }

    /** Two hundred projections with a quarter of wild points: found again to a twentieth of a pixel. */
    @Test
    public void projectionIsFoundAmongOutliers() {
        var random = new Random(8);
        for (int turn = 0; turn < 200; turn++) {
            double angle = 2 * Math.PI * random.nextDouble();
            double scale = 20 + 80 * random.nextDouble();
            double[] tilt = {0.004 * random.nextGaussian(), 0.004 * random.nextGaussian()};
            double lens = 0.03 * random.nextGaussian();
            double[][] mm = new double[160][];
            double[][] px = new double[160][];
            for (int i = 0; i < mm.length; i++) {
                mm[i] = new double[]{12 * random.nextDouble() - 6, 12 * random.nextDouble() - 6};
                double w = 1 + tilt[0] * mm[i][0] + tilt[1] * mm[i][1];
                double u = scale * (Math.cos(angle) * mm[i][0] + Math.sin(angle) * mm[i][1]) / w;
                double v = scale * (Math.sin(angle) * mm[i][0] - Math.cos(angle) * mm[i][1]) / w;
                double k = 1 + lens * (u * u + v * v) / (800 * 800 + 600 * 600);
                px[i] = new double[]{800 + u * k + 0.1 * random.nextGaussian(),
                        600 + v * k + 0.1 * random.nextGaussian()};
                if (i % 4 == 0) {
                    px[i][0] += 40 * random.nextGaussian();
                    px[i][1] += 40 * random.nextGaussian();
                }
            }
            Projection near = Projection.affine(scale * Math.cos(angle), scale * Math.sin(angle), 803,
                    scale * Math.sin(angle), -scale * Math.cos(angle), 598, 1600, 1200);
            Projection found = near.fitted(mm, px, Projection.Form.LENS).orElseThrow();
            double worst = 0;
            for (int i = 1; i < mm.length; i += 4) {
                worst = Math.max(worst, Math.hypot(found.xPx(mm[i][0], mm[i][1]) - px[i][0],
                        found.yPx(mm[i][0], mm[i][1]) - px[i][1]));
            }
            assertTrue(worst < 0.6, "turn " + turn + ": " + worst);
            double[] back = found.toMm(found.xPx(1.5, -2.5), found.yPx(1.5, -2.5));
            assertEquals(back[0], 1.5, 1e-6);
            assertEquals(back[1], -2.5, 1e-6);
        }
    }

    /** The field of a photo, numbered again: two blocks with four empty columns between them, and a size within five percent. */
    @Test
    public void mapIsProposedFromAPhoto() throws UnclearPhotoException {
        BeadMap blocks = BeadMap.grid(12, 11, 0.8, Optional.of(0.45)).without("A5", "M8").without("A1", "A1");
        Raster photo = Painted
                .balls(blocks, Map.of(), List.of(), new Painted.Pose(45, 4, 5, 0.2, 0.9, 0.004, 3)).picture();
        BeadMap proposed = MapProposal.of(photo, 0.8);
        assertEquals(proposed.sites().stream().map(s -> s.name()).collect(Collectors.toSet()),
                blocks.sites().stream().map(s -> s.name()).collect(Collectors.toSet()));
        assertTrue(blocks.fit(proposed).whole(), blocks.fit(proposed).toString());
        assertEquals(proposed.sites().getFirst().diameterMm().orElseThrow(), 0.45, 0.03);
        int[] grey = new int[700 * 600];
        java.util.Arrays.fill(grey, 0x565656);
        assertEquals(expectThrows(UnclearPhotoException.class,
                () -> MapProposal.of(Raster.ofSrgb(700, 600, grey), 0.8)).why(),
                UnclearPhotoException.Why.NO_FIELD);
    }

    /** A frame of balls at 0.5 mm, and within it a field of its own at 0.65 mm: both are numbered, each in its pitch. */
    @Test
    public void twoFieldsOfDifferentPitchAreProposed() throws UnclearPhotoException {
        var sites = new ArrayList<Site>();
        for (int row = 0; row < 18; row++) {
            for (int column = 0; column < 18; column++) {
                if (Math.min(Math.min(row, column), Math.min(17 - row, 17 - column)) < 3) {
                    sites.add(new Site("A:" + RowNames.site(row, column), (column - 8.5) * 0.5,
                            (8.5 - row) * 0.5,
                            Optional.of(0.3), "", Site.Critical.UNKNOWN));
                }
            }
        }
        for (int row = 0; row < 7; row++) {
            for (int column = 0; column < 7; column++) {
                sites.add(new Site("B:" + RowNames.site(row, column), 0.07 + (column - 3) * 0.65,
                        -0.05 + (3 - row) * 0.65, Optional.of(0.3), "", Site.Critical.UNKNOWN));
            }
        }
        var two = new BeadMap(sites);
        BeadMap proposed = MapProposal.of(
                Painted.balls(two, Map.of(), List.of(), new Painted.Pose(70, 4, 3, 0, 0.9, 0.004, 3))
                        .picture(),
                0.5);
        assertEquals(proposed.sites().stream().map(Site::name).collect(Collectors.toSet()),
                two.sites().stream().map(Site::name).collect(Collectors.toSet()));
        Map<String, Site> at = proposed.sites().stream().collect(Collectors.toMap(Site::name, s -> s));
        for (Site s : sites) {
            assertEquals(at.get(s.name()).xMm(), s.xMm(), 0.045, s.name());
            assertEquals(at.get(s.name()).yMm(), s.yMm(), 0.045, s.name());
        }
    }

    /** Out of focus, or most of the chip beside the picture: said, not guessed. */
    @Test
    public void softAndCroppedPhotosAreRefused() {
        Raster soft = Painted.balls(FIELD, Map.of(), List.of(), new Painted.Pose(60, 3, 2, 0, 6, 0.003, 1))
                .picture();
        UnclearPhotoException.Why why = expectThrows(UnclearPhotoException.class,
                () -> BeadCheck.of(soft, FIELD)).why();
        assertTrue(why == UnclearPhotoException.Why.BLURRED || why == UnclearPhotoException.Why.NO_FIELD
                || why == UnclearPhotoException.Why.WRONG_CHIP, why.toString());
        Raster whole = Painted.balls(FIELD, Map.of(), List.of(), Painted.Pose.plain()).picture();
        Raster half = whole.cut(0, 0, whole.width(), (int) (0.38 * whole.height()));
        UnclearPhotoException.Why cut = expectThrows(UnclearPhotoException.class,
                () -> BeadCheck.of(half, FIELD)).why();
        assertTrue(cut == UnclearPhotoException.Why.CROPPED || cut == UnclearPhotoException.Why.WRONG_CHIP
                || cut == UnclearPhotoException.Why.NO_FIELD, cut.toString());
    }
}
