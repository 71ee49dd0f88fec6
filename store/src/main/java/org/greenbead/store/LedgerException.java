package org.greenbead.store;

/** The ledger cannot be opened; the message says what, where and what to do. Nothing in it has been changed. */
public class LedgerException extends Exception {
    private static final long serialVersionUID = 1L;

    public LedgerException(String message) {
        super(message);
    }

    public LedgerException(String message, Throwable cause) {
        super(message, cause);
    }
}
