package org.greenbead.core.plan;

import java.util.concurrent.CancellationException;
import java.util.function.BooleanSupplier;
import java.util.function.Function;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.run.RunPlan;
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
 * One search: a school, a nozzle, an optimiser. Each candidate is driven through the search model; the optimisers follow
 * {@link Worth#cost()}, what is kept is the best by the order of {@link Worth}. Powell 2009, The BOBYQA algorithm for
 * bound constrained optimization without derivatives; Hansen and Ostermeier 2001, Completely derandomized self-adaptation.
 */
final class Search {
    private final RunPlan plan;
    private final Design design;
    private final SheetModel start;
    private final Function<RunPlan, SheetModel> elsewhere;
    private final Judge judge;
    private final BooleanSupplier stopped;
    private final Runnable each;
    private double[] best;
    private Worth bestWorth;
    private int tried;

    /** What the full model said differently of a limit, added to the search model's values. */
    interface Corrections {
        double of(Constraint constraint);
    }

    /** What an outcome is worth. */
    interface Judge {
        Worth of(Outcome outcome);
    }

    /**
     * @param start     cold, with heater and nozzle where the plan has them
     * @param elsewhere the same for a recipe that places them otherwise
     * @param each      told of each candidate before it is tried
     */
    Search(RunPlan plan, Design design, SheetModel start, Function<RunPlan, SheetModel> elsewhere,
            Judge judge, BooleanSupplier stopped, Runnable each) {
        this.plan = plan;
        this.design = design;
        this.start = start;
        this.elsewhere = elsewhere;
        this.judge = judge;
        this.stopped = stopped;
        this.each = each;
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
        return worth(shares).cost();
    }

    /** Tries one. @throws CancellationException when the search was stopped */
    Worth worth(double[] shares) {
        if (stopped.getAsBoolean()) {
            throw new CancellationException("search stopped");
        }
        tried++;
        each.run();
        Recipe recipe = design.recipe(shares);
        SheetModel model = recipe.placing().equals(plan.recipe().placing())
                ? start.copy()
                : elsewhere.apply(plan.with(recipe));
        Outcome outcome = Drive.of(plan, recipe, model, stopped);
        Worth worth = judge.of(outcome);
        if (bestWorth == null || worth.compareTo(bestWorth) < 0) {
            bestWorth = worth;
            best = shares.clone();
        }
        return worth;
    }

    /**
     * One number after another from the best so far, each way by a step that is halved when nothing helps any more. Follows the
     * order itself, not its single number, so it ends where that one misleads.
     */
    void polish(double step, int evaluations) {
        int end = tried + evaluations;
        double now = step;
        try {
            while (tried < end && now > 0.01) {
                Worth before = bestWorth;
                for (int i = 0; i < design.size() && tried < end; i++) {
                    along(i, now, end);
                }
                now = bestWorth == before ? now / 2 : now;
            }
        } catch (CancellationException e) {
            // Stopped: the best so far stands.
            return;
        }
    }

    private void along(int axis, double step, int end) {
        for (int way = -1; way <= 1 && tried < end; way += 2) {
            double[] next = best.clone();
            next[axis] = Math.clamp(next[axis] + way * step, 0, 1);
            Worth before = bestWorth;
            if (next[axis] != best[axis]) {
                worth(next);
            }
            if (bestWorth != before) {
                return;
            }
        }
    }

    double[] best() {
        return best;
    }

    /** Null when nothing was tried. */
    Worth bestWorth() {
        return bestWorth;
    }

    int tried() {
        return tried;
    }
}
