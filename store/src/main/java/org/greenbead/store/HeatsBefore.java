package org.greenbead.store;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.odds.Outcomes;
import org.greenbead.core.plan.HeatBefore;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.Strands;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.Verdict;

/** Looks in the ledger for heats on the same type of board. */
public final class HeatsBefore {
    private HeatsBefore() {
    }

    /**
     * What was run before on this board's chip for this purpose, ranked by {@link HeatBefore#ranked}. Runs that were never
     * ended or broken off, and logs that cannot be read are passed over.
     *
     * @param most logs that are opened at most, the newest first
     */
    public static List<HeatBefore> of(Ledger ledger, RunPlan now, int most) {
        var found = new ArrayList<HeatBefore>();
        Map<String, List<Job>> strands = Strands.byJob(ledger.jobs());
        for (RunEntry run : ledger.runs()) {
            if (found.size() >= most) {
                break;
            }
            if (run.outcome().isEmpty()) {
                continue;
            }
            read(ledger, strands, run, now).ifPresent(found::add);
        }
        return HeatBefore.ranked(found);
    }

    private static Optional<HeatBefore> read(Ledger ledger, Map<String, List<Job>> strands, RunEntry run,
            RunPlan now) {
        try {
            Job job = ledger.job(run.jobId());
            if (!job.board().equals(now.board().id()) || !job.target().equals(now.target().name())
                    || run.outcome().filter(Verdict.Outcome.BROKEN_OFF::equals).isPresent()) {
                return Optional.empty();
            }
            RunPlan then = RunLog.header(ledger.logFile(run), ledger.files()).plan();
            return HeatBefore.comparable(then, now)
                    ? Optional.of(HeatBefore.once(run.id(), run.simulated(), run.jobId(), run.startedAt(),
                            then,
                            run.outcome().orElseThrow(), run.peakJointC(), run.aboveS(), run.noProbe(),
                            Outcomes.of(job, strands)))
                    : Optional.empty();
        } catch (BadFileException e) {
            // A job or a log that cannot be read tells nothing; the ledger's own check names it.
            return Optional.empty();
        }
    }
}
