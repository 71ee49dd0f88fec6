package org.greenbead.core.calibrate;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.function.BooleanSupplier;
import java.util.function.DoubleConsumer;
import java.util.stream.IntStream;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;
import org.greenbead.core.plan.Drive;
import org.greenbead.core.plan.Outcome;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.Multipliers;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.LUDecomposition;
import org.hipparchus.linear.RealMatrix;
import org.hipparchus.linear.RealVector;

/**
 * Where the dots go, of which alloy, and how the heat goes, so that the peak of the job's joint is known best afterwards. The
 * model is made linear about three benches (as known, a weak one, a strong one); a dot tells its temperature at the moment it
 * melts, as surely as {@link WitnessFit} weighs it; dots are added one by one, each the one that leaves the least variance of
 * the joint, in the mean over the three (Bayesian c-optimal design, greedy: Chaloner and Verdinelli 1995, Bayesian
 * experimental design: a review, Statistical Science 10, 273). What would not melt tells nothing.
 *
 * @param dots    named A, B, ... in the order in which they should melt
 * @param steps   of heater and air
 * @param endS    when it is over at the latest, s
 * @param meltsAtS when each dot should melt by the model as it is known now, s
 * @param beforeK standard deviation of the joint's peak before
 * @param afterK  and after such a heating, by this reckoning
 */
public record WitnessDesign(List<Witness.Dot> dots, List<Witness.Step> steps, double endS,
        List<Double> meltsAtS, double beforeK, double afterK) {
    private static final double STEP_LN = 0.04;
    /** The weak and the strong bench: jet and heater so much off. */
    private static final double[] BENCHES = {1, 0.75, 1.3};
    private static final double APART_MM = 4;
    /** A hand must find the next key, s. */
    private static final double APART_S = 4;
    private static final double EDGE_MM = 2;
    private static final double CLEAR_MM = 1;
    private static final double FARTHEST_MM = 35;
    private static final double[] FROM_BODY_MM = {2.5, 6, 10, 15, 21, 28};
    private static final int DIRECTIONS = 8;
    private static final double FIRST_HEATER_S = 150;
    private static final double SECOND_HEATER_S = 150;
    private static final double AIR_STEP_S = 45;
    private static final double[] AIR_RISES_K = {-40, 10, 60, 100};
    private static final double[] AIR_ALONE_RISES_K = {-160, -110, -60, -10, 40, 90};
    private static final double AIR_ALONE_STEP_S = 70;
    private static final double[] SHIFTS_K = {0, -30, 30};

    public WitnessDesign {
        dots = List.copyOf(dots);
        steps = List.copyOf(steps);
        meltsAtS = List.copyOf(meltsAtS);
    }

    /** A dot that could be put, with what it would tell: its row of slopes over its deviation in each of the benches; empty where it stays solid. */
    private record Candidate(Witness.Dot dot, double meltsAtS, List<Optional<double[]>> tells) {}

    /**
     * @param alloys   at hand for dots, of the table
     * @param count    of dots, 3 to 26
     * @param progress told the part done
     * @throws CancellationException when cancelled
     * @throws RefusedException      when nothing that is at hand would melt anywhere
     */
    public static WitnessDesign of(RunPlan plan, List<String> alloys, int count, DoubleConsumer progress,
            BooleanSupplier cancelled) throws RefusedException {
        if (count < 3 || count > 26) {
            throw new IllegalArgumentException("3 to 26 dots, not " + count);
        }
        double[][] goal = new double[BENCHES.length][];
        for (int b = 0; b < BENCHES.length; b++) {
            goal[b] = jointSlopes(plan, BENCHES[b]);
            progress.accept(0.1 * (b + 1) / BENCHES.length);
        }
        WitnessDesign best = null;
        for (int s = 0; s < SHIFTS_K.length; s++) {
            List<Witness.Step> steps = steps(plan, SHIFTS_K[s]);
            double part = 0.1 + 0.9 * s / SHIFTS_K.length;
            List<Candidate> all = candidates(plan, steps, alloys,
                    d -> progress.accept(part + 0.9 * d / SHIFTS_K.length), cancelled);
            WitnessDesign design = greedy(all, steps, count, goal);
            if (best == null || design.dots.size() >= best.dots.size() && design.afterK < best.afterK) {
                best = design;
            }
        }
        if (best.dots.size() < 3) {
            throw new RefusedException(org.greenbead.core.quantity.Phrase.of("witness.none_melts"));
        }
        return best;
    }

    /** Heating in the kind of the job's own recipe, through its own nozzle: heater in two steps, then air in four that rise. */
    static List<Witness.Step> steps(RunPlan plan, double shiftK) {
        boolean heats = plan.bench().heater().isPresent()
                && plan.recipe().stages().stream().anyMatch(s -> s.heaterC().isPresent());
        Optional<AirSetting> blown = plan.recipe().stages().stream().flatMap(s -> s.air().stream())
                .reduce((a, b) -> b);
        var steps = new ArrayList<Witness.Step>();
        double at = 0;
        Optional<Double> heater = Optional.empty();
        if (heats) {
            boolean contact = plan.bench().plate();
            double max = plan.bench().heater().orElseThrow().maxC();
            steps.add(new Witness.Step(0, Optional.of(Math.min(max, contact ? 150 : 220)), Optional.empty()));
            at = FIRST_HEATER_S;
            heater = Optional.of(Math.min(max, contact ? 220 : 300));
            steps.add(new Witness.Step(at, heater, Optional.empty()));
            at += SECOND_HEATER_S;
            if (blown.isEmpty()) {
                steps.add(new Witness.Step(at, Optional.of(max), Optional.empty()));
            }
        }
        if (blown.isPresent()) {
            AirSetting air = blown.get();
            double lastC = 0;
            for (double rise : heats ? AIR_RISES_K : AIR_ALONE_RISES_K) {
                double set = Math.clamp(air.setC() + rise + shiftK, 120, plan.bench().air().maxC());
                if (set > lastC) {
                    steps.add(new Witness.Step(at, heater, Optional.of(new AirSetting(set, air.flowLpm(),
                            air.nozzleMm(), air.distanceMm(), air.circleMm()))));
                    lastC = set;
                    at += heats ? AIR_STEP_S : AIR_ALONE_STEP_S;
                }
            }
        }
        return steps;
    }

    private static double endS(List<Witness.Step> steps) {
        Witness.Step last = steps.getLast();
        return last.fromS() + (last.air().isEmpty()
                ? 2 * SECOND_HEATER_S
                : last.heaterC().isPresent() ? AIR_STEP_S + 20 : AIR_ALONE_STEP_S + 20);
    }

    private static Multipliers shifted(double bench, double[] ln) {
        return new Multipliers(bench * Math.exp(ln[0]), bench * Math.exp(ln[1]), Math.exp(ln[2]),
                Math.exp(ln[3]));
    }

    private static double[] step(int parameter) {
        double[] ln = new double[Calibrator.FACTORS];
        if (parameter >= 0) {
            ln[parameter] = STEP_LN;
        }
        return ln;
    }

    /** By how much the joint's peak moves with each factor, the stages by the clock. */
    private static double[] jointSlopes(RunPlan plan, double bench) {
        Outcome like = Drive.of(plan, plan.recipe(),
                new SheetModel(plan.scene(), shifted(bench, step(-1)), Resolution.SEARCH), () -> false);
        double[] peak = IntStream.range(-1, Calibrator.FACTORS).parallel()
                .mapToDouble(p -> Drive.onClock(plan, plan.recipe(),
                        new SheetModel(plan.scene(), shifted(bench, step(p)), Resolution.SEARCH), like)
                        .peakMinC())
                .toArray();
        double[] slopes = new double[Calibrator.FACTORS + 1];
        for (int p = 0; p < Calibrator.FACTORS; p++) {
            slopes[p] = (peak[p + 1] - peak[0]) / STEP_LN;
        }
        return slopes;
    }

    /** Bare board where a dot can be seen from above, and the target's own body. */
    static List<Point> places(RunPlan plan) {
        Point centre = plan.target().centreMm();
        double half = Math.max(plan.target().sizeMm().xMm(), plan.target().sizeMm().yMm()) / 2;
        var places = new ArrayList<Point>();
        places.add(centre);
        for (double from : FROM_BODY_MM) {
            double radius = Math.min(FARTHEST_MM, half + from);
            for (int d = 0; d < DIRECTIONS; d++) {
                double angle = 2 * Math.PI * d / DIRECTIONS;
                var at = new Point(Math.rint(centre.xMm() + radius * Math.cos(angle)),
                        Math.rint(centre.yMm() + radius * Math.sin(angle)));
                if (bare(plan, at) && !places.contains(at)) {
                    places.add(at);
                }
            }
        }
        return places;
    }

    private static boolean bare(RunPlan plan, Point at) {
        Point size = plan.board().sizeMm();
        Side side = plan.target().side();
        return at.xMm() >= EDGE_MM && at.yMm() >= EDGE_MM && at.xMm() <= size.xMm() - EDGE_MM
                && at.yMm() <= size.yMm() - EDGE_MM
                && plan.board().chips().stream()
                        .noneMatch(c -> c.side() == side && WitnessFit.inside(c, at, CLEAR_MM))
                && plan.board().parts().stream().noneMatch(p -> p.side() == side
                        && Math.abs(at.xMm() - p.centreMm().xMm()) <= p.sizeMm().xMm() / 2 + CLEAR_MM
                        && Math.abs(at.yMm() - p.centreMm().yMm()) <= p.sizeMm().yMm() / 2 + CLEAR_MM);
    }

    /** Temperatures of every place, second by second, in one bench with one factor moved. */
    private static double[][] traces(RunPlan plan, List<Witness.Step> steps, List<Witness.Dot> at,
            Multipliers of) {
        var model = new SheetModel(plan.scene(), of, Resolution.SEARCH);
        int seconds = (int) endS(steps);
        double[][] traces = new double[at.size()][seconds];
        int step = 0;
        for (int t = 0; t < seconds; t++) {
            while (step + 1 < steps.size() && steps.get(step + 1).fromS() <= t) {
                step++;
            }
            model.advance(HeatInput.of(steps.get(step).heaterC(), steps.get(step).air()), 1);
            for (int i = 0; i < at.size(); i++) {
                traces[i][t] = WitnessFit.celsius(plan, model, at.get(i));
            }
        }
        return traces;
    }

    private static List<Candidate> candidates(RunPlan plan, List<Witness.Step> steps, List<String> alloys,
            DoubleConsumer progress, BooleanSupplier cancelled) {
        List<Point> places = places(plan);
        Side side = plan.target().side();
        // A dot of any alloy stands for its place here.
        List<Witness.Dot> at = places.stream().map(p -> new Witness.Dot("?", alloys.getFirst(), side, p))
                .toList();
        int factors = Calibrator.FACTORS;
        double[][][][] all = new double[BENCHES.length][][][];
        for (int b = 0; b < BENCHES.length; b++) {
            if (cancelled.getAsBoolean()) {
                throw new CancellationException("the layout was cancelled");
            }
            double bench = BENCHES[b];
            all[b] = IntStream.range(-1, factors).parallel()
                    .mapToObj(p -> traces(plan, steps, at, shifted(bench, step(p))))
                    .toArray(double[][][]::new);
            progress.accept((b + 1.0) / BENCHES.length);
        }
        var found = new ArrayList<Candidate>();
        for (int i = 0; i < at.size(); i++) {
            for (String alloy : alloys) {
                var dot = new Witness.Dot("?", alloy, side, places.get(i));
                var tells = new ArrayList<Optional<double[]>>();
                double meltsAtS = Double.NaN;
                for (int b = 0; b < BENCHES.length; b++) {
                    int melts = first(all[b][0][i], dot.meltsC());
                    tells.add(melts < 0
                            ? Optional.empty()
                            : Optional.of(row(all[b], i, melts, WitnessFit.onBody(plan, dot),
                                    steepness(all[b][0], places, i, melts))));
                    meltsAtS = b == 0 && melts >= 0 ? melts + 1 : meltsAtS;
                }
                if (!Double.isNaN(meltsAtS)) {
                    found.add(new Candidate(dot, meltsAtS, tells));
                }
            }
        }
        return found;
    }

    private static int first(double[] trace, double celsius) {
        for (int t = 1; t < trace.length; t++) {
            if (trace[t] >= celsius) {
                return t;
            }
        }
        return -1;
    }

    /** Slopes of the temperature at the moment of melting and of what the board does otherwise, over the deviation of the comparison. */
    private static double[] row(double[][][] bench, int place, int at, boolean body, double steepKPerMm) {
        double rate = bench[0][place][at] - bench[0][place][at - 1];
        double sd = WitnessFit.comparisonSdK(rate, body, steepKPerMm);
        double[] row = new double[Calibrator.FACTORS + 1];
        for (int p = 0; p < Calibrator.FACTORS; p++) {
            row[p] = (bench[p + 1][place][at] - bench[0][place][at]) / STEP_LN / sd;
        }
        row[row.length - 1] = 1 / sd;
        return row;
    }

    /** By the nearest other places, the steepest of them, K/mm. */
    private static double steepness(double[][] nominal, List<Point> places, int of, int at) {
        double steepest = 0;
        for (int i = 1; i < places.size(); i++) {
            double mm = Math.hypot(places.get(i).xMm() - places.get(of).xMm(),
                    places.get(i).yMm() - places.get(of).yMm());
            if (i != of && mm <= 8) {
                steepest = Math.max(steepest, Math.abs(nominal[i][at] - nominal[of][at]) / mm);
            }
        }
        return steepest;
    }

    private static WitnessDesign greedy(List<Candidate> all, List<Witness.Step> steps, int count,
            double[][] goal) {
        var information = new RealMatrix[BENCHES.length];
        for (int b = 0; b < BENCHES.length; b++) {
            information[b] = WitnessFit.priorPrecision();
        }
        double before = spread(information, goal);
        var chosen = new ArrayList<Candidate>();
        while (chosen.size() < count) {
            Candidate best = null;
            double least = Double.POSITIVE_INFINITY;
            for (Candidate c : all) {
                if (fits(c, chosen)) {
                    double left = spread(with(information, c), goal);
                    if (left < least) {
                        least = left;
                        best = c;
                    }
                }
            }
            if (best == null) {
                break;
            }
            information = with(information, best);
            chosen.add(best);
        }
        chosen.sort(Comparator.comparingDouble(Candidate::meltsAtS));
        var dots = new ArrayList<Witness.Dot>();
        for (int i = 0; i < chosen.size(); i++) {
            Witness.Dot d = chosen.get(i).dot();
            dots.add(new Witness.Dot(String.valueOf((char) ('A' + i)), d.alloy(), d.side(), d.atMm()));
        }
        return new WitnessDesign(dots, steps, endS(steps),
                chosen.stream().map(Candidate::meltsAtS).toList(), before, spread(information, goal));
    }

    private static boolean fits(Candidate c, List<Candidate> chosen) {
        return chosen.stream()
                .allMatch(o -> Math.hypot(o.dot().atMm().xMm() - c.dot().atMm().xMm(),
                        o.dot().atMm().yMm() - c.dot().atMm().yMm()) >= APART_MM
                        && Math.abs(o.meltsAtS() - c.meltsAtS()) >= APART_S);
    }

    private static RealMatrix[] with(RealMatrix[] information, Candidate c) {
        var more = new RealMatrix[information.length];
        for (int b = 0; b < more.length; b++) {
            more[b] = information[b];
            if (c.tells().get(b).isPresent()) {
                var row = new ArrayRealVector(c.tells().get(b).get());
                more[b] = information[b].add(row.outerProduct(row));
            }
        }
        return more;
    }

    /** Root of the mean variance of the joint over the benches, with what does not average out, K. */
    private static double spread(RealMatrix[] information, double[][] goal) {
        double variance = 0;
        for (int b = 0; b < information.length; b++) {
            RealVector g = new ArrayRealVector(goal[b]);
            RealMatrix covariance = new LUDecomposition(new Array2DRowRealMatrix(information[b].getData()))
                    .getSolver().getInverse();
            variance += g.dotProduct(covariance.operate(g)) / information.length;
        }
        return Math.hypot(Math.sqrt(variance), WitnessFit.BOARD_K);
    }
}
