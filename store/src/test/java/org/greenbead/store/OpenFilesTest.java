package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.lang.reflect.RecordComponent;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.BodyRating;
import org.greenbead.core.board.Chip;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.BallForming;
import org.greenbead.core.run.RunPlan;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Open files survive the way there and back, and bad ones are refused with line, field and remedy. */
public class OpenFilesTest {
    private final OpenFiles files = new OpenFiles();
    private Path folder;
    private String board;
    private String bench;
    private String recipe;
    private String job;

    @BeforeClass
    public void write() throws BadFileException {
        folder = Folders.fresh();
        RunPlan plan = new DemoWorld(files).plan("SB-0417", "lift_run");
        board = files.write(Format.BOARD, plan.board());
        bench = files.write(Format.BENCH, plan.bench());
        recipe = files.write(Format.RECIPE, plan.recipe());
        job = files.write(Format.JOB, plan.job());
    }

    @AfterClass
    public void remove() {
        Folders.remove(folder);
    }

    @DataProvider
    Object[][] demoPlans() {
        return new Object[][]{{"SB-0417", "lift_run"}, {"SB-0417", "seat_run"}, {"SB-0415", "seat_run"},
                {"SB-0412", "lift_run"}, {"SB-0409", "lift_run"}};
    }

    /** A bench without a heater is written, read and planned on like any other, whether the file says null or nothing. */
    @Test
    public void aBenchWithoutAHeaterComesBackAsItWent() throws BadFileException {
        RunPlan plan = new DemoWorld(files).plan("SB-0417", "lift_run");
        Bench bare = plan.bench().heatedBy(java.util.Optional.empty());
        assertEquals(files.parse(files.write(Format.BENCH, bare), "b", Format.BENCH, Bench.class), bare);
        RunPlan alone = plan.with(bare);
        assertEquals(files.parse(files.write(Format.PLAN, alone), "p", Format.PLAN, RunPlan.class), alone);
        String silent = files.write(Format.BENCH, bare).replaceAll("\\s*\"heater\"\\s*:\\s*null,", "");
        assertTrue(!silent.contains("heater\" :") && !silent.contains("\"heater\":"), silent);
        assertEquals(files.parse(silent, "b", Format.BENCH, Bench.class), bare);
    }

    @Test(dataProvider = "demoPlans")
    public void planComesBackAsItWent(String jobId, String bead) throws BadFileException {
        RunPlan plan = new DemoWorld(files).plan(jobId, bead);
        String text = files.write(Format.PLAN, plan);
        assertEquals(files.parse(text, "plan", Format.PLAN, RunPlan.class), plan);
        assertEquals(files.parse(files.write(Format.BOARD, plan.board()), "b", Format.BOARD, Board.class),
                plan.board());
        assertEquals(files.parse(files.write(Format.BENCH, plan.bench()), "b", Format.BENCH, Bench.class),
                plan.bench());
        assertEquals(files.parse(files.write(Format.RECIPE, plan.recipe()), "r", Format.RECIPE, Recipe.class),
                plan.recipe());
        assertEquals(files.parse(files.write(Format.JOB, plan.job()), "j", Format.JOB, Job.class),
                plan.job());
        assertEquals(files.formatOf(text, "plan"), Format.PLAN);
    }

    @Test
    public void stencilSetUpComesBackAsItWent() throws BadFileException {
        RunPlan lift = new DemoWorld(files).plan("SB-0417", "lift_run");
        RunPlan form = lift.forming(BallForming.usual(lift.target(), Alloys.require("Sn63Pb37")));
        String text = files.write(Format.PLAN, form);
        assertEquals(files.parse(text, "plan", Format.PLAN, RunPlan.class), form);
        String bare = text.replaceAll("(?s),\\s*\"forming\" : \\{.*?\\}", "");
        BadFileException refused = expectThrows(BadFileException.class,
                () -> files.parse(bare, "plan", Format.PLAN, RunPlan.class));
        assertTrue(refused.getMessage().contains("forming"), refused.getMessage());
    }

    /** A file that gives no body limit gets the class of its size; one that gives a number keeps it. */
    @Test
    public void bodyLimitLeftOutComesFromTheSize() throws BadFileException {
        Board said = files.parse(board, "b", Format.BOARD, Board.class);
        Board filled = files.parse(board.replaceAll("\"body_limit_c\" : [0-9.]+,", ""), "b", Format.BOARD,
                Board.class);
        for (Chip chip : filled.chips()) {
            double volume = chip.bodyMm() * chip.sizeMm().xMm() * chip.sizeMm().yMm();
            assertEquals(chip.bodyLimitC(),
                    BodyRating.peakC(chip.bodyMm(), volume, !chip.joint().alloy().hasPb()), 0,
                    chip.name());
        }
        assertNotEquals(filled, said, "the demo's labels say otherwise");
    }

    /** Each row: what is wrong, the good text, what to replace in it, with what, and words the message must hold. */
    @DataProvider
    Object[][] bad() {
        return new Object[][]{{"not JSON", "board", "\"id\"", "id", "not JSON"},
                {"cut off", "board", "\\}\\s*$", "", "not JSON"},
                {"trailing text", "board", "\\}\\s*$", "} x", "not JSON"},
                {"comma missing", "board", "\"WB-7\",", "\"WB-7\"", "not JSON"},
                {"key twice", "board", "\"id\" : \"WB-7\"", "\"id\" : \"WB-7\", \"id\" : \"WB-8\"",
                        "not JSON"},
                {"a list", "board", "(?s).*", "[1, 2]", "no JSON object"},
                {"empty", "board", "(?s).*", "", ""},
                {"no format", "board", "\"format\" : \"greenbead/board/1\",", "", "\"format\" is missing"},
                {"future format", "board", "greenbead/board/1", "greenbead/board/7",
                        "newer Green Bead"},
                {"other format", "board", "greenbead/board/1", "greenbead/bench/1", "this is a bench file"},
                {"unknown key", "board", "\"id\" : \"WB-7\"", "\"id\" : \"WB-7\", \"colour\" : \"green\"",
                        "/colour"},
                {"key missing", "board", "\"thickness_mm\" : 1.0,", "", "thickness_mm"},
                {"text for a number", "board", "\"thickness_mm\" : 1.0", "\"thickness_mm\" : \"thin\"",
                        "/thickness_mm"},
                {"too thin", "board", "\"thickness_mm\" : 1.0", "\"thickness_mm\" : 0.01", "/thickness_mm"},
                {"too thick", "board", "\"thickness_mm\" : 1.0", "\"thickness_mm\" : 50", "/thickness_mm"},
                {"not a number", "board", "\"thickness_mm\" : 1.0", "\"thickness_mm\" : NaN", "not JSON"},
                {"endless number", "board", "\"thickness_mm\" : 1.0", "\"thickness_mm\" : 1e999", ""},
                {"null for a number", "board", "\"thickness_mm\" : 1.0", "\"thickness_mm\" : null",
                        "/thickness_mm"},
                {"layers as words", "board", "\"copper_layers\" : 8", "\"copper_layers\" : \"eight\"",
                        "/copper_layers"},
                {"half a layer", "board", "\"copper_layers\" : 8", "\"copper_layers\" : 8.5",
                        "/copper_layers"},
                {"coverage over one", "board", "\"copper_coverage\" : 0.5", "\"copper_coverage\" : 1.5",
                        "/copper_coverage"},
                {"size with one number", "board", "\"size_mm\" : \\[ 70.0, 95.0 \\]",
                        "\"size_mm\" : [ 70.0 ]", "/size_mm"},
                {"size as an object", "board", "\"size_mm\" : \\[ 70.0, 95.0 \\]",
                        "\"size_mm\" : { \"x\" : 70 }", "/size_mm"},
                {"side that is none", "board", "\"side\" : \"bottom\"", "\"side\" : \"left\"", "/side"},
                {"unknown alloy", "board", "Sn63Pb37", "Unobtainium", "is not in the table"},
                {"alloy class word", "board", "Sn63Pb37", "medium", "known are"},
                {"ball larger than pitch", "board", "\"ball_mm\" : 0.25", "\"ball_mm\" : 0.45",
                        "ball diameter"},
                {"chips overlap", "board", "\"centre_mm\" : \\[ 57.0, 58.0 \\]",
                        "\"centre_mm\" : [ 44.0, 58.0 ]", "overlap"},
                {"chip off the board", "board", "\"centre_mm\" : \\[ 57.0, 58.0 \\]",
                        "\"centre_mm\" : [ 69.0, 90.0 ]", "does not lie wholly"},
                {"two of one name", "board", "\"name\" : \"U2\"", "\"name\" : \"U1\"", "stands twice"},
                {"unknown layer", "board", "\"type\" : \"die\"", "\"type\" : \"jam\"", ""},
                {"chips no list", "board", "(?s)\"chips\" : \\[.*\\],\\s*\"parts\"",
                        "\"chips\" : 5, \"parts\"",
                        "/chips"},
                {"heater too hot", "bench", "\"max_c\" : 400.0", "\"max_c\" : 4000", "/heater/max_c"},
                {"room in Fahrenheit", "bench", "\"ambient_c\" : 23.0", "\"ambient_c\" : 73", "/ambient_c"},
                {"no nozzle", "bench", "\"nozzles_mm\" : \\[[^\\]]*\\]", "\"nozzles_mm\" : []",
                        "/air/nozzles_mm"},
                {"probe name with a blank", "bench", "board_top", "board top", "/name"},
                {"two probes on a channel", "bench", "\"channel\" : 2", "\"channel\" : 1", "stands twice"},
                {"channel zero", "bench", "\"channel\" : 2", "\"channel\" : 0", "/channel"},
                {"role that is none", "bench", "\"role\" : \"board\"", "\"role\" : \"air\"", "/role"},
                {"no stages", "recipe", "(?s)\"stages\" : \\[.*\\],\\s*\"limits\"",
                        "\"stages\" : [], \"limits\"", "/stages"},
                {"purpose that is none", "recipe", "\"purpose\" : \"soak\"", "\"purpose\" : \"fry\"",
                        "/purpose"},
                {"end that is none", "recipe", "\"type\" : \"melt_shown\"", "\"type\" : \"luck\"", ""},
                {"air too fast", "recipe", "\"flow_lpm\" : 28.0", "\"flow_lpm\" : 2800", ""},
                {"cooling with heat after it", "recipe", "\"purpose\" : \"soak\"", "\"purpose\" : \"cool\"",
                        "out of order"},
                {"stage twice", "recipe", "\"name\" : \"Soak\"", "\"name\" : \"Lift\"", "stands twice"},
                {"negative ramp", "recipe", "\"ramp_up_k_per_s\" : 3.0", "\"ramp_up_k_per_s\" : -3",
                        "/limits/ramp_up_k_per_s"},
                {"check with capitals", "job", "\"id\" : \"cell_off\"", "\"id\" : \"Cell off\"", "/id"},
                {"state that is none", "job", "\"state\" : \"green\"", "\"state\" : \"blue\"", "/state"},
                {"beads out of order", "job", "\"phase\" : \"intake\"", "\"phase\" : \"close\"",
                        "out of order"},
                {"run without recipe", "job", "\"recipe\" : \"wb7-lift\"", "\"recipe\" : null",
                        "needs a recipe"}};
    }

    @Test(dataProvider = "bad")
    public void badFileIsRefusedWithPlaceAndRemedy(String what, String kind, String replace, String with,
            String words) throws IOException {
        Format format = Format.valueOf(kind.toUpperCase(Locale.ROOT));
        String good = switch (format) {
            case BOARD -> board;
            case BENCH -> bench;
            case RECIPE -> recipe;
            default -> job;
        };
        String text = good.replaceFirst(replace, java.util.regex.Matcher.quoteReplacement(with));
        assertFalse(text.equals(good), what + ": the test must change something");
        Path file = Files.writeString(folder.resolve("bad.bead.json"), text);
        Class<?> type = format.record();
        BadFileException e = expectThrows(BadFileException.class, () -> files.read(file, format, type));
        assertTrue(e.getMessage().startsWith("bad.bead.json"), e.getMessage());
        assertTrue(e.getMessage().contains(words), what + ": " + e.getMessage());
        assertFalse(e.remedy().isBlank(), what);
        assertFalse(e.getMessage().contains("\n"), what + " is one sentence: " + e.getMessage());
        assertFalse(e.getMessage().matches(".*(org\\.greenbead|jackson|REDACTED|Feature).*"),
                what + " speaks of no class: " + e.getMessage());
    }

    @Test
    public void fiftyKindsOfBadFileAreTried() {
        assertTrue(bad().length >= 40, "kinds: " + bad().length);
    }

    @Test
    public void lineOfTheFaultIsNamed() throws IOException {
        String text = board.replace("\"copper_coverage\" : 0.5", "\"copper_coverage\" : 5");
        int line = (int) text.substring(0, text.indexOf("\"copper_coverage\"")).lines().count() + 0;
        Path file = Files.writeString(folder.resolve("line.bead.json"), text);
        BadFileException e = expectThrows(BadFileException.class,
                () -> files.read(file, Format.BOARD, Board.class));
        assertEquals(e.field(), "/copper_coverage");
        assertEquals(e.line(), line);
    }

    @Test
    public void filesThatAreNoFilesAreRefused() throws IOException {
        expectThrows(BadFileException.class, () -> files.read(folder, Format.BOARD, Board.class));
        expectThrows(BadFileException.class,
                () -> files.read(folder.resolve("nowhere.json"), Format.BOARD, Board.class));
        Path large = Files.write(folder.resolve("large.json"), new byte[OpenFiles.MOST_BYTES + 1]);
        assertTrue(expectThrows(BadFileException.class, () -> files.read(large, Format.BOARD, Board.class))
                .getMessage().contains("allowed are"));
        Path latin = Files.write(folder.resolve("latin.json"), new byte[]{'{', (byte) 0xE9, '}'});
        assertTrue(expectThrows(BadFileException.class, () -> files.read(latin, Format.BOARD, Board.class))
                .getMessage().contains("UTF-8"));
    }

    @DataProvider
    Object[][] records() {
        return new Object[][]{{Format.BOARD, Board.class, ""},
                {Format.BOARD, Chip.class, "/properties/chips/items"}, {Format.BENCH, Bench.class, ""},
                {Format.RECIPE, Recipe.class, ""}, {Format.RECIPE, Stage.class, "/properties/stages/items"},
                {Format.JOB, Job.class, ""},
                {Format.JOB, Bead.class, "/properties/beads/items"}, {Format.PLAN, RunPlan.class, ""}};
    }

    /** A schema that forgets a component of its record, or invents one, is a trap for whoever writes files by it. */
    @Test(dataProvider = "records")
    public void schemaNamesExactlyTheComponentsOfItsRecord(Format format, Class<?> record, String at) {
        JsonNode schema = JsonMapper.builder().build().readTree(OpenFiles.schemaText(format))
                .at(at + "/properties");
        for (RecordComponent component : record.getRecordComponents()) {
            String key = component.getName().replaceAll("([A-Z])", "_$1").toLowerCase(Locale.ROOT);
            assertTrue(schema.has(key), format + " lacks " + key);
        }
        assertEquals(schema.size() - (schema.has("format") ? 1 : 0), record.getRecordComponents().length,
                format + " has keys that its record has not");
    }
}
