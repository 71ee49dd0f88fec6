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
import org.greenbead.core.account.Around;
import org.greenbead.core.account.Judgement;
import org.greenbead.core.account.Practice;
import org.greenbead.core.board.Board;
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
    /** Proven heats of the house where several chips are worked, so that no beginner is warned. */
    private static final int EXPERIENCED = 9;
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
            for (boolean twin : script.caught().isEmpty()
                    ? new boolean[]{false}
                    : new boolean[]{false, true}) {
                List<WorkScript.Step> steps = script.play(twin,
                        world(shared().files(),
                                (job, bead, at) -> heat(shared().files(), heats, job, bead, at)));
                bad += twin ? said(name, script, steps) : sound(name, steps);
                List<Job> family = steps.getLast().family();
                for (Job job : dry ? List.<Job>of() : family) {
                    // The script is its account; the file is the job it comes to.
                    write(folder.resolve(file(name, twin, family.getFirst(), job)),
                            shared().files().write(Format.JOB, job.withAccount(List.of())));
                }
            }
        }
        return bad == 0 ? 0 : 1;
    }

    /** A script with the parts that it takes in: {@code include intake}, or of another chip {@code include plan U1=U2}. */
    static WorkScript read(Path file) throws IOException, BadFileException {
        return new WorkScript(lines(file));
    }

    private static List<String> lines(Path file) throws IOException, BadFileException {
        return OpenFiles.text(file).lines().flatMap(line -> {
            // A part may belong to the sound job alone, or to its twin.
            String whose = line.matches("[+!] include .*") ? line.substring(0, 2) : "";
            if (!line.startsWith(whose + "include ")) {
                return Stream.of(line);
            }
            String[] part = line.substring(whose.length()).split("\\s+");
            try {
                List<String> taken = lines(file.resolveSibling(part[1] + ".part"));
                String[] other = part.length > 2 ? part[2].split("=") : new String[]{"", ""};
                return taken.stream().map(l -> whose + l).map(l -> other[0].isEmpty()
                        ? l
                        : l.replaceAll("\\b" + other[0] + "\\b", other[1]));
            } catch (IOException | BadFileException e) {
                throw new IllegalArgumentException(e.getMessage(), e);
            }
        }).toList();
    }

    /** Name of the file of a job, and of its further chips: package.job.bead.json, package-U2.job.bead.json. */
    static String file(String name, boolean twin, Job main, Job job) {
        return name + (twin ? "-twin" : "") + job.id().substring(main.id().length()) + ".job.bead.json";
    }

    static WorkScript.World world(OpenFiles files, WorkScript.Heated heated) {
        var demo = new DemoWorld(files);
        return new WorkScript.World((job, family) -> judge(files, job, family), heated,
                id -> demo.find(Format.BOARD, id, Board.class).orElseThrow(
                        () -> new IllegalArgumentException("there is no board " + id)));
    }

    /** @param family the job and its further chips; the job alone is judged as one that nothing else is known around */
    private static Judgement judge(OpenFiles files, Job job, List<Job> family) {
        try {
            return Judgement.of(job, Optional.of(new DemoWorld(files).onBoard(job)),
                    family.size() < 2
                            ? Optional.empty()
                            : Optional.of(Around.of(job, "", family, List.of(), Practice.ofAny(EXPERIENCED))),
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
                if (last(steps, step)) {
                    out().printf("    FALSE %s after: %s (%s)%n", n.rule().id(), step.line(),
                            step.job().id());
                }
            }
        }
        List<WorkScript.Step> ends = steps.stream().filter(s -> last(steps, s)).toList();
        ends.forEach(s -> s.judgement().notKnown().forEach(n -> out().println("    unknown "
                + n.rule().id() + " " + n.missing() + " (" + s.job().id() + ")")));
        ends.forEach(s -> WorkScript.left(s.job()).forEach(b -> out().println("    left " + s.job().id() + " "
                + b + " " + s.job().bead(b)
                        .stream().flatMap(x -> x.checks().stream())
                        .filter(c -> c.state() != org.greenbead.core.route.Attest.YES)
                        .map(c -> c.id()).toList()
                + org.greenbead.core.account.Gates
                        .missing(s.job(), b, s.judgement().look().evidence().facts())
                        .stream().map(d -> d.id()).toList())));
        return ends.stream()
                .mapToInt(s -> s.judgement().judged().open().size() + WorkScript.left(s.job()).size()
                        + (int) s.judgement().notKnown().stream().filter(NotKnown::holds).count())
                .sum();
    }

    /** Whether nothing is written of that chip after this step. */
    static boolean last(List<WorkScript.Step> steps, WorkScript.Step step) {
        return steps.stream().filter(s -> s.job().id().equals(step.job().id()))
                .reduce((a, b) -> b).filter(s -> s == step).isPresent();
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

    /** Runs that are kept in jobs already, as the world of a script that is played again without heating anything. */
    static WorkScript.Heated kept(List<Job> family) {
        return (job, bead, at) -> {
            Job done = family.stream().filter(j -> j.id().equals(job.id())).findFirst().orElseThrow();
            Job longer = job.with(bead, done.bead(bead).orElseThrow().state());
            List<Kept> left = done.records().stream().filter(r -> r.at().equals(at)).toList();
            for (Kept record : left) {
                longer = longer.with(record);
            }
            return longer;
        };
    }
}
