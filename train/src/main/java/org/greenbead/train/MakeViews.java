package org.greenbead.train;

import java.io.DataOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.greenbead.core.bead.Site;
import org.greenbead.core.inspect.BeadState;
import org.greenbead.core.inspect.SiteViews;
import org.greenbead.worlds.ChipScene;
import org.greenbead.worlds.MadePhoto;

/**
 * Views of sites with their truth, in a file: {@code MakeViews WORLD FIRST_SEED SCENES FILE [STATED_SD]}. Each record is the view in bytes, then floats:
 * class, diameter over the stated one, place off the middle of the view in stated diameters right and up, eight directions joined. The class
 * is that among the balls of this chip, whatever the map states of all of them.
 */
public final class MakeViews {
    static final int CHANNELS = SiteViews.CHANNELS;
    static final int SIDE = SiteViews.SIDE;
    static final int VIEW = SiteViews.CHANNELS * SiteViews.SIDE * SiteViews.SIDE;
    static final int FLOATS = 12;
    private static final int TAKES = 2;
    /** What the map states of the balls is off by so much (logarithm), all balls alike: 0 for the judge of states, 0.07 for that of sizes. */
    private final double statedSd;

    private MakeViews(double statedSd) {
        this.statedSd = statedSd;
    }

    public static void main(String[] args) throws IOException {
        Scenes.write(args, new ChipScene.Lot(4, 9, 0.25, 1.2), 12, 5,
                new MakeViews(args.length > 4 ? Double.parseDouble(args[4]) : 0)::write);
    }

    /** The lattice as a program would lay it, twice: a little beside, turned and scaled, and the balls' diameter as a map may state it. */
    private void write(MadePhoto photo, Random random, DataOutputStream out) throws IOException {
        for (int take = 0; take < TAKES; take++) {
            double stated = Math.exp(
                    statedSd * Math.clamp(random.nextGaussian(), -2.5, 2.5));
            take(photo, stated, random, out);
        }
    }

    /** @param stated diameter on the map over the one the balls were made for */
    private static void take(MadePhoto photo, double stated, Random random, DataOutputStream out)
            throws IOException {
        ChipScene scene = photo.scene();
        double pitchPx = scene.map().pitchMm() * photo.sites().values().iterator().next()[2];
        double much = random.nextDouble() * 0.05;
        double dx = much * pitchPx * random.nextGaussian();
        double dy = much * pitchPx * random.nextGaussian();
        double grow = 1 + 0.025 * random.nextGaussian();
        double turn = 0.02 * random.nextGaussian();
        List<Site> sites = scene.map().sites().stream().map(s -> new Site(s.name(), s.xMm(), s.yMm(),
                s.diameterMm().map(d -> d * stated), s.net(), s.critical())).toList();
        var at = new ArrayList<SiteViews.At>();
        for (Site s : sites) {
            double[] p = photo.sites().get(s.name());
            at.add(new SiteViews.At(p[0] + dx + 0.012 * pitchPx * random.nextGaussian(),
                    p[1] + dy + 0.012 * pitchPx * random.nextGaussian(), p[2] * grow, p[3] + turn));
        }
        var views = new SiteViews(photo.picture(), sites, at, scene.usualMm() * stated,
                scene.map().pitchMm());
        byte[] bytes = new byte[VIEW];
        for (int i = 0; i < sites.size(); i++) {
            float[] view = views.of(i);
            for (int k = 0; k < VIEW; k++) {
                bytes[k] = (byte) Math.round(255 * view[k]);
            }
            out.write(bytes);
            for (float f : truth(photo, sites.get(i), at.get(i))) {
                out.writeFloat(f);
            }
        }
    }

    private static float[] truth(MadePhoto photo, Site s, SiteViews.At at) {
        ChipScene scene = photo.scene();
        BeadState state = scene.truth().get(s.name());
        float[] out = new float[FLOATS];
        out[0] = state.ordinal();
        double[] o = photo.outlines().get(s.name());
        if (o != null) {
            double unit = at.pxPerMm() * s.diameterMm().orElseThrow();
            double x = (o[0] - at.xPx()) / unit;
            double y = (o[1] - at.yPx()) / unit;
            out[1] = (float) (2 * o[2] / unit);
            out[2] = (float) (Math.cos(at.turnRad()) * x + Math.sin(at.turnRad()) * y);
            out[3] = (float) -(-Math.sin(at.turnRad()) * x + Math.cos(at.turnRad()) * y);
        }
        for (String other : scene.joined(s.name())) {
            Site n = scene.map().site(other).orElseThrow();
            out[4 + sector(n.xMm() - s.xMm(), n.yMm() - s.yMm())] = 1;
        }
        return out;
    }

    /** Which eighth of a turn, from the right against the clock. */
    static int sector(double right, double up) {
        return Math.floorMod(Math.round(Math.atan2(up, right) / (Math.PI / 4)), 8);
    }
}
