package org.greenbead.core.leak;

import java.util.Optional;
import org.greenbead.core.quantity.Check;

/**
 * An enclosure under pressure or vacuum, held: what is left of the change of its pressure when that of its temperature is taken off, by the gas law
 * for a rigid volume, {@code p1 = p0 T1 / T0}. Standard deviations by the propagation of errors.
 *
 * @param startKPa   gauge pressure at the start, kPa; below zero for a vacuum
 * @param endKPa     at the end
 * @param startC     temperature of the enclosure at the start, °C
 * @param endC       at the end
 * @param holdS      time between, s
 * @param ambientKPa absolute pressure of the room, kPa; empty = a usual day at sea level
 * @param volumeCm3  of the enclosure; empty = not known
 */
public record LeakHold(double startKPa, double endKPa, double startC, double endC, double holdS,
        Optional<Double> ambientKPa, Optional<Double> volumeCm3) {
    private static final double ZERO_C_K = 273.15;
    /** Standard atmosphere (ISO 2533). */
    private static final double USUAL_KPA = 101.325;
    /** A gauge with a hundredth of a kPa, read twice; an enclosure's temperature by a surface probe. Judgement. */
    private static final double GAUGE_SD_KPA = 0.01;
    private static final double TEMPERATURE_SD_K = 0.2;
    /** What the room's pressure does in a quarter of an hour; with the root of the time. Judgement. */
    private static final double AMBIENT_SD_KPA = 0.02;
    private static final double AMBIENT_S = 900;
    private static final double SURE_SDS = 2;

    /** What it comes to against a limit. */
    public enum Verdict {
        TIGHT, LEAKS,
        /** Either may be. */
        UNSURE
    }

    public LeakHold {
        double ambient = ambientKPa.orElse(USUAL_KPA);
        Check.within("pressure of the room", ambient, 30, 110, "kPa");
        Check.within("gauge pressure at the start", startKPa, -ambient + 0.1, 1000, "kPa");
        Check.within("gauge pressure at the end", endKPa, -ambient + 0.1, 1000, "kPa");
        Check.within("temperature at the start", startC, -40, 150, "°C");
        Check.within("temperature at the end", endC, -40, 150, "°C");
        Check.within("hold", holdS, 1, 86_400, "s");
        volumeCm3.ifPresent(v -> Check.within("volume", v, 0.01, 1e6, "cm³"));
    }

    private double absoluteKPa() {
        return ambientKPa.orElse(USUAL_KPA) + startKPa;
    }

    /** What the temperature alone changes, kPa. */
    public double thermalKPa() {
        return absoluteKPa() * (endC - startC) / (startC + ZERO_C_K);
    }

    /** What went through the wall, kPa; above zero = inwards. */
    public double leakKPa() {
        return endKPa - startKPa - thermalKPa();
    }

    /** Standard deviation of that, kPa. */
    public double leakSdKPa() {
        double perK = absoluteKPa() / (startC + ZERO_C_K);
        double room = AMBIENT_SD_KPA * Math.sqrt(holdS / AMBIENT_S);
        return Math.sqrt(2 * GAUGE_SD_KPA * GAUGE_SD_KPA
                + 2 * perK * perK * TEMPERATURE_SD_K * TEMPERATURE_SD_K + room * room);
    }

    /** Pa/s, either way. */
    public double ratePaS() {
        return Math.abs(leakKPa()) * 1000 / holdS;
    }

    public double rateSdPaS() {
        return leakSdKPa() * 1000 / holdS;
    }

    /** Throughput, Pa m³/s (ISO 3530); empty where the volume is not known. */
    public Optional<Double> throughputPaM3S() {
        return volumeCm3.map(v -> v * 1e-6 * ratePaS());
    }

    public Verdict against(double limitPaS) {
        Check.within("leak limit", limitPaS, 1e-6, 1e5, "Pa/s");
        if (ratePaS() + SURE_SDS * rateSdPaS() <= limitPaS) {
            return Verdict.TIGHT;
        }
        return ratePaS() - SURE_SDS * rateSdPaS() > limitPaS ? Verdict.LEAKS : Verdict.UNSURE;
    }

    /**
     * How long to hold so that a leak at half the limit is told from the limit: the errors do not grow as fast as the time.
     *
     * @return s, at most a day
     */
    public double holdForS(double limitPaS) {
        double hold = holdS;
        while (hold < 86_400) {
            var longer = new LeakHold(startKPa, endKPa, startC, endC, hold, ambientKPa, volumeCm3);
            if (SURE_SDS * longer.rateSdPaS() <= limitPaS / 2) {
                return hold;
            }
            hold *= 1.1;
        }
        return 86_400;
    }
}
