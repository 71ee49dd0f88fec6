package org.greenbead.core.run;

import java.util.function.ToDoubleFunction;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.thermal.HeatField;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.HeatModel;

/** Knows what the probes cannot see. Single-threaded. */
interface JointEstimator {
    void advance(HeatInput input, double stepS);

    /** A probe that is trusted shows {@code celsius}. */
    void correct(ProbePlace probe, double celsius);

    /** All probes of one sweep have been given. */
    default void swept() {
        // Only an estimator that weighs readings by their spacing needs to know.
    }

    /** Any temperature of the model, °C, with its spread. */
    Estimate of(ToDoubleFunction<HeatModel> quantity);

    /** What one side of the board looks like, mean of all that is held possible. */
    HeatField field(Side side);

    /** A model in the best-estimate state, to look ahead with. */
    HeatModel lookAhead();
}
