package org.greenbead.core.route;

import java.util.Locale;

/** What a job is for; each has a route of its own. */
public enum JobKind {
    REVIVE, REPLACE, REFLOW, TRANSPLANT, MEMORY, STORAGE, BOARDS, PACKAGE, LOOSE, MILLED, FLEX, HARVEST;

    /** Whether the chip that comes off goes back on; else another takes its place. */
    public boolean keepsChip() {
        return switch (this) {
            case REPLACE, MEMORY, STORAGE, MILLED -> false;
            default -> true;
        };
    }

    /** Its words are {@code kind.<key>} in the trade bundle. */
    public String key() {
        return name().toLowerCase(Locale.ROOT);
    }
}
