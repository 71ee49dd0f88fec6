package org.greenbead.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.InstantSource;
import java.util.List;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.Job;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** Timers and stock by the command line, in a house of one's own. */
public class HouseVerbsTest extends InFolder {
    @BeforeMethod
    public void house() throws Exception {
        assertEquals(run("board", "new", "ES-5", "--size", "60x80"), 0, err);
        assertEquals(run("board", "put", "ES-5", "U1", "--at", "30x40", "--size", "15x15", "--part", "K-41"),
                0,
                err);
        assertEquals(run("bench", "new", "window", "--kind", "infrared"), 0, err);
        Path file = data.resolve("j-1.job.bead.json");
        assertEquals(run("new", "revive", file.toString(), "--id", "J-1", "--board", "ES-5", "--target", "U1",
                "--bench", "window",
                "--title",
                "Echo sounder", "--complaint", "dead", "--customer", "Ferry Hollin"), 0, err);
        assertEquals(run("import", file.toString()), 0, err);
    }

    private Job job() throws Exception {
        try (Ledger ledger = Ledger.open(data, new OpenFiles(), InstantSource.system())) {
            return ledger.job("J-1");
        }
    }

    @Test
    public void timersAreStartedListedAndEnded() throws Exception {
        assertEquals(run("timer", "list"), 0, err);
        assertTrue(out.contains("nothing runs"), out);
        assertEquals(run("timer", "start", "J-1", "bake", "--c", "110"), 2, out);
        assertTrue(err.contains("--minutes"), "level and age are not known: " + err);
        assertEquals(run("timer", "start", "J-1", "rest"), 0, err);
        assertEquals(run("timer", "start", "J-1", "cure", "--minutes", "1:30", "--c", "80", "--label-c", "80",
                "--label-minutes", "90"), 0, err);
        assertEquals(run("timer", "list"), 0, err);
        assertEquals(out.lines().map(l -> l.split(" ")[1]).toList(), List.of("timer-1", "timer-2"),
                "30 min before 90");
        assertEquals(run("timer", "end", "J-1", "timer-2"), 0, err);
        assertTrue(out.contains("before its time"), out);
        assertEquals(job().records("bake").getFirst().number("minutes"), 90.0);
        assertFalse(job().records("bake").getFirst().text("end").isEmpty());
        assertEquals(run("timer", "end", "J-1", "timer-2"), 2);
        assertTrue(err.contains("ended already"), err);
    }

    private BeadState course() throws Exception {
        return job().beads().stream().filter(b -> b.id().equals("decide_course")).findFirst().orElseThrow()
                .state();
    }

    /** What a gate waited for opens it as soon as it is noted, and a note takes nothing back that the board had shown. */
    @Test
    public void aNoteOpensTheGateThatWaitedForIt() throws Exception {
        assertEquals(run("board", "put", "ES-5", "U1", "--at", "30x40", "--size", "15x15", "--alloy",
                "SAC305"), 0, err);
        assertEquals(run("note", "J-1", "rail", "name=VCC", "ohm=0.3"), 0, err);
        for (String check : List.of("evidence_noted", "course_agreed", "consents_signed")) {
            run("tick", "J-1", check);
        }
        assertEquals(course(), BeadState.DONE, "ticked, but nothing says what the owner consented to");
        assertEquals(job().attested("lowest_solidus_known"), Attest.YES, "the board shows it");
        assertEquals(run("note", "J-1", "intake", "consent=temporary"), 0, err);
        assertEquals(course(), BeadState.GREEN);
        assertEquals(job().attested("lowest_solidus_known"), Attest.YES);
        assertEquals(run("check", "J-1"), 0, err);
        assertFalse(out.contains("Course stays shut"), out);
    }

    /** A joint of 138 °C on the board: an oven of 150 is stopped as it is begun. */
    @Test
    public void anOvenOverTheSolidusIsToldAtOnce() {
        assertEquals(run("note", "J-1", "joint", "site=U4", "alloy=Sn42Bi58"), 0, err);
        assertEquals(run("timer", "start", "J-1", "bake", "--minutes", "2h", "--c", "150"), 1, err);
        assertTrue(out.contains("STOP The oven melts a joint"), out);
        assertEquals(run("timer", "start", "J-1", "bake", "--minutes", "2h", "--c", "110"), 0, out);
    }

    @Test
    public void stockIsCountedUsedAndOrdered() throws Exception {
        assertEquals(run("stock", "new", "PA-1", "paste", "name=fine", "alloy=sn63pb37", "unit=g", "least=5",
                "price=0.5", "limit_hours=8"), 0, err);
        assertEquals(run("stock", "new", "PA-1", "paste"), 2);
        assertTrue(err.contains("there already"), err);
        assertEquals(run("stock", "new", "../x", "paste"), 2);
        assertEquals(run("stock", "set", "PA-1", "colour=blue"), 2);
        assertTrue(err.contains("is no field"), err);
        assertEquals(run("stock", "do", "PA-1", "taken_in", "--amount", "6"), 0, err);
        assertEquals(run("stock", "reorder"), 0);
        assertTrue(out.contains("nothing to order"), out);
        assertEquals(run("stock", "do", "PA-1", "opened", "--at", "2031-04-02T08:00:00Z"), 0, err);
        assertEquals(run("stock", "do", "PA-1", "back", "--at", "2031-04-02T20:00:00Z"), 0, err);
        assertEquals(run("stock", "use", "PA-1", "J-1", "--amount", "2"), 0, err);
        assertEquals(job().records("lot").getFirst().number("hours_out"), 12.0);
        assertEquals(job().records("lot").getFirst().text("alloy"), "Sn63Pb37");
        assertEquals(job().records("cost").getFirst().number("material"), 1.0);
        assertEquals(run("stock", "reorder"), 0);
        assertTrue(out.contains("PA-1") && out.contains("TO ORDER"), out);
        assertEquals(run("stock", "remove", "PA-1"), 2);
        assertTrue(err.contains("J-1"), err);
        assertEquals(run("stock", "do", "PA-1", "used"), 2);
        assertTrue(err.contains("belongs to a job"), err);
        assertEquals(run("stock", "show", "PA-1"), 0);
        assertTrue(out.contains("for J-1"), out);
        assertEquals(run("stock", "do", "PA-1", "scrapped"), 0, err);
        assertEquals(run("stock", "list"), 0);
        assertTrue(out.contains("nothing yet"), out);
    }

    /** A step of one's own goes through the ledger, is worked, and new jobs of the kind begin with it. */
    @Test
    public void stepsOfTheHouse() throws Exception {
        assertEquals(run("steps", "J-1", "--add", "Float test in the tank", "--phase", "prove", "--check",
                "Dry inside",
                "--check", "Beacon heard"), 0, err);
        assertTrue(out.contains("prove    open   Float test in the tank"), out);
        assertEquals(run("tick", "J-1", "own:Dry inside"), 0, err);
        assertEquals(job().attested("own:Dry inside"), Attest.YES);
        assertEquals(run("steps", "J-1", "--leave-out", "prepare_power", "--reason", "no time"), 2);
        assertTrue(err.contains("guards a person"), err);
        assertEquals(run("steps", "J-1", "--leave-out", "Power off", "--reason", "no time"), 2);
        assertTrue(err.contains("guards a person"), "a step is meant by what the list calls it: " + err);
        assertEquals(run("steps", "J-1", "--leave-out", "Teapot", "--reason", "cold"), 2);
        assertTrue(err.contains("\"Teapot\"") && err.contains("Joint history, "), err);
        assertEquals(run("steps", "J-1", "--leave-out", "plan_kit"), 2, "without a reason");
        assertEquals(
                run("steps", "J-1", "--leave-out", "kit", "--reason", "kit is ready",
                        "--keep-for-house"),
                0, err);
        Path next = data.resolve("j-2.job.bead.json");
        assertEquals(run("new", "revive", next.toString(), "--id", "J-2", "--board", "ES-5", "--target", "U1",
                "--bench", "window", "--title", "t", "--complaint", "c", "--customer", "d"), 0, err);
        assertTrue(out.contains("Float test in the tank"), out);
        assertFalse(Files.readString(next).contains("plan_kit"));
        assertEquals(run("steps", "J-1", "--as-shipped"), 0, err);
        assertEquals(run("new", "revive", next.toString(), "--id", "J-3", "--board", "ES-5", "--target", "U1",
                "--bench", "window", "--title", "t", "--complaint", "c", "--customer", "d"), 0, err);
        assertTrue(Files.readString(next).contains("plan_kit"));
    }

    /** A thing goes to another house as a file; another one of its number is not overwritten, and a torn file names its fault. */
    @Test
    public void stockTravelsAsAFile() throws Exception {
        assertEquals(run("stock", "new", "ST-7", "stencil", "name=trial field", "uses_max=40", "fits=K-41"),
                0, err);
        assertEquals(run("stock", "show", "ST-7", "--json"), 0, err);
        Path file = data.resolve("st-7.stock.bead.json");
        Files.writeString(file, out);
        assertEquals(run("stock", "set", "ST-7", "uses_max=50"), 0, err);
        assertEquals(run("import", file.toString()), 2);
        assertTrue(err.contains("Nothing was changed"), err);
        assertEquals(run("import", file.toString(), "--replace"), 0, err);
        assertEquals(run("stock", "list"), 0);
        assertTrue(out.contains("used 0 of 40") && out.contains("for K-41"), out);
        Files.writeString(file, Files.readString(file).replace("\"uses_max\" : 40.0", "\"uses_max\" : -3"));
        assertEquals(run("import", file.toString(), "--replace"), 2);
        assertTrue(err.contains("/uses_max"), err);
    }
}
