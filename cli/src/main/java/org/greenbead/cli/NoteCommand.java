package org.greenbead.cli;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.greenbead.core.account.Thrown;
import org.greenbead.core.record.Kept;
import org.greenbead.core.record.RecordTypes;
import org.greenbead.core.route.Job;
import org.greenbead.core.work.AsBefore;
import org.greenbead.core.work.WriteDown;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Writes a record into a job. */
@Command(name = "note", mixinStandardHelpOptions = true, description = "Writes a record into a job: greenbead note JOB screw hole=A length_mm=6 out=yes. A record of which a job has one is changed; of things with a name (screw, rail, part) the one of that name is changed; others are added.")
final class NoteCommand extends OnJob {
    @Parameters(index = "1", paramLabel = "TYPE", description = "Type of record; list them with: greenbead records.")
    private String type;
    @Parameters(index = "2..*", paramLabel = "FIELD=VALUE", description = "What was noted; an empty value takes it away.")
    private Map<String, String> fields = new LinkedHashMap<>();
    @Option(names = "--record", paramLabel = "ID", description = "Change this record, such as tested-2.")
    private String id;
    @Option(names = "--remove", description = "Take the record back: the one named by --record, or by its first field.")
    private boolean remove;
    @Option(names = "--even-so", description = "With --remove: also where a report was made with it.")
    private boolean evenSo;
    @Option(names = "--bring-back", description = "Brings back a record that was taken back, the last one of this type, or the one named by --record.")
    private boolean bringBack;
    @Option(names = "--as-before", description = "Also what this bench, board or chip had the last time, where nothing is noted yet: settings, tools and measures, never what has to be looked at anew.")
    private boolean asBefore;
    @Option(names = "--at", paramLabel = "TIME", description = "When it was, such as 2031-04-02T08:00:00Z (default: now).")
    private Instant at;

    @Override
    public Integer call() throws Exception {
        Job job = read();
        Instant now = at == null ? Instant.now() : at;
        var entry = new WriteDown.Entry(type, Optional.ofNullable(id), fields, words().unit());
        if (remove) {
            Kept gone = WriteDown.takenBack(job, entry);
            String reports = new JobOnDisk(shared()).reportsSince(job, gone.at());
            if (!reports.isEmpty() && !evenSo) {
                throw new IllegalArgumentException(gone.id() + " stays: " + reports
                        + " was made with it. With --even-so it is taken back all the same; the report stays");
            }
            keep(job, Thrown.thrown(job, gone.id()), "taken back", gone.id());
            out().println("took back " + gone.id() + " of job " + job.id() + "; its account still has it: "
                    + "greenbead note " + job.id() + " " + type + " --record " + gone.id() + " --bring-back");
            return 0;
        }
        if (bringBack) {
            Thrown.Gone gone = gone(job);
            Job longer = Thrown.broughtBack(job, gone);
            keep(job, longer, "brought back", longer.records().getLast().id());
            out().println("brought back " + longer.records().getLast().id() + " in job " + job.id());
            return 0;
        }
        if (asBefore) {
            return asBefore(job, now);
        }
        Optional<Kept> there = WriteDown.meant(job, entry);
        Kept record = WriteDown.record(job, entry, now, author());
        Job longer = job.with(record);
        keep(job, longer, "noted", record.id());
        out().println((there.isPresent() ? "changed " : "noted ") + record.id() + " in job " + job.id());
        return 0;
    }

    private int asBefore(Job job, Instant now) throws Exception {
        Job said = fields.isEmpty()
                ? job
                : job.with(WriteDown.record(job,
                        new WriteDown.Entry(type, Optional.ofNullable(id), fields, words().unit()), now,
                        author()));
        RecordTypes.shipped().require(type);
        Optional<AsBefore.Source> source = AsBefore.of(job, type, new JobOnDisk(shared()).jobs());
        if (source.isEmpty()) {
            throw new IllegalArgumentException(AsBefore.fields().containsKey(type)
                    ? "no other job of the ledger has a record of type " + type
                            + " that fits this one; write it down once: greenbead note " + job.id() + " "
                            + type + " FIELD=VALUE"
                    : "a record of type " + type
                            + " has to be looked at anew in every job; as before goes for "
                            + String.join(", ", new TreeSet<>(AsBefore.fields().keySet())));
        }
        List<Kept> missing = AsBefore.missing(said, source.get(), now, author());
        Job longer = AsBefore.written(said, missing);
        keep(job, longer, "noted", "as in " + source.get().job());
        missing.forEach(
                r -> out().println("noted " + r.id() + " in job " + job.id() + " as in " + source.get().job()
                        + ": " + r.fields().entrySet().stream().map(f -> f.getKey() + "=" + f.getValue())
                                .collect(Collectors.joining(", "))));
        if (missing.isEmpty()) {
            out().println("nothing is missing that job " + source.get().job() + " could tell");
        }
        return 0;
    }

    private Thrown.Gone gone(Job job) {
        return Thrown.of(job).stream().filter(g -> g.record().type().equals(type))
                .filter(g -> id == null || g.record().id().equals(id)).findFirst()
                .orElseThrow(() -> new IllegalArgumentException("of job " + job.id()
                        + " no such record was taken back; those that were: "
                        + String.join(", ", Thrown.of(job).stream().map(g -> g.record().id()).toList())));
    }
}
