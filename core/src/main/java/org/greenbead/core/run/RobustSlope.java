package org.greenbead.core.run;

import java.util.Arrays;

/** Slope of a short noisy window: the median of all pairwise slopes (Theil 1950, Sen 1968); up to 29 % outliers leave it alone. */
final class RobustSlope {
    private RobustSlope() {
    }

    /** @return slope per unit of x, NaN with fewer than three points */
    static double of(double[] x, double[] y) {
        int n = x.length;
        if (n < 3) {
            return Double.NaN;
        }
        double[] slopes = new double[n * (n - 1) / 2];
        int count = 0;
        for (int i = 0; i < n; i++) {
            for (int j = i + 1; j < n; j++) {
                if (x[j] > x[i]) {
                    slopes[count++] = (y[j] - y[i]) / (x[j] - x[i]);
                }
            }
        }
        if (count == 0) {
            return Double.NaN;
        }
        Arrays.sort(slopes, 0, count);
        return count % 2 == 1 ? slopes[count / 2] : (slopes[count / 2 - 1] + slopes[count / 2]) / 2;
    }
}
