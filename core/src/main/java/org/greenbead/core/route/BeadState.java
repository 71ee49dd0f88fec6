package org.greenbead.core.route;

/** How far a bead is: worked is not yet proven. */
public enum BeadState {
    OPEN, DONE, GREEN
}
