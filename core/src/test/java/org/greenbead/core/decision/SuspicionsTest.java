package org.greenbead.core.decision;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.book.Facts;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.World;
import org.testng.annotations.Test;

public class SuspicionsTest {
    private static Job job(String type, Map<String, Object> fields) {
        Job job = World.job(Attest.UNKNOWN);
        return job.with(new Kept(job.freeId(type), type, Instant.EPOCH, "", fields));
    }

    private static Suspicions.Weighed weighed(Job job) {
        return Suspicions.of(job, JobFacts.of(job), List.of());
    }

    /** Nothing on record: as open as it can be. */
    @Test
    public void nothingSeenIsNoSuspicion() {
        Suspicions.Weighed w = weighed(World.job(Attest.UNKNOWN));
        assertEquals(w.doubtBits(), Math.log(5) / Math.log(2), 1e-9);
        assertTrue(w.signs().isEmpty());
        assertEquals(w.chance().values().stream().mapToDouble(v -> v).sum(), 1, 1e-12);
        Job settled = job("baseline", Map.of("settle_a", 0.2));
        assertEquals(weighed(settled).doubtBits(), w.doubtBits(), 1e-12,
                "a single settled current proves nothing");
        Job code = job("baseline", Map.of("codes", "E4"));
        assertTrue(weighed(code).signs().isEmpty(), "a code without a source is none");
    }

    /** By Bayes' rule, worked by hand: 0.60 of 1.02 for a press. */
    @Test
    public void aPressSpeaksForAJoint() {
        Job pressed = job("symptom", Map.of("words", "dark", "changes_with", List.of("press")));
        Suspicions.Weighed w = weighed(pressed);
        assertEquals(w.likeliest(), Suspicions.Place.JOINT);
        assertEquals(w.chance().get(Suspicions.Place.JOINT), 0.60 / 1.02, 1e-9);
        assertEquals(w.signs().getFirst().decibans().get(Suspicions.Place.JOINT),
                10 * Math.log10(0.60 / 0.105), 1e-9);
        assertTrue(w.next().stream().noneMatch(n -> n.id().equals("press_warm_knock")), "it is made already");
        Job bad = pressed.with(new Kept("chip-1", "chip", Instant.EPOCH, "",
                Map.of("health", "short", "health_test", "rail to ground 0.3 ohm off the board")));
        assertEquals(weighed(bad).likeliest(), Suspicions.Place.CHIP);
    }

    /** The ledger's own causes weigh in, this job's not. */
    @Test
    public void whatItWasBeforeIsThoughtFirst() {
        var past = new ArrayList<Job>();
        for (int i = 0; i < 4; i++) {
            Job done = job("diagnosis", Map.of("cause_class", "board"))
                    .with(new Kept("tested-1", "tested", Instant.EPOCH, "",
                            Map.of("what", "starts", "result", "pass")));
            past.add(new Job("SB-" + i, done.title(), done.complaint(), done.customer(), done.board(),
                    done.target(),
                    done.bench(), done.beads(), done.facts(), done.records(), done.account()));
        }
        Suspicions.Weighed w = Suspicions.of(World.job(Attest.UNKNOWN), Facts.none(), past);
        assertEquals(w.chance().get(Suspicions.Place.BOARD), 5.0 / 9, 1e-9);
    }

    /** Information is never negative, none for a test that answers alike everywhere, one bit for one that halves. */
    @Test
    public void informationOfATest() {
        double[] p = {0.5, 0.5, 0, 0, 0};
        assertEquals(Suspicions.information(p, new double[]{0.4, 0.4, 0.4, 0.4, 0.4}), 0, 1e-12);
        assertEquals(Suspicions.information(p, new double[]{1, 0, 0.5, 0.5, 0.5}), 1, 1e-12);
        Suspicions.Weighed w = weighed(World.job(Attest.UNKNOWN));
        assertTrue(w.next().stream().allMatch(n -> n.bits() > 0), w.next().toString());
        for (int i = 1; i < w.next().size(); i++) {
            assertTrue(w.next().get(i - 1).bits() / w.next().get(i - 1).minutes() >= w.next().get(i).bits()
                    / w.next().get(i).minutes());
        }
    }

    @Test
    public void everythingHasItsWords() {
        var words = new Words(Locale.ENGLISH, TempUnit.CELSIUS);
        Suspicions.ids().forEach(id -> assertTrue(words.has(id), id));
    }
}
