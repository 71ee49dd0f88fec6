package org.greenbead.core.run;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Side;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.finding.Remedy;
import org.greenbead.core.finding.Rule;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.route.Attest;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Each rule sees its condition, is silent without it, and its remedy cures it. */
public class PlanRulesTest {
    private static Optional<Finding> find(List<Finding> findings, Rule rule) {
        return findings.stream().filter(f -> f.rule() == rule).findFirst();
    }

    private static List<Finding> look(RunPlan plan) {
        return PlanRules.look(plan, Optional.empty());
    }

    private static List<Finding> rehearsed(RunPlan plan) {
        return PlanRules.look(plan, Optional.of(Rehearsal.of(plan, () -> false)));
    }

    @Test
    public void soundPlanHasNothingAgainstIt() {
        assertEquals(rehearsed(World.plan(World.usualRecipe())), List.of());
    }

    @DataProvider
    Object[][] attested() {
        return new Object[][]{{"cell_off", Rule.CELL_CONNECTED, Severity.STOP},
                {"supply_off", Rule.SUPPLY_CONNECTED, Severity.STOP},
                {"board_flat", Rule.BOARD_NOT_FLAT, Severity.CARE},
                {"extraction_on", Rule.NO_EXTRACTION, Severity.CARE},
                {"orientation_recorded", Rule.ORIENTATION_MISSING, Severity.CARE},
                {"gloves_on", Rule.LEAD_NO_GLOVES, Severity.CARE}};
    }

    @Test(dataProvider = "attested")
    public void missingWordIsFoundAndItsRemedyCuresIt(String check, Rule rule, Severity severity) {
        RunPlan plan = World.plan(World.usualRecipe());
        RunPlan without = plan.with(plan.job().attest(check, Attest.NO));
        Finding found = find(look(without), rule).orElseThrow();
        assertEquals(found.severity(), severity);
        assertEquals(found.remedy(), Optional.of(new Remedy.Attest(check)));
        assertTrue(find(look(without.with(without.job().attest(check, Attest.YES))), rule).isEmpty());
        assertTrue(find(look(plan.with(plan.job().attest(check, Attest.UNKNOWN))), rule).isPresent(),
                "unknown is not yes");
    }

    @Test
    public void leadFreeNeedsNoGloves() {
        RunPlan plan = World.plan(World.usualRecipe(), World.processor("SAC305", 1, 10));
        assertTrue(find(look(plan.with(plan.job().attest("gloves_on", Attest.NO))), Rule.LEAD_NO_GLOVES)
                .isEmpty());
    }

    @Test
    public void dampChipWantsDrying() {
        RunPlan damp = World.plan(World.usualRecipe(), World.processor("Sn63Pb37", 1, 200));
        Finding found = find(look(damp), Rule.NO_DRY_OUT).orElseThrow();
        assertEquals(found.severity(), Severity.CARE);
        Stage dry = new Stage("Dry-out", Stage.Purpose.DRY_OUT, Optional.of(150.0), Optional.empty(),
                Optional.empty(), new StageEnd.AfterTime(3600), 4000);
        Recipe dried = World.recipe(dry, World.soak(240, 108, 10), World.peak(322), World.cool());
        assertTrue(find(look(damp.with(dried)), Rule.NO_DRY_OUT).isEmpty());
        Remedy.Attest remedy = (Remedy.Attest) found.remedy().orElseThrow();
        assertTrue(find(look(damp.with(damp.job().record(remedy.check(), Attest.YES))), Rule.NO_DRY_OUT)
                .isEmpty(), "its remedy cures it");
        assertTrue(damp.bench().air().nozzlesMm().contains(damp.gentleAir(250).nozzleMm()),
                "a nozzle that is in the drawer");
        assertTrue(find(look(World.plan(World.usualRecipe())), Rule.NO_DRY_OUT).isEmpty());
    }

    @Test
    public void usedUpMeltsAreNamed() {
        Finding found = find(look(World.plan(World.usualRecipe(), World.processor("Sn63Pb37", 3, 10))),
                Rule.MELTS_USED_UP).orElseThrow();
        assertEquals(new Words(java.util.Locale.ENGLISH, TempUnit.CELSIUS).say(found.what()),
                "U1 has had 3 melts");
    }

    @DataProvider
    Object[][] badEnds() {
        return new Object[][]{{new StageEnd.AfterTime(60)}, {new StageEnd.ProbeReaches("board_top", 190, 0)},
                {new StageEnd.TechnicianSays()}};
    }

    @Test(dataProvider = "badEnds")
    public void onlyShownMeltEndsAPeak(StageEnd end) {
        Recipe recipe = World.recipe(World.soak(240, 108, 10), World.peak(322).withEnd(end), World.cool());
        Finding found = find(look(World.plan(recipe)), Rule.TIME_ENDS_PEAK).orElseThrow();
        assertEquals(found.severity(), Severity.STOP);
        assertEquals(found.remedy(), Optional.of(new Remedy.SetEnd(1, new StageEnd.MeltShown())));
    }

    @Test
    public void airNumberIsNotTheJointNumber() {
        Stage peak = new Stage("Lift", Stage.Purpose.PEAK, Optional.of(240.0),
                Optional.of(new AirSetting(320, 28, 10, 20, 6)), Optional.of(321.0), new StageEnd.MeltShown(),
                110);
        assertTrue(find(look(World.plan(World.recipe(World.soak(240, 108, 10), peak, World.cool()))),
                Rule.AIR_TAKEN_FOR_JOINT).isPresent());
        assertTrue(find(look(World.plan(World.usualRecipe())), Rule.AIR_TAKEN_FOR_JOINT).isEmpty());
    }

    @Test
    public void coldRecipeDoesNotMelt() {
        RunPlan cold = World.plan(World.recipe(World.soak(240, 108, 10),
                World.peak(250).withHeater(Optional.of(200.0)), World.cool()));
        Finding found = find(rehearsed(cold), Rule.PEAK_TOO_LOW).orElseThrow();
        assertEquals(found.severity(), Severity.STOP);
    }

    @Test
    public void hotRecipeBreaksTheBodyLimitAndTheRamp() {
        Chip tender = new Chip("U1", "QX-510", Side.TOP, World.processor("Sn63Pb37", 1, 0).centreMm(),
                World.processor("Sn63Pb37", 1, 0).sizeMm(),
                World.processor("Sn63Pb37", 1, 0).layers(), 205, 1, 3, 168, 0);
        List<Finding> found = rehearsed(
                World.plan(World.recipe(World.soak(240, 108, 10), World.peak(470), World.cool()), tender));
        assertEquals(find(found, Rule.BODY_LIMIT).orElseThrow().severity(), Severity.STOP);
        assertTrue(find(found, Rule.RAMP_UP).isPresent());
        assertEquals(found.getFirst().severity(), Severity.STOP, "worst first");
    }

    @Test
    public void neighboursAndUndersideNearMeltingAreFound() {
        var board = World.board(World.processor("Sn63Pb37", 1, 0),
                World.neighbour("U2", Side.TOP, 47.5, 58, "Sn42Bi58"),
                World.neighbour("U9", Side.BOTTOM, 36, 58, "Sn63Pb37"));
        RunPlan usual = World.plan(World.usualRecipe());
        var plan = new RunPlan(RunPlan.Task.LIFT, usual.job(), "lift_run", board, usual.bench(),
                usual.recipe());
        List<Finding> found = rehearsed(plan);
        assertEquals(find(found, Rule.NEIGHBOUR_NEAR_MELT).orElseThrow().severity(), Severity.STOP);
        assertTrue(find(found, Rule.UNDERSIDE_NEAR_MELT).isPresent(), "right under the chip, same alloy");
    }

    @DataProvider
    Object[][] slips() {
        return new Object[][]{
                // value °C, sensible low and high, what was meant
                {620.0, 250.0, 480.0, 327.0}, {500.0, 60.0, 400.0, 260.0}};
    }

    @Test(dataProvider = "slips")
    public void unitSlipIsReadInTheOtherUnit(double value, double low, double high, double meant) {
        assertEquals(PlanRules.readAsF(value, low, high), OptionalDouble.of(meant));
    }

    @Test
    public void sensibleValueIsNoSlip() {
        assertTrue(PlanRules.readAsF(320, 250, 480).isEmpty());
        assertTrue(PlanRules.readAsF(2000, 250, 480).isEmpty(), "senseless in both");
    }

    @Test
    public void slipInAHeaterIsCuredByItsRemedy() {
        Recipe recipe = World.recipe(World.soak(240, 108, 10).withHeater(Optional.of(464.0)), World.peak(322),
                World.cool());
        Finding found = find(look(World.plan(recipe)), Rule.UNIT_SLIP).orElseThrow();
        Remedy.SetHeater set = (Remedy.SetHeater) found.remedy().orElseThrow();
        assertEquals(set.celsius(), 240.0);
        Recipe cured = recipe.with(set.stage(),
                recipe.stages().get(set.stage()).withHeater(Optional.of(set.celsius())));
        assertTrue(find(look(World.plan(cured)), Rule.UNIT_SLIP).isEmpty());
    }

    /** 320 °F entered as °C melts nothing: it is said, and the recipe is opened. No press raises the heat. */
    @Test
    public void mildAirAtThePeakIsASlipOnlyWhenNothingMelts() {
        Recipe recipe = World.recipe(World.soak(240, 108, 10), World.peak(160), World.cool());
        assertTrue(find(look(World.plan(recipe)), Rule.UNIT_SLIP).isEmpty(), "nothing is known of it yet");
        Finding found = find(rehearsed(World.plan(recipe)), Rule.UNIT_SLIP).orElseThrow();
        assertTrue(found.remedy().orElseThrow() instanceof Remedy.OpenRecipe);
    }

    /** Warm-up air of 50, 80 and 215 °C is how boards are warmed. */
    @Test
    public void warmUpAirIsNoSlip() {
        for (double air : new double[]{50, 80, 215}) {
            Stage warm = World.usualRecipe().stages().get(1);
            Recipe recipe = World.recipe(World.soak(240, 108, 10), warm.withAir(Optional.of(
                    new org.greenbead.core.recipe.AirSetting(air, 24, 10, 25, 6))), World.peak(322),
                    World.cool());
            assertTrue(find(rehearsed(World.plan(recipe)), Rule.UNIT_SLIP).isEmpty(), air + " °C");
        }
    }

    /** Whatever a remedy sets by one press, it is no hotter than what stood there. */
    @Test
    public void noRemedyRaisesTheHeat() {
        for (double set = 50; set <= 590; set += 20) {
            Recipe recipe = World.recipe(World.soak(Math.min(set, 590), 108, 10), World.peak(set),
                    World.cool());
            for (Finding f : look(World.plan(recipe))) {
                if (f.remedy().orElse(null) instanceof Remedy.SetAir a) {
                    assertTrue(a.air().setC() <= set, set + " °C");
                } else if (f.remedy().orElse(null) instanceof Remedy.SetHeater h) {
                    assertTrue(h.celsius() <= set, set + " °C");
                }
            }
        }
    }

    @Test
    public void benchWithoutAProbeIsLedByEyeAndSaysSo() {
        RunPlan usual = World.plan(World.usualRecipe());
        var blind = new org.greenbead.core.bench.Bench("quay-1", "Quay", 23, usual.bench().heater(),
                usual.bench().air(), List.of());
        var plan = new RunPlan(RunPlan.Task.LIFT, usual.job(), "lift_run", usual.board(), blind,
                usual.recipe());
        assertEquals(find(look(plan), Rule.NO_PROBE).orElseThrow().severity(), Severity.CARE);
    }

    @Test
    public void findingOfThePastCannotBePressed() {
        Finding found = Finding.of(Rule.CELL_CONNECTED, "cell_off", Severity.STOP)
                .with(new Remedy.Attest("cell_off"));
        assertTrue(found.past().remedy().isEmpty());
        assertEquals(found.past().id(), found.id());
        assertFalse(found.remedy().isEmpty());
    }
}
