package org.greenbead.core.recipe;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.ProbePlace;

/**
 * A recipe to begin with where nobody has one: dry-out, soak, approach, peak, cool, with numbers from the alloy and the chip. It is a first
 * guess to be rehearsed and given to the planner, not a proved setting: the shares of rise that reach board and joint are assumed.
 */
public final class StartingRecipe {
    /** Degrees under the liquidus at which board stages end; the last 45 K are left to the air. Rule of thumb. */
    private static final double SOAK_UNDER_K = 75;
    private static final double APPROACH_UNDER_K = 45;
    private static final double OVER_LIQUIDUS_K = 16;
    /** Part of the rise from board to air that reaches the joint through a chip-sized nozzle at 20 mm; assumed until calibrated. */
    private static final double AIR_SHARE = 0.45;
    /** Part of the rise from room to an open heater that the board holds at the end of a soak, and how far below it a stage is ended; assumed until calibrated. */
    private static final double HEATER_SHARE = 0.35;
    private static final double HEATER_OVER_K = 80;
    private static final double SURE_K = 5;
    private static final double APPROACH_MORE_K = 20;
    private static final double LONGEST_PEAK_S = 120;

    private StartingRecipe() {
    }

    /** What the air alone, from wide around, brings a board to before the peak: the part of the rise from room to air; assumed until calibrated. */
    private static final double AIR_SOAK_SHARE = 0.3;
    /** Over a board that is only warm round the chip the air is taken for stronger, so that body and ramp keep their limits; a peak that does not come is seen and waited for. */
    private static final double AIR_ALONE_SHARE = 0.5;
    private static final double AIR_SOAK_C = 220;
    private static final double AIR_APPROACH_OVER_K = 60;

    /** @param lift true for a lift, which ends with the chip taken off; false for a seat or a reflow, which ends with it left alone */
    public static Recipe of(String id, String title, Chip target, Bench bench, boolean lift) {
        double liquidus = target.joint().alloy().liquidusC();
        double side = Math.max(target.sizeMm().xMm(), target.sizeMm().yMm());
        double nozzle = bench.air().nozzleNearest(side);
        double flow = Math.min(28, bench.air().maxLpm());
        double circle = AirSetting.usualCircleMm(side, nozzle);
        if (bench.heater().isEmpty()) {
            return airAlone(id, title, target, bench, new AirSetting(AIR_SOAK_C,
                    AirSetting.usualLpm(nozzle, bench.air().maxLpm()), nozzle,
                    35, circle),
                    lift);
        }
        double heaterTop = bench.heater().get().maxC();
        boolean plate = bench.plate();
        double room = bench.ambientC();
        double wanted = liquidus - APPROACH_UNDER_K;
        double heater = Math.min(heaterTop, plate ? wanted + 15 : liquidus + HEATER_OVER_K);
        double holds = plate ? heater - 15 : room + HEATER_SHARE * (0.92 * heater - room);
        double soakC = Math.round(Math.min(liquidus - SOAK_UNDER_K, holds - SURE_K));
        double approachC = Math.min(wanted, soakC + APPROACH_MORE_K);
        double jointC = Math.min(liquidus + OVER_LIQUIDUS_K, target.bodyLimitC() - 5);
        double air = Math.min(bench.air().maxC(), approachC + (jointC - approachC) / AIR_SHARE);
        Optional<String> probe = bench.probes().stream().filter(p -> p.role() == ProbePlace.Role.BOARD)
                .map(ProbePlace::name).findFirst();
        StageEnd soaked = probe.<StageEnd>map(p -> new StageEnd.ProbeReaches(p, soakC, 15))
                .orElseGet(() -> new StageEnd.AfterTime(150));
        StageEnd near = probe.<StageEnd>map(p -> new StageEnd.ProbeReaches(p, approachC, 0))
                .orElseGet(() -> new StageEnd.AfterTime(60));
        return new Recipe(id, title, List.of(
                new Stage("Dry-out", Stage.Purpose.DRY_OUT, Optional.of(Math.round(heater * 0.8) * 1.0),
                        Optional.empty(), Optional.empty(), new StageEnd.AfterTime(75), 90),
                new Stage("Soak", Stage.Purpose.SOAK, Optional.of(Math.round(heater * 0.92) * 1.0),
                        Optional.empty(), Optional.empty(), soaked, 240),
                new Stage("Ramp up", Stage.Purpose.APPROACH, Optional.of((double) Math.round(heater)),
                        Optional.of(new AirSetting(Math.round(air * 0.82), flow, nozzle, 25, circle)),
                        Optional.empty(), near, 120),
                new Stage(lift ? "Lift" : "Seat", Stage.Purpose.PEAK,
                        Optional.of((double) Math.round(heater)),
                        Optional.of(new AirSetting(Math.round(air), flow, nozzle, 20, circle)),
                        Optional.of((double) Math.round(jointC)), new StageEnd.MeltShown(), LONGEST_PEAK_S),
                new Stage("Cool", Stage.Purpose.COOL, Optional.empty(), Optional.empty(), Optional.empty(),
                        new StageEnd.SafeToMove(), 300)),
                Limits.usual());
    }

    /** No heater below: the air soaks the chip's surroundings from farther off, then comes near. Nothing dries slowly here; a wet chip is baked beforehand. */
    private static Recipe airAlone(String id, String title, Chip target, Bench bench, AirSetting wide,
            boolean lift) {
        double liquidus = target.joint().alloy().liquidusC();
        double room = bench.ambientC();
        double jointC = Math.min(liquidus + OVER_LIQUIDUS_K, target.bodyLimitC() - 5);
        double before = room + AIR_SOAK_SHARE * (liquidus + AIR_APPROACH_OVER_K - room);
        double air = Math.min(bench.air().maxC(), before + (jointC - before) / AIR_ALONE_SHARE);
        return new Recipe(id, title, List.of(
                new Stage("Soak", Stage.Purpose.SOAK, Optional.empty(), Optional.of(wide), Optional.empty(),
                        new StageEnd.AfterTime(150), 210),
                new Stage("Ramp up", Stage.Purpose.APPROACH, Optional.empty(),
                        Optional.of(new AirSetting(Math.round(Math.min(air, liquidus + AIR_APPROACH_OVER_K)),
                                wide.flowLpm(), wide.nozzleMm(), 25, wide.circleMm())),
                        Optional.empty(), new StageEnd.AfterTime(90), 120),
                new Stage(lift ? "Lift" : "Seat", Stage.Purpose.PEAK, Optional.empty(),
                        Optional.of(new AirSetting(Math.round(air), wide.flowLpm(), wide.nozzleMm(), 20,
                                wide.circleMm())),
                        Optional.of((double) Math.round(jointC)), new StageEnd.MeltShown(), LONGEST_PEAK_S),
                new Stage("Cool", Stage.Purpose.COOL, Optional.empty(), Optional.empty(), Optional.empty(),
                        new StageEnd.SafeToMove(), 300)),
                Limits.usual());
    }
}
