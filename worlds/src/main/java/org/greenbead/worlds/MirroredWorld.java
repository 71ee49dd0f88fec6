package org.greenbead.worlds;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;

/**
 * Photos by surroundings: every ball mirrors a picture of the room, the balls beside it and the board under it (Blinn and Newell 1976), once and
 * exactly. Balls are spheroids, some pressed flat, smooth, frosted or stained; the board has its own depth of focus; the camera sharpens, smears noise
 * and presses as those of telephones and microscopes do.
 */
public final class MirroredWorld implements World {
    private static final int LAMPS = 16;
    private static final int SAMPLES = 5;

    @Override
    public String name() {
        return "mirrored";
    }

    @Override
    public MadePhoto photo(ChipScene scene, double ballPx, Random random) {
        return new Shot(scene, ballPx, random).taken();
    }

    /**
     * A ball as it stands. @param tall half its height over half its width, @param flat height of a flat top over the middle, in half heights; 1 for none,
     * @param metal part of light given back, @param stain how much of that is lost in spots
     */
    private record Ball(double x, double y, double z, double r, double tall, double flat, double rough,
            double frost,
            double metal, double stain) {}

    private static final class Shot {
        final ChipScene scene;
        final Random random;
        final int width;
        final int height;
        final double focal;
        final double[] eye;
        final double[] right;
        final double[] up;
        final double[] ahead;
        final double barrel;
        final Surroundings round;
        final Carrier carrier;
        final List<Ball> balls = new ArrayList<>();
        final Map<Long, List<Ball>> near = new HashMap<>();
        final double cell;
        final double padPart;
        final Waves spots;
        final Waves grain;
        final double[] tint;
        final boolean eyepiece;

        Shot(ChipScene scene, double ballPx, Random random) {
            this.scene = scene;
            this.random = random;
            cell = scene.map().pitchMm();
            double scale = ballPx / scene.usualMm();
            double roll = random.nextInt(4) * Math.PI / 2 + 0.17 * random.nextGaussian();
            double tilt = 0.2 * random.nextDouble() * random.nextDouble();
            double way = 2 * Math.PI * random.nextDouble();
            double far = 50 + 200 * random.nextDouble();
            focal = scale * far;
            double[] from = {Math.sin(tilt) * Math.cos(way), Math.sin(tilt) * Math.sin(way), Math.cos(tilt)};
            eye = new double[]{far * from[0], far * from[1], far * from[2]};
            ahead = new double[]{-from[0], -from[1], -from[2]};
            double c = Math.cos(roll);
            double s = Math.sin(roll);
            double dot = c * from[0] + s * from[1];
            double[] r = {c - dot * from[0], s - dot * from[1], -dot * from[2]};
            double l = Math.sqrt(r[0] * r[0] + r[1] * r[1] + r[2] * r[2]);
            right = new double[]{r[0] / l, r[1] / l, r[2] / l};
            up = new double[]{from[1] * right[2] - from[2] * right[1],
                    from[2] * right[0] - from[0] * right[2],
                    from[0] * right[1] - from[1] * right[0]};
            eyepiece = random.nextDouble() < 0.2;
            double hx = scene.halfMm(true);
            double hy = scene.halfMm(false);
            double wide = eyepiece ? Math.hypot(hx, hy) : hx * Math.abs(c) + hy * Math.abs(s);
            double high = eyepiece ? Math.hypot(hx, hy) : hx * Math.abs(s) + hy * Math.abs(c);
            width = Math.max(90, (int) (2.26 * wide * scale));
            height = Math.max(90, (int) (2.26 * high * scale));
            barrel = 0.015 * random.nextGaussian();
            round = new Surroundings(random, LAMPS);
            carrier = new Carrier(scene, random, round, Math.min(scale, 110));
            padPart = 0.33 + 0.08 * random.nextDouble();
            spots = new Waves(random, 9, 0.4 * scene.usualMm());
            grain = new Waves(random, 12, scene.usualMm() * (0.05 + 0.15 * random.nextDouble()));
            tint = new double[]{1, 0.985 + 0.02 * random.nextGaussian(), 0.96 + 0.03 * random.nextGaussian()};
            solder();
        }

        private void solder() {
            double rough = random.nextDouble() < 0.45
                    ? 0.12 * random.nextDouble()
                    : 0.15 + 0.6 * random.nextDouble();
            double mixed = random.nextDouble() < 0.3 ? 0.25 : 0.03;
            double frost = random.nextDouble() < 0.5 ? 0 : 0.2 * random.nextDouble() * (0.4 + rough);
            double metal = 0.45 + 0.4 * random.nextDouble();
            double stain = random.nextDouble() < 0.6 ? 0 : 0.5 * random.nextDouble();
            double low = 0.82 + 0.18 * random.nextDouble();
            double pressed = random.nextDouble() < 0.15 ? random.nextDouble() : 0;
            scene.balls().values().forEach(b -> {
                double tall = Math.clamp(low + 0.02 * random.nextGaussian(), 0.75, 1.02);
                balls.add(new Ball(b.xMm(), b.yMm(), middle(b.diameterMm(), tall), b.diameterMm() / 2, tall,
                        random.nextDouble() < pressed ? 0.75 + 0.2 * random.nextDouble() : 1,
                        Math.clamp(rough + mixed * random.nextGaussian(), 0.01, 0.95),
                        frost * (0.7 + 0.6 * random.nextDouble()),
                        Math.clamp(metal * (1 + 0.07 * random.nextGaussian()), 0.2, 0.95),
                        stain * random.nextDouble()));
            });
            scene.strays().forEach(b -> balls.add(new Ball(b.xMm(), b.yMm(), 0.48 * b.diameterMm(),
                    b.diameterMm() / 2, 1, 1, Math.clamp(rough, 0.01, 0.95), frost, metal, 0)));
            for (ChipScene.Neck n : scene.necks()) {
                ChipScene.Ball a = scene.balls().get(n.from());
                ChipScene.Ball b = scene.balls().get(n.to());
                double least = Math.min(a.diameterMm(), b.diameterMm());
                double z = (0.2 + 0.12 * random.nextDouble()) * least;
                for (int k = 1; k < 40; k++) {
                    double t = k / 40.0;
                    double e = Math.cosh(2.2 * (2 * t - 1)) - 1;
                    double d = n.widthMm() + (0.85 * least - n.widthMm()) * e / (Math.cosh(2.2) - 1);
                    balls.add(
                            new Ball(a.xMm() + t * (b.xMm() - a.xMm()), a.yMm() + t * (b.yMm() - a.yMm()), z,
                                    d / 2, 1, 1, Math.clamp(rough, 0.01, 0.95), frost, metal, 0));
                }
            }
            for (Ball b : balls) {
                for (int v = -1; v <= 1; v++) {
                    for (int u = -1; u <= 1; u++) {
                        near.computeIfAbsent(key(b.x() + u * cell, b.y() + v * cell), k -> new ArrayList<>())
                                .add(b);
                    }
                }
            }
        }

        private long key(double x, double y) {
            return (long) Math.floor(x / cell) * 1_000_003 + (long) Math.floor(y / cell);
        }

        /** Height of the middle over the board: the ball stands with what its pad cuts off. */
        private double middle(double d, double tall) {
            double r = d / 2;
            double pad = Math.min(0.95, padPart * scene.usualMm() / r);
            return tall * r * Math.sqrt(1 - pad * pad);
        }

        private double[] seen(double x, double y, double d) {
            return seen(x, y, middle(d, 0.91), d);
        }

        private double[] seen(double x, double y, double z, double d) {
            double vx = x - eye[0];
            double vy = y - eye[1];
            double vz = z - eye[2];
            double depth = vx * ahead[0] + vy * ahead[1] + vz * ahead[2];
            double u = focal * (vx * right[0] + vy * right[1] + vz * right[2]) / depth;
            double v = -focal * (vx * up[0] + vy * up[1] + vz * up[2]) / depth;
            double half = width / 2.0;
            double k = 1 + barrel * (u * u + v * v) / (half * half);
            double grown = 1 + 2 * barrel * (u * u + v * v) / (half * half);
            return new double[]{half + u * k, height / 2.0 + v * k, focal / depth * d / 2 * grown};
        }

        /** The way a place of the picture looks. */
        private void look(double px, double py, double[] d) {
            double half = width / 2.0;
            double a = px - half;
            double b = py - height / 2.0;
            double u = a;
            double v = b;
            for (int i = 0; i < 4; i++) {
                double k = 1 + barrel * (u * u + v * v) / (half * half);
                u = a / k;
                v = b / k;
            }
            double l = Math.sqrt(focal * focal + u * u + v * v);
            for (int i = 0; i < 3; i++) {
                d[i] = (focal * ahead[i] + u * right[i] - v * up[i]) / l;
            }
        }

        MadePhoto taken() {
            int n = width * height;
            float[][] board = new float[3][n];
            float[][] metal = new float[3][n];
            float[] cover = new float[n];
            double[] d = new double[3];
            double[] sum = new double[3];
            double[] under = new double[3];
            double[][] at = new double[SAMPLES][];
            for (int k = 0; k < SAMPLES; k++) {
                at[k] = new double[]{(k + 0.5) / SAMPLES, (k * 2 % SAMPLES + 0.5) / SAMPLES};
            }
            for (int i = 0; i < n; i++) {
                sum[0] = sum[1] = sum[2] = 0;
                under[0] = under[1] = under[2] = 0;
                int covered = 0;
                for (double[] s : at) {
                    look(i % width + s[0], i / width + s[1], d);
                    double t = -eye[2] / d[2];
                    double gx = eye[0] + t * d[0];
                    double gy = eye[1] + t * d[1];
                    carrier.seen(gx, gy, 1.0 / SAMPLES, under);
                    Ball hit = first(eye, d, near.getOrDefault(key(gx, gy), List.of()), null);
                    if (hit != null) {
                        covered++;
                        shone(eye, d, way, hit, 0, 1.0 / SAMPLES, sum);
                    }
                }
                for (int c = 0; c < 3; c++) {
                    board[c][i] = (float) under[c];
                    metal[c][i] = (float) sum[c];
                }
                cover[i] = covered / (float) SAMPLES;
            }
            Map<String, double[]> outlines = new HashMap<>();
            scene.balls().forEach((name, b) -> outlines.put(name, seen(b.xMm(), b.yMm(), b.diameterMm())));
            List<double[]> strays = scene.strays().stream().map(b -> {
                double[] p = seen(b.xMm(), b.yMm(), 0.48 * b.diameterMm(), b.diameterMm());
                return new double[]{p[0], p[1], p[2], b.diameterMm()};
            }).toList();
            var eyeglass = new Eyeglass(width, height, random, focal / Math.abs(eye[2]) * scene.usualMm());
            return new MadePhoto(width, height,
                    eyeglass.developed(board, metal, cover, eyepiece, outlines.values()),
                    scene, MadePhoto.sites(scene, this::seen), outlines, strays);
        }

        /** Way to what {@link #first} found last. */
        private double way;

        private Ball first(double[] o, double[] d, List<Ball> some, Ball but) {
            Ball best = null;
            way = Double.MAX_VALUE;
            for (Ball b : some) {
                if (b == but) {
                    continue;
                }
                double vx = o[0] - b.x();
                double vy = o[1] - b.y();
                double vz = (o[2] - b.z()) / b.tall();
                double dz = d[2] / b.tall();
                double a = d[0] * d[0] + d[1] * d[1] + dz * dz;
                double h = vx * d[0] + vy * d[1] + vz * dz;
                double q = h * h - a * (vx * vx + vy * vy + vz * vz - b.r() * b.r());
                if (q <= 0) {
                    continue;
                }
                double t = (-h - Math.sqrt(q)) / a;
                if (t > 1e-7 && t < way && o[2] + t * d[2] > 0) {
                    way = t;
                    best = b;
                }
            }
            return best;
        }

        /** What a ball shows where it is met, added so many times. */
        private void shone(double[] o, double[] d, double t, Ball b, int depth, double times, double[] out) {
            double px = o[0] + t * d[0];
            double py = o[1] + t * d[1];
            double pz = o[2] + t * d[2];
            double nx = (px - b.x()) / b.r();
            double ny = (py - b.y()) / b.r();
            double nz = (pz - b.z()) / (b.r() * b.tall() * b.tall());
            if (pz - b.z() > b.flat() * b.r() * b.tall()) {
                nx *= 0.12;
                ny *= 0.12;
                nz = 1;
            }
            if (b.frost() > 0) {
                nx += b.frost() * grain.at(px + pz, py);
                ny += b.frost() * grain.at(py, px - pz);
            }
            double l = 1 / Math.sqrt(nx * nx + ny * ny + nz * nz);
            nx *= l;
            ny *= l;
            nz *= l;
            double dn = d[0] * nx + d[1] * ny + d[2] * nz;
            double[] r = {d[0] - 2 * dn * nx, d[1] - 2 * dn * ny, d[2] - 2 * dn * nz};
            double fresnel = b.metal() + (1 - b.metal()) * Math.pow(1 - Math.min(1, Math.abs(dn)), 5);
            double spot = b.stain() > 0 ? Math.clamp(1 - b.stain() * (1 + spots.at(px, py)), 0.2, 1) : 1;
            double[] got = new double[3];
            double[] from = {px, py, pz};
            Ball other = depth > 1 ? null : first(from, r, near.getOrDefault(key(px, py), List.of()), b);
            double matt = b.rough() * b.rough();
            if (other != null) {
                shone(from, r, way, other, depth + 1, 1 - matt, got);
            } else if (r[2] > 0.015) {
                round.seen(r[0], r[1], r[2], b.rough(), 1 - matt, got);
            } else {
                double g = r[2] < -0.03 ? Math.min(6 * cell, -pz / r[2]) : 6 * cell;
                carrier.seen(px + g * r[0], py + g * r[1], 1 - matt, got);
            }
            if (matt > 0.02) {
                round.seen(nx, ny, Math.max(0.01, nz), 1, matt * Math.clamp(0.55 + 0.6 * nz, 0.1, 1), got);
            }
            for (int c = 0; c < 3; c++) {
                out[c] += times * fresnel * spot * tint[c] * got[c];
            }
        }
    }
}
