package org.greenbead.store;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.greenbead.core.electric.CurrentTrace;

/**
 * A start-up curve: lines {@code # supply_v = 12}, {@code # limit_a = 3}, {@code # unit_state = battery out}, then {@code time_s,current_a}. Read
 * are also semicolons and tabs, decimal commas beside them, and other units where the header names them.
 */
public final class CurrentCsv {
    private static final int MOST_BYTES = 16 << 20;
    private static final int MOST_SAMPLES = 400_000;
    private static final String WANTED = "Write the header time_s,current_a; s, ms, a and ma are understood";
    private static final Pattern NOTE = Pattern.compile("#\\s*(\\w+)\\s*[=:]\\s*(.*)");
    private static final Pattern COLUMN = Pattern
            .compile(
                    "(time|t|current|i|amps?|ampere)[\\s_]*[(\\[]?\\s*(s|sec|seconds|ms|us|a|ma|ua)?\\s*[)\\]]?");
    private static final Map<String, Double> UNITS = Map.of("s", 1.0, "sec", 1.0, "seconds", 1.0, "ms", 1e-3,
            "us", 1e-6, "a", 1.0, "ma", 1e-3, "ua", 1e-6);

    private CurrentCsv() {
    }

    /** @throws BadFileException naming line and column */
    public static CurrentTrace read(Path file) throws BadFileException {
        return parse(OpenFiles.text(file, MOST_BYTES), String.valueOf(file.getFileName()));
    }

    /** One column of the file. @param scale to s or A */
    private record Column(int index, double scale) {}

    static CurrentTrace parse(String text, String name) throws BadFileException {
        String plain = text.startsWith("\uFEFF") ? text.substring(1) : text;
        Map<String, String> notes = new TreeMap<>();
        String head = "";
        int skipped = 0;
        for (String line : plain.lines().toList()) {
            if (!line.isBlank() && !line.startsWith("#")) {
                head = line;
                break;
            }
            Matcher m = NOTE.matcher(line.strip());
            if (m.matches()) {
                notes.put(m.group(1).toLowerCase(Locale.ROOT), m.group(2).strip());
            }
            skipped++;
        }
        char separator = head.contains(";") ? ';' : head.contains("\t") ? '\t' : ',';
        String body = plain.lines().skip(skipped).collect(java.util.stream.Collectors.joining("\n"));
        List<double[]> samples = new ArrayList<>();
        try (CsvReader<CsvRecord> csv = CsvReader.builder().fieldSeparator(separator)
                .allowExtraFields(true).allowMissingFields(true).skipEmptyLines(true).ofCsvRecord(body)) {
            Column time = null;
            Column current = null;
            for (CsvRecord row : csv) {
                int line = skipped + (int) row.getStartingLineNumber();
                if (time == null) {
                    time = column(row, name, line, "time", "t");
                    current = column(row, name, line, "current", "i", "a");
                    continue;
                }
                double t = number(row, time, name, line, "time");
                double a = number(row, current, name, line, "current");
                if (!samples.isEmpty() && t <= samples.getLast()[0]) {
                    throw new BadFileException(name, line, "time",
                            "time goes from " + samples.getLast()[0] + " s to " + t + " s",
                            "Times must rise; check for two recordings in one file, or a clock that was set back");
                }
                samples.add(new double[]{t, a});
                if (samples.size() > MOST_SAMPLES) {
                    throw new BadFileException(name, line, "",
                            "it has more than " + MOST_SAMPLES + " samples",
                            "Thin it out; a sample every 10 ms is plenty");
                }
            }
            if (time == null) {
                throw new BadFileException(name, 1, "time", "there is no column for it: the file is empty",
                        WANTED);
            }
        } catch (CsvParseException e) {
            throw new BadFileException(name, 0, "", "it is no CSV: " + e.getMessage(), WANTED);
        } catch (IOException e) {
            throw new BadFileException(name, 0, "", "it cannot be read (" + e.getMessage() + ")",
                    "Check the disk");
        }
        try {
            return new CurrentTrace(samples.stream().mapToDouble(p -> p[0]).toArray(),
                    samples.stream().mapToDouble(p -> p[1]).toArray(),
                    new CurrentTrace.Conditions(noted(notes, "supply_v", name),
                            noted(notes, "limit_a", name), notes.getOrDefault("unit_state", "")));
        } catch (IllegalArgumentException e) {
            throw new BadFileException(name, 0, "", e.getMessage(),
                    "Record from before the button is pressed until it has settled");
        }
    }

    private static Optional<Double> noted(Map<String, String> notes, String key, String name)
            throws BadFileException {
        String text = notes.getOrDefault(key, "");
        if (text.isBlank()) {
            return Optional.empty();
        }
        try {
            return Optional.of(Double.parseDouble(text.replace(',', '.')));
        } catch (NumberFormatException e) {
            throw new BadFileException(name, 0, key, "\"" + text + "\" is no number", "Write it like 12.0");
        }
    }

    private static Column column(CsvRecord head, String name, int line, String... starts)
            throws BadFileException {
        for (int i = 0; i < head.getFieldCount(); i++) {
            Matcher m = COLUMN.matcher(head.getField(i).strip().toLowerCase(Locale.ROOT));
            if (m.matches() && List.of(starts).stream().anyMatch(m.group(1)::startsWith)) {
                if (m.group(2) == null) {
                    throw new BadFileException(name, line, head.getField(i).strip(),
                            "the column does not say its unit", WANTED);
                }
                return new Column(i, UNITS.get(m.group(2)));
            }
        }
        throw new BadFileException(name, line, starts[0], "there is no column for it", WANTED);
    }

    private static double number(CsvRecord row, Column column, String name, int line, String what)
            throws BadFileException {
        String text = column.index() < row.getFieldCount() ? row.getField(column.index()).strip() : "";
        try {
            double value = Double.parseDouble(text.replace(',', '.'));
            if (Double.isFinite(value)) {
                return value * column.scale();
            }
        } catch (NumberFormatException e) {
            // said below, with what is no finite number
        }
        throw new BadFileException(name, line, what, "\"" + text + "\" is no number",
                "Leave out lines without a reading; a stretch without any is shown as a gap");
    }

    public static String print(CurrentTrace trace) {
        var out = new StringBuilder();
        trace.under().supplyV().ifPresent(v -> out.append("# supply_v = ").append(v).append('\n'));
        trace.under().limitA().ifPresent(a -> out.append("# limit_a = ").append(a).append('\n'));
        if (!trace.under().unitState().isEmpty()) {
            out.append("# unit_state = ").append(trace.under().unitState().replaceAll("\\R", " "))
                    .append('\n');
        }
        out.append("time_s,current_a\n");
        for (int i = 0; i < trace.timeS().length; i++) {
            out.append(String.format(Locale.ROOT, "%.3f,%.4f%n", trace.timeS()[i], trace.ampere()[i]));
        }
        return out.toString();
    }
}
