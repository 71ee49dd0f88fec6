package org.greenbead.app.overview;

import java.util.List;
import java.util.Locale;
import javafx.css.PseudoClass;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Line;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Text;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.board.LiftSide;
import org.greenbead.core.quantity.Quantity;

/** The chip from above with the free way on its four sides, drawn to one scale. */
final class LiftCompass extends Pane {
    private static final double SIZE = 124;
    private static final double CHIP = 36;
    private static final double LONGEST = 34;
    private static final double FULL_MM = 12;

    LiftCompass(List<LiftSide.Way> ways, Texts texts) {
        setMinSize(SIZE + 60, SIZE);
        setPrefSize(SIZE + 60, SIZE);
        setMaxSize(SIZE + 60, SIZE);
        double middleX = (SIZE + 60) / 2;
        double middleY = SIZE / 2;
        var chip = Looks.as(new Rectangle(middleX - CHIP / 2, middleY - CHIP / 2, CHIP, CHIP),
                "compass-chip");
        getChildren().add(chip);
        LiftSide.Side4 best = ways.getFirst().side();
        for (LiftSide.Way way : ways) {
            double x = switch (way.side()) {
                case EAST -> 1;
                case WEST -> -1;
                default -> 0;
            };
            double y = switch (way.side()) {
                case NORTH -> -1;
                case SOUTH -> 1;
                default -> 0;
            };
            double length = Math.max(4, LONGEST * Math.min(1, way.clearMm() / FULL_MM));
            var line = Looks.as(new Line(middleX + x * (CHIP / 2 + 3), middleY + y * (CHIP / 2 + 3),
                    middleX + x * (CHIP / 2 + 3 + length), middleY + y * (CHIP / 2 + 3 + length)),
                    "compass-way");
            line.pseudoClassStateChanged(PseudoClass.getPseudoClass("best"),
                    way.side() == best && way.enough());
            line.pseudoClassStateChanged(Looks.BAD, !way.enough());
            String mm = way.clearMm() >= LiftSide.FREE_MM
                    ? texts.get("over.free")
                    : texts.words().show(new Quantity.Millimetres(Math.round(way.clearMm() * 10) / 10.0));
            Text text = Looks.as(new Text(mm), way.side() == best ? "chart-strong" : "chart-text");
            getChildren().addAll(line, text);
            text.applyCss();
            double width = text.getLayoutBounds().getWidth();
            text.setX(x == 0
                    ? middleX + 6
                    : x > 0 ? middleX + CHIP / 2 + 6 : middleX - CHIP / 2 - 6 - width);
            text.setY(y == 0 ? middleY - 7 : y < 0 ? middleY - CHIP / 2 - 10 : middleY + CHIP / 2 + 20);
        }
        setAccessibleText(texts.say("side4." + best.name().toLowerCase(Locale.ROOT)));
    }
}
