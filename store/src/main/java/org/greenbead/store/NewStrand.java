package org.greenbead.store;

import java.util.Optional;
import org.greenbead.core.account.Account;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Strands;
import org.greenbead.core.work.Opening;

/** Takes a further chip into a job of the ledger. */
public final class NewStrand {
    private NewStrand() {
    }

    /**
     * Keeps the strand, with first guesses for its heats.
     *
     * @param boardId the job's own board, or that of a donor
     * @param donor   which unit of that board; empty for the unit of the job
     * @param author  may be empty
     * @throws IllegalArgumentException as {@link Strands#begin} says
     */
    public static Job begin(Ledger ledger, Job main, String boardId, String chip, JobKind kind,
            Optional<String> donor, java.time.Instant at, String author)
            throws BadFileException, LedgerException {
        Board board = ledger.document(Format.BOARD, boardId, Board.class);
        Bench bench = ledger.document(Format.BENCH, main.bench(), Bench.class);
        Job strand = Account.noted(Optional.empty(),
                Strands.begin(main, Strands.of(main, ledger.jobs()), board, chip, kind,
                        ledger.houseRoute(kind), donor),
                at, author);
        for (Recipe recipe : Opening.recipes(strand, board, bench)) {
            if (!ledger.holds(Format.RECIPE, recipe.id())) {
                ledger.save(recipe);
            }
        }
        ledger.save(strand, "opened", main.id());
        return strand;
    }
}
