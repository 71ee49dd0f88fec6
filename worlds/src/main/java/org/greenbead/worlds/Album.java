package org.greenbead.worlds;

import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Stream;
import javax.imageio.ImageIO;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;
import org.greenbead.core.inspect.BeadState;
import org.greenbead.core.inspect.Raster;

/**
 * Photos with their truth in a folder: {@code NAME.png} and {@code NAME.truth.csv}, whose lines are site, place and diameter on the map (mm),
 * state, whether it lies between good and bad, middle of the site in the picture (px), and x, y and radius of the ball (px; 0 where there is
 * none) and its diameter (mm). A stray is a line whose site is {@code stray}.
 */
public final class Album {
    private static final String HEAD = "site,x_mm,y_mm,nominal_mm,state,between,site_x_px,site_y_px,x_px,y_px,r_px,ball_mm";

    private Album() {
    }

    /** One site or stray. */
    public record Line(String site, double xMm, double yMm, double nominalMm, BeadState state,
            boolean between,
            double siteXPx, double siteYPx, double xPx, double yPx, double rPx, double ballMm) {
        String csv() {
            return String.format(Locale.ROOT, "%s,%.4f,%.4f,%.4f,%s,%b,%.3f,%.3f,%.3f,%.3f,%.3f,%.4f", site,
                    xMm, yMm,
                    nominalMm, state, between, siteXPx, siteYPx, xPx, yPx, rPx, ballMm);
        }

        static Line of(String csv) {
            String[] c = csv.split(",");
            double[] n = new double[c.length];
            for (int i = 1; i < c.length; i++) {
                n[i] = i == 4 || i == 5 ? 0 : Double.parseDouble(c[i]);
            }
            return new Line(c[0], n[1], n[2], n[3], BeadState.valueOf(c[4]), Boolean.parseBoolean(c[5]), n[6],
                    n[7], n[8], n[9], n[10], n[11]);
        }

        public boolean stray() {
            return site.equals("stray");
        }
    }

    /** A photo read again. */
    public record Page(String name, Raster picture, BeadMap map, List<Line> lines) {}

    /** @param ballPx least and most width of a ball */
    public static void make(World world, long first, int count, ChipScene.Lot lot, double[] ballPx,
            Path folder)
            throws IOException {
        Files.createDirectories(folder);
        for (int i = 0; i < count; i++) {
            var random = new Random(first + i);
            ChipScene scene = ChipScene.drawn(random, lot);
            double ball = ballPx[0] * Math.exp(random.nextDouble() * Math.log(ballPx[1] / ballPx[0]));
            write(world.photo(scene, ball, random), folder, world.name() + "-" + (first + i));
        }
    }

    private static void write(MadePhoto photo, Path folder, String name) throws IOException {
        var image = new BufferedImage(photo.width(), photo.height(), BufferedImage.TYPE_INT_RGB);
        image.setRGB(0, 0, photo.width(), photo.height(), photo.rgb(), 0, photo.width());
        ImageIO.write(image, "png", folder.resolve(name + ".png").toFile());
        var lines = new ArrayList<String>();
        lines.add(HEAD);
        lines(photo).forEach(l -> lines.add(l.csv()));
        Files.write(folder.resolve(name + ".truth.csv"), lines);
    }

    /** The truth of a photo. */
    public static List<Line> lines(MadePhoto photo) {
        var lines = new ArrayList<Line>();
        ChipScene scene = photo.scene();
        for (Site s : scene.map().sites()) {
            double[] at = photo.sites().get(s.name());
            double[] ball = photo.outlines().getOrDefault(s.name(), new double[3]);
            lines.add(new Line(s.name(), s.xMm(), s.yMm(), s.diameterMm().orElseThrow(),
                    scene.truth().get(s.name()), scene.between().contains(s.name()), at[0], at[1], ball[0],
                    ball[1], ball[2],
                    scene.balls().containsKey(s.name()) ? scene.balls().get(s.name()).diameterMm() : 0));
        }
        for (int i = 0; i < photo.strays().size(); i++) {
            double[] p = photo.strays().get(i);
            ChipScene.Ball b = scene.strays().get(i);
            lines.add(new Line("stray", b.xMm(), b.yMm(), p[3], BeadState.OK, false, p[0], p[1], p[0], p[1],
                    p[2],
                    p[3]));
        }
        return lines;
    }

    public static List<Page> read(Path folder) throws IOException {
        var pages = new ArrayList<Page>();
        try (Stream<Path> files = Files.list(folder)) {
            for (Path file : files.filter(f -> f.toString().endsWith(".truth.csv")).sorted().toList()) {
                String name = file.getFileName().toString().replace(".truth.csv", "");
                BufferedImage image = ImageIO.read(folder.resolve(name + ".png").toFile());
                int w = image.getWidth();
                int h = image.getHeight();
                List<Line> lines = Files.readAllLines(file).stream().skip(1).map(Line::of).toList();
                pages.add(
                        new Page(name, Raster.ofSrgb(w, h, image.getRGB(0, 0, w, h, null, 0, w)), map(lines),
                                lines));
            }
        }
        return pages;
    }

    private static BeadMap map(List<Line> lines) {
        return new BeadMap(lines.stream().filter(l -> !l.stray())
                .map(l -> new Site(l.site(), l.xMm(), l.yMm(), Optional.of(l.nominalMm()), "",
                        Site.Critical.UNKNOWN))
                .toList());
    }
}
