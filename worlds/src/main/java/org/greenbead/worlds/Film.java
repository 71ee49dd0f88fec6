package org.greenbead.worlds;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Collection;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageWriteParam;

/** What any camera does to light at the end: blur, the sRGB curve (IEC 61966-2-1), JPEG. Not drawing, and so shared by the worlds. */
final class Film {
    private Film() {
    }

    static int code(double linear) {
        double v = Math.clamp(linear, 0, 1);
        return (int) Math.round(255 * (v <= 0.0031308 ? 12.92 * v : 1.055 * Math.pow(v, 1 / 2.4) - 0.055));
    }

    /** What balls usually show, halfway out: the exposure is set by it. @param outlines x, y, radius */
    static double usual(float[] plane, int width, int height, Collection<double[]> outlines) {
        var levels = new ArrayList<Float>();
        for (double[] o : outlines) {
            for (int a = 0; a < 8; a++) {
                int x = (int) (o[0] + 0.5 * o[2] * Math.cos(a));
                int y = (int) (o[1] + 0.5 * o[2] * Math.sin(a));
                if (x >= 0 && y >= 0 && x < width && y < height) {
                    levels.add(plane[y * width + x]);
                }
            }
        }
        levels.sort(Float::compare);
        return levels.isEmpty() ? 0.2 : levels.get((int) (0.6 * levels.size()));
    }

    /** By a Gaussian. */
    static float[] blurred(float[] plane, int width, int height, double sigma) {
        if (sigma < 0.2) {
            return plane;
        }
        int reach = (int) Math.ceil(3 * sigma);
        double[] weight = new double[2 * reach + 1];
        double sum = 0;
        for (int k = -reach; k <= reach; k++) {
            weight[k + reach] = Math.exp(-k * k / (2 * sigma * sigma));
            sum += weight[k + reach];
        }
        float[] across = swept(plane, width, height, 1, weight, sum, reach);
        return swept(across, width, height, width, weight, sum, reach);
    }

    private static float[] swept(float[] in, int width, int height, int step, double[] weight, double sum,
            int reach) {
        float[] out = new float[in.length];
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                double total = 0;
                int at = step == 1 ? x : y;
                int most = step == 1 ? width - 1 : height - 1;
                int base = y * width + x;
                for (int k = -reach; k <= reach; k++) {
                    int other = Math.clamp(at + k, 0, most);
                    total += weight[k + reach] * in[base + (other - at) * step];
                }
                out[base] = (float) (total / sum);
            }
        }
        return out;
    }

    /** Pressed to JPEG and read again. */
    static int[] pressed(int[] rgb, int width, int height, float quality) {
        try {
            var image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
            image.setRGB(0, 0, width, height, rgb, 0, width);
            var bytes = new ByteArrayOutputStream();
            var writer = ImageIO.getImageWritersByFormatName("jpeg").next();
            ImageWriteParam param = writer.getDefaultWriteParam();
            param.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
            param.setCompressionQuality(quality);
            try (var out = ImageIO.createImageOutputStream(bytes)) {
                writer.setOutput(out);
                writer.write(null, new IIOImage(image, null, null), param);
            } finally {
                writer.dispose();
            }
            BufferedImage back = ImageIO.read(new ByteArrayInputStream(bytes.toByteArray()));
            int[] seen = back.getRGB(0, 0, width, height, null, 0, width);
            for (int i = 0; i < seen.length; i++) {
                seen[i] &= 0xffffff;
            }
            return seen;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
