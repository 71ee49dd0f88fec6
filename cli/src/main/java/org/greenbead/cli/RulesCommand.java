package org.greenbead.cli;

import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.Callable;
import org.greenbead.core.book.BookRule;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.book.RuleSheet;
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
    @Option(names = "--markdown", paramLabel = "OUT", description = "Write the book as docs/rules.md has it.")
    private Path markdown;

    @Override
    public Integer call() throws Exception {
        RuleBook book = RuleBook.shipped();
        PrintWriter out = spec.commandLine().getOut();
        for (BookRule rule : book.rules()) {
            out.printf("%-5s %-8s %-40s %s%n", CheckCommand.small(rule.severity()),
                    CheckCommand.small(rule.phase()), rule.id(), rule.what());
        }
        if (json != null) {
            SafeFiles.write(json, shared.files().print(book.rules().stream().map(r -> json(book, r)).toList())
                    .getBytes(StandardCharsets.UTF_8));
        }
        if (markdown != null) {
            SafeFiles.write(markdown, RuleSheet.of(book).getBytes(StandardCharsets.UTF_8));
        }
        return 0;
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
        map.put("remedy", rule.remedy());
        map.put("source", rule.source());
        return map;
    }
}
