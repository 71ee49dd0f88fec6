package org.greenbead.core.account;

import org.greenbead.core.quantity.Check;

/**
 * Where a fact comes from.
 *
 * @param source the kind of place
 * @param from   the place itself: {@code record rail-2}, {@code tick gloves_on}, {@code board WB-7}; a computed fact names what it was computed from
 */
public record Origin(Source source, String from) {
    /** Kinds of place, the most to be trusted first. */
    public enum Source {
        /** A run, a meter, a photo. */
        MEASURED,
        /** Arithmetic, times, the thermal model. */
        COMPUTED,
        /** What the ledger holds of boards, benches, chips and other jobs. */
        LEDGER,
        /** A record of a thing: a number, a word, a name. */
        RECORDED,
        /** A way of working, or the kind of the job. */
        CHOSEN,
        /** A tick. */
        TICKED,
        /** Typed by its name. */
        TYPED,
        /** A usual value, put in where nobody measured or read it. */
        ASSUMED
    }

    public Origin {
        Check.present("source of a fact", source);
        Check.text("origin of a fact", from);
    }
}
