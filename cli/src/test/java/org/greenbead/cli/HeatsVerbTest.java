package org.greenbead.cli;

import static org.testng.Assert.assertEquals;
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
}
