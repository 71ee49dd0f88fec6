package org.greenbead.core.electric;

import java.util.ArrayList;
import java.util.List;

/**
 * Stages of a start-up: the stretches of nearly even current that explain the curve best, every further one at a price (optimal partitioning,
 * Jackson et al. 2005, An algorithm for optimal partitioning of data on an interval; least squares about the mean of each).
 */
final class StartStages {
    /** A step of so much of the peak that lasts a second is a stage of its own. */
    private static final double STEP_PART = 0.09;
    private static final double SHORTEST_S = 0.5;
    private static final int MOST = 9;
    private static final double BURST_S = 0.7;
    private static final double SAME_PART = 0.5;
    /** Neighbours that differ by less of the peak are one. */
    private static final double ALIKE_PART = 0.09;

    private StartStages() {
    }

    /** From cell to cell, its mean. */
    record Stretch(int from, int to, double meanA) {
        int length() {
            return to - from;
        }
    }

    static List<Stretch> of(double[] cells, double cellS) {
        int n = cells.length;
        int shortest = Math.max(1, (int) Math.round(SHORTEST_S / cellS));
        double[] sum = new double[n + 1];
        double[] squares = new double[n + 1];
        double peak = 0;
        double[] steps = new double[Math.max(1, n - 1)];
        for (int i = 0; i < n; i++) {
            sum[i + 1] = sum[i] + cells[i];
            squares[i + 1] = squares[i] + cells[i] * cells[i];
            peak = Math.max(peak, cells[i]);
            if (i > 0) {
                steps[i - 1] = Math.abs(cells[i] - cells[i - 1]);
            }
        }
        // Median absolute difference of neighbours to a standard deviation of the noise: 0.6745 times the root of 2.
        java.util.Arrays.sort(steps);
        double noise = steps[steps.length / 2] / 0.954;
        double price = STEP_PART * STEP_PART * peak * peak / cellS
                + 3 * noise * noise * Math.log(Math.max(2, n));
        double[] best = new double[n + 1];
        int[] cut = new int[n + 1];
        java.util.Arrays.fill(best, Double.MAX_VALUE);
        best[0] = -price;
        for (int to = shortest; to <= n; to++) {
            for (int from = 0; from <= to - shortest; from++) {
                if (best[from] == Double.MAX_VALUE) {
                    continue;
                }
                double total = sum[to] - sum[from];
                double cost = best[from] + price + squares[to] - squares[from]
                        - total * total / (to - from);
                if (cost < best[to]) {
                    best[to] = cost;
                    cut[to] = from;
                }
            }
        }
        var out = new ArrayList<Stretch>();
        for (int to = n; to > 0 && best[n] < Double.MAX_VALUE; to = cut[to]) {
            out.addFirst(new Stretch(cut[to], to, (sum[to] - sum[cut[to]]) / (to - cut[to])));
        }
        if (out.isEmpty()) {
            out.add(new Stretch(0, n, sum[n] / n));
        }
        bursts(out, (int) Math.round(BURST_S / cellS));
        merge(out, ALIKE_PART * peak);
        return List.copyOf(out);
    }

    /** A short stretch between two that are alike is a burst of work, no stage. */
    private static void bursts(List<Stretch> all, int most) {
        for (int i = 1; i + 1 < all.size(); i++) {
            Stretch a = all.get(i - 1);
            Stretch b = all.get(i);
            Stretch c = all.get(i + 1);
            double out = Math.min(Math.abs(b.meanA() - a.meanA()), Math.abs(b.meanA() - c.meanA()));
            if (b.length() <= most && Math.abs(a.meanA() - c.meanA()) < SAME_PART * out) {
                all.set(i - 1, joined(joined(a, b), c));
                all.subList(i, i + 2).clear();
                i = Math.max(0, i - 2);
            }
        }
    }

    private static Stretch joined(Stretch a, Stretch b) {
        return new Stretch(a.from(), b.to(),
                (a.meanA() * a.length() + b.meanA() * b.length()) / (a.length() + b.length()));
    }

    /** Neighbours that are alike, and the most alike while there are too many. */
    private static void merge(List<Stretch> all, double alike) {
        while (all.size() > 1) {
            int least = 0;
            for (int i = 0; i + 1 < all.size(); i++) {
                if (apart(all, i) < apart(all, least)) {
                    least = i;
                }
            }
            if (apart(all, least) >= alike && all.size() <= MOST) {
                return;
            }
            Stretch a = all.get(least);
            all.set(least, joined(a, all.remove(least + 1)));
        }
    }

    private static double apart(List<Stretch> all, int i) {
        return Math.abs(all.get(i).meanA() - all.get(i + 1).meanA());
    }
}
