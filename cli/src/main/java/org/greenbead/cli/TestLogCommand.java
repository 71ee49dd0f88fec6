package org.greenbead.cli;

import java.nio.file.Path;
import java.time.Instant;
import java.util.Optional;
import java.util.OptionalDouble;
import org.greenbead.core.electric.TestLog;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.core.timer.LongTest;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** What the log of a long test says. */
@Command(name = "testlog", mixinStandardHelpOptions = true, description = "Reads the log of a memory or other long test, whoever wrote it: whole passes, errors, what wrong bits point at. Exit 0 = passed, 1 = failed or nothing passed yet.")
final class TestLogCommand extends Verb {
    @Parameters(paramLabel = "LOG", description = "The log, a text.")
    private Path log;
    @Option(names = "--job", paramLabel = "JOB", description = "Writes it into this job as a test: a job file, or a number of the ledger.")
    private Optional<String> job = Optional.empty();
    @Option(names = "--what", defaultValue = "", description = "What was tested (default: memory).")
    private String what;
    @Option(names = "--minutes", paramLabel = "MIN", description = "How long it ran.")
    private Optional<Double> minutes = Optional.empty();
    @Option(names = "--author", defaultValue = "", description = "Who does it.")
    private String author;

    @Override
    public Integer call() throws Exception {
        var disk = new JobOnDisk(shared());
        LongTest told = disk.longTest(log);
        out().println(words().say(told.log().says()));
        told.log().first().forEach(l -> out().println("  " + l));
        if (told.log().result() == TestLog.Result.FAIL) {
            out().println("  " + words().say(told.log().points()));
        }
        if (job.isPresent()) {
            Job before = disk.read(job.get());
            Kept record = told.record(before, what,
                    minutes.map(OptionalDouble::of).orElseGet(OptionalDouble::empty), Instant.now(), author,
                    words());
            disk.write(job.get(), before, before.with(record), author, "noted",
                    record.id());
            out().println("noted " + record.id() + " in job " + before.id());
        }
        return told.log().result() == TestLog.Result.PASS ? 0 : 1;
    }
}
