package org.greenbead.cli;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.proof.PadRound;
import org.greenbead.core.proof.ProofWall;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.store.BeadMapCsv;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Damaged pads, one after the other. */
@Command(name = "pad", mixinStandardHelpOptions = true, description = "The damaged pads of a job, the gravest first: what each carries, what a meter said, what is still to be measured or put right; takes findings in. Exit 1 while something is open.")
final class PadCommand extends OnJob {
    @Parameters(index = "1", arity = "0..1", paramLabel = "SITE", description = "A pad, such as C4.")
    private String site;
    @Parameters(index = "2..*", paramLabel = "FOUND", description = "What was found there: lifted, missing, scratched or bridged; on or off for its net; leak 4.7M; wire or bonded; mask.")
    private List<String> found = new ArrayList<>();
    @Option(names = "--map", paramLabel = "MAP.csv", description = "Bead map with nets (default: the one that the ledger keeps for this chip).")
    private Path map;
    @Option(names = "--json", paramLabel = "OUT", description = "Write the result as JSON.")
    private Path json;

    @Override
    public Integer call() throws Exception {
        Job job = read();
        Optional<BeadMap> field = map == null
                ? new JobOnDisk(shared()).beadMap(job)
                : Optional.of(BeadMapCsv.read(map));
        if (site != null && found.isEmpty()) {
            throw new IllegalArgumentException(
                    "say what was found at " + site + ", such as: lifted off, or on, or leak 4.7M");
        }
        if (site != null) {
            Kept record = PadRound.kept(job, field, site, PadRound.Found.typed(String.join(" ", found)),
                    Instant.now(), author());
            Job after = job.with(record);
            keep(job, after, "noted", "pad " + site);
            job = after;
        }
        PadRound round = PadRound.of(job, field);
        var list = new ArrayList<Map<String, Object>>();
        for (PadRound.Stop s : round.stops()) {
            out().printf(Locale.ROOT, "%-10s %-6s %s%n", small(s.verdict()), s.site(),
                    words().say("padcarries." + small(s.pad().carries()), PadRound.carried(s)));
            s.pad().leakOhm().ifPresent(
                    ohm -> out().printf("%17s to the pads beside it %s%n", "",
                            ProofWall.said(ohm, Locale.ROOT)));
            Map<String, Object> one = new LinkedHashMap<>();
            one.put("site", s.site());
            one.put("verdict", small(s.verdict()));
            one.put("damage", small(s.pad().damage()));
            one.put("net", s.net());
            one.put("carries", small(s.pad().carries()));
            one.put("others", s.others());
            one.put("continues", s.pad().continues().orElse(null));
            one.put("leak_ohm",
                    s.pad().leakOhm().isPresent() ? s.pad().leakOhm().getAsDouble() : null);
            list.add(one);
        }
        if (field.isEmpty()) {
            out().println("no bead map of this chip: what a pad carries is known only where it is noted");
        }
        out().println(round.stops().isEmpty()
                ? "no pad of this job is called damaged"
                : round.open().isEmpty()
                        ? "nothing is open"
                        : "next: " + round.next().orElse(round.open().getFirst()).site());
        json(json, Map.of("pads", list));
        return round.open().isEmpty() ? 0 : 1;
    }

    private static String small(Enum<?> word) {
        return word.name().toLowerCase(Locale.ROOT);
    }
}
