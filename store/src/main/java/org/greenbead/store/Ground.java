package org.greenbead.store;

import java.time.InstantSource;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.board.Board;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.Job;
import org.jdbi.v3.core.Handle;

/**
 * Boards, benches and recipes as jobs at their end were worked with. One is kept when it is first changed after the end of a job, so that no
 * change touches a job that is over; open jobs take up what was changed. Guarded by the ledger's own lock.
 */
final class Ground {
    /** Whether the text of a job names it as what it stands on: asked of all jobs without taking their texts apart. */
    private static final Map<Format, String> STANDS = Map.of(
            Format.BOARD, "json_extract(job.body, '$.board') = :id",
            Format.BENCH, "json_extract(job.body, '$.bench') = :id",
            Format.RECIPE,
            "EXISTS (SELECT 1 FROM json_each(job.body, '$.beads') WHERE json_extract(value, '$.recipe') = :id)");
    private final Handle handle;
    private final InstantSource clock;

    /**
     * A document as a job had it.
     *
     * @param job  its number
     * @param kind as in "board"
     */
    record Plot(String job, String kind, String id, String body) {
        /** @throws BadFileException where it is not what that job stands on */
        void sound(Job its, OpenFiles files) throws BadFileException {
            String name = kind + " " + id + " of job " + job;
            Format format = STANDS.keySet().stream().filter(f -> f.word().equals(kind)).findFirst()
                    .filter(f -> stands(its, f, id))
                    .orElseThrow(() -> new BadFileException(name, 0, "", "the job does not stand on it",
                            "Make the bundle again"));
            Object read = files.parse(body, name, format, format.record());
            if (read instanceof Board board) {
                board.requireChip(its.target());
            }
        }
    }

    Ground(Handle handle, InstantSource clock) {
        this.handle = handle;
        this.clock = clock;
    }

    private static boolean ended(Job job) {
        return job.inHand().isEmpty();
    }

    private static boolean stands(Job job, Format format, String id) {
        return switch (format) {
            case BOARD -> job.board().equals(id);
            case BENCH -> job.bench().equals(id);
            case RECIPE -> job.beads().stream().anyMatch(b -> b.recipe().filter(id::equals).isPresent());
            default -> false;
        };
    }

    /** A document is about to become another one: jobs at their end keep what they had. */
    void before(Format format, String id, String now) {
        if (!STANDS.containsKey(format)) {
            return;
        }
        Optional<String> was = handle.createQuery("SELECT body FROM document WHERE kind = :kind AND id = :id")
                .bind("kind", format.word()).bind("id", id).mapTo(String.class).findOne();
        if (was.isEmpty() || was.get().equals(now)) {
            return;
        }
        handle.createUpdate("INSERT INTO ground (job_id, kind, id, body, kept_at) "
                + "SELECT job.id, :kind, :id, :body, :at FROM job WHERE instr(job.body, :quoted) > 0 "
                + "AND NOT EXISTS (SELECT 1 FROM ground g WHERE g.job_id = job.id AND g.kind = :kind AND g.id = :id) "
                // A damaged row is no job; nobody can plan from it.
                + "AND CASE WHEN json_valid(job.body) THEN " + STANDS.get(format)
                + " AND NOT EXISTS (SELECT 1 FROM json_each(job.body, '$.beads') WHERE json_extract(value, '$.state') = :open) ELSE 0 END")
                .bind("kind", format.word()).bind("id", id).bind("body", was.get())
                .bind("at", clock.instant().toString()).bind("quoted", '"' + id + '"')
                .bind("open", BeadState.OPEN.name().toLowerCase(Locale.ROOT)).execute();
    }

    /** The first one kept stays: it is what the job ended with. */
    void keep(Plot plot) {
        handle.createUpdate(
                "INSERT INTO ground (job_id, kind, id, body, kept_at) VALUES (:job, :kind, :id, :body, :at) ON CONFLICT DO NOTHING")
                .bind("job", plot.job()).bind("kind", plot.kind()).bind("id", plot.id())
                .bind("body", plot.body())
                .bind("at", clock.instant().toString()).execute();
    }

    /** A job that is worked on again stands on what there is now. */
    void saved(Job job) {
        if (!ended(job)) {
            forget(job.id());
        }
    }

    void forget(String job) {
        handle.createUpdate("DELETE FROM ground WHERE job_id = :job").bind("job", job).execute();
    }

    /** Its text as the job had it; empty where it has not been changed since, or the job is still open. */
    Optional<String> of(Job job, Format format, String id) {
        return ended(job)
                ? handle.createQuery(
                        "SELECT body FROM ground WHERE job_id = :job AND kind = :kind AND id = :id")
                        .bind("job", job.id()).bind("kind", format.word()).bind("id", id)
                        .mapTo(String.class).findOne()
                : Optional.empty();
    }

    /** All that was kept for a job. */
    List<Plot> all(Job job) {
        return handle.createQuery("SELECT kind, id, body FROM ground WHERE job_id = :job ORDER BY kind, id")
                .bind("job", job.id())
                .map((r, c) -> new Plot(job.id(), r.getString(1), r.getString(2), r.getString(3))).list();
    }
}
