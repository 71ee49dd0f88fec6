package org.greenbead.core.inspect;

import java.util.stream.IntStream;

/** A colour picture in linear light, each channel 0 to 1 (IEC 61966-2-1 decoded). */
public final class Raster {
    private static final float[] LINEAR = new float[256];
    private static final int TABLE = 1024;
    private static final double BUSY_PX = 0.8;
    /** Pixels over which a factor is taken as a straight line. */
    private static final int BLOCK = 64;

    static {
        for (int i = 0; i < 256; i++) {
            double c = i / 255.0;
            LINEAR[i] = (float) (c <= 0.04045 ? c / 12.92 : Math.pow((c + 0.055) / 1.055, 2.4));
        }
    }

    final Plane red;
    final Plane green;
    final Plane blue;

    private Raster(Plane red, Plane green, Plane blue) {
        this.red = red;
        this.green = green;
        this.blue = blue;
    }

    /**
     * @param rgb row by row, 0xRRGGBB, what stands above is left out
     * @throws IllegalArgumentException when the picture is smaller than 64 pixels or its length does not fit
     */
    public static Raster ofSrgb(int width, int height, int[] rgb) {
        if (width < 64 || height < 64 || rgb.length != width * height) {
            throw new IllegalArgumentException("a picture of " + width + " x " + height
                    + " pixels is too small to be judged; at least 64 x 64 are needed");
        }
        var red = new Plane(width, height);
        var green = new Plane(width, height);
        var blue = new Plane(width, height);
        IntStream.range(0, height).parallel().forEach(y -> {
            for (int i = y * width; i < (y + 1) * width; i++) {
                red.v[i] = LINEAR[rgb[i] >> 16 & 255];
                green.v[i] = LINEAR[rgb[i] >> 8 & 255];
                blue.v[i] = LINEAR[rgb[i] & 255];
            }
        });
        return new Raster(red, green, blue);
    }

    /** Colour between pixels, 0xRRGGBB, encoded again. */
    int srgb(double x, double y) {
        return code(red.at(x, y)) << 16 | code(green.at(x, y)) << 8 | code(blue.at(x, y));
    }

    private static int code(double linear) {
        double c = Math.clamp(linear, 0, 1);
        return (int) Math.round(255 * (c <= 0.0031308 ? 12.92 * c : 1.055 * Math.pow(c, 1 / 2.4) - 0.055));
    }

    /** A factor for each place. */
    interface Gain {
        double at(double x, double y);
    }

    /** Each pixel times a factor that changes slowly over the picture. */
    Raster lit(Gain gain) {
        var out = new Raster(new Plane(width(), height()), new Plane(width(), height()),
                new Plane(width(), height()));
        IntStream.range(0, height()).parallel().forEach(y -> {
            for (int x0 = 0; x0 < width(); x0 += BLOCK) {
                int n = Math.min(BLOCK, width() - x0);
                float from = (float) gain.at(x0, y);
                float step = ((float) gain.at(x0 + n, y) - from) / n;
                for (int k = 0, i = y * width() + x0; k < n; k++, i++) {
                    float g = from + k * step;
                    out.red.v[i] = red.v[i] * g;
                    out.green.v[i] = green.v[i] * g;
                    out.blue.v[i] = blue.v[i] * g;
                }
            }
        });
        return out;
    }

    /** A part of the picture. */
    Raster cut(int left, int top, int width, int height) {
        return new Raster(red.cut(left, top, width, height), green.cut(left, top, width, height),
                blue.cut(left, top, width, height));
    }

    /** Half the size. */
    Raster half() {
        return new Raster(red.half(), green.half(), blue.half());
    }

    public int width() {
        return red.width;
    }

    public int height() {
        return red.height;
    }

    /** The darkest of the channels, its root taken: metal without colour is bright, everything else dark. */
    Plane darkest() {
        var out = new Plane(width(), height());
        IntStream.range(0, height()).parallel().forEach(y -> {
            for (int i = y * width(); i < (y + 1) * width(); i++) {
                out.v[i] = (float) Math.sqrt(Math.min(red.v[i], Math.min(green.v[i], blue.v[i])));
            }
        });
        return out;
    }

    /** The root of the mean of the channels: for pads of any metal on a dark ground. */
    Plane light() {
        var out = new Plane(width(), height());
        IntStream.range(0, height()).parallel().forEach(y -> {
            for (int i = y * width(); i < (y + 1) * width(); i++) {
                out.v[i] = (float) Math.sqrt((red.v[i] + green.v[i] + blue.v[i]) / 3);
            }
        });
        return out;
    }

    /** How steeply the light changes: a ball mirrors lamps and dark at once, whatever the board beside it is like. */
    Plane busy() {
        Plane light = light().smooth(BUSY_PX);
        var out = new Plane(width(), height());
        IntStream.range(1, height() - 1).parallel().forEach(y -> {
            for (int i = y * width() + 1; i < (y + 1) * width() - 1; i++) {
                out.v[i] = (float) Math.hypot(light.v[i + 1] - light.v[i - 1],
                        light.v[i + width()] - light.v[i - width()]);
            }
        });
        return out;
    }

    /** Weights of the channels under which solder is without colour. */
    record Gains(double red, double green, double blue) {
        static final Gains NONE = new Gains(1, 1, 1);
    }

    /**
     * The logarithm of light over the ground, cut off at a level, mean of the planes that are given: for outlines, since the rim of a ball
     * is many times darker than its middle and yet many times brighter than what lies round it. A rim that mirrors a coloured mat is dark
     * in one channel only.
     */
    static Plane curve(Plane[] planes, double[] cap, double[] ground) {
        var out = new Plane(planes[0].width, planes[0].height);
        var share = 1.0f / planes.length;
        float[][] table = new float[planes.length][TABLE + 2];
        for (int c = 0; c < planes.length; c++) {
            for (int k = 0; k < table[c].length; k++) {
                table[c][k] = share * (float) Math.log1p(cap[c] * k / TABLE / ground[c]);
            }
        }
        float[] steps = new float[cap.length];
        for (int c = 0; c < cap.length; c++) {
            steps[c] = (float) (TABLE / cap[c]);
        }
        IntStream.range(0, out.height).parallel().forEach(y -> {
            for (int i = y * out.width; i < (y + 1) * out.width; i++) {
                float sum = 0;
                for (int c = 0; c < planes.length; c++) {
                    float at = Math.min(TABLE, Math.max(0, planes[c].v[i] * steps[c]));
                    int k = (int) at;
                    sum += table[c][k] + (at - k) * (table[c][k + 1] - table[c][k]);
                }
                out.v[i] = sum;
            }
        });
        return out;
    }

    /**
     * How much a pixel looks like solder: bright and without colour. Gold, copper and solder mask fall off because of their colour.
     */
    Plane tin(Gains gains) {
        var out = new Plane(width(), height());
        float gr = (float) gains.red;
        float gg = (float) gains.green;
        float gb = (float) gains.blue;
        IntStream.range(0, height()).parallel().forEach(y -> {
            for (int i = y * width(); i < (y + 1) * width(); i++) {
                float r = red.v[i] * gr;
                float g = green.v[i] * gg;
                float b = blue.v[i] * gb;
                float least = Math.min(r, Math.min(g, b));
                float most = Math.max(r, Math.max(g, b));
                // A highlight that is burnt out has no colour of its own.
                float q = most > 0.9f && least > 0.6f ? 1 : least / (most + 1e-4f);
                out.v[i] = (float) (least * Math.sqrt(q) * q);
            }
        });
        return out;
    }
}
