package org.greenbead.app.run;

import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import java.util.function.DoubleSupplier;

/** Does one thing again and again until it is stopped. Whatever goes wrong in it, the next time comes: the heat may be on. */
final class Pump {
    private final ScheduledExecutorService on;
    private final Runnable work;
    private final DoubleSupplier periodS;
    private final Consumer<RuntimeException> trouble;
    private volatile boolean going;

    /** @param periodS from one beginning to the next, asked each time; work that takes longer follows at once */
    Pump(ScheduledExecutorService on, Runnable work, DoubleSupplier periodS,
            Consumer<RuntimeException> trouble) {
        this.on = on;
        this.work = work;
        this.periodS = periodS;
        this.trouble = trouble;
    }

    void start() {
        going = true;
        next(0);
    }

    void stop() {
        going = false;
    }

    private void next(double inS) {
        try {
            on.schedule(this::once, (long) (inS * 1e9), TimeUnit.NANOSECONDS);
        } catch (RejectedExecutionException e) {
            going = false;
        }
    }

    private void once() {
        if (!going) {
            return;
        }
        long begun = System.nanoTime();
        try {
            work.run();
        } catch (RuntimeException e) {
            trouble.accept(e);
        } finally {
            if (going) {
                next(Math.max(0, periodS.getAsDouble() - (System.nanoTime() - begun) / 1e9));
            }
        }
    }
}
