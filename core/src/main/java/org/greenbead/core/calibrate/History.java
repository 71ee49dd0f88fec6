package org.greenbead.core.calibrate;

import java.util.ArrayList;
import java.util.List;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.bench.Calibration;
import org.greenbead.core.thermal.Uncertainty;

/** A bench's calibrations over its runs. */
public final class History {
    /** Standard deviations from what the other runs say at which a run is not believed. */
    private static final double OUTLIER = 3;
    /** Between runs of one bench; see {@link Uncertainty}. */
    private static final double BETWEEN_RUNS_LN = 0.08;

    private History() {
    }

    /**
     * The bench with one more run. A run that contradicts the others is kept, marked, and not counted; the same run again replaces
     * what it said before.
     */
    public static Bench with(Bench bench, Calibration said) {
        var others = new ArrayList<>(bench.calibrations());
        others.removeIf(c -> c.run().equals(said.run()));
        Bench before = bench.with(others);
        others.add(said.counted(!outlier(before, said)));
        return bench.with(others);
    }

    /** The bench with one run counted or not, by the technician's word. */
    public static Bench counting(Bench bench, String run, boolean counted) {
        return bench.with(bench.calibrations().stream().map(c -> c.run().equals(run) ? c.counted(counted) : c)
                .toList());
    }

    /** True when a factor that both know lies far off what the other counted runs say. The first two runs are never doubted. */
    public static boolean outlier(Bench bench, Calibration said) {
        List<Calibration> counted = bench.calibrations().stream().filter(Calibration::counted).toList();
        if (counted.size() < 2) {
            return false;
        }
        Bench blowing = bench.has(said.station()) ? bench.taking(said.station()) : bench;
        Uncertainty known = Uncertainty.of(blowing, said.board(), said.nozzleMm(), said.flowLpm());
        return said.nozzleMm() > 0 && far(said.jet(), known.mean().jet(), known.jetLn())
                || far(said.preheater(), known.mean().preheater(), known.preheaterLn());
    }

    private static boolean far(Calibration.Factor said, double known, double knownLn) {
        double spread = Math
                .sqrt(said.sdLn() * said.sdLn() + knownLn * knownLn + BETWEEN_RUNS_LN * BETWEEN_RUNS_LN);
        return said.determined() && Math.abs(Math.log(said.value() / known)) > OUTLIER * spread;
    }
}
