package org.greenbead.app.work;

import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.RunState;
import org.greenbead.core.run.Verdict;
import org.greenbead.store.RunEntry;

/** Where a page can send the technician. */
public interface Navigator {
    /** The bead in hand of the job in hand. */
    void home();

    void bead(String beadId);

    void recipe(String beadId);

    void run();

    void verdict(RunPlan plan, RunEntry entry, Verdict verdict, RunState end);

    void replay(RunEntry entry);

    void ledger();
}
