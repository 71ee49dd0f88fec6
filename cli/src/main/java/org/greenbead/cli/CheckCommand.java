package org.greenbead.cli;

import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import org.greenbead.core.account.FactWords;
import org.greenbead.core.account.Gates;
import org.greenbead.core.account.Judgement;
import org.greenbead.core.book.Judged;
import org.greenbead.core.book.NotKnown;
import org.greenbead.core.book.Noticed;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.book.Wording;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.RunPlan;
import org.greenbead.store.BadFileException;
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
    @Parameters(paramLabel = "JOB", description = "A job file (greenbead/job/1), a plan (greenbead/plan/1), or the number of a job in the ledger.")
    private String name;
    @Option(names = "--json", paramLabel = "OUT", description = "Write the findings as JSON.")
    private Path json;

    @Override
    public Integer call() throws Exception {
        var disk = new JobOnDisk(shared);
        Job job;
        JobOnDisk.Surroundings around;
        Optional<Rehearsal> rehearsal = Optional.empty();
        if (isPlan()) {
            RunPlan plan = shared.files().read(Path.of(name), Format.PLAN, RunPlan.class);
            job = plan.job();
            around = new JobOnDisk.Surroundings(Optional.of(plan), Optional.empty(), "the plan");
            rehearsal = !plan.loose()
                    ? Optional.of(Rehearsal.of(plan, () -> false))
                    : Optional.empty();
        } else {
            job = disk.read(name);
            around = disk.around(job);
            rehearsal = Judgement.heat(job, around.plan()).map(p -> Rehearsal.of(p, () -> false));
        }
        Judgement judgement = Judgement.of(job, around.plan(), around.around(), rehearsal,
                RuleBook.shipped(), RuleBook.Settings.STANDARD);
        PrintWriter out = spec.commandLine().getOut();
        say(job, judgement, around.source(), out);
        if (json != null) {
            SafeFiles.write(json, shared.files().print(all(judgement, isPlan() ? "/job/facts" : "/facts"))
                    .getBytes(StandardCharsets.UTF_8));
        }
        return judgement.judged().open().stream().anyMatch(n -> n.rule().severity() == Severity.STOP)
                || judgement.notKnown().stream().anyMatch(NotKnown::holds) ? 1 : 0;
    }

    private boolean isPlan() throws BadFileException {
        Path file = Path.of(name);
        return Files.exists(file) && shared.files().formatOf(OpenFiles.text(file),
                String.valueOf(file.getFileName())) == Format.PLAN;
    }

    private void say(Job job, Judgement judgement, String source, PrintWriter out) {
        var wording = new Wording(shared.words());
        List<Noticed> found = judgement.judged().open();
        for (Noticed noticed : found) {
            out.printf(Locale.ROOT, "%-5s %-8s %s. %s Remedy: %s. [%s] %s%n",
                    small(noticed.rule().severity()), small(noticed.rule().phase()), noticed.rule().what(),
                    wording.why(noticed), wording.remedy(noticed), noticed.rule().id(),
                    provenance(judgement, noticed));
        }
        for (NotKnown open : judgement.notKnown()) {
            out.printf(Locale.ROOT, "%-5s %-8s %s? Not known: %s. To find out: %s. [%s]%n",
                    open.holds() ? "stop" : "ask", small(open.rule().phase()), open.rule().what(),
                    String.join(", ",
                            open.missing().stream().map(m -> FactWords.of(m, shared.words())).toList()),
                    open.find(),
                    open.rule().id());
        }
        for (Judged.Muted muted : judgement.judged().muted()) {
            out.printf(Locale.ROOT, "muted %-8s %s. Because: %s%n", small(muted.noticed().rule().phase()),
                    muted.noticed().rule().what(), muted.reason());
        }
        for (Bead bead : job.beads()) {
            List<Gates.Demand> missing = bead.state() == BeadState.OPEN
                    ? List.of()
                    : Gates.missing(job, bead.id(), judgement.look().evidence().facts());
            if (!missing.isEmpty()) {
                out.printf(Locale.ROOT, "gate  %-8s %s stays shut: %s%n", small(bead.phase()),
                        shared.words().say("bead." + bead.id()), String.join("; ", missing.stream()
                                .map(d -> shared.words().say("evidence." + d.id())).toList()));
            }
        }
        if (found.isEmpty() && judgement.notKnown().isEmpty()) {
            out.println("Nothing to say against it.");
        }
        out.println("Looked at with: " + source + ".");
    }

    /** Where the facts of a finding come from. */
    private static String provenance(Judgement judgement, Noticed noticed) {
        String from = String.join("; ", facts(judgement, noticed).stream()
                .map(f -> f.get("fact") + " from " + f.get("where")).toList());
        return from.isEmpty() ? "" : "(" + from + ")";
    }

    private static List<Map<String, Object>> facts(Judgement judgement, Noticed noticed) {
        return RuleBook.shipped().spots(noticed).stream()
                .flatMap(path -> judgement.known().origin(path).stream().map(origin -> {
                    var map = new LinkedHashMap<String, Object>();
                    map.put("fact", path);
                    map.put("source", small(origin.source()));
                    map.put("where", origin.from());
                    return (Map<String, Object>) map;
                })).toList();
    }

    private List<Map<String, Object>> all(Judgement judgement, String under) {
        var wording = new Wording(shared.words());
        var all = new ArrayList<Map<String, Object>>();
        judgement.judged().open().forEach(n -> {
            Map<String, Object> map = json(n, wording, under);
            map.put("facts", facts(judgement, n));
            all.add(map);
        });
        judgement.notKnown().forEach(n -> {
            var map = new LinkedHashMap<String, Object>();
            map.put("rule", n.rule().id());
            map.put("severity", n.holds() ? "stop" : "ask");
            map.put("phase", small(n.rule().phase()));
            map.put("covers", n.rule().covers());
            map.put("what", n.rule().what());
            map.put("not_known", n.missing());
            map.put("find", n.find());
            map.put("at", under + n.at());
            all.add(map);
        });
        judgement.judged().muted().forEach(m -> all.add(muted(m, wording, under)));
        return all;
    }

    private static Map<String, Object> json(Noticed noticed, Wording wording, String under) {
        var map = new LinkedHashMap<String, Object>();
        map.put("rule", noticed.rule().id());
        map.put("severity", small(noticed.rule().severity()));
        map.put("phase", small(noticed.rule().phase()));
        map.put("covers", noticed.rule().covers());
        map.put("what", noticed.rule().what());
        map.put("why", wording.why(noticed));
        map.put("remedy", wording.remedy(noticed));
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
