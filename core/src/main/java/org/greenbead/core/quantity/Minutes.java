package org.greenbead.core.quantity;

import java.util.Locale;

/** Lengths of waits as people write and read them: minutes, or hours once they are long. */
public final class Minutes {
    private static final double HOURS_FROM_S = 100 * 60;

    private Minutes() {
    }

    /**
     * Minutes from {@code 90}, {@code 90 min}, {@code 9h}, {@code 1.5 h} or {@code 1:30}, which is an hour and a half.
     *
     * @throws IllegalArgumentException for anything else
     */
    public static double parse(String typed) {
        String text = typed.strip().toLowerCase(Locale.ROOT).replace(',', '.');
        if (text.matches("\\d{1,4}:[0-5]\\d")) {
            String[] part = text.split(":");
            return Integer.parseInt(part[0]) * 60.0 + Integer.parseInt(part[1]);
        }
        if (!text.matches("\\d{1,6}(\\.\\d{1,3})?\\s*(h|min)?")) {
            throw new IllegalArgumentException(
                    "\"" + typed.strip() + "\" is no time; write minutes, 9h or 1:30");
        }
        double number = Double.parseDouble(text.replaceAll("[^0-9.]", ""));
        return text.endsWith("h") ? number * 60 : number;
    }

    /** {@code 4:10} for minutes and seconds, {@code 14 h 05 min} from 100 minutes on. */
    public static String say(double seconds) {
        double whole = Math.max(0, Math.round(seconds));
        if (whole < HOURS_FROM_S) {
            return Words.clock(whole);
        }
        long minutes = (long) (whole / 60);
        return minutes % 60 == 0
                ? minutes / 60 + " h"
                : String.format(Locale.ROOT, "%d h %02d min", minutes / 60, minutes % 60);
    }
}
