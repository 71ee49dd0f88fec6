package org.greenbead.core.plan;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import java.util.stream.IntStream;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.bench.BottomHeater;
import org.greenbead.core.board.Assumed;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;
import org.greenbead.core.kind.BoardKind;
import org.greenbead.core.kind.PackageKind;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Limits;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.HeatScene;
import org.greenbead.core.thermal.Multipliers;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;
import org.greenbead.core.thermal.Uncertainty;

/**
 * What a bench can bring to the joints of a chip at most: the heater at its highest for five minutes, then two minutes of air at its highest through each
 * nozzle, as near and as wide as a first guess would hold it. It says what can be melted at all, not how; no limit of the board is kept.
 */
public final class BenchReach {
    /** Judgement: a soak that nobody makes longer, and a peak after which one gives up. */
    private static final double SOAK_S = 300;
    private static final double PEAK_S = 120;
    private static final double DISTANCE_MM = 20;
    private static final double STEP_S = 5;
    /** Benches that this one may be. */
    private static final int DRAWN = 9;
    private static final long SEED = 11;
    /** Five and ninety-five in a hundred of a normal distribution. */
    private static final double Z90 = 1.6449;

    private BenchReach() {
    }

    /** Whether an alloy melts and is carried over its liquidus by the usual margin. */
    public enum Melts {
        SURELY, PERHAPS, NO
    }

    /**
     * The coldest joint at its hottest, °C.
     *
     * @param nozzleMm 0 = with the heater alone
     * @param lowC     nine of ten benches that this one may be lie between
     */
    public record Reached(double nozzleMm, double jointC, double lowC, double highC) {
        public Melts melts(Alloy alloy) {
            double wanted = alloy.liquidusC() + Limits.usual().overLiquidusK();
            return lowC >= wanted ? Melts.SURELY : highC >= wanted ? Melts.PERHAPS : Melts.NO;
        }
    }

    /** What most joints are made of, the softest first: a bench is told by how far up it comes. */
    public static List<Alloy> usualAlloys() {
        return List.of(Alloys.require("Sn42Bi58"), Alloys.require("Sn63Pb37"), Alloys.require("SAC305"));
    }

    /** A board of a usual build with one chip in its middle, for a bench on which no job lies. */
    public static Board usualBoard() {
        var middle = new Point(50, 50);
        return PackageKind.require("moulded").onto(
                BoardKind.require("general").board("usual", "usual", new Point(100, 100)), "U1", "usual",
                Side.TOP, middle, new Point(15, 15), 0.8, Optional.empty());
    }

    /**
     * The heater alone where there is one, then every nozzle, the smallest first. Cut off it says what it has.
     *
     * @param target a chip of the board
     */
    public static List<Reached> of(Bench bench, Board board, String target, BooleanSupplier cancelled) {
        Chip chip = board.requireChip(target);
        HeatScene scene = new HeatScene(board, target, bench.ambientC(), bench.heater(), chip.centreMm(),
                bench.ambientC(), bench.air(), List.of(), 0.9, 1e-3, Optional.empty(), chip.centreMm(),
                List.of(), Optional.empty());
        Optional<Double> highest = bench.heater().map(BottomHeater::maxC);
        List<AirSetting> airs = bench.air().nozzlesMm().stream().sorted(Comparator.naturalOrder())
                .map(n -> air(bench, chip, n)).toList();
        // What is known of the heater is the same through every nozzle; the air's part is set anew for each.
        List<Multipliers> benches = known(bench, board, target, airs.getFirst()).draw(DRAWN, SEED);
        List<SheetModel> warm = IntStream.range(0, DRAWN).parallel().mapToObj(m -> {
            var model = new SheetModel(scene, benches.get(m), Resolution.SEARCH);
            if (highest.isPresent()) {
                hold(model, HeatInput.of(highest, Optional.empty()), SOAK_S, cancelled);
            }
            return model;
        }).toList();
        var reached = new ArrayList<Reached>();
        if (highest.isPresent() && !cancelled.getAsBoolean()) {
            reached.add(told(0, warm.stream().mapToDouble(SheetModel::jointMinC).toArray()));
        }
        for (AirSetting air : airs) {
            List<Multipliers> here = known(bench, board, target, air).draw(DRAWN, SEED);
            double[] joints = IntStream.range(0, DRAWN).parallel().mapToDouble(m -> {
                SheetModel model = warm.get(m).copy();
                model.retune(here.get(m).jet() * bench.air().multiplier(), model.preheaterMultiplier());
                return hold(model, HeatInput.of(highest, Optional.of(air)), PEAK_S, cancelled);
            }).toArray();
            if (cancelled.getAsBoolean()) {
                break;
            }
            reached.add(told(air.nozzleMm(), joints));
        }
        return List.copyOf(reached);
    }

    private static AirSetting air(Bench bench, Chip chip, double nozzle) {
        double side = Math.max(chip.sizeMm().xMm(), chip.sizeMm().yMm());
        return new AirSetting(bench.air().maxC(), AirSetting.usualLpm(nozzle, bench.air().maxLpm()), nozzle,
                DISTANCE_MM, AirSetting.usualCircleMm(side, nozzle));
    }

    private static Uncertainty known(Bench bench, Board board, String target, AirSetting air) {
        return Uncertainty.of(bench, board.id(), air.nozzleMm(), air.flowLpm(),
                Assumed.ofTarget(board, target));
    }

    /** The coldest joint at the end, which is its hottest: nothing is turned down. */
    private static double hold(SheetModel model, HeatInput input, double seconds, BooleanSupplier cancelled) {
        for (double t = 0; t < seconds && !cancelled.getAsBoolean(); t += STEP_S) {
            model.advance(input, STEP_S);
        }
        return model.jointMinC();
    }

    private static Reached told(double nozzle, double[] joints) {
        double mean = java.util.Arrays.stream(joints).average().orElseThrow();
        double variance = java.util.Arrays.stream(joints).map(j -> (j - mean) * (j - mean)).sum()
                / (joints.length - 1);
        double by = Z90 * Math.sqrt(variance);
        return new Reached(nozzle, mean, mean - by, mean + by);
    }
}
