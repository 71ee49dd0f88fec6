package org.greenbead.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.sql.DriverManager;
import java.time.Instant;
import java.time.InstantSource;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.core.chip.StockChip;
import org.greenbead.store.Format;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.testng.annotations.Test;

/** Boards and benches of one's own by the command line, in an empty folder. */
public class OwnWorldTest extends InFolder {
    @Test
    public void aBoardIsMadeMeasuredAndShown() throws Exception {
        assertEquals(run("board", "list"), 0, err);
        assertTrue(out.contains("no board yet"), out);
        assertEquals(run("board", "new", "ES-5", "--size", "60x80", "--title", "Echo sounder"), 0, err);
        assertTrue(out.contains("assumed: its thickness, its layers and copper"), out);
        assertEquals(run("board", "put", "ES-5", "U1", "--at", "30x40", "--size", "15x15", "--kind", "lidded",
                "--part", "K-41", "--pitch", "0.8"), 0, err);
        assertEquals(run("board", "put", "ES-5", "J1", "--at", "8x70", "--size", "8x4", "--part-kind",
                "connector"), 0, err);
        assertEquals(run("board", "set", "ES-5", "--thickness", "1.2"), 0, err);
        assertFalse(out.contains("thickness,"), out);
        assertEquals(run("board", "show", "ES-5"), 0, err);
        assertTrue(out.contains("K-41") && out.contains("connector") && out.contains("no job stands on it"),
                out);
        assertEquals(run("board", "show", "ES-5", "--json"), 0, err);
        Board read = new OpenFiles().parse(out, "shown", Format.BOARD, Board.class);
        assertEquals(read.requireChip("U1").joint().pitchMm(), 0.8, 1e-12);
        assertEquals(read.assumed(), List.of("copper", "U1.package", "U1.life", "U1.alloy"));
    }

    /** A chip has a label of its own and a life that only grows; what is called good or bad needs a proof, and what is gone keeps its label. */
    @Test
    public void aChipIsMadeKnownMovedAndGone() throws Exception {
        assertEquals(run("chip", "list"), 0, err);
        assertTrue(out.contains("no chip yet"), out);
        assertEquals(run("chip", "new", "K-41", "--pads", "400", "--side", "15", "--alloy", "sac305", "--at",
                "drawer 3", "--from", "Ferry Hollin"), 0, err);
        assertTrue(out.contains("GB-0001-") && out.contains("drawer") && out.contains("SAC305"), out);
        String label = out.substring(0, 9);
        assertEquals(run("chip", "new", "K-41"), 0, err);
        assertTrue(out.contains("looks like " + label), out);
        assertEquals(run("chip", "set", label, "--good", ""), 2);
        assertTrue(err.contains("without a proof"), err);
        assertEquals(run("chip", "set", label), 2);
        assertTrue(err.contains("say what is known of it"), err);
        assertEquals(
                run("chip", "set", label, "--bad", "short at core", "--at", "AB-1 U1", "--mark", "dot north"),
                0, err);
        assertTrue(out.contains("bad") && out.contains("board") && out.contains("AB-1 U1"), out);
        assertEquals(run("chip", "show", label), 0, err);
        assertTrue(out.contains("bad by: short at core") && out.contains("written down")
                && out.contains("moved to AB-1 U1"), out);
        assertEquals(run("chip", "show", label, "--json"), 0, err);
        StockChip read = new OpenFiles().parse(out, "shown", Format.CHIP, StockChip.class);
        assertEquals(read.health(), StockChip.Health.BAD);
        assertEquals(read.orientation(), "dot north");
        assertEquals(read.life().size(), 4);
        assertEquals(run("chip", "remove", label, "--why", "thrown away"), 0, err);
        assertEquals(run("chip", "remove", label), 2);
        assertTrue(err.contains("is gone already"), err);
        assertEquals(run("chip", "new", "K-41"), 0, err);
        assertFalse(out.startsWith(label), "a label is not given twice: " + out);
        assertEquals(run("chip", "show", "GB-0001-0"), 2);
        assertTrue(err.contains("a digit of it is wrong") || err.contains("no chip label"), err);
        assertEquals(run("chip", "new", "K-41", "--alloy", "cheese"), 2);
        assertTrue(err.contains("cheese"), err);
        assertEquals(run("chip", "new", "K-41", "--side", "-273.2"), 2);
        assertTrue(err.contains("side of"), err);
    }

    /** A chip that a job is at work on stays. */
    @Test
    public void aChipAtWorkStays() throws Exception {
        run("chip", "new", "K-41");
        String label = out.substring(0, 9);
        try (Ledger ledger = Ledger.open(data, new OpenFiles(), InstantSource.system())) {
            var beads = org.greenbead.core.route.Routes.shipped().beads(
                    org.greenbead.core.route.JobKind.REPLACE,
                    org.greenbead.core.route.Routes.recipes("ES-5", "U1"));
            ledger.save(new org.greenbead.core.route.Job("J-0001", "Echo sounder", "dead", "Ferry Hollin",
                    "ES-5", "U1", "window", beads), "opened", "");
            StockChip chip = ledger.chips().getFirst();
            ledger.save(chip.moved(StockChip.Place.TRAY, "", Optional.of("J-0001"), Instant.EPOCH, "taken"));
        }
        assertEquals(run("chip", "remove", label), 2);
        assertTrue(err.contains("job J-0001 is at work on it"), err);
    }

    /** Thermocouples of one's own bench are put, read back, judged by the board that they are on, and taken away. */
    @Test
    public void probesOfABench() {
        run("board", "new", "ES-5", "--size", "60x80");
        run("board", "put", "ES-5", "U1", "--at", "30x40", "--size", "15x15");
        run("bench", "new", "window", "--kind", "open_small");
        assertEquals(run("bench", "probe", "window", "beside"), 2, out);
        assertTrue(err.contains("--at"), err);
        assertEquals(run("bench", "probe", "window", "beside", "--at", "42x40", "--board", "ES-5"), 0, err);
        assertTrue(out.contains("channel 1, on the board at 42.0 x 40.0 mm of the top"), out);
        assertEquals(run("bench", "probe", "window", "over", "--at", "30x40", "--board", "ES-5"), 0, err);
        assertTrue(out.contains("over: channel 2, on the chip's body"), out);
        assertEquals(run("bench", "probe", "window", "over", "--touches", "board", "--board", "ES-5"), 2);
        assertTrue(err.contains("[chip_top, joint]"), err);
        assertEquals(run("bench", "probe", "window", "far", "--at", "61x40", "--board", "ES-5"), 2);
        assertTrue(err.contains("is not on board ES-5"), err);
        assertEquals(run("bench", "probe", "window", "third", "--at", "10x10", "--channel", "2"), 2);
        assertEquals(run("bench", "probe", "window", "beside", "--remove"), 0, err);
        assertEquals(run("bench", "probe", "window", "beside", "--remove"), 2);
        assertEquals(run("bench", "probe", "window", "third", "--at", "10x10"), 0, err);
        assertTrue(out.contains("third: channel 1"), "the free channel is taken: " + out);
        // A board that is smaller than the one the probes were on last is rehearsed all the same.
        run("board", "new", "SM-1", "--size", "24x20");
        run("board", "put", "SM-1", "U1", "--at", "12x10", "--size", "9x9");
        assertEquals(run("new", "replace", "--id", "J-2", "--board", "SM-1", "--target", "U1", "--bench",
                "window", "--title", "t", "--complaint", "c", "--customer", "d"), 0, err);
        run("rehearse", "J-2");
        assertTrue(out.contains("SM-1 U1, lift"), out + err);
        run("bench", "show", "window");
        assertTrue(out.contains("over: channel 2"), "the bench keeps it: " + out);
    }

    /** A usual alloy put in by the program is no knowledge: nothing ticks itself from it, and the plan is told so. */
    @Test
    public void whatWasAssumedIsNotKnown() {
        run("board", "new", "ES-5", "--size", "60x80");
        run("board", "put", "ES-5", "U1", "--at", "30x40", "--size", "15x15");
        run("board", "put", "ES-5", "U2", "--at", "44x40", "--size", "8x8", "--alloy", "SAC305");
        run("bench", "new", "window", "--kind", "open_small");
        assertEquals(run("new", "replace", "--id", "J-1", "--board", "ES-5", "--target", "U1", "--bench",
                "window", "--title", "t", "--complaint", "c", "--customer", "d"), 0, err);
        run("note", "J-1", "plan", "ball_alloy=SAC305");
        run("tick", "J-1", "esd_on");
        assertTrue(out.contains("unknown  alloy_known") && out.contains("unknown  lowest_solidus_known"),
                out);
        run("check", "J-1");
        assertTrue(out.contains("alloy.factory-joints-guessed"), out);
        run("where", "J-1");
        assertTrue(out.contains("assumed"), out);
        run("note", "J-1", "joint", "site=U1", "alloy=Sn63Pb37");
        run("tick", "J-1", "labels_on");
        assertTrue(out.contains("yes      alloy_known") && out.contains("yes      lowest_solidus_known"),
                out);
        run("check", "J-1");
        assertFalse(out.contains("alloy.factory-joints-guessed"), out);
        run("board", "put", "ES-5", "U2", "--at", "44x40", "--size", "8x8");
        run("check", "J-1");
        assertTrue(out.contains("neighbour.joints-melt") && out.contains("Those of U2 begin to melt at 217"),
                "hot enough whatever it is: " + out);
        run("board", "put", "ES-5", "U2", "--at", "52x60", "--size", "8x8");
        run("check", "J-1");
        assertFalse(out.contains("neighbour.joints-melt"), out);
        assertTrue(out.contains("alloy.neighbour-guessed") && out.contains("U2 is taken for SAC305"), out);
        run("note", "J-1", "joint", "site=U2", "alloy=SAC305");
        run("check", "J-1");
        assertFalse(out.contains("alloy.neighbour-guessed"), out);
        assertEquals(run("way", "J-1", "lift_side"), 2);
        assertEquals(run("way", "J-1"), 0, err);
        assertTrue(out.lines().allMatch(l -> l.contains(": ") && l.contains("*")), out);
    }

    @Test
    public void whatAJobWasWorkedWithIsNeverChanged() throws Exception {
        run("board", "new", "ES-5", "--size", "60x80");
        run("board", "put", "ES-5", "U1", "--at", "30x40", "--size", "15x15");
        run("bench", "new", "window", "--kind", "infrared");
        try (Ledger ledger = Ledger.open(data, new OpenFiles(), InstantSource.system())) {
            var beads = org.greenbead.core.route.Routes.shipped().beads(
                    org.greenbead.core.route.JobKind.REPLACE,
                    org.greenbead.core.route.Routes.recipes("ES-5", "U1"));
            ledger.save(new org.greenbead.core.route.Job("J-0001", "Echo sounder", "dead", "Ferry Hollin",
                    "ES-5", "U1", "window", beads), "opened", "");
        }
        assertEquals(run("board", "set", "ES-5", "--thickness", "1.1"), 0, "an open job takes it up: " + err);
        try (Ledger ledger = Ledger.open(data, new OpenFiles(), InstantSource.system())) {
            var job = ledger.job("J-0001");
            for (var bead : job.beads()) {
                job = job.with(bead.id(), org.greenbead.core.route.BeadState.GREEN);
            }
            ledger.save(job, "ended", "");
        }
        assertEquals(run("board", "set", "ES-5", "--thickness", "1.0"), 0, err);
        assertTrue(out.contains("worked with it as it was then: J-0001"), out);
        try (Ledger ledger = Ledger.open(data, new OpenFiles(), InstantSource.system())) {
            assertEquals(ledger.board(ledger.job("J-0001")).thicknessMm(), 1.1, 1e-9);
            assertEquals(ledger.boards().getFirst().thicknessMm(), 1.0, 1e-9);
        }
        assertEquals(run("board", "remove", "ES-5"), 2);
        assertTrue(err.contains("J-0001 stands on it"), err);
        assertEquals(run("bench", "remove", "window"), 2);
        assertTrue(err.contains("J-0001"), err);
        assertEquals(run("ledger", "bin", "J-0001"), 0, err);
        assertEquals(run("ledger", "list"), 0, err);
        assertFalse(out.contains("J-0001"), out);
        assertTrue(out.contains("no job yet in ") && out.contains("greenbead new"), out);
        assertEquals(run("ledger", "bin"), 0, err);
        assertTrue(out.contains("J-0001") && out.contains("kept until"), out);
        assertEquals(run("ledger", "bin", "--empty"), 0, err);
        assertTrue(out.contains("nothing has lain there for 30 days"), out);
        assertEquals(run("board", "remove", "ES-5"), 2, "it can still be taken back");
        assertEquals(run("ledger", "take-back", "J-0001"), 0, err);
        assertEquals(run("note", "J-0001", "rail", "name=core", "ohm=18"), 0, err);
        assertEquals(run("note", "J-0001", "rail", "--record", "rail-1", "--remove"), 0, err);
        assertTrue(out.contains("--bring-back"), out);
        assertEquals(run("note", "J-0001", "symptom", "--bring-back"), 2);
        assertTrue(err.contains("those that were: rail-1"), err);
        assertEquals(run("note", "J-0001", "rail", "--bring-back"), 0, err);
        assertTrue(out.contains("brought back rail-1"), out);
        assertEquals(run("report", "J-0001", data.resolve("mine.pdf").toString()), 0, err);
        assertEquals(run("note", "J-0001", "rail", "--record", "rail-1", "--remove"), 2, out);
        assertTrue(err.contains("mine.pdf") && err.contains("--even-so"), err);
        assertEquals(run("note", "J-0001", "rail", "--record", "rail-1", "--remove", "--even-so"), 0, err);
        assertEquals(run("ledger", "bin", "J-0001-x"), 2);
        assertTrue(err.contains("J-0001-x"), err);
        assertEquals(run("ledger", "take-back", "J-0001"), 2);
        assertEquals(run("board", "copy", "ES-5", "ES-5b"), 0, err);
        assertEquals(run("board", "set", "ES-5b", "--thickness", "1.0"), 0, err);
        assertEquals(run("board", "remove", "ES-5b"), 0, err);
        run("board", "list");
        assertTrue(out.contains("ES-5 ") && !out.contains("ES-5b"), out);
    }

    @Test
    public void aChipGetsTheBallsOfItsMap() throws Exception {
        var map = new StringBuilder("site,x_mm,y_mm\n");
        for (int i = 0; i < 100; i++) {
            map.append("ABCDEFGHJK".charAt(i / 10)).append(i % 10 + 1).append(',')
                    .append(0.8 * (i % 10 - 4.5))
                    .append(',').append(0.8 * (4.5 - i / 10)).append('\n');
        }
        String file = java.nio.file.Files.writeString(data.resolve("m.csv"), map).toString();
        run("board", "new", "ES-6", "--size", "60x80");
        run("board", "put", "ES-6", "U1", "--at", "30x40", "--size", "10x10", "--part", "K-41", "--pitch",
                "1");
        run("board", "put", "ES-6", "U2", "--at", "10x10", "--size", "5x5", "--part", "K-41");
        run("board", "put", "ES-6", "U3", "--at", "50x70", "--size", "10x10");
        assertEquals(run("board", "balls", "ES-6", "U1"), 2);
        assertTrue(err.contains("no bead map of K-41"), err);
        assertEquals(run("board", "balls", "ES-6", "U2", file), 2);
        assertTrue(err.contains("measure the chip first"), err);
        assertEquals(run("board", "balls", "ES-6", "U3", file), 2);
        assertTrue(err.contains("--part"), err);
        assertEquals(run("board", "balls", "ES-6", "U1", file), 0, err);
        assertTrue(out.contains("100 balls, pitch 0.800 mm, ball 0.450 mm"), out);
        assertEquals(run("board", "balls", "ES-6", "U1"), 0, "the ledger keeps it: " + err);
        java.nio.file.Files.writeString(data.resolve("m.csv"), map.append("L1,9,9\n"));
        assertEquals(run("board", "balls", "ES-6", "U1", file), 2);
        assertTrue(err.contains("another bead map of K-41"), err);
    }

    @Test
    public void aBenchIsMadeSetAndShown() throws Exception {
        assertEquals(run("bench", "list"), 0, err);
        assertTrue(out.contains("no bench yet"), out);
        assertEquals(run("bench", "new", "window", "--kind", "hot_plate", "--title", "By the window"), 0,
                err);
        assertTrue(out.contains("nothing of it measured yet"), out);
        assertEquals(run("bench", "set", "window", "--room", "19", "--nozzles", "5,9", "--air-max", "500"), 0,
                err);
        assertEquals(run("bench", "set", "window", "--room", "-273.2"), 2);
        assertTrue(err.contains("room temperature"), err);
        assertEquals(run("bench", "copy", "window", "door"), 0, err);
        assertEquals(run("bench", "show", "door", "--json"), 0, err);
        var read = new OpenFiles().parse(out, "shown", Format.BENCH, org.greenbead.core.bench.Bench.class);
        assertEquals(read.ambientC(), 19, 1e-12);
        assertEquals(read.air().nozzlesMm(), List.of(5.0, 9.0));
        assertTrue(read.plate());
        assertEquals(run("bench", "remove", "door"), 0, err);
    }

    /** A bench of a hot-air pencil alone: made, told, planned on with air and nothing else, and given a heater later. */
    /** A second station with a dial of its own, taken and given away; what else stands at the bench is used where nothing is named. */
    @Test
    public void aBenchHasSeveralStationsAndItsOwnMeter() throws Exception {
        run("bench", "new", "window", "--kind", "open_small");
        assertEquals(
                run("bench", "station", "window", "pen", "--nozzles", "4,6", "--flow-max", "30", "--dial",
                        "steps", "--marks", "1=5 8=30", "--offset", "12"),
                0, err);
        assertTrue(out.contains("air station pen: up to") && out.contains("dial in steps, nozzles 4 6 mm")
                && out.contains("air station air station, in hand"), out);
        assertEquals(run("bench", "station", "window", "pen", "--take", "--call", "fine pen"), 0, err);
        assertTrue(out.contains("air station fine pen, in hand"), out);
        run("bench", "show", "window", "--json");
        Bench read = new OpenFiles().parse(out, "shown", Format.BENCH, Bench.class);
        assertEquals(read.air().dial().offsetK(), 12.0);
        assertEquals(read.stations().size(), 2);
        assertEquals(run("bench", "station", "window", "fine pen", "--remove"), 2);
        assertTrue(err.contains("in hand; take another one first"), err);
        assertEquals(run("bench", "station", "window", "air station", "--remove"), 0, err);
        assertEquals(run("bench", "station", "window"), 0, err);
        assertTrue(out.contains("one air station, fine pen"), out);
        assertEquals(run("bench", "fit", "window", "--meter", "meter two, red on ground", "--support",
                "four posts"), 0, err);
        assertTrue(out.contains("board held by: four posts"), out);
        run("board", "new", "ES-5", "--size", "60x80");
        run("board", "put", "ES-5", "U1", "--at", "30x40", "--size", "15x15");
        assertEquals(run("new", "revive", "--board", "ES-5", "--target", "U1", "--bench", "window", "--title",
                "Echo sounder", "--complaint", "dead", "--customer", "Ferry Hollin"), 0, err);
        run("rails", "J-0001", "--read", "core=18.4");
        try (Ledger ledger = Ledger.open(data, new OpenFiles(), InstantSource.system())) {
            assertEquals(ledger.job("J-0001").records("rail").getFirst().text("meter"),
                    "meter two, red on ground");
        }
        assertEquals(run("current", "record", "--job", "J-0001", "--out", data.resolve("c.csv").toString()),
                2);
        assertTrue(err.contains("bench fit ID --supply HOST"), err);
    }

    @Test
    public void aBenchWithoutAHeaterIsPlannedOn() throws Exception {
        run("board", "new", "ES-5", "--size", "60x80");
        run("board", "put", "ES-5", "U1", "--at", "30x40", "--size", "15x15", "--part", "K-41");
        assertEquals(run("bench", "new", "kitchen", "--kind", "air_alone"), 0, err);
        assertTrue(out.contains("no heater"), out);
        assertEquals(run("bench", "set", "kitchen", "--heater-max", "300"), 2);
        assertTrue(err.contains("has no heater") && err.contains("--heater open_small"), err);
        assertEquals(run("new", "revive", "--title", "Echo sounder", "--complaint", "no depth", "--customer",
                "Ferry Hollin", "--board", "ES-5", "--target", "U1", "--bench", "kitchen"), 0, err);
        assertEquals(run("rehearse", "J-0001"), 0, err);
        assertEquals(run("plan", "J-0001"), 0, out + err);
        assertTrue(out.contains("Air alone: keeps every limit") && !out.contains("Heater"), out);
        assertEquals(run("bench", "reach", "kitchen", "--board", "ES-5"), 0, err);
        assertTrue(out.contains("14 mm") && !out.contains("heater alone") && out.contains("Sn42Bi58"), out);
        assertEquals(run("bench", "reach", "kitchen", "--board", "ES-5", "--target", "U9"), 2);
        assertTrue(err.contains("U9"), err);
        assertEquals(run("bench", "set", "kitchen", "--heater", "open_large"), 0, err);
        assertTrue(out.contains("280 x 240"), out);
        assertEquals(run("bench", "set", "kitchen", "--heater", "campfire"), 2);
        assertTrue(err.contains("open_small"), err);
    }

    /** A job begun by the command line stands on its own board and bench from the first check on, its recipes being first guesses. */
    @Test
    public void aJobBegunHereKnowsItsBoard() throws Exception {
        run("board", "new", "ES-5", "--size", "60x80");
        run("board", "put", "ES-5", "U1", "--at", "30x40", "--size", "15x15", "--part", "K-41");
        run("bench", "new", "window", "--kind", "infrared");
        String job = data.resolve("mine.job.bead.json").toString();
        assertEquals(run("new", "revive", job, "--id", "J-0001", "--title", "Echo sounder", "--complaint",
                "dead", "--customer", "Ferry Hollin", "--board", "ES-5", "--target", "U1", "--bench",
                "window"), 0, err);
        run("check", job);
        assertTrue(out.contains("ledger in ") && !out.contains("which has no"), out + err);
    }

    /** Without a file the job begins in the ledger as one begun in the window does: next number, first guesses at heat, the complaint as its symptom. */
    @Test
    public void aJobWithoutAFileBeginsInTheLedger() {
        String[] begin = {"new", "revive", "--title", "Echo sounder", "--complaint", "no depth", "--customer",
                "Ferry Hollin", "--board", "ES-5", "--target", "U1", "--bench", "window"};
        assertEquals(run(begin), 2);
        assertTrue(err.contains("no ledger in") && err.contains("board new"), err);
        run("board", "new", "ES-5", "--size", "60x80");
        run("board", "put", "ES-5", "U1", "--at", "30x40", "--size", "15x15", "--part", "K-41");
        run("bench", "new", "window", "--kind", "infrared");
        assertEquals(run(begin), 0, err);
        assertTrue(out.contains("job J-0001 in "), out);
        assertEquals(run(begin), 0, err);
        assertTrue(out.contains("job J-0002 in "), out);
        run("ledger", "bin", "J-0002");
        var taken = new java.util.ArrayList<>(java.util.List.of(begin));
        taken.addAll(java.util.List.of("--id", "J-0002"));
        assertEquals(run(taken.toArray(String[]::new)), 2, "one in the bin can be taken back");
        assertTrue(err.contains("J-0002 is given already"), err);
        assertEquals(run("proofs", "J-0001"), 1, err);
        assertTrue(out.contains("no depth"), out);
        assertEquals(run("rehearse", "J-0001"), 0, err);
    }

    /** Screws, shields and regions of a board are kept, shown, read back from its file and taken off again. */
    @Test
    public void whatIsNeitherChipNorPartIsMarked() throws Exception {
        run("board", "new", "ES-5", "--size", "60x80");
        assertEquals(run("board", "mark", "ES-5", "S1", "--kind", "screw", "--at", "4x4", "--length", "6"), 0,
                err);
        assertEquals(run("board", "mark", "ES-5", "SH1", "--kind", "shield", "--at", "30x40", "--size",
                "20x18"), 0, err);
        assertEquals(run("board", "mark", "ES-5", "ZX1", "--kind", "hands_off", "--at", "30x10", "--size",
                "12x8", "--side", "bottom"), 0, err);
        assertEquals(run("board", "show", "ES-5"), 0, err);
        assertTrue(out.contains("3 marks") && out.contains("6.0 mm long") && out.contains("hands off"), out);
        run("board", "show", "ES-5", "--json");
        java.nio.file.Path file = data.resolve("other.board.bead.json");
        java.nio.file.Files.writeString(file, out.replace("\"ES-5\"", "\"ES-6\""));
        assertEquals(run("import", file.toString()), 0, err);
        assertEquals(run("board", "take", "ES-6", "SH1"), 0, err);
        assertTrue(out.contains("2 marks"), out);
        assertEquals(run("board", "mark", "ES-5", "S2", "--kind", "screw", "--at", "400x4"), 2);
        assertTrue(err.contains("does not lie wholly on the board"), err);
        assertEquals(run("board", "mark", "ES-5", "H1", "--kind", "hole", "--at", "4x9", "--length", "6"), 2);
    }

    @Test
    public void hostileNamesAndSizesAreRefused() {
        assertEquals(run("board", "new", "../../x", "--size", "60x80"), 2);
        assertTrue(err.contains("slash"), err);
        assertEquals(run("board", "new", "A", "--size", "2000x80"), 2);
        assertTrue(err.contains("2000 mm"), err);
        assertEquals(run("board", "new", "A", "--size", "60x80", "--kind", "wood"), 2);
        assertTrue(err.contains("general"), err);
        run("board", "new", "A", "--size", "60x80");
        assertEquals(run("board", "new", "A", "--size", "60x80"), 2);
        assertTrue(err.contains("there already"), err);
        assertEquals(run("board", "put", "A", "U1", "--at", "1x1", "--size", "14x14"), 2);
        assertTrue(err.contains("wholly on the board"), err);
        assertEquals(run("board", "put", "A", "U1", "--at", "30x30", "--size", "90x14"), 2);
        assertEquals(run("board", "take", "A", "U7"), 2);
        assertTrue(err.contains("nothing called U7"), err);
        assertEquals(run("board", "remove", "nowhere"), 2);
    }

    /** A ledger that cannot be used any more is called that, with its place and what to do, not by the statement that met it. */
    @Test
    public void aFaultOfTheLedgerHasItsOwnName() throws Exception {
        run("board", "new", "ES-5", "--size", "60x80");
        try (var other = DriverManager.getConnection("jdbc:sqlite:" + data.resolve("ledger.db"));
                var sql = other.createStatement()) {
            sql.executeUpdate(
                    "CREATE TRIGGER full BEFORE INSERT ON document BEGIN SELECT RAISE(ABORT, 'no room'); END");
        }
        assertEquals(run("board", "new", "ES-6", "--size", "60x80"), 2);
        assertTrue(err.contains(data.resolve("ledger.db") + " cannot be used"), err);
        assertTrue(err.contains("no room") && err.contains("left as it is"), err);
        assertFalse(err.contains("INSERT") || err.contains("Something went wrong"), err);
        assertEquals(run("board", "list"), 0, err);
        assertTrue(out.contains("ES-5") && !out.contains("ES-6"), out);
    }
}
