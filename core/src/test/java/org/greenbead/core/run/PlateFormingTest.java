package org.greenbead.core.run;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Chip;
import org.greenbead.core.book.Phase;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.finding.Rule;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.forming.Act;
import org.greenbead.core.forming.Method;
import org.greenbead.core.forming.Stand;
import org.greenbead.core.kind.BenchKind;
import org.greenbead.core.plan.Answer;
import org.greenbead.core.plan.Planner;
import org.greenbead.core.plan.School;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.Schools;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.HeatModel;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Balls made on a hot plate, and on the board half or frame that gets them. */
public class PlateFormingTest {
    private static final Instant NOW = Instant.parse("2026-03-01T09:00:00Z");
    private static final Words WORDS = new Words(Locale.ENGLISH, TempUnit.CELSIUS);
    private static final Chip CHIP = World.processor("SAC305", 1, 10);
    private static final Bench PLATE = BenchKind.require("hot_plate").bench("p", "By the plate");

    private static Job job(String backing, Attest prepared) {
        Job plain = World.job(prepared);
        var beads = new java.util.ArrayList<>(plain.beads());
        beads.add(new Bead("bead_form", Phase.BEAD, Bead.Kind.RUN, false, BeadState.OPEN, List.of(),
                Optional.of("r-form")));
        Job job = plain.withBeads(beads);
        Schools schools = Schools.shipped();
        return schools.choose(job, schools.find("backing").orElseThrow(), backing, "as tried here", NOW,
                "technician A");
    }

    private static RunPlan plan(String backing, Bench bench) {
        return plan(job(backing, Attest.YES), bench);
    }

    private static RunPlan plan(Job job, Bench bench) {
        return RunPlan.of(job, job.bead("bead_form").orElseThrow(),
                World.plan(World.usualRecipe(), CHIP).board(), bench, Optional.empty());
    }

    private static RunPlan of(String alloy, Method method, BallForming.Melt melt, BallForming.Base base,
            Bench bench) {
        RunPlan lift = World.plan(World.usualRecipe(), CHIP).with(bench);
        BallForming usual = BallForming.usual(CHIP, Alloys.require(alloy));
        RunPlan plan = lift.forming(new BallForming(usual.stencilMm(), usual.thicknessMm(), usual.balls(),
                base, method, melt));
        return plan.with(FormingRecipe.of(plan, "r", "Balls"));
    }

    /** With nothing to carry heat away the chip takes the plate's temperature; lifted off it loses that to the air, left there it cannot. */
    @Test
    public void theChipFollowsThePlateUntilItIsLiftedOff() {
        RunPlan plan = of("Sn63Pb37", Method.SPHERES, BallForming.Melt.FIRST, BallForming.Base.PLATE, PLATE);
        HeatModel model = RunEngine.nominalModel(plan);
        HeatInput on = HeatInput.of(Optional.of(150.0), Optional.empty());
        for (int i = 0; i < 120; i++) {
            model.advance(on, 10);
        }
        assertEquals(model.heaterC(), 150, 0.1);
        // The flux over the balls sheds some 15 W/m2K at 130 K; the plate's contact of 250 W/m2K and the body bring it: a few per cent.
        assertTrue(model.jointCentreC() < 150 && model.jointCentreC() > 132, "" + model.jointCentreC());
        HeatModel left = model.copy();
        for (int i = 0; i < 6; i++) {
            model.advance(HeatInput.OFF, 10);
            left.advance(HeatInput.of(Optional.of(30.0), Optional.empty()), 10);
        }
        assertTrue(model.jointCentreC() < left.jointCentreC() - 20,
                model.jointCentreC() + " lifted, " + left.jointCentreC() + " left on the plate");
    }

    @DataProvider
    Object[][] ways() {
        return new Object[][]{{"Sn63Pb37", Method.PASTE, BallForming.Melt.FIRST},
                {"SAC305", Method.PASTE, BallForming.Melt.FIRST},
                {"Sn42Bi58", Method.SPHERES, BallForming.Melt.FIRST},
                {"Sn63Pb37", Method.PASTE, BallForming.Melt.SHAPING}};
    }

    /** What is reckoned melts every ball on the plate and does not rise too fast; a few degrees less do not melt them in time. */
    @Test(dataProvider = "ways")
    public void theLowestPlateThatMeltsIsReckoned(String alloy, Method method, BallForming.Melt melt) {
        RunPlan plan = of(alloy, method, melt, BallForming.Base.PLATE, PLATE);
        Rehearsal made = Rehearsal.of(plan, () -> false);
        double wanted = Alloys.require(alloy).liquidusC() + plan.recipe().limits().overLiquidusK();
        assertTrue(made.done());
        assertEquals(made.peakJointMinC(), wanted, 4, "coldest ball");
        assertTrue(made.fastestKPerS() <= plan.recipe().limits().rampUpKPerS(), "" + made.fastestKPerS());
        assertTrue(plan.recipe().stages().stream().allMatch(s -> s.air().isEmpty()), "no air blows");
        Stage peak = plan.recipe().stages().get(1);
        double set = peak.heaterC().orElseThrow();
        Recipe milder = plan.recipe().with(1, peak.withHeater(Optional.of(set - 8)));
        Rehearsal cold = Rehearsal.of(plan.with(milder), () -> false);
        assertTrue(cold.marks().get(1).endS() - cold.marks().get(1).startS() > made.marks().get(1).endS()
                - made.marks().get(1).startS() + 10 || cold.peakJointMinC() < wanted - 2,
                "8 K less take longer or do not do");
    }

    @Test
    public void theWayOfTheJobSaysPlate() {
        RunPlan plan = plan("plate", PLATE);
        assertTrue(plan.onPlate() && plan.loose());
        assertEquals(School.of(plan, plan.recipe()), School.PLATE);
        assertTrue(School.PLATE.possible(plan) && !School.AIR_ALONE.possible(plan));
        assertTrue(rule(plan, Rule.NO_PLATE).isEmpty());
        RunPlan without = plan("plate", World.bench());
        assertEquals(rule(without, Rule.NO_PLATE).orElseThrow().severity(), Severity.STOP);
        Answer answer = new Planner(plan, plan.knowledge(), new Planner.Effort(40, 4, true))
                .answer(School.PLATE, d -> {
                }, () -> false);
        assertTrue(answer.recipe().stages().stream().anyMatch(s -> s.heaterC().isPresent()));
        assertTrue(answer.recipe().stages().stream().allMatch(s -> s.air().isEmpty()));
    }

    private static Optional<Finding> rule(RunPlan plan, Rule rule) {
        return PlanRules.look(plan, Optional.empty()).stream().filter(f -> f.rule() == rule).findFirst();
    }

    /** Led by the pedal from the held sheet to free balls: laid on the plate, lifted off it, and never told of a nozzle. */
    @Test
    public void thePedalLeadsOverThePlate() throws LinkLostException {
        RunPlan plan = of("Sn63Pb37", Method.PASTE, BallForming.Melt.FIRST, BallForming.Base.PLATE, PLATE);
        RunEngine engine = RunEngine.live(plan, Optional.empty());
        var bench = new SimulatedBench(plan, 5);
        var said = new java.util.LinkedHashSet<String>();
        double time = 0;
        RunState state = engine.state();
        while (state.status() != RunState.Status.ENDED && time < 1500) {
            time += 0.5;
            bench.set(engine.input());
            bench.timeIs(time);
            engine.apply(new RunEvent.Sampled(time, bench.sweep()));
            state = engine.state();
            said.add(WORDS.say(state.coaching().now()) + " " + WORDS.say(state.coaching().next()));
            Optional<Act> act = state.coaching().act();
            if (act.isPresent()) {
                boolean waits = act.get() == Act.FIRST_BALL && state.jointHot().celsius() < 184
                        || act.get() == Act.HEAT_OFF && (!bench.moves()
                                || state.forming().orElseThrow().countS().orElse(0) > 0);
                if (!waits) {
                    engine.apply(new RunEvent.Acted(time, act.get()));
                }
            } else if (state.coaching().pedal().filter(s -> s == Say.FINISH).isPresent()) {
                engine.apply(new RunEvent.Said(time, Say.FINISH, ""));
            }
        }
        assertEquals(state.status(), RunState.Status.ENDED, said.toString());
        assertEquals(state.forming().orElseThrow().forming().stand(), Stand.RELEASED, said.toString());
        String all = String.join("\n", said);
        assertTrue(all.contains("Lay it flat on the plate") && all.contains("Off the plate, level"), all);
        assertTrue(all.contains("Plate to "), all);
        assertFalse(all.toLowerCase(Locale.ROOT).contains("nozzle") || all.contains("Heat away"), all);
    }

    /**
     * A nozzle of 6 mm led over a chip of 15 mm, going on when what lies under it is liquid: the last ball comes a long while after the first, and the
     * more so the faster heat runs off. A nozzle that covers the chip, a plate and the way from the centre want no such count.
     */
    @Test
    public void aNarrowNozzleIsCountedOverTheWholeWay() {
        Bench narrow = World.bench().with(World.bench().air().nozzles(List.of(6.0)));
        RunPlan led = of("Sn63Pb37", Method.PASTE, BallForming.Melt.FIRST, BallForming.Base.PAPER, narrow);
        Rehearsal circled = Rehearsal.of(led, () -> false);
        double behind = EdgeSweep.behindS(led).orElseThrow();
        assertTrue(behind > 8 && behind < 300, behind + " s");
        assertTrue(circled.done());
        Stage peak = led.recipe().stages().get(2);
        RunPlan hotter = led.with(led.recipe().with(2, peak.withAir(peak.air().map(a -> new AirSetting(
                a.setC() + 60, a.flowLpm(), a.nozzleMm(), a.distanceMm(), a.circleMm())))));
        assertTrue(EdgeSweep.behindS(hotter).orElseThrow() < behind, "hotter air is led faster");
        assertTrue(EdgeSweep.behindS(of("Sn63Pb37", Method.PASTE, BallForming.Melt.FIRST,
                BallForming.Base.PLATE, PLATE)).isEmpty());
        Bench wide = World.bench().with(World.bench().air().nozzles(List.of(20.0)));
        assertTrue(EdgeSweep.behindS(of("Sn63Pb37", Method.PASTE, BallForming.Melt.FIRST,
                BallForming.Base.PAPER, wide)).isEmpty());
        Schools schools = Schools.shipped();
        Job centre = schools.choose(led.job(), schools.find("form_heat").orElseThrow(), "centre", "as tried",
                NOW, "technician A");
        assertTrue(EdgeSweep.behindS(led.with(centre)).isEmpty());
    }

    /** On a board half the board stays: heater and air, its neighbours guarded, its power asked for. */
    @Test
    public void ballsOnABoardHalfHeatTheBoard() {
        RunPlan plan = plan("board", World.bench());
        assertFalse(plan.loose());
        assertEquals(plan.board().sizeMm(), World.plan(World.usualRecipe(), CHIP).board().sizeMm());
        assertEquals(plan.target().layers().size(), 2, "balls and the sheet over them");
        assertEquals(plan.bench().probes(), World.bench().probes());
        assertTrue(plan.recipe().stages().stream().anyMatch(s -> s.heaterC().isPresent()));
        assertEquals(plan.recipe().stages().get(plan.recipe().stages().size() - 2).name(), "Balls");
        Rehearsal made = Rehearsal.of(plan, () -> false);
        double wanted = Alloys.require("SAC305").liquidusC() + plan.recipe().limits().overLiquidusK();
        assertTrue(made.done());
        assertEquals(made.peakJointMinC(), wanted, 5, "coldest ball");
        assertTrue(rule(plan, Rule.CELL_CONNECTED).isEmpty());
        assertTrue(rule(plan(job("board", Attest.NO), World.bench()), Rule.CELL_CONNECTED).isPresent());
        assertTrue(School.HEATER_AND_AIR.possible(plan) && School.AIR_ALONE.possible(plan));
        assertTrue(plan.with(plan.recipe()).scene().heater().isPresent());
        assertFalse(Protected.of(plan).isEmpty(), "what stands beside it is looked after");
    }
}
