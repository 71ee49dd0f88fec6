package org.greenbead.core.run;

/**
 * A temperature that nobody can touch with a probe.
 *
 * @param celsius best value, °C
 * @param sigmaK  one standard deviation, K
 */
public record Estimate(double celsius, double sigmaK) {
    /** What is shown: about 95 of 100 lie within. */
    public double plusMinusK() {
        return 2 * sigmaK;
    }
}
