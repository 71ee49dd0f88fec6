package org.greenbead.core.cue;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.testng.annotations.Test;

/** Counts that hang on an event. */
public class CueClockTest {
    @Test
    public void countIsAnchoredOnTheEvent() {
        var clock = new CueClock(new Cue("balls_formed", "first_ball", 6, true, true), 12.4);
        assertEquals(clock.leftS(12.4), 6, 1e-12);
        assertEquals(clock.due(13.3), List.of());
        assertEquals(clock.due(13.5), List.of(1));
        assertEquals(clock.due(13.6), List.of(), "nothing is said twice");
        assertEquals(clock.due(16.0), List.of(2, 3), "a late look loses none");
        assertFalse(clock.over(18.3));
        assertTrue(clock.over(18.4), "12.4 and 6");
        assertEquals(clock.due(30), List.of(4, 5, 6));
    }

    @Test
    public void waitSaysWhatIsLeft() {
        var cue = new Cue("board_washed", "last_wipe", 40, false, false);
        assertEquals(cue.saidAt(), List.of(10, 30, 35, 36, 37, 38, 39, 40));
        var clock = new CueClock(cue, 0);
        assertEquals(clock.due(10), List.of(30));
        assertEquals(clock.due(39.5), List.of(10, 5, 4, 3, 2, 1));
        assertEquals(clock.due(40), List.of(0));
    }

    @Test
    public void everyCueBelongsToACheckAndHasItsWords() {
        Set<String> checks = new HashSet<>();
        for (JobKind kind : JobKind.values()) {
            Routes.shipped().of(kind).forEach(t -> checks.addAll(t.checks()));
        }
        Routes.shipped().part("glued").forEach(t -> checks.addAll(t.checks()));
        var words = new Words(Locale.ENGLISH, TempUnit.CELSIUS);
        for (Cue cue : Cues.shipped().all()) {
            assertTrue(checks.contains(cue.check()), cue.check());
            assertTrue(words.has("event." + cue.event()), cue.event());
        }
        assertTrue(Cues.shipped().handOver("upper_lifted"));
        assertFalse(Cues.shipped().handOver("cool_enough"));
    }
}
