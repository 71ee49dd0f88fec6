package org.greenbead.core.account;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.leak.LeakHold;
import org.greenbead.core.record.Kept;

/** What a record of a held pressure has to reckon with. */
public final class LeakRecords {
    private LeakRecords() {
    }

    /** Empty where a reading is missing, or is none: nothing is computed from it then. */
    public static Optional<LeakHold> hold(Kept record) {
        if (List.of("p0_kpa", "p1_kpa", "t0_c", "t1_c", "hold_s").stream()
                .anyMatch(f -> !Double.isFinite(record.number(f)))) {
            return Optional.empty();
        }
        try {
            return Optional.of(new LeakHold(record.number("p0_kpa"), record.number("p1_kpa"),
                    record.number("t0_c"), record.number("t1_c"), record.number("hold_s"),
                    noted(record, "ambient_kpa"), noted(record, "volume_cm3")));
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    private static Optional<Double> noted(Kept record, String field) {
        return Optional.of(record.number(field)).filter(Double::isFinite);
    }

    /** To three figures. */
    static double rounded(double value) {
        if (value == 0) {
            return 0;
        }
        double step = Math.pow(10, Math.floor(Math.log10(Math.abs(value))) - 2);
        return Math.round(value / step) * step;
    }
}
