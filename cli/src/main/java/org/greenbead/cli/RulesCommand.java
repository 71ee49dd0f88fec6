package org.greenbead.cli;

import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import org.greenbead.core.account.Reach;
import org.greenbead.core.book.BookRule;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.book.RuleSheet;
import org.greenbead.core.book.Wording;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.RunPlan;
import org.greenbead.store.BadFileException;
import org.greenbead.store.DemoWorld;
import org.greenbead.store.OpenFiles;
import org.greenbead.store.SafeFiles;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Lists the rule book. */
@Command(name = "rules", mixinStandardHelpOptions = true, description = "Lists the rule book: every rule with what it asks for, its thresholds and its source.")
final class RulesCommand implements Callable<Integer> {
    @Mixin
    private Shared shared;
    @Spec
    private CommandSpec spec;
    @Option(names = "--json", paramLabel = "OUT", description = "Write the book as JSON.")
    private Path json;
    @Option(names = "--reach", description = "Says where the facts of every rule can come from when a job is worked; with --json the whole of it.")
    private boolean reach;
    @Option(names = "--markdown", paramLabel = "OUT", description = "Write the book as docs/rules.md has it.")
    private Path markdown;

    @Override
    public Integer call() throws Exception {
        RuleBook book = RuleBook.shipped();
        PrintWriter out = spec.commandLine().getOut();
        if (reach) {
            return reach(book, out);
        }
        for (BookRule rule : book.rules()) {
            out.printf("%-5s %-8s %-40s %s%n", CheckCommand.small(rule.severity()),
                    CheckCommand.small(rule.phase()), rule.id(), rule.what());
        }
        if (json != null) {
            SafeFiles.write(json, shared.files().print(book.rules().stream().map(r -> json(book, r)).toList())
                    .getBytes(StandardCharsets.UTF_8));
        }
        if (markdown != null) {
            SafeFiles.write(markdown, sheet(book).getBytes(StandardCharsets.UTF_8));
        }
        return 0;
    }

    /** The book to read, each rule with where its facts come from. */
    static String sheet(RuleBook book) throws BadFileException {
        Map<String, Reach.Rule> reached = reached(book).stream()
                .collect(Collectors.toMap(Reach.Rule::id, r -> r));
        return RuleSheet.of(book, id -> small(reached.get(id).reached()) + ". "
                + String.join(", ", reached.get(id).sources().entrySet().stream()
                        .map(e -> "`" + e.getKey() + "` "
                                + String.join(" or ",
                                        e.getValue().stream().map(RulesCommand::small).toList()))
                        .toList()));
    }

    private static List<Reach.Rule> reached(RuleBook book) throws BadFileException {
        var samples = new ArrayList<Reach.Sample>();
        for (RunPlan plan : new DemoWorld(new OpenFiles()).plans()) {
            // One rehearsal shows what rehearsing says; the boards differ in what they hold, not in that.
            samples.add(new Reach.Sample(plan,
                    samples.isEmpty() ? Optional.of(Rehearsal.of(plan, () -> false)) : Optional.empty()));
        }
        return new Reach(samples).of(book);
    }

    /** Found by asking the code that makes facts, on the boards of the example jobs. */
    private int reach(RuleBook book, PrintWriter out) throws Exception {
        List<Reach.Rule> rules = reached(book);
        var count = new EnumMap<Reach.Class, Integer>(Reach.Class.class);
        for (Reach.Rule rule : rules) {
            count.merge(rule.reached(), 1, Integer::sum);
            out.printf("%-12s %-8s %-42s %s%n", small(rule.reached()), rule.ofUnknown(), rule.id(),
                    String.join(" ", rule.sources().entrySet().stream()
                            .map(e -> e.getKey() + ":" + String.join("+",
                                    e.getValue().stream().map(RulesCommand::small).toList()))
                            .toList()));
        }
        out.println(count.entrySet().stream().map(e -> small(e.getKey()) + " " + e.getValue())
                .collect(Collectors.joining(", ")) + " of " + rules.size());
        if (json != null) {
            SafeFiles.write(json, shared.files().print(rules.stream().map(r -> {
                var map = new LinkedHashMap<String, Object>();
                map.put("rule", r.id());
                map.put("severity", CheckCommand.small(r.severity()));
                map.put("facts", r.sources().entrySet().stream().map(e -> Map.of("fact", e.getKey(), "from",
                        e.getValue().stream().map(RulesCommand::small).toList())).toList());
                map.put("class", small(r.reached()));
                map.put("unknown", r.ofUnknown());
                return map;
            }).toList()).getBytes(StandardCharsets.UTF_8));
        }
        return 0;
    }

    private static String small(Enum<?> word) {
        return word.name().toLowerCase(Locale.ROOT);
    }

    private static Map<String, Object> json(RuleBook book, BookRule rule) {
        var map = new LinkedHashMap<String, Object>();
        map.put("rule", rule.id());
        map.put("covers", rule.covers());
        map.put("severity", CheckCommand.small(rule.severity()));
        map.put("phase", CheckCommand.small(rule.phase()));
        map.put("inputs", book.inputs(rule));
        map.put("condition", rule.when());
        map.put("limits", rule.limits());
        map.put("what", rule.what());
        map.put("why", rule.why());
        map.put("remedy", Wording.remedy(rule));
        map.put("source", rule.source());
        return map;
    }
}
