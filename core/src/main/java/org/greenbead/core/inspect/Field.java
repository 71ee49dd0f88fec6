package org.greenbead.core.inspect;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.greenbead.core.bead.Site;

/**
 * The sites of a map as a picture shows them.
 *
 * @param usualMm  diameter where the map has none
 * @param sizePart part of the ball's diameter that is looked at: 1 for balls, less for their pads
 */
record Field(List<Site> sites, Projection projection, double pitchMm, double usualMm, double sizePart) {
    double x(Site s) {
        return projection.xPx(s.xMm(), s.yMm());
    }

    double y(Site s) {
        return projection.yPx(s.xMm(), s.yMm());
    }

    double scale(Site s) {
        return projection.pxPerMm(s.xMm(), s.yMm());
    }

    double nominal(Site s) {
        return s.diameterMm().orElse(usualMm);
    }

    double radius(Site s) {
        return scale(s) * nominal(s) / 2 * sizePart;
    }

    double typical() {
        return BeadCheck.median(sites.stream().mapToDouble(this::radius).toArray());
    }

    Field at(Projection better) {
        return new Field(sites, better, pitchMm, usualMm, sizePart);
    }

    /** Middle value on circles of this part of the radius. */
    double sampled(Plane plane, double part) {
        return over(plane, 12, s -> part * radius(s), 0);
    }

    /** Middle value in the gaps. */
    double between(Plane plane) {
        return over(plane, 8, s -> 0.65 * pitchMm * scale(s), 0.39);
    }

    private interface Reach {
        double of(Site site);
    }

    private double over(Plane plane, int rays, Reach reach, double turn) {
        int step = Math.max(1, sites.size() / 400);
        var values = new ArrayList<Float>();
        for (int i = 0; i < sites.size(); i += step) {
            Site s = sites.get(i);
            for (int a = 0; a < rays; a++) {
                double angle = 2 * Math.PI * a / rays + turn;
                values.add((float) plane.at(x(s) + reach.of(s) * Math.cos(angle),
                        y(s) + reach.of(s) * Math.sin(angle)));
            }
        }
        return BeadCheck.median(values);
    }

    /** A surface on which outlines are measured. */
    BallMeter meter(Plane... planes) {
        double typical = typical();
        double[] cap = new double[planes.length];
        double[] ground = new double[planes.length];
        for (int c = 0; c < planes.length; c++) {
            double level = sampled(planes[c], 0.72);
            cap[c] = Math.max(1e-3, 1.15 * level);
            ground[c] = Math.max(0.02 * cap[c], between(planes[c]));
        }
        double soft = typical > 6 ? Math.min(1.2, 0.045 * typical) : 0;
        // Glints along the rim of flux are narrow, balls are not.
        int narrow = Math.max(0, (int) Math.round(0.14 * typical - 0.35));
        // A strip at a time stays in the cache of the processor.
        Plane curve = planes[0].inStrips(2 * narrow + 4, (top, rows) -> {
            Plane strip = Raster.curve(Arrays.stream(planes).map(p -> p.cut(0, top, p.width, rows))
                    .toArray(Plane[]::new), cap, ground);
            strip = soft > 0 ? strip.smooth(soft) : strip;
            return narrow > 0 ? strip.opened(narrow) : strip;
        });
        return new BallMeter(curve, sampled(curve, 0.72), between(curve));
    }

    /** The picture as it would be if all balls were lit as the brightest: light falls off over a field. The factor is kept from 0.5 to 6, since beyond the balls it is guessed. */
    Raster evened(Raster picture) {
        List<Site> seen = sites.stream().filter(s -> picture.red.holds(x(s), y(s), radius(s))).toList();
        double[] light = seen.parallelStream().mapToDouble(s -> {
            double[] ring = new double[16];
            for (int a = 0; a < ring.length; a++) {
                double px = x(s) + 0.72 * radius(s) * Math.cos(a * Math.PI / 8);
                double py = y(s) + 0.72 * radius(s) * Math.sin(a * Math.PI / 8);
                ring[a] = (picture.red.at(px, py) + picture.green.at(px, py) + picture.blue.at(px, py)) / 3;
            }
            return BeadCheck.median(ring);
        }).toArray();
        var usual = new Evenness(seen.stream().mapToDouble(this::x).toArray(),
                seen.stream().mapToDouble(this::y).toArray(), light);
        double most = seen.stream().mapToDouble(s -> usual.at(x(s), y(s))).max().orElse(1);
        return picture.lit((x, y) -> Math.clamp(most / usual.at(x, y), 0.5, 6));
    }

    /** Medians of the three channels on circles, burnt-out places left out. */
    double[] colour(Raster picture, double part) {
        int step = Math.max(1, sites.size() / 500);
        var seen = List.of(new ArrayList<Float>(), new ArrayList<Float>(), new ArrayList<Float>());
        for (int i = 0; i < sites.size(); i += step) {
            Site s = sites.get(i);
            for (int a = 0; a < 10; a++) {
                double px = x(s) + part * radius(s) * Math.cos(a * 0.628);
                double py = y(s) + part * radius(s) * Math.sin(a * 0.628);
                double[] c = {picture.red.at(px, py), picture.green.at(px, py), picture.blue.at(px, py)};
                if (picture.red.holds(px, py, 1) && Arrays.stream(c).max().orElse(1) < 0.9) {
                    for (int k = 0; k < 3; k++) {
                        seen.get(k).add((float) c[k]);
                    }
                }
            }
        }
        return seen.stream().mapToDouble(BeadCheck::median).toArray();
    }
}
