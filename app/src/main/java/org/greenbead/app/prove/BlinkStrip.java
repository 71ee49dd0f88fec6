package org.greenbead.app.prove;

import java.util.List;
import javafx.css.PseudoClass;
import javafx.scene.Cursor;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Text;
import org.greenbead.app.look.Looks;
import org.greenbead.app.look.Sketch;
import org.greenbead.core.lines.Rhythm;
import org.greenbead.core.lines.Tapping;

/** The lamp, and what it did: each blink where it came in time, counted where a longer dark parts them. A press on the lamp taps. */
final class BlinkStrip extends Sketch {
    private static final PseudoClass ON = PseudoClass.getPseudoClass("on");
    private static final double LAMP = 62;
    private static final double LEAST_S = 6;
    private static final double HIGH = 40;
    private final Circle lamp = Looks.as(new Circle(LAMP), "lamp-dark");
    private Tapping tapping = Tapping.NONE;
    private double nowS;

    BlinkStrip(Runnable tap) {
        super(300, 240);
        lamp.setId("code-lamp");
        lamp.setCursor(Cursor.HAND);
        lamp.setOnMousePressed(press -> tap.run());
    }

    /** @param lit while the lamp is seen to be lit, by the last tap */
    void show(Tapping now, double seconds, boolean lit) {
        tapping = now;
        nowS = seconds;
        lamp.pseudoClassStateChanged(ON, lit);
        requestLayout();
    }

    @Override
    protected void draw() {
        double middle = getWidth() / 2;
        lamp.setCenterX(middle);
        lamp.setCenterY(LAMP + 14);
        add(lamp);
        double base = Math.min(getHeight() - 52, 2 * LAMP + 150);
        line(16, base, getWidth() - 16, base, "lamp-base");
        List<Double> taps = tapping.tapsS();
        if (taps.isEmpty()) {
            return;
        }
        double from = taps.getFirst();
        double length = Math.max(LEAST_S, Math.min(nowS, taps.getLast() + LEAST_S) - from);
        double each = (getWidth() - 48) / length;
        for (double t : taps) {
            add(Looks.as(new Rectangle(20 + (t - from) * each, base - HIGH, Math.max(4, 0.18 * each), HIGH),
                    "lamp-blink"));
        }
        int at = 0;
        for (List<Integer> code : Rhythm.repeats(taps)) {
            for (int count : code) {
                double left = 20 + (taps.get(at) - from) * each;
                double right = 20 + (taps.get(at + count - 1) - from) * each + Math.max(4, 0.18 * each);
                line(left, base + 8, right, base + 8, "lamp-group");
                Text said = text(String.valueOf(count), 0, base + 30, "lamp-count");
                said.setX((left + right - said.getLayoutBounds().getWidth()) / 2);
                at += count;
            }
        }
    }
}
