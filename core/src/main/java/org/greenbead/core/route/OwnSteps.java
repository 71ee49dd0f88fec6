package org.greenbead.core.route;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.book.Phase;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.Kept;

/** Steps that a bench puts into a route itself, and the order of steps. A step of one's own is called by its own words. */
public final class OwnSteps {
    private static final int LONGEST = 60;

    private OwnSteps() {
    }

    /** Whether a step or a check is one's own. */
    public static boolean own(String id) {
        return id.startsWith(Words.OWN);
    }

    /**
     * A step of one's own.
     *
     * @param words  what it is, to 60 characters
     * @param checks what to see to, in words; without any the step is its own check
     */
    public static Bead bead(Phase phase, String words, List<String> checks) {
        String id = id(words);
        List<CheckItem> items = (checks.isEmpty() ? List.of(words) : checks).stream()
                .map(c -> new CheckItem(id(c), Attest.UNKNOWN, "")).toList();
        return new Bead(id, phase, Bead.Kind.CHECK, false, BeadState.OPEN, items, Optional.empty());
    }

    private static String id(String words) {
        String plain = words.strip().replaceAll("\\s+", " ");
        if (plain.isEmpty() || plain.length() > LONGEST || plain.chars().anyMatch(Character::isISOControl)
                || plain.contains("|")) {
            throw new IllegalArgumentException(
                    "\"" + plain + "\" is no name for a step; write 1 to " + LONGEST
                            + " characters without |");
        }
        return Words.OWN + plain;
    }

    /**
     * With a step more.
     *
     * @param after id of the step that it follows, of the same phase; empty = the last of its phase
     * @throws IllegalArgumentException when the job has it already, or what it is to follow is of another phase or already worked past
     */
    public static Job add(Job job, Bead fresh, Optional<String> after, Kept why) {
        fresh.checks().stream().filter(c -> job.asks(c.id())).findFirst().ifPresent(c -> {
            throw new IllegalArgumentException(
                    "the job has \"" + c.id().substring(Words.OWN.length()) + "\" already");
        });
        if (after.isEmpty()) {
            return job.takeIn(fresh, why);
        }
        Bead before = job.bead(after.get()).filter(b -> b.phase() == fresh.phase())
                .orElseThrow(() -> new IllegalArgumentException(
                        "a step stands among those of its phase; \"" + after.get() + "\" is not of it"));
        var longer = new ArrayList<>(job.beads());
        int at = longer.indexOf(before) + 1;
        longer.add(at, fresh);
        if (longer.subList(at + 1, longer.size()).stream().anyMatch(Bead::workedByHand)) {
            throw new IllegalArgumentException("work has gone past that place; put the step further on");
        }
        return job.withBeads(longer).with(why);
    }

    /**
     * One place earlier or later within its phase.
     *
     * @param by -1 or 1
     * @throws IllegalArgumentException where one of the two is worked, heats, or a gate would be passed
     */
    public static Job move(Job job, String beadId, int by, Kept why) {
        List<Bead> beads = new ArrayList<>(job.beads());
        Bead bead = job.bead(beadId)
                .orElseThrow(() -> new IllegalArgumentException("job " + job.id() + " has no such step"));
        int at = beads.indexOf(bead);
        int to = at + Integer.signum(by);
        if (to < 0 || to >= beads.size() || beads.get(to).phase() != bead.phase()) {
            throw new IllegalArgumentException("it stands at the end of its phase; phases keep their order");
        }
        Bead other = beads.get(to);
        if (bead.worked() || other.worked()) {
            throw new IllegalArgumentException("a step that is worked keeps its place");
        }
        if ((fixed(bead) || fixed(other)) && !(own(bead.id()) || own(other.id()))) {
            throw new IllegalArgumentException(
                    "what heats and what is a gate keep their place among the steps of the route; move a step of your own");
        }
        beads.set(at, other);
        beads.set(to, bead);
        return job.withBeads(beads).with(why);
    }

    private static boolean fixed(Bead bead) {
        return bead.gate() || bead.kind() != Bead.Kind.CHECK;
    }
}
