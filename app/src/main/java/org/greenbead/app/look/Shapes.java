package org.greenbead.app.look;

import javafx.css.PseudoClass;
import javafx.scene.Node;
import javafx.scene.layout.StackPane;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Polygon;
import javafx.scene.shape.Shape;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.BeadState;

/** Marks that are told apart by shape as well as by colour. */
public final class Shapes {
    private Shapes() {
    }

    /** Stop is a solid six-sided mark, care a triangle, note a ring. */
    public static Shape of(Severity severity, double size) {
        return switch (severity) {
            case STOP -> Looks.as(hexagon(size), "mark-stop");
            case CARE -> Looks.as(new Polygon(0, size, size * 1.15, size, size * 0.575, 0), "mark-care");
            case NOTE -> Looks.as(new Circle(size / 2 - 1), "mark-note");
        };
    }

    public static Polygon hexagon(double size) {
        double r = size / 2;
        var hexagon = new Polygon();
        for (int i = 0; i < 6; i++) {
            hexagon.getPoints().addAll(r + r * Math.sin(Math.PI / 3 * i), r - r * Math.cos(Math.PI / 3 * i));
        }
        return hexagon;
    }

    /** Hollow, in hand (ring and dot), done, green; six-sided for a gate. */
    public static Node bead(Bead bead, boolean inHand) {
        double size = inHand ? 19 : 13;
        Shape shape = Looks.as(bead.gate() ? hexagon(size) : new Circle(size / 2), "bead-shape");
        shape.pseudoClassStateChanged(PseudoClass.getPseudoClass("done"), bead.state() == BeadState.DONE);
        shape.pseudoClassStateChanged(PseudoClass.getPseudoClass("green"), bead.state() == BeadState.GREEN);
        shape.pseudoClassStateChanged(PseudoClass.getPseudoClass("in-hand"), inHand);
        return inHand ? new StackPane(shape, Looks.as(new Circle(3.6), "bead-dot")) : shape;
    }
}
