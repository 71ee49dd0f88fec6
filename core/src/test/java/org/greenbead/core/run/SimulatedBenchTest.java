package org.greenbead.core.run;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.thermal.HeatInput;
import org.testng.annotations.Test;

public class SimulatedBenchTest {
    private static final RunPlan PLAN = World.plan(World.usualRecipe());

    private static List<Reading> record(SimulatedBench bench, int seconds) throws LinkLostException {
        var all = new ArrayList<Reading>();
        bench.set(HeatInput.of(Optional.of(240.0), Optional.empty()));
        for (int t = 1; t <= seconds; t++) {
            bench.timeIs(t);
            all.addAll(bench.sweep());
        }
        return all;
    }

    @Test
    public void sameSeedSameReadings() throws LinkLostException {
        assertEquals(record(new SimulatedBench(PLAN, 5), 60), record(new SimulatedBench(PLAN, 5), 60));
        assertNotEquals(record(new SimulatedBench(PLAN, 5), 60), record(new SimulatedBench(PLAN, 6), 60));
    }

    @Test
    public void benchesDifferFromThePlannersByTheirSeed() {
        double least = 9;
        double most = 0;
        for (long seed = 1; seed <= 60; seed++) {
            double jet = new SimulatedBench(PLAN, seed).multipliers().jet();
            least = Math.min(least, jet);
            most = Math.max(most, jet);
        }
        assertTrue(least < 0.85 && most > 1.15 && least > 0.5 && most < 2, least + " to " + most);
    }

    /** Breaking one probe leaves the noise of the others as it was. */
    @Test
    public void faultsTouchOnlyTheirProbe() throws LinkLostException {
        var whole = new SimulatedBench(PLAN, 5);
        var broken = new SimulatedBench(PLAN, 5);
        broken.breakProbe("board_top", true);
        List<Reading> a = record(whole, 20);
        List<Reading> b = record(broken, 20);
        for (int i = 0; i < a.size(); i += 2) {
            assertEquals(b.get(i), new Reading.Open("board_top"));
            assertEquals(b.get(i + 1), a.get(i + 1));
        }
    }

    @Test
    public void frozenProbeRepeatsItsLastValue() throws LinkLostException {
        var bench = new SimulatedBench(PLAN, 5);
        record(bench, 10);
        bench.freezeProbe("board_top", true);
        Reading stuck = bench.sweep().getFirst();
        bench.timeIs(60);
        assertEquals(bench.sweep().getFirst(), stuck);
        bench.freezeProbe("board_top", false);
        assertNotEquals(bench.sweep().getFirst(), stuck);
    }

    @Test
    public void droppedLinkThrowsUntilItIsBack() throws LinkLostException {
        var bench = new SimulatedBench(PLAN, 5);
        bench.dropLink(true);
        assertThrows(LinkLostException.class, bench::sweep);
        bench.dropLink(false);
        assertEquals(bench.sweep().size(), 2);
    }

    @Test
    public void eyeSeesTheMeltComing() {
        var bench = new SimulatedBench(PLAN, 5);
        var seen = new ArrayList<String>();
        bench.set(HeatInput.of(Optional.of(240.0),
                Optional.of(PLAN.recipe().stages().get(2).air().orElseThrow())));
        for (int t = 1; t <= 400 && !bench.moves(); t++) {
            bench.timeIs(t);
            if (seen.isEmpty() || !seen.getLast().equals(bench.sight())) {
                seen.add(bench.sight());
            }
        }
        assertEquals(seen.getFirst(), "sight.dull");
        assertEquals(seen.getLast(), "sight.swims");
        assertTrue(seen.contains("sight.shimmer"), seen.toString());
    }

    /** The trial drives whole runs, tells its progress and stops when told. */
    @Test
    public void observerTrialDrivesWholeRuns() {
        RunPlan plan = World.plan(World.usualRecipe());
        var told = new java.util.concurrent.atomic.AtomicInteger();
        ObserverTrial.Summary summary = ObserverTrial.of(plan, Adversity.USUAL, 31, 3,
                d -> told.incrementAndGet(),
                () -> false);
        assertEquals(summary.runs().size(), 3);
        assertEquals(told.get(), 3);
        assertTrue(summary.rmsK() < 3 && summary.share() > 0.6, summary.rmsK() + " " + summary.share());
        assertTrue(summary.runs().stream().allMatch(r -> r.moments() > 150));
        assertEquals(ObserverTrial.of(plan, Adversity.USUAL, 31, 3, d -> {
        }, () -> true).runs().size(), 0);
    }
}
