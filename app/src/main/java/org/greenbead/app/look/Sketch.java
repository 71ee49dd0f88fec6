package org.greenbead.app.look;

import javafx.scene.Node;
import javafx.scene.layout.Region;
import javafx.scene.shape.Line;
import javafx.scene.text.Text;

/** A drawing that is made anew whenever its size or what it shows changes. */
public abstract class Sketch extends Region {
    protected Sketch(double leastWide, double leastHigh) {
        getStyleClass().add("chart");
        setMinSize(leastWide, leastHigh);
    }

    @Override
    protected final void layoutChildren() {
        getChildren().clear();
        draw();
    }

    /** Adds what there is to see to an empty region. */
    protected abstract void draw();

    protected final void add(Node node) {
        node.setManaged(false);
        getChildren().add(node);
    }

    /** Lets presses through to what lies under it. */
    protected final void line(double x0, double y0, double x1, double y1, String style) {
        Line line = Looks.as(new Line(x0, y0, x1, y1), style);
        line.setMouseTransparent(true);
        add(line);
    }

    /** With its bounds known. */
    protected final Text text(String words, double x, double y, String style) {
        Text text = Looks.as(new Text(words), style);
        text.setX(x);
        text.setY(y);
        text.setMouseTransparent(true);
        add(text);
        text.applyCss();
        return text;
    }
}
