package org.greenbead.cli;

import java.nio.file.Path;
import java.util.Locale;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import org.greenbead.core.proof.ReportLanguage;
import org.greenbead.core.quantity.Words;
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
import picocli.CommandLine.Option;
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

    @Option(names = "--language", paramLabel = "LANGUAGE", description = "Language of a customer's report: en, de, fr or es (default: the one chosen in the window, else English). What people wrote themselves stays as they wrote it.")
    private String language;

    @Override
    public Integer call() throws Exception {
        try (Ledger ledger = shared.ledger()) {
            if (ledger.jobIds().contains(what)) {
                Words words = shared.words().in(language(ledger));
                SafeFiles.write(out, CustomerReport.pdf(
                        CustomerReport.gather(ledger, what, java.time.Instant.now()), words));
                told(ledger, what, String.valueOf(out.getFileName()));
                spec.commandLine().getOut().println("wrote " + out);
                return 0;
            }
            if (language != null) {
                throw new BadFileException("--language", 0, "",
                        "the report of a run is for the bench and in English",
                        "Name a job to write its customer's report in another language");
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

    private Locale language(Ledger ledger) throws BadFileException {
        if (language == null) {
            return ledger.setting("report_language").flatMap(ReportLanguage::of).orElse(Locale.ENGLISH);
        }
        return ReportLanguage.of(language).orElseThrow(() -> new BadFileException("--language", 0, "",
                "no report is written in \"" + language + "\"",
                "Choose one of " + ReportLanguage.shipped().stream().map(Locale::getLanguage)
                        .collect(Collectors.joining(", "))));
    }

    /** What it was made from is known from now on; where the window has the ledger it is made all the same. */
    private static void told(Ledger ledger, String job, String file) {
        if (ledger.writes()) {
            ledger.reported(job, file);
        }
    }
}
