package org.greenbead.core.odds;

import org.greenbead.core.quantity.Check;
import org.hipparchus.special.Beta;

/**
 * How often something comes out well, told by a few tries: the beta-binomial model (Gelman et al. 2013, Bayesian Data Analysis, 3rd ed., 2.1). Three
 * good ones of three are no certainty, and none are no nothing.
 *
 * @param good  that came out well
 * @param tries in all
 * @param prior what is thought before any try, as so many good and as many bad ones: 1 = every chance is as likely as another, 0.5 = Jeffreys
 */
public record Odds(int good, int tries, double prior) {
    private static final int HALVINGS = 60;

    public Odds {
        if (good < 0 || tries < good) {
            throw new IllegalArgumentException(good + " good ones of " + tries + " tries cannot be");
        }
        Check.within("prior", prior, 0.01, 100, "");
    }

    /** With the weakest prior: every chance is as likely as another. */
    public static Odds of(int good, int tries) {
        return new Odds(good, tries, 1);
    }

    /** Chance of the next one. */
    public double chance() {
        return (good + prior) / (tries + 2 * prior);
    }

    /** Below this lies the chance with the given probability. */
    public double quantile(double probability) {
        Check.within("probability", probability, 0, 1, "");
        double low = 0;
        double high = 1;
        for (int i = 0; i < HALVINGS; i++) {
            double middle = (low + high) / 2;
            if (Beta.regularizedBeta(middle, good + prior, tries - good + prior) < probability) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return (low + high) / 2;
    }

    /** Probability that this one's chance is higher than the other's, both taken as they stand (sum over the grid of the first). */
    public double betterThan(Odds other) {
        int steps = 400;
        double sum = 0;
        for (int i = 0; i < steps; i++) {
            double at = quantile((i + 0.5) / steps);
            sum += Beta.regularizedBeta(at, other.good + other.prior, other.tries - other.good + other.prior);
        }
        return sum / steps;
    }
}
