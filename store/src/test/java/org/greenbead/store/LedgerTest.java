package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.time.Instant;
import java.time.InstantSource;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import org.greenbead.core.board.Board;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.Verdict;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

public class LedgerTest {
    private static final String NEWER = "classpath:org/greenbead/store/newer";
    private final OpenFiles files = new OpenFiles();
    private final InstantSource clock = InstantSource.fixed(Instant.parse("2026-11-25T08:00:00Z"));
    private Path folder;
    private RunPlan plan;

    @BeforeMethod
    public void prepare() throws BadFileException {
        folder = Folders.fresh();
        plan = new DemoWorld(files).plan("SB-0417", "lift_run");
    }

    @AfterMethod
    public void remove() {
        Folders.remove(folder);
    }

    private Ledger open() throws LedgerException {
        return Ledger.open(folder, files, clock);
    }

    /** A nearly full disk is told in time, one of which nothing is known is not. */
    @Test
    public void aNearlyFullDiskIsTold() throws Exception {
        assertEquals(Ledger.lowRoomMb(1L << 40, 5L << 20).orElseThrow(), 5);
        assertEquals(Ledger.lowRoomMb(1L << 40, 0).orElseThrow(), 0);
        assertTrue(Ledger.lowRoomMb(1L << 40, 1L << 30).isEmpty());
        assertTrue(Ledger.lowRoomMb(0, 0).isEmpty());
    }

    @Test
    public void whatWasKeptIsThereAfterClosing() throws Exception {
        try (Ledger ledger = open()) {
            ledger.save(plan.board());
            ledger.save(plan.bench());
            ledger.save(plan.recipe());
            ledger.save(plan.job(), "opened", "");
            ledger.save(plan.job().attest("cell_off", Attest.YES), "attested", "cell_off yes");
            ledger.setting("unit", "fahrenheit");
        }
        try (Ledger ledger = open()) {
            assertEquals(ledger.document(Format.BOARD, "WB-7", Board.class), plan.board());
            assertEquals(ledger.document(Format.RECIPE, "wb7-lift", Recipe.class), plan.recipe());
            Job job = ledger.job("SB-0417");
            assertEquals(job.attested("cell_off"), Attest.YES);
            assertEquals(ledger.history("SB-0417").stream().map(JobEvent::kind).toList(),
                    List.of("opened", "attested"));
            assertEquals(ledger.setting("unit"), Optional.of("fahrenheit"));
            Board unit = plan.board().with(plan.target().out(48));
            assertEquals(ledger.plan(job, "lift_run"), plan.with(job).with(unit),
                    "the type, two days out of the bag as its record says");
            assertEquals(ledger.integrity(), "ok");
        }
    }

    @Test
    public void runIsOpenUntilItEnds() throws Exception {
        try (Ledger ledger = open()) {
            ledger.save(plan.job(), "opened", "");
            RunEntry run = ledger.beginRun(plan, clock.instant(), true);
            assertTrue(run.outcome().isEmpty());
            assertEquals(ledger.openRuns(), List.of(run));
            Verdict verdict = RunEngine.live(plan, Optional.empty()).verdict();
            ledger.endRun(run.id(), clock.instant(), verdict);
            assertEquals(ledger.openRuns(), List.of());
            assertEquals(ledger.run(run.id()).orElseThrow().outcome(),
                    Optional.of(Verdict.Outcome.BROKEN_OFF));
            assertTrue(Double.isNaN(ledger.run(run.id()).orElseThrow().peakJointC()),
                    "no peak is no number, not zero");
        }
    }

    @Test
    public void runOfAJobThatIsNotThereIsRefused() throws Exception {
        try (Ledger ledger = open()) {
            expectThrows(RuntimeException.class, () -> ledger.beginRun(plan, clock.instant(), true));
            assertEquals(ledger.runs(), List.of());
        }
    }

    @Test
    public void logStaysInsideItsFolderWhateverTheLedgerSays() throws Exception {
        try (Ledger ledger = open()) {
            var evil = new RunEntry("x", "SB-0417", "lift_run", "U1", "r", clock.instant(), true,
                    "../../../etc/passwd", Optional.empty(), Optional.empty(), 0, 0, 0, 0, Optional.empty());
            assertEquals(ledger.logFile(evil).normalize().getParent(), folder.resolve("runs"));
        }
    }

    @Test
    public void missingThingsAreNamedWithARemedy() throws Exception {
        try (Ledger ledger = open()) {
            assertTrue(expectThrows(BadFileException.class, () -> ledger.job("SB-9999")).getMessage()
                    .contains("greenbead ledger list"));
            assertTrue(expectThrows(BadFileException.class,
                    () -> ledger.document(Format.BOARD, "XX-1", Board.class)).getMessage()
                    .contains("board XX-1"));
        }
    }

    @Test
    public void olderLedgerIsCopiedBeforeItIsBroughtUpToDate() throws Exception {
        try (Ledger ledger = open()) {
            ledger.save(plan.job(), "opened", "");
        }
        assertFalse(Files.exists(folder.resolve("copies")), "no copy without a migration");
        try (Ledger ledger = Ledger.open(folder, files, clock, List.of(NEWER))) {
            assertEquals(ledger.jobs().size(), 1);
        }
        try (var copies = Files.list(folder.resolve("copies"))) {
            List<Path> all = copies.filter(c -> !c.toString().endsWith("daily.db")).toList();
            assertEquals(all.size(), 1);
            assertTrue(all.getFirst().getFileName().toString().contains("before-schema-99"), all.toString());
            try (var c = DriverManager.getConnection("jdbc:sqlite:" + all.getFirst());
                    var r = c.createStatement().executeQuery("SELECT count(*) FROM job")) {
                assertEquals(r.getInt(1), 1, "the copy holds the job");
            }
            try (var c = DriverManager.getConnection("jdbc:sqlite:" + all.getFirst())) {
                expectThrows(java.sql.SQLException.class,
                        () -> c.createStatement().executeQuery("SELECT * FROM future"));
            }
        }
    }

    @Test
    public void newerLedgerIsRefusedUnchanged() throws Exception {
        Ledger.open(folder, files, clock, List.of(NEWER)).close();
        byte[] before = Files.readAllBytes(folder.resolve("ledger.db"));
        LedgerException e = expectThrows(LedgerException.class, this::open);
        assertTrue(e.getMessage().contains("newer Green Bead") && e.getMessage().contains("99"),
                e.getMessage());
        assertEquals(Files.readAllBytes(folder.resolve("ledger.db")), before);
    }

    @Test
    public void damagedLedgerIsLeftAsItIsWithAWayOut() throws Exception {
        try (Ledger ledger = open()) {
            ledger.save(plan.job(), "opened", "");
        }
        Path file = folder.resolve("ledger.db");
        byte[] bytes = Files.readAllBytes(file);
        for (int i = 100; i < bytes.length; i += 3) {
            bytes[i] = (byte) (i * 31);
        }
        Files.write(file, bytes);
        LedgerException e = expectThrows(LedgerException.class, this::open);
        assertTrue(e.getMessage().contains("is damaged") && e.getMessage().contains("copies"),
                e.getMessage());
        assertEquals(Files.readAllBytes(file), bytes, "nothing was changed");
        Files.writeString(file,
                "this was never a database, just a long enough text to be looked at by whoever opens it");
        assertTrue(expectThrows(LedgerException.class, this::open).getMessage().contains("is damaged"));
    }

    @Test
    public void folderThatCannotBeMadeIsNamed() throws IOException {
        Path file = Files.writeString(folder.resolve("file"), "x");
        LedgerException e = expectThrows(LedgerException.class,
                () -> Ledger.open(file.resolve("data"), files, clock));
        assertTrue(e.getMessage().contains("cannot be written") && e.getMessage().contains("--data"),
                e.getMessage());
    }

    @Test
    public void writesFromSeveralThreadsAllArrive() throws Exception {
        try (Ledger ledger = open()) {
            ledger.save(plan.job(), "opened", "");
            int threads = 4;
            var done = new CountDownLatch(threads);
            for (int i = 0; i < threads; i++) {
                int mine = i;
                Thread.ofVirtual().start(() -> {
                    for (int n = 0; n < 6; n++) {
                        ledger.save(plan.job(), "note", mine + "-" + n);
                    }
                    done.countDown();
                });
            }
            done.await();
            assertEquals(ledger.history("SB-0417").size(), 1 + threads * 6);
        }
    }
}
