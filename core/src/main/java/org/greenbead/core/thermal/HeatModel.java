package org.greenbead.core.thermal;

import java.util.List;
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

    /** Temperature of the support, °C; NaN where there is none. */
    double supportC();

    /** Every joint layer of the target from the board outwards. */
    List<JointView> targetJoints();

    /** Hottest joint of another chip, or of the target, in any of its layers. */
    double jointMaxC(String chip);

    /** Skin of board and packages on one side. */
    HeatField field(Side side);

    EnergyBalance energy();

    /** An independent model in the same state. */
    HeatModel copy();

    /**
     * One joint layer, °C.
     *
     * @param cornerC        a tenth of the side, at most 0.75 mm, inside the package's edge
     * @param liquidFraction molten part, 0 to 1
     */
    record JointView(double centreC, double cornerC, double liquidFraction, double minC, double maxC) {}

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
