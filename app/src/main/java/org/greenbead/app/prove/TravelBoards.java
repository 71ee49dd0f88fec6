package org.greenbead.app.prove;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.Cursor;
import javafx.scene.shape.Line;
import javafx.scene.shape.Polygon;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Text;
import org.greenbead.app.look.Looks;
import org.greenbead.app.look.Sketch;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Side;
import org.greenbead.core.travel.LiftOrder;
import org.greenbead.core.travel.TravelSet;
import org.greenbead.core.travel.TravelTable;

/** The unit's board and the donor's beside one another: which chips go over, in which order they come off and go on. */
final class TravelBoards extends Sketch {
    private static final double GAP = 56;
    private static final double HEAD = 24;
    private final Consumer<String> press;
    private final String from;
    private final String to;
    private Optional<Board> board = Optional.empty();
    private Optional<TravelSet> set = Optional.empty();

    /** @param press told the chip that was pressed */
    TravelBoards(String from, String to, Consumer<String> press) {
        super(300, 180);
        this.from = from;
        this.to = to;
        this.press = press;
    }

    void show(Optional<Board> on, Optional<TravelSet> now) {
        board = on;
        set = now;
        requestLayout();
    }

    @Override
    protected void draw() {
        if (board.isEmpty() || getWidth() < 120 || getHeight() < 80) {
            return;
        }
        Board b = board.get();
        double wide = (getWidth() - GAP) / 2;
        double scale = Math.min(wide / b.sizeMm().xMm(), (getHeight() - HEAD - 6) / b.sizeMm().yMm());
        double top = HEAD + (getHeight() - HEAD - scale * b.sizeMm().yMm()) / 2;
        double inset = (wide - scale * b.sizeMm().xMm()) / 2;
        side(b, inset, top, scale, false);
        side(b, wide + GAP + inset, top, scale, true);
        arrow(wide + GAP / 2, top + scale * b.sizeMm().yMm() / 2);
        text(from, inset, HEAD - 8, "chart-strong");
        text(to, wide + GAP + inset, HEAD - 8, "chart-strong");
    }

    private void side(Board b, double left, double top, double scale, boolean donor) {
        double high = scale * b.sizeMm().yMm();
        Rectangle outline = Looks.as(new Rectangle(left, top, scale * b.sizeMm().xMm(), high), "plan-board");
        outline.setArcWidth(8);
        outline.setArcHeight(8);
        add(outline);
        List<Chip> order = set.flatMap(s -> donor ? s.seat() : s.lift()).map(LiftOrder.Order::chips)
                .orElse(List.of());
        for (Chip chip : b.chips()) {
            double w = Math.max(9, scale * chip.sizeMm().xMm());
            double h = Math.max(9, scale * chip.sizeMm().yMm());
            double x = left + scale * chip.centreMm().xMm() - w / 2;
            double y = top + high - scale * chip.centreMm().yMm() - h / 2;
            boolean moves = set.filter(s -> s.moving().contains(chip.name())).isPresent();
            Rectangle body = new Rectangle(x, y, w, h);
            body.setArcWidth(4);
            body.setArcHeight(4);
            body.setId((donor ? "lands-" : "leaves-") + chip.name());
            Looks.as(body, moves ? "travel-moves" : "travel-stays", "travel-" + need(chip));
            body.pseudoClassStateChanged(Looks.UNDER, chip.side() == Side.BOTTOM);
            body.setCursor(Cursor.HAND);
            body.setOnMouseClicked(click -> press.accept(chip.name()));
            add(body);
            int at = order.indexOf(chip);
            if (at >= 0) {
                Text number = text(Integer.toString(at + 1), 0, y + h / 2 + 5, "travel-number");
                number.setX(x + w / 2 - number.getLayoutBounds().getWidth() / 2);
            }
            text(chip.name(), x + w + 3, y + 10, moves ? "chart-strong" : "chart-text");
        }
    }

    private String need(Chip chip) {
        return set.stream().flatMap(s -> s.bound().rows().stream())
                .filter(r -> r.chip().equalsIgnoreCase(chip.name())).map(TravelTable.Row::need).findFirst()
                .map(n -> n.name().toLowerCase(Locale.ROOT)).orElse("unsaid");
    }

    private void arrow(double x, double y) {
        add(Looks.as(new Line(x - 18, y, x + 12, y), "travel-arrow"));
        add(Looks.as(new Polygon(x + 10, y - 7, x + 22, y, x + 10, y + 7), "travel-arrow-head"));
    }

}
