package org.greenbead.core.run;

import java.util.List;
import java.util.function.ToDoubleFunction;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.thermal.HeatField;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.HeatModel;
import org.greenbead.core.thermal.HeatScene;
import org.greenbead.core.thermal.Multipliers;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;
import org.greenbead.core.thermal.Uncertainty;

/**
 * Estimates the joint from thermocouples elsewhere: an ensemble of twins whose jet, preheater, heat capacity and
 * conductivity differ as much as this bench may, corrected at every sample by the serial square-root ensemble
 * filter (Whitaker and Hamill 2002, Ensemble data assimilation without perturbed observations, Mon. Wea. Rev. 130). Cell temperatures and the
 * logarithms of jet and preheater multipliers are corrected together. The spread of the members, with the model's own
 * structural error added, is the uncertainty that is shown.
 */
final class EnsembleEstimator implements JointEstimator {
    static final int MEMBERS = 20;
    /** Structural error that no multiplier can mend, K, while the probes agree with the ensemble. */
    private static final double STRUCTURAL_K = 0.2;
    /**
     * The same for what flows through the package, as part of the difference between its top and its joints: no probe sits there, so a
     * wrong conductance shows up undamped. Measured over seeded benches.
     */
    private static final double STRUCTURAL_SHARE = 0.14;
    /**
     * Part of the ensemble's variance that is error: shrinking covariances for safety keeps members further apart than they need be.
     * Measured over seeded benches so that the shown interval holds nine of ten.
     */
    private static final double KEPT = 0.2;
    /** Once nothing corrects them any more, all of it is error after about this time, s. */
    private static final double UNCORRECTED_S = 30;
    /** What the probes persistently show beside the ensemble counts as structural error too; memory of that, s. */
    private static final double PERSISTS_S = 10;
    /** Error of a reading against the model: 1.5 K, taken as correlated over 10 s. */
    private static final double READING_K = 1.5;
    private static final double CORRELATED_S = 10;
    /** Tools, hands and beads are earlier or later than modelled by about this, s. */
    private static final double TIMING_S = 0.85;
    private static final double RAMP_MEMORY_S = 3;
    /** How far off its said place a taped bead sits, mm, one standard deviation each way. */
    private static final double PLACE_MM = 0.7;
    private static final double MOST_LOG = 1.2;
    /** A bare bead under tape follows its board with about this lag, s. */
    private static final double BEAD_LAG_S = 1.5;

    private final SheetModel[] members = new SheetModel[MEMBERS];
    private final double[] y = new double[MEMBERS];
    private final double[] x = new double[MEMBERS];
    private final List<ProbePlace> probes;
    private final double[][] beadC;
    private final double[] besideK;
    private final Point boardMm;
    private double sinceCorrectionS;
    private double uncorrectedS;
    private double jointWasC;
    private double rampKPerS;

    EnsembleEstimator(HeatScene scene, Uncertainty known, long seed) {
        List<Multipliers> drawn = known.draw(MEMBERS, seed);
        for (int m = 0; m < MEMBERS; m++) {
            members[m] = new SheetModel(scene, drawn.get(m), Resolution.OBSERVER);
        }
        probes = scene.probes();
        boardMm = scene.board().sizeMm();
        beadC = new double[MEMBERS][probes.size()];
        besideK = new double[probes.size()];
        jointWasC = scene.ambientC();
        for (double[] beads : beadC) {
            java.util.Arrays.fill(beads, scene.ambientC());
        }
    }

    @Override
    public void advance(HeatInput input, double stepS) {
        double follow = 1 - Math.exp(-stepS / BEAD_LAG_S);
        for (int m = 0; m < MEMBERS; m++) {
            members[m].advance(input, stepS);
            for (int p = 0; p < probes.size(); p++) {
                beadC[m][p] += (members[m].probeC(probes.get(p)) - beadC[m][p]) * follow;
            }
        }
        sinceCorrectionS += stepS;
        uncorrectedS += stepS;
        double jointC = mean(HeatModel::jointCentreC);
        rampKPerS += ((jointC - jointWasC) / stepS - rampKPerS) * (1 - Math.exp(-stepS / RAMP_MEMORY_S));
        jointWasC = jointC;
    }

    @Override
    public void correct(ProbePlace probe, double celsius) {
        double mean = 0;
        for (int m = 0; m < MEMBERS; m++) {
            y[m] = shows(m, probe);
            mean += y[m] / MEMBERS;
        }
        double variance = 0;
        for (int m = 0; m < MEMBERS; m++) {
            y[m] -= mean;
            variance += y[m] * y[m] / (MEMBERS - 1);
        }
        double spacing = Math.max(0.1, Math.min(CORRELATED_S, sinceCorrectionS));
        double slipK = PLACE_MM * steepnessKPerMm(probe);
        double error = (READING_K * READING_K + slipK * slipK) * CORRELATED_S / spacing;
        if (variance < 1e-6) {
            return;
        }
        uncorrectedS = 0;
        double innovation = celsius - mean;
        int place = probes.indexOf(probe);
        if (place >= 0) {
            besideK[place] += (innovation - besideK[place]) * (1 - Math.exp(-spacing / PERSISTS_S));
        }
        double damp = 1 / (1 + Math.sqrt(error / (variance + error)));
        for (int cell = 0; cell < members[0].cells(); cell++) {
            if (members[0].melts(cell)) {
                // A joint cell holds little heat and follows its neighbours within a step; shifting its latent heat would make it jump.
                continue;
            }
            for (int m = 0; m < MEMBERS; m++) {
                x[m] = members[m].celsius(cell);
            }
            double gain = trustedCovariance(variance) / (variance + error);
            for (int m = 0; m < MEMBERS && gain != 0; m++) {
                members[m].shiftK(cell, gain * (innovation - damp * y[m]));
            }
        }
        for (int p = 0; p < probes.size(); p++) {
            for (int m = 0; m < MEMBERS; m++) {
                x[m] = beadC[m][p];
            }
            double gain = trustedCovariance(variance) / (variance + error);
            for (int m = 0; m < MEMBERS; m++) {
                beadC[m][p] += gain * (innovation - damp * y[m]);
            }
        }
        double[] jet = new double[MEMBERS];
        for (int m = 0; m < MEMBERS; m++) {
            x[m] = Math.log(members[m].jetMultiplier());
        }
        double jetGain = trustedCovariance(variance) / (variance + error);
        for (int m = 0; m < MEMBERS; m++) {
            jet[m] = Math.exp(Math.clamp(x[m] + jetGain * (innovation - damp * y[m]), -MOST_LOG, MOST_LOG));
            x[m] = Math.log(members[m].preheaterMultiplier());
        }
        double heaterGain = trustedCovariance(variance) / (variance + error);
        for (int m = 0; m < MEMBERS; m++) {
            members[m].retune(jet[m], Math
                    .exp(Math.clamp(x[m] + heaterGain * (innovation - damp * y[m]), -MOST_LOG, MOST_LOG)));
        }
    }

    /** How much the board's temperature changes across a probe's place, K/mm: a probe that slipped there reads that much else. */
    private double steepnessKPerMm(ProbePlace probe) {
        Point at = probe.atMm();
        double x = 0;
        double y = 0;
        for (SheetModel member : members) {
            x += across(member, probe.side(), new Point(at.xMm() - 1, at.yMm()),
                    new Point(at.xMm() + 1, at.yMm()));
            y += across(member, probe.side(), new Point(at.xMm(), at.yMm() - 1),
                    new Point(at.xMm(), at.yMm() + 1));
        }
        return Math.hypot(x, y) / MEMBERS;
    }

    private double across(SheetModel member, Side side, Point from, Point to) {
        return (member.boardC(side, inside(to)) - member.boardC(side, inside(from))) / 2;
    }

    private Point inside(Point at) {
        return new Point(Math.clamp(at.xMm(), 0, boardMm.xMm()), Math.clamp(at.yMm(), 0, boardMm.yMm()));
    }

    /** What a lagging bead at that place shows in one member. */
    private double shows(int member, ProbePlace probe) {
        int index = probes.indexOf(probe);
        return index < 0 ? members[member].probeC(probe) : beadC[member][index];
    }

    @Override
    public void swept() {
        sinceCorrectionS = 0;
    }

    /**
     * Covariance of {@link #x} with {@link #y}, shrunk by what a sample correlation of this size can be chance:
     * 1 - 1/((n-1) r^2), nothing below one standard error. Keeps far cells from following noise.
     */
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
        for (SheetModel member : members) {
            double value = quantity.applyAsDouble(member);
            mean += value / MEMBERS;
            squares += value * value / MEMBERS;
        }
        double variance = Math.max(0, squares - mean * mean) * MEMBERS / (MEMBERS - 1);
        double beside = 0;
        for (double kelvin : besideK) {
            beside = Math.max(beside, Math.abs(kelvin));
        }
        double through = STRUCTURAL_SHARE * (mean(HeatModel::packageTopC) - mean(HeatModel::jointCentreC));
        double kept = 1 - (1 - KEPT) * Math.exp(-uncorrectedS / UNCORRECTED_S);
        double late = TIMING_S * rampKPerS;
        return new Estimate(mean,
                Math.sqrt(kept * variance + STRUCTURAL_K * STRUCTURAL_K + through * through + late * late
                        + 0.25 * beside * beside));
    }

    private double mean(ToDoubleFunction<HeatModel> quantity) {
        double sum = 0;
        for (SheetModel member : members) {
            sum += quantity.applyAsDouble(member);
        }
        return sum / MEMBERS;
    }

    @Override
    public HeatField field(Side side) {
        HeatField first = members[0].field(side);
        float[] mean = new float[first.celsius().length];
        for (SheetModel member : members) {
            float[] skin = member.field(side).celsius();
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
        SheetModel nearest = members[0];
        for (SheetModel member : members) {
            if (Math.abs(member.jointCentreC() - mean) < Math.abs(nearest.jointCentreC() - mean)) {
                nearest = member;
            }
        }
        return nearest.copy();
    }
}
