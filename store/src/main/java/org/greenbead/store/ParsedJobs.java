package org.greenbead.store;

import java.util.HashMap;
import java.util.Map;
import java.util.zip.CRC32C;
import org.greenbead.core.route.Job;

/**
 * Jobs that were read before. All jobs are read again at every act, because the rules ask what became of others; one whose text has
 * not changed need not be taken apart again. Guarded by the ledger's own lock.
 */
final class ParsedJobs {
    /** More than that are taken apart each time: memory is worth more. */
    private static final int MOST = 2000;
    private final OpenFiles files;
    private final Map<String, Known> known = new HashMap<>();

    /** Length and two checks of the text, so that not all of it is kept. */
    private record Mark(int length, int hash, long crc) {
        static Mark of(String body) {
            var crc = new CRC32C();
            crc.update(body.getBytes(java.nio.charset.StandardCharsets.UTF_8));
            return new Mark(body.length(), body.hashCode(), crc.getValue());
        }
    }

    private record Known(Mark mark, Job job) {}

    ParsedJobs(OpenFiles files) {
        this.files = files;
    }

    /** @throws BadFileException when the text is no job */
    Job job(String id, String body) throws BadFileException {
        Mark mark = Mark.of(body);
        Known before = known.get(id);
        if (before != null && before.mark.equals(mark)) {
            return before.job;
        }
        Job job = files.parse(body, "job " + id, Format.JOB, Job.class);
        if (before != null || known.size() < MOST) {
            known.put(id, new Known(mark, job));
        }
        return job;
    }
}
