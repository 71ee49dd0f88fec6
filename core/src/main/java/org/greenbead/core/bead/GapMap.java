package org.greenbead.core.bead;

import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.picture.Px;
import org.greenbead.core.quantity.Check;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.LUDecomposition;
import org.hipparchus.linear.RealMatrix;

/**
 * The gap under a chip or an upper board all round, read in photos of its edges: the plane that fits the readings best (least squares), how far it
 * leans, how far each edge bows off a straight one, and whether that is even.
 *
 * @param gap     means of the four edges
 * @param tiltDeg of the plane against the board, {@code atan} of its slope
 * @param lowest  towards which edge it leans
 * @param bowMm   by edge, the middle reading over the straight line between the outermost two; edges with three readings or more
 * @param restMm  root mean square of the readings about the plane
 * @param rangeSdMm standard error of the range of the four means
 */
public record GapMap(EdgeGap gap, Map<Edge, Double> meanMm, double tiltDeg, Edge lowest,
        Map<Edge, Double> bowMm, double restMm, double rangeSdMm) {
    /** So many readings of an edge tell its bow, too. */
    public static final int ENOUGH = 3;
    private static final int LEAST_EACH = 2;

    /** An edge, called as on the board; it is looked at from outside. */
    public enum Edge {
        NORTH, EAST, SOUTH, WEST
    }

    /** Even, not, or too near the limit to tell with these photos. */
    public enum Verdict {
        EVEN, UNEVEN, NOT_TOLD
    }

    /**
     * @param along 0 at the left end of the edge, as it is seen from outside, to 1
     * @param mm    0 to 10
     */
    public record Reading(Edge edge, double along, double mm, double sdMm) {
        public Reading {
            Check.present("edge", edge);
            Check.within("place along the edge", along, -0.1, 1.1, "");
            Check.within("gap", mm, 0, 10, "mm");
            Check.within("standard deviation of a gap", sdMm, 0.0001, 5, "mm");
        }

        /**
         * Two marks across the gap, in a photo in which the ends of the edge are marked; what counts is their distance square to the edge.
         *
         * @param lengthMm of the edge
         * @param markPx   a mark set by hand lies off its place by so much each way (standard deviation), 0.1 to 50
         */
        public static Reading of(Edge edge, Px left, Px right, double lengthMm, Px upper, Px lower,
                double markPx) {
            Check.within("length of the edge", lengthMm, 1, 500, "mm");
            Check.within("standard deviation of a mark", markPx, 0.1, 50, "px");
            double wide = right.x() - left.x();
            double high = right.y() - left.y();
            double px = Math.hypot(wide, high);
            if (px < 40) {
                throw new IllegalArgumentException("the ends of the edge lie " + Math.round(px)
                        + " px apart; the photo has to show it larger, 40 px at least");
            }
            double pxPerMm = px / lengthMm;
            double dx = lower.x() - upper.x();
            double dy = lower.y() - upper.y();
            double mm = Math.abs(dx * -high + dy * wide) / px / pxPerMm;
            double midX = (upper.x() + lower.x()) / 2 - left.x();
            double midY = (upper.y() + lower.y()) / 2 - left.y();
            return new Reading(edge, (midX * wide + midY * high) / (px * px), mm,
                    Math.sqrt(2) * markPx * Math.hypot(1 / pxPerMm, mm / px));
        }

        /** Its place from the middle of the chip, mm. */
        private double[] at(double wideMm, double deepMm) {
            double x = (along - 0.5) * wideMm;
            double y = (along - 0.5) * deepMm;
            return switch (edge) {
                case SOUTH -> new double[]{x, -deepMm / 2};
                case NORTH -> new double[]{-x, deepMm / 2};
                case EAST -> new double[]{wideMm / 2, y};
                case WEST -> new double[]{-wideMm / 2, -y};
            };
        }
    }

    /**
     * @param wideMm from west to east, @param deepMm from south to north
     * @throws IllegalArgumentException naming an edge with fewer than two readings
     */
    public static GapMap of(List<Reading> readings, double wideMm, double deepMm) {
        Check.within("width of the chip", wideMm, 1, 500, "mm");
        Check.within("depth of the chip", deepMm, 1, 500, "mm");
        Map<Edge, Double> means = new EnumMap<>(Edge.class);
        Map<Edge, Double> bows = new EnumMap<>(Edge.class);
        double variance = 0;
        for (Edge edge : Edge.values()) {
            List<Reading> its = readings.stream().filter(r -> r.edge() == edge)
                    .sorted(java.util.Comparator.comparingDouble(Reading::along)).toList();
            if (its.size() < LEAST_EACH) {
                throw new IllegalArgumentException("the " + edge.name().toLowerCase(java.util.Locale.ROOT)
                        + " edge has " + its.size()
                        + " readings; two at least are needed, three tell its bow");
            }
            means.put(edge, its.stream().mapToDouble(Reading::mm).average().orElseThrow());
            variance = Math.max(variance, its.stream().mapToDouble(r -> r.sdMm() * r.sdMm()).sum()
                    / its.size() / its.size());
            bow(its).ifPresent(b -> bows.put(edge, b));
        }
        double[] plane = plane(readings, wideMm, deepMm);
        double rest = Math.sqrt(readings.stream().mapToDouble(r -> {
            double[] at = r.at(wideMm, deepMm);
            double off = r.mm() - plane[0] - plane[1] * at[0] - plane[2] * at[1];
            return off * off;
        }).sum() / readings.size());
        Edge lowest = Arrays.stream(Edge.values()).min(java.util.Comparator.comparingDouble(means::get))
                .orElseThrow();
        return new GapMap(
                EdgeGap.of(means.get(Edge.NORTH), means.get(Edge.EAST), means.get(Edge.SOUTH),
                        means.get(Edge.WEST), Math.max(wideMm, deepMm)),
                Map.copyOf(means), Math.toDegrees(Math.atan(Math.hypot(plane[1], plane[2]))), lowest,
                Map.copyOf(bows), rest, Math.sqrt(2 * variance));
    }

    /** Gap in the middle, slope to the east and to the north, by the normal equations. */
    private static double[] plane(List<Reading> readings, double wideMm, double deepMm) {
        RealMatrix sums = new Array2DRowRealMatrix(3, 3);
        var right = new ArrayRealVector(3);
        for (Reading r : readings) {
            double[] at = r.at(wideMm, deepMm);
            double[] row = {1, at[0], at[1]};
            for (int i = 0; i < 3; i++) {
                right.addToEntry(i, row[i] * r.mm());
                for (int j = 0; j < 3; j++) {
                    sums.addToEntry(i, j, row[i] * row[j]);
                }
            }
        }
        return new LUDecomposition(sums).getSolver().solve(right).toArray();
    }

    private static Optional<Double> bow(List<Reading> its) {
        if (its.size() < ENOUGH) {
            return Optional.empty();
        }
        Reading first = its.getFirst();
        Reading last = its.getLast();
        Reading middle = its.stream()
                .min(java.util.Comparator
                        .comparingDouble(r -> Math.abs(r.along() - (first.along() + last.along()) / 2)))
                .orElseThrow();
        double t = (middle.along() - first.along()) / (last.along() - first.along());
        return Optional.of(middle.mm() - first.mm() - t * (last.mm() - first.mm()));
    }

    /** From one end of such a length to the other the plane rises by more than two standard errors. */
    public boolean leans(double lengthMm) {
        return Math.tan(Math.toRadians(tiltDeg)) * lengthMm > 2 * rangeSdMm;
    }

    /** The edge that bows most, where that is more than two standard errors. */
    public Optional<Edge> bowed() {
        return bowMm.keySet().stream()
                .max(java.util.Comparator.comparingDouble(e -> Math.abs(bowMm.get(e))))
                .filter(e -> Math.abs(bowMm.get(e)) > 2 * rangeSdMm);
    }

    /** By the range of the four means: surely within a quarter of their mean, surely over it, or nearer to it than two standard errors. */
    public Verdict verdict() {
        double over = gap.rangeMm() - gap.meanMm() * EdgeGap.EVEN_PART;
        return Math.abs(over) <= 2 * rangeSdMm ? Verdict.NOT_TOLD : over > 0 ? Verdict.UNEVEN : Verdict.EVEN;
    }
}
