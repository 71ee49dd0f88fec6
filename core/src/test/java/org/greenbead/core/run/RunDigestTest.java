package org.greenbead.core.run;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.testng.annotations.Test;

/** What is read from the events of a run, on events whose answer is known. */
public class RunDigestTest {
    private static final Verdict PROVEN = verdict(Verdict.Outcome.PROVEN);

    private static Verdict verdict(Verdict.Outcome outcome) {
        return new Verdict(outcome, List.of(), 205, 42, 228, 360, MeltProof.NONE, true, List.of());
    }

    private static RunPlan plan() {
        return World.plan(World.usualRecipe());
    }

    private static RunEvent.Checkpoint at(double timeS, int stage, double jointC) {
        return new RunEvent.Checkpoint(timeS, RunState.Status.HEATING, stage, jointC, jointC - 5, jointC + 5,
                jointC + 3, java.util.Optional.empty());
    }

    private static List<RunEvent> rising(int stage, double fromC, double perS, int seconds) {
        var events = new ArrayList<RunEvent>();
        for (int t = 0; t <= seconds; t += 5) {
            events.add(at(t, stage, fromC + perS * t));
        }
        return events;
    }

    @Test
    public void ratesAreThoseOfTheEstimate() {
        Map<String, Object> digest = RunDigest.of(plan(), rising(0, 25, 1.2, 100), PROVEN);
        assertEquals((double) digest.get("ramp_cps"), 1.2, 0.06);
        assertEquals(digest.get("drop_c"), 0.0);
        assertFalse(digest.containsKey("cool_cps"), "it never cooled");
        assertFalse(digest.containsKey("moved_c"), "nobody moved it");
    }

    @Test
    public void aCoverThatWasLiftedShows() {
        List<RunEvent> events = rising(0, 25, 1, 60);
        events.add(at(65, 0, 71));
        events.add(at(70, 0, 66));
        assertEquals((double) RunDigest.of(plan(), events, PROVEN).get("drop_c"), 19, 0.1);
    }

    @Test
    public void movedIsAsHotAsTheHottestJointThen() {
        List<RunEvent> events = rising(0, 25, 2, 90);
        events.add(new RunEvent.Said(50, Say.MOVED, ""));
        assertEquals((double) RunDigest.of(plan(), events, PROVEN).get("moved_c"), 128, 0.1);
    }

    /** Ended on a word far from its goal, the soak is cut short and told; what was set is held against the recipe. */
    @Test
    public void whatWasCutShortAndChangedIsTold() {
        RunPlan plan = plan();
        Recipe recipe = plan.recipe();
        int soak = 0;
        while (recipe.stages().get(soak).purpose() != Stage.Purpose.SOAK) {
            soak++;
        }
        double goal = 150;
        Stage aimed = recipe.stages().get(soak);
        recipe = recipe.with(soak, new Stage(aimed.name(), aimed.purpose(), aimed.heaterC(), aimed.air(),
                Optional.of(goal), aimed.end(), aimed.latestS()));
        plan = World.plan(recipe);
        var events = new ArrayList<RunEvent>();
        for (int i = 0; i <= soak; i++) {
            events.add(at(i * 60, i, goal - 60));
            events.add(at(i * 60 + 55, i, i == soak ? goal - 30 : goal - 60));
        }
        events.add(new RunEvent.Said(soak * 60 + 56, Say.GO_ON, ""));
        events.add(at(soak * 60 + 60, soak + 1, goal - 30));
        Map<String, Object> digest = RunDigest.of(plan, events, verdict(Verdict.Outcome.WORKED));
        assertEquals((double) digest.get("soak_short_k"), 30, 0.1);
        assertTrue((double) digest.get("skipped") >= 1);
        assertEquals(digest.get("differs"), false);
        assertEquals(digest.get("proven"), false);
        int hot = -1;
        for (int i = 0; i < recipe.stages().size(); i++) {
            hot = recipe.stages().get(i).air().isPresent() ? i : hot;
        }
        Stage stage = recipe.stages().get(hot);
        double planned = (double) RunDigest.of(plan, List.of(), PROVEN).get("air_planned_c");
        var changed = new RunEvent.Changed(10, hot, stage.withAir(stage.air()
                .map(a -> new org.greenbead.core.recipe.AirSetting(planned + 40, a.flowLpm(), a.nozzleMm(),
                        a.distanceMm(), a.circleMm()))));
        Map<String, Object> other = RunDigest.of(plan, List.of(changed), PROVEN);
        assertEquals(other.get("differs"), true);
        assertEquals((double) other.get("air_c"), planned + 40, 0.1);
    }

    /** A whole simulated run leaves a digest that agrees with its verdict, and says nothing against a run that went well. */
    @Test
    public void aRunThatWentWellHasNothingAgainstIt() {
        RunPlan plan = plan();
        var bench = new SimulatedBench(plan, 417);
        var eyes = new Eyes(bench, 417);
        var technician = new SimulatedTechnician(plan.task(), true);
        try (var session = new RunSession(
                RunEngine.live(plan, Optional.of(Rehearsal.of(plan, () -> false))), bench, RunJournal.NONE,
                bench)) {
            session.pump(0);
            RunState state = session.start(0);
            for (double t = 0.5; state.status() != RunState.Status.ENDED && t < 3600; t += 0.5) {
                state = session.pump(t);
                Optional<RunEvent> word = technician.act(state, session.plan(), eyes);
                if (word.isPresent()) {
                    state = session.take(word.get());
                }
            }
            assertEquals(state.status(), RunState.Status.ENDED);
            Map<String, Object> digest = RunDigest.of(session.plan(), session.told(), session.verdict());
            assertEquals(digest.get("proven"), true, session.verdict().toString());
            assertEquals(digest.get("peak_ended"), true);
            assertTrue((double) digest.get("points") >= 3, digest.toString());
            assertEquals(digest.get("skipped"), 0.0);
            assertTrue((double) digest.get("drop_c") < 10, digest.toString());
            assertTrue((double) digest.get("ramp_cps") > 0.2 && (double) digest.get("ramp_cps") < 6,
                    digest.toString());
        }
    }
}
