package org.greenbead.core.bead;

import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Names of sites by row and column: rows are letters without I, O, Q, S, X and Z, then two letters; columns count from 1 (JEDEC Publication 95, design guide 4.14, verify). */
public final class RowNames {
    private static final String LETTERS = "ABCDEFGHJKLMNPRTUVWY";
    private static final Pattern SITE = Pattern
            .compile("(?:([A-Z](?::[A-Z])*):)?([A-Z]{1,2})([1-9]\\d{0,2})");

    private RowNames() {
    }

    /** @param row from 0 */
    public static String letters(int row) {
        if (row < 0 || row >= LETTERS.length() * (LETTERS.length() + 1)) {
            throw new IllegalArgumentException("row " + row + " has no name; there are "
                    + LETTERS.length() * (LETTERS.length() + 1));
        }
        return row < LETTERS.length()
                ? String.valueOf(LETTERS.charAt(row))
                : "" + LETTERS.charAt(row / LETTERS.length() - 1) + LETTERS.charAt(row % LETTERS.length());
    }

    /** Row from 0; empty for letters that no row has. */
    public static OptionalInt row(String letters) {
        int row = 0;
        for (char letter : letters.toUpperCase(Locale.ROOT).toCharArray()) {
            int at = LETTERS.indexOf(letter);
            if (at < 0) {
                return OptionalInt.empty();
            }
            row = row * LETTERS.length() + at + 1;
        }
        return letters.isEmpty() || letters.length() > 2 ? OptionalInt.empty() : OptionalInt.of(row - 1);
    }

    /** @param column from 0 */
    public static String site(int row, int column) {
        return letters(row) + (column + 1);
    }

    /** Whether a name could be that of a site: "F18", or "B:A1" in a field of its own. */
    public static boolean isSite(String name) {
        Matcher match = SITE.matcher(name);
        return match.matches() && row(match.group(2)).isPresent();
    }

    /** The field of its own that a site lies in: "B" of "B:A1"; empty for the main field. */
    public static String field(String name) {
        int colon = name.lastIndexOf(':');
        return colon < 0 ? "" : name.substring(0, colon);
    }

    /** @param field as of {@link #field}, @param row from 0, @param column from 0 */
    public static String site(String field, int row, int column) {
        return (field.isEmpty() ? "" : field + ":") + site(row, column);
    }

    /** Row and column of a site, from 0. */
    public record Place(int row, int column) {}

    /** Empty for a name that no site has. */
    public static Optional<Place> place(String name) {
        Matcher match = SITE.matcher(name.strip().toUpperCase(Locale.ROOT));
        return match.matches() && row(match.group(2)).isPresent()
                ? Optional.of(new Place(row(match.group(2)).getAsInt(),
                        Integer.parseInt(match.group(3)) - 1))
                : Optional.empty();
    }
}
