package org.greenbead.app;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;

import java.time.InstantSource;
import java.util.List;
import javafx.scene.control.Slider;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.run.RunPlan;
import org.greenbead.store.Format;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.testng.annotations.Test;

/** Heat picture, planner and calibration as a person uses them, by keys. */
public class TwinWindowTest extends DemoWindow {

    private Ledger ledger() throws Exception {
        return Ledger.open(window.data(), new OpenFiles(), InstantSource.system());
    }

    @Test
    public void heatPictureIsScrubbedByKeysAndTakesAProbe() throws Exception {
        window.press(KeyCode.R);
        window.awaitText("#figure-peak", "°C");
        window.press(KeyCode.H);
        window.awaitText("#heat-clock", "°C");
        String peak = window.text("#heat-clock");
        assertTrue(peak.contains("Lift"), "it opens at the peak: " + peak);
        window.press(KeyCode.LEFT, KeyCode.LEFT);
        window.await("an earlier picture", () -> !window.text("#heat-clock").equals(peak));
        double before = window.fx(() -> ((Slider) window.scene().lookup("#heat-time")).getValue());
        window.pressControl(KeyCode.LEFT);
        double after = window.fx(() -> ((Slider) window.scene().lookup("#heat-time")).getValue());
        assertEquals(before - after, 30, 1e-6, "half a minute back");
        window.press(KeyCode.SPACE);
        window.await("the peak again", () -> window.text("#heat-clock").equals(peak));

        window.click("#probe-new");
        window.fx(() -> {
            window.scene().lookup("#heat-under").requestFocus();
            return null;
        });
        window.press(KeyCode.UP, KeyCode.UP, KeyCode.RIGHT, KeyCode.ENTER);
        window.awaitNode("#probe-probe_3");
        window.close();
        try (Ledger ledger = ledger()) {
            Bench bench = ledger.document(Format.BENCH, "quay-1", Bench.class);
            assertEquals(bench.probes().size(), 3);
            assertEquals(bench.probes().getLast().atMm().yMm(), 95 / 2.0 + 2, 0.6, "two steps up the board");
        }
        window.open();
    }

    private List<ProbePlace> kept() throws Exception {
        try (Ledger ledger = ledger()) {
            return ledger.document(Format.BENCH, "quay-1", Bench.class).probes();
        }
    }

    /** A bead over the chip lies on its top unless one says that it sits among the balls; one that is not there any more is taken away. */
    @Test
    public void whatAProbeTouchesIsSaid() throws Exception {
        window.close();
        Chip target = target();
        List<ProbePlace> kept = kept();
        window.open();
        window.awaitNode("#remedy-CELL_CONNECTED");
        window.press(KeyCode.R);
        window.awaitText("#figure-peak", "°C");
        window.press(KeyCode.H);
        window.awaitText("#heat-clock", "°C");
        window.click("#probe-new");
        window.fx(() -> {
            window.scene().lookup("#heat-top").requestFocus();
            return null;
        });
        // From the board's middle to the chip's, in steps of a millimetre.
        double[] by = {target.centreMm().xMm() - 70 / 2.0, target.centreMm().yMm() - 95 / 2.0};
        for (int i = 0; i < Math.abs(Math.round(by[0])); i++) {
            window.press(by[0] > 0 ? KeyCode.RIGHT : KeyCode.LEFT);
        }
        for (int i = 0; i < Math.abs(Math.round(by[1])); i++) {
            window.press(by[1] > 0 ? KeyCode.UP : KeyCode.DOWN);
        }
        window.press(KeyCode.ENTER);
        window.awaitNode("#touches-chip_top");
        String name = "probe_" + (kept.size() + 1);
        window.awaitNode("#probe-" + name);
        window.picture("probe");
        window.click("#touches-joint");
        window.close();
        assertEquals(kept().getLast().role(), ProbePlace.Role.JOINT);
        assertEquals(kept().getLast().name(), name);
        window.open();
        window.awaitNode("#remedy-CELL_CONNECTED");
        window.press(KeyCode.R);
        window.awaitText("#figure-peak", "°C");
        window.press(KeyCode.H);
        window.awaitText("#heat-clock", "°C");
        window.click("#probe-" + name);
        window.click("#probe-away");
        window.awaitText("#heat-said", "Taken away");
        window.close();
        assertEquals(kept(), kept);
        window.open();
    }

    /** A probe that was last on a larger board is offered, and nothing is refused for it. */
    @Test
    public void aProbeOfALargerBoardIsPutAnew() throws Exception {
        window.close();
        List<ProbePlace> kept = kept();
        var far = new ProbePlace("far", ProbePlace.Role.BOARD, 9, Side.TOP, new Point(300, 200));
        try (Ledger ledger = ledger()) {
            ledger.save(ledger.document(Format.BENCH, "quay-1", Bench.class).put(far));
        }
        window.open();
        window.awaitNode("#remedy-CELL_CONNECTED");
        window.press(KeyCode.R);
        window.awaitText("#figure-peak", "°C");
        window.press(KeyCode.H);
        window.awaitText("#heat-clock", "°C");
        window.await("the probe that is not on this board",
                () -> window.scene().lookup("#probe-far") instanceof ToggleButton key
                        && key.getText().equals("T9, not here"));
        window.picture("probe-elsewhere");
        window.click("#probe-far");
        window.fx(() -> {
            window.scene().lookup("#heat-under").requestFocus();
            return null;
        });
        window.press(KeyCode.UP, KeyCode.ENTER);
        window.await("it is on this board",
                () -> window.scene().lookup("#probe-far") instanceof ToggleButton key
                        && key.getText().equals("T9"));
        window.close();
        List<ProbePlace> now = kept();
        assertEquals(now.size(), kept.size() + 1, "none is lost: " + now);
        assertEquals(now.getLast().channel(), 9);
        assertEquals(now.getLast().side(), Side.BOTTOM);
        window.open();
    }

    private Chip target() throws Exception {
        try (Ledger ledger = ledger()) {
            return ledger.plan(ledger.job("SB-0417"), "lift_run").target();
        }
    }

    @Test
    public void plannerFindsARecipeThatTheRunThenUses() throws Exception {
        window.press(KeyCode.R);
        window.awaitText("#figure-peak", "°C");
        String mine = window.text("#stage-3-air");
        window.press(KeyCode.P);
        window.awaitText("#pedal-word", "Searching");
        window.awaitText("#school-heater_and_air-verdict", "Keeps every limit");
        window.awaitText("#school-heater_and_air-binds", "Tightest");
        window.pedal("Take this recipe");
        window.await("the recipe page with another recipe",
                () -> window.scene().lookup("#figure-peak") != null
                        && window.text("#figure-peak").contains("°C")
                        && !window.text("#stage-3-air").equals(mine));
        window.awaitText("#pedal-word", "Go");
        window.close();
        try (Ledger ledger = ledger()) {
            RunPlan plan = ledger.plan(ledger.job("SB-0417"), "lift_run");
            assertNotEquals(plan.recipe().stages().get(3).air().orElseThrow().setC(), 325.0,
                    "kept in the ledger");
        }
        window.open();
    }

    /** Curves and margins are pictures; a limit is drawn elsewhere by keys and by the pointer, and what it costs is told. */
    @Test
    public void aLimitIsDrawnElsewhereToAskWhatItCosts() throws Exception {
        window.press(KeyCode.R);
        window.awaitText("#figure-peak", "°C");
        window.press(KeyCode.P);
        window.awaitNode("#school-air_alone-verdict");
        window.await("every search is over", () -> window.text("#planner-said").isEmpty());
        assertEquals(window.scene().getRoot().lookupAll(".line-joint").size(), 1,
                "the chosen school's joint");
        assertEquals(window.scene().getRoot().lookupAll(".line-under").size()
                + window.scene().getRoot().lookupAll(".line-board").size(), 1, "the other school's joint");
        window.picture("planner");
        // The limits stand in the order of their room; this one is looked for as a person does, by going down.
        for (int i = 0; i < 12 && !focusIsOn("margin-joints-U5"); i++) {
            window.press(KeyCode.DOWN);
        }
        assertTrue(focusIsOn("margin-joints-U5"));
        window.press(KeyCode.LEFT, KeyCode.LEFT, KeyCode.LEFT);
        assertTrue(says("let go to ask"));
        window.press(KeyCode.ENTER);
        window.awaitText("#planner-moved", "instead of");
        window.picture("planner-moved");
        assertTrue(window.text("#planner-moved").startsWith("U5 joints at 166 °C instead of 173 °C"),
                window.text("#planner-moved"));
        String byKeys = window.text("#planner-moved");
        window.fx(() -> {
            var bar = (javafx.scene.Parent) window.scene().lookup("#margin-ramp-U1");
            var track = bar.getChildrenUnmodifiable().getLast();
            double wide = track.getLayoutBounds().getWidth();
            for (var type : List.of(MouseEvent.MOUSE_PRESSED, MouseEvent.MOUSE_DRAGGED,
                    MouseEvent.MOUSE_RELEASED)) {
                double x = type == MouseEvent.MOUSE_PRESSED ? 0.5 * wide : 0.3 * wide;
                var at = track.localToScene(x, 9);
                javafx.event.Event.fireEvent(track,
                        new MouseEvent(type, at.getX(), at.getY(), at.getX(), at.getY(), MouseButton.PRIMARY,
                                1,
                                false, false, false, false, true, false, false, true, false, true,
                                new javafx.scene.input.PickResult(track, at.getX(), at.getY())));
            }
            return null;
        });
        window.await("the answer to the other question",
                () -> window.scene().lookup("#planner-moved") != null
                        && !window.text("#planner-moved").equals(byKeys));
        assertTrue(window.text("#planner-moved").contains("1.8 °C/s instead of 3.0 °C/s"),
                window.text("#planner-moved"));
        assertTrue(window.text("#school-heater_and_air-verdict").contains("Keeps every limit"),
                "nothing is changed by asking");
    }

    private boolean focusIsOn(String id) throws Exception {
        return window.fx(() -> window.scene().getFocusOwner() != null
                && id.equals(window.scene().getFocusOwner().getId()));
    }

    /** What was run on the board before is offered beside what is sought, with what became of it, and can be taken. */
    @Test
    public void whatWasRunBeforeIsOfferedAndTaken() throws Exception {
        job("SB-0415");
        window.press(KeyCode.R);
        window.awaitText("#figure-peak", "°C");
        window.press(KeyCode.P);
        window.awaitNode("#target-lift");
        window.click("#target-lift");
        window.awaitText("#school-before-note", "SB-0415");
        window.awaitText("#school-before-note", "What became of the board is not told");
        window.await("every search is over", () -> window.text("#planner-said").isEmpty());
        window.picture("before");
        window.click("#choose-before");
        window.awaitText("#pedal-so", "As before");
        window.press(KeyCode.SPACE);
        window.awaitText("#planner-said", "cp12-lift");
        window.close();
        try (Ledger ledger = ledger()) {
            var run = ledger.runs().stream().filter(r -> r.jobId().equals("SB-0415")
                    && r.bead().contains("lift")).findFirst().orElseThrow();
            assertEquals(ledger.document(Format.RECIPE, "cp12-lift", Recipe.class).stages(),
                    org.greenbead.store.RunLog.header(ledger.logFile(run), ledger.files()).plan().recipe()
                            .stages());
        }
        window.open();
    }

    /** One press ends the search; the best so far is proved, and it says how far it came. */
    @Test
    public void whoHasEnoughTakesTheBestSoFar() throws Exception {
        window.press(KeyCode.R);
        window.awaitText("#figure-peak", "°C");
        window.press(KeyCode.P);
        window.pedal("Enough?");
        window.await("the best so far", () -> says("this is the best so far"));
        window.picture("enough");
    }

    /** The same chip for another purpose: T walks lift, seat, reflow and balls; what is kept stands beside the job's own. */
    @Test
    public void plannerAlsoFormsBalls() throws Exception {
        window.press(KeyCode.R);
        window.awaitText("#figure-peak", "°C");
        window.press(KeyCode.P);
        window.awaitText("#pedal-word", "Searching");
        window.press(KeyCode.T, KeyCode.T, KeyCode.T);
        window.awaitText("#planner-title", "loose under");
        window.awaitNode("#school-air_alone-verdict");
        assertTrue(window.scene().lookup("#school-heater_and_air-verdict") == null,
                "only air reaches a loose chip");
        window.pedal("Take this recipe");
        window.awaitText("#planner-said", "wb7-form");
        window.close();
        try (Ledger ledger = ledger()) {
            assertEquals(ledger.document(Format.RECIPE, "wb7-form", Recipe.class).stages().get(2).name(),
                    "Balls");
            assertEquals(ledger.plan(ledger.job("SB-0417"), "lift_run").recipe().id(), "wb7-lift");
        }
        window.open();
    }

    @Test
    public void leavingThePlannerStopsItAndKeepsTheRecipe() throws Exception {
        window.press(KeyCode.R);
        window.awaitText("#figure-peak", "°C");
        String mine = window.text("#stage-3-air");
        window.press(KeyCode.P);
        window.awaitText("#pedal-word", "Searching");
        window.press(KeyCode.ESCAPE);
        window.await("the recipe as it was", () -> window.scene().lookup("#stage-3-air") != null
                && window.text("#stage-3-air").equals(mine));
    }

    /** A guided run melts nothing, is fitted, and changes what the bench is held to be. */
    @Test
    public void guidedRunTeachesTheBench() throws Exception {
        window.press(KeyCode.T, KeyCode.T);
        window.press(KeyCode.B);
        window.awaitNode("#guided-quay-1");
        window.click("#guided-quay-1");
        window.awaitText("#pedal-word", "Unplug the cell lead");
        window.press(KeyCode.DIGIT1);
        window.pedal("Start the run");
        window.awaitText("#pedal-word", "Go on to");
        window.press(KeyCode.PLUS);
        window.await("what a hotter heater would do",
                () -> window.text("#run-said").contains("nothing is changed yet"));
        window.pedal("Finish");
        window.pedal("See what it told");
        window.awaitText("#pedal-word", "Keep with the bench");
        window.awaitText("#fit-said", "after it");
        window.press(KeyCode.SPACE);
        window.click("#bench-quay-1");
        window.await("the history", () -> window.scene().lookup("#bench-told") != null
                && !window.scene().getRoot().lookupAll(".act").stream()
                        .filter(n -> n.getId() != null && n.getId().startsWith("count-")).toList().isEmpty());
        window.close();
        try (Ledger ledger = ledger()) {
            Bench bench = ledger.document(Format.BENCH, "quay-1", Bench.class);
            assertEquals(bench.calibrations().size(), 1);
            assertTrue(bench.calibrations().getFirst().jet().determined());
            assertTrue(ledger.job("SB-0417").bead("lift_run").orElseThrow().worked() == false,
                    "no bead is worked");
        }
        window.open();
    }
}
