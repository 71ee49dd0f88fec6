package org.greenbead.core.run;

import java.util.Arrays;
import java.util.List;

/**
 * What one quantity that was measured says of every cell of an ensemble: all cells follow by their covariance with it. The covariance is shrunk by what a
 * sample correlation of this size can be by chance, 1 - 1/((n-1) r^2), nothing below one standard error, which keeps far cells from following noise.
 */
final class CellRegression {
    private final double[][] celsius;
    private final double[] mean;
    private final double[] product;
    private final double[] square;
    private final double[] byK;

    CellRegression(int members, int cells) {
        celsius = new double[members][cells];
        mean = new double[cells];
        product = new double[cells];
        square = new double[cells];
        byK = new double[cells];
    }

    /**
     * @param y        deviations of the quantity from its mean, by member
     * @param variance of the quantity
     * @param shiftK   from its mean to where it is now known to lie
     * @param keep     part of its standard deviation that is left
     */
    void regress(List<Twin> members, double[] y, double variance, double shiftK, double keep) {
        moments(members, y);
        int degrees = members.size() - 1;
        double[] slope = product;
        for (int i = 0; i < slope.length; i++) {
            double covariance = product[i] / degrees;
            double varianceX = square[i] / degrees;
            double r2 = covariance * covariance / (varianceX * variance);
            double trusted = covariance * Math.max(0, 1 - 1 / (degrees * r2));
            slope[i] = varianceX > 0 ? trusted / variance : 0;
        }
        for (int m = 0; m < members.size(); m++) {
            double by = shiftK - (1 - keep) * y[m];
            for (int i = 0; i < byK.length; i++) {
                byK[i] = slope[i] * by;
            }
            members.get(m).model().shiftK(byK);
        }
    }

    private void moments(List<Twin> members, double[] y) {
        int n = members.size();
        Arrays.fill(mean, 0);
        Arrays.fill(product, 0);
        Arrays.fill(square, 0);
        for (int m = 0; m < n; m++) {
            double[] at = celsius[m];
            members.get(m).model().copyCelsius(at);
            for (int i = 0; i < mean.length; i++) {
                mean[i] += at[i] / n;
            }
        }
        for (int m = 0; m < n; m++) {
            double[] at = celsius[m];
            double deviation = y[m];
            for (int i = 0; i < mean.length; i++) {
                double off = at[i] - mean[i];
                product[i] += off * deviation;
                square[i] += off * off;
            }
        }
    }
}
