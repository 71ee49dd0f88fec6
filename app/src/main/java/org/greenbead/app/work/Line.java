package org.greenbead.app.work;

import javafx.scene.control.TextField;
import javafx.scene.input.KeyEvent;
import org.greenbead.app.look.Looks;

/** A line to write in that a key can lead to: the character of that key is not its first. */
public final class Line extends TextField {
    private boolean swallows;

    public Line(String id, String prompt) {
        setId(id);
        setPromptText(prompt);
        Looks.as(this, "text-line");
        setMaxWidth(Double.MAX_VALUE);
        addEventFilter(KeyEvent.KEY_PRESSED, e -> swallows = false);
        addEventFilter(KeyEvent.KEY_TYPED, e -> {
            if (swallows) {
                swallows = false;
                e.consume();
            }
        });
    }

    /** Puts the cursor here, as the answer to a key that is still down. */
    public void open() {
        requestFocus();
        end();
        swallows = true;
    }
}
