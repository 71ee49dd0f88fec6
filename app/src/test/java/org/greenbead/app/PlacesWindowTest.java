package org.greenbead.app;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.awt.image.BufferedImage;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.InstantSource;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Button;
import javafx.scene.control.Labeled;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextInputControl;
import javafx.scene.image.ImageView;
import javafx.scene.input.KeyCode;
import javafx.scene.text.Text;
import javax.imageio.ImageIO;
import org.greenbead.core.board.Board;
import org.greenbead.core.book.Facts;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.store.Format;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.testng.annotations.Test;

/** The places around the work, by keys: pictures, the parts map, ways of working, thresholds, search, what is written down and taken back. */
public class PlacesWindowTest extends DemoWindow {

    private void type(String id, String text) throws Exception {
        window.await(id + " to write in",
                () -> window.scene().lookup(id) instanceof TextInputControl t && t.isVisible());
        window.fx(() -> {
            TextInputControl line = (TextInputControl) window.scene().lookup(id);
            line.requestFocus();
            line.setText(text);
            return null;
        });
        window.press(KeyCode.ENTER);
    }

    private interface Asks<T> {
        T of(Ledger ledger) throws Exception;
    }

    private <T> T kept(Asks<T> asks) throws Exception {
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            return asks.of(ledger);
        } finally {
            window.open();
            window.awaitNode("#remedy-CELL_CONNECTED");
        }
    }

    private void openJob(String id) throws Exception {
        window.press(KeyCode.O);
        window.awaitNode("#jobs-list");
        window.press(KeyCode.I);
        window.fx(() -> {
            ((TextInputControl) window.scene().lookup("#jobs-search")).setText(id);
            return null;
        });
        window.awaitText("#pedal-word", id);
        window.press(KeyCode.ENTER);
        window.awaitText("#job-id", id);
    }

    /** A wait goes on while another job is in hand and through a restart; it rings, and its end is in the account of its own job. */
    @Test
    public void timersRunAcrossJobs() throws Exception {
        String mine = window.text("#job-id");
        window.press(KeyCode.H);
        window.awaitText("#timers-title", "No timer runs");
        window.press(KeyCode.DIGIT2);
        window.awaitNode("#timer-c");
        window.awaitText("#pedal-word", "Start: Cure");
        assertTrue(says("Cells out before a bake"), "the caution stands where the heat is begun");
        type("#timer-minutes", "2h");
        window.awaitText("#timer-said", "temperature");
        type("#timer-c", "80");
        window.awaitText("#timers-title", "One timer runs");
        window.press(KeyCode.DIGIT5);
        window.awaitText("#pedal-word", "Start: Rest between heats, 30:00");
        window.picture("timers");
        type("#timer-minutes", "0.05");
        window.awaitText("#timers-title", "timer");
        window.press(KeyCode.J);
        window.await("another job", () -> !window.text("#job-id").equals(mine));
        window.await("it rings in the tray", () -> window.scene().getRoot().lookupAll(".tray-wait").stream()
                .anyMatch(n -> ((Labeled) n).getText().contains("rings")));
        window.picture("timers-tray");
        window.press(KeyCode.H);
        window.awaitText("#timers-title", "One timer rings");
        window.awaitText("#pedal-word", "End: " + mine);
        window.picture("timers-rings");
        window.press(KeyCode.SPACE);
        window.awaitText("#timers-title", "One timer runs");
        assertEquals(kept(l -> l.job(mine).record("timer-2").orElseThrow().yes("stopped")), Boolean.FALSE);
        window.await("the cure runs on after the restart",
                () -> window.scene().getRoot().lookupAll(".tray-wait").size() == 1);
        assertEquals(kept(l -> l.job(mine).record("bake-1").orElseThrow().number("c")), 80.0);
    }

    /** A soak says each turn from warm to cool, and ends as a test with the cycles that were gone through. */
    @Test
    public void soakLeadsThroughItsCycles() throws Exception {
        String mine = window.text("#job-id");
        window.press(KeyCode.H);
        window.awaitText("#timers-title", "No timer runs");
        assertTrue(says("stopped, see Watch") && !says("No warnings"),
                "what holds the job is in sight here too");
        window.press(KeyCode.DIGIT8);
        window.awaitText("#pedal-word", "Start: Soak, warm and cool, 2 h");
        assertTrue(says("Cells out of the warmth"), "the caution stands where the warmth is begun");
        type("#timer-cycles", "many");
        window.awaitText("#timer-said", "no number of cycles");
        type("#timer-cycles", "4");
        window.await("it begins warm", () -> says("cycle 1 of 4: keep it warm"));
        window.pass(java.time.Duration.ofMinutes(16));
        window.await("it turns", () -> says("cycle 1 of 4: let it cool"));
        window.await("and says so in the tray",
                () -> window.scene().getRoot().lookupAll(".tray-wait").stream()
                        .anyMatch(n -> ((Labeled) n).getText().contains("cool")));
        window.picture("timers-soak");
        window.pass(java.time.Duration.ofMinutes(105));
        window.awaitText("#timers-title", "One timer rings");
        window.pedal("Passed: " + mine);
        window.awaitText("#timers-title", "No timer runs");
        assertEquals(kept(l -> l.job(mine).records("tested").getLast().number("cycles")), 4.0);
    }

    /** A test that ran by itself is ended by the log it wrote: that says how it came out. */
    @Test
    public void aLongTestIsEndedByItsLog() throws Exception {
        String mine = window.text("#job-id");
        window.press(KeyCode.H);
        window.awaitText("#timers-title", "No timer runs");
        window.press(KeyCode.DIGIT6);
        window.pedal("Start: ");
        window.awaitText("#timers-title", "One timer runs");
        var log = java.nio.file.Files.createTempFile("night", ".log");
        window.choose(log);
        window.press(KeyCode.F);
        window.awaitText("#timer-log", "nothing stands in it");
        java.nio.file.Files.writeString(log,
                "ram test\npass 1 complete\nerror at 0x00100000 wrote 55555555 read 55575555\n");
        window.press(KeyCode.F);
        window.awaitText("#timer-log", "Failed: errors 1");
        window.awaitText("#timers-title", "No timer runs");
        window.picture("timers-log");
        java.nio.file.Files.delete(log);
        var tested = kept(l -> l.job(mine).records("tested").getLast());
        assertEquals(tested.text("result"), "fail");
        assertTrue(tested.text("evidence").contains("bit 17"), tested.text("evidence"));
        assertEquals(tested.noted("memory_pass").orElse(null), Boolean.FALSE);
    }

    /** A jar is found by its number and used: the job knows its lot and hours. A new stencil is taken in, used up and told. */
    @Test
    public void stockIsTakenForTheJob() throws Exception {
        String mine = window.text("#job-id");
        window.press(KeyCode.S);
        window.awaitNode("#stock-PA-01");
        window.awaitText("#stock-title", "2 to order");
        window.press(KeyCode.I);
        type("#stock-line", "pa-01");
        window.awaitText("#pedal-word", "Use PA-01 for " + mine);
        assertTrue(says("1 to 6 as above"), "as many digits as acts of a paste");
        window.picture("stock");
        window.press(KeyCode.SPACE);
        type("#stock-line", "lots");
        window.awaitText("#stock-said", "is no amount");
        window.press(KeyCode.SPACE);
        type("#stock-line", "1.5");
        window.awaitText("#stock-said", "is noted in " + mine);
        window.press(KeyCode.N);
        type("#stock-line", "ST-02");
        window.awaitText("#stock-said", "there already");
        window.press(KeyCode.N);
        type("#stock-line", "ST-09");
        window.awaitText("#pedal-word", "what is it?");
        window.press(KeyCode.DIGIT1);
        window.awaitNode("#stock-field-uses_max");
        window.picture("stock-new");
        window.fill("#stock-field-name", "trial field");
        type("#stock-field-uses_max", "many");
        window.awaitText("#stock-said", "is no number");
        type("#stock-field-uses_max", "1");
        window.pedal("Use ST-09");
        window.awaitText("#stock-said", "ST-09 is noted in");
        window.await("once", () -> says("1 of 1 uses"));
        window.press(KeyCode.SPACE);
        window.await("it is told", () -> says("may be bowed or worn"));
        assertEquals(kept(l -> l.job(mine).records("lot").getLast().text("lot")), "H2207");
        assertEquals(kept(l -> l.job(mine).records("stencil").getFirst().text("item")), "ST-09");
    }

    /** The iron is timed by the pedal: a pass that lasts too long is in the job without anybody saying so, and the book finds it. */
    @Test
    public void ironIsTimedByThePedal() throws Exception {
        job("SB-0412");
        String mine = window.text("#job-id");
        window.click("#bead-clean_board");
        window.awaitNode("#iron-door");
        window.press(KeyCode.I);
        window.awaitText("#iron-now", "within 3.0 s");
        window.press(KeyCode.SPACE);
        window.awaitText("#pedal-word", "Iron up");
        window.awaitText("#iron-now", "Lift the iron now");
        window.picture("iron");
        window.press(KeyCode.SPACE);
        window.awaitText("#iron-passes", "1 too long");
        window.press(KeyCode.ESCAPE);
        window.awaitNode("#iron-door");
        window.press(KeyCode.K);
        window.await("the book finds it", () -> says("The iron lingers"));
        assertTrue(kept(l -> l.job(mine).records("iron").getFirst().number("dwell_s")) > 3);
    }

    /** Laps of the cold nozzle are counted by the pedal and held against what the model allows; a slow hand is in the job without anybody saying so. */
    @Test
    public void lapsOfTheNozzleAreCountedByThePedal() throws Exception {
        job("SB-0417");
        window.click("#bead-prepare_flux");
        window.awaitNode("#laps-door");
        window.handsAlone();
        window.press(KeyCode.A);
        window.awaitText("#laps-limit", "At most");
        window.press(KeyCode.SPACE);
        window.pass(java.time.Duration.ofSeconds(3));
        window.press(KeyCode.SPACE);
        window.awaitText("#laps-counted", "Laps: 1");
        window.picture("laps");
        window.pass(java.time.Duration.ofSeconds(15));
        window.awaitText("#laps-now", "Too slow");
        window.press(KeyCode.SPACE);
        window.awaitText("#laps-counted", "Laps: 2");
        window.press(KeyCode.ESCAPE);
        window.awaitNode("#laps-door");
        Kept laps = kept(l -> l.job("SB-0417").records("laps").getFirst());
        assertTrue(laps.number("slowest_s") >= 15 && laps.number("most_s") < 15, laps.fields().toString());
        window.press(KeyCode.K);
        window.await("the book finds it", () -> says("The circle of the nozzle is too slow"));
    }

    /** Before the case is closed load and torque are reckoned from what is written down; a driver that is set too high is told at once. */
    @Test
    public void loadAndTorqueAreReckonedBeforeTheCaseIsClosed() throws Exception {
        job("SB-0412");
        String mine = window.text("#job-id");
        window.click("#bead-close_refit");
        window.awaitNode("#refit-card");
        window.await("what to write down", () -> says("load and torque are reckoned here"));
        window.click("#ask-tab-fastening");
        window.awaitText("#ask-question", "Torque");
        type("#ask-line", "20 Ncm");
        window.awaitText("#ask-question", "Thread");
        type("#ask-line", "2");
        window.awaitText("#ask-question", "Driven into");
        window.press(KeyCode.DIGIT3);
        window.await("it is told", () -> says("at most 0.067 N·m") && says("too hard for this thread"));
        window.click("#ask-tab-enclosure");
        for (int i = 0; i < 4; i++) {
            window.press(KeyCode.DOWN);
        }
        window.awaitText("#ask-question", "Area of the glue");
        type("#ask-line", "105");
        window.awaitText("#ask-question", "Pressure that the label asks for");
        type("#ask-line", "37");
        window.awaitText("#ask-question", "Time that the label asks");
        type("#ask-line", "30");
        window.await("the load", () -> says("39.6 kg on the glue") && says("Hold 30 min"));
        window.picture("refit");
        assertEquals(kept(l -> l.job(mine).records("enclosure").getFirst().number("press_label_kpa")), 37.0);
    }

    /** The iron of this bench was set the same the last time: one press writes it down, what was written stays, and what has to be looked at is still asked. */
    @Test
    public void whatWasTheSameTheLastTimeIsOnePress() throws Exception {
        kept(l -> {
            Job other = l.job("SB-0406");
            l.save(other
                    .with(new Kept("iron-1", "iron", Instant.parse("2031-04-01T10:00:00Z"), "technician B",
                            Map.of("set_c", 345.0, "face", "flat", "motion", "glide", "dwell_s", 2.0))),
                    "noted", "");
            return other;
        });
        job("SB-0417");
        window.click("#bead-clean_board");
        window.awaitNode("#ask-tab-iron");
        window.click("#ask-tab-iron");
        window.await("it is offered whole", () -> window.scene().lookup("#ask-as-before") instanceof Button b
                && b.isVisible() && b.getText().contains("As in SB-0406") && b.getText().contains("345 °C")
                && b.getText().contains("flat") && !b.getText().contains("dwell"));
        window.picture("as-before");
        window.fill("#ask-line", "360");
        window.press(KeyCode.ENTER);
        window.press(KeyCode.DOWN);
        window.awaitText("#ask-question", "Face");
        window.press(KeyCode.F2);
        window.await("nothing is left to offer",
                () -> window.scene().lookup("#ask-as-before") instanceof Button b && !b.isVisible());
        assertEquals(kept(l -> l.job("SB-0417").records("iron").getFirst().fields()),
                Map.of("set_c", 360.0, "face", "flat", "motion", "glide"));
    }

    /** Words of the bench find a job; a job packed here can be fetched again; one that is thrown away comes back. */
    @Test
    public void jobsAreFoundAndPacked() throws Exception {
        window.press(KeyCode.O);
        window.awaitNode("#job-SB-0405");
        window.press(KeyCode.I);
        window.fx(() -> {
            ((TextInputControl) window.scene().lookup("#jobs-search")).setText("upgrade");
            return null;
        });
        window.awaitText("#jobs-read", "is read as memory");
        window.await("the plotter with its tracks is no answer",
                () -> window.scene().lookup("#job-SB-0415") == null);
        window.awaitText("#pedal-word", "Open SB-0405");
        window.fx(() -> {
            ((TextInputControl) window.scene().lookup("#jobs-search")).setText("tide");
            return null;
        });
        window.awaitText("#pedal-word", "Open SB-0409");
        window.press(KeyCode.ESCAPE, KeyCode.E);
        window.awaitText("#jobs-said", "is packed");
        assertTrue(Files.size(window.data().resolve("exports/SB-0409.zip")) > 1000);
        window.press(KeyCode.DELETE);
        window.awaitText("#jobs-said", "SB-0409 is in the bin");
        window.await("a list without it", () -> window.scene().lookup("#job-SB-0409") == null);
        window.click("#jobs-show-bin");
        window.awaitText("#jobs-title", "In the bin: 1");
        window.awaitNode("#job-SB-0409");
        window.press(KeyCode.DOWN);
        window.awaitText("#pedal-word", "Take SB-0409 back");
        window.picture("jobs-bin");
        window.press(KeyCode.SPACE);
        window.awaitText("#jobs-said", "SB-0409 is back");
        window.press(KeyCode.X);
        window.awaitNode("#job-SB-0409");
        window.pedal("Open SB-0409");
        window.awaitText("#job-id", "SB-0409");
    }

    /** A board that is another one here is not taken in by itself, and is by a press; a torn file says where it is torn. */
    @Test
    public void whatComesIsTakenInOrSaysWhyNot() throws Exception {
        Path folder = Files.createTempDirectory("greenbead-in");
        Board mine = window.ledger().document(Format.BOARD, "KC-1", Board.class);
        Path file = folder.resolve("kc-1.board.bead.json");
        Files.writeString(file,
                window.ledger().files().write(Format.BOARD, mine.copy("KC-1", "Keel camera two")));
        Files.writeString(folder.resolve("notes.txt"), "from the other bench");
        window.choose(folder);
        window.press(KeyCode.O);
        window.awaitNode("#jobs-list");
        assertFalse(window.shows("#jobs-instead"), "nothing was refused yet");
        window.press(KeyCode.V);
        window.awaitText("#jobs-said", "another board KC-1. Nothing was changed.");
        window.picture("jobs-clash");
        assertEquals(window.ledger().document(Format.BOARD, "KC-1", Board.class), mine);
        window.press(KeyCode.R);
        window.awaitText("#jobs-said", "Has come in: board KC-1. Left alone in the folder: 1");
        assertEquals(window.ledger().document(Format.BOARD, "KC-1", Board.class).title(), "Keel camera two");
        assertFalse(window.shows("#jobs-instead"));
        Files.writeString(file, Files.readString(file).substring(0, 300));
        window.choose(file);
        window.click("#jobs-fetch");
        window.awaitText("#jobs-said", "kc-1.board.bead.json");
        assertFalse(window.shows("#jobs-instead"), "a torn file is taken by no press");
        window.ledger().save(mine);
        for (Path made : List.of(file, folder.resolve("notes.txt"), folder)) {
            Files.delete(made);
        }
    }

    /** A folder that was the wrong one is stopped by the pedal while it is read; nothing of it has come in. */
    @Test
    public void aLongReadingIsStopped() throws Exception {
        Path folder = Files.createTempDirectory("greenbead-many");
        Board one = window.ledger().document(Format.BOARD, "KC-1", Board.class);
        var made = new java.util.ArrayList<Path>();
        for (int i = 0; i < 3000; i++) {
            made.add(Files.writeString(folder.resolve("b" + i + ".bead.json"),
                    window.ledger().files().write(Format.BOARD, one.copy("MANY-" + i, "One of many"))));
        }
        made.add(folder);
        int boards = window.ledger().boards().size();
        window.choose(folder);
        window.press(KeyCode.O);
        window.awaitNode("#jobs-list");
        window.press(KeyCode.V);
        window.awaitText("#pedal-word", "Stop reading");
        window.awaitText("#jobs-said", "files so far");
        window.press(KeyCode.SPACE);
        window.awaitText("#jobs-said", "nothing was taken in");
        assertFalse(window.text("#pedal-word").equals("Stop reading"));
        assertEquals(window.ledger().boards().size(), boards);
        for (Path each : made) {
            Files.delete(each);
        }
    }

    private List<String> drawnJobs() throws Exception {
        return window
                .fx(() -> ((Parent) window.scene().lookup("#jobs-list")).getChildrenUnmodifiable().stream()
                        .map(Node::getId).toList());
    }

    /** The shelf of a house that has worked for years: the end is one press away, scrolling goes on, words find one among all. */
    @Test
    public void hundredsOfJobsAreGoneThrough() throws Exception {
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            Job like = ledger.job("SB-0405");
            for (int i = 0; i < 500; i++) {
                ledger.save(new Job(String.format(Locale.ROOT, "A-%04d", i),
                        i == 321 ? "Ice drifter" : "Old logger",
                        "reads nothing", "Coast house",
                        // One whose board is gone: nobody opens it, so nobody is told of it.
                        i == 17 ? "NOWHERE" : like.board(), like.target(), like.bench(),
                        like.beads().subList(0, 1), Facts.none(), List.of()), "opened", "");
            }
        } finally {
            window.open();
            window.awaitNode("#remedy-CELL_CONNECTED");
        }
        window.answered();
        assertFalse(window.shows("#trouble"), window.text("#trouble"));
        window.press(KeyCode.O);
        window.awaitNode("#jobs-list");
        window.await("rows", () -> !drawnJobs().isEmpty());
        int most = drawnJobs().size();
        assertTrue(most < 200, most + " of over 500 are drawn");
        String first = drawnJobs().getFirst();
        window.press(KeyCode.UP);
        window.awaitText("#pedal-word", "Open A-0000");
        assertEquals(drawnJobs().getLast(), "job-A-0000");
        assertEquals(drawnJobs().size(), most);
        window.fx(() -> {
            var rows = (ScrollPane) window.scene().lookup("#jobs-list").getParent().getParent().getParent();
            rows.setVvalue(0);
            return null;
        });
        window.await("those above them come", () -> !drawnJobs().getLast().equals("job-A-0000"));
        assertEquals(drawnJobs().size(), most);
        window.awaitText("#pedal-word", "Open A-0000");
        window.press(KeyCode.DOWN);
        window.await("the first again", () -> drawnJobs().getFirst().equals(first));
        window.press(KeyCode.I);
        window.fx(() -> {
            ((TextInputControl) window.scene().lookup("#jobs-search")).setText("drifter");
            return null;
        });
        window.awaitText("#pedal-word", "Open A-0321");
        assertEquals(drawnJobs(), List.of("job-A-0321"));
        window.picture("jobs-many");
    }

    /** One question at a time; a slip is said, an answer is kept, and Ctrl+Z takes it back. */
    @Test
    public void answersAreKeptAndTakenBack() throws Exception {
        openJob("SB-0406");
        window.awaitText("#step-now", "Seal");
        window.press(KeyCode.W);
        window.awaitText("#ask-question", "State of the seal");
        type("#ask-line", "broken at the lens");
        window.awaitText("#ask-question", "Screws that belong");
        type("#ask-line", "seven");
        window.awaitText("#ask-said", "no number");
        type("#ask-line", "7");
        window.awaitText("#ask-question", "Screws that are in it");
        window.press(KeyCode.ESCAPE);
        window.await("the line is left", () -> !(window.scene().getFocusOwner() instanceof TextInputControl));
        window.pressControl(KeyCode.Z);
        window.awaitText("#trouble", "Undone: SB-0406");
        Job job = kept(l -> l.job("SB-0406"));
        assertEquals(job.records("condition").getFirst().text("seal"), "broken at the lens");
        assertFalse(job.records("condition").getFirst().noted("screws_expected").isPresent(),
                "the last answer was taken back");
    }

    /** A picture that the camera drops into its folder is taken in; one that is none is said. */
    @Test
    public void cameraFolderIsWatched() throws Exception {
        Path camera = Files.createDirectory(window.data().resolve("camera"));
        window.press(KeyCode.B);
        window.awaitNode("#setup-camera");
        window.fx(() -> {
            ((TextInputControl) window.scene().lookup("#setup-camera")).setText(camera.toString());
            return null;
        });
        openJob("SB-0406");
        window.awaitText("#photo-said", "camera folder is watched");
        ImageIO.write(new BufferedImage(320, 200, BufferedImage.TYPE_INT_RGB), "png",
                camera.resolve("shot1.png").toFile());
        window.awaitText("#photo-said", "Taken in: shot1.png");
        window.awaitText("#photo-name", "shot1.png");
        Files.writeString(camera.resolve("shot2.jpg"), "this is no picture");
        window.awaitText("#photo-said", "no PNG or JPEG");
        assertEquals(kept(l -> l.job("SB-0406")).records("picture").size(), 2);
    }

    /** A screw beside a socket: neither name covers the other. */
    private void namesLieBesideOneAnother() throws Exception {
        List<Text> names = window.fx(() -> window.scene().getRoot().lookupAll(".picture-name").stream()
                .map(Text.class::cast).toList());
        assertTrue(names.size() > 8, names.toString());
        for (Text one : names) {
            for (Text other : names) {
                assertFalse(one != other && one.getBoundsInParent().intersects(other.getBoundsInParent()),
                        one.getText() + " and " + other.getText());
            }
        }
    }

    /** The parts map by keys: four corners, a part with its limit, what it holds, a screw that goes back in, a lost piece. */
    @Test
    public void boardPictureIsWorkedByKeys() throws Exception {
        window.press(KeyCode.D);
        window.awaitText("#picture-title", "WB-7");
        window.awaitText("#picture-screws", "4 out, 0 in");
        namesLieBesideOneAnother();
        window.await("the photo to be read", () -> window.scene().getRoot().lookupAll("ImageView").stream()
                .anyMatch(n -> n instanceof ImageView v && v.getImage() != null));
        window.press(KeyCode.C);
        for (String corner : new String[]{"lower left", "lower right", "upper right", "upper left"}) {
            window.awaitText("#picture-title", corner);
            window.press(KeyCode.SPACE);
        }
        window.awaitText("#picture-said", "four corners");
        window.press(KeyCode.A);
        type("#picture-line", "C44 wet capacitor 8x8 105");
        window.awaitText("#picture-said", "C44: wet capacitor, limit 105");
        window.press(KeyCode.DIGIT1, KeyCode.H);
        type("#picture-line", "tall");
        window.awaitText("#picture-said", "no height");
        window.press(KeyCode.H);
        type("#picture-line", "5.8 mm");
        window.press(KeyCode.V);
        type("#picture-line", "C113");
        window.press(KeyCode.X);
        window.awaitText("#picture-said", "No screw within");
        Board board = kept(l -> l.document(Format.BOARD, "WB-7", Board.class));
        var c44 = board.parts().stream().filter(p -> p.name().equals("C44")).findFirst().orElseThrow();
        assertEquals(c44.limitC(), 105.0);
        assertEquals(c44.heightMm().orElseThrow(), 5.8);
        assertTrue(c44.holds().contains(org.greenbead.core.board.ProtectedPart.Holds.DATA));
        window.press(KeyCode.D);
        window.awaitText("#picture-title", "WB-7");
        window.press(KeyCode.DELETE);
        // A chip is put elsewhere meanwhile: what was done last goes back first, from whatever page.
        window.press(KeyCode.Q);
        window.awaitNode("#chips-line");
        window.press(KeyCode.DOWN, KeyCode.P);
        type("#chips-line", "drawer 9");
        window.awaitText("#chips-said", "Kept: GB-");
        window.press(KeyCode.K);
        window.awaitNode("#book-title");
        window.pressControl(KeyCode.Z);
        window.awaitText("#trouble", "Undone: GB-");
        window.pressControl(KeyCode.Z);
        window.awaitText("#trouble", "Undone: WB-7");
        assertFalse(kept(l -> l.chips()).stream().anyMatch(c -> c.where().contains("drawer 9")));
        assertEquals(kept(l -> l.document(Format.BOARD, "WB-7", Board.class)).parts().size(),
                board.parts().size());
        assertTrue(kept(l -> l.job("SB-0417")).records("small_part").stream()
                .anyMatch(r -> r.text("id").equals("C113")));
    }

    /** Another way of working wants a reason, changes the route, and is taken back; the kit is put out tool by tool. */
    @Test
    public void waysAndKit() throws Exception {
        window.press(KeyCode.Y);
        window.awaitText("#over-ceiling-figure", "183 °C");
        String missing = window.text("#over-kit-figure");
        window.press(KeyCode.SPACE);
        window.await("one fewer", () -> window.scene().lookup("#over-kit-figure") instanceof Labeled l
                && !l.getText().equals(missing));
        window.press(KeyCode.N);
        window.awaitNode("#choice-spheres");
        window.press(KeyCode.DIGIT2);
        type("#ways-reason", "");
        window.awaitText("#ways-said", "with a reason");
        window.press(KeyCode.DIGIT2);
        type("#ways-reason", "no stencil for this field");
        window.awaitNode("#bead-spheres_flux");
        assertFalse(window.shows("#bead-bead_print"));
        window.pressControl(KeyCode.Z);
        window.await("paste again", () -> window.scene().lookup("#bead-bead_print") != null);
        window.press(KeyCode.A);
        type("#ways-reason", "Log every |");
        window.awaitText("#ways-said", "no name for a step");
        window.press(KeyCode.A);
        type("#ways-reason", "Log the tide table");
        window.awaitText("#ways-said", "In the route: Log the tide table");
        window.picture("own-step");
        window.press(KeyCode.W);
        window.awaitText("#ways-said", "begin with these steps");
        String mine = window.text("#job-id");
        assertTrue(kept(
                l -> l.job(mine).beads().stream().anyMatch(b -> b.id().equals("own:Log the tide table"))));
        assertTrue(kept(l -> java.util.Arrays.stream(org.greenbead.core.route.JobKind.values())
                .anyMatch(k -> l.houseRoute(k).text().contains("own:Log the tide table"))));
    }

    /** A threshold is changed for this bench, the book follows, and the usual number comes back. */
    @Test
    public void thresholdsAreTheBenchsOwn() throws Exception {
        window.press(KeyCode.K);
        window.awaitText("#book-title", "warnings");
        window.press(KeyCode.T);
        window.awaitNode("#limits-list");
        window.press(KeyCode.ENTER);
        type("#limits-value", "a lot");
        window.awaitText("#limits-said", "no number");
        window.press(KeyCode.ENTER);
        type("#limits-value", "3,5");
        window.awaitText("#limits-said", "Kept for this bench");
        assertTrue(kept(l -> l.setting("rule_limits").orElse("")).contains("=3.5"));
        window.press(KeyCode.K);
        window.awaitText("#book-title", "warnings");
        window.press(KeyCode.T);
        window.awaitNode("#limits-list");
        window.press(KeyCode.DELETE);
        window.awaitText("#limits-said", "usual number");
        assertEquals(kept(l -> l.setting("rule_limits").orElse("")), "");
    }

    /** Ticks alone do not open a gate: the reading that it asks for says 48 V, then 0.3 V. */
    @Test
    public void gateOpensOnTheReadingNotOnTheTick() throws Exception {
        window.press(KeyCode.G);
        window.awaitText("#pedal-word", "Unplug the cell");
        window.click("#bead-prepare_power");
        volts("48");
        window.awaitNode("#evidence-no_voltage");
        window.press(KeyCode.SPACE);
        window.awaitText("#step-now", "still to be shown: the voltage left");
        window.pedal("Write down: No voltage left");
        volts("0.3");
        window.awaitText("#pedal-word", "Go on to");
    }

    /** The first question of the page: the volts. */
    private void volts(String text) throws Exception {
        window.await("the questions", () -> window.scene().lookup("#ask-question") != null);
        window.click("#ask-tab-power");
        for (int i = 0; i < 4 && !window.text("#ask-question").startsWith("Volts"); i++) {
            window.press(KeyCode.UP);
        }
        type("#ask-line", text);
        window.press(KeyCode.ESCAPE);
        org.testfx.util.WaitForAsyncUtils.waitForFxEvents();
    }

    /** A cell that stands near the chip asks for foil; one key lays it on the recipe, where the rehearsal sees it, and takes it off again. */
    @Test
    public void foilIsProposedLaidAndTakenOff() throws Exception {
        window.press(KeyCode.D);
        window.awaitText("#picture-title", "WB-7");
        for (int i = 0; i < 12; i++) {
            window.press(KeyCode.UP);
        }
        window.press(KeyCode.A);
        type("#picture-line", "BT1 clock cell 4x4 85");
        window.awaitText("#picture-said", "BT1: clock cell, limit 85");
        window.press(KeyCode.Y);
        window.awaitText("#over-foil", "foil over BT1");
        window.press(KeyCode.M);
        window.awaitText("#over-foil-act", "foil lies over 1");
        window.press(KeyCode.M);
        window.awaitText("#over-foil-act", "M lays the foil");
    }

    /** Fixed minutes are a way of working: the count then begins with the step and not with what is seen. */
    @Test
    public void fixedMinutesChangeWhatTheStepSays() throws Exception {
        openJob("SB-0409");
        window.pedal("Confirm: Rails");
        window.awaitText("#pedal-word", "The air is away");
        window.press(KeyCode.Y, KeyCode.W);
        window.awaitNode("#ways-list");
        while (!window.fx(() -> window.scene().lookup("#choice-minutes") != null)) {
            window.press(KeyCode.DOWN);
        }
        window.press(KeyCode.DIGIT2);
        type("#ways-reason", "nobody to watch");
        window.awaitText("#ways-said", "Kept");
        window.press(KeyCode.SPACE);
        window.awaitText("#pedal-word", "Begin the count");
    }
}
