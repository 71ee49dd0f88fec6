package org.greenbead.core.thermal;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.Function;
import java.util.function.ToDoubleFunction;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.bench.Calibration;
import org.greenbead.core.board.Assumed;
import org.greenbead.core.quantity.Check;

/**
 * What is known of a bench: multipliers and the standard deviations of their natural logarithms, 0 to 0.6.
 *
 * @param calibrated whether a run of this bench stands behind it
 */
public record Uncertainty(Multipliers mean, double jetLn, double preheaterLn, double boardHeatLn,
        double boardConductivityLn, boolean calibrated) {
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
    }

    /** Between two runs of one bench something always differs: a hand, a draught, how the board lies. Judgement. */
    private static final double BETWEEN_RUNS_LN = 0.06;
    /** A jet measured through one nozzle tells this much less of another. Judgement. */
    private static final double OTHER_NOZZLE_LN = 0.15;
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
     * board only from runs with that board. Each factor is the mean of its logarithms weighed by their precision, together with what
     * holds for any bench (normal prior, normal likelihoods: Gelman et al. 2013, Bayesian Data Analysis, 3rd ed., 2.5).
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
        List<Calibration> blown = counted.stream().filter(c -> c.nozzleMm() > 0).toList();
        List<Calibration> same = counted.stream().filter(c -> c.board().equals(board)).toList();
        double[] jet = joined(jetLn, blown, Calibration::jet,
                c -> foreign(c, nozzleMm, flowLpm));
        double[] preheater = joined(UNCALIBRATED.preheaterLn, counted, Calibration::preheater, c -> 0);
        double[] heat = joined(heatLn, same, Calibration::boardHeat, c -> 0);
        double[] along = joined(alongLn, same, Calibration::boardConductivity,
                c -> 0);
        return new Uncertainty(
                new Multipliers(Math.exp(jet[0]), Math.exp(preheater[0]), Math.exp(heat[0]),
                        Math.exp(along[0])),
                jet[1], preheater[1], heat[1], along[1], true);
    }

    private static double foreign(Calibration c, double nozzleMm, double flowLpm) {
        double nozzle = Math.abs(c.nozzleMm() - nozzleMm) <= SAME_NOZZLE_MM ? 0 : OTHER_NOZZLE_LN;
        double flow = flowLpm > 0 && c.flowLpm() > 0 ? 0.15 * Math.abs(Math.log(flowLpm / c.flowLpm())) : 0;
        return Math.hypot(nozzle, flow);
    }

    /** Mean and standard deviation of a logarithm. */
    private static double[] joined(double priorLn, List<Calibration> from,
            Function<Calibration, Calibration.Factor> factor, ToDoubleFunction<Calibration> extraLn) {
        double precision = 1 / (priorLn * priorLn);
        double sum = 0;
        for (Calibration c : from) {
            Calibration.Factor f = factor.apply(c);
            double variance = f.sdLn() * f.sdLn() + BETWEEN_RUNS_LN * BETWEEN_RUNS_LN
                    + Math.pow(extraLn.applyAsDouble(c), 2);
            precision += 1 / variance;
            sum += Math.log(f.value()) / variance;
        }
        return new double[]{sum / precision, Math.sqrt(1 / precision)};
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
        var all = new ArrayList<Multipliers>();
        for (int m = 0; m < count; m++) {
            all.add(new Multipliers(times(mean.jet(), jetLn * z[0][m]),
                    times(mean.preheater(), preheaterLn * z[1][m]),
                    times(mean.boardHeat(), boardHeatLn * z[2][m]),
                    times(mean.boardConductivity(), boardConductivityLn * z[3][m])));
        }
        return all;
    }

    private static double times(double mean, double ln) {
        return Math.clamp(mean * Math.exp(ln), 0.31, 2.9);
    }
}
