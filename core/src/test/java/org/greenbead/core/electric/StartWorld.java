package org.greenbead.core.electric;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;

/**
 * Start-ups drawn by lot, with known stages and known departures; another making than that of the shipped simulation: levels and lengths at
 * random, bursts as a random telegraph that no two starts share, uneven and coarse sampling.
 */
final class StartWorld {
    enum Wrong {
        NONE, DEAD, STUCK, RESETS, HIGHER, LOWER, LONGER, MISSING, LIMITED
    }

    /** @param fromS, @param toS of each stage after the onset */
    record Made(CurrentTrace trace, double[] fromS, double[] toS) {}

    private final Random random;
    final int stages;
    private final double[] level;
    private final double[] length;
    private final double[] restless;
    private final double[] tau;
    private final double peak;
    private final double sampleS;
    private final double step;

    StartWorld(long seed) {
        random = new Random(seed);
        stages = 4 + random.nextInt(4);
        level = new double[stages];
        length = new double[stages];
        restless = new double[stages];
        tau = new double[stages];
        double top = Math.exp(random.nextGaussian() * 0.7 - 0.5);
        double last = 0;
        for (int k = 0; k < stages; k++) {
            double next;
            do {
                next = top * (0.12 + 0.88 * random.nextDouble());
            } while (Math.abs(next - last) < 0.13 * top);
            level[k] = next;
            last = next;
            length[k] = k == stages - 1
                    ? 6 + 9 * random.nextDouble()
                    : Math.clamp(3 * Math.exp(0.7 * random.nextGaussian()), 0.9, 11);
            restless[k] = random.nextBoolean() ? 0 : 0.3 * random.nextDouble();
            tau[k] = 0.03 + 0.25 * random.nextDouble() * random.nextDouble();
        }
        peak = java.util.Arrays.stream(level).max().orElseThrow();
        sampleS = 0.02 + 0.13 * random.nextDouble();
        step = random.nextBoolean() ? 0.001 : 0.005;
    }

    /** One start of one board. */
    Made start(Wrong wrong, int at) {
        double all = Math.exp(0.03 * random.nextGaussian());
        double[] mine = new double[stages];
        double[] lasts = new double[stages];
        for (int k = 0; k < stages; k++) {
            mine[k] = level[k] * all * Math.exp(0.02 * random.nextGaussian());
            lasts[k] = length[k] * Math.exp(0.1 * random.nextGaussian());
        }
        double more = Math.max(0.18 * peak, level[at] * (0.35 + 0.5 * random.nextDouble()));
        double limit = 1.4 * peak;
        switch (wrong) {
            case HIGHER -> mine[at] += more;
            case LOWER -> mine[at] = Math.max(0.01 * peak, mine[at] - Math.max(0.18 * peak, 0.4 * level[at]));
            case LONGER -> lasts[at] *= 2.6 + 1.4 * random.nextDouble();
            case MISSING -> lasts[at] = 0;
            case LIMITED -> mine[at] = 3 * peak;
            case STUCK -> lasts[at] = 40;
            default -> {
            }
        }
        double onset = 1 + 2 * random.nextDouble();
        double standby = 0.001 + 0.004 * random.nextDouble();
        double[] from = new double[stages];
        double[] to = new double[stages];
        double t = 0;
        for (int k = 0; k < stages; k++) {
            from[k] = t;
            t += lasts[k];
            to[k] = t;
        }
        double reset = from[at] + 0.6 * lasts[at];
        double end = wrong == Wrong.STUCK ? from[at] + 30 : wrong == Wrong.LIMITED ? from[at] + 8 : t;
        List<double[]> out = new ArrayList<>();
        double amp = standby;
        double burst = 0;
        double until = 0;
        double clock = 0;
        while (clock < onset + end) {
            double s = clock - onset;
            double dt = sampleS * (0.7 + 0.6 * random.nextDouble());
            if (wrong == Wrong.RESETS && s > reset) {
                s = (s - reset) % (reset + 2) - 2;
            }
            double wanted = standby;
            double lag = 0.03;
            if (s >= 0 && wrong != Wrong.DEAD) {
                int k = 0;
                while (k < stages - 1 && s >= to[k]) {
                    k++;
                }
                if (clock > until) {
                    burst = burst == 0 && random.nextDouble() < 0.6
                            ? restless[k] * mine[k] * random.nextDouble()
                            : 0;
                    until = clock + 0.05 + 0.25 * random.nextDouble();
                }
                wanted = mine[k] + burst;
                lag = tau[k];
            }
            amp += (Math.min(limit, wanted) - amp) * (1 - Math.exp(-dt / lag));
            double read = amp * (1 + 0.005 * random.nextGaussian());
            out.add(new double[]{clock, Math.rint(read / step) * step});
            clock += dt;
        }
        var under = new CurrentTrace.Conditions(Optional.of(12.0), Optional.of(limit), "battery out");
        return new Made(new CurrentTrace(out.stream().mapToDouble(p -> p[0]).toArray(),
                out.stream().mapToDouble(p -> p[1]).toArray(), under), from, to);
    }
}
