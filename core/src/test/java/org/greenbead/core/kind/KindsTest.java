package org.greenbead.core.kind;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Assumed;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Layer;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;
import org.greenbead.core.calibrate.GuidedRun;
import org.greenbead.core.finding.Rule;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.plan.School;
import org.greenbead.core.quantity.Check;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.recipe.StartingRecipe;
import org.greenbead.core.run.PlanRules;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.World;
import org.greenbead.core.thermal.Uncertainty;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Usual builds, what is assumed with them, and what that does to what the model says. */
public class KindsTest {
    private static final Point MIDDLE = new Point(30, 40);

    private static Board bare() {
        return BoardKind.require("general").board("ES-5", "Echo sounder", new Point(60, 80));
    }

    private static Board with(String kind, double sideMm, double pitchMm) {
        return PackageKind.require(kind).onto(bare(), "U1", "K-41", Side.TOP, MIDDLE,
                new Point(sideMm, sideMm), pitchMm, Optional.empty());
    }

    @Test
    public void everyKindHasWordsAndMakesSomethingThatHolds() {
        var words = new Words(Locale.ENGLISH, TempUnit.CELSIUS);
        for (BoardKind kind : BoardKind.shipped()) {
            assertFalse(words.say("boardkind." + kind.id()).isBlank());
            assertEquals(kind.board("x", "x", new Point(50, 50)).assumed(),
                    List.of(Assumed.THICKNESS, Assumed.COPPER));
        }
        for (PackageKind kind : PackageKind.shipped()) {
            assertFalse(words.say("packagekind." + kind.id()).isBlank());
            assertTrue(with(kind.id(), 17, kind.pitchMm()).requireChip("U1").bodyMm() > 0.3, kind.id());
        }
        for (BenchKind kind : BenchKind.shipped()) {
            assertFalse(words.say("benchkind." + kind.id()).isBlank());
            assertTrue(kind.bench("b", "b").probes().isEmpty(), "nobody has one until it is there");
        }
        for (PartKind kind : PartKind.values()) {
            assertFalse(words.say("partkind." + kind.name().toLowerCase(Locale.ROOT)).isBlank());
        }
    }

    /** Ball by pitch: the rows of the table themselves, between them the straight line, and never so large that balls touch. */
    @Test
    public void ballFollowsThePitch() {
        assertEquals(PackageKind.ballMm(1.27), 0.75, 1e-12);
        assertEquals(PackageKind.ballMm(0.8), 0.45, 1e-12);
        assertEquals(PackageKind.ballMm(0.4), 0.25, 1e-12);
        assertEquals(PackageKind.ballMm(0.45), 0.275, 1e-12);
        for (double pitch = 0.25; pitch < 2; pitch += 0.01) {
            assertTrue(PackageKind.ballMm(pitch) < 0.72 * pitch, "at " + pitch);
            assertTrue(PackageKind.ballMm(pitch + 0.01) > PackageKind.ballMm(pitch), "at " + pitch);
        }
    }

    /** The joint is the ball flattened between two lands: lower than the ball, with its volume. */
    @Test
    public void jointIsTheCollapsedBall() {
        Layer.Joint joint = with("moulded", 14, 0.8).requireChip("U1").joint();
        assertTrue(joint.thicknessMm() < joint.ballMm() && joint.thicknessMm() > 0.6 * joint.ballMm(),
                "stand-off " + joint.thicknessMm());
        double land = 0.8 * joint.ballMm() / 2;
        double volume = Math.PI * joint.thicknessMm() / 6
                * (6 * land * land + joint.thicknessMm() * joint.thicknessMm());
        assertEquals(volume, Math.PI / 6 * Math.pow(joint.ballMm(), 3), 1e-9);
    }

    @Test
    public void bodyLimitIsThatOfItsClass() {
        assertEquals(with("thin", 8, 0.5).requireChip("U1").bodyLimitC(), 260, 1e-9, "under 1.6 mm");
        assertEquals(with("lidded", 40, 1.0).requireChip("U1").bodyLimitC(), 245, 1e-9, "over 2.5 mm, large");
        Chip leaded = PackageKind.require("ceramic").chip("U1", "K", Side.TOP, MIDDLE, new Point(25, 25),
                1.27,
                Alloys.require("Sn63Pb37"));
        assertEquals(leaded.bodyLimitC(), 220, 1e-9);
        assertTrue(leaded.openH() > leaded.floorLifeH(), "nobody knows how long it has lain open");
    }

    @Test
    public void whatIsMeasuredIsNoLongerAssumed() {
        Board board = with("moulded", 14, 0.8);
        assertEquals(board.assumed(), List.of("thickness", "copper", "U1.package", "U1.life", "U1.alloy"));
        Board measured = board.thick(1.2).copper(6, 18, 0.5);
        assertFalse(measured.assumed().contains(Assumed.THICKNESS) || measured.assumed().contains("copper"));
        Board other = BoardKind.require("thin_dense").built(board.thick(1.2));
        assertEquals(other.thicknessMm(), 1.2, 1e-12, "a measured thickness outlives another guess");
        assertEquals(other.copperLayers(), 10);
        assertEquals(BoardKind.require("thin_dense").built(board).thicknessMm(), 0.8, 1e-12);
        Board known = PackageKind.require("moulded").onto(board, "U1", "K-41", Side.TOP, MIDDLE,
                new Point(14, 14), 0.8, Optional.of(Alloys.require("Sn63Pb37")));
        assertFalse(known.assumed().contains(Assumed.alloyOf("U1")));
        assertEquals(known.chips().size(), 1, "in the place of the one of its name");
        assertEquals(known.without("U1").assumed(), List.of("thickness", "copper"));
        assertTrue(known.without("U1").chips().isEmpty());
        assertEquals(known.freeName("U"), "U2");
        Board part = PartKind.CELL.onto(known, "BT1", Side.BOTTOM, new Point(8, 8), new Point(10, 10));
        assertEquals(part.parts().getFirst().limitC(), 60, 1e-9);
        assertTrue(part.parts().getFirst().holds()
                .contains(org.greenbead.core.board.ProtectedPart.Holds.CELL));
        assertEquals(part.copy("ES-6", "Other").assumed(), part.assumed());
    }

    /** What is assumed widens what the model says, and of other chips it says nothing. Runs with this board make up for it. */
    @Test
    public void assumptionsWidenTheModel() {
        Bench bench = BenchKind.require("open_small").bench("b", "b");
        Uncertainty plain = Uncertainty.of(bench, "ES-5", 14, 28);
        Uncertainty guessed = Uncertainty.of(bench, "ES-5", 14, 28,
                Assumed.ofTarget(with("moulded", 14, 0.8), "U1"));
        assertEquals(guessed.boardHeatLn(), Math.hypot(0.15, 0.25), 1e-9);
        assertEquals(guessed.boardConductivityLn(), Math.hypot(0.30, 0.40), 1e-9);
        assertTrue(guessed.jetLn() > plain.jetLn());
        assertEquals(Uncertainty.of(bench, "ES-5", 14, 28,
                Assumed.ofTarget(with("moulded", 14, 0.8).thick(1.2).copper(4, 35, 0.5), "U2")).jetLn(),
                plain.jetLn(), 1e-12, "another chip is worked");
    }

    /** A newcomer's board on a newcomer's bench is rehearsed at once, and the guess shows as a wider joint. */
    @Test
    public void ownBoardIsRehearsed() {
        Board board = with("moulded", 14, 0.8);
        Bench bench = BenchKind.require("open_small").bench("b", "b");
        var recipe = StartingRecipe.of("es-5-u1-lift", "lift", board.requireChip("U1"), bench, true);
        var job = World.job(org.greenbead.core.route.Attest.YES);
        var own = new org.greenbead.core.route.Job("J-0001", "Echo sounder", "dead", "Ferry Hollin", "ES-5",
                "U1", "b", job.beads());
        var plan = new RunPlan(RunPlan.Task.LIFT, own, "lift_run", board, bench, recipe);
        double peak = Rehearsal.of(plan, () -> false).rows().stream()
                .mapToDouble(Rehearsal.Row::jointMinC).max().orElseThrow();
        assertTrue(peak > 200 && peak < 300, "coldest joint peaks at " + peak);
        assertTrue(plan.knowledge().boardHeatLn() > 0.25);
        assertTrue(plan.with(board.thick(1.6)).knowledge().boardHeatLn() < 0.2, "measured");
    }

    private static RunPlan airAlone(int chipMm) {
        Board board = with("moulded", chipMm, 0.8);
        Bench bench = BenchKind.require("air_alone").bench("b", "b");
        var recipe = StartingRecipe.of("es-5-u1-lift", "lift", board.requireChip("U1"), bench, true);
        var own = new org.greenbead.core.route.Job("J-0001", "Echo sounder", "dead", "Ferry Hollin", "ES-5",
                "U1", "b", World.job(org.greenbead.core.route.Attest.YES).beads());
        return new RunPlan(RunPlan.Task.LIFT, own, "lift_run", board, bench, recipe);
    }

    /** Most first benches are a hot-air pencil: its first guess melts what it is for, in every size that its nozzles serve, and burns nothing. */
    @Test
    public void benchWithoutAHeaterLiftsWithAirAlone() {
        for (int chip : List.of(8, 14, 20)) {
            RunPlan plan = airAlone(chip);
            assertTrue(plan.recipe().stages().stream().allMatch(s -> s.heaterC().isEmpty()));
            Rehearsal rehearsal = Rehearsal.of(plan, () -> false);
            double peak = rehearsal.rows().stream().mapToDouble(Rehearsal.Row::jointMinC).max()
                    .orElseThrow();
            assertTrue(peak > 217 && peak < 260, chip + " mm: coldest joint peaks at " + peak);
            assertTrue(rehearsal.rows().stream().allMatch(r -> r.heaterC() < 23), "nothing below is hot");
        }
    }

    /** What heats from below is not planned there, and a recipe that wants it is stopped before the board is on the bench. */
    @Test
    public void benchWithoutAHeaterIsNotAskedForOne() {
        RunPlan plan = airAlone(14);
        assertEquals(java.util.Arrays.stream(School.values()).filter(s -> s.possible(plan)).toList(),
                List.of(School.AIR_ALONE));
        assertTrue(
                PlanRules.look(plan, Optional.empty()).stream().noneMatch(f -> f.rule() == Rule.NO_HEATER));
        var below = plan.with(StartingRecipe.of("x", "x", plan.target(),
                BenchKind.require("open_small").bench("o", "o"), true));
        var found = PlanRules.look(below, Optional.empty()).stream().filter(f -> f.rule() == Rule.NO_HEATER)
                .toList();
        assertEquals(found.size(), 4, "every stage that sets it");
        assertTrue(found.stream().allMatch(f -> f.severity() == Severity.STOP));
        RunPlan guided = GuidedRun.of(plan);
        assertTrue(guided.recipe().stages().stream().allMatch(s -> s.heaterC().isEmpty()));
        assertEquals(guided.recipe().stages().stream().filter(s -> s.air().isPresent()).count(), 2);
    }

    @DataProvider
    public Object[][] sizes() {
        return new Object[][]{{"70 x 95", 70, 95}, {"14", 14, 14}, {"7,5x8.25 mm", 7.5, 8.25},
                {" 60 mm × 80 mm ", 60, 80}};
    }

    @Test(dataProvider = "sizes")
    public void sizesAreReadAsTheyAreTyped(String typed, double x, double y) {
        assertEquals(Point.size(typed), new Point(x, y));
    }

    @DataProvider
    public Object[][] hostile() {
        return new Object[][]{{"-3 x 80"}, {"2000 x 80"}, {"0 x 5"}, {"a x b"}, {""}, {"1e3 x 5"}};
    }

    @Test(dataProvider = "hostile")
    public void whatIsNoSizeIsRefusedWithAReason(String typed) {
        assertTrue(expectThrows(IllegalArgumentException.class, () -> Point.size(typed)).getMessage()
                .contains("mm"));
    }

    @DataProvider
    public Object[][] ids() {
        return new Object[][]{{"../etc"}, {"a/b"}, {"a\\b"}, {"a\u0007b"}, {"x".repeat(41)}, {" "}};
    }

    @Test(dataProvider = "ids")
    public void namesThatLeaveAFolderAreRefused(String id) {
        expectThrows(IllegalArgumentException.class, () -> Check.id("board id", id));
        expectThrows(IllegalArgumentException.class,
                () -> BoardKind.require("general").board(id, "t", new Point(50, 50)));
    }

    @Test
    public void chipsBesideTheBoardOrOverOneAnotherAreRefused() {
        Board board = with("moulded", 14, 0.8);
        PackageKind thin = PackageKind.require("thin");
        assertTrue(expectThrows(IllegalArgumentException.class, () -> thin.onto(board, "U2", "M", Side.TOP,
                new Point(2, 2), new Point(8, 8), 0.5, Optional.empty())).getMessage().contains("wholly"));
        assertTrue(expectThrows(IllegalArgumentException.class, () -> thin.onto(board, "U2", "M", Side.TOP,
                new Point(33, 42), new Point(8, 8), 0.5, Optional.empty())).getMessage().contains("overlap"));
        assertEquals(thin.onto(board, "U2", "M", Side.BOTTOM, new Point(33, 42), new Point(8, 8), 0.5,
                Optional.empty()).chips().size(), 2, "on the other side there is room");
        assertTrue(expectThrows(IllegalArgumentException.class, () -> board.sized(new Point(20, 20)))
                .getMessage().contains("wholly"));
        assertTrue(
                expectThrows(IllegalArgumentException.class, () -> PackageKind.require("cube")).getMessage()
                        .contains("moulded"));
    }
}
