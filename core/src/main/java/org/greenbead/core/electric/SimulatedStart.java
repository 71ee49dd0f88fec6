package org.greenbead.core.electric;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;

/**
 * A made-up unit at a bench supply, for the supply that ships with the program: rails that come up one after the other behind a bulk capacitor,
 * a loader, work in bursts, then rest with a beacon. Not what the comparison is measured on.
 */
public final class SimulatedStart {
    /** What may be wrong with it. */
    public enum Fault {
        NONE,
        /** The button does nothing. */
        DEAD,
        /** The second rail is shorted. */
        SHORTED,
        /** The loader waits for memory for ever. */
        NO_MEMORY,
        /** It goes out while it works, and begins again. */
        RESETS,
        /** The third rail leaks. */
        LEAKS
    }

    private static final double STEP_S = 0.02;
    private final double supplyV;
    private final double limitA;
    private final Fault fault;

    public SimulatedStart(double supplyV, double limitA, Fault fault) {
        this.supplyV = supplyV;
        this.limitA = limitA;
        this.fault = fault;
    }

    public CurrentTrace.Conditions conditions() {
        return new CurrentTrace.Conditions(Optional.of(supplyV), Optional.of(limitA), "battery out");
    }

    /** Watts so long after the button, the load of one board. */
    private double watts(double t, double[] unit, Random random) {
        if (t < 0 || fault == Fault.DEAD) {
            return 0.04;
        }
        double reset = 8.2 * unit[1];
        double s = fault == Fault.RESETS && t > reset ? (t - reset) % (reset + 1.5) - 1.5 : t;
        if (s < 0) {
            return 0.05;
        }
        double p = 0.6 * unit[0] + 2.2 * Math.exp(-s / 0.06);
        if (s > 0.8 * unit[1]) {
            p += fault == Fault.SHORTED ? 200 : 1.3 * unit[2];
        }
        if (s > 1.6 * unit[1]) {
            p += (fault == Fault.LEAKS ? 3.2 : 0.9) * unit[3];
        }
        if (fault == Fault.NO_MEMORY) {
            return p;
        }
        double working = 3.4 * unit[1];
        double rest = working + 9 * unit[4];
        if (s > working && s < rest) {
            double burst = Math.sin(s * 7.3) + Math.sin(s * 3.1 + 1) > 0.7 ? 2.6 : 0;
            p += 4.2 * unit[5] + burst + 0.2 * random.nextGaussian();
        } else if (s >= rest) {
            p += 0.7 * unit[5] + (s % 5 < 0.15 ? 1.2 : 0);
        }
        return p;
    }

    /** @param seed of the board: boards of one type differ by some per cent. @param seconds from the button on, after two before it */
    public CurrentTrace trace(long seed, double seconds) {
        var random = new Random(seed);
        double[] unit = new double[6];
        for (int i = 0; i < unit.length; i++) {
            unit[i] = Math.exp(0.04 * random.nextGaussian());
        }
        List<double[]> out = new ArrayList<>();
        double amp = 0;
        for (int k = 0; k * STEP_S < seconds + 2; k++) {
            double t = k * STEP_S - 2;
            double wanted = Math.min(limitA, watts(t, unit, random) / supplyV);
            amp += (wanted - amp) * (1 - Math.exp(-STEP_S / 0.03));
            out.add(new double[]{t + 2, Math.max(0, amp + 0.002 * random.nextGaussian())});
        }
        return new CurrentTrace(out.stream().mapToDouble(p -> p[0]).toArray(),
                out.stream().mapToDouble(p -> p[1]).toArray(), conditions());
    }
}
