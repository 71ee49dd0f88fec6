package org.greenbead.core.thermal;

import java.util.stream.IntStream;
import org.greenbead.core.bench.Calibration;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.LUDecomposition;
import org.hipparchus.linear.MatrixUtils;
import org.hipparchus.linear.RealMatrix;
import org.hipparchus.linear.RealVector;

/**
 * The logarithms of jet, heater, heat and conductivity as one normal distribution, to which runs are added. Each run is a posterior of a fit
 * that began from {@link Calibration#FIT_PRIOR_LN}; what the run itself said is that less the prior, in information form (Gelman et al. 2013,
 * Bayesian Data Analysis, 3rd ed., 3.5), blurred by what differs from run to run. So what a run did not tell adds nothing, and what it told of
 * several factors together stays together.
 */
final class Joined {
    private static final int FACTORS = 4;
    private RealMatrix information;
    private RealVector pull = new ArrayRealVector(FACTORS);

    /** @param priorLn standard deviations of the logarithms, their means being zero */
    Joined(double[] priorLn) {
        information = MatrixUtils.createRealDiagonalMatrix(IntStream.range(0, FACTORS)
                .mapToDouble(p -> 1 / (priorLn[p] * priorLn[p])).toArray());
    }

    /**
     * Takes up a run.
     *
     * @param told    how many of the factors hold here too, from the first
     * @param blurLn  standard deviations by which each factor may differ from that run to this heating
     */
    void add(Calibration run, int told, double[] blurLn) {
        var covariance = new Array2DRowRealMatrix(told, told);
        var mean = new ArrayRealVector(told);
        var blur = new Array2DRowRealMatrix(told, told);
        for (int p = 0; p < told; p++) {
            mean.setEntry(p, Math.log(run.factors().get(p).value()));
            blur.setEntry(p, p, blurLn[p] * blurLn[p]);
            for (int q = 0; q < told; q++) {
                covariance.setEntry(p, q, run.correlation(p, q) * sd(run, p) * sd(run, q));
            }
        }
        RealMatrix posterior = inverse(covariance);
        RealMatrix said = posterior.copy();
        for (int p = 0; p < told; p++) {
            double prior = Calibration.FIT_PRIOR_LN.get(p);
            said.addToEntry(p, p, -1 / (prior * prior));
        }
        said = atLeastNothing(said);
        // (inverse(said) + blur) inverted, also where the run said nothing of a factor.
        RealMatrix blurred = inverse(
                MatrixUtils.createRealIdentityMatrix(told).add(said.multiply(blur)));
        RealMatrix more = blurred.multiply(said);
        RealVector morePull = blurred.operate(posterior.operate(mean));
        for (int p = 0; p < told; p++) {
            pull.addToEntry(p, morePull.getEntry(p));
            for (int q = 0; q < told; q++) {
                information.addToEntry(p, q, (more.getEntry(p, q) + more.getEntry(q, p)) / 2);
            }
        }
    }

    /** A deviation of nothing would be a certainty that no run has. */
    private static double sd(Calibration run, int p) {
        return Math.max(1e-3, run.factors().get(p).sdLn());
    }

    /** A file's rounding may leave less than nothing of a direction that the run did not tell. */
    private static RealMatrix atLeastNothing(RealMatrix information) {
        var parts = new org.hipparchus.linear.EigenDecompositionSymmetric(
                information.add(information.transpose()).scalarMultiply(0.5));
        double[] values = parts.getEigenvalues();
        RealMatrix v = parts.getV();
        return v.multiply(MatrixUtils.createRealDiagonalMatrix(
                IntStream.range(0, values.length).mapToDouble(i -> Math.max(0, values[i])).toArray()))
                .multiply(v.transpose());
    }

    private static RealMatrix inverse(RealMatrix matrix) {
        return new LUDecomposition(matrix).getSolver().getInverse();
    }

    double[] meanLn() {
        return inverse(information).operate(pull).toArray();
    }

    RealMatrix covariance() {
        return inverse(information);
    }
}
