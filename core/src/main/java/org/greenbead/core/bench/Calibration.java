package org.greenbead.core.bench;

import java.util.List;
import org.greenbead.core.quantity.Check;

/**
 * What one logged run told of a bench and of the board that lay on it. The factors are effective: they take up whatever the
 * model leaves out, and are not properties of a material.
 *
 * @param run        the run it was read from
 * @param board      the board that lay there
 * @param nozzleMm   nozzle that blew most of the time; 0 when none did
 * @param flowLpm    its flow
 * @param jet        heat transfer of the air over the nominal one
 * @param preheater  coupling of the heater over the nominal one
 * @param boardHeat  heat capacity of the board over the one from its copper
 * @param boardConductivity in-plane conductivity over the one from its copper
 * @param residualK  rms of measured against modelled after the fit
 * @param counted    false for an outlier that is kept but not used
 * @param station    air station that blew; empty where it was not kept, or nothing blew: then it is taken for the one in hand
 * @param correlations of the logarithms: jet with heater, heat, conductivity; heater with heat, conductivity; heat with conductivity. Empty where
 *     they were not kept: then none is assumed. One melting seen tells hardly anything of each factor and much of them together
 */
public record Calibration(String run, String board, double nozzleMm, double flowLpm, Factor jet,
        Factor preheater, Factor boardHeat, Factor boardConductivity, double residualK, boolean counted,
        List<Double> correlations, String station) {
    private static final int LONGEST_STATION = 60;
    /**
     * Standard deviations of the logarithms from which every fit starts: jet, heater, heat of the board, conductivity. A factor that a run
     * does not tell keeps its own.
     */
    public static final List<Double> FIT_PRIOR_LN = List.of(0.40, 0.40, 0.15, 0.40);
    private static final int PAIRS = 6;

    /**
     * A factor with its standard deviation.
     *
     * @param value      1 is nominal, 0.2 to 4
     * @param sdLn       standard deviation of its natural logarithm, 0 to 0.6
     * @param determined false when the run did not tell it: the deviation is hardly under the prior's
     */
    public record Factor(double value, double sdLn, boolean determined) {
        public Factor {
            Check.within("calibration factor", value, 0.2, 4, "");
            Check.within("spread of a calibration factor", sdLn, 0, 0.6, "");
        }
    }

    public Calibration {
        Check.text("calibration run", run);
        Check.text("calibration board", board);
        Check.within("calibration nozzle", nozzleMm, 0, 60, "mm");
        Check.within("calibration flow", flowLpm, 0, 300, "L/min");
        Check.present("jet", jet);
        Check.present("preheater", preheater);
        Check.present("board heat", boardHeat);
        Check.present("board conductivity", boardConductivity);
        Check.within("calibration residual", residualK, 0, 100, "K");
        correlations = correlations == null ? List.of() : List.copyOf(correlations);
        if (!correlations.isEmpty() && correlations.size() != PAIRS) {
            throw new IllegalArgumentException(
                    "a calibration has 6 correlations or none, not " + correlations.size());
        }
        correlations.forEach(c -> Check.within("correlation", c, -1, 1, ""));
        station = station == null ? "" : station;
        if (station.length() > LONGEST_STATION) {
            throw new IllegalArgumentException("name of the air station in a calibration has "
                    + station.length() + " signs; allowed are " + LONGEST_STATION);
        }
    }

    /** One of which the station was not kept. */
    public Calibration(String run, String board, double nozzleMm, double flowLpm, Factor jet,
            Factor preheater, Factor boardHeat, Factor boardConductivity, double residualK,
            boolean counted, List<Double> correlations) {
        this(run, board, nozzleMm, flowLpm, jet, preheater, boardHeat, boardConductivity, residualK, counted,
                correlations, "");
    }

    /** One whose correlations were not kept. */
    public Calibration(String run, String board, double nozzleMm, double flowLpm, Factor jet,
            Factor preheater, Factor boardHeat, Factor boardConductivity, double residualK,
            boolean counted) {
        this(run, board, nozzleMm, flowLpm, jet, preheater, boardHeat, boardConductivity, residualK, counted,
                List.of());
    }

    /** In the order of {@link #FIT_PRIOR_LN}. */
    public List<Factor> factors() {
        return List.of(jet, preheater, boardHeat, boardConductivity);
    }

    /** Of the logarithms of two factors. */
    public double correlation(int p, int q) {
        if (p == q) {
            return 1;
        }
        int low = Math.min(p, q);
        int high = Math.max(p, q);
        return correlations.isEmpty() ? 0 : correlations.get(low * (5 - low) / 2 + high - 1);
    }

    /** The same, counted or not. */
    public Calibration counted(boolean use) {
        return new Calibration(run, board, nozzleMm, flowLpm, jet, preheater, boardHeat, boardConductivity,
                residualK,
                use, correlations, station);
    }

    /** The same, blown by a station of this name. */
    public Calibration by(String name) {
        return new Calibration(run, board, nozzleMm, flowLpm, jet, preheater, boardHeat, boardConductivity,
                residualK, counted, correlations, name);
    }
}
