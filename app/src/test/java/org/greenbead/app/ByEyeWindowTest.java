package org.greenbead.app;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.time.InstantSource;
import java.util.List;
import java.util.Optional;
import javafx.scene.input.KeyCode;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.run.Verdict;
import org.greenbead.store.Format;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.greenbead.store.RunEntry;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** A run on a bench without any thermocouple, from the start to the ledger, by pedal and by what is seen. */
public class ByEyeWindowTest {
    private BenchWindow window;

    @BeforeMethod
    public void openWithoutProbes() throws Exception {
        window = BenchWindow.onDemo();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            Bench b = ledger.document(Format.BENCH, "quay-1", Bench.class);
            ledger.save(new Bench(b.id(), b.title(), b.ambientC(), b.heater(), b.air(), List.of(),
                    b.calibrations()));
        }
        window.open();
        window.awaitNode("#remedy-CELL_CONNECTED");
    }

    private static final int MOST_STEPS = 600;
    private static final double STEP_S = 2;

    @AfterMethod(alwaysRun = true)
    public void close() throws Exception {
        window.close();
        window.remove();
    }

    @Test
    public void runIsLedByEyeAndSaysSoEverywhere() throws Exception {
        window.awaitNode("#remedy-CELL_CONNECTED");
        window.press(KeyCode.DIGIT1);
        window.awaitText("#pedal-word", "Start the run");
        window.press(KeyCode.T);
        window.press(KeyCode.SPACE);
        window.awaitText("#coach-next", "when the model has the board at");
        assertTrue(window.text("#tile-board-top-foot").startsWith("no probe"),
                window.text("#tile-board-top-foot"));
        window.picture("byeye-soak");
        // From here on by steps: at sixty times a busy machine may be asked for the next sight before anybody looked.
        window.holdTime();
        for (int i = 0; i < MOST_STEPS && !window.text("#pedal-word").contains("The flux shimmers"); i++) {
            if (window.shows("#remedy-HEATER_LAG")) {
                window.click("#remedy-HEATER_LAG");
            }
            window.letPass(STEP_S);
        }
        window.awaitText("#pedal-word", "The flux shimmers");
        assertTrue(window.shows("#sights"), "the sights to press");
        window.awaitText("#pedal-so", "brings the joint from");
        window.picture("byeye-flux");
        window.press(KeyCode.DIGIT6);
        window.letPass(1);
        window.awaitText("#run-said", "The flux shimmers: noted");
        window.freeTime();
        window.awaitText("#pedal-word", "A corner shines");
        window.awaitText("#sight", "shin");
        window.picture("byeye-corner");
        // By its own button: at sixty times the pedal may already ask for the next sight on a busy machine.
        window.click("#sight-corner_shines");
        window.awaitText("#pedal-word", "It moves");
        window.awaitText("#sight", "floats");
        window.click("#sight-floats");
        window.pedal("Chip is off");
        window.pedal("Finish the run");
        window.awaitNode("#verdict");
        assertTrue(window.text("#verdict-about").contains("no probe"), window.text("#verdict-about"));
        window.awaitText("#verdict-taught", "taught this bench");
        window.picture("byeye-verdict");
        window.click("#verdict-calibrate");
        window.awaitText("#fit-said", "sights believed");
        window.picture("byeye-calibrate");
        window.press(KeyCode.L);
        window.awaitText("#pedal-so", "replays it as it was");
        window.picture("byeye-ledger");
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            RunEntry run = ledger.runs().getFirst();
            assertTrue(run.noProbe().isPresent(), "the ledger knows");
            assertTrue(run.noProbe().orElseThrow() > 2, "± " + run.noProbe());
            Bench taught = ledger.document(Format.BENCH, "quay-1", Bench.class);
            assertEquals(taught.calibrations().getLast().run(), run.id());
            assertEquals(taught.calibrations().getLast().correlations().size(), 6);
            assertFalse(run.outcome().equals(Optional.of(Verdict.Outcome.BROKEN_OFF)));
            assertEquals(ledger.runs().get(1).noProbe(), Optional.empty(), "a probed run does not say it");
        }
        window.open();
    }
}
