package org.greenbead.core.proof;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.World;
import org.testng.annotations.Test;

public class JobSummaryTest {
    private static final Instant AT = Instant.parse("2031-04-02T10:00:00Z");
    private static final Words WORDS = new Words(Locale.ENGLISH, TempUnit.CELSIUS);

    private static Job job() {
        return World.job(Attest.UNKNOWN);
    }

    private static Job note(Job job, String type, Object... fields) {
        var map = new LinkedHashMap<String, Object>();
        for (int i = 0; i < fields.length; i += 2) {
            map.put((String) fields[i], fields[i + 1]);
        }
        return job.with(new Kept(job.freeId(type), type, AT, "technician A", map));
    }

    private static JobSummary of(Job job) {
        return JobSummary.of(job, Map.of(), WORDS);
    }

    private static Job heated(Job job) {
        return note(job, "run", "bead", "seat_run", "kind", "seat", "proven", true, "peak_c", 208.0,
                "above_s", 40.0,
                "evidence", List.of("nudge", "plateau"));
    }

    /** Whoever works on it next reads what the joints are made of and how often they were hot; what was not measured counts for nothing. */
    @Test
    public void jointsHaveTheirHistory() {
        Job job = note(note(job(), "joint", "site", "U4", "alloy", "SAC305"), "joint", "site", "U4", "alloy",
                "Sn63Pb37");
        job = note(note(job, "exposure", "part", "U4", "event", "lift_run", "peak_c", 211.0), "exposure",
                "part",
                "U4", "event", "seat_run", "peak_c", 214.4);
        List<String> done = of(note(job, "exposure", "part", "U9", "event", "other")).done();
        assertTrue(done.contains("Joints of U4, as far as they are known: SAC305, Sn63Pb37."),
                done.toString());
        assertTrue(done.contains("U4 was heated 2 times here, to 214 °C at most."), done.toString());
        assertTrue(done.stream().noneMatch(d -> d.contains("U9")), done.toString());
    }

    /** What was done on a further chip stands in the same report under its name; one unproven joint lowers the letter for the whole board. */
    @Test
    public void furtherChipsAreInTheReportOfTheirJob() {
        Job passes = note(
                note(note(job(), "run", "bead", "lift_run", "kind", "lift", "proven", true, "peak_c", 208.0,
                        "above_s", 40.0, "evidence", List.of("nudge", "plateau")), "symptom", "words", "dark",
                        "reproduced", true),
                "tested",
                "what",
                "dark", "result", "pass");
        assertEquals(of(passes).letter().orElseThrow().letter(), 'b');
        Job strand = passes.on(passes.board(), "U2", passes.bench());
        for (String type : List.of("symptom", "tested", "run")) {
            for (Kept record : strand.records(type)) {
                strand = strand.without(record.id());
            }
        }
        JobSummary begun = JobSummary.of(passes, List.of(strand), Map.of(), WORDS);
        assertTrue(begun.done().stream().anyMatch(l -> l.startsWith("U2: ")), begun.done().toString());
        assertTrue(begun.open().stream().anyMatch(l -> l.contains("U2") && l.contains("not at its end")),
                begun.open().toString());
        Job unproven = note(strand, "run", "bead", "lift_run", "kind", "lift", "proven", false, "peak_c",
                199.0,
                "above_s", 12.0);
        JobSummary all = JobSummary.of(passes, List.of(unproven), Map.of(), WORDS);
        assertTrue(all.done().stream().anyMatch(l -> l.startsWith("U2: ") && l.contains("199")),
                all.done().toString());
        assertEquals(all.letter().orElseThrow().letter(), 'c',
                "the board is as sure as its least sure joint");
        assertEquals(of(passes).done(), JobSummary.of(passes, List.of(), Map.of(), WORDS).done());
    }

    @Test
    public void theAnswerFollowsWhatIsOnRecord() {
        assertEquals(of(job()).answer(), JobSummary.Answer.IN_HAND);
        Job looked = note(job(), "diagnosis", "cause_class", "die");
        assertEquals(of(looked).answer(), JobSummary.Answer.EXAMINED);
        assertEquals(of(note(looked, "decision", "course", "decline")).answer(), JobSummary.Answer.DECLINED);
        assertEquals(of(note(looked, "decision", "course", "reball")).answer(), JobSummary.Answer.EXAMINED);
        Job dark = note(heated(looked), "symptom", "words", "dark", "reproduced", true);
        assertEquals(of(dark).answer(), JobSummary.Answer.IN_HAND, "heated and nothing tried since");
        Job passes = note(dark, "tested", "what", "dark", "result", "pass");
        assertEquals(of(passes).answer(), JobSummary.Answer.REPAIRED);
        assertEquals(of(note(passes, "rail", "name", "core", "ohm", 18.0)).answer(), JobSummary.Answer.WORKS);
        JobSummary failed = of(note(passes, "rail", "name", "core", "ohm", 18.0, "after_ohm", 0.4));
        assertEquals(failed.answer(), JobSummary.Answer.NOT_REPAIRED);
        assertEquals(failed.line(), "It is not repaired: rail core fails.");
        assertEquals(of(note(passes, "tested", "what", "dark", "result", "fail")).answer(),
                JobSummary.Answer.NOT_REPAIRED);
        Job data = note(note(heated(job()), "intake", "goal", "data"), "tested", "what", "read", "result",
                "pass",
                "data_proof", "1,204 files, hash 77aa");
        assertEquals(of(data).line(), "The data is saved: 1,204 files, hash 77aa.");
    }

    @Test
    public void whatTheCustomerHasToKnowIsWrittenByWhatWasDone() {
        Job planned = note(job(), "plan", "ball_alloy", "Sn63Pb37");
        assertEquals(of(planned).mind(), List.of(), "nothing was soldered yet");
        assertTrue(of(heated(planned)).mind().getFirst().startsWith("The joints hold lead now (Sn63Pb37)"));
        Job low = heated(note(job(), "plan", "ball_alloy", "Sn42Bi58"));
        assertTrue(of(low).mind().getFirst().startsWith("The joints begin to melt at 138"),
                of(low).mind().toString());
        Job cut = note(job(), "covering", "what", "shield", "done", "cut");
        assertTrue(of(cut).mind().contains("A shield was cut open."));
        JobSummary temporary = of(
                note(note(heated(note(job(), "symptom", "words", "dark")), "tested", "what", "dark",
                        "result", "pass"), "disclosure", "temporary", true));
        assertTrue(temporary.line().endsWith("The repair is temporary."), temporary.line());
        assertTrue(temporary.expect().stream().anyMatch(e -> e.contains("may fail again")));
    }

    /** The customer's own words are masked wherever they stand; a unit that nobody worked on lacks no proof. */
    @Test
    public void theComplaintIsMaskedAndADeclinedUnitLacksNothing() {
        Job j = job();
        Job called = new Job(j.id(), j.title(), "dead, call 0155 512 338", j.customer(), j.board(),
                j.target(), j.bench(),
                j.beads(), j.facts(), j.records(), j.account());
        JobSummary s = of(note(note(called, "symptom", "words", "dead"), "decision", "course", "decline"));
        assertEquals(s.wrong().getFirst(), "What you told us: dead, call •••.");
        assertEquals(s.open(), List.of());
    }

    @Test
    public void whatWasNotShownIsSaidAndNobodysNumber() {
        Job job = note(
                note(note(job(), "symptom", "words", "silent, call 0155 512 3384"), "screw", "hole", "A",
                        "length_mm", 3.0, "out", true),
                "disclosure", "untested", "range beyond 2 km");
        JobSummary s = of(job);
        assertTrue(s.open().contains("Not tested: range beyond 2 km."));
        assertTrue(s.open().getFirst().contains("was not tried again"), s.open().toString());
        assertFalse(s.toString().replaceAll("proofs=.*?\\], open", "").contains("512"), s.toString());
        assertTrue(s.done().contains("Screws: 1 out, 0 back in."));
        assertEquals(s.letter(), Optional.empty());
    }
}
