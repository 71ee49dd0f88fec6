package org.greenbead.core.decision;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.book.Condition;
import org.greenbead.core.book.Facts;
import org.greenbead.core.kind.Table;
import org.greenbead.core.odds.Outcomes;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.Strands;

/**
 * Where the fault may sit, by Bayes' rule over what is on record: {@code P(s | e) ~ P(s) prod P(e | s)}, each sign taken as independent of the others
 * given the place. What is thought beforehand is one of each place, and one more for every job of this type of board whose cause was noted and whose
 * repair passed. The next best test is the one that is expected to take the most doubt away a minute (mutual information; Lindley 1956).
 */
public final class Suspicions {
    private static final List<Sign> SIGNS = signs();
    private static final List<Test> TESTS = tests();

    private Suspicions() {
    }

    /** Where a fault sits. Its words are {@code suspicion.<key>}. */
    public enum Place {
        JOINT("joint"), CHIP("die",
                "bump"), BOARD("board"), PART("other_part"), CONFIGURATION("configuration");

        private final List<String> classes;

        Place(String... classes) {
            this.classes = List.of(classes);
        }
    }

    private record Sign(String id, Condition when, double[] likelihood) {}

    private record Test(String id, double minutes, Condition made, double[] positive) {}

    /**
     * A sign that is on record.
     *
     * @param decibans how much it speaks for a place against the mean of the others, ten times the logarithm of the ratio (Good 1950)
     */
    public record Speaks(String id, Map<Place, Double> decibans) {}

    /** @param bits doubt that it is expected to take away */
    public record Next(String id, double minutes, double bits) {}

    /** @param chance by place, the sum is one; @param next the one that tells the most a minute first */
    public record Weighed(Map<Place, Double> chance, List<Speaks> signs, List<Next> next) {
        public Place likeliest() {
            return chance.entrySet().stream().max(Map.Entry.comparingByValue()).orElseThrow().getKey();
        }

        /** Doubt that is left, bits: 0 = sure, 2.3 = as open as it can be. */
        public double doubtBits() {
            return entropy(chance.values().stream().mapToDouble(v -> v).toArray());
        }
    }

    /** @param ledger all jobs, this one included or not */
    public static Weighed of(Job job, Facts facts, List<Job> ledger) {
        double[] p = new double[Place.values().length];
        Arrays.fill(p, 1);
        Map<String, List<Job>> strands = Strands.byJob(ledger);
        for (Job other : ledger) {
            if (other.board().equals(job.board()) && !other.id().equals(job.id())
                    && !Outcomes.drill(other) && Outcomes.of(other, strands).orElse(false)) {
                other.records("diagnosis")
                        .forEach(d -> place(d.text("cause_class")).ifPresent(s -> p[s.ordinal()]++));
            }
        }
        var signs = new ArrayList<Speaks>();
        for (Sign sign : SIGNS) {
            if (!sign.when().holds(facts)) {
                continue;
            }
            Map<Place, Double> says = new EnumMap<>(Place.class);
            for (Place s : Place.values()) {
                p[s.ordinal()] *= sign.likelihood()[s.ordinal()];
                says.put(s, decibans(sign.likelihood(), s.ordinal()));
            }
            signs.add(new Speaks(sign.id(), says));
        }
        normalise(p);
        Map<Place, Double> chance = new EnumMap<>(Place.class);
        for (Place s : Place.values()) {
            chance.put(s, p[s.ordinal()]);
        }
        List<Next> next = TESTS.stream().filter(t -> !t.made().holds(facts))
                .map(t -> new Next(t.id(), t.minutes(), information(p, t.positive())))
                .sorted(Comparator.comparingDouble((Next n) -> n.bits() / n.minutes()).reversed()).toList();
        return new Weighed(chance, List.copyOf(signs), next);
    }

    private static Optional<Place> place(String causeClass) {
        return Arrays.stream(Place.values()).filter(s -> s.classes.contains(causeClass)).findFirst();
    }

    private static double decibans(double[] likelihood, int at) {
        double others = (Arrays.stream(likelihood).sum() - likelihood[at]) / (likelihood.length - 1);
        return 10 * Math.log10(likelihood[at] / others);
    }

    /** What a test with a yes or a no is expected to take away, bits. */
    static double information(double[] p, double[] positive) {
        double yes = 0;
        double[] ifYes = new double[p.length];
        double[] ifNo = new double[p.length];
        for (int i = 0; i < p.length; i++) {
            yes += p[i] * positive[i];
            ifYes[i] = p[i] * positive[i];
            ifNo[i] = p[i] * (1 - positive[i]);
        }
        normalise(ifYes);
        normalise(ifNo);
        return entropy(p) - yes * entropy(ifYes) - (1 - yes) * entropy(ifNo);
    }

    private static void normalise(double[] p) {
        double sum = Arrays.stream(p).sum();
        for (int i = 0; i < p.length; i++) {
            p[i] /= sum;
        }
    }

    private static double entropy(double[] p) {
        return Arrays.stream(p).filter(v -> v > 0).map(v -> -v * Math.log(v) / Math.log(2)).sum();
    }

    private static double[] numbers(String[] cells, int from) {
        return Arrays.stream(cells).skip(from).mapToDouble(Double::parseDouble).toArray();
    }

    private static List<Sign> signs() {
        return Table.rows(Suspicions.class, "evidence.txt", 7).stream()
                .map(c -> new Sign(c[0], new Condition(c[1]), numbers(c, 2)))
                .toList();
    }

    private static List<Test> tests() {
        return Table.rows(Suspicions.class, "tests.txt", 8).stream()
                .map(c -> new Test(c[0], Double.parseDouble(c[1]), new Condition(c[2]), numbers(c, 3)))
                .toList();
    }

    static List<String> ids() {
        var ids = new ArrayList<String>();
        SIGNS.forEach(s -> ids.add("sign." + s.id()));
        TESTS.forEach(t -> ids.add("nexttest." + t.id()));
        for (Place s : Place.values()) {
            ids.add("suspicion." + s.name().toLowerCase(Locale.ROOT));
        }
        return List.copyOf(ids);
    }
}
