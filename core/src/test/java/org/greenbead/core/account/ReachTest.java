package org.greenbead.core.account;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.greenbead.core.book.BookRule;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.World;
import org.testng.annotations.Test;

/** Reach is found by asking the code that makes facts; these are facts of which it is known who says them. */
public class ReachTest {
    private final Reach reach = new Reach(
            List.of(new Reach.Sample(World.plan(World.usualRecipe()),
                    Optional.of(Rehearsal.of(World.plan(World.usualRecipe()), () -> false)))));

    private List<Reach.Rule> rules() {
        return reach.of(RuleBook.shipped());
    }

    private Reach.Rule rule(String id) {
        return rules().stream().filter(r -> r.id().equals(id)).findFirst().orElseThrow();
    }

    @Test
    public void sourcesAreThoseOfTheCode() {
        assertEquals(rule("prove.rail-short-after-work").sources().get("rails.after_shorts"),
                Set.of(Origin.Source.COMPUTED));
        assertEquals(rule("prove.rail-short-after-work").reached(), Reach.Class.DERIVED);
        assertTrue(rule("safety.lead-bare-fingers").sources().get("ppe.gloves")
                .contains(Origin.Source.TICKED));
        assertTrue(rule("transplant.table-without-origin").sources().get("platform.travel_provenance")
                .contains(Origin.Source.RECORDED));
        assertTrue(rule("beads.bridged").sources().get("balls.bridged").contains(Origin.Source.MEASURED));
        assertEquals(rule("data.milled-away").ofUnknown(), "stop");
    }

    /** Whatever the program may say it does not know has words that a person was asked in. */
    @Test
    public void whatIsNotKnownHasWords() {
        var words = new Words(Locale.ENGLISH, TempUnit.CELSIUS);
        Set<String> asking = RuleBook.shipped().rules().stream().filter(r -> r.unknown().isPresent())
                .map(BookRule::id).collect(Collectors.toSet());
        var raw = new TreeSet<String>();
        for (Reach.Rule rule : rules()) {
            if (asking.contains(rule.id())) {
                rule.sources().keySet().stream()
                        .filter(p -> !FactWords.of(p, words).startsWith("\u201c")
                                && !words.has("fact." + p.replace("[]", "")))
                        .forEach(raw::add);
            }
        }
        assertEquals(raw, Set.of());
    }

    /** A rule about a fact that no record, tick or page holds is found out; and so is one that only repeats a confession. */
    @Test
    public void whatOnlyTypingReachesIsFoundOut() {
        RuleBook own = RuleBook.read(String.join("\n", "[a.b]", "covers = 1", "phase = plan",
                "severity = stop", "when = tool.holder_fits = no and rails.order_ok = no", "what = x",
                "why = y", "remedy = z", "fires = rails.order_ok=no", "silent = rails.order_ok=yes"));
        Reach.Rule wanting = reach.of(own).getFirst();
        assertEquals(wanting.sources().get("rails.order_ok"), Set.of(Origin.Source.TYPED));
        assertEquals(wanting.sources().get("tool.holder_fits"), Set.of(Origin.Source.RECORDED));
        assertEquals(wanting.reached(), Reach.Class.UNREACHABLE);
        assertEquals(rules().size(), RuleBook.shipped().rules().size());
        for (Reach.Rule r : rules()) {
            boolean typed = r.sources().values().stream().anyMatch(Set.of(Origin.Source.TYPED)::equals);
            assertEquals(r.reached() == Reach.Class.UNREACHABLE, typed, r.id());
            assertFalse(r.sources().isEmpty() && r.reached() != Reach.Class.DERIVED, r.id());
        }
    }
}
