package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.HeatScene;
import org.greenbead.core.thermal.LatinHypercube;
import org.greenbead.core.thermal.Multipliers;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;
import org.greenbead.core.thermal.Uncertainty;

/**
 * One bench that this one may be: the thermal model with multipliers, body thickness, emissivity, heater lag, aim of the air and draught of its own, and beads
 * that sit a little beside their places and read a little of the air.
 */
final class Twin {
    /** Natural logarithm of a body's thickness over the written one; judgement, as all spreads here. */
    private static final double THICK_LN = 0.18;
    private static final double EMISSIVITY_LN = 0.10;
    private static final double HEATER_LAG_LN = 0.30;
    /** A draught of an open room, W/m2K, half-normal. */
    private static final double DRAUGHT_WPERM2K = 4;
    /** How far off its said place a taped bead sits, mm, one standard deviation each way. */
    private static final double PLACE_MM = 1.4;
    /** Part of its reading that a bead on the blown side takes from the air, half-normal. */
    private static final double AIR_SHARE = 0.05;
    /** How far beside its said place the air is aimed, mm, one standard deviation each way. */
    private static final double AIM_MM = 1;
    private static final double MOST_AIR_SHARE = 0.3;
    private static final double MOST_PLACE_MM = 8;
    private static final double MOST_DRAUGHT = 20;
    private static final double MOST_LN = 1.2;
    /** A bare bead under tape follows its board with about this lag, s. */
    private static final double BEAD_LAG_S = 1.5;

    private final SheetModel model;
    private final List<ProbePlace> probes;
    private final Point boardMm;
    private final double ambientC;
    private double draught;
    private final double[] besideXMm;
    private final double[] besideYMm;
    private final double[] airShare;
    private final double[] beadC;
    private HeatInput asked = HeatInput.OFF;
    private HeatInput felt = HeatInput.OFF;

    private Twin(SheetModel model, HeatScene scene, double draught, double[] besideXMm, double[] besideYMm,
            double[] airShare) {
        this.model = model;
        probes = scene.probes();
        boardMm = scene.board().sizeMm();
        ambientC = scene.ambientC();
        this.draught = draught;
        this.besideXMm = besideXMm;
        this.besideYMm = besideYMm;
        this.airShare = airShare;
        beadC = new double[probes.size()];
        java.util.Arrays.fill(beadC, ambientC);
        feel();
    }

    private Twin(Twin other) {
        model = other.model.copy();
        probes = other.probes;
        boardMm = other.boardMm;
        ambientC = other.ambientC;
        draught = other.draught;
        besideXMm = other.besideXMm.clone();
        besideYMm = other.besideYMm.clone();
        airShare = other.airShare.clone();
        beadC = other.beadC.clone();
        asked = other.asked;
        felt = other.felt;
    }

    /** Benches that this one may be, repeatable from the seed. */
    static List<Twin> draw(HeatScene scene, Uncertainty known, int count, long seed) {
        List<Multipliers> multipliers = known.draw(count, seed);
        var random = new Random(seed ^ 0x7717);
        double[] thick = LatinHypercube.normal(count, random);
        double[] emits = LatinHypercube.normal(count, random);
        double[] lags = LatinHypercube.normal(count, random);
        double[] draughts = LatinHypercube.normal(count, random);
        double[] aimX = LatinHypercube.normal(count, random);
        double[] aimY = LatinHypercube.normal(count, random);
        int n = scene.probes().size();
        double[][] x = new double[n][];
        double[][] y = new double[n][];
        double[][] air = new double[n][];
        for (int p = 0; p < n; p++) {
            x[p] = LatinHypercube.normal(count, random);
            y[p] = LatinHypercube.normal(count, random);
            air[p] = LatinHypercube.normal(count, random);
        }
        var twins = new ArrayList<Twin>();
        for (int m = 0; m < count; m++) {
            Board board = Adversity.thick(scene.board(), scene.target(), Math.exp(THICK_LN * thick[m]));
            double lag = Math.exp(HEATER_LAG_LN * lags[m]);
            var as = new HeatScene(board, scene.target(), scene.ambientC(),
                    scene.heater().map(h -> Adversity.slow(h, lag)), scene.heaterCentre(),
                    scene.heaterStartC(), scene.air(), scene.probes(),
                    Math.clamp(scene.emissivity() * Math.exp(EMISSIVITY_LN * emits[m]), 0.05, 1),
                    scene.boardBeta(), scene.laminate(),
                    new Point(scene.airCentre().xMm() + AIM_MM * aimX[m],
                            scene.airCentre().yMm() + AIM_MM * aimY[m]),
                    scene.shields(), scene.support());
            double[] xMm = new double[n];
            double[] yMm = new double[n];
            double[] share = new double[n];
            for (int p = 0; p < n; p++) {
                xMm[p] = PLACE_MM * x[p][m];
                yMm[p] = PLACE_MM * y[p][m];
                share[p] = AIR_SHARE * Math.abs(air[p][m]);
            }
            twins.add(new Twin(new SheetModel(as, multipliers.get(m), Resolution.OBSERVER), scene,
                    DRAUGHT_WPERM2K * Math.abs(draughts[m]), xMm, yMm, share));
        }
        return twins;
    }

    Twin copy() {
        return new Twin(this);
    }

    SheetModel model() {
        return model;
    }

    private void feel() {
        // In steps, so that a small correction does not begin the integration anew.
        double blows = Math.rint(2 * draught) / 2;
        felt = new HeatInput(asked.heaterSetC(), asked.air(), blows, 0.6 * blows);
    }

    void advance(HeatInput input, double stepS) {
        if (!input.equals(asked)) {
            asked = input;
            feel();
        }
        model.advance(felt, stepS);
        double follow = 1 - Math.exp(-stepS / BEAD_LAG_S);
        for (int p = 0; p < beadC.length; p++) {
            beadC[p] += (touches(p) - beadC[p]) * follow;
        }
    }

    /** What a bead sits in. */
    private double touches(int p) {
        ProbePlace probe = probes.get(p);
        if (probe.role() != ProbePlace.Role.BOARD) {
            return model.probeC(probe);
        }
        double board = model.boardC(probe.side(),
                new Point(Math.clamp(probe.atMm().xMm() + besideXMm[p], 0, boardMm.xMm()),
                        Math.clamp(probe.atMm().yMm() + besideYMm[p], 0, boardMm.yMm())));
        return probe.side() == Side.TOP && asked.air().isPresent()
                ? board + airShare[p] * (model.airExitC() - board)
                : board;
    }

    /** What that thermocouple shows here. */
    double shows(ProbePlace probe) {
        int p = probes.indexOf(probe);
        return p < 0 ? model.probeC(probe) : beadC[p];
    }

    // What an observer may correct: cells, beads, then what is not known of bench and beads.

    int unknowns() {
        return model.cells() + 4 * beadC.length + 3;
    }

    double unknown(int i) {
        int cells = model.cells();
        if (i < cells) {
            return model.celsius(i);
        }
        int beads = beadC.length;
        int k = i - cells;
        if (k < beads) {
            return beadC[k];
        }
        if (k < 2 * beads) {
            return besideXMm[k - beads];
        }
        if (k < 3 * beads) {
            return besideYMm[k - 2 * beads];
        }
        if (k < 4 * beads) {
            return airShare[k - 3 * beads];
        }
        return switch (k - 4 * beads) {
            case 0 -> Math.log(model.jetMultiplier());
            case 1 -> Math.log(model.preheaterMultiplier());
            default -> draught;
        };
    }

    void shift(int i, double by) {
        int cells = model.cells();
        if (i < cells) {
            model.shiftK(i, by);
            return;
        }
        int beads = beadC.length;
        int k = i - cells;
        if (k < beads) {
            beadC[k] += by;
        } else if (k < 2 * beads) {
            besideXMm[k - beads] = Math.clamp(besideXMm[k - beads] + by, -MOST_PLACE_MM, MOST_PLACE_MM);
        } else if (k < 3 * beads) {
            besideYMm[k - 2 * beads] = Math.clamp(besideYMm[k - 2 * beads] + by, -MOST_PLACE_MM,
                    MOST_PLACE_MM);
        } else if (k < 4 * beads) {
            airShare[k - 3 * beads] = Math.clamp(airShare[k - 3 * beads] + by, 0, MOST_AIR_SHARE);
        } else {
            switch (k - 4 * beads) {
                case 0 -> model.retune(times(model.jetMultiplier(), by), model.preheaterMultiplier());
                case 1 -> model.retune(model.jetMultiplier(), times(model.preheaterMultiplier(), by));
                default -> {
                    draught = Math.clamp(draught + by, 0, MOST_DRAUGHT);
                    feel();
                }
            }
        }
    }

    private static double times(double multiplier, double ln) {
        return Math.exp(Math.clamp(Math.log(multiplier) + ln, -MOST_LN, MOST_LN));
    }

    /** Everything at another temperature, before the heat begins. */
    void startAt(double celsius) {
        for (int cell = 0; cell < model.cells(); cell++) {
            model.shiftK(cell, celsius - model.celsius(cell));
        }
        java.util.Arrays.fill(beadC, celsius);
    }
}
