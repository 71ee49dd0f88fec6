package org.greenbead.core.thermal;

import java.util.Arrays;

/**
 * Direct solution of a symmetric positive definite system whose rows reach back a short way: LDL' over the envelope
 * (George and Liu 1981, Computer Solution of Large Sparse Positive Definite Systems, chapter 4). Arrays are reused.
 */
final class SkylineSolver {
    private final int[] first;
    private final int[] rowStart;
    private final double[] entry;
    private final double[] diagonal;

    /** @param first for each row the column of its first entry, not above the row's own number */
    SkylineSolver(int[] first) {
        this.first = first.clone();
        rowStart = new int[first.length];
        int at = 0;
        for (int row = 0; row < first.length; row++) {
            rowStart[row] = at - first[row];
            at += row - first[row];
        }
        entry = new double[at];
        diagonal = new double[first.length];
    }

    void clear() {
        Arrays.fill(entry, 0);
        Arrays.fill(diagonal, 0);
    }

    void addDiagonal(int row, double value) {
        diagonal[row] += value;
    }

    void add(int a, int b, double value) {
        int row = Math.max(a, b);
        entry[rowStart[row] + Math.min(a, b)] += value;
    }

    /** Factors the matrix in place and turns the right-hand side {@code x} into the solution. */
    void solve(double[] x) {
        int n = diagonal.length;
        for (int row = 0; row < n; row++) {
            int base = rowStart[row];
            for (int col = first[row]; col < row; col++) {
                double sum = entry[base + col];
                int other = rowStart[col];
                for (int k = Math.max(first[row], first[col]); k < col; k++) {
                    sum -= entry[base + k] * entry[other + k];
                }
                entry[base + col] = sum;
            }
            double d = diagonal[row];
            for (int col = first[row]; col < row; col++) {
                double scaled = entry[base + col] / diagonal[col];
                d -= scaled * entry[base + col];
                entry[base + col] = scaled;
            }
            diagonal[row] = d;
        }
        for (int row = 0; row < n; row++) {
            double sum = x[row];
            for (int col = first[row]; col < row; col++) {
                sum -= entry[rowStart[row] + col] * x[col];
            }
            x[row] = sum;
        }
        for (int row = 0; row < n; row++) {
            x[row] /= diagonal[row];
        }
        for (int row = n - 1; row >= 0; row--) {
            for (int col = first[row]; col < row; col++) {
                x[col] -= entry[rowStart[row] + col] * x[row];
            }
        }
    }
}
