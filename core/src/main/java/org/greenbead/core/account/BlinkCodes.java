package org.greenbead.core.account;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.record.Kept;

/**
 * What a unit's lamp, beeper or log said before the work and after it.
 *
 * @param before empty where nobody counted, {@link #NONE} where it gave no code
 */
public record BlinkCodes(Optional<String> before, Optional<String> after) {
    /** It gives no code: not the same as a count that nobody took. */
    public static final String NONE = "none";

    /** What became of the code. */
    public enum Change {
        NOT_AGAIN, GONE, SAME, OTHER, NEW, STILL_NONE
    }

    /** @param baselines records of a job; the last word of each counts */
    public static BlinkCodes of(List<Kept> baselines) {
        return new BlinkCodes(last(baselines, "codes"), last(baselines, "codes_after"));
    }

    private static Optional<String> last(List<Kept> baselines, String field) {
        return baselines.stream().map(b -> b.text(field).strip()).filter(c -> !c.isEmpty())
                .map(c -> c.equalsIgnoreCase(NONE) ? NONE : c).reduce((a, b) -> b);
    }

    /** Codes are held against one another as they are written, capitals aside. */
    public Change change() {
        if (after.isEmpty()) {
            return Change.NOT_AGAIN;
        }
        boolean gave = before.filter(c -> !c.equals(NONE)).isPresent();
        if (after.get().equals(NONE)) {
            return gave ? Change.GONE : Change.STILL_NONE;
        }
        return !gave
                ? Change.NEW
                : before.get().equalsIgnoreCase(after.get()) ? Change.SAME : Change.OTHER;
    }

    /** Whether a code stands after the work; empty while nobody counted then. */
    public Optional<Boolean> stands() {
        return after.map(c -> !c.equals(NONE));
    }
}
