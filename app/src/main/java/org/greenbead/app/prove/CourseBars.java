package org.greenbead.app.prove;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.scene.AccessibleRole;
import javafx.scene.Group;
import javafx.scene.layout.Region;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Text;
import org.greenbead.app.look.AxisSteps;
import org.greenbead.app.look.Looks;
import org.greenbead.core.decision.Course;
import org.greenbead.core.decision.Decision;

/**
 * Courses over one axis of money: a thin line from what a course costs if it works to what it costs if it fails, over it what it is expected to
 * cost with its spread. Closed ones stand below, with their reason.
 */
final class CourseBars extends Region {
    private static final double TOP = 6;
    private static final double LEAST_PX = 180;
    /** Lines of type that an open course, a closed one and the axis take at least. */
    private static final double OPEN_EM = 2.6;
    private static final double CLOSED_EM = 2.4;
    private static final double AXIS_EM = 3.6;
    private final Group drawing = new Group();
    private final Function<Course, String> name;
    private final Function<String, String> why;
    private final Consumer<Course> pressed;
    private List<Decision.Weighed> all = List.of();
    private Optional<Course> here = Optional.empty();
    private String cheapest = "";

    /** @param why words of a closed course's reason */
    CourseBars(Function<Course, String> name, Function<String, String> why, Consumer<Course> pressed) {
        this.name = name;
        this.why = why;
        this.pressed = pressed;
        drawing.setManaged(false);
        getChildren().add(drawing);
        setMinSize(240, LEAST_PX);
    }

    /** @param often words for how often a course is the cheapest, with {@code %s} */
    void show(List<Decision.Weighed> weighed, Optional<Course> chosen, String often) {
        all = weighed;
        here = chosen;
        cheapest = often;
        draw();
    }

    @Override
    protected void layoutChildren() {
        draw();
    }

    private void draw() {
        drawing.getChildren().clear();
        if (all.isEmpty() || getWidth() < 200 || getHeight() < 120) {
            return;
        }
        Text sample = Looks.as(new Text("Transplant"), "chart-strong");
        drawing.getChildren().add(sample);
        sample.applyCss();
        double em = sample.getLayoutBounds().getHeight();
        double left = sample.getLayoutBounds().getWidth() + 2.6 * em;
        double right = getWidth() - 1.4 * em;
        drawing.getChildren().clear();
        List<Decision.Weighed> open = all.stream().filter(w -> w.estimate().closed().isEmpty()).toList();
        setMinHeight(Math.max(LEAST_PX,
                em * (OPEN_EM * open.size() + CLOSED_EM * (all.size() - open.size()) + AXIS_EM)));
        double floor = getHeight() - 1.8 * em;
        double shut = (all.size() - open.size()) * 2.4 * em;
        double high = Math.clamp((floor - TOP - shut - 1.6 * em) / Math.max(1, open.size()), 2.6 * em,
                6.5 * em);
        double most = open.stream().mapToDouble(w -> Math.max(w.fails(), w.high())).max().orElse(1) * 1.04;
        double step = AxisSteps.step(most, (int) Math.clamp((right - left) / (5 * em), 3, 9));
        for (double v = 0; v <= most; v += step) {
            double x = left + (right - left) * v / most;
            drawing.getChildren().add(Looks.as(new Line(x, TOP, x, TOP + high * open.size()), "chart-grid"));
            word(String.format(Locale.ROOT, "%,.0f", v), "chart-mono", x, TOP + high * open.size() + 1.1 * em,
                    0.5);
        }
        double y = TOP;
        for (Decision.Weighed w : all) {
            if (w.estimate().closed().isPresent()) {
                y = Math.max(y, TOP + high * open.size() + 1.6 * em);
            }
            row(w, y, high, left, right, most, em);
            y += w.estimate().closed().isPresent() ? Math.min(high, 2.4 * em) : high;
        }
    }

    private void row(Decision.Weighed w, double y, double high, double left, double right, double most,
            double em) {
        Course course = w.estimate().course();
        boolean shut = w.estimate().closed().isPresent();
        double tall = shut ? Math.min(high, 2.4 * em) : high;
        var back = Looks.as(new Rectangle(0, y + 1, getWidth(), tall - 2),
                here.filter(course::equals).isPresent() ? "course-here" : "course-row");
        back.setArcWidth(12);
        back.setArcHeight(12);
        back.setId("course-" + course.key());
        back.setAccessibleRole(AccessibleRole.LIST_ITEM);
        back.setAccessibleText(name.apply(course) + ": " + w.estimate().closed().map(why)
                .orElseGet(() -> String.format(Locale.ROOT, "%,.0f", w.expected())));
        back.setOnMouseClicked(press -> pressed.accept(course));
        drawing.getChildren().add(back);
        double middle = y + tall / 2;
        if (shut) {
            String reason = why.apply(w.estimate().closed().get());
            // Beside the name, or under it where there is no room.
            boolean beside = left + wide(reason) <= getWidth();
            word(name.apply(course), "chart-text", 0.8 * em, middle + (beside ? 0.35 : -0.2) * em, 0);
            word(reason, "chart-text", beside ? left : 0.8 * em, middle + (beside ? 0.35 : 0.9) * em, 0);
            return;
        }
        word(name.apply(course), "chart-strong", 0.8 * em, middle - 0.1 * em, 0);
        word(String.format(Locale.ROOT, cheapest, Math.round(w.cheapest() * 100)), "chart-text", 0.8 * em,
                middle + 1.0 * em, 0);
        double span = right - left;
        double works = left + span * w.works() / most;
        double fails = left + span * w.fails() / most;
        over(Looks.as(new Line(works, middle, fails, middle), "course-reach"));
        over(Looks.as(new Line(works, middle - 5, works, middle + 5), "course-works"));
        over(Looks.as(new Line(fails, middle - 5, fails, middle + 5), "course-fails"));
        double low = left + span * w.low() / most;
        double wide = Math.max(3, span * (w.high() - w.low()) / most);
        var band = Looks.as(new Rectangle(low, middle - 7, wide, 14), "course-band");
        band.setArcWidth(14);
        band.setArcHeight(14);
        over(band);
        double at = left + span * w.expected() / most;
        over(Looks.as(new Circle(at, middle, 5.5), "course-expected"));
        word(String.format(Locale.ROOT, "%,.0f", w.expected()), "chart-strong", at, middle - 10, 0.5);
    }

    private void over(javafx.scene.Node node) {
        node.setMouseTransparent(true);
        drawing.getChildren().add(node);
    }

    private double wide(String text) {
        Text word = Looks.as(new Text(text), "chart-text");
        drawing.getChildren().add(word);
        word.applyCss();
        drawing.getChildren().remove(word);
        return word.getLayoutBounds().getWidth();
    }

    private void word(String text, String style, double x, double y, double anchor) {
        Text word = Looks.as(new Text(text), style);
        drawing.getChildren().add(word);
        word.applyCss();
        double wide = word.getLayoutBounds().getWidth();
        word.setX(Math.clamp(x - wide * anchor, 0, Math.max(0, getWidth() - wide)));
        word.setY(y);
        word.setMouseTransparent(true);
    }
}
