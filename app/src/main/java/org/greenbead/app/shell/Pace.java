package org.greenbead.app.shell;

/** Lets the time of a simulated bench go on, sample by sample, or holds it. It has no say over a real one. */
@FunctionalInterface
public interface Pace {
    /** As fast as the chosen speed. */
    Pace FREE = timeS -> true;

    /** @param timeS of the run so far */
    boolean goesOn(double timeS);
}
