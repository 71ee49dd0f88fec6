package org.greenbead.core.bench;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.greenbead.core.calibrate.History;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.finding.Rule;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.run.PlanRules;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunEvent;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.World;
import org.greenbead.core.thermal.Uncertainty;
import org.testng.annotations.Test;

/** A bench with several air stations: one in hand, each with its own dial, drawer and history; a recipe keeps to the one it was made for. */
public class StationsTest {
    private static final Calibration.Factor NOMINAL = new Calibration.Factor(1, 0.4, false);
    private static final AirStation PEN = new AirStation("pen", List.of(4.0, 6.0), 450, 30, 0.02, 3, 1,
            AirDial.steps(8, 5, 30));
    private static final Bench TWO = World.bench().adding(PEN);

    private static Calibration told(String run, double jet) {
        var factor = new Calibration.Factor(jet, 0.04, true);
        return new Calibration(run, "WB-7", 10, 28, factor, factor, NOMINAL, NOMINAL, 2, true);
    }

    private static RunPlan plan(Bench bench, Recipe recipe) {
        RunPlan usual = World.plan(recipe);
        return new RunPlan(usual.task(), usual.job(), usual.bead(), usual.board(), bench, recipe);
    }

    private static Optional<Finding> found(RunPlan plan, Rule rule) {
        return PlanRules.look(plan, Optional.empty()).stream().filter(f -> f.rule() == rule).findFirst();
    }

    @Test
    public void oneIsInHandAndNoneIsLost() {
        assertEquals(TWO.air().name(), "air");
        Bench pen = TWO.taking("pen");
        assertEquals(pen.air(), PEN);
        assertEquals(pen.stations().stream().map(AirStation::name).toList(), List.of("pen", "air"));
        assertEquals(pen.taking("air"), TWO);
        assertEquals(pen.without("air").stations(), List.of(PEN));
        assertEquals(TWO.nextStation(), "pen");
        assertEquals(pen.nextStation(), "air");
        assertEquals(World.bench().nextStation(), "air", "alone it is its own next");
        assertEquals(pen.stationsByName(), TWO.stationsByName());
        AirStation more = PEN.measured(0.7).another("lance");
        assertTrue(
                more.dial().measures() && more.multiplier() == 1 && more.nozzlesMm().equals(PEN.nozzlesMm()));
        for (Runnable bad : List.<Runnable>of(() -> TWO.taking("lance"), () -> TWO.without("air"),
                () -> TWO.without("lance"), () -> TWO.adding(PEN), () -> TWO.callingAir("pen"))) {
            IllegalArgumentException e = expectThrows(IllegalArgumentException.class, bad::run);
            assertTrue(e.getMessage().contains("lance") || e.getMessage().contains("pen")
                    || e.getMessage().contains("in hand"), e.getMessage());
        }
    }

    /** What runs have told of the air is of the station that blew; what they told of the heater holds for all. */
    @Test
    public void whatRunsToldOfTheAirStaysWithItsStation() {
        Bench known = World.bench().with(List.of(told("r1", 0.6))).adding(PEN);
        assertEquals(known.calibrations().getFirst().station(), "air", "told before there was a second one");
        Uncertainty blown = Uncertainty.of(known, "WB-7", 10, 28);
        Uncertainty pen = Uncertainty.of(known.taking("pen"), "WB-7", 10, 28);
        assertEquals(blown.mean().jet(), 0.6, 0.02);
        assertTrue(pen.jetLn() > 2.5 * blown.jetLn(), pen.jetLn() + " against " + blown.jetLn());
        assertTrue(pen.mean().jet() > blown.mean().jet() + 0.04,
                "drawn back to nominal: " + pen.mean().jet());
        assertEquals(pen.mean().preheater(), blown.mean().preheater(), 0.03);
        assertEquals(known.callingAir("tower").calibrations().getFirst().station(), "tower");
    }

    /** A run with the pen that tells another factor contradicts nothing that the other station told. */
    @Test
    public void anotherStationsRunIsNoOutlier() {
        Bench known = World.bench().with(List.of(told("r1", 0.6), told("r2", 0.6))).adding(PEN);
        var pen = new Calibration("r3", "WB-7", 6, 20, new Calibration.Factor(1.1, 0.04, true), NOMINAL,
                NOMINAL, NOMINAL, 2, true);
        assertTrue(History.outlier(known, pen.by("air")), "said by the same station it is one");
        assertFalse(History.outlier(known, pen.by("pen")));
    }

    /** A recipe for the pen is run with the pen, whichever is in hand; its dial is spoken and the station is named first. */
    @Test
    public void aRecipeKeepsToItsStation() {
        RunPlan pen = plan(TWO, World.usualRecipe()).by("pen");
        assertEquals(pen.bench().air(), PEN);
        assertEquals(pen.recipe().station(), Optional.of("pen"));
        List<AirSetting> air = pen.recipe().stages().stream().map(Stage::air).flatMap(Optional::stream)
                .toList();
        assertEquals(air.size(), 2);
        air.forEach(a -> {
            assertEquals(a.nozzleMm(), 6.0, "the nearest in its drawer to 10 mm");
            assertEquals(PEN.dial().dial(a.flowLpm()), Math.rint(PEN.dial().dial(a.flowLpm())), 1e-9);
            assertTrue(a.flowLpm() <= 30, "" + a.flowLpm());
        });
        assertEquals(plan(TWO, pen.recipe()).bench().air().name(), "pen", "though another is in hand");
        RunEngine engine = RunEngine.live(plan(TWO, pen.recipe()), Optional.empty());
        String said = new Words(Locale.ENGLISH, TempUnit.CELSIUS).say(engine.state().coaching().now());
        assertTrue(said.startsWith("Air station pen."), said);
        engine = RunEngine.live(plan(World.bench(), World.usualRecipe()), Optional.empty());
        engine.apply(new RunEvent.Started(0));
        assertFalse(
                new Words(Locale.ENGLISH, TempUnit.CELSIUS).say(engine.state().coaching().now())
                        .contains("station"),
                "one alone needs no name");
    }

    /** On a bench without its station a recipe is stopped; so is one that asks more of a station than it gives. */
    @Test
    public void whatTheStationCannotDoIsStopped() {
        Recipe pens = plan(TWO, World.usualRecipe()).by("pen").recipe();
        assertEquals(found(plan(World.bench(), pens), Rule.STATION_NOT_HERE).orElseThrow().severity(),
                Severity.STOP);
        assertTrue(found(plan(TWO, pens), Rule.STATION_NOT_HERE).isEmpty());
        Recipe usual = World.usualRecipe();
        assertTrue(found(plan(TWO, usual), Rule.AIR_BEYOND_STATION).isEmpty());
        assertTrue(found(plan(TWO, usual), Rule.NOZZLE_NOT_HERE).isEmpty());
        Bench weak = TWO.with(TWO.air().blowing(25).nozzles(List.of(6.0)));
        assertEquals(found(plan(weak, usual), Rule.AIR_BEYOND_STATION).orElseThrow().severity(),
                Severity.STOP);
        assertEquals(found(plan(weak, usual), Rule.NOZZLE_NOT_HERE).orElseThrow().severity(), Severity.CARE);
        Bench cool = TWO.with(TWO.air().upTo(310));
        assertTrue(found(plan(cool, usual), Rule.AIR_BEYOND_STATION).isPresent(), "322 °C of 310");
        Bench nearly = TWO.with(TWO.air().nozzles(List.of(10.5)));
        assertTrue(found(plan(nearly, usual), Rule.NOZZLE_NOT_HERE).isEmpty(), "one nozzle measured twice");
    }

    @Test
    public void equipmentIsTextOfALine() {
        Equipment e = TWO.equipment().heldBy(" four posts ").readWith("bench two, red on ground");
        assertEquals(e.support(), "four posts");
        assertEquals(e.meter(), "bench two, red on ground");
        assertEquals(e.stations(), List.of(PEN));
        assertEquals(e.heldBy("").support(), "");
        assertTrue(
                expectThrows(IllegalArgumentException.class, () -> e.supplied("x".repeat(121))).getMessage()
                        .contains("121"));
    }
}
