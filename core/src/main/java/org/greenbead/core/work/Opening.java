package org.greenbead.core.work;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.StartingRecipe;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.RunPlan;

/** How a job begins: the recipes that nobody has written yet, and the job on its own board. */
public final class Opening {
    private Opening() {
    }

    /** The next number of the house: letters of the newest and one more than the highest. */
    public static String nextId(List<String> given) {
        int highest = 0;
        String stem = "J-";
        for (String one : given) {
            if (one.matches("[A-Za-z]{1,6}-\\d{1,8}")) {
                stem = one.substring(0, one.indexOf('-') + 1);
                highest = Math.max(highest, Integer.parseInt(one.substring(stem.length())));
            }
        }
        return stem + String.format(Locale.ROOT, "%04d", highest + 1);
    }

    /** Heats on the board itself; balls on a loose chip are heated as reckoned for stencil and alloy. */
    private static List<Bead> heats(Job job) {
        return job.beads().stream().filter(b -> b.kind() == Bead.Kind.RUN && b.recipe().isPresent())
                .filter(b -> RunPlan.Task.of(b) != RunPlan.Task.FORM).toList();
    }

    /** First guesses for every heat of a job, to be kept where nothing of their name is there. */
    public static List<Recipe> recipes(Job job, Board board, Bench bench) {
        return heats(job).stream().map(b -> firstGuess(job, b, board, bench)).distinct().toList();
    }

    /** What a heat begins with where nobody has written its recipe. */
    public static Recipe firstGuess(Job job, Bead bead, Board board, Bench bench) {
        boolean lift = RunPlan.Task.of(bead) == RunPlan.Task.LIFT;
        return StartingRecipe.of(bead.recipe().orElseThrow(),
                board.id() + " " + job.target() + (lift ? ", lift" : ", seat"),
                board.requireChip(job.target()), bench, lift);
    }

    /** What the board of a job is heated for next, or was last. */
    public static RunPlan.Task nextTask(Job job) {
        List<Bead> heats = heats(job);
        return heats.stream().filter(b -> !b.worked()).findFirst()
                .or(() -> heats.reversed().stream().findFirst())
                .map(RunPlan.Task::of).orElse(RunPlan.Task.LIFT);
    }

    /**
     * The job on its board: with the heat of the next run there, of the last one where all are worked, else with a first guess at a lift. For what is
     * known of the board, which a plan for making balls leaves out.
     *
     * @param written the recipe of that id, where somebody wrote it
     */
    public static RunPlan onBoard(Job job, Board board, Bench bench,
            Function<String, Optional<Recipe>> written) {
        List<Bead> heats = heats(job);
        Optional<Bead> next = heats.stream().filter(b -> !b.worked()).findFirst()
                .or(() -> heats.reversed().stream().findFirst());
        if (next.isEmpty()) {
            String id = board.id() + "-lift";
            return new RunPlan(RunPlan.Task.LIFT, job, "lift_run", board, bench,
                    StartingRecipe.of(id, id, board.requireChip(job.target()), bench, true));
        }
        Bead bead = next.get();
        return new RunPlan(RunPlan.Task.of(bead), job, bead.id(), board, bench,
                written.apply(bead.recipe().orElseThrow())
                        .orElseGet(() -> firstGuess(job, bead, board, bench)));
    }
}
