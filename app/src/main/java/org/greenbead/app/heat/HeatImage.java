package org.greenbead.app.heat;

import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.paint.Color;
import org.greenbead.app.look.HeatColour;
import org.greenbead.core.thermal.HeatField;

/** Turns a field of temperatures into pixels: bilinear between the cells' middles, one look-up for the colour. */
public final class HeatImage {
    private static final int LUT_STEPS = 1200;
    private static final double LUT_TOP_C = 300;
    private final int[] lut = new int[LUT_STEPS + 1];
    private final int wide;
    private final int high;
    private final WritableImage image;
    private final int[] line;
    private final float[] raster;

    public HeatImage(int wide, int high) {
        this.wide = wide;
        this.high = high;
        image = new WritableImage(wide, high);
        line = new int[wide];
        raster = new float[wide * high];
        for (int i = 0; i <= LUT_STEPS; i++) {
            Color c = HeatColour.of(LUT_TOP_C * i / LUT_STEPS);
            lut[i] = 0xFF000000 | (int) Math.round(c.getRed() * 255) << 16
                    | (int) Math.round(c.getGreen() * 255) << 8
                    | (int) Math.round(c.getBlue() * 255);
        }
    }

    public int wide() {
        return wide;
    }

    public int high() {
        return high;
    }

    /** Temperature under a pixel of the last picture, °C. */
    public double at(int x, int y) {
        return raster[Math.clamp(y, 0, high - 1) * wide + Math.clamp(x, 0, wide - 1)];
    }

    /**
     * @param turned   board x runs up instead of right
     * @param mirrored seen from below
     */
    public WritableImage draw(HeatField field, boolean turned, boolean mirrored) {
        double length = field.xMm()[field.xMm().length - 1];
        double depth = field.yMm()[field.yMm().length - 1];
        int[] xi = new int[turned ? high : wide];
        float[] xs = new float[xi.length];
        places(field.xMm(), length, xi, xs, mirrored);
        int[] yi = new int[turned ? wide : high];
        float[] ys = new float[yi.length];
        places(field.yMm(), depth, yi, ys, !turned);
        int nx = field.columns();
        float[] c = field.celsius();
        for (int py = 0; py < high; py++) {
            for (int px = 0; px < wide; px++) {
                int a = turned ? py : px;
                int b = turned ? px : py;
                int at = yi[b] * nx + xi[a];
                float low = c[at] + xs[a] * (c[Math.min(at + 1, c.length - 1)] - c[at]);
                int up = Math.min(at + nx, c.length - 1);
                float high0 = c[up] + xs[a] * (c[Math.min(up + 1, c.length - 1)] - c[up]);
                float value = low + ys[b] * (high0 - low);
                raster[py * wide + px] = value;
                line[px] = lut[(int) Math.clamp(value * LUT_STEPS / LUT_TOP_C, 0, LUT_STEPS)];
            }
            image.getPixelWriter().setPixels(0, py, wide, 1, PixelFormat.getIntArgbInstance(), line, 0, wide);
        }
        return image;
    }

    /** For each pixel the cell whose middle lies before it, and how far the pixel is on the way to the next. */
    private static void places(double[] lines, double length, int[] cell, float[] share, boolean backwards) {
        int cells = lines.length - 1;
        for (int p = 0; p < cell.length; p++) {
            double at = length * (p + 0.5) / cell.length;
            at = backwards ? length - at : at;
            int i = 0;
            while (i < cells - 2 && at > (lines[i + 1] + lines[i + 2]) / 2) {
                i++;
            }
            double from = (lines[i] + lines[i + 1]) / 2;
            double to = cells > 1 ? (lines[i + 1] + lines[i + 2]) / 2 : from + 1;
            cell[p] = i;
            share[p] = (float) Math.clamp((at - from) / (to - from), 0, 1);
        }
    }
}
