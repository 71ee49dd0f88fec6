package org.greenbead.store;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Placement;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProtectedPart;
import org.greenbead.core.board.Side;

/**
 * A placement file: {@code ref,x_mm,y_mm,rotation,side,package}; millimetres from the lower left corner of the board seen from the top,
 * degrees anticlockwise, side top or bottom.
 */
public final class PlacementCsv {
    static final List<String> HEADER = List.of("ref", "x_mm", "y_mm", "rotation", "side", "package");
    private static final int MOST_BYTES = 2 << 20;
    private static final int MOST_PARTS = 5000;
    private static final double MM_PER_INCH = 25.4;

    private PlacementCsv() {
    }

    /** Unit of a file whose header does not say. */
    public enum Unit {
        MM, INCH, MIL;

        double inMm() {
            return switch (this) {
                case MM -> 1;
                case INCH -> MM_PER_INCH;
                case MIL -> MM_PER_INCH / 1000;
            };
        }
    }

    /**
     * A board with the parts of a file.
     *
     * @param limitAssumed parts whose limit is that of their class: read their sheet
     * @param sizeAssumed  parts whose size nobody knows from their package
     * @param moved        chips of the board that the file places more than half a millimetre elsewhere; they stay where they are
     */
    public record Placed(Board board, List<String> limitAssumed, List<String> sizeAssumed,
            List<String> moved) {}

    /** @throws BadFileException naming line and column */
    public static List<Placement> read(Path file, Unit unit) throws BadFileException {
        return parse(OpenFiles.text(file, MOST_BYTES), String.valueOf(file.getFileName()), unit);
    }

    static List<Placement> parse(String text, String name, Unit unit) throws BadFileException {
        var placements = new ArrayList<Placement>();
        var seen = new HashSet<String>();
        try (CsvReader<CsvRecord> csv = CsvReader.builder().allowExtraFields(true).allowMissingFields(true)
                .ofCsvRecord(
                        text.startsWith("\uFEFF") ? text.substring(1) : text)) {
            boolean head = true;
            for (CsvRecord row : csv) {
                int line = (int) row.getStartingLineNumber();
                if (head) {
                    header(row, name);
                    head = false;
                    continue;
                }
                if (row.getFieldCount() != HEADER.size()) {
                    throw new BadFileException(name, line, "",
                            "it has " + row.getFieldCount() + " columns, wanted are " + HEADER.size(),
                            "Write " + String.join(",", HEADER));
                }
                Placement placement = placement(row, name, line, unit);
                if (!seen.add(placement.ref())) {
                    throw new BadFileException(name, line, "ref", placement.ref() + " stands twice",
                            "Give each part its own designator");
                }
                placements.add(placement);
                if (placements.size() > MOST_PARTS) {
                    throw new BadFileException(name, line, "", "it has more than " + MOST_PARTS + " parts",
                            "Check that it is the right file");
                }
            }
            if (head) {
                throw new BadFileException(name, 1, "", "it is empty", "Write " + String.join(",", HEADER));
            }
        } catch (CsvParseException e) {
            throw new BadFileException(name, 0, "", "it is no CSV: " + e.getMessage(),
                    "Separate by commas, one part a line");
        } catch (java.io.IOException e) {
            throw new BadFileException(name, 0, "", "it cannot be read (" + e.getMessage() + ")",
                    "Check the disk");
        }
        return List.copyOf(placements);
    }

    private static void header(CsvRecord row, String name) throws BadFileException {
        List<String> said = row.getFields().stream().map(f -> f.strip().toLowerCase(Locale.ROOT)).toList();
        if (said.equals(HEADER)) {
            return;
        }
        if (said.stream().anyMatch(f -> f.endsWith("_in") || f.endsWith("_inch") || f.endsWith("_mil"))) {
            throw new BadFileException(name, 1, String.join(",", said), "its columns are in inches or mils",
                    "Export it in millimetres, or write the header as " + String.join(",", HEADER)
                            + " and name the unit of the numbers with --unit inch or --unit mil");
        }
        throw new BadFileException(name, 1, String.join(",", said),
                "this is not the header of a placement file",
                "Write " + String.join(",", HEADER));
    }

    private static Placement placement(CsvRecord row, String name, int line, Unit unit)
            throws BadFileException {
        double x = number(row, 1, name, line) * unit.inMm();
        double y = number(row, 2, name, line) * unit.inMm();
        double turn = row.getField(3).isBlank() ? 0 : number(row, 3, name, line);
        Side side = switch (row.getField(4).strip().toLowerCase(Locale.ROOT)) {
            case "top", "t", "" -> Side.TOP;
            case "bottom", "b", "underside" -> Side.BOTTOM;
            default -> throw new BadFileException(name, line, "side",
                    "\"" + row.getField(4) + "\" is no side", "Write top or bottom");
        };
        try {
            return new Placement(row.getField(0).strip(), new Point(x, y), turn, side,
                    row.getField(5).strip());
        } catch (IllegalArgumentException e) {
            throw new BadFileException(name, line, "", e.getMessage(), "Correct the line");
        }
    }

    private static double number(CsvRecord row, int column, String name, int line) throws BadFileException {
        String text = row.getField(column).strip();
        try {
            double value = Double.parseDouble(text);
            if (Double.isFinite(value) && Math.abs(value) <= 1e6) {
                return value;
            }
        } catch (NumberFormatException e) {
            // said below, with the ones that are no sensible number
        }
        throw new BadFileException(name, line, HEADER.get(column), "\"" + text + "\" is no number in range",
                text.matches(".*(mm|in|mil).*") ? "Leave the unit out of the cell" : "Write it like 12.5");
    }

    /**
     * Puts the parts on a board. A part that is there already is replaced, others stay; chips keep their place.
     *
     * @throws BadFileException for a part off the board, or a file that looks as if it were in inches
     */
    public static Placed onto(Board board, List<Placement> placements, String name, Unit unit)
            throws BadFileException {
        double far = placements.stream()
                .mapToDouble(p -> Math.max(p.centreMm().xMm() / board.sizeMm().xMm(),
                        p.centreMm().yMm() / board.sizeMm().yMm()))
                .max().orElse(0);
        if (unit == Unit.MM && placements.size() >= 5 && far < 1.2 / MM_PER_INCH) {
            throw new BadFileException(name, 0, "",
                    String.format(Locale.ROOT,
                            "all %d parts lie within %.1f %% of the board from its corner; the numbers look like inches",
                            placements.size(), far * 100),
                    "Read it again with --unit inch, or export it in millimetres");
        }
        var parts = new ArrayList<>(board.parts());
        var limits = new ArrayList<String>();
        var sizes = new ArrayList<String>();
        var moved = new ArrayList<String>();
        for (Placement p : placements) {
            if (p.centreMm().xMm() < 0 || p.centreMm().yMm() < 0 || p.centreMm().xMm() > board.sizeMm().xMm()
                    || p.centreMm().yMm() > board.sizeMm().yMm()) {
                throw new BadFileException(name, 0, p.ref(),
                        String.format(Locale.ROOT,
                                "%s lies at %.1f, %.1f mm, off the board of %.1f x %.1f mm",
                                p.ref(), p.centreMm().xMm(), p.centreMm().yMm(), board.sizeMm().xMm(),
                                board.sizeMm().yMm()),
                        "Check the unit and the origin (lower left corner, seen from the top), or the size of the board");
            }
            var chip = board.chip(p.ref());
            if (chip.isPresent()) {
                if (chip.get().centreMm().distanceMm(p.centreMm()) > 0.5) {
                    moved.add(p.ref());
                }
                continue;
            }
            Placement.Placed placed = p.part();
            ProtectedPart part = placed.part();
            int at = -1;
            for (int i = 0; i < parts.size(); i++) {
                at = parts.get(i).name().equals(p.ref()) ? i : at;
            }
            if (at >= 0) {
                // What a person noted of it outranks its class.
                parts.set(at, parts.get(at).at(p.centreMm()));
            } else {
                parts.add(part);
                if (placed.limitAssumed()) {
                    limits.add(p.ref());
                }
                if (placed.sizeAssumed()) {
                    sizes.add(p.ref());
                }
            }
        }
        return new Placed(board.withParts(parts), List.copyOf(limits), List.copyOf(sizes),
                List.copyOf(moved));
    }
}
