package org.greenbead.core.calibrate;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import java.util.stream.IntStream;
import org.greenbead.core.bench.Calibration;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.HeatModel;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.RealMatrix;

/**
 * Learns a bench from dots of solder that were seen to melt. Temperatures are compared, not times: what the model has at a dot when it was pressed,
 * less the delay of eye and hand, against the dot's melting point. Maximum a posteriori over the logarithms of jet, heater, heat capacity and
 * conductivity, and one offset for everything this one board does otherwise; each residual is weighed by where the dot really is, how fast it was
 * rising and how well its alloy is known, and loses weight beyond what is likely (iteratively reweighted least squares, Holland and Welsch 1977, with weights that fall by the square). A dot
 * that stayed silent counts when the model has it melt.
 */
public final class WitnessFit {
    /** From melting to the press, s, and the dot's own lag behind the board. */
    private static final double DELAY_S = 1.25;
    private static final double DOT_LAG_S = 0.4;
    /** Of a dot's melting point, K; of its place, mm; of the hand, s. */
    private static final double DOT_K = 1.5;
    private static final double PLACE_MM = 1.2;
    private static final double HAND_S = 0.87;
    /** What one board does otherwise all over, K: it does not average out over its dots. */
    static final double BOARD_K = 2.5;
    private static final double LIKELY_SD = 1.5;
    /** Weights that change by less change nothing. */
    private static final double SETTLED = 0.1;
    private static final int LEAST_DOTS = 3;
    /** A foil on a body touches it here and there, K. */
    private static final double BODY_K = 3;
    /** Readings farther off than this count by their root (Huber): a probe that came off must not lead, K. */
    private static final double FAR_K = 8;
    /** One reading a moment and probe is enough. */
    private static final double READS_APART_S = 1;
    private static final double MOMENT_S = 1;
    /** On a board of another kind its own heat and copper say nothing of the board that is worked. */
    private static final int CARRIED = 2;
    private static final double FOREIGN_LN = 0.25;
    /** For the slope over what the board does otherwise, K, and the farthest that is looked at. */
    private static final double OFFSET_STEP_K = 0.2;
    private static final double MOST_OFFSET_K = 100;

    private final RunPlan plan;
    private final Witness seen;
    private final BooleanSupplier cancelled;
    private final Map<String, Double> pressS = new HashMap<>();
    private final List<Witness.Read> reads;
    private final double readSdK;
    private double[] weight;

    private WitnessFit(RunPlan plan, Witness seen, BooleanSupplier cancelled) {
        this.plan = plan;
        this.seen = seen;
        this.cancelled = cancelled;
        seen.presses().forEach(p -> pressS.put(p.dot(), p.timeS()));
        reads = thinned();
        readSdK = Calibrator.readingSdK(READS_APART_S);
        weight = new double[seen.dots().size()];
        java.util.Arrays.fill(weight, 1);
    }

    /** Readings of sound probes in order of time, one a second of each. */
    private List<Witness.Read> thinned() {
        var lastS = new HashMap<String, Double>();
        return seen.readings().stream().filter(r -> r.timeS() <= seen.endS())
                .filter(r -> plan.bench().probes().get(probeOf(r)).role() == ProbePlace.Role.BOARD)
                .sorted(java.util.Comparator.comparingDouble(Witness.Read::timeS))
                .filter(r -> {
                    boolean taken = r.timeS() - lastS.getOrDefault(r.probe(), -READS_APART_S) >= READS_APART_S
                            - 1e-6;
                    if (taken) {
                        lastS.put(r.probe(), r.timeS());
                    }
                    return taken;
                }).toList();
    }

    /**
     * What was learned.
     *
     * @param calibration the factors with their deviations
     * @param beforeK     rms of model against melting point before the fit
     * @param afterK      after it
     * @param offsetK     what this board does otherwise all over
     * @param outliers    dots that hardly count: named wrongly, or with another alloy
     */
    public record Learned(Calibration calibration, double beforeK, double afterK, double offsetK,
            List<String> outliers) {
        public Learned {
            outliers = List.copyOf(outliers);
        }
    }

    /**
     * @param plan of the board that the dots were on, chip in place, on the bench that is learned
     * @throws RefusedException when fewer than three dots melted
     */
    public static Learned fit(RunPlan plan, Witness seen, BooleanSupplier cancelled) throws RefusedException {
        long probes = seen.readings().stream().map(Witness.Read::probe).distinct().count();
        if (seen.presses().size() + 2 * probes < LEAST_DOTS) {
            throw new RefusedException(Phrase.of("fit.few_dots", new Quantity.Count(seen.presses().size())));
        }
        for (Witness.Dot dot : seen.dots()) {
            Point at = dot.atMm();
            for (Chip chip : plan.board().chips()) {
                if (!chip.name().equals(plan.target().name()) && chip.side() == dot.side()
                        && inside(chip, at, 0)) {
                    throw new RefusedException(Phrase.of("fit.dot_on_chip", new Quantity.Name(dot.name()),
                            new Quantity.Name(chip.name())));
                }
            }
            if (at.xMm() < 0 || at.yMm() < 0 || at.xMm() > plan.board().sizeMm().xMm()
                    || at.yMm() > plan.board().sizeMm().yMm()) {
                throw new RefusedException(
                        Phrase.of("fit.dot_off_board", new Quantity.Name(dot.name())));
            }
        }
        return new WitnessFit(plan, seen, cancelled).fit();
    }

    private Learned fit() {
        int offset = Calibrator.FACTORS;
        double[] zero = new double[offset + 1];
        double before = rms(look(zero), 0);
        double[] point = zero;
        MapFit.Solved best = null;
        for (int round = 0; round < 4; round++) {
            best = MapFit.solve(unknowns(), point, this::misses, cancelled);
            point = best.at();
            double[] was = weight.clone();
            reweigh(look(point), point[offset]);
            double changed = 0;
            for (int i = 0; i < was.length; i++) {
                changed = Math.max(changed, Math.abs(was[i] - weight[i]));
            }
            if (changed < SETTLED) {
                break;
            }
        }
        double[] residuals = look(point);
        double after = rms(residuals, point[offset]);
        var outliers = new ArrayList<String>();
        for (int i = 0; i < weight.length; i++) {
            if (weight[i] < 0.5 && pressS.containsKey(seen.dots().get(i).name())) {
                outliers.add(seen.dots().get(i).name());
            }
        }
        Optional<AirSetting> air = seen.steps().stream().flatMap(s -> s.air().stream())
                .reduce((a, b) -> b);
        MapFit.Solved found = best;
        int known = seen.foreign() ? CARRIED : Calibrator.FACTORS;
        var factors = IntStream.range(0, Calibrator.FACTORS)
                .mapToObj(p -> p >= known
                        ? new Calibration.Factor(1, Calibrator.priorLn(p), false)
                        : found.factor(p, Calibrator.priorLn(p)))
                .toList();
        var calibration = new Calibration(seen.id(), plan.board().id(),
                air.map(AirSetting::nozzleMm).orElse(0.0), air.map(AirSetting::flowLpm).orElse(0.0),
                factors.get(0), factors.get(1), factors.get(2), factors.get(3), Math.min(100, after), true,
                found.correlations(Calibrator.FACTORS, known),
                air.map(a -> plan.bench().air().name()).orElse(""));
        return new Learned(calibration, before, after, point[offset], outliers);
    }

    /** What one board does otherwise all over, as an unknown of a fit. */
    static MapFit.Unknown offset() {
        return new MapFit.Unknown(BOARD_K, OFFSET_STEP_K, MOST_OFFSET_K);
    }

    private List<MapFit.Unknown> unknowns() {
        var all = new ArrayList<MapFit.Unknown>();
        for (int p = 0; p < Calibrator.FACTORS; p++) {
            double prior = seen.foreign() && p >= CARRIED ? FOREIGN_LN : Calibrator.priorLn(p);
            all.add(new MapFit.Unknown(prior, Calibrator.STEP_LN, Calibrator.MOST_LN));
        }
        all.add(offset());
        return all;
    }

    /** Of dots, then of readings, each over its deviation. */
    private double[] misses(double[] at) {
        Looked looked = simulate(at);
        double offset = at[at.length - 1];
        int n = seen.dots().size();
        double[] r = new double[n + reads.size()];
        for (int i = 0; i < n; i++) {
            r[i] = Math.sqrt(weight[i]) * residualK(looked, i, offset) / looked.sdK()[i];
        }
        for (int i = 0; i < reads.size(); i++) {
            double off = looked.shownC()[i] + offset - reads.get(i).celsius();
            r[n + i] = off / readSdK / Math.sqrt(Math.max(1, Math.abs(off) / FAR_K));
        }
        return r;
    }

    /** A dot that melted has its melting point; a silent one only must not be over it. */
    private double residualK(Looked looked, int dot, double offsetK) {
        double over = looked.modelC()[dot] + offsetK - seen.dots().get(dot).meltsC();
        return pressS.containsKey(seen.dots().get(dot).name()) ? over : Math.max(0, over);
    }

    private double[] look(double[] at) {
        Looked looked = simulate(at);
        return IntStream.range(0, seen.dots().size())
                .mapToDouble(i -> residualK(looked, i, 0)).toArray();
    }

    private double rms(double[] residualsK, double offsetK) {
        double squares = 0;
        int count = 0;
        for (int i = 0; i < residualsK.length; i++) {
            if (pressS.containsKey(seen.dots().get(i).name())) {
                squares += (residualsK[i] + offsetK) * (residualsK[i] + offsetK) * Math.min(1, weight[i]);
                count++;
            }
        }
        return Math.sqrt(squares / Math.max(1, count));
    }

    private void reweigh(double[] residualsK, double offsetK) {
        for (int i = 0; i < weight.length; i++) {
            double z = Math.abs(residualsK[i] + offsetK) / (2 * DOT_K);
            weight[i] = z <= LIKELY_SD ? 1 : Math.pow(LIKELY_SD / z, 2);
        }
    }

    /**
     * What the model has at each dot when it was pressed, or at most where it was not, and how sure that comparison is; and what
     * each thermocouple would have shown at each of its readings.
     */
    private record Looked(double[] modelC, double[] sdK, double[] shownC) {}

    private Looked simulate(double[] at) {
        int n = seen.dots().size();
        double[] model = new double[n];
        double[] sd = new double[n];
        java.util.Arrays.fill(model, Double.NEGATIVE_INFINITY);
        java.util.Arrays.fill(sd, DOT_K);
        double[] last = new double[n];
        java.util.Arrays.fill(last, plan.bench().ambientC());
        var bench = new SheetModel(plan.scene(), Calibrator.multipliers(at), Resolution.SEARCH);
        int step = -1;
        double[] shown = new double[reads.size()];
        double[] bead = new double[plan.bench().probes().size()];
        java.util.Arrays.fill(bead, plan.bench().ambientC());
        double follow = 1 - Math.exp(-MOMENT_S / Calibrator.BEAD_LAG_S);
        int next = 0;
        for (double t = 0; t < seen.endS(); t += MOMENT_S) {
            while (step + 1 < seen.steps().size() && seen.steps().get(step + 1).fromS() <= t + 1e-9) {
                step++;
            }
            HeatInput input = step < 0
                    ? HeatInput.OFF
                    : HeatInput.of(seen.steps().get(step).heaterC(), seen.steps().get(step).air());
            bench.advance(input, MOMENT_S);
            double now = t + MOMENT_S;
            for (int p = 0; p < bead.length; p++) {
                bead[p] += (bench.probeC(plan.bench().probes().get(p)) - bead[p]) * follow;
            }
            for (; next < shown.length && reads.get(next).timeS() <= now; next++) {
                shown[next] = bead[probeOf(reads.get(next))];
            }
            for (int i = 0; i < n; i++) {
                Witness.Dot dot = seen.dots().get(i);
                double celsius = celsius(plan, bench, dot);
                Double pressed = pressS.get(dot.name());
                if (pressed == null) {
                    model[i] = Math.max(model[i], celsius);
                } else {
                    double when = Math.max(MOMENT_S, pressed - DELAY_S - DOT_LAG_S);
                    if (when > now - MOMENT_S - 1e-9 && when <= now + 1e-9) {
                        double share = (when - (now - MOMENT_S)) / MOMENT_S;
                        model[i] = last[i] + share * (celsius - last[i]);
                        sd[i] = comparisonSdK((celsius - last[i]) / MOMENT_S, onBody(plan, dot),
                                steepness(bench, dot));
                    }
                }
                last[i] = celsius;
            }
        }
        for (int i = 0; i < n; i++) {
            model[i] = model[i] == Double.NEGATIVE_INFINITY ? last[i] : model[i];
        }
        return new Looked(model, sd, shown);
    }

    /** What a model has where a dot lies, °C. */
    static double celsius(RunPlan plan, HeatModel bench, Witness.Dot dot) {
        return onBody(plan, dot) ? bench.packageTopC() : bench.boardC(dot.side(), dot.atMm());
    }

    /** How sure a dot's melting compares with a model, K: its alloy, the hand at this rate, its place on this slope. */
    static double comparisonSdK(double rateKPerS, boolean body, double steepKPerMm) {
        double place = body ? BODY_K : PLACE_MM * steepKPerMm;
        return Math.sqrt(DOT_K * DOT_K + Math.pow(HAND_S * rateKPerS, 2) + place * place);
    }

    /** What is held before any dot: of the four factors, and of what one board does otherwise. */
    static RealMatrix priorPrecision() {
        int n = Calibrator.FACTORS;
        var precision = new Array2DRowRealMatrix(n + 1, n + 1);
        for (int p = 0; p < n; p++) {
            precision.setEntry(p, p, Math.pow(Calibrator.priorLn(p), -2));
        }
        precision.setEntry(n, n, 1 / (BOARD_K * BOARD_K));
        return precision;
    }

    /** On the target's own side and inside its outline a dot lies on its body. */
    static boolean onBody(RunPlan plan, Witness.Dot dot) {
        return dot.side() == plan.target().side() && inside(plan.target(), dot.atMm(), 0);
    }

    static boolean inside(Chip chip, Point at, double marginMm) {
        return Math.abs(at.xMm() - chip.centreMm().xMm()) <= chip.sizeMm().xMm() / 2 + marginMm
                && Math.abs(at.yMm() - chip.centreMm().yMm()) <= chip.sizeMm().yMm() / 2 + marginMm;
    }

    private int probeOf(Witness.Read read) {
        List<ProbePlace> probes = plan.bench().probes();
        for (int p = 0; p < probes.size(); p++) {
            if (probes.get(p).name().equals(read.probe())) {
                return p;
            }
        }
        throw new IllegalArgumentException("no probe of bench " + plan.bench().id() + " is called "
                + read.probe());
    }

    private double steepness(SheetModel bench, Witness.Dot dot) {
        Point at = dot.atMm();
        double x = bench.boardC(dot.side(), inside(at.xMm() + 1, at.yMm()))
                - bench.boardC(dot.side(), inside(at.xMm() - 1, at.yMm()));
        double y = bench.boardC(dot.side(), inside(at.xMm(), at.yMm() + 1))
                - bench.boardC(dot.side(), inside(at.xMm(), at.yMm() - 1));
        return Math.hypot(x, y) / 2;
    }

    private Point inside(double xMm, double yMm) {
        Point size = plan.board().sizeMm();
        return new Point(Math.clamp(xMm, 0, size.xMm()), Math.clamp(yMm, 0, size.yMm()));
    }
}
