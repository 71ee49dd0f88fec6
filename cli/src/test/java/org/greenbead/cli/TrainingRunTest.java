package org.greenbead.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.PrintWriter;
import java.io.StringWriter;
import org.testng.annotations.Test;

public class TrainingRunTest {
    /** A verb that is renamed would be missed here alone: its start would be slow again and nobody told. */
    @Test
    public void everyVerbOfItIsOne() throws Exception {
        var trouble = new StringWriter();
        assertTrue(TrainingRun.run(new PrintWriter(trouble, true)), trouble.toString());
        assertEquals(trouble.toString(), "");
    }
}
