package org.greenbead.core.proof;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;

/**
 * How sure a repair is, as one letter with its reason. A: every heat was proven with a probe at the joint and a second kind of evidence, and every
 * proof holds. B: every heat was proven, and every proof holds. C: the complaints pass. D: anything else. A rail that is off lowers it by one. Rule
 * of thumb of the trade.
 *
 * @param letter {@code 'a'} to {@code 'd'}
 * @param key    why, {@code confidence.<key>}
 */
public record Confidence(char letter, String key) {
    private static final String PROBE = "probe_at_joint";

    /**
     * Empty where nothing was heated: there is no repair to be sure of.
     *
     * @param job     whose heats count
     * @param strands its further chips: the board is as sure as its least sure joint
     */
    public static Optional<Confidence> of(Job job, List<Job> strands, List<ProofWall.Proof> proofs) {
        List<Kept> heats = Stream.concat(Stream.of(job), strands.stream()).flatMap(Confidence::heats)
                .toList();
        if (heats.isEmpty()) {
            return Optional.empty();
        }
        boolean proven = heats.stream().allMatch(r -> r.yes("proven"));
        boolean probed = proven
                && heats.stream().allMatch(r -> r.fields().get("evidence") instanceof List<?> e
                        && e.contains(PROBE) && e.size() > 1);
        boolean complaints = proofs.stream().filter(p -> p.kind() == ProofWall.Kind.COMPLAINT)
                .allMatch(p -> p.state() == ProofWall.State.HOLDS)
                && proofs.stream().anyMatch(p -> p.kind() == ProofWall.Kind.COMPLAINT);
        boolean all = ProofWall.answer(proofs) == ProofWall.Answer.PROVEN;
        Confidence found = probed && all
                ? new Confidence('a', "probed")
                : proven && all
                        ? new Confidence('b', "proven")
                        : complaints
                                ? new Confidence('c', proven ? "untested" : "unproven")
                                : new Confidence('d', "complaint");
        boolean rail = proofs.stream().anyMatch(
                p -> p.kind() == ProofWall.Kind.RAIL && p.state() == ProofWall.State.FAILS);
        return Optional.of(rail && found.letter < 'd'
                ? new Confidence((char) (found.letter + 1), "rail")
                : found);
    }

    /** The last heat of the board at each step. */
    private static Stream<Kept> heats(Job job) {
        return job.beads().stream()
                .flatMap(b -> job.records("run").stream().filter(r -> r.text("bead").equals(b.id()))
                        .filter(r -> !r.text("kind").equals("form")).reduce((x, y) -> y).stream());
    }

    public String said(Words words) {
        return Character.toUpperCase(letter) + ": " + words.say("confidence." + key);
    }
}
