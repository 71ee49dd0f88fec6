package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.List;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.HeatModel;
import org.greenbead.core.thermal.HeatScene;
import org.greenbead.core.thermal.Multipliers;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;
import org.greenbead.core.thermal.Uncertainty;

/**
 * What heater and air can make of the board, by models that no reading ever corrects: the bench as it is known, and its corners. Readings that
 * are all wrong together, by a scale, an offset or a drift, agree with one another and in time with an estimate that follows them; they do not
 * agree with this.
 */
final class Envelope {
    /** The corners stand this many standard deviations off, and the band is wider by this much again: judgement. */
    private static final double CORNER_SD = 1.7;
    private static final double SLACK_K = 10;
    private static final double SLACK_SHARE = 0.12;
    private final double ambientC;
    private final List<HeatModel> models = new ArrayList<>();

    Envelope(HeatScene scene, Uncertainty known) {
        ambientC = scene.ambientC();
        add(scene, known, 0, 0);
        add(scene, known, 1, 1);
        add(scene, known, -1, -1);
        add(scene, known, 1, -1);
        add(scene, known, -1, 1);
    }

    private Envelope(double ambientC, List<HeatModel> from) {
        this.ambientC = ambientC;
        from.forEach(m -> models.add(m.copy()));
    }

    private void add(HeatScene scene, Uncertainty known, double jet, double heater) {
        Multipliers m = known.mean();
        models.add(new SheetModel(scene,
                new Multipliers(m.jet() * Math.exp(CORNER_SD * jet * known.jetLn()),
                        m.preheater() * Math.exp(CORNER_SD * heater * known.preheaterLn()), m.boardHeat(),
                        m.boardConductivity()),
                Resolution.OBSERVER));
    }

    /** The bench as it is known. */
    HeatModel known() {
        return models.getFirst();
    }

    void advance(HeatInput input, double stepS) {
        models.forEach(m -> m.advance(input, stepS));
    }

    /** The board is warm before the heat begins. */
    void startAt(double celsius) {
        for (HeatModel model : models) {
            var sheet = (SheetModel) model;
            for (int cell = 0; cell < sheet.cells(); cell++) {
                sheet.shiftK(cell, celsius - sheet.celsius(cell));
            }
        }
    }

    /** How far a reading lies over (positive) or under (negative) everything that can be, K; 0 within. */
    double outsideK(ProbePlace probe, double celsius) {
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (HeatModel model : models) {
            double shows = model.probeC(probe);
            low = Math.min(low, shows);
            high = Math.max(high, shows);
        }
        low -= SLACK_K + SLACK_SHARE * Math.max(0, low - ambientC);
        high += SLACK_K + SLACK_SHARE * Math.max(0, high - ambientC);
        return celsius > high ? celsius - high : celsius < low ? celsius - low : 0;
    }

    Envelope copy() {
        return new Envelope(ambientC, models);
    }
}
