package org.greenbead.store;

import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.format.FormatStyle;
import java.util.Locale;

/** A moment as a person reads it, to the minute; UTC, so that the same report reads the same everywhere. */
final class Clocked {
    private Clocked() {
    }

    static String said(Instant at, Locale locale) {
        return written(at, locale, FormatStyle.MEDIUM, "d MMM yyyy")
                + DateTimeFormatter.ofPattern(", HH:mm", locale).withZone(ZoneOffset.UTC).format(at) + " UTC";
    }

    static String day(Instant at, Locale locale) {
        return written(at, locale, FormatStyle.LONG, "d MMMM yyyy");
    }

    /** A date in the order of its language; English would be told otherwise on either side of the sea, so it has its own. */
    private static String written(Instant at, Locale locale, FormatStyle style, String english) {
        DateTimeFormatter formatter = locale.getLanguage().equals("en")
                ? DateTimeFormatter.ofPattern(english, locale)
                : DateTimeFormatter.ofLocalizedDate(style).withLocale(locale);
        return formatter.withZone(ZoneOffset.UTC).format(at);
    }
}
