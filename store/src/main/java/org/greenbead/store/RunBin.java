package org.greenbead.store;

import java.io.IOException;
import java.nio.file.Files;
import java.time.Instant;
import java.time.InstantSource;
import java.util.ArrayList;
import java.util.List;
import org.jdbi.v3.core.Handle;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Runs that were thrown away: trials, false starts. They are in no list, teach nothing and are counted nowhere, and can be taken back whole; after {@link JobBin#KEPT} they may
 * be emptied, by a press. What the chip and the board went through stays in their lives: the heat was.
 */
public final class RunBin {
    private static final Logger LOG = LoggerFactory.getLogger(RunBin.class);
    private final Ledger ledger;
    private final Handle handle;
    private final InstantSource clock;

    /** A run in the bin and since when. */
    public record Binned(RunEntry run, Instant at) {
        /** From when on it may be emptied. */
        public Instant until() {
            return at.plus(JobBin.KEPT);
        }
    }

    RunBin(Ledger ledger, Handle handle, InstantSource clock) {
        this.ledger = ledger;
        this.handle = handle;
        this.clock = clock;
    }

    /** What lies in it, the newest first. */
    public List<Binned> all() {
        synchronized (ledger) {
            return handle
                    .createQuery("SELECT * FROM run WHERE binned_at IS NOT NULL ORDER BY binned_at DESC, id")
                    .map((r, c) -> new Binned(Ledger.entry(r), Instant.parse(r.getString("binned_at"))))
                    .list();
        }
    }

    /** Reports that were made from a run: of the run itself, or of its job since it ended. */
    public List<JobEvent> reports(RunEntry run) {
        Instant since = run.endedAt().orElse(run.startedAt());
        return ledger.reports(run.jobId()).stream()
                .filter(e -> e.detail().startsWith(run.id()) || !e.at().isBefore(since)).toList();
    }

    /**
     * Throws a run away.
     *
     * @param evenSo also where a report was made from it; the report stays as it is
     * @throws LedgerException when there is no such run, it is open, or a report was made from it
     */
    public void put(String id, boolean evenSo) throws LedgerException {
        synchronized (ledger) {
            ledger.mayWrite();
            RunEntry run = ledger.run(id).orElseThrow(() -> new LedgerException("there is no run " + id));
            if (run.outcome().isEmpty()) {
                throw new LedgerException("run " + id + " stays: it is open. End it first, or break it off.");
            }
            List<JobEvent> reports = reports(run);
            if (!reports.isEmpty() && !evenSo) {
                throw new ReportedException("run " + id + " stays: " + Ledger.named(reports)
                        + (reports.size() == 1 ? " was made from it" : " were made from it"));
            }
            mark(run, clock.instant().toString(), "run binned", "binned_at IS NULL");
        }
    }

    /** @throws LedgerException when no such run lies in it */
    public void takeBack(String id) throws LedgerException {
        synchronized (ledger) {
            ledger.mayWrite();
            RunEntry run = ledger.run(id)
                    .orElseThrow(() -> new LedgerException("no run " + id + " lies in the bin"));
            mark(run, null, "run taken back", "binned_at IS NOT NULL");
        }
    }

    private void mark(RunEntry run, String at, String kind, String where) throws LedgerException {
        int changed = handle.createUpdate("UPDATE run SET binned_at = :at WHERE id = :id AND " + where)
                .bind("at", at).bind("id", run.id()).execute();
        if (changed == 0) {
            throw new LedgerException(at == null
                    ? "no run " + run.id() + " lies in the bin"
                    : "run " + run.id() + " lies in the bin already");
        }
        ledger.event(run.jobId(), kind, run.id());
    }

    /**
     * Deletes for good what has lain here for {@link JobBin#KEPT} and more. The log goes too, unless a report was made from it.
     *
     * @return ids of what is gone
     */
    public List<String> empty() {
        synchronized (ledger) {
            ledger.mayWrite();
            Instant before = clock.instant().minus(JobBin.KEPT);
            var gone = new ArrayList<String>();
            for (Binned old : all()) {
                if (old.at().isAfter(before)) {
                    continue;
                }
                boolean reported = !reports(old.run()).isEmpty();
                handle.createUpdate("DELETE FROM run WHERE id = :id").bind("id", old.run().id()).execute();
                gone.add(old.run().id());
                if (!reported) {
                    delete(old.run());
                }
            }
            return List.copyOf(gone);
        }
    }

    private void delete(RunEntry run) {
        try {
            Files.deleteIfExists(ledger.logFile(run));
        } catch (IOException e) {
            // The row is gone and nothing leads to the file any more.
            LOG.warn("the log of {} stays on the disk: {}", run.id(), e.getMessage());
        }
    }
}
