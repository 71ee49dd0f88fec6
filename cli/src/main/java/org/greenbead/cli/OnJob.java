package org.greenbead.cli;

import java.util.Optional;
import org.greenbead.core.account.Judgement;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.route.Job;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** A verb on one job: a file, or a number of the ledger. */
abstract class OnJob extends Verb {
    @Parameters(index = "0", paramLabel = "JOB", description = "A job file (greenbead/job/1), or the number of a job in the ledger.")
    private String name;
    @Option(names = "--author", defaultValue = "", description = "Who does it.")
    private String author;

    Job read() throws Exception {
        return new JobOnDisk(shared()).read(name);
    }

    /** Keeps the changed form where the job came from. */
    void keep(Job before, Job after, String kind, String detail) throws Exception {
        new JobOnDisk(shared()).write(name, before, after, author, kind, detail);
    }

    Judgement judged(Job job) throws Exception {
        JobOnDisk.Surroundings around = new JobOnDisk(shared()).around(job);
        return Judgement.of(job, around.plan(), around.around(), Optional.empty(), RuleBook.shipped(),
                RuleBook.Settings.STANDARD);
    }

    String author() {
        return author;
    }

    /** The job as it was named, for a message. */
    String name() {
        return name;
    }
}
