package org.greenbead.core.electric;

import java.util.Optional;
import java.util.Random;

/**
 * Start-ups of a third making, on which nothing was set: loads that come and go by logistic steps, coloured noise, a ripple, and a slow supply
 * that tells every quarter to half second in hundredths of an ampere.
 */
final class LoadWorld {
    private final Random random;
    final int loads;
    private final double[] ampere;
    private final double[] onS;
    private final double[] offS;
    private final double[] widthS;
    private final double everyS;
    private final double endS;
    private final double rippleA;

    LoadWorld(long seed) {
        random = new Random(seed);
        loads = 3 + random.nextInt(3);
        ampere = new double[loads];
        onS = new double[loads];
        offS = new double[loads];
        widthS = new double[loads];
        double t = 0;
        for (int k = 0; k < loads; k++) {
            ampere[k] = 0.25 + 0.5 * random.nextDouble();
            onS[k] = t;
            widthS[k] = 0.05 + 0.15 * random.nextDouble();
            t += 1.8 + 4 * random.nextDouble();
        }
        // Some loads end, the last of them first, with the unit at rest.
        for (int k = 0; k < loads; k++) {
            offS[k] = k > 0 && k == loads - 1 ? t : 1e9;
        }
        endS = t + 8;
        everyS = 0.25 + 0.25 * random.nextDouble();
        rippleA = 0.02 * random.nextDouble();
    }

    /** When a load comes, s after switching on, and what stands until the next comes. */
    double[] stage(int k) {
        return new double[]{onS[k], k + 1 < loads ? onS[k + 1] : offS[k]};
    }

    enum Wrong {
        NONE,
        /** A load draws far more. */
        HEAVY,
        /** A load does not come. */
        ABSENT,
        /** It waits before the next load for ever. */
        WAITS,
        /** It goes out in this stage. */
        OUT
    }

    CurrentTrace start(Wrong wrong, int at) {
        double[] a = new double[loads];
        double[] on = new double[loads];
        double shift = 0;
        double all = Math.exp(0.03 * random.nextGaussian());
        for (int k = 0; k < loads; k++) {
            a[k] = ampere[k] * all * Math.exp(0.03 * random.nextGaussian());
            on[k] = onS[k] + shift;
            double next = k + 1 < loads ? onS[k + 1] - onS[k] : 0;
            shift += next * (Math.exp(0.09 * random.nextGaussian()) - 1);
        }
        double out = Double.MAX_VALUE;
        double end = endS;
        switch (wrong) {
            case HEAVY -> a[at] *= 2.4;
            case ABSENT -> a[at] = 0;
            case WAITS -> end = on[at] + 25;
            case OUT -> out = on[at] + 0.6 * (stage(at)[1] - stage(at)[0]);
            default -> {
            }
        }
        double onset = 1.2 + 2 * random.nextDouble();
        int n = (int) ((onset + end) / everyS);
        double[] time = new double[n];
        double[] amp = new double[n];
        double coloured = 0;
        for (int i = 0; i < n; i++) {
            time[i] = i * everyS;
            double s = time[i] - onset;
            double sum = 0.003;
            for (int k = 0; k < loads && s < out; k++) {
                boolean never = wrong == Wrong.WAITS && k > at;
                double off = offS[k] + (offS[k] < 1e8 ? shift : 0);
                sum += never
                        ? 0
                        : a[k] * (step((s - on[k]) / widthS[k]) - (wrong == Wrong.WAITS
                                ? 0
                                : step((s - off) / widthS[k])));
            }
            double keep = Math.exp(-everyS / 0.5);
            coloured = keep * coloured + Math.sqrt(1 - keep * keep) * 0.012 * sum * random.nextGaussian();
            double ripple = s > 0 ? rippleA * Math.sin(9 * s) : 0;
            amp[i] = Math.max(0, Math.rint((sum + coloured + ripple) / 0.01) * 0.01);
        }
        return new CurrentTrace(time, amp,
                new CurrentTrace.Conditions(Optional.of(24.0), Optional.of(10.0), ""));
    }

    private static double step(double x) {
        return 1 / (1 + Math.exp(-Math.clamp(6 * x, -40, 40)));
    }
}
