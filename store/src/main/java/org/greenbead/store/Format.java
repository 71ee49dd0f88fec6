package org.greenbead.store;

import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.core.calibrate.Witness;
import org.greenbead.core.chip.StockChip;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.stock.StockItem;

/** The kinds of open file, with the record each becomes. */
public enum Format {
    BOARD("board", Board.class), BENCH("bench", Bench.class), RECIPE("recipe", Recipe.class), JOB("job",
            Job.class), PLAN("plan",
                    RunPlan.class), REHEARSAL("rehearsal",
                            RehearsalFile.class), CHIP("chip",
                                    StockChip.class), WITNESS("witness",
                                            Witness.class), STOCK("stock", StockItem.class);

    private final String word;
    private final Class<?> record;

    Format(String word, Class<?> record) {
        this.word = word;
        this.record = record;
    }

    public String word() {
        return word;
    }

    /** What stands in the file's {@code format} key. */
    public String tag() {
        return "greenbead/" + word + "/1";
    }

    Class<?> record() {
        return record;
    }
}
