package org.greenbead.core.inspect;

/** A photo that cannot be judged; the message says why and what to change. */
public final class UnclearPhotoException extends Exception {
    private static final long serialVersionUID = 1L;
    private final Why why;

    /** What is wrong with it. */
    public enum Why {
        NO_FIELD, WRONG_CHIP, MIRRORED, CROPPED, TOO_SMALL, BLURRED, GLARE
    }

    public UnclearPhotoException(Why why, String message) {
        super(message);
        this.why = why;
    }

    public Why why() {
        return why;
    }
}
