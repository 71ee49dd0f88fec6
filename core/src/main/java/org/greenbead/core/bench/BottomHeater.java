package org.greenbead.core.bench;

import org.greenbead.core.board.Point;
import org.greenbead.core.quantity.Check;

/**
 * A heater under the board that follows its set-point with a first-order lag.
 *
 * @param contact     true for a plate that touches the board, false for an open plate below it
 * @param sizeMm      of the hot face, 20 to 600
 * @param gapMm       between hot face and board, 1 to 60; unused in contact
 * @param emissivity  of the hot face, 0.1 to 1
 * @param gapHWPerM2K conduction and convection across the gap, 0 to 20; in contact the contact coefficient, 20 to 1500
 * @param tauHeatS    time constant while heating, 1 to 600
 * @param tauCoolS    time constant while cooling, 1 to 1200
 * @param maxC        highest set-point, 60 to 600
 * @param multiplier  measured coupling over the nominal one, 0.3 to 3; 1 until calibrated
 */
public record BottomHeater(String name, boolean contact, Point sizeMm, double gapMm, double emissivity,
        double gapHWPerM2K,
        double tauHeatS, double tauCoolS, double maxC, double multiplier) {
    public BottomHeater {
        Check.text("heater name", name);
        Check.present("heater size", sizeMm);
        Check.within("heater width", sizeMm.xMm(), 20, 600, "mm");
        Check.within("heater depth", sizeMm.yMm(), 20, 600, "mm");
        Check.within("heater gap", gapMm, 1, 60, "mm");
        Check.within("heater emissivity", emissivity, 0.1, 1, "");
        Check.within("heater coefficient", gapHWPerM2K, 0, 1500, "W/m2K");
        Check.within("heater time constant", tauHeatS, 1, 600, "s");
        Check.within("heater cooling time constant", tauCoolS, 1, 1200, "s");
        Check.within("heater maximum", maxC, 60, 600, "°C");
        Check.within("heater multiplier", multiplier, 0.3, 3, "");
    }

    /** The same with another hot face. */
    public BottomHeater sized(Point face) {
        return new BottomHeater(name, contact, face, gapMm, emissivity, gapHWPerM2K, tauHeatS, tauCoolS, maxC,
                multiplier);
    }

    /** The same farther from the board, or nearer. */
    public BottomHeater below(double gap) {
        return new BottomHeater(name, contact, sizeMm, gap, emissivity, gapHWPerM2K, tauHeatS, tauCoolS, maxC,
                multiplier);
    }

    /** The same that can be set up to here, °C. */
    public BottomHeater upTo(double highestC) {
        return new BottomHeater(name, contact, sizeMm, gapMm, emissivity, gapHWPerM2K, tauHeatS, tauCoolS,
                highestC, multiplier);
    }
}
