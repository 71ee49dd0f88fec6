package org.greenbead.core.inspect;

/** Medians of many rows of numbers, place by place, by Batcher's merge exchange network (Knuth 1998, The Art of Computer Programming 3, 5.2.2 M). */
final class Medians {
    private static final int TILE = 384;

    private Medians() {
    }

    /** @param rows of one length; of an even number of rows the upper of the two in the middle */
    static float[] of(float[][] rows) {
        int length = rows[0].length;
        float[] out = new float[length];
        float[][] part = new float[rows.length][TILE];
        for (int from = 0; from < length; from += TILE) {
            int n = Math.min(TILE, length - from);
            for (int r = 0; r < rows.length; r++) {
                System.arraycopy(rows[r], from, part[r], 0, n);
            }
            sort(part);
            System.arraycopy(part[rows.length / 2], 0, out, from, n);
        }
        return out;
    }

    private static void sort(float[][] rows) {
        int n = rows.length;
        int top = Integer.highestOneBit(Math.max(1, n - 1));
        for (int p = top; p > 0; p /= 2) {
            int q = top;
            int r = 0;
            int d = p;
            while (true) {
                for (int i = 0; i < n - d; i++) {
                    if ((i & p) == r) {
                        exchange(rows[i], rows[i + d]);
                    }
                }
                if (q == p) {
                    break;
                }
                d = q - p;
                q /= 2;
                r = p;
            }
        }
    }

    /** The less of each pair goes to the first, the more to the second. */
    private static void exchange(float[] low, float[] high) {
        for (int i = 0; i < low.length; i++) {
            float a = low[i];
            float b = high[i];
            low[i] = Math.min(a, b);
            high[i] = Math.max(a, b);
        }
    }
}
