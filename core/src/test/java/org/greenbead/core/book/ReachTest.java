package org.greenbead.core.book;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Set;
import org.greenbead.core.route.Attest;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.World;
import org.testng.annotations.Test;

/** Reach is found by asking the code that makes facts; these are facts of which it is known who says them. */
public class ReachTest {
    private static List<Reach.Rule> rules() {
        RunPlan plan = World.plan(World.usualRecipe());
        return new Reach(List.of(new Reach.Sample(World.job(Attest.UNKNOWN), plan.board(), plan.bench(),
                plan.recipe()))).of(RuleBook.shipped());
    }

    private static Reach.Rule rule(String id) {
        return rules().stream().filter(r -> r.id().equals(id)).findFirst().orElseThrow();
    }

    @Test
    public void sourcesAreThoseOfTheCode() {
        assertEquals(rule("prove.rail-short-after-work").sources().get("rails.after_shorts"),
                Set.of(Reach.Source.COMPUTED));
        assertEquals(rule("prove.rail-short-after-work").reached(), Reach.Class.DERIVED);
        assertTrue(rule("safety.lead-bare-fingers").sources().get("ppe.gloves")
                .contains(Reach.Source.TICKED));
        assertTrue(rule("transplant.table-without-origin").sources().get("platform.travel_provenance")
                .contains(Reach.Source.RECORDED));
        assertTrue(rule("beads.bridged").sources().get("balls.bridged").contains(Reach.Source.MEASURED));
        assertEquals(rule("data.milled-away").ofUnknown(), "stop");
    }

    /** A rule about a fact that no record, tick or page holds is found out; and so is one that only repeats a confession. */
    @Test
    public void whatOnlyTypingReachesIsFoundOut() {
        Reach.Rule pasted = rule("units.pair-does-not-convert");
        assertEquals(pasted.sources().get("values[].c"), Set.of(Reach.Source.TYPED));
        assertEquals(pasted.reached(), Reach.Class.UNREACHABLE);
        assertEquals(rules().size(), RuleBook.shipped().rules().size());
        for (Reach.Rule r : rules()) {
            boolean typed = r.sources().values().stream().anyMatch(Set.of(Reach.Source.TYPED)::equals);
            assertEquals(r.reached() == Reach.Class.UNREACHABLE, typed, r.id());
            assertFalse(r.sources().isEmpty() && r.reached() != Reach.Class.DERIVED, r.id());
        }
    }
}
