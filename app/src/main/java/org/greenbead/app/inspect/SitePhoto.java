package org.greenbead.app.inspect;

import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.css.PseudoClass;
import javafx.geometry.Bounds;
import javafx.geometry.Rectangle2D;
import javafx.scene.Group;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.layout.Region;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import javafx.scene.shape.Polygon;
import javafx.scene.shape.Rectangle;
import javafx.scene.shape.Shape;
import javafx.scene.text.Text;
import org.greenbead.app.look.Looks;
import org.greenbead.core.picture.Px;

/** A photo with marks on it; it can be seen whole or close up round the chosen mark. */
final class SitePhoto extends Region {
    /** How much closer. */
    private static final double CLOSE = 5;
    private final ImageView picture = new ImageView();
    private final Group marks = new Group();
    private List<Mark> shown = List.of();
    private Optional<String> chosen = Optional.empty();
    private Rectangle2D frame = new Rectangle2D(0, 0, 1, 1);
    private boolean close;
    private boolean whole;

    /** The shape of a mark. */
    enum Kind {
        GOOD, PLAIN, RING, SQUARE, HEXAGON, DASHED, DIAMOND
    }

    /** @param radiusPx of what is marked, in pixels of the photo @param to another mark it is joined to, or empty */
    record Mark(String name, Kind kind, double xPx, double yPx, double radiusPx, Optional<Px> to) {}

    SitePhoto(Consumer<String> pressed) {
        getStyleClass().add("site-photo");
        setMinSize(240, 220);
        picture.setManaged(false);
        marks.setManaged(false);
        getChildren().addAll(picture, marks);
        setOnMousePressed(e -> {
            double scale = scale();
            double x = frame.getMinX() + (e.getX() - left()) / scale;
            double y = frame.getMinY() + (e.getY() - top()) / scale;
            shown.stream().filter(m -> Math.hypot(m.xPx() - x, m.yPx() - y) < 2.2 * m.radiusPx())
                    .min(java.util.Comparator.comparingDouble(m -> Math.hypot(m.xPx() - x, m.yPx() - y)))
                    .ifPresent(m -> pressed.accept(m.name()));
        });
    }

    void show(Image image, List<Mark> now) {
        show(image, now, false);
    }

    /** @param all the whole photo is seen, not only where marks are */
    void show(Image image, List<Mark> now, boolean all) {
        picture.setImage(image);
        shown = now;
        whole = all;
        draw();
    }

    Image image() {
        return picture.getImage();
    }

    void choose(Optional<String> name, boolean closely) {
        chosen = name;
        close = closely;
        draw();
    }

    @Override
    protected void layoutChildren() {
        draw();
    }

    private double scale() {
        return Math.min((getWidth() - 8) / frame.getWidth(), (getHeight() - 8) / frame.getHeight());
    }

    private double left() {
        return (getWidth() - frame.getWidth() * scale()) / 2;
    }

    private double top() {
        return (getHeight() - frame.getHeight() * scale()) / 2;
    }

    /** The part of the photo that is seen: all sites with room round them, or a few about the chosen one. */
    private void reframe() {
        Image image = picture.getImage();
        double w = image.getWidth();
        double h = image.getHeight();
        if (shown.isEmpty()) {
            frame = new Rectangle2D(0, 0, w, h);
            return;
        }
        double x0 = shown.stream().mapToDouble(Mark::xPx).min().orElse(0);
        double x1 = shown.stream().mapToDouble(Mark::xPx).max().orElse(w);
        double y0 = shown.stream().mapToDouble(Mark::yPx).min().orElse(0);
        double y1 = shown.stream().mapToDouble(Mark::yPx).max().orElse(h);
        if (whole && !(close && chosen.isPresent())) {
            frame = new Rectangle2D(0, 0, w, h);
            return;
        }
        if (whole) {
            x0 = 0;
            x1 = w;
            y0 = 0;
            y1 = h;
        }
        double room = 0.06 * Math.max(x1 - x0, y1 - y0) + 3 * shown.getFirst().radiusPx();
        Optional<Mark> at = shown.stream().filter(m -> chosen.equals(Optional.of(m.name()))).findFirst();
        double midX = (x0 + x1) / 2;
        double midY = (y0 + y1) / 2;
        double wide = x1 - x0 + 2 * room;
        double high = y1 - y0 + 2 * room;
        if (close && at.isPresent()) {
            midX = at.get().xPx();
            midY = at.get().yPx();
            wide /= CLOSE;
            high /= CLOSE;
        }
        wide = Math.min(wide, w);
        high = Math.min(high, h);
        frame = new Rectangle2D(Math.clamp(midX - wide / 2, 0, w - wide),
                Math.clamp(midY - high / 2, 0, h - high), wide,
                high);
    }

    private void draw() {
        marks.getChildren().clear();
        if (picture.getImage() == null || getWidth() < 60 || getHeight() < 60) {
            return;
        }
        reframe();
        double scale = scale();
        picture.setViewport(frame);
        picture.setFitWidth(frame.getWidth() * scale);
        picture.setFitHeight(frame.getHeight() * scale);
        picture.setSmooth(true);
        picture.setLayoutX(left());
        picture.setLayoutY(top());
        marks.setClip(new Rectangle(left(), top(), frame.getWidth() * scale, frame.getHeight() * scale));
        for (Mark mark : shown) {
            double x = left() + (mark.xPx() - frame.getMinX()) * scale;
            double y = top() + (mark.yPx() - frame.getMinY()) * scale;
            boolean seen = x > left() && y > top() && x < getWidth() - left() && y < getHeight() - top();
            if (seen) {
                mark(mark, x, y, Math.max(3, mark.radiusPx() * scale), scale);
            }
        }
    }

    private void mark(Mark mark, double x, double y, double r, double scale) {
        boolean here = chosen.equals(Optional.of(mark.name()));
        if (mark.kind() == Kind.GOOD && !here && !close) {
            return;
        }
        Shape shape = switch (mark.kind()) {
            case GOOD, PLAIN, RING, DASHED -> new Circle(x, y, r + 2.5);
            case SQUARE -> new Rectangle(x - r - 3, y - r - 3, 2 * r + 6, 2 * r + 6);
            case HEXAGON -> polygon(x, y, r + 4, 6);
            case DIAMOND -> polygon(x, y, r + 5, 4);
        };
        Looks.as(shape, "site-mark", "site-" + mark.kind().name().toLowerCase(java.util.Locale.ROOT));
        shape.pseudoClassStateChanged(PseudoClass.getPseudoClass("here"), here);
        mark.to().ifPresent(to -> marks.getChildren().add(Looks.as(
                new Line(x, y, left() + (to.x() - frame.getMinX()) * scale,
                        top() + (to.y() - frame.getMinY()) * scale),
                "site-mark", "site-join")));
        marks.getChildren().add(shape);
        if (here || close && mark.kind() != Kind.GOOD && mark.kind() != Kind.PLAIN) {
            Text text = Looks.as(new Text(mark.name()), "picture-name");
            text.pseudoClassStateChanged(PseudoClass.getPseudoClass("photo"), true);
            marks.getChildren().add(text);
            text.applyCss();
            Bounds size = text.getLayoutBounds();
            double width = size.getWidth();
            double up = y - r - 10;
            var plate = Looks.as(
                    new Rectangle(x - width / 2 - 3, up + size.getMinY(), width + 6, size.getHeight()),
                    "picture-plate");
            marks.getChildren().add(marks.getChildren().size() - 1, plate);
            text.setX(x - width / 2);
            text.setY(up);
        }
    }

    private static Polygon polygon(double x, double y, double r, int corners) {
        var shape = new Polygon();
        for (int i = 0; i < corners; i++) {
            shape.getPoints().addAll(x + r * Math.cos(2 * Math.PI * i / corners),
                    y + r * Math.sin(2 * Math.PI * i / corners));
        }
        return shape;
    }
}
