package org.greenbead.core.run;

/** The logger did not answer. Check cable and power; the next sweep tries again. */
public final class LinkLostException extends Exception {
    private static final long serialVersionUID = 1L;

    public LinkLostException(String message, Throwable cause) {
        super(message, cause);
    }
}
