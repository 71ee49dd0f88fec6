package org.greenbead.core.inspect;

/** What a cleaned pad looks like. */
public enum PadState {
    OK,
    /** Solder was left standing on it. */
    BUMP,
    /** Torn off, or lifted and gone. */
    MISSING_PAD,
    /** Solder joins it to a neighbour. */
    SMEAR,
    /** Resin or residue lies on it. */
    GLUE,
    /** The photo does not show it well enough. */
    UNKNOWN
}
