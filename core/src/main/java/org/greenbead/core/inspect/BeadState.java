package org.greenbead.core.inspect;

/** What stands on a site. */
public enum BeadState {
    OK, MISSING, SMALL, LARGE, DISPLACED, BRIDGED,
    /** The photo does not show it well enough. */
    UNKNOWN
}
