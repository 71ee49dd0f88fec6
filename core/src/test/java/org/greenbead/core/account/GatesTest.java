package org.greenbead.core.account;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.book.Vocabulary;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.Kept;
import org.greenbead.core.record.RecordTypes;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.CheckItem;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.World;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The tables of checks and gates are whole, and ticks alone open nothing. */
public class GatesTest {
    private static final RunPlan PLAN = World.plan(World.usualRecipe());

    private static Job job(JobKind kind) {
        return World.job(Attest.UNKNOWN)
                .withBeads(Routes.shipped().beads(kind, Routes.recipes("WB-7", "U1")))
                .with(Facts.none().with("job.kind=" + kind.key()));
    }

    private static Judgement look(Job job) {
        return Judgement.of(job, Optional.of(PLAN.with(job)), Optional.empty(), Optional.empty(),
                RuleBook.shipped(), RuleBook.Settings.STANDARD);
    }

    @DataProvider
    Object[][] kinds() {
        return java.util.Arrays.stream(JobKind.values()).map(k -> new Object[]{k}).toArray(Object[][]::new);
    }

    /** Every check of every route and part says what it states, in words that a job may hold. */
    @Test
    public void everyCheckStatesAFact() {
        var asked = new TreeSet<String>();
        for (JobKind kind : JobKind.values()) {
            Routes.shipped().of(kind).forEach(t -> asked.addAll(t.checks()));
        }
        List.of("spheres", "bake", "underfill", "glued")
                .forEach(p -> Routes.shipped().part(p).forEach(t -> asked.addAll(t.checks())));
        assertEquals(new TreeSet<>(CheckFacts.shipped().checks()), asked);
        for (String check : asked) {
            for (Attest word : List.of(Attest.YES, Attest.NO)) {
                Facts states = CheckFacts.shipped().states(check, word);
                assertFalse(states.root().isEmpty(), check);
                assertEquals(Vocabulary.ofTheTrade().misfits(states), List.of(), check);
            }
        }
    }

    /** Every gate of every route asks for something, of a record that there is, in words. */
    @Test(dataProvider = "kinds")
    public void everyGateAsksToBeShownSomething(JobKind kind) {
        var words = new Words(Locale.ENGLISH, TempUnit.CELSIUS);
        var beads = new HashSet<String>();
        for (Routes.Template bead : Routes.shipped().of(kind)) {
            beads.add(bead.id());
            if (bead.gate()) {
                assertFalse(Gates.demands(bead.id()).isEmpty(), bead.id());
            }
            for (Gates.Demand demand : Gates.demands(bead.id())) {
                assertTrue(bead.gate(), bead.id());
                assertTrue(words.has("evidence." + demand.id()), demand.id());
                assertTrue(RecordTypes.shipped().require(demand.record()).beads().stream()
                        .anyMatch(b -> Routes.shipped().of(kind).stream().anyMatch(t -> t.id().equals(b))),
                        demand.record() + " can be written in a job of kind " + kind.key());
            }
        }
    }

    /** Every box of a job ticked and no record: its beads are worked, and not one gate is green. */
    @Test(dataProvider = "kinds")
    public void ticksAloneOpenNoGate(JobKind kind) {
        Job job = job(kind);
        for (Bead bead : job.beads()) {
            for (CheckItem check : bead.checks()) {
                job = Gates.attest(job, check.id(), Attest.YES, look(job).look());
            }
        }
        job = Gates.settle(job, look(job).look());
        for (Bead bead : job.beads()) {
            assertFalse(bead.gate() && bead.state() == BeadState.GREEN, bead.id());
        }
    }

    /** A check that is on record ticks itself, takes that back with the record, and a hand's word outranks it. */
    @Test
    public void whatIsOnRecordTicksItself() {
        Job job = job(JobKind.REVIVE);
        Kept rail = new Kept("rail-1", "rail", Instant.EPOCH, "", Map.of("name", "core", "ohm", 18.0));
        Job noted = Gates.settle(job.with(rail), look(job.with(rail)).look());
        assertEquals(noted.attested("rails_kept"), Attest.YES);
        assertEquals(noted.beads().stream().flatMap(b -> b.checks().stream())
                .filter(c -> c.id().equals("rails_kept")).findFirst().orElseThrow().shownBy(),
                "record rail-1", "and says from what");
        assertTrue(JobFacts.known(noted, Optional.empty(), Optional.empty()).facts().at("rails.kept")
                .isEmpty(), "it is no tick");
        Job back = Gates.settle(noted.without("rail-1"), look(noted.without("rail-1")).look());
        assertEquals(back.attested("rails_kept"), Attest.UNKNOWN);
        Job said = job.attest("rails_kept", Attest.NO).with(rail);
        assertEquals(Gates.settle(said, look(said).look()).attested("rails_kept"), Attest.NO);
    }

    /** What guards a person or data is not fine because nobody said anything. */
    @Test
    public void notKnownHolds() {
        Job milled = job(JobKind.MILLED)
                .with(new Kept("plan-1", "plan", Instant.EPOCH, "", Map.of("lift_method", "mill")));
        assertTrue(look(milled).notKnown().stream()
                .anyMatch(n -> n.holds() && n.rule().id().equals("data.milled-away")));
        assertFalse(Gates.unknown(milled, "prepare_power", look(milled).notKnown()).isEmpty());
        Job said = milled.with(new Kept("chip-1", "chip", Instant.EPOCH, "", Map.of("role", "power")));
        assertTrue(look(said).notKnown().stream().noneMatch(n -> n.rule().id().equals("data.milled-away")));
        Job baked = job(JobKind.REVIVE).with(new Kept("bake-1", "bake", Instant.EPOCH, "",
                Map.of("what", "bake", "c", 110.0, "heater", "oven", "cutoff", "none")));
        Job late = baked.withBeads(baked.beads().stream()
                .map(b -> b.phase().ordinal() < 3 ? b.as(BeadState.GREEN) : b).toList());
        assertTrue(look(late).notKnown().stream()
                .anyMatch(n -> n.holds() && n.rule().id().equals("safety.heat-with-nobody-there")),
                "who stays with it is not known");
    }

    /** A heat that proved nothing holds what follows, and not the same heat done once more; proven then, it is over. */
    @Test
    public void aHeatThatProvedNothingMayBeDoneAgain() {
        Map<String, Object> tooShort = Map.of("bead", "seat_run", "kind", "seat", "outcome", "worked",
                "proven",
                false, "peak_ended", true, "points", 2.0);
        Job heated = job(JobKind.REVIVE).with(new Kept("run-1", "run", Instant.EPOCH, "", tooShort));
        Judgement unproven = look(heated);
        assertTrue(Gates.holding(heated, "prove_rails", unproven.judged()).stream()
                .anyMatch(n -> n.rule().id().equals("heat.peak-ended-unproven")));
        assertTrue(Gates.holding(heated, "seat_run", unproven.judged()).stream()
                .noneMatch(n -> n.rule().id().equals("heat.peak-ended-unproven")));
        assertTrue(Gates.holding(heated, "prove_rails", look(heated).judged()).stream()
                .anyMatch(n -> n.at().equals("/runs/0")), "it is said of that heat");
        var well = new java.util.HashMap<>(tooShort);
        well.put("proven", true);
        well.put("outcome", "proven");
        Job again = heated.with(new Kept("run-2", "run", Instant.EPOCH.plusSeconds(900), "", well));
        assertTrue(look(again).judged().open().stream()
                .noneMatch(n -> n.rule().id().equals("heat.peak-ended-unproven")));
    }

    private static Kept test(int minute, String what) {
        return new Kept("tested-" + minute, "tested", Instant.EPOCH.plusSeconds(60L * minute), "",
                Map.of("what", what, "result", "pass", "memory_pass", true));
    }

    private static Kept heat(int minute, String kind) {
        return new Kept("run-" + minute, "run", Instant.EPOCH.plusSeconds(60L * minute), "",
                Map.of("bead", kind + "_run", "kind", kind, "outcome", "proven", "proven", true));
    }

    private static Job passed(JobKind kind, String gate) {
        Job job = job(kind);
        for (CheckItem check : job.bead(gate).orElseThrow().checks()) {
            job = job.attest(check.id(), Attest.YES);
        }
        return job.with(gate, BeadState.GREEN);
    }

    @DataProvider
    Object[][] proofs() {
        return new Object[][]{{JobKind.REVIVE, "prove_functions"}, {JobKind.MEMORY, "prove_memory"}};
    }

    /** A gate that was passed is open while nothing happens to the board. Heated once more, by this job or for another chip, it is shut until it is tried again. */
    @Test(dataProvider = "proofs")
    public void aProofThatAHeatOvertookIsShutUntilItIsTriedAgain(JobKind kind, String gate) {
        Job proved = passed(kind, gate).with(heat(1, "seat")).with(test(5, "memory test"));
        assertEquals(state(proved, gate, List.of()), BeadState.GREEN);
        Job heated = proved.with(heat(9, "seat"));
        assertNotEquals(state(heated, gate, List.of()), BeadState.GREEN);
        assertEquals(state(heated.with(test(20, "Memory  test")), gate, List.of()), BeadState.GREEN);
        assertEquals(state(proved.with(heat(9, "form")), gate, List.of()), BeadState.GREEN, "off the board");
        Job strand = new Job("SB-1-U2", "further chip", "no boot", proved.customer(), proved.board(), "U2",
                proved.bench(), proved.beads(), proved.facts(), List.of(heat(9, "seat")))
                .asStrandOf(proved.id());
        assertNotEquals(state(proved, gate, List.of(strand)), BeadState.GREEN);
        assertEquals(state(proved.with(test(20, "memory test")), gate, List.of(strand)), BeadState.GREEN);
    }

    private static BeadState state(Job job, String gate, List<Job> family) {
        var around = new Around(1, 0, new Practice(0, 0, 0, Double.NaN, Double.NaN), Optional.empty(),
                Map.of(), family);
        Judgement judged = Judgement.of(job, Optional.of(PLAN.with(job)), Optional.of(around),
                Optional.empty(),
                RuleBook.shipped(), RuleBook.Settings.STANDARD);
        return Gates.settle(job, judged.look()).bead(gate).orElseThrow().state();
    }

    /** Two ticks say a copy that was read back; of irreplaceable data the record has to. And a chip's own life is not forgotten. */
    @Test
    public void irreplaceableDataWantsTheRecordOfItsCopy() {
        Job ticked = job(JobKind.MILLED).attest("data_copied", Attest.YES).attest("copy_verified",
                Attest.YES);
        assertEquals(JobFacts.of(ticked).at("job.backup").orElseThrow(), "verified");
        Job dear = ticked.with(new Kept("intake-1", "intake", Instant.EPOCH, "",
                Map.of("data_value", "irreplaceable")));
        assertEquals(JobFacts.of(dear).at("job.backup").orElseThrow(), "attested");
        Job copied = dear.with(new Kept("copy-1", "copy", Instant.EPOCH, "", Map.of("verified", true)));
        assertEquals(JobFacts.of(copied).at("job.backup").orElseThrow(), "verified");
    }

    /** A figure says where it comes from. */
    @Test
    public void everyFactKeepsItsOrigin() {
        Job job = job(JobKind.REVIVE).attest("gloves_on", Attest.YES)
                .with(new Kept("rail-1", "rail", Instant.EPOCH, "",
                        Map.of("name", "core", "ohm", 18.0, "after_ohm", 17.0)));
        KnownFacts known = JobFacts.known(job.with(job.facts().with("chip.pads=9")),
                Optional.of(PLAN.with(job)), Optional.of(new Around(2, 0, Practice.ofAny(5))));
        assertEquals(known.origin("ppe.gloves").orElseThrow().source(), Origin.Source.TICKED);
        assertEquals(known.origin("rails.after_shorts").orElseThrow(),
                new Origin(Origin.Source.COMPUTED, "record rail-1"));
        assertEquals(known.origin("chip.pads").orElseThrow().source(), Origin.Source.TYPED);
        assertEquals(known.origin("job.open_same_client").orElseThrow().source(), Origin.Source.LEDGER);
        assertEquals(known.origin("/joints/0/alloy").orElseThrow().source(), Origin.Source.LEDGER);
        assertTrue(known.origin("chip.vendor").isEmpty());
    }
}
