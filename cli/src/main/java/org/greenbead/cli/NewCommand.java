package org.greenbead.cli;

import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import org.greenbead.core.account.Account;
import org.greenbead.core.board.Board;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.Vocabulary;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.greenbead.core.route.School;
import org.greenbead.core.route.Schools;
import org.greenbead.core.work.Opening;
import org.greenbead.store.BadFileException;
import org.greenbead.store.Format;
import org.greenbead.store.Ledger;
import org.greenbead.store.LedgerException;
import org.greenbead.store.NewJob;
import org.greenbead.store.SafeFiles;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Begins a job. */
@Command(name = "new", mixinStandardHelpOptions = true, description = "Begins a job in the ledger, or writes it to a file, with the route of its kind: revive, replace, reflow, transplant, memory, storage, boards, package, loose, milled, flex or harvest.")
final class NewCommand implements Callable<Integer> {
    @Mixin
    private Shared shared;
    @Spec
    private CommandSpec spec;
    @Parameters(paramLabel = "KIND", description = "What the job is for.")
    private JobKind kind;
    @Parameters(index = "1", arity = "0..1", paramLabel = "OUT", description = "A job file (greenbead/job/1) to write; without it the job begins in the ledger.")
    private Path out;
    @Option(names = "--id", description = "Number of the job (in the ledger the next free one).")
    private String id;
    @Option(names = "--title", required = true, description = "What it is.")
    private String title;
    @Option(names = "--complaint", required = true, description = "What is wrong, in the customer's words.")
    private String complaint;
    @Option(names = "--customer", required = true, description = "A vessel or station.")
    private String customer;
    @Option(names = "--board", required = true, description = "Id of the board.")
    private String board;
    @Option(names = "--target", required = true, description = "The chip that is worked on.")
    private String target;
    @Option(names = "--bench", required = true, description = "Id of the bench.")
    private String bench;
    @Option(names = "--recipe", paramLabel = "SLOT=ID", description = "Recipe for each heat of the route (default: board-slot, such as wb7-lift).")
    private Map<String, String> recipes = new HashMap<>();
    @Option(names = "--way", paramLabel = "POINT=CHOICE", description = "A way of working; list them with: greenbead schools.")
    private Map<String, String> ways = new LinkedHashMap<>();
    @Option(names = "--facts", paramLabel = "a.b=c;...", defaultValue = "", description = "What is known already, such as job.goal=data; chip.pads=528.")
    private String facts;

    @Override
    public Integer call() throws Exception {
        List<Vocabulary.Misfit> misfits = Vocabulary.ofTheTrade().misfits(Facts.none().with(facts));
        if (!misfits.isEmpty()) {
            throw new BadFileException("--facts", 0, misfits.getFirst().pointer(), misfits.getFirst().what(),
                    misfits.getFirst().remedy());
        }
        PrintWriter say = spec.commandLine().getOut();
        Job begun;
        if (out == null) {
            if (!Files.exists(shared.data().resolve("ledger.db"))) {
                throw nothingThere();
            }
            known();
            try (Ledger ledger = shared.ledger()) {
                String number = id == null ? Opening.nextId(ledger.jobIds()) : id;
                begun = new NewJob(number, kind, title, complaint, customer, board, target, bench)
                        .into(ledger, recipes, facts, this::chosen, Instant.now(), "");
                say.println("job " + number + " in " + ledger.folder());
            }
        } else {
            begun = written();
        }
        begun.beads()
                .forEach(b -> say.printf(Locale.ROOT, "%-8s %s%s%n", CheckCommand.small(b.phase()),
                        shared.words().say("bead." + b.id()),
                        b.gate() ? " (gate)" : ""));
        return 0;
    }

    private IllegalArgumentException nothingThere() {
        return new IllegalArgumentException("there is no ledger in " + shared.data()
                + " for the job to begin in; make your board (greenbead board new) and your bench (greenbead bench new) first, or name a file to write");
    }

    /** The job as a file, nothing kept. */
    private Job written() throws Exception {
        if (id == null) {
            throw new IllegalArgumentException("a job file needs a number: --id J-0001");
        }
        var disk = new JobOnDisk(shared);
        known();
        String stem = board.toLowerCase(Locale.ROOT).replace("-", "");
        for (String slot : List.of("lift", "seat", "form", "shape")) {
            recipes.putIfAbsent(slot, stem + "-" + slot);
        }
        Job job = chosen(new Job(id, title, complaint, customer, board, target, bench,
                disk.house(kind).over(Routes.shipped().beads(kind, recipes)),
                Facts.none().with("job.kind=" + kind.key()).with(facts)));
        Job begun = Account.noted(Optional.empty(), job, Instant.now(), "");
        SafeFiles.write(out, shared.files().write(Format.JOB, begun).getBytes(StandardCharsets.UTF_8));
        return begun;
    }

    /** With the ways that were named or meant. */
    private Job chosen(Job from) {
        Job job = from;
        for (Map.Entry<String, String> way : said(from.facts()).entrySet()) {
            School school = Schools.shipped().find(way.getKey())
                    .orElseThrow(() -> new IllegalArgumentException("\"" + way.getKey()
                            + "\" is no point on which ways differ; list them with: greenbead schools"));
            job = Schools.shipped().choose(job, school, way.getValue(), "chosen when the job was begun",
                    Instant.now(), "");
        }
        return job;
    }

    /** The ways by name, and those that are meant by facts that only one way says. */
    private Map<String, String> said(Facts noted) {
        var all = new LinkedHashMap<String, String>();
        for (School school : Schools.shipped().all()) {
            for (School.Choice choice : school.choices()) {
                boolean swaps = choice.in().isPresent() || choice.out().isPresent();
                if (swaps && !choice.facts().isBlank() && !choice.id().equals(school.standard())
                        && noted.with(choice.facts()).equals(noted)) {
                    all.put(school.id(), choice.id());
                }
            }
        }
        all.putAll(ways);
        return all;
    }

    /** Board, target and bench are there. */
    private void known() throws Exception {
        var disk = new JobOnDisk(shared);
        Board there = disk.board(board).orElseThrow(() -> new IllegalArgumentException(
                "there is no board \"" + board + "\" at hand; there are "
                        + String.join(", ", boardsOf(disk))));
        there.requireChip(target);
        if (disk.bench(bench).isEmpty()) {
            throw new IllegalArgumentException("there is no bench \"" + bench
                    + "\" at hand; set it up in the window, or import its file");
        }
    }

    private static List<String> boardsOf(JobOnDisk disk) {
        try {
            return disk.boards();
        } catch (LedgerException e) {
            return List.of(e.getMessage());
        }
    }
}
