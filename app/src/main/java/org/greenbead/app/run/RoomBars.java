package org.greenbead.app.run;

import java.util.List;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Rectangle;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.run.Room;

/** Degrees between each part and its limit: a bar for now, a tick for the limit, a hollow tick for the expected peak. */
public final class RoomBars extends VBox {
    private static final double COLD_C = 20;
    private static final double HOT_C = 260;

    private boolean compact;

    public RoomBars() {
        setSpacing(4);
    }

    /** Says degrees alone, without what gives way. */
    public void compact(boolean now) {
        compact = now;
    }

    /** @param atPeak judge by the peak instead of now */
    public void show(List<Room> rooms, boolean atPeak, Texts texts) {
        if (getChildren().size() != rooms.size()) {
            getChildren().setAll(rooms.stream().map(r -> new Bar()).toList());
        }
        for (int i = 0; i < rooms.size(); i++) {
            ((Bar) getChildren().get(i)).show(rooms.get(i), atPeak, compact, texts);
        }
    }

    /** One part. */
    private static final class Bar extends VBox {
        private final Label name = Looks.as(new Label(), "text-ink", "small");
        private final Label left = Looks.as(new Label(), "muted", "small");
        private final Pane track = new Pane();
        private final Rectangle ground = Looks.as(new Rectangle(), "room-track");
        private final Rectangle fill = Looks.as(new Rectangle(), "room-bar");
        private final Rectangle limit = Looks.as(new Rectangle(2.4, 11), "room-limit");
        private final Rectangle peak = Looks.as(new Rectangle(3, 10), "room-peak");
        private double now;
        private double limitC;
        private double peakC;

        Bar() {
            setSpacing(0);
            var gap = new Region();
            HBox.setHgrow(gap, Priority.ALWAYS);
            left.setMinWidth(Region.USE_PREF_SIZE);
            getChildren().addAll(new HBox(name, gap, left), track);
            track.getChildren().addAll(ground, fill, peak, limit);
            track.setMinHeight(11);
            track.setPrefHeight(11);
            for (Rectangle r : List.of(ground, fill)) {
                r.setHeight(6);
                r.setY(3);
                r.setArcHeight(6);
                r.setArcWidth(6);
            }
            peak.setY(1);
            track.widthProperty().subscribe(w -> place());
        }

        void show(Room room, boolean atPeak, boolean compact, Texts texts) {
            boolean melt = room.kind() == Room.Kind.MUST_MELT;
            double judged = atPeak ? room.peakC() : room.nowC();
            double room1 = room.limitC() - judged;
            name.setText(texts.say(room.what()));
            String word;
            if (melt) {
                word = room1 > 0
                        ? texts.get("run.room.needs", texts.rise(room1))
                        : texts.get("run.room.molten");
            } else if (room1 < 0) {
                word = texts.get("run.room.over", texts.rise(-room1));
            } else {
                word = texts.get(switch (room.kind()) {
                    case JOINTS -> "run.room.melt";
                    case PART -> "run.room.part";
                    default -> "run.room.limit";
                }, texts.rise(room1));
            }
            left.setText(compact && !(melt && room1 <= 0) ? texts.rise(room1) : word);
            now = atPeak ? room.peakC() : room.nowC();
            limitC = room.limitC();
            peakC = atPeak ? Double.NaN : room.peakC();
            double closest = Double.isFinite(room.peakC())
                    ? Math.min(room1, room.limitC() - room.peakC())
                    : room1;
            fill.pseudoClassStateChanged(Looks.MELT, melt);
            fill.pseudoClassStateChanged(Looks.CLOSE,
                    !melt && closest < 10 && room1 >= 0);
            fill.pseudoClassStateChanged(Looks.OVER, !melt && room1 < 0);
            place();
        }

        private double at(double celsius) {
            return track.getWidth() * Math.clamp((celsius - COLD_C) / (HOT_C - COLD_C), 0.01, 1);
        }

        private void place() {
            ground.setWidth(track.getWidth());
            fill.setWidth(Double.isFinite(now) ? at(now) : 0);
            limit.setX(at(limitC) - 1.2);
            peak.setVisible(Double.isFinite(peakC) && peakC > now + 2);
            if (peak.isVisible()) {
                peak.setX(at(peakC) - 1.5);
            }
        }
    }
}
