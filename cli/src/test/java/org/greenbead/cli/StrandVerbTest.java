package org.greenbead.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.InstantSource;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.CheckItem;
import org.greenbead.core.route.Job;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** A job with several chips by the command line, in a folder of one's own. */
public class StrandVerbTest extends InFolder {
    @BeforeMethod
    public void aJobOfOneChip() {
        run("bench", "new", "window", "--kind", "open_small");
        for (String board : new String[]{"ES-5", "ES-6"}) {
            run("board", "new", board, "--size", "90x70", "--title", "Echo sounder");
            run("board", "put", board, "U1", "--size", "15x15", "--at", "30x30");
            run("board", "put", board, "U2", "--size", "11x11", "--at", "62x40");
        }
        Path job = data.resolve("j.json");
        run("new", "revive", job.toString(), "--id", "J-1", "--board", "ES-5", "--target", "U1", "--bench",
                "window", "--title", "sounder", "--complaint", "dead", "--customer", "Ferry Hollin");
        assertEquals(run("import", job.toString()), 0, err);
    }

    /** The second chip is planned, ticked, noted and judged by a number of its own, and the job waits for it. */
    @Test
    public void aSecondChipIsWorkedAndTheJobWaitsForIt() throws Exception {
        assertEquals(run("strand", "J-1", "U2", "--kind", "replace"), 0, err);
        assertTrue(out.contains("begun: J-1-U2") && out.contains("Lift") && !out.contains("Copy first"), out);
        assertEquals(run("strand", "J-1-U2"), 0, err);
        assertEquals(out.lines().count(), 2, out);
        assertTrue(out.contains("J-1-U2") && out.contains("0 of "), out);
        assertEquals(run("ledger", "list"), 0, err);
        assertTrue(out.contains("U2 of J-1"), out);
        assertEquals(run("tick", "J-1-U2", "supply_off"), 0, out + err);
        assertEquals(run("note", "J-1", "unit", "revision=C"), 0, err);
        run("check", "J-1-U2");
        assertFalse(err.contains("no job"), err);
        assertEquals(run("rehearse", "J-1-U2") == 2, false, err);
        assertTrue(out.contains("the alloy of U2"), "its own chip is heated: " + out);
        atItsClose("J-1");
        assertEquals(run("check", "J-1"), 1);
        assertTrue(out.contains("close.strand-not-at-its-end") && out.contains("J-1-U2"), out);
        end("J-1-U2");
        run("check", "J-1");
        assertFalse(out.contains("close.strand-not-at-its-end"), out);
    }

    /** A donor's chip; what is no chip, no kind, no job or there already is refused, and nothing is kept of it. */
    @Test
    public void donorsAndWhatIsRefused() throws Exception {
        assertEquals(run("strand", "J-1", "U1", "--board", "ES-6", "--kind", "harvest"), 0, err);
        assertTrue(out.contains("J-1-U1"), out);
        String[][] wrong = {{"J-1", "U9", "has no chip"}, {"J-1", "U1", "worked on in J-1 already"},
                {"J-1-U1", "U2", "is a strand of J-1 itself"}, {"J-7", "U2", "J-7"}};
        for (String[] w : wrong) {
            assertEquals(run("strand", w[0], w[1]), 2, out);
            assertTrue(err.contains(w[2]), err);
        }
        assertEquals(run("strand", "J-1", "U2", "--kind", "sail"), 2);
        assertTrue(err.contains("choose one of revive, replace"), err);
        assertEquals(run("strand", "J-1", "U2", "--kind", "loose"), 2);
        assertEquals(run("strand", "J-1", "U2", "--board", "ES-9"), 2);
        assertTrue(err.contains("ES-9"), err);
        run("strand", "J-1");
        assertEquals(out.lines().count(), 2, "the job and the donor's chip alone: " + out);
        try (Ledger ledger = Ledger.open(data, new OpenFiles(), InstantSource.system())) {
            String says = org.testng.Assert.expectThrows(org.greenbead.store.LedgerException.class,
                    () -> ledger.bin().put("J-1")).getMessage();
            assertTrue(says.contains("J-1-U1"), says);
            ledger.bin().put("J-1-U1");
            ledger.bin().put("J-1");
            assertTrue(ledger.jobs().isEmpty());
        }
    }

    /** A donor of the same board: its chip is another one, it is opened by itself, and the list says which unit it is. */
    @Test
    public void aDonorOfTheSameBoard() {
        assertEquals(run("strand", "J-1", "U1", "--kind", "harvest"), 2);
        assertTrue(err.contains("say that it is a donor"), err);
        assertEquals(run("strand", "J-1", "U1", "--kind", "harvest", "--donor"), 0, err);
        assertTrue(out.contains("begun: J-1-U1") && out.contains("cables") || out.contains("trip"), out);
        assertEquals(run("strand", "J-1", "U1", "--kind", "harvest", "--donor"), 0, err);
        run("strand", "J-1");
        assertEquals(out.lines().filter(l -> l.contains(", donor")).count(), 2, out);
        assertTrue(out.contains("J-1-U1-2") && out.contains("donor-2"), out);
        assertEquals(run("tick", "J-1-U1", "screws_mapped"), 0, err);
    }

    /** What a file says of its family stays with it; one whose job is not there stands alone. */
    @Test
    public void aStrandIsCarriedAsAFile() throws Exception {
        run("strand", "J-1", "U2", "--kind", "replace");
        Path file = data.resolve("s.json");
        try (Ledger ledger = Ledger.open(data, new OpenFiles(), InstantSource.system())) {
            Files.writeString(file,
                    ledger.files().write(org.greenbead.store.Format.JOB, ledger.job("J-1-U2")));
        }
        assertTrue(Files.readString(file).contains("\"strand_of\""), Files.readString(file));
        try (Ledger ledger = Ledger.open(data, new OpenFiles(), InstantSource.system())) {
            ledger.bin().put("J-1-U2");
        }
        run("check", file.toString());
        assertFalse(out.isBlank(), err);
        String broken = Files.readString(file).replace("\"strand_of\" : \"J-1\"", "\"strand_of\" : 7");
        Files.writeString(file, broken);
        assertEquals(run("check", file.toString()), 2);
        assertTrue(err.contains("/strand_of"), err);
    }

    /** A strand whose job is damaged or gone says so, and is not told twice. */
    @Test
    public void aStrandWithoutItsJobSaysSo() throws Exception {
        run("strand", "J-1", "U2", "--kind", "replace");
        try (var ledger = java.sql.DriverManager.getConnection("jdbc:sqlite:" + data.resolve("ledger.db"));
                var cut = ledger.createStatement()) {
            assertEquals(cut.executeUpdate("UPDATE job SET body = substr(body, 1, 4000) WHERE id = 'J-1'"),
                    1);
        }
        assertEquals(run("strand", "J-1-U2"), 0, err);
        assertTrue(out.contains("its job J-1 is not in this ledger, or damaged"), out);
        assertEquals(out.lines().count(), 2, out);
        assertEquals(run("strand", "J-1", "U1"), 2);
        assertTrue(err.contains("this is not JSON"), err);
    }

    private void atItsClose(String id) throws Exception {
        work(id, false);
    }

    private void end(String id) throws Exception {
        work(id, true);
    }

    private void work(String id, boolean all) throws Exception {
        try (Ledger ledger = Ledger.open(data, new OpenFiles(), InstantSource.system())) {
            Job job = ledger.job(id);
            for (Bead bead : job.beads()) {
                if (all || bead.phase() != org.greenbead.core.book.Phase.CLOSE) {
                    for (CheckItem check : bead.checks()) {
                        job = job.attest(check.id(), Attest.YES);
                    }
                    job = job.with(bead.id(), BeadState.GREEN);
                }
            }
            ledger.save(job, "worked", "");
        }
    }
}
