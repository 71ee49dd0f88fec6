package org.greenbead.app.run;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.testng.annotations.Test;

/** Sampling never stops before the run does. */
public class PumpTest {
    @Test
    public void oneFailureDoesNotEndIt() throws Exception {
        var runner = Executors.newSingleThreadScheduledExecutor();
        var after = new CountDownLatch(20);
        var told = Collections.synchronizedList(new ArrayList<String>());
        var times = new AtomicInteger();
        var pump = new Pump(runner, () -> {
            if (times.incrementAndGet() % 3 == 0) {
                throw new IllegalStateException("at " + times.get());
            }
            after.countDown();
        }, () -> 0.001, e -> told.add(e.getMessage()));
        pump.start();
        assertTrue(after.await(20, TimeUnit.SECONDS), "it went on");
        pump.stop();
        runner.shutdown();
        assertTrue(runner.awaitTermination(20, TimeUnit.SECONDS));
        assertEquals(told.subList(0, 2), List.of("at 3", "at 6"), "each failure is told");
    }

    @Test
    public void stoppedFromWithinItStops() throws Exception {
        var runner = Executors.newSingleThreadScheduledExecutor();
        var times = new AtomicInteger();
        var holder = new Pump[1];
        holder[0] = new Pump(runner, () -> {
            if (times.incrementAndGet() == 5) {
                holder[0].stop();
            }
        }, () -> 0, e -> {
        });
        holder[0].start();
        var done = new CountDownLatch(1);
        runner.schedule(done::countDown, 200, TimeUnit.MILLISECONDS);
        assertTrue(done.await(20, TimeUnit.SECONDS));
        assertEquals(times.get(), 5);
        runner.shutdownNow();
    }
}
