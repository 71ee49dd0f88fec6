package org.greenbead.train;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
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

    /** Turned by quarters, mirrored, colours exchanged, lighter or darker, with noise. */
    void turned(int i, Random random, float[] x, int slot, float[] y) {
        byte[] record = views.get(i);
        truth(record, slot, y);
        boolean mirror = random.nextBoolean();
        int quarters = random.nextInt(4);
        int side = MakeViews.SIDE;
        int samples = side * side;
        int[] order = random.nextInt(3) == 0 ? ORDERS[random.nextInt(ORDERS.length)] : ORDERS[0];
        double bend = Math.exp(0.18 * random.nextGaussian());
        float[] table = new float[256];
        for (int v = 0; v < 256; v++) {
            table[v] = (float) Math.pow(v / 255.0, bend);
        }
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

    private static float[] sent(float[] ways, int add, int times) {
        float[] out = new float[8];
        for (int k = 0; k < 8; k++) {
            out[Math.floorMod(add + times * k, 8)] = ways[k];
        }
        return out;
    }
}
