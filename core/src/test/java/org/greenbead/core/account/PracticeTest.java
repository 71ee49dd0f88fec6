package org.greenbead.core.account;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.World;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What counts as having done the like before, and what a dummy run needs to be believed. */
public class PracticeTest {
    private static final RunPlan PLAN = World.plan(World.usualRecipe());
    private static final double SIDE_MM = Math.max(PLAN.target().sizeMm().xMm(),
            PLAN.target().sizeMm().yMm());
    private static final double LIQUIDUS_C = PLAN.target().joint().alloy().liquidusC();

    private static Practice.Heat heat(RunPlan.Task task, double side, double softerK, boolean simulated,
            boolean drill) {
        return new Practice.Heat(task, side * SIDE_MM, LIQUIDUS_C - softerK, simulated, drill);
    }

    @DataProvider
    Object[][] heats() {
        return new Object[][]{
                {"a lift of the like", heat(RunPlan.Task.LIFT, 1, 0, false, false), 1, 0, 0},
                {"a seat", heat(RunPlan.Task.SEAT, 1, 0, false, false), 1, 0, 0},
                {"a larger chip in harder solder", heat(RunPlan.Task.LIFT, 2, -34, false, false), 1, 0, 0},
                {"a little smaller", heat(RunPlan.Task.LIFT, 0.71, 0, false, false), 1, 0, 0},
                {"much smaller", heat(RunPlan.Task.LIFT, 0.69, 0, false, false), 0, 0, 0},
                {"a little softer", heat(RunPlan.Task.LIFT, 1, 19, false, false), 1, 0, 0},
                {"much softer", heat(RunPlan.Task.LIFT, 1, 45, false, false), 0, 0, 0},
                {"balls on a loose chip", heat(RunPlan.Task.FORM, 1, 0, false, false), 0, 0, 0},
                {"learning the bench", heat(RunPlan.Task.CALIBRATE, 1, 0, false, false), 0, 0, 0},
                {"a practice board", heat(RunPlan.Task.LIFT, 1, 0, false, true), 0, 1, 0},
                {"the simulated bench", heat(RunPlan.Task.LIFT, 1, 0, true, false), 0, 0, 1},
                {"a simulated practice board", heat(RunPlan.Task.LIFT, 1, 0, true, true), 0, 0, 1}};
    }

    @Test(dataProvider = "heats")
    public void onlyTheLikeTrainsAHand(String what, Practice.Heat heat, int runs, int drills,
            int simulated) {
        Practice practice = Practice.of(Optional.of(PLAN), List.of(heat), false);
        assertEquals(practice.runs(), runs, what);
        assertEquals(practice.drills(), drills, what);
        assertEquals(practice.simulated(), simulated, what);
        assertEquals(practice.hands(), runs + drills, what);
    }

    /** In a made-up house the simulated bench is the bench; where no board is known every heat on a board counts. */
    @Test
    public void whatStandsForTheRest() {
        List<Practice.Heat> heats = List.of(heat(RunPlan.Task.LIFT, 1, 0, true, false),
                heat(RunPlan.Task.LIFT, 1, 0, true, true), heat(RunPlan.Task.SEAT, 0.1, 90, false, false));
        Practice madeUp = Practice.of(Optional.of(PLAN), heats, true);
        assertEquals(List.of(madeUp.runs(), madeUp.drills(), madeUp.simulated()), List.of(1, 1, 0));
        Practice unknown = Practice.of(Optional.empty(), heats, false);
        assertEquals(List.of(unknown.runs(), unknown.drills(), unknown.simulated()), List.of(1, 0, 2));
        assertTrue(Double.isNaN(unknown.fromMm()) && Double.isNaN(unknown.fromC()));
    }

    private static Job job(String... results) {
        Job job = World.job(Attest.UNKNOWN)
                .withBeads(
                        Routes.shipped().beads(JobKind.TRANSPLANT, Routes.recipes("WB-7", "U1")))
                .with(Facts.none().with("job.kind=transplant"));
        for (String result : results) {
            job = job.with(new Kept(job.freeId("practice"), "practice", Instant.EPOCH, "me",
                    Map.of("class", "15 mm", "result", result)));
        }
        return job;
    }

    private static Optional<Object> known(Job job, Optional<Practice> practice, String path) {
        return JobFacts.known(job, Optional.of(PLAN.with(job)), practice.map(p -> new Around(1, 0, p)))
                .facts().at(path);
    }

    @Test
    public void whatIsNotedIsAddedToWhatTheLedgerHolds() {
        var ledger = Optional.of(new Practice(2, 1, 4, 10.44, 162.6));
        assertEquals(known(job(), ledger, "tech.practice"), Optional.of(3.0));
        assertEquals(known(job("good", "bad", "good"), ledger, "tech.practice"), Optional.of(5.0));
        assertEquals(known(job("good"), Optional.empty(), "tech.practice"), Optional.of(1.0));
        assertEquals(known(job("bad"), Optional.empty(), "tech.practice"), Optional.empty(),
                "what went badly is no practice, and nobody has looked in a ledger");
        assertEquals(known(job(), ledger, "tech.practice_simulated"), Optional.of(4.0));
        assertEquals(known(job(), ledger, "tech.class_mm"), Optional.of(10.4));
        assertEquals(known(job(), ledger, "tech.class_c"), Optional.of(163.0));
        assertEquals(known(job(), Optional.of(Practice.ofAny(2)), "tech.class_mm"), Optional.empty());
    }

    private static Judgement look(Job job, int simulated) {
        return Judgement.of(job, Optional.of(PLAN.with(job)),
                Optional.of(new Around(1, 0, new Practice(0, 0, simulated, 10, 163))), Optional.empty(),
                RuleBook.shipped(), RuleBook.Settings.STANDARD);
    }

    private static List<String> missing(Job job, int simulated) {
        return Gates.missing(job, "decide_set", look(job, simulated).look().evidence().facts()).stream()
                .map(Gates.Demand::id).toList();
    }

    /** A transplant has one chance: a tick and a simulated bench open nothing, practice that went well does. */
    @Test
    public void aDummyRunIsShownNotTicked() {
        Job ticked = job().attest("dummy_run_done", Attest.YES);
        assertTrue(missing(ticked, 3).contains("practised"));
        assertTrue(missing(job("bad").attest("dummy_run_done", Attest.YES), 3).contains("practised"));
        assertTrue(!missing(job("good"), 0).contains("practised"));
        assertTrue(look(ticked, 3).judged().open().stream()
                .anyMatch(n -> n.rule().id().equals("practice.dummy-ticked-only")));
    }
}
