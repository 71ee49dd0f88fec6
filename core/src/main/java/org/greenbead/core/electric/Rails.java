package org.greenbead.core.electric;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Rails to ground against the same rails of a healthy board: {@code R' = R - R_lead}, deviation {@code (R' - R_ref) / R_ref}.
 * Beyond 30 % a rail is suspect, under a tenth of its reference it is short (rules of thumb of the trade; a rail without a reading
 * or a reference forbids a verdict).
 */
public final class Rails {
    static final double SUSPECT_PCT = 30;
    static final double SHORT_PART = 0.1;
    /** Usual tolerance of a reading after the work, percent, where none is noted. */
    public static final double USUAL_TOLERANCE_PCT = 10;
    /** What two probe tips leave unsure after the leads are taken off, ohm: small rails differ by that without being different. Judgement. */
    static final double CONTACT_OHM = 0.1;

    /** Two rails with less between them are joined: a short, or a part that joins them by design, which the reading of a healthy board tells. Judgement. */
    static final double JOINED_OHM = 1;
    /** So many times what it was, a reading that looked like a short no longer does. Judgement. */
    static final double ROSE_TIMES = 10;
    private static final Pattern BETWEEN = Pattern.compile("(?i)(\\S.*?)\\s+to\\s+(\\S.*)");
    private static final Pattern GROUND = Pattern
            .compile("(?i)(the )?(ground|gnd|earth|chassis|shield|0 ?v)");

    private Rails() {
    }

    /** The two rails of a reading between them, from its name "core to io"; empty for one to ground. */
    public static Optional<List<String>> between(String name) {
        Matcher m = BETWEEN.matcher(name.strip());
        return m.matches() && !GROUND.matcher(m.group(2)).matches()
                ? Optional.of(List.of(m.group(1), m.group(2)))
                : Optional.empty();
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

        /** It differs by no more than two probe tips make it. */
        private boolean withinContacts() {
            return Math.abs(bareOhm() - referenceOhm) <= CONTACT_OHM;
        }

        /** {@code R' / R_ref}: what a small rail is judged by; NaN where either is missing. */
        public double ratio() {
            return referenceOhm > 0 ? bareOhm() / referenceOhm : Double.NaN;
        }

        public Verdict verdict() {
            return verdict(SUSPECT_PCT);
        }

        /** The same with a tolerance of its own. */
        public Verdict verdict(double tolerancePct) {
            if (Double.isNaN(ohm)) {
                return Verdict.MISSING;
            }
            if (!(referenceOhm > 0)) {
                return between(name).isPresent() && bareOhm() < JOINED_OHM ? Verdict.SHORT : Verdict.MISSING;
            }
            if (withinContacts()) {
                return Verdict.PASS;
            }
            if (bareOhm() < SHORT_PART * referenceOhm) {
                return Verdict.SHORT;
            }
            return Math.abs(deviationPct()) > tolerancePct ? Verdict.SUSPECT : Verdict.PASS;
        }
    }

    /** A reading with nothing to hold it against shows two rails apart, if they are two: both have to be known by their names, in small letters. */
    public static boolean apart(String name, Set<String> rails, double bareOhm, Verdict verdict) {
        return verdict == Verdict.MISSING && bareOhm >= JOINED_OHM && between(name)
                .filter(p -> p.stream().allMatch(n -> rails.contains(n.strip().toLowerCase(Locale.ROOT))))
                .isPresent();
    }

    /** What one rail says. */
    public enum Verdict {
        PASS, SUSPECT, SHORT,
        /** Not read, or nothing to hold it against. */
        MISSING,
        /** Read with its leads or with a meter otherwise than before, which tells nothing. */
        OTHERWISE,
        /** It read like a short before and no longer does: mended, or the chip that drew it down is not joined. Only a healthy board's reading tells. */
        ROSE;

        /** A reading was made, and what it means is still to be found out. */
        public boolean unsure() {
            return this == OTHERWISE || this == ROSE;
        }
    }

    /** What a reading after the work is held against. */
    public enum Against {
        /** A healthy board: noted beside the rail, or learned. */
        HEALTHY,
        /** Itself before the work. */
        BEFORE, NOTHING
    }

    /** A reading after the work. @param rail with what it is held against as its reference */
    public record After(Rail rail, Against against, Verdict verdict) {}

    /**
     * A reading after the work against a healthy board, or where none is known against the one before it. One under an ohm before it, with no healthy board
     * to say whether that was a short, neither passes nor fails by having risen far. Two rails that were joined before it are no
     * pattern of what they should be.
     *
     * @param before       as read before the work, with its leads and its reference
     * @param was          what that was read with
     * @param afterOhm     NaN = not read
     * @param is           what this is read with; the same, where nobody said
     * @param tolerancePct NaN = {@link #USUAL_TOLERANCE_PCT}
     */
    public static After after(Rail before, ReadWith was, double afterOhm, ReadWith is, double tolerancePct) {
        boolean healthy = before.referenceOhm() > 0;
        boolean joined = between(before.name()).isPresent() && before.bareOhm() < JOINED_OHM;
        boolean itself = !healthy && !Double.isNaN(before.ohm()) && !joined;
        var rail = new Rail(before.name(), afterOhm, before.leadOhm(),
                healthy ? before.referenceOhm() : itself ? before.bareOhm() : Double.NaN);
        Verdict verdict = rail.verdict(Double.isNaN(tolerancePct) ? USUAL_TOLERANCE_PCT : tolerancePct);
        boolean otherwise = verdict == Verdict.PASS && was.turned() != is.turned()
                || verdict == Verdict.SUSPECT && (was.turned() != is.turned() || is.otherMeter(was));
        boolean rose = itself && verdict == Verdict.SUSPECT && before.bareOhm() < JOINED_OHM
                && rail.bareOhm() > ROSE_TIMES * before.bareOhm() && rail.bareOhm() > JOINED_OHM;
        return new After(rail, healthy ? Against.HEALTHY : itself ? Against.BEFORE : Against.NOTHING,
                rose ? Verdict.ROSE : otherwise ? Verdict.OTHERWISE : verdict);
    }

    /** @param worstDeviationPct the largest departure either way, without its sign; 0 where none was read */
    public record Compared(Verdict verdict, int read, int missing, double worstDeviationPct) {}

    /** The worst of them; a missing one forbids a pass. */
    public static Compared compare(List<Rail> rails) {
        int missing = (int) rails.stream().filter(r -> r.verdict() == Verdict.MISSING).count();
        double worst = rails.stream().filter(r -> !r.withinContacts()).mapToDouble(Rail::deviationPct)
                .filter(Double::isFinite).map(Math::abs)
                .max().orElse(0);
        Verdict verdict = rails.stream().anyMatch(r -> r.verdict() == Verdict.SHORT)
                ? Verdict.SHORT
                : rails.stream().anyMatch(r -> r.verdict() == Verdict.SUSPECT)
                        ? Verdict.SUSPECT
                        : missing > 0 || rails.isEmpty() ? Verdict.MISSING : Verdict.PASS;
        return new Compared(verdict, rails.size() - missing, missing, worst);
    }
}
