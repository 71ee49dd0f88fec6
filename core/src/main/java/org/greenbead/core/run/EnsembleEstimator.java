package org.greenbead.core.run;

import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.List;
import java.util.function.ToDoubleFunction;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.thermal.HeatField;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.HeatModel;
import org.greenbead.core.thermal.HeatScene;
import org.greenbead.core.thermal.SheetModel;
import org.greenbead.core.thermal.Uncertainty;

/**
 * Estimates the joint from thermocouples elsewhere and from what is seen: an ensemble of {@link Twin}s, corrected at every sample by the serial
 * square-root ensemble filter (Whitaker and Hamill 2002, Ensemble data assimilation without perturbed observations, Mon. Wea. Rev. 130). Cell
 * temperatures, jet and heater, draught, and the place and air share of every bead are corrected together. The spread of the members, widened
 * by what the readings show beside it, is the uncertainty that is told.
 */
final class EnsembleEstimator implements JointEstimator {
    static final int MEMBERS = 24;
    /** Error that no member carries, K. */
    private static final double STRUCTURAL_K = 0.46;
    /** The same as a part of what lies between chip top and joints, and between joint and board: no probe sits there. */
    private static final double THROUGH_SHARE = 0.06;
    private static final double BESIDE_SHARE = 0.45;
    /**
     * Part of the ensemble's variance that is error: shrinking covariances for safety keeps members further apart than they need be.
     * Measured over seeded benches so that the shown interval holds nine of ten.
     */
    private static final double KEPT = 0.3;
    /** Once nothing corrects them any more, all of it is error after about this time, s. */
    private static final double UNCORRECTED_S = 30;
    /** Memory of what the readings show beside the ensemble, s. */
    private static final double PERSISTS_S = 10;
    private static final double LEARNS_S = 45;
    private static final double MOST_INFLATION = 9;
    /** Error of a reading against the model: 1.5 K, taken as correlated over 10 s. */
    private static final double READING_K = 1.5;
    private static final double CORRELATED_S = 10;
    /** Tools and hands are earlier or later than modelled by about this, s. */
    private static final double TIMING_S = 0.65;
    private static final double RAMP_MEMORY_S = 3;
    /** What jet and heater of a measured bench may differ by from one day to another and still be the same bench, ln. */
    private static final double ANY_DAY_LN = 0.15;
    /**
     * Believed so far, solder that was seen to shine has taken up its heat of fusion in every member. Without that a member that was too cold would stand
     * at the melting point for seconds more, and the estimate run 5 K behind from then on.
     */
    private static final double TAKEN_AS_SEEN = 0.8;
    /**
     * What eyes have in common from run to run, and model with bench, does not average out over sights. Set on runs of their own of twelve benches that
     * differ by several things at once: without it half of their peaks lay within what was said.
     */
    private static final double BY_EYE_K = 2.5;
    /** Joints that are no colder than the one that was looked at have melted with it, K. */
    private static final double AS_HOT_K = 0.2;
    /** What the eye reports is older than the press; this much past is kept, s. */
    private static final double PAST_S = 4;

    private final List<Twin> members;
    private final Uncertainty known;
    private final double[] y = new double[MEMBERS];
    private final double[] x = new double[MEMBERS];
    private final CellRegression byCell;
    private final List<ProbePlace> probes;
    private final double[] besideK;
    private final double[] surprise;
    private final ArrayDeque<Past> past = new ArrayDeque<>();
    private double timeS;
    private double sinceCorrectionS;
    private double uncorrectedS;
    private double jointWasC;
    private double rampKPerS;

    /** Joints of every member a moment ago. */
    private record Past(double timeS, List<JointField> joints) {}

    EnsembleEstimator(HeatScene scene, Uncertainty known, long seed) {
        members = Twin.draw(scene, known, MEMBERS, seed);
        this.known = known;
        byCell = new CellRegression(MEMBERS, members.getFirst().model().cells());
        probes = scene.probes();
        besideK = new double[probes.size()];
        surprise = new double[probes.size()];
        Arrays.fill(surprise, 1);
        jointWasC = scene.ambientC();
    }

    private EnsembleEstimator(EnsembleEstimator other) {
        members = other.members.stream().map(Twin::copy).toList();
        known = other.known;
        byCell = new CellRegression(MEMBERS, members.getFirst().model().cells());
        probes = other.probes;
        besideK = other.besideK.clone();
        surprise = other.surprise.clone();
        past.addAll(other.past);
        timeS = other.timeS;
        sinceCorrectionS = other.sinceCorrectionS;
        uncorrectedS = other.uncorrectedS;
        jointWasC = other.jointWasC;
        rampKPerS = other.rampKPerS;
    }

    @Override
    public EnsembleEstimator copy() {
        return new EnsembleEstimator(this);
    }

    @Override
    public void startAt(double celsius) {
        members.forEach(m -> m.startAt(celsius));
        jointWasC = celsius;
    }

    @Override
    public void advance(HeatInput input, double stepS) {
        for (Twin member : members) {
            member.advance(input, stepS);
        }
        moved(stepS);
    }

    /** Half of the members go through it heated, half not: nobody knows what the heater did. */
    @Override
    public void advanceUnseen(HeatInput input, double stepS) {
        for (int m = 0; m < members.size(); m++) {
            members.get(m).advance(m % 2 == 0 ? input : HeatInput.OFF, stepS);
        }
        moved(stepS);
    }

    private void moved(double stepS) {
        timeS += stepS;
        sinceCorrectionS += stepS;
        uncorrectedS += stepS;
        double jointC = mean(HeatModel::jointCentreC);
        rampKPerS += ((jointC - jointWasC) / stepS - rampKPerS) * (1 - Math.exp(-stepS / RAMP_MEMORY_S));
        jointWasC = jointC;
        past.addLast(new Past(timeS, members.stream().map(m -> JointField.of(m.model())).toList()));
        while (past.getFirst().timeS() < timeS - PAST_S && past.size() > 1) {
            past.removeFirst();
        }
    }

    @Override
    public Estimate shows(ProbePlace probe) {
        double mean = 0;
        double squares = 0;
        for (Twin member : members) {
            double value = member.shows(probe);
            mean += value / MEMBERS;
            squares += value * value / MEMBERS;
        }
        return new Estimate(mean,
                Math.sqrt(Math.max(0, squares - mean * mean) + READING_K * READING_K));
    }

    @Override
    public void correct(ProbePlace probe, double celsius) {
        double mean = 0;
        for (int m = 0; m < MEMBERS; m++) {
            y[m] = members.get(m).shows(probe);
            mean += y[m] / MEMBERS;
        }
        double variance = spread(mean);
        if (variance < 1e-6) {
            return;
        }
        double spacing = Math.max(0.1, Math.min(CORRELATED_S, sinceCorrectionS));
        double error = READING_K * READING_K * CORRELATED_S / spacing;
        uncorrectedS = 0;
        double innovation = celsius - mean;
        int place = probes.indexOf(probe);
        if (place >= 0) {
            besideK[place] += (innovation - besideK[place]) * (1 - Math.exp(-spacing / PERSISTS_S));
            double squared = besideK[place] * besideK[place] / (KEPT * variance + 1);
            surprise[place] += (squared - surprise[place]) * (1 - Math.exp(-spacing / LEARNS_S));
        }
        regress(variance, variance / (variance + error) * innovation,
                Math.sqrt(error / (variance + error)));
    }

    /** Takes {@link #y} from its mean and returns its variance. */
    private double spread(double mean) {
        double variance = 0;
        for (int m = 0; m < MEMBERS; m++) {
            y[m] -= mean;
            variance += y[m] * y[m] / (MEMBERS - 1);
        }
        return variance;
    }

    /**
     * What was looked at, with the deviations {@link #y}, is now known to lie {@code shiftK} from its mean with {@code keep} of its standard
     * deviation: everything follows by its covariance with it.
     */
    private void regress(double variance, double shiftK, double keep) {
        byCell.regress(members, y, variance, shiftK, keep);
        int unknowns = members.getFirst().unknowns();
        for (int i = members.getFirst().model().cells(); i < unknowns; i++) {
            for (int m = 0; m < MEMBERS; m++) {
                x[m] = members.get(m).unknown(i);
            }
            double slope = trustedCovariance(variance) / variance;
            for (int m = 0; m < MEMBERS && slope != 0; m++) {
                members.get(m).shift(i, slope * (shiftK - (1 - keep) * y[m]));
            }
        }
    }

    @Override
    public double saw(Sight sight, double solidusC, double liquidusC) {
        double atS = timeS - sight.delayS();
        Past then = past.getLast();
        for (Past p : past) {
            if (Math.abs(p.timeS() - atS) < Math.abs(then.timeS() - atS)) {
                then = p;
            }
        }
        double lead = sight.molten() ? members.getFirst().model().meltingLeadK(rampKPerS) : 0;
        double wanted = sight.celsius(solidusC, liquidusC) + lead;
        double mean = 0;
        double across = 0;
        for (int m = 0; m < MEMBERS; m++) {
            y[m] = sight.looksAt(then.joints().get(m));
            mean += y[m] / MEMBERS;
            across += then.joints().get(m).acrossK() / MEMBERS;
        }
        double variance = spread(mean);
        if (variance < 1e-6) {
            return 0;
        }
        double error = sight.errorK2(rampKPerS, across);
        double innovation = wanted - mean;
        if (sight.atLeast() && innovation <= 0) {
            // It only says that it was no colder, which is what was thought.
            return 1;
        }
        // What it looked like, or an error of the eye, which says nothing: moments of the mixture.
        double trust = sight.trust(innovation, variance + error);
        double gain = variance / (variance + error);
        double shift = gain * innovation;
        double posterior = trust * (variance * error / (variance + error)) + (1 - trust) * variance
                + trust * (1 - trust) * shift * shift;
        uncorrectedS = Math.min(uncorrectedS, (1 - trust) * UNCORRECTED_S);
        double[] looked = new double[MEMBERS];
        Arrays.setAll(looked, m -> sight.looksAt(JointField.of(members.get(m).model())));
        regress(variance, trust * shift, Math.sqrt(posterior / variance));
        if (sight.molten() && trust >= TAKEN_AS_SEEN) {
            for (int m = 0; m < MEMBERS; m++) {
                members.get(m).model().liquefy(looked[m] - AS_HOT_K);
            }
        }
        return trust;
    }

    /** Mean over the members of what jet and heater had to be bent to, in standard deviations: the longer of the two together. */
    @Override
    public double strain() {
        double jet = 0;
        double heater = 0;
        for (Twin member : members) {
            jet += Math.log(member.model().jetMultiplier() / known.mean().jet()) / MEMBERS;
            heater += Math.log(member.model().preheaterMultiplier() / known.mean().preheater()) / MEMBERS;
        }
        double sign = Math.signum(jet + heater);
        return sign * Math.hypot(jet / Math.hypot(known.jetLn(), ANY_DAY_LN),
                heater / Math.hypot(known.preheaterLn(), ANY_DAY_LN));
    }

    @Override
    public double surprise() {
        return Arrays.stream(surprise).max().orElse(1);
    }

    @Override
    public void swept() {
        sinceCorrectionS = 0;
    }

    /** Covariance of {@link #x} with {@link #y}, shrunk as {@link CellRegression} says. */
    private double trustedCovariance(double varianceY) {
        double mean = 0;
        for (double value : x) {
            mean += value / MEMBERS;
        }
        double sum = 0;
        double squares = 0;
        for (int m = 0; m < MEMBERS; m++) {
            sum += (x[m] - mean) * y[m];
            squares += (x[m] - mean) * (x[m] - mean);
        }
        double covariance = sum / (MEMBERS - 1);
        double varianceX = squares / (MEMBERS - 1);
        if (varianceX <= 0) {
            return 0;
        }
        double r2 = covariance * covariance / (varianceX * varianceY);
        return covariance * Math.max(0, 1 - 1 / ((MEMBERS - 1) * r2));
    }

    @Override
    public Estimate of(ToDoubleFunction<HeatModel> quantity) {
        double mean = 0;
        double squares = 0;
        for (Twin member : members) {
            double value = quantity.applyAsDouble(member.model());
            mean += value / MEMBERS;
            squares += value * value / MEMBERS;
        }
        double variance = Math.max(0, squares - mean * mean) * MEMBERS / (MEMBERS - 1);
        double beside = 0;
        double learned = 1;
        for (int p = 0; p < besideK.length; p++) {
            beside = Math.max(beside, Math.abs(besideK[p]));
            learned = Math.max(learned, surprise[p]);
        }
        double joint = mean(HeatModel::jointCentreC);
        double through = THROUGH_SHARE * (mean(HeatModel::packageTopC) - joint);
        double kept = 1 - (1 - KEPT) * Math.exp(-uncorrectedS / UNCORRECTED_S);
        double late = TIMING_S * rampKPerS;
        double besides = BESIDE_SHARE * beside;
        double blind = probes.isEmpty() ? BY_EYE_K : 0;
        double own = kept * variance + STRUCTURAL_K * STRUCTURAL_K + through * through + late * late
                + blind * blind;
        return new Estimate(mean, Math.sqrt(Math.min(MOST_INFLATION, learned) * own + besides * besides));
    }

    private double mean(ToDoubleFunction<HeatModel> quantity) {
        double sum = 0;
        for (Twin member : members) {
            sum += quantity.applyAsDouble(member.model());
        }
        return sum / MEMBERS;
    }

    @Override
    public HeatField field(Side side) {
        HeatField first = members.getFirst().model().field(side);
        float[] mean = new float[first.celsius().length];
        for (Twin member : members) {
            float[] skin = member.model().field(side).celsius();
            for (int i = 0; i < mean.length; i++) {
                mean[i] += skin[i] / MEMBERS;
            }
        }
        return new HeatField(side, first.xMm(), first.yMm(), first.columns(), mean);
    }

    /** The member whose joint lies nearest the mean. */
    @Override
    public HeatModel lookAhead() {
        double mean = mean(HeatModel::jointCentreC);
        SheetModel nearest = members.getFirst().model();
        for (Twin member : members) {
            if (Math.abs(member.model().jointCentreC() - mean) < Math.abs(nearest.jointCentreC() - mean)) {
                nearest = member.model();
            }
        }
        return nearest.copy();
    }
}
