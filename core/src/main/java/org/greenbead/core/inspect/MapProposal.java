package org.greenbead.core.inspect;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.RowNames;
import org.greenbead.core.bead.Site;
import org.greenbead.core.quantity.Check;

/**
 * A bead map made from a photo of a balled field: spots are numbered along the two directions in which their neighbours lie, from one that
 * agrees with its neighbours outwards; the numbers are fitted to the picture and what does not agree is dropped. The picture is taken as it
 * is seen: row A at the top. The pitch cannot be seen and is given; the diameter follows from it. What does not agree may be a field of its
 * own with another pitch: the two are called A and B. Stateless.
 */
public final class MapProposal {
    private static final double STEP = 1.17;
    private static final int MOST_SPOTS = 3000;
    private static final int LEAST_SITES = 9;
    private static final int LOOKS = 5;
    private static final double LARGEST_PART = 0.66;
    /** So much of what the first field left must lie on the second: else it is dirt. */
    private static final double SECOND_PART = 0.6;
    /** Balls of a second field may lie farther apart. */
    private static final double WIDER = 1.4;

    private MapProposal() {
    }

    /** @throws UnclearPhotoException when no lattice is seen */
    public static BeadMap of(Raster picture, double pitchMm) throws UnclearPhotoException {
        Check.within("pitch", pitchMm, 0.2, 3, "mm");
        Plane whole = picture.darkest();
        var pyramid = new ArrayList<Plane>(List.of(whole));
        while (Math.min(pyramid.getLast().width, pyramid.getLast().height) > 120) {
            pyramid.add(pyramid.getLast().half());
        }
        Numbered best = null;
        for (double radius = 3; radius < Math.min(whole.width, whole.height) / 14.0; radius *= STEP) {
            Optional<Numbered> tried = numbered(pyramid, radius);
            if (tried.isPresent() && (best == null || tried.get().quality() > best.quality())) {
                best = tried.get();
            }
        }
        if (best == null || best.cells.size() < LEAST_SITES) {
            throw new UnclearPhotoException(UnclearPhotoException.Why.NO_FIELD,
                    "no lattice of balls is found; bring the whole field into the picture, in focus, filling half of it or more");
        }
        return map(picture, best, pitchMm);
    }

    /** Row and column, from anywhere. */
    private record Cell(int column, int row) {}

    /** @param strong all spots that were looked at */
    private record Numbered(Map<Cell, Peak> cells, Projection projection, double radiusPx,
            List<Peak> strong) {
        double quality() {
            return cells.size() - 0.3 * (strong.size() - cells.size());
        }

        /** Spots that found no number. */
        List<Peak> strayed() {
            var kept = new java.util.HashSet<>(cells.values());
            return strong.stream().filter(p -> !kept.contains(p)).toList();
        }
    }

    private static Optional<Numbered> numbered(List<Plane> pyramid, double radius) {
        int level = 0;
        while (radius / (1 << level) > 4 && level < pyramid.size() - 1) {
            level++;
        }
        Plane whole = pyramid.getFirst();
        Peaks all = Peaks.find(pyramid.get(level), level, radius, MOST_SPOTS, 4 * radius, whole.width,
                whole.height);
        if (all.all.size() < LEAST_SITES) {
            return Optional.empty();
        }
        // Only what stands out like the better half does.
        double usual = all.all.get(all.all.size() / 4).strength();
        List<Peak> strong = all.all.stream().filter(p -> p.strength() > 0.4 * usual).toList();
        return numbered(strong, radius, whole);
    }

    private static Optional<Numbered> numbered(List<Peak> strong, double radius, Plane whole) {
        var peaks = new Peaks(strong, 4 * radius, whole.width, whole.height);
        double[] nearest = strong.stream().mapToDouble(p -> {
            double[] least = {Double.MAX_VALUE};
            peaks.around(p.xPx(), p.yPx(), 8 * radius, (i, q, d) -> {
                if (d > 0.5 * radius) {
                    least[0] = Math.min(least[0], d);
                }
            });
            return least[0];
        }).filter(d -> d < 1e9).toArray();
        double pitch = BeadCheck.median(nearest);
        if (nearest.length < LEAST_SITES || pitch < 2.2 * radius || pitch > 6 * radius) {
            return Optional.empty();
        }
        double[] sum = new double[2];
        for (int i = 0; i < strong.size(); i++) {
            int me = i;
            Peak a = strong.get(i);
            peaks.around(a.xPx(), a.yPx(), 1.15 * pitch, (j, b, d) -> {
                if (j > me && d > 0.85 * pitch) {
                    double angle = 4 * Math.atan2(b.yPx() - a.yPx(), b.xPx() - a.xPx());
                    sum[0] += Math.cos(angle);
                    sum[1] += Math.sin(angle);
                }
            });
        }
        double angle = Math.atan2(sum[1], sum[0]) / 4;
        double[] u = {pitch * Math.cos(angle), pitch * Math.sin(angle)};
        return strong.stream().limit(12).map(seed -> grown(peaks, seed, u, pitch))
                .filter(g -> g.size() >= LEAST_SITES)
                .max(java.util.Comparator.comparingInt(Map::size))
                .flatMap(cells -> fitted(peaks, cells, u, radius, whole));
    }

    private static Map<Cell, Peak> grown(Peaks peaks, Peak seed, double[] u, double pitch) {
        Map<Cell, Peak> cells = new HashMap<>();
        Map<Peak, Cell> taken = new HashMap<>();
        var open = new ArrayDeque<Cell>();
        cells.put(new Cell(0, 0), seed);
        taken.put(seed, new Cell(0, 0));
        open.add(new Cell(0, 0));
        int[][] ways = {{1, 0}, {-1, 0}, {0, 1}, {0, -1}, {2, 0}, {-2, 0}, {0, 2}, {0, -2}};
        while (!open.isEmpty()) {
            Cell at = open.poll();
            Peak p = cells.get(at);
            for (int[] way : ways) {
                Cell next = new Cell(at.column + way[0], at.row + way[1]);
                if (cells.containsKey(next)) {
                    continue;
                }
                // The last step taken here foretells the next better than the mean one does.
                double[] step = local(cells, at, way, u);
                Peak q = peaks.nearest(p.xPx() + step[0], p.yPx() + step[1], 0.28 * pitch);
                if (q != null && !taken.containsKey(q)) {
                    cells.put(next, q);
                    taken.put(q, next);
                    open.add(next);
                }
            }
        }
        return cells;
    }

    private static double[] local(Map<Cell, Peak> cells, Cell at, int[] way, double[] u) {
        Peak here = cells.get(at);
        Peak back = cells.get(new Cell(at.column - way[0], at.row - way[1]));
        return back != null
                ? new double[]{here.xPx() - back.xPx(), here.yPx() - back.yPx()}
                : new double[]{way[0] * u[0] - way[1] * u[1], way[0] * u[1] + way[1] * u[0]};
    }

    private static Optional<Numbered> fitted(Peaks peaks, Map<Cell, Peak> grown, double[] u, double radius,
            Plane whole) {
        Peak zero = grown.get(new Cell(0, 0));
        Optional<Projection> projection = fit(
                Projection.affine(u[0], -u[1], zero.xPx(), u[1], u[0], zero.yPx(),
                        whole.width, whole.height),
                grown);
        double usual = BeadCheck.median(grown.values().stream().mapToDouble(Peak::strength).toArray());
        Map<Cell, Peak> cells = grown;
        // Fields with a gap between them are one lattice: what lies on it elsewhere belongs to it.
        for (int turn = 0; turn < 3 && projection.isPresent(); turn++) {
            cells = onLattice(peaks, projection.get(), usual);
            projection = cells.size() < LEAST_SITES ? Optional.empty() : fit(projection.get(), cells);
        }
        Map<Cell, Peak> last = cells;
        return projection.map(p -> new Numbered(last, p, radius, peaks.all));
    }

    private static Optional<Projection> fit(Projection start, Map<Cell, Peak> cells) {
        List<Cell> order = List.copyOf(cells.keySet());
        return start.fitted(order.stream().map(c -> new double[]{c.column, c.row}).toArray(double[][]::new),
                order.stream().map(c -> new double[]{cells.get(c).xPx(), cells.get(c).yPx()})
                        .toArray(double[][]::new),
                order.size() > 20 ? Projection.Form.PLANE : Projection.Form.AFFINE);
    }

    private static Map<Cell, Peak> onLattice(Peaks peaks, Projection p, double usual) {
        Map<Cell, Peak> kept = new HashMap<>();
        for (Peak q : peaks.all) {
            double[] at = p.toMm(q.xPx(), q.yPx());
            Cell cell = new Cell((int) Math.round(at[0]), (int) Math.round(at[1]));
            boolean on = Math.hypot(at[0] - cell.column, at[1] - cell.row) < 0.22
                    && q.strength() > 0.5 * usual
                    && Math.abs(at[0]) < 120 && Math.abs(at[1]) < 120;
            if (on && (!kept.containsKey(cell) || kept.get(cell).strength() < q.strength())) {
                kept.put(cell, q);
            }
        }
        Map<Cell, Peak> sure = new HashMap<>(kept);
        sure.keySet().removeIf(c -> alone(kept, c));
        return sure;
    }

    /** A spot without two neighbours is no part of a field. */
    private static boolean alone(Map<Cell, Peak> cells, Cell c) {
        int near = 0;
        for (int[] way : new int[][]{{1, 0}, {-1, 0}, {0, 1}, {0, -1}}) {
            near += cells.containsKey(new Cell(c.column + way[0], c.row + way[1])) ? 1 : 0;
        }
        return near < 2;
    }

    private static BeadMap map(Raster picture, Numbered seen, double pitchMm) {
        int left = seen.cells.keySet().stream().mapToInt(Cell::column).min().orElse(0);
        int right = seen.cells.keySet().stream().mapToInt(Cell::column).max().orElse(0);
        int top = seen.cells.keySet().stream().mapToInt(Cell::row).min().orElse(0);
        int low = seen.cells.keySet().stream().mapToInt(Cell::row).max().orElse(0);
        var sites = new ArrayList<Site>();
        for (int row = top; row <= low; row++) {
            for (int column = left; column <= right; column++) {
                if (seen.cells.containsKey(new Cell(column, row))) {
                    sites.add(named(RowNames.site(row - top, column - left),
                            (column - (left + right) / 2.0) * pitchMm,
                            ((top + low) / 2.0 - row) * pitchMm));
                }
            }
        }
        Optional<Numbered> other = numbered(seen.strayed(), WIDER * seen.radiusPx, picture.red)
                .filter(o -> o.cells.size() > SECOND_PART * seen.strayed().size());
        if (other.isPresent()) {
            sites.replaceAll(s -> named("A:" + s.name(), s.xMm(), s.yMm()));
            sites.addAll(second(seen, other.get(), (left + right) / 2.0, (top + low) / 2.0, pitchMm));
        }
        var bare = new BeadMap(sites);
        // From the large side: an expectation that is too small would settle on the highlights.
        double guess = LARGEST_PART * pitchMm;
        BeadMap sized = bare;
        // What is looked for leans towards the size that is expected: the next look expects what the last one saw.
        for (int look = 0; look < LOOKS; look++) {
            try {
                double[] measured = BeadCheck.of(picture, with(bare, guess), false, Optional.empty()).sites()
                        .stream()
                        .filter(s -> s.diameterMm().isPresent()).mapToDouble(s -> s.diameterMm().get())
                        .toArray();
                if (measured.length < 5) {
                    return sized;
                }
                guess = BeadCheck.median(measured);
                sized = with(bare, Math.round(100 * guess) / 100.0);
            } catch (UnclearPhotoException | IllegalArgumentException e) {
                guess *= 0.92;
            }
        }
        return sized;
    }

    private static Site named(String name, double xMm, double yMm) {
        return new Site(name, xMm, yMm, Optional.empty(), "", Site.Critical.UNKNOWN);
    }

    /** A second field of another pitch, its places taken from the lattice of the first, its pitch to a hundredth of a millimetre. */
    private static List<Site> second(Numbered first, Numbered other, double midColumn, double midRow,
            double pitchMm) {
        List<double[]> places = other.cells.values().stream().map(p -> {
            double[] at = first.projection.toMm(p.xPx(), p.yPx());
            return new double[]{(at[0] - midColumn) * pitchMm, (midRow - at[1]) * pitchMm};
        }).toList();
        double[] nearest = places.stream().mapToDouble(p -> places.stream().filter(q -> q != p)
                .mapToDouble(q -> Math.hypot(p[0] - q[0], p[1] - q[1])).min().orElse(pitchMm)).toArray();
        double pitch = Math.round(100 * BeadCheck.median(nearest)) / 100.0;
        double x0 = phase(places.stream().mapToDouble(p -> p[0]).toArray(), pitch);
        double y0 = phase(places.stream().mapToDouble(p -> p[1]).toArray(), pitch);
        int left = (int) Math.round((places.stream().mapToDouble(p -> p[0]).min().orElse(0) - x0) / pitch);
        int top = (int) Math.round((places.stream().mapToDouble(p -> p[1]).max().orElse(0) - y0) / pitch);
        var sites = new java.util.TreeMap<String, Site>();
        for (double[] p : places) {
            int column = (int) Math.round((p[0] - x0) / pitch);
            int row = (int) Math.round((p[1] - y0) / pitch);
            String name = "B:" + RowNames.site(top - row, column - left);
            sites.put(name, named(name, x0 + column * pitch, y0 + row * pitch));
        }
        return List.copyOf(sites.values());
    }

    /** Where on a line of this pitch places lie, from their mean on the circle. */
    private static double phase(double[] values, double pitch) {
        double sin = 0;
        double cos = 0;
        for (double v : values) {
            sin += Math.sin(2 * Math.PI * v / pitch);
            cos += Math.cos(2 * Math.PI * v / pitch);
        }
        return pitch * Math.atan2(sin, cos) / (2 * Math.PI);
    }

    private static BeadMap with(BeadMap map, double diameterMm) {
        return new BeadMap(map.sites().stream().map(
                s -> new Site(s.name(), s.xMm(), s.yMm(), Optional.of(diameterMm), s.net(), s.critical()))
                .toList());
    }
}
