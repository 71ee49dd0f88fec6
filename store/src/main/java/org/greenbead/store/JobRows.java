package org.greenbead.store;

import java.lang.ref.SoftReference;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.greenbead.core.route.Job;
import org.jdbi.v3.core.Handle;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The jobs of a ledger. All of them are asked for at every act, because the rules ask what became of others; one whose row has not changed since it was read
 * is neither fetched nor taken apart again. What was read is given up when memory is short. Guarded by the ledger's own lock.
 */
final class JobRows {
    private static final Logger LOG = LoggerFactory.getLogger(JobRows.class);
    /** Texts that are held at once while many are read. */
    private static final int AT_ONCE = 256;
    private static final String LIVE = "binned_at IS NULL";
    private final Handle handle;
    private final OpenFiles files;
    private final Map<String, Known> known = new HashMap<>();
    private boolean allRead;

    /**
     * What tells that a row is another one than before.
     *
     * @param savedAt when it was written, to the millionth of a second
     * @param bytes   how long its text is
     */
    private record Mark(String savedAt, long bytes) {}

    private record Row(String id, Mark mark) {}

    private record Known(Mark mark, SoftReference<Job> job) {}

    private record Text(String id, String body) {}

    private record Read(Row row, Optional<Job> job) {}

    JobRows(Handle handle, OpenFiles files) {
        this.handle = handle;
        this.files = files;
    }

    /** All that can be read and do not lie in the bin, newest first. */
    List<Job> live() {
        allRead = true;
        return jobs(rows(LIVE, List.of()));
    }

    /** Whether all have been read in this process, so that reading all again costs next to nothing. */
    boolean allRead() {
        return allRead;
    }

    /** Those of them for which a condition on their row holds. */
    List<Job> live(String where, String value) {
        return jobs(rows(LIVE + " AND (" + where + ")", List.of(value)));
    }

    /** @throws BadFileException when there is none or its row is damaged */
    Job one(String id) throws BadFileException {
        Row row = rows("id = ?", List.of(id)).stream().findFirst()
                .orElseThrow(() -> none(id));
        Optional<Job> before = before(row);
        if (before.isPresent()) {
            return before.get();
        }
        List<Text> text = texts(List.of(row));
        if (text.isEmpty()) {
            throw none(id);
        }
        Job job = read(text.getFirst());
        keep(row, job);
        return job;
    }

    private static BadFileException none(String id) {
        return new BadFileException("job " + id, 0, "", "the ledger has no such job",
                "List the jobs with: greenbead ledger list");
    }

    /** A row's text as a job; empty where it is damaged, which is written down. */
    Optional<Job> readable(String id, String body) {
        try {
            return Optional.of(read(new Text(id, body)));
        } catch (BadFileException e) {
            LOG.warn("{}", e.getMessage());
            return Optional.empty();
        }
    }

    /** What is wrong with rows that cannot be read, in the bin or not. One that was read before and has not changed is sound. */
    List<BadFileException> damaged() {
        List<Row> unread = rows("true", List.of()).stream().filter(r -> before(r).isEmpty()).toList();
        var found = new ArrayList<BadFileException>();
        for (int from = 0; from < unread.size(); from += AT_ONCE) {
            found.addAll(texts(unread.subList(from, Math.min(unread.size(), from + AT_ONCE))).parallelStream()
                    .flatMap(t -> fault(t).stream()).toList());
        }
        return found;
    }

    private Optional<BadFileException> fault(Text text) {
        try {
            files.parse(text.body(), "job " + text.id(), Format.JOB, Job.class);
            return Optional.empty();
        } catch (BadFileException e) {
            return Optional.of(e);
        }
    }

    /** This process has written it: what was read is of before, whatever its mark. */
    void changed(String id) {
        known.remove(id);
    }

    private List<Row> rows(String where, List<String> values) {
        var query = handle.createQuery("SELECT id, updated_at, octet_length(body) FROM job WHERE " + where
                + " ORDER BY id DESC");
        for (int i = 0; i < values.size(); i++) {
            query.bind(i, values.get(i));
        }
        return query.map((r, c) -> new Row(r.getString(1), new Mark(r.getString(2), r.getLong(3)))).list();
    }

    private List<Job> jobs(List<Row> rows) {
        Map<String, Job> jobs = new HashMap<>();
        var unread = new ArrayList<Row>();
        for (Row row : rows) {
            before(row).ifPresentOrElse(job -> jobs.put(row.id(), job), () -> unread.add(row));
        }
        for (int from = 0; from < unread.size(); from += AT_ONCE) {
            List<Row> some = unread.subList(from, Math.min(unread.size(), from + AT_ONCE));
            Map<String, Row> byId = some.stream().collect(Collectors.toMap(Row::id, r -> r));
            List<Read> read = texts(some).parallelStream()
                    .map(t -> new Read(byId.get(t.id()), readable(t.id(), t.body()))).toList();
            for (Read one : read) {
                one.job().ifPresent(job -> {
                    keep(one.row(), job);
                    jobs.put(one.row().id(), job);
                });
            }
        }
        return rows.stream().map(Row::id).filter(jobs::containsKey).map(jobs::get).toList();
    }

    /** Of those that are still there: another process may have emptied its bin meanwhile. */
    private List<Text> texts(List<Row> rows) {
        return handle.createQuery("SELECT id, body FROM job WHERE id IN (<ids>) ORDER BY id DESC")
                .bindList("ids", rows.stream().map(Row::id).toList())
                .map((r, c) -> new Text(r.getString(1), r.getString(2))).list();
    }

    private Job read(Text text) throws BadFileException {
        return files.kept(text.body(), "job " + text.id(), Format.JOB, Job.class);
    }

    private Optional<Job> before(Row row) {
        Known read = known.get(row.id());
        return read != null && read.mark().equals(row.mark())
                ? Optional.ofNullable(read.job().get())
                : Optional.empty();
    }

    private void keep(Row row, Job job) {
        known.put(row.id(), new Known(row.mark(), new SoftReference<>(job)));
    }
}
