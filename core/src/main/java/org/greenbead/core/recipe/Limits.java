package org.greenbead.core.recipe;

import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.quantity.Check;

/**
 * What the job must keep. Defaults: ramp 3 K/s up and 6 K/s down (J-STD-020 profile table, verify against the current
 * edition); joint peak 15 K over liquidus, 10 K from a neighbour's solidus and 20 K under the solidus before moving are
 * judgements of the trade, kept as settings.
 *
 * @param rampUpKPerS     0.2 to 10
 * @param rampDownKPerS   0.2 to 15, as a positive number
 * @param overLiquidusK   the joint peak wants this much over liquidus, 0 to 60
 * @param neighbourK      a neighbour's joints keep this far under their solidus, 0 to 60
 * @param moveUnderK      everything is this far under its solidus before it may be moved, 5 to 60; further where its alloy may undercool further
 * @param longestMeltS    time above liquidus that is still good, s, 5 to 900
 */
public record Limits(double rampUpKPerS, double rampDownKPerS, double overLiquidusK, double neighbourK,
        double moveUnderK,
        double longestMeltS) {
    public Limits {
        Check.within("ramp limit", rampUpKPerS, 0.2, 10, "K/s");
        Check.within("cooling limit", rampDownKPerS, 0.2, 15, "K/s");
        Check.within("margin over liquidus", overLiquidusK, 0, 60, "K");
        Check.within("neighbour margin", neighbourK, 0, 60, "K");
        Check.within("moving margin", moveUnderK, 5, 60, "K");
        Check.within("longest melt", longestMeltS, 5, 900, "s");
    }

    /** The same with another margin over liquidus, kept within what is allowed. */
    public Limits overLiquidus(double kelvin) {
        return new Limits(rampUpKPerS, rampDownKPerS, Math.clamp(kelvin, 0, 60), neighbourK, moveUnderK,
                longestMeltS);
    }

    /** Under this, joints of an alloy may be moved, °C: solid however far they undercooled. */
    public double movingC(Alloy alloy) {
        return alloy.solidusC() - Math.max(moveUnderK, alloy.undercoolingK());
    }

    public static Limits usual() {
        return new Limits(3, 6, 15, 10, 20, 150);
    }
}
