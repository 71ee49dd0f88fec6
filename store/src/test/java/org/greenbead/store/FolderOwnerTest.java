package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.util.List;
import org.greenbead.core.run.RunPlan;
import org.sqlite.SQLiteErrorCode;
import org.sqlite.SQLiteException;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** A data folder has one writer, and every fault of it has its true name. */
public class FolderOwnerTest {
    private final OpenFiles files = new OpenFiles();
    private Instant now = Instant.parse("2026-11-25T08:00:00Z");
    private final InstantSource clock = () -> now;
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

    @Test
    public void secondWriterIsRefusedInWordsAndMayRead() throws Exception {
        try (Ledger first = Ledger.open(folder, files, clock)) {
            first.save(plan.job(), "opened", "");
            LedgerException refused = expectThrows(LedgerException.class,
                    () -> Ledger.open(folder, files, clock));
            assertTrue(refused.getMessage().contains("belongs to another Green Bead (process "
                    + ProcessHandle.current().pid()), refused.getMessage());
            try (Ledger reader = Ledger.openShared(folder, files, clock)) {
                assertFalse(reader.writes());
                assertEquals(reader.jobs().size(), 1);
                LedgerReadOnlyException no = expectThrows(LedgerReadOnlyException.class,
                        () -> reader.save(plan.board()));
                assertTrue(no.getMessage().contains("may only read"), no.getMessage());
                expectThrows(LedgerReadOnlyException.class, () -> reader.beginRun(plan, now, true));
            }
            first.save(plan.board());
        }
        try (Ledger next = Ledger.open(folder, files, clock)) {
            assertEquals(next.jobs().size(), 1, "a closed owner leaves the folder free");
        }
    }

    /** A process that is killed leaves the folder free; while it lives, nobody else writes there and its log is whole. */
    @Test
    public void ownerInAnotherProcessIsFoundAliveAndDead() throws Exception {
        Process child = new ProcessBuilder(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(), "-cp",
                System.getProperty("java.class.path"), Holder.class.getName(), folder.toString())
                .redirectError(ProcessBuilder.Redirect.INHERIT).start();
        try {
            assertEquals(child.inputReader().readLine(), "held");
            LedgerException refused = expectThrows(LedgerException.class,
                    () -> Ledger.open(folder, files, clock));
            assertTrue(refused.getMessage().contains("process " + child.pid()), refused.getMessage());
            try (Ledger reader = Ledger.openShared(folder, files, clock)) {
                assertFalse(reader.writes());
            }
        } finally {
            child.destroyForcibly();
            child.waitFor();
        }
        try (Ledger after = Ledger.open(folder, files, clock)) {
            assertTrue(after.writes());
        }
    }

    /** Holds a folder until it is killed. */
    public static final class Holder {
        private Holder() {
        }

        public static void main(String[] args) throws Exception {
            try (Ledger held = Ledger.open(Path.of(args[0]), new OpenFiles(), InstantSource.system())) {
                System.out.println("held");
                System.out.flush();
                // Ends when the one who started it ends it, or its pipe.
                while (System.in.read() >= 0 && held.writes()) {
                    Thread.onSpinWait();
                }
            }
        }
    }

    @Test
    public void oneDamagedRowHidesNoOther() throws Exception {
        try (Ledger ledger = Ledger.open(folder, files, clock)) {
            ledger.save(plan.job(), "opened", "");
            ledger.save(plan.board());
            ledger.save(plan.bench());
            assertEquals(ledger.damaged(), List.of());
        }
        try (var raw = DriverManager.getConnection("jdbc:sqlite:" + folder.resolve("ledger.db"));
                var s = raw.createStatement()) {
            s.executeUpdate("INSERT INTO job (id, body, updated_at) VALUES ('SB-9999', '{\"id\": ', 'x')");
            s.executeUpdate(
                    "INSERT INTO document (kind, id, body, updated_at) VALUES ('board', 'XX', '{}', 'x')");
        }
        try (Ledger ledger = Ledger.open(folder, files, clock)) {
            assertEquals(ledger.jobs().size(), 1);
            assertEquals(ledger.boards().size(), 1);
            List<String> damaged = ledger.damaged();
            assertEquals(damaged.size(), 2, damaged.toString());
            assertTrue(damaged.getFirst().contains("SB-9999")
                    && damaged.getFirst().contains("restore it from a copy"), damaged.toString());
        }
    }

    @Test
    public void everyDayLeavesACopyAndAFortnightIsKept() throws Exception {
        for (int day = 0; day < 20; day++) {
            for (int opening = 0; opening < 2; opening++) {
                try (Ledger ledger = Ledger.open(folder, files, clock)) {
                    ledger.setting("day", Integer.toString(day));
                }
            }
            now = now.plus(Duration.ofDays(1));
        }
        try (var copies = Files.list(folder.resolve("copies"))) {
            List<String> names = copies.map(c -> c.getFileName().toString()).sorted().toList();
            assertEquals(names.size(), 14, names.toString());
            assertTrue(names.getLast().contains("20261214"), names.toString());
        }
    }

    @DataProvider
    Object[][] faults() {
        return new Object[][]{{SQLiteErrorCode.SQLITE_FULL, "no room on the disk", "Free space"},
                {SQLiteErrorCode.SQLITE_READONLY_DBMOVED, "read but not written", "right to write"},
                {SQLiteErrorCode.SQLITE_CANTOPEN, "cannot be opened", "is there"},
                {SQLiteErrorCode.SQLITE_IOERR_WRITE, "gave an error", "disk is full"},
                {SQLiteErrorCode.SQLITE_BUSY, "another program", "Close that one"},
                {SQLiteErrorCode.SQLITE_CORRUPT, "is damaged", "Move it away"},
                {SQLiteErrorCode.SQLITE_NOTADB, "is damaged", "Move it away"}};
    }

    /** Only a damaged file is called damaged and moved away. */
    @Test(dataProvider = "faults")
    public void eachFaultHasItsNameAndRemedy(SQLiteErrorCode code, String name, String remedy) {
        SQLException fault = new SQLiteException("[" + code + "] told so", code);
        String said = LedgerFault.of(folder.resolve("ledger.db"), new RuntimeException(fault)).getMessage();
        assertTrue(said.contains(name) && said.contains(remedy), said);
        assertEquals(said.contains("Move it away"), name.equals("is damaged"), said);
    }

    /** A ledger whose folder was taken away says so at the next write, and not nothing. */
    @Test
    public void deletedFolderIsToldAtTheNextWrite() throws Exception {
        try (Ledger ledger = Ledger.open(folder, files, clock)) {
            Files.delete(folder.resolve("ledger.db"));
            IllegalStateException gone = expectThrows(IllegalStateException.class,
                    () -> ledger.save(plan.board()));
            assertTrue(gone.getMessage().contains("is gone"), gone.getMessage());
        }
    }

    @Test
    public void noCellIsAFormula() {
        for (String bad : new String[]{"=1+1", "+cmd", "-a", "@sum", "\t=1", "=HYPERLINK(\"x\")"}) {
            assertEquals(SafeCell.of(bad), "'" + bad);
            assertEquals(SafeCell.read(SafeCell.of(bad)), bad);
        }
        for (String good : new String[]{"", "-3.25", "+4", "1e-3", "VDD", "-1.5E+6", "it's"}) {
            assertEquals(SafeCell.of(good), good);
            assertEquals(SafeCell.read(good), good);
        }
    }
}
