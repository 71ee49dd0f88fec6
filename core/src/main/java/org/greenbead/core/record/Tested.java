package org.greenbead.core.record;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * What tests say of a board as it is now. Of several tests of one thing the last counts, however its words are written; and a test from before the
 * last heat on the board says nothing of what that heat did.
 */
public final class Tested {
    private static final String TEST = "tested";
    private static final Pattern SPACES = Pattern.compile("\\s+");

    private Tested() {
    }

    /** The last of each, in the order in which they were last made. */
    public static Map<String, Kept> last(List<Kept> tests) {
        var last = new LinkedHashMap<String, Kept>();
        tests.forEach(t -> {
            String what = plain(t.text("what"));
            last.remove(what);
            last.put(what, t);
        });
        return last;
    }

    public static String plain(String text) {
        return SPACES.matcher(text.strip().toLowerCase(Locale.ROOT)).replaceAll(" ");
    }

    /**
     * The records of a job but for tests that the last heat made void.
     *
     * @param elsewhere when the same board was heated in other jobs, for another of its chips
     */
    public static List<Kept> standing(List<Kept> records, List<Instant> elsewhere) {
        return new Heats(records, elsewhere).of(false);
    }

    /** Things that were tested before the last heat on the board and not since, by their last test. */
    public static List<Kept> overtaken(List<Kept> records, List<Instant> elsewhere) {
        List<Kept> voided = new Heats(records, elsewhere).of(true);
        if (voided.isEmpty()) {
            return List.of();
        }
        Map<String, Kept> since = last(now(records, elsewhere));
        return last(voided).entrySet().stream().filter(t -> !since.containsKey(t.getKey()))
                .map(Map.Entry::getValue)
                .toList();
    }

    /** Tests that stand. */
    public static List<Kept> now(List<Kept> records, List<Instant> elsewhere) {
        return standing(records, elsewhere).stream().filter(r -> r.type().equals(TEST)).toList();
    }

    /** When the board was heated by the runs among these records. Balls are made on the chip, off the board: that heat changes nothing that was tested. */
    public static List<Instant> heats(List<Kept> records) {
        return records.stream().filter(Tested::heat).map(Kept::at).toList();
    }

    private static boolean heat(Kept record) {
        return record.type().equals("run") && !record.text("kind").equals("form");
    }

    /**
     * Written before the heat and not since: in one job the order of the records and the clock both have to say so, since a clock may be set back and an older
     * record be written anew; between jobs there is only the clock. Halves are proved before they are joined, and data that was read out stays read.
     */
    private static final class Heats {
        private final List<Kept> records;
        private final int last;
        private final Optional<Instant> elsewhere;

        Heats(List<Kept> records, List<Instant> elsewhere) {
            this.records = records;
            this.elsewhere = elsewhere.stream().max(Comparator.naturalOrder());
            int found = records.size() - 1;
            while (found >= 0 && !heat(records.get(found))) {
                found--;
            }
            last = found;
        }

        /** The records that are void, or the others; a ledger of thousands of jobs is asked this at once, hence the plain loop. */
        List<Kept> of(boolean voided) {
            var found = new ArrayList<Kept>();
            for (int i = 0; i < records.size(); i++) {
                if (voided(i) == voided) {
                    found.add(records.get(i));
                }
            }
            return List.copyOf(found);
        }

        boolean voided(int i) {
            Kept test = records.get(i);
            if (!test.type().equals(TEST) || !test.text("half").isEmpty()
                    || !test.text("data_proof").isEmpty()) {
                return false;
            }
            return i < last && !test.at().isAfter(records.get(last).at())
                    || elsewhere.filter(heat -> !test.at().isAfter(heat)).isPresent();
        }
    }
}
