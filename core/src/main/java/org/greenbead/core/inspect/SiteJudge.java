package org.greenbead.core.inspect;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.stream.IntStream;
import org.greenbead.core.bead.Site;

/**
 * What stands on each site, by the learned judge and by what was measured together: the net says how likely each state is and how large the
 * ball, the outline says it more finely where it is the outline of the ball. Limits that name no source are judgement, set on made photos
 * with known truth and tried on others drawn later.
 */
final class SiteJudge {
    private static final BeadState[] STATES = {BeadState.OK, BeadState.MISSING, BeadState.SMALL,
            BeadState.LARGE, BeadState.DISPLACED, BeadState.BRIDGED};
    /** Faults among the sites the net was trained on, and among those of a chip that was balled with care. */
    private static final double TRAINED_FAULTS = 0.25;
    private static final double USUAL_FAULTS = 0.02;
    private static final double PRIOR = Math.log(TRAINED_FAULTS / (1 - TRAINED_FAULTS))
            - Math.log(USUAL_FAULTS / (1 - USUAL_FAULTS));
    /** Between these a site is looked at once more, turned and mirrored. */
    private static final double SURELY_GOOD = 0.05;
    private static final double SURELY_BAD = 0.9;
    private static final int AT_ONCE = 8;
    /** Between these nothing is said after that. */
    private static final double GOOD = 0.35;
    private static final double BAD = 0.6;
    private static final double EVEN = 0.5;
    /** From here on what outlines say as well is believed. */
    private static final double AGREED = 0.1;
    private static final double OWN_PART = 0.8;
    private static final double JOINED = 0.8;
    /** A neck that outlines see needs little from the net, where outlines are those of the balls: a bridge that is missed is a short. */
    private static final double NECK = 0.01;
    /** Where outlines see more of them, they see them in what the light does between balls. */
    private static final int MANY_NECKS = 6;
    private static final double MANY_NECKS_PART = 0.1;
    /** With fewer balls it is not known what all of them have in common. */
    private static final int LEAST_ALIKE = 9;
    private static final double NEAR_PITCHES = 1.5;
    /** Standard error of the diameters of one photo together, and of one outline, parts. */
    private static final double PHOTO_SD = 0.025;
    private static final double OUTLINE_SD = 0.01;
    private static final double ALIKE_SDS = 4;
    private static final double LEAST_COMMON = 0.04;
    /** So many sites tell how large all are. */
    private static final int SOME = 64;
    /** How far a telling of the size of all is off on photos whose map is right: 2.6 to 4.3 % by world, parts. */
    private static final double TOLD_SD = 0.035;
    /** What maps are worth before anything is seen: most state the diameter to 2 %, some are of another ball. */
    private static final double MAP_SD = 0.02;
    private static final double OTHER_BALL = 0.15;
    private static final double OTHER_BALL_SD = 0.1;
    /** Outlines and net together place the size of all balls of a photo; where they differ by so much, the outlines are not those of the balls. */
    private static final double OTHER_OUTLINE = 0.06;
    private static final double NET_PART = 0.4;
    /** A mean size of errors to a standard deviation, for errors that follow Laplace's law. */
    private static final double LAPLACE = Math.sqrt(2);

    private final SiteNet net;
    private final List<Site> sites;
    private final Field field;
    private final double pitchMm;
    private final SiteViews views;
    /** How large the net of sizes sees all balls over the map; views and states are by it. */
    private final double all;
    /** How large they are taken to be, the map weighed in; diameters are by it. */
    private final double believed;
    private final List<SiteViews.At> at;
    private final boolean[] inside;
    private final SiteNet.Said[] said;
    private final double[] bad;
    private double photoSd = PHOTO_SD;

    /** @param inside whether a site lies in the picture */
    SiteJudge(PhotoJudge judge, Raster picture, Field field, double pitchMm, boolean[] inside) {
        this.net = judge.balls();
        this.field = field;
        this.sites = field.sites();
        this.pitchMm = pitchMm;
        this.inside = inside;
        at = new ArrayList<>();
        for (Site s : sites) {
            double[] j = field.projection().jacobian(s.xMm(), s.yMm());
            at.add(new SiteViews.At(field.x(s), field.y(s), field.scale(s), Math.atan2(j[2], j[0])));
        }
        var asStated = new SiteViews(picture, sites, at, field.usualMm(), pitchMm);
        all = judge.sizes().map(s -> all(s, asStated)).orElse(1.0);
        believed = believed(all);
        views = all == 1
                ? asStated
                : new SiteViews(picture, sites.stream().map(this::asSeen).toList(), at, all * field.usualMm(),
                        pitchMm);
        said = new SiteNet.Said[sites.size()];
        bad = new double[sites.size()];
        int[] order = views.inOrder(inside);
        IntStream.range(0, (order.length + AT_ONCE - 1) / AT_ONCE).parallel().forEach(
                n -> look(Arrays.copyOfRange(order, n * AT_ONCE, Math.min(order.length, (n + 1) * AT_ONCE))));
        IntStream.of(order).parallel().filter(i -> bad[i] > SURELY_GOOD && bad[i] < SURELY_BAD)
                .forEach(this::lookAgain);
    }

    /** How large net or outlines see all balls over the map, where they deviate alike by more than single balls may; else 1. */
    double common(List<BeadReport.Seen> measured) {
        double[] drawn = IntStream.range(0, said.length)
                .filter(i -> inside[i] && bad[i] < GOOD && measured.get(i).diameterMm().isPresent())
                .mapToDouble(i -> measured.get(i).diameterMm().get() / field.nominal(sites.get(i))).toArray();
        double outlines = BeadCheck.median(drawn);
        if (drawn.length >= LEAST_ALIKE && Math.abs(outlines - 1) > BeadReport.COMMON_LIMIT) {
            return outlines;
        }
        return Math.abs(all - 1) > BeadReport.COMMON_LIMIT ? all : 1;
    }

    /** The map laid where the net sees balls that it takes for good; as it was where these are too few. */
    Projection laidAnew() {
        int[] good = IntStream.range(0, said.length).filter(i -> inside[i] && bad[i] < GOOD).toArray();
        double[][] mm = IntStream.of(good).mapToObj(i -> new double[]{sites.get(i).xMm(), sites.get(i).yMm()})
                .toArray(double[][]::new);
        double[][] px = IntStream.of(good).mapToObj(this::seenAt).toArray(double[][]::new);
        return field.projection().fitted(mm, px,
                good.length > 15 ? Projection.Form.PLANE : Projection.Form.AFFINE).orElse(field.projection());
    }

    /** Middle of the ball as the net sees it, px. */
    private double[] seenAt(int i) {
        Site s = sites.get(i);
        double unit = nominal(i) * field.scale(s);
        double turn = at.get(i).turnRad();
        double right = said[i].right() * unit;
        double up = said[i].up() * unit;
        return new double[]{field.x(s) + Math.cos(turn) * right + Math.sin(turn) * up,
                field.y(s) + Math.sin(turn) * right - Math.cos(turn) * up};
    }

    /** How large all balls are over the map, told from some of them; 1 where that is within what the telling scatters. */
    private double all(SiteNet sizes, SiteViews asStated) {
        int[] order = asStated.inOrder(inside);
        int some = Math.min(order.length, SOME);
        int[] which = IntStream.range(0, some).map(k -> order[(int) ((long) k * order.length / some)])
                .toArray();
        double[] parts = IntStream.range(0, (some + AT_ONCE - 1) / AT_ONCE).parallel().boxed()
                .flatMap(n -> sizes.of(IntStream.range(n * AT_ONCE, Math.min(some, (n + 1) * AT_ONCE))
                        .mapToObj(k -> asStated.of(which[k])).toList()).stream())
                .filter(s -> bad(s.logits()) < GOOD).mapToDouble(SiteNet.Said::size).toArray();
        double middle = BeadCheck.median(parts);
        return parts.length >= LEAST_ALIKE && Math.abs(middle - 1) > LEAST_COMMON ? middle : 1;
    }

    /**
     * The mean of what all balls may be over the map once one telling of it is there: either the map is right, or it is of another ball (two normal
     * priors, Bayes; the tellings scatter normally, in logarithms).
     */
    static double believed(double told) {
        double off = Math.log(told);
        double right = (1 - OTHER_BALL) * density(off, Math.hypot(MAP_SD, TOLD_SD));
        double other = OTHER_BALL * density(off, Math.hypot(OTHER_BALL_SD, TOLD_SD));
        return Math.exp(off * (right * part(MAP_SD) + other * part(OTHER_BALL_SD)) / (right + other));
    }

    private static double density(double off, double sd) {
        return Math.exp(-off * off / (2 * sd * sd)) / sd;
    }

    /** Which part of a telling is believed under a prior of that width. */
    private static double part(double priorSd) {
        return priorSd * priorSd / (priorSd * priorSd + TOLD_SD * TOLD_SD);
    }

    private Site asSeen(Site s) {
        return new Site(s.name(), s.xMm(), s.yMm(), s.diameterMm().map(d -> d * all), s.net(), s.critical());
    }

    private void look(int[] which) {
        List<SiteNet.Said> all = net.of(IntStream.of(which).mapToObj(views::of).toList());
        for (int k = 0; k < which.length; k++) {
            said[which[k]] = all.get(k);
            bad[which[k]] = bad(all.get(k).logits());
        }
    }

    /** Turned and mirrored: what is said then is the mean of eight looks. */
    private void lookAgain(int i) {
        float[] view = views.of(i);
        var turned = new ArrayList<float[]>();
        for (int q = 0; q < 4; q++) {
            turned.add(SiteViews.turned(view, false, q));
            turned.add(SiteViews.turned(view, true, q));
        }
        List<SiteNet.Said> all = net.of(turned);
        said[i] = SiteNet.Said.mean(
                IntStream.range(0, all.size()).mapToObj(k -> all.get(k).turned(k % 2 == 1, k / 2)).toList());
        bad[i] = bad(said[i].logits());
    }

    /** How likely the site is not good, faults taken to be as rare as they are. */
    private static double bad(double[] logits) {
        double sum = 0;
        for (int c = 1; c < logits.length; c++) {
            sum += Math.exp(logits[c] - logits[0] - PRIOR);
        }
        return sum / (1 + sum);
    }

    private static BeadState likeliest(double[] logits) {
        int best = 1;
        for (int c = 2; c < logits.length; c++) {
            best = logits[c] > logits[best] ? c : best;
        }
        return STATES[best];
    }

    /** @param measured what outlines alone say of each site */
    List<BeadReport.Seen> with(List<BeadReport.Seen> measured) {
        double shift = shift(measured);
        photoSd = Math.max(PHOTO_SD, Math.max(Math.abs(common(measured) - 1), Math.abs(all / believed - 1)));
        Map<Integer, TreeSet<Integer>> joined = joined(measured);
        var out = new ArrayList<BeadReport.Seen>();
        for (int i = 0; i < said.length; i++) {
            out.add(inside[i] ? site(i, measured.get(i), shift, joined) : measured.get(i));
        }
        return out;
    }

    /** Balls where none belongs. @param judge of strays, @param drawn what outlines alone take for them */
    List<BeadReport.Stray> strays(SiteNet judge, Raster picture, List<BeadReport.Seen> seen,
            List<BeadReport.Stray> drawn) {
        return new StrayJudge(judge, views, field, at).of(picture, pitchMm, seen, drawn);
    }

    /** As the balls of this photo are, which the map may state otherwise. */
    private double nominal(int i) {
        return all * field.nominal(sites.get(i));
    }

    /** By how much (logarithm) the outlines of this photo are to be taken larger, all together. */
    private double shift(List<BeadReport.Seen> measured) {
        double[] off = IntStream.range(0, said.length)
                .filter(i -> inside[i] && bad[i] < GOOD && measured.get(i).diameterMm().isPresent())
                .mapToDouble(i -> Math.log(said[i].size() * nominal(i) / measured.get(i).diameterMm().get()))
                .toArray();
        double middle = BeadCheck.median(off);
        return middle * Math.min(1, NET_PART + (1 - NET_PART) * Math.abs(middle) / OTHER_OUTLINE);
    }

    /** A diameter and its standard error, parts of the nominal one. */
    private record Size(double part, double sd) {}

    private Size size(int i, BeadReport.Seen measured, double shift) {
        double own = said[i].size();
        double ownSd = Math.max(0.015, LAPLACE * said[i].spread());
        if (measured.diameterMm().isEmpty()) {
            return new Size(own, Math.hypot(ownSd, photoSd));
        }
        double drawn = measured.diameterMm().get() / nominal(i) * Math.exp(shift);
        double drawnSd = Math.max(OUTLINE_SD, measured.diameterSdMm() / nominal(i));
        if (Math.abs(drawn - own) > ALIKE_SDS * Math.hypot(ownSd, drawnSd)) {
            return new Size(own, Math.hypot(ownSd, photoSd));
        }
        double a = 1 / (ownSd * ownSd);
        double b = 1 / (drawnSd * drawnSd);
        return new Size((a * own + b * drawn) / (a + b), Math.hypot(Math.sqrt(1 / (a + b)), photoSd));
    }

    private Map<Integer, TreeSet<Integer>> joined(List<BeadReport.Seen> measured) {
        Map<Integer, TreeSet<Integer>> out = new HashMap<>();
        Map<String, Integer> index = BeadCheck.index(sites);
        long necks = measured.stream().filter(m -> !m.bridgedWith().isEmpty()).count();
        boolean believed = common(measured) == 1
                && necks <= Math.max(MANY_NECKS, MANY_NECKS_PART * said.length);
        double neck = believed ? NECK : SURELY_GOOD;
        for (int i = 0; i < said.length; i++) {
            if (!inside[i]) {
                continue;
            }
            for (String other : measured.get(i).bridgedWith()) {
                int j = index.get(other);
                if (inside[j] && bad[i] > neck && bad[j] > neck) {
                    out.computeIfAbsent(i, k -> new TreeSet<>()).add(j);
                }
            }
            if (bad[i] > BAD && likeliest(said[i].logits()) == BeadState.BRIDGED) {
                int best = -1;
                double most = 0;
                for (int j = 0; j < said.length; j++) {
                    double both = j != i && inside[j] && near(i, j) ? way(i, j) + way(j, i) : 0;
                    best = both > most ? j : best;
                    most = Math.max(most, both);
                }
                if (most > JOINED) {
                    out.computeIfAbsent(i, k -> new TreeSet<>()).add(best);
                    out.computeIfAbsent(best, k -> new TreeSet<>()).add(i);
                }
            }
        }
        return out;
    }

    private boolean near(int i, int j) {
        return Math.abs(sites.get(i).xMm() - sites.get(j).xMm()) < NEAR_PITCHES * pitchMm
                && sites.get(i).distanceMm(sites.get(j)) < NEAR_PITCHES * pitchMm;
    }

    private double way(int i, int j) {
        double right = sites.get(j).xMm() - sites.get(i).xMm();
        double up = sites.get(j).yMm() - sites.get(i).yMm();
        return said[i].joined()[Math.floorMod(Math.round(Math.atan2(up, right) / (Math.PI / 4)), 8)];
    }

    private BeadReport.Seen site(int i, BeadReport.Seen measured, double shift,
            Map<Integer, TreeSet<Integer>> joined) {
        Site s = sites.get(i);
        Size size = size(i, measured, shift);
        double[] place = place(i, measured);
        List<String> with = joined.getOrDefault(i, new TreeSet<>()).stream().map(j -> sites.get(j).name())
                .toList();
        BeadState state = state(i, measured.state(), size, place[2], with);
        if (state == BeadState.MISSING || state == BeadState.UNKNOWN) {
            return new BeadReport.Seen(s.name(), state, field.x(s), field.y(s), Optional.empty(), 0,
                    Optional.empty(), 0, List.of());
        }
        double nominal = believed * field.nominal(s);
        return new BeadReport.Seen(s.name(), state, place[0], place[1], Optional.of(size.part() * nominal),
                size.sd() * nominal, Optional.of(place[2]), Math.max(measured.offsetSdMm(), 0.02 * pitchMm),
                with);
    }

    /** Middle of the ball, px, and how far that is off its site, mm: by the outline where both agree. */
    private double[] place(int i, BeadReport.Seen measured) {
        Site s = sites.get(i);
        double scale = field.scale(s);
        double[] own = seenAt(i);
        double x = own[0];
        double y = own[1];
        if (measured.diameterMm().isPresent()
                && Math.hypot(measured.xPx() - x, measured.yPx() - y) < 0.12 * nominal(i) * scale) {
            x = measured.xPx();
            y = measured.yPx();
        }
        double[] off = field.projection().mm(s.xMm(), s.yMm(), x - field.x(s), y - field.y(s));
        return new double[]{x, y, Math.hypot(off[0], off[1])};
    }

    private BeadState state(int i, BeadState drawn, Size size, double offMm, List<String> with) {
        if (!with.isEmpty()) {
            return BeadState.BRIDGED;
        }
        double by = size.part() - 1;
        BeadState kind = likeliest(said[i].logits());
        boolean fault = bad[i] > BAD || bad[i] > AGREED && drawn == kind;
        if (fault) {
            if (kind == BeadState.SMALL || kind == BeadState.LARGE || kind == BeadState.DISPLACED) {
                return byMeasure(by, offMm, kind);
            }
            return kind;
        }
        if (bad[i] > GOOD && (drawn != BeadState.OK || bad[i] > EVEN)) {
            return BeadState.UNKNOWN;
        }
        // What the net takes for good is called off its size only where it sees that itself.
        double own = said[i].size() - 1;
        boolean both = own * by > 0 && Math.abs(own) > OWN_PART * BeadCheck.DIAMETER_LIMIT;
        return byMeasure(both ? by : 0, offMm, BeadState.OK);
    }

    /** What a size or place that is clearly beyond a limit, or clearly within all, makes of what was said. */
    private BeadState byMeasure(double by, double offMm, BeadState said) {
        double limit = BeadCheck.DIAMETER_LIMIT;
        double off = offMm / (BeadCheck.OFFSET_LIMIT * pitchMm);
        if (Math.abs(by) > 1.15 * limit) {
            return by < 0 ? BeadState.SMALL : BeadState.LARGE;
        }
        if (off > 1.3) {
            return BeadState.DISPLACED;
        }
        return Math.abs(by) < 0.75 * limit && off < 0.7 ? BeadState.OK : said;
    }
}
