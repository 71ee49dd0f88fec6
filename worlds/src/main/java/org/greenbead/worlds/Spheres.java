package org.greenbead.worlds;

import java.util.ArrayList;
import java.util.List;
import org.greenbead.core.bead.Site;

/** Spheres on a plane in a grid of square cells; a ray visits the cells in its order (Amanatides and Woo 1987). For one thread. */
final class Spheres {
    private final double cell;
    private final double left;
    private final double low;
    private final int wide;
    private final int high;
    private final double[][][] cells;
    private final double top;
    private double[] last;
    private List<List<double[]>> pads;

    /** @param all x, y, z, radius, roughness */
    Spheres(List<double[]> all, double cell) {
        this.cell = cell;
        double l = 0;
        double b = 0;
        double r = 0;
        double t = 0;
        double z = 0;
        for (double[] s : all) {
            l = Math.min(l, s[0] - s[3]);
            r = Math.max(r, s[0] + s[3]);
            b = Math.min(b, s[1] - s[3]);
            t = Math.max(t, s[1] + s[3]);
            z = Math.max(z, s[2] + s[3]);
        }
        left = l - 0.01;
        low = b - 0.01;
        top = z;
        wide = (int) Math.ceil((r + 0.01 - left) / cell) + 1;
        high = (int) Math.ceil((t + 0.01 - low) / cell) + 1;
        var lists = new ArrayList<List<double[]>>();
        for (int i = 0; i < wide * high; i++) {
            lists.add(new ArrayList<>());
        }
        for (double[] s : all) {
            for (int y = row(s[1] - s[3]); y <= row(s[1] + s[3]); y++) {
                for (int x = column(s[0] - s[3]); x <= column(s[0] + s[3]); x++) {
                    lists.get(y * wide + x).add(s);
                }
            }
        }
        cells = lists.stream().map(k -> k.toArray(double[][]::new)).toArray(double[][][]::new);
    }

    private int column(double x) {
        return Math.clamp((int) Math.floor((x - left) / cell), 0, wide - 1);
    }

    private int row(double y) {
        return Math.clamp((int) Math.floor((y - low) / cell), 0, high - 1);
    }

    /** The sphere that was met last. */
    double[] last() {
        return last;
    }

    /** Way to the first sphere, or Double.MAX_VALUE. */
    double hit(double[] o, double[] d) {
        double from = 0;
        double to = Double.MAX_VALUE;
        double[] lows = {left, low, 0};
        double[] highs = {left + wide * cell, low + high * cell, top};
        for (int i = 0; i < 3; i++) {
            if (Math.abs(d[i]) < 1e-12) {
                if (o[i] < lows[i] || o[i] > highs[i]) {
                    return Double.MAX_VALUE;
                }
                continue;
            }
            double a = (lows[i] - o[i]) / d[i];
            double b = (highs[i] - o[i]) / d[i];
            from = Math.max(from, Math.min(a, b));
            to = Math.min(to, Math.max(a, b));
        }
        if (from > to) {
            return Double.MAX_VALUE;
        }
        int x = column(o[0] + from * d[0]);
        int y = row(o[1] + from * d[1]);
        int sx = d[0] > 0 ? 1 : -1;
        int sy = d[1] > 0 ? 1 : -1;
        double nextX = Math.abs(d[0]) < 1e-12
                ? Double.MAX_VALUE
                : (left + (x + (sx > 0 ? 1 : 0)) * cell - o[0]) / d[0];
        double nextY = Math.abs(d[1]) < 1e-12
                ? Double.MAX_VALUE
                : (low + (y + (sy > 0 ? 1 : 0)) * cell - o[1]) / d[1];
        double stepX = Math.abs(d[0]) < 1e-12 ? Double.MAX_VALUE : cell / Math.abs(d[0]);
        double stepY = Math.abs(d[1]) < 1e-12 ? Double.MAX_VALUE : cell / Math.abs(d[1]);
        while (x >= 0 && y >= 0 && x < wide && y < high) {
            double best = Double.MAX_VALUE;
            for (double[] s : cells[y * wide + x]) {
                double vx = o[0] - s[0];
                double vy = o[1] - s[1];
                double vz = o[2] - s[2];
                double b = vx * d[0] + vy * d[1] + vz * d[2];
                double q = b * b - vx * vx - vy * vy - vz * vz + s[3] * s[3];
                if (q > 0) {
                    double t = -b - Math.sqrt(q);
                    if (t > 1e-6 && t < best && o[2] + t * d[2] > 0) {
                        best = t;
                        last = s;
                    }
                }
            }
            double end = Math.min(nextX, nextY);
            if (best <= end + 1e-9) {
                return best;
            }
            if (end > to) {
                return Double.MAX_VALUE;
            }
            if (nextX < nextY) {
                x += sx;
                nextX += stepX;
            } else {
                y += sy;
                nextY += stepY;
            }
        }
        return Double.MAX_VALUE;
    }

    /** Whether a place lies on the pad of a site. */
    boolean pad(ChipScene scene, double x, double y, double radiusMm) {
        if (pads == null) {
            pads = new ArrayList<>();
            for (int i = 0; i < wide * high; i++) {
                pads.add(new ArrayList<>());
            }
            for (Site s : scene.map().sites()) {
                pads.get(row(s.yMm()) * wide + column(s.xMm())).add(new double[]{s.xMm(), s.yMm()});
            }
        }
        for (int r = Math.max(0, row(y) - 1); r <= Math.min(high - 1, row(y) + 1); r++) {
            for (int c = Math.max(0, column(x) - 1); c <= Math.min(wide - 1, column(x) + 1); c++) {
                for (double[] p : pads.get(r * wide + c)) {
                    if ((p[0] - x) * (p[0] - x) + (p[1] - y) * (p[1] - y) < radiusMm * radiusMm) {
                        return true;
                    }
                }
            }
        }
        return false;
    }
}
