package org.greenbead.app.demo;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.concurrent.Callable;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import javafx.application.Platform;
import javafx.embed.swing.SwingFXUtils;
import javafx.event.Event;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextInputControl;
import javafx.scene.image.WritableImage;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.stage.Stage;
import javax.imageio.ImageIO;
import org.greenbead.app.main.Workshop;
import org.greenbead.app.shell.Desk;
import org.greenbead.core.run.RunState;

/** Job SB-0417 from the stop in Watch to the report, by keys alone. Prints each step; leaves a PNG of each main view. */
public final class Walk {
    private static final long PATIENCE_MS = 60_000;
    private final Stage stage;
    private final Scene scene;
    private final Workshop shop;
    private final Desk desk;
    private final HandClock hand;
    private final Path folder;
    private final Runnable empty;

    /** @param empty leaves the demo for a ledger with nothing in it, in the same window */
    public Walk(Stage stage, Scene scene, Workshop shop, Desk desk, HandClock hand, Path folder,
            Runnable empty) {
        this.empty = empty;
        this.hand = hand;
        this.stage = stage;
        this.scene = scene;
        this.shop = shop;
        this.desk = desk;
        this.folder = folder;
    }

    public void start() {
        Thread.ofPlatform().name("walk").start(() -> {
            int status = 0;
            try {
                Files.createDirectories(folder);
                walk();
                say("done; pictures are in " + folder);
            } catch (TimeoutException | ExecutionException | IOException | RuntimeException e) {
                System.err.println("greenbead: the walk stopped: " + e.getMessage());
                status = 1;
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                status = 1;
            }
            int end = status;
            Platform.runLater(() -> {
                stage.close();
                if (end != 0) {
                    // The exit status tells a script that the demo is broken.
                    Thread.ofPlatform().start(() -> System.exit(end));
                }
            });
        });
    }

    private void walk() throws InterruptedException, ExecutionException, TimeoutException, IOException {
        fx(() -> {
            desk.settings().mute().set(true);
            return null;
        });
        speed(60);
        await("the stop in Watch",
                () -> scene.lookup("#remedy-CELL_CONNECTED") != null && text("#pedal-word").contains("cell"));
        say("job SB-0417: " + text("#coach-now"));
        say("Watch holds the start: " + text("#pedal-word"));
        press(KeyCode.R, "opens the recipe");
        await("the rehearsal", () -> text("#figure-peak").contains("°"));
        say("rehearsal: coldest joint peaks at " + text("#figure-peak"));
        type("#stage-3-air", "662 F");
        await("the rehearsal of 662 F", () -> text("#pedal-word").startsWith("Keep"));
        await("a new peak", () -> !text("#figure-ramp").isEmpty());
        shot("2-recipe");
        press(KeyCode.ESCAPE, "leaves the field");
        press(KeyCode.LEFT, "undoes the change");
        await("the recipe as it was", () -> text("#pedal-word").startsWith("Go"));
        press(KeyCode.H, "opens the heat picture");
        await("the film", () -> text("#heat-clock").contains("°"));
        say("heat picture: " + text("#heat-clock"));
        shot("11-heat");
        press(KeyCode.ESCAPE, "back to the recipe");
        await("the recipe", () -> text("#figure-peak").contains("°"));
        press(KeyCode.P, "lets the planner search");
        await("an answer", () -> !text("#school-heater_and_air-binds").isEmpty());
        await("air alone too", () -> !text("#school-air_alone-binds").isEmpty());
        say("planner: " + text("#school-heater_and_air-binds"));
        shot("12-planner");
        press(KeyCode.ESCAPE, "keeps the recipe as it is");
        await("the recipe again", () -> text("#pedal-word").startsWith("Go"));
        press(KeyCode.SPACE, "goes to the run");
        await("the run page",
                () -> scene.lookup("#remedy-CELL_CONNECTED") != null && scene.lookup("#coach-now") != null);
        press(KeyCode.DIGIT1, "marks the cell lead unplugged");
        await("the way free", () -> text("#pedal-word").startsWith("Start"));
        press(KeyCode.SPACE, "starts the run");
        boolean soak = false;
        boolean far = false;
        long until = System.currentTimeMillis() + 4 * PATIENCE_MS;
        while (System.currentTimeMillis() < until && !shows("#verdict")) {
            RunState.Status status = fx(
                    () -> shop.runState().map(RunState::status).orElse(RunState.Status.ENDED));
            int at = fx(() -> shop.runState().map(RunState::stage).orElse(0));
            if (status == RunState.Status.HEATING && fx(() -> scene.lookup("#remedy-HEATER_LAG") != null)
                    && !soak) {
                soak = true;
                say("coach: " + text("#coach-now"));
                press(KeyCode.DIGIT1, "takes the heater's remedy");
            }
            if (status == RunState.Status.HEATING && at == 3 && !far) {
                speed(10);
                await("six seconds of the peak", () -> shop.runState().map(RunState::stageS).orElse(0.0) > 6);
                far = true;
                speed(1);
                say("coach: " + text("#coach-now") + " " + text("#coach-next"));
                shot("3-run");
                press(KeyCode.F, "far view");
                press(KeyCode.F, "back from the far view");
                speed(10);
            }
            if (status == RunState.Status.HEATING && at == 3 && text("#coach-now").startsWith("Nudge")
                    && text("#sight").contains("floats")) {
                press(KeyCode.SPACE, "says: it moves");
                await("molten", () -> text("#pedal-word").startsWith("Chip is off"));
                press(KeyCode.SPACE, "chip is off, heat away");
                say("coach: " + text("#coach-next"));
                speed(60);
            }
            if (status == RunState.Status.SAFE) {
                await("the way to finish", () -> text("#pedal-word").startsWith("Finish"));
                press(KeyCode.SPACE, "finishes the run");
                await("the verdict", () -> scene.lookup("#verdict") != null);
            }
            Thread.sleep(20);
        }
        await("the verdict", () -> scene.lookup("#verdict") != null);
        say("verdict: " + text("#verdict"));
        pause();
        shot("5-verdict");
        press(KeyCode.E, "exports the log");
        await("the CSV", () -> text("#verdict-said").contains(".csv"));
        say(text("#verdict-said"));
        press(KeyCode.P, "writes the report");
        await("the PDF", () -> text("#verdict-said").contains(".pdf"));
        say(text("#verdict-said"));
        press(KeyCode.L, "opens the ledger");
        await("the ledger",
                () -> scene.lookup("#ledger-list") != null && text("#pedal-so").startsWith("replays"));
        press(KeyCode.SPACE, "opens the run");
        await("the replay", () -> text("#pedal-word").equals("Play"));
        press(KeyCode.C, "asks the run what it tells of the bench");
        await("the fit",
                () -> text("#pedal-word").startsWith("Keep") || text("#fit-said").contains("cannot"));
        say(text("#fit-said"));
        press(KeyCode.SPACE, "keeps it with the bench");
        await("the set-up", () -> scene.lookup("#setup-benches") != null);
        press(KeyCode.G, "back to the job");
        press(KeyCode.J, "goes to the next job");
        await("job SB-0415", () -> text("#job-id").equals("SB-0415"));
        press(KeyCode.P, "the photo of its balls");
        await("the verdict", () -> text("#balls-title").startsWith("Touch up"));
        pause();
        shot("8-balls");
        press(KeyCode.S, "stencil and paste for this ball");
        await("the stencil", () -> text("#stencil-title").startsWith("Ball"));
        pause();
        shot("1-stencil");
        press(KeyCode.ESCAPE, "back to the balls");
        await("the balls again", () -> text("#balls-title").startsWith("Touch up"));
        press(KeyCode.E, "the bead map over the photo");
        await("the map", () -> text("#map-next").startsWith("Over the photo"));
        pause();
        press(KeyCode.ESCAPE, "back to the balls");
        await("the verdict again", () -> text("#balls-title").startsWith("Touch up"));
        press(KeyCode.LEFT, "back to the job");
        press(KeyCode.J, "and the next");
        await("job SB-0412",
                () -> text("#job-id").equals("SB-0412") && scene.lookup("#stencil-cut") != null);
        await("the stencil run", () -> text("#pedal-word").startsWith("Filled"));
        pause();
        shot("4-forming");
        press(KeyCode.D, "its board picture");
        await("the picture", () -> scene.lookup("#picture-screws") != null);
        press(KeyCode.I, "before and after the lift");
        await("what changed", () -> text("#change-title").contains("gone"));
        pause();
        shot("6-before-after");
        press(KeyCode.U, "the boards");
        await("the boards", () -> scene.lookup("#board-WB-7") != null);
        for (int i = 0; i < 4; i++) {
            press(KeyCode.DOWN, "the next board");
        }
        press(KeyCode.ENTER, "opens it over its photo");
        await("its photo", () -> scene.lookup("#own-view") != null);
        pause();
        pause();
        shot("7-own-board");
        press(KeyCode.ESCAPE, "back to the boards");
        pause();
        press(KeyCode.B, "opens the bench set-up");
        await("the set-up", () -> scene.lookup("#theme-true") != null);
        press(KeyCode.DIGIT1, "opens a bench of it");
        await("what it can reach", () -> scene.lookup("#reach-10") != null);
        pause();
        shot("9-setup");
        fx(() -> {
            desk.settings().lampOff().set(true);
            return null;
        });
        press(KeyCode.J, "SB-0409, lamp off");
        hand("SB-0417");
        press(KeyCode.H, "the timers");
        await("the timers, lamp off", () -> text("#timers-title").startsWith("No timer"));
        press(KeyCode.DIGIT5, "a rest between heats");
        await("its length", () -> text("#pedal-word").startsWith("Start: Rest"));
        press(KeyCode.SPACE, "starts it");
        await("the timer", () -> text("#timers-title").startsWith("One timer"));
        press(KeyCode.S, "the stock");
        await("what is to be ordered", () -> text("#stock-title").contains("to order"));
        pause();
        shot("10-stock");
        fx(() -> {
            desk.settings().lampOff().set(false);
            return null;
        });
        press(KeyCode.K, "asks the rule book about the whole job");
        await("the findings",
                () -> scene.lookup("#book-list") != null && text("#book-title").contains("SB-0417"));
        pause();
        press(KeyCode.Y, "the plan at a glance");
        await("the six numbers", () -> !text("#over-ceiling-figure").isEmpty());
        say("lowest solidus " + text("#over-ceiling-figure") + ", kit: " + text("#over-kit-figure"));
        press(KeyCode.D, "the board picture");
        await("the photo",
                () -> scene.lookup("#picture-screws") != null && text("#picture-title").contains("WB-7"));
        pause();
        pause();
        press(KeyCode.Q, "the chips");
        await("the chips", () -> scene.lookup("#chips-alike") != null);
        press(KeyCode.O, "all jobs");
        await("the jobs", () -> scene.lookup("#job-SB-0406") != null);
        press(KeyCode.I, "searches");
        type("#jobs-search", "data only");
        await("the keel camera alone", () -> text("#pedal-word").contains("SB-0406"));
        say(text("#jobs-read"));
        press(KeyCode.ENTER, "opens what is found");
        await("its intake", () -> text("#step-now").startsWith("Seal"));
        press(KeyCode.W, "writes down");
        pause();
        pause();
        shot("18-intake");
        press(KeyCode.ESCAPE, "leaves the line");
        press(KeyCode.O, "all jobs");
        await("the jobs", () -> scene.lookup("#job-SB-0417") != null);
        press(KeyCode.LEFT, "back to the job");
        hand("SB-0405");
        press(KeyCode.C, "its further chip");
        await("both chips", () -> !text("#strand-title").isEmpty());
        pause();
        shot("19-branches");
        press(KeyCode.LEFT, "back to the job");
        pause();
        hand("SB-0417");
        press(KeyCode.X, "its courses");
        await("the courses", () -> text("#course-title").contains("expected cost"));
        say("courses: " + text("#course-title") + "; " + text("#course-hangs"));
        shot("13-courses");
        hand("SB-0409");
        press(KeyCode.V, "the proofs of SB-0409");
        await("its proofs",
                () -> scene.lookup("#proof-list") != null && !text("#proof-title").startsWith("Loading"));
        say("proofs: " + text("#proof-title"));
        shot("15-proofs");
        press(KeyCode.E, "the report for its customer");
        await("the report", () -> text("#report-number").startsWith("Page"));
        shot("17-report");
        go("prove_start");
        await("the step", () -> scene.lookup("#curve-door") != null);
        press(KeyCode.C, "its start-up current");
        await("the curve", () -> text("#curve-title").startsWith("Alike"));
        pause();
        shot("16-start-up");
        press(KeyCode.LEFT, "back to the step");
        pause();
        firstPage();
    }

    /** What a newcomer sees: a ledger with nothing in it. */
    private void firstPage() throws InterruptedException, ExecutionException, TimeoutException, IOException {
        say("an empty ledger");
        fx(() -> {
            empty.run();
            return null;
        });
        await("the three doors", () -> stage.getScene().lookup("#door-job") != null);
        await("what is there yet", () -> stage.getScene().lookup("#first-folder") != null);
        fx(() -> {
            // Where it lies on the machine that makes the picture is of no use to anybody.
            if (stage.getScene().lookup("#first-folder") instanceof Label where) {
                where.setText(desk.texts().get("first.folder", "~/greenbead"));
            }
            return null;
        });
        pause();
        shot("14-first-page");
    }

    /** Goes through the jobs until one is in hand. */
    private void hand(String job) throws InterruptedException, ExecutionException, TimeoutException {
        for (int i = 0; i < 8 && !text("#job-id").equals(job); i++) {
            String was = text("#job-id");
            press(KeyCode.J, "the next job");
            await("another job", () -> !text("#job-id").equals(was));
        }
        pause();
    }

    /** Presses a bead of the string. */
    private void go(String bead) throws InterruptedException, ExecutionException, TimeoutException {
        fx(() -> {
            ((javafx.scene.control.ButtonBase) scene.lookup("#bead-" + bead)).fire();
            return null;
        });
    }

    private void speed(int times) throws InterruptedException, ExecutionException, TimeoutException {
        fx(() -> {
            desk.settings().speed().set(times);
            return null;
        });
        pause();
    }

    private static void say(String step) {
        System.out.println("  " + step);
    }

    /** A few pulses, for what is drawn in the next ones. */
    private void pause() throws InterruptedException, ExecutionException, TimeoutException {
        for (int i = 0; i < 5; i++) {
            fx(() -> null);
            Thread.sleep(40);
        }
    }

    private void press(KeyCode key, String why)
            throws InterruptedException, ExecutionException, TimeoutException {
        System.out.printf(Locale.ROOT, "  %-8s %s%n", key.getName(), why);
        hand.press();
        fx(() -> {
            deliver(KeyEvent.KEY_PRESSED, key);
            // By now another page may be there: the key comes up where the keyboard is then.
            deliver(KeyEvent.KEY_RELEASED, key);
            return null;
        });
    }

    private void deliver(javafx.event.EventType<KeyEvent> type, KeyCode key) {
        Node to = scene.getFocusOwner() == null ? scene.getRoot() : scene.getFocusOwner();
        Event.fireEvent(to, new KeyEvent(type, "", "", key, false, false, false, false));
    }

    private void type(String id, String text)
            throws InterruptedException, ExecutionException, TimeoutException {
        System.out.println("  types    " + text + " into " + id.substring(1));
        fx(() -> {
            if (scene.lookup(id) instanceof TextInputControl field) {
                field.requestFocus();
                field.setText(text);
            }
            return null;
        });
    }

    private String text(String id) {
        try {
            return fx(() -> scene.lookup(id) instanceof Labeled l ? l.getText() : "");
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return "";
        } catch (ExecutionException | TimeoutException e) {
            return "";
        }
    }

    private void await(String what, Callable<Boolean> holds)
            throws InterruptedException, ExecutionException, TimeoutException {
        long until = System.currentTimeMillis() + PATIENCE_MS;
        while (!fx(holds)) {
            if (System.currentTimeMillis() > until) {
                throw new TimeoutException(
                        what + " did not come; the pedal says \"" + text("#pedal-word") + "\"");
            }
            Thread.sleep(15);
        }
    }

    private boolean shows(String id) throws InterruptedException, ExecutionException, TimeoutException {
        return fx(() -> scene.lookup(id) != null);
    }

    private <T> T fx(Callable<T> work) throws InterruptedException, ExecutionException, TimeoutException {
        if (Platform.isFxApplicationThread()) {
            try {
                return work.call();
            } catch (Exception e) {
                throw new ExecutionException(e);
            }
        }
        var done = new CompletableFuture<T>();
        Platform.runLater(() -> {
            try {
                done.complete(work.call());
            } catch (Exception e) {
                done.completeExceptionally(e);
            }
        });
        return done.get(PATIENCE_MS, TimeUnit.MILLISECONDS);
    }

    private void shot(String name)
            throws InterruptedException, ExecutionException, TimeoutException, IOException {
        pause();
        WritableImage image = fx(() -> stage.getScene().snapshot(null));
        Path file = folder.resolve(name + ".png");
        ImageIO.write(SwingFXUtils.fromFXImage(image, null), "png", file.toFile());
        say("picture  " + file.getFileName());
    }
}
