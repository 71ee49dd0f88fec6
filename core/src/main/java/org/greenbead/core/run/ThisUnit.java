package org.greenbead.core.run;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.chip.LookAlikes;
import org.greenbead.core.chip.StockChip;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Strands;

/**
 * A board as it lies on the bench. The board of the ledger is a type: how it is built, and how often its joints were liquid when it was made. What one unit has been
 * through since stands in the records of the jobs on it: every heat of a joint, and the alloy that is in it now. A unit is known again by its serial number; without one
 * only the job in hand and its strands are of it.
 */
public final class ThisUnit {
    private static final double HOURS_A_DAY = 24;
    private static final int MOST_MELTS = 50;

    private ThisUnit() {
    }

    /**
     * The type with what this unit has been through. For a seat the joints of the target are of the alloy of its new balls, and a chip that is not the old one has the
     * life of its own label.
     *
     * @param jobs  of the ledger
     * @param chips of the ledger
     * @param next  what the board is heated for
     */
    public static Board of(Board type, Job job, List<Job> jobs, List<StockChip> chips, RunPlan.Task next) {
        List<Job> unit = unit(job, jobs);
        Board now = type;
        for (Chip chip : type.chips()) {
            now = now.with(chip.lived(Math.min(MOST_MELTS, chip.melts() + heats(unit, chip.name()))));
            now = soldered(now, chip.name(), last(unit, chip.name()));
        }
        Optional<Chip> target = now.chip(job.target());
        if (target.isEmpty()) {
            return now;
        }
        Optional<StockChip> labelled = LookAlikes.wanted(job.id(), target.get().part(), chips);
        if (next == RunPlan.Task.SEAT) {
            if (!keeps(job)) {
                now = now.with(target.get().lived(labelled.map(StockChip::melts).orElse(0)));
            }
            now = soldered(now, job.target(), balls(job, labelled));
        }
        Optional<Double> openH = open(job);
        return openH.isPresent() ? now.with(now.requireChip(job.target()).out(openH.get())) : now;
    }

    /** What was read or planned is no guess any more. */
    private static Board soldered(Board board, String chip, Optional<Alloy> alloy) {
        return alloy.map(a -> board.put(board.requireChip(chip).soldered(a),
                board.assumed().stream().filter(g -> !g.equals(chip + ".alloy")).toList())).orElse(board);
    }

    /** Jobs on the same unit, this one in its present form. */
    private static List<Job> unit(Job job, List<Job> jobs) {
        Optional<String> serial = serial(job, jobs);
        List<Job> family = Strands.family(job, jobs);
        return Stream.concat(Stream.of(job), jobs.stream().filter(j -> !j.id().equals(job.id()))
                .filter(j -> j.board().equals(job.board()))
                .filter(j -> Strands.sameUnit(j, job)
                        && family.stream().anyMatch(f -> f.id().equals(j.id()))
                        || serial.isPresent()
                                && serial(j).filter(serial.get()::equalsIgnoreCase).isPresent()))
                .toList();
    }

    /** The serial number of the unit that a job is on, by its own word or by that of its strands. */
    public static Optional<String> serial(Job job, List<Job> jobs) {
        return serial(job).or(() -> Strands.family(job, jobs).stream().filter(j -> Strands.sameUnit(j, job))
                .flatMap(j -> serial(j).stream()).findFirst());
    }

    private static Optional<String> serial(Job job) {
        return job.records("unit").reversed().stream().map(u -> u.text("serial").strip())
                .filter(s -> !s.isEmpty()).findFirst();
    }

    private static int heats(List<Job> unit, String chip) {
        return (int) unit.stream().flatMap(j -> j.records("exposure").stream())
                .filter(e -> e.text("part").equals(chip)).count();
    }

    /** What is in the joints of a site by the last word on it; a mix that no table knows says nothing. */
    private static Optional<Alloy> last(List<Job> unit, String site) {
        return unit.stream().flatMap(j -> j.records("joint").stream())
                .filter(r -> r.text("site").equals(site) && !r.text("alloy").isEmpty())
                .max(Comparator.comparing(Kept::at)).flatMap(r -> Alloys.find(r.text("alloy")));
    }

    /** Planned for the balls, else read off the chip that comes. */
    private static Optional<Alloy> balls(Job job, Optional<StockChip> labelled) {
        return BallForming.noted(job)
                .or(() -> job.records("chip").reversed().stream().map(r -> r.text("ball_alloy"))
                        .filter(a -> !a.isEmpty()).findFirst())
                .or(() -> labelled.map(StockChip::alloy).filter(a -> !a.isBlank()))
                .flatMap(Alloys::find);
    }

    private static boolean keeps(Job job) {
        return job.facts().at("job.kind").map(String::valueOf)
                .filter(k -> Stream.of(JobKind.values()).anyMatch(n -> n.key().equals(k) && !n.keepsChip()))
                .isEmpty();
    }

    /** Hours that the chip has been out of dry storage, where that is written down. */
    private static Optional<Double> open(Job job) {
        return job.records("chip").reversed().stream().map(r -> r.number("open_days") * HOURS_A_DAY)
                .filter(h -> Double.isFinite(h) && h >= 0).findFirst();
    }
}
