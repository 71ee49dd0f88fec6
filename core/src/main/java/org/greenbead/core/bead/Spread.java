package org.greenbead.core.bead;

import java.util.Arrays;
import org.greenbead.core.quantity.Check;

/**
 * How even the balls of a field are: {@code spread = (max - min) / mean}. Volumes spread three times as much, because a volume goes with
 * the third power of a diameter.
 *
 * @param meanMm     of the diameters
 * @param spreadPct  of the diameters, percent of the mean
 * @param volumePct  the largest volume over the smallest, less one, percent
 */
public record Spread(int count, double meanMm, double spreadPct, double volumePct, double smallestMm,
        double largestMm) {
    /** @param diametersMm two or more; left unchanged */
    public static Spread of(double... diametersMm) {
        if (diametersMm.length < 2) {
            throw new IllegalArgumentException(
                    "a spread wants two diameters or more; " + diametersMm.length + " given");
        }
        for (double d : diametersMm) {
            Check.within("diameter", d, 0.02, 3, "mm");
        }
        double least = Arrays.stream(diametersMm).min().orElseThrow();
        double most = Arrays.stream(diametersMm).max().orElseThrow();
        double mean = Arrays.stream(diametersMm).average().orElseThrow();
        return new Spread(diametersMm.length, mean, (most - least) / mean * 100,
                (Math.pow(most / least, 3) - 1) * 100, least, most);
    }
}
