package org.greenbead.core.odds;

import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Stream;
import org.greenbead.core.record.Kept;
import org.greenbead.core.record.Tested;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.Strands;

/**
 * What became of jobs: by the last result of each thing that was tested after the work. All passed is well, one failed is not; a job in which
 * nothing was tested, a complaint was not tried again, or something was left untested and nothing failed, says nothing and is counted apart. Nor does
 * a job count as a try in which nothing was ever heated: what was tested there says nothing of a way of working.
 */
public final class Outcomes {
    /** By what jobs are put together. */
    public enum By {
        KIND, BOARD, CHIP, ALLOY, BENCH, PERSON, MONTH
    }

    /**
     * @param groups by name; the surest first
     * @param untold jobs of which nothing is known: no heat, or no result after it
     * @param drills practice jobs, which are in no group
     */
    public record Table(By by, List<Group> groups, int untold, Odds drills) {
        /** A difference between two of so few looks is easily chance: so many pairs were looked at. */
        public int pairs() {
            return groups.size() * (groups.size() - 1) / 2;
        }
    }

    public record Group(String name, Odds odds) {}

    private Outcomes() {
    }

    /**
     * Empty where it is not told.
     *
     * @param strands its further chips, by {@link Strands#byJob}
     */
    public static Optional<Boolean> of(Job job, Map<String, List<Job>> strands) {
        List<Instant> elsewhere = Strands.heatedElsewhere(job, strands.getOrDefault(job.id(), List.of()));
        // Of thousands of jobs at once: the few records that tell are picked in one walk, in their order.
        var telling = new ArrayList<Kept>();
        for (Kept record : job.records()) {
            if (tells(record)) {
                telling.add(record);
            }
        }
        Map<String, Kept> last = Tested.last(Tested.now(telling, elsewhere));
        if (last.isEmpty()) {
            return Optional.empty();
        }
        if (last.values().stream().anyMatch(t -> t.text("result").equals("fail"))) {
            return Optional.of(false);
        }
        if (!Tested.overtaken(telling, elsewhere).isEmpty() || !telling.stream()
                .filter(r -> r.type().equals("symptom"))
                .allMatch(c -> last.containsKey(Tested.plain(c.text("words"))))) {
            return Optional.empty();
        }
        return last.values().stream().allMatch(t -> t.text("result").equals("pass"))
                ? Optional.of(true)
                : Optional.empty();
    }

    private static boolean tells(Kept record) {
        return switch (record.type()) {
            case "tested", "run", "symptom" -> true;
            default -> false;
        };
    }

    /** Whether there was a try at all: a heat in the job or in one of its strands, whichever way it was run. */
    public static boolean tried(Job job, Map<String, List<Job>> strands) {
        return heated(job) || strands.getOrDefault(job.id(), List.of()).stream().anyMatch(Outcomes::heated);
    }

    private static boolean heated(Job job) {
        for (Kept record : job.records()) {
            if (record.type().equals("run")) {
                return true;
            }
        }
        for (Bead bead : job.beads()) {
            if (bead.kind() == Bead.Kind.RUN && bead.worked()) {
                return true;
            }
        }
        return false;
    }

    /** What came of a try; empty where there was none, or nothing is told of it. */
    public static Optional<Boolean> ofTry(Job job, Map<String, List<Job>> strands) {
        return tried(job, strands) ? of(job, strands) : Optional.empty();
    }

    /** Practice on a board that is nobody's: its own account, and no word about customers' boards. */
    public static boolean drill(Job job) {
        List<Kept> intake = job.records("intake");
        return !intake.isEmpty() && intake.getLast().text("client").equals("practice");
    }

    /** @param zone whose months count */
    public static Table by(By by, List<Job> jobs, ZoneId zone) {
        Map<String, int[]> counted = new TreeMap<>();
        int untold = 0;
        int[] drilled = new int[2];
        Function<Job, String> name = name(by, zone);
        Map<String, List<Job>> strands = Strands.byJob(jobs);
        // A strand is proved with the job it belongs to.
        for (Job job : jobs.stream().filter(j -> j.strandOf().isEmpty()).toList()) {
            Optional<Boolean> well = ofTry(job, strands);
            if (drill(job)) {
                drilled[0] += well.orElse(false) ? 1 : 0;
                drilled[1] += well.isPresent() ? 1 : 0;
                continue;
            }
            if (well.isEmpty()) {
                untold++;
                continue;
            }
            int[] n = counted.computeIfAbsent(name.apply(job), k -> new int[2]);
            n[0] += well.get() ? 1 : 0;
            n[1]++;
        }
        var groups = new ArrayList<Group>();
        counted.forEach((k, n) -> groups.add(new Group(k, Odds.of(n[0], n[1]))));
        if (by != By.MONTH) {
            groups.sort(Comparator.comparingInt((Group g) -> g.odds().tries()).reversed());
        }
        return new Table(by, List.copyOf(groups), untold, Odds.of(drilled[0], drilled[1]));
    }

    /** What a job is called in such a grouping; empty where that is not noted. */
    static Function<Job, String> name(By by, ZoneId zone) {
        return switch (by) {
            case KIND -> j -> j.facts().at("job.kind").map(String::valueOf).orElse("");
            case BOARD -> Job::board;
            case CHIP -> j -> j.board() + " " + j.target();
            case ALLOY -> Outcomes::alloy;
            case BENCH -> Job::bench;
            case PERSON -> j -> tested(j).map(Kept::author).orElse("");
            case MONTH ->
                j -> tested(j).map(t -> t.at().atZone(zone).toLocalDate().toString().substring(0, 7))
                        .orElse("");
        };
    }

    private static Optional<Kept> tested(Job job) {
        return job.records("tested").stream().max(Comparator.comparing(Kept::at));
    }

    private static String alloy(Job job) {
        return Stream.concat(job.records("plan").stream(), job.records("chip").stream())
                .map(r -> r.text("ball_alloy")).filter(a -> !a.isEmpty()).findFirst().orElse("");
    }
}
