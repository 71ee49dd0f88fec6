package org.greenbead.core.inspect;

import java.util.List;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;

/**
 * Which of several turns that fit alike has the mark of pin 1 outside the corner of A1: a spot there that differs, in colour as gold or
 * copper does or in light, from the same place at the other corners.
 */
final class PinMark {
    private static final int GRID = 30;
    /** How far outside the corner site the mark is looked for, in pitches. */
    private static final double OUT = 2.6;
    private static final double CLEAR = 0.45;

    /** Light of the balls a little inside their rims: metal is not much darker, mask is. */
    private static double metal(Raster picture, BeadMap map, Projection p) {
        double usual = Lattice.nominal(map);
        int step = Math.max(1, map.sites().size() / 200);
        var seen = new java.util.ArrayList<Float>();
        for (int i = 0; i < map.sites().size(); i += step) {
            Site s = map.sites().get(i);
            double r = 0.3 * p.pxPerMm(s.xMm(), s.yMm()) * s.diameterMm().orElse(usual);
            for (int a = 0; a < 8; a++) {
                double x = p.xPx(s.xMm(), s.yMm()) + r * Math.cos(a * 0.785);
                double y = p.yPx(s.xMm(), s.yMm()) + r * Math.sin(a * 0.785);
                seen.add((float) ((picture.red.at(x, y) + picture.green.at(x, y) + picture.blue.at(x, y))
                        / 3));
            }
        }
        return Math.max(1e-3, BeadCheck.median(seen));
    }

    private PinMark() {
    }

    /** @param scores how strongly each corner is marked, as the turns were given */
    record Answer(int best, double[] scores, boolean clear) {}

    static Answer of(Raster picture, BeadMap map, double pitchMm, List<Projection> turns) {
        double left = map.sites().stream().mapToDouble(Site::xMm).min().orElseThrow();
        double high = map.sites().stream().mapToDouble(Site::yMm).max().orElseThrow();
        double[][] warm = new double[turns.size()][GRID * GRID];
        double[][] light = new double[turns.size()][GRID * GRID];
        var used = new boolean[GRID * GRID];
        // Only on the body: a mat beyond it has a colour of its own.
        double out = Math.min(OUT,
                Body.marginMm(picture, map, pitchMm, turns.getFirst()).orElse(OUT * pitchMm)
                        / pitchMm - 0.06);
        for (int gy = 0; gy < GRID; gy++) {
            for (int gx = 0; gx < GRID; gx++) {
                double x = left + pitchMm * (0.7 - (out + 0.7) * gx / (GRID - 1.0));
                double y = high - pitchMm * (0.7 - (out + 0.7) * gy / (GRID - 1.0));
                int i = gy * GRID + gx;
                used[i] = x < left - CLEAR * pitchMm || y > high + CLEAR * pitchMm;
                for (int t = 0; t < turns.size(); t++) {
                    double px = turns.get(t).xPx(x, y);
                    double py = turns.get(t).yPx(x, y);
                    if (!picture.red.holds(px, py, 1)) {
                        used[i] = false;
                        continue;
                    }
                    double r = picture.red.at(px, py);
                    double b = picture.blue.at(px, py);
                    double g = picture.green.at(px, py);
                    light[t][i] = (r + g + b) / 3;
                    warm[t][i] = (r - b) / (r + g + b + 0.01);
                }
            }
        }
        double most = metal(picture, map, turns.getFirst());
        var scores = new double[turns.size()];
        for (int i = 0; i < used.length; i++) {
            if (!used[i]) {
                continue;
            }
            for (int t = 0; t < turns.size(); t++) {
                double otherWarm = -1;
                double otherLight = 0;
                for (int o = 0; o < turns.size(); o++) {
                    if (o != t) {
                        otherWarm = Math.max(otherWarm, warm[o][i]);
                        otherLight = Math.max(otherLight, light[o][i]);
                    }
                }
                double more = light[t][i] > 0.2 * most ? warm[t][i] - otherWarm : 0;
                double brighter = (light[t][i] - otherLight) / most;
                if (more > 0.08) {
                    scores[t] += 3 * Math.min(1, more / 0.25);
                } else if (brighter > 0.35) {
                    scores[t] += Math.min(1, brighter / 0.5);
                }
            }
        }
        int best = 0;
        for (int t = 1; t < scores.length; t++) {
            if (scores[t] > scores[best]) {
                best = t;
            }
        }
        double second = 0;
        for (int t = 0; t < scores.length; t++) {
            if (t != best) {
                second = Math.max(second, scores[t]);
            }
        }
        return new Answer(best, scores, scores[best] > 6 && scores[best] > 1.6 * second);
    }
}
