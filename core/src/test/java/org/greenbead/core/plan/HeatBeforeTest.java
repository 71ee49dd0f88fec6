package org.greenbead.core.plan;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.Verdict;
import org.greenbead.core.run.World;
import org.greenbead.core.thermal.Uncertainty;
import org.testng.annotations.Test;

public class HeatBeforeTest {
    private static final RunPlan NOW = World.plan(World.usualRecipe());
    private static final RunPlan HOTTER = NOW.with(
            World.recipe(World.soak(240, 108, 10), World.peak(350), World.cool()));

    private static HeatBefore heat(String run, int day, RunPlan plan, Verdict.Outcome outcome, Boolean well) {
        return HeatBefore.once(run, false, "J-" + run, Instant.parse("2031-03-0" + day + "T10:00:00Z"), plan,
                outcome,
                210, 40, Optional.empty(), Optional.ofNullable(well));
    }

    @Test
    public void theSameSettingsAreToldOnceByTheirNewestRun() {
        List<HeatBefore> ranked = HeatBefore.ranked(List.of(heat("a", 1, NOW, Verdict.Outcome.PROVEN, true),
                heat("b", 3, NOW, Verdict.Outcome.WORKED, false),
                heat("c", 2, NOW, Verdict.Outcome.PROVEN, null)));
        assertEquals(ranked.size(), 1);
        HeatBefore one = ranked.getFirst();
        assertEquals(one.run(), "b");
        assertEquals(one.times(), 3);
        assertEquals(one.timesWell(), 1);
        assertEquals(one.timesBadly(), 1, "of the third nothing is told");
    }

    @Test
    public void whatWentWellComesBeforeWhatIsNewAndPracticeLast() {
        HeatBefore drill = HeatBefore.once("p", true, "J-p", Instant.parse("2031-03-09T10:00:00Z"), NOW,
                Verdict.Outcome.PROVEN, 210, 40, Optional.empty(), Optional.of(true));
        List<HeatBefore> ranked = HeatBefore.ranked(List.of(drill,
                heat("new", 5, HOTTER, Verdict.Outcome.PROVEN, false),
                heat("old", 1, NOW, Verdict.Outcome.WORKED, true)));
        assertEquals(ranked.stream().map(HeatBefore::run).toList(), List.of("old", "new", "p"));
    }

    @Test
    public void onlyTheSameChipAndPurposeCompare() {
        assertTrue(HeatBefore.comparable(HOTTER, NOW));
        assertFalse(HeatBefore.comparable(NOW.to(RunPlan.Task.SEAT), NOW));
        RunPlan softer = NOW.with(NOW.board().with(NOW.target().soldered(Alloys.require("SAC305"))));
        assertTrue(HeatBefore.comparable(softer, NOW), "tried on the joints of today, and said");
        HeatBefore then = HeatBefore.once("r", false, "SB-1", java.time.Instant.EPOCH, softer,
                Verdict.Outcome.PROVEN, 230, 40, java.util.Optional.empty(), java.util.Optional.empty());
        assertEquals(then.otherAlloy(NOW), java.util.Optional.of("SAC305"));
        assertEquals(then.otherAlloy(softer), java.util.Optional.empty());
        assertFalse(HeatBefore.comparable(NOW.with(NOW.board().copy("WB-8", "Another")), NOW));
    }

    /** A bench without that thermocouple waits as long as the stage takes, and what it does by then is the same. */
    @Test
    public void aStageThatWaitedForAProbeEndsByTheClock() {
        Bench b = NOW.bench();
        var bare = new RunPlan(NOW.task(), NOW.job(), NOW.bead(), NOW.board(),
                new Bench(b.id(), b.title(), b.ambientC(), b.heater(), b.air(), List.of()), World.recipe(
                        new Stage("Soak", Stage.Purpose.SOAK, Optional.of(200.0), Optional.empty(),
                                Optional.empty(),
                                new StageEnd.AfterTime(60), 90),
                        World.peak(300), World.cool()));
        HeatBefore heat = heat("a", 1, NOW, Verdict.Outcome.PROVEN, true);
        assertEquals(heat.on(NOW).stages(), NOW.recipe().stages(), "a bench that has it waits for it");
        Recipe clocked = heat.on(bare);
        Outcome then = Drive.of(NOW, NOW.recipe(), RunEngine.nominalModel(NOW), () -> false);
        double soak = ((StageEnd.AfterTime) clocked.stages().get(0).end()).seconds();
        assertEquals(soak, then.stages().get(0).atS(), 0.6);
        Outcome now = Drive.of(bare, clocked, RunEngine.nominalModel(bare), () -> false);
        assertEquals(now.peakMinC(), then.peakMinC(), 2);
        assertEquals(now.stages().get(1).atS(), then.stages().get(1).atS(), 2);
    }

    /** A recipe that is brought along is judged as one that was sought. */
    @Test
    public void judgedByTheFullModelOnTheBenchesThisOneMayBe() {
        var planner = new Planner(NOW, Uncertainty.UNCALIBRATED, new Planner.Effort(10, 8, false));
        Answer mild = planner.judged(NOW.recipe(), d -> {
        }, () -> false);
        Answer hot = planner.judged(HOTTER.recipe(), d -> {
        }, () -> false);
        assertEquals(mild.school(), School.HEATER_AND_AIR);
        assertEquals(mild.tried(), 1);
        assertTrue(mild.drift().small(), mild.drift().toString());
        assertTrue(hot.outcome().fastestKPerS() > mild.outcome().fastestKPerS());
        assertEquals(mild.robustness().members(), 8);
        assertTrue(mild.robustness().melts() > 0);
    }
}
