package org.greenbead.core.inspect;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;

/**
 * Lays one photo on another of the same flat place: patches rich in detail are looked for in the other photo by normalised correlation
 * (Lewis 1995), coarse to fine; a similarity by consensus (Fischler and Bolles 1981) throws out those that changed, then a homography is
 * fitted.
 */
final class Registered {
    private static final int COARSE_WIDTH = 230;
    private static final double LEAST = 0.62;
    /** The unit of the projection: hundredths keep its numbers near one. */
    static final double UNIT = 100;

    private Registered() {
    }

    private record Match(double x, double y, double toX, double toY) {}

    static Optional<Projection> of(Plane before, Plane after) {
        var a = new ArrayList<Plane>(List.of(before));
        var b = new ArrayList<Plane>(List.of(after));
        while (a.getLast().width > COARSE_WIDTH && a.getLast().height > 60) {
            a.add(a.getLast().half());
            b.add(b.getLast().half());
        }
        int top = a.size() - 1;
        double scale = 1 << top;
        Plane small = a.get(top);
        var matches = new ArrayList<Match>();
        for (int turn = -12; turn <= 12; turn += 6) {
            List<Match> some = patches(small, b.get(top), 9, 7, 8, Math.toRadians(turn), null,
                    small.width / 8);
            if (some.size() > matches.size()) {
                matches = new ArrayList<>(some);
            }
        }
        Optional<Projection> start = consensus(matches, scale, before);
        for (int level = top; level >= Math.max(0, top - 2) && start.isPresent(); level--) {
            double s = 1 << level;
            Projection now = start.get();
            List<Match> fine = patches(a.get(level), b.get(level), 14, 11, 9, 0, new At(now, s), 4);
            double[][] from = fine.stream().map(m -> new double[]{m.x * s / UNIT, m.y * s / UNIT})
                    .toArray(double[][]::new);
            double[][] to = fine.stream().map(m -> new double[]{m.toX * s, m.toY * s})
                    .toArray(double[][]::new);
            start = from.length < 8
                    ? Optional.empty()
                    : now.fitted(from, to, from.length < 16 ? Projection.Form.AFFINE : Projection.Form.PLANE);
        }
        return start;
    }

    /** Where something is expected, at one level of the pyramid. */
    private record At(Projection by, double scale) {
        double x(double x, double y) {
            return by.xPx(x * scale / UNIT, y * scale / UNIT) / scale;
        }

        double y(double x, double y) {
            return by.yPx(x * scale / UNIT, y * scale / UNIT) / scale;
        }
    }

    private static List<Match> patches(Plane a, Plane b, int across, int down, int half, double turn,
            At expected,
            int reach) {
        var cells = new ArrayList<int[]>();
        for (int cy = 0; cy < down; cy++) {
            for (int cx = 0; cx < across; cx++) {
                int[] best = null;
                double most = 1e-5;
                for (int y = cy * a.height / down; y < (cy + 1) * a.height / down; y += 3) {
                    for (int x = cx * a.width / across; x < (cx + 1) * a.width / across; x += 3) {
                        if (x > half + 1 && y > half + 1 && x < a.width - half - 2
                                && y < a.height - half - 2) {
                            double v = Patch.variance(a, x, y, half);
                            if (v > most) {
                                most = v;
                                best = new int[]{x, y};
                            }
                        }
                    }
                }
                if (best != null) {
                    cells.add(best);
                }
            }
        }
        return cells.parallelStream().map(c -> {
            var patch = Patch.of(a, c[0] + 0.5, c[1] + 0.5, half, turn, expected == null ? null : expected::x,
                    expected == null ? null : expected::y);
            double x = expected == null ? c[0] + 0.5 : expected.x(c[0] + 0.5, c[1] + 0.5);
            double y = expected == null ? c[1] + 0.5 : expected.y(c[0] + 0.5, c[1] + 0.5);
            return patch.best(b, x, y, reach).filter(f -> f.like() > LEAST)
                    .map(f -> new Match(c[0] + 0.5, c[1] + 0.5, f.x(), f.y())).orElse(null);
        }).filter(java.util.Objects::nonNull).toList();
    }

    private static Optional<Projection> consensus(List<Match> matches, double scale, Plane whole) {
        if (matches.size() < 6) {
            return Optional.empty();
        }
        var random = new Random(7);
        List<Match> best = List.of();
        for (int turn = 0; turn < 1500; turn++) {
            Match p = matches.get(random.nextInt(matches.size()));
            Match q = matches.get(random.nextInt(matches.size()));
            double dx = q.x - p.x;
            double dy = q.y - p.y;
            double d2 = dx * dx + dy * dy;
            if (d2 < 400) {
                continue;
            }
            double ex = q.toX - p.toX;
            double ey = q.toY - p.toY;
            double c = (dx * ex + dy * ey) / d2;
            double s = (dx * ey - dy * ex) / d2;
            if (Math.hypot(c, s) < 0.7 || Math.hypot(c, s) > 1.4) {
                continue;
            }
            List<Match> agree = matches.stream().filter(m -> {
                double x = p.toX + c * (m.x - p.x) - s * (m.y - p.y);
                double y = p.toY + s * (m.x - p.x) + c * (m.y - p.y);
                return Math.hypot(x - m.toX, y - m.toY) < 2.5;
            }).toList();
            if (agree.size() > best.size()) {
                best = agree;
            }
        }
        if (best.size() < Math.max(6, matches.size() / 4)) {
            return Optional.empty();
        }
        double[][] from = best.stream().map(m -> new double[]{m.x * scale / UNIT, m.y * scale / UNIT})
                .toArray(double[][]::new);
        double[][] to = best.stream().map(m -> new double[]{m.toX * scale, m.toY * scale})
                .toArray(double[][]::new);
        return Projection.affine(UNIT, 0, 0, 0, UNIT, 0, whole.width, whole.height).fitted(from, to,
                Projection.Form.AFFINE);
    }
}
