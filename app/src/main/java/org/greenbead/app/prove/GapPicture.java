package org.greenbead.app.prove;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.greenbead.app.look.Sketch;
import org.greenbead.core.bead.GapMap;

/** The chip from above with a bar outwards for every reading, as long as the gap there is high; the edge in hand stands out. */
final class GapPicture extends Sketch {
    private static final double ROOM = 64;
    private List<GapMap.Reading> readings = List.of();
    private Optional<GapMap> map = Optional.empty();
    private Optional<GapMap.Edge> hand = Optional.empty();
    private double wide = 1;
    private double deep = 1;

    GapPicture() {
        super(260, 260);
        setId("gap-picture");
    }

    void show(List<GapMap.Reading> now, Optional<GapMap> told, Optional<GapMap.Edge> edge, double wideMm,
            double deepMm) {
        readings = List.copyOf(now);
        map = told;
        hand = edge;
        wide = wideMm;
        deep = deepMm;
        requestLayout();
    }

    @Override
    protected void draw() {
        if (getWidth() < 120 || getHeight() < 120) {
            return;
        }
        double scale = Math.min((getWidth() - 2 * ROOM) / wide, (getHeight() - 2 * ROOM) / deep);
        double w = wide * scale / 2;
        double h = deep * scale / 2;
        double x = getWidth() / 2;
        double y = getHeight() / 2;
        line(x - w, y + h, x + w, y + h, edge(GapMap.Edge.SOUTH));
        line(x - w, y - h, x + w, y - h, edge(GapMap.Edge.NORTH));
        line(x + w, y - h, x + w, y + h, edge(GapMap.Edge.EAST));
        line(x - w, y - h, x - w, y + h, edge(GapMap.Edge.WEST));
        double most = readings.stream().mapToDouble(GapMap.Reading::mm).max().orElse(1);
        for (GapMap.Reading r : readings) {
            double out = (ROOM - 22) * r.mm() / most;
            double t = 2 * r.along() - 1;
            double[] at = switch (r.edge()) {
                case SOUTH -> new double[]{x + t * w, y + h, 0, 1};
                case NORTH -> new double[]{x - t * w, y - h, 0, -1};
                case EAST -> new double[]{x + w, y - t * h, 1, 0};
                case WEST -> new double[]{x - w, y + t * h, -1, 0};
            };
            line(at[0], at[1], at[0] + at[2] * out, at[1] + at[3] * out, "gap-bar");
        }
        map.ifPresent(m -> {
            text(mm(m.meanMm().get(GapMap.Edge.NORTH)), x - 18, y - h + 18, "chart-strong");
            text(mm(m.meanMm().get(GapMap.Edge.SOUTH)), x - 18, y + h - 8, "chart-strong");
            text(mm(m.meanMm().get(GapMap.Edge.WEST)), x - w + 6, y + 5, "chart-strong");
            text(mm(m.meanMm().get(GapMap.Edge.EAST)), x + w - 54, y + 5, "chart-strong");
        });
    }

    private String edge(GapMap.Edge edge) {
        return hand.equals(Optional.of(edge)) ? "gap-edge-now" : "gap-edge";
    }

    private static String mm(double gap) {
        return String.format(Locale.ENGLISH, "%.2f mm", gap);
    }
}
