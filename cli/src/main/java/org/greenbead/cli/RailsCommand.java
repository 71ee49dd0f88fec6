package org.greenbead.cli;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.electric.Rails;
import org.greenbead.core.proof.ProofWall;
import org.greenbead.core.proof.RailRound;
import org.greenbead.core.route.Job;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** Rails to ground, one after the other. */
@Command(name = "rails", mixinStandardHelpOptions = true, description = "The rails of a job in the order of measuring: where each is read, what a healthy board reads, what was read and what that says; takes readings in. Exit 1 while one is not read or differs.")
final class RailsCommand extends OnJob {
    @Option(names = "--after", description = "The round after the work (default: before it).")
    private boolean after;
    @Option(names = "--read", paramLabel = "NAME=OHM", description = "A reading as the meter shows it, core=18.4, io=1.2k, radio=OL; may be given several times.")
    private Map<String, String> read = new LinkedHashMap<>();
    @Option(names = "--meter", paramLabel = "METER", description = "What it is read with; add \"red on ground\" where the leads are turned. Without it that of the job's bench.")
    private Optional<String> meter = Optional.empty();
    @Option(names = "--json", paramLabel = "OUT", description = "Write the result as JSON.")
    private Path json;

    @Override
    public Integer call() throws Exception {
        Job before = read();
        List<Job> ledger = new JobOnDisk(shared()).jobs();
        Job job = before;
        String with = meter.isPresent()
                ? meter.get()
                : new JobOnDisk(shared()).bench(before.bench()).map(b -> b.equipment().meter()).orElse("");
        for (Map.Entry<String, String> reading : read.entrySet()) {
            RailRound now = RailRound.of(job, ledger, after);
            job = job.with(
                    now.kept(job, reading.getKey(), RailRound.reading(reading.getValue()), with,
                            Instant.now(),
                            author()));
        }
        if (!read.isEmpty()) {
            keep(before, job, "noted", "rails " + String.join(", ", read.keySet()));
        }
        RailRound round = RailRound.of(job, ledger, after);
        var list = new ArrayList<Map<String, Object>>();
        for (RailRound.Stop s : round.stops()) {
            String healthy = !(s.healthyOhm() > 0)
                    ? "nobody knows what a healthy board reads"
                    : String.format(Locale.ROOT, "healthy %s within %.0f %%%s",
                            ProofWall.said(s.healthyOhm(), Locale.ROOT), s.tolerancePct(),
                            s.boards() == 0 ? " (noted)" : " (" + s.boards() + " of this ledger)");
            out().printf(Locale.ROOT, "%-9s %s: %s, %s%s%n", s.verdict().name().toLowerCase(Locale.ROOT),
                    s.name(), s.read() ? ProofWall.said(s.ohm(), Locale.ROOT) : "not read", healthy,
                    s.point().isBlank() ? "" : ", at " + s.point());
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("name", s.name());
            map.put("point", s.point());
            map.put("healthy_ohm", finite(s.healthyOhm()));
            map.put("boards", s.boards());
            map.put("tolerance_pct", s.tolerancePct());
            map.put("ohm", finite(s.ohm()));
            map.put("verdict", s.verdict().name().toLowerCase(Locale.ROOT));
            list.add(map);
        }
        out().println(round.stops().isEmpty()
                ? "no rail is known for this type of board yet"
                : round.next().map(s -> "next: " + s.name()).orElse("all are read"));
        round.further().ifPresent(s -> out().println("side by side, to be read as well: " + s.name()));
        json(json, Map.of("after", after, "rails", list));
        return round.stops().isEmpty() || round.next().isPresent() || !round.odd().isEmpty()
                || round.stops().stream().anyMatch(s -> s.verdict().unsure()) ? 1 : 0;
    }

    private static Double finite(double value) {
        return Double.isFinite(value) ? value : null;
    }
}
