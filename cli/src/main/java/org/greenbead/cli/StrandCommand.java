package org.greenbead.cli;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Strands;
import org.greenbead.store.Ledger;
import org.greenbead.store.NewStrand;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Jobs with several chips. */
@Command(name = "strand", mixinStandardHelpOptions = true, description = "Takes a further chip into a job of the ledger: it gets beads of its own from the plan to the seat, and a number of its own for tick, note, run and check. Without CHIP: the chips of the job and how far each is.")
final class StrandCommand extends Verb {
    @Parameters(index = "0", paramLabel = "JOB", description = "The number of a job in the ledger, or of one of its strands.")
    private String name;
    @Parameters(index = "1", arity = "0..1", paramLabel = "CHIP", description = "The further chip, as it is called on its board.")
    private Optional<String> chip = Optional.empty();
    @Option(names = "--kind", paramLabel = "KIND", description = "What is done with it: revive, replace, transplant, memory, storage, package, milled, flex, harvest (default: as the job).")
    private Optional<String> kind = Optional.empty();
    @Option(names = "--board", paramLabel = "BOARD", description = "The board it sits on, where that is a donor (default: the board of the job).")
    private Optional<String> board = Optional.empty();
    @Option(names = "--donor", description = "It sits on another unit than that of the job, also where that is of the same board: it is opened, made safe and known by itself.")
    private boolean donor;
    @Option(names = "--author", defaultValue = "", description = "Who does it.")
    private String author;

    @Override
    public Integer call() throws Exception {
        try (Ledger ledger = shared().ledger()) {
            Job job = ledger.job(name);
            if (chip.isPresent()) {
                String on = board.orElse(job.board());
                Optional<String> unit = donor
                        ? Optional.of(Strands.freeDonor(
                                Stream.concat(Stream.of(job), Strands.of(job, ledger.jobs()).stream())
                                        .toList(),
                                on, chip.get()))
                        : Optional.empty();
                Job strand = NewStrand.begin(ledger, job, on, chip.get(), kind(job), unit,
                        java.time.Instant.now(), author);
                out().println("begun: " + strand.id());
                strand.beads().forEach(b -> out().println("  " + CheckCommand.small(b.phase()) + "  "
                        + shared().words().say("bead." + b.id()) + (b.gate() ? " (gate)" : "")));
                return 0;
            }
            List<Job> jobs = ledger.jobs();
            Optional<Job> main = job.strandOf().isEmpty() ? Optional.of(job) : Strands.main(job, jobs);
            if (main.isEmpty()) {
                out().println("its job " + job.strandOf().orElse("")
                        + " is not in this ledger, or damaged: no heat of it may begin");
            }
            Stream.concat(main.stream(), Strands.of(job, jobs).stream())
                    .forEach(j -> out().printf(Locale.ROOT,
                            "%-16s %-8s %-6s %-14s %d of %d beads, %s%s%n", j.id(), j.board(), j.target(),
                            JobFacts.kind(j).map(k -> shared().words().say("kind." + k.key())).orElse("-"),
                            j.beads().stream().filter(Bead::worked).count(), j.beads().size(),
                            j.inHand().map(b -> "at " + at(b, shared().words())).orElse("at its end"),
                            Strands.donor(j).map(d -> ", " + d).orElse("")));
            return 0;
        }
    }

    private static String at(Bead bead, Words words) {
        return words.say("bead." + bead.id());
    }

    private JobKind kind(Job job) {
        String wanted = kind.or(() -> JobFacts.kind(job).map(JobKind::key)).orElseThrow(
                () -> new IllegalArgumentException("say what is done with the chip: --kind replace"));
        try {
            return JobKind.valueOf(wanted.toUpperCase(Locale.ROOT));
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("there is no kind \"" + wanted + "\"; choose one of "
                    + String.join(", ", org.greenbead.core.route.Routes.shipped().strandKinds().stream()
                            .map(JobKind::key).toList()),
                    e);
        }
    }
}
