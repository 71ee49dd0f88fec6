package org.greenbead.core.plan;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.board.Point;
import org.greenbead.core.recipe.Shield;

/**
 * What a search may use beyond the bench as it stands, to price a way out.
 *
 * @param nozzleMm     this nozzle and no other; empty = the planner's choice out of the drawer
 * @param soakFactor   how much longer than usual a soak may last
 * @param heaterExtraC how much hotter than it can the heater may get, K
 * @param shields      foil that is laid on
 * @param joints       what the joints have been diluted to; empty = as they are
 * @param away         direction, of length 1, in which nozzle and heater may be put beside the chip; empty = they stay over it
 */
public record Freedom(Optional<Double> nozzleMm, double soakFactor, double heaterExtraC, List<Shield> shields,
        Optional<Alloy> joints, Optional<Point> away) {
    public static final Freedom USUAL = new Freedom(Optional.empty(), 1, 0, List.of(), Optional.empty(),
            Optional.empty());

    Freedom nozzle(double mm) {
        return new Freedom(Optional.of(mm), soakFactor, heaterExtraC, shields, joints, away);
    }

    Freedom soak(double factor) {
        return new Freedom(nozzleMm, factor, heaterExtraC, shields, joints, away);
    }

    Freedom heater(double extraC) {
        return new Freedom(nozzleMm, soakFactor, extraC, shields, joints, away);
    }

    Freedom shield(Shield foil) {
        return new Freedom(nozzleMm, soakFactor, heaterExtraC, List.of(foil), joints, away);
    }

    Freedom diluted(Alloy alloy) {
        return new Freedom(nozzleMm, soakFactor, heaterExtraC, shields, Optional.of(alloy), away);
    }

    Freedom beside(Point direction) {
        return new Freedom(nozzleMm, soakFactor, heaterExtraC, shields, joints, Optional.of(direction));
    }
}
