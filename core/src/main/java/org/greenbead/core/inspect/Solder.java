package org.greenbead.core.inspect;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import org.greenbead.core.bead.Site;

/** What the solder of one photo looks like, its light, its colour and its highlights; and by that what is no solder. */
final class Solder {
    /** How many balls say what is usual. */
    private static final int MOST_BALLS = 400;
    /** A disc with less light than this part of a ball's is no solder: a bare pad, or mask. */
    private static final double BARE = 0.22;
    /** A disc the size of a pad with less than this part of the usual highlight is a pad, tinned. */
    private static final double FLAT = 0.2;
    /** Warm part of a rim: 0.67 and more where a pad shows, 0.54 at most where a warm mat is mirrored (rendered photos). */
    private static final double PAD_SEEN = 0.6;
    /** Parts of the radius over which colour, highlights and light are looked at. */
    private static final double WARM_PART = 0.6;
    private static final double FLAT_PART = 0.75;
    private static final double LIGHT_PART = 0.7;
    private final Raster picture;
    private final Raster.Gains gains;
    private final Plane light;
    private final double usualLight;
    private final double usualStructure;
    private final double warm;

    /** @param even the same picture as if it were lit evenly, @param sites that lie in it */
    Solder(Raster picture, Raster even, Field field, List<Site> sites) {
        this.picture = picture;
        double[] ball = field.colour(picture, 0.6);
        gains = Arrays.stream(ball).min().orElse(0) > 0.01
                ? new Raster.Gains(Math.clamp(ball[1] / ball[0], 0.5, 2), 1,
                        Math.clamp(ball[1] / ball[2], 0.5, 2.5))
                : Raster.Gains.NONE;
        light = even.tin(gains);
        int step = Math.max(1, sites.size() / MOST_BALLS);
        List<Circle> some = IntStream.range(0, sites.size()).filter(i -> i % step == 0).mapToObj(sites::get)
                .map(s -> new Circle(field.x(s), field.y(s), field.radius(s), 0, 0)).toList();
        usualLight = usual(some, this::disc);
        usualStructure = usual(some, this::structure);
        double middle = usual(some, this::warmth);
        warm = middle + Math.max(0.07, 8 * usual(some, c -> Math.abs(warmth(c) - middle)));
    }

    private static double usual(List<Circle> some, java.util.function.ToDoubleFunction<Circle> of) {
        return BeadCheck.median(some.parallelStream().mapToDouble(of).toArray());
    }

    /** Bright where there is metal without colour. */
    Plane light() {
        return light;
    }

    /** No solder there: dark, warm as gold and copper, or flat as a pad. @param flat may be a pad, by its size */
    boolean bare(Circle c, boolean flat) {
        return flat && structure(c) < FLAT * usualStructure || disc(c) < BARE * usualLight
                || warmth(c) > warm;
    }

    /** An outline that is warm as gold and copper are over much of its rim is that of a pad, with a small ball on it or none. */
    boolean onPad(Circle c) {
        int warmer = 0;
        int all = 0;
        for (double part = 0.7; part < 0.95; part += 0.1) {
            for (int a = 0; a < 16; a++) {
                double px = c.xPx() + part * c.rPx() * Math.cos(a * Math.PI / 8);
                double py = c.yPx() + part * c.rPx() * Math.sin(a * Math.PI / 8);
                double r = picture.red.at(px, py) * gains.red();
                double g = picture.green.at(px, py) * gains.green();
                double b = picture.blue.at(px, py) * gains.blue();
                all++;
                warmer += (r - b) / (r + g + b + 1e-6) > warm ? 1 : 0;
            }
        }
        return warmer > PAD_SEEN * all;
    }

    /** How far a disc is from having no colour, towards gold and copper. */
    private double warmth(Circle c) {
        double red = 0;
        double green = 0;
        double blue = 0;
        for (int ring = 1; ring <= 3; ring++) {
            for (int a = 0; a < 8 * ring; a++) {
                double angle = 2 * Math.PI * a / (8 * ring);
                double px = c.xPx() + WARM_PART * c.rPx() * ring / 3 * Math.cos(angle);
                double py = c.yPx() + WARM_PART * c.rPx() * ring / 3 * Math.sin(angle);
                double r = picture.red.at(px, py);
                double g = picture.green.at(px, py);
                double b = picture.blue.at(px, py);
                if (r < 0.9 && g < 0.9 && b < 0.9) {
                    red += r * gains.red();
                    green += g * gains.green();
                    blue += b * gains.blue();
                }
            }
        }
        return (red - blue) / (red + green + blue + 1e-6);
    }

    /** How much brighter the brightest tenth of a disc is than its middle value: a ball has a highlight, a flat pad has none. */
    private double structure(Circle c) {
        var seen = new ArrayList<Float>();
        for (int ring = 0; ring <= 4; ring++) {
            for (int a = 0; a < Math.max(1, 6 * ring); a++) {
                double angle = 2 * Math.PI * a / Math.max(1, 6 * ring);
                seen.add((float) picture.green.at(c.xPx() + FLAT_PART * c.rPx() * ring / 4 * Math.cos(angle),
                        c.yPx() + FLAT_PART * c.rPx() * ring / 4 * Math.sin(angle)));
            }
        }
        seen.sort(null);
        double middle = seen.get(seen.size() / 2);
        return (seen.get(seen.size() * 9 / 10) - middle) / (middle + 1e-3);
    }

    /** Mean light of metal without colour over a disc, highlights cut off. */
    private double disc(Circle c) {
        double sum = 0;
        int n = 0;
        for (int ring = 1; ring <= 4; ring++) {
            for (int a = 0; a < 6 * ring; a++) {
                double angle = 2 * Math.PI * a / (6 * ring);
                double rho = LIGHT_PART * c.rPx() * (ring - 0.5) / 4;
                sum += Math.min(1,
                        light.at(c.xPx() + rho * Math.cos(angle), c.yPx() + rho * Math.sin(angle)));
                n++;
            }
        }
        return sum / n;
    }
}
