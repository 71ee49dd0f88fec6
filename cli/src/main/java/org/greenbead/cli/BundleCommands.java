package org.greenbead.cli;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.core.chip.StockChip;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.route.Job;
import org.greenbead.core.stock.StockItem;
import org.greenbead.store.BadFileException;
import org.greenbead.store.Format;
import org.greenbead.store.JobBundle;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.greenbead.store.SafeFiles;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Jobs and documents that come and go. */
final class BundleCommands {
    private BundleCommands() {
    }

    /** Packs a job. */
    @Command(name = "pack", mixinStandardHelpOptions = true, description = "Packs a job with its further chips, boards, bench, recipes, chips, run logs, pictures and history into one ZIP file.")
    static final class Pack extends Verb {
        @Parameters(index = "0", paramLabel = "JOB", description = "Id of the job.")
        private String job;
        @Parameters(index = "1", paramLabel = "OUT", description = "ZIP file to write.")
        private Path out;

        @Override
        public Integer call() throws Exception {
            var bytes = new ByteArrayOutputStream();
            JobBundle.Carried carried;
            try (Ledger ledger = shared().ledger()) {
                carried = JobBundle.pack(ledger, job, bytes);
            }
            SafeFiles.write(out, bytes.toByteArray());
            out().println("packed job " + said(carried) + " into " + out);
            return 0;
        }
    }

    private static String said(JobBundle.Carried c) {
        return String.format(Locale.ROOT, "%s with %s%d recipes, %d chips, %d runs and %d pictures", c.job(),
                c.strands() == 0 ? "" : c.strands() + " further chips of the job, ", c.recipes(), c.chips(),
                c.runs(), c.pictures());
    }

    /** Takes files in. */
    @Command(name = "import", mixinStandardHelpOptions = true, description = "Takes job bundles (ZIP) and single open files (job, board, bench, recipe, chip) into the ledger.")
    static final class Import extends Verb {
        @Parameters(paramLabel = "FILE", arity = "1..*", description = "Bundles and *.bead.json files.")
        private List<Path> files;
        @Option(names = "--replace", description = "Take what comes where the ledger holds something else under the same name.")
        private boolean replace;

        @Override
        public Integer call() throws Exception {
            try (Ledger ledger = shared().ledger()) {
                for (Path file : files) {
                    if (String.valueOf(file.getFileName()).toLowerCase(Locale.ROOT).endsWith(".zip")) {
                        out().println("took in job " + bundle(ledger, file));
                    } else {
                        out().println("took in " + document(ledger, file));
                    }
                }
            }
            return 0;
        }

        private String bundle(Ledger ledger, Path file) throws BadFileException, IOException {
            try {
                return said(JobBundle.unpack(ledger, file, replace));
            } catch (JobBundle.ClashException e) {
                throw new IllegalArgumentException(e.getMessage(), e);
            }
        }

        private String document(Ledger ledger, Path file) throws BadFileException {
            String text = OpenFiles.text(file);
            String name = String.valueOf(file.getFileName());
            Format format = shared().files().formatOf(text, name);
            switch (format) {
                case JOB -> {
                    Job job = shared().files().parse(text, name, format, Job.class);
                    guard(ledger.jobs().stream().anyMatch(j -> j.id().equals(job.id()) && !j.equals(job)),
                            "job",
                            job.id());
                    // What it stands on has to be there, or nothing of it could be opened.
                    ledger.document(Format.BOARD, job.board(), Board.class).requireChip(job.target());
                    ledger.document(Format.BENCH, job.bench(), Bench.class);
                    ledger.save(job, "imported", name);
                    return "job " + job.id();
                }
                case BOARD -> {
                    Board board = shared().files().parse(text, name, format, Board.class);
                    guard(other(ledger, format, board.id(), Board.class, board), "board", board.id());
                    ledger.save(board);
                    return "board " + board.id();
                }
                case BENCH -> {
                    Bench bench = shared().files().parse(text, name, format, Bench.class);
                    guard(other(ledger, format, bench.id(), Bench.class, bench), "bench", bench.id());
                    ledger.save(bench);
                    return "bench " + bench.id();
                }
                case RECIPE -> {
                    Recipe recipe = shared().files().parse(text, name, format, Recipe.class);
                    guard(other(ledger, format, recipe.id(), Recipe.class, recipe), "recipe", recipe.id());
                    ledger.save(recipe);
                    return "recipe " + recipe.id();
                }
                case CHIP -> {
                    StockChip chip = shared().files().parse(text, name, format, StockChip.class);
                    guard(ledger.chips().stream()
                            .anyMatch(c -> c.label().equals(chip.label()) && !c.equals(chip)), "chip",
                            chip.label());
                    ledger.save(chip);
                    return "chip " + chip.label();
                }
                case STOCK -> {
                    StockItem item = shared().files().parse(text, name, format, StockItem.class);
                    guard(other(ledger, format, item.id(), StockItem.class, item), "thing in stock",
                            item.id());
                    ledger.save(item);
                    return "stock " + item.id();
                }
                default -> throw new BadFileException(name, 1, "/format",
                        "a " + format.word() + " file is no document of the ledger",
                        "Import a job bundle, or a job, board, bench, recipe, chip or thing in stock");
            }
        }

        private static <T> boolean other(Ledger ledger, Format format, String id, Class<T> type, T mine) {
            try {
                return !ledger.document(format, id, type).equals(mine);
            } catch (BadFileException e) {
                return false;
            }
        }

        private void guard(boolean clash, String kind, String id) {
            if (clash && !replace) {
                throw new IllegalArgumentException("The ledger holds another " + kind + " " + id
                        + ". Nothing was changed. Rename yours, or take this one with --replace.");
            }
        }
    }
}
