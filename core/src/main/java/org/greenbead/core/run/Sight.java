package org.greenbead.core.run;

/**
 * What a technician sees at the chip and says with one press: a measurement of the joints, with the errors of eye and hand. Delays and shares
 * of error are judgement until benches have told them; see docs/run.md.
 */
public enum Sight {
    /** The flux runs and shimmers. It does so over a wide range, so it tells little. */
    FLUX_SHIMMERS(0.20, 18, false) {
        @Override
        double celsius(double solidusC, double liquidusC) {
            return Math.min(160, solidusC - 15);
        }

        @Override
        double looksAt(double minC, double maxC) {
            return (minC + maxC) / 2;
        }
    },
    /** Solder at a corner or edge turns bright. */
    CORNER_SHINES(0.06, 2.5, false) {
        @Override
        double celsius(double solidusC, double liquidusC) {
            return (solidusC + liquidusC) / 2;
        }

        @Override
        double looksAt(double minC, double maxC) {
            return (minC + maxC) / 2;
        }
    },
    /** The first ball goes round. */
    FIRST_BALL(0.05, 2.5, false) {
        @Override
        double celsius(double solidusC, double liquidusC) {
            return liquidusC;
        }

        @Override
        double looksAt(double minC, double maxC) {
            return maxC - 0.25 * (maxC - minC);
        }
    },
    /** Nudged, the chip floats and springs back: every joint is liquid. */
    FLOATS(0.08, 2.5, true) {
        @Override
        double celsius(double solidusC, double liquidusC) {
            return liquidusC;
        }

        @Override
        double looksAt(double minC, double maxC) {
            return minC;
        }
    };

    private static final double DELAY_S = 1.25;
    private static final double HAND_S = 0.87;
    private final double falseShare;
    private final double sdK;
    private final boolean atLeast;

    Sight(double falseShare, double sdK, boolean atLeast) {
        this.falseShare = falseShare;
        this.sdK = sdK;
        this.atLeast = atLeast;
    }

    /** What the joints it looks at have when it begins, °C. */
    abstract double celsius(double solidusC, double liquidusC);

    /** Which of the joints it looks at, between coldest and hottest. */
    abstract double looksAt(double minC, double maxC);

    /** From what happens to the press, s. */
    double delayS() {
        return DELAY_S;
    }

    /** How often a press means nothing. */
    double falseShare() {
        return falseShare;
    }

    /** True when it only says that the joints were no colder. */
    boolean atLeast() {
        return atLeast;
    }

    /**
     * Variance of the temperature that a press stands for, K2.
     *
     * @param rampKPerS how fast the joints rise
     * @param acrossK   between coldest and hottest joint: which of them was looked at is not known
     */
    double errorK2(double rampKPerS, double acrossK) {
        double hand = HAND_S * rampKPerS;
        return sdK * sdK + hand * hand + acrossK * acrossK / 9;
    }

    /** What is shown as ± after this was seen, K, if it comes about as expected. */
    double leavesK(Estimate joint, double rampKPerS, double acrossK) {
        double before = joint.sigmaK() * joint.sigmaK();
        double error = errorK2(Double.isNaN(rampKPerS) ? 0 : rampKPerS, acrossK);
        return new Estimate(joint.celsius(), Math.sqrt(before * error / (before + error))).plusMinusK();
    }
}
