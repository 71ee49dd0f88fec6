package org.greenbead.cli;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.Instant;
import java.time.InstantSource;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import org.greenbead.core.account.Account;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.AfterRun;
import org.greenbead.core.run.Eyes;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunEvent;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.RunSession;
import org.greenbead.core.run.RunState;
import org.greenbead.core.run.SimulatedBench;
import org.greenbead.core.run.SimulatedTechnician;
import org.greenbead.core.run.Verdict;
import org.greenbead.device.ModbusLogger;
import org.greenbead.device.SimulatedLogger;
import org.greenbead.store.DemoWorld;
import org.greenbead.store.Format;
import org.greenbead.store.Ledger;
import org.greenbead.store.RunEntry;
import org.greenbead.store.RunHeader;
import org.greenbead.store.RunLogWriter;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** A run without a window. */
@Command(name = "run", mixinStandardHelpOptions = true, description = "Runs a plan on the simulated bench, over the logger's real protocol, to its verdict.")
final class RunCommand implements Callable<Integer> {
    private static final double SAMPLE_S = 0.5;
    @Mixin
    private Shared shared;
    @Spec
    private CommandSpec spec;
    @Option(names = "--simulated", required = true, description = "Use the simulated bench. A real run needs the window, where a person is.")
    private boolean simulated;
    @Option(names = "--plan", paramLabel = "FILE", description = "A plan (greenbead/plan/1), or the number of a job in the ledger: its next heat of the board. Default: the lift of job SB-0417 of Skerry Bench, prepared.")
    private Path file;
    @Option(names = "--speed", paramLabel = "N", defaultValue = "60", description = "Times faster than real time, 1 to 1000 (default ${DEFAULT-VALUE}).")
    private double speed;
    @Option(names = "--seed", paramLabel = "S", defaultValue = ""
            + DemoWorld.SEED, description = "How the bench differs from the plan (default ${DEFAULT-VALUE}).")
    private long seed;
    @Option(names = "--open-probe", paramLabel = "NAME@S", description = "Break a probe at that second.")
    private List<String> openProbes = List.of();
    @Option(names = "--drop-link", paramLabel = "S+D", description = "Unplug the logger at second S for D seconds.")
    private List<String> drops = List.of();
    @Option(names = "--log", paramLabel = "OUT", description = "Keep the run log there instead of in the ledger.")
    private Path log;
    @Option(names = "--job", paramLabel = "JOB", description = "With --log: a job file, or the number of a job in the ledger, that takes up what the run came to.")
    private Optional<String> job = Optional.empty();
    @Option(names = "--author", defaultValue = "", description = "Who worked.")
    private String author;

    /** What the plan names and the ledger lacks comes with it; what is there stays. */
    private static void own(Ledger ledger, RunPlan plan) {
        if (!ledger.holds(Format.BOARD, plan.job().board())) {
            ledger.save(plan.board());
        }
        if (!ledger.holds(Format.BENCH, plan.job().bench())) {
            ledger.save(plan.bench());
        }
        if (!ledger.holds(Format.RECIPE, plan.recipe().id())) {
            ledger.save(plan.recipe());
        }
    }

    @Override
    public Integer call() throws Exception {
        if (!(speed >= 1 && speed <= 1000)) {
            throw new IllegalArgumentException("speed is " + speed + "; allowed is 1 to 1000");
        }
        RunPlan plan = file != null
                ? new JobOnDisk(shared).plan(file)
                : prepared(shared.world().plan("SB-0417", "lift_run"));
        openProbes.forEach(fault -> known(fault, plan));
        if (log != null) {
            var header = new RunHeader(String.valueOf(log.getFileName()), Instant.now(), true, seed, plan);
            Over over = run(plan, RunLogWriter.begin(log, header, shared.files(), InstantSource.system()));
            if (job.isPresent()) {
                var disk = new JobOnDisk(shared);
                Job before = disk.read(job.get());
                disk.write(job.get(), before, written(before, over), author, "run over", plan.bead());
                spec.commandLine().getOut().println("written into job " + before.id());
            }
            return report(over.verdict());
        }
        if (job.isPresent()) {
            throw new IllegalArgumentException(
                    "--job needs --log; without it the run goes to its own job in the ledger");
        }
        // Without a plan of one's own it is the demo's lift, in the demo's own folder.
        try (Ledger ledger = file == null ? shared.demoLedger() : shared.ledger()) {
            if (file == null) {
                shared.world().fill(ledger, InstantSource.system(), done -> {
                });
            } else {
                own(ledger, plan);
            }
            if (ledger.jobs().stream().noneMatch(j -> j.id().equals(plan.job().id()))) {
                ledger.save(plan.job(), "opened", "from a plan");
            }
            RunEntry entry = ledger.beginRun(plan, Instant.now(), true);
            var header = new RunHeader(entry.id(), entry.startedAt(), true, seed, plan);
            Over over = run(plan, RunLogWriter.begin(ledger.logFile(entry), header, shared.files(),
                    InstantSource.system()));
            ledger.endRun(entry.id(), Instant.now(), over.verdict());
            Job before = ledger.job(plan.job().id());
            ledger.save(Account.noted(Optional.of(before), written(before, over), Instant.now(), author),
                    "run over", plan.bead());
            spec.commandLine().getOut().println("kept as " + entry.id() + " in " + ledger.folder());
            return report(over.verdict());
        }
    }

    /** What a run came to, with what was told in it. */
    private record Over(RunPlan plan, List<RunEvent> told, Verdict verdict) {}

    private Job written(Job before, Over over) {
        return AfterRun.over(before, over.plan(), over.told(), over.verdict(), Instant.now(), author, true);
    }

    /** The shipped job still has its cell connected; a run without a person starts prepared. */
    private static RunPlan prepared(RunPlan plan) {
        return plan.with(plan.job().attest("cell_off", org.greenbead.core.route.Attest.YES));
    }

    private Over run(RunPlan plan, RunLogWriter writer) throws Exception {
        Words words = shared.words();
        PrintWriter out = spec.commandLine().getOut();
        var bench = new SimulatedBench(plan, seed);
        var eyes = new Eyes(bench, seed);
        Set<String> told = new HashSet<>();
        try (var logger = new SimulatedLogger();
                var session = new RunSession(
                        RunEngine.live(plan, Optional.of(Rehearsal.of(plan, () -> false))),
                        port(logger, bench, plan), writer, bench)) {
            var technician = new SimulatedTechnician(plan.task(), true);
            session.pump(0);
            RunState state = session.start(0);
            double time = 0;
            int stage = -1;
            long due = System.nanoTime();
            while (state.status() != RunState.Status.ENDED) {
                if (state.stage() != stage) {
                    stage = state.stage();
                    out.printf(Locale.ROOT, "%6s  %s: %s %s%n", Words.clock(time),
                            session.plan().recipe().stages().get(stage).name(),
                            words.say(state.coaching().now()), words.say(state.coaching().next()));
                }
                for (Finding finding : state.findings()) {
                    if (told.add(finding.id())) {
                        out.printf(Locale.ROOT, "%6s%s%n", Words.clock(time),
                                FindingsCommand.text(finding, words));
                    }
                }
                time += SAMPLE_S;
                due += (long) (SAMPLE_S / speed * 1e9);
                long rest = (due - System.nanoTime()) / 1_000_000;
                if (rest > 0) {
                    Thread.sleep(rest);
                }
                faults(bench, time);
                state = session.pump(time);
                Optional<RunEvent> word = technician.act(state, session.plan(), eyes);
                if (word.isPresent()) {
                    if (word.get() instanceof RunEvent.Saw saw) {
                        out.printf(Locale.ROOT, "%6s  technician sees: %s%n", Words.clock(time),
                                saw.sight().name().toLowerCase(Locale.ROOT).replace('_', ' '));
                    }
                    if (word.get() instanceof RunEvent.Said said) {
                        out.printf(Locale.ROOT, "%6s  technician: %s%n", Words.clock(time),
                                said.word().name().toLowerCase(Locale.ROOT).replace('_', ' '));
                    }
                    state = session.take(word.get());
                }
            }
            return new Over(session.plan(), session.told(), session.verdict());
        }
    }

    private static ModbusLogger port(SimulatedLogger logger, SimulatedBench bench, RunPlan plan) {
        logger.show(bench, plan.bench().probes());
        return new ModbusLogger(logger.config(), plan.bench().probes());
    }

    private void faults(SimulatedBench bench, double time) {
        for (String fault : openProbes) {
            String[] part = fault.split("@", 2);
            if (part.length == 2 && time >= number(part[1], "--open-probe")) {
                bench.breakProbe(part[0], true);
            }
        }
        boolean down = false;
        for (String drop : drops) {
            String[] part = drop.split("\\+", 2);
            if (part.length != 2) {
                throw new IllegalArgumentException("--drop-link is \"" + drop + "\"; write it as 100+20");
            }
            double from = number(part[0], "--drop-link");
            down |= time >= from && time < from + number(part[1], "--drop-link");
        }
        bench.dropLink(down);
    }

    /** A fault of a probe that is not there would be no fault at all, and nobody told. */
    private static void known(String fault, RunPlan plan) {
        List<String> probes = plan.bench().probes().stream().map(p -> p.name()).toList();
        String[] part = fault.split("@", 2);
        if (part.length < 2 || !probes.contains(part[0])) {
            throw new IllegalArgumentException(
                    "--open-probe " + fault + ": write NAME@S; the bench of this plan has "
                            + (probes.isEmpty() ? "no probe" : String.join(", ", probes)));
        }
        number(part[1], "--open-probe");
    }

    private static double number(String text, String option) {
        try {
            return Double.parseDouble(text);
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException(option + " has \"" + text + "\" where seconds should stand",
                    e);
        }
    }

    private int report(Verdict verdict) {
        return print(verdict, shared.words(), spec.commandLine().getOut());
    }

    static int print(Verdict verdict, Words words, PrintWriter out) {
        out.println(words.say("report.verdict") + ": "
                + words.say("verdict.outcome." + verdict.outcome().name().toLowerCase(Locale.ROOT)));
        for (Verdict.Line line : verdict.lines()) {
            out.printf(Locale.ROOT, "  %-10s %s%n",
                    words.say("mark." + line.mark().name().toLowerCase(Locale.ROOT)), words.say(line.what()));
        }
        return verdict.outcome() == Verdict.Outcome.PROVEN ? 0 : 1;
    }

}
