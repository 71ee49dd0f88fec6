package org.greenbead.cli;

import java.nio.file.Path;
import java.util.concurrent.Callable;
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
@Command(name = "report", mixinStandardHelpOptions = true, description = "Writes the report of a run and its job as PDF.")
final class ReportCommand implements Callable<Integer> {
    @Mixin
    private Shared shared;
    @Spec
    private CommandSpec spec;
    @Parameters(index = "0", paramLabel = "RUN", description = "A run's id, or \"last\".")
    private String run;
    @Parameters(index = "1", paramLabel = "OUT", description = "PDF file to write.")
    private Path out;

    @Override
    public Integer call() throws Exception {
        try (Ledger ledger = shared.ledger()) {
            RunEntry entry = Shared.run(ledger, run);
            SafeFiles.write(out, JobReport.pdf(ledger.job(entry.jobId()),
                    RunLog.read(ledger.logFile(entry), shared.files()), shared.words()));
        }
        spec.commandLine().getOut().println("wrote " + out);
        return 0;
    }
}
