package org.greenbead.app.work;

import java.util.Locale;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Rectangle;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.book.Facts;
import org.greenbead.core.chip.Orientation;
import org.greenbead.core.chip.Orientation.Corner;
import org.greenbead.core.chip.Orientation.View;

/** Where the mark lies: seen from the top as on the board, from the balls, and as it must lie in the jig. */
final class OrientationCard {
    private static final double SIDE = 46;

    private OrientationCard() {
    }

    /** Empty while the corner or the view has not been noted. */
    static Optional<Region> of(Facts facts, Texts texts) {
        Optional<Corner> corner = facts.at("orientation.corner").map(String::valueOf).flatMap(Corner::read);
        Optional<View> view = facts.at("orientation.view")
                .map(v -> String.valueOf(v).equals("ball") ? View.BALL : View.TOP);
        if (corner.isEmpty() || view.isEmpty()) {
            return Optional.empty();
        }
        int turn = facts.at("chip.jig_rotation_deg").filter(Double.class::isInstance)
                .map(d -> ((Double) d).intValue())
                .orElse(0);
        var row = new HBox(14,
                drawn(Orientation.seen(corner.get(), view.get(), View.TOP), texts.get("mark.top"), texts),
                drawn(Orientation.seen(corner.get(), view.get(), View.BALL), texts.get("mark.ball"), texts),
                drawn(Orientation.inJig(corner.get(), view.get(), turn), texts.get("mark.jig", turn), texts));
        row.setAlignment(Pos.TOP_LEFT);
        var card = Looks.as(new VBox(4, Looks.label(texts.get("mark.caps"), "caps"), row), "card");
        card.setId("orientation-card");
        return Optional.of(card);
    }

    private static Region drawn(Corner corner, String caption, Texts texts) {
        var pane = new Pane();
        pane.setMinSize(SIDE + 2, SIDE + 2);
        pane.setMaxSize(SIDE + 2, SIDE + 2);
        double x = corner == Corner.NW || corner == Corner.SW ? 9 : SIDE - 9;
        double y = corner == Corner.NW || corner == Corner.NE ? 9 : SIDE - 9;
        pane.getChildren().addAll(Looks.as(new Rectangle(1, 1, SIDE, SIDE), "compass-chip"),
                Looks.as(new Circle(x, y, 5), "mark-dot"));
        String where = texts.say("corner4." + corner.name().toLowerCase(Locale.ROOT));
        var box = new VBox(2, pane, Looks.label(where, "small", "strong", "text-ink"),
                Looks.label(caption, "small", "muted"));
        box.setPrefWidth(92);
        box.setAccessibleText(caption + " " + where);
        return box;
    }
}
