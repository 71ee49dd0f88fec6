package org.greenbead.core.run;

import java.util.List;
import java.util.function.ToDoubleFunction;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.HeatModel;

/**
 * When everything that may have melted is solid. Two have to agree: the estimate by its upper bound, and the model left to cool from the moment
 * the heat went off, which no reading corrects. So a logger that restarts, a bead that comes off or a channel that drifts cannot make it
 * sooner than a board can cool.
 */
final class CoolGuard {
    private final double movingC;
    private final ToDoubleFunction<Protected> neighbourC;
    private final JointEstimator untouched;

    /**
     * @param movingC under this the target's joints may be moved, °C
     * @param neighbourC the same for the joints of a neighbour
     * @param trusted the estimate when the heat went off
     */
    CoolGuard(double movingC, ToDoubleFunction<Protected> neighbourC, JointEstimator trusted) {
        this.movingC = movingC;
        this.neighbourC = neighbourC;
        untouched = trusted.untouched();
    }

    void advance(HeatInput input, double stepS) {
        untouched.advance(input, stepS);
    }

    /** @param neighbours that may have melted */
    boolean safe(JointEstimator estimator, List<Protected> neighbours) {
        boolean solid = estimator.of(HeatModel::jointMaxC).highC() <= movingC
                && cooled(untouched.of(HeatModel::jointMaxC)) <= movingC;
        for (Protected part : neighbours) {
            double under = neighbourC.applyAsDouble(part);
            solid &= estimator.of(part.celsius()).highC() <= under
                    && cooled(untouched.of(part.celsius())) <= under;
        }
        return solid;
    }

    /** Where it is not known what was true when the heat went off, the worse case counts. */
    private double cooled(Estimate model) {
        return untouched instanceof Contested ? model.highC() : model.celsius();
    }
}
