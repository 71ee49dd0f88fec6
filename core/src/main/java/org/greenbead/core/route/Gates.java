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
     * A word on a check. The last check of a gate that a stop holds is not taken: the gate stays shut until the stop is gone or waived.
     *
     * @throws HeldException naming the stop
     */
    public static Job attest(Job job, String check, Attest word, Judged judged) throws HeldException {
        Job changed = job.record(check, word);
        for (Bead bead : changed.beads()) {
            boolean passes = bead.gate() && bead.state() == BeadState.GREEN
                    && job.bead(bead.id()).filter(b -> b.state() == BeadState.GREEN).isEmpty();
            if (passes) {
                List<Noticed> held = holding(job, bead.id(), judged);
                if (!held.isEmpty()) {
                    throw new HeldException(held);
                }
            }
        }
        return changed;
    }

    /** A gate stays shut. */
    public static final class HeldException extends Exception {
        private static final long serialVersionUID = 1L;
        private final transient List<Noticed> stops;

        HeldException(List<Noticed> stops) {
            super(stops.getFirst().rule().what());
            this.stops = List.copyOf(stops);
        }

        public List<Noticed> stops() {
            return stops;
        }
    }
}
