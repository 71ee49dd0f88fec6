package org.greenbead.app.own;

import javafx.scene.layout.Pane;
import javafx.scene.shape.Rectangle;
import org.greenbead.app.look.Looks;
import org.greenbead.core.kind.BoardKind;

/** A board cut through, all to one scale: its thickness, and each layer of copper as thick and as full as it is said to be. */
final class BuildPicture extends Pane {
    /** ISO/IEC 7810, ID-1: what everybody has at hand to hold beside a board's edge. */
    static final double CARD_MM = 0.76;
    private static final double WIDE = 64;
    private static final double PX_PER_MM = 12;
    private static final double HIGH = 30;
    /** Copper is drawn thicker than it is, or nobody would see it. */
    private static final double PX_PER_UM = 0.05;
    private static final double DASH = 8;

    private BuildPicture() {
        setMinSize(WIDE, HIGH);
        setPrefSize(WIDE, HIGH);
        setMaxSize(WIDE, HIGH);
        setMouseTransparent(true);
    }

    static BuildPicture of(BoardKind kind) {
        var picture = new BuildPicture();
        double top = picture.sheet(kind.thicknessMm(), "build-laminate");
        double high = kind.thicknessMm() * PX_PER_MM;
        double copper = Math.max(1, kind.copperUm() * PX_PER_UM);
        for (int layer = 0; layer < kind.copperLayers(); layer++) {
            double y = top + (high - copper) * layer / Math.max(1, kind.copperLayers() - 1);
            for (double x = layer % 2 * DASH / 2; x < WIDE; x += DASH) {
                picture.add(x, y, Math.min(DASH * kind.copperCoverage(), WIDE - x), copper, "build-copper");
            }
        }
        return picture;
    }

    /** A bank card, to hold beside. */
    static BuildPicture card() {
        var picture = new BuildPicture();
        picture.sheet(CARD_MM, "build-card");
        return picture;
    }

    private double sheet(double mm, String style) {
        double high = mm * PX_PER_MM;
        double top = (HIGH - high) / 2;
        add(0, top, WIDE, high, style);
        return top;
    }

    private void add(double x, double y, double wide, double high, String style) {
        getChildren().add(Looks.as(new Rectangle(x, y, wide, high), style));
    }
}
