package org.greenbead.app.run;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executors;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import javafx.application.Platform;
import org.greenbead.app.shell.Desk;
import org.greenbead.core.calibrate.SimulatedDots;
import org.greenbead.core.calibrate.Witness;
import org.greenbead.core.calibrate.WitnessWatch;
import org.greenbead.core.run.LinkLostException;
import org.greenbead.core.run.Reading;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.store.DemoWorld;
import org.greenbead.store.Format;
import org.greenbead.store.SafeFiles;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Moves a heating of dots on by the clock, on its own thread, and keeps its file after every press. */
public final class WitnessRunner implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(WitnessRunner.class);
    private static final double SAMPLE_S = 0.1;
    private static final double KEEP_EVERY_S = 10;
    private static final double READ_EVERY_S = 1;

    /**
     * What is to be seen.
     *
     * @param asked   what to do
     * @param melted  dots with their press
     * @param shining dots that the simulated bench shows bright; empty at a real one
     * @param simulated true where there is no bench but this
     */
    public record Seen(WitnessWatch.Asked asked, double timeS, List<Witness.Press> melted,
            List<String> shining, boolean simulated) {}

    private final Desk desk;
    private final RunPlan plan;
    private final WitnessWatch watch;
    private final Path file;
    private final Consumer<Seen> listener;
    private final BenchLink link;
    private final SimulatedDots dots;
    private final ScheduledExecutorService runner = Executors
            .newSingleThreadScheduledExecutor(Thread.ofPlatform().daemon().name("dots").factory());
    private final Pump pump = new Pump(runner, this::pump, this::periodS, this::trouble);
    private final AtomicReference<Seen> fresh = new AtomicReference<>();
    private final CompletableFuture<Void> closed = new CompletableFuture<>();
    private volatile int speed = 1;
    private double timeS;
    private long startedNanos;
    private double keptS;
    private double readS = -READ_EVERY_S;

    /** @param listener told on the FX thread */
    public WitnessRunner(Desk desk, RunPlan plan, WitnessWatch watch, Path file, Consumer<Seen> listener) {
        this.desk = desk;
        this.plan = plan;
        this.watch = watch;
        this.file = file;
        this.listener = listener;
        link = new BenchLink(desk, SAMPLE_S);
        dots = new SimulatedDots(plan, watch.design().dots(), DemoWorld.SEED);
        submit(() -> {
            try {
                // At a real bench nothing is simulated: what no logger says must not enter a calibration.
                if (desk.joined() != Desk.Joined.NOTHING) {
                    link.connect(plan, DemoWorld.SEED);
                }
            } catch (IOException | IllegalArgumentException e) {
                // Dots need no logger: it is said, and goes on without.
                desk.trouble(desk.texts().get("run.nologger", String.valueOf(e.getMessage())));
            }
            publish();
        });
    }

    public void speed(int times) {
        speed = times;
    }

    private void submit(Runnable work) {
        try {
            runner.execute(() -> {
                try {
                    work.run();
                } catch (RuntimeException e) {
                    trouble(e);
                }
            });
        } catch (RejectedExecutionException e) {
            LOG.debug("the dots are over");
        }
    }

    private void trouble(RuntimeException e) {
        LOG.error("something went wrong while dots were watched", e);
        desk.trouble(desk.texts().get("error.unexpected", String.valueOf(e.getMessage())));
    }

    private double periodS() {
        return link.bench().isPresent() ? SAMPLE_S / speed : SAMPLE_S;
    }

    private void pump() {
        timeS = link.bench().isPresent()
                ? timeS + SAMPLE_S
                : (System.nanoTime() - startedNanos) / 1e9;
        acts();
        link.bench().ifPresent(b -> b.timeIs(timeS));
        read();
        if (timeS - keptS >= KEEP_EVERY_S) {
            keep();
        }
        publish();
    }

    private void acts() {
        link.bench().ifPresent(b -> b.set(watch.acts().map(s -> HeatInput.of(s.heaterC(), s.air()))
                .orElse(HeatInput.OFF)));
    }

    private void read() {
        if (timeS - readS < READ_EVERY_S || link.port().isEmpty() || plan.bench().probes().isEmpty()) {
            return;
        }
        readS = timeS;
        try {
            for (Reading reading : link.port().get().sweep()) {
                if (reading instanceof Reading.Measured m && m.celsius() > -60 && m.celsius() < 600) {
                    watch.read(m.probe(), timeS, m.celsius());
                }
            }
        } catch (LinkLostException e) {
            LOG.debug("no reading at {} s", timeS);
        }
    }

    /** The pedal. */
    public void press() {
        submit(() -> {
            boolean first = !watch.started();
            watch.press(timeS);
            if (first && watch.started()) {
                startedNanos = System.nanoTime();
                pump.start();
            }
            after();
        });
    }

    /** A letter. */
    public void name(String dot) {
        submit(() -> {
            if (watch.name(dot, timeS)) {
                after();
            }
        });
    }

    public void takeBack() {
        submit(() -> {
            watch.takeBack();
            after();
        });
    }

    /** Broken off, or its time is over. */
    public void end() {
        submit(() -> {
            watch.end(timeS);
            after();
        });
    }

    private void after() {
        acts();
        keep();
        if (watch.over()) {
            pump.stop();
        }
        publish();
    }

    private void keep() {
        keptS = timeS;
        watch.seen(timeS).ifPresent(seen -> {
            try {
                SafeFiles.write(file,
                        desk.files().write(Format.WITNESS, seen).getBytes(StandardCharsets.UTF_8));
            } catch (IOException e) {
                desk.trouble(desk.texts().get("witness.unkept", file.getFileName(),
                        String.valueOf(e.getMessage())));
            }
        });
    }

    /** What was seen so far, on the FX thread. */
    public void seen(Consumer<Optional<Witness>> then) {
        submit(() -> {
            Optional<Witness> seen = watch.seen(timeS);
            Platform.runLater(() -> then.accept(seen));
        });
    }

    private void publish() {
        var now = new Seen(watch.asked(timeS), timeS,
                watch.seen(Math.max(1, timeS)).map(Witness::presses).orElse(List.of()),
                link.bench().map(dots::shining).orElse(List.of()), link.bench().isPresent());
        if (fresh.getAndSet(now) == null) {
            Platform.runLater(() -> {
                Seen last = fresh.getAndSet(null);
                if (last != null) {
                    listener.accept(last);
                }
            });
        }
    }

    @Override
    public void close() {
        submit(() -> {
            pump.stop();
            link.close();
            closed.complete(null);
        });
        runner.shutdown();
        desk.closing(closed);
    }
}
