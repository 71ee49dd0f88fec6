package org.greenbead.store;

import static org.testng.Assert.assertEquals;

import java.nio.file.Path;
import java.time.Instant;
import java.time.InstantSource;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.run.RunPlan;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What the ledger knows of one unit among many of its type. */
public class UnitOfLedgerTest {
    private static final Instant AT = Instant.parse("2026-11-25T08:00:00Z");
    private Path folder;
    private Ledger ledger;
    private Job job;
    private int made;

    @BeforeMethod
    public void open() throws Exception {
        folder = DemoFolder.copy();
        ledger = Ledger.open(folder, new OpenFiles(), InstantSource.fixed(AT));
        job = ledger.job("SB-0406");
        made = melts(job);
    }

    @AfterMethod(alwaysRun = true)
    public void close() throws Exception {
        ledger.close();
        Folders.remove(folder);
    }

    private int melts(Job of) throws Exception {
        return ledger.unit(of, RunPlan.Task.LIFT).requireChip(of.target()).melts();
    }

    private static Job note(Job of, String type, Map<String, Object> fields) {
        return of.with(new Kept(of.freeId(type), type, AT, "", fields));
    }

    private Job other(String id, String serial) {
        Job fresh = new Job(id, job.title(), job.complaint(), "somebody else", job.board(), job.target(),
                job.bench(), job.beads());
        Job named = serial.isEmpty() ? fresh : note(fresh, "unit", Map.of("serial", serial));
        return note(named, "exposure", Map.of("part", job.target(), "event", "lift_run"));
    }

    @DataProvider
    Object[][] serials() {
        return new Object[][]{{"KC-00417", "kc-00417", 1}, {"KC-00417", "KC-004170", 0}, {"A_7%", "A_7%", 1},
                {"A_7%", "AB70", 0}, {"it's \"7\"", "it's \"7\"", 1}, {"", "", 0}, {"KC-00417", "", 0}};
    }

    /** Known again by its serial number in any case, and by nothing that only looks like it. */
    @Test(dataProvider = "serials")
    public void aUnitIsKnownAgainByItsNumber(String mine, String theirs, int heats) throws Exception {
        ledger.save(other("SB-0990", theirs), "opened", "");
        ledger.save(other("SB-0991", ""), "opened", "");
        Job here = mine.isEmpty() ? job : note(job, "unit", Map.of("serial", mine));
        assertEquals(melts(here), made + heats);
        ledger.jobs();
        assertEquals(melts(here), made + heats, "the same once all jobs have been read");
    }

    /** Heats of a strand count for its job and those of the job for it; a job in the bin counts no more. */
    @Test
    public void strandsShareTheUnit() throws Exception {
        String chip = ledger.unit(job, RunPlan.Task.LIFT).chips().stream().map(c -> c.name())
                .filter(n -> !n.equals(job.target())).findFirst().orElseThrow();
        Job strand = NewStrand.begin(ledger, job, job.board(), chip, JobKind.REPLACE, Optional.empty(), AT,
                "technician A");
        assertEquals(melts(job), made);
        ledger.save(note(strand, "exposure", Map.of("part", job.target(), "event", "lift_run")), "run over",
                "");
        assertEquals(melts(job), made + 1);
        int neighbour = melts(strand);
        ledger.save(note(job, "exposure", Map.of("part", chip, "event", "lift_run")), "run over", "");
        assertEquals(melts(strand), neighbour + 1);
        ledger.bin().put(strand.id());
        assertEquals(melts(job), made);
        assertEquals(ledger.plan(strand, "lift_run").target().name(), chip);
    }
}
