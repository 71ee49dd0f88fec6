package org.greenbead.app.heat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.scene.Group;
import javafx.scene.Node;
import javafx.scene.image.ImageView;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Region;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import javafx.scene.shape.LineTo;
import javafx.scene.shape.MoveTo;
import javafx.scene.shape.Path;
import javafx.scene.shape.PathElement;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Text;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.ProtectedPart;
import org.greenbead.core.board.Side;
import org.greenbead.core.run.Room;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.thermal.HeatField;

/**
 * One side of the board in colours of its temperature: parts outlined with what they have and what they have left, lines of equal
 * temperature, probes. A place can be pointed at with the pointer, or with the arrows and Enter.
 */
public final class HeatPicture extends Region {
    private static final double STEP_MM = 1;
    private final Side side;
    private final boolean small;
    private final ImageView ground = new ImageView();
    private final Group drawing = new Group();
    private final Group cross = new Group();
    private final Text hint = Looks.as(new Text(), "heat-hint");
    private HeatImage image = new HeatImage(180, 130);
    private Optional<Shown> shown = Optional.empty();
    private int drawn;
    private double drawnWide;
    private double drawnHigh;
    private Optional<Point> aim = Optional.empty();
    private Consumer<Point> placed = p -> {
    };

    /** What is on the picture. */
    private record Shown(RunPlan plan, HeatField field, List<Room> rooms, double[] levelsC, Texts texts) {}

    public HeatPicture(Side side) {
        this(side, false);
    }

    /** @param small names of parts alone: for a picture that one looks at from the side */
    public HeatPicture(Side side, boolean small) {
        this.side = side;
        this.small = small;
        ground.setManaged(false);
        drawing.setManaged(false);
        cross.setManaged(false);
        hint.setManaged(false);
        ground.setSmooth(true);
        getChildren().addAll(ground, drawing, cross, hint);
        setMinSize(small ? 80 : 120, small ? 60 : 90);
        setFocusTraversable(!small);
        getStyleClass().add("heat-picture");
        setOnMouseMoved(e -> aimAt(e.getX(), e.getY()));
        setOnMouseExited(e -> {
            aim = Optional.empty();
            drawAim();
        });
        setOnMousePressed(e -> {
            requestFocus();
            aimAt(e.getX(), e.getY());
            aim.ifPresent(placed);
        });
    }

    /** Told where a probe is wanted, board coordinates. */
    public void onPlaced(Consumer<Point> action) {
        placed = action;
    }

    /** Arrows move the aim, Enter places. @return true when the key was used */
    public boolean key(KeyCode code) {
        if (shown.isEmpty() || !isFocused()) {
            return false;
        }
        Point size = shown.get().plan.board().sizeMm();
        Point at = aim.orElse(new Point(size.xMm() / 2, size.yMm() / 2));
        double[] by = switch (code) {
            case LEFT -> step(-1, 0);
            case RIGHT -> step(1, 0);
            case UP -> step(0, 1);
            case DOWN -> step(0, -1);
            default -> null;
        };
        if (by != null) {
            aim = Optional.of(new Point(Math.clamp(at.xMm() + by[0], 0, size.xMm()),
                    Math.clamp(at.yMm() + by[1], 0, size.yMm())));
            drawAim();
            return true;
        }
        if (code == KeyCode.ENTER && aim.isPresent()) {
            placed.accept(aim.get());
            return true;
        }
        return false;
    }

    /** A step on the screen as a step on the board. */
    private double[] step(int right, int up) {
        double flip = side == Side.BOTTOM ? -1 : 1;
        return turned()
                ? new double[]{-flip * up * STEP_MM, right * STEP_MM}
                : new double[]{flip * right * STEP_MM, up * STEP_MM};
    }

    /**
     * @param rooms   of every protected part, in the plan's order
     * @param levelsC lines of equal temperature: solidus of the joints, lowest protected limit
     */
    public void show(RunPlan plan, HeatField field, List<Room> rooms, double[] levelsC, Texts texts) {
        shown = Optional.of(new Shown(plan, field, rooms, levelsC, texts));
        draw();
    }

    @Override
    protected void layoutChildren() {
        if (getWidth() != drawnWide || getHeight() != drawnHigh) {
            draw();
        }
    }

    private boolean turned() {
        Point size = shown.orElseThrow().plan.board().sizeMm();
        return size.yMm() > size.xMm() == getWidth() > getHeight();
    }

    private double scale() {
        Point size = shown.orElseThrow().plan.board().sizeMm();
        double bw = turned() ? size.yMm() : size.xMm();
        double bh = turned() ? size.xMm() : size.yMm();
        return Math.min((getWidth() - 6) / bw, (getHeight() - 6) / bh);
    }

    /** Left, top, width and height of the board on the screen. */
    private double[] frame() {
        Point size = shown.orElseThrow().plan.board().sizeMm();
        double w = (turned() ? size.yMm() : size.xMm()) * scale();
        double h = (turned() ? size.xMm() : size.yMm()) * scale();
        return new double[]{(getWidth() - w) / 2, (getHeight() - h) / 2, w, h};
    }

    private double[] place(Point at) {
        Point size = shown.orElseThrow().plan.board().sizeMm();
        double[] f = frame();
        double x = side == Side.BOTTOM ? size.xMm() - at.xMm() : at.xMm();
        return turned()
                ? new double[]{f[0] + at.yMm() * scale(), f[1] + x * scale()}
                : new double[]{f[0] + x * scale(), f[1] + (size.yMm() - at.yMm()) * scale()};
    }

    private Optional<Point> boardAt(double px, double py) {
        Point size = shown.orElseThrow().plan.board().sizeMm();
        double[] f = frame();
        double u = (px - f[0]) / scale();
        double v = (py - f[1]) / scale();
        double x = turned() ? v : u;
        double y = turned() ? u : size.yMm() - v;
        x = side == Side.BOTTOM ? size.xMm() - x : x;
        return x < 0 || y < 0 || x > size.xMm() || y > size.yMm()
                ? Optional.empty()
                : Optional.of(new Point(Math.rint(x * 2) / 2, Math.rint(y * 2) / 2));
    }

    private void aimAt(double px, double py) {
        if (shown.isPresent()) {
            aim = boardAt(px, py);
            drawAim();
        }
    }

    private void draw() {
        if (shown.isEmpty() || getWidth() < 60 || getHeight() < 50) {
            return;
        }
        drawnWide = getWidth();
        drawnHigh = getHeight();
        Shown s = shown.get();
        double[] f = frame();
        int wide = (int) Math.clamp(f[2] / 2, 40, 260);
        int high = (int) Math.clamp(f[3] / 2, 40, 260);
        if (image.wide() != wide || image.high() != high) {
            image = new HeatImage(wide, high);
        }
        ground.setImage(image.draw(s.field, turned(), side == Side.BOTTOM));
        ground.setX(f[0]);
        ground.setY(f[1]);
        ground.setFitWidth(f[2]);
        ground.setFitHeight(f[3]);
        drawn = 0;
        rectangle(f[0], f[1], f[2], f[3], "heat-edge");
        isotherms(s, f);
        parts(s);
        for (ProbePlace probe : s.plan.bench().probes()) {
            if (probe.side() == side) {
                double[] at = place(probe.atMm());
                Circle dot = next("plan-probe", Circle.class, Circle::new);
                dot.setCenterX(at[0]);
                dot.setCenterY(at[1]);
                dot.setRadius(4.5);
                text("T" + probe.channel(), at[0], at[1] + 17, "heat-label");
            }
        }
        drawing.getChildren().remove(drawn, drawing.getChildren().size());
        drawAim();
    }

    /**
     * The next shape of the drawing: the one that stood at this place in the last picture where it is of the same kind and look, so that
     * scrubbing along time neither makes nodes nor looks up styles.
     */
    private <T extends Node> T next(String style, Class<T> kind, Supplier<T> made) {
        List<Node> nodes = drawing.getChildren();
        if (drawn < nodes.size() && kind.isInstance(nodes.get(drawn))
                && style.equals(nodes.get(drawn).getUserData())) {
            return kind.cast(nodes.get(drawn++));
        }
        T node = made.get();
        node.setUserData(style);
        node.getStyleClass().addAll(style.split(" "));
        if (drawn < nodes.size()) {
            nodes.set(drawn, node);
        } else {
            nodes.add(node);
        }
        drawn++;
        return node;
    }

    private Rectangle rectangle(double x, double y, double wide, double high, String style) {
        Rectangle shape = next(style, Rectangle.class, Rectangle::new);
        shape.setX(x);
        shape.setY(y);
        shape.setWidth(wide);
        shape.setHeight(high);
        return shape;
    }

    private void parts(Shown s) {
        // The room list holds the target's body, the other chips and the parts, in the board's order.
        int at = 1;
        for (Chip chip : s.plan.board().chips()) {
            boolean target = chip.name().equals(s.plan.target().name());
            Optional<Room> room = target ? first(s.rooms, 0) : first(s.rooms, at++);
            if (target && chip.side() != side) {
                double[] at2 = place(chip.centreMm());
                double w = (turned() ? chip.sizeMm().yMm() : chip.sizeMm().xMm()) * scale();
                double h = (turned() ? chip.sizeMm().xMm() : chip.sizeMm().yMm()) * scale();
                rectangle(at2[0] - w / 2, at2[1] - h / 2, w, h, "heat-behind");
            }
            if (chip.side() == side) {
                outline(s, chip.name(), chip.centreMm(), chip.sizeMm(), target, room);
            }
        }
        for (ProtectedPart part : s.plan.board().parts()) {
            Optional<Room> room = first(s.rooms, at++);
            if (part.side() == side) {
                outline(s, part.name(), part.centreMm(), part.sizeMm(), false, room);
            }
        }
        s.plan.recipe().shields().forEach(foil -> {
            if (side == Side.TOP) {
                double[] a = place(foil.fromMm());
                double[] b = place(foil.toMm());
                rectangle(Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.abs(a[0] - b[0]),
                        Math.abs(a[1] - b[1]),
                        "heat-foil");
            }
        });
    }

    private static Optional<Room> first(List<Room> rooms, int at) {
        return at < rooms.size() ? Optional.of(rooms.get(at)) : Optional.empty();
    }

    private void outline(Shown s, String name, Point centre, Point size, boolean target,
            Optional<Room> room) {
        double[] at = place(centre);
        double w = Math.max(10, (turned() ? size.yMm() : size.xMm()) * scale());
        double h = Math.max(10, (turned() ? size.xMm() : size.yMm()) * scale());
        Rectangle body = rectangle(at[0] - w / 2, at[1] - h / 2, w, h,
                target ? "heat-part heat-target" : "heat-part");
        body.pseudoClassStateChanged(Looks.BAD, room.map(r -> r.leftK() < 0).orElse(false) && !target);
        if (small) {
            text(name, at[0], h > 16 ? at[1] + 4 : at[1] - h / 2 - 3, "heat-label");
            return;
        }
        String now = room.map(r -> s.texts.words().bare(r.nowC()) + "°").orElse("");
        String left = room.map(r -> s.texts.get("heat.left", s.texts.rise(r.leftK()))).orElse("");
        boolean roomy = w > 46 && h > 44;
        if (roomy) {
            text(name, at[0], at[1] - 8, "heat-name");
            text(now, at[0], at[1] + 6, "heat-label");
            text(left, at[0], at[1] + 20, "heat-label");
        } else {
            text(name + " " + now, at[0], at[1] - h / 2 - 4, "heat-name");
            text(left, at[0], at[1] + h / 2 + 13, "heat-label");
        }
    }

    private void text(String words, double x, double y, String style) {
        if (words.isEmpty()) {
            return;
        }
        Rectangle plate = next("heat-plate", Rectangle.class, Rectangle::new);
        int before = drawing.getChildren().size();
        Text text = next(style, Text.class, Text::new);
        boolean fresh = text.getText().isEmpty() || drawing.getChildren().size() > before;
        if (!text.getText().equals(words)) {
            text.setText(words);
        }
        if (fresh) {
            text.applyCss();
        }
        double half = text.getLayoutBounds().getWidth() / 2;
        double[] f = frame();
        text.setX(Math.clamp(x - half, f[0] + 2, Math.max(f[0] + 2, f[0] + f[2] - 2 * half - 2)));
        text.setY(Math.clamp(y, f[1] + 12, f[1] + f[3] - 4));
        plate.setX(text.getX() - 2);
        plate.setY(text.getY() - 10);
        plate.setWidth(2 * half + 4);
        plate.setHeight(13);
        plate.setArcWidth(6);
        plate.setArcHeight(6);
    }

    /** Lines of equal temperature by marching over squares of two pixels. */
    private void isotherms(Shown s, double[] f) {
        double sx = f[2] / image.wide();
        double sy = f[3] / image.high();
        for (int level = 0; level < s.levelsC.length; level++) {
            double at = s.levelsC[level];
            Path path = next("isotherm isotherm-" + level, Path.class, Path::new);
            var line = new ArrayList<PathElement>();
            for (int y = 0; y + 2 < image.high(); y += 2) {
                for (int x = 0; x + 2 < image.wide(); x += 2) {
                    // The second line is dotted: two squares in four are left out.
                    if (level == 1 && (x / 2 + y / 2) % 4 > 1) {
                        continue;
                    }
                    segment(line, at, x, y, f, sx, sy);
                }
            }
            path.getElements().setAll(line);
        }
    }

    private void segment(List<PathElement> line, double level, int x, int y, double[] f, double sx,
            double sy) {
        boolean under = image.at(x, y) < level;
        if (under == image.at(x + 2, y) < level && under == image.at(x + 2, y + 2) < level
                && under == image.at(x, y + 2) < level) {
            return;
        }
        double[] v = {image.at(x, y), image.at(x + 2, y), image.at(x + 2, y + 2), image.at(x, y + 2)};
        int[][] corner = {{x, y}, {x + 2, y}, {x + 2, y + 2}, {x, y + 2}};
        var hits = new ArrayList<double[]>(2);
        for (int e = 0; e < 4; e++) {
            double a = v[e] - level;
            double b = v[(e + 1) % 4] - level;
            if (a < 0 != b < 0) {
                double share = a / (a - b);
                int[] p = corner[e];
                int[] q = corner[(e + 1) % 4];
                hits.add(new double[]{f[0] + (p[0] + 0.5 + share * (q[0] - p[0])) * sx,
                        f[1] + (p[1] + 0.5 + share * (q[1] - p[1])) * sy});
            }
        }
        if (hits.size() >= 2) {
            line.add(new MoveTo(hits.get(0)[0], hits.get(0)[1]));
            line.add(new LineTo(hits.get(1)[0], hits.get(1)[1]));
        }
    }

    private void drawAim() {
        cross.getChildren().clear();
        hint.setText("");
        if (shown.isEmpty() || aim.isEmpty()) {
            return;
        }
        double[] at = place(aim.get());
        double[] f = frame();
        int px = (int) ((at[0] - f[0]) / f[2] * image.wide());
        int py = (int) ((at[1] - f[1]) / f[3] * image.high());
        cross.getChildren().addAll(Looks.as(new Line(at[0] - 9, at[1], at[0] + 9, at[1]), "heat-cross"),
                Looks.as(new Line(at[0], at[1] - 9, at[0], at[1] + 9), "heat-cross"));
        Texts texts = shown.get().texts;
        hint.setText(texts.get("heat.aim", texts.temp(image.at(px, py)),
                String.format(java.util.Locale.ROOT, "%.1f", aim.get().xMm()),
                String.format(java.util.Locale.ROOT, "%.1f", aim.get().yMm())));
        hint.applyCss();
        hint.setX(Math.clamp(at[0] + 12, f[0],
                Math.max(f[0], f[0] + f[2] - hint.getLayoutBounds().getWidth() - 4)));
        hint.setY(Math.max(f[1] + 14, at[1] - 8));
    }
}
