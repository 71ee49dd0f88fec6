package org.greenbead.core.thermal;

import org.greenbead.core.recipe.AirSetting;

/**
 * Where a jet that stands still or moves in a circle acts on a board: for each column the mean share of its strength and the
 * mean share of its excess temperature, averaged over the circle and over the column. Depends on geometry alone, so it is
 * made once for a setting.
 */
final class JetField {
    private static final int ANGLES = 16;
    private static final double GAUSS = 0.5 / Math.sqrt(3);
    /** Table over the distance from the axis, in nozzle diameters. */
    private static final int TABLE = 800;
    private static final double TABLE_STEP = 0.05;
    private final AirSetting made;
    private final double xMm;
    private final double yMm;
    final double[] share;
    final double[] excess;

    private JetField(AirSetting made, double xMm, double yMm, double[] share, double[] excess) {
        this.made = made;
        this.xMm = xMm;
        this.yMm = yMm;
        this.share = share;
        this.excess = excess;
    }

    static JetField over(SheetGrid grid, double xMm, double yMm, AirSetting air) {
        double tall = air.distanceMm() / air.nozzleMm();
        double[] local = new double[TABLE + 2];
        double[] heat = new double[TABLE + 2];
        for (int i = 0; i < local.length; i++) {
            local[i] = Jet.local(i * TABLE_STEP, tall);
            heat[i] = local[i] * Jet.radialShare(i * TABLE_STEP);
        }
        int angles = air.circleMm() > 0 ? ANGLES : 1;
        double[] offX = new double[angles];
        double[] offY = new double[angles];
        for (int a = 0; a < angles; a++) {
            offX[a] = xMm + air.circleMm() * Math.cos(2 * Math.PI * (a + 0.5) / angles);
            offY[a] = yMm + air.circleMm() * Math.sin(2 * Math.PI * (a + 0.5) / angles);
        }
        if (angles == 1) {
            offX[0] = xMm;
            offY[0] = yMm;
        }
        double[] share = new double[grid.columns];
        double[] excess = new double[grid.columns];
        int nx = grid.xMm.length - 1;
        for (int col = 0; col < grid.columns; col++) {
            int ix = col % nx;
            int iy = col / nx;
            double halfX = grid.xMm[ix + 1] - grid.xMm[ix];
            double halfY = grid.yMm[iy + 1] - grid.yMm[iy];
            double sum = 0;
            double heatSum = 0;
            for (int q = 0; q < 4; q++) {
                double x = grid.middleX(ix) + halfX * ((q & 1) == 0 ? -GAUSS : GAUSS);
                double y = grid.middleY(iy) + halfY * ((q & 2) == 0 ? -GAUSS : GAUSS);
                for (int a = 0; a < angles; a++) {
                    double dx = x - offX[a];
                    double dy = y - offY[a];
                    double at = Math.min(TABLE,
                            Math.sqrt(dx * dx + dy * dy) / air.nozzleMm() / TABLE_STEP);
                    int i = (int) at;
                    double part = at - i;
                    sum += local[i] + part * (local[i + 1] - local[i]);
                    heatSum += heat[i] + part * (heat[i + 1] - heat[i]);
                }
            }
            share[col] = sum / (4 * angles);
            excess[col] = heatSum / sum;
        }
        return new JetField(air, xMm, yMm, share, excess);
    }

    /** Temperature and flow do not change the field. */
    boolean isFor(AirSetting air, double atXMm, double atYMm) {
        return xMm == atXMm && yMm == atYMm && made.nozzleMm() == air.nozzleMm()
                && made.distanceMm() == air.distanceMm()
                && made.circleMm() == air.circleMm();
    }
}
