package org.greenbead.core.odds;

import org.greenbead.core.quantity.Check;
import org.hipparchus.special.Beta;

/**
 * How often something comes out well, told by a few tries: the beta-binomial model (Gelman et al. 2013, Bayesian Data Analysis, 3rd ed., 2.1). Three
 * good ones of three are no certainty, and none are no nothing.
 *
 * @param good      that came out well
 * @param tries     in all
 * @param priorGood what is thought before any try, as so many good ones: 1 and 1 = every chance is as likely as another, 0.5 and 0.5 = Jeffreys
 * @param priorBad  and as so many bad ones
 */
public record Odds(int good, int tries, double priorGood, double priorBad) {
    private static final int HALVINGS = 60;

    public Odds {
        if (good < 0 || tries < good) {
            throw new IllegalArgumentException(good + " good ones of " + tries + " tries cannot be");
        }
        Check.within("prior", priorGood, 0.01, 100, "");
        Check.within("prior", priorBad, 0.01, 100, "");
    }

    public Odds(int good, int tries, double prior) {
        this(good, tries, prior, prior);
    }

    /** With the weakest prior: every chance is as likely as another. */
    public static Odds of(int good, int tries) {
        return new Odds(good, tries, 1);
    }

    /** What is thought before any try is worth so many tries that came out with the given chance. */
    public static Odds thinking(int good, int tries, double chance, double weight) {
        return new Odds(good, tries, Math.max(0.01, chance * weight), Math.max(0.01, (1 - chance) * weight));
    }

    /** Chance of the next one. */
    public double chance() {
        return (good + priorGood) / (tries + priorGood + priorBad);
    }

    /** Below this lies the chance with the given probability. */
    public double quantile(double probability) {
        Check.within("probability", probability, 0, 1, "");
        double low = 0;
        double high = 1;
        for (int i = 0; i < HALVINGS; i++) {
            double middle = (low + high) / 2;
            if (Beta.regularizedBeta(middle, good + priorGood, tries - good + priorBad) < probability) {
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
            sum += Beta.regularizedBeta(at, other.good + other.priorGood,
                    other.tries - other.good + other.priorBad);
        }
        return sum / steps;
    }
}
