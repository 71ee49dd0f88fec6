package org.greenbead.app.run;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import java.util.function.DoubleFunction;
import javafx.scene.Group;
import javafx.scene.layout.Region;
import javafx.scene.shape.Line;
import javafx.scene.shape.Polygon;
import javafx.scene.shape.Polyline;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Text;
import org.greenbead.app.look.Looks;
import org.greenbead.core.quantity.Words;

/** Temperatures over time with the melt window, the stages and the moment. Colours come from style classes. */
public final class HeatChart extends Region {
    /** One line. @param style suffix of its style class: joint, top, board, under, neighbour, plan */
    public record Curve(String style, String name, double[] timeS, double[] celsius) {}

    /** A stage along the time axis. @param foot a second, smaller line */
    public record StageSpan(String name, String foot, double startS, double endS) {}

    /**
     * Everything the chart shows.
     *
     * @param bandK half width of the joint's uncertainty at each point of the first curve; empty for none
     */
    public record Data(List<Curve> curves, double[] bandK, double windowLowC, double windowHighC,
            String windowWord, List<StageSpan> stages, OptionalDouble nowS,
            double endS, DoubleFunction<String> degree) {}

    private double left = 46;
    private double bottom = 40;
    private double top = 36;
    private double em = 1;
    private static final double RIGHT = 8;
    private static final int MOST_POINTS = 500;
    /** Room for a clock reading below the legend, at the usual size of type. */
    private static final double CLOCK_PX = 34;
    private final Group drawing = new Group();
    private Data data = new Data(List.of(), new double[0], 183, 245, "", List.of(), OptionalDouble.empty(),
            60, c -> "");

    public HeatChart() {
        getStyleClass().add("chart");
        drawing.setManaged(false);
        getChildren().add(drawing);
        setMinSize(120, 120);
    }

    public void show(Data now) {
        data = now;
        draw();
    }

    @Override
    protected void layoutChildren() {
        draw();
    }

    private void draw() {
        drawing.getChildren().clear();
        measure();
        double w = getWidth() - left - RIGHT;
        double h = getHeight() - top - bottom;
        if (w < 40 || h < 40) {
            return;
        }
        double most = data.curves().stream().flatMapToDouble(c -> java.util.Arrays.stream(c.celsius()))
                .filter(Double::isFinite).max().orElse(200);
        double topC = Math.max(data.windowHighC() + 12, most + 8);
        double end = Math.max(30, data.endS());
        drawGrid(w, h, topC, end);
        for (int i = data.curves().size() - 1; i >= 0; i--) {
            Curve curve = data.curves().get(i);
            if (i == 0 && data.bandK().length == curve.timeS().length && curve.timeS().length > 1) {
                drawBand(curve, w, h, topC, end);
            }
            drawCurve(curve, w, h, topC, end);
        }
        data.nowS().ifPresent(now -> drawing.getChildren()
                .add(Looks.as(new Line(x(now, w, end), top, x(now, w, end), top + h), "chart-now")));
        drawLegend(w);
    }

    /** Margins follow the size of the type. */
    private void measure() {
        Text sample = Looks.as(new Text("0"), "chart-mono");
        drawing.getChildren().add(sample);
        sample.applyCss();
        em = Math.max(1, sample.getFont().getSize() / 10.9);
        drawing.getChildren().clear();
        left = 46 * em;
        bottom = 40 * em;
        top = (21 + 15 * legendLines()) * em;
    }

    private double x(double timeS, double w, double end) {
        return left + w * Math.clamp(timeS / end, 0, 1);
    }

    private double y(double celsius, double h, double topC) {
        return top + h * (1 - Math.clamp(celsius / topC, 0, 1));
    }

    private void drawGrid(double w, double h, double topC, double end) {
        double low = y(data.windowLowC(), h, topC);
        double high = y(data.windowHighC(), h, topC);
        drawing.getChildren().add(Looks.as(new Rectangle(left, high, w, low - high), "chart-window"));
        for (int c = 50; c < topC; c += 50) {
            double at = y(c, h, topC);
            drawing.getChildren().add(Looks.as(new Line(left, at, left + w, at), "chart-grid"));
            Text label = Looks.as(new Text(data.degree().apply(c)), "chart-mono");
            place(label, 0, at + 4);
            label.applyCss();
            label.setX(left - 8 - label.getLayoutBounds().getWidth());
        }
        Text window = Looks.as(new Text(data.windowWord()), "chart-window-text");
        place(window, left + w - 6 - 7 * data.windowWord().length(), high + 15 * em);
        window.applyCss();
        window.setX(left + w - 6 - window.getLayoutBounds().getWidth());
        drawStages(w, h, end);
        int step = end > 1500 ? 300 : end > 420 ? 120 : end > 200 ? 60 : 30;
        while (w * step / end < CLOCK_PX * em) {
            step *= 2;
        }
        for (int t = step; t < end; t += step) {
            Text label = Looks.as(new Text(Words.clock(t)), "chart-mono");
            place(label, x(t, w, end) - 12, top - 7 * em);
        }
    }

    /** Names stand under their stage's start, moved apart where stages are short and kept inside the chart. */
    private void drawStages(double w, double h, double end) {
        int n = data.stages().size();
        Text[] names = new Text[n];
        Text[] feet = new Text[n];
        double[] at = new double[n];
        double[] width = new double[n];
        for (int i = 0; i < n; i++) {
            StageSpan span = data.stages().get(i);
            double start = x(span.startS(), w, end);
            drawing.getChildren().add(Looks.as(new Line(start, top, start, top + h + 6), "chart-stage"));
            names[i] = Looks.as(new Text(span.name()), "chart-strong");
            feet[i] = Looks.as(new Text(span.foot()), "chart-mono");
            drawing.getChildren().addAll(names[i], feet[i]);
            names[i].applyCss();
            feet[i].applyCss();
            width[i] = Math.max(names[i].getLayoutBounds().getWidth(), feet[i].getLayoutBounds().getWidth());
            at[i] = i == 0 ? start + 3 : Math.max(start + 3, at[i - 1] + width[i - 1] + 7);
        }
        double right = left + w;
        for (int i = n - 1; i >= 0; i--) {
            at[i] = Math.min(at[i], right - width[i]);
            right = at[i] - 7;
            boolean fits = at[i] >= 0;
            names[i].setVisible(fits);
            feet[i].setVisible(fits);
            names[i].setX(at[i]);
            names[i].setY(top + h + 18 * em);
            feet[i].setX(at[i]);
            feet[i].setY(top + h + 33 * em);
        }
    }

    private void place(Text text, double atX, double atY) {
        text.setX(atX);
        text.setY(atY);
        drawing.getChildren().add(text);
    }

    private void drawBand(Curve curve, double w, double h, double topC, double end) {
        int every = Math.max(1, curve.timeS().length / MOST_POINTS);
        var band = Looks.as(new Polygon(), "band-joint");
        for (int i = 0; i < curve.timeS().length; i += every) {
            band.getPoints().addAll(x(curve.timeS()[i], w, end),
                    y(curve.celsius()[i] + data.bandK()[i], h, topC));
        }
        for (int i = (curve.timeS().length - 1) / every * every; i >= 0; i -= every) {
            band.getPoints().addAll(x(curve.timeS()[i], w, end),
                    y(curve.celsius()[i] - data.bandK()[i], h, topC));
        }
        drawing.getChildren().add(band);
    }

    /** A gap in the values is a gap in the line. */
    private void drawCurve(Curve curve, double w, double h, double topC, double end) {
        int every = Math.max(1, curve.timeS().length / MOST_POINTS);
        var points = new ArrayList<Double>();
        for (int i = 0; i < curve.timeS().length; i++) {
            boolean last = i == curve.timeS().length - 1;
            if (Double.isFinite(curve.celsius()[i])) {
                if (i % every == 0 || last) {
                    points.add(x(curve.timeS()[i], w, end));
                    points.add(y(curve.celsius()[i], h, topC));
                }
            }
            if ((!Double.isFinite(curve.celsius()[i]) || last) && points.size() >= 4) {
                var line = Looks.as(new Polyline(), "line-" + curve.style());
                line.getPoints().setAll(points);
                line.setFill(null);
                drawing.getChildren().add(line);
                points.clear();
            } else if (!Double.isFinite(curve.celsius()[i])) {
                points.clear();
            }
        }
    }

    /** Lines that the names of the curves take, as {@link #drawLegend} sets them. */
    private int legendLines() {
        double w = getWidth() - left - RIGHT;
        double at = 10;
        int lines = 1;
        for (Curve curve : data.curves()) {
            if (!curve.name().isEmpty()) {
                double width = width(curve);
                if (at > 10 && at + width > w) {
                    at = 10;
                    lines++;
                }
                at += width + 14;
            }
        }
        return lines;
    }

    private double width(Curve curve) {
        Text name = Looks.as(new Text(curve.name()), style(curve));
        drawing.getChildren().add(name);
        name.applyCss();
        drawing.getChildren().remove(name);
        return name.getLayoutBounds().getWidth();
    }

    private static String style(Curve curve) {
        return "plan".equals(curve.style()) ? "chart-text" : "text-" + curve.style();
    }

    private void drawLegend(double w) {
        double at = left + 10;
        double line = 13 * em;
        for (Curve curve : data.curves()) {
            if (curve.name().isEmpty()) {
                continue;
            }
            Text name = Looks.as(new Text(curve.name()), style(curve));
            drawing.getChildren().add(name);
            name.applyCss();
            double width = name.getLayoutBounds().getWidth();
            if (at > left + 10 && at + width > left + w) {
                at = left + 10;
                line += 15 * em;
            }
            name.setX(at);
            name.setY(line);
            at += width + 14;
        }
    }
}
