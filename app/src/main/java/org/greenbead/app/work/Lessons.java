package org.greenbead.app.work;

import org.greenbead.app.shell.Desk;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.bench.Calibration;
import org.greenbead.core.calibrate.History;
import org.greenbead.store.Format;

/** What runs teach of a bench goes to its file. */
public final class Lessons {
    private Lessons() {
    }

    /** Keeps a calibration with its bench as the ledger has it by now; {@code then} on the FX thread. */
    public static void keep(Desk desk, String benchId, Calibration told, Runnable then) {
        desk.io(() -> {
            Bench kept = History.with(desk.ledger().document(Format.BENCH, benchId, Bench.class), told);
            desk.ledger().save(kept);
            return kept;
        }, kept -> then.run());
    }
}
