package org.greenbead.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.HashSet;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.book.RuleSheet;
import org.greenbead.core.route.JobKind;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;

/** The rule book from the command line, on the sound jobs that are shipped and on broken ones. */
public class RuleVerbsTest {
    private static final Path EXAMPLES = Path.of("../docs/examples/jobs");
    private Path folder;

    private record Said(int status, String out, String err) {}

    @BeforeClass
    public void prepare() throws Exception {
        folder = Files.createTempDirectory("rules");
    }

    @AfterClass
    public void remove() throws Exception {
        try (var files = Files.list(folder)) {
            for (Path file : files.toList()) {
                Files.delete(file);
            }
        }
        Files.delete(folder);
    }

    private static Said type(String... words) {
        var out = new StringWriter();
        var err = new StringWriter();
        int status = Main.execute(new PrintWriter(out, true), new PrintWriter(err, true), words);
        return new Said(status, out.toString(), err.toString());
    }

    private static JsonNode json(Path file) throws Exception {
        return new ObjectMapper().readTree(Files.readString(file));
    }

    @DataProvider
    Object[][] kinds() {
        return Arrays.stream(JobKind.values()).map(k -> new Object[]{k.key()}).toArray(Object[][]::new);
    }

    /** One sound job a kind: no stop, no care. */
    @Test(dataProvider = "kinds")
    public void soundJobRaisesNothing(String kind) throws Exception {
        Path out = folder.resolve(kind + ".json");
        Said said = type("check", EXAMPLES.resolve(kind + ".job.bead.json").toString(), "--json",
                out.toString());
        assertEquals(said.status(), 0, said.err());
        for (JsonNode finding : json(out)) {
            assertEquals(finding.path("severity").asString(), "note", finding.toString());
        }
        assertTrue(Files.readString(EXAMPLES.resolve(kind + ".job.bead.json"))
                .contains("\"kind\" : \"" + kind + "\""));
    }

    /** The same job with one thing wrong stops, and points to it. */
    @Test
    public void spoiltJobIsStoppedWhereItIsSpoilt() throws Exception {
        String sound = Files.readString(EXAMPLES.resolve("revive.job.bead.json"));
        Path spoilt = Files.writeString(folder.resolve("spoilt.job.bead.json"),
                sound.replace("\"bi_pct\" : 0.0", "\"bi_pct\" : 7.0")
                        .replace("\"pb_pct\" : 0.5", "\"pb_pct\" : 29.6")
                        .replace("\"flat_proof\" : true", "\"flat_proof\" : false"));
        Path out = folder.resolve("spoilt.json");
        Said said = type("check", spoilt.toString(), "--json", out.toString());
        assertEquals(said.status(), 1);
        JsonNode first = json(out).get(0);
        assertEquals(first.path("rule").asString(), "alloy.bismuth-meets-lead");
        assertEquals(first.path("severity").asString(), "stop");
        assertEquals(first.path("phase").asString(), "plan");
        assertEquals(first.path("covers").get(0).asString(), "T009");
        assertEquals(first.path("at").asString(), "/facts/joints/0");
        assertTrue(first.path("why").asString().contains("29.6 % Pb"), first.toString());
        assertTrue(said.out().contains("96"));
    }

    @DataProvider
    Object[][] broken() {
        return new Object[][]{{"\"pads\" : 528.0", "\"pads\" : \"many\"", "/chip/pads"},
                {"\"chip\" : {", "\"ship\" : {", "/ship"},
                {"\"goal\" : \"function\"", "\"goal\" : \"glory\"", "function, data, capacity, parts"},
                {"\"pads\" : 528.0", "\"pads\" : 1e300", "/chip/pads"},
                {"\"facts\" : {", "\"facts\" : [], \"x\" : {", "facts"},
                {"greenbead/job/1", "greenbead/job/9", "newer Green Bead"}};
    }

    @Test(dataProvider = "broken")
    public void brokenFactsAreRefused(String good, String bad, String says) throws Exception {
        String sound = Files.readString(EXAMPLES.resolve("revive.job.bead.json"));
        assertTrue(sound.contains(good), good);
        Path file = Files.writeString(folder.resolve("broken.job.bead.json"), sound.replace(good, bad));
        Said said = type("check", file.toString());
        assertEquals(said.status(), 2, said.out());
        assertTrue(said.err().contains(says), said.err());
    }

    @Test
    public void bookIsListedWhole() throws Exception {
        Path out = folder.resolve("rules.json");
        assertEquals(type("rules", "--json", out.toString()).status(), 0);
        var covered = new HashSet<String>();
        for (JsonNode rule : json(out)) {
            rule.path("covers").forEach(c -> covered.add(c.asString()));
            assertTrue(!rule.path("source").asString().isBlank() && rule.path("inputs").isArray(),
                    rule.toString());
        }
        assertTrue(covered.size() >= 200, covered.size() + " covered");
        assertEquals(Files.readString(Path.of("../docs/rules.md")), RuleSheet.of(RuleBook.shipped()),
                "docs/rules.md is stale: greenbead rules --markdown docs/rules.md");
    }

    @Test
    public void newJobHasItsRouteAndKnowsWhatIsMissing() throws Exception {
        Path out = folder.resolve("fresh.job.bead.json");
        Said made = type("new", "transplant", out.toString(), "--id", "SB-9", "--title", "t", "--complaint",
                "c", "--customer", "d", "--board",
                "WB-7", "--target", "U1", "--bench", "quay-1", "--facts",
                "job.type=transplant; job.goal=data");
        assertEquals(made.status(), 0, made.err());
        assertTrue(made.out().contains("Copy first (gate)"), made.out());
        Said checked = type("check", out.toString());
        assertEquals(checked.status(), 1, "nobody has named the travelling set");
        assertTrue(checked.out().contains("transplant.table-without-origin")
                && checked.out().contains("not noted"), checked.out());
        Said refused = type("new", "transplant", out.toString(), "--id", "SB-9", "--title", "t",
                "--complaint", "c", "--customer", "d", "--board",
                "WB-7", "--target", "U1", "--bench", "quay-1", "--facts", "job.goal=glory");
        assertEquals(refused.status(), 2);
        assertTrue(refused.err().contains("/job/goal"), refused.err());
        assertEquals(type("new", "sail", out.toString()).status(), 2);
    }
}
