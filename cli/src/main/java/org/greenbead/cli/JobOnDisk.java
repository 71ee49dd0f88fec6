package org.greenbead.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.account.Account;
import org.greenbead.core.account.Around;
import org.greenbead.core.account.Gates;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.account.Judgement;
import org.greenbead.core.account.RailReferences;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.route.HouseRoute;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.timer.LongTest;
import org.greenbead.store.BadFileException;
import org.greenbead.store.DemoWorld;
import org.greenbead.store.Format;
import org.greenbead.store.Ledger;
import org.greenbead.store.LedgerException;
import org.greenbead.store.TestLogs;

/**
 * A job that the command line works on, a file or a number of the ledger, with what the ledger knows of its board, bench, chip and customer.
 * A ledger that is not there is not made; where there is none the boards of the demo world are at hand, and never beside a ledger.
 */
final class JobOnDisk {
    private final Shared shared;

    JobOnDisk(Shared shared) {
        this.shared = shared;
    }

    /**
     * What is known around a job.
     *
     * @param plan   empty where board, bench or recipe are not at hand
     * @param around empty without a ledger
     */
    record Surroundings(Optional<RunPlan> plan, Optional<Around> around, String source) {}

    /** Reads a job file, or a job of the ledger by its number. */
    Job read(String name) throws IOException, LedgerException, BadFileException {
        Path file = Path.of(name);
        if (Files.exists(file) || name.endsWith(".json")) {
            return shared.files().read(file, Format.JOB, Job.class);
        }
        Optional<Ledger> ledger = ledger();
        if (ledger.isEmpty()) {
            throw new BadFileException(name, 0, "",
                    "there is no such file, and no ledger in " + shared.data(),
                    "Name a job file, or a data folder with --data");
        }
        try (Ledger open = ledger.get()) {
            return open.job(name);
        }
    }

    /** Writes it where it came from, with what follows from it by now, its account written on. */
    void write(String name, Job before, Job after, String by, String kind, String detail)
            throws IOException, LedgerException, BadFileException {
        Job job = Account.noted(Optional.of(before), settled(after), Instant.now(), by);
        Path file = Path.of(name);
        if (Files.exists(file) || name.endsWith(".json")) {
            Verb.write(file, shared.files().write(Format.JOB, job));
            return;
        }
        try (Ledger open = shared.ledger()) {
            open.save(job, kind, detail);
        }
    }

    /** Checks that are shown by now, and gates that nothing holds any more; without its board only what its own records show. */
    private Job settled(Job job) throws LedgerException {
        Surroundings there = around(job);
        return there.plan().isEmpty()
                ? JobFacts.settled(job)
                : Gates.settle(job, Judgement.of(job, there.plan(), there.around(), Optional.empty(),
                        RuleBook.shipped(), RuleBook.Settings.STANDARD).look());
    }

    /** Reports that the ledger knows of a job since a moment, as a person tells them apart; empty where there are none. */
    String reportsSince(Job job, Instant since) throws LedgerException {
        Optional<Ledger> there = ledger();
        if (there.isEmpty()) {
            return "";
        }
        try (Ledger ledger = there.get()) {
            return Ledger
                    .named(ledger.reports(job.id()).stream().filter(r -> !r.at().isBefore(since)).toList());
        }
    }

    /** What the log of a long test says; kept where a ledger is. */
    LongTest longTest(Path log) throws BadFileException, LedgerException {
        Optional<Ledger> there = ledger();
        if (there.isEmpty()) {
            return TestLogs.look(log);
        }
        try (Ledger ledger = there.get()) {
            return ledger.testLogs().take(log);
        }
    }

    /** A plan file, or the next heat of the board of a job in the ledger, by its number. */
    RunPlan plan(Path named) throws BadFileException, LedgerException {
        Optional<RunPlan> ofJob = nextHeat(named);
        return ofJob.isPresent() ? ofJob.get() : shared.files().read(named, Format.PLAN, RunPlan.class);
    }

    /** The next heat of the board of a job in the ledger; empty where a file has that name or no job. */
    Optional<RunPlan> nextHeat(Path number) throws BadFileException, LedgerException {
        if (Files.exists(number) || number.getNameCount() != 1) {
            return Optional.empty();
        }
        Optional<Ledger> there = ledger();
        if (there.isEmpty()) {
            return Optional.empty();
        }
        try (Ledger ledger = there.get()) {
            String id = number.toString();
            return ledger.jobIds().contains(id)
                    ? Optional.of(ledger.onBoard(ledger.job(id)))
                    : Optional.empty();
        }
    }

    /** The ledger of the data folder; none is made where there is none. */
    Optional<Ledger> ledger() throws LedgerException {
        return Files.exists(shared.data().resolve("ledger.db"))
                ? Optional.of(shared.ledger())
                : Optional.empty();
    }

    Surroundings around(Job job) throws LedgerException {
        Optional<Ledger> ledger = ledger();
        if (ledger.isPresent()) {
            try (Ledger open = ledger.get()) {
                Optional<RunPlan> plan = plan(job, open);
                String part = plan.map(p -> p.board().requireChip(job.target()).part()).orElse("");
                Around around = Around.of(job, part, open.jobs(), open.chips(), open.practice(plan, false));
                return new Surroundings(plan, Optional.of(around), "ledger in " + open.folder()
                        + (plan.isPresent() ? "" : ", which has no board or bench of this job"));
            }
        }
        Optional<RunPlan> demo = demo(job);
        return new Surroundings(demo, Optional.empty(),
                demo.isPresent() ? "boards of the demo world" : "the job alone");
    }

    /** All jobs of the ledger; none where there is none. */
    List<Job> jobs() throws LedgerException {
        Optional<Ledger> ledger = ledger();
        if (ledger.isEmpty()) {
            return List.of();
        }
        try (Ledger open = ledger.get()) {
            return open.jobs();
        }
    }

    /** How the house works this kind of job; as shipped where there is no ledger. */
    HouseRoute house(JobKind kind) throws LedgerException {
        Optional<Ledger> ledger = ledger();
        if (ledger.isEmpty()) {
            return new HouseRoute(kind, List.of());
        }
        try (Ledger open = ledger.get()) {
            return open.houseRoute(kind);
        }
    }

    /** What the rails of this type of board read on healthy ones. */
    Map<String, RailReferences.Reference> rails(Job job) throws LedgerException {
        return RailReferences.learn(jobs(), job.board(), job.id());
    }

    /** The job on its own board, where the ledger has board and bench. */
    private static Optional<RunPlan> plan(Job job, Ledger ledger) {
        try {
            return Optional.of(ledger.onBoard(job));
        } catch (BadFileException | IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    private Optional<RunPlan> demo(Job job) {
        try {
            return Optional.of(new DemoWorld(shared.files()).onBoard(job));
        } catch (BadFileException e) {
            return Optional.empty();
        }
    }

    /** The bead map that the ledger keeps for the chip in hand; empty without one. */
    Optional<BeadMap> beadMap(Job job) throws LedgerException, BadFileException {
        Optional<Board> board = board(job.board());
        Optional<Ledger> ledger = ledger();
        if (board.isEmpty() || ledger.isEmpty()) {
            return Optional.empty();
        }
        try (Ledger open = ledger.get()) {
            String part = board.get().requireChip(job.target()).part();
            return part.isBlank() ? Optional.empty() : open.beadMaps().find(part);
        }
    }

    /** The board, where the ledger or the demo world has it. */
    Optional<Board> board(String id) throws LedgerException {
        return document(Format.BOARD, id, Board.class);
    }

    Optional<Bench> bench(String id) throws LedgerException {
        return document(Format.BENCH, id, Bench.class);
    }

    /** Ids of all that are at hand, for a message. */
    List<String> boards() throws LedgerException {
        Optional<Ledger> ledger = ledger();
        if (ledger.isPresent()) {
            try (Ledger open = ledger.get()) {
                return open.boards().stream().map(Board::id).sorted().toList();
            }
        }
        return new DemoWorld(shared.files()).boards();
    }

    private <T> Optional<T> document(Format format, String id, Class<T> type) throws LedgerException {
        Optional<Ledger> ledger = ledger();
        if (ledger.isPresent()) {
            try (Ledger open = ledger.get()) {
                return open.holds(format, id)
                        ? Optional.of(open.document(format, id, type))
                        : Optional.empty();
            } catch (BadFileException e) {
                // A damaged document is named by doctor; here it counts as not there.
                return Optional.empty();
            }
        }
        return new DemoWorld(shared.files()).find(format, id, type);
    }
}
