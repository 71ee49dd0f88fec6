package org.greenbead.core.route;

import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.greenbead.core.board.Board;
import org.greenbead.core.book.Phase;
import org.greenbead.core.record.Kept;
import org.greenbead.core.record.Tested;

/**
 * Jobs with several chips. The job itself holds intake, decision, proof and close; each further chip is a strand: a job of its own in the ledger, from
 * the plan to the seat, worked in the order that suits. What is recorded of the unit is known to all of them, and so is every heat that a joint went
 * through, whoever gave it.
 */
public final class Strands {
    private static final int MOST_ID = 40;
    private static final String DONOR = "job.donor_unit";

    private Strands() {
    }

    /** The job that this one is a strand of, and all strands; empty where there are none. */
    public static List<Job> family(Job any, List<Job> jobs) {
        return Stream.concat(main(any, jobs).stream(), of(any, jobs).stream()).toList();
    }

    /**
     * A strand for one more chip.
     *
     * @param main   the job
     * @param family its strands so far
     * @param board  where the chip sits: the job's own board, or a donor
     * @param house  how the house works this kind
     * @param donor  which unit of that board, as {@link #freeDonor} says; empty for the unit of the job
     * @throws IllegalArgumentException when the job is a strand itself, the chip is not on the board or has its strand already, or the kind heats no board
     */
    public static Job begin(Job main, List<Job> family, Board board, String chip, JobKind kind,
            HouseRoute house, Optional<String> donor) {
        if (main.strandOf().isPresent()) {
            throw new IllegalArgumentException("job " + main.id() + " is a strand of "
                    + main.strandOf().get() + " itself; further chips belong to that job");
        }
        board.requireChip(chip);
        List<Job> all = Stream.concat(Stream.of(main), family.stream()).toList();
        all.stream().filter(j -> on(j, board.id(), donor) && j.target().equals(chip)).findFirst()
                .ifPresent(there -> {
                    throw new IllegalArgumentException(
                            "chip " + chip + " of board " + board.id() + " is worked on in " + there.id()
                                    + " already; where it sits on another unit of that board, say that it is a donor");
                });
        Routes routes = Routes.shipped();
        if (!routes.strandKinds().contains(kind)) {
            throw new IllegalArgumentException("a further chip cannot be of the kind \"" + kind.key()
                    + "\"; choose one of " + String.join(", ",
                            routes.strandKinds().stream().map(JobKind::key).toList()));
        }
        boolean elsewhere = donor.isPresent() || !board.id().equals(main.board());
        List<Bead> shipped = routes.strand(kind, Routes.recipes(board.id(), chip), elsewhere);
        List<Bead> beads = house.over(shipped).stream()
                .filter(b -> OwnSteps.own(b.id())
                        ? b.phase().compareTo(shipped.getFirst().phase()) >= 0
                                && b.phase().compareTo(shipped.getLast().phase()) <= 0
                        : shipped.stream().anyMatch(s -> s.id().equals(b.id())))
                .toList();
        return new Job(freeId(all, chip), main.title(), main.complaint(), main.customer(), board.id(), chip,
                main.bench(), beads, main.facts().with("job.kind=" + kind.key()
                        + donor.map(d -> "; " + DONOR + "=" + d).orElse("")))
                .asStrandOf(main.id());
    }

    /** The unit that a strand's chip sits on where that is not the unit of the job: "donor", "donor-2". */
    public static Optional<String> donor(Job job) {
        return job.facts().at(DONOR).map(String::valueOf);
    }

    /** Whether two jobs of a family are on the same board as it lies there, not only on the same type of it. */
    public static boolean sameUnit(Job one, Job other) {
        return on(one, other.board(), donor(other));
    }

    private static boolean on(Job job, String board, Optional<String> donor) {
        return job.board().equals(board) && donor(job).equals(donor);
    }

    /**
     * What a donor is called whose chip is taken: the first name under which nobody in the job works on that chip.
     *
     * @param all the job and its strands
     */
    public static String freeDonor(List<Job> all, String board, String chip) {
        String name = "donor";
        for (int n = 2;; n++) {
            Optional<String> unit = Optional.of(name);
            if (all.stream().noneMatch(j -> on(j, board, unit) && j.target().equals(chip))) {
                return name;
            }
            name = "donor-" + n;
        }
    }

    private static String freeId(List<Job> all, String chip) {
        String stem = all.getFirst().id() + "-" + chip.replaceAll("[^A-Za-z0-9]", "");
        if (stem.length() > MOST_ID - 3) {
            stem = stem.substring(0, MOST_ID - 3);
        }
        String id = stem;
        for (int n = 2; has(all, id); n++) {
            id = stem + "-" + n;
        }
        return id;
    }

    private static boolean has(List<Job> all, String id) {
        return all.stream().anyMatch(j -> j.id().equalsIgnoreCase(id));
    }

    /** The strands of a job, or of the job that a strand belongs to, in the order of their numbers. */
    public static List<Job> of(Job any, List<Job> jobs) {
        String main = any.strandOf().orElse(any.id());
        return jobs.stream().filter(j -> j.strandOf().equals(Optional.of(main)))
                .sorted(Comparator.comparing(Job::id)).toList();
    }

    /** The job that a strand belongs to; empty for one that stands alone, or where that job is gone. */
    public static Optional<Job> main(Job any, List<Job> jobs) {
        return any.strandOf().flatMap(id -> jobs.stream().filter(j -> j.id().equals(id)).findFirst());
    }

    /** The strands of every job that has some, by its id. */
    public static Map<String, List<Job>> byJob(List<Job> jobs) {
        return jobs.stream().filter(j -> j.strandOf().isPresent())
                .collect(Collectors.groupingBy(j -> j.strandOf().get()));
    }

    /**
     * When the board of a job was heated for another of its chips.
     *
     * @param family the job and its strands, with or without this one
     */
    public static List<Instant> heatedElsewhere(Job own, List<Job> family) {
        return family.stream().filter(j -> !j.id().equals(own.id()) && sameUnit(j, own))
                .flatMap(j -> Tested.heats(j.records()).stream()).toList();
    }

    /**
     * A job as it is judged: with what the rest of its family recorded of the unit before its own records, and a strand with the word on the checks that
     * its job asks once for all.
     *
     * @param family the job and its strands, with or without this one
     */
    public static Job told(Job own, List<Job> family) {
        List<Job> others = family.stream().filter(j -> !j.id().equals(own.id())).toList();
        List<Kept> records = Stream.concat(
                others.stream().flatMap(o -> o.records().stream().filter(r -> concerns(own, o, r)).map(
                        r -> new Kept(o.id() + " " + r.id(), r.type(), r.at(), r.author(), r.fields()))),
                own.records().stream()).toList();
        List<Bead> beads = Stream.concat(
                others.stream().filter(o -> own.strandOf().equals(Optional.of(o.id())))
                        .flatMap(o -> o.beads().stream().filter(Routes.shipped()::once)
                                .filter(b -> sameUnit(own, o) || b.phase().compareTo(Phase.PLAN) < 0))
                        .filter(b -> own.bead(b.id()).isEmpty()),
                own.beads().stream()).sorted(Comparator.comparing(Bead::phase)).toList();
        return own.withBeads(beads).with(records);
    }

    /**
     * What holds a heat of a strand in the job it belongs to.
     *
     * @param gate the first gate there that is done once for all and is not green; empty where that job is not in the ledger, so that nobody can know
     */
    public record Held(String job, Optional<Bead> gate) {}

    /** The course agreed, the data copied: a strand is not heated before its job allows it. Empty when the way is free. */
    public static Optional<Held> held(Job own, String beadId, List<Job> family) {
        if (own.strandOf().isEmpty() || own.bead(beadId).filter(b -> b.kind() == Bead.Kind.RUN).isEmpty()) {
            return Optional.empty();
        }
        String main = own.strandOf().get();
        Optional<Job> there = family.stream().filter(j -> j.id().equals(main)).findFirst();
        return there.isEmpty()
                ? Optional.of(new Held(main, Optional.empty()))
                : there.get().beads().stream().filter(Routes.shipped()::once)
                        .filter(b -> b.phase().compareTo(Phase.LIFT) < 0)
                        .filter(b -> b.gate() && b.state() != BeadState.GREEN).findFirst()
                        .map(b -> new Held(main, Optional.of(b)));
    }

    /** A joint and its heats concern whoever works on the same board; the rest is told by the job to its strands. */
    private static boolean concerns(Job own, Job other, Kept record) {
        return record.type().equals("exposure") || record.type().equals("joint")
                ? sameUnit(own, other)
                : own.strandOf().equals(Optional.of(other.id()))
                        && (sameUnit(own, other)
                                ? Routes.shipped().ofTheUnit(record.type())
                                : Routes.shipped().ofTheDecision(record.type()));
    }
}
