package org.greenbead.core.calibrate;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import org.greenbead.core.bench.AirDial;
import org.greenbead.core.board.Side;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.SimulatedBench;
import org.greenbead.core.run.World;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.Multipliers;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;

/** Where dots go, how they are watched, and that what thermocouples and dots say goes into one fit. */
public class WitnessDesignTest {
    private static final RunPlan PLAN = World.plan(World.usualRecipe());
    private static final List<String> THREE = List.of("Sn42Bi58", "Sn63Pb37", "SAC305");
    private WitnessDesign twelve;

    @BeforeClass
    public void lay() throws Exception {
        twelve = of(PLAN, THREE, 12);
    }

    private static WitnessDesign of(RunPlan plan, List<String> alloys, int count) throws Exception {
        return WitnessDesign.of(plan, alloys, count, d -> {
        }, () -> false);
    }

    /** On bare board or the chip's own body, a hand's width and a hand's time apart, in the order in which they melt. */
    @Test
    public void dotsLieWhereAHandCanWatchThem() {
        assertEquals(twelve.dots().size(), 12);
        for (int i = 0; i < 12; i++) {
            Witness.Dot dot = twelve.dots().get(i);
            assertEquals(dot.name(), String.valueOf((char) ('A' + i)));
            assertEquals(dot.side(), Side.TOP);
            assertFalse(WitnessFit.inside(PLAN.board().requireChip("U2"), dot.atMm(), 0.5), dot.toString());
            assertTrue(dot.atMm().distanceMm(PLAN.target().centreMm()) <= 36, dot.toString());
            for (int j = 0; j < i; j++) {
                assertTrue(dot.atMm().distanceMm(twelve.dots().get(j).atMm()) >= 4);
                assertTrue(twelve.meltsAtS().get(i) - twelve.meltsAtS().get(j) >= 4);
            }
        }
    }

    /** More dots tell more, with less each time; more alloys to choose from never tell less. */
    @Test
    public void moreTellsMore() throws Exception {
        WitnessDesign six = of(PLAN, THREE, 6);
        assertTrue(twelve.afterK() < six.afterK() && six.afterK() < six.beforeK() / 2,
                six.beforeK() + " " + six.afterK() + " " + twelve.afterK());
        assertTrue(of(PLAN, List.of("Sn63Pb37"), 6).afterK() > six.afterK());
    }

    /** A recipe without the heater is calibrated without it, one without air by the heater alone. */
    @Test
    public void heatsAsTheJobDoes() {
        Recipe usual = World.usualRecipe();
        Recipe air = usual;
        Recipe heater = usual;
        for (int i = 0; i < usual.stages().size(); i++) {
            Stage s = usual.stages().get(i);
            air = air.with(i, s.withHeater(Optional.empty()).withAir(
                    s.purpose() == Stage.Purpose.COOL
                            ? Optional.empty()
                            : usual.stages().get(2).air()));
            heater = heater.with(i, s.withAir(Optional.empty()));
        }
        assertTrue(WitnessDesign.steps(PLAN.with(air), 0).stream()
                .allMatch(s -> s.heaterC().isEmpty() && s.air().isPresent()));
        assertTrue(WitnessDesign.steps(PLAN.with(heater), 0).stream()
                .allMatch(s -> s.heaterC().isPresent() && s.air().isEmpty()));
        List<Witness.Step> both = WitnessDesign.steps(PLAN, 0);
        assertEquals(both.getFirst().heaterC().orElseThrow(), 220.0);
        assertEquals(both.stream().filter(s -> s.air().isPresent()).count(), 4L);
        assertEquals(both.getLast().air().orElseThrow().nozzleMm(),
                usual.stages().get(2).air().orElseThrow().nozzleMm());
    }

    @Test
    public void coldOrCancelledIsSaid() {
        Recipe usual = World.usualRecipe();
        Recipe cold = usual;
        for (int i = 0; i < usual.stages().size(); i++) {
            cold = cold.with(i, usual.stages().get(i).withHeater(Optional.empty()).withAir(Optional.empty()));
        }
        RunPlan none = PLAN.with(cold);
        assertThrows(RuntimeException.class, () -> of(none, THREE, 6));
        assertThrows(CancellationException.class, () -> WitnessDesign.of(PLAN, THREE, 6, d -> {
        }, () -> true));
        assertThrows(IllegalArgumentException.class, () -> of(PLAN, THREE, 2));
    }

    /** Somebody who presses a second and a half after each dot turns, on a simulated bench. */
    private static Witness watched(RunPlan plan, WitnessDesign design, long seed, boolean readings) {
        var bench = new SimulatedBench(plan, seed);
        var dots = new SimulatedDots(plan, design.dots(), seed);
        var watch = new WitnessWatch("w" + seed, design, plan.bench(), false);
        var pending = new ArrayList<Object[]>();
        double t = 0;
        watch.press(t);
        while (!watch.over()) {
            t += 0.5;
            bench.set(watch.acts().map(s -> HeatInput.of(s.heaterC(), s.air())).orElse(HeatInput.OFF));
            bench.timeIs(t);
            for (String dot : dots.shining(bench)) {
                if (!watch.melted(dot) && pending.stream().noneMatch(p -> p[0].equals(dot))) {
                    pending.add(new Object[]{dot, t + 1.25});
                }
            }
            for (Object[] p : pending) {
                if (t >= (double) p[1] && !watch.melted((String) p[0])) {
                    watch.name((String) p[0], t);
                }
            }
            if (watch.asked(t).due()) {
                watch.press(t);
            }
            if (readings && t == Math.rint(t)) {
                try {
                    for (var r : bench.sweep()) {
                        if (r instanceof org.greenbead.core.run.Reading.Measured m) {
                            watch.read(m.probe(), t, m.celsius());
                        }
                    }
                } catch (org.greenbead.core.run.LinkLostException e) {
                    throw new AssertionError(e);
                }
            }
        }
        return watch.seen(t).orElseThrow();
    }

    /** Thermocouples and dots in one fit tell more than dots alone, and lead to what the bench is; a probe that comes off on the way does not lead astray. */
    @Test
    public void thermocouplesAndDotsEnterOneFit() throws Exception {
        Witness both = watched(PLAN, of(PLAN, THREE, 6), 11, true);
        var dotsOnly = new Witness("d", both.dots(), both.steps(), both.presses(), both.endS(), false);
        List<Witness.Read> off = both.readings().stream()
                .map(r -> r.probe().equals("board_top") && r.timeS() > 250
                        ? new Witness.Read(r.probe(), r.timeS(), 60)
                        : r)
                .toList();
        var torn = new Witness("t", both.dots(), both.steps(), both.presses(), both.endS(), false, off);
        assertTrue(both.presses().size() >= 5 && both.readings().size() > 700, both.presses().toString());
        var joined = WitnessFit.fit(PLAN, both, () -> false).calibration();
        var byDots = WitnessFit.fit(PLAN, dotsOnly, () -> false).calibration();
        var byTorn = WitnessFit.fit(PLAN, torn, () -> false).calibration();
        assertTrue(joined.preheater().sdLn() < byDots.preheater().sdLn());
        assertTrue(joined.jet().sdLn() < byDots.jet().sdLn());
        Multipliers truth = new SimulatedBench(PLAN, 11).multipliers();
        assertEquals(Math.log(joined.preheater().value() / truth.preheater()), 0, 0.12);
        assertEquals(Math.log(byTorn.preheater().value() / joined.preheater().value()), 0, 0.15);
    }

    @Test
    public void dotOnAnotherChipIsRefused() {
        var wrong = new Witness("x", List.of(
                new Witness.Dot("A", "Sn63Pb37", Side.TOP, PLAN.board().requireChip("U2").centreMm())),
                twelve.steps(), List.of(new Witness.Press("A", 100)), 300, false);
        var more = new Witness("x", wrong.dots(), wrong.steps(), wrong.presses(), 300, false,
                List.of(new Witness.Read("board_top", 1, 20), new Witness.Read("board_under", 1, 20)));
        assertEquals(expectThrows(RefusedException.class, () -> WitnessFit.fit(PLAN, more, () -> false)).why()
                .key(), "fit.dot_on_chip");
    }

    /** Steps count from when they were really set; a press without a name keeps its moment; the last one can be taken back. */
    @Test
    public void watchCountsFromWhatWasDone() {
        var watch = new WitnessWatch("w", twelve, PLAN.bench().with(AirDial.steps(8, 20, 120)), false);
        assertFalse(watch.name("A", 1), "nothing melts before the start");
        assertTrue(watch.seen(1).isEmpty());
        watch.press(0);
        watch.press(120);
        assertTrue(watch.asked(121).unnamed());
        watch.press(122);
        assertTrue(watch.name("C", 124));
        assertFalse(watch.name("C", 130), "a dot melts once");
        assertEquals(watch.seen(131).orElseThrow().presses(), List.of(new Witness.Press("C", 120)));
        assertTrue(watch.asked(151).due(), "the heater is to go up");
        watch.name("A", 152);
        assertEquals(watch.takeBack(), Optional.of("A"));
        watch.press(163);
        assertEquals(watch.seen(164).orElseThrow().steps().get(1).fromS(), 163.0);
        assertFalse(watch.asked(310).due(), "the next step is late by as much");
        assertTrue(watch.asked(313.5).due());
        assertEquals(watch.asked(314).now().key(), "witness.set.air");
        watch.end(320);
        assertTrue(watch.acts().isEmpty());
        assertFalse(watch.name("B", 321));
        assertEquals(watch.seen(400).orElseThrow().endS(), 320.0);
    }
}
