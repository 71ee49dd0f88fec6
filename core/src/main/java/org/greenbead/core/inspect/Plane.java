package org.greenbead.core.inspect;

import java.util.stream.IntStream;

/** One channel of a picture. Not to be changed once it is shared. */
final class Plane {
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
        double fx = Math.clamp(x - 0.5, 0, width - 1.001);
        double fy = Math.clamp(y - 0.5, 0, height - 1.001);
        int ix = (int) fx;
        int iy = (int) fy;
        double ax = fx - ix;
        double ay = fy - iy;
        int i = iy * width + ix;
        return (v[i] * (1 - ax) + v[i + 1] * ax) * (1 - ay)
                + (v[i + width] * (1 - ax) + v[i + width + 1] * ax) * ay;
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
            int row = y * width;
            for (int x = 0; x < width; x++) {
                float best = v[row + x];
                for (int k = Math.max(0, x - reach); k <= Math.min(width - 1, x + reach); k++) {
                    best = most ? Math.max(best, v[row + k]) : Math.min(best, v[row + k]);
                }
                across.v[row + x] = best;
            }
        });
        var out = new Plane(width, height);
        IntStream.range(0, height).parallel().forEach(y -> {
            int row = y * width;
            System.arraycopy(across.v, row, out.v, row, width);
            for (int k = Math.max(0, y - reach); k <= Math.min(height - 1, y + reach); k++) {
                int from = k * width;
                for (int x = 0; x < width; x++) {
                    out.v[row + x] = most
                            ? Math.max(out.v[row + x], across.v[from + x])
                            : Math.min(out.v[row + x], across.v[from + x]);
                }
            }
        });
        return out;
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
        var across = new Plane(width, height);
        IntStream.range(0, height).parallel().forEach(y -> {
            int row = y * width;
            for (int x = 0; x < width; x++) {
                float total = 0;
                if (x >= reach && x < width - reach) {
                    for (int k = -reach; k <= reach; k++) {
                        total += kernel[k + reach] * v[row + x + k];
                    }
                } else {
                    for (int k = -reach; k <= reach; k++) {
                        total += kernel[k + reach] * v[row + Math.clamp(x + k, 0, width - 1)];
                    }
                }
                across.v[row + x] = total;
            }
        });
        var out = new Plane(width, height);
        IntStream.range(0, height).parallel().forEach(y -> {
            int row = y * width;
            for (int k = -reach; k <= reach; k++) {
                int from = Math.clamp(y + k, 0, height - 1) * width;
                float weight = kernel[k + reach];
                for (int x = 0; x < width; x++) {
                    out.v[row + x] += weight * across.v[from + x];
                }
            }
        });
        return out;
    }
}
