package org.greenbead.core.inspect;

import java.util.stream.IntStream;
import org.greenbead.core.bead.Site;

/**
 * How much a photo is blurred, by whatever edges it shows round the balls, bright or dark: an edge that is blurred again by a known amount loses
 * the more of its slope the sharper it was (Zhuo and Sim 2011, Defocus map estimation from a single image, Pattern Recognition 44). An edge
 * blurred by s falls as 1/√(s² + a²) after blurring it by a; of two such slopes, R times one another, s² = (b² − R² a²)/(R² − 1). Small bright
 * points and rings lose more than edges and make a photo seem up to twice as sharp.
 */
final class Sharpness {
    private static final double FINE_PX = 0.8;
    private static final double BROAD_PX = 1.6;
    /** Edges are looked for so far round a site, radii: the rim and a little of what lies beside it. */
    private static final double REACH = 1.35;
    private static final double MOST_PX = 12;
    private static final double LEAST_SQUARE = 1.02;

    private Sharpness() {
    }

    /** Middle of the blur at the steepest place round each site, px; {@value #MOST_PX} where there is no edge at all. */
    static double blurPx(Raster picture, Field field) {
        Plane light = picture.light();
        Plane fine = light.smooth(FINE_PX);
        Plane broad = light.smooth(BROAD_PX);
        double[] seen = IntStream.range(0, field.sites().size()).parallel()
                .mapToObj(i -> field.sites().get(i))
                .filter(s -> light.holds(field.x(s), field.y(s), REACH * field.radius(s) + 2))
                .mapToDouble(s -> ratio(s, field, fine, broad)).map(r -> r * r)
                .filter(square -> square > LEAST_SQUARE).map(Sharpness::blurPx).toArray();
        return seen.length == 0 ? MOST_PX : BeadCheck.median(seen);
    }

    /** @param square of the ratio of the slopes */
    private static double blurPx(double square) {
        return Math.sqrt(Math.clamp((BROAD_PX * BROAD_PX - square * FINE_PX * FINE_PX) / (square - 1), 0,
                MOST_PX * MOST_PX));
    }

    /** Of the finer slope to the broader, at the place that is steepest in the broader: the finer one still shows noise. */
    private static double ratio(Site s, Field field, Plane fine, Plane broad) {
        double reach = REACH * field.radius(s);
        double x = field.x(s);
        double y = field.y(s);
        double most = 1e-9;
        double there = 0;
        for (int v = (int) (y - reach); v <= y + reach; v++) {
            for (int u = (int) (x - reach); u <= x + reach; u++) {
                double slope = slope(broad, u, v);
                if (slope > most && Math.hypot(u + 0.5 - x, v + 0.5 - y) < reach) {
                    most = slope;
                    there = slope(fine, u, v);
                }
            }
        }
        return there / most;
    }

    private static double slope(Plane p, int x, int y) {
        int i = y * p.width + x;
        return Math.hypot(p.v[i + 1] - p.v[i - 1], p.v[i + p.width] - p.v[i - p.width]);
    }
}
