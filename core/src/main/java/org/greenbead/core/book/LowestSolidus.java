package org.greenbead.core.book;

import java.util.OptionalDouble;
import org.greenbead.core.alloy.Dilution;
import org.greenbead.core.alloy.MeltingTable;

/** Lowest solidus on a board, deliberately cautious: lead and bismuth together 96 °C, unknown bismuth 138, silver with a trace of lead 179. */
public final class LowestSolidus {
    private LowestSolidus() {
    }

    /** °C; empty where nothing is known of any joint. */
    public static OptionalDouble of(Facts facts) {
        return of(facts.spot()) instanceof Double c ? OptionalDouble.of(c) : OptionalDouble.empty();
    }

    static Object of(Facts.Spot root) {
        double lowest = root.field("board").field("lowest_solidus_c").value() instanceof Double said
                ? said
                : Double.MAX_VALUE;
        for (Facts.Spot joint : root.field("joints").items()) {
            double bi = joint.field("bi_pct").value() instanceof Double d ? d : 0;
            double pb = joint.field("pb_pct").value() instanceof Double d ? d : 0;
            double said = joint.field("solidus_c").value() instanceof Double d ? d : Double.MAX_VALUE;
            double traces = Dilution.tracesSolidusC(bi, pb);
            lowest = Math.min(lowest, Double.isNaN(traces) ? said : Math.min(traces, said));
        }
        if (root.field("board").field("factory_alloy").value() instanceof String factory) {
            lowest = Math.min(lowest, MeltingTable.standard().find(factory)
                    .map(MeltingTable.Row::solidusC).orElse(Double.MAX_VALUE));
        }
        return lowest == Double.MAX_VALUE ? null : (Object) lowest;
    }
}
