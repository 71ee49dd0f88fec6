package org.greenbead.core.account;

import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Entry;
import org.greenbead.core.route.Job;

/** Records of a job that were taken back. Its account still has every word of them, so each can be brought back as it was. */
public final class Thrown {
    private static final String RECORD = "record/";
    /** The record of a heat: that a board was hot is not undone by a key. */
    private static final String HEAT = "run";

    private Thrown() {
    }

    /**
     * One that was taken back.
     *
     * @param entry number of the line that took it back
     */
    public record Gone(int entry, Kept record, Instant at, String by) {}

    /** What is told of a record while an account is read from its first line on. */
    private static final class Told {
        private final String type;
        private final Map<String, Object> fields = new LinkedHashMap<>();
        private Entry last;

        Told(Entry first) {
            type = String.valueOf(first.is());
            last = first;
        }

        Optional<Kept> record(String id) {
            try {
                return Optional.of(new Kept(id, type, last.at(), last.by(), fields));
            } catch (IllegalArgumentException e) {
                // Written by a version that knew other records; it is still read in the account.
                return Optional.empty();
            }
        }
    }

    /** All of them, the last one taken back first. */
    public static List<Gone> of(Job job) {
        var there = new LinkedHashMap<String, Told>();
        var gone = new ArrayList<Gone>();
        for (Entry entry : job.account()) {
            if (!entry.what().startsWith(RECORD)) {
                continue;
            }
            String[] path = entry.what().split("/", 3);
            if (path.length == 2) {
                if (entry.is() == null) {
                    Optional.ofNullable(there.remove(path[1])).flatMap(t -> t.record(path[1]))
                            .ifPresent(r -> gone.add(new Gone(entry.number(), r, entry.at(), entry.by())));
                } else {
                    there.put(path[1], new Told(entry));
                }
            } else if (there.containsKey(path[1])) {
                Told told = there.get(path[1]);
                told.last = entry;
                if (entry.is() == null) {
                    told.fields.remove(path[2]);
                } else {
                    told.fields.put(path[2], entry.is());
                }
            }
        }
        return gone.reversed();
    }

    /**
     * The job without a record that is there.
     *
     * @throws IllegalArgumentException when there is none, or it is the record of a heat
     */
    public static Job thrown(Job job, String recordId) {
        Kept record = job.record(recordId).orElseThrow(
                () -> new IllegalArgumentException("job " + job.id() + " has no record " + recordId));
        if (record.type().equals(HEAT)) {
            throw new IllegalArgumentException("the record of a heat stays: the board was hot, whatever is"
                    + " thought of it. Its run can be put into the bin, then it is counted nowhere");
        }
        return job.without(recordId);
    }

    /** The job with it again, under another number where its own was given to a new one. */
    public static Job broughtBack(Job job, Gone gone) {
        Kept was = gone.record();
        return job.with(job.record(was.id()).isEmpty()
                ? was
                : new Kept(job.freeId(was.type()), was.type(), was.at(), was.author(), was.fields()));
    }
}
