package org.greenbead.core.route;

import java.util.Locale;

/** What a job is for; each has a route of its own. */
public enum JobKind {
    REVIVE, REPLACE, REFLOW, TRANSPLANT, MEMORY, STORAGE, BOARDS, PACKAGE, LOOSE, MILLED, FLEX, HARVEST;

    /** Its words are {@code kind.<key>} in the trade bundle. */
    public String key() {
        return name().toLowerCase(Locale.ROOT);
    }
}
