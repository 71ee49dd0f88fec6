package org.greenbead.core.electric;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;

/**
 * How healthy boards of one type start: the curve nearest to all of them, cut into stages, and how far levels and times of healthy boards
 * scatter. One curve gives a reference too; its scatter is then what boards of any type show, which every further curve outweighs a little.
 */
public final class CurveReference {
    static final double CELL_S = 0.1;
    private static final int MOST_CELLS = 2000;
    /** A rise by so much of the peak over what is drawn before is the switch-on. */
    private static final double ONSET_PART = 0.04;
    private static final double ONSET_A = 0.008;
    private static final double STANDBY_S = 0.3;
    /**
     * What healthy boards of one type differ by, before any was seen: all of a curve together, single levels besides as a part and of the peak, times
     * as a logarithm. Judgement.
     */
    private static final double GAIN_LN = 0.05;
    private static final double LEVEL_PART = 0.035;
    private static final double LEVEL_OF_PEAK = 0.015;
    private static final double TIME_LN = 0.18;
    /** Even a calm stage is no calmer than this part of the peak. */
    private static final double LEAST_RESTLESS = 0.02;
    private static final int LEAST_FOR_GAIN = 4;
    /** The judgement above counts as so many boards. */
    private static final double PRIOR_BOARDS = 3;

    /** What a stage does, by the currents about it. */
    public enum Kind {
        /** The first after switching on. */
        FIRST,
        /** More than before. */
        RISE,
        /** The most of all. */
        PEAK,
        /** Less than before. */
        FALL,
        /** The last. */
        SETTLED
    }

    /**
     * @param number from 1
     * @param fromS  after switching on
     * @param levelA mean current
     * @param levelSdA  what healthy boards differ by here beside what all of their curve does, A
     * @param timeSdLn  what their length differs by, logarithm
     * @param restlessA standard deviation of tenths of a second about the mean of the stage, A
     */
    public record Stage(int number, Kind kind, double fromS, double toS, double levelA, double levelSdA,
            double timeSdLn, double restlessA) {
        public double lengthS() {
            return toS - fromS;
        }
    }

    private final CurrentTrace trace;
    private final double cellS;
    private final Started usual;
    private final List<Stage> stages;
    private final int boards;
    private final double gainLn;

    /** A curve in cells from its switch-on. @param standbyA what was drawn before; NaN where nothing was taken before */
    record Started(double[] cells, double onsetS, double standbyA, boolean starts) {}

    private CurveReference(CurrentTrace trace, double cellS, List<Stage> stages, int boards,
            double gainLn) {
        this.gainLn = gainLn;
        this.trace = trace;
        this.cellS = cellS;
        this.stages = List.copyOf(stages);
        this.boards = boards;
        usual = started(trace, cellS, trace.peakA());
    }

    /**
     * @param healthy curves of healthy boards of one type, under the same conditions
     * @throws IllegalArgumentException when there is none, one does not start, or two were taken under other conditions
     */
    public static CurveReference of(List<CurrentTrace> healthy) {
        if (healthy.isEmpty()) {
            throw new IllegalArgumentException("there is no curve of a healthy board to compare with");
        }
        for (CurrentTrace t : healthy) {
            if (!t.under().alike(healthy.getFirst().under())) {
                throw new IllegalArgumentException(
                        "the healthy curves were taken at different voltages or in different states of the unit; keep one kind");
            }
        }
        double longest = healthy.stream().mapToDouble(CurrentTrace::durationS).max().orElseThrow();
        double cellS = Math.max(CELL_S, longest / MOST_CELLS);
        CurrentTrace middle = middle(healthy, cellS);
        Started usual = started(middle, cellS, middle.peakA());
        if (!usual.starts()) {
            throw new IllegalArgumentException(
                    "the healthy curve shows no switch-on; record from before the button is pressed until it has settled");
        }
        var first = new CurveReference(middle, cellS, stages(usual, cellS), 1, GAIN_LN);
        return healthy.size() == 1 ? first : first.learned(healthy, middle);
    }

    /** Whether a switch-on is seen, without which a curve is no pattern. */
    public static boolean starts(CurrentTrace trace) {
        return started(trace, CELL_S, trace.peakA()).starts();
    }

    /** The one with the least sum of distances to the others. */
    private static CurrentTrace middle(List<CurrentTrace> all, double cellS) {
        if (all.size() < 3) {
            return all.getFirst();
        }
        double[] sums = new double[all.size()];
        for (int i = 0; i < all.size(); i++) {
            CurrentTrace t = all.get(i);
            Started usual = started(t, cellS, t.peakA());
            if (!usual.starts()) {
                sums[i] = Double.MAX_VALUE;
                continue;
            }
            List<Stage> stages = stages(usual, cellS);
            for (CurrentTrace other : all) {
                sums[i] += other == t ? 0 : distance(started(other, cellS, t.peakA()), stages, cellS);
            }
        }
        return all.get(IntStream.range(0, sums.length).boxed().min(Comparator.comparingDouble(i -> sums[i]))
                .orElseThrow());
    }

    /** Sum of the departures of levels and lengths, in standard deviations. */
    private static double distance(Started other, List<Stage> stages, double cellS) {
        StartAlignment.Result laid = StartAlignment.of(other.cells(), stages, GAIN_LN, Double.MAX_VALUE,
                cellS);
        double out = laid.gone() >= 0 ? 20 : 0;
        for (Stage s : stages) {
            StartAlignment.Found found = laid.found().get(s.number() - 1);
            out += found.cells() == 0
                    ? 8
                    : Math.abs(mean(other.cells(), found) - s.levelA()) / s.levelSdA()
                            + (s.number() == stages.size()
                                    ? 0
                                    : Math.abs(Math.log(found.cells() * cellS / s.lengthS()))
                                            / s.timeSdLn());
        }
        return out;
    }

    /** By how much all of a curve is more than the reference: the median over its stages; 1 where too few were reached to tell. */
    double gain(double[] cells, StartAlignment.Result laid) {
        double[] parts = stages.stream()
                .filter(s -> laid.found().get(s.number() - 1).cells() > 0)
                .mapToDouble(s -> mean(cells, laid.found().get(s.number() - 1)) / s.levelA()).toArray();
        return parts.length < LEAST_FOR_GAIN ? 1 : Math.clamp(median(parts), 0.5, 2);
    }

    /** Of a stage, once what its beginning rises or falls by is over. */
    static double mean(double[] cells, StartAlignment.Found in) {
        return IntStream.range(StartAlignment.steady(in.from(), in.to()), in.to()).mapToDouble(i -> cells[i])
                .average().orElse(Double.NaN);
    }

    private static List<Stage> stages(Started usual, double cellS) {
        List<StartStages.Stretch> cut = StartStages.of(usual.cells(), cellS);
        double peak = Arrays.stream(usual.cells()).max().orElseThrow();
        int top = IntStream.range(0, cut.size()).boxed()
                .max(Comparator.comparingDouble(i -> cut.get(i).meanA())).orElseThrow();
        var out = new ArrayList<Stage>();
        for (int i = 0; i < cut.size(); i++) {
            StartStages.Stretch s = cut.get(i);
            Kind kind = i == cut.size() - 1 && i > 0
                    ? Kind.SETTLED
                    : i == top
                            ? Kind.PEAK
                            : i == 0
                                    ? Kind.FIRST
                                    : s.meanA() > cut.get(i - 1).meanA() ? Kind.RISE : Kind.FALL;
            double level = mean(usual.cells(), new StartAlignment.Found(s.from(), s.to()));
            double squares = 0;
            for (int c = s.from(); c < s.to(); c++) {
                squares += square(usual.cells()[c] - level) / s.length();
            }
            out.add(new Stage(i + 1, kind, s.from() * cellS, s.to() * cellS, level,
                    levelSd(level, peak), TIME_LN,
                    Math.sqrt(squares + square(LEAST_RESTLESS * peak))));
        }
        return out;
    }

    private static double levelSd(double levelA, double peakA) {
        return Math.hypot(LEVEL_PART * levelA, LEVEL_OF_PEAK * peakA);
    }

    /** What the others differ by, stage by stage, pooled with what boards of any type differ by. */
    private CurveReference learned(List<CurrentTrace> healthy, CurrentTrace middle) {
        double[] level = new double[stages.size()];
        double[] time = new double[stages.size()];
        double[] seen = new double[stages.size()];
        int others = 0;
        double gains = 0;
        for (CurrentTrace t : healthy) {
            Started subject = started(t, cellS, usualPeakA());
            if (t == middle || !subject.starts()) {
                continue;
            }
            others++;
            StartAlignment.Result laid = StartAlignment.of(subject.cells(), stages, gainLn, Double.MAX_VALUE,
                    cellS);
            double gain = gain(subject.cells(), laid);
            gains += square(Math.log(gain));
            for (int k = 0; k < level.length; k++) {
                StartAlignment.Found found = laid.found().get(k);
                if (found.cells() > 0) {
                    seen[k]++;
                    level[k] += square(mean(subject.cells(), found) - gain * stages.get(k).levelA());
                    time[k] += square(Math.log(found.cells() * cellS / stages.get(k).lengthS()));
                }
            }
        }
        var out = new ArrayList<Stage>();
        for (int k = 0; k < level.length; k++) {
            Stage s = stages.get(k);
            out.add(new Stage(s.number(), s.kind(), s.fromS(), s.toS(), s.levelA(),
                    Math.sqrt((PRIOR_BOARDS * square(s.levelSdA()) + level[k]) / (PRIOR_BOARDS + seen[k])),
                    Math.sqrt((PRIOR_BOARDS * square(TIME_LN) + time[k]) / (PRIOR_BOARDS + seen[k])),
                    s.restlessA()));
        }
        return new CurveReference(middle, cellS, out, 1 + others,
                Math.sqrt((PRIOR_BOARDS * square(GAIN_LN) + gains) / (PRIOR_BOARDS + others)));
    }

    private static double square(double v) {
        return v * v;
    }

    /** Cells from the first that is well over what is drawn before it. @param peakA of what it is compared with */
    static Started started(CurrentTrace t, double cellS, double peakA) {
        double[] all = t.cells(cellS);
        int before = (int) Math.round(STANDBY_S / cellS);
        double low = all.length > before ? median(Arrays.copyOf(all, before)) : 0;
        boolean dark = low < 0.25 * peakA;
        double over = (dark ? low : 0) + Math.max(ONSET_A, ONSET_PART * peakA);
        int onset = 0;
        while (dark && onset < all.length && !(all[onset] > over
                && (onset + 1 >= all.length || all[onset + 1] > over))) {
            onset++;
        }
        if (onset >= all.length - 1 || t.peakA() < ONSET_A) {
            return new Started(all, t.timeS()[0], low, false);
        }
        double standby = onset >= before ? median(Arrays.copyOf(all, onset)) : Double.NaN;
        return new Started(Arrays.copyOfRange(all, onset, all.length), t.timeS()[0] + onset * cellS, standby,
                true);
    }

    static double median(double[] values) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        return sorted[sorted.length / 2];
    }

    double usualPeakA() {
        return Arrays.stream(usual.cells()).max().orElseThrow();
    }

    double gainLn() {
        return gainLn;
    }

    double[] cells() {
        return usual.cells();
    }

    double cellS() {
        return cellS;
    }

    public CurrentTrace trace() {
        return trace;
    }

    /** When the unit was switched on, on the clock of the curve, s. */
    public double onsetS() {
        return usual.onsetS();
    }

    /** What is drawn before switching on, A; NaN where that was not recorded. */
    public double standbyA() {
        return usual.standbyA();
    }

    public List<Stage> stages() {
        return stages;
    }

    /** How many healthy boards it was learned from. */
    public int boards() {
        return boards;
    }
}
