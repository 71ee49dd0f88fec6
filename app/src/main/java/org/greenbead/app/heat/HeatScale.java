package org.greenbead.app.heat;

import java.util.List;
import javafx.scene.Group;
import javafx.scene.layout.Region;
import javafx.scene.paint.Color;
import javafx.scene.shape.Line;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Text;
import org.greenbead.app.look.HeatColour;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Texts;

/** The colours with their degrees, and where the drawn lines lie on them. */
final class HeatScale extends Region {
    private static final double LOW_C = 20;
    private static final double HIGH_C = 260;
    private final Group drawing = new Group();
    private Texts texts;
    private List<Mark> marks = List.of();

    /** A drawn line of equal temperature. */
    record Mark(double celsius, String words) {}

    HeatScale() {
        drawing.setManaged(false);
        getChildren().add(drawing);
        setMinHeight(46);
        setPrefHeight(46);
    }

    void show(List<Mark> lines, Texts words) {
        marks = lines;
        texts = words;
        requestLayout();
    }

    @Override
    protected void layoutChildren() {
        drawing.getChildren().clear();
        if (texts == null || getWidth() < 120) {
            return;
        }
        double w = getWidth() - 8;
        for (double c = LOW_C; c < HIGH_C; c += 2) {
            var bar = new Rectangle(x(c, w), 16, w * 2 / (HIGH_C - LOW_C) + 0.5, 10);
            Color fill = HeatColour.of(c);
            bar.setFill(fill);
            drawing.getChildren().add(bar);
        }
        for (double c = 40; c <= 240; c += 40) {
            text(texts.words().bare(c), x(c, w), 40, "heat-tick");
        }
        text(texts.words().unit().sign(), x(HIGH_C, w), 40, "heat-tick");
        for (int i = 0; i < marks.size(); i++) {
            double at = x(marks.get(i).celsius(), w);
            drawing.getChildren().add(Looks.as(new Line(at, 13, at, 29), "isotherm", "heat-mark-" + i));
            text(marks.get(i).words(), at, 11, "heat-tick");
        }
    }

    private static double x(double c, double w) {
        return 4 + w * (Math.clamp(c, LOW_C, HIGH_C) - LOW_C) / (HIGH_C - LOW_C);
    }

    private void text(String words, double x, double y, String style) {
        Text text = Looks.as(new Text(words), style);
        drawing.getChildren().add(text);
        text.applyCss();
        double half = text.getLayoutBounds().getWidth() / 2;
        text.setX(Math.clamp(x - half, 0, Math.max(0, getWidth() - 2 * half)));
        text.setY(y);
    }
}
