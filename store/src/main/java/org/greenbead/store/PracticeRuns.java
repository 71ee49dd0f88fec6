package org.greenbead.store;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.greenbead.core.account.Practice;
import org.greenbead.core.odds.Outcomes;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.Verdict;

/** Proven heats of a ledger, each read from its log once. May be shared by threads. */
final class PracticeRuns {
    /** More say no more: what is asked is whether there were any. */
    private static final int NEWEST = 100;
    private final Map<String, Optional<Practice.Heat>> known = new ConcurrentHashMap<>();

    /** @param madeUp whether the simulated bench is the one that this house has */
    Practice of(Ledger ledger, Optional<RunPlan> job, boolean madeUp) {
        Set<String> drills = ledger.jobs().stream().filter(Outcomes::drill).map(Job::id)
                .collect(Collectors.toSet());
        List<Practice.Heat> proven = ledger.runs().stream()
                .filter(r -> r.outcome().filter(Verdict.Outcome.PROVEN::equals).isPresent()).limit(NEWEST)
                .flatMap(r -> known.computeIfAbsent(r.id(), id -> read(ledger, r)).stream()
                        .map(h -> h.on(drills.contains(r.jobId()))))
                .toList();
        return Practice.of(job, proven, madeUp);
    }

    private static Optional<Practice.Heat> read(Ledger ledger, RunEntry run) {
        try {
            RunHeader header = RunLog.header(ledger.logFile(run), ledger.files());
            return Optional.of(Practice.Heat.of(header.plan(), run.simulated(), false));
        } catch (BadFileException e) {
            // A log that cannot be read trains nobody; the ledger's own check names it.
            return Optional.empty();
        }
    }
}
