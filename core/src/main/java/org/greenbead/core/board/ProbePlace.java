package org.greenbead.core.board;

import java.util.List;
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

    /**
     * What a bead at a place can touch, the likeliest first: over the target its body, unless it sits among the balls; under the
     * target the board, unless it was led through to a ball; elsewhere the board.
     */
    public static List<Role> touches(Chip target, Side side, Point at) {
        boolean within = Math.abs(at.xMm() - target.centreMm().xMm()) <= target.sizeMm().xMm() / 2
                && Math.abs(at.yMm() - target.centreMm().yMm()) <= target.sizeMm().yMm() / 2;
        if (!within) {
            return List.of(Role.BOARD);
        }
        return List.of(side == target.side() ? Role.CHIP_TOP : Role.BOARD, Role.JOINT);
    }

    /** The same probe elsewhere; what it touched stays true where it can, else it is what is likeliest there. */
    public ProbePlace moved(Chip target, Side face, Point to) {
        List<Role> can = touches(target, face, to);
        return new ProbePlace(name, can.contains(role) ? role : can.getFirst(), channel, face, to);
    }

    public ProbePlace touching(Role what) {
        return new ProbePlace(name, what, channel, side, atMm);
    }
}
