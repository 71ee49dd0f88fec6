package org.greenbead.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.InstantSource;
import org.greenbead.store.DemoWorld;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What was run before, asked for by command line. */
public class HeatsVerbTest extends InFolder {
    @Test
    public void whatWasRunBeforeIsToldAndTried() throws Exception {
        var clock = InstantSource.fixed(Instant.parse("2026-11-25T08:00:00Z"));
        try (Ledger ledger = Ledger.open(data, new OpenFiles(), clock)) {
            assertTrue(new DemoWorld(new OpenFiles()).fill(ledger, clock, d -> {
            }));
        }
        Path json = data.resolve("heats.json");
        assertEquals(run("heats", "SB-0412", "--json", json.toString()), 0, out + err);
        assertTrue(out.contains("joint peaked at") && out.contains("today: coldest joint"), out);
        String first = out.lines().findFirst().orElseThrow();
        JsonNode heat = JsonMapper.shared().readTree(Files.readString(json)).get("heats").get(0);
        assertTrue(first.contains(heat.get("run").asString()), first);
        assertTrue(heat.get("recipe").get("stages").size() >= 2, "it comes with its recipe");
    }

    @Test
    public void anOwnFirstJobHasNoPast() {
        assertEquals(run("board", "new", "ES-5", "--title", "Echo sounder", "--size", "90x60"), 0, out + err);
        assertEquals(run("heats", "J-0001"), 2, out);
        assertTrue(err.contains("J-0001"), err);
    }

    /** An own job is rehearsed by its number, and what was assumed of its board is said with what it may cost. */
    @Test
    public void anOwnJobIsRehearsedWithWhatItsGuessesCost() {
        run("bench", "new", "bench-1", "--kind", "open_small");
        run("board", "new", "ES-5", "--title", "Echo sounder", "--size", "90x60");
        String job = data.resolve("j.json").toString();
        assertEquals(run("new", "revive", job, "--id", "J-1", "--board", "ES-5", "--bench", "bench-1",
                "--target", "U1",
                "--title", "sounder", "--complaint", "dead", "--customer", "me"), 2, out);
        assertTrue(err.contains("it has none yet"), err);
        assertEquals(run("board", "put", "ES-5", "U1", "--size", "15x15", "--at", "30x30"), 0, out + err);
        run("new", "revive", job, "--id", "J-1", "--board", "ES-5", "--bench", "bench-1", "--target", "U1",
                "--title",
                "sounder", "--complaint", "dead", "--customer", "me");
        assertEquals(run("import", job), 0, out + err);
        run("rehearse", "J-1");
        assertTrue(out.contains("its thickness: ") && out.contains("A caliper at a bare edge tells it."),
                out + err);
        assertTrue(out.contains("the alloy of U1: Sn63Pb37"), out);
        assertEquals(run("rehearse", "J-2"), 2, out);
        assertTrue(err.contains("J-2"), err);
    }

    /** Looking for a job where there is no ledger leaves none behind: a made one would hide the demo's boards. */
    @Test
    public void lookingForAJobMakesNoLedger() {
        Path none = data.resolve("nothing-here");
        Said said = Said.type("rehearse", "J-2", "--data", none.toString());
        assertEquals(said.status(), 2, said.out());
        assertTrue(said.err().contains("J-2"), said.err());
        assertFalse(Files.exists(none));
    }
}
