package org.greenbead.core.inspect;

import java.util.List;

/**
 * What to do with a chip, by the rules of the trade.
 *
 * @param todo           what each site that is not good asks for, the most critical first
 * @param coplanarityMm  how far the lowest good ball stays below the highest, from diameters alone: a bent body is not in it
 * @param coplanaritySdMm standard uncertainty of that; among many balls noise alone makes it three to four of these large
 */
public record BeadVerdict(Act act, List<Todo> todo, double coplanarityMm,
        double coplanaritySdMm) {
    /** The next act for the whole chip. */
    public enum Act {
        /** Nothing to do. */
        GOOD,
        /** Balls stand beside their pads: thin flux, and let them settle in one more melt. */
        SETTLE,
        /** Single sites by hand: add paste, take off, part. */
        TOUCH_UP,
        /** Too much is wrong: wick it flat and begin again. */
        STRIP,
        /** Sites that the photo does not show well enough decide it. */
        LOOK_AGAIN
    }

    /** What one site asks for. */
    public enum Fix {
        ADD_BALL, ADD_PASTE, TAKE_OFF, SETTLE, PART, LOOK
    }

    /**
     * @param site       its name
     * @param pasteMm3   paste to lay on it, 0 where none
     * @param solderMm3  solder that is missing, below 0 where there is too much
     */
    public record Todo(String site, BeadState state, Fix fix, double pasteMm3, double solderMm3,
            org.greenbead.core.bead.Site.Critical critical, String net) {}

    public BeadVerdict {
        todo = List.copyOf(todo);
    }
}
