package org.greenbead.cli;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.plan.Drive;
import org.greenbead.core.plan.GuessCost;
import org.greenbead.core.plan.Outcome;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.run.PlanRules;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.StageMark;
import org.greenbead.core.run.Verdict;
import org.greenbead.core.thermal.Heating;
import org.greenbead.core.thermal.Multipliers;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;
import org.greenbead.store.BadFileException;
import org.greenbead.store.Format;
import org.greenbead.store.OpenFiles;
import org.greenbead.store.RehearsalFile;
import org.greenbead.store.SafeFiles;
import org.greenbead.store.TraceCsv;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Runs a heating in the thermal model. */
@Command(name = "rehearse", mixinStandardHelpOptions = true, description = "Runs a plan or a rehearsal file in the thermal model.")
final class RehearseCommand implements Callable<Integer> {
    @Mixin
    private Shared shared;
    @Spec
    private CommandSpec spec;
    @Parameters(paramLabel = "FILE", description = "A plan (greenbead/plan/1), a rehearsal (greenbead/rehearsal/1), or the number of a job in the ledger: its next heat of the board.")
    private Path file;
    @Option(names = "--csv", paramLabel = "OUT", description = "Write the traces as CSV.")
    private Path csv;
    @Option(names = "--write", paramLabel = "OUT", description = "Write a plan as a rehearsal file with fixed times.")
    private Path write;
    @Option(names = "--json", paramLabel = "OUT", description = "Write the summary as JSON.")
    private Path json;

    @Override
    public Integer call() throws Exception {
        Optional<RunPlan> ofJob = new JobOnDisk(shared).nextHeat(file);
        if (ofJob.isPresent()) {
            return plan(ofJob.get());
        }
        String text = OpenFiles.text(file);
        String name = String.valueOf(file.getFileName());
        Format format = shared.files().formatOf(text, name);
        return switch (format) {
            case PLAN -> plan(shared.files().parse(text, name, Format.PLAN, RunPlan.class));
            case REHEARSAL ->
                heating(shared.files().parse(text, name, Format.REHEARSAL, RehearsalFile.class), name);
            default -> throw new BadFileException(name, 1, "/format",
                    "a " + format.word() + " alone cannot be rehearsed", "Give a plan or a rehearsal file");
        };
    }

    private int heating(RehearsalFile read, String name) throws Exception {
        Heating heating;
        try {
            heating = read.heating();
        } catch (IllegalArgumentException e) {
            throw new BadFileException(name, 0, "", e.getMessage(), "Correct the file and run it again");
        }
        long start = System.nanoTime();
        Heating.Traces traces = heating
                .run(new SheetModel(heating.scene(), Multipliers.NOMINAL, Resolution.FULL), done -> {
                }, Thread.currentThread()::isInterrupted);
        double tookS = (System.nanoTime() - start) / 1e9;
        double peak = traces.rows().stream().mapToDouble(Heating.Row::jointMinC).max().orElse(Double.NaN);
        PrintWriter out = spec.commandLine().getOut();
        out.printf(Locale.ROOT,
                "%s: coldest joint peaks at %.1f °C, heat adds up to %.4f %%, %.0f times faster than real time%n",
                heating.title(), peak,
                traces.energy().error() * 100, heating.durationS() / tookS);
        if (csv != null) {
            var text = new StringWriter();
            TraceCsv.write(traces, text);
            SafeFiles.write(csv, text.toString().getBytes(StandardCharsets.UTF_8));
        }
        if (json != null) {
            SafeFiles.write(json,
                    shared.files()
                            .print(Map.of("name", heating.name(), "peak_joint_min_c", peak, "energy_error",
                                    traces.energy().error(), "rows", traces.rows().size()))
                            .getBytes(StandardCharsets.UTF_8));
        }
        return 0;
    }

    private int plan(RunPlan plan) throws Exception {
        Words words = shared.words();
        Rehearsal rehearsal = Rehearsal.of(plan, Thread.currentThread()::isInterrupted);
        PrintWriter out = spec.commandLine().getOut();
        out.println(plan.recipe().title() + ", " + plan.job().id());
        for (StageMark mark : rehearsal.marks()) {
            out.printf(Locale.ROOT, "  %-12s %6s to %6s, %s%n", mark.name(), Words.clock(mark.startS()),
                    Words.clock(mark.endS()),
                    words.say("endedby." + mark.endedBy().name().toLowerCase(Locale.ROOT)));
        }
        for (Verdict.Line line : rehearsal.verdict().lines()) {
            out.printf(Locale.ROOT, "  %-10s %s%n",
                    words.say("mark." + line.mark().name().toLowerCase(Locale.ROOT)), words.say(line.what()));
        }
        for (Finding finding : PlanRules.look(plan, Optional.of(rehearsal))) {
            out.println(FindingsCommand.text(finding, words));
        }
        List<GuessCost.Guess> guesses = GuessCost.of(plan, Thread.currentThread()::isInterrupted);
        for (GuessCost.Guess guess : guesses) {
            guess(guess, out, words);
        }
        if (write != null) {
            Outcome outcome = Drive.of(plan, plan.recipe(),
                    new SheetModel(plan.scene(), plan.knowledge().mean(), Resolution.FULL), () -> false);
            SafeFiles.write(write, shared.files()
                    .write(Format.REHEARSAL, RehearsalFile.of(Drive.heating(plan, plan.recipe(), outcome)))
                    .getBytes(StandardCharsets.UTF_8));
        }
        if (csv != null) {
            var text = new StringWriter();
            TraceCsv.write(plan, rehearsal, text);
            SafeFiles.write(csv, text.toString().getBytes(StandardCharsets.UTF_8));
        }
        if (json != null) {
            var summary = new LinkedHashMap<String, Object>();
            summary.put("plan", plan.recipe().id());
            summary.put("length_s", rehearsal.lengthS());
            summary.put("peak_joint_min_c", rehearsal.peakJointMinC());
            summary.put("peak_joint_max_c", rehearsal.peakJointMaxC());
            summary.put("above_liquidus_s", rehearsal.aboveLiquidusS());
            summary.put("fastest_k_per_s", rehearsal.fastestKPerS());
            summary.put("energy_error", rehearsal.energy().error());
            summary.put("outcome", rehearsal.verdict().outcome());
            summary.put("stages", rehearsal.marks());
            summary.put("assumed", guesses
                    .stream().map(g -> Map.of("name", g.assumed(), "width_k", g.widthK(),
                            "cases",
                            g.cases().stream()
                                    .map(c -> Map.of("instead", words.say(c.instead()), "peak_k", c.peakK(),
                                            "margin_k", c.marginK(), "melts", c.melts(), "over",
                                            c.over().stream().map(words::say)
                                                    .toList()))
                                    .toList()))
                    .toList());
            SafeFiles.write(json, shared.files().print(summary).getBytes(StandardCharsets.UTF_8));
        }
        return rehearsal.done() && rehearsal.verdict().outcome() == Verdict.Outcome.PROVEN ? 0 : 1;
    }

    private static void guess(GuessCost.Guess guess, PrintWriter out, Words words) {
        out.printf("  %-10s %s: %s; %s%n", words.say("rehearse.assumed"), words.say(guess.names()),
                String.join(", ", guess.cases().stream()
                        .map(c -> words.say(c.instead()) + ": " + words.say(GuessCost.says(c))
                                + String.join("",
                                        GuessCost.harms(c).stream().map(h -> " " + words.say(h)).toList()))
                        .toList()),
                words.say(guess.wayToKnow()));
    }
}
