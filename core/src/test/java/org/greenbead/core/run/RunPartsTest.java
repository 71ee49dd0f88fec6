package org.greenbead.core.run;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.HeatModel;
import org.testng.annotations.Test;

/** The parts of a run, each alone. */
public class RunPartsTest {
    private static final RunPlan PLAN = World.plan(World.usualRecipe());
    private static final HeatInput HOT = HeatInput.of(Optional.of(240.0), Optional.empty());
    private static final Estimate AROUND_100 = new Estimate(100, 2);

    private static Reading at(double celsius) {
        return new Reading.Measured("board_top", celsius);
    }

    private static ProbeWatch watch() {
        return new ProbeWatch(PLAN.bench().probes().getFirst());
    }

    // Stages.

    private static StageMachine started() {
        Stage dry = new Stage("Dry-out", Stage.Purpose.DRY_OUT, Optional.of(120.0), Optional.empty(),
                Optional.empty(), new StageEnd.AfterTime(30), 40);
        Recipe recipe = World.recipe(dry, World.soak(240, 108, 10),
                World.peak(322).withEnd(new StageEnd.AfterTime(5)), World.cool());
        var stages = new StageMachine(recipe);
        stages.start(100);
        return stages;
    }

    @Test
    public void stageEndsOnItsTimeCountedFromItsStart() {
        StageMachine stages = started();
        stages.look(129.9, p -> Double.NaN, StageMark.EndedBy.PROBE);
        assertEquals(stages.index(), 0);
        stages.look(130, p -> Double.NaN, StageMark.EndedBy.PROBE);
        assertEquals(stages.index(), 1);
        assertEquals(stages.marks().getFirst().endedBy(), StageMark.EndedBy.TIME);
    }

    @Test
    public void probeHasToHoldAndAFalseOneBeginsTheHoldAnew() {
        StageMachine stages = started();
        stages.goOn(110);
        stages.look(120, p -> 108, StageMark.EndedBy.PROBE);
        stages.look(129, p -> 108.5, StageMark.EndedBy.PROBE);
        stages.look(129.5, p -> Double.NaN, StageMark.EndedBy.PROBE);
        stages.look(131, p -> 109, StageMark.EndedBy.PROBE);
        assertEquals(stages.index(), 1, "the hold was broken");
        stages.look(141, p -> 109, StageMark.EndedBy.TWIN);
        assertEquals(stages.index(), 2);
        assertEquals(stages.marks().get(1).endedBy(), StageMark.EndedBy.TWIN);
    }

    @Test
    public void noClockAndNoGoingOnEndsThePeak() {
        StageMachine stages = started();
        stages.goOn(110);
        stages.goOn(111);
        assertTrue(stages.atPeak());
        stages.goOn(112);
        stages.look(999, p -> 999, StageMark.EndedBy.PROBE);
        assertTrue(stages.atPeak());
        stages.heatOff(1000, StageMark.EndedBy.WORD);
        assertEquals(stages.status(), RunState.Status.COOLING);
        stages.finish();
        assertEquals(stages.status(), RunState.Status.COOLING, "not before it is safe");
        stages.safe(1010);
        stages.finish();
        assertTrue(stages.over());
    }

    // Readings.

    @Test
    public void whatNoBoardCanDoIsLeftOutAtOnceAndNamedSoon() {
        ProbeWatch watch = watch();
        assertTrue(watch.take(0, at(100), AROUND_100, 0));
        assertFalse(watch.take(0.5, at(250), AROUND_100, 0));
        assertEquals(watch.view().health(), ProbeView.Health.GOOD, "one sample is no fault yet");
        watch.take(1, at(250), AROUND_100, 0);
        watch.take(2.5, at(250), AROUND_100, 0);
        assertEquals(watch.view().health(), ProbeView.Health.JUMPED);
        for (double t = 3; t < 7.9; t += 0.5) {
            assertFalse(watch.take(t, at(101), AROUND_100, 0), "at " + t);
        }
        watch.take(8, at(101), AROUND_100, 0);
        assertTrue(watch.take(8.5, at(101), AROUND_100, 0), "believed again once it has fitted for a while");
    }

    /** Ten seconds of silence allow what ten seconds can do, and no more. */
    @Test
    public void jumpIsMeasuredByTheTimeBetween() {
        ProbeWatch watch = watch();
        watch.take(0, at(100), AROUND_100, 0);
        assertTrue(watch.take(2, at(125), new Estimate(125, 2), 0));
        assertFalse(watch.take(2.5, at(100), new Estimate(125, 2), 0));
    }

    @Test
    public void readingFarFromTheEstimateIsNotUsedWhileItIsNotYetNamed() {
        ProbeWatch watch = watch();
        watch.take(0, at(100), AROUND_100, 0);
        assertFalse(watch.take(1, at(104), new Estimate(160, 2), 0));
        assertTrue(watch.take(2, at(106), new Estimate(160, 20), 0), "an unsure estimate blames nobody");
    }

    // What heater and air can make at all.

    @Test
    public void envelopeHoldsItsOwnBenchAndNotItsScaledReadings() {
        var envelope = new Envelope(PLAN.scene(), PLAN.knowledge());
        HeatModel bench = RunEngine.nominalModel(PLAN);
        for (int i = 0; i < 200; i++) {
            envelope.advance(HOT, 1);
            bench.advance(HOT, 1);
            for (ProbePlace place : PLAN.bench().probes()) {
                assertEquals(envelope.outsideK(place, bench.probeC(place)), 0, 1e-9, "at " + i + " s");
            }
        }
        ProbePlace top = PLAN.bench().probes().getFirst();
        assertTrue(envelope.outsideK(top, 23 + 2.2 * (bench.probeC(top) - 23)) > 0);
        assertTrue(envelope.outsideK(top, 23 + 0.3 * (bench.probeC(top) - 23)) < 0);
    }

    // The estimate made again.

    @Test
    public void estimateWithoutAProbeIsAsIfItHadNeverBeen() {
        var start = new EnsembleEstimator(PLAN.scene(), PLAN.knowledge(), 1);
        var alone = (EnsembleEstimator) start.copy();
        var misled = (EnsembleEstimator) start.copy();
        var memory = new Recollection(start);
        ProbePlace top = PLAN.bench().probes().getFirst();
        for (int i = 1; i <= 30; i++) {
            alone.advance(HOT, 2);
            misled.advance(HOT, 2);
            memory.went(HOT, 2, false);
            double wrong = 23 + 4.0 * i;
            misled.correct(top, wrong);
            misled.swept();
            memory.read(2.0 * i, Map.of(top, wrong));
        }
        double truth = alone.of(HeatModel::jointMinC).celsius();
        assertTrue(Math.abs(misled.of(HeatModel::jointMinC).celsius() - truth) > 10, "it was led astray");
        assertEquals(memory.without(Set.of(top.name())).of(HeatModel::jointMinC).celsius(), truth, 1e-6);
        assertEquals(memory.without(Set.of()).of(HeatModel::jointMinC).celsius(),
                misled.of(HeatModel::jointMinC).celsius(), 1e-6, "and with it as it was");
        memory.forget(Map.of(top.name(), 0.0));
        assertEquals(memory.without(Set.of()).of(HeatModel::jointMinC).celsius(), truth, 1e-6);
    }

    /** Both cases are covered, whichever was true. */
    @Test
    public void contestedEstimateCoversBothCases() {
        var cold = new EnsembleEstimator(PLAN.scene(), PLAN.knowledge(), 1);
        JointEstimator warm = cold.copy();
        warm.startAt(90);
        Estimate both = new Contested(warm, Set.of(), cold, Set.of("board_top")).of(HeatModel::jointMinC);
        assertTrue(both.lowC() <= cold.of(HeatModel::jointMinC).lowC() + 1e-9);
        assertTrue(both.highC() >= warm.of(HeatModel::jointMinC).highC() - 1e-9);
    }

    // When it is solid.

    /** An estimate that is led down by false readings does not make it safe: the model left to itself is still hot. */
    @Test
    public void guardDoesNotFollowReadings() {
        JointEstimator estimate = new EnsembleEstimator(PLAN.scene(), PLAN.knowledge(), 1);
        estimate.startAt(200);
        var guard = new CoolGuard(168, p -> p.limitC() - 15, estimate);
        estimate.startAt(60);
        assertTrue(estimate.of(HeatModel::jointMaxC).highC() < 168);
        assertFalse(guard.safe(estimate, List.of()));
        for (int i = 0; i < 120; i++) {
            guard.advance(HeatInput.OFF, 1);
        }
        assertTrue(guard.safe(estimate, List.of()), "once a board can have cooled");
    }

    /** A neighbour of a lower alloy that may have melted is waited for. */
    @Test
    public void guardWaitsForANeighbourThatMayHaveMelted() {
        JointEstimator estimate = new EnsembleEstimator(PLAN.scene(), PLAN.knowledge(), 1);
        estimate.startAt(150);
        var guard = new CoolGuard(168, p -> p.limitC() - 15, estimate);
        Protected neighbour = Protected.of(PLAN).stream().filter(p -> p.kind() == Room.Kind.JOINTS)
                .findFirst().orElseThrow();
        var low = new Protected(neighbour.name(), neighbour.what(), neighbour.kind(), neighbour.rule(), 138,
                10,
                neighbour.celsius());
        assertTrue(guard.safe(estimate, List.of()));
        assertFalse(guard.safe(estimate, List.of(low)));
    }

    /** Long after the answer nothing speaks of the question any more. */
    @Test
    public void warmBoardOnceSaidIsNotAccusedLater() {
        RunEngine engine = RunEngine.live(PLAN, Optional.empty());
        engine.apply(new RunEvent.Started(0));
        List<Reading> warm = List.of(new Reading.Measured("board_top", 80.0),
                new Reading.Measured("board_under", 80.5));
        for (double t = 0.5; t <= 25; t += 0.5) {
            engine.apply(new RunEvent.Sampled(t, warm));
        }
        engine.apply(new RunEvent.Said(25, Say.BOARD_IS_WARM, ""));
        engine.apply(new RunEvent.Sampled(25.5, warm));
        assertTrue(engine.state().findings().stream()
                .noneMatch(f -> f.rule().name().startsWith("PROBES_ALL")),
                engine.state().findings().toString());
    }

    /** Probes that were crossed are live: nobody is told that they are lost. */
    @Test
    public void crossedProbesAreNotCalledLost() {
        var run = new Bench4Tests(PLAN, 11);
        run.bench.crossProbes("board_top", "board_under", true);
        run.until(s -> s.findings().stream()
                .anyMatch(f -> f.rule() == org.greenbead.core.finding.Rule.PROBES_SWAPPED), 200);
        assertTrue(run.session.state().raised().stream()
                .noneMatch(f -> f.rule() == org.greenbead.core.finding.Rule.PROBE_LOST));
    }
}
