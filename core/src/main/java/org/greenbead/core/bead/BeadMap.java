package org.greenbead.core.bead;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.quantity.Check;

/** The ball sites of a chip, seen from the balls. Two sites never share a name and never overlap. */
public record BeadMap(List<Site> sites) {
    private static final int MOST = 20_000;
    /** Sites closer than this lie on one another whatever their balls. */
    private static final double LEAST_APART_MM = 0.1;
    /** Two fields fit when every site finds another within this part of the pitch. */
    private static final double FIT_PART = 0.2;

    public BeadMap {
        sites = List.copyOf(Check.present("sites", sites));
        if (sites.isEmpty() || sites.size() > MOST) {
            throw new IllegalArgumentException(
                    "a bead map has " + sites.size() + " sites; allowed are 1 to " + MOST);
        }
        Check.distinct("site", sites, Site::name);
        apart(sites);
    }

    private record Cell(long x, long y) {}

    /** Each site against those in its own and the cells around, so that a large field is checked in a moment. */
    private static void apart(List<Site> sites) {
        double cell = sites.stream().mapToDouble(s -> s.diameterMm().orElse(LEAST_APART_MM)).max()
                .orElse(LEAST_APART_MM);
        Map<Cell, List<Site>> grid = new HashMap<>();
        for (Site site : sites) {
            long cx = (long) Math.floor(site.xMm() / cell);
            long cy = (long) Math.floor(site.yMm() / cell);
            for (long x = cx - 1; x <= cx + 1; x++) {
                for (long y = cy - 1; y <= cy + 1; y++) {
                    for (Site other : grid.getOrDefault(new Cell(x, y), List.of())) {
                        double room = Math.max(LEAST_APART_MM,
                                (site.diameterMm().orElse(0.0) + other.diameterMm().orElse(0.0)) / 2);
                        if (site.distanceMm(other) < room - 1e-9) {
                            throw new IllegalArgumentException("sites " + other.name() + " and " + site.name()
                                    + " overlap; check their places and diameters");
                        }
                    }
                }
            }
            grid.computeIfAbsent(new Cell(cx, cy), c -> new ArrayList<>()).add(site);
        }
    }

    /** A full grid, row A at the top, column 1 at the left, middle at the origin. */
    public static BeadMap grid(int rows, int columns, double pitchMm, Optional<Double> diameterMm) {
        Check.within("rows", rows, 1, 200, "");
        Check.within("columns", columns, 1, 200, "");
        Check.within("pitch", pitchMm, 0.2, 3, "mm");
        var sites = new ArrayList<Site>();
        for (int r = 0; r < rows; r++) {
            for (int c = 0; c < columns; c++) {
                sites.add(new Site(RowNames.site(r, c), (c - (columns - 1) / 2.0) * pitchMm,
                        ((rows - 1) / 2.0 - r) * pitchMm, diameterMm, "", Site.Critical.UNKNOWN));
            }
        }
        return new BeadMap(sites);
    }

    /** Without the sites of a rectangle between two of its corners, such as C3 and F6. */
    public BeadMap without(String from, String to) {
        Site a = require(from);
        Site b = require(to);
        double left = Math.min(a.xMm(), b.xMm()) - 1e-6;
        double right = Math.max(a.xMm(), b.xMm()) + 1e-6;
        double low = Math.min(a.yMm(), b.yMm()) - 1e-6;
        double high = Math.max(a.yMm(), b.yMm()) + 1e-6;
        return new BeadMap(sites.stream()
                .filter(s -> s.xMm() < left || s.xMm() > right || s.yMm() < low || s.yMm() > high)
                .toList());
    }

    public Optional<Site> site(String name) {
        return sites.stream().filter(s -> s.name().equals(name)).findFirst();
    }

    private Site require(String name) {
        return site(name).orElseThrow(
                () -> new IllegalArgumentException(
                        "the map has no site \"" + name + "\"; it has " + sites.size() + ", from "
                                + sites.getFirst().name() + " to " + sites.getLast().name()));
    }

    /** Smallest distance between two sites; NaN for a single one. */
    public double pitchMm() {
        double least = Double.NaN;
        List<Site> sorted = sites.stream().sorted(Comparator.comparingDouble(Site::xMm)).toList();
        for (int i = 0; i < sorted.size(); i++) {
            for (int j = i + 1; j < sorted.size()
                    && !(sorted.get(j).xMm() - sorted.get(i).xMm() >= least); j++) {
                // A column has many sites; most of them are too far for their distance to be looked at.
                if (!(Math.abs(sorted.get(j).yMm() - sorted.get(i).yMm()) >= least)) {
                    double apart = sorted.get(i).distanceMm(sorted.get(j));
                    least = apart < least || Double.isNaN(least) ? apart : least;
                }
            }
        }
        return least;
    }

    /** Seen from the other side: left and right swapped. */
    public BeadMap mirrored() {
        return new BeadMap(sites.stream().map(s -> s.at(-s.xMm(), s.yMm())).toList());
    }

    /** Turned clockwise as seen from the balls. @param quarters of a turn */
    public BeadMap turned(int quarters) {
        BeadMap map = this;
        for (int i = 0; i < Math.floorMod(quarters, 4); i++) {
            map = new BeadMap(map.sites.stream().map(s -> s.at(s.yMm(), -s.xMm())).toList());
        }
        return map;
    }

    /**
     * How another field, a stencil say, fits on this one.
     *
     * @param degrees  the turn, clockwise, that fits best: 0, 90, 180 or 270
     * @param unfilled sites of this map that find no hole
     * @param extra    holes that find no site
     */
    public record Fit(int degrees, List<String> unfilled, List<String> extra) {
        public boolean whole() {
            return unfilled.isEmpty() && extra.isEmpty();
        }

        int mismatch() {
            return unfilled.size() + extra.size();
        }
    }

    /** The best of the four turns; the smaller turn where several fit alike. */
    public Fit fit(BeadMap stencil) {
        Fit best = null;
        for (int quarter = 0; quarter < 4; quarter++) {
            Fit fit = fitted(stencil.turned(quarter), quarter * 90);
            if (best == null || fit.mismatch() < best.mismatch()) {
                best = fit;
            }
        }
        return best;
    }

    private Fit fitted(BeadMap other, int degrees) {
        double reach = FIT_PART * (sites.size() > 1 ? pitchMm() : 0.5);
        return new Fit(degrees, left(sites, other.sites, reach), left(other.sites, sites, reach));
    }

    private static List<String> left(List<Site> these, List<Site> those, double reach) {
        Map<Cell, List<Site>> grid = new HashMap<>();
        for (Site that : those) {
            grid.computeIfAbsent(
                    new Cell((long) Math.floor(that.xMm() / reach), (long) Math.floor(that.yMm() / reach)),
                    c -> new ArrayList<>()).add(that);
        }
        var alone = new ArrayList<String>();
        for (Site site : these) {
            long cx = (long) Math.floor(site.xMm() / reach);
            long cy = (long) Math.floor(site.yMm() / reach);
            boolean met = false;
            for (long x = cx - 1; x <= cx + 1 && !met; x++) {
                for (long y = cy - 1; y <= cy + 1 && !met; y++) {
                    met = grid.getOrDefault(new Cell(x, y), List.of()).stream()
                            .anyMatch(o -> o.distanceMm(site) <= reach);
                }
            }
            if (!met) {
                alone.add(site.name());
            }
        }
        return List.copyOf(alone);
    }
}
