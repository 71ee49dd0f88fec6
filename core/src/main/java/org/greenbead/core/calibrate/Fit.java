package org.greenbead.core.calibrate;

import java.util.List;
import org.greenbead.core.bench.Calibration;
import org.greenbead.core.quantity.Phrase;

/**
 * What a run told.
 *
 * @param calibration the factors with their deviations
 * @param probes      the probes that were used, in the bench's order
 * @param beforeK     rms of measured against modelled before the fit, per probe
 * @param afterK      after it
 * @param timesS      of the traces
 * @param measuredC   per probe, NaN where nothing was read
 * @param modelledC   per probe
 * @param remarks     what should be known of it: probes that look swapped, gaps, a structural residual
 */
public record Fit(Calibration calibration, List<String> probes, double[] beforeK, double[] afterK,
        double[] timesS,
        double[][] measuredC, double[][] modelledC, List<Phrase> remarks) {
    public Fit {
        probes = List.copyOf(probes);
        remarks = List.copyOf(remarks);
    }

    public boolean swapped() {
        return remarks.stream().anyMatch(r -> r.key().equals("fit.swapped"));
    }
}
