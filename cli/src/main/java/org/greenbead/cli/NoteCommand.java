package org.greenbead.cli;

import java.nio.file.Path;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import org.greenbead.core.record.Answer;
import org.greenbead.core.record.Kept;
import org.greenbead.core.record.RecordType;
import org.greenbead.core.record.RecordTypes;
import org.greenbead.core.route.Job;
import org.greenbead.store.Format;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Writes a record into a job file. */
@Command(name = "note", mixinStandardHelpOptions = true, description = "Writes a record into a job file: greenbead note JOB screw hole=A length_mm=6 out=yes. A record of which a job has one is changed, of others one is added.")
final class NoteCommand extends Verb {
    @Parameters(index = "0", paramLabel = "JOB", description = "Job file (greenbead/job/1); it is written anew.")
    private Path file;
    @Parameters(index = "1", paramLabel = "TYPE", description = "Type of record; list them with: greenbead records.")
    private String type;
    @Parameters(index = "2..*", paramLabel = "FIELD=VALUE", description = "What was noted; an empty value takes it away.")
    private Map<String, String> fields = new LinkedHashMap<>();
    @Option(names = "--author", defaultValue = "", description = "Who wrote it.")
    private String author;

    @Override
    public Integer call() throws Exception {
        Job job = shared().files().read(file, Format.JOB, Job.class);
        RecordType known = RecordTypes.shipped().require(type);
        Instant now = Instant.now();
        Kept record = known.many() || job.records(type).isEmpty()
                ? new Kept(job.freeId(type), type, now, author, Map.of())
                : job.records(type).getFirst();
        for (Map.Entry<String, String> field : fields.entrySet()) {
            RecordType.Item item = known.item(field.getKey())
                    .orElseThrow(
                            () -> new IllegalArgumentException("\"" + field.getKey() + "\" is no field of "
                                    + type + "; it has "
                                    + String.join(", ",
                                            known.fields().stream().map(RecordType.Item::name).toList())));
            record = record.with(item.name(), Answer.read(item, field.getValue(), words().unit()), now,
                    author);
        }
        write(file, shared().files().write(Format.JOB, job.with(record)));
        out().println("noted " + record.id() + " in job " + job.id());
        return 0;
    }
}
