package org.greenbead.core.inspect;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;
import java.util.stream.IntStream;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;

/**
 * Finds the field of a bead map in a picture: round spots of a trial size, the main direction of their neighbours, votes for the place of
 * the map in each of its four turns, then a projection that grows from the middle outwards.
 */
final class Lattice {
    /** Sizes tried: the field fills this part of the shorter side of the picture. */
    private static final double LEAST_PART = 0.2;
    private static final double USUAL_PART = 0.5;
    private static final double MOST_PART = 2.1;
    private static final double GOOD = 0.93;
    /** Spots where none belongs, in parts of the sites, that make the search go on. */
    private static final double GOOD_SCORE = 0.85;
    private static final double STEP = 1.17;
    /** Sites that vote for the place of the map, spread over all of it. */
    private static final int MOST_VOTERS = 500;
    private static final double LEAST_RADIUS_PX = 2.6;
    /** Sizes that are tried to the end. A field whose second neighbours lie in rows speaks more loudly for a wrong size than for its own. */
    private static final int MOST_TRIALS = 10;
    /** Neighbours are between these parts of the pitch away. */
    private static final double LOW = 0.86;
    private static final double HIGH = 1.14;
    /** Rows and columns that stand less off the axes of the map than this are along them, rad. */
    private static final double SQUARE = 0.06;
    private final List<Plane> pyramid = new ArrayList<>();
    private final int width;
    private final int height;
    private final double pitchMm;
    private final double ballMm;
    private final double[][] sites;
    private final double[][] fromMiddle;
    private final double[][] vacant;
    private final double reachMm;
    private final double midX;
    private final double midY;
    /** Into so many parts a full turn is divided by the directions of neighbours: 4 in rows and columns, 6 in a closest packing. */
    private final int fold;
    /** Direction of a neighbour in the map, from its x axis against the clock; 0 in rows and columns. */
    private final double neighbour;

    Lattice(Plane darkest, BeadMap map, double sizePart) {
        width = darkest.width;
        height = darkest.height;
        Plane plane = darkest;
        pyramid.add(plane);
        while (Math.min(plane.width, plane.height) > 120) {
            plane = plane.half();
            pyramid.add(plane);
        }
        pitchMm = map.sites().size() > 1 ? map.pitchMm() : 1;
        ballMm = sizePart * nominal(map);
        sites = map.sites().stream().map(s -> new double[]{s.xMm(), s.yMm()}).toArray(double[][]::new);
        double left = map.sites().stream().mapToDouble(Site::xMm).min().orElseThrow();
        double right = map.sites().stream().mapToDouble(Site::xMm).max().orElseThrow();
        double low = map.sites().stream().mapToDouble(Site::yMm).min().orElseThrow();
        double high = map.sites().stream().mapToDouble(Site::yMm).max().orElseThrow();
        midX = (left + right) / 2;
        midY = (low + high) / 2;
        reachMm = Math.max(right - left, high - low);
        fromMiddle = sites.clone();
        java.util.Arrays.sort(fromMiddle,
                Comparator.comparingDouble(s -> Math.hypot(s[0] - midX, s[1] - midY)));
        vacant = vacant(map, pitchMm);
        double[] four = directions(map, pitchMm, 4);
        double[] six = directions(map, pitchMm, 6);
        fold = Math.hypot(six[0], six[1]) > Math.hypot(four[0], four[1]) ? 6 : 4;
        double[] way = fold == 6 ? six : four;
        double angle = Math.atan2(way[1], way[0]) / fold;
        neighbour = fold == 4 && Math.abs(angle) < SQUARE ? 0 : angle;
    }

    /** Sum of e to the {@code fold} i times the angle over all pairs of neighbours: its phase is their direction. */
    private static double[] directions(BeadMap map, double pitch, int fold) {
        double[] sum = new double[2];
        List<Site> all = map.sites();
        for (int i = 0; i < all.size(); i++) {
            for (int j = i + 1; j < all.size(); j++) {
                double dx = all.get(j).xMm() - all.get(i).xMm();
                double dy = all.get(j).yMm() - all.get(i).yMm();
                double apart = Math.abs(dx) > HIGH * pitch ? Double.MAX_VALUE : Math.hypot(dx, dy);
                if (apart > LOW * pitch && apart < HIGH * pitch) {
                    sum[0] += Math.cos(fold * Math.atan2(dy, dx));
                    sum[1] += Math.sin(fold * Math.atan2(dy, dx));
                }
            }
        }
        return sum;
    }

    static double nominal(BeadMap map) {
        double[] known = map.sites().stream().filter(s -> s.diameterMm().isPresent())
                .mapToDouble(s -> s.diameterMm().get()).sorted().toArray();
        return known.length > 0
                ? known[known.length / 2]
                : 0.6 * (map.sites().size() > 1 ? map.pitchMm() : 1);
    }

    /**
     * Places of the grid that have no ball, a row and a column beyond each edge among them: where balls go on beyond the map, what was found is
     * not its field. Bright board between dark balls is a grid of its own, denser and turned by an eighth.
     */
    private static double[][] vacant(BeadMap map, double pitch) {
        var xs = new TreeSet<Double>();
        var ys = new TreeSet<Double>();
        map.sites().forEach(s -> {
            xs.add(Math.round(s.xMm() * 1000) / 1000.0);
            ys.add(Math.round(s.yMm() * 1000) / 1000.0);
        });
        xs.addAll(List.of(xs.first() - pitch, xs.last() + pitch));
        ys.addAll(List.of(ys.first() - pitch, ys.last() + pitch));
        var found = new ArrayList<double[]>();
        if ((long) xs.size() * ys.size() > 40_000) {
            return new double[0][];
        }
        for (double x : xs) {
            for (double y : ys) {
                if (map.sites().stream().noneMatch(s -> Math.hypot(s.xMm() - x, s.yMm() - y) < 0.8 * pitch)) {
                    found.add(new double[]{x, y});
                }
            }
        }
        return found.toArray(double[][]::new);
    }

    /**
     * The map in one turn.
     *
     * @param matched part of the sites that find a spot
     * @param score   sites that find one, less spots where none belongs
     */
    record Found(Projection projection, double matched, double score, Peaks peaks, double radiusPx,
            boolean mirrored) {}

    /** All turns, the best first; empty when nothing like the field is seen. */
    List<Found> turns() {
        List<Found> best = turns(USUAL_PART, MOST_PART, List.of());
        return good(best) ? best : turns(LEAST_PART, USUAL_PART, best);
    }

    /** Whether nothing better is to be looked for. */
    private boolean good(List<Found> found) {
        return !found.isEmpty() && found.getFirst().matched > GOOD
                && found.getFirst().score > GOOD_SCORE * sites.length;
    }

    private List<Found> turns(double fromPart, double toPart, List<Found> until) {
        List<Found> best = until;
        for (Trial trial : trials(fromPart, toPart)) {
            List<Found> found = aligned(trial, false);
            if (!found.isEmpty() && (best.isEmpty() || found.getFirst().score > best.getFirst().score)) {
                best = found;
            }
            if (good(best)) {
                break;
            }
        }
        return best;
    }

    /** How well the field seen from the other side fits. */
    Optional<Found> mirrored() {
        return trials(LEAST_PART, MOST_PART).stream().flatMap(t -> aligned(t, true).stream())
                .max(Comparator.comparingDouble(Found::score));
    }

    private record Trial(double pxPerMm, Peaks peaks, double angle, double along, double across,
            double order) {}

    private List<Trial> trials(double fromPart, double toPart) {
        double shorter = Math.min(width, height);
        double from = fromPart * shorter / (reachMm + 2 * pitchMm);
        double to = toPart * shorter / (reachMm + 2 * pitchMm);
        var scales = new ArrayList<Double>();
        for (double s = from; s <= to; s *= STEP) {
            if (s * ballMm / 2 >= LEAST_RADIUS_PX && s * ballMm / 2 < shorter / 4) {
                scales.add(s);
            }
        }
        return scales.parallelStream().map(this::trial).filter(t -> t.order > 3)
                .sorted(Comparator.comparingDouble(Trial::order).reversed()).limit(MOST_TRIALS).toList();
    }

    private Trial trial(double s) {
        double radius = s * ballMm / 2;
        int level = 0;
        while (radius / (1 << level) > 4 && level < pyramid.size() - 1) {
            level++;
        }
        double pitch = s * pitchMm;
        Peaks peaks = Peaks.find(pyramid.get(level), level, radius, (int) (1.4 * sites.length) + 40, pitch,
                width, height);
        var sum = new double[2];
        double low = LOW * pitch;
        double high = HIGH * pitch;
        for (int i = 0; i < peaks.all.size(); i++) {
            int me = i;
            Peak a = peaks.all.get(i);
            peaks.around(a.xPx(), a.yPx(), high, (j, b, d) -> {
                if (j > me && d > low) {
                    double angle = fold * Math.atan2(b.yPx() - a.yPx(), b.xPx() - a.xPx());
                    sum[0] += Math.cos(angle);
                    sum[1] += Math.sin(angle);
                }
            });
        }
        double angle = Math.atan2(sum[1], sum[0]) / fold;
        var along = new ArrayList<Double>();
        var across = new ArrayList<Double>();
        for (int i = 0; i < peaks.all.size(); i++) {
            int me = i;
            Peak a = peaks.all.get(i);
            peaks.around(a.xPx(), a.yPx(), high, (j, b, d) -> {
                if (j > me && d > low) {
                    double off = Math.atan2(b.yPx() - a.yPx(), b.xPx() - a.xPx()) - angle;
                    double c = Math.cos(off);
                    double t = Math.sin(off);
                    if (Math.abs(c) > 0.97) {
                        along.add(d);
                    } else if (Math.abs(t) > 0.97) {
                        across.add(d);
                    }
                }
            });
        }
        double u = median(along, pitch);
        double v = median(across, u);
        if (fold != 4 || neighbour != 0) {
            // The axes of the map lie between the neighbours: both are seen alike.
            u = (u + v) / 2;
            v = u;
        }
        return new Trial(s, peaks, angle, u / pitchMm, v / pitchMm, Math.hypot(sum[0], sum[1]));
    }

    private static double median(List<Double> values, double otherwise) {
        if (values.isEmpty()) {
            return otherwise;
        }
        List<Double> sorted = values.stream().sorted().toList();
        return sorted.get(sorted.size() / 2);
    }

    private List<Found> aligned(Trial trial, boolean mirrored) {
        return IntStream.range(0, fold).parallel().mapToObj(q -> turned(trial, q, mirrored))
                .flatMap(Optional::stream)
                .sorted(Comparator.comparingDouble(Found::score).reversed()).toList();
    }

    /** @param quarter of the turns that look alike to neighbours */
    private Optional<Found> turned(Trial trial, int quarter, boolean mirrored) {
        double angle = trial.angle + (mirrored ? -neighbour : neighbour) + quarter * 2 * Math.PI / fold;
        boolean odd = quarter % 2 == 1;
        double sx = odd ? trial.across : trial.along;
        double sy = odd ? trial.along : trial.across;
        double[] ex = {sx * Math.cos(angle), sx * Math.sin(angle)};
        double hand = mirrored ? -1 : 1;
        double[] ey = {hand * sy * Math.sin(angle), -hand * sy * Math.cos(angle)};
        double[] shift = voted(trial, ex, ey);
        return grown(trial, Projection.affine(ex[0], ey[0], shift[0], ex[1], ey[1], shift[1], width, height),
                mirrored);
    }

    /** Where most sites lie on a spot. */
    private double[] voted(Trial trial, double[] ex, double[] ey) {
        double bin = 0.25 * trial.pxPerMm * pitchMm;
        double field = 0.75 * reachMm * trial.pxPerMm + bin;
        int across = (int) ((width + 2 * field) / bin) + 3;
        int down = (int) ((height + 2 * field) / bin) + 3;
        var votes = new int[across * down];
        int voters = Math.min(sites.length, MOST_VOTERS);
        for (int v = 0; v < voters; v++) {
            double[] site = sites[(int) ((long) v * sites.length / voters)];
            double x = site[0] * ex[0] + site[1] * ey[0];
            double y = site[0] * ex[1] + site[1] * ey[1];
            for (Peak p : trial.peaks.all) {
                int bx = (int) ((p.xPx() - x + field) / bin);
                int by = (int) ((p.yPx() - y + field) / bin);
                if (bx >= 0 && by >= 0 && bx < across && by < down) {
                    votes[by * across + bx]++;
                }
            }
        }
        int best = 0;
        int most = -1;
        for (int y = 1; y < down - 1; y++) {
            for (int x = 1; x < across - 1; x++) {
                int i = y * across + x;
                int sum = 2 * votes[i] + votes[i - 1] + votes[i + 1] + votes[i - across] + votes[i + across];
                if (sum > most) {
                    most = sum;
                    best = i;
                }
            }
        }
        return new double[]{(best % across + 0.5) * bin - field, (best / across + 0.5) * bin - field};
    }

    private Optional<Found> grown(Trial trial, Projection start, boolean mirrored) {
        Optional<Found> found = grow(trial, start, mirrored);
        // A field may lie a row or two beside its place and still meet most spots.
        for (int turn = 0; turn < 3 && found.isPresent(); turn++) {
            Projection now = found.get().projection();
            int most = met(trial, now, 0, 0);
            double bestX = 0;
            double bestY = 0;
            for (int dx = -2; dx <= 2; dx++) {
                for (int dy = -2; dy <= 2; dy++) {
                    double[] by = beside(dx, dy);
                    int met = met(trial, now, by[0], by[1]);
                    if (met > most) {
                        most = met;
                        bestX = by[0];
                        bestY = by[1];
                    }
                }
            }
            if (bestX == 0 && bestY == 0) {
                break;
            }
            Optional<Found> better = grow(trial, now.shifted(bestX, bestY), mirrored);
            if (better.isEmpty() || better.get().score() <= found.get().score()) {
                break;
            }
            found = better;
        }
        return found;
    }

    /** A step from site to site, mm. */
    private double[] beside(int right, int up) {
        double second = fold == 6 ? Math.PI / 3 : Math.PI / 2;
        return new double[]{
                pitchMm * (right * Math.cos(neighbour) + up * Math.cos(neighbour + second)),
                pitchMm * (right * Math.sin(neighbour) + up * Math.sin(neighbour + second))};
    }

    private int met(Trial trial, Projection at, double dx, double dy) {
        int met = 0;
        for (double[] s : sites) {
            if (trial.peaks.nearest(at.xPx(s[0] + dx, s[1] + dy), at.yPx(s[0] + dx, s[1] + dy),
                    0.2 * trial.pxPerMm * pitchMm) != null) {
                met++;
            }
        }
        return met;
    }

    private Optional<Found> grow(Trial trial, Projection start, boolean mirrored) {
        double pitch = trial.pxPerMm * pitchMm;
        Projection now = start;
        double[] parts = {0.1, 0.1, 0.2, 0.36, 0.64, 1, 1, 1};
        for (int turn = 0; turn < parts.length; turn++) {
            int count = (int) Math.min(sites.length, Math.max(40, parts[turn] * sites.length));
            var mm = new ArrayList<double[]>();
            var px = new ArrayList<double[]>();
            for (double[] s : List.of(fromMiddle).subList(0, count)) {
                Peak near = trial.peaks.nearest(now.xPx(s[0], s[1]), now.yPx(s[0], s[1]), 0.36 * pitch);
                if (near != null) {
                    mm.add(s);
                    px.add(new double[]{near.xPx(), near.yPx()});
                }
            }
            Projection.Form form = turn < 2 || mm.size() < 16
                    ? Projection.Form.AFFINE
                    : Projection.Form.PLANE;
            Optional<Projection> better = now.fitted(mm.toArray(double[][]::new), px.toArray(double[][]::new),
                    form);
            if (better.isEmpty()) {
                return Optional.empty();
            }
            now = better.get();
        }
        int met = 0;
        int inside = 0;
        var strengths = new ArrayList<Double>();
        for (double[] s : sites) {
            double x = now.xPx(s[0], s[1]);
            double y = now.yPx(s[0], s[1]);
            if (x > 0 && y > 0 && x < width && y < height) {
                inside++;
                Peak near = trial.peaks.nearest(x, y, 0.2 * pitch);
                if (near != null) {
                    met++;
                    strengths.add(near.strength());
                }
            }
        }
        double usual = median(strengths, 0);
        int extra = 0;
        for (double[] s : vacant) {
            Peak near = trial.peaks.nearest(now.xPx(s[0], s[1]), now.yPx(s[0], s[1]), 0.2 * pitch);
            if (near != null && near.strength() > 0.5 * usual) {
                extra++;
            }
        }
        double radius = now.pxPerMm(midX, midY) * ballMm / 2;
        return inside < sites.length / 3.0 || inside == 0
                ? Optional.empty()
                : Optional.of(
                        new Found(now, met / (double) inside, met - extra, trial.peaks, radius, mirrored));
    }
}
