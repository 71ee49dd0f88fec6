package org.greenbead.store;

import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Locale;

/** A moment as a person reads it, to the minute; UTC, so that the same report reads the same everywhere. */
final class Clocked {
    private Clocked() {
    }

    static String said(Instant at, Locale locale) {
        return DateTimeFormatter.ofPattern("d MMM yyyy, HH:mm", locale).withZone(ZoneOffset.UTC).format(at)
                + " UTC";
    }

    static String day(Instant at, Locale locale) {
        return DateTimeFormatter.ofPattern("d MMMM yyyy", locale).withZone(ZoneOffset.UTC).format(at);
    }
}
