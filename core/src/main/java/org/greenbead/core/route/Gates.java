package org.greenbead.core.route;

import java.util.List;
import org.greenbead.core.book.Judged;
import org.greenbead.core.book.Noticed;
import org.greenbead.core.finding.Severity;

/** What holds a gate: a stop of the rule book that fires in its phase or before. A run of heat is held like a gate. */
public final class Gates {
    private Gates() {
    }

    /** The stops that hold this bead; empty for a bead that is neither gate nor run, or is worked already. */
    public static List<Noticed> holding(Job job, String beadId, Judged judged) {
        return job.bead(beadId)
                .filter(b -> (b.gate() || b.kind() == Bead.Kind.RUN) && b.state() != BeadState.GREEN)
                .map(b -> judged.open().stream().filter(n -> n.rule().severity() == Severity.STOP
                        && n.rule().phase().compareTo(b.phase()) <= 0).toList())
                .orElse(List.of());
    }

    /**
     * A word on a check. It is always taken; a gate whose checks are all seen to while a stop holds it is worked, but not green, and so goes on
     * blocking what follows.
     */
    public static Job attest(Job job, String check, Attest word, Judged judged) {
        Job changed = job.record(check, word);
        for (Bead bead : changed.beads()) {
            boolean passes = bead.gate() && bead.state() == BeadState.GREEN
                    && job.bead(bead.id()).filter(b -> b.state() == BeadState.GREEN).isEmpty();
            if (passes && !holding(job, bead.id(), judged).isEmpty()) {
                changed = changed.with(bead.id(), BeadState.DONE);
            }
        }
        return changed;
    }

    /** Gates whose checks are all seen to turn green once nothing holds them any more. A gate that was passed stays passed. */
    public static Job settle(Job job, Judged judged) {
        Job settled = job;
        for (Bead bead : job.beads()) {
            boolean worked = bead.gate() && bead.kind() == Bead.Kind.CHECK && bead.state() == BeadState.DONE
                    && bead.checks().stream().allMatch(c -> c.state() == Attest.YES);
            if (worked && holding(job, bead.id(), judged).isEmpty()) {
                settled = settled.with(bead.id(), BeadState.GREEN);
            }
        }
        return settled;
    }
}
