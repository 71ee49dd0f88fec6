package org.greenbead.cli;

import static org.greenbead.cli.Said.type;
import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.InstantSource;
import java.util.Comparator;
import java.util.Locale;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.RecordSheet;
import org.greenbead.core.route.SchoolSheet;
import org.greenbead.store.DemoWorld;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;

/** Jobs, chips and the arithmetic of a plan from the command line. */
public class JobVerbsTest {
    private Path folder;
    private String data;

    @BeforeClass
    public void prepare() throws Exception {
        folder = Files.createTempDirectory("jobs");
        data = folder.resolve("data").toString();
        var files = new OpenFiles();
        try (Ledger ledger = Ledger.open(Path.of(data), files, InstantSource.system())) {
            new DemoWorld(files).fill(ledger, InstantSource.system(), done -> {
            });
        }
    }

    @AfterClass
    public void remove() throws Exception {
        try (var all = Files.walk(folder)) {
            for (Path path : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.deleteIfExists(path);
            }
        }
    }

    private String file(String name) {
        return folder.resolve(name).toString();
    }

    private static JsonNode json(String file) throws Exception {
        return new ObjectMapper().readTree(Files.readString(Path.of(file)));
    }

    @Test
    public void jobTravelsToAnotherMachine() throws Exception {
        Said packed = type("pack", "SB-0412", file("job.zip"), "--data", data);
        assertEquals(packed.status(), 0, packed.err());
        Said taken = type("import", file("job.zip"), "--data", file("other"));
        assertTrue(taken.out().contains("took in job SB-0412") && taken.out().contains("1 runs"),
                taken.out() + taken.err());
        Said shown = type("ledger", "show", "SB-0412", "--data", file("other"));
        assertTrue(shown.out().contains("salt water"), shown.out());
        type("export", "job", "SB-0412", file("mine.job.bead.json"), "--data", data);
        type("export", "job", "SB-0412", file("theirs.job.bead.json"), "--data", file("other"));
        assertEquals(Files.readString(Path.of(file("mine.job.bead.json"))),
                Files.readString(Path.of(file("theirs.job.bead.json"))));
    }

    @Test
    public void clashIsAnErrorUntilReplaceIsSaid() throws Exception {
        type("export", "board", "WB-7", file("wb7.board.bead.json"), "--data", data);
        Files.writeString(Path.of(file("wb7.board.bead.json")),
                Files.readString(Path.of(file("wb7.board.bead.json"))).replace("Wave buoy logger",
                        "Another logger"));
        Said clash = type("import", file("wb7.board.bead.json"), "--data", data);
        assertEquals(clash.status(), 2);
        assertTrue(clash.err().contains("another board WB-7") && clash.err().contains("--replace"),
                clash.err());
        assertEquals(type("import", file("wb7.board.bead.json"), "--data", data, "--replace").status(), 0);
    }

    @Test
    public void jobWithoutItsBoardIsNotTakenIn() {
        Said said = type("import", "../docs/examples/jobs/revive.job.bead.json", "--data", file("empty"));
        assertEquals(said.status(), 2);
        assertTrue(said.err().contains("greenbead board new, or import its file too"), said.err());
    }

    /** A folder with a bundle and a note in it. */
    @Test
    public void aFolderIsTakenIn() throws Exception {
        Path from = Files.createDirectories(folder.resolve("stick/jobs"));
        assertEquals(type("pack", "SB-0412", from.resolve("one.zip").toString(), "--data", data).status(), 0);
        Files.writeString(from.resolve("notes.txt"), "of the other bench");
        Said taken = type("import", file("stick"), "--data", file("third"));
        assertTrue(taken.out().contains("took in job SB-0412")
                && taken.out().contains("left alone, for a ledger keeps nothing of the kind: notes.txt"),
                taken.out() + taken.err());
    }

    @DataProvider
    Object[][] queries() {
        return new Object[][]{{"bricked", "SB-0417", true}, {"more memory", "SB-0405", true},
                {"data only", "SB-0406", true},
                {"submarine", "", false}};
    }

    @Test(dataProvider = "queries")
    public void findsJobs(String query, String id, boolean found) {
        Said said = type("jobs", query, "--data", data);
        assertEquals(said.status(), found ? 0 : 1, said.out() + said.err());
        assertTrue(said.out().contains(id), said.out());
    }

    @Test
    public void chipsAndLookAlikesAreListed() throws Exception {
        Said said = type("chips", "--data", data, "--json", file("chips.json"));
        assertTrue(said.out().contains("GB-0041-5") && said.out().contains("looks like GB-0042-3"),
                said.out());
        assertEquals(json(file("chips.json")).size(), 8);
        Said labels = type("labels", file("labels.pdf"), "gb00415", "--data", data);
        assertTrue(labels.out().contains("1 labels"), labels.out() + labels.err());
        assertTrue(Files.size(Path.of(file("labels.pdf"))) > 1000);
        assertTrue(type("labels", file("x.pdf"), "GB-0041-6", "--data", data).err()
                .contains("a digit of it is wrong"));
        assertTrue(type("labels", file("x.pdf"), "GB-0099-4", "--data", data).status() == 2);
    }

    /** The numbers of the trap: bismuth left by thinning meets lead in the ball. */
    @Test
    public void mixSaysWhenBismuthMeetsLead() throws Exception {
        Said trap = type("mix", "--factory", "SAC305", "--added", "Sn42Bi58", "--ball", "Sn63Pb37", "--left",
                "0.12", "--json",
                file("mix.json"));
        assertEquals(trap.status(), 1);
        assertTrue(trap.out().contains("96 °C") && trap.out().contains("at most 2.9 %"), trap.out());
        assertEquals(json(file("mix.json")).at("/made/weight_pct/Bi").asDouble(), 6.96, 0.01);
        assertEquals(type("mix", "--factory", "SAC305", "--added", "Sn42Bi58", "--ball", "Sn63Pb37",
                "--passes", "2").status(), 0);
        assertEquals(type("mix", "--factory", "SAC999", "--ball", "SAC305").status(), 2);
    }

    @Test
    public void bakeIsHeldAgainstTheBoard() {
        Said said = type("bake", "--level", "3", "--thickness", "1.2", "--open", "200", "--solidus", "138");
        assertTrue(said.out().contains("32 h past") && said.out().contains("125 °C for 7 h: care"),
                said.out());
        assertTrue(type("bake", "--level", "9", "--thickness", "1", "--open", "1").err()
                .contains("moisture level"));
    }

    @Test
    public void planIsSeenAtAGlance() throws Exception {
        type("export", "plan", "SB-0417/lift_run", file("plan.bead.json"), "--data", data);
        Said said = type("overview", file("plan.bead.json"), "--json", file("overview.json"));
        assertEquals(said.status(), 0, said.err());
        assertTrue(said.out().contains("lowest solidus") && said.out().contains("nozzle 16 to 18 mm"),
                said.out());
        JsonNode o = json(file("overview.json"));
        assertEquals(o.at("/ceiling/lowest_c").asDouble(), 182.5, 1, said.out());
        assertTrue(o.at("/alloys").size() >= 4);
        assertEquals(o.at("/mix/ball").asString(), "Sn63Pb37");
        assertTrue(type("overview", file("plan.bead.json"), "--fahrenheit").out().contains("°F"));
    }

    @Test
    public void partsArePlacedFromAFile() throws Exception {
        type("export", "board", "KC-1", file("kc1.board.bead.json"), "--data", data);
        Files.writeString(Path.of(file("kc1.csv")),
                "ref,x_mm,y_mm,rotation,side,package\nC1,5,5,90,top,C_0402\nSW1,9,9,0,top,Switch\n");
        Said said = type("place", file("kc1.board.bead.json"), file("kc1.csv"), file("kc1b.board.bead.json"));
        assertTrue(said.out().contains("5 parts on KC-1") && said.out().contains("read the sheet: SW1"),
                said.out() + said.err());
        Files.writeString(Path.of(file("bad.csv")),
                "ref,x_mm,y_mm,rotation,side,package\nC1,500,5,90,top,C_0402\n");
        assertTrue(type("place", file("kc1.board.bead.json"), file("bad.csv"), file("x.json")).err()
                .contains("off the board"));
    }

    @Test
    public void pictureIsSquaredUp() throws Exception {
        Said said = type("square", "--corners", "100,700;900,700;900,100;100,100", "--size", "80,60",
                "500,400", "0,0", "--json", file("sq.json"));
        assertTrue(said.out().contains("40.00, 30.00 mm") && said.out().contains("off the board"),
                said.out() + said.err());
        assertEquals(json(file("sq.json")).at("/0/x_mm").asDouble(), 40, 1e-9);
        assertEquals(type("square", "--corners", "1,1;2,2", "--size", "80,60", "5,5").status(), 2);
    }

    @Test
    public void recordIsWrittenIntoAJobFile() throws Exception {
        Path job = Path.of(file("noted.job.bead.json"));
        assertEquals(type("new", "revive", job.toString(), "--id", "SB-9", "--title", "t", "--complaint", "c",
                "--customer", "d", "--board", "WB-7", "--target", "U1", "--bench", "quay-1", "--data",
                file("nothing")).status(), 0);
        assertEquals(type("note", job.toString(), "screw", "hole=A", "length_mm=0.25 in", "out=yes",
                "--author", "technician B").status(), 0);
        assertEquals(type("note", job.toString(), "intake", "data_value=irreplaceable").status(), 0);
        assertEquals(type("note", job.toString(), "intake", "goal=data").status(), 0);
        JsonNode records = json(job.toString()).at("/records");
        assertEquals(records.size(), 2, "an intake is changed, not added to");
        assertEquals(records.at("/0/fields/length_mm").asDouble(), 6.35, 1e-9);
        assertEquals(records.at("/0/author").asString(), "technician B");
        assertEquals(records.at("/1/fields/goal").asString(), "data");
        assertTrue(type("note", job.toString(), "screw", "length_mm=long").err().contains("no number"));
        assertTrue(type("note", job.toString(), "screw", "colour=red").err().contains("it has hole"));
        assertEquals(json(job.toString()).at("/records").size(), 2, "a slip changes nothing");
        Said checked = type("check", job.toString());
        assertTrue(checked.status() <= 1, checked.err());
    }

    @Test
    public void ballsAreReckoned() throws Exception {
        Said ball = type("ball", "--opening", "0.40", "--thickness", "0.10", "--pitch", "0.65", "--json",
                file("ball.json"));
        assertEquals(ball.status(), 0, ball.err());
        assertEquals(json(file("ball.json")).at("/area_ratio").asDouble(), 1.0, 1e-9);
        double made = json(file("ball.json")).at("/ball_mm").asDouble();
        assertTrue(type("ball", "--wanted", Double.toString(made), "--thickness", "0.10").out()
                .contains("opening 0.400"), ball.out());
        assertEquals(type("ball", "--opening", "0.28", "--thickness", "0.12").status(), 1,
                "it does not let go");
        assertEquals(type("ball", "--opening", "0.42", "--thickness", "0.10", "--pitch", "0.5").status(), 1,
                "the web is too thin");
        assertEquals(type("ball", "--thickness", "0.10").status(), 2);
        assertTrue(type("joint", "--ball", "0.45", "--pads", "0.38,0.40", "--pitch", "0.8").out()
                .contains("gap to the next 0.313"));
        assertEquals(type("joint", "--ball", "0.45", "--pads", "0.38").status(), 2);
        assertTrue(type("spheres", "--count", "264", "--diameter", "0.5", "--alloy", "Sn63Pb37").out()
                .startsWith("286 spheres, 0.550 mg"));
    }

    @Test
    public void seatIsReckoned() {
        assertEquals(type("pullin", "--offset", "0.08,0.05", "--turn", "1.5", "--corner", "8", "--pad", "0.3")
                .status(), 1);
        assertTrue(type("pullin", "--offset", "0.02,0.0", "--corner", "8", "--pad", "0.3").out()
                .contains("recovers"));
        assertTrue(type("edges", "--gaps", "0.42,0.45,0.47,0.43", "--length", "62").out()
                .contains("tilt 0.046"));
        assertTrue(
                type("edges", "--diameters", "0.298,0.305,0.301,0.312,0.284").out().contains("spread 9.3 %"));
        assertEquals(type("edges").status(), 2);
        assertEquals(type("pullin", "--offset", "1", "--corner", "8", "--pad", "0.3").status(), 2);
    }

    @Test
    public void mapIsMadeMirroredAndFitted() throws Exception {
        Said made = type("map", file("chip.csv"), "--new", "17x17", "--pitch", "0.65", "--diameter", "0.4",
                "--gap", "G7:L11", "--gap", "A1",
                "--mirror", file("top.csv"));
        assertTrue(made.out().contains("263 sites, pitch 0.650 mm"), made.out() + made.err());
        assertEquals(type("map", file("chip.csv"), "--stencil", file("chip.csv"), "--json", file("fit.json"))
                .status(), 0);
        assertEquals(json(file("fit.json")).at("/degrees").asInt(), 0);
        Said mirrored = type("map", file("chip.csv"), "--stencil", file("top.csv"));
        assertEquals(mirrored.status(), 0,
                "a square field with one corner missing fits its mirror when it is turned");
        assertTrue(mirrored.out().contains("turned by 270"), mirrored.out());
        assertEquals(type("map", file("other.csv"), "--new", "17x17", "--pitch", "0.65").status(), 0);
        Said other = type("map", file("chip.csv"), "--stencil", file("other.csv"));
        assertEquals(other.status(), 1);
        assertTrue(other.out().contains("26 holes without a site"), other.out());
        assertEquals(type("map", file("x.csv"), "--new", "17", "--pitch", "0.65").status(), 2);
        Said two = type("map", file("two.csv"), "--new", "17x17", "--pitch", "0.65", "--second",
                "4x5 1.0 0.5 at 0 -8.5");
        assertEquals(two.status(), 0, two.err());
        assertTrue(two.out().contains("309 sites, pitch 0.650 mm, from A1 to B:D5"), two.out());
        assertTrue(type("map", file("x.csv"), "--new", "17x17", "--pitch", "0.65", "--second", "4x5 1.0")
                .err().contains("where its middle lies"));
    }

    @Test
    public void actsAtTheStencilArePlayedAndJudged() throws Exception {
        Said good = type("forming", "align", "fill", "wipe", "hold", "heat", "solid:95", "--json",
                file("f.json"));
        assertEquals(good.status(), 0, good.out());
        assertEquals(json(file("f.json")).at("/next").asText(), "slide");
        assertEquals(json(file("f.json")).at("/release_high_c").asDouble(), 197, 0.6);
        Said flux = type("forming", "align", "fill", "flux", "--json", file("f.json"));
        assertEquals(flux.status(), 1);
        assertEquals(json(file("f.json")).at("/played/2/rating").asText(), "wrong");
        assertEquals(json(file("f.json")).at("/restarts").asInt(), 1);
        assertEquals(type("forming", "--method", "spheres", "align", "flux", "fill").status(), 0);
        Said odd = type("forming", "squeeze");
        assertEquals(odd.status(), 2);
        assertTrue(odd.err().contains("is none of align, flux"), odd.err());
    }

    @Test
    public void pagesOfTheDocsAreFresh() throws Exception {
        var words = new Words(Locale.ENGLISH, TempUnit.CELSIUS);
        assertEquals(Files.readString(Path.of("../docs/records.md")), RecordSheet.of(words),
                "run: ./greenbead records --markdown docs/records.md");
        assertEquals(Files.readString(Path.of("../docs/schools.md")), SchoolSheet.of(words),
                "run: ./greenbead schools --markdown docs/schools.md");
        Path acts = Path.of(file("acts.md"));
        assertEquals(type("forming", "--markdown", file("acts.md")).status(), 0);
        assertEquals(Files.readString(Path.of("../docs/forming-acts.md")), Files.readString(acts),
                "run: ./greenbead forming --markdown docs/forming-acts.md");
        assertEquals(type("records").status(), 0);
        assertEquals(type("schools").status(), 0);
    }

    /** A corrected reading: what stands now, what stood before, and who said so when. */
    @Test
    public void aFigureSaysWhereItIsFrom() throws Exception {
        assertEquals(type("note", "SB-0406", "unit", "revision=B", "--author", "technician A", "--data", data)
                .status(), 0);
        assertEquals(type("note", "SB-0406", "unit", "revision=C", "--author", "technician B", "--data", data)
                .status(), 0);
        Said said = type("where", "SB-0406", "board", "--json", file("where.json"), "--data", data);
        assertEquals(said.status(), 0, said.err());
        JsonNode revision = null;
        for (JsonNode f : json(file("where.json")).get("figures")) {
            assertTrue(f.get("fact").asString().startsWith("board."), f.toString());
            revision = f.get("fact").asString().equals("board.revision") ? f : revision;
        }
        assertEquals(revision.get("value").asString(), "C");
        assertEquals(revision.get("by").asString(), "technician B");
        assertEquals(revision.get("earlier").get(0).get("value").asString(), "B");
        assertTrue(said.out().contains("before: B"), said.out());
        assertEquals(type("where", "SB-0406", "sails", "--data", data).status(), 1);
        assertEquals(type("where", "SB-9999", "--data", data).status(), 2);
    }
}
