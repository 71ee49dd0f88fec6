package org.greenbead.core.route;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.account.Around;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.account.Judgement;
import org.greenbead.core.account.Practice;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Side;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.Phase;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.record.Kept;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.World;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Jobs with several chips. */
public class StrandsTest {
    private static final Board BOARD = World.board(World.processor("Sn63Pb37", 0, 1),
            World.neighbour("U2", Side.TOP, 60, 58, "Sn63Pb37"));
    private static final HouseRoute AS_SHIPPED = new HouseRoute(JobKind.REPLACE, List.of());
    private static final Job MAIN = new Job("SB-9", "Wave buoy logger", "no boot", "Buoy station Hethra",
            BOARD.id(), "U1", "quay-1", Routes.shipped().beads(JobKind.REVIVE,
                    Routes.recipes(BOARD.id(), "U1")),
            Facts.none().with("job.kind=revive; job.goal=data"));

    private static Job strand(JobKind kind) {
        return Strands.begin(MAIN, List.of(), BOARD, "U2", kind, new HouseRoute(kind, List.of()),
                Optional.empty());
    }

    private static Kept kept(String id, String type, Map<String, Object> fields) {
        return new Kept(id, type, Instant.parse("2026-11-20T10:00:00Z"), "technician A", fields);
    }

    private static Judgement judged(Job job, List<Job> family) {
        return Judgement.of(job, Optional.empty(), Optional.of(around(family)), Optional.empty(),
                RuleBook.shipped(), RuleBook.Settings.STANDARD);
    }

    private static Around around(List<Job> family) {
        return new Around(1, 0, Practice.ofAny(5), Optional.empty(), Map.of(), family);
    }

    @DataProvider
    Object[][] kinds() {
        return Routes.shipped().strandKinds().stream().map(k -> new Object[]{k}).toArray(Object[][]::new);
    }

    /** From the plan to the seat; what guards a person is asked again, what is done once for the unit is not. */
    @Test(dataProvider = "kinds")
    public void aStrandGoesFromPlanToSeat(JobKind kind) {
        Job strand = strand(kind);
        assertEquals(strand.id(), "SB-9-U2");
        assertEquals(strand.strandOf(), Optional.of("SB-9"));
        assertEquals(JobFacts.kind(strand), Optional.of(kind), "its own kind, not that of the job");
        assertEquals(strand.facts().at("job.goal"), Optional.of("data"));
        assertTrue(strand.beads().stream().allMatch(b -> b.phase().compareTo(Phase.PLAN) >= 0
                && b.phase().compareTo(Phase.SEAT) <= 0), strand.beads().toString());
        assertTrue(strand.bead("prepare_power").isPresent(), "the cell may be in again");
        assertTrue(strand.bead("prepare_strip").isEmpty(), "the case is open already");
        assertTrue(strand.beads().stream().anyMatch(b -> b.kind() == Bead.Kind.RUN), "it heats");
        strand.beads().stream().filter(b -> b.recipe().isPresent()).forEach(
                b -> assertTrue(b.recipe().get().contains("-u2-"), "a recipe of its own: " + b.recipe()));
    }

    @Test
    public void whatIsNoStrandIsRefused() {
        Job strand = strand(JobKind.REPLACE);
        refused("is a strand of SB-9 itself",
                () -> Strands.begin(strand, List.of(), BOARD, "U1", JobKind.REPLACE, AS_SHIPPED,
                        Optional.empty()));
        refused("worked on in SB-9-U2 already",
                () -> Strands.begin(MAIN, List.of(strand), BOARD, "U2", JobKind.REPLACE, AS_SHIPPED,
                        Optional.empty()));
        refused("worked on in SB-9 already",
                () -> Strands.begin(MAIN, List.of(), BOARD, "U1", JobKind.REPLACE, AS_SHIPPED,
                        Optional.empty()));
        refused("has no chip \"U7\"",
                () -> Strands.begin(MAIN, List.of(), BOARD, "U7", JobKind.REPLACE, AS_SHIPPED,
                        Optional.empty()));
        refused("choose one of revive, replace",
                () -> Strands.begin(MAIN, List.of(), BOARD, "U2", JobKind.LOOSE, AS_SHIPPED,
                        Optional.empty()));
    }

    private static void refused(String says, org.testng.Assert.ThrowingRunnable act) {
        IllegalArgumentException e = expectThrows(IllegalArgumentException.class, act);
        assertTrue(e.getMessage().contains(says), e.getMessage());
    }

    /** The same chip of a donor of another type is another chip; ids stay apart. */
    @Test
    public void aDonorsChipHasAStrandOfItsOwn() {
        var donor = new Board("WB-8", BOARD.title(), BOARD.sizeMm(), BOARD.thicknessMm(),
                BOARD.copperLayers(),
                BOARD.copperUm(), BOARD.copperCoverage(), BOARD.kThroughWPerMK(), BOARD.chips(),
                BOARD.parts(), BOARD.assumed());
        Job one = strand(JobKind.HARVEST);
        Job two = Strands.begin(MAIN, List.of(one), donor, "U2", JobKind.HARVEST, AS_SHIPPED,
                Optional.empty());
        assertEquals(two.id(), "SB-9-U2-2");
        assertEquals(two.board(), "WB-8");
        assertEquals(Strands.of(one, List.of(two, one, MAIN)), List.of(one, two));
        assertEquals(Strands.main(two, List.of(two, one, MAIN)), Optional.of(MAIN));
        assertEquals(Strands.main(two, List.of(two, one)), Optional.empty());
    }

    /**
     * The donor is another unit of the same board: its chip is no clash, it is opened and made safe by itself, and what the job knows of its own unit says
     * nothing of the donor's cell, screws and joints; what was decided holds for both.
     */
    @Test
    public void aDonorOfTheSameBoardIsAnotherUnit() {
        assertEquals(Strands.freeDonor(List.of(MAIN), BOARD.id(), "U1"), "donor");
        Job donor = Strands.begin(MAIN, List.of(), BOARD, "U1", JobKind.HARVEST, AS_SHIPPED,
                Optional.of("donor"));
        assertEquals(donor.id(), "SB-9-U1");
        assertEquals(Strands.donor(donor), Optional.of("donor"));
        assertTrue(donor.bead("prepare_strip").isPresent(), "it is opened, too");
        assertFalse(Strands.sameUnit(donor, MAIN));
        Job beside = Strands.begin(MAIN, List.of(donor), BOARD, "U2", JobKind.HARVEST, AS_SHIPPED,
                Optional.of("donor"));
        assertTrue(Strands.sameUnit(donor, beside), "two chips of one donor");
        assertEquals(Strands.freeDonor(List.of(MAIN, donor), BOARD.id(), "U1"), "donor-2");
        refused("say that it is a donor",
                () -> Strands.begin(MAIN, List.of(), BOARD, "U1", JobKind.HARVEST, AS_SHIPPED,
                        Optional.empty()));
        refused("worked on in SB-9-U1 already", () -> Strands.begin(MAIN, List.of(donor), BOARD, "U1",
                JobKind.HARVEST, AS_SHIPPED, Optional.of("donor")));
        Job main = MAIN.attest("course_agreed", Attest.YES).attest("screws_mapped", Attest.YES)
                .with(kept("unit-1", "unit", Map.of("battery", "none")))
                .with(kept("waiver-1", "waiver",
                        Map.of("rule", "shield.over-the-chip", "reason", "cut off last year")))
                .with(kept("course-1", "course", Map.of("course", "transplant")))
                .with(kept("exposure-1", "exposure", Map.of("part", "U1", "above_s", 40.0)));
        Job told = Strands.told(donor, List.of(main, donor));
        assertTrue(told.record("SB-9 course-1").isPresent());
        assertEquals(told.records().size(), 1, told.records().toString());
        assertEquals(told.attested("course_agreed"), Attest.YES);
        assertFalse(told.attested("screws_mapped") == Attest.YES, "not the donor's screws");
        var known = judged(donor, List.of(main, donor)).known().facts();
        assertEquals(known.at("board.battery"), Optional.empty(),
                "whether the donor has a cell is not known");
        assertEquals(known.at("chip.exposure_count"), Optional.empty());
    }

    /** What the job knows of the unit the strand knows, with where it stands; what it knows of its own chip stays there. */
    @Test
    public void aStrandKnowsTheUnitAndNotTheOtherChip() {
        Job main = MAIN.attest("course_agreed", Attest.YES).attest("consents_signed", Attest.YES)
                .with(kept("intake-1", "unit", Map.of("revision", "C")))
                .with(kept("chip-1", "chip", Map.of("part", "QX-510", "health", "bad")))
                .with(kept("joint-1", "joint", Map.of("site", "U1", "bi_pct", 58.0)));
        Job strand = strand(JobKind.REPLACE);
        var known = judged(strand, List.of(main, strand)).known();
        assertEquals(known.facts().at("job.consents_signed"), Optional.of(true), "asked once for all");
        assertEquals(known.facts().at("chip.health"), Optional.empty(), "U1 was bad, not U2");
        assertEquals(known.facts().at("job.kind"), Optional.of("replace"));
        Job told = Strands.told(strand, List.of(main, strand));
        assertTrue(told.record("SB-9 joint-1").isPresent() && told.record("SB-9 intake-1").isPresent(),
                told.records().toString());
        assertTrue(told.record("SB-9 chip-1").isEmpty());
        assertEquals(JobFacts.phase(strand), Phase.PLAN);
        assertEquals(known.facts().at("job.phase"), Optional.of((double) Phase.PLAN.ordinal()));
    }

    /** Heat given to one chip counts for its neighbour, whoever works there; on another board it does not. */
    @Test
    public void everyHeatOfAJointCounts() {
        Job strand = strand(JobKind.REPLACE)
                .with(kept("exposure-1", "exposure", Map.of("part", "U1", "above_s", 40.0)))
                .with(kept("exposure-2", "exposure", Map.of("part", "U2", "above_s", 55.0)))
                .with(kept("symptom-1", "symptom", Map.of("words", "of the strand alone")));
        Job main = MAIN.with(kept("exposure-1", "exposure", Map.of("part", "U1", "above_s", 30.0)));
        var known = judged(main, List.of(main, strand)).known();
        assertEquals(known.facts().at("chip.exposure_count"), Optional.of(2.0));
        assertEquals(known.facts().at("chip.exposure_tal_s"), Optional.of(70.0));
        assertTrue(Strands.told(main, List.of(strand)).record("SB-9-U2 symptom-1").isEmpty());
        Job elsewhere = strand.on("WB-8", "U2", "quay-1");
        assertEquals(judged(main, List.of(main, elsewhere)).known().facts().at("chip.exposure_count"),
                Optional.of(1.0));
        assertEquals(judged(main, List.of()).known().facts().at("chip.exposure_count"), Optional.of(1.0));
    }

    /** The job is not closed while a strand is open, and says which. */
    @Test
    public void anOpenStrandHoldsTheClose() {
        Job open = strand(JobKind.HARVEST);
        Job main = MAIN;
        for (Bead bead : MAIN.beads()) {
            main = bead.phase() == Phase.CLOSE ? main : main.with(bead.id(), BeadState.GREEN);
        }
        assertTrue(raised(main, List.of(main, open)).contains("close.strand-not-at-its-end"));
        Job done = open;
        for (Bead bead : open.beads()) {
            done = done.with(bead.id(), BeadState.GREEN);
        }
        assertFalse(raised(main, List.of(main, done)).contains("close.strand-not-at-its-end"));
        assertFalse(raised(main, List.of()).contains("close.strand-not-at-its-end"));
        assertTrue(judged(main, List.of(main, open)).known().facts().at("job.strand_open")
                .filter("SB-9-U2"::equals).isPresent());
    }

    private static List<String> raised(Job job, List<Job> family) {
        return judged(job, family).judged().open().stream().map(n -> n.rule().id()).toList();
    }

    /** No strand is heated before its job has the course agreed and, where it asks for one, the copy; without the job nobody can know. */
    @Test
    public void aHeatWaitsForTheGatesOfTheJob() {
        Job strand = strand(JobKind.TRANSPLANT);
        assertEquals(
                Strands.held(strand, "lift_run", List.of(MAIN, strand)).orElseThrow().gate().orElseThrow()
                        .id(),
                "decide_course");
        Job agreed = MAIN.with("decide_course", BeadState.GREEN);
        assertEquals(Strands.held(strand, "lift_run", List.of(agreed, strand)), Optional.empty());
        Job copies = agreed.withBeads(Routes.shipped().beads(JobKind.TRANSPLANT,
                Routes.recipes(BOARD.id(), "U1"))).with("decide_course", BeadState.GREEN)
                .with("decide_set", BeadState.GREEN).with("decide_copy", BeadState.DONE);
        assertEquals(
                Strands.held(strand, "lift_run", List.of(copies)).orElseThrow().gate().orElseThrow().id(),
                "decide_copy", "ticked is not shown");
        assertEquals(Strands.held(strand, "plan_history", List.of(MAIN, strand)), Optional.empty(),
                "planning harms nothing");
        assertEquals(Strands.held(strand, "lift_run", List.of(strand)),
                Optional.of(new Strands.Held("SB-9", Optional.empty())));
        assertEquals(Strands.held(MAIN, "lift_run", List.of(strand)), Optional.empty());
        Job straps = agreed.withBeads(Routes.shipped().beads(JobKind.MEMORY,
                Routes.recipes(BOARD.id(), "U1"))).with("decide_course", BeadState.GREEN)
                .with("decide_limit", BeadState.GREEN);
        assertEquals(Strands.held(strand(JobKind.MEMORY), "lift_run", List.of(straps)), Optional.empty(),
                "straps are set when all chips are on: they hold none of them");
        assertTrue(strand(JobKind.MEMORY).bead("seat_straps").isEmpty(), "and once for the unit");
    }

    /** Own steps of the house stay in the strand where they stand between plan and seat. */
    @Test
    public void theHouseKeepsItsOwnSteps() {
        String own = OwnSteps.bead(Phase.CLEAN, "Blow the gap dry", List.of("gap is dry")).id();
        var house = HouseRoute.read(JobKind.REPLACE, new HouseRoute(JobKind.REPLACE, List.of(
                new HouseRoute.Step(Phase.CLEAN, own, List.of("gap is dry")))).text());
        Job strand = Strands.begin(MAIN, List.of(), BOARD, "U2", JobKind.REPLACE, house, Optional.empty());
        assertTrue(strand.bead(own).isPresent(), strand.beads().toString());
    }

    /** Open jobs of a customer are counted once, however many chips they have. */
    @Test
    public void aJobOfThreeChipsIsOneJob() {
        Job strand = strand(JobKind.REPLACE);
        Around around = Around.of(strand, "UL-24", List.of(MAIN, strand), List.of(), Practice.ofAny(0));
        assertEquals(around.openOfCustomer(), 1);
        assertEquals(around.family(), List.of(MAIN, strand));
        assertEquals(Around.of(MAIN, "QX-510", List.of(MAIN, strand), List.of(), Practice.ofAny(0))
                .openOfCustomer(), 1);
    }

    /** Its plan is on its own chip. */
    @Test
    public void aStrandIsPlannedOnItsChip() {
        Job strand = strand(JobKind.REPLACE);
        var plan = new RunPlan(RunPlan.Task.LIFT, strand, "lift_run", BOARD, World.bench(),
                World.usualRecipe());
        assertEquals(plan.target().name(), "U2");
    }
}
