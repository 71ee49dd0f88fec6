package org.greenbead.store;

import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.greenbead.core.account.Account;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.core.book.Facts;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.greenbead.core.work.Opening;

/**
 * What is asked before a job begins; {@link #into} begins it in a ledger, by window and command line alike.
 *
 * @param id        a number that nothing has yet
 * @param complaint what is wrong, in the customer's words: the first symptom of the job
 */
public record NewJob(String id, JobKind kind, String title, String complaint, String customer, String board,
        String target, String bench) {

    /**
     * Keeps the job with the house's route for its kind, and first guesses for heats that nobody has written.
     *
     * @param recipes id of the recipe by slot, where it is not the usual one
     * @param noted   what is known already, as {@code a.b=c; ...}
     * @param ways    chooses ways of working
     * @param author  may be empty
     * @throws IllegalArgumentException when the number is taken, in the bin too, or the board has no such chip
     * @throws BadFileException         when there is no such board or bench
     */
    public Job into(Ledger ledger, Map<String, String> recipes, String noted, UnaryOperator<Job> ways,
            Instant at, String author) throws BadFileException, LedgerException {
        if (ledger.jobIds().contains(id)) {
            throw new IllegalArgumentException("the number " + id
                    + " is given already; leave --id out and the next free one is taken");
        }
        Board stands = ledger.document(Format.BOARD, board, Board.class);
        stands.requireChip(target);
        Bench on = ledger.document(Format.BENCH, bench, Bench.class);
        var slots = new HashMap<>(Routes.recipes(board, target));
        slots.putAll(recipes);
        Job job = ways.apply(new Job(id, title, complaint, customer, board, target, bench,
                ledger.houseRoute(kind).over(Routes.shipped().beads(kind, slots)),
                Facts.none().with("job.kind=" + kind.key()).with(noted)));
        for (Recipe recipe : Opening.recipes(job, stands, on)) {
            if (!ledger.holds(Format.RECIPE, recipe.id())) {
                ledger.save(recipe);
            }
        }
        Job opened = Account.noted(Optional.empty(),
                job.with(new Kept("symptom-1", "symptom", at, author, Map.of("words", complaint))), at,
                author);
        ledger.save(opened, "opened", "");
        return opened;
    }
}
