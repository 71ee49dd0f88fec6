package org.greenbead.cli;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.core.travel.DonorFit;
import org.greenbead.core.travel.LiftOrder;
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
        Kept unit = job.records("unit").stream().reduce((a, b) -> b).orElseThrow(
                () -> new IllegalArgumentException(
                        "the platform is not noted; note it with: greenbead note " + name()
                                + " unit platform=.. generation=.."));
        Optional<Integer> generation = Double.isFinite(unit.number("generation"))
                ? Optional.of((int) unit.number("generation"))
                : Optional.empty();
        TravelTable.Bound bound = TravelCsv.read(table).of(unit.text("platform"), generation);
        if (!bound.known()) {
            out().println("stop: no row covers platform \"" + unit.text("platform") + "\""
                    + generation.map(g -> ", generation " + g).orElse(", no generation noted")
                    + ". Find out what travels, and where that is written, before anything is heated.");
            return 1;
        }
        Set<String> moving = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
        moving.addAll(moved.isEmpty()
                ? bound.rows().stream().filter(r -> r.need() != TravelTable.Need.NEVER)
                        .map(TravelTable.Row::chip).toList()
                : moved);
        for (TravelTable.Row row : bound.rows()) {
            out().printf(Locale.ROOT, "%-6s %-8s %s %s (%s%s)%n", row.need().name().toLowerCase(Locale.ROOT),
                    row.chip(),
                    moving.contains(row.chip()) ? "moves" : "stays", row.reason(), row.source(),
                    row.date().isEmpty() ? ", undated" : ", " + row.date());
        }
        bound.missing(moving).forEach(r -> out().println("missing: " + r.chip() + " must travel"));
        bound.illegal(moving).forEach(r -> out().println("must stay: " + r.chip()));
        boolean fits = donor(job, unit);
        order(job, bound, moving);
        keep(job, written(job, bound, moving), "noted", "travelling set");
        return bound.missing(moving).isEmpty() && bound.illegal(moving).isEmpty() && fits ? 0 : 1;
    }

    private boolean donor(Job job, Kept unit) {
        Optional<DonorFit> fit = job.records("donor").stream().reduce((a, b) -> b)
                .map(d -> DonorFit.of(unit, d));
        if (fit.isEmpty()) {
            out().println("donor: none is noted");
            return false;
        }
        fit.get().differ().forEach(f -> out().println("donor: " + f.replace('_', ' ') + " differs"));
        fit.get().ask()
                .forEach(f -> out().println("donor: " + f.replace('_', ' ') + " is not noted of both"));
        fit.get().fits().filter(f -> f).ifPresent(f -> out().println("donor: fits"));
        return fit.get().fits().orElse(false);
    }

    private void order(Job job, TravelTable.Bound bound, Set<String> moving) throws Exception {
        Optional<Board> board = new JobOnDisk(shared()).board(job.board());
        if (board.isEmpty()) {
            return;
        }
        List<Chip> chips = board.get().chips().stream().filter(c -> moving.contains(c.name())).toList();
        Set<String> lives = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
        lives.addAll(data.isEmpty()
                ? bound.of(TravelTable.Need.MUST).stream().map(TravelTable.Row::chip).toList()
                : data);
        List<Chip> precious = chips.stream().filter(c -> lives.contains(c.name())).toList();
        if (chips.size() > 1) {
            out().println("lift: " + names(LiftOrder.of(chips, precious, false)));
            out().println("seat: " + names(LiftOrder.of(chips, precious, true)));
        }
    }

    private static String names(LiftOrder.Order order) {
        return order.chips().stream().map(Chip::name).collect(Collectors.joining(", "))
                + String.format(Locale.ROOT, " (%.2f heats of others on the data)", order.heats());
    }

    /** One record a chip, the way a person would write it down. */
    private Job written(Job job, TravelTable.Bound bound, Set<String> moving) {
        Instant now = Instant.now();
        Job out = job;
        for (TravelTable.Row row : bound.rows()) {
            Job before = out;
            Kept record = out.records("transplant").stream()
                    .filter(t -> t.text("chip").equalsIgnoreCase(row.chip()))
                    .findFirst().orElseGet(() -> new Kept(before.freeId("transplant"), "transplant", now,
                            author(), Map.of()));
            Map<String, Object> fields = new LinkedHashMap<>();
            fields.put("chip", row.chip());
            fields.put("reason", row.reason().isEmpty() ? null : row.reason());
            fields.put("table", row.source());
            fields.put("date", row.date().isEmpty() ? null : row.date());
            fields.put("must", row.need() == TravelTable.Need.MUST);
            fields.put("never", row.need() == TravelTable.Need.NEVER ? true : null);
            fields.put("moves", moving.contains(row.chip()));
            for (Map.Entry<String, Object> field : fields.entrySet()) {
                record = record.with(field.getKey(), field.getValue(), now, author());
            }
            out = out.with(record);
        }
        return JobFacts.settled(out);
    }
}
