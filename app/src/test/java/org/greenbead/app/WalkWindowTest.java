package org.greenbead.app;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.time.InstantSource;
import java.util.List;
import java.util.Optional;
import javafx.scene.input.KeyCode;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.run.Verdict;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.greenbead.store.RunEntry;
import org.testng.annotations.Test;

/** The promises of the window, by keyboard and pedal alone, on the good day and the bad one. */
public class WalkWindowTest extends DemoWindow {

    private void clearTheStopAndStart(int speedPresses) throws Exception {
        window.press(KeyCode.DIGIT1);
        window.awaitText("#pedal-word", "Start the run");
        for (int i = 0; i < speedPresses; i++) {
            window.press(KeyCode.T);
        }
        window.press(KeyCode.SPACE);
        window.awaitText("#pedal-word", "Go on to");
    }

    /** From the stop in Watch to the report, closed and opened again. */
    @Test
    public void wholeJobByKeysAlone() throws Exception {
        window.awaitText("#job-id", "SB-0417");
        window.pedal("Unplug the cell lead");
        window.awaitText("#pedal-word", "Unplug the cell lead");
        assertEquals(window.text("#clock"), "0:00", "a stop holds the start");

        window.press(KeyCode.R);
        window.awaitText("#figure-peak", "°C");
        String before = window.text("#figure-peak");
        window.fill("#stage-3-air", "770 F");
        window.awaitText("#pedal-word", "Keep this recipe");
        window.await("another peak", () -> !window.text("#figure-peak").equals(before));
        window.awaitNode("#remedy-RAMP_UP");
        window.fill("#stage-3-air", "warm");
        window.awaitText("#recipe-entry", "write a temperature");
        window.awaitText("#pedal-word", "Correct air first");
        window.press(KeyCode.ESCAPE, KeyCode.LEFT);
        window.pedal("Go to the run");

        window.awaitNode("#coach-now");
        clearTheStopAndStart(2);
        window.awaitText("#speed-flag", "60 ×");
        window.await("the peak", () -> {
            // The coach's remedy for a lagging heater is taken as soon as it is offered.
            if (window.scene().lookup("#remedy-HEATER_LAG") instanceof javafx.scene.control.Button remedy) {
                remedy.fire();
            }
            return window.scene().lookup("#pedal-word") instanceof javafx.scene.control.Labeled pedal
                    && pedal.getText().startsWith("It moves");
        });
        // From 60 times back over 1 to 10: a hand at the peak needs its time.
        window.press(KeyCode.T, KeyCode.T);
        window.awaitText("#speed-flag", "10 ×");
        window.awaitText("#coach-now", "Nudge");
        window.awaitText("#sight", "floats");
        window.pedal("It moves");
        window.pedal("Chip is off");
        window.awaitText("#pedal-word", "Hands off");
        window.awaitText("#coach-next", "Safe to move");
        window.press(KeyCode.SPACE);
        window.pedal("Finish the run");

        window.awaitText("#verdict", "Proven");
        window.awaitText("#pedal-word", "Go on to Small parts");
        window.press(KeyCode.E);
        window.awaitText("#verdict-said", ".csv");
        window.press(KeyCode.P);
        window.awaitText("#verdict-said", ".pdf");
        try (var exports = Files.list(window.data().resolve("exports"))) {
            assertEquals(exports.count(), 2L);
        }
        window.press(KeyCode.SPACE);
        window.awaitNode("#check-small_parts_counted");

        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            var job = ledger.job("SB-0417");
            assertEquals(job.attested("cell_off"), Attest.YES);
            assertEquals(job.bead("lift_run").orElseThrow().state(), BeadState.GREEN);
            assertEquals(ledger.runs().getFirst().outcome(), Optional.of(Verdict.Outcome.PROVEN));
            assertEquals(ledger.onBoard(job).target().melts(), 3, "the melt is counted");
            assertEquals(
                    ledger.document(org.greenbead.store.Format.BOARD, "WB-7",
                            org.greenbead.core.board.Board.class).requireChip("U1").melts(),
                    2, "for this unit, not for its type");
        }
        window.open();
        window.awaitNode("#check-small_parts_counted");
        window.press(KeyCode.L);
        window.awaitText("#pedal-so", "replays it as it was");
        window.press(KeyCode.SPACE);
        window.awaitText("#replay-title", "SB-0417");
        window.awaitText("#pedal-word", "Play");
        String at = window.text("#clock");
        window.press(KeyCode.LEFT);
        window.await("five seconds earlier", () -> !window.text("#clock").equals(at));
        window.press(KeyCode.E);
        window.awaitText("#replay-said", ".csv");
    }

    /** A dead probe and a pulled cable are seen at once and go when they are mended; the window survives being left in the middle. */
    @Test
    public void faultsAreSeenAndALeftRunIsOffered() throws Exception {
        clearTheStopAndStart(1);
        window.click("#sim-probe");
        window.awaitText("#tile-board-top-foot", "open circuit");
        window.click("#sim-probe");
        window.await("the probe back", () -> !window.text("#tile-board-top").equals("–"));
        window.click("#sim-cable");
        window.awaitText("#tile-board-under-foot", "no reading");
        window.click("#sim-cable");
        window.await("the logger back", () -> !window.text("#tile-board-under").equals("–"));
        window.press(KeyCode.N);
        window.fill("#note-field", "lost a part");
        window.press(KeyCode.ENTER);
        window.awaitText("#run-said", "Noted at");
        window.press(KeyCode.F);
        assertTrue(window.shows("#far-view"));
        window.press(KeyCode.F);
        assertFalse(window.shows("#far-view"));
        String left = window.text("#clock");
        window.close();

        window.open();
        window.awaitNode("#open-run");
        window.awaitText("#pedal-word", "Take it up again");
        assertTrue(seconds(window.text("#clock")) >= seconds(left) - 1,
                window.text("#clock") + " after " + left);
        window.press(KeyCode.SPACE);
        window.awaitNode("#coach-now");
        window.await("the clock to go on", () -> seconds(window.text("#clock")) > seconds(left) + 3);
        window.pressControl(KeyCode.B);
        window.awaitText("#verdict", "Aborted");
        window.awaitText("#pedal-word", "Back to the run");
    }

    private void sql(String statement) throws Exception {
        try (var other = java.sql.DriverManager
                .getConnection("jdbc:sqlite:" + window.data().resolve("ledger.db"));
                var run = other.createStatement()) {
            run.executeUpdate(statement);
        }
    }

    /** The ledger takes nothing any more when the run ends: its verdict is shown all the same, what was not kept is said with the place of the log, and its end is kept at the next start. */
    @Test
    public void theVerdictStandsWhateverTheLedgerSays() throws Exception {
        clearTheStopAndStart(1);
        window.await("the clock to go", () -> seconds(window.text("#clock")) > 2);
        sql("ALTER TABLE run RENAME TO run_away");
        sql("ALTER TABLE job RENAME TO job_away");
        window.pressControl(KeyCode.B);
        window.awaitText("#verdict", "Aborted");
        window.awaitText("#trouble", "its log is whole");
        window.awaitText("#trouble", "no such table: job");
        assertFalse(window.text("#trouble").contains("INSERT"), window.text("#trouble"));
        window.picture("unkept");
        sql("ALTER TABLE run_away RENAME TO run");
        sql("ALTER TABLE job_away RENAME TO job");
        window.close();
        window.open();
        window.awaitNode("#open-run");
        window.awaitText("#pedal-word", "Keep its end");
        window.picture("open-over");
        window.press(KeyCode.SPACE);
        window.awaitText("#verdict", "Aborted");
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            assertEquals(ledger.openRuns(), List.of());
            RunEntry last = ledger.runs().getFirst();
            assertEquals(last.outcome().orElseThrow(), Verdict.Outcome.BROKEN_OFF);
            assertEquals(ledger.job("SB-0417").records("run").getLast().text("outcome"), "broken_off");
            assertTrue(last.endedAt().orElseThrow().isBefore(last.startedAt().plusSeconds(3600)));
            ledger.setting("logger_file", window.data().resolve("no-such-logger.json").toString());
        }
        int records = runRecords();
        // The job took it and the list of runs did not; and by now no logger answers any more.
        sql("UPDATE run SET outcome = NULL, ended_at = NULL WHERE started_at = (SELECT max(started_at) FROM run)");
        window.open();
        window.pedal("Keep its end");
        window.awaitText("#verdict", "Aborted");
        window.close();
        assertEquals(runRecords(), records, "written once");
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            assertEquals(ledger.openRuns(), List.of());
            ledger.setting("logger_file", "");
        } finally {
            window.open();
        }
    }

    private int runRecords() throws Exception {
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            return ledger.job("SB-0417").records("run").size();
        }
    }

    private static int seconds(String clock) {
        String[] part = clock.split(":");
        return part.length == 2 ? Integer.parseInt(part[0]) * 60 + Integer.parseInt(part[1]) : 0;
    }

    /** Checks, jobs, ledger and set-up by keys; units and light change what is shown. */
    @Test
    public void placesAndChecksByKeys() throws Exception {
        window.press(KeyCode.J, KeyCode.J, KeyCode.J);
        window.awaitText("#job-id", "SB-0409");
        window.pedal("Confirm: Rails");
        window.pedal("The air is away");
        window.awaitText("#pedal-word", "Confirm: Under 40");
        window.await("the count", () -> !window.text("#step-count").isEmpty());
        window.press(KeyCode.F);
        window.awaitText("#far-now", "Under 40");
        window.press(KeyCode.F);
        window.press(KeyCode.LEFT);
        window.awaitText("#pedal-word", "The air is away");
        assertTrue(window.text("#step-count").isEmpty(), "the count is taken back with its event");

        window.press(KeyCode.B);
        window.awaitNode("#unit-FAHRENHEIT");
        window.click("#unit-FAHRENHEIT");
        window.click("#theme-true");
        window.click("#scale-175");
        window.await("larger type", () -> window.scene().getRoot().getStyle().contains("22.75px"));
        for (int i = 0; i < 8 && !window.text("#job-id").equals("SB-0417"); i++) {
            window.press(KeyCode.J);
        }
        window.awaitText("#job-id", "SB-0417");
        window.awaitText("#tile-joint-unit", "°F");
        assertTrue(window.fx(() -> window.scene().getStylesheets().getFirst()).contains("lamp-off"));
        window.close();
        window.open();
        window.awaitText("#tile-joint-unit", "°F");
        assertTrue(window.fx(() -> window.scene().getStylesheets().getFirst()).contains("lamp-off"),
                "the choice was kept");
        window.press(KeyCode.L);
        window.awaitText("#pedal-so", "replays it as it was");
        window.press(KeyCode.LEFT);
        window.awaitText("#pedal-word", "Unplug the cell lead");
    }
}
