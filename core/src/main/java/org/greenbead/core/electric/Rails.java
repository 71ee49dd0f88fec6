package org.greenbead.core.electric;

import java.util.List;

/**
 * Rails to ground against the same rails of a healthy board: {@code R' = R - R_lead}, deviation {@code (R' - R_ref) / R_ref}.
 * Beyond 30 % a rail is suspect, under a tenth of its reference it is short (rules of thumb of the trade; a rail without a reading
 * or a reference forbids a verdict).
 */
public final class Rails {
    static final double SUSPECT_PCT = 30;
    static final double SHORT_PART = 0.1;

    private Rails() {
    }

    /**
     * @param ohm          as read, leads included; NaN = not read
     * @param leadOhm      of the leads; NaN = none noted, taken as 0
     * @param referenceOhm of a healthy board, leads excluded; NaN = none
     */
    public record Rail(String name, double ohm, double leadOhm, double referenceOhm) {
        /** Resistance without the leads, ohm, never below 0. */
        public double bareOhm() {
            return Math.max(0, ohm - (Double.isNaN(leadOhm) ? 0 : leadOhm));
        }

        /** Percent of the reference; NaN where either is missing. */
        public double deviationPct() {
            return referenceOhm > 0 ? (bareOhm() - referenceOhm) / referenceOhm * 100 : Double.NaN;
        }

        public Verdict verdict() {
            if (Double.isNaN(ohm) || !(referenceOhm > 0)) {
                return Verdict.MISSING;
            }
            if (bareOhm() < SHORT_PART * referenceOhm) {
                return Verdict.SHORT;
            }
            return Math.abs(deviationPct()) > SUSPECT_PCT ? Verdict.SUSPECT : Verdict.PASS;
        }
    }

    /** What one rail says. */
    public enum Verdict {
        PASS, SUSPECT, SHORT, MISSING
    }

    /** @param worstDeviationPct the largest departure either way, without its sign; 0 where none was read */
    public record Compared(Verdict verdict, int read, int missing, double worstDeviationPct) {}

    /** The worst of them; a missing one forbids a pass. */
    public static Compared compare(List<Rail> rails) {
        int missing = (int) rails.stream().filter(r -> r.verdict() == Verdict.MISSING).count();
        double worst = rails.stream().mapToDouble(Rail::deviationPct).filter(Double::isFinite).map(Math::abs)
                .max().orElse(0);
        Verdict verdict = rails.stream().anyMatch(r -> r.verdict() == Verdict.SHORT)
                ? Verdict.SHORT
                : rails.stream().anyMatch(r -> r.verdict() == Verdict.SUSPECT)
                        ? Verdict.SUSPECT
                        : missing > 0 || rails.isEmpty() ? Verdict.MISSING : Verdict.PASS;
        return new Compared(verdict, rails.size() - missing, missing, worst);
    }
}
