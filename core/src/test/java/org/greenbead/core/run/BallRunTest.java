package org.greenbead.core.run;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.Optional;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.board.Point;
import org.greenbead.core.finding.Rule;
import org.greenbead.core.forming.Act;
import org.greenbead.core.forming.Method;
import org.greenbead.core.forming.Stand;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class BallRunTest {
    private static RunPlan plan(String alloy, Method method, BallForming.Melt melt) {
        RunPlan lift = World.plan(World.usualRecipe());
        BallForming usual = BallForming.usual(lift.target(), Alloys.require(alloy));
        RunPlan plan = lift.forming(new BallForming(usual.stencilMm(), usual.thicknessMm(), usual.balls(),
                usual.base(), method, melt));
        return plan.with(FormingRecipe.of(plan, "r", "Balls"));
    }

    @DataProvider
    Object[][] ways() {
        return new Object[][]{{"Sn63Pb37", Method.PASTE, BallForming.Melt.FIRST},
                {"SAC305", Method.PASTE, BallForming.Melt.FIRST},
                {"Sn42Bi58", Method.PASTE, BallForming.Melt.FIRST},
                {"Sn63Pb37", Method.PASTE, BallForming.Melt.SHAPING},
                {"Sn63Pb37", Method.SPHERES, BallForming.Melt.FIRST}};
    }

    @Test(dataProvider = "ways")
    public void theFirstRecipeMeltsEveryBallInTime(String alloy, Method method, BallForming.Melt melt) {
        RunPlan plan = plan(alloy, method, melt);
        Rehearsal rehearsal = Rehearsal.of(plan, () -> false);
        double wanted = plan.target().joint().alloy().liquidusC() + plan.recipe().limits().overLiquidusK();
        assertTrue(rehearsal.done());
        assertEquals(rehearsal.peakJointMinC(), wanted, 4, "coldest ball");
        assertEquals(rehearsal.verdict().outcome(), Verdict.Outcome.PROVEN);
        assertTrue(rehearsal.marks().get(2).endS() - rehearsal.marks().get(2).startS() < 130,
                "the peak takes about as long as it was reckoned for");
        assertTrue(rehearsal.fastestKPerS() <= plan.recipe().limits().rampUpKPerS(),
                "the paste must not spit");
    }

    /** One pass of the whole work by the pedal alone, on the simulated bench. */
    private static RunState work(RunEngine engine, SimulatedBench bench, double untilS,
            java.util.function.BiFunction<RunState, Double, Optional<RunEvent>> hands) {
        double time = engine.state().timeS();
        RunState state = engine.state();
        while (state.status() != RunState.Status.ENDED && time < untilS) {
            time += 0.5;
            bench.set(engine.input());
            bench.timeIs(time);
            try {
                engine.apply(new RunEvent.Sampled(time, bench.sweep()));
            } catch (LinkLostException e) {
                throw new AssertionError(e);
            }
            hands.apply(engine.state(), time).ifPresent(engine::apply);
            state = engine.state();
        }
        return state;
    }

    /** Presses what the coach has on the pedal; watches the balls with the eye that the simulated bench has. */
    private static Optional<RunEvent> pedal(RunState state, double time, SimulatedBench bench) {
        Coaching coaching = state.coaching();
        if (coaching.act().isPresent()) {
            Act act = coaching.act().get();
            boolean waits = act == Act.FIRST_BALL && state.jointHot().celsius() < 184
                    || act == Act.HEAT_OFF
                            && (!bench.moves() || state.forming().orElseThrow().countS().orElse(0) > 0);
            return waits ? Optional.empty() : Optional.of(new RunEvent.Acted(time, act));
        }
        return coaching.pedal().filter(s -> s == Say.FINISH).map(s -> new RunEvent.Said(time, s, ""));
    }

    @Test
    public void thePedalAloneLeadsFromPasteToFreeBalls() {
        RunPlan plan = plan("Sn63Pb37", Method.PASTE, BallForming.Melt.FIRST);
        RunEngine engine = RunEngine.live(plan, Optional.empty());
        var bench = new SimulatedBench(plan, 11);
        var stands = new java.util.LinkedHashSet<Stand>();
        var acts = new java.util.ArrayList<Act>();
        RunState end = work(engine, bench, 600, (state, time) -> {
            stands.add(state.forming().orElseThrow().forming().stand());
            Optional<RunEvent> word = pedal(state, time, bench);
            word.filter(RunEvent.Acted.class::isInstance)
                    .ifPresent(e -> acts.add(((RunEvent.Acted) e).act()));
            return word;
        });
        assertEquals(end.status(), RunState.Status.ENDED);
        assertEquals(acts, java.util.List.of(Act.ALIGN, Act.FILL, Act.FILL, Act.WIPE, Act.HOLD, Act.HEAT,
                Act.FIRST_BALL, Act.HEAT_OFF, Act.SLIDE));
        assertEquals(java.util.List.copyOf(stands),
                java.util.List.of(Stand.CLEAN, Stand.ALIGNED, Stand.FILLED,
                        Stand.HELD, Stand.FORMING, Stand.SOLID, Stand.RELEASED));
        assertTrue(end.raised().stream().noneMatch(f -> f.rule() == Rule.ACT_WRONG), end.raised().toString());
        assertEquals(engine.verdict().outcome(), Verdict.Outcome.PROVEN);
        assertTrue(engine.verdict().lines().stream().anyMatch(l -> l.what().key().equals("verdict.released")
                && l.mark() == Verdict.Mark.HELD), engine.verdict().lines().toString());
    }

    /** Without any bead on the stencil the eye alone leads as far, and the verdict says that no probe was there. */
    @Test
    public void theEyeAloneLeadsToFreeBallsToo() {
        RunPlan plan = plan("Sn63Pb37", Method.PASTE, BallForming.Melt.FIRST).byEye();
        RunEngine engine = RunEngine.live(plan, Optional.empty());
        var bench = new SimulatedBench(plan, 11);
        RunState end = work(engine, bench, 900, (state, time) -> {
            boolean first = state.coaching().act().filter(Act.FIRST_BALL::equals).isPresent();
            return first && bench.jointMaxC() < 184 ? Optional.empty() : pedal(state, time, bench);
        });
        assertEquals(end.status(), RunState.Status.ENDED);
        assertEquals(end.forming().orElseThrow().forming().stand(), Stand.RELEASED);
        assertTrue(engine.verdict().noProbe().isPresent());
        assertFalse(engine.verdict().outcome() == Verdict.Outcome.BROKEN_OFF, engine.verdict().toString());
    }

    @Test
    public void heatWaitsForTheHoldAndFluxSpoilsThePrint() {
        RunPlan plan = plan("Sn63Pb37", Method.PASTE, BallForming.Melt.FIRST);
        RunEngine engine = RunEngine.live(plan, Optional.empty());
        engine.apply(new RunEvent.Acted(1, Act.ALIGN));
        engine.apply(new RunEvent.Acted(2, Act.FILL));
        engine.apply(new RunEvent.Acted(3, Act.HEAT));
        assertEquals(engine.state().status(), RunState.Status.READY, "a free sheet is not heated");
        assertEquals(engine.state().findings().getFirst().rule(), Rule.ACT_WRONG);
        engine.apply(new RunEvent.Acted(4, Act.FLUX));
        assertEquals(engine.state().forming().orElseThrow().forming().stand(), Stand.CLEAN);
        assertEquals(engine.state().forming().orElseThrow().next(), Act.WASH);
        assertEquals(engine.state().forming().orElseThrow().forming().restarts(), 1);
        engine.apply(new RunEvent.Acted(5, Act.WASH));
        assertEquals(engine.state().forming().orElseThrow().next(), Act.ALIGN);
        assertTrue(engine.state().findings().isEmpty(), "put right, it is not shown any more");
        assertTrue(engine.verdict().lines().stream().anyMatch(l -> l.what().key().equals("verdict.act")),
                "but it stays in the verdict");
    }

    @Test
    public void aStencilThatCooledTooFarIsWarmedAndMeltsNothing() {
        RunPlan plan = plan("Sn42Bi58", Method.PASTE, BallForming.Melt.FIRST);
        RunEngine engine = RunEngine.live(plan, Optional.empty());
        var bench = new SimulatedBench(plan, 3);
        engine.apply(new RunEvent.Started(0));
        var technician = new SimulatedTechnician(RunPlan.Task.FORM, false);
        RunState solid = work(engine, bench, 420, (state, time) -> state.status() == RunState.Status.SAFE
                ? Optional.empty()
                : technician.act(state, plan, bench.moves()));
        assertEquals(solid.status(), RunState.Status.SAFE);
        assertTrue(solid.joint().celsius() < 80, "it lay too long: " + solid.joint());
        assertEquals(solid.coaching().act(), Optional.of(Act.WARM));
        double[] most = {0};
        boolean[] slid = {false};
        RunState end = work(engine, bench, 900, (state, time) -> {
            most[0] = Math.max(most[0],
                    state.forming().orElseThrow().warming() ? state.jointHot().celsius() : 0);
            Optional<RunEvent> word = pedal(state, time, bench);
            slid[0] |= word.filter(e -> e.equals(new RunEvent.Acted(time, Act.SLIDE))).isPresent();
            return word;
        });
        assertEquals(end.status(), RunState.Status.ENDED);
        assertTrue(slid[0]);
        assertTrue(most[0] >= 80 && most[0] < 138 - 20 + 1, "warmed to " + most[0]);
        assertFalse(end.joint().celsius() > 118);
    }

    @Test
    public void theCountEndsWhenTheLastBallHasHadItsTime() {
        RunPlan plan = plan("Sn63Pb37", Method.PASTE, BallForming.Melt.FIRST);
        RunEngine engine = RunEngine.live(plan, Optional.empty());
        var bench = new SimulatedBench(plan, 11);
        double[] firstS = {Double.NaN};
        double[] lastS = {Double.NaN};
        double[] saidS = {Double.NaN};
        engine.apply(new RunEvent.Started(0));
        work(engine, bench, 400, (state, time) -> {
            FormingView view = state.forming().orElseThrow();
            if (Double.isNaN(firstS[0]) && state.jointHot().celsius() >= 183.5) {
                firstS[0] = time;
                return Optional.of(new RunEvent.Acted(time, Act.FIRST_BALL));
            }
            if (!Double.isNaN(firstS[0]) && Double.isNaN(saidS[0])) {
                saidS[0] = time + view.countS().orElseThrow();
            }
            if (Double.isNaN(lastS[0]) && state.joint().celsius() >= 183.5) {
                lastS[0] = time;
            }
            return Optional.empty();
        });
        assertEquals(saidS[0], lastS[0] + 5, 5, "first " + firstS[0] + ", last " + lastS[0]);
    }
}
