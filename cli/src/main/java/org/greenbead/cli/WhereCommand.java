package org.greenbead.cli;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.greenbead.core.account.Figures;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.route.Job;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Where figures come from. */
@Command(name = "where", mixinStandardHelpOptions = true, description = "Every figure that is known of a job with where it comes from, who wrote it when, and what stood there before; exit 1 when nothing is known of the things that were named.")
final class WhereCommand extends OnJob {
    @Parameters(index = "1", arity = "0..*", paramLabel = "THING", description = "What they are of: chip, board, rails, plan, test, ... (default: everything).")
    private List<String> about = List.of();
    @Option(names = "--json", paramLabel = "OUT", description = "Write them as JSON.")
    private Path json;

    @Override
    public Integer call() throws Exception {
        Job job = read();
        Words words = words();
        List<Figures.Figure> figures = Figures.of(job, judged(job).known(), about, words);
        for (Figures.Figure f : figures) {
            out().printf(Locale.ROOT, "%-34s %-16s %s, %s%s%n", f.path(), f.value(),
                    words.say("source." + f.source().name().toLowerCase(Locale.ROOT)), f.from(),
                    f.said().map(s -> ", " + when(s)).orElse(""));
            f.earlier().forEach(e -> out().printf(Locale.ROOT, "%-34s before: %s, %s%n", "",
                    e.value().isEmpty() ? "nothing" : e.value(), when(e)));
        }
        json(json, Map.of("figures", figures.stream().map(WhereCommand::row).toList()));
        return figures.isEmpty() ? 1 : 0;
    }

    private static String when(Figures.Said said) {
        return said.at() + (said.by().isEmpty() ? "" : " " + said.by());
    }

    private static Map<String, Object> row(Figures.Figure f) {
        var row = new LinkedHashMap<String, Object>();
        row.put("fact", f.path());
        row.put("value", f.value());
        row.put("source", f.source().name().toLowerCase(Locale.ROOT));
        row.put("from", f.from());
        f.said().ifPresent(s -> {
            row.put("at", s.at().toString());
            row.put("by", s.by());
        });
        row.put("earlier", f.earlier().stream()
                .map(e -> Map.of("value", e.value(), "at", e.at().toString(), "by", e.by())).toList());
        return row;
    }
}
