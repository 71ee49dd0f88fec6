package org.greenbead.core.inspect;

import java.util.List;
import java.util.stream.IntStream;

/**
 * From outlines at the steepest place to true ones: each ball is laid on what the rest look like, then the mean rim of a part of the
 * picture says how far the true outline lies from the measured one there, since focus changes over a tilted field.
 */
final class Outlines {
    private static final int PARTS = 3;
    private static final int MOST_BALLS = 240;
    private static final int TURNS = 2;
    private static final double CLOSER = 0.05;
    private static final double WIDTH = 0.3;
    private static final double EVERYWHERE = 0.05;
    private static final double LEAST = 0.9;
    private static final double MOST = 1.14;

    private Outlines() {
    }

    /** @param blurPx standard deviation of the blur, the middle of the parts of the picture */
    record Settled(Circle[] circles, double blurPx) {}

    /**
     * @param plane   on which outlines were found
     * @param circles may hold null; @param expected by the map; @param good those that are as most are, six and more
     * @return as many, with true radii
     */
    static Settled settled(Raster picture, Plane plane, Circle[] circles, Circle[] expected,
            List<Integer> good) {
        double lean = BeadCheck.median(IntStream.range(0, circles.length)
                .filter(i -> circles[i] != null && circles[i].cover() > 0.7)
                .mapToDouble(i -> circles[i].rPx() / expected[i].rPx()).toArray());
        var likeness = new RimLikeness(plane, good.stream().map(i -> circles[i]).toList());
        double usual = BeadCheck.median(good.stream().mapToDouble(i -> circles[i].rPx()).toArray());
        Circle[] fine = IntStream.range(0, circles.length).parallel()
                .mapToObj(i -> circles[i] != null && circles[i].cover() > 0.45
                        && circles[i].rPx() > 0.7 * usual && circles[i].rPx() < 1.35 * usual
                                ? likeness.refined(circles[i], expected[i].sized(lean))
                                : circles[i])
                .toArray(Circle[]::new);
        int step = Math.max(1, good.size() / MOST_BALLS);
        List<Circle> first = IntStream.range(0, good.size()).filter(i -> i % step == 0)
                .mapToObj(i -> fine[good.get(i)]).toList();
        var shapes = new RimEdge.Shapes();
        var beside = new RimEdge.Beside(0, 0, 1);
        for (int turn = 0; turn < TURNS; turn++) {
            RimEdge.Beside so = beside;
            RimEdge.Beside more = RimEdge.beside(shapes,
                    first.parallelStream().map(c -> RimEdge.profile(picture, moved(c, usual, so))).toList(),
                    turn == 0 ? RimEdge.MIDDLE : so.radius(), turn == 0 ? RimEdge.FAR : CLOSER);
            beside = new RimEdge.Beside(so.x() + more.x(), so.y() + more.y(), more.radius());
        }
        RimEdge.Beside shift = beside;
        List<Circle> some = first.stream().map(c -> moved(c, usual, shift)).toList();
        List<double[]> profiles = some.parallelStream().map(c -> RimEdge.profile(picture, c)).toList();
        var rims = new RimEdge.Rims(profiles);
        double left = some.stream().mapToDouble(Circle::xPx).min().orElse(0);
        double top = some.stream().mapToDouble(Circle::yPx).min().orElse(0);
        double wide = Math.max(1, some.stream().mapToDouble(Circle::xPx).max().orElse(0) - left);
        double tall = Math.max(1, some.stream().mapToDouble(Circle::yPx).max().orElse(0) - top);
        double reach = WIDTH * Math.max(wide, tall);
        double[][] middles = new double[PARTS * PARTS][];
        for (int i = 0; i < middles.length; i++) {
            middles[i] = new double[]{left + wide * (i % PARTS) / (PARTS - 1),
                    top + tall * (i / PARTS) / (PARTS - 1)};
        }
        RimEdge.Found[] found = IntStream.range(0, middles.length).parallel()
                .mapToObj(i -> RimEdge.of(shapes, rims,
                        some.stream().mapToDouble(c -> near(middles[i], c, reach) + EVERYWHERE).toArray(),
                        shift.radius()))
                .toArray(RimEdge.Found[]::new);
        for (int i = 0; i < fine.length; i++) {
            Circle c = fine[i];
            if (c == null) {
                continue;
            }
            double sum = 0;
            double total = 0;
            for (int m = 0; m < middles.length; m++) {
                double w = near(middles[m], c, 0.7 * reach) + 1e-6;
                sum += w * Math.clamp(found[m].radius(), LEAST, MOST);
                total += w;
            }
            Circle at = moved(c, usual, shift);
            fine[i] = new Circle(at.xPx(), at.yPx(), at.rPx() + (sum / total - 1) * usual, at.cover(),
                    at.sigmaPx());
        }
        return new Settled(fine, usual * BeadCheck
                .median(java.util.Arrays.stream(found).mapToDouble(RimEdge.Found::blur).toArray()));
    }

    private static Circle moved(Circle c, double usual, RimEdge.Beside beside) {
        return new Circle(c.xPx() + usual * beside.x(), c.yPx() + usual * beside.y(), c.rPx(), c.cover(),
                c.sigmaPx());
    }

    private static double near(double[] middle, Circle c, double reach) {
        double d = Math.hypot(c.xPx() - middle[0], c.yPx() - middle[1]) / reach;
        return Math.exp(-0.5 * d * d);
    }
}
