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

/**
 * Fits jet, preheater, heat capacity and in-plane conductivity of the board to one logged run: least squares on the logarithms
 * with Gaussian priors (maximum a posteriori; Levenberg 1944, Marquardt 1963), readings weighed as if the model's own error of
 * two kelvin held on for ten seconds, so that five hundred samples do not count as five hundred facts.
 */
public final class Calibrator {
    /** How far from nominal a factor's logarithm is looked for. */
    static final double MOST_LN = 1.2;
    /** Jet, heater, heat of the board, conductivity. */
    static final int FACTORS = Calibration.FIT_PRIOR_LN.size();
    private static final double NOISE_K = 0.5;
    private static final double MODEL_K = 2;
    private static final double CORRELATED_S = 10;
    static final double STEP_LN = 0.04;
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
        double[] start = new double[FACTORS];
        double[][] before = simulate(start);
        MapFit.Solved best = optimise(straight, progress);
        if (straight.length == 2) {
            int[] crossed = {straight[1], straight[0]};
            MapFit.Solved other = optimise(crossed, d -> {
            });
            if (other.cost() < 0.6 * best.cost()) {
                remarks.add(Phrase.of("fit.swapped", new Quantity.Name(name(straight[0])),
                        new Quantity.Name(name(straight[1]))));
            }
        }
        progress.accept(1);
        double[] ln = best.at();
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
        AirSetting air = logged.usualAir().orElse(null);
        var calibration = new Calibration(logged.run(), logged.plan().board().id(),
                air == null ? 0 : air.nozzleMm(),
                air == null ? 0 : air.flowLpm(), factor(best, 0), factor(best, 1), factor(best, 2),
                factor(best, 3), residual, true, best.correlations(FACTORS, FACTORS),
                air == null ? "" : logged.plan().bench().air().name());
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

    private static Calibration.Factor factor(MapFit.Solved best, int p) {
        return best.factor(p, priorLn(p));
    }

    /** Standard deviation of the logarithm of a factor before any run. */
    static double priorLn(int factor) {
        return Calibration.FIT_PRIOR_LN.get(factor);
    }

    /** The four factors as unknowns of a fit. */
    static List<MapFit.Unknown> unknowns() {
        return IntStream.range(0, FACTORS).mapToObj(p -> new MapFit.Unknown(priorLn(p), STEP_LN, MOST_LN))
                .toList();
    }

    private String name(int probe) {
        return logged.plan().bench().probes().get(probe).name();
    }

    /** @param reads for each model probe in use the channel that is held against it */
    private MapFit.Solved optimise(int[] reads, DoubleConsumer progress) {
        var calls = new java.util.concurrent.atomic.AtomicInteger();
        return MapFit.solve(unknowns(), new double[FACTORS], at -> {
            progress.accept(Math.min(0.9, 0.12 * calls.getAndIncrement() / (FACTORS + 1)));
            return misses(simulate(at), reads);
        }, cancelled);
    }

    private double[] misses(double[][] modelled, int[] reads) {
        double sigma = readingSdK(1);
        double[] r = new double[used.size() * logged.moments().size()];
        int at = 0;
        for (int i = 0; i < reads.length; i++) {
            for (int m = 0; m < logged.moments().size(); m++) {
                double read = logged.moments().get(m).probesC()[reads[i]];
                r[at++] = Double.isNaN(read) ? 0 : (modelled[used.get(i)][m] - read) / sigma;
            }
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
        var model = new SheetModel(logged.plan().scene(), multipliers(ln), Resolution.SEARCH);
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

    /** The multipliers of four logarithms, kept within what the model takes. */
    static Multipliers multipliers(double[] ln) {
        return new Multipliers(times(ln[0]), times(ln[1]), Math.clamp(times(ln[2]), 0.31, 2.9), times(ln[3]));
    }

    private static double times(double ln) {
        return Math.clamp(Math.exp(ln), 0.21, 3.9);
    }
}
