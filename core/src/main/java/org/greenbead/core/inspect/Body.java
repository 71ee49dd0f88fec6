package org.greenbead.core.inspect;

import java.util.Arrays;
import java.util.OptionalDouble;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;

/** How far the body of a chip reaches beyond its field: along each side the place where the middle colour of a line changes most. */
final class Body {
    private static final int ALONG = 48;
    private static final double FROM = 0.5;
    private static final double TO = 3.6;
    private static final double STEP = 0.08;
    private static final double LEAST_JUMP = 0.25;

    private Body() {
    }

    /** @return the smallest margin of the four sides, mm; empty when none of them shows an edge */
    static OptionalDouble marginMm(Raster picture, BeadMap map, double pitchMm, Projection p) {
        double left = map.sites().stream().mapToDouble(Site::xMm).min().orElseThrow();
        double right = map.sites().stream().mapToDouble(Site::xMm).max().orElseThrow();
        double low = map.sites().stream().mapToDouble(Site::yMm).min().orElseThrow();
        double high = map.sites().stream().mapToDouble(Site::yMm).max().orElseThrow();
        double[] found = new double[4];
        for (int side = 0; side < 4; side++) {
            found[side] = side(picture, p, pitchMm, new double[]{left, right, low, high}, side);
        }
        return Arrays.stream(found).filter(Double::isFinite).min();
    }

    private static double side(Raster picture, Projection p, double pitch, double[] box, int side) {
        int count = (int) ((TO - FROM) / STEP);
        double[][] colour = new double[count][];
        for (int k = 0; k < count; k++) {
            colour[k] = line(picture, p, box, side, pitch * (FROM + k * STEP));
            if (colour[k] == null) {
                count = k;
                break;
            }
        }
        double best = LEAST_JUMP;
        double at = Double.NaN;
        for (int k = 2; k < count - 2; k++) {
            double jump = 0;
            for (int c = 0; c < 3; c++) {
                double in = (colour[k - 1][c] + colour[k - 2][c]) / 2;
                double out = (colour[k + 1][c] + colour[k + 2][c]) / 2;
                jump += Math.abs(in - out) / (in + out + 0.02);
            }
            if (jump > best) {
                best = jump;
                at = pitch * (FROM + k * STEP);
            }
        }
        return at;
    }

    private static double[] line(Raster picture, Projection p, double[] box, int side, double out) {
        double[][] seen = new double[3][ALONG];
        for (int i = 0; i < ALONG; i++) {
            double t = (i + 0.5) / ALONG;
            double x = side == 0
                    ? box[0] - out
                    : side == 1 ? box[1] + out : box[0] + t * (box[1] - box[0]);
            double y = side == 2
                    ? box[2] - out
                    : side == 3 ? box[3] + out : box[2] + t * (box[3] - box[2]);
            double px = p.xPx(x, y);
            double py = p.yPx(x, y);
            if (!picture.red.holds(px, py, 1)) {
                return null;
            }
            seen[0][i] = picture.red.at(px, py);
            seen[1][i] = picture.green.at(px, py);
            seen[2][i] = picture.blue.at(px, py);
        }
        double[] middle = new double[3];
        for (int c = 0; c < 3; c++) {
            Arrays.sort(seen[c]);
            middle[c] = seen[c][ALONG / 2];
        }
        return middle;
    }
}
