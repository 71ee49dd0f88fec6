package org.greenbead.app;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;

import javafx.scene.input.KeyCode;
import org.testng.annotations.Test;

/** Two photos of a board laid over each other in the window. */
public class ChangeWindowTest extends DemoWindow {

    @Test
    public void whatWentWithTheAirIsFoundAndWrittenDown() throws Exception {
        job("SB-0412");
        window.press(KeyCode.D);
        window.awaitNode("#picture-title");
        window.press(KeyCode.I);
        window.awaitText("#change-title", "2 gone, 0 moved");
        String first = window.text("#change-which");
        window.await("the blink", () -> !window.text("#change-which").equals(first));
        window.press(KeyCode.V);
        String held = window.text("#change-which");
        window.press(KeyCode.RIGHT);
        assertNotEquals(window.text("#change-which"), held, "one photo for the other by hand");
        assertEquals(window.text("#pedal-word"), "Write it down as lost");
        window.press(KeyCode.SPACE);
        window.await("the note", () -> says("written down as lost"));
        window.press(KeyCode.DOWN);
        window.awaitText("#pedal-word", "Write it down as lost");
        window.press(KeyCode.UP);
        window.pedal("To the board picture");
        window.awaitNode("#picture-title");
        window.await("the lost piece on the picture", () -> says("pieces lost: 1"));
        // What the two photos showed stands in the job, and what is not written down yet is asked for.
        window.press(KeyCode.K);
        window.await("what is gone and not written down", () -> says("Parts are gone on the later photo"));
        window.picture("gone");
    }

    @Test
    public void onePhotoAsksForAnother() throws Exception {
        window.press(KeyCode.D);
        window.awaitNode("#picture-title");
        window.press(KeyCode.I);
        window.awaitText("#change-title", "One photo only");
        assertTrue(window.text("#pedal-word").startsWith("Choose a photo"), window.text("#pedal-word"));
    }
}
