package org.greenbead.worlds;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Font;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.AffineTransform;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Line2D;
import java.awt.geom.QuadCurve2D;
import java.awt.geom.Rectangle2D;
import java.awt.image.BufferedImage;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.greenbead.core.bead.Site;

/**
 * Photos put together from layers: a drawn board with print, parts and traces; balls shaded by a sum of spherical Gaussians (Wang et al. 2009);
 * flux, dust, hair and scratches laid over; then a camera with defocus, motion, glare, vignette, chromatic error, a Bayer filter, noise, a tone
 * curve and JPEG.
 */
public final class CompositeWorld implements World {
    @Override
    public String name() {
        return "composite";
    }

    @Override
    public MadePhoto photo(ChipScene scene, double ballPx, Random random) {
        return new Layers(scene, ballPx, random).taken();
    }

    /** A lobe of light: towards (x, y, z), this sharp, this strong. */
    private record Lobe(double x, double y, double z, double sharp, double strong, boolean shades) {}

    private static final class Layers {
        final ChipScene scene;
        final Random random;
        final double scale;
        final double cos;
        final double sin;
        final double[] vanish;
        final double[] lean;
        final int width;
        final int height;
        final List<Lobe> lobes = new ArrayList<>();
        final float[][] light;
        final double ambient;
        final double[] maskColour;
        final double[] padColour;
        final double rough;
        final double matt;
        final double rim;
        final double grain;
        final double[] tint;
        final List<double[]> discs = new ArrayList<>();
        final float[][] noise;

        Layers(ChipScene scene, double ballPx, Random random) {
            this.scene = scene;
            this.random = random;
            scale = ballPx / scene.usualMm();
            double roll = random.nextInt(4) * Math.PI / 2 + 0.2 * random.nextGaussian();
            cos = Math.cos(roll);
            sin = Math.sin(roll);
            double tilt = 0.16 * random.nextDouble();
            double way = 2 * Math.PI * random.nextDouble();
            lean = new double[]{tilt * Math.cos(way), tilt * Math.sin(way)};
            double far = 60 + 150 * random.nextDouble();
            vanish = new double[]{lean[0] / far, lean[1] / far};
            double wide = scene.halfMm(true) * Math.abs(cos) + scene.halfMm(false) * Math.abs(sin);
            double high = scene.halfMm(true) * Math.abs(sin) + scene.halfMm(false) * Math.abs(cos);
            width = Math.max(96, (int) (2 * wide * scale * 1.16));
            height = Math.max(96, (int) (2 * high * scale * 1.16));
            light = new float[3][width * height];
            maskColour = mask();
            double kind = random.nextDouble();
            padColour = kind < 0.4
                    ? new double[]{0.72, 0.5, 0.2}
                    : kind < 0.6
                            ? new double[]{0.6, 0.3, 0.18}
                            : kind < 0.85
                                    ? new double[]{0.5, 0.5, 0.52}
                                    : new double[]{0.2, 0.17, 0.12};
            rough = 0.03 + 0.5 * random.nextDouble() * random.nextDouble();
            matt = random.nextDouble() < 0.5 ? 0.05 : 0.5 * random.nextDouble();
            rim = 0.25 + 0.7 * random.nextDouble();
            grain = random.nextDouble() < 0.4 ? 0 : 0.25 * random.nextDouble();
            tint = new double[]{1 + 0.04 * random.nextGaussian(), 1, 1 + 0.05 * random.nextGaussian()};
            ambient = lamps();
            noise = noise();
            scene.balls().values().forEach(b -> discs.add(seen(b.xMm(), b.yMm(), b.diameterMm())));
        }

        private double[] mask() {
            double hue = random.nextDouble();
            double deep = 0.05 + 0.5 * random.nextDouble();
            if (random.nextDouble() < 0.2) {
                double grey = random.nextDouble() < 0.7 ? 0.015 + 0.04 * random.nextDouble() : 0.6;
                return new double[]{grey, grey, grey};
            }
            double[] base = hue < 0.4
                    ? new double[]{0.1, 0.5, 0.25}
                    : hue < 0.6
                            ? new double[]{0.08, 0.2, 0.6}
                            : hue < 0.75
                                    ? new double[]{0.6, 0.08, 0.07}
                                    : hue < 0.87
                                            ? new double[]{0.5, 0.42, 0.2}
                                            : new double[]{0.3, 0.08, 0.4};
            return new double[]{base[0] * deep * deep, base[1] * deep * deep, base[2] * deep * deep};
        }

        /** @return light from everywhere */
        private double lamps() {
            double what = random.nextDouble();
            if (what < 0.4) {
                int count = 6 + random.nextInt(40);
                double up = Math.toRadians(25 + 45 * random.nextDouble());
                double out = random.nextDouble() < 0.25 ? 0.5 : 0;
                for (int i = 0; i < count; i++) {
                    double a = 2 * Math.PI * i / count;
                    double strong = (1 + out * Math.cos(a)) / count;
                    add(Math.cos(a) * Math.cos(up), Math.sin(a) * Math.cos(up), Math.sin(up),
                            150 + 600 * random.nextDouble(), 2.2 * strong, false);
                }
            } else if (what < 0.75) {
                int count = 1 + random.nextInt(3);
                double turn = 2 * Math.PI * random.nextDouble();
                double up = Math.toRadians(30 + 45 * random.nextDouble());
                for (int i = 0; i < count; i++) {
                    double a = turn + i * 2.3 + 0.5 * random.nextGaussian();
                    add(Math.cos(a) * Math.cos(up), Math.sin(a) * Math.cos(up), Math.sin(up),
                            Math.exp(2 + 4 * random.nextDouble()), 1.0 / count, true);
                }
            } else {
                double a = 2 * Math.PI * random.nextDouble();
                double off = 0.25 * random.nextDouble();
                add(off * Math.cos(a), off * Math.sin(a), Math.sqrt(1 - off * off),
                        Math.exp(1.5 + 3.5 * random.nextDouble()), 1, false);
            }
            // A window, a ceiling lamp.
            for (int i = random.nextInt(3); i > 0; i--) {
                double a = 2 * Math.PI * random.nextDouble();
                double up = 0.3 + 0.9 * random.nextDouble();
                add(Math.cos(a) * Math.cos(up), Math.sin(a) * Math.cos(up), Math.sin(up),
                        20 + 200 * random.nextDouble(), 0.12 * random.nextDouble(), false);
            }
            return 0.04 + 0.35 * random.nextDouble() * random.nextDouble();
        }

        private void add(double x, double y, double z, double sharp, double strong, boolean shades) {
            lobes.add(new Lobe(x, y, z, sharp, strong, shades));
        }

        private float[][] noise() {
            float[][] out = new float[3][width * height];
            for (int k = 0; k < 3; k++) {
                double cell = ballShare(k);
                int gw = (int) (width / cell) + 3;
                int gh = (int) (height / cell) + 3;
                double[] grid = new double[gw * gh];
                for (int i = 0; i < grid.length; i++) {
                    grid[i] = 2 * random.nextDouble() - 1;
                }
                for (int y = 0; y < height; y++) {
                    for (int x = 0; x < width; x++) {
                        double fx = x / cell;
                        double fy = y / cell;
                        int ix = (int) fx;
                        int iy = (int) fy;
                        fx -= ix;
                        fy -= iy;
                        int i = iy * gw + ix;
                        out[k][y * width + x] = (float) ((grid[i] * (1 - fx) + grid[i + 1] * fx) * (1 - fy)
                                + (grid[i + gw] * (1 - fx) + grid[i + gw + 1] * fx) * fy);
                    }
                }
            }
            return out;
        }

        private double ballShare(int k) {
            double ball = scale * scene.usualMm();
            return Math.max(1.2, k == 0 ? ball / 9 : k == 1 ? ball / 3 : 3 * ball);
        }

        private double[] px(double x, double y, double z) {
            double w = 1 + vanish[0] * x + vanish[1] * y;
            double u = x + lean[0] * z;
            double v = y + lean[1] * z;
            return new double[]{width / 2.0 + scale * (cos * u - sin * v) / w,
                    height / 2.0 - scale * (sin * u + cos * v) / w, scale / w};
        }

        private double[] mm(double px, double py) {
            double a = (px - width / 2.0) / scale;
            double b = -(py - height / 2.0) / scale;
            // (cos - a vx) x + (-sin - a vy) y = a, (sin - b vx) x + (cos - b vy) y = b
            double m00 = cos - a * vanish[0];
            double m01 = -sin - a * vanish[1];
            double m10 = sin - b * vanish[0];
            double m11 = cos - b * vanish[1];
            double det = m00 * m11 - m01 * m10;
            return new double[]{(m11 * a - m01 * b) / det, (m00 * b - m10 * a) / det};
        }

        private double[] seen(double x, double y, double d) {
            double[] p = px(x, y, 0.33 * d);
            return new double[]{p[0], p[1], p[2] * d / 2};
        }

        MadePhoto taken() {
            board();
            shadows();
            necks();
            Map<String, double[]> outlines = new HashMap<>();
            scene.balls().forEach((name, b) -> {
                outlines.put(name, seen(b.xMm(), b.yMm(), b.diameterMm()));
                ball(b, 1 + 0.35 * random.nextGaussian() * matt);
            });
            scene.strays().forEach(b -> ball(b, 1));
            flux();
            dirt();
            Map<String, double[]> sites = MadePhoto.sites(scene, this::seen);
            List<double[]> strays = scene.strays().stream().map(b -> {
                double[] p = seen(b.xMm(), b.yMm(), b.diameterMm());
                return new double[]{p[0], p[1], p[2], b.diameterMm()};
            }).toList();
            return new MadePhoto(width, height, camera(), scene, sites, outlines, strays);
        }

        private static Color colour(double[] linear, double by) {
            return new Color(Film.code(linear[0] * by), Film.code(linear[1] * by), Film.code(linear[2] * by));
        }

        private Graphics2D pen(BufferedImage image) {
            Graphics2D g = image.createGraphics();
            g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
            g.setRenderingHint(RenderingHints.KEY_STROKE_CONTROL, RenderingHints.VALUE_STROKE_PURE);
            return g;
        }

        private void board() {
            var image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
            Graphics2D g = pen(image);
            double grey = 0.03 + 0.4 * random.nextDouble() * random.nextDouble();
            g.setColor(colour(new double[]{grey, grey, grey * (0.8 + 0.4 * random.nextDouble())}, 1));
            g.fillRect(0, 0, width, height);
            g.transform(new AffineTransform(scale * cos, -scale * sin, -scale * sin, -scale * cos,
                    width / 2.0, height / 2.0));
            double hx = scene.halfMm(true);
            double hy = scene.halfMm(false);
            g.setColor(colour(maskColour, 1));
            g.fill(new Rectangle2D.Double(-hx, -hy, 2 * hx, 2 * hy));
            double pitch = scene.map().pitchMm();
            double brighter = 1.2 + 0.9 * random.nextDouble();
            for (int i = random.nextInt(5); i > 0; i--) {
                g.setColor(colour(maskColour, 1 + (brighter - 1) * random.nextDouble()));
                g.fill(new Rectangle2D.Double(hx * (2 * random.nextDouble() - 1),
                        hy * (2 * random.nextDouble() - 1), hx * random.nextDouble(),
                        hy * random.nextDouble()));
            }
            g.setColor(colour(maskColour, brighter));
            for (int i = random.nextInt(4 * scene.map().sites().size()) / 3; i > 0; i--) {
                Site s = scene.map().sites().get(random.nextInt(scene.map().sites().size()));
                double a = random.nextInt(8) * Math.PI / 4;
                double l = pitch * (0.5 + 2 * random.nextDouble());
                g.setStroke(new BasicStroke((float) (pitch * (0.05 + 0.15 * random.nextDouble()))));
                g.draw(new Line2D.Double(s.xMm(), s.yMm(), s.xMm() + l * Math.cos(a),
                        s.yMm() + l * Math.sin(a)));
                double via = pitch * (0.1 + 0.12 * random.nextDouble());
                g.fill(new Ellipse2D.Double(s.xMm() + l * Math.cos(a) - via, s.yMm() + l * Math.sin(a) - via,
                        2 * via, 2 * via));
            }
            print(g, pitch, hx, hy);
            double mean = scene.usualMm();
            double opening = (0.4 + 0.1 * random.nextDouble()) * mean;
            double pad = (0.33 + 0.07 * random.nextDouble()) * mean;
            for (Site s : scene.map().sites()) {
                g.setColor(colour(maskColour, 0.5));
                g.fill(new Ellipse2D.Double(s.xMm() - opening, s.yMm() - opening, 2 * opening, 2 * opening));
                g.setColor(colour(padColour, 0.7 + 0.4 * random.nextDouble()));
                g.fill(new Ellipse2D.Double(s.xMm() - pad, s.yMm() - pad, 2 * pad, 2 * pad));
            }
            parts(g, pitch, hx, hy);
            g.dispose();
            double grainy = 0.15 * random.nextDouble();
            double patchy = 0.3 * random.nextDouble();
            for (int i = 0; i < width * height; i++) {
                int rgb = image.getRGB(i % width, i / width);
                double g1 = 1 + grainy * noise[0][i] + 0.5 * grainy * noise[1][i] + patchy * noise[2][i];
                for (int c = 0; c < 3; c++) {
                    double v = (rgb >> (16 - 8 * c) & 255) / 255.0;
                    light[c][i] = (float) (Math.pow(v, 2.2) * g1);
                }
            }
        }

        /** Letters and signs in the gaps and outside. */
        private void print(Graphics2D g, double pitch, double hx, double hy) {
            if (random.nextDouble() < 0.5) {
                return;
            }
            double bright = 0.2 + 0.5 * random.nextDouble();
            g.setColor(colour(new double[]{bright, bright, bright * 0.9}, 1));
            for (int i = 1 + random.nextInt(5); i > 0; i--) {
                AffineTransform before = g.getTransform();
                g.translate(hx * (1.8 * random.nextDouble() - 0.9), hy * (1.8 * random.nextDouble() - 0.9));
                g.scale(1, -1);
                g.rotate(random.nextInt(4) * Math.PI / 2);
                g.setFont(new Font(Font.SANS_SERIF, Font.PLAIN, 1)
                        .deriveFont((float) (pitch * (0.4 + 0.8 * random.nextDouble()))));
                var text = new StringBuilder();
                for (int k = 1 + random.nextInt(6); k > 0; k--) {
                    text.append((char) (random.nextBoolean()
                            ? '0' + random.nextInt(10)
                            : 'A' + random.nextInt(26)));
                }
                g.drawString(text.toString(), 0, 0);
                g.setTransform(before);
            }
        }

        /** Small parts with metal ends, where no ball stands. */
        private void parts(Graphics2D g, double pitch, double hx, double hy) {
            for (int i = random.nextInt(6); i > 0; i--) {
                double x = hx * (2 * random.nextDouble() - 1);
                double y = hy * (2 * random.nextDouble() - 1);
                double l = pitch * (0.8 + 0.8 * random.nextDouble());
                boolean free = scene.map().sites().stream()
                        .allMatch(s -> Math.hypot(s.xMm() - x, s.yMm() - y) > 0.75 * pitch + l / 2);
                if (free) {
                    boolean flat = random.nextBoolean();
                    double w = flat ? l : 0.5 * l;
                    double h = flat ? 0.5 * l : l;
                    g.setColor(colour(new double[]{0.5, 0.5, 0.5}, 0.6 + 0.5 * random.nextDouble()));
                    g.fill(new Rectangle2D.Double(x - w / 2, y - h / 2, w, h));
                    g.setColor(colour(new double[]{0.4, 0.26, 0.15}, 0.3 + 0.8 * random.nextDouble()));
                    g.fill(new Rectangle2D.Double(x - (flat ? 0.5 : 1) * w / 2, y - (flat ? 1 : 0.5) * h / 2,
                            flat ? w / 2 : w, flat ? h : h / 2));
                }
            }
        }

        /** What lamps give to the board, balls in the way. */
        private void shadows() {
            double step = scene.map().pitchMm();
            var cells = new HashMap<Long, List<ChipScene.Ball>>();
            scene.balls().values().forEach(b -> cells
                    .computeIfAbsent(cell(Math.floor(b.xMm() / step), Math.floor(b.yMm() / step)),
                            k -> new ArrayList<>())
                    .add(b));
            var around = new HashMap<Long, List<ChipScene.Ball>>();
            double flat = ambient;
            for (Lobe l : lobes) {
                flat += l.shades() ? 0 : 0.8 * l.strong() * l.z();
            }
            double deep = 0.2 + 0.6 * random.nextDouble();
            for (int py = 0; py < height; py++) {
                for (int px = 0; px < width; px++) {
                    double[] p = mm(px + 0.5, py + 0.5);
                    double hidden = 1;
                    double sum = 0;
                    long cx = (long) Math.floor(p[0] / step);
                    long cy = (long) Math.floor(p[1] / step);
                    List<ChipScene.Ball> near = around.computeIfAbsent(cell(cx, cy),
                            k -> beside(cells, cx, cy));
                    for (ChipScene.Ball b : near) {
                        double r = b.diameterMm() / 2;
                        double far = Math.hypot(b.xMm() - p[0], b.yMm() - p[1]);
                        hidden *= 1 - deep * Math.exp(-Math.max(0, far - r) / (0.5 * r));
                    }
                    for (Lobe l : lobes) {
                        sum += l.shades() ? l.strong() * l.z() * lit(l, p, near) : 0;
                    }
                    double all = flat * hidden + sum;
                    for (int c = 0; c < 3; c++) {
                        light[c][py * width + px] *= (float) all;
                    }
                }
            }
        }

        private static List<ChipScene.Ball> beside(Map<Long, List<ChipScene.Ball>> cells, long cx, long cy) {
            var near = new ArrayList<ChipScene.Ball>();
            for (long x = cx - 2; x <= cx + 2; x++) {
                for (long y = cy - 2; y <= cy + 2; y++) {
                    near.addAll(cells.getOrDefault(cell(x, y), List.of()));
                }
            }
            return near;
        }

        private static long cell(double x, double y) {
            return (long) x * 1_000_003 + (long) y;
        }

        private static double lit(Lobe l, double[] p, List<ChipScene.Ball> near) {
            double open = 1;
            double soft = 0.12 + 1 / Math.sqrt(l.sharp());
            for (ChipScene.Ball b : near) {
                double r = b.diameterMm() / 2;
                double vx = b.xMm() - p[0];
                double vy = b.yMm() - p[1];
                double vz = 0.66 * r;
                double t = vx * l.x() + vy * l.y() + vz * l.z();
                if (t > 0) {
                    double off = Math.sqrt(Math.max(0, vx * vx + vy * vy + vz * vz - t * t)) / r;
                    open *= Math.clamp((off - 1) / soft + 0.5, 0, 1);
                }
            }
            return open;
        }

        /** What a surface of solder with this normal shows. */
        private double metal(double nx, double ny, double nz, double dull) {
            double rz = 2 * nz * nz - 1;
            double rx = 2 * nz * nx;
            double ry = 2 * nz * ny;
            double wide = rough * dull;
            double sum = ambient * (0.4 + 0.6 * Math.clamp(0.5 + 0.6 * rz, 0, 1));
            for (Lobe l : lobes) {
                double own = l.sharp() / (1 + l.sharp() * wide * wide);
                double peak = 0.5 * Math.sqrt(own) * Math.min(1, 0.35 + 6 / Math.sqrt(1 + own));
                double mirror = Math.exp(own * (rx * l.x() + ry * l.y() + rz * l.z() - 1)) * peak;
                double diffuse = Math.max(0, nx * l.x() + ny * l.y() + nz * l.z());
                sum += l.strong() * ((1 - matt) * mirror + (0.25 + matt) * diffuse);
            }
            // Beyond seven tenths of its radius a ball mirrors the board and what stands round it, not the lamps.
            double low = Math.clamp((0.3 - rz) / 1.2, 0, 1);
            return sum * (1 - (1 - rim) * low * low * (3 - 2 * low)) + 0.25 * rim * low * ambient;
        }

        private void ball(ChipScene.Ball b, double dull) {
            double[] o = seen(b.xMm(), b.yMm(), b.diameterMm());
            double r = o[2];
            double[] turned = new double[2];
            for (int py = (int) Math.max(0, o[1] - r - 2); py <= Math.min(height - 1, o[1] + r + 2); py++) {
                for (int px = (int) Math.max(0, o[0] - r - 2); px <= Math.min(width - 1,
                        o[0] + r + 2); px++) {
                    double dx = (px + 0.5 - o[0]) / r;
                    double dy = (py + 0.5 - o[1]) / r;
                    double rho = Math.hypot(dx, dy);
                    double share = Math.clamp((1 - rho) * r + 0.5, 0, 1);
                    if (share > 0) {
                        turned[0] = cos * dx - sin * dy;
                        turned[1] = -sin * dx - cos * dy;
                        int i = py * width + px;
                        double in = Math.min(1, 0.995 / Math.max(0.995, rho));
                        laid(i, turned[0] * in, turned[1] * in, share, Math.max(0.2, dull));
                    }
                }
            }
        }

        private void laid(int i, double nx, double ny, double share, double dull) {
            double bx = nx + grain * noise[0][i];
            double by = ny + grain * noise[1][i];
            double out = Math.hypot(bx, by);
            double cut = out > 0.999 ? 0.999 / out : 1;
            double nz = Math.sqrt(Math.max(1e-6, 1 - cut * cut * out * out));
            double v = 0.75 * metal(bx * cut, by * cut, nz, dull);
            double rim = nx * nx + ny * ny;
            for (int c = 0; c < 3; c++) {
                double own = v * tint[c] + 0.3 * rim * rim * maskColour[c] * (ambient + 0.5);
                light[c][i] += (float) (share * (own - light[c][i]));
            }
        }

        /** A waist between two balls, its height taken as round. */
        private void necks() {
            for (ChipScene.Neck n : scene.necks()) {
                ChipScene.Ball a = scene.balls().get(n.from());
                ChipScene.Ball b = scene.balls().get(n.to());
                double dx = b.xMm() - a.xMm();
                double dy = b.yMm() - a.yMm();
                double l = Math.hypot(dx, dy);
                double full = 0.45 * Math.min(a.diameterMm(), b.diameterMm());
                double[] p = px(a.xMm(), a.yMm(), 0.2);
                double[] q = px(b.xMm(), b.yMm(), 0.2);
                double pad = full * scale + 3;
                for (int py = (int) Math.max(0, Math.min(p[1], q[1]) - pad); py < Math.min(height,
                        Math.max(p[1], q[1]) + pad); py++) {
                    for (int px = (int) Math.max(0, Math.min(p[0], q[0]) - pad); px < Math.min(width,
                            Math.max(p[0], q[0]) + pad); px++) {
                        double[] m = mm(px + 0.5, py + 0.5);
                        double t = ((m[0] - a.xMm()) * dx + (m[1] - a.yMm()) * dy) / (l * l);
                        double side = (-(m[0] - a.xMm()) * dy + (m[1] - a.yMm()) * dx) / l;
                        if (t > 0 && t < 1) {
                            double e = 2 * t - 1;
                            double half = n.widthMm() / 2 + (full - n.widthMm() / 2) * e * e * e * e;
                            double s = side / half;
                            double share = Math.clamp((1 - Math.abs(s)) * half * scale + 0.5, 0, 1);
                            if (share > 0) {
                                double k = Math.clamp(s, -0.99, 0.99);
                                laid(py * width + px, -k * dy / l, k * dx / l, share, 1);
                            }
                        }
                    }
                }
            }
        }

        private void spot(double x, double y, double r, double bright) {
            for (int py = (int) Math.max(0, y - 3 * r - 1); py < Math.min(height, y + 3 * r + 1); py++) {
                for (int px = (int) Math.max(0, x - 3 * r - 1); px < Math.min(width, x + 3 * r + 1); px++) {
                    double d2 = (px + 0.5 - x) * (px + 0.5 - x) + (py + 0.5 - y) * (py + 0.5 - y);
                    for (int c = 0; c < 3; c++) {
                        light[c][py * width + px] += (float) (bright * Math.exp(-d2 / (2 * r * r)));
                    }
                }
            }
        }

        /** Films that darken and tint, with a bright edge; glints round balls; bubbles. */
        private void flux() {
            if (random.nextDouble() < 0.4) {
                return;
            }
            double part = 0.5 * random.nextDouble() * random.nextDouble();
            double brown = 0.5 * random.nextDouble();
            for (Site s : scene.map().sites()) {
                if (random.nextDouble() > part) {
                    continue;
                }
                double[] o = seen(s.xMm(), s.yMm(), s.diameterMm().orElseThrow());
                if (random.nextDouble() < 0.6) {
                    film(o[0] + 0.8 * o[2] * random.nextGaussian(), o[1] + 0.8 * o[2] * random.nextGaussian(),
                            o[2] * (0.7 + 1.3 * random.nextDouble()), brown);
                }
                if (random.nextDouble() < 0.7) {
                    double from = 2 * Math.PI * random.nextDouble();
                    double over = Math.PI * (0.2 + 1.5 * random.nextDouble());
                    int count = 2 + random.nextInt(12);
                    for (int k = 0; k < count; k++) {
                        double a = from + over * k / count + 0.1 * random.nextGaussian();
                        double far = o[2] * (1.06 + 0.15 * random.nextDouble());
                        spot(o[0] + far * Math.cos(a), o[1] + far * Math.sin(a),
                                Math.max(0.5, o[2] * (0.03 + 0.06 * random.nextDouble())),
                                0.3 + 1.2 * random.nextDouble());
                    }
                }
            }
        }

        private void film(double x, double y, double r, double brown) {
            double bright = 0.25 * random.nextDouble();
            double a1 = 2 * Math.PI * random.nextDouble();
            double wave = 0.25 * random.nextDouble();
            int lobesOf = 2 + random.nextInt(4);
            for (int py = (int) Math.max(0, y - 1.5 * r); py < Math.min(height, y + 1.5 * r); py++) {
                for (int px = (int) Math.max(0, x - 1.5 * r); px < Math.min(width, x + 1.5 * r); px++) {
                    double a = Math.atan2(py - y, px - x);
                    double edge = r * (1 + wave * Math.sin(lobesOf * a + a1));
                    double d = Math.hypot(px - x, py - y);
                    if (d < edge) {
                        double rim = Math.exp(-(edge - d) * (edge - d) / (0.01 * r * r + 1));
                        double side = 0.5 + 0.5 * Math.cos(a - a1);
                        int i = py * width + px;
                        for (int c = 0; c < 3; c++) {
                            light[c][i] = (float) (light[c][i] * (1 - brown * (0.2 + 0.3 * c))
                                    + bright * rim * side + 0.01 * bright);
                        }
                    }
                }
            }
            for (int k = random.nextInt(4); k > 0; k--) {
                double b = r * (0.05 + 0.12 * random.nextDouble());
                double bx = x + 0.6 * r * (2 * random.nextDouble() - 1);
                double by = y + 0.6 * r * (2 * random.nextDouble() - 1);
                for (double a = 0; a < 6.28; a += 0.5) {
                    spot(bx + b * Math.cos(a), by + b * Math.sin(a), Math.max(0.5, 0.15 * b), 0.06);
                }
                spot(bx - 0.4 * b, by - 0.4 * b, Math.max(0.5, 0.25 * b), 0.5 * random.nextDouble());
            }
        }

        /** Hair, dust and scratches over everything. */
        private void dirt() {
            var over = new BufferedImage(width, height, BufferedImage.TYPE_INT_ARGB);
            Graphics2D g = pen(over);
            double ball = scale * scene.usualMm();
            for (int i = random.nextInt(3); i > 0; i--) {
                int v = random.nextInt(256);
                g.setColor(new Color(v, (int) (v * 0.8), (int) (v * 0.7), 120 + random.nextInt(120)));
                g.setStroke(
                        new BasicStroke((float) Math.max(0.6, ball * (0.03 + 0.06 * random.nextDouble()))));
                double x = width * random.nextDouble();
                double y = height * random.nextDouble();
                g.draw(new QuadCurve2D.Double(x, y, x + 4 * ball * random.nextGaussian(),
                        y + 4 * ball * random.nextGaussian(), x + 5 * ball * random.nextGaussian(),
                        y + 5 * ball * random.nextGaussian()));
            }
            double dusty = 0.4 * random.nextDouble() * random.nextDouble();
            for (int i = (int) (dusty * scene.map().sites().size() * 2); i > 0; i--) {
                int v = 90 + random.nextInt(160);
                g.setColor(new Color(v, v, v, 60 + random.nextInt(150)));
                double r = ball * (0.02 + 0.05 * random.nextDouble());
                g.fill(new Ellipse2D.Double(width * random.nextDouble(), height * random.nextDouble(), r,
                        r * (0.6 + 0.8 * random.nextDouble())));
            }
            for (int i = random.nextInt(4); i > 0; i--) {
                int v = 150 + random.nextInt(100);
                g.setColor(new Color(v, v, v, 40 + random.nextInt(70)));
                g.setStroke(new BasicStroke((float) Math.max(0.5, 0.02 * ball)));
                double x = width * random.nextDouble();
                double y = height * random.nextDouble();
                g.draw(new Line2D.Double(x, y, x + 5 * ball * random.nextGaussian(),
                        y + 5 * ball * random.nextGaussian()));
            }
            g.dispose();
            double level = 0.25;
            for (int i = 0; i < width * height; i++) {
                int argb = over.getRGB(i % width, i / width);
                double a = (argb >>> 24) / 255.0;
                if (a > 0) {
                    for (int c = 0; c < 3; c++) {
                        double v = level * Math.pow((argb >> (16 - 8 * c) & 255) / 255.0, 2.2);
                        light[c][i] += (float) (a * (v - light[c][i]));
                    }
                }
            }
        }

        private int[] camera() {
            double usual = Film.usual(light[1], width, height, discs);
            double gain = (0.12 + 0.35 * random.nextDouble()) / Math.max(1e-4, usual);
            double fade = 0.5 * random.nextDouble() * random.nextDouble();
            double side = 0.35 * random.nextDouble() * random.nextDouble();
            double way = 2 * Math.PI * random.nextDouble();
            double soft = 0.35 + 0.9 * random.nextDouble()
                    + (random.nextDouble() < 0.15 ? random.nextDouble() : 0);
            double glow = random.nextDouble() < 0.3 ? 0.15 * random.nextDouble() : 0.01;
            double shift = 0.0012 * random.nextGaussian();
            int motion = random.nextDouble() < 0.2 ? 1 + random.nextInt(3) : 0;
            boolean across = random.nextBoolean();
            double[] white = {1 + 0.12 * random.nextGaussian() * 0.7, 1, 1 + 0.12 * random.nextGaussian()};
            float[][] seen = new float[3][];
            for (int c = 0; c < 3; c++) {
                float[] plane = light[c];
                for (int i = 0; i < plane.length; i++) {
                    double x = 2.0 * (i % width) / width - 1;
                    double y = 2.0 * (i / width) / height - 1;
                    plane[i] *= (float) (gain * white[c] * (1 - fade * 0.5 * (x * x + y * y))
                            * (1 + side * (x * Math.cos(way) + y * Math.sin(way))));
                    plane[i] = Math.min(plane[i], 6);
                }
                float[] wide = Film.blurred(plane, width, height, 0.35 * scale * scene.usualMm());
                for (int i = 0; i < plane.length; i++) {
                    plane[i] = (float) (plane[i] * (1 - glow) + glow * wide[i]);
                }
                plane = motion > 0 ? moved(plane, motion, across) : plane;
                plane = Film.blurred(plane, width, height, soft);
                seen[c] = c == 1 ? plane : scaled(plane, 1 + (c == 0 ? shift : -shift));
            }
            return developed(seen);
        }

        private float[] moved(float[] in, int by, boolean across) {
            float[] out = new float[in.length];
            for (int y = 0; y < height; y++) {
                for (int x = 0; x < width; x++) {
                    float sum = 0;
                    for (int k = -by; k <= by; k++) {
                        int xx = Math.clamp(x + (across ? k : 0), 0, width - 1);
                        int yy = Math.clamp(y + (across ? 0 : k), 0, height - 1);
                        sum += in[yy * width + xx];
                    }
                    out[y * width + x] = sum / (2 * by + 1);
                }
            }
            return out;
        }

        /** Larger or smaller about the middle. */
        private float[] scaled(float[] in, double by) {
            float[] out = new float[in.length];
            for (int y = 0; y < height; y++) {
                for (int x = 0; x < width; x++) {
                    double sx = Math.clamp((x - width / 2.0) * by + width / 2.0, 0, width - 1.001);
                    double sy = Math.clamp((y - height / 2.0) * by + height / 2.0, 0, height - 1.001);
                    int i = (int) sy * width + (int) sx;
                    double ax = sx - (int) sx;
                    double ay = sy - (int) sy;
                    out[y * width + x] = (float) ((in[i] * (1 - ax) + in[i + 1] * ax) * (1 - ay)
                            + (in[i + width] * (1 - ax) + in[i + width + 1] * ax) * ay);
                }
            }
            return out;
        }

        /** One colour a pixel, noise, the two others from neighbours, tone curve, JPEG. */
        private int[] developed(float[][] seen) {
            double hiss = 0.002 + 0.014 * random.nextDouble() * random.nextDouble();
            boolean bayer = random.nextBoolean();
            for (int i = 0; i < width * height; i++) {
                for (int c = 0; c < 3; c++) {
                    seen[c][i] += (float) (hiss * Math.sqrt(0.08 + Math.max(0, seen[c][i]))
                            * random.nextGaussian());
                }
            }
            float[][] whole = bayer ? demosaiced(seen) : seen;
            double bend = 0.85 + 0.3 * random.nextDouble();
            int[] rgb = new int[width * height];
            for (int i = 0; i < rgb.length; i++) {
                for (int c = 0; c < 3; c++) {
                    rgb[i] |= Film.code(Math.pow(Math.clamp(whole[c][i], 0, 1), bend)) << (16 - 8 * c);
                }
            }
            return random.nextDouble() < 0.7
                    ? Film.pressed(rgb, width, height, 0.6f + 0.35f * random.nextFloat())
                    : rgb;
        }

        private float[][] demosaiced(float[][] seen) {
            float[][] out = new float[3][width * height];
            for (int y = 0; y < height; y++) {
                for (int x = 0; x < width; x++) {
                    for (int c = 0; c < 3; c++) {
                        float sum = 0;
                        int n = 0;
                        for (int yy = Math.max(0, y - 1); yy <= Math.min(height - 1, y + 1); yy++) {
                            for (int xx = Math.max(0, x - 1); xx <= Math.min(width - 1, x + 1); xx++) {
                                if (site(xx, yy) == c) {
                                    sum += seen[c][yy * width + xx];
                                    n++;
                                }
                            }
                        }
                        out[c][y * width + x] = site(x, y) == c
                                ? seen[c][y * width + x]
                                : sum / Math.max(1, n);
                    }
                }
            }
            return out;
        }

        private static int site(int x, int y) {
            return (x & 1) == (y & 1) ? 1 : (y & 1) == 0 ? 0 : 2;
        }
    }
}
