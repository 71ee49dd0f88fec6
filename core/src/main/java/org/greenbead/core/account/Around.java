package org.greenbead.core.account;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.chip.LookAlikes;
import org.greenbead.core.chip.StockChip;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.Strands;

/**
 * What the ledger says beside a job.
 *
 * @param openOfCustomer open jobs of the same customer, this one included
 * @param lookAlikes     chips in the house that look like the one of this job, itself included; 0 where it is not in the ledger
 * @param practice       how often the like was done here
 * @param chip           the specimen that this job works on, where the ledger knows it by its label
 * @param rails          what the rails of this type of board read on healthy ones
 * @param family         the job that this one is a strand of, and all strands; empty where there are none
 */
public record Around(int openOfCustomer, int lookAlikes, Practice practice, Optional<StockChip> chip,
        Map<String, RailReferences.Reference> rails, List<Job> family) {
    public Around {
        rails = Map.copyOf(rails);
        family = List.copyOf(family);
    }

    public Around(int openOfCustomer, int lookAlikes, Practice practice) {
        this(openOfCustomer, lookAlikes, practice, Optional.empty(), Map.of(), List.of());
    }

    /** @param practice how often the like was done here */
    public static Around of(Job job, String part, List<Job> jobs, List<StockChip> chips,
            Practice practice) {
        String main = job.strandOf().orElse(job.id());
        int open = (int) jobs.stream().filter(j -> !j.id().equals(main) && j.strandOf().isEmpty()
                && j.inHand().isPresent() && j.customer().equalsIgnoreCase(job.customer())).count() + 1;
        Optional<StockChip> chip = LookAlikes.wanted(job.id(), part, chips);
        return new Around(open, chip.map(c -> LookAlikes.of(c, chips).size() + 1).orElse(0), practice,
                chip, RailReferences.learn(jobs, job.board(), main), Strands.family(job, jobs));
    }

    /** Strands of this job that are not at their end; a strand has none. */
    List<Job> openStrands(Job job) {
        return family.stream().filter(j -> j.strandOf().equals(Optional.of(job.id())))
                .filter(j -> j.inHand().isPresent()).toList();
    }
}
