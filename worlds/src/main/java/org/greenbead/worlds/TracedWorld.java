package org.greenbead.worlds;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.geom.Line2D;
import java.awt.image.BufferedImage;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.SplittableRandom;
import java.util.stream.IntStream;
import org.greenbead.core.bead.Site;

/**
 * Photos by a Monte Carlo path tracer: metal spheres with a GGX surface (Walter et al. 2007) that mirror lamps, room, board and one another, over a
 * diffuse board with a clear coat (Schlick 1994), lamps of finite size at a finite height, soft shadows, clear drops of flux.
 */
public final class TracedWorld implements World {
    private static final double[][] MASKS = {{0.02, 0.12, 0.05}, {0.01, 0.05, 0.02}, {0.02, 0.05, 0.2},
            {0.012, 0.012, 0.014}, {0.2, 0.02, 0.02}, {0.6, 0.6, 0.58}, {0.1, 0.02, 0.12},
            {0.05, 0.16, 0.12}, {0.03, 0.03, 0.03}};
    private static final double[][] MATS = {{0.04, 0.04, 0.045}, {0.5, 0.5, 0.48}, {0.3, 0.18, 0.1},
            {0.05, 0.1, 0.3}, {0.15, 0.16, 0.17}};
    private static final double[][] PADS = {{0.75, 0.55, 0.2}, {0.7, 0.36, 0.2}, {0.62, 0.62, 0.63}};
    private static final int TEXTURE = 640;
    private static final double LENS_MM = 9;
    private final int samples;

    /** @param samples rays a pixel */
    public TracedWorld(int samples) {
        this.samples = samples;
    }

    @Override
    public String name() {
        return "traced";
    }

    @Override
    public MadePhoto photo(ChipScene scene, double ballPx, Random random) {
        return new Shot(scene, ballPx, random).taken();
    }

    /** A disc, ring or panel of light at a height over the board. */
    private record Lamp(double heightMm, double x, double y, double inner, double outer, int parts,
            double strength) {
        double at(double px, double py) {
            double r2 = (px - x) * (px - x) + (py - y) * (py - y);
            if (r2 < inner * inner || r2 > outer * outer) {
                return 0;
            }
            if (parts == 0) {
                return strength;
            }
            double turn = Math.atan2(py - y, px - x) / (2 * Math.PI) * parts;
            return Math.abs(turn - Math.rint(turn)) < 0.27 ? strength : 0;
        }

        double area() {
            return Math.PI * (outer * outer - inner * inner);
        }
    }

    private record Clear(double x, double y, double z, double r, double wobble) {}

    private final class Shot {
        final ChipScene scene;
        final Random random;
        final int width;
        final int height;
        final double scale;
        final double distance;
        final double[] eye;
        final double[] right;
        final double[] up;
        final double[] back;
        final double shiftX;
        final double shiftY;
        final double lens;
        final List<Lamp> lamps = new ArrayList<>();
        final List<Clear> clear = new ArrayList<>();
        final double room;
        final double[] mask;
        final double[] mat;
        final double[] pad;
        final double coat;
        final Spheres spheres;
        final double[][] texture;
        final double halfX;
        final double halfY;
        final double frost;
        final double padMm;

        Shot(ChipScene scene, double ballPx, Random random) {
            this.scene = scene;
            this.random = random;
            halfX = scene.halfMm(true);
            halfY = scene.halfMm(false);
            scale = ballPx / scene.usualMm();
            double roll = random.nextInt(4) * Math.PI / 2 + Math.toRadians(14 * random.nextGaussian());
            double tilt = Math.toRadians(random.nextDouble() * 11);
            double lean = 2 * Math.PI * random.nextDouble();
            distance = 70 + 150 * random.nextDouble();
            double wide = Math.abs(halfX * Math.cos(roll)) + Math.abs(halfY * Math.sin(roll));
            double high = Math.abs(halfX * Math.sin(roll)) + Math.abs(halfY * Math.cos(roll));
            width = Math.max(80, (int) (2 * wide * scale * 1.12));
            height = Math.max(80, (int) (2 * high * scale * 1.12));
            back = new double[]{Math.sin(tilt) * Math.cos(lean), Math.sin(tilt) * Math.sin(lean),
                    Math.cos(tilt)};
            double[] flat = {Math.cos(roll), Math.sin(roll), 0};
            double dot = flat[0] * back[0] + flat[1] * back[1];
            right = unit(new double[]{flat[0] - dot * back[0], flat[1] - dot * back[1], -dot * back[2]});
            up = cross(back, right);
            eye = new double[]{back[0] * distance, back[1] * distance, back[2] * distance};
            shiftX = 0.03 * width * random.nextGaussian() * 0.5;
            shiftY = 0.03 * height * random.nextGaussian() * 0.5;
            lens = 0.012 * (2 * random.nextDouble() - 1);
            mask = MASKS[random.nextInt(MASKS.length)].clone();
            double light = 0.6 + 0.9 * random.nextDouble();
            for (int c = 0; c < 3; c++) {
                mask[c] = Math.min(0.8, mask[c] * light * (0.85 + 0.3 * random.nextDouble()));
            }
            mat = MATS[random.nextInt(MATS.length)];
            pad = PADS[random.nextInt(PADS.length)];
            coat = random.nextDouble() < 0.3 ? 0.35 : 0.03 + 0.25 * random.nextDouble();
            frost = random.nextDouble() < 0.5 ? 0 : 0.12 * random.nextDouble();
            padMm = (0.34 + 0.07 * random.nextDouble()) * scene.usualMm();
            room = lit();
            texture = texture();
            spheres = solder();
            flux();
        }

        private double lit() {
            double what = random.nextDouble();
            double h = 35 + 70 * random.nextDouble();
            double axis = 0.05 * h * random.nextGaussian();
            double axisY = 0.05 * h * random.nextGaussian();
            if (what < 0.5) {
                double r = h * (0.35 + 0.55 * random.nextDouble());
                int parts = random.nextInt(3) == 0 ? 0 : 8 + random.nextInt(50);
                lamps.add(new Lamp(h, axis, axisY, r - 0.04 * h - 0.05 * h * random.nextDouble(),
                        r + 0.04 * h, parts,
                        1));
            } else if (what < 0.72) {
                int count = 1 + random.nextInt(3);
                double far = h * (0.4 + 0.9 * random.nextDouble());
                double turn = 2 * Math.PI * random.nextDouble();
                for (int i = 0; i < count; i++) {
                    double a = turn + i * (count == 2 ? Math.PI : 2.1) + 0.2 * random.nextGaussian();
                    lamps.add(new Lamp(h, far * Math.cos(a), far * Math.sin(a), 0,
                            h * (0.05 + 0.25 * random.nextDouble()), 0, 1));
                }
            } else if (what < 0.86) {
                lamps.add(new Lamp(h, axis, axisY, 0.08 * h, h * (0.5 + 1.2 * random.nextDouble()), 0, 1));
            } else {
                lamps.add(new Lamp(h, axis, axisY, 0, h * (0.06 + 0.12 * random.nextDouble()), 0, 1));
                double r = 0.7 * h;
                lamps.add(new Lamp(h, 0, 0, r - 0.07 * h, r, 24, 0.3));
            }
            double sum = lamps.stream().mapToDouble(l -> l.area() * l.strength()
                    / (l.heightMm() * l.heightMm() + l.x() * l.x() + l.y() * l.y())).sum();
            lamps.replaceAll(l -> new Lamp(l.heightMm(), l.x(), l.y(), l.inner(), l.outer(), l.parts(),
                    l.strength() / sum));
            return 0.015 + 0.6 * random.nextDouble() * random.nextDouble();
        }

        private double[][] texture() {
            var image = new BufferedImage(TEXTURE, TEXTURE, BufferedImage.TYPE_INT_RGB);
            var g = image.createGraphics();
            double perMm = TEXTURE / (2 * Math.max(halfX, halfY));
            int lines = random.nextInt(90);
            g.setColor(Color.WHITE);
            for (int i = 0; i < lines; i++) {
                double x = TEXTURE * random.nextDouble();
                double y = TEXTURE * random.nextDouble();
                double way = random.nextInt(8) * Math.PI / 4;
                double long_ = (0.5 + 3 * random.nextDouble()) * scene.map().pitchMm() * perMm;
                g.setStroke(new BasicStroke((float) Math.max(1,
                        scene.usualMm() * perMm * (0.1 + 0.35 * random.nextDouble()))));
                g.draw(new Line2D.Double(x, y, x + long_ * Math.cos(way), y + long_ * Math.sin(way)));
            }
            for (int i = random.nextInt(4); i > 0; i--) {
                g.fillRect(random.nextInt(TEXTURE), random.nextInt(TEXTURE), random.nextInt(TEXTURE / 2),
                        random.nextInt(TEXTURE / 2));
            }
            g.dispose();
            double[][] out = new double[TEXTURE][TEXTURE];
            for (int y = 0; y < TEXTURE; y++) {
                for (int x = 0; x < TEXTURE; x++) {
                    out[y][x] = (image.getRGB(x, y) & 255) / 255.0;
                }
            }
            return out;
        }

        private Spheres solder() {
            var list = new ArrayList<double[]>();
            double rough = random.nextDouble() < 0.4
                    ? 0.05 + 0.1 * random.nextDouble()
                    : 0.12 + 0.4 * random.nextDouble();
            double mixed = random.nextDouble() < 0.25 ? 0.5 : 0.08;
            scene.balls().values().forEach(b -> list.add(sphere(b.xMm(), b.yMm(), b.diameterMm(),
                    Math.clamp(rough * Math.exp(mixed * random.nextGaussian()), 0.04, 0.7))));
            scene.strays().forEach(b -> list.add(new double[]{b.xMm(), b.yMm(), 0.48 * b.diameterMm(),
                    b.diameterMm() / 2, rough}));
            for (ChipScene.Neck n : scene.necks()) {
                ChipScene.Ball a = scene.balls().get(n.from());
                ChipScene.Ball b = scene.balls().get(n.to());
                double z = 0.25 * Math.min(a.diameterMm(), b.diameterMm());
                for (int k = 1; k < 30; k++) {
                    double t = k / 30.0;
                    double thick = n.widthMm()
                            + (0.8 * Math.min(a.diameterMm(), b.diameterMm()) - n.widthMm())
                                    * Math.pow(2 * t - 1, 4);
                    list.add(new double[]{a.xMm() + t * (b.xMm() - a.xMm()),
                            a.yMm() + t * (b.yMm() - a.yMm()), z, thick / 2, rough});
                }
            }
            return new Spheres(list, scene.map().pitchMm());
        }

        private double[] sphere(double x, double y, double d, double rough) {
            double r = d / 2;
            return new double[]{x, y, Math.sqrt(Math.max(0.05 * r * r, r * r - padMm * padMm)), r, rough};
        }

        /** Drops, rings and films that dry round balls or between them. */
        private void flux() {
            if (random.nextDouble() < 0.45) {
                return;
            }
            double part = random.nextDouble() * random.nextDouble();
            for (Site s : scene.map().sites()) {
                if (random.nextDouble() < part) {
                    double wide = scene.usualMm() * (0.4 + 0.6 * random.nextDouble());
                    double tall = wide * (0.12 + 0.4 * random.nextDouble());
                    double r = (wide * wide + tall * tall) / (2 * tall);
                    clear.add(new Clear(s.xMm() + 0.3 * wide * random.nextGaussian(),
                            s.yMm() + 0.3 * wide * random.nextGaussian(), tall - r, r,
                            0.05 + 0.3 * random.nextDouble()));
                    for (int k = random.nextInt(6); k > 0; k--) {
                        double b = scene.usualMm() * (0.03 + 0.08 * random.nextDouble());
                        double a = 2 * Math.PI * random.nextDouble();
                        double far = scene.usualMm() * (0.5 + 0.25 * random.nextDouble());
                        clear.add(new Clear(s.xMm() + far * Math.cos(a), s.yMm() + far * Math.sin(a),
                                0.1 * scene.usualMm(), b, 0));
                    }
                }
            }
        }

        MadePhoto taken() {
            float[][] light = new float[3][width * height];
            long seed = random.nextLong();
            IntStream.range(0, height).forEach(y -> {
                var lot = new SplittableRandom(seed + 77L * y);
                double[] sum = new double[3];
                for (int x = 0; x < width; x++) {
                    sum[0] = sum[1] = sum[2] = 0;
                    for (int k = 0; k < samples; k++) {
                        double[] c = ray(x + lot.nextDouble(), y + lot.nextDouble(), lot);
                        for (int i = 0; i < 3; i++) {
                            sum[i] += Math.min(8, c[i]);
                        }
                    }
                    for (int i = 0; i < 3; i++) {
                        light[i][y * width + x] = (float) (sum[i] / samples);
                    }
                }
            });
            Map<String, double[]> outlines = new HashMap<>();
            scene.balls().forEach((name, b) -> outlines.put(name, seen(b.xMm(), b.yMm(), b.diameterMm())));
            Map<String, double[]> sites = MadePhoto.sites(scene, this::seen);
            List<double[]> strays = scene.strays().stream().map(b -> {
                double[] p = seen(new double[]{b.xMm(), b.yMm(), 0.48 * b.diameterMm()}, b.diameterMm());
                return new double[]{p[0], p[1], p[2], b.diameterMm()};
            }).toList();
            return new MadePhoto(width, height, developed(light, outlines), scene, sites, outlines, strays);
        }

        private double[] seen(double x, double y, double d) {
            return seen(sphere(x, y, d, 0), d);
        }

        private double[] seen(double[] s, double d) {
            double[] v = {s[0] - eye[0], s[1] - eye[1], s[2] - eye[2]};
            double depth = -dot(v, back);
            double f = scale * distance;
            double ux = f * dot(v, right) / depth;
            double uy = -f * dot(v, up) / depth;
            double[] p = bent(ux, uy);
            double[] q = bent(ux + 0.5, uy);
            double local = Math.hypot(q[0] - p[0], q[1] - p[1]) / 0.5;
            return new double[]{p[0], p[1], f / depth * d / 2 * local};
        }

        /** From straight to seen through the lens: the inverse of {@link #straight}. */
        private double[] bent(double ux, double uy) {
            double x = ux;
            double y = uy;
            double half = width / 2.0;
            for (int i = 0; i < 12; i++) {
                double k = 1 + lens * (x * x + y * y) / (half * half);
                x = ux / k;
                y = uy / k;
            }
            return new double[]{x + width / 2.0 + shiftX, y + height / 2.0 + shiftY};
        }

        private double[] ray(double px, double py, SplittableRandom lot) {
            double x = px - width / 2.0 - shiftX;
            double y = py - height / 2.0 - shiftY;
            double half = width / 2.0;
            double k = (1 + lens * (x * x + y * y) / (half * half)) / (scale * distance);
            double[] d = new double[3];
            for (int i = 0; i < 3; i++) {
                d[i] = x * k * right[i] - y * k * up[i] - back[i];
            }
            return traced(eye, unit(d), lot, 0);
        }

        private double[] traced(double[] o, double[] d, SplittableRandom lot, int depth) {
            double[] out = new double[3];
            double[] through = {1, 1, 1};
            double t = spheres.hit(o, d);
            double ground = d[2] < -1e-9 ? -o[2] / d[2] : Double.MAX_VALUE;
            double solid = Math.min(t, ground);
            if (depth == 0) {
                film(o, d, solid, lot, out, through);
            }
            if (solid == Double.MAX_VALUE) {
                return sum(out, through, sky(o, d));
            }
            double[] p = {o[0] + solid * d[0], o[1] + solid * d[1], o[2] + solid * d[2]};
            if (t < ground) {
                double[] s = spheres.last();
                double[] n = {(p[0] - s[0]) / s[3], (p[1] - s[1]) / s[3], (p[2] - s[2]) / s[3]};
                return sum(out, through, metal(p, n, d, s[4], frost, s[3], lot, depth));
            }
            return sum(out, through, board(p, d, lot, depth));
        }

        private double[] metal(double[] p, double[] n, double[] d, double rough, double bump, double size,
                SplittableRandom lot, int depth) {
            if (depth > 2) {
                return new double[]{0.05, 0.05, 0.05};
            }
            if (bump > 0) {
                n = rocked(n, p, bump, size / 5);
            }
            double a = rough * rough;
            double u = lot.nextDouble();
            double tan2 = a * a * u / Math.max(1e-9, 1 - u);
            double cos = 1 / Math.sqrt(1 + tan2);
            double sin = Math.sqrt(Math.max(0, 1 - cos * cos));
            double phi = 2 * Math.PI * lot.nextDouble();
            double[] tx = unit(Math.abs(n[0]) > 0.8
                    ? cross(n, new double[]{0, 1, 0})
                    : cross(n, new double[]{1, 0, 0}));
            double[] ty = cross(n, tx);
            double[] m = new double[3];
            for (int i = 0; i < 3; i++) {
                m[i] = cos * n[i] + sin * (Math.cos(phi) * tx[i] + Math.sin(phi) * ty[i]);
            }
            double dm = dot(d, m);
            double[] r = new double[3];
            for (int i = 0; i < 3; i++) {
                r[i] = d[i] - 2 * dm * m[i];
            }
            if (dot(r, n) <= 1e-6) {
                return new double[]{0.02, 0.02, 0.02};
            }
            double f = 0.62 + 0.38 * Math.pow(1 - Math.abs(dm), 5);
            double[] from = {p[0] + 1e-5 * n[0], p[1] + 1e-5 * n[1], p[2] + 1e-5 * n[2]};
            double[] c = traced(from, r, lot, depth + 1);
            return new double[]{f * c[0], f * 0.99 * c[1], f * 0.97 * c[2]};
        }

        private double[] board(double[] p, double[] d, SplittableRandom lot, int depth) {
            boolean body = Math.abs(p[0]) < halfX && Math.abs(p[1]) < halfY;
            double[] own = body ? mask.clone() : mat.clone();
            double noise = body ? 0.06 : 0.3;
            double grain = 1 + noise * (value(p[0] * 40, p[1] * 40, 3) - 0.5)
                    + noise * (value(p[0] * 9, p[1] * 9, 5) - 0.5);
            if (body) {
                double half = Math.max(halfX, halfY);
                int tx = Math.clamp((int) ((p[0] + half) / (2 * half) * TEXTURE), 0, TEXTURE - 1);
                int ty = Math.clamp((int) ((half - p[1]) / (2 * half) * TEXTURE), 0, TEXTURE - 1);
                double copper = texture[ty][tx];
                for (int c = 0; c < 3; c++) {
                    own[c] *= 1 + 0.9 * copper;
                }
                if (onPad(p)) {
                    double[] n = unit(new double[]{0.12 * (value(p[0] * 20, p[1] * 20, 9) - 0.5),
                            0.12 * (value(p[0] * 20, p[1] * 20, 11) - 0.5), 1});
                    double[] c = metal(p, n, d, 0.35, 0, 1, lot, depth);
                    return new double[]{c[0] * pad[0] / 0.65, c[1] * pad[1] / 0.65, c[2] * pad[2] / 0.65};
                }
            }
            double[] n = {0, 0, 1};
            double[] from = {p[0], p[1], 1e-5};
            double e = direct(from, lot) + room * open(from, lot);
            double[] out = new double[3];
            for (int c = 0; c < 3; c++) {
                out[c] = own[c] * grain * e;
            }
            if (depth < 2) {
                double wob = coat * 0.5;
                double[] m = unit(new double[]{wob * (lot.nextDouble() - 0.5), wob * (lot.nextDouble() - 0.5),
                        1});
                double dm = dot(d, m);
                double[] r = {d[0] - 2 * dm * m[0], d[1] - 2 * dm * m[1], d[2] - 2 * dm * m[2]};
                if (dot(r, n) > 0) {
                    double f = body ? 0.035 + 0.96 * Math.pow(1 - Math.abs(dm), 5) : 0.01;
                    double[] c = spheres.hit(from, r) < Double.MAX_VALUE
                            ? new double[]{0.1, 0.1, 0.1}
                            : sky(from, r);
                    for (int i = 0; i < 3; i++) {
                        out[i] += f * c[i];
                    }
                }
            }
            return out;
        }

        private boolean onPad(double[] p) {
            return spheres.pad(scene, p[0], p[1], padMm);
        }

        private double direct(double[] p, SplittableRandom lot) {
            double sum = 0;
            for (Lamp l : lamps) {
                double r = Math.sqrt(l.inner() * l.inner()
                        + lot.nextDouble() * (l.outer() * l.outer() - l.inner() * l.inner()));
                double a = 2 * Math.PI * lot.nextDouble();
                double[] to = {l.x() + r * Math.cos(a) - p[0], l.y() + r * Math.sin(a) - p[1],
                        l.heightMm() - p[2]};
                double light = l.at(to[0] + p[0], to[1] + p[1]);
                if (light > 0) {
                    double way2 = dot(to, to);
                    double cos = to[2] / Math.sqrt(way2);
                    if (spheres.hit(p, unit(to)) == Double.MAX_VALUE) {
                        sum += light * l.area() * cos * cos / way2 / Math.PI;
                    }
                }
            }
            return sum;
        }

        /** Whether a direction by the cosine law leads out. */
        private double open(double[] p, SplittableRandom lot) {
            double r = Math.sqrt(lot.nextDouble());
            double a = 2 * Math.PI * lot.nextDouble();
            double[] d = {r * Math.cos(a), r * Math.sin(a), Math.sqrt(Math.max(1e-6, 1 - r * r))};
            return spheres.hit(p, d) == Double.MAX_VALUE ? 1 : 0.2;
        }

        private double[] sky(double[] o, double[] d) {
            double sum = room * (0.6 + 0.4 * d[0] + 0.3 * d[2]);
            if (d[2] > 0.02) {
                for (Lamp l : lamps) {
                    double t = (l.heightMm() - o[2]) / d[2];
                    sum += l.at(o[0] + t * d[0], o[1] + t * d[1]);
                }
                // The lens itself is dark.
                double t = (0.9 * distance - o[2]) / d[2];
                double ex = o[0] + t * d[0] - 0.9 * eye[0];
                double ey = o[1] + t * d[1] - 0.9 * eye[1];
                if (ex * ex + ey * ey < LENS_MM * LENS_MM) {
                    sum *= lamps.getFirst().inner() == 0 ? 1 : 0.3;
                }
            }
            return new double[]{sum, sum, sum};
        }

        /** Light thrown back by clear flux in front of what is solid; what goes on is tinted. */
        private void film(double[] o, double[] d, double solid, SplittableRandom lot, double[] out,
                double[] through) {
            double g = d[2] < -1e-9 ? -o[2] / d[2] : 0;
            double gx = o[0] + g * d[0];
            double gy = o[1] + g * d[1];
            for (Clear c : clear) {
                double reach = Math.sqrt(Math.max(0, c.r() * c.r() - c.z() * c.z())) + 0.4 * scene.usualMm();
                if (Math.abs(gx - c.x()) > reach || Math.abs(gy - c.y()) > reach) {
                    continue;
                }
                double[] v = {o[0] - c.x(), o[1] - c.y(), o[2] - c.z()};
                double b = dot(v, d);
                double q = b * b - dot(v, v) + c.r() * c.r();
                if (q <= 0) {
                    continue;
                }
                double t = -b - Math.sqrt(q);
                double[] p = {o[0] + t * d[0], o[1] + t * d[1], o[2] + t * d[2]};
                if (t <= 0 || t >= solid || p[2] <= 0) {
                    continue;
                }
                double[] n = {(p[0] - c.x()) / c.r(), (p[1] - c.y()) / c.r(), (p[2] - c.z()) / c.r()};
                n = c.wobble() > 0 ? rocked(n, p, c.wobble(), 0.15 * scene.usualMm()) : n;
                double dn = dot(d, n);
                double f = 0.04 + 0.96 * Math.pow(1 - Math.min(1, Math.abs(dn)), 5);
                double[] r = {d[0] - 2 * dn * n[0], d[1] - 2 * dn * n[1], d[2] - 2 * dn * n[2]};
                double[] from = {p[0] + 1e-5 * n[0], p[1] + 1e-5 * n[1], p[2] + 1e-5 * n[2]};
                double[] seen = spheres.hit(from, r) < Double.MAX_VALUE
                        ? new double[]{0.15, 0.15, 0.15}
                        : sky(from, r);
                double[] tint = {0.97, 0.94, 0.85};
                for (int i = 0; i < 3; i++) {
                    out[i] += through[i] * f * seen[i];
                    through[i] *= (1 - f) * tint[i];
                }
            }
        }

        private int[] developed(float[][] light, Map<String, double[]> outlines) {
            double usual = Film.usual(light[1], width, height, outlines.values());
            double gain = (0.12 + 0.35 * random.nextDouble()) / Math.max(1e-4, usual);
            double[] white = {1 + 0.1 * random.nextGaussian() * 0.6, 1, 1 + 0.1 * random.nextGaussian()};
            double blur = 0.4 + 0.9 * random.nextDouble()
                    + (random.nextDouble() < 0.15 ? 1.2 * random.nextDouble() : 0);
            double noise = 0.002 + 0.012 * random.nextDouble() * random.nextDouble();
            int[] rgb = new int[width * height];
            for (int c = 0; c < 3; c++) {
                float[] plane = Film.blurred(light[c], width, height, blur);
                for (int i = 0; i < plane.length; i++) {
                    double v = plane[i] * gain * white[c];
                    v += noise * Math.sqrt(0.1 + Math.max(0, v)) * random.nextGaussian();
                    rgb[i] |= Film.code(v) << (16 - 8 * c);
                }
            }
            return random.nextDouble() < 0.6
                    ? Film.pressed(rgb, width, height, 0.62f + 0.33f * random.nextFloat())
                    : rgb;
        }
    }

    private static double[] rocked(double[] n, double[] p, double by, double grainMm) {
        double g = 1 / grainMm;
        double a = value(p[0] * g + p[2] * g, p[1] * g, 21) - 0.5;
        double b = value(p[0] * g, p[1] * g + p[2] * g, 23) - 0.5;
        double c = value(p[2] * g - p[0] * g, p[1] * g, 25) - 0.5;
        return unit(new double[]{n[0] + 2 * by * a, n[1] + 2 * by * b, n[2] + 2 * by * c});
    }

    /** Value noise, 0 to 1. */
    private static double value(double x, double y, int seed) {
        int ix = (int) Math.floor(x);
        int iy = (int) Math.floor(y);
        double fx = x - ix;
        double fy = y - iy;
        double ux = fx * fx * (3 - 2 * fx);
        double uy = fy * fy * (3 - 2 * fy);
        double low = hash(ix, iy, seed) * (1 - ux) + hash(ix + 1, iy, seed) * ux;
        double high = hash(ix, iy + 1, seed) * (1 - ux) + hash(ix + 1, iy + 1, seed) * ux;
        return low * (1 - uy) + high * uy;
    }

    private static double hash(int x, int y, int seed) {
        int h = x * 374761393 + y * 668265263 + seed * 974634777;
        h = (h ^ h >>> 13) * 1274126177;
        return ((h ^ h >>> 16) & 0xffff) / 65535.0;
    }

    private static double[] sum(double[] out, double[] through, double[] c) {
        for (int i = 0; i < 3; i++) {
            out[i] += through[i] * c[i];
        }
        return out;
    }

    static double dot(double[] a, double[] b) {
        return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
    }

    private static double[] cross(double[] a, double[] b) {
        return new double[]{a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2],
                a[0] * b[1] - a[1] * b[0]};
    }

    static double[] unit(double[] v) {
        double l = Math.sqrt(dot(v, v));
        return new double[]{v[0] / l, v[1] / l, v[2] / l};
    }
}
