package org.greenbead.app;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.time.InstantSource;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.application.Platform;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.Strands;
import org.greenbead.core.run.Verdict;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Jobs of three kinds from the first question to the close, by keys alone. */
public class KindsWindowTest extends DemoWindow {
    private static final long PATIENCE_MS = 90_000;
    private static final double LATE_S = 300;
    private static final int AGAIN = 2;
    private static final double COUNT_TO_FIVE_S = 5;
    /** A hand looks up as often as this at the peak, s; and while the board only warms. */
    private static final double LOOKS_EVERY_S = 4;
    private static final double LOOKS_FROM_AFAR_S = 12;
    private static final List<String> HANDS = List.of("It lies on", "Filled", "Wiped", "The jig holds",
            "Heat on",
            "Warm it", "Stencil is off", "Crumbs", "Film", "Washed");
    /** What is written where a gate asks for it: question, answer. The first row of a type that is not there yet counts. */
    private static final Map<String, Map<String, String>> ANSWERS = Map.ofEntries(
            Map.entry("A rail to ground", Map.of("Rail", "core", "Resistance read", "18")),
            Map.entry("What was asked", Map.of("What was consented to", "temporary")),
            Map.entry("No voltage left", Map.of("Volts left", "0.3")),
            Map.entry("How it sits", Map.of("Corner with", "nw", "Seen from", "top", "Photographed", "yes",
                    "Matches at placement", "yes")),
            Map.entry("The field of pads", Map.of("What is left", "none")),
            Map.entry("The chip", Map.of("Part number", "QX-510", "Alloy on its balls", "Sn63Pb37", "Health",
                    "good", "The proof", "meter")),
            Map.entry("The balls", Map.of("Balls counted", "100")),
            Map.entry("A copy of the data", Map.of("Of what", "store U2", "Where it lies", "drive 3",
                    "Count or hash that both show", "8f21", "Read back and compared", "yes")),
            Map.entry("A test done or not done", Map.of("Complaint or function", "does not answer", "Result",
                    "pass", "What shows the data", "1,204 files")));
    private static final int ASKED_AGAIN = 4;
    private String askedFor = "";
    private int asked;
    private String before = "";
    private double sinceS;
    private int again;
    private String seen = "";
    private long seenAt;

    private void type(String id, String text) throws Exception {
        window.fx(() -> {
            TextInputControl line = (TextInputControl) window.scene().lookup(id);
            line.requestFocus();
            line.setText(text);
            return null;
        });
        window.press(KeyCode.ENTER);
    }

    /** @param keys answers to kind, board, target and bench */
    private void begin(KeyCode... keys) throws Exception {
        window.press(KeyCode.O);
        window.awaitNode("#jobs-list");
        window.press(KeyCode.N);
        window.awaitText("#new-question", "What is the job for");
        window.press(keys[0]);
        window.awaitText("#new-question", "What is it?");
        type("#new-line", "  ");
        window.awaitText("#new-said", "An answer is needed");
        type("#new-line", "Test piece");
        window.awaitText("#new-question", "What is wrong");
        type("#new-line", "does not answer");
        window.awaitText("#new-question", "Whose");
        type("#new-line", "Pilot boat Fenn");
        window.awaitText("#new-question", "Which board");
        window.press(keys[1]);
        window.awaitText("#new-question", "Which chip");
        window.press(keys[2]);
        window.awaitText("#new-question", "On which bench");
        window.press(keys[3]);
        window.awaitText("#job-id", "SB-0418");
        window.holdTime();
        again = 0;
    }

    /** Presses through the heat without waiting for anything: it proves nothing. */
    private void hurry() throws Exception {
        fresh();
        while (!window.shows("#coach-now")) {
            moving();
            onwards();
        }
        fresh();
        while (!window.shows("#verdict-more")) {
            moving();
            window.press(KeyCode.SPACE);
            window.letPass(1);
        }
        window.awaitText("#verdict-about", "done, not proven");
    }

    private void fresh() {
        seen = "";
        seenAt = System.currentTimeMillis();
    }

    /** A slow machine is no hang: it hangs when nothing that a person sees has changed for long. */
    private void moving() throws Exception {
        String now = pedal() + " / " + textNow("#step-now") + textNow("#coach-now") + " "
                + textNow("#coach-next") + " " + textNow("#sight") + " " + textNow("#clock");
        if (!now.equals(seen)) {
            seen = now;
            seenAt = System.currentTimeMillis();
        }
        assertTrue(System.currentTimeMillis() - seenAt < PATIENCE_MS,
                "it hangs at: " + now + " " + BenchWindow.runThreads());
    }

    private String pedal() {
        return window.text("#pedal-word");
    }

    /** Presses on as a hand would, until the job is at its end: attests, begins counts, keeps recipes, runs the heat. */
    private void workToTheEnd() throws Exception {
        for (int i = 0; i < 2; i++) {
            window.press(KeyCode.T);
        }
        fresh();
        while (!pedal().startsWith("The job is at its end")) {
            moving();
            onwards();
        }
    }

    private Job kept(String id) throws Exception {
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            return ledger.job(id);
        } finally {
            window.open();
        }
    }

    private static void worked(Job job) {
        for (Bead bead : job.beads()) {
            assertTrue(bead.worked(), bead.id());
            if (bead.gate()) {
                assertEquals(bead.state(), BeadState.GREEN, bead.id());
            }
        }
    }

    /** A loose chip needs no heat of the board: cleaned, balled and melted twice, counted, into the tray. */
    @Test
    public void looseChipForStock() throws Exception {
        begin(KeyCode.DIGIT9, KeyCode.DIGIT5, KeyCode.DIGIT1, KeyCode.DIGIT1);
        window.awaitText("#step-now", "photographed");
        window.press(KeyCode.W);
        window.awaitText("#ask-question", "1 of");
        type("#ask-line", "SB-0418");
        window.awaitText("#ask-question", "2 of");
        window.press(KeyCode.ESCAPE, KeyCode.ESCAPE);
        workToTheEnd();
        Job job = kept("SB-0418");
        worked(job);
        assertEquals(job.records("exposure").stream().map(r -> r.text("event")).toList(),
                List.of("bead_form", "bead_shape"), "both melts are on the chip's account");
        assertTrue(job.records("joint").isEmpty(), "no site of a board was melted");
        assertEquals(job.records("intake").getFirst().text("label"), "SB-0418");
        assertEquals(job.records("symptom").getFirst().text("words"), "does not answer");
    }

    /** The page is drawn anew while a line is being written: what was written stays, and goes into the job. */
    @Test
    public void whatIsHalfWrittenStaysWhenThePageHasNews() throws Exception {
        begin(KeyCode.DIGIT9, KeyCode.DIGIT5, KeyCode.DIGIT1, KeyCode.DIGIT1);
        window.awaitText("#step-now", "photographed");
        window.press(KeyCode.W);
        window.awaitText("#ask-question", "1 of");
        window.fill("#ask-line", "SB-04");
        window.mouse("#check-chip_photographed");
        window.await("the check is ticked",
                () -> !window.text("#step-now").contains("photographed"));
        assertEquals(window.fx(() -> ((TextInputControl) window.scene().lookup("#ask-line")).getText()),
                "SB-04");
        type("#ask-line", "SB-0418");
        window.awaitText("#ask-question", "2 of");
        assertEquals(kept("SB-0418").records("intake").getFirst().text("label"), "SB-0418");
    }

    /** Reheating alone: one run, and a report that says temporary. */
    @Test
    public void reflowIsTemporary() throws Exception {
        begin(KeyCode.DIGIT3, KeyCode.DIGIT4, KeyCode.DIGIT2, KeyCode.DIGIT1);
        hurry();
        window.press(KeyCode.A);
        window.awaitText("#pedal-word", "Start the run");
        workToTheEnd();
        Job job = kept("SB-0418");
        worked(job);
        assertEquals(job.bead("reflow_run").orElseThrow().recipe(), Optional.of("tg-2-u2-lift"));
        assertFalse(job.records("exposure").isEmpty(),
                "what the chip has been through is written down by itself");
        try (Ledger ledger = ledgerOf()) {
            assertTrue(ledger.runs().stream().anyMatch(r -> r.jobId().equals("SB-0418")
                    && r.outcome().filter(o -> o != Verdict.Outcome.BROKEN_OFF).isPresent()));
        } finally {
            window.open();
        }
    }

    private Ledger ledgerOf() throws Exception {
        window.close();
        return Ledger.open(window.data(), new OpenFiles(), InstantSource.system());
    }

    /** A chip replaced: lift and seat, two runs; look-alikes are in the house, so its label is asked for before it is taken in hand. */
    @Test
    public void replacedWithALookAlikeInTheHouse() throws Exception {
        begin(KeyCode.DIGIT2, KeyCode.DIGIT4, KeyCode.DIGIT2, KeyCode.DIGIT1);
        // Two chips of the same part: the one of this job, and another that was booked in by mistake.
        var silent = new java.util.concurrent.CountDownLatch(1);
        window.silence(silent);
        window.press(KeyCode.Q);
        window.awaitNode("#chips-list");
        // Pressed before the ledger has said anything: it gets a free label and its part all the same.
        window.press(KeyCode.N);
        silent.countDown();
        window.awaitText("#chips-said", "GB-0049");
        String ours = window.text("#chips-said").replaceAll(".*(GB-\\d{4}-\\d).*", "$1");
        window.press(KeyCode.N);
        window.awaitText("#chips-said", "GB-0050");
        String other = window.text("#chips-said").replaceAll(".*(GB-\\d{4}-\\d).*", "$1");
        window.awaitText("#chips-alike", ours);
        window.press(KeyCode.P);
        type("#chips-line", "tray A9");
        window.awaitText("#chips-said", "Kept: " + other);
        window.press(KeyCode.G);
        window.awaitNode("#step-now");
        fresh();
        while (!window.text("#step-now").contains("in your hand")) {
            moving();
            onwards();
        }
        window.awaitText("#pedal-word", "First the label");
        nothingInHandWhileTheLedgerIsSilent();
        window.press(KeyCode.SPACE);
        window.awaitText("#pedal-word", "First the label");
        type("#label-line", other);
        window.awaitText("#label-said", "another chip");
        type("#label-line", "GB-0049-" + (ours.endsWith("1") ? "2" : "1"));
        window.awaitText("#label-said", "a digit of it is wrong");
        type("#label-line", ours);
        window.awaitText("#pedal-word", "Confirm");
        answerLabels(ours);
        Job job = kept("SB-0418");
        worked(job);
        assertTrue(job.records("exposure").size() >= 2, "lift and seat");
        try (Ledger ledger = ledgerOf()) {
            var chip = ledger.chips().stream().filter(c -> c.label().equals(ours)).findFirst().orElseThrow();
            assertTrue(chip.melts() >= 2, "its melts are counted: " + chip.melts());
            assertEquals(ledger.chips().stream().filter(c -> c.label().equals(other)).findFirst()
                    .orElseThrow().where(), "A9");
        } finally {
            window.open();
        }
    }

    /** Two chips of one dead board, each from its plan to the tray; the board is closed when both are off. */
    @Test
    public void twoChipsOfOneBoard() throws Exception {
        begin(KeyCode.C, KeyCode.DIGIT4, KeyCode.DIGIT2, KeyCode.DIGIT1);
        Job strand = bothToTheirEnd(further(KeyCode.DIGIT1, KeyCode.DIGIT9));
        Job job = kept("SB-0418");
        assertEquals(strand.strandOf(), Optional.of("SB-0418"));
        assertTrue(lifted(job) && lifted(strand), "each was lifted by itself");
        assertFalse(job.target().equals(strand.target()));
    }

    /** A chip moves for its data to a donor of the same board, whose own chip is lifted first: patient and donor are two units. */
    @Test
    public void aChipMovesToItsDonor() throws Exception {
        begin(KeyCode.B, KeyCode.DIGIT4, KeyCode.DIGIT2, KeyCode.DIGIT1);
        fresh();
        while (!window.text("#step-now").contains("Earlier joints")) {
            moving();
            onwards();
        }
        String donor = further("#strand-donor", KeyCode.DIGIT4, KeyCode.DIGIT2, KeyCode.DIGIT9);
        Job given = bothToTheirEnd(donor);
        Job job = kept("SB-0418");
        assertEquals(Strands.donor(given), Optional.of("donor"));
        assertEquals(given.board() + given.target(), job.board() + job.target(),
                "the same chip of two units");
        assertTrue(lifted(given) && lifted(job));
        assertFalse(given.records("power").isEmpty(), "the donor was made safe by itself");
    }

    private static boolean lifted(Job job) {
        return job.records("run").stream().anyMatch(r -> r.text("bead").equals("lift_run"));
    }

    private String further(KeyCode... keys) throws Exception {
        return further("", keys);
    }

    /** @param click what is pressed first, where it is no key; the number of the further chip comes back */
    private String further(String click, KeyCode... keys) throws Exception {
        String main = window.text("#job-id");
        window.press(KeyCode.C);
        window.awaitText("#strand-title", "works on one chip");
        window.press(KeyCode.N);
        window.awaitText("#strand-ask", "Which chip of board");
        if (!click.isEmpty()) {
            window.click(click);
        }
        for (KeyCode key : keys) {
            window.press(key);
        }
        window.awaitText("#job-id", main + "-");
        again = 0;
        return window.text("#job-id");
    }

    /** The further chip in hand, then the job itself. @return the further chip as it is kept */
    private Job bothToTheirEnd(String further) throws Exception {
        workToTheEnd();
        backToTheJob();
        workToTheEnd();
        worked(kept("SB-0418"));
        Job strand = kept(further);
        worked(strand);
        return strand;
    }

    private void backToTheJob() throws Exception {
        window.press(KeyCode.C);
        window.awaitText("#strand-title", "has 2 chips");
        window.press(KeyCode.UP);
        window.pedal("Go to");
        window.await("the job itself", () -> window.text("#job-id").equals("SB-0418"));
        again = 0;
    }

    /** Until the ledger has said which chips look alike, no press states anything of the one in hand. */
    private void nothingInHandWhileTheLedgerIsSilent() throws Exception {
        var answers = new java.util.concurrent.CountDownLatch(1);
        window.press(KeyCode.Q);
        window.awaitNode("#chips-list");
        window.silence(answers);
        try {
            window.press(KeyCode.G);
            window.awaitText("#pedal-word", "A moment");
            String step = window.text("#step-now");
            window.letPass(COUNT_TO_FIVE_S);
            window.press(KeyCode.SPACE, KeyCode.SPACE);
            assertEquals(window.text("#step-now"), step);
            assertTrue(pedal().startsWith("A moment"), pedal());
        } finally {
            answers.countDown();
        }
        window.awaitText("#pedal-word", "First the label");
    }

    /** As {@link #workToTheEnd}, answering the label where it is asked for again. */
    private void answerLabels(String label) throws Exception {
        for (int i = 0; i < 2; i++) {
            window.press(KeyCode.T);
        }
        fresh();
        while (!pedal().startsWith("The job is at its end")) {
            moving();
            if (pedal().startsWith("First the label")) {
                type("#label-line", label);
                window.await("the way free",
                        () -> !(window.scene().lookup("#pedal-word") instanceof Labeled l)
                                || !l.getText().startsWith("First the label"));
            }
            onwards();
        }
    }

    /** What hands say while balls are made; at the peak the eye is waited for. */
    private boolean atTheStencil(String word) {
        return HANDS.stream().anyMatch(word::startsWith)
                || word.startsWith("First ball") && window.text("#sight").contains("shiny")
                || word.startsWith("All round") && window.text("#coach-now").startsWith("All round");
    }

    /** A gate asks for a record: the pedal leads to its questions, which are answered as a person would. */
    private void writeDown(String word) throws Exception {
        String type = word.replace("Write down: ", "");
        String wanted = window.text("#step-now");
        asked = wanted.equals(askedFor) ? asked + 1 : 1;
        askedFor = wanted;
        assertTrue(asked <= ASKED_AGAIN, "what was written down is asked again and again: " + wanted);
        window.press(KeyCode.SPACE);
        window.await("the questions", () -> window.scene().lookup("#ask-question") instanceof Labeled l
                && l.getText().contains(" of "));
        if (type.equals("A picture")) {
            answer(Map.of("Of what", wanted.contains("clean field") ? "pads_clean" : "chip_pads"));
        } else {
            Map<String, String> answers = wanted.contains("rail read again")
                    ? Map.of("Resistance after", "18.1")
                    : ANSWERS.get(type);
            assertTrue(answers != null, "nobody knows what to write for " + word + ": " + wanted);
            answer(answers);
        }
        window.press(KeyCode.ESCAPE);
        window.press(KeyCode.G);
        org.testfx.util.WaitForAsyncUtils.waitForFxEvents();
        window.await("the gate looks again", () -> !pedalNow().equals(word)
                || !textNow("#step-now").equals(wanted));
    }

    /** The model and the eye agree: before that the coach says "nearly", and a nudge would prove too little. */
    private boolean nudges() {
        String coach = textNow("#coach-now") + textNow("#coach-next");
        return coach.contains("Nudge one corner now") || coach.contains("The estimate says molten");
    }

    private String pedalNow() {
        return textNow("#pedal-word");
    }

    /** The window changes while one looks; only its own thread sees it whole. */
    private String textNow(String id) {
        if (!Platform.isFxApplicationThread()) {
            return window.text(id);
        }
        return window.scene().lookup(id) instanceof Labeled l ? l.getText() : "";
    }

    /** Every question of the type once round, those that have an answer with it. */
    private void answer(Map<String, String> answers) throws Exception {
        String first = window.text("#ask-question");
        int fields = Integer.parseInt(first.replaceAll(".* of (\\d+)\\)", "$1"));
        for (int i = 0; i < fields; i++) {
            String question = window.text("#ask-question");
            Optional<String> value = answers.entrySet().stream()
                    .filter(a -> question.startsWith(a.getKey())).map(Map.Entry::getValue).findFirst();
            if (value.isPresent() && window.fx(() -> window.scene().lookup("#ask-" + value.get())) != null) {
                window.click("#ask-" + value.get());
                if (window.text("#ask-question").equals(question)) {
                    window.press(KeyCode.ENTER);
                }
            } else if (value.isPresent()) {
                type("#ask-line", value.get());
            } else {
                window.press(KeyCode.ENTER);
            }
        }
    }

    private void onwards() throws Exception {
        String word = pedal();
        if (word.startsWith("Write down:")) {
            writeDown(word);
            return;
        }
        if (!word.equals(before)) {
            before = word;
            sinceS = 0;
        }
        if (window.shows("#verdict-more") && again < AGAIN) {
            // What was not proven is done once more, as a person would.
            again++;
            window.press(KeyCode.A);
            return;
        }
        boolean hot = window.shows("#coach-now");
        if (word.startsWith("Settled")) {
            window.letPass(COUNT_TO_FIVE_S);
        }
        // A stage that does not reach its evidence is ended on the technician's word, as the coach offers it.
        boolean late = word.startsWith("Go on to") && sinceS > LATE_S;
        if (!hot || late || word.startsWith("Start") || word.startsWith("Finish")
                || word.startsWith("Chip is off")
                || word.startsWith("It moves") && window.text("#sight").contains("floats")
                        && nudges()
                || word.startsWith("Settled") || atTheStencil(word)) {
            window.press(KeyCode.SPACE);
        } else if (window.shows("#remedy-HEATER_LAG")) {
            window.click("#remedy-HEATER_LAG");
        } else {
            double lookS = word.startsWith("Go on to") ? LOOKS_FROM_AFAR_S : LOOKS_EVERY_S;
            window.letPass(lookS);
            sinceS += lookS;
        }
        org.testfx.util.WaitForAsyncUtils.waitForFxEvents();
    }
}
