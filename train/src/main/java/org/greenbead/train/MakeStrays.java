package org.greenbead.train;

import java.io.DataOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.greenbead.core.bead.Site;
import org.greenbead.core.inspect.SiteViews;
import org.greenbead.core.inspect.Specks;
import org.greenbead.worlds.Album;
import org.greenbead.worlds.ChipScene;
import org.greenbead.worlds.MadePhoto;

/**
 * Views of specks between the balls with their truth: {@code MakeStrays WORLD FIRST_SEED SCENES FILE}. Records are those of
 * {@link MakeViews}; class 1 is a stray ball, class 0 anything else.
 */
public final class MakeStrays {
    private MakeStrays() {
    }

    public static void main(String[] args) throws IOException {
        Scenes.write(args, new ChipScene.Lot(4, 9, 0.05, 8), 14, 4, MakeStrays::write);
    }

    private static void write(MadePhoto photo, Random random, DataOutputStream out) throws IOException {
        ChipScene scene = photo.scene();
        List<Site> sites = scene.map().sites();
        var at = new ArrayList<SiteViews.At>();
        double[][] balls = new double[sites.size()][];
        for (int i = 0; i < sites.size(); i++) {
            double[] p = photo.sites().get(sites.get(i).name());
            at.add(new SiteViews.At(p[0] + 0.4 * random.nextGaussian(), p[1] + 0.4 * random.nextGaussian(),
                    p[2] * (1 + 0.01 * random.nextGaussian()), p[3]));
            double[] b = photo.outlines().get(sites.get(i).name());
            balls[i] = b == null
                    ? null
                    : new double[]{b[0], b[1], b[2] * (1 + 0.04 * random.nextGaussian())};
        }
        var views = new SiteViews(photo.picture(), sites, at, scene.usualMm(), scene.map().pitchMm());
        List<Album.Line> strays = Album.lines(photo).stream().filter(Album.Line::stray).toList();
        byte[] bytes = new byte[MakeViews.VIEW];
        for (Specks.Speck speck : Specks.of(photo.picture(), sites, at, balls, scene.usualMm(),
                scene.map().pitchMm())) {
            float[] view = views.between(speck.xPx(), speck.yPx(), speck.site());
            for (int k = 0; k < bytes.length; k++) {
                bytes[k] = (byte) Math.round(255 * view[k]);
            }
            out.write(bytes);
            float[] truth = new float[MakeViews.FLOATS];
            for (Album.Line s : strays) {
                double off = Math.hypot(s.xPx() - speck.xPx(), s.yPx() - speck.yPx());
                if (off < s.rPx() + 0.5) {
                    SiteViews.At a = at.get(speck.site());
                    double unit = a.pxPerMm() * scene.usualMm();
                    double x = (s.xPx() - speck.xPx()) / unit;
                    double y = (s.yPx() - speck.yPx()) / unit;
                    truth[0] = 1;
                    truth[1] = (float) (2 * s.rPx() / unit);
                    truth[2] = (float) (Math.cos(a.turnRad()) * x + Math.sin(a.turnRad()) * y);
                    truth[3] = (float) -(-Math.sin(a.turnRad()) * x + Math.cos(a.turnRad()) * y);
                }
            }
            for (float f : truth) {
                out.writeFloat(f);
            }
        }
    }
}
