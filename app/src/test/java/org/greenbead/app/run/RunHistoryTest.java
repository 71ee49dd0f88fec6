package org.greenbead.app.run;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.finding.Rule;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.run.Coaching;
import org.greenbead.core.run.Estimate;
import org.greenbead.core.run.MeltProof;
import org.greenbead.core.run.RunState;
import org.greenbead.store.DemoWorld;
import org.greenbead.store.OpenFiles;
import org.testng.annotations.Test;

/** What a chart remembers of a run. */
public class RunHistoryTest {
    private static RunState at(double timeS, int stage) {
        return at(timeS, stage, List.of());
    }

    private static RunState at(double timeS, int stage, List<Finding> findings) {
        var joint = new Estimate(20 + timeS / 100, 1);
        return new RunState(
                new RunState.Standing(RunState.Status.HEATING, timeS, stage, 0, List.of(), true, false),
                Map.of(), new RunState.Heat(joint, joint, joint, 0, 0, 0, 0, List.of()),
                new RunState.Outlook(OptionalDouble.empty(), OptionalDouble.empty()), MeltProof.NONE,
                new RunState.Told(new Coaching(Phrase.of("coach.soak"), Phrase.of("coach.soak"),
                        Optional.empty(), Phrase.of("pedal.start"), Phrase.of("pedal.start"),
                        Optional.empty()), findings, List.of()),
                Optional.empty());
    }

    /** Eight hours at ten a second take no more room than a short run, and reach from its start to now. */
    @Test
    public void longRunTakesNoMoreRoomThanAShortOne() {
        var history = new RunHistory();
        int all = 8 * 3600 * 10;
        for (int i = 0; i < all; i++) {
            history.add(at(i / 10.0, i < all / 2 ? 0 : 1));
            assertTrue(history.size() <= 4000, "at " + i + " there are " + history.size());
        }
        assertTrue(history.size() > 1000, history.size() + " are left");
        assertEquals(history.get(0).timeS(), 0, 1e-9);
        assertEquals(history.get(history.size() - 1).timeS(), (all - 1) / 10.0, 1e-9);
        double widest = 0;
        for (int i = 1; i < history.size(); i++) {
            widest = Math.max(widest, history.get(i).timeS() - history.get(i - 1).timeS());
        }
        assertTrue(widest < 60, "widest gap " + widest + " s");
        for (int i = 1; i < history.size(); i++) {
            if (history.get(i).stage() != history.get(i - 1).stage()) {
                assertEquals(history.get(i).timeS(), all / 20.0, 30, "the change of stage is kept");
            }
        }
    }

    @Test
    public void shortRunIsKeptWhole() {
        var history = new RunHistory();
        for (int i = 0; i < 800; i++) {
            history.add(at(i / 2.0, 0));
        }
        assertEquals(history.size(), 800);
    }

    /** Where nobody looked the curve of the joint is broken; a slow sweep alone breaks nothing. */
    @Test
    public void curveIsBrokenAtAGap() throws Exception {
        var away = Finding.of(Rule.RESUMED_AFTER_GAP, "run", Severity.CARE, new Quantity.Seconds(40));
        var history = new RunHistory();
        for (double t : new double[]{0, 1, 2, 20}) {
            history.add(at(t, 0));
        }
        for (double t : new double[]{60, 61, 80}) {
            history.add(at(t, 0, t == 80 ? List.of() : List.of(away)));
        }
        var chart = history.chart(new DemoWorld(new OpenFiles()).plan("SB-0417", "lift_run"), history.size(),
                Optional.empty(), false, Texts.of(Locale.ENGLISH, TempUnit.CELSIUS));
        double[] joint = chart.curves().getFirst().celsius();
        boolean[] broken = new boolean[joint.length];
        for (int i = 0; i < joint.length; i++) {
            broken[i] = Double.isNaN(joint[i]);
        }
        assertEquals(broken, new boolean[]{false, false, false, false, true, false, false});
    }
}
