package org.greenbead.app.prove;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.scene.Group;
import javafx.scene.layout.Region;
import javafx.scene.shape.Line;
import javafx.scene.shape.Polyline;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Text;
import org.greenbead.app.look.AxisSteps;
import org.greenbead.app.look.Looks;
import org.greenbead.core.electric.CurrentTrace;

/** Two start-up curves over one another from their switch-on, the stages of the healthy one behind them, the one that departs lit. */
final class CurveChart extends Region {
    private static final double RIGHT = 10;
    private static final double TOP = 8;
    private static final int MOST_POINTS = 900;
    private static final double LEAST_A = 0.1;
    private final Group drawing = new Group();
    private Optional<Data> data = Optional.empty();

    /** A stage behind the curves. */
    record Span(String name, double fromS, double toS, boolean departs) {}

    /** @param onsetS when the unit was switched on, on the curve's own clock */
    record Curve(CurrentTrace trace, double onsetS) {}

    /** @param atS where the curve departs, s after switching on */
    record Data(Curve mine, String mineWord, Optional<Curve> healthy, String healthyWord, List<Span> stages,
            Optional<Double> atS) {}

    CurveChart() {
        getStyleClass().add("chart");
        drawing.setManaged(false);
        getChildren().add(drawing);
        setMinSize(160, 140);
    }

    void show(Optional<Data> now) {
        data = now;
        draw();
    }

    @Override
    protected void layoutChildren() {
        draw();
    }

    private void draw() {
        drawing.getChildren().clear();
        if (data.isEmpty() || getWidth() < 120 || getHeight() < 100) {
            return;
        }
        Data d = data.get();
        Text sample = Looks.as(new Text("0.000 A"), "chart-mono");
        drawing.getChildren().add(sample);
        sample.applyCss();
        double em = sample.getLayoutBounds().getHeight();
        double left = sample.getLayoutBounds().getWidth() + 8;
        drawing.getChildren().clear();
        double w = getWidth() - left - RIGHT;
        double h = getHeight() - TOP - 3.2 * em;
        double begin = 0.0 - Math.min(2, before(d));
        double end = Math.max(1, d.stages().stream().mapToDouble(Span::toS).max().orElse(0));
        end = Math.max(end,
                d.mine().trace().timeS()[d.mine().trace().timeS().length - 1] - d.mine().onsetS());
        double most = Math.max(d.mine().trace().peakA(),
                d.healthy().map(c -> c.trace().peakA()).orElse(0.0)) * 1.06;
        var frame = new Frame(left, w, h, begin, end, Math.max(LEAST_A, most));
        stages(d, frame, em);
        grid(frame, em);
        d.healthy().ifPresent(c -> curve(c, frame, "curve-healthy"));
        curve(d.mine(), frame, "curve-mine");
        legend(d, frame, em);
        d.atS().ifPresent(s -> drawing.getChildren()
                .add(Looks.as(new Line(frame.x(s), TOP, frame.x(s), TOP + h), "curve-departs")));
    }

    private static double before(Data d) {
        double mine = d.mine().onsetS() - d.mine().trace().timeS()[0];
        return Math.max(mine, d.healthy().map(c -> c.onsetS() - c.trace().timeS()[0]).orElse(0.0));
    }

    /** Seconds and ampere to places. */
    private record Frame(double left, double w, double h, double beginS, double endS, double mostA) {
        double x(double s) {
            return left + w * Math.clamp((s - beginS) / (endS - beginS), 0, 1);
        }

        double y(double a) {
            return TOP + h * (1 - Math.clamp(a / mostA, 0, 1));
        }
    }

    private void stages(Data d, Frame f, double em) {
        for (int i = 0; i < d.stages().size(); i++) {
            Span s = d.stages().get(i);
            double x = f.x(s.fromS());
            double wide = f.x(s.toS()) - x;
            drawing.getChildren().add(Looks.as(new Rectangle(x, TOP, wide, f.h()),
                    s.departs() ? "curve-stage-odd" : i % 2 == 0 ? "curve-stage" : "curve-stage-next"));
            Text name = Looks.as(new Text(s.name()), s.departs() ? "chart-strong" : "chart-text");
            drawing.getChildren().add(name);
            name.applyCss();
            if (name.getLayoutBounds().getWidth() > wide - 4) {
                name.setText(s.name().substring(0, 1));
            }
            name.setX(x + 4);
            name.setY(TOP + em);
            name.setVisible(wide > 0.8 * em);
        }
    }

    private void grid(Frame f, double em) {
        double rise = AxisSteps.step(f.mostA(), 5);
        for (double a = 0; a <= f.mostA(); a += rise) {
            double y = f.y(a);
            drawing.getChildren().add(Looks.as(new Line(f.left(), y, f.left() + f.w(), y), "chart-grid"));
            Text word = Looks.as(new Text(number(a, rise) + " A"), "chart-mono");
            drawing.getChildren().add(word);
            word.applyCss();
            word.setX(f.left() - 6 - word.getLayoutBounds().getWidth());
            word.setY(y + 0.3 * em);
        }
        double every = AxisSteps.step(f.endS() - f.beginS(), (int) Math.clamp(f.w() / (4.5 * em), 3, 12));
        double free = 0;
        for (double s = Math.ceil(f.beginS() / every) * every; s <= f.endS(); s += every) {
            Text word = Looks.as(new Text(number(s, every) + " s"), "chart-mono");
            drawing.getChildren().add(word);
            word.applyCss();
            double wide = word.getLayoutBounds().getWidth();
            double x = f.x(s) - wide / 2;
            // Where there is no room for it the next one tells enough.
            word.setVisible(x >= free && x + wide <= f.left() + f.w() + RIGHT);
            free = word.isVisible() ? x + wide + 0.5 * em : free;
            word.setX(x);
            word.setY(TOP + f.h() + 1.3 * em);
        }
    }

    /** Which line is which, under the axis. */
    private void legend(Data d, Frame f, double em) {
        double x = f.left();
        x = entry(d.mineWord(), "curve-mine", x, f, em);
        if (d.healthy().isPresent()) {
            entry(d.healthyWord(), "curve-healthy", x + 1.5 * em, f, em);
        }
    }

    private double entry(String word, String style, double x, Frame f, double em) {
        double y = TOP + f.h() + 2.7 * em;
        drawing.getChildren().add(Looks.as(new Line(x, y - 0.3 * em, x + 1.6 * em, y - 0.3 * em), style));
        Text text = Looks.as(new Text(word), "chart-text");
        drawing.getChildren().add(text);
        text.applyCss();
        text.setX(x + 2 * em);
        text.setY(y);
        return x + 2 * em + text.getLayoutBounds().getWidth();
    }

    /** With as many digits as the steps of the axis have. */
    private static String number(double value, double step) {
        int digits = Math.max(0, (int) -Math.floor(Math.log10(step) + 1e-9));
        return String.format(Locale.ROOT, "%." + digits + "f", Math.abs(value) < step / 2 ? 0.0 : value);
    }

    private void curve(Curve c, Frame f, String style) {
        double[] t = c.trace().timeS();
        double[] a = c.trace().ampere();
        var line = Looks.as(new Polyline(), style);
        int every = Math.max(1, t.length / MOST_POINTS);
        for (int i = 0; i < t.length; i += every) {
            double s = t[i] - c.onsetS();
            if (s < f.beginS()) {
                continue;
            }
            double most = a[i];
            for (int k = i; k < Math.min(t.length, i + every); k++) {
                most = Math.max(most, a[k]);
            }
            line.getPoints().addAll(f.x(s), f.y(most));
        }
        drawing.getChildren().add(line);
    }
}
