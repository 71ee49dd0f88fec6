package org.greenbead.core.inspect;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;

/**
 * Judges a cleaned field of pads from a photo. What a good pad looks like is learnt from the field itself: most of its pads are good. A pad
 * differs by light, by colour, by a highlight in its middle, or by solder that leads to a neighbour. Stateless.
 */
public final class PadCheck {
    /** Pads are this part of the ball that the map names; the usual three quarters. */
    private static final double PAD_PART = 0.75;
    private static final double COVERED = 0.15;
    private static final double GONE = 0.3;
    private static final double AROUND = 0.3;
    /** Glue gets thin towards its edge: where it lies round a pad, less of it is seen on the pad. */
    private static final double TOUCHED = 0.8;
    /** The sides of a bump mirror what is dark around it. */
    private static final double SIDES = 0.15;

    /** The highlight of a bump lies in its middle; glints of thin solder lie along the rim. */
    private static final double PEAK_PART = 0.4;
    private static final double LEAST_PEAK = 0.3;

    private PadCheck() {
    }

    /** @throws UnclearPhotoException when the photo cannot be judged */
    public static PadReport of(Raster picture, BeadMap map) throws UnclearPhotoException {
        BeadCheck.Placed placed = BeadCheck.placed(picture, picture.light(), PAD_PART, map);
        double pitch = map.sites().size() > 1 ? map.pitchMm() : 1;
        var field = new Field(map.sites(), placed.projection(), pitch, Lattice.nominal(map), PAD_PART);
        return new Work(picture, field, placed.mark()).report();
    }

    /** What a disc, and the ring round it, look like. */
    private record Look(double light, double warmth, double peak, double ground, double groundWarmth) {}

    private static final class Work {
        private final Raster picture;
        private final Field field;
        private final BeadReport.Mark mark;
        private final List<Site> sites;

        Work(Raster picture, Field field, BeadReport.Mark mark) {
            this.picture = picture;
            this.field = field;
            this.mark = mark;
            sites = field.sites();
        }

        private interface Pixel {
            void at(double red, double green, double blue);
        }

        private void disc(Site s, double from, double to, Pixel pixel) {
            double r = field.radius(s);
            int rings = Math.max(3, (int) Math.round((to - from) * r / 1.2));
            for (int k = 0; k < rings; k++) {
                double rho = r * (from + (to - from) * (k + 0.5) / rings);
                int count = Math.max(6, (int) Math.round(2 * Math.PI * rho / 1.2));
                for (int a = 0; a < count; a++) {
                    double x = field.x(s) + rho * Math.cos(2 * Math.PI * a / count);
                    double y = field.y(s) + rho * Math.sin(2 * Math.PI * a / count);
                    pixel.at(picture.red.at(x, y), picture.green.at(x, y), picture.blue.at(x, y));
                }
            }
        }

        private static double light(double r, double g, double b) {
            return (r + g + b) / 3;
        }

        private static double warmth(double r, double g, double b) {
            return (r - b) / (r + g + b + 0.02);
        }

        private double middle(Site s, double from, double to, boolean colour) {
            var seen = new ArrayList<Float>();
            disc(s, from, to, (r, g, b) -> seen.add((float) (colour ? warmth(r, g, b) : light(r, g, b))));
            return BeadCheck.median(seen);
        }

        private Look look(Site s) {
            var inner = new ArrayList<Float>();
            disc(s, 0, PEAK_PART, (r, g, b) -> inner.add((float) light(r, g, b)));
            inner.sort(null);
            return new Look(middle(s, 0, 0.75, false), middle(s, 0, 0.75, true),
                    inner.get((int) (0.9 * (inner.size() - 1))), middle(s, 1.35, 1.7, false),
                    middle(s, 1.35, 1.7, true));
        }

        PadReport report() {
            Look[] looks = sites.parallelStream()
                    .map(s -> picture.red.holds(field.x(s), field.y(s), 2 * field.radius(s)) ? look(s) : null)
                    .toArray(Look[]::new);
            var usual = new Usual(field, looks);
            Circle[] circles = IntStream.range(0, sites.size())
                    .mapToObj(i -> looks[i] == null
                            ? null
                            : new Circle(field.x(sites.get(i)), field.y(sites.get(i)),
                                    field.radius(sites.get(i)),
                                    1, 0))
                    .toArray(Circle[]::new);
            Map<Integer, List<Integer>> smears = new Necks(
                    field.meter(picture.red, picture.green, picture.blue),
                    sites, circles, field.pitchMm(), field.projection()).bridges();
            List<PadReport.Seen> seen = IntStream.range(0, sites.size())
                    .mapToObj(i -> seen(sites.get(i), looks[i], usual, smears.getOrDefault(i, List.of())
                            .stream().map(n -> sites.get(n).name()).toList()))
                    .toList();
            double[] j = field.projection().jacobian(0, 0);
            return new PadReport(seen, Math.toDegrees(Math.atan2(j[2], j[0])), mark);
        }

        private PadReport.Seen seen(Site s, Look l, Usual usual, List<String> with) {
            if (l == null) {
                return new PadReport.Seen(s.name(), PadState.UNKNOWN, field.x(s), field.y(s), 0, List.of());
            }
            double light = usual.light.at(field.x(s), field.y(s));
            double ground = usual.ground.at(field.x(s), field.y(s));
            double covered = part(s, 0, 0.9,
                    (r, g, b) -> Math.abs(warmth(r, g, b) - usual.warm) > usual.warmSlack
                            && light(r, g, b) < 0.85 || light(r, g, b) < 0.5 * light);
            double around = part(s, 1.3, 1.7, (r, g, b) -> light(r, g, b) > 1.5 * ground + 0.004
                    && Math.abs(warmth(r, g, b) - usual.groundWarm) > 0.1);
            double dim = part(s, 0.3, 0.9, (r, g, b) -> light(r, g, b) < 0.8 * light);
            double dark = part(s, 0.3, 0.9, (r, g, b) -> light(r, g, b) < 0.5 * light);
            boolean domed = l.peak() / light - usual.peak > usual.peakSlack && dim > SIDES;
            PadState state;
            boolean gone = (l.light() - ground) / (light - ground) < GONE;
            if (around > AROUND && covered >= COVERED
                    || !gone && around > TOUCHED * AROUND && covered >= COVERED / 3) {
                state = PadState.GLUE;
            } else if (gone) {
                state = PadState.MISSING_PAD;
            } else if (!with.isEmpty()) {
                state = PadState.SMEAR;
            } else {
                state = domed ? PadState.BUMP : dark > COVERED ? PadState.GLUE : PadState.OK;
            }
            return new PadReport.Seen(s.name(), state, field.x(s), field.y(s), covered,
                    state == PadState.SMEAR ? with : List.of());
        }

        private interface Like {
            boolean at(double red, double green, double blue);
        }

        /** Part of a ring, in radii of the pad, that looks like this. */
        private double part(Site s, double from, double to, Like like) {
            int[] count = new int[2];
            disc(s, from, to, (r, g, b) -> {
                count[0]++;
                count[1] += like.at(r, g, b) ? 1 : 0;
            });
            return count[1] / (double) count[0];
        }
    }

    /** What most pads of the field look like. */
    private static final class Usual {
        private final Evenness light;
        private final Evenness ground;
        private final double warm;
        private final double warmSlack;
        private final double peak;
        private final double peakSlack;
        private final double groundWarm;

        Usual(Field field, Look[] looks) {
            int[] known = IntStream.range(0, looks.length).filter(i -> looks[i] != null).toArray();
            double[] x = Arrays.stream(known).mapToDouble(i -> field.x(field.sites().get(i))).toArray();
            double[] y = Arrays.stream(known).mapToDouble(i -> field.y(field.sites().get(i))).toArray();
            light = new Evenness(x, y, all(known, i -> looks[i].light()));
            ground = new Evenness(x, y, all(known, i -> looks[i].ground()));
            warm = BeadCheck.median(all(known, i -> looks[i].warmth()));
            warmSlack = Math.max(0.06,
                    6 * BeadCheck.median(all(known, i -> Math.abs(looks[i].warmth() - warm))));
            double[] peaks = all(known, i -> looks[i].peak()
                    / light.at(field.x(field.sites().get(i)), field.y(field.sites().get(i))));
            peak = BeadCheck.median(peaks);
            peakSlack = Math.max(LEAST_PEAK,
                    8 * BeadCheck.median(Arrays.stream(peaks).map(p -> Math.abs(p - peak)).toArray()));
            groundWarm = BeadCheck.median(all(known, i -> looks[i].groundWarmth()));
        }

        private static double[] all(int[] known, java.util.function.IntToDoubleFunction of) {
            return Arrays.stream(known).mapToDouble(of).toArray();
        }
    }
}
