package org.greenbead.core.account;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.record.Kept;

/** Tests of a job by what they try; of several of one thing the last counts, however its words are written. */
public final class Tried {
    private Tried() {
    }

    /** The last of each, in the order in which they were last made. */
    public static Map<String, Kept> last(List<Kept> tests) {
        var last = new LinkedHashMap<String, Kept>();
        tests.forEach(t -> {
            last.remove(plain(t.text("what")));
            last.put(plain(t.text("what")), t);
        });
        return last;
    }

    /** The last test whose words name a thing as a whole: {@code loom on J4} names J4 and not J44. */
    public static Optional<Kept> naming(String id, Collection<Kept> tests) {
        String wanted = words(id);
        return wanted.isBlank()
                ? Optional.empty()
                : tests.stream().filter(t -> words(t.text("what")).contains(wanted)).reduce((a, b) -> b);
    }

    private static String words(String text) {
        return " " + plain(text).replaceAll("[^\\p{L}\\p{N}-]+", " ").strip() + " ";
    }

    public static String plain(String text) {
        return text.strip().toLowerCase(Locale.ROOT).replaceAll("\\s+", " ");
    }

    /** Names of what was unplugged and not tried since. */
    public static List<String> unplugged(List<Kept> records) {
        Collection<Kept> tests = last(RecordFacts.of(records, "tested")).values();
        return RecordFacts.of(records, "connector").stream().filter(c -> c.yes("undone"))
                .map(c -> c.text("id")).filter(id -> !id.isBlank()
                        && naming(id, tests).filter(t -> t.text("result").equals("pass")
                                || t.text("result").equals("fail")).isEmpty())
                .toList();
    }
}
