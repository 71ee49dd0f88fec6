package org.greenbead.core.inspect;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Stream;

/**
 * Lays one photo on another of the same flat place, from rough guesses: patches rich in detail are looked for in the other photo by normalised correlation
 * (Lewis 1995), coarse to fine; a similarity by consensus (Fischler and Bolles 1981) throws out those that changed, then a homography is
 * fitted.
 */
final class Registered {
    private static final int COARSE_WIDTH = 230;
    private static final double LEAST = 0.62;
    private static final int GUESSES = 8;
    private static final int LEAST_MATCHES = 6;
    /** Of 154 patches. */
    private static final int LEAST_FOUND = 8;
    private static final double NEAR = 2.5;
    /** The unit of the projection: hundredths keep its numbers near one. */
    static final double UNIT = 100;

    private Registered() {
    }

    private record Match(double x, double y, double toX, double toY) {}

    /** Where the first photo may lie in the second; the likeliest first, each worked out when it is asked for. */
    static Stream<Projection> ways(Plane before, Plane after) {
        var a = new ArrayList<Plane>(List.of(before));
        var b = new ArrayList<Plane>(List.of(after));
        while (a.getLast().width > COARSE_WIDTH && a.getLast().height > 60) {
            a.add(a.getLast().half());
            b.add(b.getLast().half());
        }
        int top = a.size() - 1;
        double scale = 1 << top;
        Plane small = a.get(top);
        // The same way up and about as near is the usual case, and the surest to tell.
        List<Match> usual = List.of();
        for (int turn = -12; turn <= 12; turn += 6) {
            Projection own = Projection.affine(UNIT, 0, 0, 0, UNIT, 0, before.width, before.height);
            List<Match> some = patches(small, b.get(top), 9, 7, 8, new At(own, scale), Math.toRadians(turn),
                    small.width / 8);
            usual = some.size() > usual.size() ? some : usual;
        }
        Optional<Laid> first = fine(start(consensus(usual), scale, before), a, b);
        return Stream.concat(first.stream(), Stream.of(a).flatMap(levels -> turned(before, after, levels, b)))
                .map(Laid::onto);
    }

    private static Stream<Laid> turned(Plane before, Plane after, List<Plane> a, List<Plane> b) {
        int top = a.size() - 1;
        double scale = 1 << top;
        Plane small = a.get(top);
        return Overview.guesses(before, after, GUESSES).stream().map(guess -> {
            Projection rough = Projection.affine(guess.c() * UNIT, -guess.s() * UNIT, guess.x0(),
                    guess.s() * UNIT, guess.c() * UNIT, guess.y0(), before.width, before.height);
            return fine(start(consensus(patches(small, b.get(top), 9, 7, 8, new At(rough, scale), 0,
                    small.width / 14)), scale, before), a, b);
        }).flatMap(Optional::stream).sorted(Comparator.comparingInt(Laid::found).reversed());
    }

    /** @param found patches that were found again */
    private record Laid(Projection onto, int found) {}

    /** Finer and finer; empty where too little of the first photo is found again in the second. */
    private static Optional<Laid> fine(Optional<Projection> rough, List<Plane> a, List<Plane> b) {
        Optional<Projection> start = rough;
        int top = a.size() - 1;
        int most = 0;
        for (int level = top; level >= Math.max(0, top - 2) && start.isPresent(); level--) {
            double s = 1 << level;
            Projection now = start.get();
            List<Match> found = patches(a.get(level), b.get(level), 14, 11, 9, new At(now, s), 0, 4);
            double[][] from = found.stream().map(m -> new double[]{m.x * s / UNIT, m.y * s / UNIT})
                    .toArray(double[][]::new);
            double[][] to = found.stream().map(m -> new double[]{m.toX * s, m.toY * s})
                    .toArray(double[][]::new);
            most = from.length;
            start = from.length < LEAST_FOUND
                    ? Optional.empty()
                    : now.fitted(from, to, Projection.Form.PLANE);
        }
        int found = most;
        return start.map(onto -> new Laid(onto, found));
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

    private static List<Match> patches(Plane a, Plane b, int across, int down, int half, At expected,
            double turn, int reach) {
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
            var patch = turn == 0
                    ? Patch.of(a, c[0] + 0.5, c[1] + 0.5, half, expected::x, expected::y)
                    : Patch.of(a, c[0] + 0.5, c[1] + 0.5, half,
                            (x, y) -> Math.cos(turn) * x - Math.sin(turn) * y,
                            (x, y) -> Math.sin(turn) * x + Math.cos(turn) * y);
            double x = expected.x(c[0] + 0.5, c[1] + 0.5);
            double y = expected.y(c[0] + 0.5, c[1] + 0.5);
            return patch.best(b, x, y, reach).filter(f -> f.like() > LEAST)
                    .map(f -> new Match(c[0] + 0.5, c[1] + 0.5, f.x(), f.y())).orElse(null);
        }).filter(java.util.Objects::nonNull).toList();
    }

    /** Those that one similarity explains. */
    private static List<Match> consensus(List<Match> matches) {
        if (matches.size() < LEAST_MATCHES) {
            return List.of();
        }
        var random = new Random(7);
        List<Match> best = List.of();
        for (int turn = 0; turn < 600; turn++) {
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
            List<Match> agree = matches.stream().filter(m -> {
                double x = p.toX + c * (m.x - p.x) - s * (m.y - p.y) - m.toX;
                double y = p.toY + s * (m.x - p.x) + c * (m.y - p.y) - m.toY;
                return x * x + y * y < NEAR * NEAR;
            }).toList();
            if (agree.size() > best.size()) {
                best = agree;
            }
        }
        return best.size() < Math.max(LEAST_MATCHES, matches.size() / 4) ? List.of() : best;
    }

    private static Optional<Projection> start(List<Match> best, double scale, Plane whole) {
        double[][] from = best.stream().map(m -> new double[]{m.x * scale / UNIT, m.y * scale / UNIT})
                .toArray(double[][]::new);
        double[][] to = best.stream().map(m -> new double[]{m.toX * scale, m.toY * scale})
                .toArray(double[][]::new);
        return best.isEmpty()
                ? Optional.empty()
                : Projection.affine(UNIT, 0, 0, 0, UNIT, 0, whole.width, whole.height).fitted(from, to,
                        Projection.Form.AFFINE);
    }
}
