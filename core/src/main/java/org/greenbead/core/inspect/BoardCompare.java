package org.greenbead.core.inspect;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
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
    /** A place is board again where it differs from the board by less than this part of what it did. */
    private static final double BOARD = 0.6;
    private static final int BOARD_SAMPLES = 400;
    /** Sum of the channels below which colour is noise. */
    private static final double SHADOW = 0.06;
    /** From which part of a power of e on, and by how much, a difference in light counts where one of two places is in shadow. */
    private static final double LIT_FROM = 0.5;
    private static final double LIT_SHARE = 0.35;
    /** Difference of the largest and the smallest colour share below which there is no colour, and over which that fades in. */
    private static final double GREY = 0.17;
    private static final double GREY_BAND = 0.08;
    private static final int BALANCE_CELLS = 6000;
    private static final int LEAST_BALANCE = 40;
    private static final double MOST_GAIN = 3;
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
                "the two photos do not show the same place, or too little of it in both; take both from above, with the same parts in view"));
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
                    first[y * cw + x] = rgb(one, px, py);
                    second[y * cw + x] = rgb(two, qx, qy);
                    seen[y * cw + x] = two[0].holds(qx, qy, cell) && one[0].holds(px, py, cell);
                }
            });
            balance();
            for (int i = 0; i < seen.length; i++) {
                first[i] = hue(first[i]);
                second[i] = hue(second[i]);
            }
        }

        /** Takes the colour of the light, and how it fades over the picture, out of the second photo: most of what is seen did not change. */
        private void balance() {
            int step = Math.max(1, seen.length / BALANCE_CELLS);
            int[] lit = IntStream.range(0, seen.length).filter(i -> i % step == 0 && seen[i]
                    && light(first[i]) > 2 * SHADOW && light(second[i]) > 2 * SHADOW).toArray();
            if (lit.length < LEAST_BALANCE) {
                return;
            }
            double[] x = Arrays.stream(lit).mapToDouble(i -> i % cw).toArray();
            double[] y = Arrays.stream(lit).mapToDouble(i -> i / cw).toArray();
            for (int c = 0; c < 3; c++) {
                int k = c;
                var gain = new Evenness(x, y, Arrays.stream(lit)
                        .mapToDouble(i -> (first[i][k] + 1e-3) / (second[i][k] + 1e-3)).toArray());
                for (int i = 0; i < seen.length; i++) {
                    second[i][k] *= Math.clamp(gain.at(i % cw, i / cw), 1 / MOST_GAIN, MOST_GAIN);
                }
            }
        }

        private static double light(double[] rgb) {
            return rgb[0] + rgb[1] + rgb[2];
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
            double[] boardWas = board(first, lifted);
            double[] boardIs = board(second, lifted);
            boolean[] gone = new boolean[cw * ch];
            boolean[] come = new boolean[cw * ch];
            for (List<Integer> place : Places.of(cells, cw)) {
                if (place.size() < LEAST_CELLS || place.size() > PACKAGE_PART * cw * ch
                        || place.stream().filter(i -> lifted[i]).count() > 0.5 * place.size()) {
                    continue;
                }
                double[] was = around(place, first, boardWas, lifted);
                double[] is = around(place, second, boardIs, lifted);
                for (int i : place) {
                    double before = far(first[i], was);
                    double now = far(second[i], is);
                    gone[i] = before > PART && now < BOARD * before;
                    come[i] = now > PART && before < BOARD * now;
                }
            }
            return told(spots(gone, first), spots(come, second), boardWas, boardIs,
                    compared == 0 ? 1 : same / (double) compared);
        }

        /** Places that look like one part; its two ends may lie a cell apart. */
        private List<Spot> spots(boolean[] on, double[][] looks) {
            boolean[] wide = new boolean[on.length];
            for (int i = 0; i < on.length; i++) {
                for (int next : new int[]{i, i - 1, i + 1, i - cw, i + cw}) {
                    wide[i] |= next >= 0 && next < on.length && on[next];
                }
            }
            return Places.of(wide, cw).stream()
                    .map(place -> place.stream().filter(i -> on[i]).toList())
                    .filter(place -> place.size() >= LEAST_CELLS)
                    .map(place -> new Spot(place, mean(place, looks))).toList();
        }

        private Change told(List<Spot> gone, List<Spot> come, double[] boardWas, double[] boardIs,
                double agreed) {
            var vanished = new ArrayList<Change.Vanished>();
            var moved = new ArrayList<Change.Moved>();
            var told = new ArrayList<int[]>();
            Map<Spot, Spot> pairs = paired(gone, come);
            pairs.forEach((was, is) -> {
                if (told.stream().noneMatch(box -> within(box, was))) {
                    Spot from = whole(was, is, first, boardWas);
                    Spot to = whole(is, was, second, boardIs);
                    told.add(box(from, to));
                    moved.add(new Change.Moved(from.x(cw) * cell, from.y(cw) * cell, to.x(cw) * cell,
                            to.y(cw) * cell));
                }
            });
            gone.stream().filter(s -> !pairs.containsKey(s) && told.stream().noneMatch(box -> within(box, s)))
                    .forEach(s -> vanished.add(new Change.Vanished(s.x(cw) * cell, s.y(cw) * cell,
                            s.size(cw) * cell)));
            return new Change(vanished, moved, onto, agreed);
        }

        /** Each spot that is gone with the closest like it that has come; the closest pairs first. */
        private Map<Spot, Spot> paired(List<Spot> gone, List<Spot> come) {
            record Pair(Spot was, Spot is, double way) {}
            List<Pair> all = gone.stream().flatMap(g -> come.stream().map(
                    c -> new Pair(g, c, Math.hypot(c.x(cw) - g.x(cw), c.y(cw) - g.y(cw)))))
                    .filter(p -> far(p.is.look, p.was.look) < PART && p.way < 3 * p.was.size(cw)
                            && p.is.place.size() < 3 * p.was.place.size()
                            && p.was.place.size() < 3 * p.is.place.size())
                    .sorted(Comparator.comparingDouble(Pair::way)).toList();
            Map<Spot, Spot> pairs = new LinkedHashMap<>();
            for (Pair p : all) {
                if (!pairs.containsKey(p.was) && !pairs.containsValue(p.is)) {
                    pairs.put(p.was, p.is);
                }
            }
            return pairs;
        }

        private boolean within(int[] box, Spot spot) {
            return spot.x(cw) > box[0] && spot.x(cw) < box[1] && spot.y(cw) > box[2] && spot.y(cw) < box[3];
        }

        /** Where a part lay and lies, with a cell round it: left, right, low, high. */
        private int[] box(Spot from, Spot to) {
            var both = new ArrayList<>(from.place);
            both.addAll(to.place);
            return new int[]{both.stream().mapToInt(i -> i % cw).min().orElse(0) - 1,
                    both.stream().mapToInt(i -> i % cw).max().orElse(0) + 2,
                    both.stream().mapToInt(i -> i / cw).min().orElse(0) - 1,
                    both.stream().mapToInt(i -> i / cw).max().orElse(0) + 2};
        }

        /** The part a spot belongs to, as far as the two spots reach: where it lay and where it lies may overlap. */
        private Spot whole(Spot spot, Spot other, double[][] looks, double[] board) {
            int[] box = box(spot, other);
            boolean[] part = new boolean[cw * ch];
            for (int y = box[2] + 1; y < box[3] - 1; y++) {
                for (int x = box[0] + 1; x < box[1] - 1; x++) {
                    part[y * cw + x] = far(looks[y * cw + x], board) > PART;
                }
            }
            spot.place.forEach(i -> part[i] = true);
            return Places.of(part, cw).stream().filter(p -> p.contains(spot.place.getFirst()))
                    .map(p -> new Spot(p, spot.look)).findFirst().orElse(spot);
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

        /** The look that most of the board has: the sample that most others are like. */
        private double[] board(double[][] looks, boolean[] lifted) {
            int[] open = IntStream.range(0, looks.length).filter(i -> seen[i] && !lifted[i]).toArray();
            int step = Math.max(1, open.length / BOARD_SAMPLES);
            int[] some = IntStream.range(0, open.length).filter(i -> i % step == 0).map(i -> open[i])
                    .toArray();
            return Arrays.stream(some).parallel()
                    .mapToObj(i -> Map.entry(i, Arrays.stream(some)
                            .filter(j -> far(looks[i], looks[j]) < 0.5 * PART).count()))
                    .max(Map.Entry.comparingByValue()).map(e -> looks[e.getKey()])
                    .orElse(new double[]{1 / 3.0, 1 / 3.0, 1 / 3.0, Math.log(SHADOW)});
        }

        /** The board round a place: the middle of what is like board in a frame two to four cells away. */
        private double[] around(List<Integer> place, double[][] looks, double[] board, boolean[] lifted) {
            int left = place.stream().mapToInt(i -> i % cw).min().orElse(0);
            int right = place.stream().mapToInt(i -> i % cw).max().orElse(0);
            int low = place.stream().mapToInt(i -> i / cw).min().orElse(0);
            int high = place.stream().mapToInt(i -> i / cw).max().orElse(0);
            var frame = new ArrayList<double[]>();
            for (int y = Math.max(0, low - 4); y <= Math.min(ch - 1, high + 4); y++) {
                for (int x = Math.max(0, left - 4); x <= Math.min(cw - 1, right + 4); x++) {
                    boolean near = x > left - 2 && x < right + 2 && y > low - 2 && y < high + 2;
                    double[] look = looks[y * cw + x];
                    if (!near && seen[y * cw + x] && !lifted[y * cw + x] && far(look, board) < PART) {
                        frame.add(look);
                    }
                }
            }
            if (frame.size() < 12) {
                return board;
            }
            double[] middle = new double[4];
            for (int c = 0; c < 4; c++) {
                int k = c;
                middle[c] = BeadCheck.median(frame.stream().mapToDouble(f -> f[k]).toArray());
            }
            return middle;
        }

        /**
         * How different two places look in colour. In deep shadow there is none to speak of, and grey metal has none on a black or white
         * board: there light counts, elsewhere it does not, since shadows come and go.
         */
        private static double far(double[] one, double[] two) {
            double known = known(Math.min(one[3], two[3]));
            double hue = Math.abs(one[0] - two[0]) + Math.abs(one[1] - two[1]) + Math.abs(one[2] - two[2]);
            double lit = known(Math.max(one[3], two[3])) * Math.max(0, Math.abs(one[3] - two[3]) - LIT_FROM);
            double grey = Math.clamp((GREY - Math.max(colour(one), colour(two))) / GREY_BAND, 0, 1);
            return known * hue + Math.max(1 - known, grey) * LIT_SHARE * lit;
        }

        private static double colour(double[] look) {
            return Math.max(look[0], Math.max(look[1], look[2]))
                    - Math.min(look[0], Math.min(look[1], look[2]));
        }

        private static double known(double logLight) {
            return Math.clamp((Math.exp(logLight) - SHADOW) / SHADOW, 0, 1);
        }

        private static double[] rgb(Plane[] planes, double x, double y) {
            return new double[]{planes[0].at(x, y), planes[1].at(x, y), planes[2].at(x, y)};
        }

        private static double[] hue(double[] rgb) {
            double sum = light(rgb) + 0.01;
            return new double[]{rgb[0] / sum, rgb[1] / sum, rgb[2] / sum, Math.log(sum)};
        }
    }

    /** Where a part was, or is now. */
    private record Spot(List<Integer> place, double[] look) {
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
}
