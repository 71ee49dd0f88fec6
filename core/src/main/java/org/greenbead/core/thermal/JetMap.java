package org.greenbead.core.thermal;

import org.greenbead.core.recipe.AirSetting;

/**
 * Where a jet that stands still or circles over the target's centre acts: for each ring the mean share of its strength and
 * the mean share of its excess temperature. Depends on geometry alone, so it is made once for a setting.
 */
final class JetMap {
    static final JetMap NONE = new JetMap(null, new double[0], new double[0]);
    private static final int ANGLES = 32;
    private final AirSetting made;
    private final double[] share;
    private final double[] excess;

    private JetMap(AirSetting made, double[] share, double[] excess) {
        this.made = made;
        this.share = share;
        this.excess = excess;
    }

    static JetMap over(RingGrid grid, AirSetting air) {
        double tall = air.distanceMm() / air.nozzleMm();
        int rings = grid.midMm.length;
        double[] share = new double[rings];
        double[] excess = new double[rings];
        double[] radii = {0.1127, 0.5, 0.8873}; // Gauss points of a ring's width
        double[] weights = {5.0 / 18, 8.0 / 18, 5.0 / 18};
        for (int ring = 0; ring < rings; ring++) {
            double shareSum = 0;
            double heatSum = 0;
            double weightSum = 0;
            for (int g = 0; g < 3; g++) {
                double r = grid.edgeMm[ring] + radii[g] * (grid.edgeMm[ring + 1] - grid.edgeMm[ring]);
                for (int a = 0; a < ANGLES; a++) {
                    double cos = Math.cos(2 * Math.PI * (a + 0.5) / ANGLES);
                    double away = Math.sqrt(Math.max(0,
                            r * r + air.circleMm() * air.circleMm() - 2 * r * air.circleMm() * cos));
                    double n = Jet.local(away / air.nozzleMm(), tall);
                    double weight = weights[g] * r;
                    shareSum += weight * n;
                    heatSum += weight * n * Jet.radialShare(away / air.nozzleMm());
                    weightSum += weight;
                }
            }
            share[ring] = shareSum / weightSum;
            excess[ring] = heatSum / shareSum;
        }
        return new JetMap(air, share, excess);
    }

    /** Temperature and flow do not change the map. */
    boolean isFor(AirSetting air) {
        return made != null && made.nozzleMm() == air.nozzleMm() && made.distanceMm() == air.distanceMm()
                && made.circleMm() == air.circleMm();
    }

    double share(int ring) {
        return share[ring];
    }

    double excess(int ring) {
        return excess[ring];
    }
}
