package org.greenbead.core.book;

import org.greenbead.core.book.Phase;
/** The order in which people work. */
public enum Phase {
    INTAKE, DECIDE, PLAN, PREPARE, LIFT, CLEAN, BEAD, SEAT, PROVE, CLOSE
}
