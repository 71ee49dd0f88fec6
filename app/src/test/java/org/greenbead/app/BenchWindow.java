package org.greenbead.app;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.InstantSource;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.atomic.AtomicReference;
import javafx.embed.swing.SwingFXUtils;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import javafx.stage.Window;
import javax.imageio.ImageIO;
import org.greenbead.app.demo.HandClock;
import org.greenbead.app.shell.FilePicker;
import org.greenbead.core.run.FormingHeats;
import org.greenbead.store.DemoWorld;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.testfx.api.FxRobot;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;

/** The window a person gets, on a data folder of the test's own, driven by keys and read by what is seen. */
final class BenchWindow {
    private static final int PATIENCE_S = 90;
    private static final long LOOK_MS = 5;
    /** Looks without a sample after which no run is taken to be going: three seconds, for a machine that is busy. */
    private static final int QUIET = 600;
    /** Reckoned once, not once a window. */
    private static final FormingHeats HEATS = new FormingHeats();
    private static Optional<Path> template = Optional.empty();
    private final FxRobot hand = new FxRobot();
    /** Where the hour stands while it is held. */
    private final AtomicReference<Instant> stands = new AtomicReference<>();
    private final HandClock clock = new HandClock(
            () -> Optional.ofNullable(stands.get()).orElseGet(() -> InstantSource.system().instant()));
    private final Path data;
    private final boolean demo;
    private GreenBead app;
    private Stage stage;
    private final Held held = new Held();

    private BenchWindow(Path data, boolean demo) {
        this.data = data;
        this.demo = demo;
    }

    /** A fresh copy of the demo world. It is made once: its past takes a while to live through. */
    static synchronized BenchWindow onDemo() throws Exception {
        if (template.isEmpty()) {
            Path made = Files.createTempDirectory("greenbead-template");
            var files = new OpenFiles();
            try (Ledger ledger = Ledger.open(made, files, InstantSource.system())) {
                new DemoWorld(files).fill(ledger, InstantSource.system(), d -> {
                });
            }
            template = Optional.of(made);
        }
        Path data = Files.createTempDirectory("greenbead-window");
        try (var all = Files.walk(template.get())) {
            for (Path path : all.toList()) {
                Path to = data.resolve(template.get().relativize(path).toString());
                if (Files.isDirectory(path)) {
                    Files.createDirectories(to);
                } else {
                    Files.copy(path, to);
                }
            }
        }
        return new BenchWindow(data, true);
    }

    /** An empty data folder of one's own. */
    static BenchWindow onNothing() throws IOException {
        return new BenchWindow(Files.createTempDirectory("greenbead-own"), false);
    }

    void open() throws TimeoutException {
        FxToolkit.registerPrimaryStage();
        FxToolkit.setupStage(s -> {
            stage = s;
            app = new GreenBead(HEATS);
            app.open(s, new Options(demo, data, Optional.empty(), false, false), clock);
        });
        await("the window to be laid out", () -> stage.getScene().lookup("#laying") == null);
    }

    /** The ledger answers nothing until the latch is open. */
    void silence(java.util.concurrent.CountDownLatch answers) throws Exception {
        fx(() -> {
            app.desk().orElseThrow().io(() -> answers.await(PATIENCE_S, TimeUnit.SECONDS), done -> {
            });
            return null;
        });
    }

    /** Until all that was asked of the ledger so far is answered. */
    void answered() throws Exception {
        var last = new java.util.concurrent.CountDownLatch(1);
        fx(() -> {
            app.desk().orElseThrow().io(() -> true, yes -> last.countDown());
            return null;
        });
        await("the ledger's last answer", () -> last.getCount() == 0);
    }

    /** The ledger that the open window writes, as a run or another page would. */
    org.greenbead.store.Ledger ledger() {
        return app.desk().orElseThrow().ledger();
    }

    /** What is chosen whenever a file or a folder is asked for. */
    void choose(Path chosen) throws Exception {
        fx(() -> {
            app.desk().orElseThrow().picker(new Chosen(chosen));
            return null;
        });
    }

    /** Simulated time stands still from now on, but for what {@link #letPass} gives it. */
    void holdTime() {
        app.desk().orElseThrow().pace(held);
    }

    /** Simulated time goes on by itself again. */
    void freeTime() {
        app.desk().orElseThrow().pace(org.greenbead.app.shell.Pace.FREE);
    }

    /** Lets a simulated run go on by so much, and waits until the page shows it: however slow the machine is, the hand is never later than this. */
    void letPass(double seconds) throws TimeoutException {
        long before = held.asked.get();
        held.give(seconds);
        long last = before;
        for (int quiet = 0; held.left.get() > 0 && quiet < QUIET;) {
            WaitForAsyncUtils.sleep(LOOK_MS, TimeUnit.MILLISECONDS);
            long now = held.asked.get();
            quiet = now == last ? quiet + 1 : 0;
            last = now;
        }
        held.left.set(0);
        if (last == before) {
            return;
        }
        long frames = System.currentTimeMillis() + 400;
        while (System.currentTimeMillis() < frames
                && !fx(() -> scene().lookup("#clock") instanceof Labeled l
                        && secondsOf(l.getText()) >= held.timeS)) {
            settle();
        }
    }

    /** What the threads of runs are at, for the message of a test that hangs. */
    static String runThreads() {
        return Thread.getAllStackTraces().entrySet().stream().filter(e -> e.getKey().getName().equals("run"))
                .map(e -> e.getKey().getState() + " "
                        + List.of(e.getValue()).subList(0, Math.min(12, e.getValue().length)))
                .toList().toString();
    }

    private static double secondsOf(String clock) {
        String[] parts = clock.split(":");
        double all = 0;
        for (String part : parts) {
            all = all * 60 + (part.isBlank() ? 0 : Double.parseDouble(part.trim()));
        }
        return all;
    }

    /** Time that goes on by samples somebody gave. */
    private static final class Held implements org.greenbead.app.shell.Pace {
        private static final double SAMPLE_S = 0.5;
        private final java.util.concurrent.atomic.AtomicLong asked = new java.util.concurrent.atomic.AtomicLong();
        private final java.util.concurrent.atomic.AtomicInteger left = new java.util.concurrent.atomic.AtomicInteger();
        private volatile double timeS;

        void give(double seconds) {
            left.set((int) Math.round(seconds / SAMPLE_S));
        }

        @Override
        public boolean goesOn(double now) {
            asked.incrementAndGet();
            if (left.getAndUpdate(n -> Math.max(0, n - 1)) > 0) {
                timeS = Math.floor(now);
                return true;
            }
            return false;
        }
    }

    /** A person who always picks the same. */
    private record Chosen(Path path) implements FilePicker {
        @Override
        public Optional<Path> file(Window owner, String title, String kinds, String... patterns) {
            return Optional.of(path);
        }

        @Override
        public List<Path> files(Window owner, String title, String kinds, String... patterns) {
            return List.of(path);
        }

        @Override
        public Optional<Path> folder(Window owner, String title) {
            return Optional.of(path);
        }
    }

    /** As the system would close it: the stage is hidden, the application stopped. */
    void close() throws Exception {
        fx(() -> {
            stage.hide();
            return null;
        });
        app.stop();
    }

    void remove() throws IOException {
        try (var all = Files.walk(data)) {
            for (Path path : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.deleteIfExists(path);
            }
        }
    }

    Path data() {
        return data;
    }

    Scene scene() {
        return stage.getScene();
    }

    void press(KeyCode... keys) {
        for (KeyCode key : keys) {
            clock.press();
            stroke(key, false);
        }
        settle();
    }

    /** A key goes down and up where the keyboard is, as the system would deliver it. */
    private void stroke(KeyCode key, boolean control) {
        try {
            fire(javafx.scene.input.KeyEvent.KEY_PRESSED, key, control);
            fire(javafx.scene.input.KeyEvent.KEY_RELEASED, key, control);
        } catch (TimeoutException e) {
            throw new AssertionError(e);
        }
    }

    /** Whatever was put off until after the press has been done, and a frame has been drawn. */
    private void settle() {
        try {
            for (int i = 0; i < 3; i++) {
                fx(() -> null);
            }
            var drawn = new java.util.concurrent.CountDownLatch(2);
            fx(() -> {
                new javafx.animation.AnimationTimer() {
                    @Override
                    public void handle(long now) {
                        drawn.countDown();
                        if (drawn.getCount() == 0) {
                            stop();
                        }
                    }
                }.start();
                return null;
            });
            drawn.await(2, TimeUnit.SECONDS);
        } catch (TimeoutException | InterruptedException e) {
            throw new AssertionError(e);
        }
    }

    /** From now on only hands move the hour: what they tap in rhythm does not depend on how fast the machine is. */
    void handsAlone() {
        stands.set(InstantSource.system().instant());
    }

    /** Nothing is done for so long. */
    void pass(java.time.Duration time) {
        clock.pass(time);
    }

    /** Presses twice as fast as the hand can. */
    void pressAgainAtOnce(KeyCode key) {
        stroke(key, false);
        settle();
    }

    /** Holds a key: the system repeats it, and it comes up once. */
    void hold(KeyCode key, int repeats) throws TimeoutException {
        clock.press();
        for (int i = 0; i <= repeats; i++) {
            clock.press();
            fire(javafx.scene.input.KeyEvent.KEY_PRESSED, key, false);
            settle();
        }
        fire(javafx.scene.input.KeyEvent.KEY_RELEASED, key, false);
    }

    private void fire(javafx.event.EventType<javafx.scene.input.KeyEvent> type, KeyCode key, boolean control)
            throws TimeoutException {
        fx(() -> {
            deliver(type, key, control);
            return null;
        });
    }

    /** On the FX thread. */
    private void deliver(javafx.event.EventType<javafx.scene.input.KeyEvent> type, KeyCode key,
            boolean control) {
        // As the platform does it: a node that has just left the scene no longer gets its keys, the scene does.
        Node owner = scene().getFocusOwner();
        if (owner instanceof javafx.scene.control.Control typedIn && typedIn.getSkin() == null) {
            // It has the keyboard and no frame was drawn since: a key would meet nothing that listens. No hand is that fast.
            typedIn.applyCss();
        }
        javafx.event.EventTarget to = owner != null && owner.getScene() == scene() ? owner : scene();
        javafx.event.Event.fireEvent(to,
                new javafx.scene.input.KeyEvent(type, "", "", key, false, control, false, false));
    }

    /** Presses the pedal as soon as it says so; look and press are one turn, so that no word changes under the foot of a slow machine. */
    void pedal(String word) throws TimeoutException {
        try {
            await("the pedal to say \"" + word + "\"", () -> {
                if (!(scene().lookup("#pedal-word") instanceof Labeled l && l.getText().contains(word))) {
                    return false;
                }
                clock.press();
                deliver(javafx.scene.input.KeyEvent.KEY_PRESSED, KeyCode.SPACE, false);
                deliver(javafx.scene.input.KeyEvent.KEY_RELEASED, KeyCode.SPACE, false);
                return true;
            });
        } catch (TimeoutException e) {
            throw new TimeoutException(e.getMessage() + "; it says \"" + text("#pedal-word") + "\"");
        }
        settle();
    }

    void pressControl(KeyCode key) {
        clock.press();
        stroke(key, true);
        settle();
    }

    /** Writes over what stands in a line as soon as it is there: what lies in a scroll pane is there with its first frame. */
    void fill(String id, String text) throws TimeoutException {
        awaitNode(id);
        String got = "";
        for (int tries = 0; tries < 3 && !got.equals(text); tries++) {
            fx(() -> {
                var field = (TextInputControl) scene().lookup(id);
                field.requestFocus();
                field.selectAll();
                return null;
            });
            hand.write(text);
            WaitForAsyncUtils.waitForFxEvents();
            got = fx(() -> scene().lookup(id) instanceof TextInputControl field ? field.getText() : "");
            // A window that is given the keyboard late marks what was typed already, and the next sign takes its place: one sees it and types again.
            if (got.isEmpty() || !text.endsWith(got)) {
                return;
            }
        }
    }

    /** Presses a button as soon as it is there, as a person would. */
    void click(String id) throws TimeoutException {
        awaitNode(id);
        fx(() -> {
            ((javafx.scene.control.ButtonBase) scene().lookup(id)).fire();
            return null;
        });
    }

    /** A press of the mouse on something that is no button. */
    void mouse(String id) throws TimeoutException {
        fx(() -> {
            Node node = scene().lookup(id);
            javafx.event.Event.fireEvent(node,
                    new javafx.scene.input.MouseEvent(javafx.scene.input.MouseEvent.MOUSE_CLICKED, 1, 1, 1, 1,
                            javafx.scene.input.MouseButton.PRIMARY, 1, false, false, false, false, true,
                            false, false,
                            true, false, true, null));
            return null;
        });
    }

    String text(String id) {
        try {
            return fx(() -> {
                Node node = scene().lookup(id);
                return node instanceof Labeled l
                        ? l.getText()
                        : node instanceof TextInputControl t ? t.getText() : "";
            });
        } catch (TimeoutException e) {
            throw new AssertionError(e);
        }
    }

    boolean shows(String id) {
        try {
            return fx(() -> scene().lookup(id) != null && scene().lookup(id).isVisible());
        } catch (TimeoutException e) {
            throw new AssertionError(e);
        }
    }

    void awaitText(String id, String part) throws TimeoutException {
        try {
            await(id + " to say \"" + part + "\"",
                    () -> scene().lookup(id) instanceof Labeled l && l.getText().contains(part));
        } catch (TimeoutException e) {
            throw new TimeoutException(e.getMessage() + "; it says \"" + text(id) + "\", the pedal \""
                    + text("#pedal-word") + "\"");
        }
    }

    void awaitNode(String id) throws TimeoutException {
        await(id, () -> scene().lookup(id) != null);
    }

    void await(String what, Callable<Boolean> seen) throws TimeoutException {
        try {
            WaitForAsyncUtils.waitFor(PATIENCE_S, TimeUnit.SECONDS,
                    () -> WaitForAsyncUtils.waitForAsyncFx(30_000, seen));
        } catch (TimeoutException e) {
            throw new TimeoutException(what + " did not come");
        }
    }

    /** Keeps a picture where somebody asks for it. */
    void picture(String name) throws Exception {
        String folder = System.getProperty("greenbead.pictures");
        if (folder != null) {
            var image = fx(() -> scene().snapshot(null));
            ImageIO.write(SwingFXUtils.fromFXImage(image, null), "png",
                    Path.of(folder, name + ".png").toFile());
        }
    }

    <T> T fx(Callable<T> work) throws TimeoutException {
        try {
            return WaitForAsyncUtils.asyncFx(work).get(30, TimeUnit.SECONDS);
        } catch (InterruptedException | ExecutionException e) {
            throw new AssertionError(e);
        }
    }
}
