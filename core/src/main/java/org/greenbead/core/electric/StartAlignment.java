package org.greenbead.core.electric;

import java.util.Arrays;
import java.util.List;
import java.util.function.IntToDoubleFunction;

/**
 * The stages of a reference found again on another start: a hidden semi-Markov model (Yu 2010, Hidden semi-Markov models, Artificial
 * Intelligence 174) with one state a stage, a length and a level of its own, found by dynamic programming. A level or a length that departs, a stage
 * that is passed over, and a curve that leaves the reference for good each cost a fixed price at most, so that the explanation with the fewest
 * departures wins and what departs stays where it belongs.
 */
final class StartAlignment {
    /** Price of one departure: four standard deviations. */
    private static final double DEPARTURE = 8;
    private static final double PASSED_OVER = 7;
    /** That a unit does not go on is the commonest of all. */
    private static final double STAYS = 5;
    /** Cells of a tenth of a second are not independent. */
    private static final double WEIGHT = 0.4;
    private static final int SHORTEST = 3;
    private static final int RISE_CELLS = 4;
    /** What the cells in which a stretch rises or falls to its level cost at most: else a stage is cut off that holds the rise alone. */
    private static final double RISE_PRICE = 3;
    /** What is left over so shortly before it goes out is its going out. */
    private static final int CLOSE_CELLS = 12;
    private static final int GONE_CELLS = 5;
    /** A stretch that fits nowhere costs so much a cell more than one that fits. */
    private static final double GONE_MORE = 0.7;
    /** Of the least that a healthy board draws in any stage: less is out. */
    private static final double OUT_PART = 0.3;
    /** At least so much of the limit is at the limit. */
    static final double LIMIT_PART = 0.96;

    /** Cells of a stage; none where it was passed over or not reached. */
    record Found(int from, int to) {
        int cells() {
            return to - from;
        }
    }

    /**
     * @param found by stage
     * @param end   number of the last stage that was reached
     * @param gone  first cell that is of no stage any more; -1 = none
     */
    record Result(List<Found> found, int end, int gone) {}

    private final double[] sum;
    private final double[] squares;
    private final List<CurveReference.Stage> stages;
    private final double cellS;
    private final double gainLn;
    private final int n;
    private final double commonA2;
    private final double goneEach;

    private StartAlignment(double[] x, List<CurveReference.Stage> stages, double gainLn, double cellS) {
        this.gainLn = gainLn;
        this.stages = stages;
        this.cellS = cellS;
        n = x.length;
        sum = new double[n + 1];
        squares = new double[n + 1];
        for (int i = 0; i < n; i++) {
            sum[i + 1] = sum[i] + x[i];
            squares[i + 1] = squares[i] + x[i] * x[i];
        }
        // One for all: a stage must not gain cells by being restless or calm.
        commonA2 = stages.stream().mapToDouble(g -> g.restlessA() * g.restlessA()).average().orElseThrow();
        goneEach = WEIGHT * (GONE_MORE + stages.stream()
                .mapToDouble(g -> g.restlessA() * g.restlessA()).max().orElseThrow() / (2 * commonA2));
    }

    /** @param limitA of the supply: what is drawn at it is not the unit's doing */
    static Result of(double[] cells, List<CurveReference.Stage> stages, double gainLn, double limitA,
            double cellS) {
        int out = leaves(cells, stages, limitA);
        if (out < 0) {
            return new StartAlignment(cells, stages, gainLn, cellS).found();
        }
        Result until = new StartAlignment(Arrays.copyOf(cells, out), stages, gainLn, cellS).found();
        return new Result(until.found(), until.end(),
                until.gone() >= 0 && until.gone() < out - CLOSE_CELLS ? until.gone() : out);
    }

    /** First cell from which nearly nothing is drawn, or all that the supply gives, where healthy boards never do so; -1 = none. */
    private static int leaves(double[] cells, List<CurveReference.Stage> stages, double limitA) {
        double least = OUT_PART
                * stages.stream().mapToDouble(CurveReference.Stage::levelA).min().orElseThrow();
        double top = stages.stream().mapToDouble(CurveReference.Stage::levelA).max().orElseThrow();
        double most = top < LIMIT_PART * limitA ? LIMIT_PART * limitA : Double.MAX_VALUE;
        int low = 0;
        int high = 0;
        for (int i = 0; i < cells.length; i++) {
            low = cells[i] < least ? low + 1 : 0;
            high = cells[i] >= most ? high + 1 : 0;
            if (Math.max(low, high) == SHORTEST) {
                return i + 1 - SHORTEST;
            }
        }
        return -1;
    }

    /** Where the rise or fall at the beginning of a stretch is over. */
    static int steady(int from, int to) {
        return from + Math.min(RISE_CELLS, (to - from) / 3);
    }

    /** How a stretch fits a stage, its length aside. */
    private double fits(double levelA, double levelSdA, int from, int to) {
        int on = steady(from, to);
        double mean = (sum[to] - sum[on]) / (to - on);
        double about = about(on, to, mean);
        double rise = Math.min(WEIGHT * about(from, on, mean) / (2 * commonA2), RISE_PRICE);
        double level = (mean - levelA) / levelSdA;
        return WEIGHT * about / (2 * commonA2) + rise + Math.min(level * level / 2, DEPARTURE);
    }

    /** Squares about a mean. */
    private double about(int from, int to, double mean) {
        return Math.max(0, squares[to] - squares[from] - 2 * mean * (sum[to] - sum[from])
                + (to - from) * mean * mean);
    }

    private double levelSd(CurveReference.Stage s, int count) {
        return Math.hypot(Math.hypot(s.levelSdA(), gainLn * s.levelA()),
                s.restlessA() / Math.sqrt(Math.max(1, WEIGHT * count)));
    }

    private double length(CurveReference.Stage s, int count, boolean only) {
        double by = Math.log(count * cellS / s.lengthS()) / s.timeSdLn();
        boolean free = by < 0 ? only || s.number() == stages.size() : s.number() == stages.size();
        return free ? 0 : Math.min(by * by / 2, only ? STAYS : DEPARTURE);
    }

    private double gone(int from) {
        return DEPARTURE + (n - from) * goneEach;
    }

    private double[] byCount(IntToDoubleFunction of) {
        double[] values = new double[n + 1];
        for (int count = SHORTEST; count <= n; count++) {
            values[count] = of.applyAsDouble(count);
        }
        return values;
    }

    private Result found() {
        int k = stages.size();
        double[][] best = new double[k][n + 1];
        int[][] cameFrom = new int[k][n + 1];
        int[][] cameStage = new int[k][n + 1];
        double least = Double.MAX_VALUE;
        int[] last = {0, 0, n, -1, -1};
        for (int s = 0; s < k; s++) {
            Arrays.fill(best[s], Double.MAX_VALUE);
            CurveReference.Stage stage = stages.get(s);
            double[] enter = new double[n + 1];
            int[] before = new int[n + 1];
            Arrays.fill(enter, Double.MAX_VALUE);
            enter[0] = s * PASSED_OVER;
            before[0] = -1;
            for (int p = 0; p < s; p++) {
                double skipped = (s - p - 1) * PASSED_OVER;
                for (int a = 1; a <= n; a++) {
                    if (best[p][a] + skipped < enter[a]) {
                        enter[a] = best[p][a] + skipped;
                        before[a] = p;
                    }
                }
            }
            // These depend on the number of cells alone, and there are as many stretches as pairs of cells.
            double[] levelSdA = byCount(c -> levelSd(stage, c));
            double[] wholeLength = byCount(c -> length(stage, c, false));
            double[] brokenLength = byCount(c -> length(stage, c, true));
            for (int b = SHORTEST; b <= n; b++) {
                double open = Double.MAX_VALUE;
                int openFrom = -1;
                for (int a = 0; a <= b - SHORTEST; a++) {
                    if (enter[a] == Double.MAX_VALUE) {
                        continue;
                    }
                    double fit = enter[a] + fits(stage.levelA(), levelSdA[b - a], a, b);
                    double whole = fit + wholeLength[b - a];
                    if (whole < best[s][b]) {
                        best[s][b] = whole;
                        cameFrom[s][b] = a;
                        cameStage[s][b] = before[a];
                    }
                    double broken = fit + brokenLength[b - a];
                    if (broken < open) {
                        open = broken;
                        openFrom = a;
                    }
                }
                if (openFrom < 0 || b < n && b > n - GONE_CELLS) {
                    continue;
                }
                double all = b == n ? open : open + gone(b);
                if (all < least) {
                    least = all;
                    last = new int[]{s, openFrom, b, b == n ? -1 : b, before[openFrom]};
                }
            }
        }
        return read(k, last, cameFrom, cameStage);
    }

    private static Result read(int k, int[] last, int[][] cameFrom, int[][] cameStage) {
        Found[] out = new Found[k];
        int s = last[0];
        out[s] = new Found(last[1], last[2]);
        int at = last[1];
        s = last[4];
        while (s >= 0 && at > 0) {
            int from = cameFrom[s][at];
            out[s] = new Found(from, at);
            s = cameStage[s][at];
            at = from;
        }
        int place = 0;
        for (int i = 0; i < k; i++) {
            out[i] = out[i] == null ? new Found(place, place) : out[i];
            place = out[i].to();
        }
        return new Result(List.of(out), last[0] + 1, last[3]);
    }
}
