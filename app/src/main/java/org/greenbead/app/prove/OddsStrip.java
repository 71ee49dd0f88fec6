package org.greenbead.app.prove;

import javafx.scene.layout.Region;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import javafx.scene.shape.Rectangle;
import org.greenbead.app.look.Looks;
import org.greenbead.core.odds.Odds;

/** A chance from none to all: the interval that holds it in nine of ten cases, and the chance of the next one. */
public final class OddsStrip extends Region {
    private static final double HIGH = 18;
    private static final double LOW_END = 0.05;
    private static final double HIGH_END = 0.95;
    private final Odds odds;

    public OddsStrip(Odds odds) {
        this.odds = odds;
        setMinSize(80, HIGH);
        setPrefHeight(HIGH);
        setMaxHeight(HIGH);
    }

    @Override
    protected void layoutChildren() {
        getChildren().clear();
        double wide = getWidth() - 12;
        if (wide < 30) {
            return;
        }
        double y = HIGH / 2;
        add(Looks.as(new Line(6, y, 6 + wide, y), "rail-axis"));
        for (int i = 0; i <= 4; i++) {
            double x = 6 + wide * i / 4;
            add(Looks.as(new Line(x, y + 3, x, y + 7), "rail-tick"));
        }
        double low = 6 + wide * odds.quantile(LOW_END);
        var band = Looks.as(new Rectangle(low, y - 5, 6 + wide * odds.quantile(HIGH_END) - low, 10),
                "course-band");
        band.setArcWidth(10);
        band.setArcHeight(10);
        add(band);
        add(Looks.as(new Circle(6 + wide * odds.chance(), y, 4), "course-expected"));
    }

    private void add(javafx.scene.Node node) {
        node.setManaged(false);
        getChildren().add(node);
    }
}
