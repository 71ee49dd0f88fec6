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
    /** The sides of a bump mirror what is dark around it. */
    private static final double SIDES = 0.15;

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
            disc(s, 0, 0.5, (r, g, b) -> inner.add((float) light(r, g, b)));
            inner.sort(null);
            return new Look(middle(s, 0, 0.75, false), middle(s, 0, 0.75, true),
                    inner.get((int) (0.93 * (inner.size() - 1))), middle(s, 1.35, 1.7, false),
                    middle(s, 1.35, 1.7, true));
        }

        PadReport report() {
            Look[] looks = sites.parallelStream()
                    .map(s -> picture.red.holds(field.x(s), field.y(s), 2 * field.radius(s)) ? look(s) : null)
                    .toArray(Look[]::new);
            List<Look> known = Arrays.stream(looks).filter(java.util.Objects::nonNull).toList();
            double light = BeadCheck.median(known.stream().mapToDouble(Look::light).toArray());
            double warm = BeadCheck.median(known.stream().mapToDouble(Look::warmth).toArray());
            double warmSlack = Math.max(0.1, 6 * BeadCheck
                    .median(known.stream().mapToDouble(l -> Math.abs(l.warmth() - warm)).toArray()));
            double peak = BeadCheck.median(known.stream().mapToDouble(l -> l.peak() / l.light()).toArray());
            double peakSlack = Math.max(0.25, 8 * BeadCheck.median(
                    known.stream().mapToDouble(l -> Math.abs(l.peak() / l.light() - peak)).toArray()));
            double ground = BeadCheck.median(known.stream().mapToDouble(Look::ground).toArray());
            double groundWarm = BeadCheck.median(known.stream().mapToDouble(Look::groundWarmth).toArray());
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
            var seen = new ArrayList<PadReport.Seen>();
            for (int i = 0; i < sites.size(); i++) {
                Site s = sites.get(i);
                Look l = looks[i];
                List<String> with = smears.getOrDefault(i, List.of()).stream().map(n -> sites.get(n).name())
                        .toList();
                if (l == null) {
                    seen.add(new PadReport.Seen(s.name(), PadState.UNKNOWN, field.x(s), field.y(s), 0,
                            List.of()));
                    continue;
                }
                int[] count = new int[2];
                disc(s, 0, 0.9, (r, g, b) -> {
                    count[0]++;
                    boolean other = Math.abs(warmth(r, g, b) - warm) > warmSlack && light(r, g, b) < 0.85
                            || light(r, g, b) < 0.5 * light;
                    count[1] += other ? 1 : 0;
                });
                double covered = count[1] / (double) count[0];
                int[] near = new int[2];
                disc(s, 1.3, 1.7, (r, g, b) -> {
                    near[0]++;
                    boolean other = light(r, g, b) > 1.5 * ground + 0.004
                            && Math.abs(warmth(r, g, b) - groundWarm) > 0.1;
                    near[1] += other ? 1 : 0;
                });
                boolean gone = (l.light() - ground) / (light - ground) < GONE;
                int[] side = new int[3];
                disc(s, 0.3, 0.9, (r, g, b) -> {
                    side[0]++;
                    side[1] += light(r, g, b) < 0.8 * light ? 1 : 0;
                    side[2] += light(r, g, b) < 0.5 * light ? 1 : 0;
                });
                double dark = side[1] / (double) side[0];
                PadState state;
                double around = near[1] / (double) near[0];
                if (around > AROUND && covered >= COVERED
                        || around > 0.8 * AROUND && covered >= COVERED / 3) {
                    state = PadState.GLUE;
                } else if (gone) {
                    state = PadState.MISSING_PAD;
                } else if (!with.isEmpty()) {
                    state = PadState.SMEAR;
                } else {
                    boolean domed = l.peak() / l.light() - peak > peakSlack && dark > SIDES;
                    state = domed ? PadState.BUMP : side[2] > COVERED * side[0] ? PadState.GLUE : PadState.OK;
                }
                seen.add(new PadReport.Seen(s.name(), state, field.x(s), field.y(s), covered,
                        state == PadState.SMEAR ? with : List.of()));
            }
            double[] j = field.projection().jacobian(0, 0);
            return new PadReport(seen, Math.toDegrees(Math.atan2(j[2], j[0])), mark);
        }
    }
}
