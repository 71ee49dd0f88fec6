package org.greenbead.core.board;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.greenbead.core.quantity.Check;

/**
 * One line of a placement file.
 *
 * @param ref         designator, "C17"
 * @param centreMm    from the board's lower left corner, seen from the top
 * @param rotationDeg anticlockwise, -360 to 360
 * @param footprint   name of its package, "0402", "QFN-24_4x4"
 */
public record Placement(String ref, Point centreMm, double rotationDeg, Side side, String footprint) {
    private static final Pattern SIZE = Pattern
            .compile("(\\d{1,3}(?:\\.\\d{1,3})?)\\s*[xX×]\\s*(\\d{1,3}(?:\\.\\d{1,3})?)");
    private static final Pattern CODE = Pattern
            .compile("(?<!\\d)(01005|0201|0402|0603|0805|1206|1210|1812|2010|2512)(?!\\d)");
    /** Inch codes in mm (IPC-7351 body sizes; verify). */
    private static final List<Chip2> CODES = List.of(new Chip2("01005", 0.4, 0.2, 0.2),
            new Chip2("0201", 0.6, 0.3, 0.3), new Chip2("0402", 1.0, 0.5, 0.5),
            new Chip2("0603", 1.6, 0.8, 0.8), new Chip2("0805", 2.0, 1.25, 1.0),
            new Chip2("1206", 3.2, 1.6, 1.2), new Chip2("1210", 3.2, 2.5, 1.6),
            new Chip2("1812", 4.5, 3.2, 2.0), new Chip2("2010", 5.0, 2.5, 0.7),
            new Chip2("2512", 6.3, 3.2, 0.7));

    private record Chip2(String code, double xMm, double yMm, double heightMm) {}

    /** A part made of a placement, and whether its limit is only that of its class. */
    public record Placed(ProtectedPart part, boolean limitAssumed, boolean sizeAssumed) {}

    public Placement {
        Check.text("reference", ref);
        Check.present("place of " + ref, centreMm);
        Check.within("rotation of " + ref, rotationDeg, -360, 360, "°");
        Check.present("side of " + ref, side);
        footprint = footprint == null ? "" : footprint;
    }

    /**
     * The part that this line means. Limits are those of the class (wet capacitor 105, cell 60, connector, crystal and switch 220 until
     * their sheet is read, other parts 260; judgement of the trade): {@code limitAssumed} says that the sheet is still to be read.
     */
    public Placed part() {
        String small = (ref + " " + footprint).toLowerCase(Locale.ROOT);
        Optional<Chip2> code = Optional.empty();
        Matcher coded = CODE.matcher(footprint);
        if (coded.find()) {
            code = CODES.stream().filter(c -> c.code.equals(coded.group(1))).findFirst();
        }
        Matcher sized = SIZE.matcher(footprint);
        Point size = code.map(c -> new Point(c.xMm, c.yMm)).orElseGet(() -> sized.find()
                ? new Point(Double.parseDouble(sized.group(1)), Double.parseDouble(sized.group(2)))
                : new Point(2, 2));
        boolean sizeKnown = code.isPresent() || SIZE.matcher(footprint).find();
        double turn = Math.toRadians(rotationDeg);
        double cos = Math.abs(Math.cos(turn));
        double sin = Math.abs(Math.sin(turn));
        var turned = new Point(size.xMm() * cos + size.yMm() * sin, size.xMm() * sin + size.yMm() * cos);
        Class0 of = kind(small);
        return new Placed(
                new ProtectedPart(ref, of.words, side, centreMm, turned, of.limitC,
                        code.map(c -> c.heightMm), of.holds),
                of.assumed, !sizeKnown);
    }

    private record Class0(String words, double limitC, boolean assumed,
            java.util.Set<ProtectedPart.Holds> holds) {}

    private static Class0 kind(String small) {
        if (small.contains("elko") || small.contains("electrolytic") || small.contains("cap_el")
                || small.contains("cp_elec")) {
            return new Class0("wet capacitor", 105, false, java.util.Set.of());
        }
        if (small.startsWith("bt") || small.contains("battery") || small.contains("cell")) {
            return new Class0("cell", 60, false, java.util.Set.of(ProtectedPart.Holds.CELL));
        }
        if (small.matches("^(j|cn|con)\\d.*") || small.contains("conn")) {
            return new Class0("connector", 220, true, java.util.Set.of());
        }
        if (small.matches("^(y|x|xt)\\d.*") || small.contains("crystal") || small.contains("mems")) {
            return new Class0("crystal", 220, true, java.util.Set.of());
        }
        if (small.matches("^(sw|s)\\d.*")) {
            return new Class0("switch", 220, true, java.util.Set.of());
        }
        return new Class0(
                small.startsWith("r")
                        ? "resistor"
                        : small.startsWith("c") ? "capacitor" : small.startsWith("u") ? "package" : "part",
                260, small.startsWith("u"), java.util.Set.of());
    }
}
