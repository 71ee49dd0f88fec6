package org.greenbead.core.account;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;
import org.greenbead.core.book.Facts;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.HouseRoute;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Strands;
import org.greenbead.core.run.AfterRun;
import org.greenbead.core.run.MeltProof;
import org.greenbead.core.run.RunEvent;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.Verdict;
import org.greenbead.core.run.World;
import org.testng.annotations.Test;

/** Two memories of one part on one board: what the first was run with is held against what the second is planned with. */
public class SecondChipTest {
    private static final Instant NOW = Instant.parse("2026-03-01T09:00:00Z");
    private static final Board BOARD = World.board(World.processor("SAC305", 1, 10),
            World.neighbour("U4", Side.TOP, 20, 60, "SAC305"),
            World.neighbour("U6", Side.TOP, 50, 60, "SAC305"));
    private static final Job MAIN = new Job("J-1", "Plotter", "wants room", "Ferry Hollin", "WB-7", "U4",
            "quay-1", World.job(Attest.YES).beads());

    private static RunPlan plan(Job job, double airC) {
        Recipe usual = World.usualRecipe();
        Stage peak = usual.stages().get(2);
        Recipe recipe = usual.with(2, peak.withAir(peak.air().map(a -> new AirSetting(airC, a.flowLpm(),
                a.nozzleMm(), a.distanceMm(), a.circleMm()))));
        return new RunPlan(RunPlan.Task.LIFT, job, "lift_run", BOARD, World.bench(), recipe);
    }

    private static Job ran(Job job, RunPlan plan, Verdict.Outcome outcome, List<RunEvent> events) {
        return AfterRun.written(job, plan, events, new Verdict(outcome, List.of(), 238, 44, 190, 300,
                MeltProof.NONE, true, List.of()), NOW, "technician A");
    }

    private static Facts facts(Job second, RunPlan plan, Job first) {
        return JobFacts.known(second, Optional.of(plan), Optional.of(new Around(1, 0, Practice.ofAny(9),
                Optional.empty(), Map.of(), List.of(first)))).facts();
    }

    private static Job second(String chip) {
        return Strands.begin(MAIN, List.of(), BOARD, chip, JobKind.MEMORY,
                new HouseRoute(JobKind.MEMORY, List.of()), Optional.empty());
    }

    @Test
    public void otherAirIsSaidWithBothNumbers() {
        Job first = ran(MAIN, plan(MAIN, 322), Verdict.Outcome.PROVEN, List.of());
        Job second = second("U6");
        Facts same = facts(second, plan(second, 324), first);
        assertEquals(same.at("plan.other_differs"), Optional.of(false), "2 K are the same to a hand");
        Facts other = facts(second, plan(second, 300), first);
        assertEquals(other.at("plan.other_differs"), Optional.of(true));
        assertEquals(other.at("plan.other_chip"), Optional.of("U4"));
        assertEquals(other.at("plan.other_what"), Optional.of("air 300 against 322 °C"));
    }

    /** What was changed under way counts, not what had been planned. */
    @Test
    public void whatWasRunCounts() {
        RunPlan planned = plan(MAIN, 322);
        Stage peak = planned.recipe().stages().get(2);
        var turned = new RunEvent.Changed(90, 2, peak.withAir(peak.air().map(a -> new AirSetting(345,
                a.flowLpm(), 14, a.distanceMm(), a.circleMm()))));
        Job first = ran(MAIN, planned, Verdict.Outcome.PROVEN, List.of(turned));
        Job second = second("U6");
        assertEquals(facts(second, plan(second, 322), first).at("plan.other_what"),
                Optional.of("air 322 against 345 °C; nozzle 10 against 14 mm"));
    }

    @Test
    public void nothingIsSaidOfWhatIsNoLike() {
        Job first = ran(MAIN, plan(MAIN, 322), Verdict.Outcome.PROVEN, List.of());
        Job processor = second("U1");
        assertFalse(facts(processor, plan(processor, 300), first).at("plan.other_differs").isPresent(),
                "another part");
        Job second = second("U6");
        Job off = ran(MAIN, plan(MAIN, 322), Verdict.Outcome.BROKEN_OFF, List.of());
        assertFalse(facts(second, plan(second, 300), off).at("plan.other_differs").isPresent(),
                "broken off is no example");
        Job done = ran(second, plan(second, 300), Verdict.Outcome.PROVEN, List.of());
        assertFalse(facts(done, plan(done, 300), first).at("plan.other_differs").isPresent(),
                "worked already: nothing to choose");
        Job donor = new Job("J-1-D", "Plotter", "wants room", "Ferry Hollin", "WB-8", "U4", "quay-1",
                first.beads(), first.facts(), first.records());
        assertFalse(facts(second, plan(second, 300), donor).at("plan.other_differs").isPresent(),
                "on another board");
        assertTrue(BOARD.chip("U4").orElseThrow().sizeMm().equals(new Point(5, 5)));
    }
}
