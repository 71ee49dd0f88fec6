package org.greenbead.app;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.Polygon;
import java.awt.image.BufferedImage;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.InstantSource;
import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextInputControl;
import javafx.scene.image.ImageView;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javax.imageio.ImageIO;
import org.greenbead.app.look.BoardView;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.bench.Calibration;
import org.greenbead.core.board.Assumed;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;
import org.greenbead.core.calibrate.History;
import org.greenbead.core.kind.BoardKind;
import org.greenbead.core.kind.PackageKind;
import org.greenbead.store.Format;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** A newcomer: an empty folder, a board, a ruler. Nothing of the made-up world is there unless its door is opened. */
public class FirstStartTest {
    private BenchWindow window;

    @BeforeMethod
    public void openEmpty() throws Exception {
        window = BenchWindow.onNothing();
        window.open();
        window.awaitNode("#door-job");
    }

    @AfterMethod(alwaysRun = true)
    public void close() throws Exception {
        window.close();
        window.remove();
    }

    private void type(String id, String text) throws Exception {
        window.fx(() -> {
            var line = (TextInputControl) window.scene().lookup(id);
            line.requestFocus();
            line.setText(text);
            return null;
        });
        window.press(KeyCode.ENTER);
    }

    private boolean says(String part) throws Exception {
        return window.fx(() -> window.scene().getRoot().lookupAll(".label").stream()
                .anyMatch(n -> n instanceof Label l && l.getText().contains(part)));
    }

    /** From corner to corner, as parts of the view. */
    private void drag(double fromX, double fromY, double toX, double toY) throws Exception {
        window.fx(() -> {
            var view = (BoardView) window.scene().lookup("#own-view");
            double w = view.getWidth();
            double h = view.getHeight();
            for (var type : List.of(MouseEvent.MOUSE_PRESSED, MouseEvent.MOUSE_DRAGGED,
                    MouseEvent.MOUSE_RELEASED)) {
                boolean first = type == MouseEvent.MOUSE_PRESSED;
                double x = (first ? fromX : toX) * w;
                double y = (first ? fromY : toY) * h;
                var at = view.localToScene(x, y);
                javafx.event.Event.fireEvent(view,
                        new MouseEvent(type, at.getX(), at.getY(), at.getX(), at.getY(),
                                MouseButton.PRIMARY, 1, false, false, false, false, true, false, false, true,
                                false, true,
                                new javafx.scene.input.PickResult(view, at.getX(), at.getY())));
            }
            return null;
        });
    }

    @Test
    public void anEmptyLedgerStaysEmptyAndNoKeyTrips() throws Exception {
        window.picture("first");
        assertFalse(window.shows("#demo-flag"));
        for (KeyCode key : List.of(KeyCode.R, KeyCode.J, KeyCode.Y, KeyCode.D, KeyCode.P, KeyCode.K,
                KeyCode.T,
                KeyCode.G, KeyCode.M, KeyCode.M)) {
            window.press(key);
        }
        assertTrue(window.shows("#door-job"), "they lead nowhere yet");
        for (KeyCode place : List.of(KeyCode.O, KeyCode.Q, KeyCode.L, KeyCode.U, KeyCode.B)) {
            window.press(place);
            window.await("another page", () -> window.scene().lookup("#door-job") == null);
            window.press(KeyCode.G);
            window.awaitNode("#door-job");
        }
        assertFalse(says("unexpected"), "nothing went wrong on the way");
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            assertEquals(ledger.jobs().size() + ledger.boards().size() + ledger.benches().size()
                    + ledger.runs().size(), 0);
        }
        window.open();
    }

    @Test
    public void aBenchOfTheUsualKindIsMadeWithOnePress() throws Exception {
        window.press(KeyCode.DIGIT2);
        window.awaitNode("#usual-infrared");
        window.click("#usual-infrared");
        window.awaitText("#bench-title", "infrared");
        window.press(KeyCode.SPACE);
        window.awaitNode("#guided-bench-1");
        window.click("#guided-bench-1");
        window.awaitText("#trouble", "");
        window.press(KeyCode.G);
        window.await("the doors know", () -> says("Benches you have: 1"));
    }

    private Bench kept(String id) throws Exception {
        try (Ledger ledger = Ledger.openShared(window.data(), new OpenFiles(), InstantSource.system())) {
            return ledger.document(Format.BENCH, id, Bench.class);
        }
    }

    /** A bench is what stands there: every figure is set on its page, drawn, asked what it can reach, and taken back. */
    @Test
    public void aBenchIsSetUpAsItStands() throws Exception {
        window.press(KeyCode.B);
        window.click("#usual-open_small");
        window.awaitText("#bench-title", "open heater");
        window.await("what it reaches", () -> window.scene().lookup("#reach-14") != null
                && window.scene().lookup("#reach-0") != null);
        window.picture("bench-own");
        window.press(KeyCode.DIGIT1);
        window.await("no face of a heater", () -> window.scene().lookup("#bench-heater-size") == null);
        window.await("air alone", () -> window.scene().lookup("#reach-0") == null
                && window.scene().lookup("#reach-14") != null);
        window.picture("bench-air-alone");
        assertTrue(window.scene().lookup("#bench-heater-gap") == null,
                "no gap to a heater that is not there");
        window.fill("#bench-nozzles", "5, 2, 9");
        window.press(KeyCode.ENTER);
        window.awaitText("#bench-said", "nozzle is 2");
        window.fill("#bench-nozzles", "9 5");
        window.press(KeyCode.ENTER);
        window.await("other nozzles", () -> window.scene().lookup("#reach-9") != null
                && window.scene().lookup("#reach-14") == null);
        window.await("kept", () -> kept("bench-1").air().nozzlesMm().equals(List.of(5.0, 9.0)));
        assertTrue(kept("bench-1").heater().isEmpty());
        window.press(KeyCode.ESCAPE);
        window.pressControl(KeyCode.Z);
        window.await("the nozzles before", () -> kept("bench-1").air().nozzlesMm().size() == 5);
        window.pressControl(KeyCode.Z);
        window.await("the heater before", () -> kept("bench-1").heater().isPresent());
        window.await("and drawn", () -> window.scene().lookup("#reach-0") != null);
        window.fill("#bench-heater-size", "two feet");
        window.press(KeyCode.ENTER);
        window.awaitText("#bench-said", "is no size");
        window.press(KeyCode.ESCAPE);
        window.press(KeyCode.C);
        window.awaitText("#bench-title", " 2");
        window.press(KeyCode.DELETE);
        window.awaitNode("#bench-bench-1");
        window.await("the copy is gone", () -> window.scene().lookup("#bench-bench-1-2") == null);
    }

    /** A second station with nozzles of its own, taken by a key; a picture and a meter; a recipe takes the other station and keeps to it. */
    @Test
    public void aBenchHasSeveralStationsAndAPicture() throws Exception {
        window.press(KeyCode.B);
        window.click("#usual-open_small");
        window.awaitText("#bench-title", "open heater");
        window.press(KeyCode.N);
        window.await("a second one, in hand", () -> kept("bench-1").air().name().equals("station 2"));
        window.fill("#bench-station", "fine pen");
        window.press(KeyCode.ENTER);
        window.await("called", () -> kept("bench-1").air().name().equals("fine pen"));
        window.fill("#bench-nozzles", "4, 6");
        window.press(KeyCode.ENTER);
        window.await("its drawer", () -> kept("bench-1").air().nozzlesMm().equals(List.of(4.0, 6.0)));
        window.fill("#bench-meter", "meter two");
        window.press(KeyCode.ENTER);
        window.await("its meter", () -> kept("bench-1").equipment().meter().equals("meter two"));
        window.choose(photo());
        window.fx(() -> {
            window.scene().getRoot().requestFocus();
            return null;
        });
        window.press(KeyCode.E);
        window.await("its picture", () -> window.scene().lookup("#bench-photo") instanceof ImageView shown
                && shown.getImage() != null && shown.getImage().getWidth() > 100);
        assertTrue(window.ledger().photos().find(kept("bench-1").equipment().photo()).isPresent());
        window.fx(() -> {
            Node at = window.scene().lookup("#bench-things");
            while (!(at instanceof ScrollPane scroll)) {
                at = at.getParent();
            }
            scroll.setVvalue(1);
            return null;
        });
        window.picture("bench-things");
        window.press(KeyCode.ESCAPE);
        window.click("#bench-bench-1");
        window.awaitText("#bench-title", "open heater");
        window.press(KeyCode.A);
        window.await("the other in hand", () -> kept("bench-1").air().name().equals("air station")
                && kept("bench-1").air().nozzlesMm().size() == 5);
        window.picture("bench-stations");
        window.click("#station-2");
        window.await("by a press", () -> kept("bench-1").air().name().equals("fine pen"));
        window.click("#station-remove");
        window.await("one again", () -> kept("bench-1").stations().size() == 1);
        window.pressControl(KeyCode.Z);
        window.await("taken back", () -> kept("bench-1").stations().size() == 2);
    }

    /** What a run tells of a bench while its page is open is neither written over by the next change nor lost by taking one back. */
    @Test
    public void whatARunToldIsNotWrittenOver() throws Exception {
        window.press(KeyCode.B);
        window.click("#usual-open_small");
        window.awaitText("#bench-title", "open heater");
        window.fill("#bench-room", "19");
        window.press(KeyCode.ENTER);
        window.await("kept", () -> kept("bench-1").ambientC() == 19);
        var factor = new Calibration.Factor(1.1, 0.1, true);
        window.ledger().save(History.with(kept("bench-1"), new Calibration("run-1", "ES-5", 14, 28, factor,
                factor, factor, factor, 1.5, true, List.of())));
        window.fill("#bench-flow-max", "90");
        window.press(KeyCode.ENTER);
        window.await("kept", () -> kept("bench-1").air().maxLpm() == 90);
        assertEquals(kept("bench-1").calibrations().size(), 1, "the page was opened before it");
        window.press(KeyCode.ESCAPE);
        window.pressControl(KeyCode.Z);
        window.await("the flow of before", () -> kept("bench-1").air().maxLpm() != 90
                || window.text("#trouble").contains("has told more"));
        assertEquals(kept("bench-1").calibrations().size(), 1, "what the run told");
    }

    /** Whoever has no thermocouple says so, and it stays said. */
    @Test
    public void aBenchWithoutALoggerIsSaidByHand() throws Exception {
        window.press(KeyCode.B);
        window.click("#logger-sim");
        window.await("chosen", () -> selected("#logger-sim"));
        window.click("#logger-none");
        window.await("chosen", () -> selected("#logger-none") && !selected("#logger-sim"));
        window.close();
        window.open();
        window.press(KeyCode.B);
        window.await("it stays", () -> selected("#logger-none"));
    }

    private boolean selected(String id) {
        return window.scene().lookup(id) instanceof javafx.scene.control.ToggleButton b && b.isSelected();
    }

    /** The demo lies in a folder within one's own, is marked, and one press leads back; nothing of it is in one's own ledger. */
    @Test
    public void theDemoHasADoorAndAWayBack() throws Exception {
        window.press(KeyCode.DIGIT3);
        window.awaitNode("#demo-flag");
        window.await("its flag", () -> window.shows("#demo-flag"));
        window.awaitText("#job-id", "SB-0417");
        window.picture("demo-flag");
        window.click("#demo-flag");
        window.awaitNode("#door-job");
        assertFalse(window.shows("#demo-flag"));
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            assertTrue(ledger.jobs().isEmpty() && ledger.boards().isEmpty() && ledger.chips().isEmpty());
        }
        window.open();
    }

    /** Two hundred boards: what is looked for is typed. */
    @Test
    public void twoHundredBoardsAreSearchedByName() throws Exception {
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            for (int i = 0; i < 200; i++) {
                Board bare = BoardKind.require("general").board("QB-" + (1000 + i), "a board",
                        new Point(50, 60));
                ledger.save(i == 186
                        ? bare
                        : PackageKind.require("thin").onto(bare, "U1", "K-1",
                                Side.TOP, new Point(20, 20), new Point(9, 9), 0.5,
                                Optional.empty()));
            }
        }
        window.open();
        window.awaitNode("#door-job");
        window.press(KeyCode.SPACE);
        window.press(KeyCode.DIGIT2);
        window.awaitText("#new-question", "What is it?");
        type("#new-line", "One of many");
        window.awaitText("#new-question", "What is wrong");
        type("#new-line", "dead");
        window.awaitText("#new-question", "Whose");
        type("#new-line", "Ferry Hollin");
        window.awaitText("#new-question", "Which board");
        window.await("the line to search in",
                () -> window.scene().lookup("#new-line") != null
                        && window.scene().lookup("#new-line").isVisible());
        type("#new-line", "1186");
        window.awaitText("#new-said", "no chip yet");
        type("#new-line", "1187");
        window.awaitText("#new-question", "Which chip");
        assertTrue(says("QB-1187"));
    }

    /** Whoever writes faster than the ledger reads keeps what is written. */
    @Test
    public void whatIsBeingWrittenOutlivesASlowLedger() throws Exception {
        var answers = new java.util.concurrent.CountDownLatch(1);
        window.silence(answers);
        window.press(KeyCode.SPACE);
        window.press(KeyCode.DIGIT2);
        window.awaitText("#new-question", "What is it?");
        window.fill("#new-line", "Written at once");
        answers.countDown();
        window.await("the number of the job has come", () -> says("J-0001"));
        window.press(KeyCode.ENTER);
        window.awaitText("#new-question", "What is wrong");
    }

    private static final int PHOTO_W = 900;
    private static final int PHOTO_H = 700;
    /** Corners of the board in the photo, taken from a little below: lower left, lower right, upper right, upper left. */
    private static final double[][] CORNERS = {{120, 640}, {790, 610}, {720, 90}, {200, 70}};

    /** A board of 80 x 60 mm seen aslant, with a dark chip of 15 x 15 mm in it; painted by another method than the one that squares it up. */
    private static Path photo() throws Exception {
        var image = new BufferedImage(PHOTO_W, PHOTO_H,
                BufferedImage.TYPE_INT_RGB);
        var g = image.createGraphics();
        g.setColor(new Color(190, 185, 175));
        g.fillRect(0, 0, PHOTO_W, PHOTO_H);
        fill(g, new Color(20, 90, 60), 0, 0, 80, 60);
        fill(g, new Color(25, 25, 28), 32.5, 22.5, 47.5, 37.5);
        g.dispose();
        var file = Files.createTempFile("board", ".png");
        ImageIO.write(image, "png", file.toFile());
        return file;
    }

    /** A place of the board in the photo: the unit square onto a quadrangle in closed form (Heckbert 1989, Fundamentals of Texture Mapping and Image Warping, 2.2.3). */
    private static double[] seen(double xMm, double yMm) {
        double u = xMm / 80;
        double v = yMm / 60;
        double[] a = CORNERS[0];
        double[] b = CORNERS[1];
        double[] c = CORNERS[2];
        double[] d = CORNERS[3];
        double den = (b[0] - c[0]) * (d[1] - c[1]) - (d[0] - c[0]) * (b[1] - c[1]);
        double sx = a[0] - b[0] + c[0] - d[0];
        double sy = a[1] - b[1] + c[1] - d[1];
        double g = (sx * (d[1] - c[1]) - (d[0] - c[0]) * sy) / den;
        double h = ((b[0] - c[0]) * sy - sx * (b[1] - c[1])) / den;
        double w = g * u + h * v + 1;
        return new double[]{((b[0] - a[0] + g * b[0]) * u + (d[0] - a[0] + h * d[0]) * v + a[0]) / w,
                ((b[1] - a[1] + g * b[1]) * u + (d[1] - a[1] + h * d[1]) * v + a[1]) / w};
    }

    private static void fill(Graphics2D g, Color colour, double x0, double y0, double x1, double y1) {
        var path = new Polygon();
        for (double[] at : List.of(seen(x0, y0), seen(x1, y0), seen(x1, y1), seen(x0, y1))) {
            path.addPoint((int) Math.round(at[0]), (int) Math.round(at[1]));
        }
        g.setColor(colour);
        g.fillPolygon(path);
    }

    /** Where a place of the photo lies, as parts of the view that shows all of it. */
    private double[] part(double x, double y) throws Exception {
        return window.fx(() -> {
            var view = (BoardView) window.scene().lookup("#own-view");
            double scale = Math.min((view.getWidth() - 8) / PHOTO_W, (view.getHeight() - 8) / PHOTO_H);
            return new double[]{((view.getWidth() - PHOTO_W * scale) / 2 + x * scale) / view.getWidth(),
                    ((view.getHeight() - PHOTO_H * scale) / 2 + y * scale) / view.getHeight()};
        });
    }

    /** A page that was just filled is laid out once more; a hand waits for that by itself. */
    private void stands() throws Exception {
        double[] last = {-1, -1};
        window.await("a view that stands still", () -> {
            var view = (BoardView) window.scene().lookup("#own-view");
            boolean same = view.getWidth() == last[0] && view.getHeight() == last[1]
                    && !window.scene().getRoot().isNeedsLayout();
            last[0] = view.getWidth();
            last[1] = view.getHeight();
            return same;
        });
    }

    /** From a photo taken aslant: four corners and a ruler, then the chip is drawn over what is seen and has its true size. */
    @Test
    public void aBoardIsDrawnOverItsPhoto() throws Exception {
        window.choose(photo());
        window.press(KeyCode.U);
        window.awaitNode("#boards-list");
        window.press(KeyCode.N);
        window.awaitText("#own-question", "printed on the board");
        type("#own-line", "AS-2");
        window.awaitText("#own-question", "How wide and deep");
        type("#own-line", "80 x 60");
        window.awaitText("#own-question", "Draw the first chip");
        window.press(KeyCode.E);
        window.awaitText("#own-question", "lower left");
        stands();
        for (double[] corner : CORNERS) {
            double[] at = part(corner[0], corner[1]);
            drag(at[0], at[1], at[0], at[1]);
        }
        window.awaitText("#own-said", "under the board");
        stands();
        // The chip as it is seen: its opposite corners in the photo.
        double[] low = seen(32.5, 22.5);
        double[] high = seen(47.5, 37.5);
        double[] from = part(low[0], low[1]);
        double[] to = part(high[0], high[1]);
        drag(from[0], from[1], to[0], to[1]);
        window.awaitText("#pedal-word", "Keep AS-2");
        window.picture("own-photo");
        ballsOfItsMap();
        window.press(KeyCode.SPACE);
        window.awaitNode("#board-AS-2");
        window.press(KeyCode.C);
        window.awaitText("#boards-said", "AS-2-2");
        window.awaitNode("#board-AS-2-2");
        window.press(KeyCode.DELETE);
        window.awaitText("#boards-said", "is gone");
        window.pressControl(KeyCode.Z);
        window.awaitText("#boards-said", "is back");
        window.press(KeyCode.ENTER);
        window.awaitText("#own-question", "What else lies on AS-2");
        window.picture("own-again");
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            Chip chip = ledger.document(Format.BOARD, "AS-2", Board.class).requireChip("U1");
            assertEquals(chip.sizeMm(), new Point(15, 15));
            assertEquals(chip.centreMm().xMm(), 40, 0.3);
            assertEquals(chip.centreMm().yMm(), 30, 0.3);
            assertEquals(chip.joint().pitchMm(), 0.9, 1e-6);
            assertEquals(chip.joint().ballMm(), 0.5, 1e-9);
            assertEquals(ledger.beadMaps().find("Marked K41").orElseThrow().sites().size(), 225);
            assertEquals(ledger.boards().size(), 2);
            assertTrue(ledger.setting("board-photo.AS-2").isPresent());
        }
        window.open();
    }

    /** A map is of a print; one that is wider than the chip is refused; B takes it again after the pitch was written over. */
    private void ballsOfItsMap() throws Exception {
        Path wide = java.nio.file.Files.writeString(window.data().resolve("wide.csv"), map(30));
        Path map = java.nio.file.Files.writeString(window.data().resolve("k41.csv"), map(15));
        window.choose(map);
        window.press(KeyCode.E);
        window.awaitText("#own-said", "what is printed on the chip");
        window.press(KeyCode.W);
        type("#own-part", "Marked K41");
        window.choose(wide);
        window.press(KeyCode.E);
        window.awaitText("#own-said", "measure the chip first");
        assertFalse(window.shows("#own-map"), "what was refused is not kept for the chip");
        window.choose(map);
        window.press(KeyCode.E);
        window.await("the balls of the map", () -> says("Its 225 balls are those of its bead map."));
        window.picture("own-map");
        window.pressControl(KeyCode.Z);
        window.awaitNode("#own-map");
        window.press(KeyCode.B);
        window.await("the balls again", () -> says("Its 225 balls are those of its bead map."));
    }

    private static String map(int side) {
        var text = new StringBuilder("site,x_mm,y_mm,diameter_mm\n");
        for (Site s : BeadMap.grid(side, side, 0.9, Optional.empty()).sites()) {
            text.append(s.name()).append(',').append(s.xMm()).append(',').append(s.yMm()).append(",0.5\n");
        }
        return text.toString();
    }

    /** Where a place of the board lies in a photo taken from straight above at 8 px/mm, its lower left corner at 100, 640. */
    private double[] above(double xMm, double yMm) throws Exception {
        return part(100 + 8 * xMm, 640 - 8 * yMm);
    }

    private void point(double[] at) throws Exception {
        drag(at[0], at[1], at[0], at[1]);
    }

    /** Nothing but a photo and one measured length: the board's size follows; then screws, a shield and ground that no iron may touch. */
    @Test
    public void aBoardIsMeasuredInItsPhoto() throws Exception {
        var image = new BufferedImage(PHOTO_W, PHOTO_H, BufferedImage.TYPE_INT_RGB);
        var g = image.createGraphics();
        g.setColor(new Color(200, 195, 180));
        g.fillRect(0, 0, PHOTO_W, PHOTO_H);
        g.setColor(new Color(30, 80, 70));
        g.fillRect(100, 160, 640, 480);
        g.dispose();
        var file = Files.createTempFile("above", ".png");
        ImageIO.write(image, "png", file.toFile());
        window.choose(file);
        window.press(KeyCode.U);
        window.awaitNode("#boards-list");
        window.press(KeyCode.N);
        window.awaitText("#own-question", "printed on the board");
        type("#own-line", "AS-5");
        window.awaitText("#own-question", "How wide and deep");
        window.click("#own-by-photo");
        window.awaitText("#own-question", "one end");
        stands();
        point(above(10, 0));
        window.awaitText("#own-question", "other end");
        point(above(60, 0));
        window.awaitText("#own-question", "How far apart");
        type("#own-line", "a hand");
        window.awaitText("#own-said", "is no size");
        type("#own-line", "50");
        window.awaitText("#own-question", "lower left");
        point(above(3, 40));
        window.awaitText("#own-question", "lower right");
        window.press(KeyCode.ESCAPE);
        window.awaitText("#own-question", "lower left");
        for (double[] corner : new double[][]{{0, 0}, {80, 0}, {80, 60}, {0, 60}}) {
            point(above(corner[0], corner[1]));
        }
        window.awaitText("#own-said", "80");
        window.awaitText("#own-said", "60");
        stands();
        double[] from = above(30, 20);
        double[] to = above(44, 34);
        drag(from[0], from[1], to[0], to[1]);
        window.await("a chip", () -> says("U1 IS CHOSEN"));
        point(above(4, 4));
        window.press(KeyCode.S);
        window.await("a screw", () -> says("S1 IS CHOSEN"));
        type("#own-length", "6");
        window.fx(() -> {
            window.scene().getRoot().requestFocus();
            return null;
        });
        point(above(76, 56));
        window.press(KeyCode.H);
        window.await("a hole", () -> says("H1 IS CHOSEN"));
        from = above(50, 6);
        to = above(74, 30);
        drag(from[0], from[1], to[0], to[1]);
        window.await("drawn", () -> says("U2 IS CHOSEN"));
        window.click("#own-mark-hands-off");
        window.await("a region", () -> says("ZX1 IS CHOSEN"));
        from = above(52, 36);
        to = above(70, 52);
        drag(from[0], from[1], to[0], to[1]);
        window.await("drawn too", () -> says("U2 IS CHOSEN"));
        for (int i = 0; i < 7; i++) {
            window.press(KeyCode.T);
        }
        window.await("a shield, by keys alone", () -> says("SH1 IS CHOSEN"));
        window.picture("own-marks");
        window.press(KeyCode.SPACE);
        window.awaitNode("#board-AS-5");
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            Board kept = ledger.document(Format.BOARD, "AS-5", Board.class);
            assertEquals(kept.sizeMm().xMm(), 80, 0.4);
            assertEquals(kept.sizeMm().yMm(), 60, 0.4);
            assertEquals(kept.marks().stream().map(m -> m.name() + " " + m.kind().key()).toList(),
                    List.of("S1 screw", "H1 hole", "ZX1 hands_off", "SH1 shield"));
            assertEquals(kept.mark("S1").orElseThrow().lengthMm().orElseThrow(), 6.0);
            assertEquals(kept.mark("S1").orElseThrow().centreMm().xMm(), 4, 0.4);
            assertEquals(kept.requireChip("U1").sizeMm(), new Point(14, 14));
        }
        window.open();
    }

    /** The first own job, rehearsed: drawn with the mouse, sized by a ruler, on a usual bench. */
    @Test
    public void firstOwnJobIsRehearsed() throws Exception {
        window.press(KeyCode.SPACE);
        window.awaitText("#new-question", "What is the job for");
        window.press(KeyCode.DIGIT2);
        type("#new-line", "Echo sounder");
        type("#new-line", "no picture");
        type("#new-line", "Ferry Hollin");
        window.awaitText("#new-question", "Which board");
        window.press(KeyCode.DIGIT1);
        window.awaitText("#own-question", "printed on the board");
        type("#own-line", "../../etc");
        window.awaitText("#own-said", "slash");
        type("#own-line", "ES-5");
        window.awaitText("#own-question", "How wide and deep is ES-5");
        type("#own-line", "-3 x 80");
        window.awaitText("#own-said", "is no size");
        type("#own-line", "2000 x 80");
        window.awaitText("#own-said", "width or depth is 2000 mm");
        type("#own-line", "60 x 80");
        window.awaitText("#own-question", "Draw the first chip");
        window.picture("own-empty");
        drag(0.45, 0.40, 0.58, 0.56);
        window.awaitText("#pedal-word", "Keep ES-5");
        window.press(KeyCode.W);
        type("#own-size", "15 x 15");
        type("#own-pitch", "wide");
        window.awaitText("#own-said", "is no size");
        type("#own-pitch", "0.8");
        type("#own-part", "Marked K41");
        window.click("#own-kind-lidded");
        window.awaitNode("#own-assumed");
        drag(0.45, 0.40, 0.60, 0.60);
        window.await("the overlap is refused", () -> says("overlap"));
        drag(0.40, 0.85, 0.48, 0.93);
        window.click("#own-part-connector");
        window.await("a connector", () -> says("connector, up to"));
        window.press(KeyCode.DELETE);
        window.await("gone", () -> !says("connector, up to"));
        window.pressControl(KeyCode.Z);
        type("#own-thickness", "1.2");
        window.await("measured", () -> !says("its thickness"));
        window.picture("own-drawn");
        window.fx(() -> {
            window.scene().getRoot().requestFocus();
            return null;
        });
        window.press(KeyCode.SPACE);
        window.awaitText("#new-question", "Which chip");
        window.press(KeyCode.DIGIT1);
        window.awaitText("#new-question", "On which bench");
        window.picture("own-bench");
        window.press(KeyCode.DIGIT1);
        window.awaitText("#job-id", "J-0001");
        window.press(KeyCode.R);
        window.awaitNode("#remedy-CELL_CONNECTED");
        assertTrue(window.text("#recipe-assumed").contains("the alloy of U1"),
                window.text("#recipe-assumed"));
        window.await("what the guesses cost", () -> said("#recipe-guesses").contains("how U1 is built"));
        assertFalse(said("#recipe-guesses").contains("its thickness"),
                "it was measured: " + said("#recipe-guesses"));
        assertTrue(said("#recipe-guesses").contains("the alloy of U1\n+37 °C"),
                said("#recipe-guesses"));
        String worst = window.text("#guess-detail");
        assertTrue(worst.contains("does not melt") && worst.contains("data sheet of U1"), worst);
        window.mouse("#guess-U1-alloy");
        window.awaitText("#guess-detail", "Sn63Pb37: it melts 37");
        window.picture("own-recipe");
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            Board kept = ledger.document(Format.BOARD, "ES-5", Board.class);
            Chip chip = kept.requireChip("U1");
            assertEquals(chip.part(), "Marked K41");
            assertEquals(chip.sizeMm().xMm(), 15, 1e-9);
            assertEquals(chip.joint().pitchMm(), 0.8, 1e-9);
            assertEquals(kept.thicknessMm(), 1.2, 1e-9);
            assertFalse(kept.assumed().contains(Assumed.THICKNESS), "it was measured");
            assertTrue(kept.assumed().contains(Assumed.alloyOf("U1")), "nobody said which alloy");
            assertEquals(kept.parts().stream().map(p -> p.kind()).toList(), List.of("connector"));
            assertEquals(ledger.benches().stream().map(b -> b.id()).toList(), List.of("bench-1"));
            assertEquals(ledger.usedBy(Format.BOARD, "ES-5"), List.of("J-0001"));
            assertTrue(ledger.chips().isEmpty() && ledger.boards().size() == 1, "nothing made up came along");
            assertEquals(ledger.setting("board-photo.ES-5"), Optional.empty());
        }
        window.open();
    }

    /** All labels in a box. */
    private String said(String box) throws Exception {
        return window.fx(() -> window.scene().getRoot().lookup(box).lookupAll(".label").stream()
                .map(l -> ((javafx.scene.control.Label) l).getText())
                .collect(java.util.stream.Collectors.joining("\n")));
    }
}
