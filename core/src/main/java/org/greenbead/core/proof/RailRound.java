package org.greenbead.core.proof;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.greenbead.core.account.RailReferences;
import org.greenbead.core.account.RecordFacts;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;
import org.greenbead.core.book.Phase;
import org.greenbead.core.electric.Rails;
import org.greenbead.core.electric.ReadWith;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;

/**
 * The rails of a board as they are measured one after the other: those that this job has, then those that other jobs on the same
 * type of board have, with the places where they were read and what healthy ones read.
 *
 * @param after false before the work
 * @param stops in the order of measuring
 */
public record RailRound(boolean after, List<Stop> stops) {
    /** What a meter shows that finds no end: more than it can read. Kept as a number so that it can be compared. */
    public static final double OPEN_OHM = 1e8;
    /** Points that lie nearer are read against one another, too. Judgement. */
    private static final double NEAR_MM = 15;
    private static final Pattern PLACE = Pattern
            .compile("\\s*(\\d{1,3}(?:\\.\\d+)?)\\s*,\\s*(\\d{1,3}(?:\\.\\d+)?)\\s*(top|bottom)\\s*");
    private static final Pattern READING = Pattern
            .compile("\\s*(\\d{1,9}(?:[.,]\\d{1,6})?)\\s*([kKM]?)\\s*(?:ohms?|\u03A9|R)?\\s*");

    /**
     * One rail.
     *
     * @param record     of this job; empty where it was not written down here yet
     * @param point      where it is read, in words or as a place; empty = nobody said
     * @param healthyOhm NaN where nobody knows
     * @param boards     healthy boards it rests on; 0 = noted by hand
     * @param ohm        what was read in this round, leads taken off; NaN = not yet
     * @param verdict    of that reading
     */
    public record Stop(String name, Optional<Kept> record, String point, double healthyOhm, int boards,
            double tolerancePct, double ohm, Rails.Verdict verdict) {
        /** The same, as two rails that are apart. */
        Stop apart() {
            return new Stop(name, record, point, healthyOhm, boards, tolerancePct, ohm, Rails.Verdict.PASS);
        }

        public boolean read() {
            return Double.isFinite(ohm);
        }

        /** It differs from what it is held against. */
        public boolean odd() {
            return verdict == Rails.Verdict.SUSPECT || verdict == Rails.Verdict.SHORT;
        }

        /** Nobody asked for it yet: two rails that lie side by side. */
        public boolean suggested() {
            return record.isEmpty() && Rails.between(name).isPresent();
        }

        /** Where it lies on the board; empty where it is said in words alone. */
        public Optional<Place> place() {
            return placed(point);
        }
    }

    /** A place on one side of a board. */
    public record Place(Point at, Side side) {
        /** As it stands in a record. */
        public String said() {
            return String.format(Locale.ROOT, "%.1f, %.1f %s", at.xMm(), at.yMm(),
                    side.name().toLowerCase(Locale.ROOT));
        }
    }

    public RailRound {
        stops = List.copyOf(stops);
    }

    /** @param ledger all jobs, this one among them */
    public static RailRound of(Job job, List<Job> ledger, boolean after) {
        Map<String, RailReferences.Reference> healthy = RailReferences.learn(ledger, job.board(), job.id());
        Map<String, Kept> mine = new LinkedHashMap<>();
        job.records("rail").forEach(r -> mine.put(RailReferences.key(r.text("name")), r));
        Map<String, Kept> others = new LinkedHashMap<>();
        Map<String, String> points = new LinkedHashMap<>();
        for (Job other : ledger) {
            if (other.board().equals(job.board()) && !other.id().equals(job.id())) {
                other.records("rail").forEach(r -> {
                    others.putIfAbsent(RailReferences.key(r.text("name")), r);
                    if (!r.text("point").isBlank()) {
                        points.putIfAbsent(RailReferences.key(r.text("name")), r.text("point"));
                    }
                });
            }
        }
        var stops = new ArrayList<Stop>();
        mine.forEach((key, r) -> stops.add(stop(r.text("name"), Optional.of(r), points.getOrDefault(key, ""),
                Optional.ofNullable(healthy.get(key)), after)));
        others.forEach((key, r) -> {
            if (!mine.containsKey(key)) {
                stops.add(stop(r.text("name"), Optional.empty(), points.getOrDefault(key, ""),
                        Optional.ofNullable(healthy.get(key)), after));
            }
        });
        stops.addAll(neighbours(stops, healthy, after));
        Set<String> names = stops.stream().map(s -> RailReferences.key(s.name())).collect(Collectors.toSet());
        stops.replaceAll(s -> Rails.apart(s.name(), names, s.ohm(), s.verdict()) ? s.apart() : s);
        return new RailRound(after, stops);
    }

    /** For each rail whose place is known the one that lies nearest to it, where that is near: what a bridge or a lost part would join. */
    private static List<Stop> neighbours(List<Stop> rails, Map<String, RailReferences.Reference> healthy,
            boolean after) {
        var known = new HashSet<String>();
        rails.forEach(
                s -> Rails.between(s.name()).ifPresent(p -> known.add(pair(p.getFirst(), p.getLast()))));
        var out = new ArrayList<Stop>();
        List<Stop> placed = rails.stream()
                .filter(s -> s.place().isPresent() && Rails.between(s.name()).isEmpty())
                .toList();
        for (Stop one : placed) {
            placed.stream().filter(s -> s != one && apartMm(s, one) <= NEAR_MM)
                    .min(Comparator.comparingDouble(s -> apartMm(s, one))).ifPresent(other -> {
                        if (known.add(pair(one.name(), other.name()))) {
                            String name = one.name() + " to " + other.name();
                            out.add(stop(name, Optional.empty(), "",
                                    Optional.ofNullable(healthy.get(RailReferences.key(name))), after));
                        }
                    });
        }
        return out;
    }

    private static String pair(String a, String b) {
        String first = RailReferences.key(a);
        String second = RailReferences.key(b);
        return first.compareTo(second) < 0 ? first + "/" + second : second + "/" + first;
    }

    private static double apartMm(Stop a, Stop b) {
        Place one = a.place().orElseThrow();
        Place other = b.place().orElseThrow();
        return one.side() != other.side()
                ? Double.MAX_VALUE
                : Math.hypot(one.at().xMm() - other.at().xMm(), one.at().yMm() - other.at().yMm());
    }

    private static Stop stop(String name, Optional<Kept> record, String elsewhere,
            Optional<RailReferences.Reference> learned, boolean after) {
        double noted = record.map(r -> r.number("reference_ohm")).orElse(Double.NaN);
        boolean own = noted > 0;
        // What other boards taught was read the usual way round.
        boolean turned = record.map(r -> after ? RecordFacts.readAfter(r) : RecordFacts.readBefore(r))
                .filter(ReadWith::turned).isPresent();
        double healthy = own
                ? noted
                : learned.filter(l -> !turned).map(RailReferences.Reference::ohm).orElse(Double.NaN);
        double tolerance = record.map(r -> r.number("tolerance_pct")).filter(Double::isFinite)
                .orElse(Rails.USUAL_TOLERANCE_PCT);
        String point = record.map(r -> r.text("point")).filter(p -> !p.isBlank()).orElse(elsewhere);
        Rails.Rail before = record.map(RecordFacts::rail)
                .map(r -> new Rails.Rail(r.name(), r.ohm(), r.leadOhm(), healthy))
                .orElse(new Rails.Rail(name, Double.NaN, Double.NaN, healthy));
        double afterOhm = record.map(r -> r.number("after_ohm")).orElse(Double.NaN);
        double ohm = after ? afterOhm : before.ohm();
        Rails.Verdict verdict = after
                ? record.map(r -> RecordFacts.railAfter(r, before, tolerance).verdict())
                        .orElse(Rails.Verdict.MISSING)
                : before.verdict();
        double bare = Double.isFinite(ohm)
                ? new Rails.Rail(name, ohm, before.leadOhm(), Double.NaN).bareOhm()
                : Double.NaN;
        return new Stop(name, record, point, healthy, own
                ? 0
                : learned.map(RailReferences.Reference::boards)
                        .orElse(0),
                tolerance, bare, verdict);
    }

    /** Once a lift is behind the job, what is measured is what the work left. */
    public static boolean afterTheWork(Job job) {
        return job.beads().stream().anyMatch(b -> b.phase() == Phase.LIFT && b.worked());
    }

    /** What was typed: a reading, and the name before it where one was written. */
    public record Typed(Optional<String> name, double ohm) {
        /**
         * "18.4" or "core 18.4"; a name may have several words.
         *
         * @throws IllegalArgumentException when the last word is no reading
         */
        public static Typed of(String text) {
            String plain = text.strip();
            if (READING.matcher(plain).matches() || plain.indexOf(' ') < 0) {
                return new Typed(Optional.empty(), reading(plain));
            }
            int cut = plain.lastIndexOf(' ');
            return new Typed(Optional.of(plain.substring(0, cut).strip()), reading(plain.substring(cut + 1)));
        }
    }

    /** The first that has no reading in this round. */
    public Optional<Stop> next() {
        return stops.stream().filter(s -> !s.read() && !s.suggested()).findFirst();
    }

    /** What may be read besides: the first pair of neighbours that has no reading. */
    public Optional<Stop> further() {
        return stops.stream().filter(s -> !s.read() && s.suggested()).findFirst();
    }

    /** Those that differ from what they are held against. */
    public List<Stop> odd() {
        return stops.stream().filter(Stop::odd).toList();
    }

    /** The job's record of a rail with a reading of this round in it; one that was not written down here yet begins with what is known of it. */
    public Kept kept(Job job, String name, double ohm, Instant at, String by) {
        return kept(job, name, ohm, "", at, by);
    }

    /** @param with the meter, and how its leads lay, as {@link org.greenbead.core.electric.ReadWith} reads it; empty = nobody says */
    public Kept kept(Job job, String name, double ohm, String with, Instant at, String by) {
        Kept read = record(job, name, at, by).with(after ? "after_ohm" : "ohm", ohm, at, by);
        return with.isBlank() ? read : read.with(after ? "meter_after" : "meter", with.strip(), at, by);
    }

    /** The same with where it is read. */
    public Kept pointed(Job job, String name, Place place, Instant at, String by) {
        return record(job, name, at, by).with("point", place.said(), at, by);
    }

    private Kept record(Job job, String name, Instant at, String by) {
        Optional<Stop> known = stops.stream()
                .filter(s -> RailReferences.key(s.name()).equals(RailReferences.key(name))).findFirst();
        return known.flatMap(Stop::record).orElseGet(() -> {
            var fresh = new Kept(job.freeId("rail"), "rail", at, by,
                    Map.of("name", known.map(Stop::name).orElse(name.strip())));
            String point = known.map(Stop::point).orElse("");
            return point.isBlank() ? fresh : fresh.with("point", point, at, by);
        });
    }

    /**
     * What a meter shows, as it is typed: "18.4", "18,4", "1.2k", "4.7 M", and "OL" or "open" where it finds no end.
     *
     * @return ohm
     * @throws IllegalArgumentException saying how it is written
     */
    public static double reading(String typed) {
        String plain = typed.strip();
        if (plain.equalsIgnoreCase("ol") || plain.equalsIgnoreCase("open")) {
            return OPEN_OHM;
        }
        Matcher m = READING.matcher(plain);
        if (!m.matches()) {
            throw new IllegalArgumentException("\"" + plain
                    + "\" is no resistance; write 18.4, 1.2k or 4.7M as the meter shows it, OL where it shows no end");
        }
        double times = m.group(2).isEmpty() ? 1 : m.group(2).equalsIgnoreCase("k") ? 1e3 : 1e6;
        return Math.min(OPEN_OHM, Double.parseDouble(m.group(1).replace(',', '.')) * times);
    }

    static Optional<Place> placed(String point) {
        Matcher m = PLACE.matcher(point);
        return m.matches()
                ? Optional.of(new Place(
                        new Point(Double.parseDouble(m.group(1)), Double.parseDouble(m.group(2))),
                        Side.valueOf(m.group(3).toUpperCase(Locale.ROOT))))
                : Optional.empty();
    }
}
