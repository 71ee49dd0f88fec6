package org.greenbead.core.inspect;

import java.io.DataInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;

/**
 * The learned judge of a site: a small convolutional net (depthwise separable layers, Howard et al. 2017, norms taken into the weights, Ioffe
 * and Szegedy 2015) over a view of {@link SiteViews}. The same view gives the same bits on every machine and among whatever others it is judged: sums run in one order.
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

    record Layer(int kind, int out, int in, int kernel, int stride, boolean cut, float[] weights,
            float[] bias) {}

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

    /** The one that was shown maps that state the balls too large or too small. */
    public static SiteNet shippedForSizes() {
        return Shipped.SIZES;
    }

    private static final class Shipped {
        static final SiteNet NET = load("balls.net");
        static final SiteNet STRAYS = load("strays.net");
        static final SiteNet SIZES = load("sizes.net");

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
        return of(List.of(view)).getFirst();
    }

    /** What it says of each; views that share their usual site and stand one after the other are looked at faster. */
    public List<Said> of(List<float[]> views) {
        Planes planes = null;
        for (Layer l : layers) {
            planes = switch (l.kind()) {
                case FULL -> planes == null ? Planes.wide(l, views) : planes.mixed(l);
                case EACH -> planes.each(l);
                case MOST, MEAN -> planes.pooled(l.kind() == MOST);
                default -> planes.dense(l);
            };
        }
        var out = new ArrayList<Said>();
        for (int v = 0; v < views.size(); v++) {
            out.add(said(planes.of(v)));
        }
        return out;
    }

    private static Said said(float[] o) {
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
}
