package org.greenbead.core.work;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiPredicate;
import java.util.stream.Collectors;
import org.greenbead.core.kind.Table;
import org.greenbead.core.record.Kept;
import org.greenbead.core.record.RecordType;
import org.greenbead.core.record.RecordTypes;
import org.greenbead.core.route.Job;

/**
 * What a bench does the same way every time is not asked anew: the settings, tools and measures of the job before are written down again with one press, each
 * still to be changed. What was noted already in this job stays as it is, and so does what a way of working settled in it. Which fields these are: {@code as-before.txt}; what has to be looked at is never among them.
 */
public final class AsBefore {
    private static final Map<String, Usual> USUAL = Table.rows(AsBefore.class, "as-before.txt", 3).stream()
            .map(row -> new Usual(row[0], Same.valueOf(row[1].toUpperCase(java.util.Locale.ROOT)),
                    Arrays.asList(row[2].split("\\s+"))))
            .collect(Collectors.toUnmodifiableMap(Usual::type, u -> u));

    /** What two jobs must share. */
    enum Same {
        BENCH((a, b) -> a.bench().equals(b.bench())), BOARD((a, b) -> a.board().equals(b.board())), CHIP(
                (a, b) -> a.board().equals(b.board()) && a.target().equals(b.target()));

        private final BiPredicate<Job, Job> holds;

        Same(BiPredicate<Job, Job> holds) {
            this.holds = holds;
        }
    }

    private record Usual(String type, Same same, List<String> fields) {}

    /**
     * What is offered.
     *
     * @param job     where it was written down last
     * @param at      when
     * @param records as written there, with the fields that are the same every time
     */
    public record Source(String type, String job, Instant at, List<Kept> records) {
        public Source {
            records = List.copyOf(records);
        }
    }

    private AsBefore() {
    }

    /** Types and fields that are offered at all. */
    public static Map<String, List<String>> fields() {
        return USUAL.values().stream().collect(Collectors.toUnmodifiableMap(Usual::type, Usual::fields));
    }

    /** The last other job that shares what it must and wrote such a record. @param ledger all jobs, this one included or not */
    public static Optional<Source> of(Job job, String type, List<Job> ledger) {
        Usual usual = USUAL.get(type);
        if (usual == null) {
            return Optional.empty();
        }
        return ledger.stream().filter(j -> !j.id().equals(job.id()) && usual.same().holds.test(j, job))
                .map(j -> source(usual, j)).filter(s -> !s.records().isEmpty())
                .max(Comparator.comparing(Source::at));
    }

    private static Source source(Usual usual, Job job) {
        RecordType type = RecordTypes.shipped().require(usual.type());
        List<Kept> there = job.records(usual.type());
        List<Kept> kept = type.named() || there.isEmpty() ? there : List.of(there.getLast());
        var telling = new ArrayList<Kept>();
        for (Kept record : kept) {
            Map<String, Object> same = new LinkedHashMap<>();
            usual.fields().forEach(f -> record.noted(f).ifPresent(v -> same.put(f, v)));
            if (!same.isEmpty() && (!type.named() || !record.text(type.key()).isEmpty())) {
                telling.add(new Kept(record.id(), usual.type(), record.at(), record.author(), same));
            }
        }
        return new Source(usual.type(), job.id(),
                telling.stream().map(Kept::at).max(Comparator.naturalOrder()).orElse(Instant.MIN), telling);
    }

    /** The records of this job with what is missing in them; empty where nothing is. @param by who says that it is as before */
    public static List<Kept> missing(Job job, Source source, Instant now, String by) {
        RecordType type = RecordTypes.shipped().require(source.type());
        var changed = new ArrayList<Kept>();
        Job growing = job;
        for (Kept before : source.records()) {
            List<Kept> ofType = growing.records(type.id());
            Optional<Kept> there = ofType.stream().filter(r -> !type.many()
                    || r.text(type.key()).equalsIgnoreCase(before.text(type.key()))).reduce((a, b) -> b);
            if (there.isEmpty() && type.many() && !type.named() && !ofType.isEmpty()) {
                // Another wash, another jar: what was the same of one says nothing of the other.
                continue;
            }
            Kept record = there.orElse(new Kept(growing.freeId(type.id()), type.id(), now, by, Map.of()));
            Kept filled = record;
            for (Map.Entry<String, Object> field : before.fields().entrySet()) {
                boolean settled = type.item(field.getKey()).flatMap(RecordType.Item::fact)
                        .flatMap(job.facts()::at)
                        .isPresent();
                if (filled.noted(field.getKey()).isEmpty() && !settled) {
                    filled = filled.with(field.getKey(), field.getValue(), now, by);
                }
            }
            if (!filled.fields().equals(record.fields())) {
                changed.add(filled);
                growing = growing.with(filled);
            }
        }
        return List.copyOf(changed);
    }

    /** The job with all of them. */
    public static Job written(Job job, List<Kept> records) {
        Job longer = job;
        for (Kept record : records) {
            longer = longer.with(record);
        }
        return longer;
    }
}
