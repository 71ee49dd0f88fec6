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
    /** A place is board again where it differs from the board by less than this part of what it did. */
    private static final double BOARD = 0.6;
    private static final int MOST_WAYS = 4;
    private static final int FRAME = 6;
    private static final int BLOCK = 24;
    private static final int BALANCE_CELLS = 6000;
    private static final int LEAST_BALANCE = 40;
    private static final double MOST_GAIN = 3;
    private static final int LEAST_CELLS = 4;
    /** Share of what lies on the board that a second photo shows as well: 0.94 and more on the same board, 0.66 at most on others of its make. */
    private static final double LEAST_KEPT = 0.8;
    /** Share of a changed place that must be bare board now; under a lifted chip pads lie. */
    private static final double MOSTLY = 0.5;
    /** Cells over the longer side below which a place is an edge seen from elsewhere, not a part. */
    private static final double THIN = 1.4;
    private static final double MARGIN_CELLS = 3;
    /** A changed place this large, as part of the picture, is a lifted package. */
    private static final double PACKAGE_PART = 0.025;

    private BoardCompare() {
    }

    /** @throws UnclearPhotoException when the two do not show the same place */
    public static Change of(Raster before, Raster after) throws UnclearPhotoException {
        Plane a = before.light();
        Plane b = after.light();
        return Registered.ways(a, b).limit(MOST_WAYS).map(onto -> new Work(before, after, onto).change())
                .flatMap(Optional::stream).findFirst()
                .orElseThrow(() -> new UnclearPhotoException(UnclearPhotoException.Why.NO_FIELD,
                        "the two photos do not show the same place, or too little of it in both; take both from above, with the same parts in view"));
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
                first[i] = Look.of(first[i]);
                second[i] = Look.of(second[i]);
            }
        }

        /** Takes the colour of the light, and how it fades over the picture, out of the second photo: most of what is seen did not change. */
        private void balance() {
            int step = Math.max(1, seen.length / BALANCE_CELLS);
            int[] lit = IntStream.range(0, seen.length).filter(i -> i % step == 0 && seen[i]
                    && Look.lit(first[i]) && Look.lit(second[i])).toArray();
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

        private Plane[] calm(Raster picture) {
            double sigma = 0.4 * cell;
            return new Plane[]{picture.red.smooth(sigma), picture.green.smooth(sigma),
                    picture.blue.smooth(sigma)};
        }

        /** Empty where too little of what the first photo shows lies at its place in the second. */
        Optional<Change> change() {
            boolean[] cells = new boolean[cw * ch];
            int compared = 0;
            int same = 0;
            for (int i = 0; i < cells.length; i++) {
                if (seen[i]) {
                    compared++;
                    cells[i] = Look.far(first[i], second[i]) > CHANGED;
                    same += cells[i] ? 0 : 1;
                }
            }
            boolean[] lifted = lifted(cells);
            if (kept(cells, lifted) < LEAST_KEPT) {
                return Optional.empty();
            }
            boolean[] gone = new boolean[cw * ch];
            boolean[] come = new boolean[cw * ch];
            boolean[] mostly = new boolean[cw * ch];
            for (List<Integer> place : Places.of(cells, cw)) {
                if (place.size() < LEAST_CELLS || place.size() > PACKAGE_PART * cw * ch
                        || place.stream().filter(i -> lifted[i]).count() > 0.5 * place.size()) {
                    continue;
                }
                double[] was = around(place, first, lifted);
                double[] is = around(place, second, lifted);
                int bare = 0;
                for (int i : place) {
                    double before = Look.far(first[i], was);
                    double now = Look.far(second[i], is);
                    gone[i] = before > Look.PART && now < BOARD * before;
                    come[i] = now > Look.PART && before < BOARD * now;
                    bare += gone[i] ? 1 : 0;
                }
                for (int i : place) {
                    mostly[i] = bare > MOSTLY * place.size();
                }
            }
            return Optional.of(told(spots(gone, first), spots(come, second), mostly, lifted,
                    compared == 0 ? 1 : same / (double) compared));
        }

        /** Share of what lies on the board in the first photo that the second shows at the same place. */
        private double kept(boolean[] changed, boolean[] lifted) {
            int parts = 0;
            int same = 0;
            for (int top = 0; top < ch; top += BLOCK) {
                for (int left = 0; left < cw; left += BLOCK) {
                    var block = new ArrayList<Integer>();
                    for (int y = top; y < Math.min(ch, top + BLOCK); y++) {
                        for (int x = left; x < Math.min(cw, left + BLOCK); x++) {
                            int i = y * cw + x;
                            if (seen[i] && !lifted[i]) {
                                block.add(i);
                            }
                        }
                    }
                    Optional<double[]> board = Look.most(block.stream().map(i -> first[i]).toList());
                    for (int i : block) {
                        if (Look.far(first[i], board.orElseThrow()) > Look.PART) {
                            parts++;
                            same += changed[i] ? 0 : 1;
                        }
                    }
                }
            }
            return parts == 0 ? 1 : same / (double) parts;
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

        private Change told(List<Spot> gone, List<Spot> come, boolean[] mostly, boolean[] lifted,
                double agreed) {
            var vanished = new ArrayList<Change.Vanished>();
            var moved = new ArrayList<Change.Moved>();
            var told = new ArrayList<int[]>();
            Map<Spot, Spot> pairs = paired(gone, come);
            pairs.forEach((was, is) -> {
                if (told.stream().noneMatch(box -> within(box, was))) {
                    Spot from = whole(was, is, first, around(was.place, first, lifted));
                    Spot to = whole(is, was, second, around(is.place, second, lifted));
                    told.add(box(from, to));
                    moved.add(new Change.Moved(from.x(cw) * cell, from.y(cw) * cell, to.x(cw) * cell,
                            to.y(cw) * cell));
                }
            });
            gone.stream().filter(s -> !pairs.containsKey(s) && told.stream().noneMatch(box -> within(box, s))
                    && mostly[s.place.getFirst()] && s.place.size() > THIN * s.size(cw))
                    .forEach(s -> vanished.add(new Change.Vanished(s.x(cw) * cell, s.y(cw) * cell,
                            s.size(cw) * cell)));
            return new Change(vanished, moved, onto, agreed);
        }

        /** Each spot that is gone with the closest like it that has come; the closest pairs first. */
        private Map<Spot, Spot> paired(List<Spot> gone, List<Spot> come) {
            record Pair(Spot was, Spot is, double way) {}
            List<Pair> all = gone.stream().flatMap(g -> come.stream().map(
                    c -> new Pair(g, c, Math.hypot(c.x(cw) - g.x(cw), c.y(cw) - g.y(cw)))))
                    .filter(p -> Look.far(p.is.look, p.was.look) < Look.PART && p.way < 3 * p.was.size(cw)
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
                    part[y * cw + x] = Look.far(looks[y * cw + x], board) > Look.PART;
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

        /** The board round a place: of a frame two to six cells away the look that most of it has. */
        private double[] around(List<Integer> place, double[][] looks, boolean[] lifted) {
            int left = place.stream().mapToInt(i -> i % cw).min().orElse(0);
            int right = place.stream().mapToInt(i -> i % cw).max().orElse(0);
            int low = place.stream().mapToInt(i -> i / cw).min().orElse(0);
            int high = place.stream().mapToInt(i -> i / cw).max().orElse(0);
            var frame = new ArrayList<double[]>();
            for (int y = Math.max(0, low - FRAME); y <= Math.min(ch - 1, high + FRAME); y++) {
                for (int x = Math.max(0, left - FRAME); x <= Math.min(cw - 1, right + FRAME); x++) {
                    boolean near = x > left - 2 && x < right + 2 && y > low - 2 && y < high + 2;
                    if (!near && seen[y * cw + x] && !lifted[y * cw + x]) {
                        frame.add(looks[y * cw + x]);
                    }
                }
            }
            return Look.most(frame).orElseGet(() -> mean(place, looks));
        }

        private static double[] rgb(Plane[] planes, double x, double y) {
            return new double[]{planes[0].at(x, y), planes[1].at(x, y), planes[2].at(x, y)};
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
