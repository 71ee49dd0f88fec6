package org.greenbead.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.InstantSource;
import java.util.List;
import java.util.Map;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.electric.SimulatedStart;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.greenbead.store.CurrentCsv;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** Proofs by the command line: start-up curves, by files alone and with jobs of one board in a ledger; a held pressure. */
public class CurrentVerbsTest extends InFolder {
    private Path files;

    @BeforeMethod
    public void curves() throws Exception {
        files = Files.createTempDirectory("greenbead-curves");
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
        Path dead = files.resolve("dead.csv");
        Files.writeString(dead, "# supply_v = 12\ntime_s,current_a\n0,0\n1,0\n2,0\n3,0\n4,0\n");
        assertEquals(run("current", "compare", dead.toString(), "--job", "J-0001", "--taken", "healthy"), 1,
                "one that never starts is no pattern for the next: " + out + err);
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
        assertEquals(run("current", "record", "simulated", "--out", to.toString(), "--job", "J-0001"), 2);
        assertTrue(err.contains("proves nothing of a job"), err);
        assertEquals(run("current", "record", "nowhere:0", "--out", to.toString()), 2);
        assertTrue(err.contains("is no address"), err);
        assertEquals(run("current", "record", "127.0.0.1:1", "--out", to.toString()), 2);
        assertTrue(err.contains("no supply answers at 127.0.0.1:1"), err);
        assertEquals(run("current", "record", "simulated", "--seconds", "0", "--out", to.toString()), 2);
        assertTrue(err.contains("allowed is 1 to 3600"), err);
    }

    @Test
    public void aHeldPressureIsToldFromItsTemperature() {
        assertEquals(
                run("leak", "--p0", "-15", "--p1", "-14.69", "--t0", "21.85", "--t1", "22.65", "--hold", "40",
                        "--volume", "12"),
                0, err);
        assertTrue(
                out.contains("the temperature makes +0.234 kPa of that") && out.contains("2.3e-05 Pa m³/s"),
                out);
        assertEquals(
                run("leak", "--p0", "-15", "--p1", "-14.69", "--t0", "21.85", "--t1", "22.65", "--hold", "40",
                        "--limit", "2"),
                1, err);
        assertTrue(out.contains("hold longer") && out.contains("hold at least"), out);
        assertEquals(run("leak", "--p0", "-150", "--p1", "-14", "--t0", "21", "--t1", "22", "--hold", "40"),
                2);
        assertTrue(err.contains("gauge pressure at the start is -150 kPa"), err);
    }

    /** Settings of the last job are written down by one word; what has to be looked at is refused, and so is a bench without a past. */
    @Test
    public void whatWasTheSameIsNotTypedAgain() throws Exception {
        try (Ledger ledger = Ledger.open(data, new OpenFiles(), InstantSource.system())) {
            job(ledger, "J-0001");
            job(ledger, "J-0002");
        }
        assertEquals(run("note", "J-0002", "iron", "--as-before"), 2, out);
        assertTrue(err.contains("no other job of the ledger has a record of type iron"), err);
        assertEquals(run("note", "J-0001", "iron", "set_c=350", "face=flat", "dwell_s=2"), 0, err);
        assertEquals(run("note", "J-0002", "iron", "set_c=330", "--as-before"), 0, out + err);
        assertTrue(out.contains("as in J-0001"), out);
        try (Ledger ledger = Ledger.openShared(data, new OpenFiles(), InstantSource.system())) {
            assertEquals(ledger.job("J-0002").records("iron").getFirst().fields(),
                    Map.of("set_c", 330.0, "face", "flat"));
        }
        assertEquals(run("note", "J-0002", "iron", "--as-before"), 0, out + err);
        assertTrue(out.contains("nothing is missing"), out);
        assertEquals(run("note", "J-0002", "power", "--as-before"), 2, out);
        assertTrue(err.contains("has to be looked at anew in every job"), err);
        assertEquals(run("note", "J-0002", "moon", "--as-before"), 2, out);
    }

    @Test
    public void refitReckonsLoadAndTorque() throws Exception {
        Path json = files.resolve("refit.json");
        assertEquals(run("refit", "--label", "37", "--area", "105", "--load", "40", "--thread", "2", "--into",
                "plastic",
                "--json", json.toString()), 0, err);
        assertTrue(out.contains("lay 39.6 kg on it") && out.contains("101 % of what the label asks for"),
                out);
        assertTrue(Files.readString(json).contains("\"most_nm\""), Files.readString(json));
        assertEquals(run("refit", "--thread", "2", "--into", "plastic", "--torque", "20 Ncm"), 1, out);
        assertTrue(out.contains("too hard for this thread"), out);
        assertEquals(run("refit"), 2);
        assertEquals(run("refit", "--thread", "2.2"), 2);
        assertTrue(err.contains("M2.2 is no thread"), err);
    }

    @Test
    public void oddsSayWhatSoFewTell() throws Exception {
        try (Ledger ledger = Ledger.open(data, new OpenFiles(), InstantSource.system())) {
            for (int i = 1; i <= 4; i++) {
                job(ledger, "J-000" + i);
                if (i != 4) {
                    Job job = ledger.job("J-000" + i);
                    ledger.save(job.with(new Kept("run-1", "run", Instant.EPOCH, "",
                            Map.of("bead", "seat_run", "kind", "seat"))), "heated", "");
                }
            }
        }
        assertEquals(run("note", "J-0004", "tested", "what=starts", "result=pass"), 0, out + err);
        for (String told : List.of("J-0001 pass", "J-0002 pass", "J-0003 fail")) {
            assertEquals(
                    run("note", told.split(" ")[0], "tested", "what=starts", "result=" + told.split(" ")[1]),
                    0,
                    out + err);
        }
        assertEquals(run("ledger", "odds", "--by", "bench"), 0, err);
        assertTrue(
                out.contains("2 of 3 came out well; the next one 60 %")
                        && out.contains("1 job without a result"),
                out);
        assertEquals(run("ledger", "odds", "--by", "moon"), 2, out);
        assertEquals(run("note", "J-0001", "cost", "attended_min=40", "material=3.5"), 0, out + err);
        assertEquals(run("note", "J-0002", "cost", "attended_min=80"), 0, out + err);
        assertEquals(run("ledger", "effort", "--by", "bench"), 0, err);
        assertTrue(out.contains("2 jobs: by hand 60 min (50 to 70, 2)") && out.contains("material 3.50;")
                && out.contains("unattended not noted") && out.contains("2 jobs without a note"), out);
    }
}
