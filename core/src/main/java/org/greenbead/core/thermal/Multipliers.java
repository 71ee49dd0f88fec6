package org.greenbead.core.thermal;

import org.greenbead.core.quantity.Check;

/** How far this bench is from the nominal model: jet, preheater, heat capacity and in-plane conductivity of the board. */
public record Multipliers(double jet, double preheater, double boardHeat, double boardConductivity) {
    public static final Multipliers NOMINAL = new Multipliers(1, 1, 1, 1);

    public Multipliers {
        Check.within("jet multiplier", jet, 0.2, 4, "");
        Check.within("preheater multiplier", preheater, 0.2, 4, "");
        Check.within("board heat multiplier", boardHeat, 0.3, 3, "");
        Check.within("board conductivity multiplier", boardConductivity, 0.2, 4, "");
    }
}
