package org.greenbead.core.inspect;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.greenbead.core.bead.Site;

/**
 * The sites of a field as the learned judge sees them: a square round each, turned and scaled alike, beside it the median of the squares of
 * its neighbours - the photo's own picture of a usual site - and where balls are expected. Values 0 to 1, channel by channel, row by row.
 */
public final class SiteViews {
    /** Side of a square, samples, and its width in nominal diameters. */
    public static final int SIDE = 48;
    public static final double WIDTH_DIAMETERS = 3.6;
    /** Red, green and blue of the square, of the usual site, and the mask of expected balls. */
    public static final int CHANNELS = 7;
    private static final int SAMPLES = SIDE * SIDE;
    private static final int COLOURS = 3 * SAMPLES;
    /** So many neighbours make the usual site. */
    private static final int USUAL_OF = 24;
    /** Sites of a patch of so many pitches share one usual site. */
    private static final double SHARED_PITCHES = 3;
    /** Light on the scale of the usual ball: ln(1 + 8 v) / ln(1 + 32). */
    private static final double BEND = 8;
    private static final double DYNAMIC = 4 * BEND;
    private static final int PER_UNIT = 256;
    private static final float[] BENT = bends();
    private static final double MOST_STEP_PX = 1.6;
    /** Part of a diameter over which the light of the usual ball is taken. */
    private static final double LEVEL_PART = 0.42;

    /** Where a site lies in the picture. @param turnRad of the map's x axis, clockwise in the picture */
    public record At(double xPx, double yPx, double pxPerMm, double turnRad) {}

    private final List<Site> sites;
    private final List<At> at;
    private final double usualMm;
    private final List<Raster> levels = new ArrayList<>();
    private final float[][] own;
    private final int[] group;
    private final float[][] usual;
    private final float[][] usualShown;
    private final float[] light;

    /** @param at of each site, in their order; @param usualMm diameter where a site has none, @param pitchMm of the field */
    public SiteViews(Raster picture, List<Site> sites, List<At> at, double usualMm, double pitchMm) {
        this.sites = List.copyOf(sites);
        this.at = List.copyOf(at);
        this.usualMm = usualMm;
        levels.add(picture);
        double most = at.stream().mapToDouble(a -> a.pxPerMm() * usualMm).max().orElse(1);
        for (double step = most * WIDTH_DIAMETERS / SIDE; step > MOST_STEP_PX; step /= 2) {
            levels.add(levels.getLast().half());
        }
        own = new float[sites.size()][];
        IntStream.range(0, own.length).parallel()
                .forEach(i -> own[i] = square(at.get(i), nominal(i), WIDTH_DIAMETERS));
        group = groups(pitchMm);
        int count = IntStream.of(group).max().orElse(0) + 1;
        usual = new float[count][];
        usualShown = new float[count][];
        light = new float[count];
        IntStream.range(0, count).parallel().forEach(this::usual);
    }

    public int size() {
        return own.length;
    }

    private double nominal(int i) {
        return sites.get(i).diameterMm().orElse(usualMm);
    }

    /** Linear light of the square round a place. */
    private float[] square(At a, double nominalMm, double widthDiameters) {
        double stepPx = nominalMm * a.pxPerMm() * widthDiameters / SIDE;
        int level = 0;
        double step = stepPx;
        while (step > MOST_STEP_PX && level < levels.size() - 1) {
            step /= 2;
            level++;
        }
        double by = 1.0 / (1 << level);
        Raster picture = levels.get(level);
        float[] out = new float[COLOURS];
        double cos = Math.cos(a.turnRad()) * step;
        double sin = Math.sin(a.turnRad()) * step;
        for (int v = 0; v < SIDE; v++) {
            double down = v - (SIDE - 1) / 2.0;
            for (int u = 0; u < SIDE; u++) {
                double right = u - (SIDE - 1) / 2.0;
                double x = a.xPx() * by + cos * right - sin * down;
                double y = a.yPx() * by + sin * right + cos * down;
                int k = v * SIDE + u;
                out[k] = (float) picture.red.at(x, y);
                out[SAMPLES + k] = (float) picture.green.at(x, y);
                out[2 * SAMPLES + k] = (float) picture.blue.at(x, y);
            }
        }
        return out;
    }

    private int[] groups(double pitchMm) {
        double cell = SHARED_PITCHES * pitchMm;
        Map<Long, Integer> seen = new HashMap<>();
        int[] out = new int[sites.size()];
        for (int i = 0; i < out.length; i++) {
            long x = (long) Math.floor(sites.get(i).xMm() / cell + 1e-6);
            long y = (long) Math.floor(sites.get(i).yMm() / cell + 1e-6);
            out[i] = seen.computeIfAbsent(x * 1_000_003L + y, k -> seen.size());
        }
        return out;
    }

    private void usual(int g) {
        int[] mine = IntStream.range(0, group.length).filter(i -> group[i] == g).toArray();
        double x = IntStream.of(mine).mapToDouble(i -> sites.get(i).xMm()).average().orElseThrow();
        double y = IntStream.of(mine).mapToDouble(i -> sites.get(i).yMm()).average().orElseThrow();
        int[] near = IntStream.range(0, group.length).boxed()
                .sorted(Comparator.comparingDouble(
                        i -> Math.hypot(sites.get(i).xMm() - x, sites.get(i).yMm() - y)))
                .limit(USUAL_OF).mapToInt(Integer::intValue).toArray();
        float[] median = Medians.of(IntStream.of(near).mapToObj(i -> own[i]).toArray(float[][]::new));
        usual[g] = median;
        light[g] = level(median);
        float by = (float) BEND / light[g];
        float[] shown = new float[COLOURS];
        for (int k = 0; k < COLOURS; k++) {
            shown[k] = bent(median[k] * by);
        }
        usualShown[g] = shown;
    }

    private static float level(float[] square) {
        double sum = 0;
        int n = 0;
        double reach = LEVEL_PART * SIDE / WIDTH_DIAMETERS;
        for (int v = 0; v < SIDE; v++) {
            for (int u = 0; u < SIDE; u++) {
                if (Math.hypot(u - (SIDE - 1) / 2.0, v - (SIDE - 1) / 2.0) < reach) {
                    int k = v * SIDE + u;
                    sum += square[k] + square[SAMPLES + k] + square[2 * SAMPLES + k];
                    n += 3;
                }
            }
        }
        return (float) Math.max(1e-3, sum / n);
    }

    /** What the judge is given for a site. */
    public float[] of(int i) {
        return shown(own[i], i, 0, 0, WIDTH_DIAMETERS);
    }

    /** Half as wide, round a place between the sites, for the judge of strays; the usual site is that of the site given. */
    public float[] between(double xPx, double yPx, int site) {
        At a = at.get(site);
        double dx = xPx - a.xPx();
        double dy = yPx - a.yPx();
        double right = (Math.cos(a.turnRad()) * dx + Math.sin(a.turnRad()) * dy) / a.pxPerMm();
        double up = -(-Math.sin(a.turnRad()) * dx + Math.cos(a.turnRad()) * dy) / a.pxPerMm();
        return shown(square(new At(xPx, yPx, a.pxPerMm(), a.turnRad()), nominal(site), WIDTH_DIAMETERS / 2),
                site,
                right, up, WIDTH_DIAMETERS / 2);
    }

    private float[] shown(float[] square, int i, double rightMm, double upMm, double widthDiameters) {
        float[] out = new float[CHANNELS * SAMPLES];
        float by = (float) BEND / light[group[i]];
        for (int k = 0; k < COLOURS; k++) {
            out[k] = bent(square[k] * by);
        }
        System.arraycopy(usualShown[group[i]], 0, out, COLOURS, COLOURS);
        mask(i, rightMm, upMm, widthDiameters, out);
        return out;
    }

    private static float[] bends() {
        float[] out = new float[(int) DYNAMIC * PER_UNIT + 2];
        for (int i = 0; i < out.length; i++) {
            out[i] = (float) Math.min(1, Math.log1p((double) i / PER_UNIT) / Math.log1p(DYNAMIC));
        }
        return out;
    }

    /** ln(1 + v) over that of the most light shown, from a table, straight between its entries: within 1e-6 of it. */
    private static float bent(float v) {
        if (v <= 0) {
            return 0;
        }
        if (v >= DYNAMIC) {
            return 1;
        }
        float at = v * PER_UNIT;
        int i = (int) at;
        return BENT[i] + (at - i) * (BENT[i + 1] - BENT[i]);
    }

    /** The sites that can be looked at, those that share a usual site one after the other. */
    int[] inOrder(boolean[] which) {
        return IntStream.range(0, own.length).filter(i -> which[i]).boxed()
                .sorted(Comparator.comparingInt(i -> group[i])).mapToInt(Integer::intValue).toArray();
    }

    /** A view mirrored left to right, then turned by quarters against the clock. */
    static float[] turned(float[] view, boolean mirror, int quarters) {
        float[] out = new float[view.length];
        for (int v = 0; v < SIDE; v++) {
            for (int u = 0; u < SIDE; u++) {
                int a = u;
                int b = v;
                for (int q = 0; q < quarters; q++) {
                    int t = a;
                    a = SIDE - 1 - b;
                    b = t;
                }
                a = mirror ? SIDE - 1 - a : a;
                for (int c = 0; c < CHANNELS; c++) {
                    out[c * SAMPLES + v * SIDE + u] = view[c * SAMPLES + b * SIDE + a];
                }
            }
        }
        return out;
    }

    /** Where balls of the map are expected round a place off a site, this site's own among them. */
    private void mask(int i, double rightMm, double upMm, double widthDiameters, float[] out) {
        Site s = sites.get(i);
        double perMm = SIDE / (widthDiameters * nominal(i));
        double reach = (widthDiameters / 2 * Math.sqrt(2) + 0.6) * nominal(i);
        for (int o = 0; o < own.length; o++) {
            Site other = sites.get(o);
            double dx = other.xMm() - s.xMm() - rightMm;
            double dy = other.yMm() - s.yMm() - upMm;
            if (Math.abs(dx) < reach && Math.abs(dy) < reach) {
                disc(out, (SIDE - 1) / 2.0 + dx * perMm, (SIDE - 1) / 2.0 - dy * perMm,
                        nominal(o) / 2 * perMm);
            }
        }
    }

    private static void disc(float[] out, double x, double y, double r) {
        for (int v = (int) Math.max(0, y - r - 1); v <= Math.min(SIDE - 1, y + r + 1); v++) {
            for (int u = (int) Math.max(0, x - r - 1); u <= Math.min(SIDE - 1, x + r + 1); u++) {
                int k = 2 * COLOURS + v * SIDE + u;
                out[k] = Math.max(out[k], (float) Math.clamp(r - Math.hypot(u - x, v - y) + 0.5, 0, 1));
            }
        }
    }
}
