package org.greenbead.app;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.InstantSource;
import java.util.List;
import javafx.scene.input.KeyCode;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.electric.SimulatedStart;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.Job;
import org.greenbead.store.CurrentCsv;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.testng.annotations.Test;

/** The start-up current in the window: taken in, compared, and kept with the job. */
public class CurveWindowTest extends DemoWindow {
    private Path curve(SimulatedStart.Fault fault, long seed) throws Exception {
        Path file = Files.createTempDirectory("greenbead-curve").resolve("curve-" + seed + ".csv");
        return Files.writeString(file, CurrentCsv.print(new SimulatedStart(12, 3, fault).trace(seed, 22)));
    }

    private boolean green(String bead) throws Exception {
        return window.fx(() -> window.scene().lookup("#bead-" + bead).getAccessibleText()).endsWith("proven");
    }

    private void at(String bead) throws Exception {
        window.click("#bead-" + bead);
        window.awaitNode("#curve-door");
        window.press(KeyCode.C);
        window.awaitNode("#curve-title");
    }

    private void keep() throws Exception {
        window.pedal("Keep it with the job");
        window.awaitText("#curve-said", "Kept with the job");
    }

    @Test
    public void aDepartureIsSeenAndKept() throws Exception {
        job("SB-0415");
        at("intake_baseline");
        window.awaitText("#curve-title", "No start-up curve yet");
        Path bad = Files.writeString(Files.createTempFile("curve", ".csv"), "time,current\n0,1\n");
        window.choose(bad);
        window.press(KeyCode.N);
        window.awaitText("#curve-said", "does not say its unit");

        window.press(KeyCode.H);
        window.awaitText("#curve-taken", "of a healthy board");
        window.choose(curve(SimulatedStart.Fault.NONE, 1));
        window.press(KeyCode.N);
        window.awaitText("#curve-title", "there is no healthy curve of this board yet");
        keep();
        window.press(KeyCode.LEFT);
        window.awaitNode("#curve-door");

        at("prove_start");
        window.awaitText("#curve-taken", "after the work");
        window.choose(curve(SimulatedStart.Fault.NO_MEMORY, 2));
        window.press(KeyCode.N);
        window.awaitText("#curve-title", "it stays there and does not go on");
        window.awaitNode("#stage-2");
        window.picture("curve-departs");
        keep();
        assertFalse(green("prove_start"), "a start that departs proves nothing");

        window.choose(curve(SimulatedStart.Fault.NONE, 3));
        window.press(KeyCode.N);
        window.awaitText("#curve-title", "Alike: it starts as healthy boards do");
        window.picture("curve-alike");
        keep();
        window.pedal("Back");
        window.awaitNode("#curve-door");

        // What was kept is there again when the page is opened another day, and the facts follow the last one.
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            Job job = ledger.job("SB-0415");
            assertEquals(
                    job.records("curve").stream().map(r -> r.text("taken") + " " + r.text("outcome"))
                            .toList(),
                    List.of("healthy no_reference", "after departs", "after alike"));
            assertEquals(job.bead("prove_start").orElseThrow().state(), BeadState.GREEN,
                    "what was shown ticks itself");
            assertEquals(job.records("curve").get(1).text("how"), "stays");
            assertEquals(JobFacts.of(job).at("curve.after").orElseThrow(), "alike");
        } finally {
            window.open();
        }
        job("SB-0415");
        at("prove_start");
        window.awaitText("#curve-title", "Alike: it starts as healthy boards do");
    }

    /** The made-up bench has a supply; what it tells is drawn as it comes, and the pedal ends it. */
    @Test
    public void aCurveIsRecordedFromTheSupply() throws Exception {
        job("SB-0415");
        at("prove_start");
        window.awaitText("#curve-title", "No start-up curve yet");
        window.press(KeyCode.R);
        window.awaitText("#curve-title", "Recording, 2 s");
        window.picture("curve-recording");
        window.pedal("Stop recording");
        window.awaitText("#curve-title", "there is no healthy curve of this board yet");
        window.awaitText("#pedal-word", "Keep it with the job");
    }
}
