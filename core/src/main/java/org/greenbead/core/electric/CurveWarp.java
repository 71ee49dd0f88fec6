package org.greenbead.core.electric;

/**
 * Dynamic time warping of a stage onto the same stage of a reference (Sakoe and Chiba 1978, Dynamic programming algorithm optimization for
 * spoken word recognition), ends on ends, with a cost that ends at three standard deviations.
 */
final class CurveWarp {
    private static final double MOST_COST = 4.5;
    /** A cell off by more standard deviations is one that does not fit. */
    private static final double UNFIT = 2.5;

    private CurveWarp() {
    }

    /** @param place where on the reference each cell lies, @param unfit whether it does not fit there */
    record Laid(int[] place, boolean[] unfit) {}

    /** @param sd of a cell, A */
    static Laid of(double[] x, double[] r, double sd) {
        int n = x.length;
        int m = r.length;
        double[][] sum = new double[n][m];
        for (int i = 0; i < n; i++) {
            for (int j = 0; j < m; j++) {
                double both = i > 0 && j > 0 ? sum[i - 1][j - 1] : Double.MAX_VALUE;
                double held = i > 0 ? sum[i - 1][j] : Double.MAX_VALUE;
                double skipped = j > 0 ? sum[i][j - 1] : Double.MAX_VALUE;
                double before = i == 0 && j == 0 ? 0 : Math.min(both, Math.min(held, skipped));
                sum[i][j] = before + cost(x[i], r[j], sd);
            }
        }
        int[] place = new int[n];
        boolean[] unfit = new boolean[n];
        int i = n - 1;
        int j = m - 1;
        while (i >= 0) {
            // Of several cells of the reference that one lies on, the nearest counts.
            int best = j;
            while (j > 0 && (i == 0 || sum[i][j - 1] < Math.min(sum[i - 1][j - 1], sum[i - 1][j]))) {
                j--;
                best = Math.abs(x[i] - r[j]) < Math.abs(x[i] - r[best]) ? j : best;
            }
            place[i] = best;
            unfit[i] = Math.abs(x[i] - r[best]) > UNFIT * sd;
            if (i > 0 && j > 0 && sum[i - 1][j - 1] <= sum[i - 1][j]) {
                j--;
            }
            i--;
        }
        return new Laid(place, unfit);
    }

    private static double cost(double x, double r, double sd) {
        double z = (x - r) / sd;
        return Math.min(z * z / 2, MOST_COST);
    }
}
