package org.greenbead.core.inspect;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.IntStream;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;

/**
 * One photo on which a map has been laid: every ball measured, the map laid anew by what was measured, each outline made the true one, and
 * each site judged. Limits that name no source are judgement: set where rendered photos with known truth were told apart, with room on both
 * sides.
 */
final class Survey {
    private static final double LEAST_BALL_PX = 7;
    private static final int LEAST_GOOD = 6;
    private static final double CLEAR = 0.85;
    private static final double CLEAR_SIZE = 0.06;
    private static final double CLEAR_PLACE = 0.08;
    /** From so many balls on, how the light falls off over them is known better than it is guessed. */
    private static final int MANY = 30;
    /** The middle of what rims of good balls cover on rendered photos of usual sharpness. */
    private static final double USUAL_COVER = 0.8;
    /** No less is asked for than this part of the usual: a photo without focus is not eased until it passes. */
    private static final double LEAST_EASE = 0.75;
    /** Flux may hide part of the rim: it is looked for where it can be seen. */
    private static final double PARTLY_COVER = 0.6;
    private static final double PARTLY_PLACE = 0.35;
    private static final double FAINT_COVER = 0.45;
    /** Part of a radius by which a place has moved since a ball was looked for there. */
    private static final double MOVED_PART = 0.08;
    private static final double INSIDE_SAME = 0.15;
    private static final double SEEN_COVER = 0.5;
    private static final double SEEN_PART = 0.55;
    private static final double INSIDE_PART = 0.5;
    private static final double MOST_HAZE = 1.24;
    /** Blur, part of the radius, beyond which nobody could judge a ball, and up to which a photo is sharp whatever its outlines say. */
    private static final double MOST_BLUR = 0.38;
    private static final double SHARP = 0.2;
    /** Between the two: on small balls an edge of usual sharpness is a large part of the radius. */
    private static final double MOST_BLUR_PX = 3.4;
    /** Faults on so many of the sites are not believed of a photo that is not sharp. */
    private static final double MANY_PART = 0.25;
    /** The steepest place on the logarithmic scale lies this much outside the outline at usual sharpness: 0.03 px on sharp photos, 0.45 px on soft ones (rendered photos with known truth); the middle is taken. On balls of a few pixels the fall inside the rim takes it back. */
    private static final double STEEPEST_PX = 0.19;
    /** Standard uncertainty of where the true outline lies, part of the diameter: the mean error on photos with exact truth was 0.4 to 1.5 %. */
    private static final double EDGE_PART = 0.01;
    /** Where no outline is found, this part of the radius by the map is looked at for solder. */
    private static final double PAD_PART = 0.85;
    /** Of the radius by the map; a pad is some three quarters. */
    private static final double PAD_SIZE = 0.93;
    private final Raster picture;
    private final Raster even;
    private final BeadMap map;
    private final Optional<PhotoJudge> judge;
    private final List<Site> sites;
    private final BeadReport.Mark mark;
    private final boolean pale;
    private final double pitchMm;
    private final double usualMm;
    private final Projection laid;
    private Projection projection;
    private Field field;
    private BallMeter outlines;
    private BallMeter metal;
    private Solder solder;
    private final Circle[] circles;
    private boolean trueOutlines;
    private Map<Integer, List<Integer>> bridges = Map.of();
    private double ease = 1;
    private double blurPx;
    private double softPart;

    Survey(Raster picture, BeadMap map, BeadCheck.Placed placed, Optional<PhotoJudge> judge) {
        this.map = map;
        this.judge = judge;
        sites = map.sites();
        mark = placed.mark();
        pale = placed.pale();
        laid = placed.projection();
        projection = laid;
        pitchMm = sites.size() > 1 ? map.pitchMm() : 1;
        usualMm = Lattice.nominal(map);
        circles = new Circle[sites.size()];
        field = new Field(sites, projection, pitchMm, usualMm, 1);
        this.picture = picture;
        even = sites.size() < MANY ? picture : field.evened(picture);
    }

    private double nominal(Site site) {
        return field.nominal(site);
    }

    private double x(Site s) {
        return field.x(s);
    }

    private double y(Site s) {
        return field.y(s);
    }

    private double radius(Site s) {
        return field.radius(s);
    }

    private boolean inside(Site s) {
        return picture.red.holds(x(s), y(s), radius(s));
    }

    BeadReport report(boolean strict) throws UnclearPhotoException {
        double typical = field.typical();
        if (2 * typical < LEAST_BALL_PX) {
            throw new UnclearPhotoException(UnclearPhotoException.Why.TOO_SMALL,
                    "a ball is only " + Math.round(2 * typical)
                            + " pixels wide; come closer or take the chip in parts, 10 pixels and more are needed");
        }
        levels();
        measure(false);
        eased();
        refit();
        List<Circle> good = good();
        if (good.size() > 8) {
            outlines.learn(good);
        }
        Field before = field;
        measure(true);
        refit();
        again(before);
        if (strict && !clear(good())) {
            return believed(judgedAlone());
        }
        List<Integer> alike = usual();
        if (alike.size() >= LEAST_GOOD) {
            Outlines.Settled settled = Outlines.settled(even, outlines.plane(), circles,
                    sites.stream().map(s -> new Circle(x(s), y(s), radius(s), 0, 0))
                            .toArray(Circle[]::new),
                    alike);
            System.arraycopy(settled.circles(), 0, circles, 0, circles.length);
            refit();
            trueOutlines = true;
            blurPx = settled.blurPx();
            bridges = necks();
            insides(alike);
        }
        return believed(judged());
    }

    /** What a photo that is not sharp says of many of the sites is rather said of the photo. */
    private BeadReport believed(BeadReport report) throws UnclearPhotoException {
        long faults = report.sites().stream()
                .filter(s -> s.state() != BeadState.OK && s.state() != BeadState.UNKNOWN).count();
        if (softPart > SHARP && faults > MANY_PART * sites.size()) {
            throw blurred();
        }
        return report;
    }

    /** Outlines off the usual are held against what the ball mirrors: flux and pads draw outlines too. */
    private void insides(List<Integer> alike) {
        var highlights = new Highlights(even.light(), alike.stream().map(i -> circles[i]).toList());
        double usual = BeadCheck
                .median(alike.stream().mapToDouble(i -> circles[i].rPx() / radius(sites.get(i)))
                        .toArray());
        IntStream.range(0, circles.length).parallel().forEach(i -> {
            Site s = sites.get(i);
            if (circles[i] != null && circles[i].cover() >= SEEN_COVER && !bridges.containsKey(i)
                    && odd(s, circles[i])) {
                circles[i] = closer(circles[i], highlights.within(circles[i], usual * radius(s)));
            }
        });
    }

    /** What is mirrored says about how large a ball is; an outline there says it closer. */
    private Circle closer(Circle drawn, Circle inside) {
        if (inside == drawn) {
            return drawn;
        }
        Circle rim = metal.measure(inside.xPx(), inside.yPx(), inside.rPx());
        double beside = Math.hypot(rim.xPx() - inside.xPx(), rim.yPx() - inside.yPx());
        boolean same = rim.cover() > SEEN_COVER && beside < INSIDE_SAME * inside.rPx()
                && Math.abs(rim.rPx() - inside.rPx()) < Math.min(INSIDE_SAME * inside.rPx(),
                        0.5 * (drawn.rPx() - inside.rPx()));
        return same ? rim : inside;
    }

    private Map<Integer, List<Integer>> necks() {
        return new Necks(metal, sites, circles, pitchMm, projection).bridges();
    }

    /** Balls as most of them are. */
    private List<Circle> good() {
        return usual().stream().map(i -> circles[i]).toList();
    }

    private List<Integer> usual() {
        double usual = BeadCheck.median(IntStream.range(0, circles.length)
                .filter(i -> circles[i] != null && circles[i].cover() > 0.7)
                .mapToDouble(i -> circles[i].rPx() / radius(sites.get(i))).toArray());
        return IntStream.range(0, circles.length)
                .filter(i -> circles[i] != null && circles[i].cover() > 0.7
                        && Math.abs(circles[i].rPx() / radius(sites.get(i)) - usual) < 0.08)
                .boxed().toList();
    }

    /**
     * Too few outlines, or outlines that run out over too wide a band: the photo is not guessed at. False where it is sharp and yet what was
     * found is not the outline of balls, as with dark rims on a board of the same light: then the learned judge has to do without.
     */
    private boolean clear(List<Circle> good) throws UnclearPhotoException {
        long looked = Arrays.stream(circles).filter(Objects::nonNull).count();
        if (looked < INSIDE_PART * sites.size()) {
            throw new UnclearPhotoException(UnclearPhotoException.Why.CROPPED,
                    "only " + looked + " of " + sites.size()
                            + " sites lie in the picture; take the whole chip, with some room round it");
        }
        double softPx = Sharpness.blurPx(picture, field.at(laid));
        softPart = softPx / field.typical();
        boolean blurred = softPart > MOST_BLUR || softPart > SHARP && softPx > MOST_BLUR_PX;
        double haze = good.size() > 8 ? outlines.haze(good) : 2;
        if (blurred || haze > MOST_HAZE && (softPart > SHARP || judge.isEmpty())) {
            throw blurred();
        }
        if (haze > MOST_HAZE) {
            return false;
        }
        long found = Arrays.stream(circles).filter(c -> c != null && c.cover() >= SEEN_COVER).count();
        if (found < SEEN_PART * looked) {
            throw new UnclearPhotoException(UnclearPhotoException.Why.GLARE, "only " + found + " of "
                    + looked
                    + " sites show an outline; wash flux off, use even light from a ring, and avoid glare on mask and pads");
        }
        return true;
    }

    private static UnclearPhotoException blurred() {
        return new UnclearPhotoException(UnclearPhotoException.Why.BLURRED,
                "the outlines of the balls run out over too wide a band; focus on the rims of the balls, keep camera and chip still, or come closer");
    }

    private void levels() {
        solder = new Solder(picture, even, field, sites.stream().filter(this::inside).toList());
        outlines = field.meter(even.red, even.green, even.blue);
        metal = field.meter(solder.light());
    }

    private boolean onPad(Site s, Circle c) {
        return c.rPx() < PAD_SIZE * radius(s) && solder.onPad(c);
    }

    /** Where rims stand out less than on most photos, less is a clear outline; not so little that a photo without focus passes. */
    private void eased() {
        double usual = BeadCheck.median(Arrays.stream(circles).filter(Objects::nonNull)
                .mapToDouble(Circle::cover).toArray());
        ease = Math.clamp(usual / USUAL_COVER, LEAST_EASE, 1);
        outlines.ease(ease);
        metal.ease(ease);
        for (int i = 0; i < circles.length; i++) {
            circles[i] = circles[i] == null ? null : circles[i].eased(ease);
        }
    }

    /** Outlines that were looked for where no ball is expected any more are looked for anew. */
    private void again(Field before) {
        int[] moved = IntStream.range(0, sites.size()).filter(i -> {
            Site s = sites.get(i);
            return Math.hypot(x(s) - before.x(s), y(s) - before.y(s)) > MOVED_PART * radius(s)
                    && !plain(s, circles[i]);
        }).toArray();
        if (moved.length > 0) {
            measure(true, moved);
            refit();
        }
    }

    private void measure(boolean deep) {
        measure(deep, IntStream.range(0, sites.size()).toArray());
    }

    /** @param deep look again, wherever it may lie, for a ball that is not as it should be */
    private void measure(boolean deep, int[] which) {
        Arrays.stream(which).parallel().forEach(i -> {
            Site s = sites.get(i);
            if (!inside(s)) {
                return;
            }
            Circle now = deep && plain(s, circles[i])
                    ? circles[i]
                    : outlines.measure(x(s), y(s), radius(s));
            if (deep && (odd(s, now) || onPad(s, now))) {
                Circle again = metal.search(x(s), y(s), radius(s),
                        0.45 * pitchMm * projection.pxPerMm(s.xMm(), s.yMm()));
                boolean padSeen = onPad(s, now) && again.cover() > SEEN_COVER && !onPad(s, again);
                if ((padSeen || believed(s, again) > believed(s, now))
                        && Math.hypot(again.xPx() - x(s), again.yPx() - y(s)) < 0.6 * pitchMm
                                * projection.pxPerMm(s.xMm(), s.yMm())) {
                    now = again;
                }
            }
            if (deep && now.cover() * ease < PARTLY_COVER
                    && (now.cover() < SEEN_COVER || near(s, now, PARTLY_PLACE))) {
                Circle less = outlines.within(x(s), y(s), radius(s));
                now = less.cover() > now.cover() ? less : now;
            }
            circles[i] = now;
        });
    }

    /** So clear, and so much where it is expected, that a second look would find the same. */
    private boolean plain(Site s, Circle c) {
        return c != null && c.cover() > CLEAR && Math.abs(c.rPx() / radius(s) - 1) < CLEAR_SIZE
                && near(s, c, CLEAR_PLACE);
    }

    /** Closer to where it is expected than a part of its radius. */
    private boolean near(Site s, Circle c, double part) {
        return Math.hypot(c.xPx() - x(s), c.yPx() - y(s)) < part * radius(s);
    }

    private double believed(Site s, Circle c) {
        return c.cover() * BallMeter.likely(c.rPx() / radius(s));
    }

    private boolean odd(Site s, Circle c) {
        double pitch = pitchMm * projection.pxPerMm(s.xMm(), s.yMm());
        return c.cover() < 0.75 || Math.abs(c.rPx() / radius(s) - 1) > 0.09
                || Math.hypot(c.xPx() - x(s), c.yPx() - y(s)) > 0.07 * pitch;
    }

    /** Little of it stands out, as in a dim corner, but just where and as large as it is expected. */
    private boolean faint(Site s, Circle c) {
        return c.cover() > FAINT_COVER && Math.abs(c.rPx() / radius(s) - 1) < CLEAR_SIZE
                && near(s, c, CLEAR_PLACE);
    }

    private void refit() {
        var mm = new ArrayList<double[]>();
        var px = new ArrayList<double[]>();
        for (int i = 0; i < circles.length; i++) {
            Site s = sites.get(i);
            if (circles[i] != null && (circles[i].cover() > 0.7
                    && Math.abs(circles[i].rPx() / radius(s) - 1) < 0.25 || faint(s, circles[i]))) {
                mm.add(new double[]{s.xMm(), s.yMm()});
                px.add(new double[]{circles[i].xPx(), circles[i].yPx()});
            }
        }
        Projection.Form form = mm.size() > 80
                ? Projection.Form.LENS
                : mm.size() > 15 ? Projection.Form.PLANE : Projection.Form.AFFINE;
        projection = projection.fitted(mm.toArray(double[][]::new), px.toArray(double[][]::new), form)
                .orElse(projection);
        field = field.at(projection);
    }

    private boolean[] within() {
        boolean[] in = new boolean[sites.size()];
        for (int i = 0; i < in.length; i++) {
            in[i] = inside(sites.get(i));
        }
        return in;
    }

    private BeadReport judged() throws UnclearPhotoException {
        bridges = trueOutlines ? bridges : necks();
        List<BeadReport.Seen> measured = IntStream.range(0, sites.size()).parallel()
                .mapToObj(i -> site(i, bridges.getOrDefault(i, List.of()))).toList();
        Optional<SiteJudge> learned = judge
                .map(j -> new SiteJudge(j, picture, field, pitchMm, within()));
        List<BeadReport.Stray> drawn = new Strays(solder.light(), usualMm,
                field.sampled(solder.light(), 0.72),
                blurPx,
                sites,
                circles,
                bridges, pitchMm,
                projection).found();
        return told(learned, measured, drawn);
    }

    /** By the learned judge alone: it lays the map where it sees the balls, and looks again. */
    private BeadReport judgedAlone() {
        PhotoJudge by = judge.orElseThrow();
        projection = laid;
        field = field.at(projection);
        projection = new SiteJudge(by, picture, field, pitchMm, within()).laidAnew();
        field = field.at(projection);
        List<BeadReport.Seen> measured = sites.stream().map(s -> new BeadReport.Seen(s.name(),
                BeadState.UNKNOWN, x(s), y(s), Optional.empty(), 0, Optional.empty(), 0, List.of())).toList();
        return told(Optional.of(new SiteJudge(by, picture, field, pitchMm, within())), measured, List.of());
    }

    /** @param measured what outlines say, @param drawn strays by outlines */
    private BeadReport told(Optional<SiteJudge> learned, List<BeadReport.Seen> measured,
            List<BeadReport.Stray> drawn) {
        List<BeadReport.Seen> seen = learned.map(j -> j.with(measured)).orElse(measured);
        double common = learned.map(j -> j.common(measured)).orElse(1.0);
        double[] good = seen.stream().filter(s -> s.state() == BeadState.OK)
                .mapToDouble(s -> s.diameterMm().orElseThrow()).toArray();
        double mean = Arrays.stream(good).average().orElse(usualMm);
        double spread = Math.sqrt(Arrays.stream(good).map(d -> (d - mean) * (d - mean)).sum()
                / Math.max(1, good.length - 1)) / mean;
        List<BeadReport.Stray> strays = judge.flatMap(PhotoJudge::strays)
                .map(net -> learned.orElseThrow().strays(net, picture, seen, drawn)).orElse(drawn);
        double midX = sites.stream().mapToDouble(Site::xMm).average().orElse(0);
        double midY = sites.stream().mapToDouble(Site::yMm).average().orElse(0);
        double[] j = projection.jacobian(midX, midY);
        double turn = Math.toDegrees(Math.atan2(j[2], j[0]));
        return new BeadReport(seen, strays, turn, mark, projection.tiltDeg(midX, midY),
                projection.pxPerMm(midX, midY), 100 * spread,
                BeadJudge.of(map, seen, strays, usualMm, 100 * spread, common != 1 || pale), common, pale);
    }

    private BeadReport.Seen site(int i, List<Integer> bridged) {
        Site s = sites.get(i);
        Circle c = circles[i];
        double scale = projection.pxPerMm(s.xMm(), s.yMm());
        List<String> with = bridged.stream().map(n -> sites.get(n).name()).toList();
        if (c == null) {
            return new BeadReport.Seen(s.name(), BeadState.UNKNOWN, x(s), y(s), Optional.empty(), 0,
                    Optional.empty(), 0, List.of());
        }
        boolean found = c.cover() >= SEEN_COVER;
        boolean bare = found
                ? solder.bare(c, c.rPx() < 0.9 * radius(s) && c.rPx() > 0.55 * radius(s))
                : solder.bare(new Circle(x(s), y(s), PAD_PART * radius(s), 0, 0), false);
        if (with.isEmpty() && (!found || bare)) {
            return new BeadReport.Seen(s.name(), bare ? BeadState.MISSING : BeadState.UNKNOWN, x(s), y(s),
                    Optional.empty(), 0, Optional.empty(), 0, List.of());
        }
        double steepest = trueOutlines ? 0 : STEEPEST_PX * Math.clamp((c.rPx() - 5) / 7, 0, 1);
        double diameter = 2 * (c.rPx() - steepest) / scale;
        double[] off = projection.mm(s.xMm(), s.yMm(), c.xPx() - x(s), c.yPx() - y(s));
        double offset = Math.hypot(off[0], off[1]);
        double ratio = diameter / nominal(s);
        if (with.isEmpty() && ratio > 1 - BeadCheck.DIAMETER_LIMIT && onPad(s, c)) {
            // Its pad was measured: what stands on it is smaller than that.
            return new BeadReport.Seen(s.name(), BeadState.SMALL, c.xPx(), c.yPx(), Optional.empty(), 0,
                    Optional.empty(), 0, List.of());
        }
        BeadState state = !with.isEmpty()
                ? BeadState.BRIDGED
                : ratio < 1 - BeadCheck.DIAMETER_LIMIT
                        ? BeadState.SMALL
                        : ratio > 1 + BeadCheck.DIAMETER_LIMIT
                                ? BeadState.LARGE
                                : offset > BeadCheck.OFFSET_LIMIT * pitchMm
                                        ? BeadState.DISPLACED
                                        : BeadState.OK;
        return new BeadReport.Seen(s.name(), state, c.xPx(), c.yPx(), Optional.of(diameter),
                Math.hypot(2 * c.sigmaPx() / scale, EDGE_PART * diameter), Optional.of(offset),
                c.sigmaPx() * 1.4 / scale, with);
    }
}
