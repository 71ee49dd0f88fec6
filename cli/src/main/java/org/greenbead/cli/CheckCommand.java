package org.greenbead.cli;

import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.JobFacts;
import org.greenbead.core.book.Judged;
import org.greenbead.core.book.Noticed;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.book.Wording;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.RunPlan;
import org.greenbead.store.Format;
import org.greenbead.store.OpenFiles;
import org.greenbead.store.SafeFiles;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Checks a whole job. */
@Command(name = "check", mixinStandardHelpOptions = true, description = "Checks a job (or a plan, with its board, bench and recipe) by the whole rule book; exit 1 with a stop.")
final class CheckCommand implements Callable<Integer> {
    @Mixin
    private Shared shared;
    @Spec
    private CommandSpec spec;
    @Parameters(paramLabel = "JOB", description = "A job (greenbead/job/1) or a plan (greenbead/plan/1).")
    private Path file;
    @Option(names = "--json", paramLabel = "OUT", description = "Write the findings as JSON.")
    private Path json;

    @Override
    public Integer call() throws Exception {
        String text = OpenFiles.text(file);
        String name = String.valueOf(file.getFileName());
        Facts facts;
        String under = "/facts";
        if (shared.files().formatOf(text, name) == Format.PLAN) {
            RunPlan plan = shared.files().parse(text, name, Format.PLAN, RunPlan.class);
            facts = JobFacts.of(plan.job(), plan.board(), plan.bench(), plan.recipe());
            under = "/job/facts";
        } else {
            facts = JobFacts.of(shared.files().parse(text, name, Format.JOB, Job.class));
        }
        Judged judged = Judged.of(RuleBook.shipped(), facts, RuleBook.Settings.STANDARD);
        List<Noticed> found = judged.open();
        var wording = new Wording(shared.words());
        PrintWriter out = spec.commandLine().getOut();
        for (Noticed noticed : found) {
            out.printf(Locale.ROOT, "%-5s %-8s %s. %s Remedy: %s. [%s]%n", small(noticed.rule().severity()),
                    small(noticed.rule().phase()),
                    noticed.rule().what(), wording.why(noticed), noticed.rule().remedy(),
                    noticed.rule().id());
        }
        for (Judged.Muted muted : judged.muted()) {
            out.printf(Locale.ROOT, "muted %-8s %s. Because: %s%n", small(muted.noticed().rule().phase()),
                    muted.noticed().rule().what(),
                    muted.reason());
        }
        if (found.isEmpty()) {
            out.println("Nothing to say against it.");
        }
        if (json != null) {
            String prefix = under;
            SafeFiles.write(json,
                    shared.files()
                            .print(Stream
                                    .concat(found.stream().map(n -> json(n, wording, prefix)),
                                            judged.muted().stream().map(m -> muted(m, wording, prefix)))
                                    .toList())
                            .getBytes(StandardCharsets.UTF_8));
        }
        return found.stream().anyMatch(n -> n.rule().severity() == Severity.STOP) ? 1 : 0;
    }

    private static Map<String, Object> json(Noticed noticed, Wording wording, String under) {
        var map = new LinkedHashMap<String, Object>();
        map.put("rule", noticed.rule().id());
        map.put("severity", small(noticed.rule().severity()));
        map.put("phase", small(noticed.rule().phase()));
        map.put("covers", noticed.rule().covers());
        map.put("what", noticed.rule().what());
        map.put("why", wording.why(noticed));
        map.put("remedy", noticed.rule().remedy());
        map.put("at", under + noticed.at());
        return map;
    }

    private static Map<String, Object> muted(Judged.Muted muted, Wording wording, String under) {
        Map<String, Object> map = json(muted.noticed(), wording, under);
        map.put("muted_because", muted.reason());
        map.put("muted_by", muted.person());
        return map;
    }

    static String small(Enum<?> word) {
        return word.name().toLowerCase(Locale.ROOT);
    }
}
