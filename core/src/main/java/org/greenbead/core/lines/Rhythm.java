package org.greenbead.core.lines;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Blinks counted by rhythm: a key is tapped with the lamp, and the longer dark times part the groups. {@code 3, 1} is three blinks, a pause, one.
 * The shorter and the longer times are told apart where the jump from one to the next, sorted and as a ratio, is the largest (the largest gap of
 * logarithms); under a ratio of 1.6 all of them are one group, as no hand is evener than that.
 */
public final class Rhythm {
    private static final double LEAST_RATIO = 1.6;
    /** A repeat of the whole code follows a pause that is longer still, by this ratio. */
    private static final double REPEAT_RATIO = 1.6;

    private Rhythm() {
    }

    /** @param tapsS times of the taps, s, in order; @return the counts of the first code, empty without a tap */
    public static List<Integer> groups(List<Double> tapsS) {
        return tapsS.isEmpty() ? List.of() : repeats(tapsS).getFirst();
    }

    /** The counts of the code each time it was followed; the last time may have been broken off. */
    public static List<List<Integer>> repeats(List<Double> tapsS) {
        if (tapsS.isEmpty()) {
            return List.of();
        }
        double[] dark = new double[tapsS.size() - 1];
        for (int i = 0; i < dark.length; i++) {
            dark[i] = tapsS.get(i + 1) - tapsS.get(i);
            if (!(dark[i] > 0)) {
                throw new IllegalArgumentException("taps have to follow one another in time");
            }
        }
        double[] limits = limits(dark);
        var all = new ArrayList<List<Integer>>();
        var groups = new ArrayList<Integer>();
        int count = 1;
        for (double gap : dark) {
            if (gap > limits[0]) {
                groups.add(count);
                count = 0;
            }
            if (gap > limits[1]) {
                all.add(List.copyOf(groups));
                groups.clear();
            }
            count++;
        }
        groups.add(count);
        all.add(List.copyOf(groups));
        return List.copyOf(all);
    }

    /** Above the first a gap parts groups, above the second it parts repeats of the code; infinite where nothing does. */
    private static double[] limits(double[] dark) {
        double[] none = {Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY};
        if (dark.length < 2) {
            return none;
        }
        double[] sorted = dark.clone();
        Arrays.sort(sorted);
        int jump = jump(sorted, 0, sorted.length);
        if (jump < 0) {
            return none;
        }
        double group = Math.sqrt(sorted[jump] * sorted[jump + 1]);
        int again = jump(sorted, jump + 1, sorted.length);
        if (again >= 0 && sorted[again + 1] / sorted[again] >= REPEAT_RATIO) {
            return new double[]{group, Math.sqrt(sorted[again] * sorted[again + 1])};
        }
        int below = jump(sorted, 0, jump + 1);
        return below >= 0
                ? new double[]{Math.sqrt(sorted[below] * sorted[below + 1]), group}
                : new double[]{group, Double.POSITIVE_INFINITY};
    }

    /** Index before the largest ratio of two neighbours; -1 where none is large enough. */
    private static int jump(double[] sorted, int from, int to) {
        int at = -1;
        double most = LEAST_RATIO;
        for (int i = from; i + 1 < to; i++) {
            double ratio = sorted[i + 1] / sorted[i];
            if (ratio >= most) {
                most = ratio;
                at = i;
            }
        }
        return at;
    }
}
