package org.greenbead.store;

import java.time.Instant;

/** One line of a job's history. */
public record JobEvent(Instant at, String kind, String detail) {}
