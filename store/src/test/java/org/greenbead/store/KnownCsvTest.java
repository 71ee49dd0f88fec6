package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.greenbead.core.run.RunPlan;
import org.testng.annotations.Test;

/** What was known during a run, as a table for those who hold it against the truth. */
public class KnownCsvTest {
    private final OpenFiles files = new OpenFiles();

    private RunLog log() throws Exception {
        var world = new DemoWorld(files);
        DemoPast.Past one = DemoPast.runs().getFirst();
        RunPlan plan = world.plan(one.job(), one.bead());
        var lines = new ArrayList<String>();
        lines.add(files.line(new RunLog.Headed(RunLog.TAG,
                new RunHeader("known", Instant.parse("2026-11-25T08:00:00Z"), true, one.seed(), plan))));
        List<String> shipped = new DemoPast(files, world).shipped(one);
        lines.addAll(shipped.subList(1, shipped.size()));
        Path folder = Folders.fresh();
        Path file = folder.resolve("known.run.jsonl");
        Files.write(file, lines, StandardCharsets.UTF_8);
        RunLog log = RunLog.read(file, files);
        Folders.remove(folder);
        return log;
    }

    @Test
    public void aLineASecondWithWhatWasAskedAndWhatSpokeForIt() throws Exception {
        RunLog log = log();
        var out = new StringWriter();
        KnownCsv.write(log, out);
        List<String[]> rows = out.toString().lines().map(l -> l.split(",", -1)).toList();
        assertEquals(String.join(",", rows.getFirst()),
                "time_s,stage,status,act,joint_c,joint_low_c,joint_high_c,safe,evidence,findings");
        assertTrue(rows.stream().allMatch(r -> r.length == 10));
        double movingC = log.header().plan().target().joint().alloy().solidusC()
                - log.header().plan().recipe().limits().moveUnderK();
        double last = -1;
        boolean nudged = false;
        boolean safe = false;
        for (String[] r : rows.subList(1, rows.size())) {
            double time = Double.parseDouble(r[0]);
            assertTrue(time >= last && time - last <= 1.01, "from " + last + " to " + time);
            last = time;
            double low = Double.parseDouble(r[5]);
            double high = Double.parseDouble(r[6]);
            assertTrue(low < high);
            if (r[7].equals("1")) {
                safe = true;
                assertTrue(low < movingC, "safe at " + low);
            }
            if (r[3].equals("peak.nudge")) {
                assertTrue(low >= log.header().plan().target().joint().alloy().liquidusC());
            }
            nudged |= r[8].contains("nudge:2");
        }
        assertTrue(nudged && safe);
        assertEquals(last, log.lengthS(), 0.01);
    }
}
