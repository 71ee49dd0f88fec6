package org.greenbead.core.inspect;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.greenbead.core.bead.Site;

/** Solder where no site is: a small bright disc with dark all round. A glint of flux is bright too, but has no body. */
final class Strays {
    private static final int RAYS = 20;
    /** Of the diameter of a ball. */
    private static final double LEAST_PART = 0.167;
    private static final double MOST_PART = 1.5;
    private static final double BODY = 0.3;
    private static final double CALM = 0.8;
    /** Within this part of a radius from a ball there is flux with glints more often than there are beads. */
    private static final double CLOSE = 0.3;
    /** Radius over that of a point of light as bright. */
    private static final double BESIDE = 1.2;
    private static final double ALONE = 0.83;
    /** Within this part of a radius from its rim, so many bright points say that flux lies round a ball: 11 round one such, one at most where a bead lay (rendered photos). */
    private static final double ROUND = 0.8;
    private static final int MANY_GLINTS = 6;
    private static final double AMID_FLUX = 1.5;
    private final Plane light;
    private final double mostMm;
    private final double leastMm;
    private final double rim;
    private final double blurPx;
    private final List<Site> sites;
    private final Circle[] circles;
    private final Map<Integer, List<Integer>> bridges;
    private final double pitchMm;
    private final Projection projection;

    /** @param rim usual light near the rim of a ball, @param blurPx of the picture, 0 where it is not known */
    Strays(Plane light, double usualMm, double rim, double blurPx, List<Site> sites, Circle[] circles,
            Map<Integer, List<Integer>> bridges,
            double pitchMm, Projection projection) {
        this.light = light;
        this.mostMm = MOST_PART * usualMm;
        this.leastMm = LEAST_PART * usualMm;
        this.rim = rim;
        this.blurPx = blurPx;
        this.sites = sites;
        this.circles = circles;
        this.bridges = bridges;
        this.pitchMm = pitchMm;
        this.projection = projection;
    }

    /** A bright point, the ball closest to it, and its way to that ball's rim in parts of the radius. */
    private record Bright(double x, double y, double light, int ball, double gap) {}

    List<BeadReport.Stray> found() {
        Plane calm = light.smooth(CALM);
        double scale = projection.pxPerMm(sites.getFirst().xMm(), sites.getFirst().yMm());
        List<Bright> points = points(calm);
        int[] round = new int[circles.length];
        points.stream().filter(p -> p.gap() < ROUND).forEach(p -> round[p.ball()]++);
        var seen = new ArrayList<BeadReport.Stray>();
        for (Bright p : points) {
            double r = body(calm, p.x(), p.y(), scale);
            boolean flux = p.gap() < ROUND && round[p.ball()] >= MANY_GLINTS;
            double least = flux ? AMID_FLUX : p.gap() < CLOSE ? BESIDE : ALONE;
            if (2 * r / scale >= leastMm && 2 * r / scale <= mostMm && r >= 2.2
                    && r > pointPx(p.light()) * least) {
                seen.add(new BeadReport.Stray(p.x(), p.y(), 2 * r / scale));
            }
        }
        return apart(seen, scale);
    }

    private List<Bright> points(Plane calm) {
        boolean[] closed = closed();
        var points = new ArrayList<Bright>();
        int w = calm.width;
        for (int y = 2; y < calm.height - 2; y++) {
            for (int x = 2; x < w - 2; x++) {
                int i = y * w + x;
                float here = calm.v[i];
                if (!closed[i] && here >= 1.2 * rim && here >= calm.v[i - 1] && here > calm.v[i + 1]
                        && here >= calm.v[i - w] && here > calm.v[i + w]) {
                    points.add(bright(x + 0.5, y + 0.5, here));
                }
            }
        }
        return points;
    }

    private Bright bright(double x, double y, double here) {
        int ball = -1;
        double least = Double.MAX_VALUE;
        for (int i = 0; i < circles.length; i++) {
            Circle c = circles[i];
            if (c != null) {
                double gap = Math.hypot(c.xPx() - x, c.yPx() - y) / c.rPx() - 1;
                ball = gap < least ? i : ball;
                least = Math.min(least, gap);
            }
        }
        return new Bright(x, y, here, ball, least);
    }

    /** How large a point of light of this brightness is seen: a Gaussian, cut where a body ends. */
    private double pointPx(double bright) {
        return Math.hypot(blurPx, CALM) * Math.sqrt(2 * Math.log(bright / (BODY * rim)));
    }

    /** Radius to which it is bright in nearly every direction, 0 when it is not dark beyond. */
    private double body(Plane calm, double x, double y, double scale) {
        double least = BODY * rim;
        double radius = 0;
        for (double r = 1.5; r < 0.5 * mostMm * scale + 2; r += 0.5) {
            if (bright(calm, x, y, r, least) < 0.85) {
                break;
            }
            radius = r;
        }
        return radius > 0 && bright(calm, x, y, 1.35 * radius + 2, least) < 0.35 ? radius + 0.25 : 0;
    }

    private static double bright(Plane plane, double x, double y, double r, double least) {
        int n = 0;
        for (int i = 0; i < RAYS; i++) {
            double a = 2 * Math.PI * i / RAYS;
            if (plane.at(x + r * Math.cos(a), y + r * Math.sin(a)) > least) {
                n++;
            }
        }
        return n / (double) RAYS;
    }

    private static List<BeadReport.Stray> apart(List<BeadReport.Stray> all, double scale) {
        var kept = new ArrayList<BeadReport.Stray>();
        all.stream().sorted(Comparator.comparingDouble(BeadReport.Stray::diameterMm).reversed())
                .forEach(s -> {
                    if (kept.stream().noneMatch(
                            k -> Math.hypot(k.xPx() - s.xPx(), k.yPx() - s.yPx()) < k.diameterMm() * scale)) {
                        kept.add(s);
                    }
                });
        return kept;
    }

    /** What is not looked at: balls, bare pads, bridges, and everything beyond the field. */
    private boolean[] closed() {
        var closed = new boolean[light.width * light.height];
        java.util.Arrays.fill(closed, true);
        for (Site s : sites) {
            double p = pitchMm * projection.pxPerMm(s.xMm(), s.yMm());
            paint(closed, projection.xPx(s.xMm(), s.yMm()), projection.yPx(s.xMm(), s.yMm()), 1.05 * p,
                    false);
        }
        for (int i = 0; i < circles.length; i++) {
            Site s = sites.get(i);
            if (circles[i] == null) {
                paint(closed, projection.xPx(s.xMm(), s.yMm()), projection.yPx(s.xMm(), s.yMm()),
                        0.4 * pitchMm * projection.pxPerMm(s.xMm(), s.yMm()), true);
                continue;
            }
            paint(closed, circles[i].xPx(), circles[i].yPx(), 1.04 * circles[i].rPx() + 1, true);
            for (int j : bridges.getOrDefault(i, List.of())) {
                if (circles[j] != null) {
                    for (int k = 1; k < 10; k++) {
                        double t = k / 10.0;
                        paint(closed, circles[i].xPx() + t * (circles[j].xPx() - circles[i].xPx()),
                                circles[i].yPx() + t * (circles[j].yPx() - circles[i].yPx()),
                                circles[i].rPx(), true);
                    }
                }
            }
        }
        return closed;
    }

    private void paint(boolean[] closed, double x, double y, double r, boolean value) {
        for (int py = (int) Math.max(0, y - r); py <= Math.min(light.height - 1, y + r); py++) {
            double down = py + 0.5 - y;
            if (Math.abs(down) > r) {
                continue;
            }
            double half = Math.sqrt(r * r - down * down);
            int from = (int) Math.max(0, Math.ceil(x - half - 0.5));
            int to = (int) Math.min(light.width - 1, Math.floor(x + half - 0.5));
            if (from <= to) {
                java.util.Arrays.fill(closed, py * light.width + from, py * light.width + to + 1, value);
            }
        }
    }
}
