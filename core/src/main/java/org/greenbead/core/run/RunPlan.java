package org.greenbead.core.run;

import java.util.Comparator;
import java.util.Optional;
import org.greenbead.core.bench.AirStation;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Assumed;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Point;
import org.greenbead.core.quantity.Check;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Job;
import org.greenbead.core.thermal.HeatScene;
import org.greenbead.core.thermal.Uncertainty;

/**
 * Everything a run was planned with, frozen when it starts, so that its log can be judged again years later.
 *
 * @param task what is done once the joints are liquid
 * @param job  with what had been attested at the start
 * @param bead the bead of the job that this run works
 * @param forming the stencil set-up when balls are made on a loose chip; the board is then the stencil
 */
public record RunPlan(Task task, Job job, String bead, Board board, Bench bench, Recipe recipe,
        Optional<BallForming> forming) {
    /** The bead that a calibration run is written under; no job has it on its string. */
    public static final String CALIBRATION = "calibration";

    /** What is done once the joints are liquid; a calibration keeps them solid. */
    public enum Task {
        LIFT, SEAT, REFLOW, FORM, CALIBRATE;

        /** What a bead's heat is for, by its phase; a reflow is worked where a lift would be. */
        public static Task of(Bead bead) {
            return switch (bead.phase()) {
                case SEAT -> SEAT;
                case BEAD -> FORM;
                default -> bead.id().contains("reflow") ? REFLOW : LIFT;
            };
        }
    }

    public RunPlan {
        Check.present("task", task);
        Check.present("job", job);
        Check.text("bead", bead);
        Check.present("board", board);
        Check.present("bench", bench);
        Check.present("recipe", recipe);
        forming = forming == null ? Optional.empty() : forming;
        // A recipe that names its station is run with it; where the bench has none of that name the rules say so.
        bench = recipe.station().filter(bench::has).map(bench::taking).orElse(bench);
        if ((task == Task.FORM) != forming.isPresent()) {
            throw new IllegalArgumentException(task == Task.FORM
                    ? "forming balls needs the stencil set-up under \"forming\""
                    : "a stencil set-up belongs to the task \"form\" only");
        }
        board.requireChip(job.target());
    }

    public RunPlan(Task task, Job job, String bead, Board board, Bench bench, Recipe recipe) {
        this(task, job, bead, board, bench, recipe, Optional.empty());
    }

    public Chip target() {
        return board.requireChip(job.target());
    }

    public RunPlan with(Recipe changed) {
        return new RunPlan(task, job, bead, board, bench, changed, forming);
    }

    /**
     * What a bead of a job is worked with. Balls are made on the chip off its board; where their heat was never written down it is reckoned.
     *
     * @param recipe of the bead; empty where the ledger has none
     * @throws IllegalArgumentException when a bead on the board has no recipe
     */
    public static RunPlan of(Job job, Bead bead, Board board, Bench bench, Optional<Recipe> recipe) {
        return of(job, bead, board, bench, recipe, new FormingHeats());
    }

    /** The same, with what was reckoned before. */
    public static RunPlan of(Job job, Bead bead, Board board, Bench bench, Optional<Recipe> recipe,
            FormingHeats heats) {
        Task task = Task.of(bead);
        if (task != Task.FORM) {
            return new RunPlan(task, job, bead.id(), board, bench, recipe.orElseThrow(
                    () -> new IllegalArgumentException("bead " + bead.id() + " has no recipe")));
        }
        Chip chip = board.requireChip(job.target());
        BallForming setUp = BallForming.of(job, chip, bead);
        Board sheet = setUp.board(board, chip);
        Bench beside = setUp.bench(bench, chip);
        var blank = new RunPlan(Task.FORM, job, bead.id(), sheet, beside,
                recipe.orElse(FormingRecipe.BLANK), Optional.of(setUp));
        return recipe.isPresent()
                ? blank
                : blank.with(heats.of(blank, bead.recipe().orElse("forming"),
                        board.id() + " " + chip.name() + ", " + (setUp.shaping() ? "second melt" : "balls")));
    }

    /** The same board and chip for another purpose than forming balls. */
    public RunPlan to(Task other) {
        return new RunPlan(other, job, bead, board, bench, recipe);
    }

    /** The chip of this plan off its board, balls made on it. */
    public RunPlan forming(BallForming setUp) {
        return new RunPlan(Task.FORM, job, bead, setUp.board(board, target()), setUp.bench(bench, target()),
                recipe,
                Optional.of(setUp));
    }

    /** The same board on the same bench, to learn the bench and work no bead. */
    public RunPlan guided(Recipe calibration) {
        return new RunPlan(Task.CALIBRATE, job, CALIBRATION, board, bench, calibration);
    }

    public RunPlan with(Board changed) {
        return new RunPlan(task, job, bead, changed, bench, recipe, forming);
    }

    public RunPlan with(Bench changed) {
        return new RunPlan(task, job, bead, board, changed, recipe, forming);
    }

    /**
     * The same heat from another air station of the bench: litres and temperatures as that one can give them, the nozzle of its drawer that is nearest.
     * A beginning to be rehearsed, for another station is another jet.
     *
     * @throws IllegalArgumentException when the bench has no station of that name
     */
    public RunPlan by(String station) {
        Bench other = bench.taking(station);
        AirStation air = other.air();
        Recipe moved = recipe.by(station);
        for (int i = 0; i < moved.stages().size(); i++) {
            Stage stage = moved.stages().get(i);
            moved = moved.with(i, stage.withAir(stage.air()
                    .map(a -> new AirSetting(Math.min(a.setC(), air.maxC()),
                            air.dial().settable(Math.min(a.flowLpm(), air.maxLpm())),
                            air.nozzleNearest(a.nozzleMm()), a.distanceMm(), a.circleMm()))));
        }
        return new RunPlan(task, job, bead, board, other, moved, forming);
    }

    /**
     * The same heat on another board, over its largest chip, to learn the bench from scrap. Probes that would lie off it are left out.
     *
     * @throws IllegalArgumentException when the board has no chip
     */
    public RunPlan onScrap(Board scrap) {
        Chip largest = scrap.chips().stream().max(Comparator.comparingDouble(c -> c.sizeMm().areaMm2()))
                .orElseThrow(() -> new IllegalArgumentException("board " + scrap.id()
                        + " has no chip; dots are laid round one, so draw the one that is on it"));
        var there = new Job(job.id(), job.title(), job.complaint(), job.customer(), scrap.id(),
                largest.name(),
                job.bench(), job.beads());
        return new RunPlan(Task.LIFT, there, bead, scrap, bench.on(scrap), recipe);
    }

    /** The same run led by eye: no thermocouple can be read. */
    public RunPlan byEye() {
        return with(bench.blind());
    }

    /** What the run is for, as keys of words say it: {@code shape} for the second melt without a stencil. */
    public String word() {
        return forming.filter(BallForming::shaping).isPresent()
                ? "shape"
                : task.name().toLowerCase(java.util.Locale.ROOT);
    }

    public RunPlan with(Job changed) {
        return new RunPlan(task, changed, bead, board, bench, recipe, forming);
    }

    /**
     * Gentle air to begin with when a stage had none: the bench's nozzle nearest to three quarters of the chip's side, 25 mm up,
     * 20 L/min or what the station gives, circling half a nozzle wide. Starting points by judgement, meant to be changed.
     */
    public AirSetting gentleAir(double setC) {
        double wanted = 0.75 * Math.min(target().sizeMm().xMm(), target().sizeMm().yMm());
        double nozzle = bench.air().nozzleNearest(wanted);
        return new AirSetting(setC, bench.air().dial().settable(Math.min(20, bench.air().maxLpm())), nozzle,
                25, nozzle / 2);
    }

    /** Balls are made on the chip off its board. */
    public boolean loose() {
        return forming.filter(f -> f.base() != BallForming.Base.BOARD).isPresent();
    }

    /** The chip lies on the hot plate, which makes its balls. */
    public boolean onPlate() {
        return forming.filter(f -> f.base() == BallForming.Base.PLATE).isPresent();
    }

    /** What is known of the bench for this board and for the air that the recipe blows. */
    public Uncertainty knowledge() {
        Optional<AirSetting> blown = recipe.stages().stream().flatMap(s -> s.air().stream())
                .reduce((a, b) -> b);
        return Uncertainty.of(bench, board.id(), blown.map(AirSetting::nozzleMm).orElse(0.0),
                blown.map(AirSetting::flowLpm).orElse(0.0), Assumed.ofTarget(board, job.target()));
    }

    /** The chip is put over the middle of the heater and under the nozzle, unless the recipe places them otherwise. */
    public HeatScene scene() {
        if (loose()) {
            return forming.orElseThrow().scene(this);
        }
        Point middle = target().centreMm();
        return new HeatScene(board, target().name(), bench.ambientC(), bench.heater(),
                middle.plus(recipe.placing().heaterMm()), bench.ambientC(), bench.air(), bench.probes(), 0.9,
                1e-3, Optional.empty(), middle.plus(recipe.placing().airMm()), recipe.shields(),
                Optional.empty());
    }
}
