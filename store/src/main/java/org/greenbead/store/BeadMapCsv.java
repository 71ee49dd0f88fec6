package org.greenbead.store;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;

/**
 * A bead map: {@code site,x_mm,y_mm,diameter_mm,net,critical}; the first three columns are needed, the others may be left out. Seen from the
 * balls, x to the right, y upwards, row A at the top, millimetres from the middle of the body.
 */
public final class BeadMapCsv {
    static final List<String> HEADER = List.of("site", "x_mm", "y_mm", "diameter_mm", "net", "critical");
    private static final int MOST_BYTES = 4 << 20;

    private BeadMapCsv() {
    }

    /** @throws BadFileException naming line and column */
    public static BeadMap read(Path file) throws BadFileException {
        return parse(OpenFiles.text(file, MOST_BYTES), String.valueOf(file.getFileName()));
    }

    /** Whether a CSV file is a bead map by its first word, and no placement file. */
    public static boolean isOne(Path file) throws BadFileException {
        String text = OpenFiles.text(file, MOST_BYTES);
        return text.lines().findFirst().map(l -> l.replace("\uFEFF", "").split("[,;]", 2)[0].strip())
                .filter(HEADER.getFirst()::equalsIgnoreCase).isPresent();
    }

    static BeadMap parse(String text, String name) throws BadFileException {
        var sites = new ArrayList<Site>();
        int columns = 0;
        try (CsvReader<CsvRecord> csv = CsvReader.builder().allowExtraFields(true).allowMissingFields(true)
                .ofCsvRecord(text.startsWith("\uFEFF") ? text.substring(1) : text)) {
            for (CsvRecord row : csv) {
                int line = (int) row.getStartingLineNumber();
                if (columns == 0) {
                    columns = header(row, name);
                } else if (row.getFieldCount() != columns) {
                    throw new BadFileException(name, line, "",
                            "it has " + row.getFieldCount() + " columns, wanted are " + columns,
                            "Write " + String.join(",", HEADER.subList(0, columns)));
                } else {
                    sites.add(site(row, name, line));
                }
            }
        } catch (CsvParseException e) {
            throw new BadFileException(name, 0, "", "it is no CSV: " + e.getMessage(),
                    "Separate by commas, one site a line");
        } catch (IOException e) {
            throw new BadFileException(name, 0, "", "it cannot be read (" + e.getMessage() + ")",
                    "Check the disk");
        }
        if (columns == 0 || sites.isEmpty()) {
            throw new BadFileException(name, 1, "", "it names no site", "Write " + String.join(",", HEADER));
        }
        try {
            return new BeadMap(sites);
        } catch (IllegalArgumentException e) {
            throw new BadFileException(name, 0, "", e.getMessage(), "Correct the map and read it again");
        }
    }

    private static int header(CsvRecord row, String name) throws BadFileException {
        List<String> said = row.getFields().stream().map(f -> f.strip().toLowerCase(Locale.ROOT)).toList();
        if (said.size() < 3 || said.size() > HEADER.size() || !said.equals(HEADER.subList(0, said.size()))) {
            throw new BadFileException(name, 1, String.join(",", said),
                    "this is not the header of a bead map",
                    "Write " + String.join(",", HEADER));
        }
        return said.size();
    }

    private static Site site(CsvRecord row, String name, int line) throws BadFileException {
        String net = row.getFieldCount() > 4 ? SafeCell.read(row.getField(4).strip()) : "";
        String critical = row.getFieldCount() > 5 ? row.getField(5).strip() : "";
        try {
            Optional<Double> diameter = row.getFieldCount() > 3 && !row.getField(3).isBlank()
                    ? Optional.of(number(row, 3, name, line))
                    : Optional.empty();
            return new Site(row.getField(0).strip(), number(row, 1, name, line), number(row, 2, name, line),
                    diameter, net,
                    critical.isEmpty()
                            ? Site.Critical.UNKNOWN
                            : Site.Critical.valueOf(critical.toUpperCase(Locale.ROOT)));
        } catch (IllegalArgumentException e) {
            throw new BadFileException(name, line, "",
                    e.getMessage().startsWith("No enum")
                            ? "\"" + critical + "\" says nothing of a site"
                            : e.getMessage(),
                    e.getMessage().startsWith("No enum")
                            ? "Write unknown, spare, many or only"
                            : "Correct the line");
        }
    }

    private static double number(CsvRecord row, int column, String name, int line) throws BadFileException {
        String text = row.getField(column).strip();
        try {
            double value = Double.parseDouble(text);
            if (Double.isFinite(value)) {
                return value;
            }
        } catch (NumberFormatException e) {
            // said below
        }
        throw new BadFileException(name, line, HEADER.get(column), "\"" + text + "\" is no number",
                "Write it like -3.25");
    }

    /** The map as a file; what nobody noted is an empty cell. */
    public static String write(BeadMap map) throws IOException {
        var text = new StringWriter();
        CsvWriter csv = CsvWriter.builder().build(text);
        csv.writeRecord(SafeCell.all(HEADER));
        for (Site site : map.sites()) {
            csv.writeRecord(site.name(), plain(site.xMm()), plain(site.yMm()),
                    site.diameterMm().map(BeadMapCsv::plain).orElse(""), SafeCell.of(site.net()),
                    site.critical() == Site.Critical.UNKNOWN
                            ? ""
                            : site.critical().name().toLowerCase(Locale.ROOT));
        }
        csv.flush();
        return text.toString();
    }

    private static String plain(double value) {
        // Nanometres are finer than any map; this keeps 0.1 + 0.2 from growing a tail.
        return String.format(Locale.ROOT, "%.6f", value + 0.0).replaceAll("0+$", "").replaceAll("\\.$", "")
                .replaceAll("^-0$", "0");
    }
}
