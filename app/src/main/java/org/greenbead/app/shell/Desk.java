package org.greenbead.app.shell;

import java.io.IOException;
import java.time.InstantSource;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import javafx.application.Platform;
import org.greenbead.core.book.RuleBook;
import org.greenbead.device.SimulatedLogger;
import org.greenbead.device.Speaker;
import org.greenbead.store.Ledger;
import org.greenbead.store.LedgerException;
import org.greenbead.store.OpenFiles;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** What every screen needs: the ledger, the settings, the words, and threads other than the window's. */
public final class Desk implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Desk.class);
    private final RuleBook book = RuleBook.shipped();
    private final Speaker speaker = Speaker.ofSystem();
    private final Ledger ledger;
    private final InstantSource clock;
    private final boolean demo;
    private final Settings settings = new Settings();
    private final ExecutorService io = Executors
            .newSingleThreadExecutor(Thread.ofPlatform().daemon().name("ledger").factory());
    private final ExecutorService compute = Executors
            .newSingleThreadExecutor(Thread.ofPlatform().daemon().name("compute").factory());
    private final ExecutorService background = Executors
            .newSingleThreadExecutor(Thread.ofPlatform().daemon().name("background").factory());
    private final List<CompletableFuture<Void>> closings = new java.util.concurrent.CopyOnWriteArrayList<>();
    private final Cues cues;
    private final Changes changes = new Changes();
    private FilePicker picker = new SystemFiles();
    private volatile Pace pace = Pace.FREE;
    private Optional<SimulatedLogger> logger = Optional.empty();
    private Consumer<String> trouble = message -> LOG.error("{}", message);

    public Desk(Ledger ledger, InstantSource clock, boolean demo) {
        this.ledger = ledger;
        this.clock = clock;
        this.demo = demo;
        Map<String, String> stored = new HashMap<>();
        Settings.NAMES.forEach(name -> ledger.setting(name).ifPresent(value -> stored.put(name, value)));
        settings.load(stored);
        settings.keep((name, value) -> io.execute(() -> ledger.setting(name, value)));
        cues = new Cues(settings.mute());
    }

    public Ledger ledger() {
        return ledger;
    }

    public OpenFiles files() {
        return ledger.files();
    }

    /** What can be taken back, the newest first. */
    public Changes changes() {
        return changes;
    }

    public InstantSource clock() {
        return clock;
    }

    public Settings settings() {
        return settings;
    }

    /** What a run is joined to. */
    public enum Joined {
        NOTHING, SIMULATED, LOGGER
    }

    /** On the made-up bench nobody has to choose; at a real one nothing is simulated unless it was asked for. */
    public Joined joined() {
        String file = settings.loggerFile().get();
        if (file.isBlank()) {
            return demo ? Joined.SIMULATED : Joined.NOTHING;
        }
        return file.equals(Settings.SIMULATED) ? Joined.SIMULATED : Joined.LOGGER;
    }

    /** True on the made-up Skerry Bench. */
    public boolean demo() {
        return demo;
    }

    /** The rules, read once. */
    public RuleBook book() {
        return book;
    }

    /** The thresholds of this bench. */
    public RuleBook.Settings limits() {
        return RuleBook.Settings.read(settings.ruleLimits().get());
    }

    /** Says a word aloud, unless sounds are off. */
    public void say(String words) {
        if (!settings.mute().get()) {
            speaker.say(words);
        }
    }

    public FilePicker picker() {
        return picker;
    }

    /** Lets somebody else answer for files and folders. */
    public void picker(FilePicker other) {
        picker = other;
    }

    /** Of simulated benches, asked from the thread of a run. */
    public Pace pace() {
        return pace;
    }

    /** Lets somebody else hold the time of simulated benches. */
    public void pace(Pace other) {
        pace = other;
    }

    public Cues cues() {
        return cues;
    }

    public Texts texts() {
        return Texts.of(Locale.ENGLISH, settings.unit().get());
    }

    /** The simulated logger of this process, made at first use. */
    public synchronized SimulatedLogger simulatedLogger() throws IOException {
        if (logger.isEmpty()) {
            logger = Optional.of(new SimulatedLogger());
        }
        return logger.get();
    }

    public void onTrouble(Consumer<String> show) {
        trouble = show;
    }

    /** Tells the technician that something failed, from any thread. */
    public void trouble(String message) {
        LOG.warn("{}", message);
        Platform.runLater(() -> trouble.accept(message));
    }

    /** Ledger and files, in order, off the FX thread; {@code then} on it. A failure is told. */
    public <T> void io(Callable<T> work, Consumer<T> then) {
        run(io, work, then, this::explain);
    }

    /** The same with an own answer to a failure, on the FX thread. */
    public <T> void io(Callable<T> work, Consumer<T> then, Consumer<Throwable> failed) {
        run(io, work, then, failed);
    }

    /** Slow arithmetic off the FX thread; {@code then} on it. */
    public <T> void compute(Callable<T> work, Consumer<T> then, Consumer<Throwable> failed) {
        run(compute, work, then, failed);
    }

    public <T> void compute(Callable<T> work, Consumer<T> then) {
        run(compute, work, then, this::explain);
    }

    /** Arithmetic that takes seconds, so that what is typed does not wait for it; {@code then} on the FX thread. */
    public <T> void background(Callable<T> work, Consumer<T> then) {
        run(background, work, then, this::explain);
    }

    /** The same with an own answer to a failure, on the FX thread. */
    public <T> void background(Callable<T> work, Consumer<T> then, Consumer<Throwable> failed) {
        run(background, work, then, failed);
    }

    private <T> void run(ExecutorService where, Callable<T> work, Consumer<T> then,
            Consumer<Throwable> failed) {
        CompletableFuture.supplyAsync(() -> {
            try {
                return work.call();
            } catch (Exception e) {
                throw new CompletionException(e);
            }
        }, where).whenComplete((value, error) -> Platform.runLater(() -> {
            if (error == null) {
                then.accept(value);
            } else {
                failed.accept(inWords(error instanceof CompletionException && error.getCause() != null
                        ? error.getCause()
                        : error));
            }
        }));
    }

    /** A full disk is called a full disk, and not by the statement that met it. */
    public Throwable inWords(Throwable error) {
        return Ledger.inWords(ledger.folder(), error);
    }

    /** Says in the window what went wrong. */
    public void explain(Throwable error) {
        LOG.warn("work failed", error);
        trouble.accept(error instanceof LedgerException
                ? error.getMessage()
                : texts().get("error.ledger", String.valueOf(error.getMessage())));
    }

    /** Something is still being written; closing the desk waits a little for it. */
    public void closing(CompletableFuture<Void> done) {
        closings.add(done);
    }

    /** Waits for what is being written, then closes. */
    @Override
    public void close() {
        try {
            CompletableFuture.allOf(closings.toArray(CompletableFuture[]::new)).get(3, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } catch (java.util.concurrent.ExecutionException | java.util.concurrent.TimeoutException e) {
            LOG.warn("a run was not closed within 3 s");
        }
        compute.shutdownNow();
        background.shutdownNow();
        io.shutdown();
        try {
            if (!io.awaitTermination(10, TimeUnit.SECONDS)) {
                LOG.warn("the ledger is still busy after 10 s");
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        logger.ifPresent(l -> {
            try {
                l.close();
            } catch (IOException e) {
                LOG.debug("simulated logger: {}", e.getMessage());
            }
        });
        cues.close();
        speaker.close();
        ledger.close();
    }
}
