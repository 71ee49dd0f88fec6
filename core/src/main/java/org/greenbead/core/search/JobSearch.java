package org.greenbead.core.search;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.greenbead.core.route.Job;

/** Finds jobs by words. A job is found when every wish of the query stands somewhere in it; where it stands says how far up it comes. */
public final class JobSearch {
    private JobSearch() {
    }

    /**
     * A job that was found.
     *
     * @param score the higher the further up
     * @param where in what the first wish was met, for the eye: "complaint", "record symptom"
     */
    public record Hit(Job job, int score, String where) {}

    private record Place(String name, String text, int weight) {}

    /** All jobs for an empty query, in their order. */
    public static List<Hit> find(List<Job> jobs, String query) {
        List<BenchWords.Wish> wishes = BenchWords.shipped().read(query);
        if (wishes.isEmpty()) {
            return jobs.stream().map(j -> new Hit(j, 0, "")).toList();
        }
        var hits = new ArrayList<Hit>();
        for (Job job : jobs) {
            List<Place> places = places(job);
            int score = 0;
            String where = "";
            boolean all = true;
            for (BenchWords.Wish wish : wishes) {
                Place best = null;
                int bestScore = 0;
                for (Place place : places) {
                    for (String text : wish.anyOf()) {
                        int here = place.weight * (text.equals(wish.said()) ? 2 : 1);
                        if (here > bestScore && contains(place.text, text)) {
                            best = place;
                            bestScore = here;
                        }
                    }
                }
                all &= best != null;
                score += bestScore;
                where = where.isEmpty() && best != null ? best.name : where;
            }
            if (all) {
                hits.add(new Hit(job, score, where));
            }
        }
        hits.sort(Comparator.comparingInt(Hit::score).reversed());
        return List.copyOf(hits);
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
