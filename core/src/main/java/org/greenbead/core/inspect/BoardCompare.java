package org.greenbead.core.inspect;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * Finds small parts that vanished or moved between two photos of the same board area. Where a package was lifted everything differs: that
 * place as a whole is left out. Stateless.
 */
public final class BoardCompare {
    /** Colour is compared on a grid of this many cells across. */
    private static final int CELLS = 320;
    /** Sum of the differences of colour shares from which a cell has changed, and from which something is not board. */
    private static final double CHANGED = 0.22;
    private static final double PART = 0.2;
    /** Sum of the channels below which colour is noise. */
    private static final double SHADOW = 0.06;
    private static final int LEAST_CELLS = 4;
    private static final double MARGIN_CELLS = 3;
    /** A changed place this large, as part of the picture, is a lifted package. */
    private static final double PACKAGE_PART = 0.025;

    private BoardCompare() {
    }

    /** @throws UnclearPhotoException when the two do not show the same place */
    public static Change of(Raster before, Raster after) throws UnclearPhotoException {
        Plane a = before.light();
        Plane b = after.light();
        Projection onto = Registered.of(a, b).orElseThrow(() -> new UnclearPhotoException(
                UnclearPhotoException.Why.NO_FIELD,
                "the two photos do not show the same place, or differ too much in angle; take both from above, the same way up"));
        return new Work(before, after, onto).change();
    }

    /** One comparison under way. */
    private static final class Work {
        private final Projection onto;
        private final double cell;
        private final int cw;
        private final int ch;
        private final double[][] first;
        private final double[][] second;
        private final boolean[] seen;

        Work(Raster before, Raster after, Projection onto) {
            this.onto = onto;
            cell = Math.max(3, before.width() / (double) CELLS);
            cw = (int) (before.width() / cell);
            ch = (int) (before.height() / cell);
            first = new double[cw * ch][];
            second = new double[cw * ch][];
            seen = new boolean[cw * ch];
            Plane[] one = calm(before);
            Plane[] two = calm(after);
            IntStream.range(0, ch).parallel().forEach(y -> {
                for (int x = 0; x < cw; x++) {
                    double px = (x + 0.5) * cell;
                    double py = (y + 0.5) * cell;
                    double qx = onto.xPx(px / Registered.UNIT, py / Registered.UNIT);
                    double qy = onto.yPx(px / Registered.UNIT, py / Registered.UNIT);
                    first[y * cw + x] = hue(one, px, py);
                    second[y * cw + x] = hue(two, qx, qy);
                    seen[y * cw + x] = two[0].holds(qx, qy, cell) && one[0].holds(px, py, cell);
                }
            });
        }

        private Plane[] calm(Raster picture) {
            double sigma = 0.4 * cell;
            return new Plane[]{picture.red.smooth(sigma), picture.green.smooth(sigma),
                    picture.blue.smooth(sigma)};
        }

        Change change() {
            boolean[] cells = new boolean[cw * ch];
            int compared = 0;
            int same = 0;
            for (int i = 0; i < cells.length; i++) {
                if (seen[i]) {
                    compared++;
                    cells[i] = far(first[i], second[i]) > CHANGED;
                    same += cells[i] ? 0 : 1;
                }
            }
            boolean[] lifted = lifted(cells);
            var gone = new ArrayList<Spot>();
            var come = new ArrayList<Spot>();
            for (List<Integer> place : Places.of(cells, cw)) {
                if (place.size() < LEAST_CELLS || place.size() > PACKAGE_PART * cw * ch
                        || place.stream().filter(i -> lifted[i]).count() > 0.5 * place.size()) {
                    continue;
                }
                double[] was = mean(place, first);
                double[] is = mean(place, second);
                double[] boardWas = around(place, first, lifted);
                double[] boardIs = around(place, second, lifted);
                if (boardWas == null || boardIs == null) {
                    continue;
                }
                double partBefore = far(was, boardWas);
                double partAfter = far(is, boardIs);
                var spot = new Spot(place, partBefore >= partAfter ? was : is, partBefore - partAfter);
                if (partBefore > PART && partAfter < 0.6 * partBefore) {
                    gone.add(spot);
                } else if (partAfter > PART && partBefore < 0.6 * partAfter) {
                    come.add(spot);
                }
            }
            var vanished = new ArrayList<Change.Vanished>();
            var moved = new ArrayList<Change.Moved>();
            for (Spot spot : gone) {
                Optional<Spot> now = come.stream().filter(c -> far(c.look, spot.look) < PART
                        && Math.hypot(c.x(cw) - spot.x(cw), c.y(cw) - spot.y(cw)) < 3 * spot.size(cw)
                        && c.place.size() < 3 * spot.place.size() && spot.place.size() < 3 * c.place.size())
                        .min(Comparator.comparingDouble(
                                c -> Math.hypot(c.x(cw) - spot.x(cw), c.y(cw) - spot.y(cw))));
                double x = spot.x(cw) * cell;
                double y = spot.y(cw) * cell;
                if (now.isPresent()) {
                    moved.add(new Change.Moved(x, y, now.get().x(cw) * cell, now.get().y(cw) * cell));
                } else {
                    vanished.add(new Change.Vanished(x, y, spot.size(cw) * cell));
                }
            }
            return new Change(vanished, moved, onto, compared == 0 ? 1 : same / (double) compared);
        }

        /** Hulls of large places that look other now, as where a package lay, and a margin; what is no larger than parts is opened away first. */
        private boolean[] lifted(boolean[] cells) {
            var other = new Plane(cw, ch);
            for (int i = 0; i < cells.length; i++) {
                other.v[i] = cells[i] ? 1 : 0;
            }
            Plane solid = other.opened(3);
            boolean[] large = new boolean[cells.length];
            for (int i = 0; i < cells.length; i++) {
                large[i] = solid.v[i] > 0.5;
            }
            boolean[] out = new boolean[cells.length];
            for (List<Integer> place : Places.of(large, cw)) {
                if (place.size() < PACKAGE_PART * cw * ch) {
                    continue;
                }
                var hull = Places.hull(place, cw);
                double midX = place.stream().mapToInt(i -> i % cw).average().orElse(0) + 0.5;
                double midY = place.stream().mapToInt(i -> i / cw).average().orElse(0) + 0.5;
                for (int i = 0; i < out.length; i++) {
                    double x = i % cw + 0.5;
                    double y = i / cw + 0.5;
                    double in = Math.max(0,
                            1 - MARGIN_CELLS / Math.max(1e-6, Math.hypot(x - midX, y - midY)));
                    out[i] |= Places.inside(hull, midX + (x - midX) * in, midY + (y - midY) * in);
                }
            }
            return out;
        }

        private double[] mean(List<Integer> place, double[][] looks) {
            double[] sum = new double[4];
            for (int i : place) {
                for (int c = 0; c < 4; c++) {
                    sum[c] += looks[i][c] / place.size();
                }
            }
            return sum;
        }

        /** What lies round a place: the middle of a frame two to four cells away; null at a border. */
        private double[] around(List<Integer> place, double[][] looks, boolean[] lifted) {
            int left = place.stream().mapToInt(i -> i % cw).min().orElse(0);
            int right = place.stream().mapToInt(i -> i % cw).max().orElse(0);
            int low = place.stream().mapToInt(i -> i / cw).min().orElse(0);
            int high = place.stream().mapToInt(i -> i / cw).max().orElse(0);
            var frame = new ArrayList<double[]>();
            for (int y = Math.max(0, low - 4); y <= Math.min(ch - 1, high + 4); y++) {
                for (int x = Math.max(0, left - 4); x <= Math.min(cw - 1, right + 4); x++) {
                    boolean near = x > left - 2 && x < right + 2 && y > low - 2 && y < high + 2;
                    if (!near && seen[y * cw + x] && !lifted[y * cw + x]) {
                        frame.add(looks[y * cw + x]);
                    }
                }
            }
            if (frame.size() < 12) {
                return null;
            }
            double[] middle = new double[4];
            for (int c = 0; c < 4; c++) {
                int k = c;
                middle[c] = BeadCheck.median(frame.stream().mapToDouble(f -> f[k]).toArray());
            }
            return middle;
        }

        /** How different two places look in colour; in deep shadow there is none to speak of. */
        private static double far(double[] one, double[] two) {
            double light = Math.exp(Math.min(one[3], two[3]));
            double known = Math.clamp((light - SHADOW) / SHADOW, 0, 1);
            return known
                    * (Math.abs(one[0] - two[0]) + Math.abs(one[1] - two[1]) + Math.abs(one[2] - two[2]));
        }

        private static double[] hue(Plane[] rgb, double x, double y) {
            double r = rgb[0].at(x, y);
            double g = rgb[1].at(x, y);
            double b = rgb[2].at(x, y);
            double sum = r + g + b + 0.01;
            return new double[]{r / sum, g / sum, b / sum, Math.log(sum)};
        }
    }

    /** A place that changed. @param look of the part, @param less by how much less it differs from the board now */
    private record Spot(List<Integer> place, double[] look, double less) {
        double x(int w) {
            return place.stream().mapToInt(i -> i % w).average().orElse(0) + 0.5;
        }

        double y(int w) {
            return place.stream().mapToInt(i -> i / w).average().orElse(0) + 0.5;
        }

        double size(int w) {
            int wide = place.stream().mapToInt(i -> i % w).max().orElse(0)
                    - place.stream().mapToInt(i -> i % w).min().orElse(0);
            int high = place.stream().mapToInt(i -> i / w).max().orElse(0)
                    - place.stream().mapToInt(i -> i / w).min().orElse(0);
            return Math.max(wide, high) + 1.0;
        }
    }

    /** Connected places of a grid, and their hull. */
    private static final class Places {
        private Places() {
        }

        static List<List<Integer>> of(boolean[] on, int w) {
            var places = new ArrayList<List<Integer>>();
            boolean[] done = new boolean[on.length];
            for (int i = 0; i < on.length; i++) {
                if (on[i] && !done[i]) {
                    var place = new ArrayList<Integer>();
                    var open = new ArrayDeque<Integer>(List.of(i));
                    done[i] = true;
                    while (!open.isEmpty()) {
                        int at = open.pop();
                        place.add(at);
                        int x = at % w;
                        for (int next : new int[]{x > 0 ? at - 1 : -1, x < w - 1 ? at + 1 : -1, at - w,
                                at + w}) {
                            if (next >= 0 && next < on.length && on[next] && !done[next]) {
                                done[next] = true;
                                open.push(next);
                            }
                        }
                    }
                    places.add(place);
                }
            }
            return places;
        }

        /** Convex hull (Andrew 1979), cells as points of their lower corner and its opposite. */
        static List<double[]> hull(List<Integer> place, int w) {
            List<double[]> points = place.stream()
                    .flatMap(i -> java.util.stream.Stream.of(new double[]{i % w, i / w},
                            new double[]{i % w + 1, i / w + 1},
                            new double[]{i % w + 1, i / w}, new double[]{i % w, i / w + 1}))
                    .sorted(Comparator.<double[]>comparingDouble(p -> p[0]).thenComparingDouble(p -> p[1]))
                    .toList();
            var hull = new ArrayList<double[]>();
            for (int pass = 0; pass < 2; pass++) {
                int base = hull.size();
                for (double[] p : pass == 0 ? points : points.reversed()) {
                    while (hull.size() >= base + 2
                            && turn(hull.get(hull.size() - 2), hull.getLast(), p) <= 0) {
                        hull.removeLast();
                    }
                    hull.add(p);
                }
                hull.removeLast();
            }
            return hull;
        }

        private static double turn(double[] o, double[] a, double[] b) {
            return (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0]);
        }

        static boolean inside(List<double[]> hull, double x, double y) {
            double[] p = {x, y};
            for (int i = 0; i < hull.size(); i++) {
                if (turn(hull.get(i), hull.get((i + 1) % hull.size()), p) < 0) {
                    return false;
                }
            }
            return true;
        }
    }
}
