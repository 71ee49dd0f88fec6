package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.greenbead.core.route.Job;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** A job that is thrown away can be taken back whole for thirty days and is deleted by nobody but a person. */
public class JobBinTest {
    private final OpenFiles files = new OpenFiles();
    private Path folder;
    private Instant now = Instant.parse("2026-11-01T08:00:00Z");

    @BeforeMethod
    public void folder() throws Exception {
        folder = Files.createTempDirectory("greenbead-bin");
    }

    @AfterMethod(alwaysRun = true)
    public void remove() throws Exception {
        try (var all = Files.walk(folder)) {
            all.sorted(java.util.Comparator.reverseOrder()).forEach(p -> p.toFile().delete());
        }
    }

    private Ledger ledger() throws Exception {
        return Ledger.open(folder, files, () -> now);
    }

    private Job job(String id) throws Exception {
        Job any = new DemoWorld(files).plan("SB-0417", "lift_run").job();
        return new Job(id, any.title(), any.complaint(), any.customer(), any.board(), any.target(),
                any.bench(), any.beads());
    }

    @Test
    public void aJobComesBackWholeAfterARestart() throws Exception {
        Job kept = job("J-0001");
        try (Ledger ledger = ledger()) {
            ledger.save(kept, "opened", "");
            ledger.save(job("J-0002"), "opened", "");
            ledger.bin().put("J-0001");
            assertEquals(ledger.jobs().stream().map(Job::id).toList(), List.of("J-0002"));
            assertEquals(ledger.jobIds(), List.of("J-0001", "J-0002"), "its number is not given again");
            assertEquals(ledger.usedBy(Format.BOARD, kept.board()), List.of("J-0001", "J-0002"),
                    "its board stays");
        }
        now = now.plus(Duration.ofDays(29));
        try (Ledger ledger = ledger()) {
            assertEquals(ledger.bin().empty(), List.of(), "a day too early");
            assertEquals(ledger.bin().all().getFirst().job(), kept);
            ledger.bin().takeBack("J-0001");
            assertEquals(ledger.job("J-0001"), kept);
            assertEquals(ledger.history("J-0001").stream().map(JobEvent::kind).toList(),
                    List.of("opened", "binned", "taken back"));
            assertTrue(ledger.bin().all().isEmpty());
        }
    }

    @Test
    public void afterThirtyDaysAPersonMayEmptyIt() throws Exception {
        try (Ledger ledger = ledger()) {
            ledger.save(job("J-0001"), "opened", "");
            RunEntry run = ledger.beginRun(
                    new DemoWorld(files).plan("SB-0417", "lift_run").with(job("J-0001")),
                    now, true);
            assertTrue(expectThrows(LedgerException.class, () -> ledger.bin().put("J-0001")).getMessage()
                    .contains("a run of it is open"));
            ledger.endRun(run.id(), now, org.greenbead.core.run.RunEngine.live(
                    new DemoWorld(files).plan("SB-0417", "lift_run"), java.util.Optional.empty()).verdict());
            ledger.bin().put("J-0001");
            ledger.save(job("J-0002"), "opened", "");
            now = now.plus(Duration.ofDays(30));
            assertEquals(ledger.bin().empty(), List.of("J-0001"));
            assertEquals(ledger.jobIds(), List.of("J-0002"));
            assertTrue(ledger.runs().isEmpty());
            assertEquals(ledger.integrity(), "ok");
        }
    }

    @Test
    public void whatIsNotThereIsSaid() throws Exception {
        try (Ledger ledger = ledger()) {
            assertTrue(expectThrows(LedgerException.class, () -> ledger.bin().put("J-0009")).getMessage()
                    .contains("no job J-0009"));
            ledger.save(job("J-0001"), "opened", "");
            assertTrue(expectThrows(LedgerException.class, () -> ledger.bin().takeBack("J-0001"))
                    .getMessage().contains("lies in the bin"));
        }
    }
}
