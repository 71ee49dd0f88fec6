package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import org.testng.annotations.Test;

/** The demo's past is shipped as files: they say what a run on the same bench says today. */
public class DemoPastTest {
    private final OpenFiles files = new OpenFiles();
    private final DemoPast past = new DemoPast(files, new DemoWorld(files));

    /** When this fails the engine or the bench has changed: make the files anew with {@code greenbead demo-past}. */
    @Test
    public void aRunOfThePastComesOutTheSameAgain() throws Exception {
        DemoPast.Past one = DemoPast.runs().stream().filter(p -> p.bead().equals("lift_run"))
                .filter(p -> p.job().equals("SB-0412")).findFirst().orElseThrow();
        List<String> shipped = past.shipped(one);
        List<String> lived = past.live(one);
        assertEquals(lived.getFirst(), shipped.getFirst(), "what it came to");
        assertEquals(lived.size(), shipped.size(), "events");
        assertEquals(lived, shipped);
    }

    @Test
    public void everyRunIsThereAndEnds() throws Exception {
        for (DemoPast.Past one : DemoPast.runs()) {
            List<String> lines = past.shipped(one);
            assertTrue(lines.size() > 200, one.file());
            assertTrue(lines.getLast().contains("finish"), one.file() + ": " + lines.getLast());
        }
    }
}
