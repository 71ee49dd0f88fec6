package org.greenbead.app;

import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.store.BeadMapCsv;
import org.testng.annotations.Test;

/** The bead map edited in the window, by keys. */
public class MapWindowTest extends DemoWindow {

    private void editor(String id) throws Exception {
        job(id);
        window.press(KeyCode.P);
        window.awaitNode("#balls-title");
        window.press(KeyCode.E);
        window.awaitNode("#map-title");
    }

    private void type(String text) throws Exception {
        window.await("the line",
                () -> window.fx(() -> window.scene().lookup("#map-line") instanceof TextField t
                        && t.isVisible() && t.isFocused()));
        window.fx(() -> {
            ((TextField) window.scene().lookup("#map-line")).setText(text);
            return null;
        });
        window.press(KeyCode.ENTER);
    }

    @Test
    public void sitesOverThePhotoAreTakenOutNamedAndBroughtBack() throws Exception {
        editor("SB-0415");
        window.awaitText("#map-title", "959 sites");
        window.await("the photo under it", () -> window.text("#map-next").startsWith("Over the photo"));
        window.press(KeyCode.RIGHT);
        window.press(KeyCode.RIGHT);
        window.press(KeyCode.DOWN);
        window.await("the cursor", () -> says("B3"));
        window.press(KeyCode.A);
        window.press(KeyCode.RIGHT);
        window.press(KeyCode.DOWN);
        window.await("a range", () -> says("B3 to C4"));
        window.pedal("Take out");
        window.awaitText("#map-title", "955 sites");
        window.pressControl(KeyCode.Z);
        window.awaitText("#map-title", "959 sites");
        window.press(KeyCode.DIGIT1);
        window.awaitText("#map-said", "B3 to C4: the only one of its net");
        window.press(KeyCode.N);
        type("VCORE");
        window.awaitText("#map-said", "VCORE");
        window.press(KeyCode.V);
        window.await("the other side", () -> window.text("#map-next").startsWith("Mirrored"));
        window.press(KeyCode.ESCAPE);
        window.awaitNode("#balls-title");
        window.press(KeyCode.E);
        window.await("it was kept", () -> says("VCORE") || says("6 nets named"));
    }

    @Test
    public void aFieldIsBegunFromWordsAndBadWordsAreRefused() throws Exception {
        editor("SB-0417");
        window.await("no map yet", () -> window.text("#map-title").startsWith("No bead map"));
        type("about twenty");
        window.awaitText("#map-said", "write rows x columns");
        assertTrue(window.text("#pedal-word").startsWith("New field"), window.text("#pedal-word"));
        window.press(KeyCode.SPACE);
        type("12x10 0.8 0.45");
        window.awaitText("#map-title", "120 sites");
        window.press(KeyCode.H);
        type("0.30");
        window.await("a smaller ball", () -> says("ball 0.30 mm"));
        window.press(KeyCode.SPACE);
        window.awaitText("#map-title", "119 sites");
        window.pedal("Put a site in");
        window.awaitText("#map-title", "120 sites");
        assertFalse(says("ball 0.30 mm"), "a site put in has the size of the others");
    }

    @Test
    public void aSecondFieldOfAnotherPitchIsPutBesideAndEdited() throws Exception {
        editor("SB-0412");
        window.await("the page", () -> !window.text("#map-title").isEmpty()
                && !window.text("#pedal-word").startsWith("Looking"));
        window.press(KeyCode.E);
        type("8x8 0.8 0.45");
        window.awaitText("#map-title", "64 sites");
        window.press(KeyCode.T);
        window.awaitText("#map-said", "one field");
        window.press(KeyCode.E);
        type("+ 3x4 1.0");
        window.awaitText("#map-said", "where its middle lies");
        window.press(KeyCode.E);
        type("+ 3x4 1.0 0.5 at 0 -6");
        window.awaitText("#map-title", "76 sites");
        window.await("the second field", () -> says("B:A1") && says("3 rows, 4 columns, pitch 1.00 mm"));
        window.press(KeyCode.RIGHT);
        window.pedal("Take out");
        window.awaitText("#map-title", "75 sites");
        window.press(KeyCode.SPACE);
        window.awaitText("#map-title", "76 sites");
        window.await("the size of its field", () -> says("ball 0.50 mm"));
        window.press(KeyCode.T);
        window.await("the main field", () -> says("8 rows, 8 columns, pitch 0.80 mm"));
    }

    /** A stencil that lies turned is found to fit; one with a hole too few names the site; a file that is no map is refused. */
    @Test
    public void aStencilIsMatchedInAnyTurn() throws Exception {
        editor("SB-0415");
        window.awaitText("#map-title", "959 sites");
        BeadMap map = BeadMapCsv.read(window.data().resolve("maps").resolve("VG-90.map.csv"));
        Path file = window.data().resolve("stencil.csv");
        window.choose(Files.writeString(file, BeadMapCsv.write(map.turned(1))));
        window.press(KeyCode.M);
        window.awaitText("#map-said", "It fits, turned by");
        Files.writeString(file, BeadMapCsv.write(map.without("C5", "C5").turned(2)));
        window.press(KeyCode.M);
        window.awaitText("#map-said", "1 sites without a hole (squares), 0 holes");
        Files.writeString(file, "no map at all");
        window.press(KeyCode.M);
        window.await("what is wrong with it", () -> window.text("#map-said").contains("stencil.csv"));
        window.awaitText("#map-title", "959 sites");
    }
}
