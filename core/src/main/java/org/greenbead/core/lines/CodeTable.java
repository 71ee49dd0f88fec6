package org.greenbead.core.lines;

import java.util.List;
import java.util.Locale;

/** Blink, beep and log codes of a board with their meanings, as the user has them from somewhere; a code of several counts is {@code 3-1}. */
public record CodeTable(List<Meaning> rows) {
    /** @param source where the meaning comes from; empty = nobody says, and then it proves nothing */
    public record Meaning(String code, String meaning, String source) {}

    /** What a table has to say of a code. */
    public enum Told {
        /** One meaning, and where it comes from. */
        SOURCED,
        /** One meaning that nobody vouches for. */
        UNSOURCED,
        /** Several meanings: none counts until the others are struck out. */
        CONTRADICTED,
        /** No row, or no table. No sign that the unit is healthy. */
        UNKNOWN
    }

    /** @param meanings the rows of the code, each once */
    public record Reading(String code, Told told, List<Meaning> meanings) {
        /** Where the meaning comes from; empty where that is not known, or where meanings contradict each other. */
        public String provenance() {
            return told == Told.SOURCED ? meanings.getFirst().source() : "";
        }
    }

    public CodeTable {
        rows = List.copyOf(rows);
    }

    public Reading read(String code) {
        List<Meaning> found = rows.stream().filter(m -> plain(m.code()).equals(plain(code))).distinct()
                .toList();
        Told told = switch (found.size()) {
            case 0 -> Told.UNKNOWN;
            case 1 -> found.getFirst().source().isBlank() ? Told.UNSOURCED : Told.SOURCED;
            default -> Told.CONTRADICTED;
        };
        return new Reading(code, told, found);
    }

    /** Of what was tapped: the way of reading it that the table alone knows, else the plain one. */
    public Reading read(Tapping tapping) {
        List<Reading> known = tapping.mayBe().stream().map(this::read).filter(r -> r.told() != Told.UNKNOWN)
                .toList();
        return known.size() == 1 ? known.getFirst() : read(tapping.code());
    }

    /** {@code 3 1}, {@code 3.1} and {@code 3-1} are one code. */
    private static String plain(String code) {
        return code.toLowerCase(Locale.ROOT).replaceAll("[\\s,/.]+", "-").replaceAll("^-|-$", "");
    }
}
