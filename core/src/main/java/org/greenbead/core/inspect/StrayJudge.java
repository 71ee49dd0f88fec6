package org.greenbead.core.inspect;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import org.greenbead.core.bead.Site;

/** Which of the specks between the balls are balls, by a learned judge of its own. */
final class StrayJudge {
    /** Strays among the specks the net was trained on, and among those of a chip as it comes from the bench. */
    private static final double TRAINED = 0.163;
    private static final double USUAL = 0.015;
    private static final double PRIOR = Math.log(TRAINED / (1 - TRAINED)) - Math.log(USUAL / (1 - USUAL));
    private static final double BELIEVED = 0.5;
    /** What outlines found already needs less. */
    private static final double CONFIRMED = 0.15;
    private static final double SAME_DIAMETERS = 0.25;
    /** Where more than this part of the sites, and more than so many, seem to have a stray beside them, it is flux: only what is sure counts. */
    private static final double MANY_PART = 0.04;
    private static final int MANY = 4;
    private static final double SURE = 0.97;

    private final SiteNet net;
    private final SiteViews views;
    private final Field field;
    private final List<SiteViews.At> at;

    StrayJudge(SiteNet net, SiteViews views, Field field, List<SiteViews.At> at) {
        this.net = net;
        this.views = views;
        this.field = field;
        this.at = at;
    }

    /** @param drawn what outlines alone take for strays */
    List<BeadReport.Stray> of(Raster picture, double pitchMm, List<BeadReport.Seen> seen,
            List<BeadReport.Stray> drawn) {
        List<Site> sites = field.sites();
        double[][] balls = new double[sites.size()][];
        for (int i = 0; i < balls.length; i++) {
            BeadReport.Seen s = seen.get(i);
            double r = s.diameterMm().orElse(field.nominal(sites.get(i))) * field.scale(sites.get(i)) / 2;
            balls[i] = s.state() == BeadState.MISSING ? null : new double[]{s.xPx(), s.yPx(), r};
        }
        List<Specks.Speck> specks = Specks.of(picture, sites, at, balls, field.usualMm(), pitchMm);
        Told[] told = new Told[specks.size()];
        IntStream.range(0, told.length).parallel().forEach(
                k -> told[k] = told(specks.get(k).xPx(), specks.get(k).yPx(), specks.get(k).site()));
        long believed = Arrays.stream(told).filter(t -> t.likely() > BELIEVED).count();
        double least = believed > Math.max(MANY, MANY_PART * sites.size()) ? SURE : BELIEVED;
        var out = new ArrayList<BeadReport.Stray>();
        Arrays.stream(told).filter(t -> t.likely() > least).forEach(t -> add(out, t.stray()));
        for (BeadReport.Stray s : drawn) {
            int near = IntStream.range(0, at.size()).boxed().min(java.util.Comparator.comparingDouble(
                    i -> Math.hypot(at.get(i).xPx() - s.xPx(), at.get(i).yPx() - s.yPx()))).orElseThrow();
            Told again = told(s.xPx(), s.yPx(), near);
            if (again.likely() > Math.max(CONFIRMED, least - BELIEVED)) {
                add(out, again.stray());
            }
        }
        return out;
    }

    private void add(List<BeadReport.Stray> out, BeadReport.Stray s) {
        double same = SAME_DIAMETERS * field.usualMm() * at.getFirst().pxPerMm();
        if (s != null
                && out.stream().noneMatch(o -> Math.hypot(o.xPx() - s.xPx(), o.yPx() - s.yPx()) < same)) {
            out.add(s);
        }
    }

    private record Told(BeadReport.Stray stray, double likely) {}

    private Told told(double x, double y, int site) {
        SiteNet.Said said = net.of(views.between(x, y, site));
        double odds = said.logits()[1] - said.logits()[0] - PRIOR;
        SiteViews.At a = at.get(site);
        double unit = a.pxPerMm() * field.nominal(field.sites().get(site));
        double px = x + unit * (Math.cos(a.turnRad()) * said.right() + Math.sin(a.turnRad()) * said.up());
        double py = y + unit * (Math.sin(a.turnRad()) * said.right() - Math.cos(a.turnRad()) * said.up());
        return new Told(new BeadReport.Stray(px, py, Math.clamp(said.size(), 0.1, 1.5) * unit / a.pxPerMm()),
                1 / (1 + Math.exp(-odds)));
    }
}
