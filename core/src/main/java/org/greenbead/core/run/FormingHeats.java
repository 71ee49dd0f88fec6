package org.greenbead.core.run;

import java.util.LinkedHashMap;
import java.util.Map;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.core.recipe.Recipe;

/**
 * Heats for balls that nobody wrote down, kept as long as nothing they are reckoned from changes: a job is read again at every act, and
 * reckoning one takes tens of rehearsals. May be shared by threads.
 */
public final class FormingHeats {
    private static final int KEPT = 16;
    private final Map<Key, Recipe> known = new LinkedHashMap<>(KEPT, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Key, Recipe> eldest) {
            return size() > KEPT;
        }
    };

    /** All that {@link FormingRecipe#of} reads. */
    private record Key(Board board, Bench bench, String target, BallForming forming, double wantedS,
            String id,
            String title) {}

    /** As {@link FormingRecipe#of}. */
    public Recipe of(RunPlan plan, String id, String title) {
        var key = new Key(plan.board(), plan.bench(), plan.job().target(), plan.forming().orElseThrow(),
                FormingRecipe.wantedS(plan.job()), id, title);
        synchronized (known) {
            Recipe before = known.get(key);
            if (before != null) {
                return before;
            }
        }
        Recipe reckoned = FormingRecipe.of(plan, id, title);
        synchronized (known) {
            known.put(key, reckoned);
        }
        return reckoned;
    }
}
