package org.greenbead.store;

import java.time.Instant;
import java.util.Optional;
import org.greenbead.core.run.Verdict;

/**
 * One run in the ledger.
 *
 * @param logFile name inside the runs folder, never a path
 * @param noProbe where the run was led by eye, how sure its peak is, ± K
 * @param outcome empty while the run is open, or when the program stopped in the middle of it
 */
public record RunEntry(String id, String jobId, String bead, String chip, String recipe, Instant startedAt,
        boolean simulated, String logFile,
        Optional<Instant> endedAt, Optional<Verdict.Outcome> outcome, double lengthS, double peakJointC,
        double aboveS, double peakTopC, Optional<Double> noProbe) {
    public RunEntry {
        // A bundle of an older version has no such word.
        noProbe = noProbe == null ? Optional.empty() : noProbe;
    }
}
