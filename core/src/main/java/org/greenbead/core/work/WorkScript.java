package org.greenbead.core.work;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.greenbead.core.account.Account;
import org.greenbead.core.account.Gates;
import org.greenbead.core.account.Judgement;
import org.greenbead.core.board.Board;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.Vocabulary;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.record.Kept;
import org.greenbead.core.record.RecordType;
import org.greenbead.core.record.RecordTypes;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.HouseRoute;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.greenbead.core.route.School;
import org.greenbead.core.route.Schools;
import org.greenbead.core.route.Strands;

/**
 * A job as it was worked, line by line: records, ticks, ways and runs, nothing typed by the name of a fact.
 *
 * <pre>
 * job SB-0501 | Wave buoy logger | stays dark | Buoy station Hethra | WB-7 U1 quay-1 | revive
 * note rail name=core ohm=1200 reference_ohm=1180
 * tick supply_off cell_off
 * no gloves_on
 * way ball_route spheres | no paste in the house
 * run lift_run
 * recipe plan_recipe
 * wait 20
 * strand U2 | replace
 * donor U1 | harvest
 * on SB-0501
 * </pre>
 *
 * {@code strand} takes a further chip of the unit in, {@code donor} one of another unit; what follows is written of it until {@code on} names another of
 * the job's chips.
 *
 * A line that begins with {@code +} belongs to the sound job only, one with {@code !} to its twin, in which one thing is done wrongly;
 * {@code caught rule} says what has to be said right after it.
 */
public final class WorkScript {
    private static final Instant BEGINS = Instant.parse("2031-04-02T08:00:00Z");
    /** A line takes a minute. */
    private static final Duration LINE = Duration.ofMinutes(1);
    private static final Pattern FIELD = Pattern.compile("(\\w+)=(\"[^\"]*\"|\\S+)");

    private final List<String> lines;

    public WorkScript(List<String> lines) {
        this.lines = lines.stream().map(String::strip).filter(l -> !l.isEmpty() && !l.startsWith("#"))
                .toList();
    }

    /**
     * What the world answers.
     *
     * @param judge   looks at the job
     * @param heated  works the heat of a bead: the job with what the run left in it
     * @param board   a board of that world
     */
    public record World(Judge judge, Heated heated, Function<String, Board> board) {}

    /** Looks at a job. */
    public interface Judge {
        /** @param family the job and its further chips; the job alone where it has none */
        Judgement of(Job job, List<Job> family);
    }

    /** Works a heat. */
    public interface Heated {
        Job run(Job job, String bead, Instant at);
    }

    /**
     * The job after one line.
     *
     * @param line  as written
     * @param family the job and its further chips, this one among them
     * @param ticks checks said by hand
     * @param entries fields written that are no text
     */
    public record Step(String line, Job job, List<Job> family, Judgement judgement, int ticks, int entries) {}

    /**
     * What the twin has to be told, and after how many of its lines at the latest.
     *
     * @param rule  a rule of the book, or {@code gate BEAD} where a gate stays shut
     * @param lines lines of the twin that are played by then
     */
    public record Caught(String rule, int lines) {}

    public List<Caught> caught() {
        var caught = new ArrayList<Caught>();
        int played = 0;
        for (String line : lines) {
            if (line.startsWith("caught ")) {
                caught.add(new Caught(line.substring(7).strip(), played));
            } else if (!line.startsWith("+")) {
                played++;
            }
        }
        return List.copyOf(caught);
    }

    /** The line of the twin, counted from 1, after which it is told first; empty where it never is. */
    public static java.util.OptionalInt told(Caught caught, List<Step> twin) {
        for (int i = 0; i < twin.size(); i++) {
            Step step = twin.get(i);
            boolean said = caught.rule().startsWith("gate ")
                    ? step.job().bead(caught.rule().substring(5)).filter(b -> b.state() == BeadState.DONE)
                            .isPresent()
                    : step.judgement().judged().open().stream()
                            .anyMatch(n -> n.rule().id().equals(caught.rule()))
                            || step.judgement().notKnown().stream().anyMatch(
                                    n -> n.holds() && n.rule().id().equals(caught.rule()));
            if (said) {
                return java.util.OptionalInt.of(i + 1);
            }
        }
        return java.util.OptionalInt.empty();
    }

    /** The sound job, or its twin. */
    public List<Step> play(boolean twin, World world) {
        return play(twin, world, List.of());
    }

    /** The same on a bench that has worked other jobs: what was the same there is taken over by a press before anything is typed. */
    public List<Step> play(boolean twin, World world, List<Job> ledger) {
        var steps = new ArrayList<Step>();
        Map<String, Job> family = new LinkedHashMap<>();
        Job job = null;
        Instant now = BEGINS;
        for (String line : lines) {
            boolean mine = line.startsWith("+") ? !twin : !line.startsWith("!") || twin;
            String act = line.replaceFirst("^[+!]\\s*", "");
            if (!mine || act.startsWith("caught ")) {
                continue;
            }
            String verb = act.split("\\s+", 2)[0];
            String rest = act.contains(" ") ? act.substring(act.indexOf(' ') + 1).strip() : "";
            now = now.plus(LINE);
            Job before = job;
            int ticks = 0;
            int entries = 0;
            switch (verb) {
                case "job" -> job = begin(rest);
                case "strand", "donor" -> {
                    job = further(family, rest, verb.equals("donor"), world);
                    before = null;
                    ticks = 1;
                }
                case "on" -> {
                    job = family.get(rest);
                    before = job;
                }
                case "wait" -> now = now.plus(Duration.ofMinutes(Long.parseLong(rest)));
                case "note" -> {
                    WriteDown.Entry entry = entry(rest);
                    Job told = asBefore(job, entry.type(), ledger, now);
                    ticks = told.equals(job) ? 0 : 1;
                    Kept record = WriteDown.record(told, entry, now, "technician A");
                    entries = entries(entry, told.record(record.id()), record);
                    job = told.with(record);
                }
                case "tick", "no" -> {
                    for (String check : rest.split("\\s+")) {
                        if (!job.asks(check)) {
                            throw new IllegalArgumentException("job has no check " + check);
                        }
                        if (job.attested(check) != Attest.YES || verb.equals("no")) {
                            ticks++;
                            job = Gates.attest(job, check, verb.equals("no") ? Attest.NO : Attest.YES,
                                    world.judge().of(job, with(family, job)).look());
                        }
                    }
                }
                case "way" -> {
                    String[] part = rest.split("\\|");
                    String[] way = part[0].strip().split("\\s+");
                    School school = Schools.shipped().find(way[0]).orElseThrow();
                    job = Schools.shipped().choose(job, school, way[1],
                            part.length > 1 ? part[1].strip() : "",
                            now, "technician A");
                    ticks = 1;
                }
                case "recipe" -> {
                    job = job.with(rest, BeadState.GREEN);
                    ticks = 1;
                }
                case "run" -> job = world.heated().run(job, rest, now);
                default -> throw new IllegalArgumentException("\"" + line + "\" is no line of a job");
            }
            Judgement judgement = world.judge().of(job, with(family, job));
            Job settled = Gates.settle(job, judgement.look());
            if (!settled.equals(job)) {
                job = settled;
                judgement = world.judge().of(job, with(family, job));
            }
            job = Account.noted(Optional.ofNullable(before), job, now, "technician A");
            family.put(job.id(), job);
            steps.add(new Step(line, job, List.copyOf(family.values()), judgement, ticks, entries));
        }
        return List.copyOf(steps);
    }

    /** The family with one of it as it is now. */
    private static List<Job> with(Map<String, Job> family, Job now) {
        var all = new LinkedHashMap<>(family);
        all.put(now.id(), now);
        return List.copyOf(all.values());
    }

    /** {@code U2 | replace} or, of a board of another type, {@code U2 | harvest | CP-12}. */
    private static Job further(Map<String, Job> family, String text, boolean donor, World world) {
        String[] part = text.split("\\s*\\|\\s*");
        List<Job> all = List.copyOf(family.values());
        Job main = all.getFirst();
        String board = part.length > 2 ? part[2] : main.board();
        JobKind kind = JobKind.valueOf(part[1].toUpperCase(java.util.Locale.ROOT));
        return Strands.begin(main, all.subList(1, all.size()), world.board().apply(board), part[0], kind,
                new HouseRoute(kind, List.of()),
                donor ? Optional.of(Strands.freeDonor(all, board, part[0])) : Optional.empty());
    }

    private static Job asBefore(Job job, String type, List<Job> ledger, Instant now) {
        return AsBefore.of(job, type, ledger)
                .map(s -> AsBefore.written(job, AsBefore.missing(job, s, now, "technician A"))).orElse(job);
    }

    /** Fields that have to be typed: no text, and not there already with the same value. */
    private static int entries(WriteDown.Entry entry, Optional<Kept> there, Kept written) {
        RecordType type = RecordTypes.shipped().require(entry.type());
        return (int) entry.fields().keySet().stream().flatMap(f -> type.item(f).stream())
                .filter(i -> i.field().kind() != Vocabulary.Kind.TEXT)
                .filter(i -> !written.noted(i.name()).equals(there.flatMap(t -> t.noted(i.name())))).count();
    }

    private static Job begin(String text) {
        String[] part = text.split("\\s*\\|\\s*");
        String[] where = part[4].split("\\s+");
        JobKind kind = JobKind.valueOf(part[5].toUpperCase(java.util.Locale.ROOT));
        return new Job(part[0], part[1], part[2], part[3], where[0], where[1], where[2],
                Routes.shipped().beads(kind, Routes.recipes(where[0], where[1])),
                Facts.none().with("job.kind=" + kind.key()));
    }

    /** {@code rail name=core ohm=1200}; a value with blanks stands in quotes. */
    static WriteDown.Entry entry(String text) {
        String[] part = text.split("\\s+", 2);
        Map<String, String> fields = new LinkedHashMap<>();
        if (part.length > 1) {
            Matcher field = FIELD.matcher(part[1]);
            while (field.find()) {
                fields.put(field.group(1), field.group(2).replace("\"", ""));
            }
        }
        return new WriteDown.Entry(part[0], Optional.empty(), fields, TempUnit.CELSIUS);
    }

    /** The beads of a job that no line has worked. */
    public static List<String> left(Job job) {
        return job.beads().stream().filter(b -> !b.worked() || b.gate() && b.state() != BeadState.GREEN)
                .map(Bead::id).toList();
    }
}
