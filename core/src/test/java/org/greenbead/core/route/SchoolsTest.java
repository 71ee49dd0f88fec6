package org.greenbead.core.route;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.greenbead.core.account.Gates;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.account.KnownFacts;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.Judged;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.book.Vocabulary;
import org.greenbead.core.cue.Cues;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.Kept;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Ways of working, the kit, and gates that a stop holds. */
public class SchoolsTest {
    private static final Instant NOW = Instant.parse("2026-03-01T09:00:00Z");
    private static final Schools SCHOOLS = Schools.shipped();

    private static Job job(JobKind kind) {
        return new Job("SB-1", "t", "c", "d", "WB-7", "U1", "quay-1",
                Routes.shipped().beads(kind, Routes.recipes("WB-7", "U1")),
                Facts.none().with("job.kind=" + kind.key()));
    }

    @DataProvider
    Object[][] kinds() {
        return java.util.Arrays.stream(JobKind.values()).map(k -> new Object[]{k}).toArray(Object[][]::new);
    }

    /** Every way of every point can be chosen, says only facts that exist, and choosing the usual one again brings the route back. */
    @Test(dataProvider = "kinds")
    public void everyChoiceCanBeMadeAndTakenBack(JobKind kind) {
        for (School school : SCHOOLS.of(job(kind))) {
            for (School.Choice choice : school.choices()) {
                Job chosen = SCHOOLS.choose(job(kind), school, choice.id(), "because", NOW, "technician A");
                assertEquals(SCHOOLS.chosen(chosen, school), choice.id());
                assertTrue(Vocabulary.ofTheTrade().misfits(chosen.facts()).isEmpty(),
                        school.id() + "." + choice.id());
                Job back = SCHOOLS.choose(chosen, school, school.standard(), "", NOW, "technician A");
                assertEquals(back.beads().stream().map(Bead::id).toList(),
                        job(kind).beads().stream().map(Bead::id).toList(), school.id() + "." + choice.id());
                assertEquals(back.records("school").size(), 1, "one record a point");
            }
        }
    }

    /** Of the points of the trade only gloves and extraction are no choice: no way of working names them. */
    @Test
    public void dutiesAreNoChoice() {
        assertEquals(SCHOOLS.all().size(), 44);
        for (School school : SCHOOLS.all()) {
            for (School.Choice choice : school.choices()) {
                assertFalse(choice.facts().contains("ppe."), school.id() + "." + choice.id());
            }
        }
    }

    @Test
    public void fixedMinutesAreCountedAsSuch() {
        Job job = job(JobKind.REVIVE);
        assertFalse(Cues.fixed(job));
        assertTrue(Cues
                .fixed(SCHOOLS.choose(job, SCHOOLS.find("cue").orElseThrow(), "minutes", "alone at the bench",
                        NOW, "technician A")));
    }

    /** Holding a chip down while its balls are liquid is a way that the rule book stops. */
    @Test
    public void aWayCanRaiseARule() {
        Job held = SCHOOLS.choose(job(JobKind.REVIVE), SCHOOLS.find("touch").orElseThrow(), "hold",
                "as taught",
                NOW, "technician A");
        var before = Judged.of(RuleBook.shipped(), JobFacts.of(job(JobKind.REVIVE)),
                RuleBook.Settings.STANDARD);
        var after = Judged.of(RuleBook.shipped(), JobFacts.of(held), RuleBook.Settings.STANDARD);
        assertTrue(after.open().size() > before.open().size());
    }

    @Test
    public void spheresTakeThePlaceOfPaste() {
        School route = SCHOOLS.find("ball_route").orElseThrow();
        Job spheres = SCHOOLS.choose(job(JobKind.REVIVE), route, "spheres", "0.8 mm pitch", NOW, "");
        List<String> beads = spheres.beads().stream().map(Bead::id).toList();
        assertTrue(beads.contains("spheres_flux"));
        assertFalse(beads.contains("bead_print"));
        assertTrue(beads.indexOf("spheres_melt") < beads.indexOf("bead_count"));
        assertEquals(spheres.facts().at("plan.route").orElseThrow(), "spheres");
        Job worked = job(JobKind.REVIVE).with("bead_print", BeadState.GREEN);
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> SCHOOLS.choose(worked, route, "spheres", "late", NOW, "")).getMessage()
                .contains("worked already"));
        expectThrows(IllegalArgumentException.class,
                () -> SCHOOLS.choose(job(JobKind.REVIVE), route, "spheres", " ", NOW, ""));
    }

    @Test
    public void everyWayHasItsWordsAndCosts() {
        var words = new Words(Locale.ENGLISH, TempUnit.CELSIUS);
        for (School school : SCHOOLS.all()) {
            assertTrue(words.has("school." + school.id()), school.id());
            for (School.Choice choice : school.choices()) {
                assertTrue(words.has("school." + school.id() + "." + choice.id()), choice.id());
                assertTrue(words.has("school." + school.id() + "." + choice.id() + ".costs"), choice.id());
            }
            assertFalse(
                    java.util.Arrays.stream(JobKind.values())
                            .allMatch(k -> job(k).bead(school.bead()).isEmpty()),
                    school.id() + " is offered in some route");
        }
    }

    @Test(dataProvider = "kinds")
    public void kitIsTheUnionOfWhatIsStillToBeWorked(JobKind kind) {
        Job job = job(kind);
        List<String> needed = Kit.shipped().needed(job);
        assertFalse(needed.isEmpty());
        assertEquals(Set.copyOf(needed).size(), needed.size(), "each once");
        assertEquals(Kit.shipped().missing(job), needed);
        Job ticked = job.with(new Kept("kit-1", "kit", NOW, "", Map.of("item", needed.getFirst())));
        assertEquals(Kit.shipped().missing(ticked), needed.subList(1, needed.size()));
        Job done = job;
        for (Bead bead : job.beads()) {
            done = done.with(bead.id(), BeadState.DONE);
        }
        assertTrue(Kit.shipped().needed(done).isEmpty());
        var words = new Words(Locale.ENGLISH, TempUnit.CELSIUS);
        needed.forEach(t -> assertTrue(words.has("kit." + t), t));
    }

    /** A glued panel is pressed once everything is back and before the report is given; without glue the step goes again. */
    @Test
    public void gluingFollowsWhatGoesBack() {
        Job job = job(JobKind.STORAGE);
        School closing = SCHOOLS.find("closing").orElseThrow();
        Job glued = SCHOOLS.choose(job, closing, "glued", "a glued case", NOW, "me");
        List<String> beads = glued.beads().stream().map(Bead::id).toList();
        assertEquals(beads.subList(beads.size() - 4, beads.size()),
                List.of("close_refit", "close_seal", "close_parts", "close_report"));
        assertTrue(glued.bead("close_seal").orElseThrow().gate());
        Job screwed = SCHOOLS.choose(glued, closing, "screws", "", NOW, "me");
        assertEquals(screwed.beads(), job.beads());
        Job done = glued.with("close_seal", BeadState.GREEN);
        expectThrows(IllegalArgumentException.class,
                () -> SCHOOLS.choose(done, closing, "screws", "", NOW, "me"));
    }

    @Test
    public void kitNamesOnlyBeadsThatThereAre() {
        Set<String> beads = new HashSet<>();
        for (JobKind kind : JobKind.values()) {
            Routes.shipped().of(kind).forEach(t -> beads.add(t.id()));
        }
        for (String part : List.of("spheres", "bake", "underfill", "glued")) {
            Routes.shipped().part(part).forEach(t -> beads.add(t.id()));
        }
        Kit.shipped().beads().forEach(b -> assertTrue(beads.contains(b), b));
    }

    private static Judged judged(Job job) {
        return Judged.of(RuleBook.shipped(), JobFacts.of(job), RuleBook.Settings.STANDARD);
    }

    /** Bismuth and lead at one site: every word is taken, the gate is worked but not green, and opens once nothing stops it. */
    @Test
    public void stopHoldsItsGate() {
        Job job = job(JobKind.TRANSPLANT);
        job = job.with(job.facts().with("joints.0.site=U1; joints.0.bi_pct=7; joints.0.pb_pct=30"));
        Judged judged = judged(job);
        var dead = new KnownFacts(Facts.none().with("board.discharge_v=2"), java.util.Map.of());
        var look = new Gates.Look(judged, List.of(), dead);
        String gate = "prepare_power";
        assertFalse(Gates.holding(job, gate, judged).isEmpty(), "the trap is a stop before the work begins");
        assertTrue(Gates.holding(job, "intake_record", judged).isEmpty(), "an open bead is held by nothing");
        for (Bead earlier : job.beads()) {
            if (earlier.id().equals(gate)) {
                break;
            }
            job = job.with(earlier.id(), BeadState.GREEN);
        }
        for (CheckItem check : job.bead(gate).orElseThrow().checks()) {
            job = Gates.attest(job, check.id(), Attest.YES, look);
            assertEquals(job.attested(check.id()), Attest.YES, "a word is never lost");
        }
        assertEquals(job.bead(gate).orElseThrow().state(), BeadState.DONE);
        assertEquals(job.gateBefore("prepare_strip").orElseThrow().id(), gate, "it goes on blocking");
        assertEquals(Gates.settle(job, look).bead(gate), job.bead(gate), "while the stop stands");
        var nothing = new Gates.Look(new Judged(List.of(), List.of()), List.of(), KnownFacts.NONE);
        assertEquals(Gates.settle(job, nothing).bead(gate).orElseThrow().state(), BeadState.DONE,
                "ticks alone open no gate");
        Job free = Gates.settle(job, new Gates.Look(new Judged(List.of(), List.of()), List.of(), dead));
        assertEquals(free.bead(gate).orElseThrow().state(), BeadState.GREEN);
        assertEquals(Gates.settle(free, nothing).bead(gate), free.bead(gate),
                "a gate that was passed stays passed");
        Job taken = Gates.attest(free, free.bead(gate).orElseThrow().checks().getFirst().id(), Attest.NO,
                look);
        assertEquals(taken.bead(gate).orElseThrow().state(), BeadState.OPEN, "a word taken back shuts it");
        var live = new Gates.Look(judged, List.of(),
                new KnownFacts(Facts.none().with("board.discharge_v=48"), java.util.Map.of()));
        assertEquals(Gates.settle(free, live).bead(gate).orElseThrow().state(), BeadState.DONE,
                "a reading that says the opposite shuts it again");
    }
}
