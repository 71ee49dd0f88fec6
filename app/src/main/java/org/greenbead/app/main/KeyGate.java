package org.greenbead.app.main;

import java.time.InstantSource;
import java.util.EnumSet;
import java.util.Set;
import javafx.scene.input.KeyCode;
import org.greenbead.app.shell.Pedal;

/**
 * One press is one act. A key acts when it goes down and not again before it has come up; what states a fact about the world is not
 * reached within a second of the act before it, nor by a press that was on its way when the pedal came to mean it. Knows no window.
 */
final class KeyGate {
    private static final long APART_MS = 1000;
    /**
     * Nobody answers a word that has stood for less: reaction to a light takes a fifth to a quarter of a second (Luce, Response Times, 1986; from memory: verify). What is
     * pressed sooner was meant for the word before.
     */
    private static final long REACTION_MS = 200;
    /** A key that was held while the window was away repeats this soon after it is back. */
    private static final long SETTLE_MS = 700;
    /** Keys that are held on purpose: they move a cursor or turn a number, and state nothing. */
    private static final Set<KeyCode> REPEAT = EnumSet.of(KeyCode.LEFT, KeyCode.RIGHT, KeyCode.UP,
            KeyCode.DOWN, KeyCode.PAGE_UP, KeyCode.PAGE_DOWN, KeyCode.TAB, KeyCode.PLUS, KeyCode.MINUS,
            KeyCode.ADD, KeyCode.SUBTRACT, KeyCode.EQUALS, KeyCode.HOME, KeyCode.END);

    /** What becomes of a press of the pedal. */
    enum Answer {
        ACT, TOO_SOON, TURNED, LOADING, NOTHING
    }

    private final InstantSource clock;
    private final Set<KeyCode> down = EnumSet.noneOf(KeyCode.class);
    private long actedMs = Long.MIN_VALUE / 2;
    private long backMs = Long.MIN_VALUE / 2;
    private String word = "";
    private long turnedMs = Long.MIN_VALUE / 2;

    KeyGate(InstantSource clock) {
        this.clock = clock;
    }

    /** A key went down. @return false when it is held and repeats itself */
    boolean pressed(KeyCode code) {
        boolean fresh = down.add(code);
        return REPEAT.contains(code) || fresh && clock.millis() - backMs > SETTLE_MS;
    }

    void released(KeyCode code) {
        down.remove(code);
    }

    /** The window has lost the keyboard, or has it back: which keys are down is not known. */
    void away(boolean gone) {
        down.clear();
        if (!gone) {
            backMs = clock.millis();
        }
    }

    /** What the pedal says now. */
    void says(Pedal pedal) {
        if (!pedal.word().equals(word)) {
            word = pedal.word();
            turnedMs = clock.millis();
        }
    }

    /** The pedal was pressed. @param loading while what it would act on is not there yet */
    Answer pedal(Pedal pedal, boolean loading) {
        if (loading) {
            return Answer.LOADING;
        }
        if (!pedal.open()) {
            return Answer.NOTHING;
        }
        if (pedal.fact() && clock.millis() - actedMs < APART_MS) {
            return Answer.TOO_SOON;
        }
        if (pedal.fact() && clock.millis() - turnedMs < REACTION_MS) {
            return Answer.TURNED;
        }
        acted();
        return Answer.ACT;
    }

    /** Something was done. */
    void acted() {
        actedMs = clock.millis();
    }
}
