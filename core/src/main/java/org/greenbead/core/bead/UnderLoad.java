package org.greenbead.core.bead;

import org.greenbead.core.quantity.Check;

/**
 * A molten joint that carries its share of the chip: weight against surface tension. The free surface is a barrel whose meridian is an arc of
 * a circle through the edges of both pads (the usual approximation, e.g. Heinrich and others, J. Electronic Packaging 1996); its energy is
 * {@code γ A(h)} at constant volume, and the joint stands where {@code -dE/dh} carries the load. Between unequal pads their root mean
 * square radius is taken.
 *
 * @param freeMm   standoff without load
 * @param loadedMm standoff under the load; 0 when the joint cannot carry it
 * @param bulgeMm  widest diameter under the load
 */
public record UnderLoad(double freeMm, double loadedMm, double bulgeMm) {
    /** Surface tension in air under flux, N/m: literature scatters by a tenth (verify). */
    public static final double TIN_LEAD_N_PER_M = 0.48;
    public static final double LEAD_FREE_N_PER_M = 0.55;
    public static final double TIN_BISMUTH_N_PER_M = 0.42;
    private static final double GRAVITY = 9.80665;
    private static final int STRIPS = 200;

    /**
     * @param volumeMm3      of the ball
     * @param padAMm         radius of one pad
     * @param padBMm         radius of the other
     * @param massMg         what one joint carries: the chip's mass over its balls
     * @param tensionNPerM   surface tension, 0.1 to 1
     */
    public static UnderLoad of(double volumeMm3, double padAMm, double padBMm, double massMg,
            double tensionNPerM) {
        Check.within("load of a joint", massMg, 0, 10_000, "mg");
        Check.within("surface tension", tensionNPerM, 0.1, 1, "N/m");
        Collapse free = Collapse.of(volumeMm3, padAMm, padBMm);
        double pad = Math.sqrt((padAMm * padAMm + padBMm * padBMm) / 2);
        double zero = rest(volumeMm3, pad, free.heightMm());
        double load = massMg * 1e-6 * GRAVITY;
        double low = 0.15 * zero;
        double high = zero;
        if (force(volumeMm3, pad, low, tensionNPerM) < load) {
            return new UnderLoad(free.heightMm(), 0, Double.NaN);
        }
        for (int i = 0; i < 80; i++) {
            double middle = (low + high) / 2;
            if (force(volumeMm3, pad, middle, tensionNPerM) > load) {
                low = middle;
            } else {
                high = middle;
            }
        }
        double height = (low + high) / 2;
        return new UnderLoad(free.heightMm(), height * free.heightMm() / zero,
                2 * barrel(volumeMm3, pad, height).widest());
    }

    /** Where the barrel pushes neither way. */
    private static double rest(double volume, double pad, double near) {
        double low = 0.5 * near;
        double high = 1.6 * near;
        for (int i = 0; i < 80; i++) {
            double middle = (low + high) / 2;
            if (force(volume, pad, middle, 0.5) > 0) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return (low + high) / 2;
    }

    /** What holds the chip up, N: {@code -γ dA/dh}. */
    private static double force(double volume, double pad, double height, double tension) {
        double step = 1e-4 * height;
        double slope = (barrel(volume, pad, height + step).area() - barrel(volume, pad, height - step).area())
                / (2 * step);
        return -tension * slope * 1e-3;
    }

    /** @param area of the free surface, mm² @param widest radius */
    private record Barrel(double area, double widest) {}

    /** The arc that holds this volume: found by halving its sagitta, by which the volume grows. */
    private static Barrel barrel(double volume, double pad, double height) {
        double low = -0.9 * Math.min(pad, height / 2);
        double high = 6 * Math.cbrt(volume) + pad;
        Barrel barrel = new Barrel(0, 0);
        for (int i = 0; i < 70; i++) {
            double sagitta = (low + high) / 2;
            double[] made = revolve(pad, height, sagitta);
            barrel = new Barrel(made[1], pad + Math.max(0, sagitta));
            if (made[0] < volume) {
                low = sagitta;
            } else {
                high = sagitta;
            }
        }
        return barrel;
    }

    private static double[] revolve(double pad, double height, double sagitta) {
        // The meridian by the angle from the middle: past a half circle too, so that very flat joints are barrels still.
        double half = height / 2;
        double s = Math.abs(sagitta) < 1e-9 ? 1e-9 : sagitta;
        double radius = (half * half + s * s) / (2 * Math.abs(s));
        double angle = Math.abs(s) <= half
                ? Math.asin(Math.min(1, half / radius))
                : Math.PI - Math.asin(Math.min(1, half / radius));
        double sign = Math.signum(s);
        double centre = pad + s - sign * radius;
        if (Math.abs(s) > 0.01 * half) {
            // x = c ± R cos t, dz = R cos t dt, integrated over the arc.
            double sin = Math.sin(angle);
            double square = angle / 2 + Math.sin(2 * angle) / 4;
            double cube = sin - sin * sin * sin / 3;
            return new double[]{2 * Math.PI * radius
                    * (centre * centre * sin + 2 * sign * centre * radius * square + radius * radius * cube),
                    4 * Math.PI * radius * (centre * angle + sign * radius * sin)};
        }
        double volume = 0;
        double area = 0;
        double step = angle / STRIPS;
        for (int i = 0; i < STRIPS; i++) {
            double at = (i + 0.5) * step;
            double x = centre + sign * radius * Math.cos(at);
            double dz = radius * Math.cos(at) * step;
            volume += 2 * Math.PI * x * x * dz;
            area += 2 * 2 * Math.PI * x * radius * step;
        }
        return new double[]{volume, area};
    }

    /**
     * Bow of the chip over its field that the balls still bridge, mm: what a ball stands higher before the melt than the joint after it.
     * A ball on a pad of radius a stands {@code r + √(r² − a²)} high.
     */
    public static double bridgesMm(double ballMm, double padMm, Collapse joint) {
        double r = ballMm / 2;
        double stands = r + Math.sqrt(Math.max(0, r * r - padMm * padMm));
        return Math.max(0, stands - joint.heightMm());
    }
}
