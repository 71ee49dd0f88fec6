package org.greenbead.core.thermal;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.bench.AirStation;
import org.greenbead.core.bench.BottomHeater;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.quantity.Check;

/**
 * Everything that stands still during a heating.
 *
 * @param target       name of the chip that is worked on; it must sit on the top side
 * @param heater       under the board; empty = none
 * @param heaterCentre where its middle is, in board coordinates
 * @param heaterStartC its temperature at the start, °C
 * @param emissivity   of board and mould, 0.05 to 1
 * @param boardBeta    rise of the board's specific heat, 1/K
 * @param laminate     in-plane conductivity W/mK and volumetric heat J/m3K given outright; empty = from the copper
 */
public record HeatScene(Board board, String target, double ambientC, Optional<BottomHeater> heater,
        Point heaterCentre,
        double heaterStartC, AirStation air, List<ProbePlace> probes, double emissivity, double boardBeta,
        Optional<Laminate> laminate) {
    /** In-plane conductivity, W/mK, and volumetric heat capacity, J/m3K, of the whole board. */
    public record Laminate(double kInPlaneWPerMK, double heatJPerM3K) {
        public Laminate {
            Check.within("in-plane conductivity", kInPlaneWPerMK, 0.2, 400, "W/mK");
            Check.within("volumetric heat", heatJPerM3K, 0.5e6, 6e6, "J/m3K");
        }
    }

    public HeatScene {
        Check.present("board", board);
        Chip chip = board.requireChip(target);
        if (chip.side() != Side.TOP) {
            throw new IllegalArgumentException(
                    "target " + target + " is on the underside; turn the board over so that it is on top");
        }
        Check.within("room temperature", ambientC, -10, 60, "°C");
        Check.present("heater", heater);
        Check.present("heater centre", heaterCentre);
        Check.within("heater start", heaterStartC, -10, 400, "°C");
        Check.present("air station", air);
        probes = List.copyOf(Check.present("probes", probes));
        Check.within("emissivity", emissivity, 0.05, 1, "");
        Check.within("rise of specific heat", boardBeta, 0, 5e-3, "1/K");
        Check.present("laminate", laminate);
    }

    public Chip targetChip() {
        return board.requireChip(target);
    }

    /** Copper and laminate side by side: k = 390 t_cu cover^1.5 / t + 0.8 (1-f); heat by volume. */
    Laminate boardMaterial() {
        return laminate.orElseGet(() -> {
            double copperMm = board.copperLayers() * board.copperUm() / 1000;
            double share = Math.min(0.6, copperMm * board.copperCoverage() / board.thicknessMm());
            double k = 390 * copperMm * Math.pow(board.copperCoverage(), 1.5) / board.thicknessMm()
                    + 0.8 * (1 - share);
            return new Laminate(Math.min(200, k), 3.45e6 * share + 1.95e6 * (1 - share));
        });
    }
}
