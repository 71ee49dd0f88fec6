package org.greenbead.worlds;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.greenbead.core.bead.Site;
import org.greenbead.core.inspect.Raster;

/**
 * A photo and its truth.
 *
 * @param rgb      row by row, 0xRRGGBB
 * @param scene    what was drawn
 * @param sites    middle of a good ball of each site in the picture: x, y (px), px per mm, turn of the map's x axis (rad, clockwise in the picture)
 * @param outlines of the balls that are there: x, y, radius, px
 * @param strays   x, y, radius (px) and diameter (mm) of balls where none belongs
 */
public record MadePhoto(int width, int height, int[] rgb, ChipScene scene, Map<String, double[]> sites,
        Map<String, double[]> outlines, List<double[]> strays) {
    /** Where a ball is seen that stands at a place of the map: x, y and radius, px. */
    interface Seen {
        double[] at(double xMm, double yMm, double diameterMm);
    }

    /** The sites of a scene as a camera sees them. */
    static Map<String, double[]> sites(ChipScene scene, Seen seen) {
        Map<String, double[]> sites = new HashMap<>();
        for (Site s : scene.map().sites()) {
            double d = s.diameterMm().orElseThrow();
            double[] p = seen.at(s.xMm(), s.yMm(), d);
            double[] q = seen.at(s.xMm() + 0.01, s.yMm(), d);
            sites.put(s.name(), new double[]{p[0], p[1], 2 * p[2] / d, Math.atan2(q[1] - p[1], q[0] - p[0])});
        }
        return sites;
    }

    public Raster picture() {
        return Raster.ofSrgb(width, height, rgb);
    }
}
