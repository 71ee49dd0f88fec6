package org.greenbead.core.electric;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.quantity.Quantity;

/**
 * What the log of a long test says, whoever wrote it: whole passes, errors, and what wrong bits have in common. It is read by words and numbers that such logs
 * share, line by line; a log that tells no whole pass, or nowhere says that there was no error, has passed nothing.
 *
 * @param lines  with anything in them
 * @param passes whole ones; empty where none is told
 * @param clean  whether some line says that there was no error
 * @param errors as counted by the log or by its lines, whichever is more
 * @param first  the first lines that tell of an error, at most {@link #MOST_SHOWN}
 * @param bits   that came out wrong, all of them together; 0 where no line says what was written and what was read
 * @param low    lowest address of an error, where told
 * @param high   highest one
 * @param memory whether it is memory that was tested
 */
public record TestLog(int lines, OptionalInt passes, boolean clean, int errors, List<String> first, long bits,
        OptionalLong low,
        OptionalLong high, boolean memory) {
    public static final int MOST_SHOWN = 5;
    private static final int MOST_CHARS = 200;
    /** Bits that one memory chip of a usual width carries beside one another. */
    private static final int LANE_BITS = 8;
    private static final String WRONG = "(?:errors?|failures?|faults?|mismatch(?:es)?|miscompares?)";
    private static final Pattern NONE = Pattern
            .compile("(?i)\\b(?:no|zero|0|without(?: any)?)\\s+" + WRONG + "\\b|\\b" + WRONG
                    + "\\s*(?:found|counted|total)?\\s*[:=]\\s*0+(?![\\dx.])");
    private static final Pattern COUNTED = Pattern.compile("(?i)\\b" + WRONG
            + "\\s*(?:found|counted|total)?\\s*[:=]\\s*(\\d{1,9})(?![\\dx])|\\b(\\d{1,9})\\s+" + WRONG
            + "\\b");
    private static final Pattern EVENT = Pattern
            .compile("(?i)\\b(?:" + WRONG + "|fail(?:ed|s)?|corrupt(?:ed|ion)?|bad)\\b");
    private static final String OVER = "(?:completed?|finished|done|ended|over|ok|100\\s*%)";
    /** "Pass 2 complete", "loop 3 of 4: done". What is over must be the pass itself, and no step within it. */
    private static final Pattern PASS_OVER = Pattern
            .compile("(?i)\\b(?:pass(?:es)?|loops?|cycles?|rounds?)\\s*(?:no\\.?|number|[#:=])?\\s*(\\d{1,6})"
                    + "(?:\\s*(?:/|of)\\s*\\d{1,6})?\\W{0,4}(?:is |was )?" + OVER + "(?!\\w)");
    /** "3 passes done", "finished: 1 pass". */
    private static final Pattern PASSES_OVER = Pattern
            .compile("(?i)\\b(\\d{1,6})\\s+(?:whole |full )?(?:pass(?:es)?|loops?|rounds?)\\W{0,4}" + OVER
                    + "(?!\\w)|\\b(?:completed?|finished|done|ended)\\W{1,4}(\\d{1,6})\\s+(?:pass(?:es)?|loops?|rounds?)\\b");
    private static final Pattern ADDRESS = Pattern
            .compile(
                    "(?i)\\b(?:addr(?:ess)?|at|offset|location)\\b[^0-9a-fx]{0,6}(?:0x)?([0-9a-f]{5,16})\\b");
    private static final Pattern WROTE = Pattern.compile(
            "(?i)\\b(?:expected|expect|exp|wrote|written|write|good|should be)\\b\\W{0,4}(?:0x)?([0-9a-f]{2,16})\\b");
    private static final Pattern READ = Pattern.compile(
            "(?i)\\b(?:actual|act|got|read|found|bad|was|is)\\b\\W{0,4}(?:0x)?([0-9a-f]{2,16})\\b");
    private static final Pattern MEMORY = Pattern
            .compile("(?i)\\b(?:memory|ram|[sd]dram|sdram|lp?ddr\\d?x?|ddr\\d?)\\b");

    /** How it came out. */
    public enum Result {
        PASS, FAIL, NOT_TOLD
    }

    /** What wrong bits have in common, and so where to look. */
    public enum Common {
        /** One bit, always the same: one line, and so one joint, pad or track. */
        ONE_LINE,
        /** Bits of one group of eight: one chip, or joints of its side. */
        ONE_LANE,
        /** Bits of several groups: supply, clock, address lines, or the controller's side. */
        WIDE,
        /** No line says what was written and what was read. */
        NOT_TOLD
    }

    public TestLog {
        first = List.copyOf(first);
    }

    /** @param text the whole log */
    public static TestLog read(String text) {
        var reading = new Reading();
        text.lines().map(String::strip).filter(l -> !l.isEmpty()).forEach(reading::line);
        return new TestLog(reading.lines,
                reading.passes < 0 ? OptionalInt.empty() : OptionalInt.of(reading.passes), reading.clean,
                Math.max(reading.events, reading.counted), reading.first, reading.bits,
                reading.low == Long.MAX_VALUE ? OptionalLong.empty() : OptionalLong.of(reading.low),
                reading.high < 0 ? OptionalLong.empty() : OptionalLong.of(reading.high), reading.memory);
    }

    /** Lines as they come. */
    private static final class Reading {
        private final List<String> first = new ArrayList<>();
        private int lines;
        private int passes = -1;
        private boolean clean;
        private int events;
        private int counted;
        private long bits;
        private long low = Long.MAX_VALUE;
        private long high = -1;
        private boolean memory;

        void line(String line) {
            lines++;
            memory |= MEMORY.matcher(line).find();
            boolean none = NONE.matcher(line).find();
            clean |= none;
            int said = counted(line);
            counted = Math.max(counted, said);
            if (!none && said <= 0 && EVENT.matcher(line).find() && !heading(line)) {
                event(line);
            }
            pass(line);
        }

        /** A count is no error of its own: it says how many there were. */
        private static int counted(String line) {
            int most = -1;
            Matcher m = COUNTED.matcher(line);
            while (m.find()) {
                most = Math.max(most, Integer.parseInt(m.group(1) != null ? m.group(1) : m.group(2)));
            }
            return most;
        }

        /** "Errors", "Fail" over a column, or a word about what would happen. */
        private static boolean heading(String line) {
            return !line.matches(".*\\d.*") && !line.matches("(?i).*\\bfail(?:ed)?\\b.*");
        }

        private void event(String line) {
            events++;
            if (first.size() < MOST_SHOWN) {
                first.add(line.length() > MOST_CHARS ? line.substring(0, MOST_CHARS) + " …" : line);
            }
            Matcher at = ADDRESS.matcher(line);
            if (at.find()) {
                long address = Long.parseUnsignedLong(at.group(1), 16);
                if (address >= 0) {
                    low = Math.min(low, address);
                    high = Math.max(high, address);
                }
            }
            Matcher wrote = WROTE.matcher(line);
            if (wrote.find()) {
                Matcher read = READ.matcher(line);
                // What was read stands after what was written, or before it; never in the same place.
                boolean found = read.find(wrote.end());
                if (found || read.find(0) && read.start() < wrote.start()) {
                    bits |= Long.parseUnsignedLong(wrote.group(1), 16)
                            ^ Long.parseUnsignedLong(read.group(1), 16);
                }
            }
        }

        /** A pass counts when it is said to be over; its number alone tells that it began. */
        private void pass(String line) {
            Matcher one = PASS_OVER.matcher(line);
            while (one.find()) {
                passes = Math.max(passes, Integer.parseInt(one.group(1)));
            }
            Matcher many = PASSES_OVER.matcher(line);
            while (many.find()) {
                passes = Math.max(passes,
                        Integer.parseInt(many.group(1) != null ? many.group(1) : many.group(2)));
            }
        }
    }

    /** Errors fail it. It has passed only if a whole pass is told, and in words that there was no error: a log that words errors otherwise must not pass for one without any. */
    public Result result() {
        return errors > 0 ? Result.FAIL : clean && passes.orElse(0) >= 1 ? Result.PASS : Result.NOT_TOLD;
    }

    public Common common() {
        if (bits == 0) {
            return Common.NOT_TOLD;
        }
        int low = Long.numberOfTrailingZeros(bits);
        int high = Long.SIZE - 1 - Long.numberOfLeadingZeros(bits);
        return low == high
                ? Common.ONE_LINE
                : low / LANE_BITS == high / LANE_BITS ? Common.ONE_LANE : Common.WIDE;
    }

    /** Number of the lowest wrong bit, or of the group that it is of. */
    public int where() {
        int low = Long.numberOfTrailingZeros(bits);
        return common() == Common.ONE_LANE ? low / LANE_BITS : low;
    }

    /** In a sentence: how it came out, by what. */
    public Phrase says() {
        String how = result().name().toLowerCase(Locale.ROOT);
        return Phrase.of("testlog." + how, new Quantity.Count(passes.orElse(0)), new Quantity.Count(errors),
                new Quantity.Count(lines));
    }

    /** What the wrong bits point at; says that nothing is told where it is not. */
    public Phrase points() {
        return Phrase.of("testlog.common." + common().name().toLowerCase(Locale.ROOT),
                new Quantity.Name(Integer.toString(bits == 0 ? 0 : where())),
                new Quantity.Name(bits == 0 || common() != Common.ONE_LANE
                        ? ""
                        : where() * LANE_BITS + " to " + (where() * LANE_BITS + LANE_BITS - 1)));
    }
}
