package org.greenbead.core.run;

import java.util.OptionalDouble;

/**
 * Where a first-order rise is going, from three readings at equal spacing (T1, T2, T3): q = (T3-T2)/(T2-T1),
 * tau = -dt/ln q, plateau = T2 + (T3-T2)/(1-q). Holds while nothing is set anew and no cover is opened.
 *
 * @param tauS     time constant, s
 * @param plateauC where it will settle, °C
 * @param lastC    the third reading, °C
 */
public record HeatLag(double tauS, double plateauC, double lastC) {
    /** @return empty when the three readings are no slowing rise */
    public static java.util.Optional<HeatLag> from(double t1C, double t2C, double t3C, double spacingS) {
        double q = (t3C - t2C) / (t2C - t1C);
        if (!(t2C > t1C && q > 0.02 && q < 0.98)) {
            return java.util.Optional.empty();
        }
        return java.util.Optional.of(new HeatLag(-spacingS / Math.log(q), t2C + (t3C - t2C) / (1 - q), t3C));
    }

    /** Seconds from the third reading to {@code targetC}; empty when it will not get there. */
    public OptionalDouble arrivesInS(double targetC) {
        if (targetC <= lastC) {
            return OptionalDouble.of(0);
        }
        return plateauC <= targetC
                ? OptionalDouble.empty()
                : OptionalDouble.of(tauS * Math.log((plateauC - lastC) / (plateauC - targetC)));
    }

    /** The plateau a rise from the third reading would need to be at {@code targetC} in {@code inS} seconds, °C. */
    public double plateauToReach(double targetC, double inS) {
        double grown = Math.exp(inS / tauS);
        return (targetC * grown - lastC) / (grown - 1);
    }

    /**
     * The set-point that would bring the plateau to {@code targetC}, °C, by the gain this rise shows.
     *
     * @param setC     set-point now
     * @param ambientC room
     */
    public double curingSetC(double targetC, double setC, double ambientC) {
        double gain = (plateauC - ambientC) / (setC - ambientC);
        return setC + (targetC - plateauC) / Math.max(0.1, gain);
    }
}
