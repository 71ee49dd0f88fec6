package org.greenbead.core.run;

/** One look at one probe. A broken thermocouple is a reading too. */
public sealed interface Reading {
    String probe();

    /** @param celsius what the logger says, °C */
    record Measured(String probe, double celsius) implements Reading {}

    /** The circuit is open, or the logger marks the value as invalid. */
    record Open(String probe) implements Reading {}
}
