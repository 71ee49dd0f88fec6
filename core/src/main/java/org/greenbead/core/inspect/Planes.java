package org.greenbead.core.inspect;

import java.util.Arrays;
import java.util.List;

/**
 * What a layer of a {@link SiteNet} hands to the next, for several views at once: plane by plane, in each plane view by view, row by row. Inner
 * loops run over whole arrays that begin together, since only those become vector instructions: what a kernel sees beside a place is copied
 * beneath it first. A sum has one order, whatever stands beside it.
 */
final class Planes {
    /** Planes of a view in the order in which the first layer adds them up: those that neighbouring sites share come first. */
    private static final int[] SHARED = {3, 4, 5};
    private static final int[] MASK = {6};
    private static final int[] OWN = {0, 1, 2};
    private static final int AT_ONCE = 8;

    private final int views;
    private final int side;
    private final float[][] v;

    private Planes(int views, int side, float[][] v) {
        this.views = views;
        this.side = side;
        this.v = v;
    }

    /** The numbers of one view, after the last layer. */
    float[] of(int view) {
        float[] out = new float[v.length];
        for (int c = 0; c < v.length; c++) {
            out[c] = v[c][view];
        }
        return out;
    }

    /** First layer: a kernel over all planes of a view, by steps. */
    static Planes wide(SiteNet.Layer l, List<float[]> all) {
        var sweep = new Sweep(l);
        int side = sweep.side;
        float[][] out = new float[l.out()][all.size() * side * side];
        float[] before = null;
        for (int n = 0; n < all.size(); n++) {
            float[] view = all.get(n);
            boolean shared = before != null && same(before, view, SHARED);
            if (!shared) {
                sweep.add(view, SHARED, sweep.begun, sweep.afterShared);
            }
            if (!shared || !same(before, view, MASK)) {
                sweep.add(view, MASK, sweep.afterShared, sweep.afterMask);
            }
            sweep.add(view, OWN, sweep.afterMask, sweep.done);
            for (int o = 0; o < l.out(); o++) {
                for (int y = 0; y < side; y++) {
                    System.arraycopy(sweep.done[o], y * sweep.wide, out[o], (n * side + y) * side, side);
                }
            }
            before = view;
        }
        return new Planes(all.size(), side, out).cut(l);
    }

    private static boolean same(float[] a, float[] b, int[] planes) {
        int size = SiteViews.SIDE * SiteViews.SIDE;
        int from = planes[0] * size;
        int to = (planes[planes.length - 1] + 1) * size;
        return Arrays.equals(a, from, to, b, from, to);
    }

    /**
     * The first layer at work on one view. Its planes are sorted by even and odd rows and columns and given a border, so that what a tap of the
     * kernel sees is one stretch of memory; what comes out beyond the rows' ends is not used.
     */
    private static final class Sweep {
        private final SiteNet.Layer layer;
        private final int step;
        private final int shift;
        final int side;
        final int wide;
        private final int length;
        private final float[] sorted;
        private final float[][] taps;
        final float[][] begun;
        final float[][] afterShared;
        final float[][] afterMask;
        final float[][] done;

        Sweep(SiteNet.Layer l) {
            layer = l;
            step = l.stride();
            shift = l.kernel() / 2 / step + 1;
            side = SiteViews.SIDE / step;
            wide = side + 2 * shift;
            length = (side - 1) * wide + side;
            sorted = new float[step * step * wide * wide];
            taps = new float[l.kernel() * l.kernel()][length];
            begun = new float[l.out()][length];
            afterShared = new float[l.out()][length];
            afterMask = new float[l.out()][length];
            done = new float[l.out()][length];
            for (int o = 0; o < l.out(); o++) {
                Arrays.fill(begun[o], l.bias()[o]);
            }
        }

        void add(float[] view, int[] planes, float[][] from, float[][] to) {
            for (int o = 0; o < layer.out(); o++) {
                System.arraycopy(from[o], 0, to[o], 0, length);
            }
            for (int c : planes) {
                sort(view, c);
                for (int k = 0; k < taps.length; k++) {
                    int dy = k / layer.kernel() - layer.kernel() / 2;
                    int dx = k % layer.kernel() - layer.kernel() / 2;
                    int part = Math.floorMod(dy, step) * step + Math.floorMod(dx, step);
                    int at = (part * wide + Math.floorDiv(dy, step) + shift) * wide
                            + Math.floorDiv(dx, step) + shift;
                    System.arraycopy(sorted, at, taps[k], 0, length);
                }
                for (int o = 0; o < layer.out(); o++) {
                    weighed(layer.weights(), (o * layer.in() + c) * taps.length, taps, to[o], length);
                }
            }
        }

        private void sort(float[] view, int c) {
            for (int y = 0; y < SiteViews.SIDE; y++) {
                int from = (c * SiteViews.SIDE + y) * SiteViews.SIDE;
                for (int k = 0; k < step; k++) {
                    int to = ((y % step * step + k) * wide + y / step + shift) * wide + shift;
                    for (int x = 0; x < side; x++) {
                        sorted[to + x] = view[from + x * step + k];
                    }
                }
            }
        }
    }

    /** Adds to a sum each of the arrays times its weight. */
    private static void weighed(float[] weights, int first, float[][] in, float[] sum, int length) {
        int k = 0;
        for (; k + AT_ONCE <= in.length; k += AT_ONCE) {
            eight(weights, first + k, in, k, sum, length);
        }
        for (; k < in.length; k++) {
            float w = weights[first + k];
            float[] a = in[k];
            for (int i = 0; i < length; i++) {
                sum[i] = Math.fma(w, a[i], sum[i]);
            }
        }
    }

    private static void eight(float[] w, int first, float[][] in, int k, float[] sum, int length) {
        float wa = w[first];
        float wb = w[first + 1];
        float wc = w[first + 2];
        float wd = w[first + 3];
        float we = w[first + 4];
        float wf = w[first + 5];
        float wg = w[first + 6];
        float wh = w[first + 7];
        float[] a = in[k];
        float[] b = in[k + 1];
        float[] c = in[k + 2];
        float[] d = in[k + 3];
        float[] e = in[k + 4];
        float[] f = in[k + 5];
        float[] g = in[k + 6];
        float[] h = in[k + 7];
        for (int i = 0; i < length; i++) {
            float low = Math.fma(wd, d[i],
                    Math.fma(wc, c[i], Math.fma(wb, b[i], Math.fma(wa, a[i], sum[i]))));
            sum[i] = Math.fma(wh, h[i], Math.fma(wg, g[i], Math.fma(wf, f[i], Math.fma(we, e[i], low))));
        }
    }

    /** A kernel of three for each plane on its own. */
    Planes each(SiteNet.Layer l) {
        int wide = side + 2;
        int area = wide * wide;
        int length = views * area - 2 * wide - 2;
        float[] padded = new float[views * area];
        float[][] taps = new float[9][length];
        float[] sum = new float[length];
        float[][] out = new float[v.length][views * side * side];
        for (int c = 0; c < v.length; c++) {
            for (int n = 0; n < views; n++) {
                for (int y = 0; y < side; y++) {
                    System.arraycopy(v[c], (n * side + y) * side, padded, n * area + (y + 1) * wide + 1,
                            side);
                }
            }
            for (int k = 0; k < taps.length; k++) {
                System.arraycopy(padded, k / 3 * wide + k % 3, taps[k], 0, length);
            }
            Arrays.fill(sum, l.bias()[c]);
            weighed(l.weights(), 9 * c, taps, sum, length);
            for (int n = 0; n < views; n++) {
                for (int y = 0; y < side; y++) {
                    System.arraycopy(sum, n * area + y * wide, out[c], (n * side + y) * side, side);
                }
            }
        }
        return new Planes(views, side, out).cut(l);
    }

    /** Weighted sums of the planes. */
    Planes mixed(SiteNet.Layer l) {
        int size = views * side * side;
        float[][] out = new float[l.out()][size];
        for (int o = 0; o < l.out(); o++) {
            Arrays.fill(out[o], l.bias()[o]);
            weighed(l.weights(), o * v.length, v, out[o], size);
        }
        return new Planes(views, side, out).cut(l);
    }

    private Planes cut(SiteNet.Layer l) {
        for (int c = 0; l.cut() && c < v.length; c++) {
            float[] plane = v[c];
            for (int i = 0; i < plane.length; i++) {
                plane[i] = Math.max(0, plane[i]);
            }
        }
        return this;
    }

    /** The most or the mean of two by two. */
    Planes pooled(boolean most) {
        int half = side / 2;
        float[][] out = new float[v.length][views * half * half];
        for (int c = 0; c < v.length; c++) {
            float[] in = v[c];
            // The views lie below one another.
            for (int y = 0; y < views * half; y++) {
                for (int x = 0; x < half; x++) {
                    int i = 2 * y * side + 2 * x;
                    float a = in[i];
                    float b = in[i + 1];
                    float d = in[i + side];
                    float e = in[i + side + 1];
                    out[c][y * half + x] = most
                            ? Math.max(Math.max(a, b), Math.max(d, e))
                            : (a + b + d + e) / 4;
                }
            }
        }
        return new Planes(views, half, out);
    }

    Planes dense(SiteNet.Layer l) {
        int size = side * side;
        float[][] out = new float[l.out()][views];
        float[] in = new float[l.in()];
        for (int n = 0; n < views; n++) {
            for (int c = 0; c < v.length; c++) {
                System.arraycopy(v[c], n * size, in, c * size, size);
            }
            for (int o = 0; o < l.out(); o++) {
                float sum = l.bias()[o];
                for (int k = 0; k < l.in(); k++) {
                    sum += l.weights()[o * l.in() + k] * in[k];
                }
                out[o][n] = sum;
            }
        }
        return new Planes(views, 1, out).cut(l);
    }
}
