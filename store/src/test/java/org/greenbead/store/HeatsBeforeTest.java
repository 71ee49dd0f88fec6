package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.InstantSource;
import java.util.ArrayList;
import java.util.List;
import org.greenbead.core.plan.HeatBefore;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.RunPlan;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;

/** What a ledger with a past knows of earlier heats. */
public class HeatsBeforeTest {
    private final OpenFiles files = new OpenFiles();
    private final InstantSource clock = InstantSource.fixed(Instant.parse("2026-11-25T08:00:00Z"));
    private Path folder;
    private Ledger ledger;

    @BeforeClass
    public void fill() throws Exception {
        folder = DemoFolder.copy();
        ledger = Ledger.open(folder, files, clock);
    }

    @AfterClass
    public void remove() {
        ledger.close();
        Folders.remove(folder);
    }

    /** The plan a run of the past was made with, as it would be planned today. */
    private RunPlan again(RunEntry run) throws BadFileException {
        Job job = ledger.job(run.jobId());
        return ledger.plan(job, run.bead());
    }

    @Test
    public void everyHeatOfABoardIsFoundAgain() throws Exception {
        var told = new ArrayList<String>();
        int found = 0;
        for (RunEntry run : ledger.runs()) {
            RunPlan now = again(run);
            List<HeatBefore> before = HeatsBefore.of(ledger, now, 12);
            told.add(run.id() + " " + now.task() + " " + before.stream().map(HeatBefore::run).toList());
            if (now.forming().isPresent()) {
                assertEquals(before, List.of(), "balls on a loose chip are no heat of a board");
                continue;
            }
            found += before.isEmpty() ? 0 : 1;
            for (HeatBefore heat : before) {
                RunEntry entry = ledger.run(heat.run()).orElseThrow();
                assertEquals(entry.peakJointC(), heat.peakJointC(), 1e-9);
                assertEquals(ledger.job(heat.job()).board(), now.board().id());
                assertEquals(heat.plan().task(), now.task());
                assertTrue(heat.practice() == entry.simulated());
            }
        }
        assertTrue(found >= 3, told.toString());
    }

    private RunEntry known() throws BadFileException {
        for (RunEntry run : ledger.runs()) {
            if (!HeatsBefore.of(ledger, again(run), 12).isEmpty()) {
                return run;
            }
        }
        throw new AssertionError("no heat of the past is found again");
    }

    /** A log that was damaged is passed over, the others are still told. */
    @Test
    public void aBrokenLogTellsNothingAndStopsNothing() throws Exception {
        RunEntry run = known();
        RunPlan now = again(run);
        List<HeatBefore> whole = HeatsBefore.of(ledger, now, 12);
        Path log = ledger.logFile(ledger.run(whole.getFirst().run()).orElseThrow());
        byte[] kept = Files.readAllBytes(log);
        Files.writeString(log, "{\"format\":", StandardCharsets.UTF_8);
        try {
            assertEquals(HeatsBefore.of(ledger, now, 12).stream().mapToInt(HeatBefore::times).sum(),
                    whole.stream().mapToInt(HeatBefore::times).sum() - 1);
        } finally {
            Files.write(log, kept);
        }
    }

    /** A bead of another job on the same type of board is offered what was run in this one. */
    @Test
    public void anotherJobOnTheSameBoardIsOfferedIt() throws Exception {
        RunEntry run = known();
        Job first = ledger.job(run.jobId());
        Bead bead = first.bead(run.bead()).orElseThrow();
        var second = new Job("SB-0999", first.title(), first.complaint(), "somebody else", first.board(),
                first.target(),
                first.bench(), first.beads());
        RunPlan now = RunPlan.of(second, bead, ledger.document(Format.BOARD, second.board(),
                org.greenbead.core.board.Board.class),
                ledger.document(Format.BENCH, second.bench(),
                        org.greenbead.core.bench.Bench.class),
                java.util.Optional.of(again(run).recipe()));
        assertEquals(HeatsBefore.of(ledger, now, 12).stream().map(HeatBefore::run).toList(),
                HeatsBefore.of(ledger, again(run), 12).stream().map(HeatBefore::run).toList());
    }
}
