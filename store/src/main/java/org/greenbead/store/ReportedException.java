package org.greenbead.store;

/** Something stays because a report was made from it; who has read that may say so again and have it done. */
public final class ReportedException extends LedgerException {
    private static final long serialVersionUID = 1L;

    ReportedException(String message) {
        super(message, null);
    }
}
