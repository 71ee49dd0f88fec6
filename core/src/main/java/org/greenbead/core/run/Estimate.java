package org.greenbead.core.run;

/**
 * A temperature that nobody can touch with a probe.
 *
 * @param celsius best value, °C
 * @param sigmaK  one standard deviation, K
 */
public record Estimate(double celsius, double sigmaK) {
    /** What is shown: nine of ten lie within. */
    public double plusMinusK() {
        return 1.645 * sigmaK;
    }
}
