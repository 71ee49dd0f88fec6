package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.Optional;
import org.greenbead.core.run.RunEvent;
import org.greenbead.core.run.RunState;
import org.greenbead.core.run.Say;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

public class LastHeatTest {
    private final OpenFiles files = new OpenFiles();
    private Path data;

    @BeforeMethod
    public void folder() throws Exception {
        data = Files.createTempDirectory("greenbead-heat");
        Files.createDirectories(data.resolve("runs"));
    }

    @AfterMethod(alwaysRun = true)
    public void clear() throws Exception {
        try (var all = Files.walk(data)) {
            for (Path p : all.sorted(java.util.Comparator.reverseOrder()).toList()) {
                Files.delete(p);
            }
        }
    }

    private void log(String run, long writtenS, RunEvent... events) throws Exception {
        var text = new StringBuilder("{\"format\":\"greenbead/runlog/1\"}\n");
        for (RunEvent e : events) {
            text.append(files.line(e)).append('\n');
        }
        Path log = data.resolve("runs").resolve(run + ".run.jsonl");
        Files.writeString(log, text.append("{\"type\":\"sam"));
        Files.setLastModifiedTime(log, FileTime.from(Instant.ofEpochSecond(writtenS)));
    }

    private static RunEvent at(double timeS, double jointC) {
        return new RunEvent.Checkpoint(timeS, RunState.Status.HEATING, 1, jointC, jointC - 2.5, jointC + 3,
                jointC + 6, java.util.Optional.of(jointC + 4));
    }

    /** Logs of before the chip's top was kept are read as they were. */
    @Test
    public void anOlderCheckpointIsRead() {
        String now = files.line(at(5, 40));
        String then = now.replaceAll(",\"top_c\":[^,}]+", "");
        assertTrue(!then.equals(now), now);
        var read = (RunEvent.Checkpoint) files.unline(then, RunEvent.class);
        assertEquals(read.topC(), java.util.Optional.empty());
        assertEquals(read.jointC(), 40.0);
    }

    /** The last checkpoint of the newest log, with a torn line behind it, as the program's own writer wrote it. */
    @Test
    public void newestLogThatWasNotEnded() throws Exception {
        log("SB-1-old", 1_000, at(5, 40));
        log("SB-2-new", 2_000, at(5, 40), at(10, 187.25));
        assertEquals(LastHeat.of(data), Optional.of(new LastHeat("SB-2-new", 10, 187.25, 184.75, 190.25,
                Instant.ofEpochSecond(2_000))));
    }

    @Test
    public void endedOrUnreadableClaimsNothing() throws Exception {
        assertTrue(LastHeat.of(data).isEmpty(), "no log");
        assertTrue(LastHeat.of(data.resolve("nowhere")).isEmpty());
        log("SB-1", 1_000, at(5, 150));
        log("SB-2", 2_000, at(5, 190), new RunEvent.Said(12, Say.FINISH, ""));
        assertTrue(LastHeat.of(data).isEmpty(), "the newest was ended; what lies before it was too");
        log("SB-3", 3_000);
        assertTrue(LastHeat.of(data).isEmpty(), "killed before its first checkpoint");
        Files.write(data.resolve("runs").resolve("SB-4.run.jsonl"), new byte[]{(byte) 0xC3, 0, 7});
        assertTrue(LastHeat.of(data).isEmpty());
    }
}
