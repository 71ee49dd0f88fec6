package org.greenbead.core.search;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.route.Job;

/**
 * Finds jobs by words. A job is found when every wish of the query stands somewhere in it; where it stands says how far up it comes. The words of every job are
 * made ready once, so that each letter of a query is answered at once among thousands.
 */
public final class JobSearch {
    private final List<Ready> jobs;

    /**
     * A job that was found.
     *
     * @param score the higher the further up
     * @param where in what the first wish was met, for the eye: "complaint", "record symptom"
     */
    public record Hit(Job job, int score, String where) {}

    private record Place(String name, String text, int weight) {}

    private record Ready(Job job, List<Place> places) {}

    private JobSearch(List<Ready> jobs) {
        this.jobs = jobs;
    }

    public static JobSearch among(List<Job> jobs) {
        return new JobSearch(List.of()).now(jobs);
    }

    /** The same for jobs as they are now: the words of those that are the same as before are kept. */
    public JobSearch now(List<Job> now) {
        Map<Job, Ready> before = new IdentityHashMap<>();
        jobs.forEach(r -> before.put(r.job, r));
        return new JobSearch(now.stream().map(
                j -> before.containsKey(j) ? before.get(j) : new Ready(j, places(j))).toList());
    }

    public boolean isEmpty() {
        return jobs.isEmpty();
    }

    /** All jobs for an empty query, in their order. */
    public static List<Hit> find(List<Job> jobs, String query) {
        return among(jobs).find(query);
    }

    /** All jobs for an empty query, in their order. */
    public List<Hit> find(String query) {
        List<BenchWords.Wish> wishes = BenchWords.shipped().read(query);
        var hits = new ArrayList<Hit>();
        for (Ready ready : jobs) {
            hit(ready, wishes).ifPresent(hits::add);
        }
        hits.sort(Comparator.comparingInt(Hit::score).reversed());
        return List.copyOf(hits);
    }

    private static Optional<Hit> hit(Ready ready, List<BenchWords.Wish> wishes) {
        int score = 0;
        String where = "";
        for (BenchWords.Wish wish : wishes) {
            Place best = null;
            int bestScore = 0;
            for (Place place : ready.places) {
                for (String text : wish.anyOf()) {
                    int here = place.weight * (text.equals(wish.said()) ? 2 : 1);
                    if (here > bestScore && contains(place.text, text)) {
                        best = place;
                        bestScore = here;
                    }
                }
            }
            if (best == null) {
                return Optional.empty();
            }
            score += bestScore;
            where = where.isEmpty() ? best.name : where;
        }
        return Optional.of(new Hit(ready.job, score, where));
    }

    /** At the beginning of a word, so that "tin" is not found in "casting". */
    private static boolean contains(String text, String wanted) {
        int at = text.indexOf(wanted);
        while (at >= 0) {
            if (at == 0 || !Character.isLetterOrDigit(text.charAt(at - 1))) {
                return true;
            }
            at = text.indexOf(wanted, at + 1);
        }
        return false;
    }

    private static List<Place> places(Job job) {
        var places = new ArrayList<Place>();
        places.add(new Place("number", job.id().toLowerCase(Locale.ROOT), 8));
        places.add(new Place("title", job.title().toLowerCase(Locale.ROOT), 6));
        places.add(new Place("complaint", job.complaint().toLowerCase(Locale.ROOT), 6));
        places.add(new Place("customer", job.customer().toLowerCase(Locale.ROOT), 5));
        places.add(new Place("board", (job.board() + " " + job.target()).toLowerCase(Locale.ROOT), 5));
        places.add(new Place("kind",
                job.facts().at("job.kind").map(String::valueOf).orElse("").toLowerCase(Locale.ROOT), 4));
        job.records().forEach(r -> places.add(new Place(r.type(),
                (r.type() + " " + r.fields().values()).replace('_', ' ').toLowerCase(Locale.ROOT), 3)));
        places.add(new Place("facts", words(job.facts().root()), 2));
        return places;
    }

    private static String words(Object tree) {
        return switch (tree) {
            case Map<?, ?> map -> String.join(" ", map.values().stream().map(JobSearch::words).toList());
            case List<?> list -> String.join(" ", list.stream().map(JobSearch::words).toList());
            case String s -> s.toLowerCase(Locale.ROOT).replace('_', ' ');
            default -> "";
        };
    }
}
