package org.greenbead.core.account;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.chip.LookAlikes;
import org.greenbead.core.chip.StockChip;
import org.greenbead.core.route.Job;

/**
 * What the ledger says beside a job.
 *
 * @param openOfCustomer open jobs of the same customer, this one included
 * @param lookAlikes     chips in the house that look like the one of this job, itself included; 0 where it is not in the ledger
 * @param provenRuns     runs of heat of this ledger that ended proven
 * @param chip           the specimen that this job works on, where the ledger knows it by its label
 * @param rails          what the rails of this type of board read on healthy ones
 */
public record Around(int openOfCustomer, int lookAlikes, int provenRuns, Optional<StockChip> chip,
        Map<String, RailReferences.Reference> rails) {
    public Around {
        rails = Map.copyOf(rails);
    }

    public Around(int openOfCustomer, int lookAlikes, int provenRuns) {
        this(openOfCustomer, lookAlikes, provenRuns, Optional.empty(), Map.of());
    }

    /** @param provenRuns runs of heat that ended proven */
    public static Around of(Job job, String part, List<Job> jobs, List<StockChip> chips, int provenRuns) {
        int open = (int) jobs.stream().filter(j -> !j.id().equals(job.id()) && j.inHand().isPresent()
                && j.customer().equalsIgnoreCase(job.customer())).count() + 1;
        Optional<StockChip> chip = LookAlikes.wanted(job.id(), part, chips);
        return new Around(open, chip.map(c -> LookAlikes.of(c, chips).size() + 1).orElse(0), provenRuns,
                chip, RailReferences.learn(jobs, job.board(), job.id()));
    }
}
