package org.greenbead.core.run;

/**
 * What a technician sees at the chip and says with one press: a measurement of the joints, with the errors of eye and hand. Delays and shares
 * of error are judgement until benches have told them; see docs/run.md.
 */
public enum Sight {
    /** The flux runs and shimmers. It does so over a wide range, so it tells little. */
    FLUX_SHIMMERS(0.20, 18, false) {
        @Override
        public double celsius(double solidusC, double liquidusC) {
            return Math.min(160, solidusC - 15);
        }

        @Override
        public double looksAt(JointField joints) {
            return (joints.minC() + joints.maxC()) / 2;
        }
    },
    /** Solder at a corner turns bright: it is liquid, not only beginning to be. */
    CORNER_SHINES(0.06, 2.5, false) {
        @Override
        public double celsius(double solidusC, double liquidusC) {
            return liquidusC;
        }

        @Override
        public double looksAt(JointField joints) {
            return joints.cornerC();
        }
    },
    /** The first ball goes round. */
    FIRST_BALL(0.05, 2.5, false) {
        @Override
        public double celsius(double solidusC, double liquidusC) {
            return liquidusC;
        }

        @Override
        public double looksAt(JointField joints) {
            return joints.maxC() - 0.25 * joints.acrossK();
        }
    },
    /** Nudged, the chip floats and springs back: every joint is liquid. */
    FLOATS(0.08, 2.5, true) {
        @Override
        public double celsius(double solidusC, double liquidusC) {
            return liquidusC;
        }

        @Override
        public double looksAt(JointField joints) {
            return joints.minC();
        }
    };

    private static final double DELAY_S = 1.25;
    private static final double HAND_S = 0.87;
    /** A press that means nothing may come anywhere between room and the hottest air on a joint, K. */
    private static final double EYE_RANGE_K = 250;
    private final double falseShare;
    private final double sdK;
    private final boolean atLeast;

    Sight(double falseShare, double sdK, boolean atLeast) {
        this.falseShare = falseShare;
        this.sdK = sdK;
        this.atLeast = atLeast;
    }

    /** Key of the words with which it is pressed. */
    public String word() {
        return "sight.press." + name().toLowerCase(java.util.Locale.ROOT);
    }

    /** What the joints it looks at have when it begins, °C. */
    public abstract double celsius(double solidusC, double liquidusC);

    /** What those of the joints have that it looks at. */
    public abstract double looksAt(JointField joints);

    /** From what happens to the press, s. */
    public double delayS() {
        return DELAY_S;
    }

    /**
     * How far a press is to be believed, 0 to 1: either it was what it looked like, or an error of the eye, which may come anywhere.
     *
     * @param missK      what it should have been less what was thought
     * @param varianceK2 of that, of the thought and of the eye together
     */
    public double trust(double missK, double varianceK2) {
        double hit = Math.exp(-0.5 * missK * missK / varianceK2) / Math.sqrt(2 * Math.PI * varianceK2);
        return (1 - falseShare) * hit / ((1 - falseShare) * hit + falseShare / EYE_RANGE_K);
    }

    /** True when it says that solder is liquid where it looks. */
    public boolean molten() {
        return this != FLUX_SHIMMERS;
    }

    /** True when it only says that the joints were no colder. */
    public boolean atLeast() {
        return atLeast;
    }

    /**
     * Variance of the temperature that a press stands for, K2.
     *
     * @param rampKPerS how fast the joints rise
     * @param acrossK   between coldest and hottest joint: which of them was looked at is not known
     */
    public double errorK2(double rampKPerS, double acrossK) {
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
