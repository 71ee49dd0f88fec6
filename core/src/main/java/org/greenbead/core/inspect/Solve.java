package org.greenbead.core.inspect;

/** Small symmetric systems, solved in place of a library's matrices where it happens a million times. */
final class Solve {
    private Solve() {
    }

    /** Cholesky. @return null when the matrix is not positive definite */
    static double[] spd(double[][] matrix, double[] right) {
        int n = right.length;
        double[][] l = new double[n][n];
        for (int i = 0; i < n; i++) {
            for (int j = 0; j <= i; j++) {
                double sum = matrix[i][j];
                for (int k = 0; k < j; k++) {
                    sum -= l[i][k] * l[j][k];
                }
                if (i == j) {
                    if (!(sum > 1e-14 * Math.abs(matrix[i][i]))) {
                        return null;
                    }
                    l[i][i] = Math.sqrt(sum);
                } else {
                    l[i][j] = sum / l[j][j];
                }
            }
        }
        double[] x = new double[n];
        for (int i = 0; i < n; i++) {
            double sum = right[i];
            for (int k = 0; k < i; k++) {
                sum -= l[i][k] * x[k];
            }
            x[i] = sum / l[i][i];
        }
        for (int i = n - 1; i >= 0; i--) {
            for (int k = i + 1; k < n; k++) {
                x[i] -= l[k][i] * x[k];
            }
            x[i] /= l[i][i];
        }
        return x;
    }
}
