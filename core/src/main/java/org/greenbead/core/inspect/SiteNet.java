package org.greenbead.core.inspect;

import java.io.DataInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;

/**
 * The learned judge of a site: a small convolutional net (depthwise separable layers, Howard et al. 2017, norms taken into the weights, Ioffe
 * and Szegedy 2015) over a view of {@link SiteViews}. The same view gives the same bits on every machine: sums run in one order.
 */
public final class SiteNet {
    private static final int FULL = 0;
    private static final int EACH = 1;
    private static final int MOST = 2;
    private static final int MEAN = 3;
    private static final int DENSE = 4;
    private static final int STATES = 6;
    private static final int WAYS = 8;
    /** Over this, e to the power of it is no number any more that helps. */
    private static final double LEAST_SPREAD = -5.5;
    private static final double MOST_SPREAD = 0.5;

    private record Layer(int kind, int out, int in, int kernel, int stride, boolean cut, float[] weights,
            float[] bias) {}

    /** Planes of equal size, one after the other. */
    private record Map3(int count, int side, float[] v) {}

    private final List<Layer> layers;

    private SiteNet(List<Layer> layers) {
        this.layers = List.copyOf(layers);
    }

    /**
     * What the net says of a view.
     *
     * @param logits  of the states OK, MISSING, SMALL, LARGE, DISPLACED, BRIDGED
     * @param size    diameter over the nominal one
     * @param spread  mean size of the error of that, as the net expects it
     * @param right   middle of the ball off the middle of the view, nominal diameters, along the map's x axis
     * @param up      the same along its y axis
     * @param joined  how likely solder leads that way: eight directions from the right against the clock
     */
    public record Said(double[] logits, double size, double spread, double right, double up,
            double[] joined) {
        /** Of several looks at one site. */
        static Said mean(List<Said> all) {
            double[] logits = new double[STATES];
            double[] ways = new double[WAYS];
            double[] rest = new double[4];
            for (Said s : all) {
                for (int c = 0; c < STATES; c++) {
                    logits[c] += s.logits[c] / all.size();
                }
                for (int k = 0; k < WAYS; k++) {
                    ways[k] += s.joined[k] / all.size();
                }
                rest[0] += s.size / all.size();
                rest[1] += s.spread / all.size();
                rest[2] += s.right / all.size();
                rest[3] += s.up / all.size();
            }
            return new Said(logits, rest[0], rest[1], rest[2], rest[3], ways);
        }

        /** As it would be said of the view that was mirrored and turned to come to this one. */
        Said turned(boolean mirror, int quarters) {
            double x = right;
            double y = up;
            double[] ways = joined;
            for (int q = 0; q < quarters; q++) {
                double t = x;
                x = y;
                y = -t;
                ways = sent(ways, -2, 1);
            }
            return mirror
                    ? new Said(logits, size, spread, -x, y, sent(ways, 4, -1))
                    : new Said(logits, size, spread, x, y, ways);
        }

        private static double[] sent(double[] ways, int add, int times) {
            double[] out = new double[WAYS];
            for (int k = 0; k < WAYS; k++) {
                out[Math.floorMod(add + times * k, WAYS)] = ways[k];
            }
            return out;
        }
    }

    /** @throws IOException when the file is not such a net */
    public static SiteNet read(InputStream from) throws IOException {
        var in = new DataInputStream(from);
        byte[] mark = new byte[4];
        in.readFully(mark);
        if (!new String(mark, java.nio.charset.StandardCharsets.US_ASCII).equals("GBN1")) {
            throw new IOException("the weights of the photo judge do not begin with GBN1");
        }
        int count = in.readInt();
        var layers = new ArrayList<Layer>();
        for (int i = 0; i < count; i++) {
            int kind = in.readByte();
            if (kind == MOST || kind == MEAN) {
                layers.add(new Layer(kind, 0, 0, 2, 2, false, new float[0], new float[0]));
                continue;
            }
            int out = in.readInt();
            int each = in.readInt();
            int kernel = kind == DENSE ? 1 : in.readInt();
            int stride = kind == DENSE ? 1 : in.readInt();
            boolean cut = in.readBoolean();
            float[] weights = new float[out * each * kernel * kernel];
            for (int k = 0; k < weights.length; k++) {
                weights[k] = Float.float16ToFloat(in.readShort());
            }
            float[] bias = new float[out];
            for (int k = 0; k < out; k++) {
                bias[k] = in.readFloat();
            }
            layers.add(new Layer(kind, out, each, kernel, stride, cut, weights, bias));
        }
        return new SiteNet(layers);
    }

    /** The one that is shipped. */
    public static SiteNet shipped() {
        return Shipped.NET;
    }

    /** The one that tells stray balls from other specks. */
    public static SiteNet shippedForStrays() {
        return Shipped.STRAYS;
    }

    private static final class Shipped {
        static final SiteNet NET = load("balls.net");
        static final SiteNet STRAYS = load("strays.net");

        private static SiteNet load(String name) {
            try (InputStream in = SiteNet.class.getResourceAsStream(name)) {
                if (in == null) {
                    throw new IOException(name + " is not among the program's files");
                }
                return read(in);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
    }

    /** Multiplications for one view. */
    long work() {
        long sum = 0;
        int side = SiteViews.SIDE;
        for (Layer l : layers) {
            side = l.kind() == DENSE ? 1 : side / l.stride();
            sum += (long) l.weights().length * side * side;
        }
        return sum;
    }

    public Said of(float[] view) {
        Map3 map = new Map3(SiteViews.CHANNELS, SiteViews.SIDE, view);
        for (Layer l : layers) {
            map = switch (l.kind()) {
                case FULL -> l.kernel() == 1 ? mixed(l, map) : wide(l, map);
                case EACH -> each(l, map);
                case MOST, MEAN -> pooled(map, l.kind() == MOST);
                default -> dense(l, map);
            };
        }
        float[] o = map.v();
        double[] logits = new double[STATES];
        for (int c = 0; c < STATES; c++) {
            logits[c] = o[c];
        }
        double[] joined = new double[WAYS];
        for (int k = 0; k < WAYS; k++) {
            joined[k] = 1 / (1 + Math.exp(-o[STATES + 4 + k]));
        }
        return new Said(logits, 1 + o[STATES], Math.exp(Math.clamp(o[STATES + 3], LEAST_SPREAD, MOST_SPREAD)),
                o[STATES + 1], o[STATES + 2], joined);
    }

    /** A kernel over all planes, by steps: the planes are sorted by even and odd first, so that every sum runs along a row. */
    private static Map3 wide(Layer l, Map3 in) {
        int s = l.stride();
        int pad = l.kernel() / 2;
        int side = in.side() / s;
        int wide = side + 2 * (pad / s + 1);
        int parts = s * s;
        float[][] sorted = new float[in.count() * parts][wide * wide];
        int shift = pad / s + 1;
        for (int c = 0; c < in.count(); c++) {
            for (int y = 0; y < in.side(); y++) {
                for (int x = 0; x < in.side(); x++) {
                    sorted[c * parts + y % s * s + x % s][(y / s + shift) * wide + x / s + shift] = in
                            .v()[(c * in.side() + y) * in.side() + x];
                }
            }
        }
        float[] out = new float[l.out() * side * side];
        float[] row = new float[side];
        for (int o = 0; o < l.out(); o++) {
            for (int y = 0; y < side; y++) {
                java.util.Arrays.fill(row, l.bias()[o]);
                for (int c = 0; c < in.count(); c++) {
                    for (int ky = 0; ky < l.kernel(); ky++) {
                        for (int kx = 0; kx < l.kernel(); kx++) {
                            int dy = ky - pad;
                            int dx = kx - pad;
                            float[] plane = sorted[c * parts + Math.floorMod(dy, s) * s
                                    + Math.floorMod(dx, s)];
                            int at = (y + Math.floorDiv(dy, s) + shift) * wide + Math.floorDiv(dx, s) + shift;
                            float w = l.weights()[((o * in.count() + c) * l.kernel() + ky) * l.kernel() + kx];
                            for (int x = 0; x < side; x++) {
                                row[x] += w * plane[at + x];
                            }
                        }
                    }
                }
                System.arraycopy(row, 0, out, (o * side + y) * side, side);
            }
        }
        return cut(l, new Map3(l.out(), side, out));
    }

    /** A kernel of three for each plane on its own. */
    private static Map3 each(Layer l, Map3 in) {
        int side = in.side();
        int wide = side + 2;
        float[] padded = new float[wide * wide];
        float[] out = new float[in.v().length];
        float[] row = new float[side];
        for (int c = 0; c < in.count(); c++) {
            for (int y = 0; y < side; y++) {
                System.arraycopy(in.v(), (c * side + y) * side, padded, (y + 1) * wide + 1, side);
            }
            float[] w = l.weights();
            int k = 9 * c;
            for (int y = 0; y < side; y++) {
                int a = y * wide;
                int b = a + wide;
                int d = b + wide;
                float bias = l.bias()[c];
                for (int x = 0; x < side; x++) {
                    row[x] = bias + w[k] * padded[a + x] + w[k + 1] * padded[a + x + 1]
                            + w[k + 2] * padded[a + x + 2] + w[k + 3] * padded[b + x]
                            + w[k + 4] * padded[b + x + 1] + w[k + 5] * padded[b + x + 2]
                            + w[k + 6] * padded[d + x] + w[k + 7] * padded[d + x + 1]
                            + w[k + 8] * padded[d + x + 2];
                }
                System.arraycopy(row, 0, out, (c * side + y) * side, side);
            }
        }
        return cut(l, new Map3(in.count(), side, out));
    }

    /** Weighted sums of the planes. */
    private static Map3 mixed(Layer l, Map3 in) {
        int size = in.side() * in.side();
        float[] v = in.v();
        float[] out = new float[l.out() * size];
        float[] sum = new float[size];
        for (int o = 0; o < l.out(); o++) {
            java.util.Arrays.fill(sum, l.bias()[o]);
            int at = o * in.count();
            for (int c = 0; c < in.count(); c += 4) {
                float w0 = l.weights()[at + c];
                float w1 = l.weights()[at + c + 1];
                float w2 = l.weights()[at + c + 2];
                float w3 = l.weights()[at + c + 3];
                int p = c * size;
                for (int i = 0; i < size; i++) {
                    sum[i] += w0 * v[p + i] + w1 * v[p + size + i] + w2 * v[p + 2 * size + i]
                            + w3 * v[p + 3 * size + i];
                }
            }
            System.arraycopy(sum, 0, out, o * size, size);
        }
        return cut(l, new Map3(l.out(), in.side(), out));
    }

    private static Map3 cut(Layer l, Map3 map) {
        if (l.cut()) {
            float[] v = map.v();
            for (int i = 0; i < v.length; i++) {
                v[i] = Math.max(0, v[i]);
            }
        }
        return map;
    }

    private static Map3 pooled(Map3 in, boolean most) {
        int side = in.side() / 2;
        float[] out = new float[in.count() * side * side];
        for (int c = 0; c < in.count(); c++) {
            for (int y = 0; y < side; y++) {
                for (int x = 0; x < side; x++) {
                    int i = (c * in.side() + 2 * y) * in.side() + 2 * x;
                    float a = in.v()[i];
                    float b = in.v()[i + 1];
                    float d = in.v()[i + in.side()];
                    float e = in.v()[i + in.side() + 1];
                    out[(c * side + y) * side + x] = most
                            ? Math.max(Math.max(a, b), Math.max(d, e))
                            : (a + b + d + e) / 4;
                }
            }
        }
        return new Map3(in.count(), side, out);
    }

    private static Map3 dense(Layer l, Map3 in) {
        float[] out = new float[l.out()];
        for (int o = 0; o < l.out(); o++) {
            float sum = l.bias()[o];
            for (int k = 0; k < l.in(); k++) {
                sum += l.weights()[o * l.in() + k] * in.v()[k];
            }
            out[o] = sum;
        }
        return cut(l, new Map3(l.out(), 1, out));
    }
}
