package org.greenbead.core.run;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.greenbead.core.bench.AirStation;
import org.greenbead.core.bench.BottomHeater;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Layer;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.HeatScene;

/**
 * Ways in which a bench differs from what anybody wrote down, beyond the scatter that every bench has. The estimate is told of none of them; it
 * is measured against each.
 */
public enum Adversity {
    /** Only the usual scatter. */
    USUAL(Odd.NONE),
    /** Every probe 5 mm from its said place. */
    PROBE_5MM_OFF(Odd.NONE.place(5)),
    /** A draught over the board. */
    DRAUGHT(Odd.NONE.draught(9)),
    /** A board that radiates less. */
    EMISSIVITY(Odd.NONE.emissivity(0.7)),
    /** Half as much copper again as written down. */
    CONDUCTIVITY_HIGH(Odd.NONE.along(1.6)),
    /** Far less copper. */
    CONDUCTIVITY_LOW(Odd.NONE.along(1 / 1.6)),
    /** A heater twice as slow. */
    SLOW_HEATER(Odd.NONE.heater(2)),
    /** A board that has to dry on the way: a third of its rise between 60 and 100 °C goes into water. */
    WET_BOARD(Odd.NONE.wet(0.33)),
    /** A package half as thick again. */
    THICK_CHIP(Odd.NONE.thick(1.5)),
    /** The nozzle 8 mm further up than said. */
    NOZZLE_8MM_UP(Odd.NONE.nozzle(8)),
    /** Beads on the blown side that take 8 % of their reading from the air. */
    BEAD_READS_AIR(Odd.NONE.air(0.08)),
    /** The same with 15 %. */
    BEAD_READS_MUCH_AIR(Odd.NONE.air(0.15)),
    /** Another nozzle than said, or a square one: wider, so the jet has another profile. No member of the ensemble has that. */
    OTHER_NOZZLE(Odd.NONE.wide(1.45)),
    /** The air aimed 5 mm beside the chip's middle. No member of the ensemble has that either. */
    AIMED_5MM_OFF(Odd.NONE.aim(5)),
    /** Several of these at once, each smaller. */
    COMBINED(Odd.NONE.place(2.5).draught(5).along(0.8).heater(1.4).thick(1.25).nozzle(4).air(0.05).wide(1.15)
            .aim(2));

    private final Odd odd;

    Adversity(Odd odd) {
        this.odd = odd;
    }

    /** What is different, each number by what it is. */
    private record Odd(Map<What, Double> numbers) {
        /** One thing that can differ. */
        private enum What {
            PLACE_MM, FAN_W_PER_M2K, EMISSIVITY_TIMES, ALONG_TIMES, HEATER_TIMES, WET_SHARE, THICK_TIMES, NOZZLE_UP_MM, AIR_SHARE, NOZZLE_TIMES, AIM_MM
        }

        static final Odd NONE = new Odd(Map.of());

        private Odd with(What what, double number) {
            var more = new EnumMap<What, Double>(What.class);
            more.putAll(numbers);
            more.put(what, number);
            return new Odd(more);
        }

        private double of(What what, double usual) {
            return numbers.getOrDefault(what, usual);
        }

        Odd place(double to) {
            return with(What.PLACE_MM, to);
        }

        double placeMm() {
            return of(What.PLACE_MM, 0);
        }

        Odd draught(double to) {
            return with(What.FAN_W_PER_M2K, to);
        }

        double fanWPerM2K() {
            return of(What.FAN_W_PER_M2K, 0);
        }

        Odd emissivity(double to) {
            return with(What.EMISSIVITY_TIMES, to);
        }

        double emissivityTimes() {
            return of(What.EMISSIVITY_TIMES, 1);
        }

        Odd along(double to) {
            return with(What.ALONG_TIMES, to);
        }

        double alongTimes() {
            return of(What.ALONG_TIMES, 1);
        }

        Odd heater(double to) {
            return with(What.HEATER_TIMES, to);
        }

        double heaterTimes() {
            return of(What.HEATER_TIMES, 1);
        }

        Odd wet(double to) {
            return with(What.WET_SHARE, to);
        }

        double wetShare() {
            return of(What.WET_SHARE, 0);
        }

        Odd thick(double to) {
            return with(What.THICK_TIMES, to);
        }

        double thickTimes() {
            return of(What.THICK_TIMES, 1);
        }

        Odd nozzle(double to) {
            return with(What.NOZZLE_UP_MM, to);
        }

        double nozzleUpMm() {
            return of(What.NOZZLE_UP_MM, 0);
        }

        Odd air(double to) {
            return with(What.AIR_SHARE, to);
        }

        double airShare() {
            return of(What.AIR_SHARE, 0);
        }

        Odd wide(double to) {
            return with(What.NOZZLE_TIMES, to);
        }

        double nozzleTimes() {
            return of(What.NOZZLE_TIMES, 1);
        }

        Odd aim(double to) {
            return with(What.AIM_MM, to);
        }

        double aimMm() {
            return of(What.AIM_MM, 0);
        }
    }

    /** Part of a drying board's rise that goes into water instead. */
    double wetShare() {
        return odd.wetShare();
    }

    /** Part of a reading on the blown side that is the air's. */
    double airShare() {
        return odd.airShare();
    }

    /** What is really blown and set when {@code asked} is. */
    HeatInput input(HeatInput asked) {
        Optional<AirSetting> air = asked.air().map(a -> new AirSetting(a.setC(), a.flowLpm(),
                Math.clamp(a.nozzleMm() * odd.nozzleTimes(), 3, 60),
                Math.min(120, a.distanceMm() + odd.nozzleUpMm()), a.circleMm()));
        return new HeatInput(asked.heaterSetC(), air, odd.fanWPerM2K(), 0.6 * odd.fanWPerM2K());
    }

    /** Where a probe really is. */
    ProbePlace place(ProbePlace said, Point boardMm, Random random) {
        if (odd.placeMm() == 0) {
            return said;
        }
        double turn = 2 * Math.PI * random.nextDouble();
        return new ProbePlace(said.name(), said.role(), said.channel(), said.side(),
                new Point(Math.clamp(said.atMm().xMm() + odd.placeMm() * Math.cos(turn), 0, boardMm.xMm()),
                        Math.clamp(said.atMm().yMm() + odd.placeMm() * Math.sin(turn), 0, boardMm.yMm())));
    }

    double alongTimes() {
        return odd.alongTimes();
    }

    /** The scene as it really stands. */
    HeatScene scene(HeatScene said) {
        Board board = thick(said.board(), said.target(), odd.thickTimes());
        Optional<BottomHeater> heater = said.heater().map(h -> slow(h, odd.heaterTimes()));
        return new HeatScene(board, said.target(), said.ambientC(), heater, said.heaterCentre(),
                said.heaterStartC(), said.air(), said.probes(),
                Math.clamp(said.emissivity() * odd.emissivityTimes(), 0.05, 1), said.boardBeta(),
                said.laminate(),
                new Point(said.airCentre().xMm() + 0.6 * odd.aimMm(),
                        said.airCentre().yMm() - 0.8 * odd.aimMm()),
                said.shields(), said.support());
    }

    /** A heater whose plate follows that much slower. */
    static BottomHeater slow(BottomHeater h, double times) {
        return new BottomHeater(h.name(), h.contact(), h.sizeMm(), h.gapMm(), h.emissivity(), h.gapHWPerM2K(),
                Math.clamp(h.tauHeatS() * times, 1, 600), Math.clamp(h.tauCoolS() * times, 1, 1200), h.maxC(),
                h.multiplier());
    }

    /** An air station whose exit follows that much slower. */
    static AirStation slow(AirStation a, double times) {
        return a.lagging(Math.clamp(a.tauS() * times, 0.5, 60));
    }

    /** A board whose target's body is that much thicker. */
    static Board thick(Board board, String target, double times) {
        Chip chip = board.requireChip(target);
        List<Layer> layers = chip.layers().stream().map(layer -> switch (layer) {
            case Layer.Joint j -> j;
            case Layer.Plain p ->
                (Layer) new Layer.Plain(p.material(), Math.clamp(p.thicknessMm() * times, 0.01, 5));
            case Layer.Die d ->
                new Layer.Die(Math.clamp(d.thicknessMm() * times, 0.02, 2), d.dieMm(), d.inVoid());
        }).toList();
        return board.with(new Chip(chip.name(), chip.part(), chip.side(), chip.centreMm(), chip.sizeMm(),
                layers, chip.bodyLimitC(), chip.melts(), chip.meltsLimit(), chip.floorLifeH(), chip.openH()));
    }
}
