package org.greenbead.app.prove;

import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import javafx.scene.Cursor;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Text;
import org.greenbead.app.look.Looks;
import org.greenbead.app.look.Sketch;
import org.greenbead.core.configure.Strap;
import org.greenbead.core.configure.StrapTable;
import org.greenbead.core.proof.ProofWall;

/**
 * Pairs of configuration resistors as they hang between supply and ground: what is fitted is filled, what is to be taken off is
 * crossed, what is to be fitted is dashed, and the pin between them says its volts and its level.
 */
final class StrapPicture extends Sketch {
    private static final double RAIL = 22;
    private static final double WIDE = 18;
    private final Consumer<String> press;
    private Optional<Shown> shown = Optional.empty();

    /**
     * @param fitted designators that hold a resistor
     * @param then   those that hold one once the work is done
     * @param picked the pair that keys act on
     */
    record Shown(StrapTable table, Set<String> fitted, Set<String> then, int picked) {}

    /** @param press told the designator that was pressed */
    StrapPicture(Consumer<String> press) {
        super(260, 190);
        this.press = press;
    }

    void show(Optional<Shown> now) {
        shown = now;
        requestLayout();
    }

    @Override
    protected void draw() {
        shown.filter(s -> getWidth() > 80).ifPresent(this::draw);
    }

    private void draw(Shown s) {
        double bottom = getHeight() - RAIL;
        line(8, RAIL, getWidth() - 8, RAIL, "strap-rail");
        line(8, bottom, getWidth() - 8, bottom, "strap-rail");
        text(String.format(Locale.ROOT, "%.2f V", s.table().supply().vccV()), 8, RAIL - 6, "chart-strong");
        text("0 V", 8, bottom + 16, "chart-strong");
        double each = (getWidth() - 60) / s.table().straps().size();
        for (int i = 0; i < s.table().straps().size(); i++) {
            pair(s, i, 50 + each * (i + 0.5), bottom);
        }
    }

    private void pair(Shown s, int index, double x, double bottom) {
        Strap strap = s.table().straps().get(index);
        double middle = (RAIL + bottom) / 2;
        double tall = (middle - RAIL) * 0.44;
        if (index == s.picked()) {
            Rectangle here = Looks.as(new Rectangle(x - 34, RAIL + 4, 106, bottom - RAIL - 8), "strap-here");
            add(here);
        }
        line(x, RAIL, x, bottom, "strap-wire");
        resistor(s, strap.up(), strap.upOhm(), x, (RAIL + middle) / 2 - 8, tall);
        resistor(s, strap.down(), strap.downOhm(), x, (bottom + middle) / 2 + 8, tall);
        Strap.Reading reading = s.table().reading(strap, s.then());
        boolean odd = reading.level() == Strap.Level.FLOATING || reading.level() == Strap.Level.UNDEFINED
                || s.then().contains(strap.up()) == s.then().contains(strap.down());
        Text level = text(switch (reading.level()) {
            case HIGH -> "1";
            case LOW -> "0";
            case UNDEFINED, FLOATING -> "?";
        }, 0, middle + 6, odd ? "strap-level-odd" : "strap-level");
        level.setX(x - 14 - level.getLayoutBounds().getWidth());
        if (reading.level() != Strap.Level.FLOATING) {
            text(String.format(Locale.ROOT, "%.2f V", reading.nominalV()), x + 9, middle + 4, "chart-mono");
        }
        add(Looks.as(new javafx.scene.shape.Circle(x, middle, 4), odd ? "strap-pin-odd" : "strap-pin"));
        Text name = text(strap.name(), 0, bottom + 16, "chart-strong");
        name.setX(x - name.getLayoutBounds().getWidth() / 2);
    }

    private void resistor(Shown s, String place, double ohm, double x, double y, double tall) {
        boolean now = s.fitted().contains(place);
        boolean then = s.then().contains(place);
        Rectangle body = new Rectangle(x - WIDE / 2, y - tall / 2, WIDE, tall);
        body.setId("strap-" + place);
        Looks.as(body, now ? then ? "strap-fitted" : "strap-take" : then ? "strap-fit" : "strap-empty");
        body.setCursor(Cursor.HAND);
        body.setOnMouseClicked(click -> press.accept(place));
        add(body);
        if (now && !then) {
            line(x - WIDE / 2 - 4, y - tall / 2, x + WIDE / 2 + 4, y + tall / 2, "strap-cross");
            line(x + WIDE / 2 + 4, y - tall / 2, x - WIDE / 2 - 4, y + tall / 2, "strap-cross");
        }
        text(place, x + WIDE / 2 + 5, y - 2, "chart-text");
        text(ProofWall.said(ohm, Locale.ROOT), x + WIDE / 2 + 5, y + 12, "chart-mono");
    }

}
