package org.greenbead.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.InstantSource;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.electric.SimulatedStart;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.greenbead.store.CurrentCsv;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** Start-up curves by the command line: by files alone, and with jobs of one board in a ledger. */
public class CurrentVerbsTest {
    private Path data;
    private Path files;
    private String out = "";
    private String err = "";

    @BeforeMethod
    public void folder() throws Exception {
        data = Files.createTempDirectory("greenbead-current");
        files = Files.createTempDirectory("greenbead-curves");
    }

    private int run(String... words) {
        var all = new ArrayList<>(Arrays.asList(words));
        all.addAll(List.of("--data", data.toString()));
        Said said = Said.type(all.toArray(String[]::new));
        out = said.out();
        err = said.err();
        return said.status();
    }

    private String curve(String name, SimulatedStart.Fault fault, long seed, double seconds)
            throws Exception {
        Path file = files.resolve(name + ".csv");
        Files.writeString(file, CurrentCsv.print(new SimulatedStart(12, 3, fault).trace(seed, seconds)));
        return file.toString();
    }

    @Test
    public void aCurveIsComparedWithHealthyOnes() throws Exception {
        String a = curve("a", SimulatedStart.Fault.NONE, 1, 22);
        String b = curve("b", SimulatedStart.Fault.NONE, 2, 22);
        String good = curve("good", SimulatedStart.Fault.NONE, 3, 22);
        assertEquals(run("current", "compare", good, "--healthy", a, b), 0, out + err);
        assertTrue(out.contains("compared with 2 healthy curves"), out);
        assertTrue(out.contains("Alike: it starts as healthy boards do"), out);
        Path json = files.resolve("said.json");
        assertEquals(run("current", "compare", curve("waits", SimulatedStart.Fault.NO_MEMORY, 4, 22),
                "--healthy", a, b, "--json", json.toString()), 1, out + err);
        assertTrue(out.contains("it stays there and does not go on"), out);
        assertTrue(Files.readString(json).contains("\"how\" : \"stays\""), Files.readString(json));
        assertEquals(run("current", "compare", good), 0, err);
        assertTrue(out.contains("there is no healthy curve of this board yet"), out);
    }

    private void job(Ledger ledger, String id) throws Exception {
        ledger.save(new Job(id, "Echo sounder", "dead", "Ferry Hollin", "ES-5", "U1", "window",
                Routes.shipped().beads(JobKind.REPLACE, Routes.recipes("ES-5", "U1"))), "opened", "");
    }

    /** What one job proved is what the next one of its board is compared with; a departure stops the proof. */
    @Test
    public void oneJobsProofIsTheNextOnesReference() throws Exception {
        try (Ledger ledger = Ledger.open(data, new OpenFiles(), InstantSource.system())) {
            job(ledger, "J-0001");
            job(ledger, "J-0002");
        }
        assertEquals(
                run("current", "compare", curve("a", SimulatedStart.Fault.NONE, 1, 22), "--job", "J-0001",
                        "--taken", "healthy"),
                0, out + err);
        assertTrue(out.contains("kept as curve-1 with job J-0001"), out);
        assertEquals(
                run("current", "compare", curve("b", SimulatedStart.Fault.NONE, 2, 22), "--job", "J-0001"),
                0, out + err);
        assertTrue(out.contains("compared with 1 healthy curve"), out);
        assertEquals(
                run("current", "compare", curve("c", SimulatedStart.Fault.LEAKS, 3, 22), "--job", "J-0002"),
                1,
                out + err);
        assertTrue(out.contains("compared with 2 healthy curves") && out.contains("more than usual"), out);
        try (Ledger ledger = Ledger.open(data, new OpenFiles(), InstantSource.system())) {
            Job second = ledger.job("J-0002");
            assertEquals(second.records("curve").getFirst().text("outcome"), "departs");
            assertTrue(ledger.curves().find(second.records("curve").getFirst().text("file")).isPresent());
            assertEquals(JobFacts.of(second).at("curve.after").orElseThrow(), "departs");
            assertEquals(JobFacts.of(ledger.job("J-0001")).at("curve.after").orElseThrow(), "alike");
        }
        run("check", "J-0002");
        assertTrue(out.contains("The unit does not start as healthy ones do"), out);
        run("check", "J-0001");
        assertTrue(!out.contains("The unit does not start as healthy ones do"), out);
    }

    @Test
    public void aSimulatedSupplyIsRecorded() throws Exception {
        Path to = files.resolve("recorded.csv");
        assertEquals(
                run("current", "record", "simulated", "--seconds", "3", "--state", "battery out", "--out",
                        to.toString()),
                0, out + err);
        assertTrue(out.contains("supply at 12.00 V, limit 3.00 A"), out);
        assertTrue(CurrentCsv.read(to).durationS() > 2.5, out);
        assertEquals(run("current", "record", "nowhere:0", "--out", to.toString()), 2);
        assertTrue(err.contains("is no address"), err);
        assertEquals(run("current", "record", "127.0.0.1:1", "--out", to.toString()), 2);
        assertTrue(err.contains("no supply answers at 127.0.0.1:1"), err);
        assertEquals(run("current", "record", "simulated", "--seconds", "0", "--out", to.toString()), 2);
        assertTrue(err.contains("allowed is 1 to 3600"), err);
    }
}
