package org.greenbead.core.electric;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/**
 * A start-up curve beside that of healthy boards: laid on it in time, then stage by stage in level, length and shape. What departs first is
 * named; what follows from it is listed after.
 */
public final class CurveCompare {
    /** Beyond so many standard deviations of healthy boards a stage departs. */
    private static final double DEPARTS_SDS = 3;
    private static final double LEAST_TIME_S = 0.6;
    /** A stage in which more than this does not fit has another shape. */
    private static final double UNFIT_PART = 0.3;
    /** How far standby may lie from the usual: a part of the peak (offset of the meter) and of itself. Judgement. */
    private static final double STANDBY_OF_PEAK = 0.02;
    private static final double STANDBY_OF_ITSELF = 0.3;
    private static final double UNFIT_S = 0.6;
    /** Back to less than this part of what is usual. */
    private static final double FALLEN_PART = 0.3;
    private static final int GONE_CELLS = 5;
    /** A limit comes with a step, so with the next stage; going out comes at any time. */
    private static final double THROUGH_LIMITED = 0.55;
    private static final double THROUGH_PART = 0.95;

    private CurveCompare() {
    }

    /** How a stage departs. */
    public enum Kind {
        /** No switch-on is seen. */
        NO_START,
        /** More is drawn before switching on than by healthy boards. */
        STANDBY,
        /** The supply limits. */
        AT_LIMIT, HIGHER, LOWER,
        /** It stays there and does not go on. */
        STAYS,
        /** It goes out or begins again. */
        FALLS_BACK, LONGER, SHORTER,
        /** The level is left over in places. */
        OTHER_SHAPE,
        /** It is passed over. */
        MISSING
    }

    /**
     * @param atS   when it departs, s after switching on
     * @param found what was found: A, or s for lengths
     * @param usual the same of healthy boards
     */
    public record Departure(CurveReference.Stage stage, Kind kind, double atS, double found, double usual) {}

    /** What a stage looks like on this board. @param lengthS 0 where it was not reached */
    public record Seen(CurveReference.Stage stage, double fromS, double lengthS, double levelA) {}

    /** What it comes to. */
    public enum Outcome {
        ALIKE, DEPARTS,
        /** The recording ends before the unit has settled; so far it is alike. */
        UNFINISHED,
        /** Nothing departs, but for more than a second nobody knows what was drawn. */
        GAPS,
        /** It was taken at another voltage or in another state. */
        OTHER_CONDITIONS
    }

    /**
     * @param stages     of the reference, as seen here
     * @param departures in time; the first is what to look into
     * @param onsetS     when the unit was switched on, on the clock of the curve
     * @param laidS      for even steps of {@code cellS} after switching on: where on the reference it lies, s; NaN where it lies nowhere
     */
    public record Compared(Outcome outcome, List<Seen> stages, List<Departure> departures, double onsetS,
            double cellS, double[] laidS) {
        public Optional<Departure> first() {
            return departures.stream().findFirst();
        }
    }

    public static Compared of(CurrentTrace trace, CurveReference reference) {
        double cellS = reference.cellS();
        if (!trace.under().alike(reference.trace().under())) {
            return new Compared(Outcome.OTHER_CONDITIONS, List.of(), List.of(), trace.timeS()[0], cellS,
                    new double[0]);
        }
        CurveReference.Started subject = CurveReference.started(trace, cellS, reference.usualPeakA());
        CurveReference.Stage first = reference.stages().getFirst();
        var out = new ArrayList<Departure>();
        if (!subject.starts()) {
            out.add(new Departure(first, Kind.NO_START, 0, trace.peakA(), first.levelA()));
            return new Compared(Outcome.DEPARTS, List.of(), out, subject.onsetS(), cellS, new double[0]);
        }
        standby(subject, reference, first, out);
        StartAlignment.Result laid = StartAlignment.of(subject.cells(), reference.stages(),
                reference.gainLn(), limit(trace), cellS);
        var gain = new Gain(reference.gainLn());
        var seen = new ArrayList<Seen>();
        double[] at = new double[subject.cells().length];
        java.util.Arrays.fill(at, Double.NaN);
        for (CurveReference.Stage s : reference.stages()) {
            StartAlignment.Found found = laid.found().get(s.number() - 1);
            seen.add(new Seen(s, found.from() * cellS, found.cells() * cellS,
                    CurveReference.mean(subject.cells(), found)));
            if (s.number() <= laid.end()) {
                new OneStage(s, found, subject.cells(), reference, laid, gain, limit(trace)).departs(at)
                        .ifPresent(out::add);
            }
        }
        out.sort(Comparator.comparingDouble(Departure::atS));
        Outcome outcome = !out.isEmpty()
                ? Outcome.DEPARTS
                : laid.end() < reference.stages().size()
                        ? Outcome.UNFINISHED
                        : trace.gaps().isEmpty() ? Outcome.ALIKE : Outcome.GAPS;
        return new Compared(outcome, List.copyOf(seen), List.copyOf(out), subject.onsetS(), cellS, at);
    }

    private static double limit(CurrentTrace trace) {
        return trace.under().limitA().orElse(Double.MAX_VALUE);
    }

    private static void standby(CurveReference.Started subject, CurveReference reference,
            CurveReference.Stage first, List<Departure> out) {
        double sd = STANDBY_OF_PEAK * reference.usualPeakA()
                + STANDBY_OF_ITSELF * Math.abs(reference.standbyA());
        if (subject.standbyA() - reference.standbyA() > DEPARTS_SDS * sd) {
            out.add(new Departure(first, Kind.STANDBY, -1e-3, subject.standbyA(), reference.standbyA()));
        }
    }

    /**
     * By how much all of this board's curve is more than the reference, as the stages tell it one after the other; those that depart tell nothing
     * (a Kalman filter of one constant; Kalman 1960).
     */
    private static final class Gain {
        private double by = 1;
        private double variance;

        Gain(double ln) {
            variance = ln * ln;
        }

        double by() {
            return by;
        }

        boolean departs(double mean, double usual, double sd) {
            double own = sd * sd / (usual * usual);
            double off = mean / usual - by;
            if (Math.abs(off) > DEPARTS_SDS * Math.sqrt(own + variance)) {
                return true;
            }
            by += variance / (variance + own) * off;
            variance *= own / (variance + own);
            return false;
        }
    }

    /** One stage of the reference and what came to lie on it. */
    private record OneStage(CurveReference.Stage s, StartAlignment.Found found, double[] cells,
            CurveReference reference, StartAlignment.Result laid, Gain gain,
            double limitA) {
        boolean ends() {
            return s.number() == laid.end();
        }

        boolean last() {
            return s.number() == reference.stages().size();
        }

        double atS() {
            return found.from() * reference.cellS();
        }

        double lengthS() {
            return found.cells() * reference.cellS();
        }

        /** @param at filled with where on the reference the cells lie, s */
        Optional<Departure> departs(double[] at) {
            if (found.cells() == 0) {
                return Optional.of(new Departure(s, Kind.MISSING, atS(), 0, s.lengthS()));
            }
            Optional<Departure> shape = shape(at);
            return level().or(this::gone).or(() -> shape).or(this::length);
        }

        private Optional<Departure> level() {
            double sd = Math.hypot(s.levelSdA(), s.restlessA() / Math.sqrt(Math.max(1, 4 * lengthS())));
            double mean = CurveReference.mean(cells, found);
            if (!gain.departs(mean, s.levelA(), sd)) {
                return Optional.empty();
            }
            return Optional
                    .of(new Departure(s, mean > s.levelA() * gain.by() ? Kind.HIGHER : Kind.LOWER, atS(),
                            mean, s.levelA()));
        }

        private Optional<Departure> gone() {
            if (!ends() || laid.gone() < 0) {
                return Optional.empty();
            }
            int to = Math.min(cells.length, laid.gone() + GONE_CELLS);
            double after = CurveReference.mean(cells, new StartAlignment.Found(laid.gone(), to));
            boolean limited = after >= StartAlignment.LIMIT_PART * limitA;
            // What was through with a stage fails at the next.
            CurveReference.Stage at = !last()
                    && lengthS() > (limited ? THROUGH_LIMITED : THROUGH_PART) * s.lengthS()
                            ? reference.stages().get(s.number())
                            : s;
            return Optional.of(new Departure(at,
                    limited
                            ? Kind.AT_LIMIT
                            : after < FALLEN_PART * s.levelA() ? Kind.FALLS_BACK : Kind.OTHER_SHAPE,
                    laid.gone() * reference.cellS(), after, at.levelA()));
        }

        private Optional<Departure> shape(double[] at) {
            double cellS = reference.cellS();
            int from = (int) Math.round(s.fromS() / cellS);
            int to = Math.min(reference.cells().length, (int) Math.round(s.toS() / cellS));
            double[] mine = java.util.Arrays.copyOfRange(cells, found.from(), found.to());
            double[] usual = java.util.Arrays.copyOfRange(reference.cells(), from, to);
            // What its level is off by is judged by itself.
            double over = CurveReference.mean(cells, found)
                    - java.util.Arrays.stream(usual).average().orElseThrow();
            for (int i = 0; i < usual.length; i++) {
                usual[i] += over;
            }
            CurveWarp.Laid warp = CurveWarp.of(mine, usual, Math.hypot(s.levelSdA(), s.restlessA()));
            int unfit = 0;
            int first = -1;
            double sum = 0;
            for (int i = 0; i < mine.length; i++) {
                at[found.from() + i] = (from + warp.place()[i]) * cellS;
                if (warp.unfit()[i]) {
                    first = unfit == 0 ? i : first;
                    unfit++;
                    sum += mine[i];
                }
            }
            return unfit * cellS > Math.max(UNFIT_S, UNFIT_PART * Math.min(lengthS(), s.lengthS()))
                    ? Optional.of(new Departure(s, Kind.OTHER_SHAPE, atS() + first * cellS, sum / unfit,
                            s.levelA()))
                    : Optional.empty();
        }

        private Optional<Departure> length() {
            double most = Math.exp(DEPARTS_SDS * s.timeSdLn());
            double over = lengthS() - s.lengthS();
            if (lengthS() > most * s.lengthS() && over > LEAST_TIME_S && !last()) {
                return Optional.of(new Departure(s, ends() ? Kind.STAYS : Kind.LONGER, atS() + s.lengthS(),
                        lengthS(), s.lengthS()));
            }
            if (lengthS() * most < s.lengthS() && -over > LEAST_TIME_S && !ends()) {
                return Optional.of(
                        new Departure(s, Kind.SHORTER, atS() + lengthS(), lengthS(), s.lengthS()));
            }
            return Optional.empty();
        }
    }
}
