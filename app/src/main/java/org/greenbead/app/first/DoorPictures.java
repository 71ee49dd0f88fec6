package org.greenbead.app.first;

import javafx.scene.Group;
import javafx.scene.Node;
import javafx.scene.shape.Arc;
import javafx.scene.shape.ArcType;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import javafx.scene.shape.Polygon;
import javafx.scene.shape.Rectangle;
import javafx.scene.shape.Shape;
import org.greenbead.app.look.Looks;

/** Drawings over the doors: a board with its balls, a bench with its air, a harbour. */
final class DoorPictures {
    private static final double WIDTH = 190;
    private static final double HEIGHT = 120;

    private DoorPictures() {
    }

    private static Group on(Node... drawn) {
        // A sheet that is not seen keeps all three at one size.
        var sheet = new Rectangle(WIDTH, HEIGHT);
        sheet.setOpacity(0);
        var group = new Group(sheet);
        group.getChildren().addAll(drawn);
        return group;
    }

    private static <T extends Shape> T as(T shape, String look) {
        return Looks.as(shape, look);
    }

    private static Rectangle box(double x, double y, double w, double h, double round, String look) {
        var box = new Rectangle(x, y, w, h);
        box.setArcWidth(round);
        box.setArcHeight(round);
        return as(box, look);
    }

    static Node board() {
        Group group = on(box(10, 14, 168, 96, 16, "door-board"), box(24, 26, 26, 14, 3, "door-part"),
                box(24, 48, 14, 8, 3, "door-part"), box(24, 64, 14, 8, 3, "door-part"),
                box(24, 84, 34, 14, 3, "door-part"), box(138, 26, 28, 20, 3, "door-part"),
                box(148, 60, 18, 38, 3, "door-part"), box(70, 32, 58, 58, 6, "door-chip"));
        for (int row = 0; row < 6; row++) {
            for (int column = 0; column < 6; column++) {
                var ball = as(new Circle(77 + column * 8.8, 39 + row * 8.8, 2.6), "door-ball");
                group.getChildren().add(ball);
            }
        }
        return group;
    }

    static Node bench() {
        return on(box(8, 98, 172, 10, 6, "door-part"), box(34, 78, 120, 8, 4, "door-hot"),
                box(40, 58, 108, 5, 2, "door-board"), box(78, 50, 32, 8, 3, "door-chip"),
                as(new Polygon(84, 14, 104, 14, 104, 30, 100, 40, 88, 40, 84, 30), "door-part"),
                as(new Line(90, 43, 90, 48), "door-air"), as(new Line(94, 43, 94, 48), "door-air"),
                as(new Line(98, 43, 98, 48), "door-air"), as(new Line(104, 20, 160, 6), "door-line"),
                as(new Line(46, 63, 46, 78), "door-line"), as(new Line(142, 63, 142, 78), "door-line"),
                as(new Line(40, 86, 40, 98), "door-line"), as(new Line(148, 86, 148, 98), "door-line"));
    }

    static Node harbour() {
        Group group = on(as(new Polygon(8, 84, 40, 62, 92, 70, 112, 84), "door-rock"),
                as(new Polygon(46, 64, 50, 24, 60, 24, 64, 66), "door-tower"),
                box(48, 14, 14, 10, 2, "door-hot"), as(new Polygon(46, 14, 55, 5, 64, 14), "door-part"),
                as(new Polygon(124, 76, 176, 76, 166, 90, 132, 90), "door-part"),
                as(new Polygon(150, 40, 150, 72, 174, 72), "door-tower"),
                as(new Line(150, 38, 150, 76), "door-line"));
        for (int i = 0; i < 6; i++) {
            var wave = new Arc(20 + i * 30, 96, 15, 5, 0, -180);
            wave.setType(ArcType.OPEN);
            group.getChildren().add(as(wave, "door-wave"));
        }
        return group;
    }
}
