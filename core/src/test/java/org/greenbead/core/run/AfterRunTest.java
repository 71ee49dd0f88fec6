package org.greenbead.core.run;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertSame;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.alloy.MeltingTable;
import org.greenbead.core.book.Phase;
import org.greenbead.core.overview.Overview;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StartingRecipe;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What a run writes into its job, what a plan comes to, and the recipe that a new job begins with. */
public class AfterRunTest {
    private static final Instant NOW = Instant.parse("2026-03-01T09:00:00Z");

    private static RunPlan plan(String alloy) {
        return World.plan(StartingRecipe.of("r", "r", World.processor(alloy, 1, 10), World.bench(), true),
                World.processor(alloy, 1, 10));
    }

    private static Verdict verdict(boolean melted, List<String> neighbours) {
        return new Verdict(Verdict.Outcome.WORKED, List.of(), 205, 42, 228, 360, MeltProof.NONE, melted,
                neighbours);
    }

    @Test
    public void meltIsWrittenDown() {
        RunPlan plan = plan("Sn63Pb37");
        Job after = AfterRun.written(plan.job(), plan, List.of(), verdict(true, List.of("U2")), NOW,
                "technician A");
        Kept chip = after.records("exposure").getFirst();
        assertEquals(chip.text("part"), "U1");
        assertEquals(chip.number("peak_c"), 228.0);
        assertEquals(chip.number("minutes"), 6.0);
        assertEquals(after.records("exposure").get(1).text("part"), "U2");
        assertTrue(after.records("exposure").get(1).noted("peak_c").isEmpty(), "no reading, no number");
        Kept joint = after.records("joint").getFirst();
        assertEquals(joint.text("alloy"), "Sn63Pb37");
        assertEquals(joint.text("date"), "2026-03-01");
        Job again = AfterRun.written(after, plan, List.of(), verdict(true, List.of()), NOW, "technician A");
        assertEquals(again.records("joint").size(), 1, "one line a site");
        assertEquals(again.records("exposure").size(), 3, "one an event");
    }

    @Test
    public void coldRunLeavesNothing() {
        RunPlan plan = plan("Sn63Pb37");
        Job after = AfterRun.written(plan.job(), plan, List.of(), verdict(false, List.of()), NOW, "");
        assertEquals(after.records().stream().map(Kept::type).toList(), List.of("run"),
                "no exposure, no joint");
    }

    @DataProvider
    Object[][] alloys() {
        return new Object[][]{{"SAC305"}, {"Sn63Pb37"}, {"Sn42Bi58"}};
    }

    /** The first guess keeps to the station, heats in order, cools without air, and melts the joint in the model. */
    @Test(dataProvider = "alloys")
    public void startingRecipeMeltsWithinTheStation(String alloy) {
        RunPlan plan = plan(alloy);
        Recipe recipe = plan.recipe();
        double before = 0;
        for (Stage stage : recipe.stages()) {
            double air = stage.air().map(AirSetting::setC).orElse(0.0);
            assertTrue(air <= plan.bench().air().maxC()
                    && stage.heaterC().orElse(0.0) <= plan.bench().heater().orElseThrow().maxC());
            if (stage.purpose() != Stage.Purpose.COOL) {
                assertTrue(stage.heaterC().orElseThrow() >= before, stage.name());
                before = stage.heaterC().orElseThrow();
            }
        }
        Rehearsal rehearsal = Rehearsal.of(plan, () -> false);
        assertTrue(rehearsal.peakJointMinC() > plan.target().joint().alloy().liquidusC(), alloy + " melts: "
                + rehearsal.peakJointMinC());
    }

    @Test
    public void overviewFindsTheLowestSolidusAndTheTrap() {
        RunPlan plan = plan("Sn63Pb37");
        Overview plain = Overview.of(plan.job(), plan);
        assertEquals(plain.ceiling().lowestC(), MeltingTable.standard().require("Sn63Pb37").solidusC(), 1);
        Job told = plan.job()
                .with(new Kept("joint-1", "joint", NOW, "", Map.of("site", "U7", "bi_pct", 5.0)));
        assertEquals(Overview.of(told, plan).ceiling().lowestC(), 138.0);
        assertEquals(Overview.of(told, plan).ceiling().site(), "U7");
        Job thinned = plan.job().with(
                new Kept("plan-1", "plan", NOW, "", Map.of("diluent", "Sn42Bi58", "ball_alloy", "Sn63Pb37")));
        assertTrue(Overview.of(thinned, plan).mix().mix().bismuthLead());
        Job wicked = thinned
                .with(new Kept("joint-1", "joint", NOW, "", Map.of("site", "U1", "wick_passes", 2.0)));
        assertEquals(Overview.of(wicked, plan).mix().wickPasses(), 2);
        assertTrue(!Overview.of(wicked, plan).mix().mix().bismuthLead(),
                "two passes leave less than its trace");
        assertEquals(JobFacts.of(wicked).at("joints.0.wick_passes").orElseThrow(), 2.0);
    }

    @Test
    public void laterHeatIsHeldAgainstTheLowestSolidus() {
        RunPlan plan = plan("Sn63Pb37");
        Job told = plan.job().with(
                new Kept("joint-1", "joint", NOW, "", Map.of("site", "U7", "bi_pct", 5.0, "pb_pct", 20.0)));
        told = told.with(told.facts()
                .with("plan.stages.0.id=cure; plan.stages.0.kind=cure; plan.stages.0.target_c=90"));
        var heats = Overview.of(told, plan).ceiling().heats();
        assertEquals(heats.size(), 1);
        assertEquals(heats.getFirst().marginK(), 6.0, "96 less 90");
        assertEquals(heats.getFirst().verdict(), org.greenbead.core.moisture.Moisture.Verdict.CARE);
    }

    @Test
    public void onlyWhatIsDueIsJudged() {
        RunPlan plan = plan("SAC305");
        var all = PlanRules.look(plan, Optional.empty());
        assertTrue(PlanRules.timely(all, Phase.INTAKE).isEmpty());
        assertEquals(PlanRules.timely(all, Phase.LIFT), all);
        assertTrue(PlanRules.timely(all, Phase.PLAN).size() <= all.size());
    }
}
