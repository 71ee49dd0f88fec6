package org.greenbead.core.account;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Mark;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.NotKnown;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.World;
import org.testng.annotations.Test;

/** Shields, screws and regions that are drawn on a board reach the judgement of every job on it. */
public class MarksOnBoardTest {
    private static final RunPlan PLAN = World.plan(World.usualRecipe());
    private static final Board BARE = PLAN.board();
    private static final Job JOB = World.job(Attest.UNKNOWN)
            .withBeads(Routes.shipped().beads(JobKind.REVIVE, Routes.recipes("WB-7", "U1")))
            .with(Facts.none().with("job.kind=revive"));

    private static Mark mark(String name, Mark.Kind kind, double x, double y, double wide) {
        return new Mark(name, kind, Side.TOP, new Point(x, y), new Point(wide, wide), Optional.empty());
    }

    private static Job at(int phases, Job job) {
        return job.withBeads(job.beads().stream()
                .map(b -> b.phase().ordinal() < phases ? b.as(BeadState.GREEN) : b).toList());
    }

    private static RunPlan on(Board board) {
        return PLAN.with(board);
    }

    /** What stands, and what holds because nobody knows it. */
    private static List<String> raised(Board board, Job job) {
        Judgement judged = Judgement.of(job, Optional.of(on(board).with(job)), Optional.empty(),
                Optional.empty(), RuleBook.shipped(), RuleBook.Settings.STANDARD);
        return Stream.concat(judged.judged().open().stream().map(n -> n.rule().id()),
                judged.notKnown().stream().filter(NotKnown::holds).map(n -> n.rule().id())).toList();
    }

    private static Facts facts(Board board, Job job) {
        return JobFacts.known(job, Optional.of(on(board)), Optional.empty()).facts();
    }

    private static Job covering(Job job, String done) {
        return job.with(new Kept(job.freeId("covering"), "covering", Instant.EPOCH, "",
                Map.of("what", "shield", "done", done)));
    }

    /** Off before the heat, by a tick or by the record of how; back, or told, before the job is closed. Not known is not off. */
    @Test
    public void aShieldOverTheChipHoldsTheHeatUntilItIsOff() {
        Point chip = BARE.requireChip(PLAN.job().target()).centreMm();
        Board under = BARE.put(mark("SH1", Mark.Kind.SHIELD, chip.xMm(), chip.yMm(), 20));
        Job ready = at(4, JOB);
        assertTrue(raised(under, ready).contains("shield.over-the-chip"), "nobody said");
        assertTrue(raised(under, ready.record("shields_off", Attest.NO)).contains("shield.over-the-chip"));
        Job off = ready.record("shields_off", Attest.YES);
        assertFalse(raised(under, off).contains("shield.over-the-chip"));
        assertFalse(raised(under, covering(ready, "cut")).contains("shield.over-the-chip"));
        assertFalse(raised(BARE, ready).contains("shield.over-the-chip"), "there is none");
        Board beside = BARE.put(mark("SH1", Mark.Kind.SHIELD, chip.xMm() + 18, chip.yMm(), 12));
        assertFalse(raised(beside, ready).contains("shield.over-the-chip"));

        Job closing = at(9, JOB.record("shields_off", Attest.YES));
        assertTrue(raised(under, closing).contains("shield.not-back"));
        assertFalse(raised(under, covering(closing, "reused")).contains("shield.not-back"));
        assertFalse(raised(BARE, closing).contains("shield.not-back"));
    }

    /** A part lies in the smallest region over it; a record of the job outranks what is drawn. */
    @Test
    public void aPartHasTheRuleOfItsRegion() {
        Board drawn = BARE.put(mark("ZI1", Mark.Kind.IRON_SAFE, 20, 20, 39))
                .put(mark("ZX1", Mark.Kind.HANDS_OFF, 12, 10, 9))
                .put(mark("ZM1", Mark.Kind.MILLED, 12, 10, 2));
        int at = 0;
        assertEquals(facts(drawn, JOB).at("parts." + at + ".zone").orElseThrow(), "hands_off");
        assertTrue(facts(BARE, JOB).at("parts." + at + ".zone").isEmpty());
        Job said = JOB.with(new Kept("neighbour-1", "neighbour", Instant.EPOCH, "",
                Map.of("id", "J9", "zone", "air_only")));
        assertEquals(facts(drawn, said).at("parts." + at + ".zone").orElseThrow(), "air_only");
    }

    @Test
    public void screwsOfTheTypeAreExpectedAtIntake() {
        Board drawn = BARE.put(mark("S1", Mark.Kind.SCREW, 4, 4, 3))
                .put(mark("S2", Mark.Kind.SCREW, 66, 4, 3))
                .put(mark("H1", Mark.Kind.HOLE, 66, 90, 3));
        Job counted = JOB
                .with(new Kept("condition-1", "condition", Instant.EPOCH, "", Map.of("screws_found", 1.0)));
        assertTrue(raised(drawn, counted).contains("intake.screws-missing"),
                raised(drawn, counted).toString());
        assertFalse(raised(BARE, counted).contains("intake.screws-missing"));
        Job all = JOB
                .with(new Kept("condition-1", "condition", Instant.EPOCH, "", Map.of("screws_found", 2.0)));
        assertFalse(raised(drawn, all).contains("intake.screws-missing"));
    }

    /** Every copy of a board keeps its marks; a name stands once, whatever bears it; what lies beside the board is refused. */
    @Test
    public void marksGoWithTheirBoard() {
        Mark screw = new Mark("S1", Mark.Kind.SCREW, Side.TOP, new Point(4, 4), new Point(3, 3),
                Optional.of(6.0));
        Board drawn = BARE.put(screw);
        for (Board copy : List.of(drawn.copy("B", "b"), drawn.thick(1.6), drawn.copper(4, 35, 0.4),
                drawn.sized(new Point(80, 99)), drawn.withParts(List.of()),
                drawn.with(BARE.chips().getFirst()), drawn.without("J9"))) {
            assertEquals(copy.marks(), List.of(screw));
        }
        assertEquals(drawn.without("S1"), BARE);
        assertEquals(drawn.freeName("S"), "S2");
        assertEquals(drawn.at(Side.TOP, new Point(4, 5)), Optional.of("S1"));
        assertThrows(IllegalArgumentException.class, () -> BARE.put(screw.named("J9")));
        assertThrows(IllegalArgumentException.class, () -> BARE.put(screw.at(new Point(400, 4))));
        assertThrows(IllegalArgumentException.class,
                () -> mark("H1", Mark.Kind.HOLE, 4, 4, 3).length(6));
    }
}
