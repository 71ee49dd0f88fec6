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
import java.util.Optional;
import org.greenbead.core.account.Gates;
import org.greenbead.core.account.Judgement;
import org.greenbead.core.book.Phase;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.Kept;
import org.greenbead.core.run.World;
import org.testng.annotations.Test;

/** Steps of one's own, their order, and the way of the house. */
public class OwnStepsTest {
    private static final Instant NOON = Instant.parse("2031-04-02T12:00:00Z");
    private static final Words WORDS = new Words(Locale.ENGLISH, TempUnit.CELSIUS);

    private static Job job() {
        Job job = World.job(Attest.UNKNOWN)
                .withBeads(Routes.shipped().beads(JobKind.REVIVE, Routes.recipes("WB-7", "U1")));
        return job.with(job.facts().with("job.kind=revive"));
    }

    private static Kept why(String what) {
        return new Kept("route_change-9", "route_change", NOON, "A",
                Map.of("change", what, "reason", "the customer asked for it"));
    }

    private static List<String> ids(Job job, Phase phase) {
        return job.beads().stream().filter(b -> b.phase() == phase).map(Bead::id).toList();
    }

    /** It is called by its words, stands where it was put, and is worked like any other. */
    @Test
    public void ownStepIsWorkedLikeAnyOther() {
        Bead own = OwnSteps.bead(Phase.CLEAN, "Fit the  heat shield",
                List.of("Two screws", "Thermal pad new"));
        Job job = OwnSteps.add(job(), own, Optional.of("clean_flat"), why("added"));
        List<String> clean = ids(job, Phase.CLEAN);
        assertEquals(clean.indexOf("own:Fit the heat shield"), clean.indexOf("clean_flat") + 1);
        assertEquals(WORDS.say("bead.own:Fit the heat shield"), "Fit the heat shield");
        assertEquals(WORDS.say("check.own:Two screws"), "Two screws");
        Judgement judged = Judgement.of(job, Optional.empty(), Optional.empty(), Optional.empty(),
                RuleBook.shipped(), RuleBook.Settings.STANDARD);
        Job one = Gates.attest(job, "own:Two screws", Attest.YES, judged.look());
        assertEquals(one.bead(own.id()).orElseThrow().state(), BeadState.OPEN);
        Job both = Gates.attest(one, "own:Thermal pad new", Attest.YES, judged.look());
        assertEquals(both.bead(own.id()).orElseThrow().state(), BeadState.GREEN);
    }

    @Test
    public void withoutChecksItIsItsOwnCheckAndStandsLast() {
        Job job = OwnSteps.add(job(), OwnSteps.bead(Phase.PROVE, "Float test in the tank", List.of()),
                Optional.empty(), why("added"));
        assertEquals(ids(job, Phase.PROVE).getLast(), "own:Float test in the tank");
        assertTrue(job.asks("own:Float test in the tank"));
    }

    @Test
    public void refusedInWords() {
        Bead own = OwnSteps.bead(Phase.CLEAN, "Look twice", List.of());
        Job with = OwnSteps.add(job(), own, Optional.empty(), why("added"));
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> OwnSteps.add(with, own, Optional.empty(), why("added"))).getMessage()
                .contains("already"));
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> OwnSteps.add(job(), own, Optional.of("seat_place"), why("added"))).getMessage()
                .contains("of its phase"));
        for (String bad : new String[]{"", "  ", "a|b", "x".repeat(61), "a\u0007b"}) {
            assertTrue(expectThrows(IllegalArgumentException.class,
                    () -> OwnSteps.bead(Phase.CLEAN, bad, List.of())).getMessage()
                    .contains("no name for a step"));
        }
    }

    @Test
    public void stepsMoveWithinTheirPhaseAndNeverOverAGate() {
        Job job = OwnSteps.add(job(), OwnSteps.bead(Phase.CLEAN, "Look twice", List.of()), Optional.empty(),
                why("added"));
        List<String> was = ids(job, Phase.CLEAN);
        Job moved = OwnSteps.move(job, "own:Look twice", -1, why("earlier"));
        assertEquals(ids(moved, Phase.CLEAN).indexOf("own:Look twice"), was.size() - 2);
        assertEquals(ids(OwnSteps.move(moved, "own:Look twice", 1, why("later")), Phase.CLEAN), was);
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> OwnSteps.move(job, "own:Look twice", 1, why("later"))).getMessage().contains("phase"));
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> OwnSteps.move(job, "clean_flat", -1, why("earlier"))).getMessage().contains("gate"));
        Job worked = job.with("clean_board", BeadState.GREEN);
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> OwnSteps.move(worked, "clean_board", 1, why("later"))).getMessage().contains("worked"));
    }

    /** What guards a person or data stays, in every route that has it. */
    @Test
    public void whatGuardsIsNeverLeftOut() {
        var seen = new HashSet<String>();
        for (JobKind kind : JobKind.values()) {
            Job job = World.job(Attest.UNKNOWN)
                    .withBeads(Routes.shipped().beads(kind, Routes.recipes("WB-7", "U1")));
            for (Bead bead : job.beads()) {
                if (Routes.shipped().keeps(bead.id())) {
                    seen.add(bead.id());
                    assertTrue(expectThrows(IllegalArgumentException.class,
                            () -> job.leaveOut(bead.id(), why("left_out"))).getMessage().contains("guards"));
                }
            }
        }
        assertTrue(seen.containsAll(List.of("prepare_power", "prepare_fixture", "decide_copy", "plan_mill",
                "prove_rails", "decide_course")), seen.toString());
        assertFalse(job().leaveOut("plan_kit", why("left_out")).bead("plan_kit").isPresent());
    }

    /** A way that was kept gives the same steps again, open; and what must be there comes back into its place. */
    @Test
    public void wayOfTheHouseComesBack() {
        Job mine = OwnSteps.add(job(), OwnSteps.bead(Phase.CLEAN, "Look twice", List.of("Left", "Right")),
                Optional.of("clean_board"), why("added")).leaveOut("plan_kit", why("left_out"));
        HouseRoute route = HouseRoute.of(JobKind.REVIVE, mine);
        assertEquals(HouseRoute.read(JobKind.REVIVE, route.text()), route);
        List<Bead> shipped = Routes.shipped().beads(JobKind.REVIVE, Routes.recipes("TG-2", "U2"));
        List<Bead> again = route.over(shipped);
        assertEquals(again.stream().map(Bead::id).toList(), mine.beads().stream().map(Bead::id).toList());
        assertTrue(again.stream().noneMatch(Bead::worked));
        assertEquals(again.stream().flatMap(b -> b.recipe().stream()).toList(),
                shipped.stream().flatMap(b -> b.recipe().stream()).toList(), "recipes of the new board");
        assertEquals(new HouseRoute(JobKind.REVIVE, List.of()).over(shipped), shipped);
        HouseRoute cut = HouseRoute.read(JobKind.REVIVE,
                "intake|intake_record|\nnonsense\nsauna|x|\nclean|own:Only mine|");
        List<String> left = cut.over(shipped).stream().map(Bead::id).toList();
        assertTrue(left.containsAll(
                List.of("intake_record", "own:Only mine", "prepare_power", "lift_run", "seat_run",
                        "prove_rails")),
                left.toString());
        assertFalse(left.contains("plan_kit"));
        assertEquals(job().withBeads(cut.over(shipped)).beads().size(), left.size(), "phases are in order");
    }
}
