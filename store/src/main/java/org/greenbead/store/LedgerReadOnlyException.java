package org.greenbead.store;

/** The ledger was opened for reading, because another process writes it; nothing was changed. */
public final class LedgerReadOnlyException extends IllegalStateException {
    private static final long serialVersionUID = 1L;

    public LedgerReadOnlyException(String owner) {
        super("The data folder belongs to another Green Bead (" + owner
                + "), so this one may only read. Nothing was changed. Close that one, or choose another folder with --data.");
    }
}
