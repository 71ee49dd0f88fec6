package org.greenbead.core.electric;

import java.util.Optional;
import java.util.OptionalDouble;

/**
 * One pad that was torn, scratched, joined or found in doubt: what it carries, and what a meter says of it.
 *
 * @param damage    what is wrong with it
 * @param carries   what is lost with it
 * @param continues whether a meter found its net from what is there now (the pad, a bonded one or a wire); empty = not read
 * @param leakOhm   least resistance to the pads beside it, on the bare field; empty = not read
 * @param bonded    a new pad or a wire was put there
 * @param covered   mask was laid over it and cured
 */
public record Pad(String site, Damage damage, Carries carries, Optional<Boolean> continues,
        OptionalDouble leakOhm,
        boolean bonded, boolean covered) {
    /** Solder, whisker or copper between two pads reads less than this. Judgement of the trade. */
    public static final double SHORT_OHM = 10;
    /** A dry, washed field reads more between pads than most meters show; less is flux, water or corrosion. Judgement of the trade. */
    public static final double LEAK_OHM = 1e6;

    public enum Damage {
        NONE, LIFTED, MISSING, SCRATCHED, BRIDGED
    }

    /** What its net loses with it. */
    public enum Carries {
        /** Nobody said and no map tells. */
        UNKNOWN,
        /** Nothing: spare, or not connected. */
        SPARE,
        /** Other pads carry the same net. */
        SHARED,
        /** The net ends here. */
        ONLY
    }

    /** The gravest that is known of it. */
    public enum Verdict {
        SHORTED, LEAKS, OPEN, UNREAD, UNCOVERED, CARRIED, FINE
    }

    /** Whether it may have lost its net. */
    private boolean torn() {
        return damage == Damage.LIFTED || damage == Damage.MISSING || damage == Damage.SCRATCHED;
    }

    public Verdict verdict() {
        if (leakOhm.isPresent() && leakOhm.getAsDouble() < SHORT_OHM) {
            return Verdict.SHORTED;
        }
        if (leakOhm.isPresent() && leakOhm.getAsDouble() < LEAK_OHM) {
            return Verdict.LEAKS;
        }
        if (damage == Damage.BRIDGED && leakOhm.isEmpty()) {
            return Verdict.UNREAD;
        }
        boolean needed = carries != Carries.SPARE;
        if (needed && continues.isPresent() && !continues.get()) {
            return carries == Carries.SHARED ? Verdict.CARRIED : Verdict.OPEN;
        }
        if (needed && torn() && continues.isEmpty()) {
            return Verdict.UNREAD;
        }
        return bonded && !covered ? Verdict.UNCOVERED : Verdict.FINE;
    }
}
