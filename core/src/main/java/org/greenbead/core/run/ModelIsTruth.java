package org.greenbead.core.run;

import java.util.function.ToDoubleFunction;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.thermal.HeatField;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.HeatModel;

/** In a rehearsal the model is the bench: nothing to estimate. */
final class ModelIsTruth implements JointEstimator {
    private final HeatModel model;

    ModelIsTruth(HeatModel model) {
        this.model = model;
    }

    @Override
    public void advance(HeatInput input, double stepS) {
        // Whoever rehearses moves the bench on, then reads its probes.
    }

    @Override
    public void correct(ProbePlace probe, double celsius) {
        // The probes read the same model.
    }

    @Override
    public Estimate of(ToDoubleFunction<HeatModel> quantity) {
        return new Estimate(quantity.applyAsDouble(model), 0);
    }

    @Override
    public HeatField field(Side side) {
        return model.field(side);
    }

    @Override
    public HeatModel lookAhead() {
        return model.copy();
    }

    @Override
    public JointEstimator copy() {
        return new ModelIsTruth(model.copy());
    }

    @Override
    public JointEstimator untouched() {
        return this;
    }
}
