package org.greenbead.core.inspect;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;

/** Round bright spots of one size (difference of Gaussians; Lindeberg 1998), in a grid for neighbours. */
final class Peaks {
    final List<Peak> all;
    private final double cell;
    private final int across;
    private final int[] first;
    private final int[] next;

    Peaks(List<Peak> all, double cell, int width, int height) {
        this.all = List.copyOf(all);
        this.cell = cell;
        across = (int) Math.ceil(width / cell) + 1;
        first = new int[across * ((int) Math.ceil(height / cell) + 1)];
        next = new int[all.size()];
        Arrays.fill(first, -1);
        for (int i = 0; i < all.size(); i++) {
            int at = (int) (all.get(i).yPx() / cell) * across + (int) (all.get(i).xPx() / cell);
            next[i] = first[at];
            first[at] = i;
        }
    }

    /** Those of about this radius, the strongest first. @param most how many are kept */
    static Peaks find(Plane plane, int level, double radiusPx, int most, double cell, int width, int height) {
        double r = radiusPx / (1 << level);
        Plane fine = plane.smooth(0.5 * r);
        Plane broad = plane.smooth(0.9 * r);
        int w = plane.width;
        var d = new float[w * plane.height];
        for (int i = 0; i < d.length; i++) {
            d[i] = fine.v[i] - broad.v[i];
        }
        List<Peak> found = new ArrayList<>(IntStream.range(1, plane.height - 1).parallel()
                .mapToObj(y -> tops(d, w, y, 1 << level)).flatMap(List::stream).toList());
        found.sort(Comparator.comparingDouble(Peak::strength).reversed());
        return new Peaks(found.subList(0, Math.min(most, found.size())), cell, width, height);
    }

    private static List<Peak> tops(float[] d, int w, int y, int pixel) {
        List<Peak> found = new ArrayList<>();
        for (int x = 1; x < w - 1; x++) {
            int i = y * w + x;
            float here = d[i];
            if (here > 0.004f && here > d[i - 1] && here >= d[i + 1] && here > d[i - w] && here >= d[i + w]
                    && here > d[i - w - 1] && here > d[i - w + 1] && here >= d[i + w - 1]
                    && here >= d[i + w + 1]) {
                double bendX = d[i - 1] - 2 * here + d[i + 1];
                double bendY = d[i - w] - 2 * here + d[i + w];
                double dx = bendX < 0 ? (d[i - 1] - d[i + 1]) / (2 * bendX) : 0;
                double dy = bendY < 0 ? (d[i - w] - d[i + w]) / (2 * bendY) : 0;
                found.add(new Peak((x + 0.5 + Math.clamp(dx, -0.5, 0.5)) * pixel,
                        (y + 0.5 + Math.clamp(dy, -0.5, 0.5)) * pixel, here));
            }
        }
        return found;
    }

    interface Visit {
        void at(int index, Peak peak, double distance);
    }

    void around(double x, double y, double reach, Visit visit) {
        int x0 = (int) Math.max(0, Math.floor((x - reach) / cell));
        int x1 = (int) Math.min(across - 1, Math.floor((x + reach) / cell));
        int y0 = (int) Math.max(0, Math.floor((y - reach) / cell));
        int y1 = (int) Math.min(first.length / across - 1, Math.floor((y + reach) / cell));
        for (int cy = y0; cy <= y1; cy++) {
            for (int cx = x0; cx <= x1; cx++) {
                for (int i = first[cy * across + cx]; i >= 0; i = next[i]) {
                    Peak p = all.get(i);
                    double dx = p.xPx() - x;
                    double dy = p.yPx() - y;
                    if (dx * dx + dy * dy <= reach * reach) {
                        visit.at(i, p, Math.sqrt(dx * dx + dy * dy));
                    }
                }
            }
        }
    }

    /** The closest within reach, or null. */
    Peak nearest(double x, double y, double reach) {
        var best = new Object() {
            Peak peak;
            double d = Double.MAX_VALUE;
        };
        around(x, y, reach, (i, p, d) -> {
            if (d < best.d) {
                best.d = d;
                best.peak = p;
            }
        });
        return best.peak;
    }
}
