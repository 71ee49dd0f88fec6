package org.greenbead.core.run;

/**
 * A temperature that nobody can touch with a probe.
 *
 * @param celsius best value, °C
 * @param sigmaK  one standard deviation, K
 */
public record Estimate(double celsius, double sigmaK) {
    private static final double NINE_OF_TEN = 1.645;

    /** An estimate whose shown interval is this one. */
    static Estimate between(double lowC, double highC) {
        return new Estimate((lowC + highC) / 2, (highC - lowC) / 2 / NINE_OF_TEN);
    }

    /** What is shown: nine of ten lie within. */
    public double plusMinusK() {
        return NINE_OF_TEN * sigmaK;
    }

    /** Lower end of what is shown, °C. */
    public double lowC() {
        return celsius - plusMinusK();
    }

    /** Upper end of what is shown, °C. */
    public double highC() {
        return celsius + plusMinusK();
    }
}
