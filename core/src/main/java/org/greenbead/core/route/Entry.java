package org.greenbead.core.route;

import java.time.Instant;
import org.greenbead.core.quantity.Check;

/**
 * One line of a job's account. Lines are only ever added; a later one replaces what an earlier one said, and both stay to be read.
 *
 * @param number from 1, without gaps
 * @param at     when it was written down
 * @param by     who wrote it; may be empty
 * @param what   {@code opened}, {@code record/rail-1/ohm}, {@code check/supply_off}, {@code bead/lift_run}, {@code fact/chip.pads} or {@code route}
 * @param was    what stood there; null = nothing
 * @param is     what stands there from now on; null = nothing any more
 */
public record Entry(int number, Instant at, String by, String what, Object was, Object is) {
    public Entry {
        Check.present("time of an entry", at);
        by = by == null ? "" : by;
        Check.text("what an entry is about", what);
    }
}
