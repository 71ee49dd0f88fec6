package org.greenbead.core.run;

import java.util.List;
import org.greenbead.core.quantity.Phrase;

/**
 * What a run came to.
 *
 * @param outcome the whole
 * @param lines   one for each thing that was to be reached or kept
 */
public record Verdict(Outcome outcome, List<Line> lines, double peakJointC, double aboveLiquidusS,
        double peakTopC, double lengthS,
        MeltProof melt, boolean targetMelted, List<String> neighboursMelted) {
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

    public Verdict {
        lines = List.copyOf(lines);
        neighboursMelted = List.copyOf(neighboursMelted);
    }
}
