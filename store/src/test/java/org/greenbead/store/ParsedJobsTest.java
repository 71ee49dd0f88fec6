package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNotSame;
import static org.testng.Assert.assertSame;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.InstantSource;
import org.greenbead.core.route.Job;
import org.testng.annotations.Test;

/** A job is taken apart once for each text that it has had. */
public class ParsedJobsTest {
    private final OpenFiles files = new OpenFiles();

    private Job job() throws Exception {
        return new DemoWorld(files).plan("SB-0417", "lift_run").job();
    }

    @Test
    public void theSameTextIsTheSameJobAndAnotherIsAnother() throws Exception {
        var parsed = new ParsedJobs(files);
        String body = files.write(Format.JOB, job());
        Job first = parsed.job("SB-0417", body);
        assertSame(parsed.job("SB-0417", new String(body.toCharArray())), first);
        String other = body.replace("Wave buoy logger", "Wave buoy lagger");
        assertEquals(other.length(), body.length(), "as long as before");
        assertTrue(parsed.job("SB-0417", other).title().contains("lagger"));
        assertEquals(parsed.job("SB-0417", body).title(), first.title(), "and back again");
        expectThrows(BadFileException.class,
                () -> parsed.job("SB-0417", body.substring(0, body.length() - 9)));
        assertEquals(parsed.job("SB-0417", body).title(), first.title(), "a torn text does no harm");
    }

    @Test
    public void theLedgerNeverShowsAnOlderJob() throws Exception {
        Path folder = Files.createTempDirectory("greenbead-parsed");
        try (Ledger ledger = Ledger.open(folder, files, InstantSource.system())) {
            ledger.save(job(), "opened", "");
            Job read = ledger.job("SB-0417");
            assertSame(ledger.jobs().getFirst(), read);
            Job changed = new Job(read.id(), "another title", read.complaint(), read.customer(), read.board(),
                    read.target(), read.bench(), read.beads(), read.facts(), read.records());
            ledger.save(changed, "noted", "");
            assertEquals(ledger.jobs().getFirst().title(), "another title");
            assertNotSame(ledger.job("SB-0417"), read);
            assertEquals(ledger.damaged().size(), 0);
        }
    }

    /** Tables that a person took in stay with the ledger; a broken one changes nothing of the one before. */
    @Test
    public void tablesStayWithTheLedger() throws Exception {
        Path folder = Files.createTempDirectory("greenbead-tables");
        Path good = Files.writeString(folder.resolve("good.csv"),
                "source,schematic\nvcc_v,1.8\nstrap,S0,R1,10k,R2,10k\ncode,0,small\n");
        Path bad = Files.writeString(folder.resolve("bad.csv"), "source,schematic\nstrap,S0,R1\n");
        Path paired = Files.writeString(folder.resolve("paired.csv"),
                "platform,generation,chip,need,reason,source,date\nbuoy,,U1,must,keys,notes,\n");
        try (Ledger ledger = Ledger.open(folder.resolve("data"), files, InstantSource.system())) {
            assertTrue(ledger.tables().straps("WB-7").isEmpty() && ledger.tables().travel().isEmpty());
            ledger.tables().takeStraps("WB-7", good);
            ledger.tables().takeTravel(paired);
            expectThrows(BadFileException.class, () -> ledger.tables().takeStraps("WB-7", bad));
            expectThrows(BadFileException.class, () -> ledger.tables().takeTravel(good));
        }
        try (Ledger ledger = Ledger.open(folder.resolve("data"), files, InstantSource.system())) {
            assertEquals(ledger.tables().straps("WB-7").orElseThrow().source(), "schematic");
            assertTrue(ledger.tables().straps("WB-8").isEmpty(), "of another board nothing is known");
            assertEquals(ledger.tables().travel().orElseThrow().rows().size(), 1);
        }
    }
}
