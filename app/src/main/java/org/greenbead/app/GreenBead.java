package org.greenbead.app;

import atlantafx.base.theme.PrimerLight;
import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.InstantSource;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.BooleanSupplier;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.stage.Stage;
import org.greenbead.app.demo.HandClock;
import org.greenbead.app.demo.Walk;
import org.greenbead.app.look.Looks;
import org.greenbead.app.main.Workshop;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.FormingHeats;
import org.greenbead.store.BadFileException;
import org.greenbead.store.DemoWorld;
import org.greenbead.store.LastHeat;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.greenbead.store.RunEntry;
import org.greenbead.store.RunLog;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** The application: opens the window at once, the ledger behind it. */
public final class GreenBead extends Application {
    private static final Logger LOG = LoggerFactory.getLogger(GreenBead.class);
    private final FormingHeats heats;
    private Optional<Desk> desk = Optional.empty();
    private Optional<Workshop> workshop = Optional.empty();

    /** What is known once the ledger is open. */
    private record Opened(Desk desk, List<Job> jobs, List<RunEntry> open, Optional<RunLog> left,
            List<String> damaged, OptionalLong roomMb) {}

    public GreenBead() {
        this(new FormingHeats());
    }

    /** @param heats for balls that this process has reckoned before */
    public GreenBead(FormingHeats heats) {
        this.heats = heats;
    }

    @Override
    public void start(Stage stage) {
        Path home = Path.of(System.getProperty("greenbead.home", "."));
        Options options;
        try {
            options = Options.parse(getParameters().getRaw(),
                    "Headless".equals(System.getProperty("glass.platform")), home);
        } catch (IllegalArgumentException e) {
            System.err.println("greenbead: " + e.getMessage());
            Platform.exit();
            return;
        }
        open(stage, options, InstantSource.system());
    }

    /** Opens the window on a stage; the tests come in here too. */
    public void open(Stage stage, Options options, InstantSource real) {
        var hand = new HandClock(real);
        InstantSource clock = options.walk() ? hand : real;
        setUserAgentStylesheet(new PrimerLight().getUserAgentStylesheet());
        Looks.loadFonts();
        Texts texts = Texts.of(Locale.ENGLISH, TempUnit.CELSIUS);
        Thread.setDefaultUncaughtExceptionHandler((thread, error) -> {
            LOG.error("unexpected", error);
            desk.ifPresent(d -> d.trouble(
                    texts.get("error.unexpected", String.valueOf(d.inWords(error).getMessage()))));
        });
        Label words = Looks.label(texts.get("app.laying"), "big");
        words.setId("laying");
        Label hot = Looks.label("", "caution");
        hot.setId("last-heat");
        var first = Looks.as(new VBox(14, words, hot), "first");
        var root = new StackPane(first);
        var scene = new Scene(root, options.look().widthPx(), options.look().heightPx());
        Looks.dress(scene, false, 100);
        stage.setTitle(texts.get("app.title"));
        stage.setMinWidth(1100);
        stage.setMinHeight(700);
        stage.setScene(scene);
        stage.setOnCloseRequest(close -> {
            if (!workshop.map(Workshop::mayClose).orElse(true)) {
                close.consume();
            }
        });
        stage.show();
        if (options.timing()) {
            firstPaint(scene);
        }
        Thread.ofPlatform().daemon().name("opening").start(() -> {
            LastHeat.of(options.data()).ifPresent(heat -> Platform.runLater(() -> hot.setText(
                    texts.get("app.hot", texts.temp(heat.jointC()),
                            texts.rise((heat.highC() - heat.lowC()) / 2), Words.clock(heat.timeS()),
                            Words.clock(Duration.between(heat.written(), clock.instant()).toMillis()
                                    / 1000.0)))));
            try {
                Opened opened = behind(options, clock, words, texts);
                Platform.runLater(() -> ready(stage, scene, options, opened, hand, real));
            } catch (Exception e) {
                LOG.error("cannot open", e);
                Platform.runLater(() -> {
                    words.setText(texts.get("app.failed") + "\n" + e.getMessage());
                    words.getStyleClass().add("ink-hot");
                    words.setId("failed");
                });
                if (options.walk()) {
                    System.err.println("greenbead: " + e.getMessage());
                    Platform.exit();
                }
            }
        });
    }

    private Opened behind(Options options, InstantSource clock, Label words, Texts texts)
            throws Exception {
        var files = new OpenFiles();
        if (options.walk() && options.data().endsWith(Options.WALK_DATA)) {
            clear(options.data());
        }
        Ledger ledger = Ledger.open(options.data(), files, clock, heats);
        if (options.demo()) {
            new DemoWorld(files).fill(ledger, clock, done -> Platform
                    .runLater(() -> words.setText(texts.get("app.relive", Math.round(done * 100) + " %"))));
        }
        List<RunEntry> open = ledger.openRuns();
        return new Opened(new Desk(ledger, clock, options.demo()), ledger.jobs(), open,
                open.isEmpty() ? Optional.empty() : readable(ledger, open.getFirst(), files),
                ledger.damaged(), ledger.lowRoomMb());
    }

    /** What was left hot is read before anything else: its last heat stands on the first page. Empty where it cannot be read; the page then says why. */
    private static Optional<RunLog> readable(Ledger ledger, RunEntry left, OpenFiles files) {
        try {
            return Optional.of(RunLog.read(ledger.logFile(left), files));
        } catch (BadFileException e) {
            LOG.warn("run {} cannot be read yet", left.id(), e);
            return Optional.empty();
        }
    }

    /** The walk begins on a fresh demo each time; only its own folder is ever cleared. */
    private static void clear(Path folder) throws IOException {
        if (Files.exists(folder)) {
            try (var all = Files.walk(folder)) {
                for (Path path : all.sorted(Comparator.reverseOrder()).toList()) {
                    Files.delete(path);
                }
            }
        }
    }

    private void ready(Stage stage, Scene scene, Options options, Opened opened, HandClock hand,
            InstantSource real) {
        desk = Optional.of(opened.desk());
        var shop = new Workshop(opened.desk(), opened.jobs(),
                () -> elsewhere(stage, options.other(), real));
        workshop = Optional.of(shop);
        options.look().textPercent().ifPresent(opened.desk().settings().textPercent()::set);
        scene.setRoot(shop.node());
        shop.listen(scene);
        shop.begin(opened.open(), opened.left());
        opened.damaged().stream().findFirst().ifPresent(opened.desk()::trouble);
        opened.roomMb().ifPresent(mb -> opened.desk().trouble(opened.desk().texts().get("room.low", mb,
                opened.desk().ledger().folder())));
        if (options.walk()) {
            new Walk(stage, scene, shop, opened.desk(), hand, options.shots().orElseThrow(),
                    () -> elsewhere(stage, options.empty(), real)).start();
        }
    }

    /** Leaves this ledger and opens that of the other world, in the same window. A run that is hot holds it back. */
    private void elsewhere(Stage stage, Options other, InstantSource real) {
        if (!workshop.map(Workshop::mayClose).orElse(true)) {
            return;
        }
        Optional<Desk> leaves = desk;
        workshop.ifPresent(Workshop::close);
        workshop = Optional.empty();
        desk = Optional.empty();
        Thread.ofPlatform().daemon().name("closing").start(() -> {
            leaves.ifPresent(Desk::close);
            Platform.runLater(() -> open(stage, other, real));
        });
    }

    /** Prints how long it took from the start of the process to the first frame with something on it. */
    private static void firstPaint(Scene scene) {
        when(scene, "first paint", () -> true);
        when(scene, "last heat of a run that was left open", () -> scene.lookup("#open-run") != null
                || scene.lookup("#last-heat") instanceof Label hot && !hot.getText().isEmpty());
    }

    /** Says after how long something stood on the screen for the first time. */
    private static void when(Scene scene, String what, BooleanSupplier there) {
        scene.addPostLayoutPulseListener(new Runnable() {
            @Override
            public void run() {
                if (there.getAsBoolean()) {
                    scene.removePostLayoutPulseListener(this);
                    long sinceStart = System.currentTimeMillis()
                            - ManagementFactory.getRuntimeMXBean().getStartTime();
                    System.out.printf(Locale.ROOT, "%s after %.2f s%n", what, sinceStart / 1000.0);
                }
            }
        });
    }

    /** Present while the window is open. */
    Optional<Desk> desk() {
        return desk;
    }

    /** Closes the bench, then the ledger; a run that goes on is left open in it. */
    @Override
    public void stop() {
        workshop.ifPresent(Workshop::close);
        desk.ifPresent(Desk::close);
        workshop = Optional.empty();
        desk = Optional.empty();
    }
}
