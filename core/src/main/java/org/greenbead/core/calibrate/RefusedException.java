package org.greenbead.core.calibrate;

import org.greenbead.core.quantity.Phrase;

/** A run carries too little to learn a bench from. */
public final class RefusedException extends Exception {
    private static final long serialVersionUID = 1L;
    private final transient Phrase why;

    RefusedException(Phrase why) {
        super(why.key());
        this.why = why;
    }

    public Phrase why() {
        return why;
    }
}
