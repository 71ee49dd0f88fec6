package org.greenbead.app.prove;

import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.shape.Circle;
import org.greenbead.app.look.Looks;
import org.greenbead.app.look.Sketch;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;
import org.greenbead.core.proof.PadRound;

/** The field of pads: those that need a meter stand out, and from the one in hand lines go to where else its net can be found. */
final class PadField extends Sketch {
    private static final double ROOM = 26;
    private static final int MOST_LINES = 12;
    private final Consumer<String> press;
    private Optional<Shown> shown = Optional.empty();

    /** @param board as the board shows it; else as the balls show it, left and right exchanged */
    record Shown(BeadMap map, PadRound round, Optional<PadRound.Stop> now, boolean board) {}

    /** @param press told the name of the pad that was pressed */
    PadField(Consumer<String> press) {
        super(260, 220);
        this.press = press;
        setId("pad-field");
    }

    void show(Optional<Shown> now) {
        shown = now;
        requestLayout();
    }

    @Override
    protected void draw() {
        shown.filter(s -> getWidth() > 80 && getHeight() > 80).ifPresent(this::draw);
    }

    private void draw(Shown s) {
        double left = s.map().sites().stream().mapToDouble(Site::xMm).min().orElseThrow();
        double right = s.map().sites().stream().mapToDouble(Site::xMm).max().orElseThrow();
        double low = s.map().sites().stream().mapToDouble(Site::yMm).min().orElseThrow();
        double high = s.map().sites().stream().mapToDouble(Site::yMm).max().orElseThrow();
        double pitch = s.map().sites().size() > 1 ? s.map().pitchMm() : 1;
        double scale = Math.min((getWidth() - 2 * ROOM) / (right - left + pitch),
                (getHeight() - 2 * ROOM) / (high - low + pitch));
        double midX = (left + right) / 2;
        double midY = (low + high) / 2;
        double hand = s.board() ? -1 : 1;
        double r = Math.max(2, 0.32 * pitch * scale);
        Place at = site -> new double[]{getWidth() / 2 + hand * (site.xMm() - midX) * scale,
                getHeight() / 2 - (site.yMm() - midY) * scale};
        s.now().filter(n -> !n.net().isBlank()).flatMap(PadRound.Stop::place).ifPresent(here -> s.map()
                .sites()
                .stream()
                .filter(o -> o.net().equals(s.now().orElseThrow().net()) && !o.name().equals(here.name()))
                .sorted(java.util.Comparator.comparingDouble(here::distanceMm)).limit(MOST_LINES)
                .forEach(o -> line(at.of(here)[0], at.of(here)[1], at.of(o)[0], at.of(o)[1], "pad-net")));
        for (Site site : s.map().sites()) {
            pad(s, site, at.of(site), r);
        }
        s.map().site("A1").ifPresent(a -> text("A1", at.of(a)[0] - 8, at.of(a)[1] - r - 4, "chart-strong"));
    }

    private interface Place {
        double[] of(Site site);
    }

    private void pad(Shown s, Site site, double[] at, double r) {
        Optional<PadRound.Stop> stop = s.round().at(site.name());
        boolean here = s.now().filter(n -> n.site().equals(site.name())).isPresent();
        String look = here
                ? "pad-here"
                : stop.isEmpty() ? "pad-plain" : stop.get().open() ? "pad-open" : "pad-told";
        var disc = Looks.as(new Circle(at[0], at[1], here ? 1.35 * r : r), look);
        disc.setId("pad-" + site.name().replace(':', '-'));
        disc.setOnMouseClicked(click -> press.accept(site.name()));
        add(disc);
        stop.ifPresent(p -> {
            switch (p.verdict()) {
                case OPEN, CARRIED -> {
                    line(at[0] - 0.7 * r, at[1] - 0.7 * r, at[0] + 0.7 * r, at[1] + 0.7 * r, "pad-mark");
                    line(at[0] - 0.7 * r, at[1] + 0.7 * r, at[0] + 0.7 * r, at[1] - 0.7 * r, "pad-mark");
                }
                case SHORTED, LEAKS -> line(at[0] - 1.5 * r, at[1], at[0] + 1.5 * r, at[1], "pad-mark");
                case UNREAD -> text("?", at[0] - 3, at[1] + 4, "chart-strong");
                case UNCOVERED, FINE -> {
                    // Its ring says enough.
                }
            }
        });
    }
}
