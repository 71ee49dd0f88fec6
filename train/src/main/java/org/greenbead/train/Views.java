package org.greenbead.train;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;

/** Views kept by {@link MakeViews}. */
final class Views {
    private static final int RECORD = MakeViews.VIEW + 4 * MakeViews.FLOATS;
    private static final int[][] ORDERS = {{0, 1, 2}, {0, 2, 1}, {1, 0, 2}, {1, 2, 0}, {2, 0, 1}, {2, 1, 0}};
    private final List<byte[]> views = new ArrayList<>();

    static Views read(Path file) throws IOException {
        var all = new Views();
        try (var in = new RandomAccessFile(file.toFile(), "r")) {
            long count = Files.size(file) / RECORD;
            for (long i = 0; i < count; i++) {
                byte[] record = new byte[RECORD];
                in.readFully(record);
                all.views.add(record);
            }
        }
        return all;
    }

    int size() {
        return views.size();
    }

    void plain(int i, float[] x, int slot, float[] y) {
        byte[] record = views.get(i);
        for (int k = 0; k < MakeViews.VIEW; k++) {
            x[slot * MakeViews.VIEW + k] = (record[k] & 255) / 255f;
        }
        truth(record, slot, y);
    }

    private static void truth(byte[] record, int slot, float[] y) {
        ByteBuffer.wrap(record, MakeViews.VIEW, 4 * MakeViews.FLOATS).asFloatBuffer().get(y,
                slot * MakeViews.FLOATS, MakeViews.FLOATS);
    }

    /**
     * Turned by quarters, mirrored, colours exchanged or taken away, lighter or darker, softer, lit from a side, with noise: what a world of its own
     * might do to light that none of those here does.
     */
    void turned(int i, Random random, float[] x, int slot, float[] y) {
        byte[] record = views.get(i);
        truth(record, slot, y);
        boolean mirror = random.nextBoolean();
        int quarters = random.nextInt(4);
        int side = MakeViews.SIDE;
        int samples = side * side;
        int[] order = random.nextInt(3) == 0 ? ORDERS[random.nextInt(ORDERS.length)] : ORDERS[0];
        float[] table = tones(random);
        float grey = random.nextInt(4) == 0 ? random.nextFloat() : 0;
        boolean soft = random.nextInt(5) == 0;
        float[] slope = random.nextInt(3) == 0
                ? new float[]{0.25f * (float) random.nextGaussian() / side,
                        0.25f * (float) random.nextGaussian() / side}
                : new float[2];
        float noise = random.nextInt(2) == 0 ? 0 : 0.03f * random.nextFloat();
        for (int c = 0; c < MakeViews.CHANNELS; c++) {
            int from = (c < 3 ? order[c] : c < 6 ? 3 + order[c - 3] : c) * samples;
            int to = slot * MakeViews.VIEW + c * samples;
            for (int v = 0; v < side; v++) {
                for (int u = 0; u < side; u++) {
                    // Where this sample of the turned view came from.
                    int a = u;
                    int b = v;
                    for (int q = 0; q < quarters; q++) {
                        int t = a;
                        a = side - 1 - b;
                        b = t;
                    }
                    a = mirror ? side - 1 - a : a;
                    int value = record[from + b * side + a] & 255;
                    float f = c < 6 ? table[value] : value / 255f;
                    x[to + v * side + u] = c < 3 && noise > 0 ? f + noise * (float) random.nextGaussian() : f;
                }
            }
        }
        int base = slot * MakeViews.VIEW;
        for (int half = 0; half < 2; half++) {
            int first = base + 3 * half * samples;
            if (grey > 0) {
                greyed(x, first, samples, grey);
            }
            for (int c = 0; soft && c < 3; c++) {
                softened(x, first + c * samples, side);
            }
            for (int k = 0; k < 3 * samples; k++) {
                int p = k % samples;
                x[first + k] *= 1 + slope[0] * (p % side - side / 2f) + slope[1] * (p / side - side / 2f);
            }
        }
        int at = slot * MakeViews.FLOATS;
        float dx = y[at + 2];
        float dy = y[at + 3];
        float[] ways = new float[8];
        System.arraycopy(y, at + 4, ways, 0, 8);
        if (mirror) {
            dx = -dx;
            ways = sent(ways, 4, -1);
        }
        for (int q = 0; q < quarters; q++) {
            // The view is turned so that what was at (a, b) comes to (b, side - 1 - a): a quarter against the clock.
            float t = dx;
            dx = -dy;
            dy = t;
            ways = sent(ways, 2, 1);
        }
        y[at + 2] = dx;
        y[at + 3] = dy;
        System.arraycopy(ways, 0, y, at + 4, 8);
    }

    /** A bend of the tones, and at times a wave on it that still rises everywhere. */
    private static float[] tones(Random random) {
        double bend = Math.exp(0.25 * random.nextGaussian());
        double wave = random.nextInt(3) == 0 ? 0.8 * random.nextDouble() : 0;
        double turns = 1 + random.nextInt(3);
        double phase = 2 * Math.PI * random.nextDouble();
        float[] table = new float[256];
        for (int v = 0; v < 256; v++) {
            double t = Math.pow(v / 255.0, bend);
            double swing = wave / (2 * Math.PI * turns);
            table[v] = (float) Math.clamp(
                    t + swing * (Math.sin(2 * Math.PI * turns * t + phase) - Math.sin(phase)), 0, 1);
        }
        return table;
    }

    private static void greyed(float[] x, int first, int samples, float by) {
        for (int k = first; k < first + samples; k++) {
            float mean = (x[k] + x[k + samples] + x[k + 2 * samples]) / 3;
            for (int c = 0; c < 3; c++) {
                x[k + c * samples] += by * (mean - x[k + c * samples]);
            }
        }
    }

    /** Each sample and its neighbours, weighed 2 to 1. */
    private static void softened(float[] x, int first, int side) {
        float[] was = Arrays.copyOfRange(x, first, first + side * side);
        for (int v = 1; v < side - 1; v++) {
            for (int u = 1; u < side - 1; u++) {
                int k = v * side + u;
                x[first + k] = (2 * was[k] + was[k - 1] + was[k + 1] + was[k - side] + was[k + side]) / 6;
            }
        }
    }

    private static float[] sent(float[] ways, int add, int times) {
        float[] out = new float[8];
        for (int k = 0; k < 8; k++) {
            out[Math.floorMod(add + times * k, 8)] = ways[k];
        }
        return out;
    }
}
