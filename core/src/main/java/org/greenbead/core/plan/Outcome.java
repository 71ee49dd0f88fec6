package org.greenbead.core.plan;

import java.util.List;

/**
 * What a recipe does, as a model tells it. Temperatures in °C.
 *
 * @param melts           every joint became liquid
 * @param meltsAtS        when it did; NaN when it did not
 * @param peakMinC        highest value of the coldest joint
 * @param peakMaxC        highest value of the hottest joint
 * @param spreadK         hottest minus coldest joint when the heat was taken off
 * @param aboveLiquidusS  time with the coldest joint over liquidus
 * @param fastestKPerS    steepest rise of the joint over ten seconds
 * @param lengthS         until the heat was off and the joints solid again
 * @param guardedPeakC    peak of every protected part, in the order of the plan
 * @param stages          how each stage ended
 * @param trace           joint centre over time, for comparing models
 */
public record Outcome(boolean melts, double meltsAtS, double peakMinC, double peakMaxC, double spreadK,
        double aboveLiquidusS, double fastestKPerS, double lengthS, double[] guardedPeakC,
        List<StageEnd> stages,
        List<Sample> trace) {
    /**
     * @param probesC what each probe of the bench showed when the stage ended
     */
    public record StageEnd(double atS, double jointMinC, double[] probesC) {}

    /** One moment of the joint's centre. */
    public record Sample(double timeS, double jointC) {}

    public Outcome {
        stages = List.copyOf(stages);
        trace = List.copyOf(trace);
    }

    /** How far the joint of another model strays from this one over their common time. */
    public Drift against(Outcome other) {
        double squares = 0;
        int count = 0;
        int j = 0;
        for (Sample sample : trace) {
            while (j < other.trace.size() - 2 && other.trace.get(j + 1).timeS() < sample.timeS()) {
                j++;
            }
            if (j + 1 >= other.trace.size() || sample.timeS() > other.trace.getLast().timeS()) {
                break;
            }
            Sample a = other.trace.get(j);
            Sample b = other.trace.get(j + 1);
            double share = (sample.timeS() - a.timeS()) / Math.max(1e-9, b.timeS() - a.timeS());
            double value = a.jointC() + share * (b.jointC() - a.jointC());
            squares += (value - sample.jointC()) * (value - sample.jointC());
            count++;
        }
        return new Drift(count == 0 ? Double.NaN : Math.sqrt(squares / count), other.peakMaxC - peakMaxC);
    }

    /**
     * @param rmsK  of the joint's centre
     * @param peakK of the hottest joint's peak
     */
    public record Drift(double rmsK, double peakK) {
        /** What the search model may stray from the full one. */
        public boolean small() {
            return rmsK <= 1.5 && Math.abs(peakK) <= 3;
        }
    }
}
