package org.greenbead.core.calibrate;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.greenbead.core.board.Point;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.SimulatedBench;

/** Dots on a simulated bench: put by a hand, a millimetre off, of solder that melts a degree or two from its table. */
public final class SimulatedDots {
    private static final double PLACE_MM = 1;
    private static final double MELTS_K = 1.5;
    private final RunPlan plan;
    private final List<Witness.Dot> put = new ArrayList<>();
    private final List<Double> meltsC = new ArrayList<>();
    private final List<String> shining = new ArrayList<>();

    public SimulatedDots(RunPlan plan, List<Witness.Dot> dots, long seed) {
        this.plan = plan;
        var random = new Random(seed);
        Point size = plan.board().sizeMm();
        for (Witness.Dot dot : dots) {
            double x = dot.atMm().xMm() + PLACE_MM * random.nextGaussian();
            double y = dot.atMm().yMm() + PLACE_MM * random.nextGaussian();
            put.add(WitnessFit.onBody(plan, dot)
                    ? dot
                    : new Witness.Dot(dot.name(), dot.alloy(), dot.side(),
                            new Point(Math.clamp(x, 0, size.xMm()), Math.clamp(y, 0, size.yMm()))));
            meltsC.add(dot.meltsC() + MELTS_K * random.nextGaussian());
        }
    }

    /** Names of the dots that have turned bright by now, in the order in which they did. */
    public List<String> shining(SimulatedBench bench) {
        for (int i = 0; i < put.size(); i++) {
            Witness.Dot dot = put.get(i);
            double now = WitnessFit.onBody(plan, dot)
                    ? bench.bodyC()
                    : bench.boardC(dot.side(), dot.atMm());
            if (now >= meltsC.get(i) && !shining.contains(dot.name())) {
                shining.add(dot.name());
            }
        }
        return List.copyOf(shining);
    }
}
