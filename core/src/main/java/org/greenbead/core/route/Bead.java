package org.greenbead.core.route;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.book.Phase;
import org.greenbead.core.quantity.Check;

/**
 * One step of a route.
 *
 * @param id     unique in its job; its words are {@code bead.<id>}
 * @param gate   blocks what follows until it is green
 * @param recipe for a RECIPE or RUN bead, the recipe's id
 */
public record Bead(String id, Phase phase, Kind kind, boolean gate, BeadState state, List<CheckItem> checks,
        Optional<String> recipe) {
    /** What is worked at a bead. */
    public enum Kind {
        CHECK, RECIPE, RUN
    }

    public Bead {
        Check.text("bead", id);
        Check.present("phase of bead " + id, phase);
        Check.present("kind of bead " + id, kind);
        Check.present("state of bead " + id, state);
        checks = List.copyOf(Check.present("checks of bead " + id, checks));
        Check.present("recipe of bead " + id, recipe);
        if (kind != Kind.CHECK && recipe.isEmpty()) {
            throw new IllegalArgumentException("bead " + id + " is of kind " + kind + " and needs a recipe");
        }
        Check.distinct("check", checks, CheckItem::id);
    }

    public Bead as(BeadState now) {
        return new Bead(id, phase, kind, gate, now, checks, recipe);
    }

    /** A bead of checks is green when every one of them is attested, and falls back when one is taken back. */
    Bead attest(String check, Attest word) {
        return seen(checks.stream().map(c -> c.id().equals(check) ? c.as(word) : c).toList());
    }

    /** With one check in another form; a gate does not turn green by that alone. */
    Bead with(String check, CheckItem changed) {
        Bead seen = seen(checks.stream().map(c -> c.id().equals(check) ? changed : c).toList());
        return gate && state != BeadState.GREEN && seen.state == BeadState.GREEN
                ? seen.as(BeadState.DONE)
                : seen;
    }

    private Bead seen(List<CheckItem> changed) {
        boolean all = changed.stream().allMatch(c -> c.state() == Attest.YES);
        BeadState now = kind != Kind.CHECK ? state : all ? BeadState.GREEN : BeadState.OPEN;
        return new Bead(id, phase, kind, gate, now, changed, recipe);
    }

    /** With one check more; how far the bead is stays as it was. */
    Bead asking(CheckItem more) {
        var longer = new java.util.ArrayList<>(checks);
        longer.add(more);
        return new Bead(id, phase, kind, gate, state, longer, recipe);
    }

    /** Worked, and not by what is on record alone. */
    public boolean workedByHand() {
        boolean byItself = !checks.isEmpty() && checks.stream().allMatch(CheckItem::tickedItself);
        return worked() && !byItself;
    }

    public boolean worked() {
        return state != BeadState.OPEN;
    }
}
