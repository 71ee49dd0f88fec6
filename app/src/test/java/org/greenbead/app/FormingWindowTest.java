package org.greenbead.app;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import javafx.scene.input.KeyCode;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** Balls made in the window: by the pedal, and with an act out of its order. */
public class FormingWindowTest extends DemoWindow {

    @BeforeMethod
    public void begin() throws Exception {
        job("SB-0412");
        window.awaitText("#pedal-word", "Filled, this pass");
    }

    /**
     * What has cooled too far is warmed first; the word may turn between a look and the press, as at a bench: then it is pressed again, until
     * the run is finished.
     */
    private void comesOff() throws Exception {
        var words = java.util.Set.of("Warm it", "Stencil is off", "Finish the run");
        for (int presses = 0; presses < 8 && !window.shows("#verdict"); presses++) {
            window.await("something to press, or the verdict",
                    () -> window.shows("#verdict") || words.contains(window.text("#pedal-word")));
            if (!window.shows("#verdict")) {
                window.press(KeyCode.SPACE);
            }
        }
    }

    @Test
    public void thePedalLeadsFromPasteToTheVerdict() throws Exception {
        window.press(KeyCode.T);
        window.pedal("Filled, this pass");
        window.awaitText("#coach-now", "pass 2");
        window.pedal("Filled, this pass");
        window.pedal("Wiped");
        window.pedal("The jig holds it");
        window.press(KeyCode.T);
        window.pedal("Heat on");
        window.awaitText("#pedal-word", "Go on to");
        assertTrue(window.text("#coach-now").contains("nozzle"), window.text("#coach-now"));
        window.await("the peak", () -> window.text("#pedal-word").equals("First ball shines"));
        window.await("balls that shine", () -> window.text("#sight").contains("shiny"));
        window.pedal("First ball shines");
        window.await("the count or its end", () -> window.text("#coach-now").startsWith("Counting")
                || window.text("#coach-now").startsWith("All round"));
        window.await("the end of the count", () -> window.text("#coach-now").startsWith("All round"));
        window.pedal("All round");
        window.await("solid balls", () -> window.text("#pedal-word").equals("Warm it")
                || window.text("#pedal-word").equals("Stencil is off"));
        comesOff();
        window.awaitNode("#verdict");
        window.await("the release in the verdict", () -> says("Stencil off at"));
    }

    @Test
    public void fluxBeforeTheMeltIsSaidToBeWrongAndThePrintBeginsAgain() throws Exception {
        assertTrue(window.shows("#stencil-cut"));
        window.pedal("Filled, this pass");
        window.awaitText("#coach-now", "pass 2");
        window.click("#act-flux");
        window.awaitText("#pedal-word", "Washed and dry");
        window.await("the finding", () -> says("Add flux: not now"));
        window.pedal("Washed and dry");
        window.awaitText("#pedal-word", "It lies on");
        window.await("a clear Watch", () -> !says("Add flux: not now"));
        assertFalse(window.text("#clock").equals("0:00"), "the log runs from the first act");
        assertEquals(window.text("#job-id"), "SB-0412");
    }
}
