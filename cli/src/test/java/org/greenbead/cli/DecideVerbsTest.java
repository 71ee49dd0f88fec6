package org.greenbead.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;

/** Courses, proofs, straps, read-outs, lines and codes from the command line, on one job that goes from hand to hand. */
public class DecideVerbsTest {
    private Path folder;
    private String printed = "";
    private String data = "data";

    @BeforeClass
    public void begin() throws Exception {
        folder = Files.createTempDirectory("greenbead-decide");
        assertEquals(
                run("new", "memory", file("job.json"), "--bench", "quay-1", "--board", "CP-12", "--complaint",
                        "wants room", "--customer", "Ferry Hollin", "--id", "T-1", "--target", "U3",
                        "--title", "plotter"),
                0,
                printed);
    }

    @AfterClass
    public void end() throws Exception {
        try (var all = Files.walk(folder)) {
            for (Path p : all.sorted(java.util.Comparator.reverseOrder()).toList()) {
                Files.delete(p);
            }
        }
    }

    private String file(String name) {
        return folder.resolve(name).toString();
    }

    private int run(String... args) {
        var out = new StringWriter();
        String[] all = java.util.Arrays.copyOf(args, args.length + 2);
        all[args.length] = "--data";
        all[args.length + 1] = file(data);
        int status = Main.execute(new PrintWriter(out, true), new PrintWriter(out, true), all);
        printed = out.toString();
        return status;
    }

    @Test
    public void coursesAreWeighedOnceWorthIsNoted() throws Exception {
        assertEquals(run("courses", file("job.json")), 1);
        assertTrue(printed.contains("rate and unit"), printed);
        assertTrue(
                printed.contains("closed: What is asked for is more capacity") || printed.contains("Reball"),
                printed);
        assertEquals(run("note", file("job.json"), "worth", "unit=300", "rate=48"), 0, printed);
        assertEquals(run("note", file("job.json"), "course", "course=upgrade", "part=70", "attended_min=120"),
                0);
        assertEquals(run("courses", file("job.json"), "--json", file("courses.json")), 0, printed);
        assertTrue(printed.contains("Upgrade     expected 316"), printed);
        assertTrue(printed.contains("the part is worth 88 min"), printed);
        String json = Files.readString(folder.resolve("courses.json"));
        assertTrue(json.contains("\"break_even_min\" : 87.5") && json.contains("\"turns\""), json);
    }

    @Test
    public void proofsStandWithTheirReasons() throws Exception {
        Path job = folder.resolve("proof.json");
        Files.copy(folder.resolve("job.json"), job);
        assertEquals(run("note", job.toString(), "rail", "name=core", "ohm=1200", "after_ohm=0.4"), 0,
                printed);
        assertEquals(run("proofs", job.toString(), "--json", file("proofs.json")), 1);
        assertTrue(printed.contains("fails rail       core: 1.20 kΩ -> 0.40 Ω. Short: \u2212100 %"), printed);
        assertTrue(Files.readString(folder.resolve("proofs.json")).contains("\"answer\" : \"fails\""));
    }

    @Test
    public void strapsGoFromThePlanToWhatIsFitted() throws Exception {
        Path table = Files.writeString(folder.resolve("straps.csv"), """
                # memory straps of the plotter
                source;schematic
                revision;C
                vcc_v;1.8
                strap;S0;R101;10k;R102;10k
                strap;S1;R103;10k;R104;4.7k
                code;01;MR-4G
                code;10;MR-8G
                """);
        Path job = folder.resolve("straps.json");
        Files.copy(folder.resolve("job.json"), job);
        assertEquals(
                run("straps", table.toString(), "--fitted", "R102,R103", "--to", "MR-8G", "--job",
                        job.toString()),
                1, printed);
        assertTrue(printed.contains("now 01: MR-4G")
                && printed.contains("S0: take off R102, fit R101 (10000 ohm)")
                && printed.contains("S1: take off R103, fit R104 (4700 ohm)"), printed);
        assertEquals(
                run("straps", table.toString(), "--fitted", "R101,R104", "--to", "MR-8G", "--job",
                        job.toString()),
                0, printed);
        String kept = Files.readString(job);
        assertTrue(kept.contains("\"straps_before\" : \"01\"") && kept.contains("\"straps_after\" : \"10\""),
                kept);
        assertEquals(run("straps", table.toString(), "--fitted", "R101,R103,R104"), 1);
        assertTrue(printed.contains("both fitted: take one off"), printed);
        Files.writeString(table, Files.readString(table) + "code;10;MR-16G\n");
        assertEquals(run("straps", table.toString(), "--fitted", "R101,R104"), 2);
        assertTrue(printed.contains("line 9") && printed.contains("stands twice"), printed);
    }

    @Test
    public void readOutsLinesAndCodes() throws Exception {
        Path a = Files.write(folder.resolve("a.bin"),
                "....RM8-G ....".getBytes(java.nio.charset.StandardCharsets.ISO_8859_1));
        Path b = Files.write(folder.resolve("b.bin"),
                "....RM6-G ....".getBytes(java.nio.charset.StandardCharsets.ISO_8859_1));
        assertEquals(run("dump", "find", a.toString(), "MR-8"), 0, printed);
        assertTrue(printed.contains("0x00000004 swapped"), printed);
        assertEquals(run("dump", "find", a.toString(), "VG-90"), 1);
        assertEquals(run("dump", "diff", a.toString(), b.toString()), 1);
        assertTrue(printed.contains("0x00000006 1 bytes"), printed);
        Path before = Files.writeString(folder.resolve("before.txt"), "rail core 1200 ohm\nradio FAIL\n");
        Path after = Files.writeString(folder.resolve("after.txt"), "rail core 1190 ohm\nradio ok\n");
        assertEquals(run("lines", before.toString(), after.toString(), "--tolerance", "2", "--pin", "radio"),
                1);
        assertTrue(printed.contains("* gone     radio FAIL") && printed.contains("  close    rail core 1200"),
                printed);
        Path codes = Files.writeString(folder.resolve("codes.csv"),
                "code,meaning,source\n3-1,memory not found,handbook 2029\n2-2,fan,\n4-1,one,a\n4-1,other,b\n");
        assertEquals(run("code", codes.toString(), "--taps", "0,0.5,1.0,2.5"), 0, printed);
        assertTrue(printed.contains("memory not found (handbook 2029)"), printed);
        assertEquals(run("code", codes.toString(), "2 2"), 1);
        assertTrue(printed.contains("it proves nothing"), printed);
        assertEquals(run("code", codes.toString(), "4-1"), 1);
        assertTrue(printed.contains("several rows"), printed);
        assertEquals(run("code", codes.toString(), "9"), 1);
        assertEquals(run("capacity", "--chips", "8", "--gbit", "16", "--bus", "64", "--width", "16",
                "--limit", "8"), 1);
        assertTrue(
                printed.contains("16 GB, 4 chips a rank, 2 ranks")
                        && printed.contains("more than the board bears"),
                printed);
    }

    /** No entry, no start; the set goes to the job as records, and the rule book hears it. */
    @Test
    public void whatTravelsComesFromATableWithItsSource() throws Exception {
        String job = file("travel.json");
        assertEquals(
                run("new", "transplant", job, "--bench", "quay-1", "--board", "KC-1", "--complaint", "dead",
                        "--customer", "Ferry Hollin", "--id", "T-2", "--target", "U1", "--title", "camera"),
                0, printed);
        Path table = Files.writeString(folder.resolve("travel.csv"), """
                platform,generation,chip,need,reason,source,date
                KC,,U1,must,holds the keys,bench notes,2031-03
                KC,,U2,must,paired,bench notes,2031-03
                KC,,U9,never,calibrated to its board,bench notes,2031-03
                """);
        assertEquals(run("travel", job, table.toString()), 2);
        assertTrue(printed.contains("the platform is not noted"), printed);
        assertEquals(run("note", job, "unit", "platform=RB", "revision=C", "memory_type=MR", "region=n",
                "firmware=2"), 0);
        assertEquals(run("travel", job, table.toString()), 1);
        assertTrue(printed.contains("stop: no row covers platform \"RB\""), printed);
        assertEquals(run("note", job, "unit", "platform=KC"), 0);
        assertEquals(run("note", job, "donor", "revision=B", "memory_type=MR", "region=n", "firmware=2",
                "matches=yes"), 0);
        assertEquals(run("travel", job, table.toString(), "--moved", "U1,U9"), 1);
        assertTrue(printed.contains("missing: U2 must travel") && printed.contains("must stay: U9")
                && printed.contains("donor: revision differs"), printed);
        run("check", job);
        assertTrue(
                printed.contains("[transplant.moves-what-must-stay]")
                        && printed.contains("[transplant.set-not-whole]"),
                printed);
        assertEquals(run("note", job, "donor", "revision=C"), 0);
        assertEquals(run("travel", job, table.toString()), 0, printed);
        assertTrue(printed.contains("donor: fits"), printed);
        run("check", job);
        assertFalse(
                printed.contains("transplant.moves-what-must-stay")
                        || printed.contains("transplant.set-not-whole"),
                printed);
        Files.writeString(table, Files.readString(table) + "KC,,U5,must,nobody knows,,\n");
        assertEquals(run("travel", job, table.toString()), 2);
        assertTrue(printed.contains("line 5") && printed.contains("nobody says where this comes from"),
                printed);
    }

    /** Readings go in by name and are judged; a rail that is not read, or differs, is told by the exit. */
    @Test
    public void railsAreReadAndJudged() throws Exception {
        String job = file("rails.json");
        assertEquals(
                run("new", "revive", job, "--bench", "quay-1", "--board", "KC-1", "--complaint", "dead",
                        "--customer", "Ferry Hollin", "--id", "T-7", "--target", "U1", "--title", "camera"),
                0, printed);
        assertEquals(run("rails", job), 1);
        assertTrue(printed.contains("no rail is known"), printed);
        assertEquals(run("rails", job, "--read", "core=0.4", "--read", "io=1.2k"), 0, printed);
        assertTrue(printed.contains("core: 0.40 \u03a9") && printed.contains("io: 1.20 k\u03a9"), printed);
        assertEquals(run("note", job, "rail", "name=core", "reference_ohm=18.2"), 0);
        assertEquals(run("rails", job), 1);
        assertTrue(
                printed.contains("short     core")
                        && printed.contains("healthy 18.2 \u03a9 within 10 % (noted)"),
                printed);
        assertEquals(run("rails", job, "--after", "--read", "core=18.4"), 1);
        assertTrue(printed.contains("pass      core") && printed.contains("next: io"), printed);
        assertEquals(run("rails", job, "--after", "--read", "io=OL"), 1);
        assertTrue(printed.contains("suspect   io: OL"), printed);
        assertEquals(run("rails", job, "--read", "core to io=0.3", "--meter", "pen, red on ground"), 1);
        assertTrue(printed.contains("short     core to io: 0.30"), printed);
        assertEquals(run("rails", job, "--after", "--read", "core=18.4", "--meter", "red on ground"), 1);
        assertTrue(printed.contains("otherwise core: 18.4"), printed);
        assertEquals(run("rails", job, "--read", "io=twelve"), 2);
        assertTrue(printed.contains("\"twelve\" is no resistance"), printed);
    }

    /** What a damaged pad carries comes from the map; what was found goes into the job and into its judgement. */
    @Test
    public void damagedPadsAreMeasuredAndJudged() throws Exception {
        String job = file("pads.json");
        String map = file("pads.csv");
        Files.writeString(Path.of(map),
                "site,x_mm,y_mm,diameter_mm,net,critical\nA1,0,1,0.4,GND,\nA2,1,1,0.4,GND,\nB1,0,0,0.4,CLK,\nB2,1,0,0.4,,\n");
        assertEquals(
                run("new", "revive", job, "--bench", "quay-1", "--board", "KC-1", "--complaint", "dead",
                        "--customer", "Ferry Hollin", "--id", "T-8", "--target", "U1", "--title", "camera"),
                0, printed);
        assertEquals(run("pad", job), 0, printed);
        assertTrue(printed.contains("no pad of this job is called damaged"), printed);
        assertEquals(run("pad", job, "B1", "lifted", "--map", map), 1, printed);
        assertTrue(printed.contains("unread     B1") && printed.contains("CLK ends here"), printed);
        assertEquals(run("pad", job, "B1", "off", "--map", map), 1, printed);
        assertTrue(printed.contains("open       B1"), printed);
        assertEquals(run("check", job), 1, printed);
        assertTrue(printed.contains("A pad has lost its net, and nothing else carries it"), printed);
        assertEquals(run("pad", job, "A2", "missing", "off", "--map", map, "--json", file("out.json")), 1,
                printed);
        assertTrue(printed.contains("GND also lies on 1 of the other pads"), printed);
        assertTrue(Files.readString(folder.resolve("out.json")).contains("\"carried\""));
        assertEquals(run("pad", job, "B1", "wire", "on", "mask", "--map", map), 0, printed);
        assertTrue(printed.contains("nothing is open"), printed);
        assertEquals(run("pad", job, "Z9", "lifted", "--map", map), 2);
        assertTrue(printed.contains("the map has no pad \"Z9\""), printed);
        assertEquals(run("pad", job, "B1", "--map", map), 2);
        assertTrue(printed.contains("say what was found at B1"), printed);
    }

    /** A job that nobody heated has its report; what is neither a job nor a run is named. */
    @Test
    public void aReportNeedsNoRun() throws Exception {
        String job = file("report.json");
        data = "own";
        assertEquals(run("board", "new", "AB-1", "--size", "60x80"), 0, printed);
        assertEquals(run("board", "put", "AB-1", "U1", "--at", "30x40", "--size", "14x14"), 0, printed);
        assertEquals(run("bench", "new", "mine", "--kind", "open_small"), 0, printed);
        assertEquals(run("new", "revive", job, "--bench", "mine", "--board", "AB-1", "--complaint", "dead",
                "--customer",
                "Ferry Hollin", "--id", "T-7", "--target", "U1", "--title", "sounder"), 0, printed);
        assertEquals(run("import", job), 0, printed);
        assertEquals(run("note", "T-7", "decision", "course=decline", "reason=no chip to be had"), 0,
                printed);
        assertEquals(run("report", "T-7", file("t7.pdf")), 0, printed);
        assertTrue(Files.size(folder.resolve("t7.pdf")) > 10_000);
        assertEquals(run("report", "T-7", file("t7-de.pdf"), "--language", "de"), 0, printed);
        try (var german = org.apache.pdfbox.Loader.loadPDF(folder.resolve("t7-de.pdf").toFile())) {
            String text = new org.apache.pdfbox.text.PDFTextStripper().getText(german);
            assertTrue(
                    text.contains("Wir haben die Reparatur nicht versucht")
                            && text.contains("no chip to be had"),
                    text);
        }
        assertEquals(run("report", "T-7", file("no.pdf"), "--language", "tlh"), 2);
        assertTrue(printed.contains("Choose one of en, de, fr, es"), printed);
        assertEquals(run("report", "NOPE", file("no.pdf")), 2);
        assertTrue(printed.contains("neither a job nor a run NOPE"), printed);
        assertFalse(Files.exists(folder.resolve("no.pdf")));
        data = "data";
    }

    /** A memory test's log is read for what it says, and what it says is the test. */
    @Test
    public void aTestLogIsTheProof() throws Exception {
        String job = file("memory.json");
        data = "logs";
        assertEquals(run("board", "new", "AB-1", "--size", "60x80"), 0, printed);
        assertEquals(run("board", "put", "AB-1", "U1", "--at", "30x40", "--size", "14x14"), 0, printed);
        assertEquals(run("bench", "new", "mine", "--kind", "open_small"), 0, printed);
        assertEquals(run("new", "memory", "--bench", "mine", "--board", "AB-1", "--complaint", "too small",
                "--customer", "Ferry Hollin", "--id", "T-8", "--target", "U1", "--title", "sounder"), 0,
                printed);
        String log = folder.resolve("night.log").toString();
        Files.writeString(Path.of(log), "ram test\nerror at 0x00100000 wrote 55555555 read 55575555\n");
        assertEquals(run("testlog", log, "--job", "T-8"), 1, printed);
        assertTrue(
                printed.contains("Failed: errors 1") && printed.contains("bit 17")
                        && printed.contains("wrote"),
                printed);
        Files.writeString(Path.of(log), "ram test\nPass 1 complete, 0 errors\n");
        assertEquals(run("timer", "start", "T-8", "TEST", "--minutes", "60", "--words", "memory"), 0,
                printed);
        assertEquals(run("timer", "end", "T-8", "timer-1", "--log", log, "--result", "PASS"), 2, printed);
        assertTrue(printed.contains("says itself"), printed);
        assertEquals(run("timer", "end", "T-8", "timer-1", "--log", log), 0, printed);
        assertTrue(printed.contains("Passed: whole passes 1"), printed);
        assertEquals(run("testlog", folder.resolve("no.log").toString()), 2, printed);
        data = "data";
    }

    /** Readings all round, as a page of the window takes them from photos. */
    @Test
    public void gapsAllRoundAreJudged() {
        String even = "south:0.1:0.41:0.01,south:0.5:0.42:0.01,south:0.9:0.41:0.01,east:0.1:0.41:0.01,east:0.9:0.42:0.01,north:0.1:0.40:0.01,north:0.9:0.41:0.01,west:0.1:0.42:0.01,west:0.9:0.41:0.01";
        assertEquals(run("edges", "--size", "15x12", "--readings", even), 0, printed);
        assertTrue(printed.contains("Even all round") && printed.contains("bow of the south edge 0.010 mm"),
                printed);
        assertEquals(run("edges", "--size", "15x12", "--readings",
                even.replace("north:0.1:0.40", "north:0.1:0.15").replace("north:0.9:0.41", "north:0.9:0.14")),
                1);
        assertTrue(printed.contains("lowest north") && printed.contains("Not even"), printed);
        assertEquals(run("edges", "--readings", "south:0.5"), 2, printed);
        assertEquals(run("edges", "--readings", "south:0.5:0.4:0.01"), 2, printed);
    }
}
