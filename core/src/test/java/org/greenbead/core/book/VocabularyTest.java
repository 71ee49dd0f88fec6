package org.greenbead.core.book;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.greenbead.core.record.Kept;
import org.greenbead.core.record.RecordTypes;
import org.testng.annotations.Test;

/** What earlier versions let a person type is read and kept; no rule can ask for it, and nothing else slips in beside it. */
public class VocabularyTest {
    private static List<String> misfits(Map<String, Object> root) {
        return Vocabulary.ofTheTrade().misfits(new Facts(root)).stream().map(Vocabulary.Misfit::pointer)
                .toList();
    }

    @Test
    public void whatIsRetiredIsKeptAndAskedByNobody() {
        assertEquals(
                misfits(Map.of("run", Map.of("air_c", 380.0, "proven", true, "state", "molten"), "policy",
                        Map.of("presence", "witness"), "runs",
                        List.of(Map.of("evidence", List.of("probe", "time"))))),
                List.of());
        for (String path : List.of("run.air_c", "policy.presence", "tech.level", "runs.evidence")) {
            assertTrue(Vocabulary.ofTheTrade().find(path).isEmpty(), path);
        }
        assertEquals(Vocabulary.ofTheTrade().find("run.state").orElseThrow().words(),
                List.of("idle", "cool", "formed"), "the old words are not offered");
    }

    @Test
    public void whatNeverWasIsRefused() {
        assertEquals(misfits(Map.of("run", Map.of("air_c", "hot"))), List.of("/run/air_c"));
        assertEquals(misfits(Map.of("run", Map.of("air_f", 716.0))), List.of("/run/air_f"));
        assertEquals(misfits(Map.of("run", Map.of("state", "boiling"))), List.of("/run/state"));
        assertEquals(misfits(Map.of("mood", Map.of("good", true))), List.of("/mood"));
    }

    /** Records of runs name their evidence otherwise than they did. */
    @Test
    public void recordsKeepTheirOldWords() {
        var run = new Kept("run-1", "run", Instant.EPOCH, "",
                Map.of("evidence", List.of("probe", "witness")));
        assertEquals(run.fields().get("evidence"), List.of("probe", "witness"));
        assertTrue(!RecordTypes.shipped().require("run").item("evidence").orElseThrow().field().words()
                .contains("witness"));
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> new Kept("run-1", "run", Instant.EPOCH, "", Map.of("evidence", List.of("hope"))))
                .getMessage().contains("write probe_at_joint, nudge"));
    }
}
