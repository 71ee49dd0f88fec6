package org.greenbead.core.account;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.CheckItem;
import org.greenbead.core.route.Entry;
import org.greenbead.core.route.Job;

/**
 * The account of a job: every change of its records, checks, steps and typed facts with its time and author. It is written where a job is kept,
 * by holding the new form against the old one, so that nothing can be changed past it; taking back is a line of its own.
 */
public final class Account {
    private static final String NOTHING = "";

    private Account() {
    }

    /**
     * The later form with its account written on from the earlier one.
     *
     * @param before empty when the job is opened
     */
    public static Job noted(Optional<Job> before, Job after, Instant at, String by) {
        List<Entry> longer = new ArrayList<>(before.map(Job::account).orElse(after.account()));
        Map<String, Object> was = before.map(Account::state).orElseGet(TreeMap::new);
        Map<String, Object> is = state(after);
        if (before.isEmpty() && longer.isEmpty()) {
            was.putAll(opened(after, at, by, longer));
        }
        var paths = new LinkedHashMap<String, Object>(was);
        paths.putAll(is);
        for (String path : paths.keySet()) {
            if (!Objects.equals(was.get(path), is.get(path))) {
                longer.add(new Entry(longer.size() + 1, at, by, path, was.get(path), is.get(path)));
            }
        }
        return after.withAccount(longer);
    }

    /** The first lines of an account: the opening, and records that were there already, each with its own time and author. @return what they say */
    private static Map<String, Object> opened(Job job, Instant at, String by, List<Entry> account) {
        List<Kept> old = job.records().stream().filter(r -> r.at().isBefore(at))
                .sorted(Comparator.comparing(Kept::at)).toList();
        account.add(new Entry(1, old.isEmpty() ? at : old.getFirst().at(), by, "opened", null, job.title()));
        var said = new LinkedHashMap<String, Object>();
        for (Kept record : old) {
            record(record).forEach((path, value) -> {
                account.add(new Entry(account.size() + 1, record.at(), record.author(), path, null, value));
                said.put(path, value);
            });
        }
        return said;
    }

    private static Map<String, Object> record(Kept record) {
        var state = new LinkedHashMap<String, Object>();
        state.put("record/" + record.id(), record.type());
        record.fields().forEach((name, value) -> state.put("record/" + record.id() + "/" + name, value));
        return state;
    }

    /** Everything of a job that an account tells, by path. A check that nobody spoke of and an open step are not in it. */
    static Map<String, Object> state(Job job) {
        var state = new LinkedHashMap<String, Object>();
        job.records().forEach(record -> state.putAll(record(record)));
        for (Bead bead : job.beads()) {
            for (CheckItem check : bead.checks()) {
                if (check.state() != org.greenbead.core.route.Attest.UNKNOWN) {
                    state.put("check/" + check.id(), check.state().name().toLowerCase(Locale.ROOT)
                            + (check.tickedItself() ? ", shown" : NOTHING));
                }
            }
            if (bead.state() != BeadState.OPEN) {
                state.put("bead/" + bead.id(), bead.state().name().toLowerCase(Locale.ROOT));
            }
        }
        job.facts().root().forEach((entity, value) -> {
            if (value instanceof Map<?, ?> fields) {
                fields.forEach((field, v) -> state.put("fact/" + entity + "." + field, v));
            } else {
                state.put("fact/" + entity, value);
            }
        });
        state.put("route", job.beads().stream().map(Bead::id).toList());
        return state;
    }

    /** What an account comes to when it is read from its first line to its last. */
    public static Map<String, Object> replay(List<Entry> account) {
        var state = new LinkedHashMap<String, Object>();
        for (Entry entry : account) {
            if (entry.what().equals("opened")) {
                continue;
            }
            if (entry.is() == null) {
                state.remove(entry.what());
            } else {
                state.put(entry.what(), entry.is());
            }
        }
        return state;
    }

    /**
     * Something about an account that a person should know.
     *
     * @param kind what is odd
     * @param at   the entry, the later of two
     */
    public record Oddity(Kind kind, Entry at, Optional<Entry> earlier) {
        /** What can be odd. */
        public enum Kind {
            /** Two people say different things of one reading. */
            CONTRADICTED,
            /** It is dated before the line above it. */
            CLOCK_SET_BACK,
            /** A line is missing before it. */
            CUT
        }
    }

    /** Contradictions of two people, clocks that went backwards, lines that are missing. All of it is kept as it is. */
    public static List<Oddity> oddities(List<Entry> account) {
        var found = new ArrayList<Oddity>();
        var last = new LinkedHashMap<String, Entry>();
        Entry above = null;
        for (Entry entry : account) {
            if (above != null && entry.at().isBefore(above.at())) {
                found.add(new Oddity(Oddity.Kind.CLOCK_SET_BACK, entry, Optional.of(above)));
            }
            if (entry.number() != (above == null ? 1 : above.number() + 1)) {
                found.add(new Oddity(Oddity.Kind.CUT, entry, Optional.ofNullable(above)));
            }
            Entry before = last.put(entry.what(), entry);
            // Who did it and when it was done are of each person's own act, and no reading of one thing.
            boolean reading = entry.what().startsWith("record/") && entry.what().split("/").length == 3
                    && !entry.what().endsWith("/by") && !entry.what().endsWith("/date");
            if (reading && before != null && before.is() != null && entry.is() != null
                    && !before.by().isEmpty() && !entry.by().isEmpty() && !before.by().equals(entry.by())) {
                found.add(new Oddity(Oddity.Kind.CONTRADICTED, entry, Optional.of(before)));
            }
            above = entry;
        }
        return List.copyOf(found);
    }

    /** When each step was done: the last change that made it so. Empty for a step that is open, or was done before there was an account. */
    static Map<String, Instant> done(Job job) {
        var done = new LinkedHashMap<String, Instant>();
        for (Entry entry : job.account()) {
            if (entry.what().startsWith("bead/")) {
                String bead = entry.what().substring(5);
                if (entry.is() == null) {
                    done.remove(bead);
                } else {
                    done.putIfAbsent(bead, entry.at());
                }
            }
        }
        return done;
    }

    /** The beads in the order in which they were worked; those that are open follow in the order of the route. */
    static List<Bead> worked(Job job) {
        Map<String, Instant> done = done(job);
        List<Bead> worked = job.beads().stream().filter(b -> done.containsKey(b.id()))
                .sorted(java.util.Comparator.comparing(b -> done.get(b.id()))).toList();
        // Steps done before there was an account stand where the route has them, before everything that is dated.
        var order = new ArrayList<>(
                job.beads().stream().filter(b -> b.worked() && !done.containsKey(b.id())).toList());
        order.addAll(worked);
        job.beads().stream().filter(b -> !b.worked()).forEach(order::add);
        return order;
    }
}
