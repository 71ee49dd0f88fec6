package org.greenbead.core.run;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.quantity.Phrase;

/**
 * What a run came to.
 *
 * @param outcome the whole
 * @param lines   one for each thing that was to be reached or kept
 * @param noProbe where the run was led by eye, how sure its peak is, ± K; empty where thermocouples were set up
 */
public record Verdict(Outcome outcome, List<Line> lines, double peakJointC, double aboveLiquidusS,
        double peakTopC, double lengthS,
        MeltProof melt, boolean targetMelted, List<String> neighboursMelted, Optional<Double> noProbe) {
    /** Proven, worked but not proven, worked with a limit broken, or broken off. */
    public enum Outcome {
        PROVEN, WORKED, LIMIT_BROKEN, BROKEN_OFF
    }

    /** Held, broken, kept but too close or too fast for comfort, or not proved. */
    public enum Mark {
        HELD, CARE, BROKEN, NOT_PROVED
    }

    /** @param what what was judged, with its numbers */
    public record Line(Mark mark, Phrase what) {}

    public Verdict(Outcome outcome, List<Line> lines, double peakJointC, double aboveLiquidusS,
            double peakTopC, double lengthS, MeltProof melt, boolean targetMelted,
            List<String> neighboursMelted) {
        this(outcome, lines, peakJointC, aboveLiquidusS, peakTopC, lengthS, melt, targetMelted,
                neighboursMelted, Optional.empty());
    }

    public Verdict {
        lines = List.copyOf(lines);
        neighboursMelted = List.copyOf(neighboursMelted);
    }
}
