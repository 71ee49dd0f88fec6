package org.greenbead.core.run;

import java.util.Set;
import java.util.function.ToDoubleFunction;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.thermal.HeatField;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.HeatModel;

/**
 * Readings contradict the bench, or one another, and nobody knows which is wrong. What is told covers both cases: each is an estimate of its own
 * that is deaf to the probes it takes for false.
 */
final class Contested implements JointEstimator {
    private final JointEstimator one;
    private final Set<String> oneDeafTo;
    private final JointEstimator other;
    private final Set<String> otherDeafTo;

    Contested(JointEstimator one, Set<String> oneDeafTo, JointEstimator other, Set<String> otherDeafTo) {
        this.one = one;
        this.oneDeafTo = oneDeafTo;
        this.other = other;
        this.otherDeafTo = otherDeafTo;
    }

    /** The first case was the true one. */
    JointEstimator one() {
        return one;
    }

    @Override
    public void advance(HeatInput input, double stepS) {
        one.advance(input, stepS);
        other.advance(input, stepS);
    }

    @Override
    public void advanceUnseen(HeatInput input, double stepS) {
        one.advanceUnseen(input, stepS);
        other.advanceUnseen(input, stepS);
    }

    @Override
    public void startAt(double celsius) {
        one.startAt(celsius);
        other.startAt(celsius);
    }

    @Override
    public Estimate shows(ProbePlace probe) {
        return (oneDeafTo.contains(probe.name()) && !otherDeafTo.contains(probe.name()) ? other : one)
                .shows(probe);
    }

    @Override
    public void correct(ProbePlace probe, double celsius) {
        if (!oneDeafTo.contains(probe.name())) {
            one.correct(probe, celsius);
        }
        if (!otherDeafTo.contains(probe.name())) {
            other.correct(probe, celsius);
        }
    }

    @Override
    public double saw(Sight sight, double solidusC, double liquidusC) {
        return Math.max(one.saw(sight, solidusC, liquidusC), other.saw(sight, solidusC, liquidusC));
    }

    @Override
    public double strain() {
        return one.strain();
    }

    @Override
    public void swept() {
        one.swept();
        other.swept();
    }

    @Override
    public Estimate of(ToDoubleFunction<HeatModel> quantity) {
        Estimate a = one.of(quantity);
        Estimate b = other.of(quantity);
        return Estimate.between(Math.min(a.lowC(), b.lowC()), Math.max(a.highC(), b.highC()));
    }

    @Override
    public HeatField field(Side side) {
        return one.field(side);
    }

    @Override
    public HeatModel lookAhead() {
        return one.lookAhead();
    }

    @Override
    public JointEstimator copy() {
        return new Contested(one.copy(), oneDeafTo, other.copy(), otherDeafTo);
    }
}
