package org.greenbead.core.run;

/** A device did not answer. Check cable and power; a logger is asked again at the next sweep. */
public final class LinkLostException extends Exception {
    private static final long serialVersionUID = 1L;

    public LinkLostException(String message) {
        super(message);
    }

    public LinkLostException(String message, Throwable cause) {
        super(message, cause);
    }
}
