package org.greenbead.core.account;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.run.RunPlan;

/**
 * How often the hands of a house have done the like of a job: heats on a board that ended proven, with a chip about as large and a solder about as
 * hard to melt. What was only run on the simulated bench is counted apart: it shows the settings and trains no hand.
 *
 * @param runs      on boards of customers and on one's own
 * @param drills    on practice boards
 * @param simulated on the simulated bench
 * @param fromMm    chips with a side of this much and more count, mm; not a number where the chip of the job is not known and every heat counts
 * @param fromC     solder with this liquidus and above counts, °C; not a number likewise
 */
public record Practice(int runs, int drills, int simulated, double fromMm, double fromC) {
    /** A chip of seven tenths of the side has half the joints and half the mass: below it is another class. Judgement. */
    private static final double LEAST_SIDE = 0.7;
    /** So much softer solder is no easier to lift by hand: leaded and lead-free lie 34 K apart, those with bismuth 45 K below leaded. Judgement. */
    private static final double SOFTER_K = 20;

    /**
     * A heat that ended proven.
     *
     * @param sideMm    the longer side of its chip, mm
     * @param liquidusC of the joint that was molten, °C
     * @param drill     on a practice board
     */
    public record Heat(RunPlan.Task task, double sideMm, double liquidusC, boolean simulated, boolean drill) {
        public static Heat of(RunPlan then, boolean simulated, boolean drill) {
            return new Heat(then.task(), side(then), then.target().joint().alloy().liquidusC(), simulated,
                    drill);
        }

        public Heat on(boolean practiceBoard) {
            return new Heat(task, sideMm, liquidusC, simulated, practiceBoard);
        }

        /** Balls on a loose chip melt without a board that could be lost. */
        private boolean onBoard() {
            return switch (task) {
                case LIFT, SEAT, REFLOW -> true;
                case FORM, CALIBRATE -> false;
            };
        }
    }

    /** So many proven heats, of whatever class. */
    public static Practice ofAny(int runs) {
        return new Practice(runs, 0, 0, Double.NaN, Double.NaN);
    }

    /**
     * @param job    the chip and the joint that are to be worked; empty where no board is known
     * @param proven heats that ended proven
     * @param madeUp whether the whole house is made up, so that its simulated bench is the one that it has
     */
    public static Practice of(Optional<RunPlan> job, List<Heat> proven, boolean madeUp) {
        double fromMm = job.map(p -> LEAST_SIDE * side(p)).orElse(Double.NaN);
        double fromC = job.map(p -> p.target().joint().alloy().liquidusC() - SOFTER_K).orElse(Double.NaN);
        List<Heat> like = proven.stream().filter(Heat::onBoard)
                .filter(h -> job.isEmpty() || h.sideMm() >= fromMm && h.liquidusC() >= fromC).toList();
        int simulated = madeUp ? 0 : (int) like.stream().filter(Heat::simulated).count();
        int drills = (int) like.stream().filter(h -> h.drill() && (madeUp || !h.simulated())).count();
        return new Practice(like.size() - simulated - drills, drills, simulated, fromMm, fromC);
    }

    /** All that a hand was trained by. */
    public int hands() {
        return runs + drills;
    }

    private static double side(RunPlan plan) {
        return Math.max(plan.target().sizeMm().xMm(), plan.target().sizeMm().yMm());
    }
}
