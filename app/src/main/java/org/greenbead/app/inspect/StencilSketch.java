package org.greenbead.app.inspect;

import javafx.scene.Group;
import javafx.scene.layout.Region;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Text;
import org.greenbead.app.look.Looks;
import org.greenbead.core.bead.StencilDesign;

/** Two openings side by side, to scale: sheet, paste, and the ball that comes of it. */
final class StencilSketch extends Region {
    private final Group drawing = new Group();
    private StencilDesign design;
    private double wantedMm = Double.NaN;

    StencilSketch() {
        drawing.setManaged(false);
        getChildren().add(drawing);
        setMinSize(260, 170);
        setId("stencil-sketch");
    }

    void show(StencilDesign now, double wanted) {
        design = now;
        wantedMm = wanted;
        requestLayout();
    }

    @Override
    protected void layoutChildren() {
        drawing.getChildren().clear();
        if (design == null || getWidth() < 120 || getHeight() < 100) {
            return;
        }
        double w = getWidth();
        double h = getHeight();
        double pitch = design.pitchMm();
        double tall = Math.max(design.thicknessMm(), design.ballMm()) * 1.25 + 0.12 * pitch;
        double scale = Math.min((w - 30) / (2.1 * pitch), (h - 80) / tall);
        // In a tall place the drawing stands in the middle.
        double floor = h - 52 - Math.max(0, (h - 80 - tall * scale) / 2);
        double middle = w / 2;
        double t = design.thicknessMm() * scale;
        double open = design.opening().widthMm() * scale;
        double step = pitch * scale;
        double pad = 0.11 * pitch * scale;
        add(new Rectangle(middle - 1.05 * step, floor, 2.1 * step, Math.min(16, h - floor - 26)), "cut-chip");
        for (int i = -1; i <= 1; i += 2) {
            double x = middle + i * step / 2;
            add(new Rectangle(x - Math.max(3, 0.25 * step), floor - pad * 0.3, Math.max(6, 0.5 * step),
                    pad * 0.3 + 2),
                    "cut-pad");
        }
        double base = floor - pad * 0.3;
        double left = middle - 1.05 * step;
        double[] edges = {middle - step / 2 - open / 2, middle - step / 2 + open / 2,
                middle + step / 2 - open / 2,
                middle + step / 2 + open / 2, middle + 1.05 * step};
        add(new Rectangle(left, base - t, edges[0] - left, t), "cut-sheet");
        add(new Rectangle(edges[1], base - t, edges[2] - edges[1], t), "cut-sheet");
        add(new Rectangle(edges[3], base - t, edges[4] - edges[3], t), "cut-sheet");
        // The left opening as printed, the right one after the melt.
        add(new Rectangle(edges[0], base - t, open, t), "cut-paste");
        double r = design.ballMm() / 2 * scale;
        double x = middle + step / 2;
        add(new Circle(x, base - r, r), "cut-ball");
        add(new Circle(x - r * 0.3, base - r * 1.35, r * 0.18), "cut-shine");
        if (Double.isFinite(wantedMm)) {
            double wr = wantedMm / 2 * scale;
            add(new Circle(x, base - wr, wr), "cut-wanted");
        }
        measure(edges[0], edges[1], base - t - 8, design.opening().widthMm());
        measure(edges[1], edges[2], base - t - 24, design.webMm());
        measure(x - r, x + r, base - Math.max(2 * r, t) - 12, design.ballMm());
        measure(middle - step / 2, middle + step / 2, floor + 36, pitch);
    }

    private void measure(double from, double to, double y, double mm) {
        add(new Line(from, y, to, y), "cut-measure");
        add(new Line(from, y - 4, from, y + 4), "cut-measure");
        add(new Line(to, y - 4, to, y + 4), "cut-measure");
        var text = Looks.as(new Text(String.format(java.util.Locale.ENGLISH, "%.3f mm", mm)), "chart-mono");
        drawing.getChildren().add(text);
        text.applyCss();
        text.setX((from + to) / 2 - text.getLayoutBounds().getWidth() / 2);
        text.setY(y - 5);
    }

    private void add(javafx.scene.Node node, String style) {
        drawing.getChildren().add(Looks.as(node, style));
    }
}
