package org.greenbead.core.inspect;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.expectThrows;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.Test;

/** The forward pass against the plain definition of each layer. */
public class SiteNetTest {
    private static final int SIDE = SiteViews.SIDE;
    private final Random random = new Random(5);
    private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    private final DataOutputStream out = new DataOutputStream(bytes);

    private float[] weights(int count) throws IOException {
        float[] w = new float[count];
        for (int i = 0; i < count; i++) {
            w[i] = Float.float16ToFloat(Float.floatToFloat16((float) (0.3 * random.nextGaussian())));
            out.writeShort(Float.floatToFloat16(w[i]));
        }
        return w;
    }

    private float[] bias(int count) throws IOException {
        float[] b = new float[count];
        for (int i = 0; i < count; i++) {
            b[i] = (float) random.nextGaussian();
            out.writeFloat(b[i]);
        }
        return b;
    }

    private void head(int kind, int... numbers) throws IOException {
        out.writeByte(kind);
        for (int n : numbers) {
            out.writeInt(n);
        }
    }

    /** Sum over the kernel, zero beyond the border. */
    private static double[][][] conv(double[][][] in, float[] w, float[] b, int kernel, int stride,
            boolean each,
            boolean cut) {
        int side = in[0].length / stride;
        double[][][] out = new double[b.length][side][side];
        for (int o = 0; o < b.length; o++) {
            for (int y = 0; y < side; y++) {
                for (int x = 0; x < side; x++) {
                    double sum = b[o];
                    int planes = each ? 1 : in.length;
                    for (int c = 0; c < planes; c++) {
                        for (int k = 0; k < kernel * kernel; k++) {
                            int yy = y * stride + k / kernel - kernel / 2;
                            int xx = x * stride + k % kernel - kernel / 2;
                            if (yy >= 0 && xx >= 0 && yy < in[0].length && xx < in[0].length) {
                                sum += w[(o * planes + c) * kernel * kernel + k] * in[each ? o : c][yy][xx];
                            }
                        }
                    }
                    out[o][y][x] = cut ? Math.max(0, sum) : sum;
                }
            }
        }
        return out;
    }

    private static double[][][] pooled(double[][][] in, boolean most) {
        int side = in[0].length / 2;
        double[][][] out = new double[in.length][side][side];
        for (int c = 0; c < in.length; c++) {
            for (int y = 0; y < side; y++) {
                for (int x = 0; x < side; x++) {
                    double[] four = {in[c][2 * y][2 * x], in[c][2 * y][2 * x + 1], in[c][2 * y + 1][2 * x],
                            in[c][2 * y + 1][2 * x + 1]};
                    out[c][y][x] = most
                            ? java.util.Arrays.stream(four).max().orElseThrow()
                            : java.util.Arrays.stream(four).average().orElseThrow();
                }
            }
        }
        return out;
    }

    @Test
    public void layersAsDefined() throws IOException {
        out.writeBytes("GBN1");
        out.writeInt(6);
        head(0, 4, SiteViews.CHANNELS, 5, 2);
        out.writeBoolean(true);
        float[] w1 = weights(4 * SiteViews.CHANNELS * 25);
        float[] b1 = bias(4);
        head(1, 4, 1, 3, 1);
        out.writeBoolean(false);
        float[] w2 = weights(4 * 9);
        float[] b2 = bias(4);
        head(0, 8, 4, 1, 1);
        out.writeBoolean(true);
        float[] w3 = weights(32);
        float[] b3 = bias(8);
        head(2);
        head(3);
        head(4, 18, 8 * 36);
        out.writeBoolean(false);
        float[] w4 = weights(18 * 8 * 36);
        float[] b4 = bias(18);
        SiteNet net = SiteNet.read(new ByteArrayInputStream(bytes.toByteArray()));
        float[] view = new float[SiteViews.CHANNELS * SIDE * SIDE];
        double[][][] in = new double[SiteViews.CHANNELS][SIDE][SIDE];
        for (int i = 0; i < view.length; i++) {
            view[i] = random.nextFloat();
            in[i / (SIDE * SIDE)][i / SIDE % SIDE][i % SIDE] = view[i];
        }
        double[][][] last = pooled(
                pooled(conv(conv(conv(in, w1, b1, 5, 2, false, true), w2, b2, 3, 1, true, false),
                        w3, b3, 1, 1, false, true), true),
                false);
        double[] o = new double[18];
        for (int k = 0; k < 18; k++) {
            o[k] = b4[k];
            for (int i = 0; i < 8 * 36; i++) {
                o[k] += w4[k * 8 * 36 + i] * last[i / 36][i / 6 % 6][i % 6];
            }
        }
        SiteNet.Said said = net.of(view);
        for (int c = 0; c < 6; c++) {
            assertEquals(said.logits()[c], o[c], 2e-3 * (1 + Math.abs(o[c])), "state " + c);
        }
        assertEquals(said.size(), 1 + o[6], 2e-3 * (1 + Math.abs(o[6])));
        assertEquals(said.up(), o[8], 2e-3 * (1 + Math.abs(o[8])));
        assertEquals(said.joined()[7], 1 / (1 + Math.exp(-o[17])), 2e-3);
        assertEquals(net.of(view).logits(), said.logits(), "the same view, the same bits");
    }

    @Test
    public void foreignFilesAreRefused() {
        assertEquals(expectThrows(IOException.class,
                () -> SiteNet.read(new ByteArrayInputStream("GIF89a....".getBytes(
                        java.nio.charset.StandardCharsets.US_ASCII))))
                .getMessage(), "the weights of the photo judge do not begin with GBN1");
        expectThrows(EOFException.class, () -> SiteNet.read(new ByteArrayInputStream(
                new byte[]{'G', 'B', 'N', '1', 0, 0, 0, 3, 0, 0})));
    }

    /** What is said of a turned view is turned back. */
    @Test
    public void sayingsTurnBack() {
        double[] ways = {1, 0, 0, 0, 0, 0, 0, 0};
        // Mirrored, right became left; a quarter against the clock, left became down.
        var seen = new SiteNet.Said(new double[6], 1, 0.02, 0, -0.3, new double[]{0, 0, 0, 0, 0, 0, 1, 0});
        SiteNet.Said back = seen.turned(true, 1);
        assertEquals(back.right(), 0.3, 1e-12);
        assertEquals(back.up(), 0, 1e-12);
        assertEquals(back.joined(), ways);
    }

    /** Whatever is looked at beside a view, and whether a neighbour has the same usual site or mask, the same is said of it to the last bit. */
    @Test
    public void theCompanyChangesNothing() {
        var all = new ArrayList<float[]>();
        float[] first = new float[SiteViews.CHANNELS * SIDE * SIDE];
        for (int n = 0; n < 11; n++) {
            float[] view = first.clone();
            int from = n == 5 ? 0 : n == 7 ? 6 * SIDE * SIDE : view.length;
            for (int i = 0; i < view.length; i++) {
                if (i < 3 * SIDE * SIDE || i >= from) {
                    view[i] = random.nextFloat();
                }
            }
            all.add(view);
        }
        List<SiteNet.Said> together = SiteNet.shipped().of(all);
        for (int n = 0; n < all.size(); n++) {
            SiteNet.Said alone = SiteNet.shipped().of(all.get(n));
            assertEquals(together.get(n).logits(), alone.logits());
            assertEquals(together.get(n).joined(), alone.joined());
            assertEquals(together.get(n).size(), alone.size());
        }
    }
}
