package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.List;
import java.util.function.ToDoubleFunction;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.ProtectedPart;
import org.greenbead.core.board.Side;
import org.greenbead.core.finding.Rule;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.thermal.HeatModel;

/**
 * Everything of a plan that has a limit, and how to read its temperature from a model. Another chip is as hot as the hottest of its
 * joints: beside the jet that is several kelvins over its middle.
 *
 * @param marginK how far under the limit it is wanted, K
 */
public record Protected(String name, Phrase what, Room.Kind kind, Rule rule, double limitC, double marginK,
        ToDoubleFunction<HeatModel> celsius) {
    public static List<Protected> of(RunPlan plan) {
        Chip target = plan.target();
        var all = new ArrayList<Protected>();
        all.add(new Protected(target.name(), Phrase.of("room.body", new Quantity.Name(target.name())),
                Room.Kind.BODY, Rule.BODY_LIMIT,
                target.bodyLimitC(), 0, HeatModel::packageTopC));
        for (Chip chip : plan.board().chips()) {
            if (!chip.name().equals(target.name())) {
                boolean under = chip.side() == Side.BOTTOM;
                all.add(new Protected(chip.name(),
                        Phrase.of(under ? "room.under" : "room.joints", new Quantity.Name(chip.name())),
                        Room.Kind.JOINTS, under ? Rule.UNDERSIDE_NEAR_MELT : Rule.NEIGHBOUR_NEAR_MELT,
                        chip.joint().alloy().solidusC(), plan.recipe().limits().neighbourK(),
                        model -> model.jointMaxC(chip.name())));
            }
        }
        for (ProtectedPart part : plan.board().parts()) {
            all.add(new Protected(part.name(), Phrase.of("room.part", new Quantity.Name(part.name())),
                    Room.Kind.PART, Rule.PART_LIMIT,
                    part.limitC(), 0, model -> model.boardC(part.side(), part.centreMm())));
        }
        return all;
    }
}
