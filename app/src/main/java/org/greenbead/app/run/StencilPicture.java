package org.greenbead.app.run;

import javafx.css.PseudoClass;
import javafx.scene.Group;
import javafx.scene.Node;
import javafx.scene.layout.Region;
import javafx.scene.shape.Arc;
import javafx.scene.shape.ArcType;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import javafx.scene.shape.Polygon;
import javafx.scene.shape.Rectangle;
import org.greenbead.app.look.Looks;
import org.greenbead.core.forming.Forming;
import org.greenbead.core.forming.Method;
import org.greenbead.core.forming.Stand;

/** Chip and stencil cut through five pads, as they are now: paste in the holes, balls that are round, the sheet on or off. Not to scale. */
final class StencilPicture extends Region {
    private static final int PADS = 5;
    private static final PseudoClass MOLTEN = PseudoClass.getPseudoClass("molten");
    private final Group drawing = new Group();
    private Forming forming = Forming.begin(Method.PASTE, false);
    private double liquid;

    StencilPicture() {
        drawing.setManaged(false);
        getChildren().add(drawing);
        setMinSize(200, 90);
    }

    /** @param liquidPart of the balls, 0 to 1 */
    void show(Forming now, double liquidPart) {
        if (!now.equals(forming) || Math.abs(liquidPart - liquid) > 0.02 || drawing.getChildren().isEmpty()) {
            forming = now;
            liquid = liquidPart;
            requestLayout();
        }
    }

    @Override
    protected void layoutChildren() {
        drawing.getChildren().clear();
        double w = getWidth();
        double h = getHeight();
        if (w < 80 || h < 60) {
            return;
        }
        double pitch = Math.min((w - 110) / PADS, h / 1.9);
        double left = (w - pitch * PADS) / 2;
        double ball = pitch * 0.3;
        double sheet = pitch * 0.26;
        double face = h / 2 + pitch * 0.3;
        body(left, face, pitch);
        Stand stand = forming.stand();
        boolean paste = forming.method() == Method.PASTE;
        boolean balls = stand.ordinal() >= Stand.FORMING.ordinal();
        boolean spheres = !paste && stand.ordinal() >= Stand.FILLED.ordinal();
        for (int i = 0; i < PADS; i++) {
            double x = left + pitch * (i + 0.5);
            boolean round = balls && (stand != Stand.FORMING || (i + 0.5) / PADS < Math.max(liquid, 0.001)
                    || forming.again() || !paste);
            if (round || spheres) {
                boolean molten = stand == Stand.FORMING && (i + 0.5) / PADS < liquid;
                ball(x, face, ball, molten);
            } else if (paste && (balls || stand == Stand.FILLED || stand == Stand.HELD)) {
                boolean low = stand == Stand.FILLED && forming.passes() < 2 && i % 2 == 1;
                add(new Rectangle(x - pitch * 0.29, face - sheet * (low ? 0.55 : 1), pitch * 0.58,
                        sheet * (low ? 0.55 : 1)), "cut-paste");
            }
        }
        sheet(left, face, pitch, sheet);
        if (forming.fluxed()) {
            add(new Rectangle(left, face - 3, pitch * PADS, 3), "cut-flux");
        }
        if (stand == Stand.RELEASED && !forming.brushed() && !forming.again()) {
            for (double at : new double[]{0.98, 2.03, 3.96}) {
                add(new Circle(left + pitch * at, face - 3, 2.6), "cut-paste");
            }
        }
    }

    private void body(double left, double face, double pitch) {
        add(new Rectangle(left - 14, face + 6, pitch * PADS + 28, pitch * 0.2), "cut-chip");
        add(new Rectangle(left + 4, face + 6 + pitch * 0.2, pitch * PADS - 8, pitch * 0.26), "cut-mould");
        for (int i = 0; i < PADS; i++) {
            add(new Rectangle(left + pitch * (i + 0.5) - pitch * 0.24, face, pitch * 0.48, 6), "cut-pad");
        }
    }

    private void ball(double x, double face, double r, boolean molten) {
        var arc = new Arc(x, face - r * 0.72, r, r, -46, 272);
        arc.setType(ArcType.CHORD);
        add(arc, "cut-ball").pseudoClassStateChanged(MOLTEN, molten);
        add(new Circle(x - r * 0.3, face - r * 1.1, r * 0.2), "cut-shine");
    }

    /** The sheet or frame: above while it is laid on, in place, slid to the side, or gone. */
    private void sheet(double left, double face, double pitch, double thick) {
        Stand stand = forming.stand();
        boolean paste = forming.method() == Method.PASTE;
        boolean gone = forming.again() || stand == Stand.SETTLED
                || !paste && stand.ordinal() >= Stand.HELD.ordinal();
        if (gone) {
            return;
        }
        double lift = stand == Stand.CLEAN ? pitch * 0.75 : 0;
        double aside = stand == Stand.RELEASED ? pitch * PADS * 0.9 : 0;
        double y = face - thick - lift;
        double at = left - pitch * 0.35 + aside;
        double end = left + pitch * (PADS + 0.35) + aside;
        double clip = getWidth() - 4;
        double edge = at;
        for (int i = 0; i <= PADS && edge < clip; i++) {
            double to = i == PADS ? end : left + pitch * (i + 0.5) - pitch * 0.3 + aside;
            if (to > edge) {
                add(new Rectangle(edge, y, Math.min(to, clip) - edge, thick), "cut-sheet");
            }
            edge = left + pitch * (i + 0.5) + pitch * 0.3 + aside;
        }
        if (stand == Stand.FILLED && !forming.wiped()) {
            double top = paste ? 4 : 0;
            for (int i = 1; i < PADS; i++) {
                add(paste
                        ? new Rectangle(left + pitch * (i - 0.12), y - top, pitch * 0.24, top)
                        : new Circle(left + pitch * i, y - pitch * 0.14, pitch * 0.14),
                        paste ? "cut-paste" : "cut-ball");
            }
        }
        if (paste && (stand == Stand.HELD || stand == Stand.FORMING)) {
            tweezers(at + 8, y, pitch, -1);
            tweezers(end - 8, y, pitch, 1);
        }
        if (stand == Stand.CLEAN) {
            for (int i = 0; i < PADS; i += PADS - 1) {
                double x = left + pitch * (i + 0.5);
                add(new Line(x, y + thick + 4, x, face - 6), "cut-guide");
            }
        }
    }

    private void tweezers(double x, double y, double pitch, int side) {
        add(new Polygon(x, y, x + side * pitch * 0.5, y - pitch * 0.62, x + side * pitch * 0.62,
                y - pitch * 0.5, x + side * 3, y), "cut-tool");
    }

    private Node add(Node node, String style) {
        drawing.getChildren().add(Looks.as(node, style));
        return node;
    }
}
