package org.greenbead.core.electric;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.quantity.Check;

/**
 * The current that a unit draws from a bench supply, from before it is switched on.
 *
 * @param timeS  rising, s
 * @param ampere at these times, A; what lies between is taken as straight
 * @param under  what it was taken under
 */
public record CurrentTrace(double[] timeS, double[] ampere, Conditions under) {
    private static final int LEAST = 5;
    private static final double MOST_S = 3600;
    private static final double MOST_A = 100;
    /** Longer than this without a sample nobody knows what was drawn. */
    public static final double GAP_S = 1.0;

    /**
     * Two curves can only be compared where these are the same.
     *
     * @param supplyV   set voltage, V
     * @param limitA    current limit of the supply, A
     * @param unitState what is connected, in words: {@code battery out, display on}
     */
    public record Conditions(Optional<Double> supplyV, Optional<Double> limitA, String unitState) {
        public static final Conditions UNKNOWN = new Conditions(Optional.empty(), Optional.empty(), "");
        private static final double SAME_PART = 0.03;

        public Conditions {
            supplyV.ifPresent(v -> Check.within("supply voltage", v, 0.1, 100, "V"));
            limitA.ifPresent(a -> Check.within("current limit", a, 0.001, MOST_A, "A"));
            unitState = unitState == null ? "" : unitState.strip();
        }

        /** Whether a curve under these says anything beside one under the others; what is not noted is not held against it. */
        public boolean alike(Conditions other) {
            return near(supplyV, other.supplyV) && (unitState.isEmpty() || other.unitState.isEmpty()
                    || unitState.equalsIgnoreCase(other.unitState));
        }

        private static boolean near(Optional<Double> a, Optional<Double> b) {
            return a.isEmpty() || b.isEmpty() || Math.abs(a.get() - b.get()) <= SAME_PART * b.get();
        }
    }

    public CurrentTrace {
        if (timeS.length != ampere.length || timeS.length < LEAST) {
            throw new IllegalArgumentException("a curve needs at least " + LEAST
                    + " samples, each a time and a current; there are " + timeS.length);
        }
        for (int i = 0; i < timeS.length; i++) {
            Check.within("current", ampere[i], -MOST_A, MOST_A, "A");
            if (!Double.isFinite(timeS[i]) || i > 0 && timeS[i] <= timeS[i - 1]) {
                throw new IllegalArgumentException("time does not rise at sample " + (i + 1));
            }
        }
        if (timeS[timeS.length - 1] - timeS[0] > MOST_S) {
            throw new IllegalArgumentException("a start-up curve is no longer than an hour");
        }
        timeS = timeS.clone();
        ampere = ampere.clone();
    }

    public double durationS() {
        return timeS[timeS.length - 1] - timeS[0];
    }

    public double peakA() {
        return java.util.Arrays.stream(ampere).max().orElseThrow();
    }

    /** Stretches without a sample, as from and to, s. */
    public List<double[]> gaps() {
        return java.util.stream.IntStream.range(1, timeS.length)
                .filter(i -> timeS[i] - timeS[i - 1] > GAP_S)
                .mapToObj(i -> new double[]{timeS[i - 1], timeS[i]}).toList();
    }

    /** Mean current over even cells from the first sample on: the charge of each over its length. */
    public double[] cells(double cellS) {
        int n = Math.max(1, (int) Math.floor(durationS() / cellS + 1e-9));
        double[] out = new double[n];
        int k = 0;
        for (int c = 0; c < n; c++) {
            double from = timeS[0] + c * cellS;
            double to = from + cellS;
            double charge = 0;
            double at = from;
            while (at < to - 1e-12) {
                while (k < timeS.length - 2 && timeS[k + 1] <= at + 1e-12) {
                    k++;
                }
                double end = Math.min(to, k < timeS.length - 2 ? timeS[k + 1] : to);
                charge += (between(k, at) + between(k, end)) / 2 * (end - at);
                at = end;
            }
            out[c] = charge / cellS;
        }
        return out;
    }

    private double between(int k, double at) {
        double part = Math.clamp((at - timeS[k]) / (timeS[k + 1] - timeS[k]), 0, 1);
        return ampere[k] + part * (ampere[k + 1] - ampere[k]);
    }
}
