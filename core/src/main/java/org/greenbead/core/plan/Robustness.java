package org.greenbead.core.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.function.BooleanSupplier;
import java.util.function.Function;
import java.util.stream.IntStream;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.thermal.Multipliers;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;
import org.greenbead.core.thermal.Uncertainty;

/**
 * One recipe on every bench that this one may be.
 *
 * @param members how many benches were tried
 * @param melts   on how many all joints melted
 * @param all     on how many every limit held at once: where one limit holds on sixteen benches and another on sixteen others, on none
 * @param limits  for each limit on how many it held, in the order of {@link Constraint#of} sorted by how seldom it held
 * @param peakLowC  a tenth of the benches stay under this joint peak, °C
 * @param peakHighC a tenth go over this one
 */
public record Robustness(int members, int melts, int all, List<Held> limits, double peakLowC,
        double peakHighC) {
    /**
     * A limit and on how many of the benches it held.
     *
     * @param low  a tenth of the benches stay under this value, in the limit's unit
     * @param high a tenth go over this one
     */
    public record Held(Constraint.Kind kind, String part, int held, double low, double high) {}

    /** What is known of a limit of the answer. */
    public java.util.Optional<Held> of(Constraint constraint) {
        return limits.stream()
                .filter(h -> h.kind() == constraint.kind() && h.part().equals(constraint.part()))
                .findFirst();
    }

    public Robustness {
        limits = List.copyOf(limits);
    }

    /** Runs the benches side by side on the processor's cores. */
    static Robustness of(RunPlan plan, Recipe recipe, Uncertainty uncertainty, int members, long seed,
            Resolution resolution, Function<Outcome, List<Constraint>> limitsOf, BooleanSupplier cancelled) {
        List<Multipliers> benches = uncertainty.draw(members, seed);
        List<Outcome> outcomes = IntStream.range(0, members).parallel()
                .mapToObj(m -> Drive.of(plan, recipe,
                        new SheetModel(plan.scene(), benches.get(m), resolution), cancelled))
                .toList();
        int melts = 0;
        int all = 0;
        var names = new ArrayList<Constraint>();
        int count = limitsOf.apply(outcomes.getFirst()).size();
        int[] held = new int[count];
        double[][] reached = new double[count][members];
        for (int m = 0; m < members; m++) {
            Outcome outcome = outcomes.get(m);
            List<Constraint> constraints = limitsOf.apply(outcome);
            melts += outcome.melts() ? 1 : 0;
            all += constraints.stream().allMatch(Constraint::kept) ? 1 : 0;
            for (Constraint constraint : constraints) {
                int at = 0;
                while (at < names.size() && !(names.get(at).kind() == constraint.kind()
                        && names.get(at).part().equals(constraint.part()))) {
                    at++;
                }
                if (at == names.size()) {
                    names.add(constraint);
                }
                held[at] += constraint.kept() ? 1 : 0;
                reached[at][m] = constraint.value();
            }
        }
        double[] peaks = outcomes.stream().mapToDouble(Outcome::peakMaxC).sorted().toArray();
        var limits = new ArrayList<Held>();
        for (int i = 0; i < names.size(); i++) {
            java.util.Arrays.sort(reached[i]);
            limits.add(new Held(names.get(i).kind(), names.get(i).part(), held[i], reached[i][members / 10],
                    reached[i][members - 1 - members / 10]));
        }
        limits.sort(java.util.Comparator.comparingInt(Held::held));
        return new Robustness(members, melts, all, limits, peaks[members / 10],
                peaks[members - 1 - members / 10]);
    }
}
