package org.greenbead.core.run;

import java.util.ArrayDeque;
import java.util.Arrays;

/** The last two minutes of one quantity, kept at two points a second however often it comes. */
final class Trace {
    private static final double KEPT_S = 120;
    private static final double SPACING_S = 0.45;
    private final ArrayDeque<double[]> points = new ArrayDeque<>();
    private double last = Double.NaN;
    private double lastTimeS = Double.NaN;
    private double sameSinceS = Double.NaN;

    void add(double timeS, double value) {
        sameSinceS = value == last ? sameSinceS : timeS;
        last = value;
        lastTimeS = timeS;
        if (!points.isEmpty() && timeS - points.getLast()[0] < SPACING_S) {
            return;
        }
        points.addLast(new double[]{timeS, value});
        while (points.getFirst()[0] < timeS - KEPT_S) {
            points.removeFirst();
        }
    }

    void clear() {
        points.clear();
        last = Double.NaN;
    }

    boolean isEmpty() {
        return points.isEmpty();
    }

    double last() {
        return last;
    }

    double lastTimeS() {
        return lastTimeS;
    }

    /** Robust slope over {@code fromS} to {@code toS}; NaN when that span is not covered by at least five points. */
    double slope(double fromS, double toS) {
        double[] x = new double[points.size()];
        double[] y = new double[points.size()];
        int n = 0;
        for (double[] p : points) {
            if (p[0] >= fromS - 1e-9 && p[0] <= toS + 1e-9) {
                x[n] = p[0];
                y[n++] = p[1];
            }
        }
        if (n < 5 || x[n - 1] - x[0] < 0.7 * (toS - fromS)) {
            return Double.NaN;
        }
        return RobustSlope.of(Arrays.copyOf(x, n), Arrays.copyOf(y, n));
    }

    /** Median over {@code aroundS} ± {@code halfS}; NaN without points there. */
    double median(double aroundS, double halfS) {
        double[] values = points.stream().filter(p -> Math.abs(p[0] - aroundS) <= halfS)
                .mapToDouble(p -> p[1]).sorted().toArray();
        return values.length == 0 ? Double.NaN : values[values.length / 2];
    }

    /** How long the value has been exactly the same, s. */
    double unchangedS() {
        return points.isEmpty() ? 0 : lastTimeS - sameSinceS;
    }

    double[] values() {
        return points.stream().mapToDouble(p -> p[1]).toArray();
    }

    double rangeSince(double timeS) {
        double[] values = points.stream().filter(p -> p[0] >= timeS).mapToDouble(p -> p[1]).toArray();
        return values.length == 0
                ? 0
                : Arrays.stream(values).max().orElseThrow() - Arrays.stream(values).min().orElseThrow();
    }
}
