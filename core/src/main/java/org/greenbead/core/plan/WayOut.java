package org.greenbead.core.plan;

import org.greenbead.core.quantity.Quantity;

/**
 * Something that would leave more room, and the answer that it leads to.
 *
 * @param what size of the change: nozzle, factor, part, alloy or school
 */
public record WayOut(Way way, Quantity what, Answer answer) {
    /** What is changed. */
    public enum Way {
        WIDER_NOZZLE, LONGER_SOAK, HOTTER_HEATER, SHIELD, DILUTE_FIRST, OTHER_SCHOOL
    }
}
