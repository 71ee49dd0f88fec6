package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.finding.Rule;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.HeatModel;

/**
 * Two thermocouples plugged in crosswise: the difference that they show has the sign opposite to the one that heater and air make,
 * and about its size. The model beside it is never corrected: corrected by crossed readings it would come to believe them.
 */
final class SwapWatch {
    /** Readings this close together may stand either way: two beads that slipped a little, K. */
    private static final double CLEAR_K = 5;
    /** Judgement: part of the expected difference by which the shown one may differ in size. */
    private static final double LIKENESS = 0.6;
    private static final double SUSTAINED_S = 20;

    private final HeatModel model;
    private final Map<String, Double> since = new HashMap<>();
    private List<Finding> found = List.of();

    /** @param model of the bench as it is known, in its starting state */
    SwapWatch(HeatModel model) {
        this.model = model;
    }

    void advance(HeatInput input, double stepS) {
        model.advance(input, stepS);
    }

    /** @return a finding for each pair that has looked crossed for a while */
    List<Finding> look(double timeS, List<ProbeWatch> seen) {
        List<ProbeWatch> live = seen.stream().filter(p -> p.live() && !p.trace().isEmpty()).toList();
        var now = new ArrayList<Finding>();
        for (int i = 0; i < live.size(); i++) {
            for (int j = i + 1; j < live.size(); j++) {
                ProbePlace a = live.get(i).place();
                ProbePlace b = live.get(j).place();
                String pair = a.name() + "+" + b.name();
                double expected = model.probeC(a) - model.probeC(b);
                double shown = live.get(i).trace().last() - live.get(j).trace().last();
                boolean crossed = shown * expected < 0 && Math.abs(expected) > CLEAR_K
                        && Math.abs(shown) > CLEAR_K
                        && Math.abs(shown + expected) < LIKENESS * Math.abs(expected) + 2;
                if (!crossed) {
                    since.remove(pair);
                } else if (timeS - since.computeIfAbsent(pair, p -> timeS) >= SUSTAINED_S) {
                    now.add(Finding.of(Rule.PROBES_SWAPPED, pair, Severity.STOP, new Quantity.Name(a.name()),
                            new Quantity.Name(b.name()), new Quantity.RiseK(shown),
                            new Quantity.RiseK(expected),
                            new Quantity.Count(a.channel()), new Quantity.Count(b.channel())));
                }
            }
        }
        found = List.copyOf(now);
        return found;
    }

    List<Finding> found() {
        return found;
    }
}
