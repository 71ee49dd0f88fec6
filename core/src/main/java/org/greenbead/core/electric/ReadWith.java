package org.greenbead.core.electric;

import java.util.Locale;
import java.util.regex.Pattern;

/**
 * With what a resistance was read. Meters drive different currents through what is no plain resistor, and a rail of chips reads otherwise with the
 * leads turned; so two readings can be held against one another only where these are the same.
 *
 * @param meter  its name; empty = nobody said
 * @param turned red on ground and black on the rail; usual is red on the rail
 */
public record ReadWith(String meter, boolean turned) {
    /** Nobody said; then it was as usual. */
    public static final ReadWith UNSAID = new ReadWith("", false);
    private static final Pattern TURNED = Pattern
            .compile("(?i)[,;(]?\\s*(red on ground|black on (the )?rail|leads turned)\\s*\\)?");

    /** "bench two", "bench two, red on ground", "red on ground", or nothing. */
    public static ReadWith of(String text) {
        String meter = TURNED.matcher(text).replaceAll(" ").strip();
        return new ReadWith(meter, TURNED.matcher(text).find());
    }

    /** Both meters are named and are two. */
    public boolean otherMeter(ReadWith before) {
        return !meter.isEmpty() && !before.meter.isEmpty()
                && !meter.toLowerCase(Locale.ROOT).equals(before.meter.toLowerCase(Locale.ROOT));
    }
}
