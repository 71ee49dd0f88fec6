package org.greenbead.cli;

import java.io.ByteArrayOutputStream;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;
import org.greenbead.store.JobBundle;
import org.greenbead.store.Ledger;
import org.greenbead.store.SafeFiles;
import org.greenbead.store.TakeIn;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Jobs and documents that come and go. */
final class BundleCommands {
    /** Files that are named one by one. */
    private static final int NAMED = 8;

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
            out().println("packed job " + carried.said() + " into " + out);
            return 0;
        }
    }

    /** Takes files in. */
    @Command(name = "import", mixinStandardHelpOptions = true, description = "Takes job bundles (ZIP), open files (job, board, bench, recipe, chip, stock) and folders with such into the ledger, in any order: all of them, or nothing.")
    static final class Import extends Verb {
        @Parameters(paramLabel = "FILE", arity = "1..*", description = "Bundles, *.bead.json files, folders.")
        private List<Path> files;
        @Option(names = "--replace", description = "Take what comes where the ledger holds something else under the same name.")
        private boolean replace;

        @Override
        public Integer call() throws Exception {
            try (Ledger ledger = shared().ledger()) {
                TakeIn.Taken taken = TakeIn.from(ledger, files, replace, n -> {
                }, () -> false);
                taken.taken().forEach(what -> out().println("took in " + what));
                if (!taken.left().isEmpty()) {
                    out().println("left alone, for a ledger keeps nothing of the kind: "
                            + taken.left().stream().limit(NAMED).map(f -> String.valueOf(f.getFileName()))
                                    .collect(Collectors.joining(", "))
                            + (taken.left().size() > NAMED
                                    ? " and " + (taken.left().size() - NAMED) + " more"
                                    : ""));
                }
            } catch (TakeIn.ClashException e) {
                throw new IllegalArgumentException(e.getMessage() + (e.withLedger()
                        ? " Rename yours, or take what comes with --replace (the ledger is copied first)."
                        : ""), e);
            }
            return 0;
        }
    }
}
