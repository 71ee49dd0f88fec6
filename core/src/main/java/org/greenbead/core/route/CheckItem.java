package org.greenbead.core.route;

import java.util.regex.Pattern;
import org.greenbead.core.quantity.Check;

/**
 * One thing to see to and attest.
 *
 * @param id   small letters and _, such as "cell_off"; its words are {@code check.<id>} in the trade bundle. One's own is {@code own:} and its words
 * @param note what the technician wrote beside it, may be empty
 */
public record CheckItem(String id, Attest state, String note) {
    private static final Pattern NAME = Pattern.compile("[a-z][a-z0-9_]{0,40}|own:.{1,60}");
    /** Begins the note of a check that ticked itself from what is on record. */
    public static final String SHOWN = "shown: ";

    public CheckItem {
        Check.text("check", id);
        if (!NAME.matcher(id).matches()) {
            throw new IllegalArgumentException(
                    "check \"" + id + "\" must be small letters, digits and _, or own: and its words");
        }
        Check.present("state of check " + id, state);
        note = note == null ? "" : note;
    }

    /** Ticked by what is on record. */
    public CheckItem shown(String from) {
        return new CheckItem(id, Attest.YES, SHOWN + from);
    }

    /** Nothing on record shows it any more. */
    public CheckItem unshown() {
        return new CheckItem(id, Attest.UNKNOWN, "");
    }

    /** From what it ticked itself; empty where it did not. */
    public String shownBy() {
        return tickedItself() ? note.substring(SHOWN.length()) : "";
    }

    public boolean tickedItself() {
        return note.startsWith(SHOWN);
    }

    public CheckItem as(Attest now) {
        return new CheckItem(id, now, tickedItself() ? "" : note);
    }
}
