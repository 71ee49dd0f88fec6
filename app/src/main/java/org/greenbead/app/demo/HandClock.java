package org.greenbead.app.demo;

import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.util.concurrent.atomic.AtomicLong;

/** A clock for hands that press faster than a person can: each press takes the second that a person's would. */
public final class HandClock implements InstantSource {
    private static final long PRESS_MS = 1100;
    private final InstantSource base;
    private final AtomicLong aheadMs = new AtomicLong();

    public HandClock(InstantSource base) {
        this.base = base;
    }

    /** A key is pressed. */
    public void press() {
        aheadMs.addAndGet(PRESS_MS);
    }

    /** Somebody waits. */
    public void pass(Duration time) {
        aheadMs.addAndGet(time.toMillis());
    }

    @Override
    public Instant instant() {
        return base.instant().plus(Duration.ofMillis(aheadMs.get()));
    }
}
