package org.greenbead.cli;

import static org.greenbead.cli.Said.type;
import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.InstantSource;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.RunPlan;
import org.greenbead.store.DemoWorld;
import org.greenbead.store.Format;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.greenbead.store.RunLog;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Every verb as a person types it, on good input and bad. */
public class MainTest {
    private final OpenFiles files = new OpenFiles();
    private Path folder;
    private Path plan;
    private Path unprepared;

    private Said typeWithData(String... words) {
        var all = new java.util.ArrayList<>(List.of(words));
        all.add("--data");
        all.add(folder.resolve("data").toString());
        return type(all.toArray(String[]::new));
    }

    @BeforeClass
    public void prepare() throws Exception {
        folder = Files.createTempDirectory("greenbead-cli");
        RunPlan demo = new DemoWorld(files).plan("SB-0417", "lift_run");
        unprepared = Files.writeString(folder.resolve("unprepared.plan.bead.json"),
                files.write(Format.PLAN, demo));
        plan = Files.writeString(folder.resolve("lift.plan.bead.json"),
                files.write(Format.PLAN, demo.with(demo.job().attest("cell_off", Attest.YES))));
        try (Ledger ledger = Ledger.open(folder.resolve("data"), files, InstantSource.system())) {
            new DemoWorld(files).fill(ledger, InstantSource.system(), d -> {
            });
        }
    }

    @AfterClass
    public void remove() throws IOException {
        try (var all = Files.walk(folder)) {
            for (Path path : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(path);
            }
        }
    }

    @Test
    public void everyVerbHasHelp() {
        for (String verb : List.of("rehearse", "findings", "run", "replay", "export", "report", "ledger",
                "doctor", "plan", "calibrate", "observe")) {
            Said said = type(verb, "--help");
            assertEquals(said.status(), 0, verb);
            assertTrue(said.out().contains("Usage: greenbead " + verb), said.out());
        }
        assertTrue(type().out().contains("rehearse"));
        assertTrue(type("--version").out().startsWith("Green Bead"));
    }

    /** Whoever runs the tests has a ledger of his own; no test reads it or writes there. */
    @Test
    public void testsSeeNoLedgerOfAPerson() {
        assertTrue(new Shared().data().startsWith(Path.of("target").toAbsolutePath()),
                new Shared().data().toString());
    }

    @DataProvider
    Object[][] wrong() {
        return new Object[][]{{new String[]{"frob"}, "frob"}, {new String[]{"rehearse"}, "FILE"},
                {new String[]{"rehearse", "nowhere.json"}, "there is no such file"},
                {new String[]{"run"}, "--simulated"},
                {new String[]{"run", "--simulated", "--speed", "0", "--log", "x"}, "allowed is 1 to 1000"},
                {new String[]{"run", "--simulated", "--speed", "fast"}, "speed"},
                {new String[]{"export", "WHAT", "x", "y"}, "WHAT"},
                {new String[]{"findings", "."}, "it is a folder"}};
    }

    /** One sentence on stderr, nothing on stdout, status 2, no stack trace. */
    @Test(dataProvider = "wrong")
    public void wrongCallIsAnsweredInOneSentence(String[] words, String about) {
        Said said = type(words);
        assertEquals(said.status(), 2, String.join(" ", words));
        assertTrue(said.err().contains(about), said.err());
        assertFalse(said.err().contains("\tat "), said.err());
        assertEquals(said.err().strip().lines().count(), 1, said.err());
        assertEquals(said.out(), "");
    }

    @Test
    public void rehearsesAPlanAndWritesItsTraces() throws IOException {
        Path csv = folder.resolve("out.csv");
        Path json = folder.resolve("out.json");
        Said said = type("rehearse", plan.toString(), "--csv", csv.toString(), "--json", json.toString());
        assertEquals(said.status(), 0, said.err() + said.out());
        assertTrue(said.out().contains("Melt of U1: proven"), said.out());
        assertTrue(Files.readAllLines(csv).getFirst().endsWith(",heater_c,air_exit_c,stage"));
        assertTrue(Files.readString(json).contains("\"peak_joint_min_c\""));
        assertTrue(type("rehearse", plan.toString(), "--fahrenheit").out().contains("°F"));
    }

    /** The file that is written rehearses to the same peak by itself. */
    @Test
    public void writesAPlanAsARehearsalFile() throws Exception {
        Path out = folder.resolve("whole.json");
        Path csv = folder.resolve("whole.csv");
        assertEquals(type("rehearse", plan.toString(), "--write", out.toString()).status(), 0);
        Said said = type("rehearse", out.toString(), "--csv", csv.toString());
        assertEquals(said.status(), 0, said.err());
        double most = Files.readAllLines(csv).stream().skip(1)
                .mapToDouble(l -> Double.parseDouble(l.split(",")[1])).max().orElseThrow();
        assertTrue(most > 195 && most < 225, "joint centre peaks at " + most);
    }

    @Test
    public void searchesARecipeAndWritesIt() throws Exception {
        Path recipe = folder.resolve("found.recipe.bead.json");
        Path json = folder.resolve("found.json");
        Said said = type("plan", plan.toString(), "--school", "heater_and_air", "--recipe", recipe.toString(),
                "--json",
                json.toString());
        assertEquals(said.status(), 0, said.err() + said.out());
        assertTrue(said.out().contains("keeps every limit"), said.out());
        assertTrue(files.read(recipe, Format.RECIPE, org.greenbead.core.recipe.Recipe.class).stages()
                .size() >= 4);
        assertTrue(Files.readString(json).contains("\"holds\""));
        Said balls = type("plan", plan.toString(), "--for", "form", "--balls", "Sn63Pb37");
        assertTrue(balls.out().startsWith("Air alone"), balls.out() + balls.err());
        assertTrue(
                type("plan", plan.toString(), "--for", "form", "--balls", "Tin").err().contains("no alloy"));
        assertTrue(type("plan", plan.toString(), "--for", "sit").err().contains("lift, seat, reflow, form"));
        assertTrue(type("plan", plan.toString(), "--school", "plate").err().contains("no plate"));
        assertTrue(type("plan", plan.toString(), "--school", "steam").err().contains("is no school"));
    }

    @Test
    public void calibratesABenchFromALogAndMeasuresTheEstimate() throws Exception {
        Path log = folder.resolve("calibrate.run.jsonl");
        assertTrue(type("run", "--simulated", "--speed", "1000", "--log", log.toString()).status() <= 1);
        Path bench = folder.resolve("quay-1.bench.bead.json");
        Files.writeString(bench,
                files.write(Format.BENCH, files.read(plan, Format.PLAN, RunPlan.class).bench()));
        Said said = type("calibrate", log.toString(), "--bench", bench.toString());
        assertEquals(said.status(), 0, said.err() + said.out());
        assertTrue(said.out().contains("before the fit"), said.out());
        assertEquals(
                files.read(bench, Format.BENCH, org.greenbead.core.bench.Bench.class).calibrations().size(),
                1);
        assertTrue(type("observe", plan.toString(), "--runs", "1").out().contains("held the coldest joint"));
    }

    @Test
    public void planThatDoesNotMeltEndsWithOne() throws Exception {
        RunPlan read = files.read(plan, Format.PLAN, RunPlan.class);
        var stages = read.recipe().stages();
        int peak = stages.size() - 2;
        var cold = read.recipe().with(peak, stages.get(peak).withAir(Optional.empty())
                .withHeater(Optional.of(150.0)).withEnd(new StageEnd.MeltShown()));
        Path file = Files.writeString(folder.resolve("cold.plan.bead.json"),
                files.write(Format.PLAN, read.with(cold)));
        Said said = type("rehearse", file.toString());
        assertEquals(said.status(), 1);
        assertTrue(said.out().contains("Joints reach only"), said.out());
    }

    @Test
    public void findingsEndWithOneWhereSomethingStops() {
        Said stopped = type("findings", unprepared.toString());
        assertEquals(stopped.status(), 1);
        assertTrue(stopped.out().contains("Unplug the cell lead")
                && stopped.out().contains("Remedy: Mark it unplugged"), stopped.out());
        assertEquals(type("findings", plan.toString()).status(), 0);
    }

    @Test
    public void simulatedRunEndsInItsVerdictAndReplaysToTheSame() throws Exception {
        Path log = folder.resolve("r.run.jsonl");
        Path job = Files.writeString(folder.resolve("r.job.bead.json"),
                files.write(Format.JOB, files.read(plan, Format.PLAN, RunPlan.class).job()));
        Said ran = type("run", "--simulated", "--speed", "1000", "--plan", plan.toString(), "--log",
                log.toString(), "--job", job.toString());
        Job after = files.read(job, Format.JOB, Job.class);
        assertEquals(after.records("run").getLast().text("outcome"), "proven");
        assertTrue(after.records("run").getLast().yes("simulated"));
        assertEquals(after.bead("lift_run").orElseThrow().state(), BeadState.GREEN);
        assertFalse(after.records("exposure").isEmpty(), "the chip's melt is on its account");
        assertEquals(ran.status(), 0, ran.out() + ran.err());
        assertTrue(ran.out().contains("Verdict: Proven"), ran.out());
        assertTrue(ran.out().contains("technician: moves"), ran.out());
        Said replayed = type("replay", log.toString());
        assertEquals(replayed.status(), 0);
        assertEquals(verdict(replayed.out()), verdict(ran.out()));
        Path csv = folder.resolve("r.csv");
        assertEquals(typeWithData("export", "run", log.toString(), csv.toString()).status(), 0);
        assertEquals(Files.readAllLines(csv).stream().filter(l -> !l.startsWith("#")).count() - 1,
                RunLog.read(log, files).events().stream()
                        .filter(e -> !(e instanceof org.greenbead.core.run.RunEvent.Checkpoint)).count());
        Path trace = folder.resolve("trace.csv");
        assertEquals(type("replay", log.toString(), "--trace", trace.toString()).status(), 0);
        assertTrue(Files.readString(trace).startsWith("time_s,stage,status,act,joint_c,joint_low_c"));
        Files.writeString(log, Files.readString(log).substring(0, (int) Files.size(log) - 20));
        Said torn = type("replay", log.toString());
        assertEquals(torn.status(), 1, "a run without its end proves nothing");
        assertTrue(torn.err().contains("cut off"), torn.err());
    }

    /** Dots of solder in place of a thermocouple: what is missing is said, and what is there is learned from. */
    @Test
    public void benchIsLearnedFromDots() throws Exception {
        Path dots = folder.resolve("dots.json");
        Files.writeString(dots,
                """
                        {"format": "greenbead/witness/1", "id": "dots-1",
                         "dots": [{"name": "A", "alloy": "Sn42Bi58", "side": "top", "at_mm": [36, 48]},
                                  {"name": "B", "alloy": "Sn63Pb37", "side": "top", "at_mm": [36, 50]},
                                  {"name": "C", "alloy": "Sn42Bi58", "side": "bottom", "at_mm": [36, 58]},
                                  {"name": "S", "alloy": "SAC305", "side": "top", "at_mm": [10, 20]}],
                         "steps": [{"from_s": 0, "heater_c": 220, "air": null}, {"from_s": 150, "heater_c": 300, "air": null},
                                   {"from_s": 300, "heater_c": 300, "air": {"set_c": 330, "flow_lpm": 26, "nozzle_mm": 10, "distance_mm": 22, "circle_mm": 6}}],
                         "presses": [{"dot": "A", "time_s": 312}, {"dot": "B", "time_s": 345}, {"dot": "C", "time_s": 318}],
                         "end_s": 360, "foreign": false}
                        """);
        Said without = type("calibrate", "--witness", dots.toString());
        assertEquals(without.status(), 2);
        assertTrue(without.err().contains("--plan"), without.err());
        Said learned = type("calibrate", "--witness", dots.toString(), "--plan", plan.toString());
        assertEquals(learned.status(), 0, learned.err());
        assertTrue(learned.out().contains("3 of 4 melted") && learned.out().contains("heater"),
                learned.out());
        Files.writeString(dots, Files.readString(dots).replace("\"dot\": \"C\"", "\"dot\": \"Z\""));
        Said wrong = type("calibrate", "--witness", dots.toString(), "--plan", plan.toString());
        assertEquals(wrong.status(), 2);
        assertTrue(wrong.err().contains("there is no such dot"), wrong.err());
        assertEquals(type("calibrate").status(), 2, "nothing to learn from");
    }

    private static String verdict(String out) {
        return out.substring(out.indexOf("Verdict:"));
    }

    /** A probe that dies and a cable that is pulled: found, told, and not counted as proof of anything. */
    @Test
    public void faultsAreToldDuringTheRun() {
        Path log = folder.resolve("f.run.jsonl");
        Said ran = type("run", "--simulated", "--speed", "1000", "--plan", plan.toString(), "--log",
                log.toString(), "--open-probe", "board_under@60", "--drop-link", "20+10");
        assertTrue(ran.out().contains("Probe board_under is lost"), ran.out());
        assertTrue(ran.out().contains("The logger does not answer"), ran.out());
        assertTrue(ran.out().contains("not proved Probe board_under failed"), ran.out());
        Said unknown = type("run", "--simulated", "--plan", plan.toString(), "--log", log.toString(),
                "--open-probe", "T1@60");
        assertTrue(unknown.err().contains("T1@60") && unknown.err().contains("board_under"), unknown.err());
    }

    @Test
    public void ledgerListsShowsAndReports() throws IOException {
        Said list = typeWithData("ledger", "list");
        assertEquals(list.status(), 0, list.err());
        assertTrue(list.out().contains("job SB-0417") && list.out().contains("run SB-0409"), list.out());
        assertTrue(typeWithData("ledger", "show", "SB-0417").out().contains("no boot"), "a job");
        assertTrue(typeWithData("ledger", "show", "last").out().contains("hottest joint"), "a run");
        assertTrue(typeWithData("ledger", "show", "SB-9").err().contains("there is no run SB-9"));
        Path pdf = folder.resolve("report.pdf");
        assertEquals(typeWithData("report", "last", pdf.toString()).status(), 0);
        assertTrue(Files.readString(pdf, java.nio.charset.StandardCharsets.ISO_8859_1).startsWith("%PDF"));
    }

    @DataProvider
    Object[][] documents() {
        return new Object[][]{{"job", "SB-0417"}, {"board", "WB-7"}, {"bench", "quay-1"},
                {"recipe", "wb7-lift"}, {"plan", "SB-0417/lift_run"}};
    }

    @Test(dataProvider = "documents")
    public void exportedDocumentIsOfItsFormat(String what, String id) throws Exception {
        Path out = folder.resolve(what + ".json");
        Said said = typeWithData("export", what, id, out.toString());
        assertEquals(said.status(), 0, said.err());
        assertEquals(files.formatOf(Files.readString(out), what),
                Format.valueOf(what.toUpperCase(java.util.Locale.ROOT)));
    }

    @Test
    public void doctorFindsWhatIsWell() throws IOException {
        Said well = typeWithData("doctor");
        assertEquals(well.status(), 0, well.out());
        assertTrue(well.out().contains("good  JDK") && well.out().contains("ledger: ok"), well.out());
        Path file = Files.writeString(folder.resolve("in-the-way"), "x");
        Said ill = type("doctor", "--data", file.toString());
        assertEquals(ill.status(), 1);
        assertTrue(ill.out().contains("BAD"), ill.out());
    }
}
