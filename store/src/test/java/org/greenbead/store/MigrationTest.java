package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.time.Instant;
import java.time.InstantSource;
import java.util.Map;
import org.flywaydb.core.Flyway;
import org.greenbead.core.board.Board;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.RunPlan;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** A ledger of the first version is opened, brought up to date, and worked on. */
public class MigrationTest {
    private final OpenFiles files = new OpenFiles();
    private final InstantSource clock = InstantSource.fixed(Instant.parse("2026-11-25T08:00:00Z"));
    private Path folder;

    /** Schema V1 and the documents of that time, by the same SQL that it used. */
    @BeforeMethod
    public void makeAnOldLedger() throws Exception {
        folder = Folders.fresh();
        String url = "jdbc:sqlite:" + folder.resolve("ledger.db");
        Flyway.configure().dataSource(url, "", "").locations("classpath:org/greenbead/store/migration")
                .target("1")
                .load().migrate();
        try (Connection c = DriverManager.getConnection(url)) {
            put(c, "INSERT INTO job (id, body, updated_at) VALUES (?, ?, ?)", "SB-0409", text("sb-0409.job"),
                    "2026-10-01T08:00:00Z");
            put(c, "INSERT INTO job_event (id, job_id, seq, at, kind, detail) VALUES (?, 'SB-0409', 1, ?, 'opened', ?)",
                    "e1",
                    "2026-10-01T08:00:00Z", "");
            for (String[] doc : new String[][]{{"board", "TG-2", "tg-2.board"},
                    {"bench", "quay-4", "quay-4.bench"},
                    {"recipe", "tg2-lift", "tg2-lift.recipe"}}) {
                put(c, "INSERT INTO document (kind, id, body, updated_at) VALUES ('" + doc[0] + "', ?, ?, ?)",
                        doc[1], text(doc[2]),
                        "2026-10-01T08:00:00Z");
            }
            put(c, "INSERT INTO run (id, job_id, bead, chip, recipe, started_at, simulated, log_file, ended_at, outcome, length_s) "
                    + "VALUES (?, 'SB-0409', 'lift_run', ?, 'r', ?, 1, 'old.run.jsonl', '2026-10-01T08:08:00Z', 'proven', 412)",
                    "old", "U4 SN-128",
                    "2026-10-01T08:01:00Z");
        }
    }

    private static void put(Connection c, String sql, String... values) throws Exception {
        try (PreparedStatement s = c.prepareStatement(sql)) {
            for (int i = 0; i < values.length; i++) {
                s.setString(i + 1, values[i]);
            }
            s.executeUpdate();
        }
    }

    private static String text(String name) throws Exception {
        try (InputStream in = MigrationTest.class.getResourceAsStream("slice/" + name + ".bead.json")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    @AfterMethod
    public void remove() {
        Folders.remove(folder);
    }

    @Test
    public void oldJobsAreReadAndWorkedOn() throws Exception {
        try (Ledger ledger = Ledger.open(folder, files, clock)) {
            Job job = ledger.job("SB-0409");
            assertTrue(job.records().isEmpty());
            assertTrue(job.facts().root().isEmpty());
            assertEquals(job.attested("cell_off"), Attest.YES);
            assertEquals(ledger.runs().getFirst().lengthS(), 412.0);
            assertEquals(ledger.history("SB-0409").getFirst().kind(), "opened");
            RunPlan plan = ledger.plan(job, "lift_run");
            assertEquals(plan.board().id(), "TG-2");
            assertTrue(ledger.chips().isEmpty(), "the new table is there and empty");
            ledger.save(job.with(
                    new Kept("rail-1", "rail", clock.instant(), "", Map.of("name", "core", "ohm", 3.0))),
                    "noted", "rail");
            assertEquals(ledger.integrity(), "ok");
        }
        try (var copies = Files.list(folder.resolve("copies"))) {
            assertEquals(copies.filter(c -> c.toString().contains("before-schema")).count(), 1,
                    "the old one was copied first");
        }
        try (Ledger ledger = Ledger.open(folder, files, clock)) {
            assertEquals(ledger.job("SB-0409").records("rail").getFirst().number("ohm"), 3.0);
            assertEquals(ledger.document(Format.BOARD, "TG-2", Board.class).chips().size(), 3);
        }
    }
}
