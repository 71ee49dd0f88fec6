package org.greenbead.core.thermal;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.bench.AirStation;
import org.greenbead.core.bench.BottomHeater;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.quantity.Check;
import org.greenbead.core.recipe.Shield;

/**
 * Everything that stands still during a heating.
 *
 * @param target       name of the chip that is worked on; on the underside it hangs under a stencil
 * @param heater       under the board; empty = none
 * @param heaterCentre where its middle is, in board coordinates
 * @param heaterStartC its temperature at the start, °C
 * @param emissivity   of board and mould, 0.05 to 1
 * @param boardBeta    rise of the board's specific heat, 1/K
 * @param laminate     in-plane conductivity W/mK and volumetric heat J/m3K given outright; empty = from the copper
 * @param airCentre    where the nozzle points, or the middle of its circle
 * @param shields      foil on the top side
 * @param support      what a bare chip stands on; empty = nothing
 */
public record HeatScene(Board board, String target, double ambientC, Optional<BottomHeater> heater,
        Point heaterCentre,
        double heaterStartC, AirStation air, List<ProbePlace> probes, double emissivity, double boardBeta,
        Optional<Laminate> laminate, Point airCentre, List<Shield> shields, Optional<Support> support) {
    /** In-plane conductivity, W/mK, and volumetric heat capacity, J/m3K, of the whole board. */
    public record Laminate(double kInPlaneWPerMK, double heatJPerM3K) {
        public Laminate {
            Check.within("in-plane conductivity", kInPlaneWPerMK, 0.2, 400, "W/mK");
            Check.within("volumetric heat", heatJPerM3K, 0.5e6, 6e6, "J/m3K");
        }
    }

    public HeatScene {
        Check.present("board", board);
        board.requireChip(target);
        Check.within("room temperature", ambientC, -10, 60, "°C");
        Check.present("heater", heater);
        Check.present("heater centre", heaterCentre);
        Check.within("heater start", heaterStartC, -10, 400, "°C");
        Check.present("air station", air);
        probes = List.copyOf(Check.present("probes", probes));
        Check.within("emissivity", emissivity, 0.05, 1, "");
        Check.within("rise of specific heat", boardBeta, 0, 5e-3, "1/K");
        Check.present("laminate", laminate);
        Check.present("air centre", airCentre);
        shields = List.copyOf(Check.present("shields", shields));
        support.ifPresent(s -> board.requireChip(s.chip()));
        for (ProbePlace probe : probes) {
            Point at = probe.atMm();
            if (!board.reaches(at)) {
                throw new IllegalArgumentException(
                        "probe " + probe.name() + " at " + at.xMm() + ", " + at.yMm()
                                + " mm lies off the board; the board is " + board.sizeMm().xMm() + " x "
                                + board.sizeMm().yMm() + " mm");
            }
        }
    }

    /** Air over the target's middle, no shield, no support. */
    public HeatScene(Board board, String target, double ambientC, Optional<BottomHeater> heater,
            Point heaterCentre, double heaterStartC, AirStation air, List<ProbePlace> probes,
            double emissivity,
            double boardBeta, Optional<Laminate> laminate) {
        this(board, target, ambientC, heater, heaterCentre, heaterStartC, air, probes, emissivity, boardBeta,
                laminate, board.requireChip(target).centreMm(), List.of(), Optional.empty());
    }

    /** The same with other foil on it. */
    public HeatScene shielded(List<Shield> foil) {
        return new HeatScene(board, target, ambientC, heater, heaterCentre, heaterStartC, air, probes,
                emissivity, boardBeta, laminate, airCentre, foil, support);
    }

    /** Whether the chip lies on the heater, and is lifted off with it off. */
    boolean onHeater() {
        return support.filter(Support::onHeater).isPresent();
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
