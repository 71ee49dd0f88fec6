package org.greenbead.core.forming;

import org.greenbead.core.quantity.Check;

/**
 * Whether an act is right just now.
 *
 * @param why key of the words that say why; empty where there is nothing to say
 */
public record Judged(Act act, Rating rating, String why) {
    /** Right, allowed at a price, wrong, or without sense here. */
    public enum Rating {
        RIGHT, CARE, WRONG, IDLE
    }

    public Judged {
        Check.present("act", act);
        Check.present("rating", rating);
        Check.present("reason", why);
    }
}
