package org.greenbead.core.account;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.book.Judged;
import org.greenbead.core.book.NotKnown;
import org.greenbead.core.book.Phase;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.RunPlan;

/**
 * A job looked at as a whole, the same for the window and the command line.
 *
 * @param known what is known, with origins
 * @param look  what the book says of it, what nobody knows, and what is shown without ticks
 */
public record Judgement(KnownFacts known, Gates.Look look) {
    /** Nothing looked at yet: nothing stands against it, and nothing is shown. */
    public static final Judgement NONE = new Judgement(KnownFacts.NONE,
            new Gates.Look(new Judged(List.of(), List.of()), List.of(), KnownFacts.NONE));

    /** The heat that still comes on the job's own board: what is to be rehearsed before the job is judged. */
    public static Optional<RunPlan> heat(Job job, Optional<RunPlan> plan) {
        return plan.filter(p -> !p.loose())
                .filter(p -> job.bead(p.bead()).filter(b -> !b.worked()).isPresent());
    }

    /**
     * @param plan      board, bench and recipe where the ledger has them
     * @param around    what the ledger says beside the job
     * @param rehearsal of the next heat
     */
    public static Judgement of(Job job, Optional<RunPlan> plan, Optional<Around> around,
            Optional<Rehearsal> rehearsal, RuleBook book, RuleBook.Settings limits) {
        KnownFacts known = JobFacts.known(job, plan, around, rehearsal);
        Judged judged = Judged.of(book, known.facts(), limits);
        return new Judgement(known, new Gates.Look(
                // Intake and decision are those of the job; what is amiss there is told there, once. What stops a heat is told everywhere.
                job.strandOf().isPresent() ? judged.from(Phase.PLAN) : judged,
                book.notKnown(known.facts(), limits, JobFacts.phase(job)),
                JobFacts.evidence(job, plan, around)));
    }

    public Judged judged() {
        return look.judged();
    }

    /** What the book asks for and nobody knows. */
    public List<NotKnown> notKnown() {
        return look.notKnown();
    }
}
