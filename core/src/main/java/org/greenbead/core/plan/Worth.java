package org.greenbead.core.plan;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import org.greenbead.core.run.RunPlan;

/**
 * How good a recipe is beside another. What is broken counts first, in the order of {@link Constraint.Ward}: a recipe that spares a
 * person is better than any that does not, whatever it does to the rest. Among those that break nothing the one with more room is
 * better, up to what is comfortable, then the shorter one.
 *
 * @param broken by ward, how far limits are overstepped in units of their scales, added up
 * @param lack   what is missing to comfortable room, squared and added up, and a little for the time
 * @param ease   room at the tightest limit in units of its scale, no more than what is comfortable
 */
record Worth(double[] broken, double lack, double ease) implements Comparable<Worth> {
    /** Room of two standard deviations is comfortable; more is not worth time. */
    static final double COMFORT = 2;
    private static final double PER_MINUTE = 0.03;
    /** Steps in which harm is told apart: what a technician could set or a model can know. */
    private static final double STEP = 0.1;
    /** What a broken scale costs where a search wants a single number, ward by ward. */
    private static final double[] WEIGHT = {7290, 7290, 2430, 90, 30, 10};

    static Worth of(RunPlan plan, Outcome outcome) {
        return of(Constraint.of(plan, outcome), outcome.lengthS(), c -> 0);
    }

    static Worth of(List<Constraint> constraints, double lengthS, Search.Corrections corrections) {
        double[] broken = new double[Constraint.Ward.values().length];
        double lack = PER_MINUTE * lengthS / 60;
        double tightest = COMFORT;
        for (Constraint constraint : constraints) {
            double room = constraint.room() + corrections.of(constraint);
            double ease = constraint.kind() == Constraint.Kind.MELT && room >= 0
                    ? COMFORT
                    : room / constraint.scale();
            double missing = Math.max(0, COMFORT - ease);
            lack += missing * missing;
            broken[constraint.ward().ordinal()] += Math.max(0, -ease);
            tightest = Math.min(tightest, ease);
        }
        return new Worth(broken, lack, tightest);
    }

    /** A single number for a search that knows no order: lower is better. */
    double cost() {
        double cost = lack;
        for (int i = 0; i < broken.length; i++) {
            cost += WEIGHT[i] * Math.min(10, broken[i]);
        }
        return cost;
    }

    boolean keepsAll() {
        return Arrays.stream(broken).allMatch(b -> b <= 0);
    }

    /** Whether any ward is hurt more, by more than half of what is told apart. */
    boolean breaksMoreThan(Worth other) {
        for (int i = 0; i < broken.length; i++) {
            if (broken[i] > other.broken[i] + STEP / 2) {
                return true;
            }
        }
        return false;
    }

    @Override
    public int compareTo(Worth other) {
        for (int i = 0; i < broken.length; i++) {
            int harm = Double.compare(Math.ceil(broken[i] / STEP), Math.ceil(other.broken[i] / STEP));
            if (harm != 0) {
                return harm;
            }
        }
        return Double.compare(lack, other.lack);
    }

    /** -1 when better by more than {@code draw} scales, 1 when worse, else 0. */
    int against(Worth other, double draw) {
        for (int i = 0; i < broken.length; i++) {
            if (Math.abs(broken[i] - other.broken[i]) > draw) {
                return broken[i] < other.broken[i] ? -1 : 1;
            }
        }
        double gained = ease - other.ease;
        return Math.abs(gained) <= draw ? 0 : gained > 0 ? -1 : 1;
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Worth w && Arrays.equals(broken, w.broken) && lack == w.lack
                && ease == w.ease;
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(broken) * 31 + Double.hashCode(lack);
    }

    @Override
    public String toString() {
        return keepsAll()
                ? String.format(Locale.ROOT, "keeps all, ease %.2f", ease)
                : "breaks " + Arrays.stream(broken).mapToObj(b -> String.format(Locale.ROOT, "%.1f", b))
                        .toList();
    }
}
