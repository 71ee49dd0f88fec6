package org.greenbead.core.inspect;

import java.util.Arrays;

/** Light that fades over a picture: a plane through the logarithms of what like places show, by Tukey's weights. */
final class Evenness {
    private static final int TURNS = 14;
    private static final double LEAST = 1e-4;
    private static final double TUKEY = 4.7;
    /** Narrowed to this: a quarter of the places may look otherwise for one and the same reason. */
    private static final double NARROW = 2;
    private static final double TIGHT = 0.02;
    private final double[] plane;
    private final double x0;
    private final double y0;
    private final double reach;

    /** Places x, y in the picture, and the light there; four and more of them for a slope. */
    Evenness(double[] x, double[] y, double[] light) {
        x0 = Arrays.stream(x).average().orElse(0);
        y0 = Arrays.stream(y).average().orElse(0);
        double far = 1;
        for (int i = 0; i < x.length; i++) {
            far = Math.max(far, Math.max(Math.abs(x[i] - x0), Math.abs(y[i] - y0)));
        }
        reach = far;
        double[] logs = Arrays.stream(light).map(v -> Math.log(Math.max(LEAST, v))).toArray();
        double[] now = {BeadCheck.median(logs), 0, 0};
        for (int turn = 0; turn < TURNS && x.length > 3; turn++) {
            double[] miss = new double[x.length];
            double[] sized = new double[x.length];
            for (int i = 0; i < x.length; i++) {
                miss[i] = logs[i] - now[0] - now[1] * (x[i] - x0) / reach - now[2] * (y[i] - y0) / reach;
                sized[i] = Math.abs(miss[i]);
            }
            double cut = Math.max(NARROW, TUKEY - 0.4 * turn) * 1.48
                    * Math.max(TIGHT, BeadCheck.median(sized));
            double[][] normal = new double[3][3];
            double[] right = new double[3];
            for (int i = 0; i < x.length; i++) {
                double q = miss[i] / cut;
                if (Math.abs(q) >= 1) {
                    continue;
                }
                double w = (1 - q * q) * (1 - q * q);
                double[] row = {1, (x[i] - x0) / reach, (y[i] - y0) / reach};
                for (int a = 0; a < 3; a++) {
                    right[a] += w * row[a] * miss[i];
                    for (int b = 0; b < 3; b++) {
                        normal[a][b] += w * row[a] * row[b];
                    }
                }
            }
            double[] step = Solve.spd(normal, right);
            if (step == null) {
                break;
            }
            for (int a = 0; a < 3; a++) {
                now[a] += step[a];
            }
        }
        plane = now;
    }

    /** The usual light at a place. */
    double at(double x, double y) {
        return Math.exp(plane[0] + plane[1] * (x - x0) / reach + plane[2] * (y - y0) / reach);
    }
}
