package org.greenbead.core.refit;

import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.greenbead.core.quantity.Check;

/**
 * How hard a small metric screw may be driven. Preload three quarters of the proof load, {@code F = 0.75 σp As}, torque {@code T = K F d} with K = 0.2 for dry
 * steel (Budynas and Nisbett, Shigley's Mechanical Engineering Design, ch. 8); stress area {@code As = π/4 (d - 0.9382 p)²} and coarse pitches of ISO 261 and 724; σp = 310 MPa of
 * property class 4.8 (ISO 898-1; from memory: verify), the weakest that screws of instruments are made of.
 *
 * @param diameterMm nominal, one of the coarse series from M1 to M5
 * @param into       what it is driven into
 */
public record SmallThread(double diameterMm, Into into) {
    private static final double PROOF_MPA = 310;
    private static final double OF_PROOF = 0.75;
    private static final double NUT_FACTOR = 0.2;
    private static final double STRESS_AREA = 0.9382;
    /** Nominal diameter and coarse pitch, mm. */
    private static final List<double[]> COARSE = List.of(new double[]{1, 0.25}, new double[]{1.2, 0.25},
            new double[]{1.4, 0.3}, new double[]{1.6, 0.35}, new double[]{2, 0.4}, new double[]{2.5, 0.45},
            new double[]{3, 0.5}, new double[]{4, 0.7}, new double[]{5, 0.8});
    private static final Pattern TORQUE = Pattern
            .compile(
                    "(?i)\\s*(\\d+(?:[.,]\\d+)?)\\s*(c?n\\W?c?m|m?n\\W?m{1,2}|kgf?\\W?cm|in\\W?lbs?|lbf?\\W?in)?\\s*");

    /** What holds the thread, and the part of the screw's own torque that it bears. The parts are judgement. */
    public enum Into {
        METAL(1), INSERT(0.6), PLASTIC(0.35);

        private final double part;

        Into(double part) {
            this.part = part;
        }
    }

    public SmallThread {
        Check.present("what the screw goes into", into);
        pitchMm(diameterMm);
    }

    private static double pitchMm(double diameter) {
        return COARSE.stream().filter(row -> Math.abs(row[0] - diameter) < 0.05).findFirst()
                .orElseThrow(() -> new IllegalArgumentException("M" + plain(diameter)
                        + " is no thread of the coarse series; one of M1, M1.2, M1.4, M1.6, M2, M2.5, M3, M4, M5"))[1];
    }

    private static String plain(double d) {
        return d == Math.rint(d) ? Long.toString((long) d) : Double.toString(d);
    }

    /** The most that it is driven with, N·m. */
    public double mostNm() {
        double core = diameterMm - STRESS_AREA * pitchMm(diameterMm);
        double areaMm2 = Math.PI / 4 * core * core;
        double preloadN = OF_PROOF * PROOF_MPA * areaMm2;
        return NUT_FACTOR * preloadN * diameterMm / 1000 * into.part;
    }

    /** A torque as it is written on a driver or a sheet, N·m: "0.2 Nm", "20 Ncm", "2 kgcm", "1.8 in-lb". Without a unit N·m. */
    public static OptionalDouble newtonMetres(String written) {
        Matcher m = TORQUE.matcher(written);
        if (!m.matches()) {
            return OptionalDouble.empty();
        }
        double value = Double.parseDouble(m.group(1).replace(',', '.'));
        String unit = m.group(2) == null
                ? "nm"
                : m.group(2).toLowerCase(Locale.ROOT).replaceAll("[^a-z]", "").replaceAll("s$", "");
        return switch (unit) {
            case "nm" -> OptionalDouble.of(value);
            case "ncm", "cnm" -> OptionalDouble.of(value / 100);
            case "mnm", "nmm" -> OptionalDouble.of(value / 1000);
            case "kgcm", "kgfcm" -> OptionalDouble.of(value * 0.0980665);
            case "inlb", "lbin", "lbfin" -> OptionalDouble.of(value * 0.112985);
            default -> OptionalDouble.empty();
        };
    }
}
