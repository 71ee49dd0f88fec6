package org.greenbead.cli;

import java.nio.file.Path;
import java.util.concurrent.Callable;
import org.greenbead.store.BadFileException;
import org.greenbead.store.CustomerReport;
import org.greenbead.store.JobReport;
import org.greenbead.store.Ledger;
import org.greenbead.store.RunEntry;
import org.greenbead.store.RunLog;
import org.greenbead.store.SafeFiles;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** The report for the customer. */
@Command(name = "report", mixinStandardHelpOptions = true, description = "Writes a report as PDF: of a job, for the customer (a diagnosis or a declined unit has one as well); or of one run, for the bench.")
final class ReportCommand implements Callable<Integer> {
    @Mixin
    private Shared shared;
    @Spec
    private CommandSpec spec;
    @Parameters(index = "0", paramLabel = "WHAT", description = "The number of a job for its customer; a run's id, or \"last\", for the bench.")
    private String what;
    @Parameters(index = "1", paramLabel = "OUT", description = "PDF file to write.")
    private Path out;

    @Override
    public Integer call() throws Exception {
        try (Ledger ledger = shared.ledger()) {
            if (ledger.jobIds().contains(what)) {
                SafeFiles.write(out, CustomerReport.pdf(
                        CustomerReport.gather(ledger, what, java.time.Instant.now()), shared.words()));
                told(ledger, what, String.valueOf(out.getFileName()));
                spec.commandLine().getOut().println("wrote " + out);
                return 0;
            }
            if (!what.equals("last") && ledger.run(what).isEmpty()) {
                throw new BadFileException("ledger", 0, "", "there is neither a job nor a run " + what,
                        "List them with: greenbead jobs, greenbead ledger list");
            }
            RunEntry entry = Shared.run(ledger, what);
            SafeFiles.write(out, JobReport.pdf(ledger.job(entry.jobId()),
                    RunLog.read(ledger.logFile(entry), shared.files()), shared.words()));
            told(ledger, entry.jobId(), entry.id() + " in " + out.getFileName());
        }
        spec.commandLine().getOut().println("wrote " + out);
        return 0;
    }

    /** What it was made from is known from now on; where the window has the ledger it is made all the same. */
    private static void told(Ledger ledger, String job, String file) {
        if (ledger.writes()) {
            ledger.reported(job, file);
        }
    }
}
