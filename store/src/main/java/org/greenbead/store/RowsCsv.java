package org.greenbead.store;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** Rows of a table that a person keeps: commas, semicolons or tabs; lines that begin with # are left out. */
final class RowsCsv {
    private static final int MOST_BYTES = 2 << 20;

    private RowsCsv() {
    }

    /** @param line where it stands in the file, from 1 */
    record Row(int line, List<String> cells) {
        String cell(int at) {
            return at < cells.size() ? cells.get(at) : "";
        }
    }

    static List<Row> read(Path file) throws BadFileException {
        return parse(OpenFiles.text(file, MOST_BYTES), String.valueOf(file.getFileName()));
    }

    static List<Row> parse(String text, String name) throws BadFileException {
        String plain = text.startsWith("\uFEFF") ? text.substring(1) : text;
        var rows = new ArrayList<Row>();
        try (CsvReader<CsvRecord> csv = CsvReader.builder().allowExtraFields(true).allowMissingFields(true)
                .fieldSeparator(separator(plain)).ofCsvRecord(plain)) {
            for (CsvRecord row : csv) {
                List<String> cells = row.getFields().stream().map(String::strip).toList();
                if (!cells.getFirst().startsWith("#") && cells.stream().anyMatch(c -> !c.isEmpty())) {
                    rows.add(new Row((int) row.getStartingLineNumber(), cells));
                }
            }
        } catch (CsvParseException e) {
            throw new BadFileException(name, 0, "", "it is no table (" + e.getMessage() + ")",
                    "Look for a quote that is not closed");
        } catch (java.io.IOException e) {
            throw new BadFileException(name, 0, "", e.getMessage(), "Copy it again");
        }
        return List.copyOf(rows);
    }

    private static String separator(String text) {
        String first = text.lines().filter(l -> !l.isBlank() && !l.startsWith("#")).findFirst().orElse("");
        return first.contains(";") ? ";" : first.contains("\t") ? "\t" : ",";
    }
}
