package org.greenbead.core.thermal;

import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;

/** A board on a bench that can be moved on in time. Not for use by two threads at once. Temperatures in °C. */
public interface HeatModel {
    /** @param stepS any time above 0 up to 60 s; the model divides it as it needs */
    void advance(HeatInput input, double stepS);

    double timeS();

    double jointCentreC();

    double jointCornerC();

    /** Coldest joint of the target; this one decides whether it may be lifted. */
    double jointMinC();

    double jointMaxC();

    /** Molten part of the target's joints, 0 to 1. */
    double liquidFraction();

    /** Surface of the target's body at its centre. */
    double packageTopC();

    /** Joints of another chip of the board. @throws IllegalArgumentException for an unknown name */
    double jointC(String chip);

    /** Outer surface of another chip of the board, or of the target. */
    double bodyC(String chip);

    /** Surface of the board at a place. */
    double boardC(Side side, Point at);

    /** What a thermocouple at that place shows. */
    double probeC(ProbePlace probe);

    double heaterC();

    double airExitC();

    EnergyBalance energy();

    /** An independent model in the same state. */
    HeatModel copy();

    /**
     * Heat since the start, J.
     *
     * @param storedJ     gained by everything that is modelled
     * @param exchangedJ  net over all outer faces, inwards positive
     * @param throughputJ sum of the magnitudes of what crossed the faces; the scale for the error
     */
    record EnergyBalance(double storedJ, double exchangedJ, double throughputJ) {
        /** Part of the throughput that is unaccounted for. */
        public double error() {
            return Math.abs(storedJ - exchangedJ) / Math.max(1, throughputJ);
        }
    }
}
