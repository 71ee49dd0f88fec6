package org.greenbead.core.plan;

import java.util.List;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.run.RunPlan;

/**
 * The best recipe of a school, proved on the full model.
 *
 * @param plan        what it was planned for, with foil or other joints where those were asked for
 * @param recipe      in numbers that can be set
 * @param outcome     of the full model
 * @param constraints every limit, the one that binds first
 * @param drift       how far the search model strayed from the full one on this recipe
 * @param robustness  on the benches that this one may be
 * @param tried       recipes tried
 * @param most        recipes that the first search may try
 * @param cutShort    somebody had enough of the search; it is the best so far
 */
public record Answer(School school, RunPlan plan, Recipe recipe, Outcome outcome,
        List<Constraint> constraints,
        Outcome.Drift drift, Robustness robustness, int tried, int most,
        boolean cutShort) {
    public Answer {
        constraints = List.copyOf(constraints);
    }

    /** Every limit is kept and every joint melts, on the full model. */
    public boolean feasible() {
        return outcome.melts() && constraints.stream().allMatch(Constraint::kept);
    }

    /** The limit that leaves the least room. */
    public Constraint binding() {
        return constraints.getFirst();
    }
}
