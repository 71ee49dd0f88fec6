package org.greenbead.cli;

import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Locale;
import java.util.concurrent.Callable;
import org.greenbead.store.BadFileException;
import org.greenbead.store.Format;
import org.greenbead.store.Ledger;
import org.greenbead.store.RunCsv;
import org.greenbead.store.SafeFiles;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Hands out a run or a document in an open format. */
@Command(name = "export", mixinStandardHelpOptions = true, description = "Writes a run as CSV, or a job, board, bench, recipe or plan of the ledger as JSON.")
final class ExportCommand implements Callable<Integer> {
    /** What can be handed out. */
    enum What {
        RUN, JOB, BOARD, BENCH, RECIPE, PLAN
    }

    @Mixin
    private Shared shared;
    @Spec
    private CommandSpec spec;
    @Parameters(index = "0", paramLabel = "WHAT", description = "One of ${COMPLETION-CANDIDATES}.")
    private What what;
    @Parameters(index = "1", paramLabel = "ID", description = "Its id; \"last\" for the newest run; JOB/BEAD for a plan.")
    private String id;
    @Parameters(index = "2", paramLabel = "OUT", description = "File to write.")
    private Path out;

    @Override
    public Integer call() throws Exception {
        String text;
        if (what == What.RUN) {
            var csv = new StringWriter();
            RunCsv.write(ReplayCommand.read(shared, id), csv);
            text = csv.toString();
        } else {
            try (Ledger ledger = shared.ledger()) {
                text = document(ledger);
            }
        }
        SafeFiles.write(out, text.getBytes(StandardCharsets.UTF_8));
        spec.commandLine().getOut().println("wrote " + out);
        return 0;
    }

    private String document(Ledger ledger) throws BadFileException {
        if (what == What.PLAN) {
            String[] part = id.split("/", 2);
            if (part.length != 2) {
                throw new IllegalArgumentException(
                        "a plan is named as JOB/BEAD, such as SB-0417/lift_run; \"" + id + "\" has no bead");
            }
            return shared.files().write(Format.PLAN, ledger.plan(ledger.job(part[0]), part[1]));
        }
        if (what == What.JOB) {
            return shared.files().write(Format.JOB, ledger.job(id));
        }
        Format format = Format.valueOf(what.name().toUpperCase(Locale.ROOT));
        return switch (format) {
            case BOARD -> shared.files().write(format,
                    ledger.document(format, id, org.greenbead.core.board.Board.class));
            case BENCH -> shared.files().write(format,
                    ledger.document(format, id, org.greenbead.core.bench.Bench.class));
            default -> shared.files().write(format,
                    ledger.document(format, id, org.greenbead.core.recipe.Recipe.class));
        };
    }
}
