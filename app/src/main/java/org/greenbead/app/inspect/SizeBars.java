package org.greenbead.app.inspect;

import java.util.List;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Line;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Text;
import org.greenbead.app.look.Looks;

/** How many balls have which diameter; what is allowed lies between two lines. */
final class SizeBars extends Pane {
    private static final int BARS = 21;
    private List<Double> ratios = List.of();
    private double limit = 0.12;
    private String low = "";
    private String high = "";

    SizeBars() {
        setMinHeight(74);
        setPrefHeight(92);
    }

    /** @param parts diameters as parts of the nominal one @param lowest what the lower limit is called */
    void show(List<Double> parts, double allowed, String lowest, String highest) {
        ratios = parts;
        limit = allowed;
        low = lowest;
        high = highest;
        requestLayout();
    }

    @Override
    protected void layoutChildren() {
        getChildren().clear();
        if (ratios.isEmpty() || getWidth() < 40) {
            return;
        }
        int[] count = new int[BARS];
        double span = 2.5 * limit;
        for (double ratio : ratios) {
            count[Math.clamp((int) ((ratio - 1 + span) / (2 * span) * BARS), 0, BARS - 1)]++;
        }
        int most = java.util.Arrays.stream(count).max().orElse(1);
        Text word = Looks.as(new Text(low), "size-word");
        getChildren().add(word);
        word.applyCss();
        double floor = getHeight() - word.getLayoutBounds().getHeight() - 2;
        getChildren().clear();
        double wide = getWidth() / BARS;
        for (int i = 0; i < BARS; i++) {
            if (count[i] > 0) {
                // The root, so that a single odd ball is seen beside hundreds of good ones.
                double high2 = Math.max(3, floor * Math.sqrt(count[i] / (double) most));
                double middle = 1 - span + (i + 0.5) * 2 * span / BARS;
                var bar = Looks.as(new Rectangle(i * wide + 1, floor - high2, wide - 2, high2),
                        Math.abs(middle - 1) > limit ? "size-bar-odd" : "size-bar");
                getChildren().add(bar);
            }
        }
        edge(1 - limit, low, span, floor);
        edge(1 + limit, high, span, floor);
    }

    private void edge(double ratio, String word, double span, double floor) {
        double x = (ratio - 1 + span) / (2 * span) * getWidth();
        getChildren().add(Looks.as(new Line(x, 0, x, floor), "size-edge"));
        Text text = Looks.as(new Text(word), "size-word");
        getChildren().add(text);
        text.applyCss();
        text.setX(Math.clamp(x - text.getLayoutBounds().getWidth() / 2, 0,
                getWidth() - text.getLayoutBounds().getWidth()));
        text.setY(getHeight() - 3);
    }
}
