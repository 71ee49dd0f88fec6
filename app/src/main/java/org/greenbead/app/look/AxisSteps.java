package org.greenbead.app.look;

/** Steps of an axis that people read easily. */
public final class AxisSteps {
    private AxisSteps() {
    }

    /** 1, 2 or 5 times a power of ten, so that about so many fit. */
    public static double step(double span, int about) {
        double raw = span / about;
        double power = Math.pow(10, Math.floor(Math.log10(raw)));
        double lead = raw / power;
        return (lead < 1.5 ? 1 : lead < 3.5 ? 2 : lead < 7.5 ? 5 : 10) * power;
    }
}
