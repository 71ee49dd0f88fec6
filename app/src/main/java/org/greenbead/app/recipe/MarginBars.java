package org.greenbead.app.recipe;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.BiConsumer;
import javafx.geometry.Pos;
import javafx.scene.Cursor;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import javafx.scene.shape.Rectangle;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.plan.Constraint;
import org.greenbead.core.plan.Robustness;
import org.greenbead.core.quantity.Words;

/**
 * Every limit of a recipe as a track: how far it is used, where nine benches in ten end, and the limit itself, which may be drawn
 * elsewhere to ask what it costs.
 */
final class MarginBars extends VBox {
    private final Texts texts;
    private final Optional<BiConsumer<Constraint, Double>> ask;

    /** @param ask told a limit and where it was drawn to; empty where limits stay where they are */
    MarginBars(Texts texts, Optional<BiConsumer<Constraint, Double>> ask) {
        this.texts = texts;
        this.ask = ask;
        setSpacing(2);
    }

    void show(List<Constraint> limits, Robustness known) {
        getChildren().setAll(limits.stream().map(c -> new Bar(c, known.of(c))).toList());
    }

    /** Up and down go from limit to limit, left and right draw the one that has the focus, Enter asks. */
    boolean key(KeyCode code) {
        if (ask.isEmpty() || getChildren().isEmpty()) {
            return false;
        }
        int at = -1;
        for (int i = 0; i < getChildren().size(); i++) {
            at = getChildren().get(i).isFocused() ? i : at;
        }
        if (code == KeyCode.UP || code == KeyCode.DOWN) {
            int next = at < 0 ? 0 : Math.floorMod(at + (code == KeyCode.UP ? -1 : 1), getChildren().size());
            getChildren().get(next).requestFocus();
            return true;
        }
        return at >= 0 && ((Bar) getChildren().get(at)).press(code);
    }

    /** A value of a limit in its own unit, as people say it. */
    static String value(Constraint c, double value, Texts texts) {
        return switch (c.kind()) {
            case RAMP -> texts.rate(value).replace("+", "");
            case MELT_TIME -> Words.clock(value);
            case SPREAD -> texts.rise(value);
            default -> texts.temp(value);
        };
    }

    /** Room in the limit's own unit, without its sign. */
    static String room(Constraint c, Texts texts) {
        double by = Math.abs(c.room());
        return switch (c.kind()) {
            case RAMP -> texts.rate(by).replace("+", "");
            case MELT_TIME -> Words.clock(by);
            default -> texts.rise(by);
        };
    }

    /** One limit. */
    private final class Bar extends VBox {
        private static final double HIGH = 14;
        private final Constraint limit;
        private final Optional<Robustness.Held> held;
        private final double from;
        private final double to;
        private final double step;
        private final Label says = Looks.as(new Label(), "small");
        private final Pane track = new Pane();
        private final Rectangle ground = Looks.as(new Rectangle(), "room-track");
        private final Rectangle fill = Looks.as(new Rectangle(), "room-bar");
        private final Line spread = Looks.as(new Line(), "margin-spread");
        private final Line edge = Looks.as(new Line(), "margin-limit");
        private final Circle handle = Looks.as(new Circle(5), "margin-handle");
        private double drawn;

        Bar(Constraint limit, Optional<Robustness.Held> held) {
            super(0);
            this.limit = limit;
            this.held = held;
            drawn = limit.limit();
            boolean hot = switch (limit.kind()) {
                case RAMP, MELT_TIME, SPREAD -> false;
                default -> true;
            };
            from = hot ? limit.limit() - 70 : 0;
            to = hot ? limit.limit() + 30 : 2 * limit.limit();
            step = switch (limit.kind()) {
                case RAMP -> 0.2;
                case MELT_TIME -> 10;
                case SPREAD -> 1;
                default -> 2;
            };
            Label name = Looks.as(new Label(texts.say(limit.what())), "text-ink", "small");
            name.setMaxWidth(Double.MAX_VALUE);
            HBox.setHgrow(name, javafx.scene.layout.Priority.ALWAYS);
            says.setMinWidth(Region.USE_PREF_SIZE);
            var head = new HBox(8, name, says);
            head.setAlignment(Pos.BASELINE_LEFT);
            track.setMinHeight(HIGH);
            track.setPrefHeight(HIGH);
            for (Rectangle r : List.of(ground, fill)) {
                r.setHeight(6);
                r.setY((HIGH - 6) / 2);
                r.setArcHeight(6);
                r.setArcWidth(6);
            }
            track.getChildren().addAll(ground, fill, spread, edge);
            getChildren().addAll(head, track);
            String key = limit.kind().name().toLowerCase(Locale.ROOT) + "-" + limit.part();
            setId("margin-" + key);
            track.widthProperty().subscribe(w -> place());
            ask.ifPresent(told -> movable(told));
            say();
        }

        private void movable(BiConsumer<Constraint, Double> told) {
            track.getChildren().add(handle);
            track.setCursor(Cursor.H_RESIZE);
            setFocusTraversable(true);
            getStyleClass().add("margin-bar");
            setAccessibleText(texts.get("planner.move", texts.say(limit.what())));
            track.setOnMousePressed(press -> {
                requestFocus();
                draw(press);
            });
            track.setOnMouseDragged(this::draw);
            track.setOnMouseReleased(release -> {
                draw(release);
                asked(told);
            });
        }

        private boolean press(KeyCode code) {
            if (code == KeyCode.LEFT || code == KeyCode.RIGHT) {
                drawTo(drawn + (code == KeyCode.LEFT ? -step : step));
                return true;
            }
            if (code == KeyCode.ENTER) {
                ask.ifPresent(this::asked);
                return true;
            }
            return false;
        }

        private void asked(BiConsumer<Constraint, Double> told) {
            if (Math.abs(drawn - limit.limit()) > step / 4) {
                told.accept(limit, drawn);
            }
        }

        private void draw(MouseEvent at) {
            drawTo(from + (to - from) * at.getX() / Math.max(1, track.getWidth()));
        }

        private void drawTo(double value) {
            drawn = Math.clamp(Math.rint(value / step) * step, from + step, to);
            place();
            say();
        }

        private void say() {
            boolean moved = Math.abs(drawn - limit.limit()) > step / 4;
            says.setText(moved
                    ? texts.get("planner.margin.moved", value(limit, drawn, texts))
                    : texts.get(limit.kept() ? "planner.margin" : "planner.margin.over",
                            value(limit, limit.value(), texts), room(limit, texts)));
            says.getStyleClass().removeAll("ink-hot", "muted", "text-ink");
            says.getStyleClass().add(moved ? "text-ink" : limit.kept() ? "muted" : "ink-hot");
        }

        private double x(double value) {
            return track.getWidth() * Math.clamp((value - from) / (to - from), 0, 1);
        }

        private void place() {
            boolean melt = limit.kind() == Constraint.Kind.MELT;
            ground.setWidth(track.getWidth());
            fill.setWidth(Math.max(4, x(limit.value())));
            boolean over = !limit.kept();
            fill.pseudoClassStateChanged(Looks.MELT, melt);
            fill.pseudoClassStateChanged(Looks.CLOSE, !over && !melt && limit.ease() < 1);
            fill.pseudoClassStateChanged(Looks.OVER, over);
            held.ifPresent(h -> {
                spread.setStartX(x(h.low()));
                spread.setEndX(x(h.high()));
                spread.setStartY(HIGH / 2);
                spread.setEndY(HIGH / 2);
            });
            spread.setVisible(held.isPresent());
            edge.setStartX(x(drawn));
            edge.setEndX(x(drawn));
            edge.setStartY(1);
            edge.setEndY(HIGH - 1);
            handle.setCenterX(x(drawn));
            handle.setCenterY(HIGH / 2);
        }
    }
}
