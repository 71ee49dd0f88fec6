package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.run.Verdict;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** Runs thrown away: counted nowhere, taken back whole, and never silently where a report was made from them. */
public class RunBinTest {
    private Path folder;
    private Ledger ledger;
    private Instant now = DemoFolder.AT;

    @BeforeMethod
    public void open() throws Exception {
        folder = DemoFolder.copy();
        ledger = Ledger.open(folder, new OpenFiles(), () -> now);
    }

    @AfterMethod(alwaysRun = true)
    public void close() {
        ledger.close();
        Folders.remove(folder);
    }

    /** A proven heat on a board. */
    private RunEntry proven() throws Exception {
        for (RunEntry run : ledger.runs()) {
            if (run.outcome().equals(Optional.of(Verdict.Outcome.PROVEN))
                    && RunLog.header(ledger.logFile(run), ledger.files()).plan().forming().isEmpty()) {
                return run;
            }
        }
        throw new AssertionError("no proven heat in the demo's past");
    }

    @Test
    public void inTheBinItIsCountedNowhere() throws Exception {
        int all = ledger.runs().size();
        int practised = ledger.practice(Optional.empty(), true).runs();
        RunEntry run = proven();
        var plan = RunLog.header(ledger.logFile(run), ledger.files()).plan();
        int before = HeatsBefore.of(ledger, plan, 99).size();
        ledger.runBin().put(run.id(), false);
        assertEquals(ledger.runs().size(), all - 1);
        assertTrue(ledger.runs().stream().noneMatch(r -> r.id().equals(run.id())));
        assertEquals(ledger.practice(Optional.empty(), true).runs(), practised - 1);
        assertEquals(HeatsBefore.of(ledger, plan, 99).size(), before - 1);
        assertEquals(ledger.runBin().all().getFirst().run(), run);
        assertTrue(expectThrows(LedgerException.class, () -> ledger.runBin().put(run.id(), true)).getMessage()
                .contains("already"));
        ledger.runBin().takeBack(run.id());
        assertEquals(ledger.runs().size(), all);
        assertEquals(ledger.practice(Optional.empty(), true).runs(), practised);
        assertTrue(expectThrows(LedgerException.class, () -> ledger.runBin().takeBack(run.id())).getMessage()
                .contains("no run"));
        List<String> told = ledger.history(run.jobId()).stream().map(JobEvent::kind).toList();
        assertTrue(told.containsAll(List.of("run binned", "run taken back")), told.toString());
    }

    /** A report from before the run says nothing of it; one from after it, or of it, does. */
    @Test
    public void whatAReportWasMadeFromGoesOnlyWhenItIsSaid() throws Exception {
        RunEntry run = proven();
        Instant ended = run.endedAt().orElseThrow();
        now = ended.minusSeconds(60);
        ledger.reported(run.jobId(), "report-early.pdf");
        assertTrue(ledger.runBin().reports(run).isEmpty());
        now = ended.plusSeconds(60);
        ledger.reported(run.jobId(), "report-late.pdf");
        var said = expectThrows(ReportedException.class, () -> ledger.runBin().put(run.id(), false));
        assertTrue(said.getMessage().contains("report-late.pdf") && !said.getMessage().contains("early"),
                said.getMessage());
        assertTrue(ledger.runs().contains(run));
        ledger.runBin().put(run.id(), true);
        assertFalse(ledger.runs().contains(run));
    }

    /** Emptied after thirty days: the log goes too, but one that a report was made from stays. */
    @Test
    public void afterThirtyDaysAPersonMayEmptyIt() throws Exception {
        RunEntry reported = proven();
        now = reported.endedAt().orElseThrow().plusSeconds(1);
        ledger.reported(reported.jobId(), "report.pdf");
        ledger.runBin().put(reported.id(), true);
        RunEntry other = ledger.runs().stream().filter(r -> !r.jobId().equals(reported.jobId())).findFirst()
                .orElseThrow();
        ledger.runBin().put(other.id(), false);
        now = now.plus(Duration.ofDays(29));
        assertEquals(ledger.runBin().empty(), List.of(), "a day too early");
        now = now.plus(Duration.ofDays(1));
        assertEquals(ledger.runBin().empty().size(), 2);
        assertTrue(ledger.runBin().all().isEmpty() && ledger.run(other.id()).isEmpty());
        assertFalse(Files.exists(ledger.logFile(other)));
        assertTrue(Files.exists(ledger.logFile(reported)), "the report can still be understood");
        assertEquals(ledger.integrity(), "ok");
    }

    /** Neither a report nor a bundle is made with it; taken back it is in both again. */
    @Test
    public void reportAndBundleLeaveItOut() throws Exception {
        RunEntry run = proven();
        int heats = CustomerReport.gather(ledger, run.jobId(), now).runs().size();
        ledger.runBin().put(run.id(), false);
        long others = ledger.runs().stream()
                .filter(r -> r.jobId().equals(run.jobId()) && r.bead().equals(run.bead())).count();
        if (others == 0) {
            assertEquals(CustomerReport.gather(ledger, run.jobId(), now).runs().size(), heats - 1);
        }
        assertFalse(packed(run.jobId()).contains("runs/" + run.id() + ".run.jsonl"));
        ledger.runBin().takeBack(run.id());
        assertEquals(CustomerReport.gather(ledger, run.jobId(), now).runs().size(), heats);
        assertTrue(packed(run.jobId()).contains("runs/" + run.id() + ".run.jsonl"));
    }

    private List<String> packed(String job) throws Exception {
        var bytes = new java.io.ByteArrayOutputStream();
        JobBundle.pack(ledger, job, bytes);
        var names = new java.util.ArrayList<String>();
        try (var zip = new java.util.zip.ZipInputStream(
                new java.io.ByteArrayInputStream(bytes.toByteArray()))) {
            for (var entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                names.add(entry.getName());
            }
        }
        return names;
    }

    @Test
    public void anOpenRunStays() throws Exception {
        RunEntry run = ledger.beginRun(new DemoWorld(new OpenFiles()).plan("SB-0417", "lift_run"), now, true);
        assertTrue(expectThrows(LedgerException.class, () -> ledger.runBin().put(run.id(), true)).getMessage()
                .contains("it is open"));
        assertTrue(expectThrows(LedgerException.class, () -> ledger.runBin().put("SB-9", true)).getMessage()
                .contains("there is no run SB-9"));
    }
}
