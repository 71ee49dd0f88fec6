package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNotSame;
import static org.testng.Assert.assertSame;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.InstantSource;
import java.util.List;
import java.util.Locale;
import java.util.stream.IntStream;
import org.greenbead.core.route.Job;
import org.testng.annotations.Test;

/** A job is taken apart once for each text that it has had. */
public class JobRowsTest {
    private final OpenFiles files = new OpenFiles();

    private Job job() throws Exception {
        return new DemoWorld(files).plan("SB-0417", "lift_run").job();
    }

    /** Another one, as small as a job can be. */
    private Job named(String id) throws Exception {
        Job like = job();
        return new Job(id, "many", like.complaint(), like.customer(), like.board(), like.target(),
                like.bench(),
                like.beads().subList(0, 1), like.facts(), List.of());
    }

    private static void sql(Path folder, String statement) throws Exception {
        try (var other = java.sql.DriverManager
                .getConnection("jdbc:sqlite:" + folder.resolve("ledger.db"));
                var run = other.createStatement()) {
            run.executeUpdate(statement);
        }
    }

    /** Another process has written a row: it is read anew, and the rest is not. */
    @Test
    public void aRowThatAnotherHasWrittenIsReadAnew() throws Exception {
        Path folder = Files.createTempDirectory("greenbead-rows");
        try (Ledger ledger = Ledger.open(folder, files, InstantSource.system())) {
            ledger.save(job(), "opened", "");
            ledger.save(named("SB-0999"), "opened", "");
            List<Job> first = ledger.jobs();
            assertEquals(first.stream().map(Job::id).toList(), List.of("SB-0999", "SB-0417"));
            sql(folder, "UPDATE job SET body = replace(body, 'Wave buoy logger', 'Wave buoy lagger'), "
                    + "updated_at = '2026-12-01T08:00:00.000001Z' WHERE id = 'SB-0417'");
            List<Job> second = ledger.jobs();
            assertTrue(second.getLast().title().contains("lagger"), "as long as before");
            assertSame(second.getFirst(), first.getFirst());
            sql(folder, "UPDATE job SET body = substr(body, 1, length(body) - 9) WHERE id = 'SB-0417'");
            assertEquals(ledger.jobs().stream().map(Job::id).toList(), List.of("SB-0999"), "torn");
            expectThrows(BadFileException.class, () -> ledger.job("SB-0417"));
            assertEquals(ledger.damaged().size(), 1);
            assertTrue(ledger.damaged().getFirst().contains("job SB-0417"), ledger.damaged().getFirst());
        }
    }

    /** More than are fetched at once come out whole, in their order, and no text is read twice. */
    @Test
    public void manyComeInTheirOrderAndAreKept() throws Exception {
        Path folder = Files.createTempDirectory("greenbead-rows");
        try (Ledger ledger = Ledger.open(folder, files, InstantSource.system())) {
            List<String> ids = IntStream.range(0, 700)
                    .mapToObj(i -> String.format(Locale.ROOT, "T-%04d", i)).toList();
            for (String id : ids) {
                ledger.save(named(id), "opened", "");
            }
            List<Job> all = ledger.jobs();
            assertEquals(all.stream().map(Job::id).toList(), ids.reversed());
            List<Job> again = ledger.jobs();
            for (int i = 0; i < all.size(); i++) {
                assertSame(again.get(i), all.get(i));
            }
            ledger.bin().put("T-0300");
            assertEquals(ledger.jobs().size(), 699);
            ledger.bin().takeBack("T-0300");
            assertSame(ledger.jobs().get(399), all.get(399));
        }
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
