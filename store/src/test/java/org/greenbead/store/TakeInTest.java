package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.InstantSource;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import org.greenbead.core.bench.AirStation;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.RunPlan;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** Files and folders come in whole, in any order, or not at all. */
public class TakeInTest {
    private final OpenFiles files = new OpenFiles();
    private final InstantSource clock = InstantSource.fixed(Instant.parse("2026-11-25T08:00:00Z"));
    private Path away;
    private Path folder;
    private Ledger ledger;
    private Job job;
    private Board board;
    private Bench bench;
    private Recipe usual;

    @BeforeMethod
    public void open() throws Exception {
        away = Folders.fresh();
        folder = Files.createDirectories(away.resolve("from/sub")).getParent();
        ledger = Ledger.open(away.resolve("data"), files, clock);
        var demo = new DemoWorld(files);
        RunPlan plan = demo.plans().getFirst();
        job = plan.job();
        board = plan.board();
        bench = plan.bench();
        usual = plan.recipe();
    }

    @AfterMethod(alwaysRun = true)
    public void remove() {
        ledger.close();
        Folders.remove(away);
    }

    private Path write(String name, Format format, Object value) throws Exception {
        return Files.writeString(folder.resolve(name), files.write(format, value));
    }

    private TakeIn.Taken in(Path... named) throws Exception {
        return TakeIn.from(ledger, List.of(named), false, n -> {
        }, () -> false);
    }

    @Test
    public void stoppedWhileItReadsItLeavesTheLedgerAsItWas() throws Exception {
        Path one = write("a.bead.json", Format.BOARD, board.copy("ST-1", "One"));
        Path other = write("b.bead.json", Format.BOARD, board.copy("ST-2", "Two"));
        var read = new ArrayList<Integer>();
        var stopped = expectThrows(CancellationException.class, () -> TakeIn.from(ledger,
                List.of(one, other), false, read::add, () -> read.size() == 1));
        assertEquals(read, List.of(1));
        assertTrue(stopped.getMessage().contains("after 1 files"), stopped.getMessage());
        assertFalse(ledger.holds(Format.BOARD, "ST-1"));
        expectThrows(CancellationException.class, () -> TakeIn.from(ledger, List.of(one, other), false,
                read::add, () -> read.size() == 3));
        assertFalse(ledger.holds(Format.BOARD, "ST-1"), "the press came with the last file: still nothing");
        TakeIn.from(ledger, List.of(one, other), false, read::add, () -> false);
        assertTrue(ledger.holds(Format.BOARD, "ST-1") && ledger.holds(Format.BOARD, "ST-2"));
    }

    /** The job's file is read before those of its board and bench; a picture in the folder is left alone and named. */
    @Test
    public void aFolderComesInWhateverTheOrder() throws Exception {
        write("a.job.bead.json", Format.JOB, job);
        write("sub/y.board.bead.json", Format.BOARD, board);
        write("z.bench.bead.json", Format.BENCH, bench);
        Files.writeString(folder.resolve("notes.txt"), "tray three");
        TakeIn.Taken taken = in(folder);
        assertEquals(taken.jobs(), List.of(job.id()));
        assertEquals(taken.taken().size(), 3);
        assertEquals(taken.left(), List.of(folder.resolve("notes.txt")));
        assertEquals(ledger.job(job.id()), job);
        assertEquals(ledger.boards(), List.of(board));
        assertEquals(ledger.history(job.id()).getLast().kind(), "imported");
        assertEquals(ledger.history(job.id()).getLast().detail(), "a.job.bead.json");
        assertEquals(in(folder).jobs(), List.of(job.id()), "the same again is no clash");
    }

    /** A bundle brings the board that a loose file stands on. */
    @Test
    public void aBundleBesideFiles() throws Exception {
        in(write("j.job.bead.json", Format.JOB, job), write("b.board.bead.json", Format.BOARD, board),
                write("w.bench.bead.json", Format.BENCH, bench));
        Path zip = folder.resolve("one.zip");
        JobBundle.pack(ledger, job.id(), Files.newOutputStream(zip));
        Files.delete(folder.resolve("b.board.bead.json"));
        write("j.job.bead.json", Format.JOB, renumbered("SB-0901"));
        Ledger mine = ledger;
        ledger = Ledger.open(away.resolve("other"), files, clock);
        mine.close();
        assertEquals(in(folder).jobs(), List.of("SB-0901", job.id()));
        assertEquals(ledger.jobIds(), List.of(job.id(), "SB-0901").stream().sorted().toList());
    }

    private Job renumbered(String id) {
        return new Job(id, job.title(), job.complaint(), job.customer(), job.board(), job.target(),
                job.bench(), job.beads(), job.facts(), job.records());
    }

    /** One bad file, one that stands on nothing, two of one name, a clash: each is told, and none of the others is kept. */
    @Test
    public void nothingHalfKept() throws Exception {
        Path good = write("b.board.bead.json", Format.BOARD, board);
        write("j.job.bead.json", Format.JOB, job);
        BadFileException alone = expectThrows(BadFileException.class, () -> in(folder));
        assertTrue(alone.getMessage().startsWith("j.job.bead.json, /bench: bench " + bench.id()
                + " is neither in the ledger nor among the files"), alone.getMessage());
        Path bad = Files.writeString(folder.resolve("z.recipe.bead.json"), "{\"format\": \"greenbead/rec");
        assertTrue(expectThrows(BadFileException.class, () -> in(folder)).getMessage()
                .contains("z.recipe.bead.json"));
        Files.delete(bad);
        Path twin = write("c.board.bead.json", Format.BOARD, board.copy(board.id(), "Another one"));
        TakeIn.ClashException two = expectThrows(TakeIn.ClashException.class, () -> in(folder));
        assertTrue(
                two.getMessage().contains("board " + board.id() + " among the files (b.board.bead.json and "
                        + "c.board.bead.json)"),
                two.getMessage());
        assertTrue(ledger.boards().isEmpty() && ledger.jobIds().isEmpty(), "nothing is kept of all that");
        in(good);
        TakeIn.ClashException there = expectThrows(TakeIn.ClashException.class, () -> in(
                write("w.bench.bead.json", Format.BENCH, bench), twin));
        assertTrue(there.getMessage().contains("The ledger holds another board " + board.id()
                + ". Nothing was changed"), there.getMessage());
        assertTrue(ledger.benches().isEmpty(), "the bench that came first is not kept either");
        assertEquals(TakeIn.from(ledger, List.of(twin), true, n -> {
        }, () -> false).taken(), List.of("board " + board.id()));
        assertEquals(ledger.boards().getFirst().title(), "Another one");
        assertTrue(expectThrows(BadFileException.class, () -> in(folder.resolve("gone.zip"))).getMessage()
                .contains("there is no such file or folder. Look at the name"));
        Path empty = Files.createDirectories(away.resolve("empty"));
        assertTrue(expectThrows(BadFileException.class, () -> in(empty)).getMessage()
                .contains("nothing in it that a ledger takes in"));
    }

    /** The same thing written otherwise, as an earlier version wrote it, is no other thing. */
    @Test
    public void theSameWrittenOtherwiseIsNoClash() throws Exception {
        in(write("b.board.bead.json", Format.BOARD, board));
        try (var rows = java.sql.DriverManager.getConnection("jdbc:sqlite:" + away.resolve("data/ledger.db"));
                var row = rows.prepareStatement("UPDATE document SET body = replace(body, ' : ', ':')")) {
            assertEquals(row.executeUpdate(), 1);
        }
        assertEquals(in(folder.resolve("b.board.bead.json")).taken(), List.of("board " + board.id()));
    }

    /** A station is called otherwise: its recipes follow, and back again; one that may be another bench's stays. */
    @Test
    public void recipesFollowTheirStation() throws Exception {
        AirStation pen = bench.air().another("pen");
        Recipe recipe = usual.by("pen");
        ledger.save(bench.adding(pen));
        ledger.save(recipe);
        Bench called = bench.adding(pen).taking("pen").callingAir("lance");
        ledger.save(called);
        assertEquals(station(recipe), "lance");
        ledger.save(bench.adding(pen));
        assertEquals(station(recipe), "pen");
        ledger.save(bench.copy("other").adding(pen));
        ledger.save(called);
        assertEquals(station(recipe), "pen", "the other bench has one of that name");
        ledger.save(bench);
        assertFalse(called.renamed(bench).isPresent(), "one more is none called otherwise");
    }

    private String station(Recipe recipe) throws BadFileException {
        return ledger.document(Format.RECIPE, recipe.id(), Recipe.class).station().orElseThrow();
    }
}
