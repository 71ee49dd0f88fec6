package org.greenbead.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Stream;
import org.greenbead.core.account.Judgement;
import org.greenbead.core.book.NotKnown;
import org.greenbead.core.book.Noticed;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.AfterRun;
import org.greenbead.core.run.ProbePort;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunJournal;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.RunSession;
import org.greenbead.core.run.RunState;
import org.greenbead.core.run.SimulatedBench;
import org.greenbead.core.run.Verdict;
import org.greenbead.core.work.WorkScript;
import org.greenbead.store.BadFileException;
import org.greenbead.store.DemoWorld;
import org.greenbead.store.Format;
import org.greenbead.store.OpenFiles;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Plays the example jobs. */
@Command(name = "examples", hidden = true, mixinStandardHelpOptions = true, description = "Plays the scripts NAME.work of a folder to their jobs, NAME.job.bead.json and NAME-twin.job.bead.json beside them; the heats are run on the simulated bench.")
final class ExamplesCommand extends Verb {
    @Parameters(paramLabel = "FOLDER", description = "Folder with the scripts.")
    private Path folder;
    @Option(names = "--only", paramLabel = "NAME", description = "This one alone.")
    private String only;
    @Option(names = "--dry", description = "Say what is found; write nothing.")
    private boolean dry;

    @Override
    public Integer call() throws Exception {
        var heats = new HashMap<String, Ran>();
        int bad = 0;
        List<Path> scripts;
        try (Stream<Path> files = Files.list(folder)) {
            scripts = files.filter(f -> f.toString().endsWith(".work")).sorted().toList();
        }
        for (Path file : scripts) {
            String name = file.getFileName().toString().replace(".work", "");
            if (only != null && !only.equals(name)) {
                continue;
            }
            WorkScript script = read(file);
            for (boolean twin : new boolean[]{false, true}) {
                List<WorkScript.Step> steps = script.play(twin,
                        new WorkScript.World(job -> judge(shared().files(), job),
                                (job, bead, at) -> heat(shared().files(), heats, job, bead, at)));
                // The script is its account; the file is the job it comes to.
                Job job = steps.getLast().job().withAccount(List.of());
                bad += twin ? said(name, script, steps) : sound(name, steps);
                if (!dry) {
                    write(folder.resolve(name + (twin ? "-twin" : "") + ".job.bead.json"),
                            shared().files().write(Format.JOB, job));
                }
            }
        }
        return bad == 0 ? 0 : 1;
    }

    /** A script with the parts that it takes in: {@code include intake}. */
    static WorkScript read(Path file) throws IOException, BadFileException {
        return new WorkScript(lines(file));
    }

    private static List<String> lines(Path file) throws IOException, BadFileException {
        return OpenFiles.text(file).lines().flatMap(line -> {
            if (!line.startsWith("include ")) {
                return Stream.of(line);
            }
            try {
                return lines(file.resolveSibling(line.substring(8).strip() + ".part")).stream();
            } catch (IOException | BadFileException e) {
                throw new IllegalArgumentException(e.getMessage(), e);
            }
        }).toList();
    }

    static Judgement judge(OpenFiles files, Job job) {
        try {
            return Judgement.of(job, Optional.of(new DemoWorld(files).onBoard(job)), Optional.empty(),
                    Optional.empty(), RuleBook.shipped(), RuleBook.Settings.STANDARD);
        } catch (BadFileException e) {
            throw new IllegalArgumentException(e.getMessage(), e);
        }
    }

    private int sound(String name, List<WorkScript.Step> steps) {
        WorkScript.Step end = steps.getLast();
        int checks = end.job().beads().stream().mapToInt(b -> b.checks().size()).sum();
        out().printf("%-12s sound: %d checks, %d said by hand, %d entries%n", name, checks,
                steps.stream().mapToInt(WorkScript.Step::ticks).sum(),
                steps.stream().mapToInt(WorkScript.Step::entries).sum());
        for (WorkScript.Step step : steps) {
            for (Noticed n : step.judgement().judged().open()) {
                if (step == end) {
                    out().printf("    FALSE %s after: %s%n", n.rule().id(), step.line());
                }
            }
        }
        end.judgement().notKnown().stream().map(n -> n.rule().id() + " " + n.missing())
                .forEach(n -> out().println("    unknown " + n));
        WorkScript.left(end.job()).forEach(b -> out().println("    left " + b + " " + end.job().bead(b)
                .stream().flatMap(x -> x.checks().stream())
                .filter(c -> c.state() != org.greenbead.core.route.Attest.YES)
                .map(c -> c.id()).toList()
                + org.greenbead.core.account.Gates
                        .missing(end.job(), b, end.judgement().look().evidence().facts())
                        .stream().map(d -> d.id()).toList()));
        return end.judgement().judged().open().size() + WorkScript.left(end.job()).size()
                + (int) end.judgement().notKnown().stream().filter(NotKnown::holds).count();
    }

    private int said(String name, WorkScript script, List<WorkScript.Step> steps) {
        int missed = 0;
        for (WorkScript.Caught caught : script.caught()) {
            OptionalInt told = WorkScript.told(caught, steps);
            boolean right = told.isPresent() && told.getAsInt() == caught.lines();
            out().printf("%-12s twin: %s %s%s%n", name, caught.rule(),
                    told.isPresent() ? "said after: " + steps.get(told.getAsInt() - 1).line() : "NOT SAID",
                    right ? "" : " (EXPECTED AT ANOTHER LINE)");
            missed += right ? 0 : 1;
        }
        return missed;
    }

    private record Ran(RunPlan plan, List<org.greenbead.core.run.RunEvent> told, Verdict verdict) {}

    /** The heat of a bead on the simulated bench; the same heat of the same board is run once. */
    private static Job heat(OpenFiles files, Map<String, Ran> heats, Job job, String beadId, Instant at) {
        Bead bead = job.bead(beadId).orElseThrow();
        RunPlan plan = plan(files, job, bead);
        Ran ran = heats.computeIfAbsent(job.board() + " " + job.target() + " " + plan.task() + " " + beadId
                + " " + job.facts().at("plan.ball_alloy").orElse(""), key -> run(plan));
        return AfterRun.over(job, plan, ran.told(), ran.verdict(), at, "technician A", false);
    }

    private static RunPlan plan(OpenFiles files, Job job, Bead bead) {
        try {
            Job open = job.with(bead.id(), BeadState.OPEN);
            RunPlan board = new DemoWorld(files).onBoard(open);
            return RunPlan.of(job, bead, board.board(), board.bench(),
                    RunPlan.Task.of(bead) == RunPlan.Task.FORM
                            ? Optional.empty()
                            : Optional.of(board.recipe()));
        } catch (BadFileException e) {
            throw new IllegalArgumentException(e.getMessage(), e);
        }
    }

    private static Ran run(RunPlan plan) {
        var bench = new SimulatedBench(plan, DemoWorld.SEED);
        ProbePort port = bench;
        try (var session = new RunSession(
                RunEngine.live(plan, Optional.of(Rehearsal.of(plan, () -> false))), port, RunJournal.NONE,
                bench)) {
            RunState end = DemoWorld.drive(session, bench, plan, DemoWorld.SEED);
            if (end.status() != RunState.Status.ENDED) {
                throw new IllegalStateException("the heat of " + plan.bead() + " did not end");
            }
            return new Ran(session.plan(), session.told(), session.verdict());
        }
    }

    /** Runs that are kept in a job already, as the world of a script that is played again without heating anything. */
    static WorkScript.Heated kept(Job done) {
        return (job, bead, at) -> {
            Job longer = job.with(bead, done.bead(bead).orElseThrow().state());
            List<Kept> left = done.records().stream().filter(r -> r.at().equals(at)).toList();
            for (Kept record : left) {
                longer = longer.with(record);
            }
            return longer;
        };
    }
}
