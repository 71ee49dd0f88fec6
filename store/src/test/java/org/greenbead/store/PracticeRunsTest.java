package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.InstantSource;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.account.Practice;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.Verdict;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** What a ledger with a past says of the hands in its house. */
public class PracticeRunsTest {
    private Path folder;
    private Ledger ledger;

    @BeforeMethod
    public void open() throws Exception {
        folder = DemoFolder.copy();
        ledger = Ledger.open(folder, new OpenFiles(), InstantSource.fixed(DemoFolder.AT));
    }

    @AfterMethod(alwaysRun = true)
    public void close() {
        ledger.close();
        Folders.remove(folder);
    }

    /** Proven heats on a board. */
    private List<RunEntry> heats() throws Exception {
        var found = new java.util.ArrayList<RunEntry>();
        for (RunEntry run : ledger.runs()) {
            Job job = ledger.job(run.jobId());
            if (run.outcome().equals(Optional.of(Verdict.Outcome.PROVEN))
                    && RunPlan.Task.of(job.bead(run.bead()).orElseThrow()) != RunPlan.Task.FORM) {
                found.add(run);
            }
        }
        return found;
    }

    /** The demo's past was run on a simulated bench: for the made-up house it counts, for no other. */
    @Test
    public void aSimulatedPastTrainsNoHandButThatOfTheMadeUpHouse() throws Exception {
        int all = heats().size();
        assertTrue(all >= 2, all + " heats");
        Practice mine = ledger.practice(Optional.empty(), false);
        assertEquals(List.of(mine.hands(), mine.simulated()), List.of(0, all));
        Practice demo = ledger.practice(Optional.empty(), true);
        assertEquals(List.of(demo.runs(), demo.drills(), demo.simulated()), List.of(all, 0, 0));
    }

    /** Only chips as large and solder as hard as that of the job count, by what each log says of its own heat. */
    @Test
    public void theClassIsThatOfTheJob() throws Exception {
        var told = new java.util.TreeSet<Integer>();
        for (Job job : ledger.jobs()) {
            if (job.inHand().isEmpty()) {
                continue;
            }
            Practice here = ledger.practice(Optional.of(ledger.plan(job, "lift_run")), true);
            int expected = 0;
            for (RunEntry run : heats()) {
                RunPlan then = RunLog.header(ledger.logFile(run), ledger.files()).plan();
                expected += Math.max(then.target().sizeMm().xMm(), then.target().sizeMm().yMm()) >= here
                        .fromMm() && then.target().joint().alloy().liquidusC() >= here.fromC() ? 1 : 0;
            }
            assertEquals(here.hands(), expected, job.id());
            told.add(expected);
        }
        assertTrue(told.size() > 1, "the class makes a difference: " + told);
    }

    /** What was practice on a board that is nobody's is told as that, from the moment it is written down. */
    @Test
    public void aPracticeBoardIsCountedAsOne() throws Exception {
        RunEntry run = heats().getFirst();
        long ofJob = heats().stream().filter(r -> r.jobId().equals(run.jobId())).count();
        int all = ledger.practice(Optional.empty(), true).runs();
        Job job = ledger.job(run.jobId());
        ledger.save(job.with(new Kept("intake-1", "intake", DemoFolder.AT, "me",
                Map.of("client", "practice"))), "note", "");
        Practice after = ledger.practice(Optional.empty(), true);
        assertEquals(after.drills(), (int) ofJob);
        assertEquals(after.runs(), all - (int) ofJob);
    }

    /** A log that cannot be read any more stops nothing and trains nobody. */
    @Test
    public void aBrokenLogCountsForNothing() throws Exception {
        Files.writeString(ledger.logFile(heats().getFirst()), "{\"format\":", StandardCharsets.UTF_8);
        assertEquals(ledger.practice(Optional.empty(), true).runs(), heats().size() - 1);
    }
}
