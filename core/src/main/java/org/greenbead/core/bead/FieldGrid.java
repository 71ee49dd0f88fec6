package org.greenbead.core.bead;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.greenbead.core.board.Point;
import org.greenbead.core.quantity.Check;

/**
 * Rows and columns of a bead map: where a cell lies that has no ball, and how cells are filled, emptied and described. Least squares through
 * the sites of one field; a second field with another pitch ("B:A1") keeps its sites and has a grid of its own. Immutable.
 */
public final class FieldGrid {
    private static final double USUAL_PART = 0.55;
    private final BeadMap map;
    private final String field;
    private final double[] x;
    private final double[] y;

    private FieldGrid(BeadMap map, String field, double[] x, double[] y) {
        this.map = map;
        this.field = field;
        this.x = x;
        this.y = y;
    }

    /**
     * Of the first field.
     *
     * @throws IllegalArgumentException when its sites show no rows and columns
     */
    public static FieldGrid of(BeadMap map) {
        return of(map, fields(map).getFirst());
    }

    /** @throws IllegalArgumentException when the sites of that field show no rows and columns */
    public static FieldGrid of(BeadMap map, String field) {
        var cells = new ArrayList<double[]>();
        for (Site site : map.sites()) {
            Optional<RowNames.Place> place = RowNames.field(site.name()).equals(field)
                    ? RowNames.place(site.name())
                    : Optional.empty();
            place.ifPresent(p -> cells.add(new double[]{p.column(), p.row(), site.xMm(), site.yMm()}));
        }
        return new FieldGrid(map, field, plane(cells, 2), plane(cells, 3));
    }

    /** The fields of a map, the main one, which has no name, first. */
    public static List<String> fields(BeadMap map) {
        return map.sites().stream().map(s -> RowNames.field(s.name())).distinct().sorted().toList();
    }

    /** The grid of the next field of this map; its own where there is one. */
    public FieldGrid next() {
        List<String> all = fields(map);
        return of(map, all.get((all.indexOf(field) + 1) % all.size()));
    }

    public String field() {
        return field;
    }

    public String name(int row, int column) {
        return RowNames.site(field, row, column);
    }

    public double pitchMm() {
        return Math.min(Math.hypot(x[1], y[1]), Math.hypot(x[2], y[2]));
    }

    /** {@code value = a + b column + c row}, by the normal equations. */
    private static double[] plane(List<double[]> cells, int value) {
        double n = cells.size();
        double mc = cells.stream().mapToDouble(c -> c[0]).average().orElse(0);
        double mr = cells.stream().mapToDouble(c -> c[1]).average().orElse(0);
        double mv = cells.stream().mapToDouble(c -> c[value]).average().orElse(0);
        double cc = 0;
        double rr = 0;
        double cr = 0;
        double cv = 0;
        double rv = 0;
        for (double[] c : cells) {
            cc += (c[0] - mc) * (c[0] - mc);
            rr += (c[1] - mr) * (c[1] - mr);
            cr += (c[0] - mc) * (c[1] - mr);
            cv += (c[0] - mc) * (c[value] - mv);
            rv += (c[1] - mr) * (c[value] - mv);
        }
        double det = cc * rr - cr * cr;
        if (n < 3 || !(det > 1e-9)) {
            throw new IllegalArgumentException(
                    "the sites show no rows and columns; a field needs at least two of each, begin with a grid");
        }
        double b = (cv * rr - rv * cr) / det;
        double c = (rv * cc - cv * cr) / det;
        return new double[]{mv - b * mc - c * mr, b, c};
    }

    public BeadMap map() {
        return map;
    }

    /** Middle of a cell, whether it has a site or not, mm. */
    public Point at(int row, int column) {
        return new Point(x[0] + x[1] * column + x[2] * row, y[0] + y[1] * column + y[2] * row);
    }

    public Optional<Site> site(int row, int column) {
        return map.site(name(row, column));
    }

    /** The cell nearest to a place, from 0; outside the field too. */
    public RowNames.Place nearest(double xMm, double yMm) {
        double det = x[1] * y[2] - x[2] * y[1];
        double dx = xMm - x[0];
        double dy = yMm - y[0];
        return new RowNames.Place((int) Math.max(0, Math.round((x[1] * dy - y[1] * dx) / det)),
                (int) Math.max(0, Math.round((dx * y[2] - dy * x[2]) / det)));
    }

    public int rows() {
        return places().mapToInt(RowNames.Place::row).max().orElse(0) + 1;
    }

    public int columns() {
        return places().mapToInt(RowNames.Place::column).max().orElse(0) + 1;
    }

    private Stream<RowNames.Place> places() {
        return map.sites().stream().map(Site::name).filter(n -> RowNames.field(n).equals(field))
                .flatMap(n -> RowNames.place(n).stream());
    }

    /** A rectangle of cells between two of its corners. */
    public record Range(int fromRow, int fromColumn, int toRow, int toColumn) {
        public Range {
            Check.within("row", Math.min(fromRow, toRow), 0, 199, "");
            Check.within("column", Math.min(fromColumn, toColumn), 0, 199, "");
            Check.within("row", Math.max(fromRow, toRow), 0, 199, "");
            Check.within("column", Math.max(fromColumn, toColumn), 0, 199, "");
        }

        boolean holds(RowNames.Place p) {
            return p.row() >= Math.min(fromRow, toRow) && p.row() <= Math.max(fromRow, toRow)
                    && p.column() >= Math.min(fromColumn, toColumn)
                    && p.column() <= Math.max(fromColumn, toColumn);
        }
    }

    private boolean holds(Range range, Site site) {
        return RowNames.field(site.name()).equals(field)
                && RowNames.place(site.name()).filter(range::holds).isPresent();
    }

    /** @throws IllegalArgumentException when no site would be left */
    public BeadMap emptied(Range range) {
        return new BeadMap(map.sites().stream().filter(s -> !holds(range, s)).toList());
    }

    /** Sites where there are none, with the diameter that most of the others have. */
    public BeadMap filled(Range range) {
        var sites = new ArrayList<>(map.sites());
        Optional<Double> diameter = usual();
        for (int r = Math.min(range.fromRow(), range.toRow()); r <= Math.max(range.fromRow(),
                range.toRow()); r++) {
            for (int c = Math.min(range.fromColumn(), range.toColumn()); c <= Math.max(range.fromColumn(),
                    range.toColumn()); c++) {
                if (site(r, c).isEmpty()) {
                    Point at = at(r, c);
                    sites.add(new Site(name(r, c), at.xMm(), at.yMm(), diameter, "",
                            Site.Critical.UNKNOWN));
                }
            }
        }
        sites.sort(Comparator.comparing((Site s) -> RowNames.field(s.name()))
                .thenComparing(s -> RowNames.place(s.name()).map(RowNames.Place::row).orElse(0))
                .thenComparing(s -> RowNames.place(s.name()).map(RowNames.Place::column).orElse(0)));
        return new BeadMap(sites);
    }

    private Optional<Double> usual() {
        List<Double> sizes = map.sites().stream()
                .filter(s -> RowNames.field(s.name()).equals(field)).flatMap(s -> s.diameterMm().stream())
                .sorted().toList();
        return sizes.isEmpty() ? Optional.empty() : Optional.of(sizes.get(sizes.size() / 2));
    }

    private BeadMap each(Range range, UnaryOperator<Site> change) {
        return new BeadMap(map.sites().stream().map(s -> holds(range, s) ? change.apply(s) : s).toList());
    }

    public BeadMap critical(Range range, Site.Critical critical) {
        return each(range, s -> new Site(s.name(), s.xMm(), s.yMm(), s.diameterMm(), s.net(), critical));
    }

    public BeadMap net(Range range, String net) {
        return each(range, s -> new Site(s.name(), s.xMm(), s.yMm(), s.diameterMm(), net, s.critical()));
    }

    public BeadMap sized(Range range, double diameterMm) {
        return each(range,
                s -> new Site(s.name(), s.xMm(), s.yMm(), Optional.of(diameterMm), s.net(), s.critical()));
    }

    /**
     * A new field from words such as "17x17 0.65" or "17 x 15, 0.65 mm, 0.35": rows by columns, pitch, ball.
     *
     * @throws IllegalArgumentException saying what is wanted
     */
    public static BeadMap typed(String text) {
        double[] n = numbers(text);
        if (n.length != 3 && n.length != 4) {
            throw new IllegalArgumentException(
                    "write rows x columns, pitch and ball in mm, such as 17x17 0.65 0.35");
        }
        return grid(n, n.length > 3 ? n[3] : usual(n[2]));
    }

    /**
     * This map and a second field beside its own from words such as "5x4 1.0 0.5 at 0 -6.5": rows by columns, pitch, ball, and where its
     * middle lies. It takes the next free letter, from B on.
     *
     * @throws IllegalArgumentException saying what is wanted, or which sites would lie on each other
     */
    public BeadMap with(String text) {
        String[] parts = text.toLowerCase(Locale.ROOT).split("\\bat\\b");
        double[] n = numbers(parts[0]);
        double[] at = parts.length == 2 ? numbers(parts[1]) : new double[0];
        if (n.length != 3 && n.length != 4 || at.length != 2) {
            throw new IllegalArgumentException(
                    "write rows x columns, pitch, ball and where its middle lies, in mm, such as + 5x4 1.0 0.5 at 0 -6.5");
        }
        List<String> taken = fields(map);
        String letter = IntStream.rangeClosed('B', 'Z').mapToObj(c -> String.valueOf((char) c))
                .filter(c -> !taken.contains(c)).findFirst()
                .orElseThrow(() -> new IllegalArgumentException("a map has 26 fields at most"));
        var sites = new ArrayList<>(map.sites());
        grid(n, n.length > 3 ? n[3] : usual(n[2])).sites()
                .forEach(s -> sites.add(new Site(letter + ":" + s.name(),
                        s.xMm() + at[0], s.yMm() + at[1], s.diameterMm(), s.net(), s.critical())));
        return new BeadMap(sites);
    }

    private static double usual(double pitchMm) {
        return Math.round(USUAL_PART * pitchMm * 100) / 100.0;
    }

    private static BeadMap grid(double[] n, double ball) {
        if (n[0] != Math.rint(n[0]) || n[1] != Math.rint(n[1])) {
            throw new IllegalArgumentException("rows and columns are whole numbers, such as 17x17");
        }
        return BeadMap.grid((int) n[0], (int) n[1], n[2], Optional.of(ball));
    }

    /** The numbers of a text; none where something else stands between them. */
    private static double[] numbers(String text) {
        String[] words = text.toLowerCase(Locale.ROOT).replace("mm", " ")
                .replaceAll("(?<=[\\d\\s])[x×](?=[\\d\\s])", " ")
                .strip().split("[\\s,;]+");
        try {
            return Arrays.stream(words).mapToDouble(Double::parseDouble).toArray();
        } catch (NumberFormatException e) {
            return new double[0];
        }
    }
}
