package org.greenbead.app;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.input.KeyCode;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** Stencil and paste in the window, by keys. */
public class StencilWindowTest extends DemoWindow {

    @BeforeMethod
    public void begin() throws Exception {
        job("SB-0415");
        window.press(KeyCode.P);
        window.awaitNode("#balls-title");
        window.press(KeyCode.S);
        window.awaitText("#stencil-title", "Ball 0.");
    }

    @Test
    public void slidersRedrawTheBallAndKeepGoesToTheJob() throws Exception {
        String before = window.text("#stencil-title");
        String opening = window.text("#knob-opening-number");
        window.press(KeyCode.RIGHT);
        window.await("a larger opening", () -> !window.text("#knob-opening-number").equals(opening));
        window.await("another ball", () -> !window.text("#stencil-title").equals(before));
        window.press(KeyCode.DOWN);
        for (int i = 0; i < 30; i++) {
            window.press(KeyCode.RIGHT);
        }
        window.await("a sheet too thick", () -> window.text("#knob-thickness-number").compareTo("0.2") > 0);
        String ratio = window.text("#say-release");
        assertTrue(Double.parseDouble(ratio.replaceAll("[^0-9.]", "")) < 0.66, ratio);
        window.press(KeyCode.V);
        window.awaitText("#stencil-next", "square openings");
        window.press(KeyCode.DIGIT2);
        window.awaitText("#stencil-next", "two fills");
        window.pedal("Keep this stencil");
        window.awaitText("#stencil-said", "Kept with the job");
        window.awaitText("#pedal-word", "Back to the current step");
        window.press(KeyCode.ESCAPE);
        window.awaitNode("#balls-title");
    }

    @Test
    public void beginsWithTheStencilThatTheJobNotes() throws Exception {
        job("SB-0417");
        window.press(KeyCode.P);
        window.awaitNode("#balls-title");
        window.press(KeyCode.S);
        window.awaitText("#knob-opening-number", "0.240 mm");
        window.awaitText("#knob-thickness-number", "0.100 mm");
    }

    @Test
    public void theOpeningForTheBallIsFoundOrRefusedWithWords() throws Exception {
        window.press(KeyCode.N);
        window.await("the wanted ball or why not", () -> window.text("#say-wanted").contains("+0 %")
                || window.text("#say-wanted").contains("-0 %")
                || window.text("#stencil-said").startsWith("No opening"));
        assertFalse(window.text("#stencil-title").isEmpty());
        assertEquals(window.text("#job-id"), "SB-0415");
    }

    /** The drawing of the whole field goes where it is told to; a place that is no folder is refused with words. */
    @Test
    public void theDrawingGoesToTheChosenFolder() throws Exception {
        Path folder = Files.createTempDirectory("greenbead-drawing");
        Path file = Files.writeString(folder.resolve("in-the-way"), "x");
        window.choose(file);
        window.press(KeyCode.E);
        window.await("why not", () -> window.text("#stencil-said").contains("in-the-way"));
        window.choose(folder);
        window.press(KeyCode.E);
        window.awaitText("#stencil-said", "sb-0415-stencil.svg and .gbr");
        String svg = Files.readString(folder.resolve("sb-0415-stencil.svg"));
        assertEquals(svg.split("<circle").length - 1, 959, "one opening for each site");
        String gerber = Files.readString(folder.resolve("sb-0415-stencil.gbr"));
        assertEquals(gerber.lines().filter(l -> l.endsWith("D03*")).count(), 959);
        assertTrue(gerber.stripTrailing().endsWith("M02*"), "the file is whole");
        for (String name : List.of("in-the-way", "sb-0415-stencil.svg", "sb-0415-stencil.gbr", "")) {
            Files.delete(folder.resolve(name));
        }
    }
}
