package org.greenbead.core.route;

import org.greenbead.core.quantity.Check;

/**
 * One thing to see to and attest.
 *
 * @param id   small letters and _, such as "cell_off"; its words are {@code check.<id>} in the trade bundle
 * @param note what the technician wrote beside it, may be empty
 */
public record CheckItem(String id, Attest state, String note) {
    public CheckItem {
        Check.text("check", id);
        if (!id.matches("[a-z][a-z0-9_]{0,40}")) {
            throw new IllegalArgumentException("check \"" + id + "\" must be small letters, digits and _");
        }
        Check.present("state of check " + id, state);
        note = note == null ? "" : note;
    }

    public CheckItem as(Attest now) {
        return new CheckItem(id, now, note);
    }
}
