package org.greenbead.core.alloy;

import java.util.Map;
import java.util.TreeMap;
import org.greenbead.core.quantity.Check;

/**
 * What a solder is made of.
 *
 * @param weightPct element and its part by weight, percent; together 100 within 0.5
 */
public record Composition(Map<String, Double> weightPct) {
    /** g/cm3 at room temperature (CRC Handbook of Chemistry and Physics, physical constants of the elements). */
    private static final Map<String, Double> DENSITY = Map.of("Sn", 7.29, "Pb", 11.34, "Bi", 9.78, "Ag",
            10.49,
            "Cu", 8.96, "In", 7.31);

    public Composition {
        var sorted = new TreeMap<>(weightPct);
        double sum = 0;
        for (var part : sorted.entrySet()) {
            if (!DENSITY.containsKey(part.getKey())) {
                throw new IllegalArgumentException(
                        "element \"" + part.getKey() + "\" is not known; known are " + DENSITY.keySet());
            }
            sum += Check.within("part of " + part.getKey(), part.getValue(), 0, 100, "%");
        }
        Check.within("sum of the parts", sum, 99.5, 100.5, "%");
        weightPct = java.util.Collections.unmodifiableMap(sorted);
    }

    /** Reads "Sn 63 Pb 37". */
    public static Composition read(String text) {
        String[] word = text.strip().split("\\s+");
        var parts = new TreeMap<String, Double>();
        for (int i = 0; i + 1 < word.length; i += 2) {
            parts.put(word[i], Double.valueOf(word[i + 1]));
        }
        return new Composition(parts);
    }

    public double pct(String element) {
        return weightPct.getOrDefault(element, 0.0);
    }

    /** Ideal mixing: {@code 1 / rho = sum(w / rho)}; within one percent for solders. g/cm3 */
    public double densityGPerCm3() {
        double volume = 0;
        double mass = 0;
        for (var part : weightPct.entrySet()) {
            volume += part.getValue() / DENSITY.get(part.getKey());
            mass += part.getValue();
        }
        return mass / volume;
    }
}
