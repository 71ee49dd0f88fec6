package org.greenbead.app;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import javafx.event.Event;
import javafx.scene.Node;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import org.testng.annotations.Test;

/** One press is one act, whatever page is open; what states a fact waits a second. */
public class PedalWindowTest extends DemoWindow {
    private int attested() throws Exception {
        return window.fx(() -> (int) window.scene().getRoot().lookupAll(".check-shape").stream()
                .filter(n -> n.getPseudoClassStates().stream()
                        .anyMatch(p -> p.getPseudoClassName().equals("yes")))
                .count());
    }

    private void intakeOf(String id) throws Exception {
        window.press(KeyCode.O);
        window.awaitNode("#jobs-list");
        window.press(KeyCode.I);
        window.fx(() -> {
            ((TextInputControl) window.scene().lookup("#jobs-search")).setText(id);
            return null;
        });
        window.awaitText("#pedal-word", id);
        window.press(KeyCode.ENTER);
        window.awaitNode("#step-now");
        window.await("its checks", () -> !window.text("#step-now").isEmpty());
    }

    /** Five seconds of Space at an intake: one check, not nineteen. Then a bounce of the finger: none. */
    @Test
    public void heldPedalAttestsOneCheck() throws Exception {
        intakeOf("SB-0406");
        int before = attested();
        String first = window.text("#step-now");
        window.hold(KeyCode.SPACE, 25);
        assertEquals(attested(), before + 1);
        String second = window.text("#step-now");
        assertFalse(second.equals(first));
        window.press(KeyCode.SPACE);
        assertEquals(attested(), before + 2, "a press of its own is an act of its own");
        window.pressAgainAtOnce(KeyCode.SPACE);
        assertEquals(attested(), before + 2, "the same second states nothing more");
        assertTrue(window.text("#trouble").startsWith("Too quick"), window.text("#trouble"));
        window.hold(KeyCode.F8, 30);
        assertEquals(attested(), before + 3, "the other pedal key is no other pedal");
    }

    /** Enter after a typed answer goes on to the next question and touches no check. */
    @Test
    public void enterNeverFiresWhatGotTheFocusByItself() throws Exception {
        intakeOf("SB-0406");
        window.press(KeyCode.SPACE);
        int before = attested();
        window.press(KeyCode.W);
        window.await("a question", () -> !window.text("#ask-question").isEmpty());
        for (int i = 0; i < 12; i++) {
            window.press(KeyCode.ENTER);
            assertEquals(attested(), before);
        }
        window.fx(() -> {
            Node back = window.scene().lookup("#back");
            back.requestFocus();
            return null;
        });
        assertTrue(window.fx(() -> window.scene().getFocusOwner() instanceof ButtonBase));
        window.press(KeyCode.ENTER);
        assertEquals(attested(), before, "focus that the program gave is no choice of a person");
    }

    /** Held on every place, the pedal acts once: it never runs on through the pages it opens. */
    @Test
    public void heldPedalIsOneActOnEveryPlace() throws Exception {
        for (KeyCode place : new KeyCode[]{KeyCode.Y, KeyCode.D, KeyCode.K, KeyCode.Q, KeyCode.L, KeyCode.B,
                KeyCode.R, KeyCode.O}) {
            window.press(KeyCode.G);
            window.press(place);
            window.await("a pedal for " + place, () -> !window.text("#pedal-word").isEmpty());
            window.hold(KeyCode.SPACE, 20);
            assertFalse(window.shows("#coach-now") && window.text("#pedal-word").startsWith("It moves"),
                    place + " led into a run: " + window.text("#coach-now"));
            assertFalse(window.text("#clock").contains(":") && window.shows("#coach-now")
                    && !window.text("#clock").equals("0:00"), place + " started the heat");
        }
    }

    /** In a run: one start, and no stage is ended and no melt said by a foot that stays down. */
    @Test
    public void heldPedalInARunDoesOneThing() throws Exception {
        window.press(KeyCode.DIGIT1);
        window.awaitText("#pedal-word", "Start");
        window.hold(KeyCode.SPACE, 25);
        window.await("the clock to go", () -> !window.text("#clock").equals("0:00"));
        String stage = window.text("#coach-now");
        window.hold(KeyCode.SPACE, 25);
        window.await("the next stage, by one word",
                () -> !window.text("#coach-now").equals(stage) && !window.text("#pedal-word").isEmpty());
        window.hold(KeyCode.SPACE, 25);
        assertFalse(window.text("#coach-now").startsWith("Lift"), window.text("#coach-now"));
        window.pressControl(KeyCode.B);
        window.awaitNode("#verdict");
    }

    /** A bead says what it is when the pointer comes to it; until then there is no tip, and later its words follow its state. */
    @Test
    public void aTipComesWithThePointer() throws Exception {
        window.awaitNode("#bead-lift_run");
        window.fx(() -> {
            var bead = (ButtonBase) window.scene().lookup("#bead-lift_run");
            assertEquals(bead.getTooltip(), null);
            Event.fireEvent(bead,
                    new MouseEvent(MouseEvent.MOUSE_ENTERED, 1, 1, 1, 1, MouseButton.NONE, 0, false,
                            false, false, false, false, false, false, true, false, false, null));
            assertEquals(bead.getTooltip().getText(), bead.getAccessibleText());
            assertTrue(bead.getAccessibleText().startsWith("Lift"), bead.getAccessibleText());
            return null;
        });
    }
}
