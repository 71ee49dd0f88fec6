package org.greenbead.store;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.greenbead.core.travel.TravelTable;

/** The travelling sets that a user keeps: {@code platform,generation,chip,need,reason,source,date}; need is must, should or never. */
public final class TravelCsv {
    private static final List<String> HEADER = List.of("platform", "generation", "chip", "need", "reason",
            "source",
            "date");

    private TravelCsv() {
    }

    /** @throws BadFileException naming the line */
    public static TravelTable read(Path file) throws BadFileException {
        return table(RowsCsv.read(file), String.valueOf(file.getFileName()));
    }

    static TravelTable table(List<RowsCsv.Row> rows, String name) throws BadFileException {
        if (rows.isEmpty() || !rows.getFirst().cells().stream().map(c -> c.toLowerCase(Locale.ROOT)).toList()
                .equals(HEADER)) {
            throw new BadFileException(name, 1, "", "it is no table of travelling sets",
                    "Begin it with " + String.join(",", HEADER));
        }
        var out = new ArrayList<TravelTable.Row>();
        for (RowsCsv.Row row : rows.subList(1, rows.size())) {
            try {
                out.add(new TravelTable.Row(row.cell(0), row.cell(1).isEmpty()
                        ? Optional.empty()
                        : Optional.of(Integer.parseInt(row.cell(1))), row.cell(2),
                        TravelTable.Need.valueOf(row.cell(3).toUpperCase(Locale.ROOT)), row.cell(4),
                        row.cell(5),
                        row.cell(6)));
            } catch (NumberFormatException e) {
                throw new BadFileException(name, row.line(), "generation",
                        "\"" + row.cell(1) + "\" is no number",
                        "Write 3, or leave it empty for every generation");
            } catch (IllegalArgumentException e) {
                throw new BadFileException(name, row.line(), "", e.getMessage(),
                        "Write must, should or never, and the source");
            }
        }
        return new TravelTable(out);
    }
}
