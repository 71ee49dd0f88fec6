package org.greenbead.core.calibrate;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.function.BooleanSupplier;
import java.util.function.Function;
import java.util.stream.IntStream;
import org.greenbead.core.bench.Calibration;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.LUDecomposition;
import org.hipparchus.linear.MatrixUtils;
import org.hipparchus.linear.RealMatrix;
import org.hipparchus.linear.RealVector;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LeastSquaresBuilder;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LeastSquaresOptimizer;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LevenbergMarquardtOptimizer;
import org.hipparchus.util.Pair;

/**
 * Maximum a posteriori of a few unknowns with normal priors of mean zero: least squares in which the priors are rows beside the data
 * (Levenberg 1944, Marquardt 1963), slopes by steps to one side. The curvature at the optimum gives the covariance.
 */
final class MapFit {
    private static final double SETTLED = 5e-3;
    private static final int MOST_LOOKS = 60;
    /** A factor is told when its deviation has fallen under this part of the prior's. */
    private static final double TOLD = 0.8;
    private static final double MOST_SD_LN = 0.6;

    /**
     * @param priorSd standard deviation before any data
     * @param step    by which it is moved for a slope
     * @param most    farthest from zero that is looked at
     */
    record Unknown(double priorSd, double step, double most) {}

    /** Where it is likeliest, and how well that is known; {@code cost} is the root of the sum of squares. */
    record Solved(double[] at, RealMatrix covariance, double cost) {
        double sd(int p) {
            return Math.sqrt(covariance.getEntry(p, p));
        }

        /** A factor whose logarithm is unknown {@code p}. */
        Calibration.Factor factor(int p, double priorLn) {
            return new Calibration.Factor(Math.exp(at[p]), Math.min(MOST_SD_LN, sd(p)),
                    sd(p) < TOLD * priorLn);
        }

        /** Of the first {@code count} unknowns, row by row above the diagonal; zero for all beyond {@code known}. */
        List<Double> correlations(int count, int known) {
            var all = new ArrayList<Double>();
            for (int p = 0; p < count; p++) {
                for (int q = p + 1; q < count; q++) {
                    all.add(q < known
                            ? Math.clamp(covariance.getEntry(p, q) / (sd(p) * sd(q)), -1, 1)
                            : 0);
                }
            }
            return all;
        }
    }

    private MapFit() {
    }

    /**
     * @param misses of a point, what was seen less what should be seen, each over its deviation; always as many
     * @throws CancellationException when cancelled
     */
    static Solved solve(List<Unknown> unknowns, double[] start, Function<double[], double[]> misses,
            BooleanSupplier cancelled) {
        int rows = misses.apply(start).length + unknowns.size();
        var problem = new LeastSquaresBuilder().start(start).target(new ArrayRealVector(rows))
                .model(point -> rowsAndSlopes(unknowns, point.toArray(), misses, cancelled))
                .parameterValidator(point -> {
                    double[] v = point.toArray();
                    for (int i = 0; i < v.length; i++) {
                        v[i] = Math.clamp(v[i], -unknowns.get(i).most(), unknowns.get(i).most());
                    }
                    return new ArrayRealVector(v);
                }).maxEvaluations(MOST_LOOKS).maxIterations(MOST_LOOKS)
                .checker((i, a, b) -> a.getPoint().subtract(b.getPoint()).getLInfNorm() < SETTLED).build();
        LeastSquaresOptimizer.Optimum best = new LevenbergMarquardtOptimizer().optimize(problem);
        RealMatrix j = best.getJacobian();
        return new Solved(best.getPoint().toArray(),
                new LUDecomposition(j.transpose().multiply(j)).getSolver().getInverse(), best.getCost());
    }

    private static Pair<RealVector, RealMatrix> rowsAndSlopes(List<Unknown> unknowns, double[] at,
            Function<double[], double[]> misses, BooleanSupplier cancelled) {
        List<double[]> all = IntStream.rangeClosed(0, at.length).parallel().mapToObj(p -> {
            double[] shifted = at.clone();
            if (p > 0) {
                shifted[p - 1] += unknowns.get(p - 1).step();
            }
            return withPriors(unknowns, shifted, misses.apply(shifted));
        }).toList();
        if (cancelled.getAsBoolean()) {
            throw new CancellationException("calibration was cancelled");
        }
        double[] here = all.getFirst();
        var slopes = new Array2DRowRealMatrix(here.length, at.length);
        for (int p = 0; p < at.length; p++) {
            for (int r = 0; r < here.length; r++) {
                slopes.setEntry(r, p, (all.get(p + 1)[r] - here[r]) / unknowns.get(p).step());
            }
        }
        return new Pair<>(MatrixUtils.createRealVector(here), slopes);
    }

    private static double[] withPriors(List<Unknown> unknowns, double[] at, double[] misses) {
        double[] rows = java.util.Arrays.copyOf(misses, misses.length + at.length);
        for (int p = 0; p < at.length; p++) {
            rows[misses.length + p] = at[p] / unknowns.get(p).priorSd();
        }
        return rows;
    }
}
