package org.greenbead.core.run;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.testng.annotations.Test;

/** Verdicts of runs that went well in one thing and badly in another. */
public class JudgeTest {
    private static RunPlan with(Board board) {
        RunPlan usual = World.plan(World.usualRecipe());
        return new RunPlan(RunPlan.Task.LIFT, usual.job(), "lift_run", board, usual.bench(), usual.recipe());
    }

    private static Verdict.Mark mark(Verdict verdict, String key) {
        return verdict.lines().stream().filter(l -> l.what().key().equals(key)).findFirst().orElseThrow()
                .mark();
    }

    /** A low-melting neighbour close by lets go: the lift worked, a limit is broken, and the neighbour is named. */
    @Test
    public void meltedNeighbourIsNamed() {
        RunPlan plan = with(World.board(World.processor("Sn63Pb37", 1, 0),
                World.neighbour("U2", Side.TOP, 47.5, 58, "Sn42Bi58")));
        var run = new Bench4Tests(plan, 11);
        run.finish(plan);
        Verdict verdict = run.session.verdict();
        assertEquals(verdict.outcome(), Verdict.Outcome.LIMIT_BROKEN);
        assertEquals(verdict.neighboursMelted(), List.of("U2"));
        assertEquals(mark(verdict, "verdict.melt"), Verdict.Mark.HELD);
        assertEquals(mark(verdict, "verdict.joints"), Verdict.Mark.BROKEN);
    }

    /** The guard waits for the neighbour too: it melts far lower than the target. */
    @Test
    public void coolDownWaitsForTheNeighbourThatMelted() {
        RunPlan plan = with(World.board(World.processor("Sn63Pb37", 1, 0),
                World.neighbour("U2", Side.TOP, 47.5, 58, "Sn42Bi58")));
        var run = new Bench4Tests(plan, 11);
        RunState end = run.finish(plan);
        RunState safe = run.states.stream().filter(s -> s.status() == RunState.Status.SAFE).findFirst()
                .orElse(end);
        Room neighbour = safe.room().stream().filter(r -> r.what().key().equals("room.joints")).findFirst()
                .orElseThrow();
        assertTrue(neighbour.nowC() <= 138 - plan.recipe().limits().moveUnderK() + 0.5,
                "neighbour at " + neighbour.nowC());
    }

    /** A thermocouple in the joint proves melt without a nudge's help. */
    @Test
    public void probeAtTheJointIsProof() {
        RunPlan usual = World.plan(World.usualRecipe());
        var probes = List.of(usual.bench().probes().get(0),
                new ProbePlace("joint", ProbePlace.Role.JOINT, 3, Side.TOP, new Point(36, 58)));
        var bench = new Bench("quay-1", "Quay bench", 23, usual.bench().heater(), usual.bench().air(),
                probes);
        var plan = new RunPlan(RunPlan.Task.LIFT, usual.job(), "lift_run", usual.board(), bench,
                usual.recipe());
        var run = new Bench4Tests(plan, 11);
        run.finish(plan);
        assertTrue(run.session.verdict().melt().probeAtJoint());
        assertEquals(run.session.verdict().melt().strength(), MeltProof.Strength.PROVEN);
    }

    /** Nudged against the estimate, heat off at once: it is said that the joints were never hot. */
    @Test
    public void coldLiftIsNotProven() {
        var run = new Bench4Tests(World.plan(World.usualRecipe()), 2);
        run.run(5);
        run.say(Say.GO_ON);
        run.say(Say.GO_ON);
        run.step();
        run.say(Say.MOVES);
        run.say(Say.MOVES);
        run.say(Say.HEAT_OFF);
        run.until(s -> s.status() == RunState.Status.SAFE, 60);
        run.say(Say.FINISH);
        Verdict verdict = run.session.verdict();
        assertFalse(verdict.outcome() == Verdict.Outcome.PROVEN, verdict.toString());
        assertEquals(mark(verdict, "verdict.peak"), Verdict.Mark.BROKEN);
        assertEquals(mark(verdict, "verdict.melt"), Verdict.Mark.NOT_PROVED);
    }

    @Test
    public void everyProtectedPartHasItsLine() {
        RunPlan plan = World.plan(World.usualRecipe());
        var run = new Bench4Tests(plan, 11);
        run.finish(plan);
        long lines = run.session.verdict().lines().stream().filter(
                l -> List.of("verdict.body", "verdict.joints", "verdict.part").contains(l.what().key()))
                .count();
        assertEquals(lines, 1L + (plan.board().chips().size() - 1) + plan.board().parts().size());
        assertEquals(run.session.verdict().lengthS(), run.timeS(), 0.6);
    }

    @Test
    public void longMeltIsBeyondItsLimit() {
        var run = new Bench4Tests(World.plan(World.usualRecipe()), 11);
        run.until(s -> s.stage() == 2, 900);
        run.until(s -> run.bench.moves(), 300);
        run.say(Say.MOVES);
        RunState late = run.run(170);
        assertTrue(late.aboveS() > 150, "above for " + late.aboveS());
        assertTrue(late.raised().stream()
                .anyMatch(f -> f.rule() == org.greenbead.core.finding.Rule.MELT_TOO_LONG));
        run.say(Say.STOP);
        assertEquals(mark(run.session.verdict(), "verdict.above"), Verdict.Mark.CARE);
    }

    @Test
    public void rehearsalAndRunAgreeOnASoundPlan() {
        RunPlan plan = World.plan(World.usualRecipe());
        Rehearsal rehearsal = Rehearsal.of(plan, () -> false);
        var run = new Bench4Tests(plan, 11, Optional.of(rehearsal));
        run.finish(plan);
        assertEquals(run.session.verdict().outcome(), rehearsal.verdict().outcome());
        assertEquals(run.session.verdict().peakJointC(), rehearsal.peakJointMaxC(), 15,
                "a bench off by 15 % peaks nearby, since a person follows the estimate");
    }
}
