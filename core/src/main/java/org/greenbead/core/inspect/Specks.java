package org.greenbead.core.inspect;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.greenbead.core.bead.Site;

/**
 * Small round bright things between the balls: peaks of a difference of Gaussians (Lindeberg 1998) at three sizes. Whether one is a stray
 * ball, the learned judge says; most are glints, dust, letters and copper.
 */
public final class Specks {
    /** Radii looked for, parts of the diameter of a ball. */
    private static final double[] RADII = {0.09, 0.15, 0.24};
    private static final double LEAST_RADIUS_PX = 1.3;
    /** Of a peak, on the root of light, over the root of what balls show. */
    private static final double LEAST_STRENGTH = 0.028;
    private static final int MOST = 60;
    private static final double SAME_DIAMETERS = 0.13;
    /** Closer to the middle of a ball than this part of its radius it is the ball itself. */
    private static final double OWN = 1.0;
    /** Where no ball stands, its pad is left out. */
    private static final double PAD_DIAMETERS = 0.45;
    private static final double FARTHEST_PITCHES = 1.4;

    private Specks() {
    }

    /** @param site the nearest */
    public record Speck(double xPx, double yPx, int site, double strength) {}

    /**
     * @param balls  x, y and radius (px) of the ball of each site; null where none stands
     */
    public static List<Speck> of(Raster picture, List<Site> sites, List<SiteViews.At> at, double[][] balls,
            double usualMm, double pitchMm) {
        double scale = at.getFirst().pxPerMm();
        double ballPx = usualMm * scale;
        Plane light = picture.light();
        double level = BeadCheck.median(at.stream().mapToDouble(a -> light.at(a.xPx(), a.yPx())).toArray());
        var all = new ArrayList<Peak>();
        for (double part : RADII) {
            double radius = Math.max(LEAST_RADIUS_PX, part * ballPx);
            Plane plane = light;
            int deep = 0;
            while (radius / (1 << deep) > 4) {
                plane = plane.half();
                deep++;
            }
            all.addAll(Peaks.find(plane, deep, radius, MOST + 2 * sites.size(), ballPx, picture.width(),
                    picture.height()).all);
        }
        all.removeIf(p -> p.strength() < LEAST_STRENGTH * level);
        all.sort(Comparator.comparingDouble(Peak::strength).reversed());
        var index = new Nearest(at, pitchMm * scale);
        var kept = new ArrayList<Speck>();
        for (Peak p : all) {
            int site = index.of(p.xPx(), p.yPx());
            if (site >= 0 && free(p, site, at, balls, ballPx, pitchMm * scale)
                    && kept.stream().noneMatch(k -> Math.hypot(k.xPx() - p.xPx(), k.yPx() - p.yPx()) < Math
                            .max(2, SAME_DIAMETERS * ballPx))) {
                kept.add(new Speck(p.xPx(), p.yPx(), site, p.strength() / level));
                if (kept.size() >= MOST + sites.size() / 4) {
                    break;
                }
            }
        }
        return kept;
    }

    private static boolean free(Peak p, int site, List<SiteViews.At> at, double[][] balls, double ballPx,
            double pitchPx) {
        double off = Math.hypot(p.xPx() - at.get(site).xPx(), p.yPx() - at.get(site).yPx());
        if (off > FARTHEST_PITCHES * pitchPx) {
            return false;
        }
        double[] b = balls[site];
        return b == null
                ? off > PAD_DIAMETERS * ballPx
                : Math.hypot(p.xPx() - b[0], p.yPx() - b[1]) > OWN * b[2];
    }

    /** The site nearest to a place, by cells of a pitch. */
    private static final class Nearest {
        private final List<SiteViews.At> at;
        private final double cell;
        private final java.util.Map<Long, List<Integer>> cells = new java.util.HashMap<>();

        Nearest(List<SiteViews.At> at, double cell) {
            this.at = at;
            this.cell = cell;
            for (int i = 0; i < at.size(); i++) {
                cells.computeIfAbsent(key(at.get(i).xPx(), at.get(i).yPx(), 0, 0), k -> new ArrayList<>())
                        .add(i);
            }
        }

        private long key(double x, double y, int right, int down) {
            return ((long) Math.floor(x / cell) + right) * 1_000_003L + (long) Math.floor(y / cell) + down;
        }

        /** @return -1 where none is near */
        int of(double x, double y) {
            int best = -1;
            double least = Double.MAX_VALUE;
            for (int right = -1; right <= 1; right++) {
                for (int down = -1; down <= 1; down++) {
                    for (int i : cells.getOrDefault(key(x, y, right, down), List.of())) {
                        double off = Math.hypot(at.get(i).xPx() - x, at.get(i).yPx() - y);
                        best = off < least ? i : best;
                        least = Math.min(least, off);
                    }
                }
            }
            return best;
        }
    }
}
