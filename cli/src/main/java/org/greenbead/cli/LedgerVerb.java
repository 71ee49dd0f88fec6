package org.greenbead.cli;

import java.util.concurrent.Callable;
import org.greenbead.store.Format;
import org.greenbead.store.Ledger;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Spec;

/** A verb that works on what the ledger holds and prints as it goes. */
abstract class LedgerVerb implements Callable<Integer> {
    @Mixin
    private Shared shared;
    @Spec
    private CommandSpec spec;

    abstract void work(Ledger ledger) throws Exception;

    @Override
    public Integer call() throws Exception {
        try (Ledger ledger = shared.ledger()) {
            work(ledger);
        }
        return 0;
    }

    Shared shared() {
        return shared;
    }

    void say(String line) {
        spec.commandLine().getOut().println(line);
    }

    /** @throws IllegalArgumentException when something of that name is there already */
    static void fresh(Ledger ledger, Format format, String id) {
        if (ledger.holds(format, id)) {
            throw new IllegalArgumentException(
                    format.word() + " " + id + " is there already; choose another name");
        }
    }

    /** Takes it out of the ledger; what jobs stand on stays. */
    void remove(Ledger ledger, Format format, String id) throws Exception {
        if (!ledger.holds(format, id)) {
            throw new IllegalArgumentException("the ledger has no " + format.word() + " " + id);
        }
        ledger.remove(format, id);
        say(format.word() + " " + id + " is gone");
    }
}
