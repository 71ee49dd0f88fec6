package org.greenbead.core.thermal;

/**
 * Heat content of a cell over its temperature, {@code H = C[(T-25) + b/2 (T-25)^2] + La f(T)}, J, with f rising linearly
 * from 0 at the solidus to 1 at the liquidus. Conserving H and reading T from it is what keeps the latent heat exact
 * (Voller and Swaminathan 1991, enthalpy method). Cells with latent heat have b = 0.
 *
 * @param cJPerK    heat capacity at 25 °C
 * @param betaPerK  rise of the specific heat, 1/K
 * @param latentJ   heat of fusion of the cell, 0 where nothing melts
 * @param solidusC  unused where nothing melts
 * @param liquidusC above the solidus
 */
record Enthalpy(double cJPerK, double betaPerK, double latentJ, double solidusC, double liquidusC) {
    static final double ZERO_C = 25;

    Enthalpy {
        if (latentJ > 0 && (betaPerK != 0 || !(liquidusC > solidusC))) {
            throw new IllegalArgumentException(
                    "a melting cell needs a melting range and a constant specific heat");
        }
    }

    static Enthalpy solid(double cJPerK, double betaPerK) {
        return new Enthalpy(cJPerK, betaPerK, 0, 0, 0);
    }

    double ofC(double celsius) {
        double over = celsius - ZERO_C;
        return cJPerK * (over + betaPerK / 2 * over * over) + latentJ * liquidAtC(celsius);
    }

    /** dH/dT, J/K. */
    double slopeAtC(double celsius) {
        double slope = cJPerK * (1 + betaPerK * (celsius - ZERO_C));
        return latentJ > 0 && celsius >= solidusC && celsius < liquidusC
                ? slope + latentJ / (liquidusC - solidusC)
                : slope;
    }

    double liquidAtC(double celsius) {
        if (latentJ == 0 || celsius <= solidusC) {
            return 0;
        }
        return celsius >= liquidusC ? 1 : (celsius - solidusC) / (liquidusC - solidusC);
    }

    double celsiusOf(double joule) {
        if (latentJ == 0) {
            double q = joule / cJPerK;
            return ZERO_C + 2 * q / (1 + Math.sqrt(Math.max(0.01, 1 + 2 * betaPerK * q)));
        }
        double atSolidus = cJPerK * (solidusC - ZERO_C);
        if (joule <= atSolidus) {
            return ZERO_C + joule / cJPerK;
        }
        double atLiquidus = cJPerK * (liquidusC - ZERO_C) + latentJ;
        if (joule >= atLiquidus) {
            return ZERO_C + (joule - latentJ) / cJPerK;
        }
        return solidusC + (joule - atSolidus) / (cJPerK + latentJ / (liquidusC - solidusC));
    }
}
