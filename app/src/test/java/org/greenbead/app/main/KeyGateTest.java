package org.greenbead.app.main;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.time.InstantSource;
import javafx.scene.input.KeyCode;
import org.greenbead.app.shell.Pedal;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** Pedal and keys without a window. */
public class KeyGateTest {
    private static final Pedal FACT = Pedal.stating("It moves", "", () -> {
    });
    private static final Pedal WAY = new Pedal("Next", "", true, () -> {
    });
    private long nowMs;
    private KeyGate gate;

    @BeforeMethod
    public void fresh() {
        nowMs = 1_000_000;
        InstantSource clock = () -> Instant.ofEpochMilli(nowMs);
        gate = new KeyGate(clock);
    }

    @Test
    public void heldPedalActsOnce() {
        int acts = 0;
        for (int i = 0; i < 150; i++) {
            nowMs += 33;
            acts += gate.pressed(KeyCode.SPACE) && gate.pedal(FACT, false) == KeyGate.Answer.ACT ? 1 : 0;
        }
        assertEquals(acts, 1, "five seconds are one press");
        gate.released(KeyCode.SPACE);
        nowMs += 1200;
        assertTrue(gate.pressed(KeyCode.SPACE));
        assertEquals(gate.pedal(FACT, false), KeyGate.Answer.ACT);
    }

    /** A finger that bounces, or a press meant for the act before, states nothing. */
    @Test
    public void factIsNotReachedWithinASecond() {
        assertEquals(gate.pedal(WAY, false), KeyGate.Answer.ACT);
        nowMs += 999;
        assertEquals(gate.pedal(FACT, false), KeyGate.Answer.TOO_SOON);
        nowMs += 1;
        assertEquals(gate.pedal(FACT, false), KeyGate.Answer.ACT);
        nowMs += 200;
        assertEquals(gate.pedal(WAY, false), KeyGate.Answer.ACT, "going somewhere is no fact");
    }

    /** A foot that was already going down when the word turned meant the word before. */
    @Test
    public void aWordThatHasJustTurnedIsNotStated() {
        gate.says(WAY);
        nowMs += 5000;
        gate.says(FACT);
        nowMs += 199;
        gate.says(FACT);
        assertEquals(gate.pedal(FACT, false), KeyGate.Answer.TURNED);
        nowMs += 1;
        assertEquals(gate.pedal(FACT, false), KeyGate.Answer.ACT, "the same word said again is no turn");
        nowMs += 2000;
        gate.says(WAY);
        assertEquals(gate.pedal(WAY, false), KeyGate.Answer.ACT, "going somewhere is no fact");
    }

    /** A refused press does not push the next one further away. */
    @Test
    public void refusalDoesNotCountAsAnAct() {
        gate.acted();
        nowMs += 900;
        assertEquals(gate.pedal(FACT, false), KeyGate.Answer.TOO_SOON);
        nowMs += 150;
        assertEquals(gate.pedal(FACT, false), KeyGate.Answer.ACT);
    }

    @Test
    public void nothingActsWhileThePageIsLoading() {
        assertEquals(gate.pedal(FACT, true), KeyGate.Answer.LOADING);
        assertEquals(gate.pedal(WAY, true), KeyGate.Answer.LOADING);
        assertEquals(gate.pedal(Pedal.shut("", ""), false), KeyGate.Answer.NOTHING);
    }

    /** A cursor may be held; a letter, a digit and Enter may not. */
    @Test
    public void onlyCursorsRepeat() {
        for (KeyCode code : new KeyCode[]{KeyCode.ENTER, KeyCode.DIGIT1, KeyCode.A, KeyCode.F8,
                KeyCode.DELETE}) {
            assertTrue(gate.pressed(code), code.getName());
            assertFalse(gate.pressed(code), code.getName());
        }
        assertTrue(gate.pressed(KeyCode.RIGHT));
        assertTrue(gate.pressed(KeyCode.RIGHT));
    }

    /** A key that stayed down while another window was in front does not act when this one is back. */
    @Test
    public void keyHeldAcrossWindowsDoesNotAct() {
        gate.pressed(KeyCode.SPACE);
        gate.away(true);
        nowMs += 5000;
        gate.away(false);
        nowMs += 50;
        assertFalse(gate.pressed(KeyCode.SPACE));
        gate.released(KeyCode.SPACE);
        nowMs += 1000;
        assertTrue(gate.pressed(KeyCode.SPACE), "and is not lost for good");
    }
}
