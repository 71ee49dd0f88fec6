package org.greenbead.core.inspect;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;
import org.greenbead.core.quantity.OneThreadRandom;

/**
 * A simple shaded renderer of balled chips: a pinhole camera over the plane of the chip, spheres lit by a ring or from one side, mask with
 * lighter copper under it, gold pads, a mark at pin 1; then blur and noise. All it draws is known exactly: for the demo and for tests.
 */
public final class Painted {
    final int width;
    final int height;
    private final double[][] light;
    private final Random random;
    private final double focal;
    private final double distance;
    private final double[][] turn = new double[3][3];

    /**
     * How a picture is taken.
     *
     * @param rollDeg clockwise
     * @param shadow  0 = ring light, 1 = from one side
     * @param axial   part of the light that comes down the axis of the lens, 0 to 1
     */
    public record Pose(double pxPerMm, double rollDeg, double tiltDeg, double shadow, double blurPx,
            double noise, long seed, double axial) {
        public Pose(double pxPerMm, double rollDeg, double tiltDeg, double shadow, double blurPx,
                double noise,
                long seed) {
            this(pxPerMm, rollDeg, tiltDeg, shadow, blurPx, noise, seed, 0);
        }

        public static Pose plain() {
            return new Pose(60, 3, 2, 0, 0.9, 0.004, 1);
        }
    }

    /** What stands on a site other than a good ball. @param size part of the nominal diameter; 0 = none */
    public record Wrong(double size, double dxMm, double dyMm) {}

    private static final double[] MASK = {0.015, 0.05, 0.02};
    private static final double[] GOLD = {0.55, 0.34, 0.09};
    private static final double[] MAT = {0.16, 0.17, 0.19};

    private Painted(int width, int height, Pose pose) {
        this.width = width;
        this.height = height;
        light = new double[3][width * height];
        random = new OneThreadRandom(pose.seed());
        distance = 120;
        focal = pose.pxPerMm() * distance;
        double roll = Math.toRadians(pose.rollDeg());
        double tilt = Math.toRadians(pose.tiltDeg());
        double[][] flat = {{Math.cos(roll), Math.sin(roll), 0}, {-Math.sin(roll), Math.cos(roll), 0},
                {0, 0, 1}};
        double[][] lean = {{1, 0, 0}, {0, Math.cos(tilt), -Math.sin(tilt)},
                {0, Math.sin(tilt), Math.cos(tilt)}};
        for (int r = 0; r < 3; r++) {
            for (int c = 0; c < 3; c++) {
                for (int k = 0; k < 3; k++) {
                    turn[r][c] += lean[r][k] * flat[k][c];
                }
            }
        }
    }

    private double[] project(double x, double y, double z) {
        double[] p = new double[3];
        for (int r = 0; r < 3; r++) {
            p[r] = turn[r][0] * x + turn[r][1] * y + turn[r][2] * z;
        }
        double depth = distance - p[2];
        return new double[]{width / 2.0 + focal * p[0] / depth, height / 2.0 - focal * p[1] / depth, depth};
    }

    private double[] onPlane(double px, double py) {
        double a = (px - width / 2.0) / focal;
        double b = -(py - height / 2.0) / focal;
        // turn[0]·X = a (D - turn[2]·X), turn[1]·X = b (D - turn[2]·X) for X = (x, y, 0).
        double m00 = turn[0][0] + a * turn[2][0];
        double m01 = turn[0][1] + a * turn[2][1];
        double m10 = turn[1][0] + b * turn[2][0];
        double m11 = turn[1][1] + b * turn[2][1];
        double det = m00 * m11 - m01 * m10;
        return new double[]{(m11 * a - m01 * b) * distance / det, (m00 * b - m10 * a) * distance / det};
    }

    /** Where a ball of this diameter is seen that stands at a place of the map: x, y and radius, px. */
    public interface Place {
        double[] of(double xMm, double yMm, double diameterMm);
    }

    /**
     * What was painted.
     *
     * @param diameters mm
     * @param outlines  x, y and radius in the picture, px
     */
    public record Truth(int width, int height, int[] rgb, Map<String, Double> diameters,
            Map<String, double[]> outlines, Place place) {
        /** Where a ball that stood at this place of the map would be seen: x, y and radius, px. */
        public double[] seen(double xMm, double yMm, double diameterMm) {
            return place.of(xMm, yMm, diameterMm);
        }

        public Raster picture() {
            return Raster.ofSrgb(width, height, rgb);
        }
    }

    public static Truth balls(BeadMap map, Map<String, Wrong> wrong, List<String[]> bridges, Pose pose) {
        double reach = map.sites().stream().mapToDouble(s -> Math.max(Math.abs(s.xMm()), Math.abs(s.yMm())))
                .max()
                .orElse(1) + 1.1 * map.pitchMm();
        int side = (int) (2.9 * reach * pose.pxPerMm());
        var painted = new Painted(side, side, pose);
        painted.ground(half(map, true), half(map, false));
        var diameters = new HashMap<String, Double>();
        var random = new Random(pose.seed() + 5);
        var at = new HashMap<String, double[]>();
        double pitch = map.pitchMm();
        for (Site s : map.sites()) {
            double nominal = s.diameterMm().orElse(0.6 * pitch);
            painted.disc(s.xMm(), s.yMm(), 0.375 * nominal, GOLD);
            Wrong w = wrong.getOrDefault(s.name(), new Wrong(1 + 0.02 * random.nextGaussian(),
                    0.01 * pitch * random.nextGaussian(), 0.01 * pitch * random.nextGaussian()));
            if (w.size() > 0) {
                double d = nominal * Math.clamp(w.size(), 0.3, 1.5);
                diameters.put(s.name(), d);
                at.put(s.name(), new double[]{s.xMm() + w.dxMm(), s.yMm() + w.dyMm(), d});
            }
        }
        for (String[] pair : bridges) {
            double[] a = at.get(pair[0]);
            double[] b = at.get(pair[1]);
            for (int k = 1; k < 24; k++) {
                double t = k / 24.0;
                painted.ball(a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1]), 0.55 * a[2], pose);
            }
        }
        at.values().forEach(b -> painted.ball(b[0], b[1], b[2], pose));
        var outlines = new HashMap<String, double[]>();
        at.forEach((site, b) -> outlines.put(site, painted.outline(b[0], b[1], b[2])));
        return new Truth(painted.width, painted.height, painted.rgb(pose), diameters, outlines,
                painted::outline);
    }

    /** Cleaned pads. @param states what is wrong with some: bump, gone, glue */
    static Raster pads(BeadMap map, Map<String, String> states, List<String[]> smears, Pose pose) {
        double reach = map.sites().stream().mapToDouble(s -> Math.max(Math.abs(s.xMm()), Math.abs(s.yMm())))
                .max()
                .orElse(1) + 1.1 * map.pitchMm();
        int side = (int) (2.9 * reach * pose.pxPerMm());
        var painted = new Painted(side, side, pose);
        painted.ground(half(map, true), half(map, false));
        double[] tin = {0.34, 0.34, 0.35};
        for (Site s : map.sites()) {
            double r = 0.375 * s.diameterMm().orElseThrow();
            String state = states.getOrDefault(s.name(), "ok");
            painted.disc(s.xMm(), s.yMm(), r, state.equals("gone") ? new double[]{0.04, 0.03, 0.01} : tin);
            if (state.equals("bump")) {
                painted.ball(s.xMm(), s.yMm(), 1.9 * r, pose);
            } else if (state.equals("glue")) {
                painted.disc(s.xMm(), s.yMm(), 2.2 * r, new double[]{0.12, 0.06, 0.005});
            }
        }
        for (String[] pair : smears) {
            Site a = map.site(pair[0]).orElseThrow();
            Site b = map.site(pair[1]).orElseThrow();
            for (int k = 0; k <= 30; k++) {
                painted.disc(a.xMm() + (b.xMm() - a.xMm()) * k / 30, a.yMm() + (b.yMm() - a.yMm()) * k / 30,
                        0.28 * a.diameterMm().orElseThrow(), tin);
            }
        }
        return painted.picture(pose);
    }

    /** A board with parts, each a body between two ends. @param parts x, y, w, h in mm, rotated by nothing */
    static Raster board(List<double[]> parts, Pose pose) {
        return board(parts, pose, MASK, new double[]{0.03, 0.12, 0.05});
    }

    /** @param mask over bare board, @param copper mask over copper */
    static Raster board(List<double[]> parts, Pose pose, double[] mask, double[] copper) {
        var painted = new Painted(1100, 800, pose);
        var ground = new Random(11);
        painted.plane((x, y) -> mask);
        for (int i = 0; i < 60; i++) {
            double x = 20 * ground.nextDouble() - 10;
            double y = 14 * ground.nextDouble() - 7;
            double l = 1 + 4 * ground.nextDouble();
            boolean flat = ground.nextBoolean();
            painted.box(x, y, flat ? l : 0.2, flat ? 0.2 : l, copper);
        }
        for (double[] p : parts) {
            painted.box(p[0], p[1], p[2], p[3], new double[]{0.5, 0.5, 0.5});
            painted.box(p[0], p[1], 0.55 * p[2], p[3], new double[]{0.45, 0.27, 0.14});
        }
        return painted.picture(pose);
    }

    private interface Colour {
        double[] at(double x, double y);
    }

    private void plane(Colour colour) {
        for (int py = 0; py < height; py++) {
            for (int px = 0; px < width; px++) {
                double[] mm = onPlane(px + 0.5, py + 0.5);
                set(py * width + px, colour.at(mm[0], mm[1]));
            }
        }
    }

    /** Painted where it can lie: between its corners as they are seen, and a pixel more. */
    private void box(double x, double y, double w, double h, double[] colour) {
        int left = width;
        int right = -1;
        int top = height;
        int bottom = -1;
        for (int corner = 0; corner < 4; corner++) {
            double[] seen = project(x + (corner % 2 - 0.5) * w, y + (corner / 2 - 0.5) * h, 0);
            left = Math.min(left, (int) Math.floor(seen[0]) - 1);
            right = Math.max(right, (int) Math.ceil(seen[0]) + 1);
            top = Math.min(top, (int) Math.floor(seen[1]) - 1);
            bottom = Math.max(bottom, (int) Math.ceil(seen[1]) + 1);
        }
        for (int py = Math.max(0, top); py <= Math.min(height - 1, bottom); py++) {
            for (int px = Math.max(0, left); px <= Math.min(width - 1, right); px++) {
                double[] mm = onPlane(px + 0.5, py + 0.5);
                if (Math.abs(mm[0] - x) < w / 2 && Math.abs(mm[1] - y) < h / 2) {
                    set(py * width + px, colour);
                }
            }
        }
    }

    /** Half a side of the body: the field and a margin. */
    private static double half(BeadMap map, boolean across) {
        return map.sites().stream().mapToDouble(s -> Math.abs(across ? s.xMm() : s.yMm())).max().orElse(1)
                + 1.1 * map.pitchMm();
    }

    private void ground(double reachX, double reachY) {
        var pours = new ArrayList<double[]>();
        for (int i = 0; i < 5; i++) {
            pours.add(new double[]{reachX * (2 * random.nextDouble() - 1),
                    reachY * (2 * random.nextDouble() - 1),
                    reachX * random.nextDouble(), reachY * random.nextDouble()});
        }
        double leg = 0.12 * Math.min(reachX, reachY);
        plane((x, y) -> {
            if (Math.abs(x) > reachX || Math.abs(y) > reachY) {
                return MAT;
            }
            if (x + reachX + reachY - y < leg && x > -reachX + 0.1 * leg && y < reachY - 0.1 * leg) {
                return GOLD;
            }
            for (double[] p : pours) {
                if (Math.abs(x - p[0]) < p[2] / 2 && Math.abs(y - p[1]) < p[3] / 2) {
                    return new double[]{1.6 * MASK[0], 1.9 * MASK[1], 1.6 * MASK[2]};
                }
            }
            return MASK;
        });
    }

    private void set(int i, double[] colour) {
        for (int c = 0; c < 3; c++) {
            light[c][i] = colour[c];
        }
    }

    /** Shares of a pixel inside a circle are blended, so that outlines are exact to a few hundredths. */
    private void disc(double x, double y, double r, double[] colour) {
        double[] mid = project(x, y, 0);
        double reach = focal / mid[2] * r + 2;
        for (int py = (int) Math.max(0, mid[1] - reach); py <= Math.min(height - 1, mid[1] + reach); py++) {
            for (int px = (int) Math.max(0, mid[0] - reach); px <= Math.min(width - 1,
                    mid[0] + reach); px++) {
                double[] mm = onPlane(px + 0.5, py + 0.5);
                double share = Math.clamp((r - Math.hypot(mm[0] - x, mm[1] - y)) * focal / mid[2] + 0.5, 0,
                        1);
                for (int c = 0; c < 3; c++) {
                    light[c][py * width + px] += share * (colour[c] - light[c][py * width + px]);
                }
            }
        }
    }

    private double[] outline(double x, double y, double d) {
        double[] mid = project(x, y, 0.33 * d);
        return new double[]{mid[0], mid[1], focal / mid[2] * d / 2};
    }

    private void ball(double x, double y, double d, Pose pose) {
        double[] mid = outline(x, y, d);
        double r = mid[2];
        for (int py = (int) Math.max(0, mid[1] - r - 2); py <= Math.min(height - 1, mid[1] + r + 2); py++) {
            for (int px = (int) Math.max(0, mid[0] - r - 2); px <= Math.min(width - 1,
                    mid[0] + r + 2); px++) {
                double dx = (px + 0.5 - mid[0]) / r;
                double dy = (py + 0.5 - mid[1]) / r;
                double rho = Math.hypot(dx, dy);
                double share = Math.clamp((1 - rho) * r + 0.5, 0, 1);
                if (share <= 0) {
                    continue;
                }
                double up = Math.sqrt(Math.max(0, 1 - Math.min(1, rho * rho)));
                double ring = Math.exp(-(rho - 0.36) * (rho - 0.36) / 0.012);
                double even = 0.14 + 0.1 * up + 0.9 * ring;
                double side = 0.06 + 0.34 * Math.max(0, 0.6 * up - 0.55 * dx - 0.55 * dy);
                // Down the axis only what faces the lens throws it back: a spot in the middle, round a dark flank.
                double axis = 0.05 + 0.95 * Math.exp(-rho * rho / 0.05) + 0.12 * up * up;
                double shade = (1 - pose.axial()) * ((1 - pose.shadow()) * even + pose.shadow() * side)
                        + pose.axial() * axis;
                for (int c = 0; c < 3; c++) {
                    double own = shade * (c == 2 ? 1.02 : 1) + 0.4 * MASK[c] * rho * rho;
                    light[c][py * width + px] += share * (own - light[c][py * width + px]);
                }
            }
        }
    }

    private Raster picture(Pose pose) {
        return Raster.ofSrgb(width, height, rgb(pose));
    }

    private int[] rgb(Pose pose) {
        int[] rgb = new int[width * height];
        for (int c = 0; c < 3; c++) {
            var plane = new Plane(width, height);
            for (int i = 0; i < rgb.length; i++) {
                plane.v[i] = (float) light[c][i];
            }
            Plane soft = plane.smooth(pose.blurPx());
            for (int i = 0; i < rgb.length; i++) {
                double v = soft.v[i] + pose.noise() * Math.sqrt(0.2 + soft.v[i]) * random.nextGaussian();
                double s = v <= 0.0031308 ? 12.92 * v : 1.055 * Math.pow(v, 1 / 2.4) - 0.055;
                rgb[i] |= Math.clamp(Math.round(255 * s), 0, 255) << (16 - 8 * c);
            }
        }
        return rgb;
    }
}
