package org.greenbead.core.record;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.stream.IntStream;

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

    /** The records of a job but for tests that the last heat made void. */
    public static List<Kept> standing(List<Kept> records) {
        int heat = lastHeat(records);
        return IntStream.range(0, records.size()).filter(i -> !voided(records, i, heat))
                .mapToObj(records::get)
                .toList();
    }

    /** Things that were tested before the last heat on the board and not since, by their last test. */
    public static List<Kept> overtaken(List<Kept> records) {
        int heat = lastHeat(records);
        Map<String, Kept> since = last(of(standing(records)));
        return last(IntStream.range(0, records.size()).filter(i -> voided(records, i, heat))
                .mapToObj(records::get).toList()).entrySet().stream()
                .filter(t -> !since.containsKey(t.getKey())).map(Map.Entry::getValue).toList();
    }

    /** Tests that stand. */
    public static List<Kept> now(List<Kept> records) {
        return of(standing(records));
    }

    private static List<Kept> of(List<Kept> records) {
        return records.stream().filter(r -> r.type().equals(TEST)).toList();
    }

    /** Balls are made on the chip, off the board: that heat changes nothing that was tested. */
    private static int lastHeat(List<Kept> records) {
        return IntStream.range(0, records.size())
                .filter(i -> records.get(i).type().equals("run")
                        && !records.get(i).text("kind").equals("form"))
                .reduce((a, b) -> b).orElse(-1);
    }

    /**
     * Written before the heat and not since: the order of the records and the clock both have to say so, since a clock may be set back and an
     * older record be written anew. Halves are proved before they are joined, and data that was read out stays read.
     */
    private static boolean voided(List<Kept> records, int i, int heat) {
        Kept test = records.get(i);
        return i < heat && test.type().equals(TEST) && !test.at().isAfter(records.get(heat).at())
                && test.text("half").isEmpty()
                && test.text("data_proof").isEmpty();
    }
}
