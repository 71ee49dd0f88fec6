package org.greenbead.core.run;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.Locale;
import java.util.Optional;
import java.util.TreeSet;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.testng.annotations.Test;

/** What the coach says at every moment of a run, read as a person reads it. */
public class CoachTest {
    private static final Words WORDS = new Words(Locale.ENGLISH, TempUnit.CELSIUS);

    private static void readable(Phrase phrase, RunState state) {
        String text = WORDS.say(phrase);
        assertFalse(text.contains("{") || text.contains("null"),
                phrase.key() + " at " + state.timeS() + ": " + text);
    }

    /** A whole run with faults: every sentence has its words and its gaps, and the pedal is never without a meaning. */
    @Test
    public void everySentenceOfARunIsWhole() {
        RunPlan plan = World.plan(World.usualRecipe());
        var run = new Bench4Tests(plan, 8, Optional.of(Rehearsal.of(plan, () -> false)));
        var technician = new SimulatedTechnician(plan.task(), true);
        var said = new TreeSet<String>();
        RunState state = run.session.state();
        while (state.status() != RunState.Status.ENDED) {
            run.bench.breakProbe("board_under", state.timeS() > 40 && state.timeS() < 60);
            run.bench.dropLink(state.timeS() > 70 && state.timeS() < 80);
            state = run.step();
            Coaching c = state.coaching();
            for (Phrase phrase : new Phrase[]{c.now(), c.next(), c.pedalWord(), c.consequence()}) {
                readable(phrase, state);
            }
            RunState at = state;
            c.caution().ifPresent(p -> readable(p, at));
            state.room().forEach(r -> readable(r.what(), at));
            for (Finding f : state.findings()) {
                readable(f.what(), state);
                readable(f.why(), state);
                readable(f.cure(), state);
                readable(f.source(), state);
            }
            assertEquals(c.pedal().isEmpty(), state.status() == RunState.Status.COOLING,
                    "the pedal rests only while hands must be off");
            said.add(c.now().key());
            said.add(c.next().key());
            Optional<RunEvent> word = technician.act(state, run.session.plan(), run.bench.moves());
            if (word.isPresent()) {
                state = run.session.take(word.get());
            }
        }
        for (String wanted : new String[]{"coach.soak", "coach.approach", "coach.peak", "coach.peak.nudge",
                "coach.molten.lift", "coach.cool", "coach.safe", "coach.until.probe",
                "coach.until.hold", "coach.peak.next", "coach.cool.next"}) {
            assertTrue(said.contains(wanted), wanted + " in " + said);
        }
        run.session.verdict().lines()
                .forEach(l -> assertFalse(WORDS.say(l.what()).contains("{"), l.toString()));
    }

    @Test
    public void settingsAreSaidInFull() {
        var run = new Bench4Tests(World.plan(World.usualRecipe()), 3);
        run.run(2);
        run.say(Say.GO_ON);
        run.step();
        String said = WORDS.say(run.session.state().coaching().now());
        for (String part : new String[]{"245 °C", "265 °C", "24 L/min", "10 mm nozzle", "25 mm up",
                "slow circles"}) {
            assertTrue(said.contains(part), part + " in: " + said);
        }
        assertTrue(new Words(Locale.ENGLISH, TempUnit.FAHRENHEIT).say(run.session.state().coaching().now())
                .contains("473 °F"));
    }

    @Test
    public void lostProbeIsSaidWhereItWasWaitedFor() {
        var run = new Bench4Tests(World.plan(World.usualRecipe()), 3);
        run.run(5);
        run.bench.breakProbe("board_top", true);
        assertEquals(run.run(1).coaching().next().key(), "coach.until.probe.lost");
    }

    @Test
    public void coldSettingsAreSaidNeverToMelt() {
        var run = new Bench4Tests(World.plan(World.recipe(World.soak(240, 60, 0),
                World.peak(120).withHeater(Optional.of(80.0)), World.cool())), 3);
        run.until(s -> s.stage() == 1, 300);
        assertEquals(run.run(10).coaching().next().key(), "coach.peak.next.never");
    }

    /** What it says about touching comes true within a third. */
    @Test
    public void saysWhenItMayBeTouched() {
        RunPlan plan = World.plan(World.usualRecipe());
        var run = new Bench4Tests(plan, 11);
        run.until(s -> s.stage() == 2, 900);
        run.until(s -> run.bench.moves(), 300);
        run.say(Say.MOVES);
        run.say(Say.HEAT_OFF);
        run.until(s -> s.status() == RunState.Status.SAFE, 300);
        RunState safe = run.run(40);
        assertEquals(safe.coaching().next().key(), "coach.safe.next.in");
        double said = ((org.greenbead.core.quantity.Quantity.Seconds) safe.coaching().next().gaps().get(1))
                .seconds();
        assertTrue(said > 60 && said < 1800, "about " + said + " s");
    }

    @Test
    public void timedStageCountsDown() {
        Stage dry = new Stage("Dry-out", Stage.Purpose.DRY_OUT, Optional.of(120.0), Optional.empty(),
                Optional.empty(), new StageEnd.AfterTime(60), 70);
        var run = new Bench4Tests(
                World.plan(World.recipe(dry, World.soak(240, 108, 10), World.peak(322), World.cool())), 1);
        assertTrue(WORDS.say(run.run(20).coaching().next()).contains("0:40"),
                WORDS.say(run.session.state().coaching().next()));
    }
}
