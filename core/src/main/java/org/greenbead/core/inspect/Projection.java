package org.greenbead.core.inspect;

import java.util.Optional;
import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.LUDecomposition;

/**
 * From the plane of a chip, mm, to a picture, px: a homography (eight numbers) and one radial term of the lens about the middle of the
 * picture. x = (a0 X + a1 Y + a2) / (1 + a6 X + a7 Y), y likewise; then p = c + (q - c)(1 + k |q - c|² / R²) with R half the diagonal.
 */
public final class Projection {
    private final double[] a;
    private final double cx;
    private final double cy;
    private final double reach2;

    private Projection(double[] a, double cx, double cy, double reach2) {
        this.a = a;
        this.cx = cx;
        this.cy = cy;
        this.reach2 = reach2;
    }

    private Projection with(double[] numbers) {
        return new Projection(numbers, cx, cy, reach2);
    }

    /** The same for a picture of which so much was cut off at the left and at the top. */
    Projection cut(double left, double top) {
        return new Projection(
                new double[]{a[0] - left * a[6], a[1] - left * a[7], a[2] - left, a[3] - top * a[6],
                        a[4] - top * a[7], a[5] - top, a[6], a[7], a[8]},
                cx - left, cy - top, reach2);
    }

    static Projection affine(double xx, double xy, double x0, double yx, double yy, double y0, int width,
            int height) {
        return new Projection(new double[]{xx, xy, x0, yx, yy, y0, 0, 0, 0}, width / 2.0, height / 2.0,
                (width * (double) width + height * (double) height) / 4);
    }

    /** The same for a map that lies this far beside. */
    Projection shifted(double dx, double dy) {
        double w = 1 + a[6] * dx + a[7] * dy;
        return with(new double[]{a[0] / w, a[1] / w, (a[2] + a[0] * dx + a[1] * dy) / w, a[3] / w, a[4] / w,
                (a[5] + a[3] * dx + a[4] * dy) / w, a[6] / w, a[7] / w, a[8]});
    }

    public double xPx(double xMm, double yMm) {
        return place(a, xMm, yMm)[0];
    }

    public double yPx(double xMm, double yMm) {
        return place(a, xMm, yMm)[1];
    }

    private double[] place(double[] p, double x, double y) {
        double w = 1 + p[6] * x + p[7] * y;
        double u = (p[0] * x + p[1] * y + p[2]) / w - cx;
        double v = (p[3] * x + p[4] * y + p[5]) / w - cy;
        double lens = 1 + p[8] * (u * u + v * v) / reach2;
        return new double[]{cx + u * lens, cy + v * lens};
    }

    /** d(px)/d(mm): xx, xy, yx, yy. */
    double[] jacobian(double x, double y) {
        double h = 1e-3;
        double[] right = place(a, x + h, y);
        double[] left = place(a, x - h, y);
        double[] up = place(a, x, y + h);
        double[] down = place(a, x, y - h);
        return new double[]{(right[0] - left[0]) / (2 * h), (up[0] - down[0]) / (2 * h),
                (right[1] - left[1]) / (2 * h), (up[1] - down[1]) / (2 * h)};
    }

    /** Pixels to a millimetre across the line of sight: the larger singular value, which a tilt does not shorten. */
    public double pxPerMm(double x, double y) {
        double[] j = jacobian(x, y);
        double s = j[0] * j[0] + j[1] * j[1] + j[2] * j[2] + j[3] * j[3];
        double det = j[0] * j[3] - j[1] * j[2];
        return Math.sqrt((s + Math.sqrt(Math.max(0, s * s - 4 * det * det))) / 2);
    }

    /** Tilt that the shortening at a place speaks of, degrees. */
    public double tiltDeg(double x, double y) {
        double[] j = jacobian(x, y);
        double s = j[0] * j[0] + j[1] * j[1] + j[2] * j[2] + j[3] * j[3];
        double det = Math.abs(j[0] * j[3] - j[1] * j[2]);
        double root = Math.sqrt(Math.max(0, s * s - 4 * det * det));
        return Math.toDegrees(Math.acos(Math.clamp(Math.sqrt((s - root) / (s + root)), 0, 1)));
    }

    /** A small way in pixels as millimetres on the chip. */
    double[] mm(double x, double y, double dxPx, double dyPx) {
        double[] j = jacobian(x, y);
        double det = j[0] * j[3] - j[1] * j[2];
        return new double[]{(j[3] * dxPx - j[1] * dyPx) / det, (j[0] * dyPx - j[2] * dxPx) / det};
    }

    /** The place on the chip that is seen at a pixel. */
    public double[] toMm(double xPx, double yPx) {
        double x = 0;
        double y = 0;
        for (int i = 0; i < 12; i++) {
            double[] p = place(a, x, y);
            double[] step = mm(x, y, xPx - p[0], yPx - p[1]);
            x += step[0];
            y += step[1];
        }
        return new double[]{x, y};
    }

    /** How many numbers are fitted. */
    enum Form {
        AFFINE(6), PLANE(8), LENS(9);

        final int numbers;

        Form(int numbers) {
            this.numbers = numbers;
        }
    }

    /**
     * Gauss-Newton from here with Tukey's weights, the width from the median residual: a third of outliers does no harm.
     *
     * @param mm two numbers a point
     * @param px two numbers a point
     */
    Optional<Projection> fitted(double[][] mm, double[][] px, Form form) {
        int n = form.numbers;
        if (2 * mm.length < n + 4) {
            return Optional.empty();
        }
        double[] p = a.clone();
        // Columns differ by orders of magnitude: steps are scaled.
        double wide = 0;
        for (double[] m : mm) {
            wide = Math.max(wide, m[0] * m[0] + m[1] * m[1]);
        }
        wide = Math.sqrt(wide);
        double[] scale = {1, 1, 1, 1, 1, 1, 1 / (wide + 1e-9) * 1e-2, 1 / (wide + 1e-9) * 1e-2, 1e-2};
        for (int turn = 0; turn < 12; turn++) {
            double[] residual = new double[mm.length];
            double[][] at = new double[mm.length][];
            for (int i = 0; i < mm.length; i++) {
                at[i] = place(p, mm[i][0], mm[i][1]);
                double dx = at[i][0] - px[i][0];
                double dy = at[i][1] - px[i][1];
                residual[i] = Math.sqrt(dx * dx + dy * dy);
            }
            double[] sorted = residual.clone();
            java.util.Arrays.sort(sorted);
            double cut = Math.max(0.3, 4.7 * 1.1 * sorted[sorted.length / 2]);
            double[][] normal = new double[n][n];
            double[] right = new double[n];
            for (int i = 0; i < mm.length; i++) {
                double q = residual[i] / cut;
                if (q >= 1) {
                    continue;
                }
                double weight = (1 - q * q) * (1 - q * q);
                double[][] slope = slope(p, mm[i], scale, n);
                for (int axis = 0; axis < 2; axis++) {
                    double miss = px[i][axis] - at[i][axis];
                    for (int r = 0; r < n; r++) {
                        right[r] += weight * slope[axis][r] * miss;
                        for (int c = 0; c < n; c++) {
                            normal[r][c] += weight * slope[axis][r] * slope[axis][c];
                        }
                    }
                }
            }
            for (int r = 0; r < n; r++) {
                normal[r][r] *= 1 + 1e-9;
                normal[r][r] += 1e-12;
            }
            double[] step;
            try {
                step = new LUDecomposition(new Array2DRowRealMatrix(normal, false)).getSolver()
                        .solve(new ArrayRealVector(right, false)).toArray();
            } catch (MathRuntimeException singular) {
                return Optional.empty();
            }
            double size = 0;
            for (int r = 0; r < n; r++) {
                p[r] += step[r] * scale[r];
                size += Math.abs(step[r]);
            }
            if (!Double.isFinite(size)) {
                return Optional.empty();
            }
            if (size < 1e-7) {
                break;
            }
        }
        return Optional.of(with(p));
    }

    /** How a place in the picture answers to the numbers, each in its scale. */
    private double[][] slope(double[] p, double[] mm, double[] scale, int n) {
        double w = 1 + p[6] * mm[0] + p[7] * mm[1];
        double plainX = (p[0] * mm[0] + p[1] * mm[1] + p[2]) / w;
        double plainY = (p[3] * mm[0] + p[4] * mm[1] + p[5]) / w;
        double u = plainX - cx;
        double v = plainY - cy;
        double k = p[8] / reach2;
        double far = u * u + v * v;
        double xu = 1 + k * far + 2 * k * u * u;
        double cross = 2 * k * u * v;
        double yv = 1 + k * far + 2 * k * v * v;
        double[] by = {mm[0] / w, mm[1] / w, 1 / w};
        var slope = new double[2][n];
        for (int c = 0; c < 3; c++) {
            slope[0][c] = xu * by[c] * scale[c];
            slope[1][c] = cross * by[c] * scale[c];
            slope[0][c + 3] = cross * by[c] * scale[c + 3];
            slope[1][c + 3] = yv * by[c] * scale[c + 3];
        }
        for (int c = 6; c < Math.min(n, 8); c++) {
            double du = -plainX * by[c - 6];
            double dv = -plainY * by[c - 6];
            slope[0][c] = (xu * du + cross * dv) * scale[c];
            slope[1][c] = (cross * du + yv * dv) * scale[c];
        }
        if (n > 8) {
            slope[0][8] = u * far / reach2 * scale[8];
            slope[1][8] = v * far / reach2 * scale[8];
        }
        return slope;
    }
}
