package org.greenbead.worlds;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.greenbead.core.bead.Site;

/**
 * The face of a chip under its balls as it is seen from over it, in squares of the board: glass cloth under coloured mask, copper, vias, pads bare or
 * tinned, small parts, letters, flux that lies between; lit by the surroundings, with the shadows of balls.
 */
final class Carrier {
    private static final double[][] PAD_METALS = {{0.85, 0.62, 0.28}, {0.75, 0.42, 0.28}, {0.68, 0.68, 0.7},
            {0.35, 0.28, 0.2}};
    /** Brighter than so much of the mean sky no skin of lacquer shines: its bumps are finer than a square. */
    private static final double MOST_GLINT = 5;
    private final ChipScene scene;
    private final Random random;
    private final Surroundings round;
    private final double perMm;
    private final double halfX;
    private final double halfY;
    private final int wide;
    private final int high;
    private final float[] colour;
    private final float[] rough;
    private final boolean[] metal;
    private final float[] leanX;
    private final float[] leanY;
    private final float[] seen;
    private final double[] mask;
    private final double gloss;

    /** @param perMm squares to a millimetre */
    Carrier(ChipScene scene, Random random, Surroundings round, double perMm) {
        this.scene = scene;
        this.random = random;
        this.round = round;
        this.perMm = perMm;
        halfX = scene.halfMm(true);
        halfY = scene.halfMm(false);
        double half = 1.35 * Math.max(halfX, halfY);
        wide = (int) (2 * half * perMm) + 1;
        high = wide;
        colour = new float[3 * wide * high];
        rough = new float[wide * high];
        metal = new boolean[wide * high];
        leanX = new float[wide * high];
        leanY = new float[wide * high];
        seen = new float[3 * wide * high];
        double hue = random.nextDouble();
        double deep = 0.01 + 0.12 * random.nextDouble() * random.nextDouble();
        mask = random.nextDouble() < 0.3
                ? new double[]{deep, deep, deep * (0.9 + 0.2 * random.nextDouble())}
                : new double[]{deep * (1 + Math.cos(2 * Math.PI * hue)),
                        deep * (1.2 + Math.cos(2 * Math.PI * (hue - 0.33))),
                        deep * (1 + Math.cos(2 * Math.PI * (hue - 0.67)))};
        if (random.nextDouble() < 0.08) {
            mask[0] = 0.7;
            mask[1] = 0.7;
            mask[2] = 0.66;
        }
        gloss = random.nextDouble() < 0.4
                ? 0.05 + 0.15 * random.nextDouble()
                : 0.3 + 0.5 * random.nextDouble();
        ground();
        tracks();
        parts();
        letters();
        pads();
        puddles();
        lit();
    }

    private int square(double x, double y) {
        int u = (int) Math.floor(x * perMm + wide / 2.0);
        int v = (int) Math.floor(y * perMm + high / 2.0);
        return u < 0 || v < 0 || u >= wide || v >= high ? -1 : v * wide + u;
    }

    private double xMm(int i) {
        return (i % wide + 0.5 - wide / 2.0) / perMm;
    }

    private double yMm(int i) {
        return (i / wide + 0.5 - high / 2.0) / perMm;
    }

    private void set(int i, double r, double g, double b) {
        colour[3 * i] = (float) r;
        colour[3 * i + 1] = (float) g;
        colour[3 * i + 2] = (float) b;
    }

    private void ground() {
        double thread = scene.map().pitchMm() * (0.3 + 0.5 * random.nextDouble());
        double cloth = random.nextDouble() < 0.5 ? 0 : 0.35 * random.nextDouble();
        var stain = new Waves(random, 7, 6 * scene.map().pitchMm());
        var peel = new Waves(random, 9, (0.2 + random.nextDouble()) * scene.map().pitchMm());
        double bumps = (gloss < 0.3 ? 0.006 : 0.03) * random.nextDouble();
        double table = 0.01 + 0.5 * random.nextDouble() * random.nextDouble();
        double warm = 0.3 * random.nextDouble();
        var grain = new Waves(random, 9, 0.4 * scene.map().pitchMm());
        for (int i = 0; i < wide * high; i++) {
            double x = xMm(i);
            double y = yMm(i);
            if (Math.abs(x) < halfX && Math.abs(y) < halfY) {
                // Warp lies over weft in every second square of the cloth.
                long over = Math.floorMod((long) Math.floor(x / thread) + (long) Math.floor(y / thread), 2);
                double along = over == 0 ? x / thread : y / thread;
                double v = 1 + cloth * (Math.sin(Math.PI * (along - Math.floor(along))) - 0.6)
                        + 0.06 * stain.at(x, y);
                set(i, mask[0] * v, mask[1] * v, mask[2] * v);
                rough[i] = (float) gloss;
                leanX[i] = (float) (bumps * peel.at(x, y));
                leanY[i] = (float) (bumps * peel.at(y + 3, x - 5));
            } else {
                double v = Math.max(0.1, 1 + 0.2 * grain.at(x, y) + 0.1 * random.nextGaussian());
                set(i, table * v * (1 + warm), table * v, table * v * (1 - warm));
                rough[i] = 0.9f;
            }
        }
    }

    /** Laid along a line. */
    private void stroke(double x0, double y0, double x1, double y1, double widthMm, double[] rgb,
            double shine) {
        double l = Math.hypot(x1 - x0, y1 - y0);
        for (double t = 0; t <= l; t += 0.5 / perMm) {
            blob(x0 + t / Math.max(1e-9, l) * (x1 - x0), y0 + t / Math.max(1e-9, l) * (y1 - y0), widthMm / 2,
                    rgb,
                    shine);
        }
    }

    private void blob(double x, double y, double r, double[] rgb, double shine) {
        for (double b = -r; b <= r; b += 0.7 / perMm) {
            double half = Math.sqrt(r * r - b * b);
            for (double a = -half; a <= half; a += 0.7 / perMm) {
                int i = square(x + a, y + b);
                if (i >= 0) {
                    set(i, rgb[0], rgb[1], rgb[2]);
                    rough[i] = (float) shine;
                }
            }
        }
    }

    private void tracks() {
        double more = 1.15 + 1.2 * random.nextDouble();
        double[] bright = {mask[0] * more + 0.01, mask[1] * more + 0.006, mask[2] * more};
        double pitch = scene.map().pitchMm();
        List<Site> sites = scene.map().sites();
        double part = random.nextDouble() * random.nextDouble();
        for (Site s : sites) {
            if (random.nextDouble() > part) {
                continue;
            }
            double x = s.xMm();
            double y = s.yMm();
            double width = pitch * (0.06 + 0.12 * random.nextDouble());
            int way = random.nextInt(8);
            for (int k = 1 + random.nextInt(4); k > 0; k--) {
                double l = pitch * (0.4 + 1.3 * random.nextDouble());
                double nx = x + l * Math.cos(way * Math.PI / 4);
                double ny = y + l * Math.sin(way * Math.PI / 4);
                stroke(x, y, nx, ny, width, bright, gloss);
                x = nx;
                y = ny;
                way += random.nextInt(3) - 1;
            }
            blob(x, y, pitch * (0.1 + 0.1 * random.nextDouble()), bright, gloss);
            if (random.nextBoolean()) {
                blob(x, y, 0.07 * pitch, new double[]{mask[0] * 0.4, mask[1] * 0.4, mask[2] * 0.4}, gloss);
            }
        }
    }

    /** Two-ended parts where no ball stands; their ends are metal. */
    private void parts() {
        double pitch = scene.map().pitchMm();
        for (int k = random.nextInt(7); k > 0; k--) {
            double l = pitch * (0.7 + random.nextDouble());
            double x = (2 * random.nextDouble() - 1) * 1.2 * halfX;
            double y = (2 * random.nextDouble() - 1) * 1.2 * halfY;
            if (scene.map().sites().stream()
                    .anyMatch(s -> Math.hypot(s.xMm() - x, s.yMm() - y) < 0.8 * pitch + l / 2)) {
                continue;
            }
            boolean flat = random.nextBoolean();
            double w = 0.5 * l;
            double body = 0.05 + 0.3 * random.nextDouble();
            for (double a = -l / 2; a < l / 2; a += 0.7 / perMm) {
                for (double b = -w / 2; b < w / 2; b += 0.7 / perMm) {
                    int i = flat ? square(x + a, y + b) : square(x + b, y + a);
                    if (i < 0) {
                        continue;
                    }
                    boolean end = Math.abs(a) > 0.26 * l;
                    metal[i] = end;
                    rough[i] = 0.4f;
                    set(i, end ? 0.65 : body, end ? 0.65 : body * 0.75, end ? 0.66 : body * 0.5);
                    double tilt = end ? 0.35 * b / w : 0;
                    leanX[i] = (float) (flat ? 0 : tilt);
                    leanY[i] = (float) (flat ? tilt : 0);
                }
            }
        }
    }

    /** Signs of strokes on a raster of three by five, as a stamp makes them. */
    private void letters() {
        if (random.nextDouble() < 0.5) {
            return;
        }
        double pitch = scene.map().pitchMm();
        double v = 0.3 + 0.4 * random.nextDouble();
        double[] ink = {v, v, v * (0.7 + 0.3 * random.nextDouble())};
        for (int k = 1 + random.nextInt(4); k > 0; k--) {
            double size = pitch * (0.1 + 0.12 * random.nextDouble());
            double x = (2 * random.nextDouble() - 1) * halfX;
            double y = (2 * random.nextDouble() - 1) * halfY;
            double turn = random.nextInt(4) * Math.PI / 2;
            for (int sign = 2 + random.nextInt(6); sign > 0; sign--) {
                for (int s = 3 + random.nextInt(3); s > 0; s--) {
                    double[] p = {random.nextInt(3), random.nextInt(5), random.nextInt(3), random.nextInt(5)};
                    double[] from = turned(p[0] * size, p[1] * size, turn);
                    double[] to = turned(p[2] * size, p[3] * size, turn);
                    stroke(x + from[0], y + from[1], x + to[0], y + to[1], 0.5 * size, ink, 0.8);
                }
                double[] on = turned(4 * size, 0, turn);
                x += on[0];
                y += on[1];
            }
        }
    }

    private static double[] turned(double x, double y, double by) {
        return new double[]{Math.cos(by) * x - Math.sin(by) * y, Math.sin(by) * x + Math.cos(by) * y};
    }

    /** Openings of the mask with the metal in them; where a ball is gone the pad is bare, or keeps a low dome of solder. */
    private void pads() {
        double usual = scene.usualMm();
        double open = usual * (0.4 + 0.1 * random.nextDouble());
        double pad = usual * (0.34 + 0.08 * random.nextDouble());
        double[] bare = PAD_METALS[random.nextInt(PAD_METALS.length)];
        double tinned = random.nextDouble();
        var dents = new Waves(random, 8, 0.3 * usual);
        double shine = 0.1 + 0.5 * random.nextDouble();
        for (Site s : scene.map().sites()) {
            boolean dome = random.nextDouble() < tinned;
            double tall = dome ? 0.05 + 0.5 * random.nextDouble() : 0;
            double dirty = 0.6 + 0.4 * random.nextDouble();
            double offX = 0.1 * pad * random.nextGaussian() * tall;
            for (double b = -open; b <= open; b += 0.7 / perMm) {
                for (double a = -open; a <= open; a += 0.7 / perMm) {
                    int i = square(s.xMm() + a, s.yMm() + b);
                    double out = Math.hypot(a, b);
                    if (i < 0 || out > open) {
                        continue;
                    }
                    metal[i] = out < pad;
                    if (out >= pad) {
                        set(i, 0.4 * mask[0] + 0.01, 0.4 * mask[1] + 0.01, 0.4 * mask[2] + 0.008);
                        continue;
                    }
                    rough[i] = (float) shine;
                    if (dome) {
                        set(i, 0.72 * dirty, 0.72 * dirty, 0.73 * dirty);
                        leanX[i] = (float) (1.2 * tall * (a - offX) / pad
                                + 0.05 * dents.at(s.xMm() + a, s.yMm() + b));
                        leanY[i] = (float) (1.2 * tall * b / pad + 0.05 * dents.at(s.yMm() + b, s.xMm() + a));
                    } else {
                        set(i, bare[0] * dirty, bare[1] * dirty, bare[2] * dirty);
                        leanX[i] = (float) (0.06 * dents.at(s.xMm() + a, s.yMm() + b));
                        leanY[i] = (float) (0.06 * dents.at(s.yMm() + b, s.xMm() + a));
                    }
                }
            }
        }
    }

    /** Where the swelling of a field is high there is flux: darker, browner, with a skin of its own that shines. */
    private void puddles() {
        if (random.nextDouble() < 0.5) {
            return;
        }
        double pitch = scene.map().pitchMm();
        var where = new Waves(random, 8, pitch * (1 + 3 * random.nextDouble()));
        var skin = new Waves(random, 10, pitch * 0.5);
        double limit = 0.6 + 1.4 * random.nextDouble();
        double brown = 0.6 * random.nextDouble();
        double swell = 0.02 + 0.1 * random.nextDouble();
        double shine = 0.12 + 0.2 * random.nextDouble();
        for (int i = 0; i < wide * high; i++) {
            double x = xMm(i);
            double y = yMm(i);
            double over = where.at(x, y) - limit;
            if (over > 0 && Math.abs(x) < halfX && Math.abs(y) < halfY) {
                double edge = Math.exp(-over * 8);
                set(i, colour[3 * i] * (1 - 0.3 * brown), colour[3 * i + 1] * (1 - 0.6 * brown),
                        colour[3 * i + 2] * (1 - brown));
                rough[i] = (float) shine;
                metal[i] = false;
                leanX[i] = (float) (swell * skin.at(x, y) * (0.3 + edge));
                leanY[i] = (float) (swell * skin.at(y - 2, x + 7) * (0.3 + edge));
            }
        }
    }

    private void lit() {
        double[][] lamps = round.lamps();
        double step = scene.map().pitchMm();
        int cells = (int) (2 * 1.4 * Math.max(halfX, halfY) / step) + 2;
        List<List<ChipScene.Ball>> near = new ArrayList<>();
        for (int i = 0; i < cells * cells; i++) {
            near.add(new ArrayList<>());
        }
        for (ChipScene.Ball b : scene.balls().values()) {
            int u = (int) (b.xMm() / step + cells / 2.0);
            int v = (int) (b.yMm() / step + cells / 2.0);
            for (int y = Math.max(0, v - 2); y <= Math.min(cells - 1, v + 2); y++) {
                for (int x = Math.max(0, u - 2); x <= Math.min(cells - 1, u + 2); x++) {
                    near.get(y * cells + x).add(b);
                }
            }
        }
        double[] light = new double[3];
        double[] mirror = new double[3];
        for (int i = 0; i < wide * high; i++) {
            double x = xMm(i);
            double y = yMm(i);
            int u = Math.clamp((int) (x / step + cells / 2.0), 0, cells - 1);
            int v = Math.clamp((int) (y / step + cells / 2.0), 0, cells - 1);
            List<ChipScene.Ball> balls = near.get(v * cells + u);
            light[0] = light[1] = light[2] = 0;
            for (double[] l : lamps) {
                double open = open(balls, x, y, l[0], l[1], l[2], 0.25);
                for (int c = 0; c < 3; c++) {
                    light[c] += open * l[3 + c];
                }
            }
            double nx = leanX[i];
            double ny = leanY[i];
            double n = 1 / Math.sqrt(1 + nx * nx + ny * ny);
            double rx = 2 * n * n * nx;
            double ry = 2 * n * n * ny;
            double rz = Math.max(0.02, 2 * n * n - 1);
            mirror[0] = mirror[1] = mirror[2] = 0;
            round.seen(rx, ry, rz, rough[i], open(balls, x, y, rx, ry, rz, 0.1 + 0.4 * rough[i]), mirror);
            for (int c = 0; c < 3; c++) {
                double own = colour[3 * i + c];
                seen[3 * i + c] = (float) (metal[i]
                        ? own * (mirror[c] + 0.08 * light[c])
                        : own * light[c] + 0.045 * Math.min(MOST_GLINT, mirror[c]));
            }
        }
    }

    /** How much of the light from a direction passes the balls. */
    private static double open(List<ChipScene.Ball> balls, double x, double y, double dx, double dy,
            double dz,
            double soft) {
        double open = 1;
        for (ChipScene.Ball b : balls) {
            double r = b.diameterMm() / 2;
            double vx = b.xMm() - x;
            double vy = b.yMm() - y;
            double vz = 0.75 * r;
            double t = vx * dx + vy * dy + vz * dz;
            if (t > 0) {
                double off2 = vx * vx + vy * vy + vz * vz - t * t;
                double limit = r * (1 + soft);
                if (off2 < limit * limit) {
                    open *= Math.clamp((Math.sqrt(Math.max(0, off2)) / r - 1 + soft) / (2 * soft), 0, 1);
                }
            }
        }
        return open;
    }

    /** What is seen at a place of the board, added so many times. */
    void seen(double x, double y, double times, double[] out) {
        double u = Math.clamp(x * perMm + wide / 2.0 - 0.5, 0, wide - 1.001);
        double v = Math.clamp(y * perMm + high / 2.0 - 0.5, 0, high - 1.001);
        int u0 = (int) u;
        int v0 = (int) v;
        double fu = u - u0;
        double fv = v - v0;
        for (int b = 0; b < 2; b++) {
            for (int a = 0; a < 2; a++) {
                double w = times * (a == 0 ? 1 - fu : fu) * (b == 0 ? 1 - fv : fv);
                int i = 3 * ((v0 + b) * wide + u0 + a);
                out[0] += w * seen[i];
                out[1] += w * seen[i + 1];
                out[2] += w * seen[i + 2];
            }
        }
    }
}
