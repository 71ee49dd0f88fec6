package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import org.greenbead.core.book.Vocabulary;
import org.greenbead.core.route.Job;
import org.testng.annotations.Test;

/** A job file as the first versions wrote it, with facts that were typed and that nobody types any more. */
public class OlderFilesTest {
    @Test
    public void whatWasTypedThenIsReadAndKept() throws Exception {
        var files = new OpenFiles();
        String text;
        try (InputStream in = OlderFilesTest.class.getResourceAsStream("/older/boards.job.bead.json")) {
            text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
        assertTrue(Vocabulary.ofTheTrade().find("plan.skill_needed").isEmpty(), "no rule can ask for it");
        assertTrue(text.contains("\"skill_needed\""));
        Job job = files.parse(text, "boards.job.bead.json", Format.JOB, Job.class);
        assertTrue(job.facts().at("plan.skill_needed").isPresent(), "kept as it was typed");
        String written = files.write(Format.JOB, job);
        Job again = files.parse(written, "again", Format.JOB, Job.class);
        assertEquals(again.facts(), job.facts());
        assertEquals(again, job);
    }
}
