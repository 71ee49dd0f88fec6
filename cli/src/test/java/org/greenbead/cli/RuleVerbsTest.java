package org.greenbead.cli;

import static org.greenbead.cli.Said.type;
import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.HashSet;
import org.greenbead.core.book.RuleBook;
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

    private static JsonNode json(Path file) throws Exception {
        return new ObjectMapper().readTree(Files.readString(file));
    }

    @DataProvider
    Object[][] kinds() {
        return Arrays.stream(JobKind.values()).map(k -> new Object[]{k.key()}).toArray(Object[][]::new);
    }

    /** One sound job a kind: nothing at all. */
    @Test(dataProvider = "kinds")
    public void soundJobRaisesNothing(String kind) throws Exception {
        Path out = folder.resolve(kind + ".json");
        Said said = type("check", EXAMPLES.resolve(kind + ".job.bead.json").toString(), "--json",
                out.toString(), "--data", folder.resolve("none").toString());
        assertEquals(said.status(), 0, said.out() + said.err());
        assertEquals(json(out).size(), 0, said.out());
        assertTrue(said.out().contains("Looked at with"), said.out());
    }

    /** The same job with one thing wrong stops, points to it, and says from which record it knows. */
    @Test
    public void spoiltJobIsStoppedWhereItIsSpoilt() throws Exception {
        Path spoilt = folder.resolve("spoilt.job.bead.json");
        Files.copy(EXAMPLES.resolve("revive.job.bead.json"), spoilt);
        String none = folder.resolve("none").toString();
        assertEquals(type("note", spoilt.toString(), "joint", "site=U1", "bi_pct=7", "pb_pct=29.6",
                "flat_proof=no").status(), 0);
        Path out = folder.resolve("spoilt.json");
        Said said = type("check", spoilt.toString(), "--json", out.toString(), "--data", none);
        assertEquals(said.status(), 1);
        JsonNode first = json(out).get(0);
        assertEquals(first.path("rule").asString(), "alloy.bismuth-meets-lead");
        assertEquals(first.path("severity").asString(), "stop");
        assertEquals(first.path("phase").asString(), "plan");
        assertEquals(first.path("covers").get(0).asString(), "T009");
        assertTrue(first.path("at").asString().startsWith("/facts/joints/"), first.toString());
        assertTrue(first.path("why").asString().contains("29.6 % Pb"), first.toString());
        assertEquals(first.path("facts").get(0).path("source").asString(), "recorded");
        assertEquals(first.path("facts").get(0).path("where").asString(), "record joint-1");
        assertTrue(said.out().contains("record joint-1"), said.out());
        assertEquals(type("note", spoilt.toString(), "joint", "site=U1", "bi_pct=0", "pb_pct=0",
                "flat_proof=yes").status(), 0);
        assertEquals(type("check", spoilt.toString(), "--data", none).status(), 0, "corrected, not added to");
    }

    /** Begun and worked by the command line alone: what does not exist is refused, a way changes the route, a gate wants more than ticks. */
    @Test
    public void jobIsWorkedByTheCommandLine() throws Exception {
        String none = folder.resolve("none").toString();
        Path file = folder.resolve("own.job.bead.json");
        String[] begin = {"new", "loose", file.toString(), "--id", "SB-9", "--title", "Spare", "--complaint",
                "for stock", "--customer", "Skerry Bench", "--board", "WB-7", "--target", "U1", "--bench",
                "quay-1", "--way", "ball_route=spheres", "--data", none};
        for (String[] wrong : new String[][]{{"--board", "WB-99", "there is no board"},
                {"--target", "U77", "has no chip"}, {"--bench", "nowhere", "there is no bench"}}) {
            String[] other = begin.clone();
            other[Arrays.asList(other).indexOf(wrong[0]) + 1] = wrong[1];
            Said refused = type(other);
            assertEquals(refused.status(), 2);
            assertTrue(refused.err().contains(wrong[2]), refused.err());
            assertFalse(Files.exists(file));
        }
        Said begun = type(begin);
        assertEquals(begun.status(), 0, begun.err());
        assertTrue(begun.out().toLowerCase(java.util.Locale.ROOT).contains("sphere"), begun.out());
        assertEquals(type("note", file.toString(), "run", "bead=bead_form").status(), 2,
                "nobody writes what a run measured");
        Said ticked = type("tick", file.toString(), "health_measured", "--data", none);
        assertEquals(ticked.status(), 1, ticked.out());
        assertTrue(ticked.out().contains("the chip measured good"), ticked.out());
        assertEquals(type("note", file.toString(), "chip", "health=good", "health_test=meter").status(), 0);
        Said steps = type("steps", file.toString(), "--data", none);
        assertFalse(steps.out().contains("wants    the chip measured good"), steps.out());
        assertEquals(type("note", file.toString(), "screw", "hole=A", "out=yes").status(), 0);
        assertTrue(
                type("note", file.toString(), "screw", "hole=A", "in=yes").out().contains("changed screw-1"));
        assertTrue(type("note", file.toString(), "screw", "hole=A", "--remove").out().contains("took back"));
        assertTrue(type("note", file.toString(), "screw", "hole=A", "--remove").err()
                .contains("no such record"));
    }

    @DataProvider
    Object[][] broken() {
        return new Object[][]{{"\"kind\" : \"revive\"", "\"kind\" : 7", "/job/kind"},
                {"\"facts\" : {", "\"facts\" : {\"ship\": {},", "/ship"},
                {"\"goal\" : \"function\"", "\"goal\" : \"glory\"", "function, data, capacity, parts"},
                {"\"pads\" : 289.0", "\"pads\" : 1e300", "pads"},
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
        assertEquals(Files.readString(Path.of("../docs/rules.md")), RulesCommand.sheet(RuleBook.shipped()),
                "docs/rules.md is stale: greenbead rules --markdown docs/rules.md");
        assertFalse(RulesCommand.sheet(RuleBook.shipped()).contains("Facts: unreachable"),
                "a rule waits for a fact that nobody can say");
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
        assertEquals(type("note", out.toString(), "stencil", "uses=1").status(), 0, "the plan is in hand");
        Said checked = type("check", out.toString());
        assertEquals(checked.status(), 1, "nobody has named the travelling set");
        assertTrue(checked.out().contains("[transplant.set-not-whole]")
                && checked.out().contains("Not known: how many of the paired chips are left out"),
                checked.out());
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
