package org.greenbead.core.run;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.finding.Rule;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/**
 * Thermocouples and loggers as they fail, on benches that the model does not know: each fault has its name in time, no joint that is not liquid
 * is called so, and nothing that is not solid is called safe.
 */
public class RunFaultsTest {
    private static final double SOLIDUS_C = 183;
    private static final double ROOM_C = 23;

    private static Optional<Double> named(Bench4Tests run, Rule rule, String subject) {
        return run.states.stream().filter(s -> s.findings().stream()
                .anyMatch(f -> f.rule() == rule && f.subject().contains(subject))).map(RunState::timeS)
                .findFirst();
    }

    /** Follows the coach with eyes that err, and holds every second against the truth. */
    private static void toTheEnd(Bench4Tests run, long seed) {
        var technician = new SimulatedTechnician(RunPlan.Task.LIFT, true);
        var eyes = new Eyes(run.bench, seed);
        RunState state = run.session.state();
        while (state.status() != RunState.Status.ENDED && run.timeS() < 1200) {
            state = run.step();
            hold(run, state);
            Optional<RunEvent> word = technician.act(state, run.session.plan(), eyes);
            if (word.isPresent()) {
                state = run.session.take(word.get());
            }
        }
        assertEquals(state.status(), RunState.Status.ENDED);
    }

    private static void hold(Bench4Tests run, RunState state) {
        if (state.coaching().name().equals("peak.nudge")) {
            assertTrue(run.bench.jointMinC() >= SOLIDUS_C,
                    "a nudge at " + run.bench.jointMinC() + " °C, estimate " + state.joint());
        }
        if (state.status() == RunState.Status.SAFE) {
            assertTrue(run.bench.jointMaxC() < SOLIDUS_C,
                    "safe at " + run.bench.jointMaxC() + " °C, estimate " + state.jointHot());
        }
    }

    @DataProvider
    Object[][] fromTheStart() {
        return new Object[][]{{"60 K low", -60.0, 1.0, Rule.PROBE_OFF_AT_START, 1.0},
                {"halved", 0.0, 0.5, Rule.PROBE_OFF_AT_START, 1.0},
                {"60 K high", 60.0, 1.0, Rule.BOARD_WARM_AT_START, 1.0}};
    }

    /** All probes wrong together agree with one another; they do not agree with the room. */
    @Test(dataProvider = "fromTheStart")
    public void allWrongFromTheStart(String what, double offsetK, double scale, Rule rule, double withinS) {
        var run = new Bench4Tests(World.plan(World.usualRecipe()), 11);
        run.fault(Bench4Tests.each((p, c) -> offsetK + scale * c));
        toTheEnd(run, 11);
        assertTrue(named(run, rule, "").orElse(1e9) <= withinS, what);
    }

    /** A wrong scale about the room shows once heater and model cannot agree with it, before anything is called molten. */
    @Test
    public void allScaledUpAboutTheRoom() {
        for (long seed : new long[]{3, 11}) {
            var run = new Bench4Tests(World.plan(World.usualRecipe()), seed);
            run.fault(Bench4Tests.each((p, c) -> ROOM_C + 1.5 * (c - ROOM_C)));
            toTheEnd(run, seed);
            assertTrue(named(run, Rule.PROBES_RISE_FAST, "").orElse(1e9) <= 60);
            assertTrue(named(run, Rule.PROBES_ALL_HIGH, "").orElse(1e9) < 130);
        }
    }

    /** Half of every rise: another thermocouple type. On a bench nobody has calibrated it is asked within the minute; a sound one is not accused. */
    @Test
    public void allHalvedAboutTheRoomIsAskedWithinAMinute() {
        for (long seed : new long[]{3, 11, 17}) {
            var run = new Bench4Tests(World.plan(World.usualRecipe()), seed);
            run.fault(Bench4Tests.each((p, c) -> ROOM_C + 0.5 * (c - ROOM_C)));
            run.run(62);
            assertTrue(named(run, Rule.PROBES_RISE_SLOWLY, "").orElse(1e9) <= 60, "seed " + seed);
            var sound = new Bench4Tests(World.plan(World.usualRecipe()), seed);
            sound.run(110);
            assertTrue(named(sound, Rule.PROBES_RISE_SLOWLY, "").isEmpty()
                    && named(sound, Rule.PROBES_RISE_FAST, "").isEmpty(), "seed " + seed);
        }
    }

    @Test
    public void allDriftDown() {
        var run = new Bench4Tests(World.plan(World.usualRecipe()), 3);
        run.run(60);
        run.fault((readings, after) -> Bench4Tests.each((p, c) -> c - after).on(readings, after));
        toTheEnd(run, 3);
        assertTrue(named(run, Rule.PROBES_ALL_LOW, "").orElse(1e9) < 60 + 60);
    }

    /** A drift that begins when the heat goes off looks like cooling. It cannot make it safe sooner than the board can cool. */
    @Test
    public void driftWhileCoolingDoesNotMakeItSafe() {
        var run = cooling(11);
        run.fault((readings, after) -> Bench4Tests.each((p, c) -> c - 2 * after).on(readings, after));
        toTheEnd(run, 11);
    }

    private static Bench4Tests cooling(long seed) {
        var run = new Bench4Tests(World.plan(World.usualRecipe()), seed);
        run.until(s -> s.coaching().name().equals("peak.nudge"), 900);
        run.until(s -> run.bench.moves(), 60);
        run.say(Say.MOVES);
        run.run(3);
        run.say(Say.HEAT_OFF);
        run.run(1);
        return run;
    }

    /** A logger that restarts, or beads torn off: all at 25 °C one second after the heat went off. */
    @Test
    public void coldChannelsAfterHeatOffAreNoCooling() {
        var run = cooling(11);
        double from = run.timeS();
        run.fault(Bench4Tests.each((p, c) -> 25.0));
        toTheEnd(run, 11);
        assertTrue(named(run, Rule.PROBE_JUMPED, "board_top").orElse(1e9) - from <= 3);
        double safe = run.states.stream().filter(s -> s.status() == RunState.Status.SAFE)
                .mapToDouble(RunState::timeS).min().orElseThrow();
        assertTrue(safe - from > 15, "safe after " + (safe - from) + " s");
    }

    @Test
    public void coldChannelsAfterAGapAreNoCoolingEither() {
        var run = cooling(3);
        run.fault((readings, after) -> after < 12
                ? List.of()
                : Bench4Tests.each((p, c) -> 25.0).on(readings, after));
        toTheEnd(run, 3);
    }

    /** The value an open channel or a wrong register gives is no reading, and a jump is none either. */
    @Test
    public void whatNoProbeCanShowIsNoReading() {
        for (double wrong : new double[]{3276.6, -273, 150}) {
            var run = new Bench4Tests(World.plan(World.usualRecipe()), 11);
            run.run(30);
            double from = run.timeS();
            double before = run.session.state().joint().celsius();
            run.fault(Bench4Tests.each(
                    (p, c) -> p.equals("board_top") ? wrong == 150 ? c + wrong : wrong : c));
            RunState later = run.run(3);
            Rule rule = wrong == 150 ? Rule.PROBE_JUMPED : Rule.PROBE_IMPOSSIBLE;
            assertTrue(named(run, rule, "board_top").orElse(1e9) - from <= 3, "" + wrong);
            assertEquals(later.joint().celsius(), before, 12, "the estimate does not follow");
            assertEquals(later.melt(), MeltProof.NONE);
            toTheEnd(run, 11);
        }
    }

    /** A joint probe that jumps proves nothing. */
    @Test
    public void jointProbeThatJumpsProvesNoMelt() {
        RunPlan usual = World.plan(World.usualRecipe());
        var probes = List.of(usual.bench().probes().get(0),
                new ProbePlace("joint", ProbePlace.Role.JOINT, 3, Side.TOP, new Point(36, 58)));
        var plan = new RunPlan(RunPlan.Task.LIFT, usual.job(), "lift_run", usual.board(), new Bench("quay-1",
                "Quay bench", ROOM_C, usual.bench().heater(), usual.bench().air(), probes), usual.recipe());
        var run = new Bench4Tests(plan, 11);
        run.run(40);
        run.fault(Bench4Tests.each((p, c) -> p.equals("joint") ? c + 150 : c));
        RunState later = run.run(20);
        assertTrue(run.bench.jointMaxC() < 120);
        assertEquals(later.melt(), MeltProof.NONE);
    }

    /** One bad sample is left out, and the probe that sent it is the one that is named. */
    @Test
    public void glitchBlamesItsOwnProbe() {
        var run = new Bench4Tests(World.plan(World.usualRecipe()), 11);
        run.run(60);
        run.fault((readings, after) -> after > 0.6
                ? readings
                : Bench4Tests.each((p, c) -> p.equals("board_under") ? c + 90 : c).on(readings, after));
        RunState later = run.run(5);
        assertTrue(named(run, Rule.PROBE_GLITCH, "board_under").isPresent());
        assertTrue(named(run, Rule.PROBE_GLITCH, "board_top").isEmpty());
        assertEquals(later.probes().get("board_under").health(), ProbeView.Health.GOOD);
        assertEquals(later.probes().get("board_top").health(), ProbeView.Health.GOOD);
    }

    /** Crossed plugs are named before the lift and taken for one another: the estimate comes out right. */
    @Test
    public void crossedProbesAreNamedBeforeTheLiftAndTurnedBack() {
        for (long seed : new long[]{3, 5, 11}) {
            var run = new Bench4Tests(World.plan(World.usualRecipe()), seed);
            run.bench.crossProbes("board_top", "board_under", true);
            toTheEnd(run, seed);
            double peak = run.session.state().marks().get(2).startS();
            assertTrue(named(run, Rule.PROBES_SWAPPED, "board_top").orElse(1e9) < peak, "seed " + seed);
            assertTrue(run.session.verdict().lines().stream()
                    .anyMatch(l -> l.what().key().equals("verdict.probe")));
        }
        var straight = new Bench4Tests(World.plan(World.usualRecipe()), 5);
        toTheEnd(straight, 5);
        assertTrue(named(straight, Rule.PROBES_SWAPPED, "").isEmpty());
    }

    /** Where two probes cannot both be right and nothing says which, both cases are held possible. */
    @Test
    public void oneOfTwoIsScaledAndBothCasesAreHeld() {
        var run = new Bench4Tests(World.plan(World.usualRecipe()), 11);
        run.fault(Bench4Tests.each((p, c) -> p.equals("board_top") ? ROOM_C + 0.7 * (c - ROOM_C) : c));
        RunState found = run.until(s -> s.findings().stream()
                .anyMatch(f -> f.rule() == Rule.PROBES_CONFLICT || f.rule() == Rule.PROBE_DISAGREES), 120);
        assertEquals(found.joint().celsius(), run.bench.jointMinC(), found.joint().plusMinusK() + 3);
        toTheEnd(run, 11);
    }

    /** What the estimate said with the help of a probe that turns out false counts no longer, and that is said. */
    @Test
    public void evidenceFallsWithItsProbe() {
        var ledger = new EvidenceLedger(World.plan(World.usualRecipe()).target().joint().alloy());
        var hot = new Estimate(200, 3);
        for (double t = 100; t <= 104; t += 0.5) {
            ledger.estimate(t, hot);
        }
        ledger.plateau(90, "board_under", hot);
        ledger.seen(Evidence.Kind.NUDGE, 106, hot, hot);
        assertEquals(ledger.proof().points(), 4);
        assertEquals(ledger.fell(java.util.Map.of("board_under", 95.0)).size(), 1, "only what came since");
        assertTrue(ledger.proof().plateau());
        assertFalse(ledger.proof().estimate());
        ledger.fell(java.util.Map.of("board_under", 0.0));
        assertEquals(ledger.proof().points(), 2, "the nudge stands by itself");
        assertEquals(ledger.proof().evidence().stream()
                .filter(e -> e.standing() == Evidence.Standing.FELL).count(), 2);
    }

    /** Nobody with a board that was warm is kept waiting: one word, and the probes are believed. */
    @Test
    public void warmBoardIsBelievedOnAWord() {
        RunPlan plan = World.plan(World.usualRecipe());
        RunEngine engine = RunEngine.live(plan, Optional.empty());
        engine.apply(new RunEvent.Started(0));
        List<Reading> warm = List.of(new Reading.Measured("board_top", 80.0),
                new Reading.Measured("board_under", 81.0));
        engine.apply(new RunEvent.Sampled(0.5, warm));
        double unsure = engine.state().joint().plusMinusK();
        assertTrue(engine.state().findings().stream().anyMatch(f -> f.rule() == Rule.BOARD_WARM_AT_START));
        assertTrue(unsure > 25, "±" + unsure);
        engine.apply(new RunEvent.Said(1, Say.BOARD_IS_WARM, ""));
        engine.apply(new RunEvent.Sampled(1.5, warm));
        assertTrue(engine.state().joint().plusMinusK() < 12, "±" + engine.state().joint().plusMinusK());
        assertEquals(engine.state().joint().celsius(), 80, 8);
        assertFalse(engine.state().findings().stream().anyMatch(f -> f.rule() == Rule.BOARD_WARM_AT_START));
    }

    /** After a gap of minutes on a board that may have cooled, nothing is called molten and the interval says so. */
    @Test
    public void longGapForgetsTheMelt() {
        var run = new Bench4Tests(World.plan(World.usualRecipe()), 11);
        run.until(s -> s.coaching().name().equals("peak.nudge"), 900);
        run.until(s -> run.bench.moves(), 60);
        assertEquals(run.say(Say.MOVES).status(), RunState.Status.MOLTEN);
        double before = run.session.state().joint().plusMinusK();
        RunState back = run.session.take(new RunEvent.Resumed(run.timeS() + 600, 600));
        assertEquals(back.status(), RunState.Status.HEATING);
        assertFalse(back.coaching().name().startsWith("molten"), back.coaching().name());
        assertTrue(back.joint().plusMinusK() > before + 20, "±" + back.joint().plusMinusK());
    }

    @DataProvider
    Object[][] adversities() {
        return java.util.Arrays.stream(Adversity.values()).map(a -> new Object[]{a})
                .toArray(Object[][]::new);
    }

    /** On benches that differ from what was written down the interval still holds, and no probe is blamed for it. */
    @Test(dataProvider = "adversities")
    public void intervalHoldsOnBenchesNobodyDescribed(Adversity adversity) {
        ObserverTrial.Summary summary = ObserverTrial.of(World.plan(World.usualRecipe()), adversity, 7001, 2,
                d -> {
                }, () -> false);
        assertTrue(summary.share() > 0.8, adversity + " held " + summary.share());
        assertTrue(summary.worstShare() > 0.65, adversity + " worst " + summary.worstShare());
        assertTrue(summary.rmsK() < 4, adversity + " rms " + summary.rmsK());
        assertEquals(summary.falseCues(), 0);
        assertEquals(summary.falseSafe(), 0);
    }
}
