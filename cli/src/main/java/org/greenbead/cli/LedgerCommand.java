package org.greenbead.cli;

import java.io.PrintWriter;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import org.greenbead.core.odds.Effort;
import org.greenbead.core.odds.Odds;
import org.greenbead.core.odds.Outcomes;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Job;
import org.greenbead.store.JobEvent;
import org.greenbead.store.Ledger;
import org.greenbead.store.LedgerException;
import org.greenbead.store.ReportedException;
import org.greenbead.store.RunEntry;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** What the ledger holds. */
@Command(name = "ledger", mixinStandardHelpOptions = true, description = "Lists jobs and runs, or shows one.", subcommands = {
        LedgerCommand.ListAll.class, LedgerCommand.Show.class, LedgerCommand.Bin.class,
        LedgerCommand.TakeBack.class, LedgerCommand.OddsOf.class, LedgerCommand.EffortOf.class})
final class LedgerCommand implements Runnable {
    @Spec
    private CommandSpec spec;

    @Override
    public void run() {
        spec.commandLine().usage(spec.commandLine().getOut());
    }

    /** All of it, a line each. */
    @Command(name = "list", mixinStandardHelpOptions = true, description = "Jobs, then runs, newest first.")
    static final class ListAll implements Callable<Integer> {
        @Mixin
        private Shared shared;
        @Spec
        private CommandSpec spec;

        @Override
        public Integer call() throws Exception {
            PrintWriter out = spec.commandLine().getOut();
            Words words = shared.words();
            try (Ledger ledger = shared.ledger()) {
                List<Job> jobs = ledger.jobs();
                if (jobs.isEmpty()) {
                    out.printf(
                            "no job yet in %s; begin one with greenbead new, or take one in with greenbead import%n",
                            ledger.folder());
                }
                for (Job job : jobs) {
                    out.printf(Locale.ROOT, "job %-10s %-24s at %s%s%n", job.id(), job.title(),
                            job.inHand().map(b -> words.say("bead." + b.id())).orElse("its end"),
                            job.strandOf().map(of -> ", " + job.target() + " of " + of).orElse(""));
                }
                for (RunEntry run : ledger.runs()) {
                    out.printf(Locale.ROOT, "run %-34s %-16s %-18s peak %s%s%n", run.id(), run.chip(),
                            run.outcome().map(
                                    o -> words.say("verdict.outcome." + o.name().toLowerCase(Locale.ROOT)))
                                    .orElse("left open"),
                            peak(run, words), run.simulated() ? ", simulated" : "");
                }
            }
            return 0;
        }
    }

    /** What came out well. */
    @Command(name = "odds", mixinStandardHelpOptions = true, description = "How often jobs came out well by their last tests, put together by one thing, with what so few tell.")
    static final class OddsOf extends LedgerVerb {
        @Option(names = "--by", defaultValue = "kind", description = "${COMPLETION-CANDIDATES} (default ${DEFAULT-VALUE}).")
        private Outcomes.By by;

        @Override
        void work(Ledger ledger) throws Exception {
            Outcomes.Table table = Outcomes.by(by, ledger.jobs(), ZoneId.systemDefault());
            for (Outcomes.Group g : table.groups()) {
                Odds odds = g.odds();
                say(String.format(Locale.ROOT,
                        "%-28s %d of %d came out well; the next one %.0f %%, nine of ten times between %.0f and %.0f %%",
                        g.name().isEmpty() ? "not noted" : g.name(), odds.good(), odds.tries(),
                        100 * odds.chance(), 100 * odds.quantile(0.05), 100 * odds.quantile(0.95)));
            }
            if (table.groups().size() > 1) {
                Outcomes.Group first = table.groups().stream()
                        .max(Comparator.comparingDouble(g -> g.odds().chance())).orElseThrow();
                Outcomes.Group last = table.groups().stream()
                        .min(Comparator.comparingDouble(g -> g.odds().chance())).orElseThrow();
                say(String.format(Locale.ROOT,
                        "%s is better than %s with a probability of %.0f %%, of %d %s looked at",
                        first.name().isEmpty() ? "not noted" : first.name(),
                        last.name().isEmpty() ? "not noted" : last.name(),
                        100 * first.odds().betterThan(last.odds()), table.pairs(),
                        table.pairs() == 1 ? "pair" : "pairs"));
            }
            say(String.format(Locale.ROOT, "%d %s without a result, which say nothing", table.untold(),
                    table.untold() == 1 ? "job" : "jobs"));
            if (table.drills().tries() > 0) {
                say(String.format(Locale.ROOT, "practice, counted apart: %d of %d came out well",
                        table.drills().good(), table.drills().tries()));
            }
        }
    }

    /** What jobs took. */
    @Command(name = "effort", mixinStandardHelpOptions = true, description = "Time by hand and unattended, material and parts that jobs took by what was noted: the middle, and half of the jobs between two values.")
    static final class EffortOf extends LedgerVerb {
        @Option(names = "--by", defaultValue = "kind", description = "${COMPLETION-CANDIDATES} (default ${DEFAULT-VALUE}).")
        private Outcomes.By by;

        @Override
        void work(Ledger ledger) throws Exception {
            Effort effort = Effort.by(by, ledger.jobs(), ZoneId.systemDefault());
            for (Effort.Group g : effort.groups()) {
                say(String.format(Locale.ROOT,
                        "%-28s %d %s: by hand %s; unattended %s; material %s; parts %s",
                        g.name().isEmpty() ? "not noted" : g.name(), g.jobs(), g.jobs() == 1 ? "job" : "jobs",
                        said(g.attendedMin(), "%.0f", " min"), said(g.unattendedMin(), "%.0f", " min"),
                        said(g.material(), "%.2f", ""), said(g.parts(), "%.2f", "")));
            }
            say(String.format(Locale.ROOT, "%d %s without a note of their cost", effort.silent(),
                    effort.silent() == 1 ? "job" : "jobs"));
        }

        private static String said(Effort.Spread s, String number, String unit) {
            return s.of() == 0
                    ? "not noted"
                    : String.format(Locale.ROOT, number, s.middle()) + unit + (s.of() < 2
                            ? ""
                            : String.format(Locale.ROOT, " (" + number + " to " + number + ", %d)", s.low(),
                                    s.high(),
                                    s.of()));
        }
    }

    /** One job or run. */
    @Command(name = "show", mixinStandardHelpOptions = true, description = "One job with its route and history, or one run.")
    static final class Show implements Callable<Integer> {
        @Mixin
        private Shared shared;
        @Spec
        private CommandSpec spec;
        @Parameters(paramLabel = "ID", description = "A job's id, a run's id, or \"last\".")
        private String id;

        @Override
        public Integer call() throws Exception {
            PrintWriter out = spec.commandLine().getOut();
            Words words = shared.words();
            try (Ledger ledger = shared.ledger()) {
                if (ledger.jobs().stream().anyMatch(j -> j.id().equals(id))) {
                    Job job = ledger.job(id);
                    out.println(job.id() + " " + job.title() + ": " + job.complaint() + " (" + job.customer()
                            + ")");
                    for (Bead bead : job.beads()) {
                        out.printf(Locale.ROOT, "  %-8s %-20s %s%n",
                                words.say("phase." + bead.phase().name().toLowerCase(Locale.ROOT)),
                                words.say("bead." + bead.id()),
                                words.say("report." + bead.state().name().toLowerCase(Locale.ROOT)));
                    }
                    for (JobEvent event : ledger.history(id)) {
                        out.println("  " + event.at() + " " + event.kind() + " " + event.detail());
                    }
                } else {
                    RunEntry run = Shared.run(ledger, id);
                    out.println(run.id() + ": " + run.recipe() + ", " + run.chip() + ", begun "
                            + run.startedAt());
                    out.println("  "
                            + run.outcome().map(
                                    o -> words.say("verdict.outcome." + o.name().toLowerCase(Locale.ROOT)))
                                    .orElse("left open")
                            + ", hottest joint "
                            + peak(run, words) + ", above liquidus "
                            + Words.clock(run.aboveS()));
                    out.println("  log " + ledger.logFile(run));
                }
            }
            return 0;
        }
    }

    /** Throws a job away, or shows what was. */
    @Command(name = "bin", mixinStandardHelpOptions = true, description = "Puts a job or a run into the bin, where it is kept for 30 days at least; without an ID lists what lies there.")
    static final class Bin extends LedgerVerb {
        @Parameters(arity = "0..1", paramLabel = "ID", description = "A job's id, or a run's.")
        private String id;
        @Option(names = "--even-so", description = "A run also where a report was made from it; the report stays.")
        private boolean evenSo;
        @Option(names = "--empty", description = "Deletes for good what has lain there for 30 days and more.")
        private boolean empty;

        @Override
        void work(Ledger ledger) throws Exception {
            if (id != null) {
                boolean run = ledger.run(id).isPresent();
                try {
                    if (run) {
                        ledger.runBin().put(id, evenSo);
                    } else {
                        ledger.bin().put(id);
                    }
                } catch (ReportedException e) {
                    throw new LedgerException(e.getMessage() + ". With --even-so it goes all the same", e);
                }
                say((run ? "run " : "job ") + id
                        + " is in the bin; take it back with: greenbead ledger take-back " + id);
            }
            if (empty) {
                var gone = new java.util.ArrayList<>(ledger.bin().empty());
                gone.addAll(ledger.runBin().empty());
                say(gone.isEmpty()
                        ? "nothing has lain there for 30 days yet"
                        : "deleted for good: " + String.join(", ", gone));
            }
            if (id == null && !empty) {
                ledger.bin().all().forEach(b -> say("job " + b.job().id() + " " + b.job().title()
                        + ", in the bin since " + day(b.at()) + ", kept until " + day(b.until())
                        + " at least"));
                ledger.runBin().all().forEach(b -> say("run " + b.run().id() + " " + b.run().recipe()
                        + ", in the bin since " + day(b.at()) + ", kept until " + day(b.until())
                        + " at least"));
            }
        }
    }

    /** A day in the time of this machine. */
    private static LocalDate day(Instant at) {
        return LocalDate.ofInstant(at, ZoneId.systemDefault());
    }

    /** Out of the bin again. */
    @Command(name = "take-back", mixinStandardHelpOptions = true, description = "Takes a job back from the bin, with all it had.")
    static final class TakeBack extends LedgerVerb {
        @Parameters(paramLabel = "ID", description = "A job's id, or a run's.")
        private String id;

        @Override
        void work(Ledger ledger) throws Exception {
            if (ledger.run(id).isPresent()) {
                ledger.runBin().takeBack(id);
                say("run " + id + " is back");
                return;
            }
            ledger.bin().takeBack(id);
            say("job " + id + " is back");
        }
    }

    /** The peak; led by eye it says so, and how sure it is. */
    private static String peak(RunEntry run, Words words) {
        return words.show(new Quantity.TempC(run.peakJointC()))
                + run.noProbe().map(k -> " ±" + words.show(new Quantity.RiseK(k)) + ", "
                        + words.say("report.no_probe")).orElse("");
    }
}
