package org.greenbead.core.run;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.finding.Remedy;
import org.greenbead.core.finding.Rule;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.testng.annotations.Test;

public class RunEngineTest {
    private static boolean has(RunState state, Rule rule) {
        return state.findings().stream().anyMatch(f -> f.rule() == rule);
    }

    private static boolean raised(RunState state, Rule rule) {
        return state.raised().stream().anyMatch(f -> f.rule() == rule);
    }

    private static Bench4Tests atPeak(long seed) {
        var run = new Bench4Tests(World.plan(World.usualRecipe()), seed);
        run.until(s -> s.stage() == 2, 900);
        return run;
    }

    @Test
    public void wholeLiftIsProven() {
        RunPlan plan = World.plan(World.usualRecipe());
        var run = new Bench4Tests(plan, 11);
        RunState end = run.finish(plan);
        Verdict verdict = run.session.verdict();
        assertEquals(verdict.outcome(), Verdict.Outcome.PROVEN, verdict.lines().toString());
        assertEquals(end.marks().stream().map(StageMark::endedBy).toList(),
                List.of(StageMark.EndedBy.PROBE, StageMark.EndedBy.PROBE, StageMark.EndedBy.MELT,
                        StageMark.EndedBy.SAFE));
        assertTrue(verdict.targetMelted());
        assertTrue(verdict.aboveLiquidusS() > 3 && verdict.aboveLiquidusS() < 150);
    }

    @Test
    public void stageEndsWhenItsProbeArrivesAndHasHeld() {
        var run = new Bench4Tests(World.plan(World.usualRecipe()), 3);
        RunState there = run.until(s -> s.stage() == 1, 900);
        StageMark soak = there.marks().getFirst();
        assertEquals(soak.endedBy(), StageMark.EndedBy.PROBE);
        double reached = run.states.stream().filter(s -> s.probes().get("board_top").celsius() >= 108)
                .findFirst().orElseThrow().timeS();
        assertTrue(soak.endS() - reached >= 8, "held for " + (soak.endS() - reached) + " s");
    }

    @Test
    public void timedStageEndsOnTime() {
        Stage dry = new Stage("Dry-out", Stage.Purpose.DRY_OUT, Optional.of(120.0), Optional.empty(),
                Optional.empty(), new StageEnd.AfterTime(30), 40);
        var run = new Bench4Tests(
                World.plan(World.recipe(dry, World.soak(240, 108, 10), World.peak(322), World.cool())), 1);
        RunState next = run.until(s -> s.stage() == 1, 60);
        assertEquals(next.marks().getFirst().endS(), 30, 0.51);
        assertEquals(next.marks().getFirst().endedBy(), StageMark.EndedBy.TIME);
    }

    /** Even a recipe that says so cannot let a clock or a probe close the peak. */
    @Test
    public void peakNeverEndsOnTimeOrOnABoardProbe() {
        for (StageEnd end : List.of(new StageEnd.AfterTime(5),
                new StageEnd.ProbeReaches("board_top", 60, 0))) {
            var run = new Bench4Tests(
                    World.plan(
                            World.recipe(World.soak(240, 60, 0), World.peak(250).withEnd(end), World.cool())),
                    2);
            run.until(s -> s.stage() == 1, 300);
            RunState later = run.run(120);
            assertEquals(later.stage(), 1);
            assertEquals(later.status(), RunState.Status.HEATING);
        }
    }

    @Test
    public void technicianMayEndAStageButNotThePeakByGoingOn() {
        var run = new Bench4Tests(World.plan(World.usualRecipe()), 2);
        run.run(5);
        assertEquals(run.say(Say.GO_ON).stage(), 1);
        assertEquals(run.say(Say.GO_ON).stage(), 2);
        assertEquals(run.say(Say.GO_ON).stage(), 2, "the peak stays");
        assertEquals(run.say(Say.BACK).stage(), 1);
    }

    /** A nudge that moves while no joint can be liquid is written down as doubted and proves nothing, however often it is said. */
    @Test
    public void nudgeOnAColdChipProvesNothingHoweverOften() {
        var run = new Bench4Tests(World.plan(World.usualRecipe()), 2);
        run.run(5);
        run.say(Say.GO_ON);
        run.say(Say.GO_ON);
        run.step();
        for (int i = 0; i < 25; i++) {
            RunState doubted = run.say(Say.MOVES);
            assertEquals(doubted.status(), RunState.Status.HEATING);
            assertEquals(doubted.melt().points(), 0);
            assertTrue(has(doubted, Rule.MELT_DOUBTED));
        }
        assertEquals(run.session.state().melt().evidence().size(), 25, "each is written down");
        assertEquals(run.say(Say.HEAT_OFF).status(), RunState.Status.COOLING, "heat away is always obeyed");
    }

    /** The evidence says when, how hot, how sure and from where. */
    @Test
    public void evidenceCarriesItsMoment() {
        RunPlan plan = World.plan(World.usualRecipe());
        var run = new Bench4Tests(plan, 11);
        run.finish(plan);
        Evidence nudge = run.session.verdict().melt().evidence().stream()
                .filter(e -> e.kind() == Evidence.Kind.NUDGE).findFirst().orElseThrow();
        StageMark peak = run.session.state().marks().get(2);
        assertTrue(nudge.timeS() > peak.startS() && nudge.timeS() < peak.endS());
        assertTrue(nudge.lowC() < nudge.jointC() && nudge.jointC() < nudge.highC());
        assertTrue(nudge.highC() > plan.target().joint().alloy().liquidusC());
    }

    /** The coach asks for a nudge on the lower bound of the coldest joint, never on the best value alone. */
    @Test
    public void nudgeIsAskedForOnTheLowerBound() {
        RunPlan plan = World.plan(World.usualRecipe());
        var run = new Bench4Tests(plan, 7);
        run.finish(plan);
        double liquidus = plan.target().joint().alloy().liquidusC();
        assertTrue(run.states.stream().filter(s -> s.coaching().name().equals("peak.nudge"))
                .allMatch(s -> s.joint().lowC() >= liquidus));
        assertTrue(run.states.stream().anyMatch(s -> s.coaching().name().equals("peak.nudge")));
    }

    @Test
    public void uncertaintyGrowsWithoutProbes() {
        var run = atPeak(5);
        double before = run.session.state().joint().sigmaK();
        run.bench.dropLink(true);
        RunState blind = run.run(40);
        assertTrue(blind.joint().sigmaK() > before + 0.5, before + " then " + blind.joint().sigmaK());
    }

    @Test
    public void deadProbeIsFoundAndTheStageWaitsForAWord() {
        var run = new Bench4Tests(World.plan(World.usualRecipe()), 4);
        run.run(20);
        run.bench.breakProbe("board_top", true);
        RunState lost = run.run(2);
        Finding finding = lost.findings().stream().filter(f -> f.rule() == Rule.PROBE_LOST).findFirst()
                .orElseThrow();
        assertEquals(finding.severity(), Severity.STOP);
        assertEquals(lost.probes().get("board_top").health(), ProbeView.Health.OPEN);
        assertEquals(lost.probes().get("board_under").health(), ProbeView.Health.GOOD);
        assertEquals(run.run(400).stage(), 0, "no probe, no end by probe");
        assertEquals(run.say(Say.GO_ON).stage(), 1);
        run.bench.breakProbe("board_top", false);
        assertFalse(has(run.run(3), Rule.PROBE_LOST), "it lives again");
    }

    @Test
    public void frozenProbeIsNotBelieved() {
        var run = new Bench4Tests(World.plan(World.usualRecipe()), 4);
        run.run(40);
        run.bench.freezeProbe("board_top", true);
        RunState stuck = run.run(30);
        assertTrue(has(stuck, Rule.PROBE_FROZEN));
        assertEquals(stuck.probes().get("board_top").health(), ProbeView.Health.FROZEN);
        assertTrue(Math.abs(stuck.joint().celsius() - run.bench.jointMinC()) < stuck.joint().plusMinusK() + 3,
                "the estimate goes on without it");
    }

    @Test
    public void probeThatFellOffDoesNotFit() {
        RunPlan plan = World.plan(World.usualRecipe());
        RunEngine engine = RunEngine.live(plan, Optional.empty());
        var bench = new SimulatedBench(plan, 9);
        engine.apply(new RunEvent.Started(0));
        for (double t = 0.5; t <= 150; t += 0.5) {
            bench.set(engine.input());
            bench.timeIs(t);
            List<Reading> readings = List.of(new Reading.Measured("board_top", 24 + t % 1),
                    sweep(bench).get(1));
            engine.apply(new RunEvent.Sampled(t, readings));
        }
        assertTrue(has(engine.state(), Rule.PROBE_DISAGREES) || has(engine.state(), Rule.PROBE_FROZEN));
        assertTrue(Math.abs(engine.state().joint().celsius() - bench.jointMinC()) < 15, "it is not followed");
    }

    private static List<Reading> sweep(SimulatedBench bench) {
        try {
            return bench.sweep();
        } catch (LinkLostException e) {
            throw new AssertionError(e);
        }
    }

    @Test
    public void droppedLinkIsAGapAndComesBack() {
        var run = new Bench4Tests(World.plan(World.usualRecipe()), 6);
        run.run(30);
        run.bench.dropLink(true);
        RunState gone = run.run(10);
        assertFalse(gone.linkUp());
        assertTrue(has(gone, Rule.LINK_LOST));
        assertTrue(
                run.events.stream().filter(RunEvent.Sampled.class::isInstance)
                        .map(RunEvent.Sampled.class::cast).filter(s -> s.readings().isEmpty()).count() >= 20,
                "the gap is kept as empty sweeps");
        run.bench.dropLink(false);
        RunState back = run.run(5);
        assertTrue(back.linkUp());
        assertFalse(has(back, Rule.LINK_LOST));
        assertTrue(raised(back, Rule.LINK_LOST), "and is remembered");
    }

    @Test
    public void fastAirIsARampFinding() {
        Recipe hot = World.recipe(World.soak(240, 60, 0), World.peak(470), World.cool());
        var run = new Bench4Tests(World.plan(hot), 1);
        run.until(s -> s.stage() == 1, 300);
        run.run(15);
        assertTrue(raised(run.session.state(), Rule.RAMP_UP));
    }

    /** It said how fast it rose when it was just slow enough again. */
    @Test
    public void verdictTellsTheFastestRiseAndNotTheLast() {
        Recipe hot = World.recipe(World.soak(240, 60, 0), World.peak(470), World.cool());
        var run = new Bench4Tests(World.plan(hot), 1);
        run.until(s -> s.stage() == 1, 300);
        double fastest = 0;
        double last = 0;
        for (int i = 0; i < 60; i++) {
            run.run(1);
            double now = run.session.state().findings().stream().filter(f -> f.rule() == Rule.RAMP_UP)
                    .mapToDouble(f -> ((Quantity.RateKPerS) f.gaps().get(1)).kelvinPerSecond()).findFirst()
                    .orElse(Double.NaN);
            last = Double.isNaN(now) ? last : now;
            fastest = now > fastest ? now : fastest;
        }
        assertTrue(last > 0 && last < fastest - 0.3, "fastest " + fastest + ", last " + last);
        var told = (Quantity.RateKPerS) run.session.state().raised().stream()
                .filter(f -> f.rule() == Rule.RAMP_UP).findFirst().orElseThrow().gaps().get(1);
        assertEquals(told.kelvinPerSecond(), fastest, 1e-9);
        assertTrue(run.session.verdict().lines().stream()
                .anyMatch(l -> l.what().key().equals("verdict.ramp.over")
                        && l.what().gaps().getFirst().equals(told)));
    }

    @Test
    public void weakHeaterIsFoundWithTheSetPointThatCuresIt() {
        Recipe weak = World.recipe(World.soak(170, 108, 5), World.peak(322), World.cool());
        var run = new Bench4Tests(World.plan(weak), 8);
        RunState lagging = run.until(s -> has(s, Rule.HEATER_LAG), 400);
        Finding finding = lagging.findings().stream().filter(f -> f.rule() == Rule.HEATER_LAG).findFirst()
                .orElseThrow();
        Remedy.SetHeater cure = (Remedy.SetHeater) finding.remedy().orElseThrow();
        assertTrue(cure.celsius() > 175, "raised to " + cure.celsius());
        run.session.change(run.timeS(), 0, weak.stages().getFirst().withHeater(Optional.of(cure.celsius())));
        assertEquals(run.until(s -> s.stage() == 1, 500).stage(), 1, "the cure brings the board there");
        assertTrue(raised(run.session.state(), Rule.STAGE_OVERRAN) || run.session.state().timeS() < 260);
    }

    @Test
    public void slowStageOverruns() {
        Recipe weak = World.recipe(World.soak(100, 108, 5), World.peak(322), World.cool());
        var run = new Bench4Tests(World.plan(weak), 8);
        assertTrue(has(run.run(210), Rule.STAGE_OVERRAN));
    }

    @Test
    public void coolDownGuardHoldsUntilSolid() {
        RunPlan plan = World.plan(World.usualRecipe());
        var run = atPeak(11);
        run.until(s -> run.bench.moves(), 300);
        assertEquals(run.say(Say.MOVES).status(), RunState.Status.MOLTEN);
        run.run(3);
        assertEquals(run.say(Say.HEAT_OFF).status(), RunState.Status.COOLING);
        RunState cooling = run.run(4);
        assertTrue(cooling.safeInS().isPresent(), "it says when");
        double said = cooling.safeInS().getAsDouble();
        assertEquals(run.say(Say.FINISH).status(), RunState.Status.COOLING, "not yet");
        double from = run.timeS();
        RunState safe = run.until(s -> s.status() == RunState.Status.SAFE, 300);
        assertEquals(run.timeS() - from, said, 0.35 * said + 5, "about when it said");
        double moving = plan.target().joint().alloy().solidusC() - plan.recipe().limits().moveUnderK();
        assertTrue(run.bench.jointMinC() < moving, "truly solid: " + run.bench.jointMinC());
        assertEquals(safe.coaching().pedal(), Optional.of(Say.FINISH));
        assertEquals(run.say(Say.FINISH).status(), RunState.Status.ENDED);
    }

    @Test
    public void movingTooEarlyIsNotForgotten() {
        var run = atPeak(11);
        run.until(s -> run.bench.moves(), 300);
        run.say(Say.MOVES);
        run.say(Say.HEAT_OFF);
        run.run(1);
        assertTrue(has(run.say(Say.MOVED), Rule.MOVED_BEFORE_SOLID));
        run.until(s -> s.status() == RunState.Status.SAFE, 300);
        run.say(Say.FINISH);
        assertEquals(run.session.verdict().outcome(), Verdict.Outcome.LIMIT_BROKEN);
    }

    @Test
    public void movingABoardThatIsSolidIsNothing() {
        var run = new Bench4Tests(World.plan(World.usualRecipe()), 1);
        run.run(10);
        assertFalse(has(run.say(Say.MOVED), Rule.MOVED_BEFORE_SOLID));
    }

    @Test
    public void brokenOffRunProvesNothing() {
        var run = new Bench4Tests(World.plan(World.usualRecipe()), 1);
        run.run(30);
        RunState ended = run.say(Say.STOP);
        assertEquals(ended.status(), RunState.Status.ENDED);
        assertEquals(run.session.verdict().outcome(), Verdict.Outcome.BROKEN_OFF);
        assertFalse(run.session.verdict().targetMelted());
        assertEquals(run.run(10).timeS(), ended.timeS(), 0.6, "nothing comes after the end");
    }

    /** The heart of the promise: a log played again gives the same states, findings and verdict, to the bit. */
    @Test
    public void replayGivesTheSameFindingsAndVerdict() {
        RunPlan plan = World.plan(World.usualRecipe());
        var run = new Bench4Tests(plan, 8);
        run.run(60);
        run.bench.breakProbe("board_under", true);
        run.run(10);
        run.bench.breakProbe("board_under", false);
        run.bench.dropLink(true);
        run.run(5);
        run.bench.dropLink(false);
        RunState live = run.finish(plan);
        RunEngine again = RunSession.replay(plan, Optional.empty(), run.events);
        assertEquals(again.state().raised(), live.raised());
        assertEquals(again.verdict(), run.session.verdict());
        assertEquals(Double.doubleToLongBits(again.state().peakJointC()),
                Double.doubleToLongBits(live.peakJointC()));
        assertEquals(again.state().marks(), live.marks());
    }

    @Test
    public void timeDoesNotGoBack() {
        RunEngine engine = RunEngine.live(World.plan(World.usualRecipe()), Optional.empty());
        engine.apply(new RunEvent.Started(0));
        engine.apply(new RunEvent.Sampled(10, List.of()));
        assertThrows(IllegalArgumentException.class, () -> engine.apply(new RunEvent.Sampled(9, List.of())));
    }

    @Test
    public void resumedRunRemembersTheGap() {
        var run = new Bench4Tests(World.plan(World.usualRecipe()), 1);
        run.run(30);
        RunState resumed = run.session.take(new RunEvent.Resumed(run.timeS(), 75));
        assertTrue(has(resumed, Rule.RESUMED_AFTER_GAP));
        run.say(Say.STOP);
        assertTrue(run.session.verdict().lines().stream()
                .anyMatch(l -> l.what().key().equals("verdict.gap") && l.mark() == Verdict.Mark.NOT_PROVED));
    }

    @Test
    public void unwrittenJournalIsShown() {
        RunPlan plan = World.plan(World.usualRecipe());
        var bench = new SimulatedBench(plan, 1);
        try (var session = new RunSession(RunEngine.live(plan, Optional.empty()), bench, new RunJournal() {
            @Override
            public void append(RunEvent event) {
            }

            @Override
            public boolean recording() {
                return false;
            }

            @Override
            public void close() {
            }
        }, bench)) {
            session.start(0);
            RunState state = session.pump(0.5);
            assertEquals(state.findings().getFirst().rule(), Rule.NOT_RECORDED);
        }
    }

    @Test
    public void changedStageActsFromThatMoment() {
        RunPlan plan = World.plan(World.usualRecipe());
        var run = new Bench4Tests(plan, 1);
        run.run(10);
        run.session.change(run.timeS(), 0, plan.recipe().stages().getFirst().withHeater(Optional.of(300.0)));
        assertEquals(run.session.plan().recipe().stages().getFirst().heaterC(), Optional.of(300.0));
        run.say(Say.STOP);
        assertTrue(run.session.verdict().lines().stream()
                .anyMatch(l -> l.what().key().equals("verdict.changed")));
    }

    @Test
    public void seatRunSettlesInsteadOfLifting() {
        RunPlan lift = World.plan(World.usualRecipe());
        var seat = new RunPlan(RunPlan.Task.SEAT, lift.job(), "lift_run", lift.board(), lift.bench(),
                lift.recipe());
        var run = new Bench4Tests(seat, 11);
        RunState end = run.finish(seat);
        assertEquals(end.status(), RunState.Status.ENDED);
        assertTrue(run.states.stream().anyMatch(s -> s.coaching().now().key().equals("coach.molten.seat")));
    }
}
