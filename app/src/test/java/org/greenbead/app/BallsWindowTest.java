package org.greenbead.app;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.InstantSource;
import javafx.scene.control.Labeled;
import javafx.scene.input.KeyCode;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.testng.annotations.Test;

/** The photo of the balls in the real window: judged, asked, kept; and what is said where there is none. */
public class BallsWindowTest extends DemoWindow {

    private String text(String id) throws Exception {
        return window
                .fx(() -> window.scene().getRoot().lookupAll(id + " .label").stream()
                        .map(n -> ((Labeled) n).getText())
                        .reduce("", (a, b) -> a + "\n" + b));
    }

    /** Four faults were painted into the photo of 959 balls: all four are listed, the only ones of their nets first, and kept with the job. */
    @Test
    public void photoOfTheDemoIsJudgedAndKept() throws Exception {
        window.press(KeyCode.J);
        window.awaitText("#job-id", "SB-0415");
        window.press(KeyCode.P);
        window.awaitText("#balls-title", "Touch up");
        assertTrue(text("#balls-figures").contains("958 of 959"), text("#balls-figures"));
        for (String site : new String[]{"H9", "T4", "T5", "F18", "Y30"}) {
            window.awaitNode("#site-" + site);
        }
        assertEquals(window.fx(() -> window.scene().getRoot().lookupAll("#balls-list > .check-row").size()),
                (Integer) 5);
        assertTrue(text("#site-H9").contains("RESET"), text("#site-H9"));
        assertTrue(text("#site-F18").contains("missing"), text("#site-F18"));
        window.press(KeyCode.Z, KeyCode.DOWN);
        window.pedal("Keep this count");
        window.awaitText("#balls-said", "rule book knows");
        window.awaitText("#pedal-word", "Back to the current step");
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            Job job = ledger.job("SB-0415");
            Kept balls = job.records("balls").getFirst();
            assertEquals(balls.number("missing"), 1.0);
            assertEquals(balls.number("bridged"), 2.0);
            assertEquals(balls.text("decision"), "touch_up");
            assertTrue(balls.text("faults").contains("F18 missing"), "site by site: " + balls.text("faults"));
            assertFalse(balls.text("photo").isEmpty());
        } finally {
            window.open();
        }
    }

    /** Where nobody took a photo the page says how to take one; where the photo is of something else it says so. */
    @Test
    public void noPhotoAndAWrongOne() throws Exception {
        window.press(KeyCode.P);
        window.awaitText("#balls-title", "No photo of the balls");
        window.press(KeyCode.V);
        window.awaitText("#balls-title", "No photo of the cleaned pads");
        window.press(KeyCode.LEFT, KeyCode.J);
        window.awaitText("#job-id", "SB-0415");
        window.close();
        // The board of another job in place of the balls.
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            Job other = ledger.job("SB-0417");
            String board = other.records("picture").getFirst().text("file");
            Job job = ledger.job("SB-0415");
            Kept picture = job.records("picture").stream().filter(p -> p.text("view").equals("balls"))
                    .findFirst()
                    .orElseThrow();
            ledger.save(job.with(picture.with("file", board, picture.at(), picture.author())), "noted",
                    "a wrong photo");
            assertTrue(Files.exists(Path.of(window.data().toString(), "maps", "VG-90.map.csv")));
        }
        window.open();
        window.awaitNode("#remedy-CELL_CONNECTED");
        window.press(KeyCode.J);
        window.awaitText("#job-id", "SB-0415");
        window.press(KeyCode.P);
        window.awaitText("#balls-title", "cannot be judged");
        window.awaitText("#pedal-word", "Choose a photo");
    }

    /** Without a map the page says so; one key makes it from the photo, and the missing ball is no site of it. */
    @Test
    public void mapIsMadeFromThePhoto() throws Exception {
        Files.delete(Path.of(window.data().toString(), "maps", "VG-90.map.csv"));
        window.press(KeyCode.J);
        window.awaitText("#job-id", "SB-0415");
        window.press(KeyCode.P);
        window.awaitText("#balls-title", "cannot be looked at");
        assertTrue(text("#balls-figures").contains("M to make it"), text("#balls-figures"));
        window.press(KeyCode.M);
        window.awaitText("#balls-said", "958 sites");
        window.await("the verdict", () -> text("#balls-figures").contains("958 of 958"));
        assertTrue(Files.exists(Path.of(window.data().toString(), "maps", "VG-90.map.csv")));
    }

    /** A broken picture and a broken map are refused by name; what was on the page stays. */
    @Test
    public void brokenFilesAreRefusedByName() throws Exception {
        window.press(KeyCode.J);
        window.awaitText("#job-id", "SB-0415");
        window.press(KeyCode.P);
        window.awaitText("#balls-title", "Touch up");
        Path picture = Files.writeString(window.data().resolve("torn.png"), "not a picture");
        window.choose(picture);
        window.press(KeyCode.N);
        window.await("why not", () -> window.text("#balls-said").contains("torn.png"));
        Path map = Files.writeString(window.data().resolve("torn.csv"),
                "site,x_mm,y_mm,diameter_mm,net,critical\nA1,0,0,0.4,,\nA1,0.8,0,0.4,,\n");
        window.choose(map);
        window.press(KeyCode.N);
        window.await("which line", () -> window.text("#balls-said").contains("torn.csv"));
        assertTrue(window.text("#balls-said").contains("A1"), window.text("#balls-said"));
        assertTrue(window.text("#balls-title").startsWith("Touch up"), window.text("#balls-title"));
    }
}
