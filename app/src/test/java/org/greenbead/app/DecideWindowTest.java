package org.greenbead.app;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.InstantSource;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;
import org.greenbead.core.board.Board;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.store.Format;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.testng.annotations.Test;

/** Before the heat the courses stand side by side, after it the proofs. */
public class DecideWindowTest extends DemoWindow {
    private static final Instant AT = Instant.parse("2031-04-02T10:00:00Z");

    private void answer(String question, String text) throws Exception {
        window.awaitText("#ask-question", question);
        window.fill("#ask-line", text);
        window.press(KeyCode.ENTER);
    }

    /** What the heat to come does to the parts beside the chip is rehearsed before the book judges the job. */
    @Test
    public void theHeatToComeIsJudged() throws Exception {
        job("SB-0406");
        window.press(KeyCode.K);
        window.awaitText("#book-title", "SB-0406");
        window.press(KeyCode.F);
        window.await("the cell in the heat",
                () -> says("A part gives up long before solder does") && says("the next heat brings it to"));
        window.picture("heat-to-come");
    }

    @Test
    public void aCourseIsTakenByWhatItIsExpectedToCost() throws Exception {
        job("SB-0415");
        window.press(KeyCode.X);
        window.awaitText("#course-title", "Enter what the unit is worth");
        assertTrue(says("Decline"));
        window.picture("courses-wanted");
        window.press(KeyCode.SPACE);
        answer("Value of the working unit", "650");
        answer("Value of the data", "");
        answer("Rate of an hour", "52");
        window.press(KeyCode.ESCAPE);
        window.press(KeyCode.X);
        window.awaitText("#course-title", "expected cost");
        window.awaitNode("#course-reball");
        assertTrue(
                window.fx(() -> window.scene().lookup("#course-replace").getAccessibleText())
                        .contains("The price of the part is not noted"),
                "a course that buys one is closed until then");
        window.press(KeyCode.N);
        window.awaitText("#ask-question", "Course");
        window.awaitNode("#ask-choices");
        window.press(KeyCode.DIGIT3);
        answer("Minutes at the bench", "95");
        answer("Minutes it runs alone", "");
        answer("Material", "4");
        answer("Price of the part", "30");
        window.press(KeyCode.ESCAPE);
        window.press(KeyCode.X);
        window.awaitText("#course-title", "Replace: expected cost");
        window.picture("courses");
        window.awaitNode("#course-evidence");
        assertTrue(says("Best next test"), "the next best test");
        assertFalse(window.text("#course-hangs").isEmpty());
        window.awaitText("#pedal-word", "Take: Replace");
        window.mouse("#course-reflow");
        window.awaitText("#pedal-word", "Take: Reflow");
        window.press(KeyCode.UP, KeyCode.DOWN);
        window.mouse("#course-replace");
        window.pedal("Take: Replace");
        window.awaitText("#pedal-word", "Back");
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            Kept taken = ledger.job("SB-0415").records("decision").getFirst();
            assertEquals(taken.text("course"), "replace");
            assertTrue(taken.number("expected") > 30 && taken.number("low") < taken.number("expected"));
        } finally {
            window.open();
        }
    }

    @Test
    public void proofsStandBeforeAndAfter() throws Exception {
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            Job job = ledger.job("SB-0415");
            Map<String, Map<String, Object>> notes = new java.util.LinkedHashMap<>();
            notes.put("symptom-91", Map.of("words", "goes dark in the cold", "reproduced", true, "before",
                    "dark below 4 \u00b0C"));
            notes.put("rail-91", Map.of("name", "core", "ohm", 2.4, "lead_ohm", 0.2, "reference_ohm", 18.2,
                    "after_ohm", 18.6));
            notes.put("rail-92", Map.of("name", "io", "ohm", 1180.0, "after_ohm", 640.0));
            notes.put("rail-93", Map.of("name", "radio", "ohm", 312.0));
            notes.put("connector-91", Map.of("id", "J4", "undone", true));
            notes.put("tested-91", Map.of("what", "log clock", "result", "pass", "minutes", 30.0));
            notes.put("run-91", Map.of("bead", "seat_run", "kind", "seat", "outcome", "worked"));
            notes.put("curve-91",
                    Map.of("taken", "before", "outcome", "departs", "stage", 3.0, "of_stages", 5.0,
                            "how", "stays", "boards", 3.0));
            notes.put("curve-92", Map.of("taken", "after", "outcome", "alike", "boards", 3.0));
            notes.put("leak-91",
                    Map.of("taken", "after", "p0_kpa", -15.0, "p1_kpa", -14.69, "t0_c", 21.85, "t1_c",
                            22.65, "hold_s", 40.0, "limit_pa_s", 20.0));
            for (Map.Entry<String, Map<String, Object>> note : notes.entrySet()) {
                job = job
                        .with(new Kept(note.getKey(), note.getKey().replaceAll("-.*", ""), AT, "technician A",
                                note.getValue()));
            }
            ledger.save(job, "noted", "");
        } finally {
            window.open();
        }
        job("SB-0415");
        window.press(KeyCode.V);
        window.awaitText("#proof-title", "A proof fails");
        window.awaitNode("#proof-rail-io");
        window.picture("proofs");
        assertTrue(says("−46 % against itself before the work"), "a rail that halved");
        assertTrue(says("It was unplugged and not tried since"));
        assertTrue(says("Not read again after the work"));
        assertTrue(says("The board was heated since. Try it again."), "a pass from before the last heat");
        window.mouse("#proof-unplugged-j4");
        window.awaitText("#ask-question", "Complaint or function");
        assertEquals(List.of(window.text("#job-id")), List.of("SB-0415"));
        window.picture("proof-named");
        window.await("the line has the keys",
                () -> window.scene().getFocusOwner() instanceof TextInputControl);
        window.press(KeyCode.ENTER);
        window.awaitText("#ask-question", "Result");
        window.press(KeyCode.DIGIT1);
        window.await("the test is kept", () -> window.text("#ask-question").contains("With which media"));
        window.press(KeyCode.ESCAPE, KeyCode.V);
        window.mouse("#proof-rail-radio");
        window.awaitText("#ask-question", "Resistance after the work");
        assertTrue(says(": radio"), "its own record");
        window.picture("proof-rail");
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            List<Kept> tests = ledger.job("SB-0415").records("tested");
            Kept last = tests.getLast();
            assertEquals(last.text("what"), "J4");
            assertEquals(last.text("result"), "pass");
            assertTrue(tests.stream().anyMatch(
                    t -> t.id().equals("tested-91") && t.text("configuration").isEmpty()),
                    "the older is as it was");
        } finally {
            window.open();
        }
    }

    /** The report is looked at before it is handed out; a job without any heat has one. */
    @Test
    public void theReportIsLookedAtAndKept() throws Exception {
        job("SB-0417");
        window.press(KeyCode.E);
        window.awaitText("#report-title", "It was examined; no repair was made");
        window.awaitText("#report-number", "Page 1 of ");
        window.picture("report");
        window.press(KeyCode.DOWN, KeyCode.PAGE_DOWN);
        window.press(KeyCode.SPACE);
        window.awaitText("#report-said", "report-sb-0417.pdf");
        assertTrue(java.nio.file.Files.size(window.data().resolve("exports/report-sb-0417.pdf")) > 10_000);
        window.press(KeyCode.DIGIT2);
        window.await("German", () -> window.scene().lookup("#report-in-de") instanceof ToggleButton b
                && b.isSelected() && !window.text("#pedal-word").contains("Loading"));
        window.picture("report-de");
        window.press(KeyCode.SPACE);
        window.awaitText("#report-said", "report-sb-0417-de.pdf");
        try (var made = Loader.loadPDF(window.data().resolve("exports/report-sb-0417-de.pdf").toFile())) {
            assertTrue(new PDFTextStripper().getText(made).contains("repariert wurde nichts"));
        }
        window.press(KeyCode.N);
        window.awaitText("#proof-title", "Nothing is tested yet");
        window.press(KeyCode.LEFT);
        window.press(KeyCode.E);
        window.awaitText("#report-number", "Page 1 of ");
        window.await("the next one as well",
                () -> window.scene().lookup("#report-in-de") instanceof ToggleButton b
                        && b.isSelected());
        window.click("#report-in-en");
        window.await("English again", () -> window.scene().lookup("#report-in-en") instanceof ToggleButton b
                && b.isSelected());
        window.press(KeyCode.LEFT);
    }

    /** Few tries say little, and it is said how many pairs were looked at. */
    @Test
    public void theLedgerSaysWhatBecameOfJobs() throws Exception {
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            int n = 0;
            for (Job kept : ledger.jobs().stream().filter(j -> j.strandOf().isEmpty()).toList()) {
                Job job = kept.records("tested").isEmpty()
                        ? kept.with(new Kept("run-91", "run", AT, "technician A",
                                Map.of("bead", "lift_run", "kind", "lift")))
                        : kept;
                if (++n == 3) {
                    ledger.save(job.with(new Kept("intake-1", "intake", AT, "technician A",
                            Map.of("client", "practice")))
                            .with(new Kept("tested-91", "tested", AT, "technician A",
                                    Map.of("what", job.records("symptom").getFirst().text("words"), "result",
                                            "pass"))),
                            "noted", "");
                } else if (n % 3 != 0) {
                    Job costed = n > 2
                            ? job.with(new Kept("cost-91", "cost", AT, "technician A",
                                    Map.of("attended_min", 30.0 * n, "material", 2.5)))
                            : job;
                    ledger.save(
                            costed.with(new Kept("tested-91", "tested", AT,
                                    n % 2 == 0 ? "technician A" : "technician B",
                                    Map.of("what", job.records("symptom").getFirst().text("words"), "result",
                                            n == 2 ? "fail" : "pass"))),
                            "noted", "");
                }
            }
        } finally {
            window.open();
        }
        window.awaitNode("#remedy-CELL_CONNECTED");
        window.press(KeyCode.L);
        window.awaitNode("#ledger-list");
        window.press(KeyCode.N);
        window.awaitText("#odds-title", "3 of 4 jobs succeeded, by kind of job");
        window.awaitNode("#odds-revive");
        window.awaitText("#odds-looked", "Jobs without a result yet: 1. Groups: 2, pairs compared: 1");
        window.awaitText("#odds-looked", "Practice is counted apart: 1 of 1 came out well.");
        window.await("what jobs took", () -> says("by hand") && says("material 2.50"));
        window.picture("odds");
        window.press(KeyCode.DIGIT6);
        window.awaitText("#odds-title", "by person");
        window.awaitNode("#odds-technician-a");
        window.press(KeyCode.SPACE);
        window.awaitText("#odds-title", "by month");
        window.mouse("#odds-by-board");
        window.awaitText("#odds-title", "by board");
        window.press(KeyCode.LEFT);
        window.awaitNode("#ledger-list");
    }

    /** A run that went wrong goes into the bin and comes back; one in a report says so first. */
    @Test
    public void aRunIsThrownAwayAndTakenBack() throws Exception {
        window.press(KeyCode.L);
        window.await("runs", () -> window.text("#ledger-title").matches("\\d+ runs")
                && !window.text("#ledger-title").startsWith("0 "));
        int all = Integer.parseInt(window.text("#ledger-title").replaceAll("\\D", ""));
        window.press(KeyCode.DELETE);
        window.awaitText("#ledger-said", "is in the bin");
        window.awaitText("#ledger-title", all - 1 + " runs");
        window.press(KeyCode.X);
        window.awaitText("#ledger-title", "Runs in the bin: 1");
        window.awaitText("#pedal-word", "Take it back");
        window.picture("ledger-bin");
        window.press(KeyCode.DELETE);
        window.awaitText("#ledger-said", "30 days");
        window.press(KeyCode.SPACE);
        window.awaitText("#ledger-title", "Runs in the bin: 0");
        window.press(KeyCode.X);
        window.awaitText("#ledger-title", all + " runs");
        window.press(KeyCode.DELETE);
        window.awaitText("#ledger-title", all - 1 + " runs");
        window.pressControl(KeyCode.Z);
        window.awaitText("#ledger-title", all + " runs");
        String first;
        try (Ledger ledger = Ledger.openShared(window.data(), new OpenFiles(), InstantSource.system())) {
            first = ledger.runs().getFirst().jobId();
        }
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            ledger.reported(first, "report-of-it.pdf");
        } finally {
            window.open();
        }
        window.awaitNode("#remedy-CELL_CONNECTED");
        window.press(KeyCode.L);
        window.awaitText("#ledger-title", all + " runs");
        window.press(KeyCode.DELETE);
        window.awaitText("#ledger-said", "report-of-it.pdf");
        assertEquals(window.text("#ledger-title"), all + " runs");
        window.press(KeyCode.DELETE);
        window.awaitText("#ledger-title", all - 1 + " runs");
    }

    /** The resistors are pressed as they lie on the board; what to take off and to fit follows, and goes into the job. */
    @Test
    public void configurationResistorsAreReadAndPlanned() throws Exception {
        Path table = Files.writeString(Files.createTempFile("straps", ".csv"), """
                source,schematic sheet 12
                revision,C
                vcc_v,1.8
                strap,S0,R101,10k,R102,10k
                strap,S1,R103,10k,R104,10k
                code,01,small memory
                code,11,large memory
                """);
        Path broken = Files.writeString(Files.createTempFile("straps", ".csv"), """
                source,schematic
                vcc_v,1.8
                strap,S0,R101,10k,R102,10k
                code,0,small
                code,0,large
                """);
        window.choose(broken);
        job("SB-0415");
        window.press(KeyCode.X);
        window.awaitNode("#courses-straps");
        window.press(KeyCode.C);
        window.awaitText("#strap-title", "No table for this board yet");
        window.press(KeyCode.SPACE);
        window.awaitText("#strap-note", "code");
        window.awaitText("#strap-title", "No table for this board yet");
        window.choose(table);
        window.press(KeyCode.N);
        window.awaitText("#strap-title", "Reads ??");
        window.awaitText("#pedal-word", "A pin reads neither");
        window.mouse("#strap-R102");
        window.awaitText("#strap-title", "Reads 0?");
        window.press(KeyCode.RIGHT, KeyCode.PAGE_UP);
        window.awaitText("#strap-title", "Reads 01: small memory");
        window.press(KeyCode.DOWN, KeyCode.DOWN);
        window.await("what is to do", () -> says("Take off R102") && says("Fit R101 10.0 k\u03a9"));
        window.picture("straps");
        window.pedal("Keep the plan");
        window.awaitText("#strap-note", "the plan");
        window.mouse("#strap-R102");
        window.mouse("#strap-R101");
        window.await("nothing is left", () -> says("Nothing to change"));
        window.press(KeyCode.SPACE);
        window.awaitText("#strap-note", "this is what is fitted");
        window.press(KeyCode.LEFT);
        window.awaitNode("#courses-straps");
        window.press(KeyCode.C);
        window.awaitText("#strap-title", "Reads 11: large memory");
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            Kept kept = ledger.job("SB-0415").records("configuration").getFirst();
            assertEquals(kept.text("straps_before"), "01");
            assertEquals(kept.text("straps_after"), "11");
            assertEquals(kept.text("table_revision"), "C");
            assertTrue(kept.yes("complete"));
        } finally {
            window.open();
        }
    }

    /** What the table says of the platform, on two boards; without a row nothing is ready, and a chip that must travel is asked for. */
    @Test
    public void pairedChipsAreChosenOnTwoBoards() throws Exception {
        String board;
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            Job job = ledger.job("SB-0417");
            board = job.board();
            ledger.save(job.with(new Kept("unit-91", "unit", AT, "technician A",
                    Map.of("platform", "wave logger", "generation", 2.0, "memory_type", "MR-8", "revision",
                            "C",
                            "region", "north", "firmware", "4.1")))
                    .with(new Kept("donor-91", "donor", AT, "technician A",
                            Map.of("memory_type", "MR-8", "revision", "D", "region", "north"))),
                    "noted", "");
        } finally {
            window.open();
        }
        Path other = Files.writeString(Files.createTempFile("paired", ".csv"), """
                platform,generation,chip,need,reason,source,date
                tide gauge,,U1,must,keys inside,bench notes 3,2031-02-01
                """);
        Path table = Files.writeString(Files.createTempFile("paired", ".csv"), """
                platform,generation,chip,need,reason,source,date
                wave logger,2,U1,must,keys inside,bench notes 3,2031-02-01
                wave logger,2,U5,should,calibration lies in it,bench notes 3,2031-02-01
                wave logger,2,U9,never,counts its own seats,bench notes 4,
                """);
        window.choose(other);
        job("SB-0417");
        window.press(KeyCode.X);
        window.awaitNode("#courses-paired");
        window.press(KeyCode.T);
        window.awaitText("#travel-title", "No table of paired chips yet");
        window.press(KeyCode.SPACE);
        window.awaitText("#travel-title", "Stop: no row covers wave logger, generation 2");
        window.choose(table);
        window.press(KeyCode.N);
        window.awaitText("#travel-title", "not ready yet");
        window.awaitText("#travel-says", "U1, U5");
        assertTrue(says("revision") || says("Revision"), "the donor's revision differs");
        window.picture("paired");
        window.awaitText("#travel-order", "Off in this order: ");
        window.mouse("#leaves-U1");
        window.await("it is missed", () -> says("U1 must travel: keys inside"));
        window.press(KeyCode.DOWN, KeyCode.DOWN, KeyCode.ENTER);
        window.await("that one must stay", () -> says("U9 must stay: counts its own seats"));
        window.press(KeyCode.ENTER);
        window.mouse("#lands-U1");
        window.await("whole again", () -> !says("must travel") && !says("must stay"));
        window.press(KeyCode.SPACE);
        window.awaitText("#travel-note", "3 records");
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            List<Kept> kept = ledger.job("SB-0417").records("transplant");
            assertEquals(kept.stream().filter(k -> k.yes("moves")).map(k -> k.text("chip")).toList(),
                    List.of("U1", "U5"));
            assertTrue(kept.stream().allMatch(k -> k.text("table").startsWith("bench notes")));
            assertTrue(ledger.tables().travel().isPresent() && ledger.tables().straps(board).isEmpty());
        } finally {
            window.open();
        }
    }

    /** Damaged pads come with what their nets lose and where else these lie; the meter's word is one key, and what is found goes into the job. */
    @Test
    public void damagedPadsAreMeasuredOneAfterTheOther() throws Exception {
        window.close();
        BeadMap map;
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            Job mine = ledger.job("SB-0412");
            String part = ledger.document(Format.BOARD, mine.board(), Board.class).requireChip(mine.target())
                    .part();
            map = BeadMap.grid(8, 10, 0.8, Optional.of(0.45));
            map = new BeadMap(map.sites().stream()
                    .map(s -> new Site(s.name(), s.xMm(), s.yMm(), s.diameterMm(),
                            s.name().equals("C4") ? "CLK" : s.name().startsWith("B") ? "GND" : "",
                            s.name().equals("D1") ? Site.Critical.SPARE : Site.Critical.UNKNOWN))
                    .toList());
            ledger.beadMaps().save(part, map);
            ledger.save(mine.with(new Kept("pads-1", "pads", AT, "technician A",
                    Map.of("faults", "B2 missing_pad [GND]; C4 lifted [CLK]", "photo", "pads.png"))),
                    "noted", "");
        } finally {
            window.open();
        }
        job("SB-0412");
        window.press(KeyCode.V);
        window.awaitNode("#proof-pads");
        window.press(KeyCode.W);
        window.awaitText("#pad-title", "B2: gone");
        window.awaitText("#pad-says", "GND also lies on 9 of the other pads");
        window.picture("pads");
        window.press(KeyCode.DIGIT2);
        window.awaitText("#pad-note", "B2: Carried");
        window.awaitText("#pad-title", "C4: lifted");
        window.awaitText("#pad-says", "CLK ends here");
        window.press(KeyCode.DIGIT2);
        window.awaitText("#pad-note", "C4: Open");
        window.press(KeyCode.ENTER);
        window.fill("#pad-line", "C4 wire soon");
        window.press(KeyCode.ENTER);
        window.awaitText("#pad-note", "says nothing of a pad");
        window.fill("#pad-line", "C4 wire on mask");
        window.press(KeyCode.ENTER);
        window.awaitText("#pad-note", "C4: Good");
        window.press(KeyCode.ESCAPE);
        window.mouse("#pad-D1");
        window.awaitText("#pad-note", "D1: say what is wrong");
        window.press(KeyCode.ENTER);
        window.fill("#pad-line", "bridged leak 0.4");
        window.press(KeyCode.ENTER);
        window.awaitText("#pad-note", "D1: Short");
        window.awaitText("#pad-title", "D1: joined to another");
        window.picture("pads-short");
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            List<Kept> pads = ledger.job("SB-0412").records("pad");
            assertEquals(pads.stream().map(r -> r.text("site")).toList(), List.of("B2", "C4", "D1"));
            assertEquals(pads.getFirst().text("carries"), "shared");
            assertEquals(pads.get(1).fields().get("continuity"), true);
        } finally {
            window.open();
        }
    }

    /** Rails come one after the other with where and how much; each reading is judged as it is typed and goes into the job. */
    @Test
    public void railsAreReadOneAfterTheOther() throws Exception {
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            Job mine = ledger.job("SB-0412");
            Job other = new Job("SB-0977", "another of its type", "dead", "Ferry Hollin", mine.board(),
                    mine.target(), mine.bench(), mine.beads());
            ledger.save(other.with(new Kept("rail-1", "rail", AT, "technician A",
                    Map.of("name", "core", "reference_ohm", 18.2, "point", "20.0, 20.0 top")))
                    .with(new Kept("rail-2", "rail", AT, "technician A",
                            Map.of("name", "io", "reference_ohm", 640.0))),
                    "noted", "");
        } finally {
            window.open();
        }
        job("SB-0412");
        window.press(KeyCode.V);
        window.awaitNode("#proof-rails");
        window.press(KeyCode.R);
        window.awaitText("#rail-title", "Read core, after the work");
        window.press(KeyCode.ESCAPE, KeyCode.A);
        window.awaitText("#rail-title", "Read core, before the work");
        window.awaitText("#rail-says", "18.2 \u03a9, within 10 %");
        window.awaitText("#rail-says", "at the cross");
        window.press(KeyCode.ENTER);
        window.fill("#rail-line", "twelve volts");
        window.press(KeyCode.ENTER);
        window.awaitText("#rail-note", "is no resistance");
        window.fill("#rail-line", "0.4");
        window.press(KeyCode.ENTER);
        window.awaitText("#rail-note", "is a short");
        window.awaitText("#rail-title", "Read io");
        window.awaitText("#rail-says", "press the place on the board");
        window.picture("rails");
        window.fill("#rail-line", "655");
        window.press(KeyCode.ENTER);
        window.awaitText("#rail-note", "as it should be");
        window.awaitText("#rail-title", "1 of 2 rails differ");
        window.fill("#rail-line", "radio supply 312");
        window.press(KeyCode.ENTER);
        window.awaitText("#rail-note", "nothing to hold it against yet");
        window.fill("#rail-meter", "pen, red on ground");
        window.press(KeyCode.ENTER);
        window.fill("#rail-line", "core to io 0.3");
        window.picture("rails-meter");
        window.press(KeyCode.ENTER);
        window.awaitText("#rail-note", "is a short");
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            List<Kept> rails = ledger.job("SB-0412").records("rail");
            assertEquals(rails.stream().map(r -> r.text("name")).toList(),
                    List.of("core", "io", "radio supply", "core to io"));
            assertEquals(rails.stream().map(r -> r.number("ohm")).toList(), List.of(0.4, 655.0, 312.0, 0.3));
            assertEquals(rails.stream().map(r -> r.text("meter")).toList(),
                    List.of("", "", "", "pen, red on ground"));
            assertEquals(rails.getFirst().text("point"), "20.0, 20.0 top", "taken over from the other job");
        } finally {
            window.open();
        }
    }

    /** A lamp is followed with the pedal: counted by its rhythm, looked up in the board's own table, kept with its source. */
    @Test
    public void aBlinkCodeIsTappedLookedUpAndKept() throws Exception {
        Path broken = Files.writeString(Files.createTempFile("codes", ".csv"), "lamp,says\n3-1,core\n");
        Path table = Files.writeString(Files.createTempFile("codes", ".csv"), """
                code,meaning,source
                3-1,core supply missing,service sheet 4
                5,no sensor,
                """);
        job("SB-0412");
        window.press(KeyCode.V);
        window.awaitNode("#proof-codes");
        window.press(KeyCode.L);
        window.awaitText("#code-title", "Tap with the lamp");
        window.choose(broken);
        window.press(KeyCode.N);
        window.awaitText("#code-note", "code,meaning,source");
        window.choose(table);
        window.press(KeyCode.N);
        window.await("the table", () -> says("core supply missing"));
        window.handsAlone();
        window.press(KeyCode.SPACE, KeyCode.SPACE);
        window.pass(java.time.Duration.ofMillis(1100));
        window.fx(() -> {
            var lamp = window.scene().lookup("#code-lamp");
            javafx.event.Event.fireEvent(lamp, new javafx.scene.input.MouseEvent(
                    javafx.scene.input.MouseEvent.MOUSE_PRESSED, 1, 1, 1, 1,
                    javafx.scene.input.MouseButton.PRIMARY, 1,
                    false, false, false, false, true, false, false, true, false, true, null));
            return null;
        });
        window.awaitText("#code-title", "Code 3");
        window.press(KeyCode.Z);
        window.awaitText("#code-title", "Tap with the lamp");
        for (int round = 0; round < 2; round++) {
            window.press(KeyCode.SPACE, KeyCode.SPACE, KeyCode.SPACE);
            window.pass(java.time.Duration.ofSeconds(4));
            window.press(KeyCode.SPACE);
            window.pass(java.time.Duration.ofSeconds(20));
        }
        window.awaitText("#code-title", "Code 3-1");
        window.awaitText("#code-meaning", "core supply missing");
        window.picture("codes");
        window.pass(java.time.Duration.ofSeconds(60));
        window.awaitText("#pedal-word", "Keep code 3-1");
        window.awaitText("#code-says", "Followed 2 times alike");
        window.press(KeyCode.SPACE);
        window.awaitText("#code-note", "Kept: 3-1, service sheet 4");
        window.pedal("Back to the proofs");
        window.await("the code on the wall of proofs",
                () -> says("a code that nobody noted before the work"));
        window.press(KeyCode.L);
        window.awaitText("#code-title", "Tap with the lamp");
        window.press(KeyCode.DIGIT0);
        window.awaitText("#code-note", "it gives no code after the work");
        window.press(KeyCode.Z, KeyCode.SPACE, KeyCode.SPACE, KeyCode.ENTER);
        window.awaitText("#code-note", "Kept: 2");
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            Kept baseline = ledger.job("SB-0412").records("baseline").getFirst();
            assertEquals(baseline.text("codes"), "", "what it came in with nobody counted");
            assertEquals(baseline.text("codes_after"), "2", "the last count");
            assertEquals(baseline.text("code_provenance"), "",
                    "the source of a later code is none of the first");
            assertEquals(ledger.job("SB-0412").records("baseline").size(), 1,
                    "the record of the intake is written on");
        } finally {
            window.open();
        }
    }

    /** A press of the mouse at a place of the photo that the view shows whole. */
    private void pressAt(double x, double y) throws Exception {
        window.fx(() -> {
            var view = (org.greenbead.app.look.BoardView) window.scene().lookup("#gap-view");
            double scale = Math.min((view.getWidth() - 8) / SIDE_W, (view.getHeight() - 8) / SIDE_H);
            double vx = (view.getWidth() - SIDE_W * scale) / 2 + x * scale;
            double vy = (view.getHeight() - SIDE_H * scale) / 2 + y * scale;
            var at = view.localToScene(vx, vy);
            javafx.event.Event.fireEvent(view,
                    new javafx.scene.input.MouseEvent(javafx.scene.input.MouseEvent.MOUSE_PRESSED, at.getX(),
                            at.getY(), at.getX(), at.getY(), javafx.scene.input.MouseButton.PRIMARY, 1, false,
                            false, false, false, true, false, false, true, false, true,
                            new javafx.scene.input.PickResult(view, at.getX(), at.getY())));
            return null;
        });
    }

    private static final int SIDE_W = 900;
    private static final int SIDE_H = 500;

    /** Four photos of a chip's edges: the gap is read by marks, and what it comes to is kept with the photos and shuts the question whether it is even. */
    @Test
    public void theGapRoundAChipIsReadInPhotos() throws Exception {
        var image = new java.awt.image.BufferedImage(SIDE_W, SIDE_H,
                java.awt.image.BufferedImage.TYPE_INT_RGB);
        var g = image.createGraphics();
        g.setColor(new java.awt.Color(205, 200, 190));
        g.fillRect(0, 0, SIDE_W, SIDE_H);
        g.setColor(new java.awt.Color(40, 40, 44));
        g.fillRect(100, 190, 700, 60);
        g.setColor(new java.awt.Color(30, 90, 60));
        g.fillRect(0, 272, SIDE_W, 80);
        g.setColor(new java.awt.Color(170, 170, 175));
        for (int x = 120; x < 790; x += 40) {
            g.fillOval(x, 249, 26, 24);
        }
        g.dispose();
        var file = java.nio.file.Files.createTempFile("edge", ".png");
        javax.imageio.ImageIO.write(image, "png", file.toFile());
        job("SB-0417");
        window.choose(file);
        window.press(KeyCode.V);
        window.awaitNode("#proof-gaps");
        window.press(KeyCode.A);
        for (String edge : new String[]{"south", "east", "north", "west"}) {
            window.awaitText("#gap-title", "A photo of the " + edge);
            window.press(KeyCode.SPACE);
            window.awaitText("#gap-title", "left end of the " + edge);
            pressAt(100, 250);
            window.awaitText("#gap-title", "right end");
            pressAt(800, 250);
            for (int x : new int[]{130, 450, 770}) {
                window.awaitText("#gap-title", "upper end");
                pressAt(x, 250);
                window.awaitText("#gap-title", "lower end");
                pressAt(x + 3, 272);
            }
            window.awaitText("#gap-title", "Reading 4");
            if (edge.equals("east")) {
                window.pressControl(KeyCode.Z);
                window.awaitText("#gap-title", "Reading 3");
                pressAt(770, 250);
                window.awaitText("#gap-title", "lower end");
                pressAt(770, 272);
                window.awaitText("#gap-title", "Reading 4");
                window.picture("gaps");
            }
            window.press(KeyCode.N);
        }
        window.awaitText("#gap-title", "Even all round");
        window.picture("gaps-told");
        window.press(KeyCode.SPACE);
        window.awaitText("#gap-said", "Kept");
        window.await("the gaps in the ledger", () -> Double.isFinite(gapNorth()));
        try (Ledger ledger = Ledger.openShared(window.data(), new OpenFiles(), InstantSource.system())) {
            Job job = ledger.job("SB-0417");
            double side = ledger.document(Format.BOARD, job.board(), Board.class).requireChip(job.target())
                    .sizeMm().xMm();
            assertEquals(gapNorth(), 22.0 * side / 700, 0.01);
            assertEquals(job.records("picture").stream().filter(r -> r.text("view").equals("edges")).count(),
                    4);
        }
        window.pressControl(KeyCode.Z);
        window.awaitText("#trouble", "Undone: SB-0417");
        window.await("record and photos to go back together", () -> !Double.isFinite(gapNorth()));
    }

    /** As the ledger has it while the window is open. */
    private double gapNorth() throws Exception {
        try (Ledger ledger = Ledger.openShared(window.data(), new OpenFiles(), InstantSource.system())) {
            return ledger.job("SB-0417").records("inspection").stream()
                    .mapToDouble(r -> r.number("gap_n_mm")).filter(Double::isFinite).findFirst()
                    .orElse(Double.NaN);
        }
    }
}
