package org.greenbead.cli;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.greenbead.core.configure.Capacity;
import org.greenbead.core.configure.Dump;
import org.greenbead.core.configure.Strap;
import org.greenbead.core.configure.StrapTable;
import org.greenbead.core.lines.CodeTable;
import org.greenbead.core.lines.LineCompare;
import org.greenbead.core.lines.Tapping;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.store.BadFileException;
import org.greenbead.store.CodeCsv;
import org.greenbead.store.StrapCsv;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Straps, read-outs, lines of a tester and codes. */
final class ConfigureCommands {
    private static final int MOST_DUMP = 512 << 20;

    private ConfigureCommands() {
    }

    /** What writes into the one record of how a board is configured. */
    abstract static class OfConfiguration extends Verb {
        @Option(names = "--job", paramLabel = "JOB", description = "Keep what it shows with this job (a file, or a number of the ledger).")
        private Optional<String> job = Optional.empty();
        @Option(names = "--author", defaultValue = "", description = "Who does it.")
        private String author;

        void keep(Map<String, Object> fields) throws Exception {
            if (job.isEmpty()) {
                return;
            }
            var disk = new JobOnDisk(shared());
            Job before = disk.read(job.get());
            Instant now = Instant.now();
            Kept record = before.records("configuration").stream().findFirst().orElseGet(
                    () -> new Kept(before.freeId("configuration"), "configuration", now, author, Map.of()));
            for (Map.Entry<String, Object> field : fields.entrySet()) {
                record = record.with(field.getKey(), field.getValue(), now, author);
            }
            disk.write(job.get(), before, before.with(record), author, "noted",
                    record.id());
            out().println("kept as " + record.id() + " with job " + before.id());
        }
    }

    /** Straps as they are and as they have to be. */
    @Command(name = "straps", mixinStandardHelpOptions = true, description = "What the straps of a board say as they are fitted, and which resistors to take off and to fit for another code; exit 1 when a strap reads neither low nor high, or changes are left.")
    static final class Straps extends OfConfiguration {
        @Parameters(index = "0", paramLabel = "TABLE", description = "The strap table (CSV, docs/configure.md).")
        private Path table;
        @Option(names = "--fitted", required = true, split = ",", paramLabel = "PLACE", description = "Places that hold a resistor now.")
        private List<String> fitted;
        @Option(names = "--to", paramLabel = "CODE", description = "The code that is wanted, or its meaning in the table.")
        private Optional<String> to = Optional.empty();
        @Option(names = "--json", paramLabel = "OUT", description = "Write the result as JSON.")
        private Path json;

        @Override
        public Integer call() throws Exception {
            StrapTable straps = StrapCsv.read(table);
            Set<String> now = new TreeSet<>(fitted);
            Map<String, Object> result = new LinkedHashMap<>();
            Set<String> end = now;
            List<StrapTable.Change> changes = List.of();
            if (to.isPresent()) {
                String target = straps.codes().containsKey(to.get()) || to.get().matches("[01]+")
                        ? to.get()
                        : straps.codeOf(to.get()).orElseThrow(() -> new IllegalArgumentException(
                                "no code of the table means \"" + to.get() + "\"; it has "
                                        + String.join(", ", straps.codes().values())));
                changes = straps.changes(now, target);
                end = StrapTable.after(now, changes);
                result.put("target", target);
            }
            out().println("from " + straps.source()
                    + (straps.revision().isEmpty()
                            ? ", for no revision that is named"
                            : ", revision " + straps.revision()));
            out().println("now " + said(straps, straps.code(now)));
            print(straps, now);
            for (StrapTable.Change c : changes) {
                out().println(c.strap().name() + ": "
                        + (c.take().isEmpty() ? "" : "take off " + String.join(", ", c.take()))
                        + (c.take().isEmpty() || c.fit().isEmpty() ? "" : ", ")
                        + (c.fit().isEmpty() ? "" : "fit " + fit(c)));
            }
            if (!changes.isEmpty()) {
                out().println("then " + said(straps, straps.code(end)));
                print(straps, end);
            } else if (to.isPresent()) {
                out().println("nothing to change");
            }
            String code = straps.code(end);
            result.put("code_now", straps.code(now));
            result.put("code_then", code);
            result.put("take_off", changes.stream().flatMap(c -> c.take().stream()).toList());
            result.put("fit", changes.stream().flatMap(c -> c.fit().stream()).toList());
            Set<String> then = end;
            result.put("straps", straps.straps().stream().map(s -> json(straps, s, then)).toList());
            json(json, result);
            keep(straps.recorded(now, changes));
            return straps.code(now).contains("?") || !straps.oddPairs(now).isEmpty() || !changes.isEmpty()
                    ? 1
                    : 0;
        }

        private static String fit(StrapTable.Change c) {
            return c.fit().stream().map(p -> String.format(Locale.ROOT, "%s (%.0f ohm)", p,
                    p.equals(c.strap().up()) ? c.strap().upOhm() : c.strap().downOhm()))
                    .collect(Collectors.joining(", "));
        }

        private static String said(StrapTable straps, String code) {
            return code + ": " + straps.codes().getOrDefault(code,
                    code.contains("?")
                            ? "no code, a strap reads neither"
                            : "a code that the table does not have");
        }

        private void print(StrapTable straps, Set<String> fitted) {
            for (Strap s : straps.straps()) {
                Strap.Reading r = straps.reading(s, fitted);
                String odd = !straps.oddPairs(fitted).contains(s)
                        ? ""
                        : fitted.contains(s.up()) ? "; both fitted: take one off" : "; none fitted";
                out().printf(Locale.ROOT, "  %-8s %-9s %s%s%n", s.name(),
                        r.level().name().toLowerCase(Locale.ROOT),
                        r.level() == Strap.Level.FLOATING
                                ? "no level"
                                : String.format(Locale.ROOT, "%.3f V (%.3f to %.3f)", r.nominalV(), r.lowV(),
                                        r.highV()),
                        odd);
            }
        }

        private static Map<String, Object> json(StrapTable straps, Strap s, Set<String> fitted) {
            Strap.Reading r = straps.reading(s, fitted);
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("strap", s.name());
            map.put("level", r.level().name().toLowerCase(Locale.ROOT));
            if (r.level() != Strap.Level.FLOATING) {
                map.put("volts", r.nominalV());
                map.put("low_v", r.lowV());
                map.put("high_v", r.highV());
            }
            return map;
        }
    }

    /** Memory made of several chips. */
    @Command(name = "capacity", mixinStandardHelpOptions = true, description = "What several memory chips come to: size, chips a rank, ranks; exit 1 when it is over a limit.")
    static final class Size extends Verb {
        @Option(names = "--chips", required = true, description = "Chips fitted.")
        private int chips;
        @Option(names = "--gbit", required = true, description = "Size of one, Gbit.")
        private int gbit;
        @Option(names = "--bus", required = true, description = "Width of the bus, bit.")
        private int bus;
        @Option(names = "--width", required = true, description = "Width of one chip, bit.")
        private int width;
        @Option(names = "--limit", description = "Most the board bears, GB.")
        private Optional<Double> limit = Optional.empty();
        @Option(names = "--ranks", description = "Most ranks it bears.")
        private Optional<Integer> ranks = Optional.empty();

        @Override
        public Integer call() {
            var c = new Capacity(chips, gbit, bus, width);
            out().printf(Locale.ROOT, "%.0f GB, %d chips a rank, %d ranks%n", c.gigabytes(), c.chipsPerRank(),
                    c.ranks());
            boolean over = limit.filter(l -> c.gigabytes() > l).isPresent()
                    || ranks.filter(r -> c.ranks() > r).isPresent();
            if (over) {
                out().println("more than the board bears");
            } else if (limit.isEmpty() && ranks.isEmpty()) {
                out().println("no limit of the board was named: not judged");
            }
            return over || limit.isEmpty() && ranks.isEmpty() ? 1 : 0;
        }
    }

    /** Read-outs. */
    @Command(name = "dump", mixinStandardHelpOptions = true, description = "Read-outs of a memory.", subcommands = {
            Find.class, Diff.class})
    static final class Dumps extends Verb {
        @Override
        public Integer call() {
            out().println("name find or diff; see greenbead dump --help");
            return 2;
        }
    }

    private static byte[] bytes(Path file) throws Exception {
        if (!Files.isRegularFile(file)) {
            throw new BadFileException(String.valueOf(file), 0, "", "there is no such file",
                    "Check the path");
        }
        if (Files.size(file) > MOST_DUMP) {
            throw new BadFileException(String.valueOf(file), 0, "", "it has more than 512 MB",
                    "Cut it into parts");
        }
        return Files.readAllBytes(file);
    }

    @Command(name = "find", mixinStandardHelpOptions = true, description = "Where a part number stands in a read-out: as text, in wide letters, as bytes, with every two bytes changed round, with every four turned round; exit 1 when nowhere.")
    static final class Find extends OfConfiguration {
        @Parameters(index = "0", paramLabel = "DUMP", description = "The read-out.")
        private Path dump;
        @Parameters(index = "1", paramLabel = "WORDS", description = "A part number, or bytes as 4d:52:2d.")
        private String words;

        @Override
        public Integer call() throws Exception {
            List<Dump.Hit> hits = Dump.find(bytes(dump), words);
            hits.forEach(h -> out().printf(Locale.ROOT, "0x%08x %s%n", h.offset(),
                    h.mode().name().toLowerCase(Locale.ROOT)));
            if (hits.isEmpty()) {
                out().println("nowhere; it may be packed, or written as another number");
            }
            Map<String, Object> fields = new LinkedHashMap<>();
            fields.put("text_found", !hits.isEmpty());
            // Letters are bytes: looking for them as text is looking for their hexadecimal digits.
            fields.put("search_modes", List.of("text", "hex", "swapped"));
            fields.put("entries", (double) hits.size());
            keep(fields);
            return hits.isEmpty() ? 1 : 0;
        }
    }

    @Command(name = "diff", mixinStandardHelpOptions = true, description = "What two read-outs differ in; exit 1 when they do.")
    static final class Diff extends OfConfiguration {
        @Parameters(index = "0", paramLabel = "BEFORE", description = "The earlier read-out.")
        private Path before;
        @Parameters(index = "1", paramLabel = "AFTER", description = "The later one.")
        private Path after;

        @Override
        public Integer call() throws Exception {
            byte[] a = bytes(before);
            byte[] b = bytes(after);
            List<Dump.Change> changes = Dump.differences(a, b);
            changes.stream().limit(200).forEach(
                    c -> out().printf(Locale.ROOT, "0x%08x %d bytes%n", c.offset(), c.length()));
            if (a.length != b.length) {
                out().println("not of one length: " + a.length + " and " + b.length + " bytes");
            }
            long odd = changes.stream().mapToLong(Dump.Change::length).sum();
            String said = changes.isEmpty() ? "alike" : changes.size() + " places, " + odd + " bytes";
            out().println(said);
            keep(Map.of("dump_difference", said));
            return changes.isEmpty() ? 0 : 1;
        }
    }

    /** Two outputs of a tester. */
    @Command(name = "lines", mixinStandardHelpOptions = true, description = "Two outputs of a tester side by side: what changed, went and came, numbers compared with a tolerance; exit 1 when anything did.")
    static final class Lines extends Verb {
        @Parameters(index = "0", paramLabel = "BEFORE", description = "A text file.")
        private Path before;
        @Parameters(index = "1", paramLabel = "AFTER", description = "The later one.")
        private Path after;
        @Option(names = "--tolerance", paramLabel = "PCT", defaultValue = "0", description = "By how much a number may move, percent.")
        private double tolerance;
        @Option(names = "--pin", paramLabel = "WORD", description = "Lines with this word matter to the complaint and are shown first.")
        private List<String> pins = new ArrayList<>();
        @Option(names = "--all", description = "Print the lines that are the same as well.")
        private boolean all;
        @Option(names = "--json", paramLabel = "OUT", description = "Write the result as JSON.")
        private Path json;

        @Override
        public Integer call() throws Exception {
            List<LineCompare.Line> lines = LineCompare.of(text(before), text(after), tolerance, pins);
            lines.stream().filter(LineCompare.Line::pinned).forEach(l -> print(l, "* "));
            lines.stream().filter(l -> !l.pinned() && (all || l.state() != LineCompare.State.SAME))
                    .forEach(l -> print(l, "  "));
            Map<LineCompare.State, Long> counts = lines.stream()
                    .collect(Collectors.groupingBy(LineCompare.Line::state, Collectors.counting()));
            out().println(java.util.Arrays.stream(LineCompare.State.values())
                    .map(s -> counts.getOrDefault(s, 0L) + " "
                            + s.name().toLowerCase(Locale.ROOT))
                    .collect(Collectors.joining(", ")));
            json(json,
                    lines.stream()
                            .map(l -> Map.of("state", l.state().name().toLowerCase(Locale.ROOT), "before",
                                    l.before(), "after", l.after(), "pinned", l.pinned()))
                            .toList());
            return lines.stream().allMatch(
                    l -> l.state() == LineCompare.State.SAME || l.state() == LineCompare.State.CLOSE)
                            ? 0
                            : 1;
        }

        private void print(LineCompare.Line l, String pin) {
            out().printf(Locale.ROOT, "%s%-8s %s%s%n", pin, l.state().name().toLowerCase(Locale.ROOT),
                    l.before(),
                    l.after().isEmpty() || l.after().equals(l.before())
                            ? ""
                            : (l.before().isEmpty() ? "" : "  ->  ") + l.after());
        }

        private static String text(Path file) throws Exception {
            return new String(bytes(file), java.nio.charset.StandardCharsets.UTF_8);
        }
    }

    /** Codes of a lamp or a log. */
    @Command(name = "code", mixinStandardHelpOptions = true, description = "Looks a blink, beep or log code up in a table of one's own; exit 1 when the table does not have it, contradicts itself, or names no source.")
    static final class Code extends Verb {
        @Parameters(index = "0", paramLabel = "TABLE", description = "CSV with code,meaning,source.")
        private Path table;
        @Parameters(index = "1", arity = "0..1", paramLabel = "CODE", description = "The code, 3-1 or E4.")
        private Optional<String> code = Optional.empty();
        @Option(names = "--taps", split = ",", paramLabel = "S", description = "Times of the blinks, s: the code is counted by their rhythm.")
        private List<Double> taps = new ArrayList<>();

        @Override
        public Integer call() throws Exception {
            if (code.isPresent() == !taps.isEmpty()) {
                throw new IllegalArgumentException("name a code or give --taps, one of the two");
            }
            CodeTable known = CodeCsv.read(table);
            CodeTable.Reading reading = code.map(known::read).orElseGet(() -> known.read(new Tapping(taps)));
            out().println("code " + reading.code());
            reading.meanings().forEach(m -> out().println(
                    m.meaning() + (m.source().isBlank()
                            ? " (no source: it proves nothing)"
                            : " (" + m.source() + ")")));
            switch (reading.told()) {
                case UNKNOWN ->
                    out().println("not in the table: unverified, and no sign that the unit is healthy");
                case CONTRADICTED -> out().println(
                        "the table has several rows for it: it proves nothing until one of them is struck out");
                case SOURCED, UNSOURCED -> {
                    // Said with its meaning.
                }
            }
            return reading.told() == CodeTable.Told.SOURCED ? 0 : 1;
        }
    }
}
