package org.greenbead.core.bench;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.greenbead.core.plan.Drive;
import org.greenbead.core.plan.Planner;
import org.greenbead.core.plan.School;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunEvent;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.World;
import org.greenbead.core.thermal.Multipliers;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;
import org.greenbead.core.thermal.Uncertainty;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class AirDialTest {
    private static final Words WORDS = new Words(Locale.ENGLISH, TempUnit.CELSIUS);

    private static RunPlan plan(AirDial dial, Recipe recipe) {
        RunPlan usual = World.plan(recipe);
        return new RunPlan(usual.task(), usual.job(), usual.bead(), usual.board(), usual.bench().with(dial),
                usual.recipe(), usual.forming());
    }

    /** 1 to 8 over 20 to 120 L/min: a step is 100/7. */
    @Test
    public void stepsLieEvenlyBetweenTheEnds() {
        AirDial dial = AirDial.steps(8, 20, 120);
        assertEquals(dial.lpm(1), 20.0);
        assertEquals(dial.lpm(4), 20 + 300 / 7.0, 1e-9);
        assertEquals(dial.lpm(8), 120.0);
        assertEquals(dial.dial(63), 1 + 43 * 7 / 100.0, 1e-9);
        assertEquals(dial.settable(63), dial.lpm(4), 1e-9);
        assertEquals(WORDS.show(dial.says(dial.lpm(4))), "step 4");
        assertEquals(WORDS.show(AirDial.percent(20, 120).says(60)), "50 %");
        assertEquals(WORDS.show(AirDial.PLAIN.says(28)), "28 L/min");
    }

    /** Every position of a measured table comes back from its flow, and between marks the line is straight. */
    @Test
    public void tableGoesBothWays() {
        var dial = new AirDial(AirDial.Scale.STEPS, AirDial.read("1=14; 3=31, 5=60 8=118"), 0);
        for (double at = 1; at <= 8; at += 0.25) {
            assertEquals(dial.dial(dial.lpm(at)), at, 1e-9);
        }
        assertEquals(dial.lpm(4), 45.5, 1e-9);
        assertEquals(dial.written(), "1=14 3=31 5=60 8=118");
        assertThrows(IllegalArgumentException.class, () -> dial.lpm(9));
        assertEquals(dial.dial(500), 8.0, "a flow beyond the dial is its end");
    }

    @DataProvider
    public Object[][] nonsense() {
        return new Object[][]{{"1=20", "two or more"}, {"", "two or more"}, {"1=20 2", "is no mark"},
                {"1=20 2=x", "is no mark"}, {"1=20 8=10", "does not rise"}, {"8=20 1=30", "does not rise"},
                {"1=0 8=20", "flow of a mark"}, {"1=20=3 8=x", "is no mark"}};
    }

    @Test(dataProvider = "nonsense")
    public void nonsenseIsRefusedInWords(String written, String says) {
        try {
            new AirDial(AirDial.Scale.STEPS, AirDial.read(written), 0);
            throw new AssertionError(written + " was taken");
        } catch (IllegalArgumentException e) {
            assertTrue(e.getMessage().contains(says), e.getMessage());
        }
    }

    @Test
    public void aDialBeyondTheStationIsRefused() {
        AirStation air = World.bench().air();
        assertThrows(IllegalArgumentException.class, () -> air.with(AirDial.steps(8, 20, 150)));
    }

    /** A station that blows 20 K hotter than it says heats as one that is set 20 K higher. */
    @Test
    public void offsetIsHeat() {
        RunPlan hotter = plan(AirDial.PLAIN.offset(20), World.usualRecipe());
        Recipe recipe = World.usualRecipe();
        for (int i = 0; i < recipe.stages().size(); i++) {
            Stage stage = recipe.stages().get(i);
            recipe = recipe.with(i, stage.withAir(stage.air().map(a -> new AirSetting(a.setC() + 20,
                    a.flowLpm(), a.nozzleMm(), a.distanceMm(), a.circleMm()))));
        }
        double said = meltedAfterS(hotter);
        assertEquals(said, meltedAfterS(plan(AirDial.PLAIN, recipe)), 1e-6);
        assertTrue(said < meltedAfterS(World.plan(World.usualRecipe())) - 3, "and sooner than what is said");
    }

    private static double meltedAfterS(RunPlan plan) {
        return Drive.of(plan, plan.recipe(),
                new SheetModel(plan.scene(), Multipliers.NOMINAL, Resolution.SEARCH), () -> false).stages()
                .get(2).atS();
    }

    /** Marks out of a manual make the jet less sure; a calibration through that nozzle takes most of it back. */
    @Test
    public void nominalMarksWidenUntilCalibrated() {
        Bench plain = World.bench();
        Bench steps = plain.with(AirDial.steps(8, 20, 120));
        double without = Uncertainty.of(plain, "WB-7", 10, 28).jetLn();
        double with = Uncertainty.of(steps, "WB-7", 10, 28).jetLn();
        assertEquals(with, Math.hypot(without, 0.18), 1e-9);
        var told = new Calibration.Factor(0.8, 0.05, true);
        Bench known = steps.with(List.of(new Calibration("r1", "WB-7", 10, 28, told, told, told, told, 2,
                true)));
        Uncertainty after = Uncertainty.of(known, "WB-7", 10, 28);
        assertTrue(after.jetLn() < 0.08, "" + after.jetLn());
        assertEquals(after.mean().jet(), 0.8, 0.02);
    }

    /** The coach names what the hand turns to, and the planner asks for nothing that it cannot be turned to. */
    @Test
    public void coachAndPlannerSpeakTheDial() {
        AirDial dial = AirDial.steps(8, 20, 120);
        RunPlan plan = plan(dial,
                World.recipe(World.usualRecipe().stages().get(1), World.peak(322), World.cool()));
        RunEngine engine = RunEngine.live(plan, Optional.empty());
        engine.apply(new RunEvent.Started(0));
        String said = WORDS.say(engine.state().coaching().now());
        assertTrue(said.contains("step 1.3") && !said.contains("L/min"), said);
        RunPlan whole = plan(dial, World.usualRecipe());
        var answer = new Planner(whole, Uncertainty.UNCALIBRATED, new Planner.Effort(30, 4, true))
                .answer(School.HEATER_AND_AIR, d -> {
                }, () -> false);
        List<Double> turned = answer.recipe().stages().stream().flatMap(s -> s.air().stream())
                .map(a -> dial.dial(a.flowLpm())).toList();
        assertFalse(turned.isEmpty());
        turned.forEach(t -> assertEquals(t, Math.rint(t), 1e-6, "step " + t));
        assertEquals(whole.gentleAir(200).flowLpm(), 20, 1e-9);
    }
}
