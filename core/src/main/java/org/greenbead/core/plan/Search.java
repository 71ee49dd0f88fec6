package org.greenbead.core.plan;

import java.util.concurrent.CancellationException;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.thermal.Multipliers;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;
import org.hipparchus.analysis.MultivariateFunction;
import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.optim.InitialGuess;
import org.hipparchus.optim.MaxEval;
import org.hipparchus.optim.SimpleBounds;
import org.hipparchus.optim.SimpleValueChecker;
import org.hipparchus.optim.nonlinear.scalar.GoalType;
import org.hipparchus.optim.nonlinear.scalar.ObjectiveFunction;
import org.hipparchus.optim.nonlinear.scalar.noderiv.BOBYQAOptimizer;
import org.hipparchus.optim.nonlinear.scalar.noderiv.CMAESOptimizer;
import org.hipparchus.random.Well19937c;

/**
 * One search: a school, a nozzle, a starting point, an optimiser. Each candidate is driven through the search model; its cost is
 * how far it falls short of comfortable room at every limit, and a little for its time. Powell 2009, The BOBYQA algorithm for
 * bound constrained optimization without derivatives; Hansen and Ostermeier 2001, Completely derandomized self-adaptation.
 */
final class Search {
    /** Room of two standard deviations is comfortable; more is not worth time. */
    private static final double COMFORT = 2;
    private static final double PER_MINUTE = 0.03;

    private final RunPlan plan;
    private final Design design;
    private final SheetModel start;
    private final Corrections corrections;
    private final BooleanSupplier stopped;
    private final Runnable each;
    private final Consumer<Double> found;
    private double[] best;
    private double bestCost = Double.POSITIVE_INFINITY;
    private int tried;

    /** What the full model said differently of a limit, added to the search model's values. */
    interface Corrections {
        double of(Constraint constraint);
    }

    /**
     * @param each  told of each candidate before it is tried
     * @param found told the cost of each better one
     */
    Search(RunPlan plan, Design design, Multipliers multipliers, Resolution resolution,
            Corrections corrections,
            BooleanSupplier stopped, Runnable each, Consumer<Double> found) {
        this.plan = plan;
        this.design = design;
        this.corrections = corrections;
        this.stopped = stopped;
        this.each = each;
        this.found = found;
        start = new SheetModel(plan.scene(), multipliers, resolution);
    }

    /** With a quadratic model of the cost around the best point so far. */
    void bobyqa(double[] from, double radius, int evaluations) {
        run(evaluations,
                limit -> new BOBYQAOptimizer(2 * design.size() + 1, radius, 1e-3).optimize(limit, objective(),
                        GoalType.MINIMIZE, bounds(), new InitialGuess(inside(from, radius))));
    }

    /** With a population that learns where the cost falls. */
    void cmaes(double[] from, double sigma, int evaluations, int seed) {
        double[] spread = new double[design.size()];
        java.util.Arrays.fill(spread, sigma);
        run(evaluations, limit -> new CMAESOptimizer(10_000, 0, true, 0, 0, new Well19937c(seed), false,
                new SimpleValueChecker(1e-4, 1e-4)).optimize(limit, objective(), GoalType.MINIMIZE, bounds(),
                        new InitialGuess(inside(from, 0.01)), new CMAESOptimizer.Sigma(spread),
                        new CMAESOptimizer.PopulationSize(4 + (int) (3 * Math.log(design.size())))));
    }

    private interface Optimiser {
        Object optimize(MaxEval limit);
    }

    private void run(int evaluations, Optimiser optimiser) {
        try {
            optimiser.optimize(new MaxEval(evaluations));
        } catch (CancellationException | MathRuntimeException e) {
            // Out of evaluations, stopped, or a trust region that has shrunk to nothing: the best so far stands.
            return;
        }
    }

    private ObjectiveFunction objective() {
        MultivariateFunction function = this::cost;
        return new ObjectiveFunction(function);
    }

    private SimpleBounds bounds() {
        double[] high = new double[design.size()];
        java.util.Arrays.fill(high, 1);
        return new SimpleBounds(new double[design.size()], high);
    }

    private double[] inside(double[] from, double radius) {
        double[] inside = from.clone();
        for (int i = 0; i < inside.length; i++) {
            inside[i] = Math.clamp(inside[i], Math.min(0.49, radius * 1.01),
                    1 - Math.min(0.49, radius * 1.01));
        }
        return inside;
    }

    private double cost(double[] shares) {
        if (stopped.getAsBoolean()) {
            throw new CancellationException("search stopped");
        }
        tried++;
        each.run();
        Outcome outcome = Drive.of(plan, design.recipe(shares), start.copy(), stopped);
        double cost = cost(outcome);
        if (cost < bestCost) {
            bestCost = cost;
            best = shares.clone();
            found.accept(cost);
        }
        return cost;
    }

    private double cost(Outcome outcome) {
        double cost = PER_MINUTE * outcome.lengthS() / 60;
        for (Constraint constraint : Constraint.of(plan, outcome)) {
            double room = constraint.room() + corrections.of(constraint);
            double ease = constraint.kind() == Constraint.Kind.MELT && room >= 0
                    ? COMFORT
                    : room / constraint.scale();
            double lack = Math.max(0, COMFORT - ease);
            cost += lack * lack + (ease < 0 ? 10 * Math.min(10, -ease) : 0);
        }
        return cost;
    }

    double[] best() {
        return best;
    }

    double bestCost() {
        return bestCost;
    }

    int tried() {
        return tried;
    }
}
