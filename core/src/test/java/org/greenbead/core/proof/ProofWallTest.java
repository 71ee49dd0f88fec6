package org.greenbead.core.proof;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.account.RailReferences;
import org.greenbead.core.odds.Outcomes;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.Strands;
import org.greenbead.core.run.World;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class ProofWallTest {
    private static final Instant AT = Instant.parse("2031-04-02T10:00:00Z");
    private static final Words WORDS = new Words(Locale.ENGLISH, TempUnit.CELSIUS);

    private static Job note(Job job, String type, Object... fields) {
        var map = new LinkedHashMap<String, Object>();
        for (int i = 0; i < fields.length; i += 2) {
            map.put((String) fields[i], fields[i + 1]);
        }
        return job.with(new Kept(job.freeId(type), type, AT, "technician A", map));
    }

    private static Job job() {
        return World.job(Attest.UNKNOWN);
    }

    private static ProofWall.Proof only(Job job, Map<String, RailReferences.Reference> healthy) {
        List<ProofWall.Proof> all = ProofWall.of(job, List.of(), healthy, WORDS);
        assertEquals(all.size(), 1, all.toString());
        return all.getFirst();
    }

    @DataProvider
    Object[][] codes() {
        return new Object[][]{{"3-1", "", ProofWall.State.OPEN, "not again"},
                {"3-1", "none", ProofWall.State.HOLDS, "is gone"},
                {"E4", "e4", ProofWall.State.FAILS, "it came in with"},
                {"3-1", "2", ProofWall.State.FAILS, "another code"},
                {"none", "2", ProofWall.State.FAILS, "nobody noted before"},
                {"", "2", ProofWall.State.FAILS, "nobody noted before"},
                {"none", "None", ProofWall.State.OPEN, "gives none"},
                {"", "none", ProofWall.State.OPEN, "gives none"}};
    }

    /** A code that stands fails, whatever it was before; one that is gone holds; a lamp that never blinked proves nothing. */
    @Test(dataProvider = "codes")
    public void aCodeIsCountedBeforeAndAfter(String before, String after, ProofWall.State state, String why) {
        ProofWall.Proof proof = only(note(job(), "baseline", "codes", before, "codes_after", after),
                Map.of());
        assertEquals(proof.kind(), ProofWall.Kind.CODE);
        assertEquals(proof.state(), state);
        assertTrue(proof.why().contains(why), proof.why());
    }

    /** A reading that was taken otherwise than the one before it neither passes nor fails; a short is a short however it was read. */
    @Test
    public void readingsAreComparedOnlyAsTheyWereTaken() {
        Object[] same = {"name", "core", "ohm", 18.0, "meter", "bench two", "after_ohm", 18.2};
        assertEquals(only(note(job(), "rail", same), Map.of()).state(), ProofWall.State.HOLDS);
        ProofWall.Proof turned = only(note(job(), "rail", "name", "core", "ohm", 18.0, "meter", "bench two",
                "after_ohm", 18.2, "meter_after", "bench two, red on ground"), Map.of());
        assertEquals(turned.state(), ProofWall.State.OPEN);
        assertTrue(turned.why().contains("other way round"), turned.why());
        ProofWall.Proof other = only(note(job(), "rail", "name", "core", "ohm", 18.0, "meter", "bench two",
                "after_ohm", 26.0, "meter_after", "pen"), Map.of());
        assertEquals(other.state(), ProofWall.State.OPEN);
        assertTrue(other.why().contains("bench two, then pen"), other.why());
        assertEquals(only(note(job(), "rail", "name", "core", "ohm", 18.0, "meter", "bench two", "after_ohm",
                0.4, "meter_after", "pen, red on ground"), Map.of()).state(), ProofWall.State.FAILS);
        assertEquals(only(note(job(), "rail", "name", "core", "ohm", 18.0, "meter", "bench two", "after_ohm",
                18.3, "meter_after", "pen"), Map.of()).state(), ProofWall.State.HOLDS,
                "it agrees all the same");
        Object[] pair = {"name", "core to io", "ohm", 0.3, "after_ohm", 600.0};
        assertEquals(only(note(job(), "rail", pair), Map.of()).state(), ProofWall.State.OPEN,
                "nobody knows these rails");
        Job two = note(
                note(note(job(), "rail", "name", "core", "ohm", 18.0), "rail", "name", "io", "ohm", 640.0),
                "rail", pair);
        ProofWall.Proof apart = ProofWall.of(two, List.of(), Map.of(), WORDS).stream()
                .filter(p -> p.name().equals("core to io")).findFirst().orElseThrow();
        assertEquals(apart.state(), ProofWall.State.HOLDS);
        assertTrue(apart.why().contains("apart"), apart.why());
        ProofWall.Proof joined = only(note(job(), "rail", "name", "core to io", "after_ohm", 0.2), Map.of());
        assertEquals(joined.state(), ProofWall.State.FAILS);
        assertTrue(joined.why().contains("joined"), joined.why());
    }

    @Test
    public void aRailIsHeldAgainstAHealthyBoardBeforeItself() {
        Job job = note(job(), "rail", "name", "core", "ohm", 2.2, "lead_ohm", 0.2, "after_ohm", 18.4);
        var learned = Map.of("core", new RailReferences.Reference(18.0, 3, 4));
        ProofWall.Proof healthy = only(job, learned);
        assertEquals(healthy.state(), ProofWall.State.HOLDS);
        assertEquals(healthy.before(), "2.00 Ω");
        assertEquals(healthy.after(), "18.2 Ω");
        assertEquals(healthy.why(), "+1 % against 18.0 Ω, learned from 3 of this type.");
        assertEquals(only(job, Map.of()).state(), ProofWall.State.FAILS, "nine times what it was before");
        assertEquals(only(note(job(), "rail", "name", "core", "ohm", 18.0), learned).state(),
                ProofWall.State.OPEN);
        ProofWall.Proof shorted = only(
                note(job(), "rail", "name", "io", "ohm", 1200.0, "after_ohm", 0.4), Map.of());
        assertEquals(shorted.state(), ProofWall.State.FAILS);
        assertTrue(shorted.why().startsWith("Short: −100 %"), shorted.why());
        assertEquals(shorted.before(), "1.20 kΩ");
        ProofWall.Proof alone = only(note(job(), "rail", "name", "io", "after_ohm", 12.0), Map.of());
        assertEquals(alone.state(), ProofWall.State.OPEN, "nothing to hold it against");
    }

    /** Two readings of half an ohm that differ by what two probe tips make are the same. */
    @Test
    public void smallOhmsAreNotToldApartByTheTips() {
        assertEquals(
                only(note(job(), "rail", "name", "core", "ohm", 0.5, "after_ohm", 0.58), Map.of()).state(),
                ProofWall.State.HOLDS);
        assertEquals(
                only(note(job(), "rail", "name", "core", "ohm", 0.5, "after_ohm", 0.7), Map.of()).state(),
                ProofWall.State.FAILS);
        assertEquals(
                only(note(job(), "rail", "name", "core", "ohm", 0.5, "after_ohm", 0.02), Map.of()).state(),
                ProofWall.State.FAILS);
    }

    @Test
    public void ofSeveralTestsTheLastCountsAndAComplaintNeverSeenStaysOpen() {
        Job job = note(job(), "symptom", "words", "Stays dark", "reproduced", true);
        assertEquals(only(job, Map.of()).state(), ProofWall.State.OPEN);
        job = note(job, "tested", "what", "stays  dark", "result", "pass", "minutes", 45.0);
        assertEquals(only(job, Map.of()).state(), ProofWall.State.HOLDS);
        assertEquals(only(job, Map.of()).after(), "passes, 45 min");
        job = note(job, "tested", "what", "stays dark", "result", "fail");
        assertEquals(only(job, Map.of()).state(), ProofWall.State.FAILS);
        Job never = note(note(job(), "symptom", "words", "restarts", "reproduced", false), "tested", "what",
                "restarts", "result", "pass");
        assertEquals(only(never, Map.of()).state(), ProofWall.State.OPEN);
    }

    @Test
    public void whatWasUnpluggedIsTriedAgain() {
        Job job = note(job(), "connector", "id", "J4", "undone", true);
        assertEquals(only(job, Map.of()).state(), ProofWall.State.OPEN);
        assertEquals(only(note(job, "tested", "what", "keypad on J4", "result", "pass"), Map.of()).state(),
                ProofWall.State.HOLDS);
        List<ProofWall.Proof> other = ProofWall.of(
                note(job, "tested", "what", "lamp on J44", "result", "pass"),
                List.of(), Map.of(), WORDS);
        assertEquals(other.size(), 2);
        assertEquals(other.getFirst().state(), ProofWall.State.OPEN, "J44 is not J4");
    }

    @Test
    public void curveAndLeakSpeakByTheirLastRecord() {
        Job job = note(job(), "curve", "taken", "before", "outcome", "departs", "stage", 3.0, "of_stages",
                5.0, "how",
                "stays", "boards", 2.0);
        assertEquals(only(job, Map.of()).state(), ProofWall.State.OPEN);
        assertEquals(only(job, Map.of()).before(),
                "departs at stage 3 of 5: it stays there and does not go on");
        job = note(job, "curve", "taken", "after", "outcome", "alike", "boards", 2.0);
        assertEquals(only(job, Map.of()).state(), ProofWall.State.HOLDS);
        Job held = note(job(), "leak", "taken", "after", "p0_kpa", -15.0, "p1_kpa", -14.69, "t0_c", 21.85,
                "t1_c",
                22.65, "hold_s", 40.0, "limit_pa_s", 20.0);
        assertEquals(only(held, Map.of()).state(), ProofWall.State.HOLDS);
        assertEquals(
                only(note(job(), "leak", "taken", "after", "p0_kpa", -15.0, "p1_kpa", -10.0, "t0_c", 21.85,
                        "t1_c", 22.65, "hold_s", 40.0, "limit_pa_s", 20.0), Map.of()).state(),
                ProofWall.State.FAILS);
        assertEquals(only(note(job(), "leak", "taken", "after", "p0_kpa", -15.0), Map.of()).state(),
                ProofWall.State.OPEN);
    }

    @Test
    public void referencesAreLearnedFromBoardsThatPassedAndNeverFromTheJobItself() {
        var jobs = new java.util.ArrayList<Job>();
        double[] ohms = {18, 18.6, 40, 17.8};
        for (int i = 0; i < ohms.length; i++) {
            Job done = note(job(), "rail", "name", "Core", "after_ohm", ohms[i]);
            jobs.add(renamed(note(done, "tested", "what", "x", "result", i == 2 ? "fail" : "pass"),
                    "SB-" + i));
        }
        RailReferences.Reference core = RailReferences.learn(jobs, job().board(), "").get("core");
        assertEquals(core.ohm(), 18.0, 1e-12);
        assertEquals(core.boards(), 3);
        assertEquals(RailReferences.learn(jobs, job().board(), "SB-0").get("core").boards(), 2);
        assertTrue(RailReferences.learn(jobs, "another", "").isEmpty());
    }

    /** A short that is gone without anything healthy to hold it against is neither a failure nor a pass. */
    @Test
    public void aShortThatIsGoneStaysOpenUntilAHealthyBoardTells() {
        Job rose = note(job(), "rail", "name", "core", "ohm", 0.4, "after_ohm", 40.0);
        ProofWall.Proof open = ProofWall.of(rose, List.of(), Map.of(), WORDS).stream()
                .filter(p -> p.kind() == ProofWall.Kind.RAIL).findFirst().orElseThrow();
        assertEquals(open.state(), ProofWall.State.OPEN);
        assertTrue(open.why().contains("the short is gone, or the chip is not joined"), open.why());
        Job told = note(job(), "rail", "name", "core", "ohm", 0.4, "after_ohm", 40.0, "reference_ohm", 39.0);
        assertEquals(ProofWall.of(told, List.of(), Map.of(), WORDS).stream()
                .filter(p -> p.kind() == ProofWall.Kind.RAIL).findFirst().orElseThrow().state(),
                ProofWall.State.HOLDS);
    }

    /** A job is told by its complaint, not by whatever else passes. */
    @Test
    public void somethingElseThatPassesSaysNothingOfAComplaint() {
        Job job = note(note(job(), "symptom", "words", "Stays dark"), "tested", "what", "clock", "result",
                "pass");
        assertEquals(Outcomes.of(job, Map.of()), Optional.empty());
        assertEquals(
                Outcomes
                        .of(note(job, "tested", "what", "stays dark", "result", "pass"), Map.of()),
                Optional.of(true));
        assertEquals(
                Outcomes
                        .of(note(job, "tested", "what", "stays dark", "result", "fail"), Map.of()),
                Optional.of(false));
    }

    private static Job renamed(Job j, String id) {
        return new Job(id, j.title(), j.complaint(), j.customer(), j.board(), j.target(), j.bench(),
                j.beads(),
                j.facts(), j.records(), j.account());
    }

    @Test
    public void theLetterFollowsTheEvidence() {
        Job worked = note(note(job(), "symptom", "words", "dark", "reproduced", true), "tested", "what",
                "dark",
                "result", "pass");
        assertEquals(Confidence.of(worked, List.of(), ProofWall.of(worked, List.of(), Map.of(), WORDS)),
                Optional.empty());
        String bead = worked.beads().stream().filter(b -> b.kind() == org.greenbead.core.route.Bead.Kind.RUN)
                .findFirst().orElseThrow().id();
        assertEquals(letter(run(worked, bead, true, "probe_at_joint", "nudge")), 'a');
        assertEquals(letter(run(worked, bead, true, "probe_at_joint")), 'b');
        assertEquals(letter(run(worked, bead, true, "nudge", "eye")), 'b');
        assertEquals(letter(run(worked, bead, false)), 'c');
        Job open = note(run(worked, bead, true, "probe_at_joint", "nudge"), "rail", "name", "core", "ohm",
                12.0);
        assertEquals(letter(open), 'c', "a rail was not read again");
        Job off = note(run(worked, bead, true, "probe_at_joint", "nudge"), "rail", "name", "core", "ohm",
                12.0,
                "after_ohm", 30.0);
        assertEquals(letter(off), 'd');
    }

    /** Heated, and tried again after it. */
    private static Job run(Job job, String bead, boolean proven, String... evidence) {
        return note(heated(job, bead, proven, evidence), "tested", "what", "dark", "result", "pass");
    }

    private static Job heated(Job job, String bead, boolean proven, String... evidence) {
        return note(job, "run", "bead", bead, "kind", "lift", "proven", proven, "evidence",
                List.of(evidence));
    }

    /** All green, heated once more, and every proof was green still. */
    @Test
    public void aHeatAfterTheTestsLeavesThemOpen() {
        Job passed = note(note(note(job(), "symptom", "words", "dark", "reproduced", true), "tested", "what",
                "dark", "result", "pass"), "tested", "what", "log clock", "result", "pass", "minutes", 30.0);
        List<ProofWall.Proof> before = ProofWall.of(passed, List.of(), Map.of(), WORDS);
        assertEquals(ProofWall.answer(before), ProofWall.Answer.PROVEN);
        List<ProofWall.Proof> wall = ProofWall.of(heated(passed, "seat_run", true, "nudge"), List.of(),
                Map.of(), WORDS);
        assertEquals(ProofWall.answer(wall), ProofWall.Answer.NOTHING);
        ProofWall.Proof clock = wall.stream().filter(p -> p.name().equals("log clock")).findFirst()
                .orElseThrow();
        assertEquals(clock.state(), ProofWall.State.OPEN);
        assertEquals(clock.before(), "passes, 30 min");
        assertEquals(clock.after(), "");
        assertEquals(clock.why(), "The board was heated since. Try it again.");
        assertEquals(Outcomes.of(heated(passed, "seat_run", true), Map.of()),
                Optional.empty());
        assertEquals(
                wall.stream().filter(p -> p.kind() == ProofWall.Kind.COMPLAINT).map(ProofWall.Proof::why)
                        .toList(),
                List.of("The complaint was not tried again after the work."));
    }

    /** Another chip of the same board was heated in its own job; the heat of a donor's chip is none of this board. */
    @Test
    public void aHeatOfAFurtherChipLeavesTheTestsOpen() {
        Job passed = note(note(job(), "symptom", "words", "dark", "reproduced", true), "tested", "what",
                "dark",
                "result", "pass");
        Job strand = heated(renamed(job(), "SB-1-U2"), "seat_run", true)
                .asStrandOf(passed.id());
        Job donors = new Job("SB-1-U9", "donor", "no boot", "x", "CP-12", "U9", "quay-1", strand.beads(),
                strand.facts(),
                strand.records(), List.of()).asStrandOf(passed.id());
        assertEquals(ProofWall.answer(ProofWall.of(passed, List.of(donors), Map.of(), WORDS)),
                ProofWall.Answer.PROVEN);
        assertEquals(ProofWall.answer(ProofWall.of(passed, List.of(donors, strand), Map.of(), WORDS)),
                ProofWall.Answer.NOTHING);
        assertEquals(Outcomes.of(passed, Strands.byJob(List.of(passed, donors))), Optional.of(true));
        assertEquals(Outcomes.of(passed, Strands.byJob(List.of(strand, passed, donors))), Optional.empty());
    }

    private static char letter(Job job) {
        return Confidence.of(job, List.of(), ProofWall.of(job, List.of(), Map.of(), WORDS)).orElseThrow()
                .letter();
    }
}
