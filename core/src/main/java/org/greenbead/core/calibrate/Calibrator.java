package org.greenbead.core.calibrate;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.function.BooleanSupplier;
import java.util.function.DoubleConsumer;
import java.util.stream.IntStream;
import org.greenbead.core.bench.Calibration;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.Multipliers;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;
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
 * Fits jet, preheater, heat capacity and in-plane conductivity of the board to one logged run: least squares on the logarithms
 * with Gaussian priors (maximum a posteriori; Levenberg 1944, Marquardt 1963), readings weighed as if the model's own error of
 * two kelvin held on for ten seconds, so that five hundred samples do not count as five hundred facts.
 */
public final class Calibrator {
    /** Prior deviations of the logarithms: jet, preheater, heat capacity, conductivity. */
    static final double[] PRIOR_LN = {0.40, 0.40, 0.15, 0.40};
    private static final double MOST_LN = 1.2;
    private static final double NOISE_K = 0.5;
    private static final double MODEL_K = 2;
    private static final double CORRELATED_S = 10;
    private static final double STEP_LN = 0.04;
    /** A factor is told when its deviation has fallen under this part of the prior's. */
    private static final double TOLD = 0.8;
    /** A bare bead under tape follows its board with about this lag, s. */
    static final double BEAD_LAG_S = 1.5;
    private static final double SHORTEST_S = 180;
    private static final double LEAST_RISE_K = 40;
    private static final double LEAST_SHARE = 0.7;
    private static final double FROZEN_S = 30;
    private static final double STRUCTURAL_K = 3;

    private final Logged logged;
    private final List<Integer> used;
    private final List<Phrase> remarks = new ArrayList<>();
    private final BooleanSupplier cancelled;

    private Calibrator(Logged logged, BooleanSupplier cancelled) throws RefusedException {
        this.logged = logged;
        this.cancelled = cancelled;
        used = usable();
        check();
    }

    /**
     * @param progress told the part done
     * @throws RefusedException when the run carries too little, with the reason
     * @throws CancellationException when cancelled
     */
    public static Fit fit(Logged logged, DoubleConsumer progress, BooleanSupplier cancelled)
            throws RefusedException {
        return new Calibrator(logged, cancelled).fit(progress);
    }

    /** Probes that read most of the time, and did not stand still while others moved. */
    private List<Integer> usable() {
        List<ProbePlace> probes = logged.plan().bench().probes();
        var good = new ArrayList<Integer>();
        for (int p = 0; p < probes.size(); p++) {
            int index = p;
            long read = logged.moments().stream().filter(m -> !Double.isNaN(m.probesC()[index])).count();
            if (read < LEAST_SHARE * logged.moments().size()
                    || probes.get(p).role() != ProbePlace.Role.BOARD) {
                if (probes.get(p).role() == ProbePlace.Role.BOARD && read > 0) {
                    remarks.add(Phrase.of("fit.gaps", new Quantity.Name(probes.get(p).name())));
                }
                continue;
            }
            if (frozen(p)) {
                remarks.add(Phrase.of("fit.frozen", new Quantity.Name(probes.get(p).name())));
                continue;
            }
            good.add(p);
        }
        return good;
    }

    /** One value for half a minute while another probe moved by ten kelvin. */
    private boolean frozen(int probe) {
        List<Logged.Moment> moments = logged.moments();
        int from = 0;
        for (int i = 1; i < moments.size(); i++) {
            if (Double.isNaN(moments.get(i).probesC()[probe])) {
                continue;
            }
            if (Double.isNaN(moments.get(from).probesC()[probe]) || Math
                    .abs(moments.get(i).probesC()[probe] - moments.get(from).probesC()[probe]) > 1e-6) {
                from = i;
            }
            if (moments.get(i).timeS() - moments.get(from).timeS() >= FROZEN_S) {
                for (int other = 0; other < moments.get(i).probesC().length; other++) {
                    if (Math.abs(moments.get(i).probesC()[other] - moments.get(from).probesC()[other]) > 10) {
                        return true;
                    }
                }
            }
        }
        return false;
    }

    private void check() throws RefusedException {
        if (used.size() < 2) {
            throw new RefusedException(Phrase.of("fit.few_probes", new Quantity.Count(used.size())));
        }
        if (logged.lengthS() < SHORTEST_S) {
            throw new RefusedException(Phrase.of("fit.short", new Quantity.Seconds(logged.lengthS()),
                    new Quantity.Seconds(SHORTEST_S)));
        }
        double rise = 0;
        for (int p : used) {
            double least = Double.POSITIVE_INFINITY;
            double most = Double.NEGATIVE_INFINITY;
            for (Logged.Moment moment : logged.moments()) {
                double value = moment.probesC()[p];
                least = value < least ? value : least;
                most = value > most ? value : most;
            }
            rise = Math.max(rise, most - least);
        }
        if (rise < LEAST_RISE_K) {
            throw new RefusedException(
                    Phrase.of("fit.cold", new Quantity.RiseK(rise), new Quantity.RiseK(LEAST_RISE_K)));
        }
    }

    private Fit fit(DoubleConsumer progress) {
        int[] straight = used.stream().mapToInt(Integer::intValue).toArray();
        double[] start = new double[PRIOR_LN.length];
        double[][] before = simulate(start);
        LeastSquaresOptimizer.Optimum best = optimise(straight, progress);
        if (straight.length == 2) {
            int[] crossed = {straight[1], straight[0]};
            LeastSquaresOptimizer.Optimum other = optimise(crossed, d -> {
            });
            if (other.getCost() < 0.6 * best.getCost()) {
                remarks.add(Phrase.of("fit.swapped", new Quantity.Name(name(straight[0])),
                        new Quantity.Name(name(straight[1]))));
            }
        }
        progress.accept(1);
        double[] ln = best.getPoint().toArray();
        double[][] after = simulate(ln);
        double residual = 0;
        double[] afterK = new double[straight.length];
        double[] beforeK = new double[straight.length];
        for (int i = 0; i < straight.length; i++) {
            afterK[i] = rms(after, straight[i]);
            beforeK[i] = rms(before, straight[i]);
            residual = Math.max(residual, afterK[i]);
        }
        if (residual > STRUCTURAL_K) {
            remarks.add(Phrase.of("fit.structural", new Quantity.RiseK(residual)));
        }
        double[] sd = deviations(best);
        AirSetting air = logged.usualAir().orElse(null);
        var calibration = new Calibration(logged.run(), logged.plan().board().id(),
                air == null ? 0 : air.nozzleMm(),
                air == null ? 0 : air.flowLpm(), factor(ln, sd, 0), factor(ln, sd, 1), factor(ln, sd, 2),
                factor(ln, sd, 3), residual, true);
        double[][] measured = new double[straight.length][];
        double[][] modelled = new double[straight.length][];
        for (int i = 0; i < straight.length; i++) {
            int p = straight[i];
            measured[i] = logged.moments().stream().mapToDouble(m -> m.probesC()[p]).toArray();
            modelled[i] = after[p];
        }
        return new Fit(calibration, IntStream.of(straight).mapToObj(this::name).toList(), beforeK, afterK,
                logged.moments().stream().mapToDouble(Logged.Moment::timeS).toArray(), measured, modelled,
                remarks);
    }

    private static Calibration.Factor factor(double[] ln, double[] sd, int p) {
        return new Calibration.Factor(Math.exp(ln[p]), Math.min(0.6, sd[p]), sd[p] < TOLD * PRIOR_LN[p]);
    }

    private String name(int probe) {
        return logged.plan().bench().probes().get(probe).name();
    }

    /** From the curvature at the optimum; the priors are rows of the problem, so it is the posterior's. */
    private static double[] deviations(LeastSquaresOptimizer.Optimum best) {
        RealMatrix j = best.getJacobian();
        RealMatrix inverse = new LUDecomposition(j.transpose().multiply(j)).getSolver().getInverse();
        return IntStream.range(0, PRIOR_LN.length).mapToDouble(p -> Math.sqrt(inverse.getEntry(p, p)))
                .toArray();
    }

    /** @param reads for each model probe in use the channel that is held against it */
    private LeastSquaresOptimizer.Optimum optimise(int[] reads, DoubleConsumer progress) {
        int n = logged.moments().size();
        int rows = used.size() * n + PRIOR_LN.length;
        double[] zero = new double[PRIOR_LN.length];
        int[] calls = {0};
        var problem = new LeastSquaresBuilder().start(zero).target(new ArrayRealVector(rows))
                .model(point -> {
                    progress.accept(Math.min(0.9, 0.12 * calls[0]++));
                    return residualsAndSlopes(point, reads, rows);
                }).parameterValidator(p -> p.map(v -> Math.clamp(v, -MOST_LN, MOST_LN)))
                .maxEvaluations(60).maxIterations(60)
                .checker((i, a, b) -> a.getPoint().subtract(b.getPoint()).getLInfNorm() < 5e-3).build();
        return new LevenbergMarquardtOptimizer().optimize(problem);
    }

    private Pair<RealVector, RealMatrix> residualsAndSlopes(RealVector point, int[] reads, int rows) {
        double[] at = point.toArray();
        List<double[]> residuals = IntStream.rangeClosed(0, PRIOR_LN.length).parallel().mapToObj(p -> {
            double[] shifted = at.clone();
            if (p > 0) {
                shifted[p - 1] += STEP_LN;
            }
            return residuals(simulate(shifted), shifted, reads, rows);
        }).toList();
        if (cancelled.getAsBoolean()) {
            throw new CancellationException("calibration was cancelled");
        }
        var slopes = new Array2DRowRealMatrix(rows, PRIOR_LN.length);
        for (int p = 0; p < PRIOR_LN.length; p++) {
            for (int r = 0; r < rows; r++) {
                slopes.setEntry(r, p, (residuals.get(p + 1)[r] - residuals.getFirst()[r]) / STEP_LN);
            }
        }
        return new Pair<>(MatrixUtils.createRealVector(residuals.getFirst()), slopes);
    }

    private double[] residuals(double[][] modelled, double[] ln, int[] reads, int rows) {
        double sigma = readingSdK(1);
        double[] r = new double[rows];
        int at = 0;
        for (int i = 0; i < reads.length; i++) {
            for (int m = 0; m < logged.moments().size(); m++) {
                double read = logged.moments().get(m).probesC()[reads[i]];
                r[at++] = Double.isNaN(read) ? 0 : (modelled[used.get(i)][m] - read) / sigma;
            }
        }
        for (int p = 0; p < ln.length; p++) {
            r[at++] = ln[p] / PRIOR_LN[p];
        }
        return r;
    }

    /** Of one reading of a thermocouple when they come this far apart, s: the model's own error holds on for a while. */
    static double readingSdK(double apartS) {
        return Math.sqrt(NOISE_K * NOISE_K + CORRELATED_S / apartS * MODEL_K * MODEL_K);
    }

    private double rms(double[][] modelled, int probe) {
        double squares = 0;
        int count = 0;
        for (int m = 0; m < logged.moments().size(); m++) {
            double read = logged.moments().get(m).probesC()[probe];
            if (!Double.isNaN(read)) {
                squares += Math.pow(modelled[probe][m] - read, 2);
                count++;
            }
        }
        return Math.sqrt(squares / Math.max(1, count));
    }

    /** What every probe of the bench would show at every moment, as its lagging bead shows it. */
    private double[][] simulate(double[] ln) {
        List<ProbePlace> probes = logged.plan().bench().probes();
        var model = new SheetModel(logged.plan().scene(), new Multipliers(times(ln[0]), times(ln[1]),
                Math.clamp(times(ln[2]), 0.31, 2.9), times(ln[3])), Resolution.SEARCH);
        double[][] shown = new double[probes.size()][logged.moments().size()];
        double[] bead = new double[probes.size()];
        java.util.Arrays.fill(bead, logged.plan().bench().ambientC());
        double time = 0;
        for (int m = 0; m < logged.moments().size(); m++) {
            Logged.Moment moment = logged.moments().get(m);
            double step = moment.timeS() - time;
            double left = step;
            HeatInput input = moment.input();
            while (left > 1e-9) {
                double part = Math.min(8, left);
                model.advance(input, part);
                left -= part;
            }
            time = moment.timeS();
            double follow = 1 - Math.exp(-step / BEAD_LAG_S);
            for (int p = 0; p < probes.size(); p++) {
                bead[p] += (model.probeC(probes.get(p)) - bead[p]) * follow;
                shown[p][m] = bead[p];
            }
        }
        return shown;
    }

    private static double times(double ln) {
        return Math.clamp(Math.exp(ln), 0.21, 3.9);
    }
}
