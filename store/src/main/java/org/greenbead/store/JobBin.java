package org.greenbead.store;

import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.util.List;
import org.greenbead.core.route.Job;
import org.jdbi.v3.core.Handle;

/**
 * Jobs that were thrown away. They keep their history, runs and pictures and can be taken back whole; after {@link #KEPT} they may be emptied, by a press and
 * never by themselves. What was exported (reports, bundles) is not touched, and neither are logs of runs: a report is made from them.
 */
public final class JobBin {
    public static final Duration KEPT = Duration.ofDays(30);
    private final Ledger ledger;
    private final JobRows rows;
    private final Handle handle;
    private final InstantSource clock;

    /** A job in the bin, since when, and from when on it may be emptied. */
    public record Binned(Job job, Instant at) {
        public Instant until() {
            return at.plus(KEPT);
        }
    }

    JobBin(Ledger ledger, JobRows rows, Handle handle, InstantSource clock) {
        this.ledger = ledger;
        this.rows = rows;
        this.handle = handle;
        this.clock = clock;
    }

    /** What lies in it, the newest first. */
    public List<Binned> all() {
        synchronized (ledger) {
            return handle.createQuery(
                    "SELECT body, binned_at, id FROM job WHERE binned_at IS NOT NULL ORDER BY binned_at DESC, id")
                    .map((r, c) -> new String[]{r.getString(1), r.getString(2), r.getString(3)}).list()
                    .stream()
                    .flatMap(row -> rows.readable(row[2], row[0]).stream()
                            .map(job -> new Binned(job, Instant.parse(row[1]))))
                    .toList();
        }
    }

    /** @throws LedgerException when there is no such job, it has strands, or one of its runs was left open: its log is still written */
    public void put(String id) throws LedgerException {
        synchronized (ledger) {
            ledger.mayWrite();
            if (ledger.openRuns().stream().anyMatch(r -> r.jobId().equals(id))) {
                throw new LedgerException("job " + id
                        + " stays: a run of it is open. End that run first, or break it off.");
            }
            List<String> strands = ledger.jobs().stream()
                    .filter(j -> j.strandOf().filter(id::equals).isPresent())
                    .map(Job::id).toList();
            if (!strands.isEmpty()) {
                throw new LedgerException("job " + id + " stays: its further chips are worked on in "
                        + String.join(", ", strands) + ". Put those into the bin first.");
            }
            mark(id, clock.instant().toString(), "binned", "binned_at IS NULL");
        }
    }

    /** @throws LedgerException when no such job lies in it */
    public void takeBack(String id) throws LedgerException {
        synchronized (ledger) {
            ledger.mayWrite();
            mark(id, null, "taken back", "binned_at IS NOT NULL");
        }
    }

    private void mark(String id, String at, String kind, String where) throws LedgerException {
        int changed = handle.createUpdate("UPDATE job SET binned_at = :at WHERE id = :id AND " + where)
                .bind("at", at).bind("id", id).execute();
        if (changed == 0) {
            throw new LedgerException(
                    at == null ? "no job " + id + " lies in the bin" : "there is no job " + id);
        }
        ledger.event(id, kind, "");
    }

    /**
     * Deletes for good what has lain here for {@link #KEPT} and more; the logs of its runs stay in their folder.
     *
     * @return ids of what is gone
     */
    public List<String> empty() {
        synchronized (ledger) {
            ledger.mayWrite();
            String before = clock.instant().minus(KEPT).toString();
            List<String> old = handle.createQuery(
                    "SELECT id FROM job WHERE binned_at IS NOT NULL AND binned_at <= :before ORDER BY id")
                    .bind("before", before).mapTo(String.class).list();
            for (String id : old) {
                handle.useTransaction(h -> {
                    for (String table : List.of("run", "job_event", "ground")) {
                        h.createUpdate("DELETE FROM " + table + " WHERE job_id = :id").bind("id", id)
                                .execute();
                    }
                    h.createUpdate("DELETE FROM job WHERE id = :id").bind("id", id).execute();
                });
            }
            return old;
        }
    }
}
