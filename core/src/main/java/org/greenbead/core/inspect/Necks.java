package org.greenbead.core.inspect;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.greenbead.core.bead.Site;

/** Solder between neighbours: along the line from ball to ball it never gets dark, over a width that a glint of flux does not have. */
final class Necks {
    /** Between ground, 0, and balls, 1, on the logarithmic scale: bridges 0.97 and more, flux between two balls 0.66 at most (rendered photos). */
    private static final double NECK_PART = 0.68;
    private final BallMeter meter;
    private final List<Site> sites;
    private final Circle[] circles;
    private final double pitchMm;
    private final Projection projection;

    Necks(BallMeter meter, List<Site> sites, Circle[] circles, double pitchMm, Projection projection) {
        this.meter = meter;
        this.sites = sites;
        this.circles = circles;
        this.pitchMm = pitchMm;
        this.projection = projection;
    }

    Map<Integer, List<Integer>> bridges() {
        Map<Integer, List<Integer>> found = new HashMap<>();
        Map<Long, List<Integer>> cells = new HashMap<>();
        double cell = 1.5 * pitchMm;
        for (int i = 0; i < sites.size(); i++) {
            cells.computeIfAbsent(
                    key(Math.floor(sites.get(i).xMm() / cell), Math.floor(sites.get(i).yMm() / cell)),
                    k -> new ArrayList<>()).add(i);
        }
        for (int i = 0; i < sites.size(); i++) {
            double cx = Math.floor(sites.get(i).xMm() / cell);
            double cy = Math.floor(sites.get(i).yMm() / cell);
            for (double x = cx - 1; x <= cx + 1; x++) {
                for (double y = cy - 1; y <= cy + 1; y++) {
                    for (int j : cells.getOrDefault(key(x, y), List.of())) {
                        if (j > i && sites.get(i).distanceMm(sites.get(j)) < 1.5 * pitchMm && neck(i, j)) {
                            found.computeIfAbsent(i, k -> new ArrayList<>()).add(j);
                            found.computeIfAbsent(j, k -> new ArrayList<>()).add(i);
                        }
                    }
                }
            }
        }
        return found;
    }

    private static long key(double x, double y) {
        return (long) x * 1_000_003L + (long) y;
    }

    private boolean neck(int i, int j) {
        Circle a = circles[i];
        Circle b = circles[j];
        if (a == null || b == null) {
            return false;
        }
        double scale = projection.pxPerMm(sites.get(i).xMm(), sites.get(i).yMm());
        double ra = Math.min(a.rPx(), 0.6 * pitchMm * scale);
        double rb = Math.min(b.rPx(), 0.6 * pitchMm * scale);
        double dx = b.xPx() - a.xPx();
        double dy = b.yPx() - a.yPx();
        double far = Math.hypot(dx, dy);
        if (far < 0.4 * pitchMm * scale) {
            return false;
        }
        double ux = dx / far;
        double uy = dy / far;
        double from = 0.8 * ra;
        double to = far - 0.8 * rb;
        int count = Math.max(4, (int) Math.ceil((to - from) / 0.7));
        double width = 0.22 * Math.min(ra, rb);
        for (int k = 0; k <= count; k++) {
            double t = from + (to - from) * k / count;
            // Mean over a part of the width, the best place across: a neck is broad, a glint is a line.
            double best = 0;
            for (int m = -2; m <= 2; m++) {
                double side = m * 0.12 * Math.min(ra, rb);
                double sum = 0;
                for (int n = -2; n <= 2; n++) {
                    double off = side + n * width / 4;
                    sum += meter.tin().at(a.xPx() + ux * t - uy * off, a.yPx() + uy * t + ux * off);
                }
                best = Math.max(best, sum / 5);
            }
            if (meter.part(best) <= NECK_PART) {
                return false;
            }
        }
        return true;
    }
}
