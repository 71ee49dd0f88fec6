package org.greenbead.core.board;

import org.greenbead.core.quantity.Check;

/**
 * Where a thermocouple is fixed. A reading without its place is no evidence.
 *
 * @param name    "board_top"; letters, digits and underscore, it becomes a column of the run log
 * @param role    what the reading stands for
 * @param channel of the logger, 1 to 32
 */
public record ProbePlace(String name, Role role, int channel, Side side, Point atMm) {
    /** What a probe touches. */
    public enum Role {
        BOARD, CHIP_TOP, JOINT
    }

    public ProbePlace {
        Check.text("probe name", name);
        if (!name.matches("[a-z][a-z0-9_]{0,30}")) {
            throw new IllegalArgumentException(
                    "probe name \"" + name + "\" must be small letters, digits and _");
        }
        Check.present("probe role", role);
        Check.within("probe channel", channel, 1, 32, "");
        Check.present("probe side", side);
        Check.present("probe place", atMm);
    }
}
