package org.greenbead.app;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.InstantSource;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import org.greenbead.core.bench.AirDial;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.calibrate.Witness;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.store.Format;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.testng.annotations.Test;

/** What a bench is taught in the window without a thermocouple: what its dials say, and dots of solder. */
public class TeachWindowTest extends DemoWindow {
    private Bench bench() throws Exception {
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            return ledger.document(Format.BENCH, "quay-1", Bench.class);
        }
    }

    private void write(String id, String text) throws Exception {
        window.fx(() -> {
            ((TextInputControl) window.scene().lookup(id)).setText(text);
            return null;
        });
    }

    /** The dial is chosen as it is printed on the station; recipe and coach speak it from then on. */
    @Test
    public void recipeSpeaksTheDialOfTheStation() throws Exception {
        window.press(KeyCode.B);
        window.click("#bench-quay-1");
        window.awaitNode("#dial-steps-quay-1");
        window.click("#dial-steps-quay-1");
        window.awaitText("#dial-said-quay-1", "step 8 = 120 L/min");
        write("#dial-marks-quay-1", "1=14 3");
        window.awaitText("#dial-said-quay-1", "is no mark");
        write("#dial-marks-quay-1", "1=10 4=28 10=120");
        window.awaitText("#dial-said-quay-1", "step 1 = 10 L/min");
        write("#dial-offset-quay-1", "15");
        window.picture("dial");
        window.press(KeyCode.ESCAPE);
        window.press(KeyCode.ESCAPE);
        window.press(KeyCode.ESCAPE);
        window.awaitNode("#remedy-CELL_CONNECTED");
        window.press(KeyCode.R);
        window.awaitText("#figure-peak", "°C");
        assertTrue(says("flow step"), "the row is named by the dial");
        assertFalse(says("flow L/min"));
        String step = window.text("#stage-3-flow");
        assertTrue(Double.parseDouble(step) <= 10, step);
        write("#stage-3-flow", "11");
        window.awaitText("#recipe-entry", "from 1 to 10");
        window.close();
        Bench kept = bench();
        assertEquals(kept.air().dial(),
                new AirDial(AirDial.Scale.STEPS, AirDial.read("1=10 4=28 10=120"), 15));
        window.open();
    }

    /** A recipe for a station that is not here is stopped and can take one that is; with two of them the run names which. */
    @Test
    public void aRecipeTakesAStationOfItsBench() throws Exception {
        Bench before;
        Recipe usual;
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            before = ledger.document(Format.BENCH, "quay-1", Bench.class);
            usual = ledger.document(Format.RECIPE, "wb7-lift", Recipe.class);
            ledger.save(before.adding(before.air().another("pen").nozzles(List.of(4.0, 6.0))));
            ledger.save(usual.by("lance"));
        } finally {
            window.open();
        }
        window.await("stopped", () -> says("this bench has none of that name"));
        window.press(KeyCode.R);
        window.awaitText("#recipe-station", "Take a station");
        window.press(KeyCode.A);
        window.awaitText("#recipe-station", "Air: air station");
        window.press(KeyCode.A);
        window.awaitText("#recipe-station", "Air: pen");
        assertEquals(window.text("#stage-3-nozzle"), "6");
        window.awaitText("#pedal-word", "Keep");
        window.picture("recipe-station");
        window.press(KeyCode.SPACE);
        window.await("nothing is missing any more", () -> !says("this bench has none of that name"));
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            assertEquals(ledger.document(Format.RECIPE, "wb7-lift", Recipe.class).station(),
                    Optional.of("pen"));
            assertEquals(ledger.document(Format.BENCH, "quay-1", Bench.class).air(), before.air(),
                    "the bench has the same one in hand");
            ledger.save(before);
            ledger.save(usual);
        } finally {
            window.open();
        }
    }

    /** Dots for another scrap board are laid on that board, round its own chip. */
    @Test
    public void dotsAreLaidOnTheScrapThatIsThere() throws Exception {
        window.press(KeyCode.B);
        window.awaitNode("#witness-quay-1");
        window.click("#witness-quay-1");
        window.awaitNode("#dots-foreign");
        window.click("#dots-foreign");
        window.awaitNode("#dots-board-TG-2");
        window.awaitText("#dots-now", "Choose which board");
        window.awaitText("#pedal-word", "Choose which board");
        window.click("#dots-board-TG-2");
        window.awaitText("#dots-said", "some 13 K");
        window.awaitText("#pedal-word", "It is set: begin");
        window.picture("dots-scrap");
        window.click("#dots-twin");
        window.awaitText("#dots-said", "afterwards");
        assertTrue(window.scene().lookup("#dots-board-TG-2") == null, "a twin is of this job's board");
        window.press(KeyCode.ESCAPE);
    }

    /** Somebody watches the simulated dots and presses each as it turns bright, until the bench is known. */
    @Test
    public void dotsTeachTheBench() throws Exception {
        window.press(KeyCode.T, KeyCode.T);
        window.press(KeyCode.B);
        window.awaitNode("#witness-quay-1");
        window.click("#witness-quay-1");
        window.awaitText("#pedal-word", "It is set: begin");
        window.picture("dots-laid");
        window.press(KeyCode.SPACE);
        Set<String> pressed = new HashSet<>();
        boolean pictured = false;
        long until = System.currentTimeMillis() + 300_000;
        while (!window.text("#pedal-word").equals("Read the dots")) {
            assertTrue(System.currentTimeMillis() < until, "it hangs at " + window.text("#pedal-word"));
            String pedal = window.text("#pedal-word");
            if (window.text("#pedal-so").equals("the moment is kept")) {
                // The pedal came late and said that some dot was seen: which one is asked for.
                pressed.clear();
            }
            String[] bright = window.text("#dots-eye").replaceAll(".* bright are ", "").split(" ");
            for (String dot : bright) {
                if (dot.length() == 1 && pressed.add(dot)) {
                    window.press(KeyCode.getKeyCode(dot));
                    window.await("the press",
                            () -> !says("–") || window.scene().lookup("#dots-list") != null);
                }
            }
            if (pressed.size() == 5 && !pictured) {
                window.picture("dots-going");
                pictured = true;
            }
            if (pedal.equals("It is set") || pedal.equals("Heat is off")) {
                window.press(KeyCode.SPACE);
            }
        }
        assertTrue(pressed.size() >= 9, pressed.toString());
        window.press(KeyCode.SPACE);
        window.awaitText("#pedal-word", "Keep with the bench");
        window.awaitText("#dots-now", "What the dots told");
        window.picture("dots-told");
        window.press(KeyCode.SPACE);
        window.awaitNode("#setup-benches");
        window.close();
        Bench kept = bench();
        assertEquals(kept.calibrations().size(), 1);
        assertTrue(kept.calibrations().getFirst().jet().determined());
        assertTrue(kept.calibrations().getFirst().residualK() < 8);
        try (var files = Files.list(window.data().resolve("witness"))) {
            List<Path> all = files.toList();
            assertEquals(all.size(), 1, all.toString());
            Witness file = new OpenFiles().read(all.getFirst(), Format.WITNESS, Witness.class);
            assertEquals(file.presses().size(), pressed.size());
            assertTrue(file.readings().size() > 500, "its thermocouples went into the same fit");
        }
        window.open();
    }
}
