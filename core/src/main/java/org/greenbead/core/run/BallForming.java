package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.bench.BottomHeater;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Layer;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.forming.Method;
import org.greenbead.core.quantity.Check;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.Schools;
import org.greenbead.core.thermal.HeatScene;
import org.greenbead.core.thermal.Support;

/**
 * Balls made on a loose chip that lies on its back: a steel stencil on top with paste in its holes, or nothing but flux over spheres or over
 * balls that are melted a second time; something under the chip.
 *
 * @param stencilMm   sides of the stencil, 10 to 150 each
 * @param thicknessMm of the stencil, 0.05 to 0.5
 * @param balls       what the balls are made of
 * @param base        what the chip lies on
 * @param method      paste under a stencil that stays on, or spheres whose frame is off before the heat
 * @param melt        the one that makes the balls, or the second one without a stencil that rounds them
 */
public record BallForming(Point stencilMm, double thicknessMm, Alloy balls, Base base, Method method,
        Melt melt) {
    /** Stainless steel: in-plane conductivity W/mK and heat capacity J/m3K. */
    private static final HeatScene.Laminate STEEL = new HeatScene.Laminate(16, 4.0e6);
    private static final double STEEL_EMISSIVITY = 0.25;
    /** A film of molten rosin over the balls: conductivity W/mK and heat capacity J/m3K of organic liquids, thickness by judgement. */
    private static final HeatScene.Laminate FLUX = new HeatScene.Laminate(0.2, 2.0e6);
    private static final double FLUX_EMISSIVITY = 0.9;
    private static final double FLUX_MM = 0.1;
    private static final double PAPER_MM = 2;
    private static final double SMALLEST_MM = 10;
    /** Where balls are made on a board there is no body, only laminate: 260 °C is what it is tested at (J-STD-020, from memory: verify). */
    private static final double LAMINATE_C = 260;
    /** A plate is so much larger than the chip that it keeps its own temperature. */
    private static final double PLATE_W_PER_K = 50;
    private static final double PLATE_J_PER_K = 1;
    /** The same probe-name on every bench: a bead held on the stencil beside the chip, or at its edge where there is no stencil. */
    public static final String PROBE = "stencil";

    /**
     * What lies under the balls: several sheets of paper, a block of aluminium 40 x 40 x 12 mm, nothing but a holder's edges, the hot plate that
     * heats them, or the board half or frame that they are made on.
     */
    public enum Base {
        PAPER, BLOCK, HOLDER, PLATE, BOARD
    }

    /** Which melt of the balls it is. */
    public enum Melt {
        FIRST, SHAPING
    }

    public BallForming {
        Check.present("stencil size", stencilMm);
        Check.within("stencil side", Math.min(stencilMm.xMm(), stencilMm.yMm()), 10, 150, "mm");
        Check.within("stencil side", Math.max(stencilMm.xMm(), stencilMm.yMm()), 10, 150, "mm");
        Check.within("stencil thickness", thicknessMm, 0.05, 0.5, "mm");
        Check.present("ball alloy", balls);
        Check.present("base", base);
        method = method == null ? Method.PASTE : method;
        melt = melt == null ? Melt.FIRST : melt;
    }

    public BallForming(Point stencilMm, double thicknessMm, Alloy balls, Base base) {
        this(stencilMm, thicknessMm, balls, base, Method.PASTE, Melt.FIRST);
    }

    /** 0.12 mm of steel that shows 15 mm round the chip, on paper: the usual start. */
    public static BallForming usual(Chip chip, Alloy balls) {
        return new BallForming(new Point(chip.sizeMm().xMm() + 30, chip.sizeMm().yMm() + 30), 0.12, balls,
                Base.PAPER);
    }

    /** Name of the alloy that the job's balls are made of, where one was noted. */
    static Optional<String> noted(Job job) {
        return job.facts().at("plan.ball_alloy").map(String::valueOf)
                .or(() -> job.records("plan").reversed().stream().map(r -> r.text("ball_alloy"))
                        .filter(a -> !a.isEmpty()).findFirst());
    }

    /**
     * What a job says of it: the balls' alloy, how they are made, the stencil's thickness, what lies under the chip.
     *
     * @throws IllegalArgumentException for an alloy that no table knows: it must not be heated as another
     */
    public static BallForming of(Job job, Chip chip, Bead bead) {
        Alloy alloy = noted(job).map(Alloys::require).orElse(chip.joint().alloy());
        BallForming usual = usual(chip, alloy);
        double thickness = job.records("stencil").reversed().stream().map(r -> r.number("thickness_mm"))
                .filter(Double::isFinite).findFirst()
                .or(() -> job.facts().at("stencil.thickness_mm").filter(Double.class::isInstance)
                        .map(Double.class::cast))
                .filter(t -> t >= 0.05 && t <= 0.5).orElse(usual.thicknessMm);
        return new BallForming(usual.stencilMm, thickness, alloy,
                switch (chosen(job, "backing")) {
                    case "metal" -> Base.BLOCK;
                    case "plate" -> Base.PLATE;
                    case "board" -> Base.BOARD;
                    default -> Base.PAPER;
                },
                bead.id().startsWith("spheres") || chosen(job, "ball_route").equals("spheres")
                        ? Method.SPHERES
                        : Method.PASTE,
                bead.id().contains("shape") ? Melt.SHAPING : Melt.FIRST);
    }

    private static String chosen(Job job, String point) {
        Schools schools = Schools.shipped();
        return schools.find(point).map(s -> schools.chosen(job, s)).orElse("");
    }

    public boolean shaping() {
        return melt == Melt.SHAPING;
    }

    /** The job has chosen a thin film of flux under the paste, against the usual way. */
    static boolean thinFlux(Job job) {
        return chosen(job, "forming_flux").equals("thin");
    }

    /** What holds the sheet, as the job has chosen: jig, tweezers or clamp. */
    static String holding(Job job) {
        return chosen(job, "holding");
    }

    /** Nothing but flux lies over the balls. */
    public boolean bare() {
        return shaping() || method == Method.SPHERES;
    }

    /**
     * The stencil, or the film of flux, as a board with the chip under its middle, its joints the balls to be made. Where they are made on the board
     * itself that stays, the balls where the chip goes and the sheet over them.
     */
    Board board(Board own, Chip chip) {
        Layer.Joint joint = chip.joint();
        var layers = new ArrayList<Layer>();
        layers.add(new Layer.Joint(joint.ballMm(), joint.pitchMm(), joint.ballMm(), balls, false,
                joint.coverage()));
        if (base == Base.BOARD) {
            layers.add(bare()
                    ? new Layer.Plain(Layer.Material.FLUX, FLUX_MM)
                    : new Layer.Plain(Layer.Material.STEEL, thicknessMm));
            return own.with(new Chip(chip.name(), chip.part(), chip.side(), chip.centreMm(), chip.sizeMm(),
                    layers, LAMINATE_C, chip.melts(), chip.meltsLimit(), chip.floorLifeH(), chip.openH()));
        }
        layers.addAll(chip.layers().subList(1, chip.layers().size()));
        if (base == Base.PAPER) {
            layers.add(new Layer.Plain(Layer.Material.PAPER, PAPER_MM));
        }
        var hung = new Chip(chip.name(), chip.part(), Side.BOTTOM, middle(chip), chip.sizeMm(), layers,
                chip.bodyLimitC(),
                chip.melts(), chip.meltsLimit(), chip.floorLifeH(), chip.openH());
        return new Board("stencil", (bare() ? "Flux over " : "Stencil over ") + chip.name(), sheet(chip),
                bare() ? FLUX_MM : thicknessMm, 1, 18, 0.5, 16, List.of(hung), List.of());
    }

    /** The flux ends with the chip, unless that is smaller than anything that can be reckoned as a board. */
    private Point sheet(Chip chip) {
        return bare()
                ? new Point(Math.max(SMALLEST_MM, chip.sizeMm().xMm()),
                        Math.max(SMALLEST_MM, chip.sizeMm().yMm()))
                : stencilMm;
    }

    private Point middle(Chip chip) {
        return new Point(sheet(chip).xMm() / 2, sheet(chip).yMm() / 2);
    }

    /** The same tools with one bead on the stencil 3 mm beside the chip, or a millimetre inside its edge where no stencil lies. */
    Bench bench(Bench bench, Chip chip) {
        if (base == Base.BOARD) {
            return bench;
        }
        double x = bare()
                ? middle(chip).xMm() + chip.sizeMm().xMm() / 2 - 1
                : Math.min(middle(chip).xMm() + chip.sizeMm().xMm() / 2 + 3, stencilMm.xMm() - 1);
        int channel = bench.probes().stream().mapToInt(ProbePlace::channel).findFirst().orElse(1);
        return bench.probing(List.of(new ProbePlace(PROBE, ProbePlace.Role.BOARD, channel, Side.TOP,
                new Point(x, middle(chip).yMm()))));
    }

    HeatScene scene(RunPlan plan) {
        Bench bench = plan.bench();
        Point middle = plan.target().centreMm();
        Optional<BottomHeater> plate = base == Base.PLATE
                ? bench.heater().filter(BottomHeater::contact)
                : Optional.empty();
        Optional<Support> support = base == Base.BLOCK
                ? Optional.of(
                        new Support(plan.target().name(), 1500, 47, 0.1, bench.ambientC(), bench.ambientC()))
                : plate.map(
                        h -> new Support(plan.target().name(), Math.max(1, h.gapHWPerM2K()), PLATE_J_PER_K,
                                PLATE_W_PER_K, bench.ambientC(), bench.ambientC(), true));
        return new HeatScene(plan.board(), plan.target().name(), bench.ambientC(), plate, middle,
                bench.ambientC(), bench.air(), bench.probes(), bare() ? FLUX_EMISSIVITY : STEEL_EMISSIVITY, 0,
                Optional.of(bare() ? FLUX : STEEL), middle, plan.recipe().shields(), support);
    }
}
