package org.greenbead.worlds;

import java.util.Collection;
import java.util.Random;

/** From light to a picture: two depths of focus, dust, hair and fingers on the glass, frame of an eyepiece, then what telephones do: smear, sharpen, press. */
final class Eyeglass {
    private final int width;
    private final int height;
    private final Random random;
    private final double ballPx;

    Eyeglass(int width, int height, Random random, double ballPx) {
        this.width = width;
        this.height = height;
        this.random = random;
        this.ballPx = ballPx;
    }

    /** @param metal light from balls, @param cover part of each pixel that they cover */
    int[] developed(float[][] board, float[][] metal, float[] cover, boolean eyepiece,
            Collection<double[]> outlines) {
        double soft = 0.35 + 0.8 * random.nextDouble()
                + (random.nextDouble() < 0.15 ? random.nextDouble() : 0);
        double below = random.nextDouble() < 0.35 ? ballPx * 0.06 * random.nextDouble() : 0;
        int n = width * height;
        float[][] light = new float[3][];
        for (int c = 0; c < 3; c++) {
            float[] deep = Film.blurred(board[c], width, height, below);
            for (int i = 0; i < n; i++) {
                deep[i] = deep[i] * (1 - cover[i]) + metal[c][i];
            }
            light[c] = deep;
        }
        double gain = (0.1 + 0.35 * random.nextDouble())
                / Math.max(1e-4, Film.usual(light[1], width, height, outlines));
        fingers(light);
        hairs(light);
        double[] white = {Math.exp(0.09 * random.nextGaussian()), 1, Math.exp(0.11 * random.nextGaussian())};
        double veil = random.nextDouble() < 0.3 ? 0.08 * random.nextDouble() : 0;
        double hiss = 0.002 + 0.02 * random.nextDouble() * random.nextDouble();
        double smear = hiss > 0.006 && random.nextBoolean() ? 0.5 + 0.4 * random.nextDouble() : 0;
        double sharpen = random.nextDouble() < 0.45 ? 0.3 + 1.2 * random.nextDouble() : 0;
        double dim = 0.4 * random.nextDouble() * random.nextDouble();
        double bend = 0.8 + 0.5 * random.nextDouble();
        double most = Math.hypot(width, height) / 2;
        double frame = Math.min(width, height) / 2.0 * (0.97 + 0.03 * random.nextDouble());
        int[] rgb = new int[n];
        for (int c = 0; c < 3; c++) {
            float[] plane = light[c];
            for (int i = 0; i < n; i++) {
                double out = Math.hypot(i % width - width / 2.0, i / width - height / 2.0);
                double v = Math.min(5, plane[i] * gain * white[c]) * (1 - dim * out * out / (most * most))
                        + veil;
                plane[i] = (float) (eyepiece ? v * Math.clamp((frame - out) / 3, 0.003, 1) : v);
            }
            plane = Film.blurred(plane, width, height, soft);
            for (int i = 0; i < n; i++) {
                plane[i] += (float) (hiss * Math.sqrt(0.06 + Math.max(0, plane[i])) * random.nextGaussian());
            }
            plane = Film.blurred(plane, width, height, smear);
            for (int i = 0; i < n; i++) {
                plane[i] = (float) Math.pow(Math.clamp(plane[i], 0, 1), bend / 2);
            }
            float[] wide = sharpen > 0 ? Film.blurred(plane, width, height, 1.1) : plane;
            for (int i = 0; i < n; i++) {
                double v = Math.clamp(plane[i] + sharpen * (plane[i] - wide[i]), 0, 1);
                rgb[i] |= Film.code(v * v) << (16 - 8 * c);
            }
        }
        return random.nextDouble() < 0.8
                ? Film.pressed(rgb, width, height, 0.55f + 0.4f * random.nextFloat())
                : rgb;
    }

    /** Ridges of grease: bright haze in bowed lines. */
    private void fingers(float[][] light) {
        if (random.nextDouble() > 0.2) {
            return;
        }
        double x0 = width * random.nextDouble();
        double y0 = height * random.nextDouble();
        double reach = ballPx * (3 + 6 * random.nextDouble());
        double ridge = ballPx * (0.3 + 0.5 * random.nextDouble());
        double much = 0.25 * random.nextDouble();
        var bow = new Waves(random, 5, reach);
        for (int i = 0; i < width * height; i++) {
            double x = i % width - x0;
            double y = i / width - y0;
            double far = (x * x + 1.8 * y * y) / (reach * reach);
            if (far < 1) {
                double lines = 0.5
                        + 0.5 * Math.sin(2 * Math.PI * Math.hypot(x, y + reach) / ridge + 2 * bow.at(x, y));
                double a = much * lines * (1 - far);
                for (int c = 0; c < 3; c++) {
                    light[c][i] = (float) (light[c][i] * (1 - a) + a * 0.4);
                }
            }
        }
    }

    private void hairs(float[][] light) {
        for (int k = random.nextInt(3); k > 0; k--) {
            double x = width * random.nextDouble();
            double y = height * random.nextDouble();
            double way = 2 * Math.PI * random.nextDouble();
            double bow = 0.15 * random.nextGaussian() / ballPx;
            double half = Math.max(0.5, ballPx * (0.015 + 0.04 * random.nextDouble()));
            double v = 0.6 * random.nextDouble();
            for (int s = (int) (ballPx * (2 + 10 * random.nextDouble())); s > 0; s--) {
                spot(light, x, y, half, v);
                x += Math.cos(way);
                y += Math.sin(way);
                way += bow + 0.01 * random.nextGaussian();
            }
        }
        for (int k = random.nextInt(40); k > 0; k--) {
            spot(light, width * random.nextDouble(), height * random.nextDouble(),
                    Math.max(0.4, ballPx * 0.04 * random.nextDouble()), random.nextDouble());
        }
    }

    private void spot(float[][] light, double x, double y, double r, double v) {
        for (int b = (int) (y - r - 1); b <= y + r + 1; b++) {
            for (int a = (int) (x - r - 1); a <= x + r + 1; a++) {
                double share = Math.clamp(r + 0.5 - Math.hypot(a - x, b - y), 0, 0.8);
                if (share > 0 && a >= 0 && b >= 0 && a < width && b < height) {
                    for (int c = 0; c < 3; c++) {
                        int i = b * width + a;
                        light[c][i] = (float) (light[c][i] * (1 - share) + share * v);
                    }
                }
            }
        }
    }
}
