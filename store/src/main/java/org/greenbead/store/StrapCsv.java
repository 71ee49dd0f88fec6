package org.greenbead.store;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.greenbead.core.configure.Strap;
import org.greenbead.core.configure.StrapTable;

/**
 * A strap table as a user keeps it. The first cell of a row says what it is: {@code source,schematic}, {@code revision,C}, {@code vcc_v,1.8},
 * {@code vcc_tolerance_pct,5}, {@code resistor_tolerance_pct,1}, {@code low_part,0.35}, {@code high_part,0.65};
 * {@code strap,NAME,UP,UP_OHM,DOWN,DOWN_OHM} in the order of the code's digits; {@code code,DIGITS,MEANING}.
 */
public final class StrapCsv {
    private static final List<String> NUMBERS = List.of("vcc_v", "vcc_tolerance_pct",
            "resistor_tolerance_pct", "low_part",
            "high_part");
    private static final int STRAP_CELLS = 6;

    private StrapCsv() {
    }

    /** @throws BadFileException naming the line */
    public static StrapTable read(Path file) throws BadFileException {
        return table(RowsCsv.read(file), String.valueOf(file.getFileName()));
    }

    static StrapTable parse(String text, String name) throws BadFileException {
        return table(RowsCsv.parse(text, name), name);
    }

    private static StrapTable table(List<RowsCsv.Row> rows, String name) throws BadFileException {
        Map<String, String> said = new HashMap<>();
        Map<String, Double> numbers = new HashMap<>();
        var straps = new ArrayList<Strap>();
        Map<String, String> codes = new LinkedHashMap<>();
        for (RowsCsv.Row row : rows) {
            String what = row.cell(0).toLowerCase(java.util.Locale.ROOT);
            if (what.equals("strap")) {
                if (row.cells().size() < STRAP_CELLS) {
                    throw new BadFileException(name, row.line(), "strap",
                            "it has " + row.cells().size() + " cells",
                            "Write strap,NAME,UP,UP_OHM,DOWN,DOWN_OHM");
                }
                try {
                    straps.add(new Strap(row.cell(1), row.cell(2), number(row, 3, name), row.cell(4),
                            number(row, 5, name)));
                } catch (IllegalArgumentException e) {
                    throw new BadFileException(name, row.line(), "strap", e.getMessage(), "Correct the row");
                }
            } else if (what.equals("code")) {
                if (codes.put(row.cell(1), row.cell(2)) != null) {
                    throw new BadFileException(name, row.line(), "code",
                            "code " + row.cell(1) + " stands twice",
                            "Keep the row that the source says");
                }
            } else if (what.equals("source") || what.equals("revision")) {
                said.put(what, row.cell(1));
            } else if (NUMBERS.contains(what)) {
                numbers.put(what, number(row, 1, name));
            } else {
                throw new BadFileException(name, row.line(), row.cell(0), "no such row",
                        "Begin a row with strap, code, source, revision, " + String.join(", ", NUMBERS));
            }
        }
        if (!numbers.containsKey("vcc_v")) {
            throw new BadFileException(name, 0, "vcc_v", "the supply of the straps is missing",
                    "Add a row vcc_v,1.8");
        }
        if (said.getOrDefault("source", "").isBlank()) {
            throw new BadFileException(name, 0, "source", "nobody says where the table comes from",
                    "Add a row source,schematic (or what it was taken from)");
        }
        try {
            return new StrapTable(said.get("source"), said.getOrDefault("revision", ""),
                    new Strap.Supply(numbers.get("vcc_v"), numbers.getOrDefault("vcc_tolerance_pct", 5.0),
                            numbers.getOrDefault("resistor_tolerance_pct", 1.0),
                            numbers.getOrDefault("low_part", 0.35),
                            numbers.getOrDefault("high_part", 0.65)),
                    straps, codes);
        } catch (IllegalArgumentException e) {
            throw new BadFileException(name, 0, "", e.getMessage(), "Correct the table");
        }
    }

    private static double number(RowsCsv.Row row, int at, String name) throws BadFileException {
        String text = row.cell(at).replace(',', '.').replaceAll("(?i)k$", "e3").replaceAll("M$", "e6");
        try {
            return Double.parseDouble(text);
        } catch (NumberFormatException e) {
            throw new BadFileException(name, row.line(), row.cell(0), "\"" + row.cell(at) + "\" is no number",
                    "Write 10000 or 10k");
        }
    }
}
