package org.greenbead.cli;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import org.greenbead.core.board.Chip;
import org.greenbead.core.route.Job;
import org.greenbead.core.travel.DonorFit;
import org.greenbead.core.travel.LiftOrder;
import org.greenbead.core.travel.TravelSet;
import org.greenbead.core.travel.TravelTable;
import org.greenbead.store.TravelCsv;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** What has to move with the data. */
@Command(name = "travel", mixinStandardHelpOptions = true, description = "Which chips must, should and must not move with the data, from a table with its source, whether the donor fits, and in which order they are lifted and seated; kept with the job. Exit 1 when no row covers the platform, something is missing, something must stay, or the donor does not fit.")
final class TravelCommand extends OnJob {
    @Parameters(index = "1", paramLabel = "TABLE", description = "CSV: platform,generation,chip,need,reason,source,date.")
    private Path table;
    @Option(names = "--moved", split = ",", paramLabel = "CHIP", description = "Chips that are to move (default: the ones that must and should).")
    private List<String> moved = new ArrayList<>();
    @Option(names = "--data-chips", split = ",", paramLabel = "CHIP", description = "Chips that hold what must live (default: the ones that must move).")
    private List<String> data = new ArrayList<>();

    @Override
    public Integer call() throws Exception {
        Job job = read();
        TravelSet set = TravelSet.of(job, TravelCsv.read(table), new JobOnDisk(shared()).board(job.board()),
                moved, data);
        if (set.platform().isEmpty()) {
            throw new IllegalArgumentException("the platform is not noted; note it with: greenbead note "
                    + name() + " unit platform=.. generation=..");
        }
        if (!set.bound().known()) {
            out().println("stop: no row covers platform \"" + set.platform().get() + "\""
                    + set.generation().map(g -> ", generation " + g).orElse(", no generation noted")
                    + ". Find out what travels, and where that is written, before anything is heated.");
            return 1;
        }
        for (TravelTable.Row row : set.bound().rows()) {
            out().printf(Locale.ROOT, "%-6s %-8s %s %s (%s%s)%n", row.need().name().toLowerCase(Locale.ROOT),
                    row.chip(), set.moves(row) ? "moves" : "stays", row.reason(), row.source(),
                    row.date().isEmpty() ? ", undated" : ", " + row.date());
        }
        set.missing().forEach(r -> out().println("missing: " + r.chip() + " must travel"));
        set.illegal().forEach(r -> out().println("must stay: " + r.chip()));
        donor(set);
        set.lift().ifPresent(o -> out().println("lift: " + names(o)));
        set.seat().ifPresent(o -> out().println("seat: " + names(o)));
        keep(job, set.written(job, Instant.now(), author()), "noted", "travelling set");
        return set.ready() ? 0 : 1;
    }

    private void donor(TravelSet set) {
        if (set.donor().isEmpty()) {
            out().println("donor: none is noted");
            return;
        }
        DonorFit fit = set.donor().get();
        fit.differ().forEach(f -> out().println("donor: " + f.replace('_', ' ') + " differs"));
        fit.ask().forEach(f -> out().println("donor: " + f.replace('_', ' ') + " is not noted of both"));
        fit.fits().filter(f -> f).ifPresent(f -> out().println("donor: fits"));
    }

    private static String names(LiftOrder.Order order) {
        return order.chips().stream().map(Chip::name).collect(Collectors.joining(", "))
                + String.format(Locale.ROOT, " (%.2f heats of others on the data)", order.heats());
    }
}
