package org.greenbead.app.run;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.Executors;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Consumer;
import javafx.application.Platform;
import org.greenbead.app.shell.Desk;
import org.greenbead.core.board.Side;
import org.greenbead.core.forming.Act;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.run.Ahead;
import org.greenbead.core.run.BenchHands;
import org.greenbead.core.run.LinkLostException;
import org.greenbead.core.run.ProbePort;
import org.greenbead.core.run.Reading;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunEvent;
import org.greenbead.core.run.RunJournal;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.RunSession;
import org.greenbead.core.run.RunState;
import org.greenbead.core.run.Say;
import org.greenbead.core.run.Sight;
import org.greenbead.core.run.SimulatedBench;
import org.greenbead.core.run.Verdict;
import org.greenbead.core.thermal.HeatField;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.store.DemoWorld;
import org.greenbead.store.RunEntry;
import org.greenbead.store.RunHeader;
import org.greenbead.store.RunLog;
import org.greenbead.store.RunLogWriter;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Keeps a run going on a thread of its own and hands its states to the FX thread, one batch a pulse. Methods may be called
 * from the FX thread; callbacks come on it. Closing leaves an unfinished run open in the ledger, to be offered again.
 */
public final class RunDriver implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(RunDriver.class);
    private static final double SAMPLE_S = 0.5;
    private static final double PEEK_S = 1;
    private static final double PAST_EVERY_S = 1;

    /** Who wants to know. Called on the FX thread. */
    public interface Listener {
        /** New states, oldest first. */
        void states(List<RunState> states, RunPlan plan);

        /** The run is over and kept. */
        void ended(RunEntry entry, RunPlan plan, List<RunEvent> told, Verdict verdict, RunState end);

        /** It cannot begin; the message says why. */
        void failed(String messageKey, String detail);

        /** Something went wrong and the run goes on; the message says what. */
        void troubled(String message);

        /** What a run that is taken up again was before, oldest first. */
        void past(List<RunState> states, RunPlan plan);
    }

    private final Desk desk;
    private final RunPlan plan;
    private final Listener listener;
    private final ScheduledExecutorService runner = Executors
            .newSingleThreadScheduledExecutor(Thread.ofPlatform().daemon().name("run").factory());
    private final Pump sampling = new Pump(runner, this::pump, this::periodS, this::trouble);
    private final Pump peeking = new Pump(runner, this::peek, () -> PEEK_S, this::trouble);
    private final ConcurrentLinkedQueue<RunState> fresh = new ConcurrentLinkedQueue<>();
    private final AtomicBoolean announced = new AtomicBoolean();
    private final CompletableFuture<Void> closed = new CompletableFuture<>();
    private volatile int speed = 1;
    private static final long PICTURE_NANOS = 200_000_000;
    private volatile Map<Side, HeatField> heat = Map.of();
    private long pictureNanos;
    private final BenchLink link;
    // Touched by the runner alone.
    private Optional<RunSession> session = Optional.empty();
    private Optional<RunEntry> entry = Optional.empty();
    private double timeS;
    private double offsetS;
    private long startedNanos;
    private Optional<RunEngine> idle = Optional.empty();
    private String lastTrouble = "";

    public RunDriver(Desk desk, RunPlan plan, Listener listener) {
        this.desk = desk;
        this.plan = plan;
        this.link = new BenchLink(desk, SAMPLE_S);
        this.listener = listener;
    }

    /** Before the start the probes are shown alive; nothing is kept. */
    public void idle() {
        submit(() -> {
            if (connect(DemoWorld.SEED)) {
                // One engine for as long as it waits: it is the asking that is repeated.
                idle = Optional.of(RunEngine.live(plan, Optional.empty()));
                peeking.start();
            }
        });
    }

    /** The simulated bench's own affairs: faults, and what the eye would see. */
    public Optional<SimulatedBench> bench() {
        return link.bench();
    }

    public void speed(int times) {
        speed = times;
    }

    private void submit(Runnable work) {
        try {
            runner.execute(() -> guarded(work));
        } catch (RejectedExecutionException e) {
            LOG.debug("the run is closed");
        }
    }

    private void guarded(Runnable work) {
        try {
            work.run();
        } catch (RuntimeException e) {
            trouble(e);
        }
    }

    /** Told once, and again only when it is another. The heat is on: whatever it was, sampling goes on. */
    private void trouble(RuntimeException e) {
        LOG.error("something went wrong in a run", e);
        String message = String.valueOf(desk.inWords(e).getMessage());
        if (!message.equals(lastTrouble)) {
            lastTrouble = message;
            Platform.runLater(() -> listener.troubled(desk.texts().get("error.unexpected", message)));
        }
    }

    private boolean connect(long seed) {
        try {
            link.connect(plan, seed);
            return true;
        } catch (IOException | IllegalArgumentException e) {
            Platform.runLater(() -> listener.failed("run.nologger", e.getMessage()));
            return false;
        }
    }

    private void peek() {
        if (session.isPresent() || link.port().isEmpty() || idle.isEmpty()) {
            peeking.stop();
            return;
        }
        List<Reading> readings;
        try {
            readings = link.port().get().sweep();
        } catch (LinkLostException e) {
            readings = List.of();
        }
        idle.get().apply(new RunEvent.Sampled(0, readings));
        publish(idle.get().state());
    }

    /** Begins: ledger first, then the log, then the heat; at a stencil the heat waits for the hands. */
    public void start(Optional<Rehearsal> rehearsal) {
        submit(() -> {
            if (session.isPresent() || link.port().isEmpty()) {
                return;
            }
            Instant now = desk.clock().instant();
            RunEntry begun = desk.ledger().beginRun(plan, now, link.bench().isPresent());
            try {
                var header = new RunHeader(begun.id(), now, link.bench().isPresent(),
                        link.bench().isPresent() ? DemoWorld.SEED : 0, plan);
                var writer = RunLogWriter.begin(desk.ledger().logFile(begun), header, desk.files(),
                        desk.clock());
                entry = Optional.of(begun);
                session = Optional
                        .of(new RunSession(RunEngine.live(plan, rehearsal), link.port().get(), writer,
                                link.hands()));
                startedNanos = System.nanoTime();
                publish(plan.forming().isPresent() ? session.get().state() : session.get().start(0));
                sampling.start();
            } catch (IOException e) {
                desk.ledger().endRun(begun.id(), now, RunEngine.live(plan, rehearsal).verdict());
                Platform.runLater(() -> listener.failed("run.unrecorded", String.valueOf(e.getMessage())));
            }
        });
    }

    /** Takes up a run that was left open: its past is played through, and what it was is handed over before it goes on. */
    public void resume(RunEntry left, RunLog log, Optional<Rehearsal> rehearsal) {
        submit(() -> {
            try {
                RunPlan ran = log.header().plan();
                try {
                    link.connect(plan, log.header().seed());
                } catch (IOException | IllegalArgumentException e) {
                    unlinked(left, log, rehearsal, e);
                    return;
                }
                if (!log.header().simulated() && link.bench().isPresent()) {
                    Platform.runLater(() -> listener.failed("run.nologger", desk.texts().get("run.real")));
                    return;
                }
                RunEngine engine = RunEngine.live(ran, rehearsal);
                // A simulated bench stood still while nobody looked: the same bench is driven again to where it was.
                Optional<SimulatedBench> again = log.header().simulated()
                        ? Optional.of(link.simulate(ran, log.header().seed()))
                        : Optional.empty();
                var past = new ArrayList<RunState>();
                for (RunEvent event : log.events()) {
                    again.ifPresent(b -> {
                        b.set(engine.input());
                        b.timeIs(event.timeS());
                    });
                    engine.apply(event);
                    if (past.isEmpty() || event.timeS() - past.getLast().timeS() >= PAST_EVERY_S) {
                        past.add(engine.state());
                    }
                }
                double awayS = Math.max(0,
                        Duration.between(left.startedAt(), desk.clock().instant()).toMillis() / 1000.0
                                - log.lengthS());
                timeS = log.lengthS() + (link.bench().isEmpty() ? awayS : 0);
                offsetS = timeS;
                startedNanos = System.nanoTime();
                var writer = RunLogWriter.resume(desk.ledger().logFile(left), desk.files(), desk.clock());
                entry = Optional.of(left);
                session = Optional
                        .of(new RunSession(engine, link.port().orElseThrow(), writer, link.hands(),
                                log.events()));
                RunPlan now = engine.plan();
                Platform.runLater(() -> listener.past(past, now));
                if (engine.state().status() == RunState.Status.ENDED) {
                    // Its log was written to the end; it is the ledger that did not take it.
                    after(engine.state(), ended(left, log));
                    return;
                }
                publish(session.get().take(new RunEvent.Resumed(timeS, awayS)));
                sampling.start();
            } catch (IOException e) {
                Platform.runLater(() -> listener.failed("run.unrecorded", String.valueOf(e.getMessage())));
            }
        });
    }

    /** Nothing answers. A run that is over needs no bench to have its end kept. */
    private void unlinked(RunEntry left, RunLog log, Optional<Rehearsal> rehearsal, Exception why) {
        RunEngine engine = log.replay(rehearsal, state -> {
        });
        if (engine.state().status() != RunState.Status.ENDED) {
            Platform.runLater(() -> listener.failed("run.nologger", why.getMessage()));
            return;
        }
        entry = Optional.of(left);
        session = Optional.of(new RunSession(engine, ProbePort.NONE, RunJournal.NONE, BenchHands.TECHNICIAN,
                log.events()));
        after(engine.state(), ended(left, log));
    }

    private static Instant ended(RunEntry left, RunLog log) {
        return left.startedAt().plusMillis(Math.round(1000 * log.lengthS()));
    }

    private void pump() {
        if (link.bench().isPresent() && !desk.pace().goesOn(timeS)) {
            return;
        }
        session.ifPresent(s -> {
            double next = link.bench().isPresent()
                    ? timeS + SAMPLE_S
                    : offsetS + (System.nanoTime() - startedNanos) / 1e9;
            timeS = Math.max(timeS, next);
            after(s.pump(timeS));
        });
    }

    private double periodS() {
        return link.bench().isPresent() ? SAMPLE_S / speed : link.pollS();
    }

    private void after(RunState state) {
        after(state, desk.clock().instant());
    }

    /** @param now when it ended, if it is over */
    private void after(RunState state, Instant now) {
        publish(state);
        if (state.status() == RunState.Status.ENDED && session.isPresent()) {
            sampling.stop();
            RunSession over = session.get();
            Verdict verdict = over.verdict();
            RunPlan ran = over.plan();
            List<RunEvent> told = over.told();
            RunEntry kept = entry.orElseThrow();
            session = Optional.empty();
            over.close();
            // The verdict is shown whatever the disk says: the log holds all that it was made of.
            Platform.runLater(() -> listener.ended(kept, ran, told, verdict, state));
            try {
                desk.ledger().endRun(kept.id(), now, verdict);
            } catch (RuntimeException e) {
                LOG.error("the end of run {} could not be kept", kept.id(), e);
                desk.trouble(desk.texts().get("run.end.unkept", String.valueOf(desk.inWords(e).getMessage()),
                        desk.ledger().logFile(kept)));
            }
        }
    }

    public void say(Say word, String text) {
        submit(() -> session.ifPresent(s -> after(s.say(timeS, word, text))));
    }

    /** Something was seen at the chip. */
    public void saw(Sight sight) {
        submit(() -> session.ifPresent(s -> after(s.take(new RunEvent.Saw(timeS, sight)))));
    }

    /** Something was done at the stencil. */
    public void act(Act act) {
        submit(() -> session.ifPresent(s -> after(s.act(timeS, act))));
    }

    public void change(int index, Stage stage) {
        submit(() -> session.ifPresent(s -> after(s.change(timeS, index, stage))));
    }

    /** What a side looks like by the estimate; empty before the start. */
    public Optional<HeatField> heat(Side side) {
        return Optional.ofNullable(heat.get(side));
    }

    /** Tries other settings on the estimate; {@code then} on the FX thread. */
    public void ahead(HeatInput settings, double seconds, java.util.function.Consumer<Ahead> then) {
        submit(() -> session.ifPresent(s -> {
            Ahead found = s.ahead(settings, seconds);
            Platform.runLater(() -> then.accept(found));
        }));
    }

    private void publish(RunState state) {
        if (System.nanoTime() - pictureNanos > PICTURE_NANOS) {
            pictureNanos = System.nanoTime();
            session.ifPresent(
                    s -> heat = Map.of(Side.TOP, s.field(Side.TOP), Side.BOTTOM, s.field(Side.BOTTOM)));
        }
        fresh.add(state);
        if (announced.compareAndSet(false, true)) {
            RunPlan now = session.map(RunSession::plan).orElse(plan);
            Platform.runLater(() -> {
                announced.set(false);
                var batch = new ArrayList<RunState>();
                for (RunState s = fresh.poll(); s != null; s = fresh.poll()) {
                    batch.add(s);
                }
                if (!batch.isEmpty()) {
                    listener.states(batch, now);
                }
            });
        }
    }

    /** Stops asking, then closes log and port, on the runner: nobody waits for a logger that does not answer. */
    @Override
    public void close() {
        submit(() -> {
            sampling.stop();
            peeking.stop();
            session.ifPresent(RunSession::close);
            session = Optional.empty();
            link.close();
            closed.complete(null);
        });
        runner.shutdown();
        desk.closing(closed);
    }
}
