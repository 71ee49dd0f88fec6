package org.greenbead.core.thermal;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.bench.Calibration;
import org.greenbead.core.board.Assumed;
import org.greenbead.core.quantity.Check;
import org.hipparchus.linear.CholeskyDecomposition;
import org.hipparchus.linear.MatrixUtils;
import org.hipparchus.linear.RealMatrix;

/**
 * What is known of a bench: multipliers and the standard deviations of their natural logarithms, 0 to 0.6.
 *
 * @param calibrated whether a run of this bench stands behind it
 * @param correlations of the logarithms, in the order of {@link Calibration#correlations()}; empty for none. What was learned from what is seen at
 *     the chip alone leaves every factor wide and what they do together narrow
 */
public record Uncertainty(Multipliers mean, double jetLn, double preheaterLn, double boardHeatLn,
        double boardConductivityLn, boolean calibrated, List<Double> correlations) {
    /** A bench nobody has measured: hot-air correlations are worth 30 %, heaters as much, laminate 15 %. */
    public static final Uncertainty UNCALIBRATED = new Uncertainty(Multipliers.NOMINAL, 0.30, 0.30, 0.15,
            0.30,
            false);

    public Uncertainty {
        Check.present("multipliers", mean);
        Check.within("spread of the jet", jetLn, 0, 0.6, "");
        Check.within("spread of the preheater", preheaterLn, 0, 0.6, "");
        Check.within("spread of the board's heat", boardHeatLn, 0, 0.6, "");
        Check.within("spread of the board's conductivity", boardConductivityLn, 0, 0.6, "");
        correlations = List.copyOf(correlations);
    }

    /** Factors that have nothing to do with one another. */
    public Uncertainty(Multipliers mean, double jetLn, double preheaterLn, double boardHeatLn,
            double boardConductivityLn, boolean calibrated) {
        this(mean, jetLn, preheaterLn, boardHeatLn, boardConductivityLn, calibrated, List.of());
    }

    /** Between two runs of one bench something always differs: a hand, a draught, how the board lies. Judgement. */
    private static final double BETWEEN_RUNS_LN = 0.06;
    /** A jet measured through one nozzle tells this much less of another. Judgement. */
    private static final double OTHER_NOZZLE_LN = 0.15;
    /**
     * What another air station told: its flow stands on another dial, nominal to 30 %, of which the jet follows the power 0.6, and fan, hose and
     * grip are its own. Judgement; it stays under the spread of a bench that nobody measured, so that the model's share still carries over.
     */
    private static final double OTHER_STATION_LN = 0.25;
    private static final double SAME_NOZZLE_MM = 0.6;
    private static final double MOST_LN = 0.6;
    /** Laminates are sold from 0.8 to 1.6 mm; a guess among them is wrong by this much in mass. ln(1.6/0.8)/2.8, a uniform choice. */
    private static final double THICKNESS_LN = 0.25;
    /** Two to twelve layers, a third to two thirds of each copper. Judgement. */
    private static final double COPPER_LN = 0.40;
    /** A body of another build answers the same air by so much more or less. Judgement. */
    private static final double PACKAGE_LN = 0.10;

    /**
     * What the counted calibrations of a bench say of a heating: the air by nozzle and flow, the heater whatever was blown, the
     * board only from runs with that board; what was told of several together stays together ({@link Joined}).
     */
    public static Uncertainty of(Bench bench, String board, double nozzleMm, double flowLpm) {
        return of(bench, board, nozzleMm, flowLpm, List.of());
    }

    /**
     * The same for a board of which some things were assumed; runs with this board make up for it, for they have felt its true build.
     *
     * @param assumed names of {@link Assumed} of the board and of the chip that is worked
     */
    public static Uncertainty of(Bench bench, String board, double nozzleMm, double flowLpm,
            List<String> assumed) {
        boolean thickness = assumed.contains(Assumed.THICKNESS);
        boolean copper = assumed.contains(Assumed.COPPER);
        boolean body = assumed.stream().anyMatch(a -> Assumed.what(a).equals("package"));
        double heatLn = UNCALIBRATED.boardHeatLn;
        double alongLn = UNCALIBRATED.boardConductivityLn;
        heatLn = Math.min(MOST_LN, Math.hypot(heatLn, thickness ? THICKNESS_LN : 0));
        alongLn = Math.min(MOST_LN, Math.hypot(alongLn, copper ? COPPER_LN : 0));
        List<Calibration> counted = bench.calibrations().stream().filter(Calibration::counted).toList();
        double jetLn = Math.min(MOST_LN, Math.hypot(body ? PACKAGE_LN : 0,
                Math.hypot(UNCALIBRATED.jetLn, bench.air().dial().jetLn())));
        if (counted.isEmpty()) {
            return new Uncertainty(UNCALIBRATED.mean, jetLn, UNCALIBRATED.preheaterLn,
                    heatLn, alongLn, false);
        }
        var joined = new Joined(new double[]{jetLn, UNCALIBRATED.preheaterLn, heatLn, alongLn});
        for (Calibration c : counted) {
            boolean same = c.board().equals(board);
            joined.add(c, same ? 4 : 2, new double[]{
                    Math.hypot(BETWEEN_RUNS_LN, Math.hypot(foreign(c, nozzleMm, flowLpm),
                            bench.blewHere(c) ? 0 : OTHER_STATION_LN)),
                    BETWEEN_RUNS_LN,
                    BETWEEN_RUNS_LN, BETWEEN_RUNS_LN});
        }
        double[] ln = joined.meanLn();
        RealMatrix covariance = joined.covariance();
        double[] sd = new double[4];
        for (int p = 0; p < sd.length; p++) {
            sd[p] = Math.sqrt(covariance.getEntry(p, p));
        }
        var correlations = new ArrayList<Double>();
        for (int p = 0; p < sd.length; p++) {
            for (int q = p + 1; q < sd.length; q++) {
                correlations.add(Math.clamp(covariance.getEntry(p, q) / (sd[p] * sd[q]), -1, 1));
            }
        }
        return new Uncertainty(
                new Multipliers(times(1, ln[0]), times(1, ln[1]), times(1, ln[2]), times(1, ln[3])),
                Math.min(MOST_LN, sd[0]), Math.min(MOST_LN, sd[1]), Math.min(MOST_LN, sd[2]),
                Math.min(MOST_LN, sd[3]), true, correlations);
    }

    private static double foreign(Calibration c, double nozzleMm, double flowLpm) {
        double nozzle = Math.abs(c.nozzleMm() - nozzleMm) <= SAME_NOZZLE_MM ? 0 : OTHER_NOZZLE_LN;
        double flow = flowLpm > 0 && c.flowLpm() > 0 ? 0.15 * Math.abs(Math.log(flowLpm / c.flowLpm())) : 0;
        return Math.hypot(nozzle, flow);
    }

    /**
     * Benches that this one may be, spread as {@link LatinHypercube} says.
     */
    public List<Multipliers> draw(int count, long seed) {
        var random = new Random(seed);
        double[][] z = new double[4][];
        for (int p = 0; p < z.length; p++) {
            z[p] = LatinHypercube.normal(count, random);
        }
        double[][] root = root();
        var all = new ArrayList<Multipliers>();
        for (int m = 0; m < count; m++) {
            double[] u = new double[4];
            for (int p = 0; p < u.length; p++) {
                for (int q = 0; q <= p; q++) {
                    u[p] += root[p][q] * z[q][m];
                }
            }
            all.add(new Multipliers(times(mean.jet(), jetLn * u[0]),
                    times(mean.preheater(), preheaterLn * u[1]),
                    times(mean.boardHeat(), boardHeatLn * u[2]),
                    times(mean.boardConductivity(), boardConductivityLn * u[3])));
        }
        return all;
    }

    /** Lower root of the correlation matrix (Cholesky); the unit matrix where nothing is correlated. */
    private double[][] root() {
        var matrix = MatrixUtils.createRealIdentityMatrix(4);
        if (correlations.isEmpty()) {
            return matrix.getData();
        }
        int at = 0;
        for (int p = 0; p < 4; p++) {
            for (int q = p + 1; q < 4; q++, at++) {
                matrix.setEntry(p, q, correlations.get(at));
                matrix.setEntry(q, p, correlations.get(at));
            }
        }
        return new CholeskyDecomposition(matrix, 1e-9, 1e-12).getL().getData();
    }

    private static double times(double mean, double ln) {
        return Math.clamp(mean * Math.exp(ln), 0.31, 2.9);
    }
}
