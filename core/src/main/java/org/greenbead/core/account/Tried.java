package org.greenbead.core.account;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.record.Kept;
import org.greenbead.core.record.Tested;

/** Tests of a job by what they name. */
public final class Tried {
    private Tried() {
    }

    /** The last test whose words name a thing as a whole: {@code loom on J4} names J4 and not J44. */
    public static Optional<Kept> naming(String id, Collection<Kept> tests) {
        String wanted = words(id);
        return wanted.isBlank()
                ? Optional.empty()
                : tests.stream().filter(t -> words(t.text("what")).contains(wanted)).reduce((a, b) -> b);
    }

    private static String words(String text) {
        return " " + Tested.plain(text).replaceAll("[^\\p{L}\\p{N}-]+", " ").strip() + " ";
    }

    /** Names of what was unplugged and not tried since. */
    public static List<String> unplugged(List<Kept> records) {
        Collection<Kept> tests = Tested.last(Tested.now(records, List.of())).values();
        return RecordFacts.of(records, "connector").stream().filter(c -> c.yes("undone"))
                .map(c -> c.text("id")).filter(id -> !id.isBlank()
                        && naming(id, tests).filter(t -> t.text("result").equals("pass")
                                || t.text("result").equals("fail")).isEmpty())
                .toList();
    }
}
