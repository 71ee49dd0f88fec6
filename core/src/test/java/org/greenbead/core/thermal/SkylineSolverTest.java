package org.greenbead.core.thermal;

import static org.testng.Assert.assertEquals;

import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class SkylineSolverTest {
    @DataProvider
    Object[][] systems() {
        return new Object[][]{{"one unknown", 1, 0, 1L}, {"tridiagonal", 12, 1, 2L}, {"banded", 40, 5, 3L},
                {"full", 25, 25, 4L}, {"ragged", 60, -1, 5L}};
    }

    /** The solution is put in first, so the answer is known. */
    @Test(dataProvider = "systems")
    public void solvesWhatWasPutIn(String name, int n, int band, long seed) {
        var random = new Random(seed);
        double[][] a = new double[n][n];
        int[] first = new int[n];
        for (int i = 0; i < n; i++) {
            int reach = band >= 0 ? band : random.nextInt(i + 1);
            first[i] = Math.max(0, i - reach);
            for (int j = first[i]; j < i; j++) {
                a[i][j] = -random.nextDouble();
                a[j][i] = a[i][j];
            }
        }
        for (int i = 0; i < n; i++) {
            a[i][i] = 0.5 + random.nextDouble();
            for (int j = 0; j < n; j++) {
                a[i][i] += i == j ? 0 : Math.abs(a[i][j]);
            }
        }
        double[] wanted = random.doubles(n, -100, 300).toArray();
        double[] x = new double[n];
        for (int i = 0; i < n; i++) {
            for (int j = 0; j < n; j++) {
                x[i] += a[i][j] * wanted[j];
            }
        }
        var solver = new SkylineSolver(first);
        for (int round = 0; round < 2; round++) {
            double[] y = x.clone();
            solver.clear();
            for (int i = 0; i < n; i++) {
                solver.addDiagonal(i, a[i][i]);
                for (int j = first[i]; j < i; j++) {
                    solver.add(j, i, a[i][j]);
                }
            }
            solver.solve(y);
            for (int i = 0; i < n; i++) {
                assertEquals(y[i], wanted[i], 1e-8, name + " unknown " + i + " round " + round);
            }
        }
    }
}
