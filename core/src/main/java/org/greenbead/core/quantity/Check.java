package org.greenbead.core.quantity;

import java.util.Collection;
import java.util.HashSet;
import java.util.Locale;
import java.util.function.Function;

/** Guards for numbers with a unit and for lists, so that a bad record cannot be made. */
public final class Check {
    private Check() {
    }

    /**
     * @param name what the number is, in the words of the file it may come from
     * @param value any number; NaN is refused
     * @param low smallest allowed value, in {@code unit}
     * @param high largest allowed value, in {@code unit}
     * @return {@code value}
     * @throws IllegalArgumentException naming the number, its value and the allowed range
     */
    public static double within(String name, double value, double low, double high, String unit) {
        if (!(value >= low && value <= high)) {
            throw new IllegalArgumentException(
                    String.format(Locale.ROOT, "%s is %s %s; allowed is %s to %s %s", name,
                            plain(value), unit, plain(low), plain(high), unit).replace("  ", " ").trim());
        }
        return value;
    }

    /** @throws IllegalArgumentException when the text is missing, blank or longer than 400 characters */
    public static String text(String name, String value) {
        if (value == null || value.isBlank()) {
            throw new IllegalArgumentException(name + " is empty; write a short text");
        }
        if (value.length() > 400) {
            throw new IllegalArgumentException(
                    name + " has " + value.length() + " characters; allowed are 400");
        }
        return value;
    }

    /**
     * A name that also stands in file names.
     *
     * @throws IllegalArgumentException when it is empty, longer than 40 characters, or holds a control sign, a slash or two dots in a row
     */
    public static String id(String name, String value) {
        text(name, value);
        if (value.length() > 40) {
            throw new IllegalArgumentException(
                    name + " has " + value.length() + " characters; allowed are 40");
        }
        if (value.contains("..")
                || value.chars().anyMatch(c -> Character.isISOControl(c) || c == '/' || c == '\\')) {
            throw new IllegalArgumentException(name + " \"" + value.replaceAll("\\p{Cntrl}", "?")
                    + "\" holds a slash, two dots in a row or a control sign; use letters, digits, - and _");
        }
        return value;
    }

    /** @throws IllegalArgumentException when {@code value} is null */
    public static <T> T present(String name, T value) {
        if (value == null) {
            throw new IllegalArgumentException(name + " is missing");
        }
        return value;
    }

    /** @throws IllegalArgumentException when two items share a name */
    public static <T> void distinct(String what, Collection<T> items, Function<T, String> name) {
        var seen = new HashSet<String>();
        for (T item : items) {
            if (!seen.add(name.apply(item))) {
                throw new IllegalArgumentException(
                        what + " \"" + name.apply(item) + "\" stands twice; give each its own name");
            }
        }
    }

    private static String plain(double value) {
        return value == Math.rint(value) && Math.abs(value) < 1e9
                ? Long.toString((long) value)
                : String.format(Locale.ROOT, "%.4g", value);
    }
}
