package org.greenbead.app.look;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import javafx.css.PseudoClass;
import javafx.geometry.BoundingBox;
import javafx.geometry.Bounds;
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
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Mark;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProtectedPart;
import org.greenbead.core.board.Side;
import org.greenbead.core.picture.Px;
import org.greenbead.core.picture.Squared;

/** A board with what lies on it, over its photo where that was squared up, else drawn. A cross marks the place that keys mean. */
public final class BoardView extends Region {
    private final ImageView photo = new ImageView();
    private final Group marks = new Group();
    private Board board;
    private Optional<Squared> squared = Optional.empty();
    private Optional<Image> image = Optional.empty();
    private Side side = Side.TOP;
    private Point cross = new Point(1, 1);
    private boolean crossed = true;
    private Px crossPx = new Px(0, 0);
    private boolean corners;
    private List<Px> marked = List.of();
    private String target = "";
    private List<Spot> spots = List.of();
    private static final double LEAST_PX = 6;
    private Px pressed = new Px(0, 0);
    private Optional<Px> dragged = Optional.empty();
    private final List<Bounds> named = new ArrayList<>();

    /** Something that is no part: a screw, a lost piece, a damaged pad. @param kind style of its mark: screw, screw-in, lost, found */
    public record Spot(String name, Point at, String kind) {}

    public BoardView(Consumer<Point> pointed, Consumer<Px> pointedPx) {
        photo.setManaged(false);
        marks.setManaged(false);
        getChildren().addAll(photo, marks);
        setMinSize(200, 200);
        getStyleClass().add("board-view");
        setOnMousePressed(e -> {
            if (board == null && !corners) {
                return;
            }
            Px px = new Px((e.getX() - left()) / scale(), (e.getY() - top()) / scale());
            if (corners) {
                pointedPx.accept(px);
            } else {
                pointed.accept(squared.map(s -> s.toMm(px)).orElseGet(() -> mmOf(e.getX(), e.getY())));
            }
        });
    }

    /** From now on a rectangle can be drawn with the mouse; a press that goes nowhere still points. */
    public void drawn(BiConsumer<Point, Point> boxed) {
        setOnMouseDragged(e -> {
            if (board != null && !corners) {
                dragged = Optional.of(new Px(e.getX(), e.getY()));
                draw();
            }
        });
        addEventHandler(javafx.scene.input.MouseEvent.MOUSE_PRESSED,
                e -> pressed = new Px(e.getX(), e.getY()));
        setOnMouseReleased(e -> {
            boolean far = dragged.filter(d -> Math.hypot(d.x() - pressed.x(), d.y() - pressed.y()) > LEAST_PX)
                    .isPresent();
            dragged = Optional.empty();
            if (far) {
                boxed.accept(place(pressed), place(new Px(e.getX(), e.getY())));
            }
            draw();
        });
    }

    private Point place(Px here) {
        return squared.filter(s -> overPhoto())
                .map(s -> s.toMm(new Px((here.x() - left()) / scale(), (here.y() - top()) / scale())))
                .map(p -> new Point(Math.clamp(p.xMm(), 0, board.sizeMm().xMm()),
                        Math.clamp(p.yMm(), 0, board.sizeMm().yMm())))
                .orElseGet(() -> mmOf(here.x(), here.y()));
    }

    public void show(Board shown, String targetChip, Side face, List<Spot> more) {
        board = shown;
        target = targetChip;
        side = face;
        spots = more;
        draw();
    }

    public void photo(Optional<Image> taken, Optional<Squared> by) {
        image = taken;
        squared = by;
        draw();
    }

    public void cross(Point at) {
        cross = at;
        crossed = true;
        draw();
    }

    /** No place is meant. */
    public void crossless() {
        crossed = false;
        draw();
    }

    /** While corners are marked the cross moves in the picture. */
    public void corners(boolean on, List<Px> so, Px at) {
        corners = on;
        marked = so;
        crossPx = at;
        draw();
    }

    @Override
    protected void layoutChildren() {
        draw();
    }

    private boolean overPhoto() {
        return image.isPresent() && (corners || squared.isPresent() && side == Side.TOP);
    }

    private double wide() {
        return overPhoto() ? image.get().getWidth() : board.sizeMm().xMm();
    }

    private double high() {
        return overPhoto() ? image.get().getHeight() : board.sizeMm().yMm();
    }

    /** Pixels of the photo under one of the window's: nothing smaller can be pointed at. */
    public double photoPxPerPoint() {
        return 1 / scale();
    }

    private double scale() {
        return Math.min((getWidth() - 8) / wide(), (getHeight() - 8) / high());
    }

    private double left() {
        return (getWidth() - wide() * scale()) / 2;
    }

    private double top() {
        return (getHeight() - high() * scale()) / 2;
    }

    private Point mmOf(double x, double y) {
        double mm = (x - left()) / scale();
        return new Point(
                Math.clamp(side == Side.TOP ? mm : board.sizeMm().xMm() - mm, 0, board.sizeMm().xMm()),
                Math.clamp(board.sizeMm().yMm() - (y - top()) / scale(), 0, board.sizeMm().yMm()));
    }

    /** Where a place lies in this region. The underside is seen mirrored, as it is when the board is turned over sideways. */
    private Px at(Point mm) {
        if (overPhoto()) {
            Px px = squared.orElseThrow().toPx(mm);
            return new Px(left() + px.x() * scale(), top() + px.y() * scale());
        }
        double x = side == Side.TOP ? mm.xMm() : board.sizeMm().xMm() - mm.xMm();
        return new Px(left() + x * scale(), top() + (board.sizeMm().yMm() - mm.yMm()) * scale());
    }

    private void draw() {
        marks.getChildren().clear();
        named.clear();
        photo.setVisible((board != null || corners) && overPhoto());
        if (board == null && !photo.isVisible() || getWidth() < 60 || getHeight() < 60) {
            return;
        }
        if (overPhoto()) {
            photo.setImage(image.get());
            photo.setFitWidth(wide() * scale());
            photo.setFitHeight(high() * scale());
            photo.setLayoutX(left());
            photo.setLayoutY(top());
        }
        if (corners) {
            drawCorners();
            return;
        }
        if (!overPhoto()) {
            var ground = Looks.as(new Rectangle(left(), top(), wide() * scale(), high() * scale()),
                    "plan-board");
            ground.setArcWidth(10);
            ground.setArcHeight(10);
            marks.getChildren().add(ground);
        }
        board.marks().stream().filter(m -> m.side() == side)
                .sorted(Comparator.comparingDouble((Mark m) -> -m.sizeMm().areaMm2())).forEach(this::mark);
        for (ProtectedPart part : board.parts()) {
            if (part.side() == side) {
                box(part.name(), part.centreMm(), part.sizeMm(), "picture-part", false);
            }
        }
        for (Chip chip : board.chips()) {
            if (chip.side() == side) {
                box(chip.name(), chip.centreMm(), chip.sizeMm(), "picture-chip", chip.name().equals(target));
            }
        }
        for (Spot spot : spots) {
            Px p = at(spot.at());
            Shape shape = Looks.as(spot.kind().startsWith("screw")
                    ? new Circle(p.x(), p.y(), 7)
                    : new Polygon(p.x(), p.y() - 8, p.x() + 8, p.y(), p.x(), p.y() + 8, p.x() - 8, p.y()),
                    "spot-" + spot.kind());
            marks.getChildren().add(shape);
            beside(spot.name(), p);
        }
        if (crossed) {
            cross(at(cross));
        }
        dragged.ifPresent(d -> marks.getChildren().add(Looks.as(new Rectangle(Math.min(d.x(), pressed.x()),
                Math.min(d.y(), pressed.y()), Math.abs(d.x() - pressed.x()), Math.abs(d.y() - pressed.y())),
                "picture-drawn")));
    }

    /** A region tinted by its rule, a shield as a lid with its fence, a screw with its slot, a hole as a ring. */
    private void mark(Mark m) {
        String look = "mark-" + m.kind().key().replace('_', '-');
        switch (m.kind()) {
            case SCREW, HOLE -> {
                Px p = at(m.centreMm());
                double r = Math.max(4, m.sizeMm().xMm() / 2 * pxPerMm());
                marks.getChildren().add(lit(new Circle(p.x(), p.y(), r), look, m));
                if (m.kind() == Mark.Kind.SCREW) {
                    double d = 0.62 * r;
                    marks.getChildren().add(lit(new Line(p.x() - d, p.y() + d, p.x() + d, p.y() - d),
                            "mark-slot", m));
                }
                beside(m.name(), p);
            }
            case SHIELD -> {
                box(m.name(), m.centreMm(), m.sizeMm(), look, m.name().equals(target));
                Point in = new Point(Math.max(0.2, m.sizeMm().xMm() - 2),
                        Math.max(0.2, m.sizeMm().yMm() - 2));
                marks.getChildren().add(lit(path(m.centreMm(), in), "mark-fence", m));
            }
            default -> {
                marks.getChildren().add(lit(path(m.centreMm(), m.sizeMm()), look, m));
                Px corner = at(new Point(
                        m.centreMm().xMm() + (side == Side.TOP ? -1 : 1) * m.sizeMm().xMm() / 2,
                        m.centreMm().yMm() + m.sizeMm().yMm() / 2));
                Text text = name(m.name());
                label(text, corner.x() + text.getLayoutBounds().getWidth() / 2 + 5, corner.y() + 13);
            }
        }
    }

    private double pxPerMm() {
        return overPhoto() ? squared.map(Squared::pxPerMm).orElse(1.0) * scale() : scale();
    }

    private <T extends Shape> T lit(T shape, String look, Mark m) {
        Looks.as(shape, look);
        shape.pseudoClassStateChanged(PseudoClass.getPseudoClass("target"), m.name().equals(target));
        shape.pseudoClassStateChanged(PseudoClass.getPseudoClass("photo"), overPhoto());
        return shape;
    }

    private void drawCorners() {
        var all = new ArrayList<>(marked);
        for (int i = 0; i < all.size(); i++) {
            double x = left() + all.get(i).x() * scale();
            double y = top() + all.get(i).y() * scale();
            marks.getChildren().add(Looks.as(new Circle(x, y, 6), "picture-corner"));
            if (i > 0) {
                marks.getChildren().add(Looks.as(new Line(left() + all.get(i - 1).x() * scale(),
                        top() + all.get(i - 1).y() * scale(), x, y), "picture-edge"));
            }
        }
        cross(new Px(left() + crossPx.x() * scale(), top() + crossPx.y() * scale()));
    }

    private void cross(Px p) {
        marks.getChildren().addAll(Looks.as(new Line(p.x() - 14, p.y(), p.x() - 4, p.y()), "picture-cross"),
                Looks.as(new Line(p.x() + 4, p.y(), p.x() + 14, p.y()), "picture-cross"),
                Looks.as(new Line(p.x(), p.y() - 14, p.x(), p.y() - 4), "picture-cross"),
                Looks.as(new Line(p.x(), p.y() + 4, p.x(), p.y() + 14), "picture-cross"));
    }

    private void box(String name, Point centre, Point size, String look, boolean wanted) {
        Polygon path = Looks.as(path(centre, size), look);
        path.pseudoClassStateChanged(PseudoClass.getPseudoClass("target"), wanted);
        path.pseudoClassStateChanged(PseudoClass.getPseudoClass("photo"), overPhoto());
        marks.getChildren().add(path);
        Px middle = at(centre);
        label(name(name), middle.x(), middle.y() + 4);
    }

    private Polygon path(Point centre, Point size) {
        double x = size.xMm() / 2;
        double y = size.yMm() / 2;
        var path = new Polygon();
        for (double[] end : new double[][]{{-x, -y}, {x, -y}, {x, y}, {-x, y}}) {
            Px p = at(new Point(centre.xMm() + end[0], centre.yMm() + end[1]));
            path.getPoints().addAll(p.x(), p.y());
        }
        return path;
    }

    /** Above a mark, or else below, right or left of it: the first place where no name stands yet. */
    private void beside(String words, Px mark) {
        Text text = name(words);
        double half = text.getLayoutBounds().getWidth() / 2 + 12;
        double[][] places = {{0, -11}, {0, 21}, {half, 5}, {-half, 5}};
        double[] free = Arrays.stream(places).filter(place -> {
            Bounds plate = plate(text, mark.x() + place[0], mark.y() + place[1]);
            return named.stream().noneMatch(plate::intersects) && getLayoutBounds().contains(plate);
        }).findFirst().orElse(places[0]);
        label(text, mark.x() + free[0], mark.y() + free[1]);
    }

    private Text name(String words) {
        Text text = Looks.as(new Text(words), "picture-name");
        text.pseudoClassStateChanged(PseudoClass.getPseudoClass("photo"), overPhoto());
        marks.getChildren().add(text);
        text.applyCss();
        return text;
    }

    /** What a name covers whose middle stands there. */
    private static Bounds plate(Text text, double x, double y) {
        Bounds own = text.getLayoutBounds();
        return new BoundingBox(x - own.getWidth() / 2 - 3, y + own.getMinY() - text.getY(),
                own.getWidth() + 6,
                own.getHeight());
    }

    private void label(Text text, double x, double y) {
        Bounds covers = plate(text, x, y);
        named.add(covers);
        if (overPhoto()) {
            marks.getChildren().add(marks.getChildren().indexOf(text),
                    Looks.as(new Rectangle(covers.getMinX(), covers.getMinY(), covers.getWidth(),
                            covers.getHeight()), "picture-plate"));
        }
        text.setX(x - text.getLayoutBounds().getWidth() / 2);
        text.setY(y);
    }
}
