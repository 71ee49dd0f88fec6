package org.greenbead.core.inspect;

import java.util.stream.IntStream;

/** One channel of a picture. Not to be changed once it is shared. */
final class Plane {
    private static final int STRIP = 48;
    private static final int COLUMNS = 256;
    final int width;
    final int height;
    final float[] v;

    Plane(int width, int height, float[] v) {
        this.width = width;
        this.height = height;
        this.v = v;
    }

    Plane(int width, int height) {
        this(width, height, new float[width * height]);
    }

    /** Value at a continuous place, linear between the middles of pixels; the border goes on outside. */
    double at(double x, double y) {
        double fx = x - 0.5 > 0 ? Math.min(x - 0.5, width - 1.001) : 0;
        double fy = y - 0.5 > 0 ? Math.min(y - 0.5, height - 1.001) : 0;
        int ix = (int) fx;
        int iy = (int) fy;
        double ax = fx - ix;
        double ay = fy - iy;
        int i = iy * width + ix;
        return (v[i] * (1 - ax) + v[i + 1] * ax) * (1 - ay)
                + (v[i + width] * (1 - ax) + v[i + width + 1] * ax) * ay;
    }

    /** Values at even steps along a line. */
    void along(double x, double y, double stepX, double stepY, double[] out) {
        int last = out.length - 1;
        if (!holds(x, y, 1.5) || !holds(x + last * stepX, y + last * stepY, 1.5)) {
            for (int k = 0; k <= last; k++) {
                out[k] = at(x + k * stepX, y + k * stepY);
            }
            return;
        }
        for (int k = 0; k <= last; k++) {
            double fx = x - 0.5 + k * stepX;
            double fy = y - 0.5 + k * stepY;
            int ix = (int) fx;
            int iy = (int) fy;
            double ax = fx - ix;
            double ay = fy - iy;
            int i = iy * width + ix;
            double low = v[i] + ax * (v[i + 1] - v[i]);
            double high = v[i + width] + ax * (v[i + width + 1] - v[i + width]);
            out[k] = low + ay * (high - low);
        }
    }

    boolean holds(double x, double y, double margin) {
        return x >= margin && y >= margin && x <= width - margin && y <= height - margin;
    }

    Plane cut(int left, int top, int w, int h) {
        var out = new Plane(w, h);
        for (int y = 0; y < h; y++) {
            System.arraycopy(v, (top + y) * width + left, out.v, y * w, w);
        }
        return out;
    }

    /** What is seen of the rows from one on, made anew. */
    interface Strip {
        Plane of(int top, int rows);
    }

    /**
     * A plane of this size made strip by strip.
     *
     * @param margin rows above and below that a row depends on
     */
    Plane inStrips(int margin, Strip strip) {
        var out = new Plane(width, height);
        int count = (height + STRIP - 1) / STRIP;
        IntStream.range(0, count).parallel().forEach(i -> {
            int from = i * STRIP;
            int rows = Math.min(STRIP, height - from);
            int top = Math.max(0, from - margin);
            int low = Math.min(height, from + rows + margin);
            Plane made = strip.of(top, low - top);
            System.arraycopy(made.v, (from - top) * width, out.v, from * width, rows * width);
        });
        return out;
    }

    /** Half the size, mean of four. */
    Plane half() {
        var out = new Plane(Math.max(2, width / 2), Math.max(2, height / 2));
        IntStream.range(0, out.height).parallel().forEach(y -> {
            for (int x = 0; x < out.width; x++) {
                int i = Math.min(2 * y, height - 2) * width + Math.min(2 * x, width - 2);
                out.v[y * out.width + x] = (v[i] + v[i + 1] + v[i + width] + v[i + width + 1]) / 4;
            }
        });
        return out;
    }

    /** Without what is bright and narrower than {@code 2 reach + 1} pixels (grey opening by a square; Serra 1982). */
    Plane opened(int reach) {
        return swept(reach, false).swept(reach, true);
    }

    private Plane swept(int reach, boolean most) {
        var across = new Plane(width, height);
        IntStream.range(0, height).parallel().forEach(y -> {
            float[] row = padded(y, reach);
            float[] shifted = new float[row.length];
            int span = 1;
            for (; 2 * span <= 2 * reach + 1; span *= 2) {
                System.arraycopy(row, span, shifted, 0, row.length - span);
                further(row, shifted, row.length - span, most);
            }
            int rest = 2 * reach + 1 - span;
            System.arraycopy(row, rest, shifted, 0, width);
            further(row, shifted, width, most);
            System.arraycopy(row, 0, across.v, y * width, width);
        });
        var out = new Plane(width, height);
        IntStream.range(0, (width + COLUMNS - 1) / COLUMNS).parallel()
                .forEach(i -> down(across, i * COLUMNS, reach, most, out));
        return out;
    }

    /** The most or least of rows above and below, in a strip of columns: windows of twice the height from two of the height before (van Droogenbroeck and Buckley 2005). */
    private static void down(Plane in, int left, int reach, boolean most, Plane out) {
        int wide = Math.min(COLUMNS, in.width - left);
        float[][] rows = new float[in.height + 2 * reach][wide];
        for (int k = 0; k < rows.length; k++) {
            int y = Math.clamp(k - reach, 0, in.height - 1);
            System.arraycopy(in.v, y * in.width + left, rows[k], 0, wide);
        }
        int span = 1;
        for (; 2 * span <= 2 * reach + 1; span *= 2) {
            for (int k = 0; k + span < rows.length; k++) {
                further(rows[k], rows[k + span], wide, most);
            }
        }
        int rest = 2 * reach + 1 - span;
        for (int y = 0; y < in.height; y++) {
            further(rows[y], rows[y + rest], wide, most);
            System.arraycopy(rows[y], 0, out.v, y * in.width + left, wide);
        }
    }

    /** Arrays that begin together: only such loops become vector instructions. */
    private static void further(float[] best, float[] more, int count, boolean most) {
        if (most) {
            for (int x = 0; x < count; x++) {
                best[x] = Math.max(best[x], more[x]);
            }
        } else {
            for (int x = 0; x < count; x++) {
                best[x] = Math.min(best[x], more[x]);
            }
        }
    }

    /** A row with its ends going on to both sides. */
    private float[] padded(int y, int reach) {
        float[] row = new float[width + 2 * reach];
        System.arraycopy(v, y * width, row, reach, width);
        java.util.Arrays.fill(row, 0, reach, v[y * width]);
        java.util.Arrays.fill(row, width + reach, row.length, v[(y + 1) * width - 1]);
        return row;
    }

    /** Smoothed by a Gaussian of this many pixels. */
    Plane smooth(double sigma) {
        int reach = Math.max(1, (int) Math.ceil(2.8 * sigma));
        var kernel = new float[2 * reach + 1];
        double sum = 0;
        for (int i = -reach; i <= reach; i++) {
            kernel[i + reach] = (float) Math.exp(-i * i / (2 * sigma * sigma));
            sum += kernel[i + reach];
        }
        for (int i = 0; i < kernel.length; i++) {
            kernel[i] /= (float) sum;
        }
        float[][] across = new float[height][];
        IntStream.range(0, height).parallel().forEach(y -> {
            float[] row = padded(y, reach);
            float[] left = new float[width];
            float[] right = new float[width];
            float[] total = new float[width];
            for (int k = 0; k < reach; k++) {
                System.arraycopy(row, k, left, 0, width);
                System.arraycopy(row, 2 * reach - k, right, 0, width);
                weighed(total, kernel[k], left, right);
            }
            System.arraycopy(row, reach, left, 0, width);
            weighed(total, kernel[reach], left);
            across[y] = total;
        });
        var out = new Plane(width, height);
        IntStream.range(0, height).parallel().forEach(y -> {
            float[] total = new float[width];
            for (int k = 0; k < reach; k++) {
                weighed(total, kernel[k], across[Math.max(0, y + k - reach)],
                        across[Math.min(height - 1, y + reach - k)]);
            }
            weighed(total, kernel[reach], across[y]);
            System.arraycopy(total, 0, out.v, y * width, width);
        });
        return out;
    }

    private static void weighed(float[] total, float weight, float[] a, float[] b) {
        for (int x = 0; x < total.length; x++) {
            total[x] += weight * (a[x] + b[x]);
        }
    }

    private static void weighed(float[] total, float weight, float[] a) {
        for (int x = 0; x < total.length; x++) {
            total[x] += weight * a[x];
        }
    }
}
