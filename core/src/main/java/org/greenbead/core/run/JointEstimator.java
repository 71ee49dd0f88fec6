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

    /** Time that nobody watched: heater and air may have been as said, or off. */
    default void advanceUnseen(HeatInput input, double stepS) {
        advance(input, stepS);
    }

    /** The board is warm before the heat begins. */
    default void startAt(double celsius) {
        // Only an estimator that holds a state of its own needs to know.
    }

    /** What a probe is expected to show, with its spread. */
    default Estimate shows(ProbePlace probe) {
        return of(m -> m.probeC(probe));
    }

    /** A probe that is trusted shows {@code celsius}. */
    void correct(ProbePlace probe, double celsius);

    /**
     * Something was seen at the chip.
     *
     * @return how far it is believed, 0 to 1
     */
    default double saw(Sight sight, double solidusC, double liquidusC) {
        return 1;
    }

    /**
     * How far jet and heater had to be bent to fit the readings, in standard deviations of what benches are; negative when they had to be
     * weaker. Benches of the trials stay under 1.5; readings that are all scaled go far beyond.
     */
    default double strain() {
        return 0;
    }

    /**
     * What the worst probe persistently shows beside the estimate, squared, over what was expected; about 1 on any bench of the trials, ten and
     * more when two probes cannot both be right.
     */
    default double surprise() {
        return 1;
    }

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

    /** An independent estimator in the same state. */
    JointEstimator copy();

    /** The same left to itself from now on: no reading reaches it. */
    default JointEstimator untouched() {
        return copy();
    }
}
