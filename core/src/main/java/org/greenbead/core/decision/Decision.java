package org.greenbead.core.decision;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;

/**
 * Courses side by side: what each is expected to cost, how sure that is, how often each is the cheapest of all that the numbers may be, and which
 * one number would change the answer.
 */
public final class Decision {
    private static final int DRAWS = 4000;
    private static final long SEED = 20_310_419L;
    private static final double LOW = 0.1;
    private static final double HIGH = 0.9;
    /** A number may be off by as much and nobody would wonder: its own size. Farther than ten times that it changes no answer. */
    private static final double FAR = 10;

    private final double rate;
    private final double value;
    private final List<Estimate> estimates;

    /** @param rate of an hour at the bench, @param value of the working unit with what is on it */
    public Decision(double rate, double value, List<Estimate> estimates) {
        this.rate = rate;
        this.value = value;
        this.estimates = List.copyOf(estimates);
    }

    /**
     * A course and what it comes to.
     *
     * @param works    cost if it works, nothing lost
     * @param fails    cost if it fails, the value lost
     * @param low      a tenth of what it is expected to cost lies below, over all that chance and minutes may be
     * @param high     a tenth lies above
     * @param cheapest how often it is the cheapest of the open ones, 0 to 1
     */
    public record Weighed(Estimate estimate, double expected, double works, double fails, double low,
            double high,
            double cheapest) {}

    /** From that on another course would be the best. @param number its field, @param of the course it belongs to; empty = of the job */
    public record Turn(String number, Optional<Course> of, double now, double turnsAt, Course then) {
        /** How far it has to go, in parts of itself; a chance by its own size. */
        public double far() {
            return Math.abs(turnsAt - now) / Math.max(Math.abs(now), 1e-9);
        }
    }

    /** The open ones first, the cheapest first. */
    public List<Weighed> weighed() {
        List<Estimate> open = open();
        double[][] cost = new double[open.size()][DRAWS];
        int[] best = new int[open.size()];
        var random = new SplittableRandom(SEED);
        double[][] chance = new double[open.size()][];
        for (int k = 0; k < open.size(); k++) {
            chance[k] = quantiles(open.get(k));
        }
        for (int d = 0; d < DRAWS; d++) {
            int least = 0;
            for (int k = 0; k < open.size(); k++) {
                Estimate e = open.get(k);
                double minutes = e.attendedMin() * Math.exp(e.minutesSd() * gaussian(random));
                double p = chance[k][random.nextInt(chance[k].length)];
                cost[k][d] = e.expected(rate, value, p, minutes);
                least = cost[k][d] < cost[least][d] ? k : least;
            }
            if (!open.isEmpty()) {
                best[least]++;
            }
        }
        var out = new ArrayList<Weighed>();
        for (int k = 0; k < open.size(); k++) {
            Arrays.sort(cost[k]);
            out.add(weighed(open.get(k), cost[k][(int) (DRAWS * LOW)], cost[k][(int) (DRAWS * HIGH)],
                    best[k] / (double) DRAWS));
        }
        out.sort(Comparator.comparingDouble(Weighed::expected));
        estimates.stream().filter(e -> e.closed().isPresent())
                .forEach(e -> out.add(weighed(e, Double.NaN, Double.NaN, 0)));
        return List.copyOf(out);
    }

    private Weighed weighed(Estimate e, double low, double high, double cheapest) {
        double outlay = e.outlay(rate, e.attendedMin());
        return new Weighed(e, e.expected(rate, value), outlay + (1 - e.worthPart()) * value,
                outlay + value + e.loss(), low, high, cheapest);
    }

    private List<Estimate> open() {
        return estimates.stream().filter(e -> e.closed().isEmpty()).toList();
    }

    /** Chances that are equally likely. */
    private static double[] quantiles(Estimate e) {
        if (e.course() == Course.DECLINE) {
            return new double[]{0};
        }
        double[] q = new double[200];
        for (int i = 0; i < q.length; i++) {
            q[i] = e.odds().quantile((i + 0.5) / q.length);
        }
        return q;
    }

    private static double gaussian(SplittableRandom random) {
        return Math.sqrt(-2 * Math.log(1 - random.nextDouble()))
                * Math.cos(2 * Math.PI * random.nextDouble());
    }

    /** The cheapest open course; empty where none is open. */
    public Optional<Estimate> best() {
        return open().stream().min(Comparator.comparingDouble(e -> e.expected(rate, value)));
    }

    /**
     * Numbers that would change the answer, the nearest first. The expected cost is linear in each of them, so that the place where two courses cost
     * the same is reckoned exactly.
     */
    public List<Turn> turns() {
        Optional<Estimate> best = best();
        if (best.isEmpty()) {
            return List.of();
        }
        var out = new ArrayList<Turn>();
        for (Estimate other : open()) {
            if (other == best.get()) {
                continue;
            }
            turn("rate", Optional.empty(), rate, best.get(), other,
                    slope(best.get(), e -> e.attendedMin() / 60), slope(other, e -> e.attendedMin() / 60),
                    out);
            turn("value", Optional.empty(), value, best.get(), other,
                    slope(best.get(), e -> 1 - e.chance() * e.worthPart()),
                    slope(other, e -> 1 - e.chance() * e.worthPart()), out);
            own(best.get(), other, true, out);
            own(other, best.get(), false, out);
        }
        out.removeIf(t -> t.far() > FAR);
        out.sort(Comparator.comparingDouble(Turn::far));
        return List.copyOf(out);
    }

    private interface Slope {
        double of(Estimate e);
    }

    private static double slope(Estimate e, Slope slope) {
        return slope.of(e);
    }

    /** Numbers that only one of the two has. @param mine the course whose numbers move, @param ofBest whether it is the best one */
    private void own(Estimate mine, Estimate other, boolean ofBest, List<Turn> out) {
        Estimate best = ofBest ? mine : other;
        Estimate second = ofBest ? other : mine;
        Object[][] numbers = {{"chance", mine.chance(), -(mine.worthPart() * value + mine.loss())},
                {"attended_min", mine.attendedMin(), rate / 60}, {"part", mine.part(), 1.0},
                {"material", mine.material(), 1.0}, {"loss", mine.loss(), 1 - mine.chance()},
                {"delay", mine.delay(), 1.0}};
        for (Object[] n : numbers) {
            if (mine.course() == Course.DECLINE && !n[0].equals("attended_min")) {
                continue;
            }
            double s = (Double) n[2];
            turn((String) n[0], Optional.of(mine.course()), (Double) n[1], best, second, ofBest ? s : 0,
                    ofBest ? 0 : s, out);
        }
    }

    private void turn(String number, Optional<Course> of, double now, Estimate best, Estimate other,
            double slopeBest,
            double slopeOther, List<Turn> out) {
        double gap = other.expected(rate, value) - best.expected(rate, value);
        double closing = slopeBest - slopeOther;
        if (Math.abs(closing) < 1e-9) {
            return;
        }
        double at = now + gap / closing;
        boolean can = at >= 0 && (!number.equals("chance") || at <= 1);
        if (can) {
            out.add(new Turn(number, of, now, at, other.course()));
        }
    }

    /** Minutes at the bench from which on buying is cheaper than making: {@code 60 (price + freight) / rate}; empty without a price or a rate. */
    public static Optional<Double> breakEvenMin(double priceAndFreight, double rate) {
        return priceAndFreight > 0 && rate > 0 ? Optional.of(60 * priceAndFreight / rate) : Optional.empty();
    }
}
