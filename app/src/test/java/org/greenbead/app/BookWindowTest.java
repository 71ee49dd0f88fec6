package org.greenbead.app;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.time.InstantSource;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.greenbead.core.book.Facts;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** The rule book's word on the whole job, and notes written beside it, by keys. */
public class BookWindowTest {
    private BenchWindow window;

    @BeforeMethod
    public void open() throws Exception {
        window = BenchWindow.onDemo();
        window.open();
        window.awaitNode("#remedy-CELL_CONNECTED");
        window.press(KeyCode.K);
        window.awaitText("#book-title", "to care for");
    }

    @AfterMethod(alwaysRun = true)
    public void close() throws Exception {
        window.close();
        window.remove();
    }

    private Facts kept() throws Exception {
        window.close();
        Facts facts;
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            facts = ledger.job("SB-0417").facts();
        }
        window.open();
        return facts;
    }

    private void write(String text) throws Exception {
        boolean there = window.fx(() -> window.scene().lookup("#book-line").isFocused());
        if (!there) {
            window.press(KeyCode.I);
        }
        window.fx(() -> {
            TextField line = (TextField) window.scene().lookup("#book-line");
            assertTrue(line.isFocused());
            assertTrue(there || line.getText().isEmpty(),
                    "the key that led here is not typed: " + line.getText());
            line.setText(text);
            return null;
        });
        window.press(KeyCode.ENTER);
    }

    /** Never more than five in sight; the pedal brings the next and comes round. */
    @Test
    public void fiveAtATime() throws Exception {
        String one = window.scene().getRoot().lookupAll("#book-list > .finding").iterator().next().getId();
        assertEquals(window.scene().getRoot().lookupAll("#book-list > .finding").size(), 5);
        window.awaitText("#pedal-word", "Show the next");
        window.press(KeyCode.SPACE);
        window.await("others", () -> window.scene().lookup("#" + one.replace(".", "\\.")) == null
                && !window.scene().getRoot().lookupAll("#book-list > .finding").isEmpty());
        window.awaitText("#pedal-word", "Show the worst again");
        window.press(KeyCode.SPACE);
        window.await("the first again",
                () -> window.scene().getRoot().lookupAll("#book-list > .finding").stream()
                        .anyMatch(n -> one.equals(n.getId())));
    }

    /** A digit asks for a reason; with one the finding is set apart and stays in the job, without one nothing is muted. */
    @Test
    public void aFindingIsMutedWithAReason() throws Exception {
        window.await("four cares", () -> window.text("#book-title").contains("4 to care for"));
        window.press(KeyCode.DIGIT1);
        window.press(KeyCode.ENTER);
        window.awaitText("#book-said", "with a reason only");
        window.press(KeyCode.DIGIT1);
        window.fx(() -> {
            ((TextField) window.scene().lookup("#book-line")).setText("looked at it under the lamp");
            return null;
        });
        window.press(KeyCode.ENTER);
        window.await("three cares", () -> window.text("#book-title").contains("3 to care for"));
        assertEquals(kept().at("waivers.0.reason").orElseThrow(), "looked at it under the lamp");
    }

    /** A note changes what the book sees, is kept with the job, and can be taken back; nonsense is refused with the words allowed. */
    @Test
    public void aNoteIsKeptAndTakenBack() throws Exception {
        write("balls.bridged=2");
        window.await("a stop", () -> window.text("#book-title").contains("1 to stop for"));
        write("chip.health=glorious");
        window.awaitText("#book-said", "good, bad, short, unknown");
        write("balls.bridged");
        window.awaitText("#book-said", "no assignment");
        assertEquals(kept().at("balls.bridged").orElseThrow(), 2.0);
        window.awaitNode("#remedy-CELL_CONNECTED");
        window.press(KeyCode.K);
        window.await("the stop", () -> window.text("#book-title").contains("1 to stop for"));
        write("balls.bridged=; paste.trial_print=pass");
        window.await("no stop", () -> window.text("#book-title").contains("0 to stop for"));
        window.pressControl(KeyCode.Z);
        window.await("the stop again", () -> window.text("#book-title").contains("1 to stop for"));
        window.press(KeyCode.LEFT);
        window.await("the job", () -> window.scene().lookup("#book-list") == null);
    }
}
