package org.greenbead.core.route;

/** The order in which people work. */
public enum Phase {
    INTAKE, DECIDE, PLAN, PREPARE, LIFT, CLEAN, BEAD, SEAT, PROVE, CLOSE
}
