package org.greenbead.cli;

import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Callable;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.bench.Calibration;
import org.greenbead.core.calibrate.Calibrator;
import org.greenbead.core.calibrate.Fit;
import org.greenbead.core.calibrate.History;
import org.greenbead.core.calibrate.Logged;
import org.greenbead.core.calibrate.RefusedException;
import org.greenbead.core.calibrate.SightFit;
import org.greenbead.core.calibrate.Witness;
import org.greenbead.core.calibrate.WitnessFit;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.run.RunPlan;
import org.greenbead.store.BadFileException;
import org.greenbead.store.Format;
import org.greenbead.store.OpenFiles;
import org.greenbead.store.RunLog;
import org.greenbead.store.SafeFiles;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Learns a bench from a run. */
@Command(name = "calibrate", mixinStandardHelpOptions = true, description = "Fits the model to a logged run, or to dots of solder that were seen to melt, and says what it tells of the bench.")
final class CalibrateCommand implements Callable<Integer> {
    @Mixin
    private Shared shared;
    @Spec
    private CommandSpec spec;
    @Parameters(arity = "0..1", paramLabel = "LOG", description = "A .run.jsonl file, a run's id in the ledger, or \"last\". One led by eye teaches by what was seen.")
    private String log;
    @Option(names = "--witness", paramLabel = "FILE", description = "Dots that were seen to melt (greenbead/witness/1), in place of a log. No thermocouple is needed.")
    private Path witness;
    @Option(names = "--plan", paramLabel = "FILE", description = "With --witness: the plan (greenbead/plan/1) whose board and bench the dots were on.")
    private Path planFile;
    @Option(names = "--scrap", paramLabel = "BOARD", description = "With --witness: the board of the ledger that the dots were on, where it is another than the plan's.")
    private Optional<String> scrap = Optional.empty();
    @Option(names = "--bench", paramLabel = "FILE", description = "Bench file that the calibration is added to, in place.")
    private Path benchFile;
    @Option(names = "--json", paramLabel = "OUT", description = "Write the calibration as JSON.")
    private Path json;

    @Override
    public Integer call() throws Exception {
        if (witness != null) {
            return dots();
        }
        if (log == null) {
            throw new IllegalArgumentException(
                    "nothing to learn from; name a LOG, or --witness FILE --plan PLAN");
        }
        RunLog read = ReplayCommand.read(shared, log);
        PrintWriter out = spec.commandLine().getOut();
        if (read.header().plan().bench().probes().isEmpty()) {
            return sights(read, out);
        }
        Fit fit;
        try {
            fit = Calibrator.fit(Logged.of(read.header().run(), read.header().plan(), read.events()), d -> {
            }, Thread.currentThread()::isInterrupted);
        } catch (RefusedException refused) {
            throw new BadFileException(log, 0, "", shared.words().say(refused.why()),
                    "Log another run and try again");
        }
        Calibration c = fit.calibration();
        lines(out, c);
        for (int i = 0; i < fit.probes().size(); i++) {
            out.printf(Locale.ROOT, "%s: off by %.1f K before the fit, %.1f K after%n",
                    fit.probes().get(i),
                    fit.beforeK()[i], fit.afterK()[i]);
        }
        for (Phrase remark : fit.remarks()) {
            out.println(shared.words().say(remark));
        }
        keep(c, out);
        if (json != null) {
            var map = new LinkedHashMap<String, Object>();
            map.put("calibration", c);
            map.put("probes", fit.probes());
            map.put("before_k", fit.beforeK());
            map.put("after_k", fit.afterK());
            map.put("remarks", fit.remarks().stream().map(shared.words()::say).toList());
            SafeFiles.write(json, shared.files().print(map).getBytes(StandardCharsets.UTF_8));
        }
        return fit.swapped() ? 1 : 0;
    }

    /** From what was seen at the chip in a run that no thermocouple watched. */
    private int sights(RunLog read, PrintWriter out) throws Exception {
        SightFit.Learned learned;
        try {
            learned = SightFit.fit(read.header().run(), read.header().plan(), read.events(),
                    Thread.currentThread()::isInterrupted);
        } catch (RefusedException refused) {
            throw new BadFileException(log, 0, "", shared.words().say(refused.why()),
                    "Log another run and try again");
        }
        lines(out, learned.calibration());
        for (SightFit.Looked sight : learned.sights()) {
            out.printf(Locale.ROOT,
                    "%s at %.0f s: model off by %+.1f K before, %+.1f K after the fit; believed %.0f %%%n",
                    shared.words().say(sight.sight().word()),
                    sight.timeS(), sight.beforeK(), sight.afterK(), 100 * sight.trust());
        }
        keep(learned.calibration(), out);
        if (json != null) {
            var map = new LinkedHashMap<String, Object>();
            map.put("calibration", learned.calibration());
            map.put("sights", learned.sights());
            SafeFiles.write(json, shared.files().print(map).getBytes(StandardCharsets.UTF_8));
        }
        return 0;
    }

    private static void lines(PrintWriter out, Calibration c) {
        line(out, "air", c.jet());
        line(out, "heater", c.preheater());
        line(out, "heat of the board", c.boardHeat());
        line(out, "heat along the board", c.boardConductivity());
    }

    /** From dots of solder on a scrap board. */
    private int dots() throws Exception {
        if (planFile == null) {
            throw new IllegalArgumentException(
                    "--witness needs --plan: the plan whose board and bench the dots were on");
        }
        Witness seen = shared.files().read(witness, Format.WITNESS, Witness.class);
        RunPlan plan = new JobOnDisk(shared).plan(planFile);
        if (scrap.isPresent()) {
            plan = plan.onScrap(new JobOnDisk(shared).board(scrap.get())
                    .orElseThrow(() -> new IllegalArgumentException("no board " + scrap.get()
                            + " is in the ledger; draw it first with greenbead board new and board put")));
            if (!seen.foreign()) {
                throw new IllegalArgumentException("--scrap names another board, and " + witness.getFileName()
                        + " says that the dots were on a twin (foreign: false); one of them is wrong");
            }
        }
        PrintWriter out = spec.commandLine().getOut();
        WitnessFit.Learned learned;
        try {
            learned = WitnessFit.fit(plan, seen, Thread.currentThread()::isInterrupted);
        } catch (RefusedException refused) {
            throw new BadFileException(String.valueOf(witness.getFileName()), 0, "",
                    shared.words().say(refused.why()), "Heat the dots again and press each as it melts");
        }
        Calibration c = learned.calibration();
        lines(out, c);
        out.printf(Locale.ROOT, "dots: off by %.1f K before the fit, %.1f K after; %d of %d melted%n",
                learned.beforeK(), learned.afterK(), seen.presses().size(), seen.dots().size());
        if (!learned.outliers().isEmpty()) {
            out.println("hardly counted, wrongly named or of another alloy: "
                    + String.join(", ", learned.outliers()));
        }
        if (seen.foreign()) {
            out.println(
                    "on a board of another kind: only air and heater carry over, joints within some 13 K");
        }
        keep(c, out);
        if (json != null) {
            var map = new LinkedHashMap<String, Object>();
            map.put("calibration", c);
            map.put("before_k", learned.beforeK());
            map.put("after_k", learned.afterK());
            map.put("offset_k", learned.offsetK());
            map.put("outliers", learned.outliers());
            SafeFiles.write(json, shared.files().print(map).getBytes(StandardCharsets.UTF_8));
        }
        return 0;
    }

    private void keep(Calibration c, PrintWriter out) throws Exception {
        if (benchFile != null) {
            String name = String.valueOf(benchFile.getFileName());
            Bench bench = shared.files().parse(OpenFiles.text(benchFile), name, Format.BENCH, Bench.class);
            Bench kept = History.with(bench, c);
            if (!kept.calibrations().getLast().counted()) {
                out.println("It contradicts the bench's other runs: kept, but not counted.");
            }
            SafeFiles.write(benchFile,
                    shared.files().write(Format.BENCH, kept).getBytes(StandardCharsets.UTF_8));
        }
    }

    private static void line(PrintWriter out, String name, Calibration.Factor f) {
        out.printf(Locale.ROOT, "%-22s %.3f, 90 of 100 within %.3f to %.3f%s%n", name, f.value(),
                f.value() * Math.exp(-1.645 * f.sdLn()), f.value() * Math.exp(1.645 * f.sdLn()),
                f.determined() ? "" : " (not told by this run)");
    }
}
