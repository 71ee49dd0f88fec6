package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.InstantSource;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunState;
import org.greenbead.core.run.Verdict;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;

/** The demo's past, its log as CSV and its report as PDF. */
public class ExportTest {
    private final OpenFiles files = new OpenFiles();
    private final InstantSource clock = InstantSource.fixed(Instant.parse("2026-11-25T08:00:00Z"));
    private Path folder;
    private Ledger ledger;

    @BeforeClass
    public void fill() throws Exception {
        folder = DemoFolder.copy();
        ledger = Ledger.open(folder, files, clock);
    }

    @AfterClass
    public void remove() {
        ledger.close();
        Folders.remove(folder);
    }

    @Test
    public void demoHasItsJobsAndAPast() throws Exception {
        assertEquals(ledger.jobs().stream().map(j -> j.id()).toList(),
                List.of("SB-0417", "SB-0415", "SB-0412", "SB-0409", "SB-0406", "SB-0405-U6", "SB-0405"));
        assertEquals(ledger.jobs().stream().map(j -> j.inHand().orElseThrow().phase()).distinct().count(), 6L,
                "at six points of their routes");
        assertEquals(ledger.runs().size(), 8);
        assertEquals(ledger.openRuns(), List.of());
        assertEquals(ledger.chips().size(), 8);
        assertTrue(ledger.photos().find(ledger.job("SB-0417").records("picture").getFirst().text("file"))
                .isPresent());
        assertTrue(ledger.runs().stream().allMatch(r -> r.startedAt().isBefore(clock.instant())));
        assertFalse(new DemoWorld(files).fill(ledger, clock, d -> {
        }), "a ledger with jobs is left alone");
    }

    /** While balls are made on the loose chip the board is still known: by its next heat, or by its last. */
    @Test
    public void whatIsKnownOfTheBoardIsKeptWhileBallsAreMade() throws Exception {
        Job job = ledger.job("SB-0412");
        var balls = ledger.plan(job, "bead_form");
        assertTrue(balls.forming().isPresent());
        assertEquals(balls.recipe().id(), job.bead("bead_form").orElseThrow().recipe().orElseThrow(),
                "nobody wrote it: it is reckoned under its name");
        var board = ledger.onBoard(job, balls);
        assertEquals(board.board().id(), job.board());
        assertEquals(board.bead(), "seat_run");
        Job done = ledger.job("SB-0409");
        assertEquals(ledger.onBoard(done, ledger.plan(done, "bead_shape")).bead(), "seat_run");
        var lift = ledger.plan(ledger.job("SB-0417"), "lift_run");
        org.testng.Assert.assertSame(ledger.onBoard(job, lift), lift);
    }

    @Test
    public void everyPastRunReplaysToItsVerdict() throws Exception {
        for (RunEntry run : ledger.runs()) {
            RunEngine engine = RunLog.read(ledger.logFile(run), files).replay(Optional.empty(), s -> {
            });
            Verdict verdict = engine.verdict();
            assertEquals(Optional.of(verdict.outcome()), run.outcome(), run.id());
            assertEquals(verdict.peakJointC(), run.peakJointC(), 1e-9, run.id());
        }
    }

    @Test
    public void csvHasItsHeaderBlockAndARowForEveryEvent() throws Exception {
        RunEntry run = ledger.runs().stream().filter(r -> r.bead().equals("lift_run")).findFirst()
                .orElseThrow();
        RunLog log = RunLog.read(ledger.logFile(run), files);
        var out = new StringWriter();
        RunState end = RunCsv.write(log, out);
        List<String> lines = out.toString().lines().toList();
        List<String> rows = lines.stream().dropWhile(l -> l.startsWith("#")).toList();
        assertTrue(lines.getFirst().startsWith("# greenbead/runlog-csv/1"), lines.getFirst());
        assertTrue(rows.getFirst().startsWith("time_s,board_top_c,board_under_c,joint_est_c"),
                rows.getFirst());
        long told = log.events().stream()
                .filter(e -> !(e instanceof org.greenbead.core.run.RunEvent.Checkpoint)).count();
        assertTrue(told < log.events().size(), "the log carries checkpoints");
        assertEquals(rows.size(), 1 + told);
        int columns = rows.getFirst().split(",", -1).length;
        assertTrue(rows.stream().allMatch(r -> r.split(",", -1).length == columns));
        assertEquals(end.status(), RunState.Status.ENDED);
        assertTrue(rows.getLast().endsWith("finish"), rows.getLast());
    }

    @Test
    public void reportSaysWhatWasReachedInTheUnitAsked() throws Exception {
        RunEntry run = ledger.runs().stream()
                .filter(r -> r.jobId().equals("SB-0409") && r.bead().equals("lift_run")).findFirst()
                .orElseThrow();
        RunLog log = RunLog.read(ledger.logFile(run), files);
        String celsius = pdfText(
                JobReport.pdf(ledger.job(run.jobId()), log, new Words(Locale.ENGLISH, TempUnit.CELSIUS)));
        for (String wanted : List.of("Job report SB-0409", "Tide gauge", "TG-2", "SN-128", "Sn63Pb37",
                "Simulated bench", "Melt of U4", "Hottest joint", "Stages as they ran", "Route",
                "holds lead".replace("holds", "hold"), "estimated from the thermocouples")) {
            assertTrue(celsius.contains(wanted), "\"" + wanted + "\" in " + celsius);
        }
        assertTrue(celsius.contains(Math.round(run.peakJointC()) + " °C"));
        String fahrenheit = pdfText(
                JobReport.pdf(ledger.job(run.jobId()), log, new Words(Locale.ENGLISH, TempUnit.FAHRENHEIT)));
        assertTrue(fahrenheit.contains("°F") && !fahrenheit.contains("°C"));
    }

    /** What was set aside stays in the report, with its reason; so does what was written down. */
    @Test
    public void reportKeepsWaiversAndRecords() throws Exception {
        RunEntry run = ledger.runs().stream().filter(r -> r.jobId().equals("SB-0409")).findFirst()
                .orElseThrow();
        Job job = ledger.job("SB-0409");
        Job told = job.with(job.facts().with(
                "waivers.0.rule=alloy.bismuth-meets-lead; waivers.0.reason=looked at it twice; waivers.0.person=technician B"))
                .with(new Kept("screw-1", "screw", Instant.EPOCH, "",
                        Map.of("hole", "A", "length_mm", 4.5, "out", true)))
                .with(new Kept("bake-1", "bake", Instant.EPOCH, "", Map.of("what", "bake", "c", 90.0)));
        String text = pdfText(JobReport.pdf(told, RunLog.read(ledger.logFile(run), files),
                new Words(Locale.ENGLISH, TempUnit.CELSIUS)));
        for (String wanted : List.of("Warnings that were set aside", "looked at it twice (technician B)",
                "A screw Hole: A; Length, mm: 4.5", "Temperature: 90 °C")) {
            assertTrue(text.contains(wanted), "\"" + wanted + "\" in " + text);
        }
        assertTrue(!pdfText(JobReport.pdf(job, RunLog.read(ledger.logFile(run), files),
                new Words(Locale.ENGLISH, TempUnit.CELSIUS)))
                .contains("set aside"), "nothing was waived, nothing is said of it");
    }

    /** Handed to the customer: the answer first, no keys, nobody's number; and read back as it is drawn. */
    @Test
    public void customerReportAnswersFirst() throws Exception {
        var source = CustomerReport.gather(ledger, "SB-0409", clock.instant());
        Job job = source.job();
        for (var note : List.of(
                Map.entry("symptom",
                        Map.<String, Object>of("words", "records lost after a knock", "reproduced", true,
                                "before",
                                "silent after a minute, call 0155 512 3384")),
                Map.entry("rail",
                        Map.<String, Object>of("name", "core", "ohm", 2.4, "lead_ohm", 0.2, "reference_ohm",
                                18.2, "after_ohm", 18.6)),
                Map.entry("tested",
                        Map.<String, Object>of("what", "Records lost after a knock", "result", "pass",
                                "minutes",
                                60.0)),
                Map.entry("diagnosis",
                        Map.<String, Object>of("cause_class", "joint", "cause", "cracked_joint")),
                Map.entry("disclosure", Map.<String, Object>of("alloy", "Sn63Pb37")))) {
            job = job.with(
                    new Kept(note.getKey().equals("symptom") ? "symptom-1" : job.freeId(note.getKey()),
                            note.getKey(), Instant.EPOCH, "technician A",
                            note.getValue()));
        }
        byte[] pdf = CustomerReport
                .pdf(new CustomerReport.Source(job, List.of(), source.board(), source.picture(),
                        source.runs(),
                        source.healthy(), source.at()), new Words(Locale.ENGLISH, TempUnit.CELSIUS));
        String text = pdfText(pdf);
        for (String wanted : List.of("Repair report", "SB-0409", "25 November 2026", "What was wrong",
                "The fault sits in: joint; cause: cracked joint", "+1 % against a healthy board, 18.2",
                "The joints hold lead now (Sn63Pb37)", "How sure we are", "The heat",
                "the solder was shown to melt", "no real board was heated by it",
                "The complaint passes. 3 things were not shown", "It was unplugged and not tried since")) {
            assertTrue(text.contains(wanted), "\"" + wanted + "\" in " + text);
        }
        assertFalse(text.contains("512"), "a telephone number");
        assertFalse(text.contains("cracked_joint") || text.matches(".*\\d:\\d\\d:\\d\\d\\.\\d.*"), text);
        List<java.awt.image.BufferedImage> pages = PdfPages.of(pdf, 72);
        assertTrue(pages.size() >= 2);
        picture(pages);
        int inked = 0;
        var first = pages.getFirst();
        for (int x = 320; x < 540; x += 4) {
            for (int y = 120; y < 280; y += 4) {
                inked += (first.getRGB(x, y) & 0xFFFFFF) == 0xFFFFFF ? 0 : 1;
            }
        }
        assertTrue(inked > 300, "the board's picture stands at the right of the answer: " + inked);
    }

    /** In the customer's language: words, date and numbers; the heat as the run showed it, with nothing reckoned again. */
    @Test
    public void customerReportIsInTheLanguageAsked() throws Exception {
        Job job = ledger.job("SB-0409").with(new Kept("rail-99", "rail", Instant.EPOCH, "",
                Map.of("name", "core", "ohm", 2.4, "lead_ohm", 0.2, "reference_ohm", 18.2, "after_ohm",
                        18.6)));
        RunEntry lift = ledger.runs().stream()
                .filter(r -> r.jobId().equals("SB-0409") && r.bead().equals("lift_run")).findFirst()
                .orElseThrow();
        RunLog log = RunLog.read(ledger.logFile(lift), files);
        var source = new CustomerReport.Source(job, List.of(), Optional.empty(), Optional.empty(),
                List.of(log),
                Map.of(), clock.instant());
        var english = new Words(Locale.ENGLISH, TempUnit.CELSIUS);
        String german = pdfText(CustomerReport.pdf(source, english.in(Locale.GERMAN)));
        for (String wanted : List.of("Reparaturbericht", "25. November 2026", "Was nicht in Ordnung war",
                "+1 % gegen eine gesunde Platine, 18,2", "kälteste Lötstelle", "aus Thermoelementen",
                "Seite 1 von")) {
            assertTrue(german.contains(wanted), "\"" + wanted + "\" in " + german);
        }
        assertTrue(
                pdfText(CustomerReport.pdf(source, english.in(Locale.FRENCH))).contains("25 novembre 2026"));
        RunCurves kept = RunCurves.kept(log, english);
        RunCurves again = RunCurves.replayed(log, english, engine -> {
        });
        PdfSheet.Curve was = kept.curves().getLast();
        PdfSheet.Curve is = again.curves().getLast();
        int[] of = java.util.stream.IntStream.range(0, is.x().length).toArray();
        for (int i = 0; i < was.x().length; i++) {
            double at = was.x()[i];
            double reckoned = java.util.Arrays.stream(of).filter(k -> is.x()[k] <= at)
                    .mapToDouble(k -> is.y()[k])
                    .reduce((a, b) -> b).orElseThrow();
            assertEquals(was.y()[i], reckoned, 1e-6, "at " + at + " s");
            PdfSheet.Band bounds = kept.interval().orElseThrow();
            assertTrue(bounds.low()[i] <= was.y()[i] && was.y()[i] <= bounds.high()[i]);
        }
        assertTrue(was.x().length > 20, was.x().length + " points");
        var byEye = new RunLog(new RunHeader(log.header().run(), log.header().started(), true, 1L,
                log.header().plan().byEye()), log.events(), false);
        assertTrue(pdfText(CustomerReport.pdf(new CustomerReport.Source(job, List.of(), Optional.empty(),
                Optional.empty(), List.of(byEye), Map.of(), clock.instant()), english))
                .contains("No thermocouple was used"));
    }

    private static void picture(List<java.awt.image.BufferedImage> pages) throws IOException {
        String wanted = System.getProperty("greenbead.pictures");
        for (int i = 0; wanted != null && i < pages.size(); i++) {
            javax.imageio.ImageIO.write(pages.get(i), "png",
                    Path.of(wanted, "report-" + i + ".png").toFile());
        }
    }

    /** A job without any heat has its report as well. */
    @Test
    public void aDiagnosisOrADeclinedUnitHasItsReport() throws Exception {
        Job job = ledger.job("SB-0417");
        var words = new Words(Locale.ENGLISH, TempUnit.CELSIUS);
        Job looked = job
                .with(new Kept("diagnosis-9", "diagnosis", Instant.EPOCH, "", Map.of("cause_class", "die")));
        var source = new CustomerReport.Source(looked, List.of(), Optional.empty(),
                Optional.of(folder.resolve("none.jpg")),
                List.of(), Map.of(), clock.instant());
        String text = pdfText(CustomerReport.pdf(source, words));
        assertTrue(text.contains("It was examined; no repair was made")
                && text.contains("The fault sits in: die"), text);
        Job declined = looked.with(new Kept("decision-9", "decision", Instant.EPOCH, "",
                Map.of("course", "decline", "reason",
                        "The chip itself is gone; ask harbour@skerry.example")));
        String said = pdfText(
                CustomerReport.pdf(new CustomerReport.Source(declined, List.of(), Optional.empty(),
                        Optional.empty(), List.of(), Map.of(), clock.instant()), words));
        assertTrue(said.contains("We did not attempt the repair") && said.contains("The chip itself is gone"),
                said);
        assertFalse(said.contains("harbour@"), said);
    }

    private static String pdfText(byte[] pdf) throws IOException {
        try (var document = Loader.loadPDF(pdf)) {
            assertTrue(document.getNumberOfPages() >= 1);
            return new PDFTextStripper().getText(document).replaceAll("\\s+", " ");
        }
    }

    @Test
    public void fileIsReplacedWholeOrNotAtAll() throws Exception {
        Path file = folder.resolve("out.csv");
        SafeFiles.write(file, new byte[]{1});
        SafeFiles.write(file, new byte[]{2, 3});
        assertEquals(Files.readAllBytes(file), new byte[]{2, 3});
        IOException e = expectThrows(IOException.class,
                () -> SafeFiles.write(folder.resolve("no/such/x.csv"), new byte[]{1}));
        assertTrue(e.getMessage().contains("there is no folder"), e.getMessage());
        try (var left = Files.list(folder)) {
            assertTrue(left.noneMatch(p -> p.getFileName().toString().endsWith(".part")),
                    "no half files are left");
        }
    }
}
