package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.InstantSource;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.bench.Equipment;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** A job goes to another machine whole, or not at all. */
public class JobBundleTest {
    private final OpenFiles files = new OpenFiles();
    private final InstantSource clock = InstantSource.fixed(Instant.parse("2026-11-25T08:00:00Z"));
    private Path home;
    private Path away;
    private Path packed;
    private Ledger mine;

    @BeforeClass
    public void fill() throws Exception {
        home = DemoFolder.copy();
        mine = Ledger.open(home, files, clock);
        packed = home.resolve("SB-0417.zip");
        try (var out = Files.newOutputStream(packed)) {
            JobBundle.pack(mine, "SB-0417", out);
        }
    }

    @AfterClass
    public void remove() {
        mine.close();
        Folders.remove(home);
        Folders.remove(away);
    }

    @BeforeMethod
    public void fresh() {
        if (away != null) {
            Folders.remove(away);
        }
        away = Folders.fresh();
    }

    private Ledger theirs() throws LedgerException {
        return Ledger.open(away.resolve("data"), files, clock);
    }

    /** The log of a long test goes along with what it was read for. */
    @Test
    public void logsOfTestsTravel() throws Exception {
        Path log = Files.writeString(away.resolve("night.log"), "Pass 3 complete, no errors\n");
        var told = mine.testLogs().take(log);
        Job before = mine.job("SB-0409");
        mine.save(before.with(new Kept("tested-77", "tested", clock.instant(), "",
                Map.of("what", "memory", "log", told.file()))), "noted", "tested-77");
        Path zip = away.resolve("SB-0409.zip");
        try (var out = Files.newOutputStream(zip)) {
            JobBundle.pack(mine, "SB-0409", out);
        }
        try (Ledger there = theirs()) {
            JobBundle.unpack(there, zip, false);
            assertEquals(Files.readString(there.testLogs().find(told.file()).orElseThrow()),
                    Files.readString(log));
        }
        assertTrue(mine.testLogs().find("../ledger.db").isEmpty());
        assertTrue(expectThrows(BadFileException.class,
                () -> mine.testLogs().take(Files.writeString(away.resolve("empty.log"), "\n\n"))).getMessage()
                .contains("nothing stands in it"));
    }

    /** A start-up curve goes along; one that is not what its name says is refused, and nothing is taken in. */
    @Test
    public void curvesTravelAndAForgedOneIsRefused() throws Exception {
        var trace = new org.greenbead.core.electric.SimulatedStart(12, 3,
                org.greenbead.core.electric.SimulatedStart.Fault.NONE).trace(1, 12);
        String name = mine.curves().add(trace);
        Job before = mine.job("SB-0409");
        mine.save(before.with(new Kept("curve-1", "curve", clock.instant(), "",
                Map.of("taken", "healthy", "file", name))), "noted", "curve-1");
        Path zip = away.resolve("SB-0409.zip");
        try (var out = Files.newOutputStream(zip)) {
            JobBundle.pack(mine, "SB-0409", out);
        }
        try (Ledger there = theirs()) {
            JobBundle.unpack(there, zip, false);
            assertEquals(there.curves().read(name).ampere(), mine.curves().read(name).ampere());
        }
        Path other = mine.curves().find(name).orElseThrow();
        byte[] true0 = Files.readAllBytes(other);
        Files.writeString(other,
                Files.readString(other).replace("time_s,current_a\n", "time_s,current_a\n-9,0.5\n"));
        try (var out = Files.newOutputStream(zip)) {
            JobBundle.pack(mine, "SB-0409", out);
        } finally {
            Files.write(other, true0);
        }
        Folders.remove(away.resolve("data"));
        try (Ledger there = theirs()) {
            BadFileException e = expectThrows(BadFileException.class,
                    () -> JobBundle.unpack(there, zip, false));
            assertTrue(e.getMessage().contains("not the one that its name says"), e.getMessage());
            assertTrue(there.jobs().isEmpty());
        }
    }

    @Test
    public void theBeadMapTravelsAndAnotherOneIsAClash() throws Exception {
        try (var out = Files.newOutputStream(away.resolve("SB-0415.zip"))) {
            JobBundle.pack(mine, "SB-0415", out);
        }
        Job job = mine.job("SB-0415");
        String part = mine.document(Format.BOARD, job.board(), Board.class).requireChip(job.target()).part();
        var ours = mine.beadMaps().find(part).orElseThrow();
        try (Ledger there = theirs()) {
            JobBundle.unpack(there, away.resolve("SB-0415.zip"), false);
            assertEquals(there.beadMaps().find(part).orElseThrow(), ours);
            var fewer = ours.sites().subList(0, ours.sites().size() - 1);
            there.beadMaps().save(part, new org.greenbead.core.bead.BeadMap(fewer));
            JobBundle.ClashException clash = org.testng.Assert.expectThrows(JobBundle.ClashException.class,
                    () -> JobBundle.unpack(there, away.resolve("SB-0415.zip"), false));
            assertTrue(clash.getMessage().contains("bead map " + part), clash.getMessage());
            JobBundle.unpack(there, away.resolve("SB-0415.zip"), true);
            assertEquals(there.beadMaps().find(part).orElseThrow(), ours);
        }
    }

    @Test
    public void arrivesComplete() throws Exception {
        try (var out = Files.newOutputStream(away.resolve("SB-0409.zip"))) {
            JobBundle.Carried carried = JobBundle.pack(mine, "SB-0409", out);
            assertEquals(carried.runs(), 4);
            assertEquals(carried.chips(), 1);
        }
        try (Ledger there = theirs()) {
            JobBundle.unpack(there, away.resolve("SB-0409.zip"), false);
            JobBundle.Carried carried = JobBundle.unpack(there, packed, false);
            assertEquals(carried.pictures(), 1);
            for (String id : List.of("SB-0409", "SB-0417")) {
                assertEquals(there.job(id), mine.job(id));
                assertEquals(there.document(Format.BOARD, mine.job(id).board(), Board.class),
                        mine.document(Format.BOARD, mine.job(id).board(), Board.class));
                assertEquals(there.history(id).subList(0, mine.history(id).size()), mine.history(id));
                assertEquals(there.chips().stream().filter(c -> c.job().equals(Optional.of(id))).toList(),
                        mine.chips().stream().filter(c -> c.job().equals(Optional.of(id))).toList());
            }
            for (RunEntry run : there.runs()) {
                RunEntry ours = mine.run(run.id()).orElseThrow();
                assertEquals(run, ours);
                assertEquals(Files.readAllBytes(there.logFile(run)), Files.readAllBytes(mine.logFile(ours)));
            }
            assertEquals(there.runs().size(), 4);
            String picture = mine.job("SB-0417").records("picture").getFirst().text("file");
            assertEquals(Files.readAllBytes(there.photos().find(picture).orElseThrow()),
                    Files.readAllBytes(mine.photos().find(picture).orElseThrow()));
            assertEquals(there.plan(there.job("SB-0417"), "lift_run"),
                    mine.plan(mine.job("SB-0417"), "lift_run"));
        }
    }

    @Test
    public void sameBundleTwiceIsNoClash() throws Exception {
        try (Ledger there = theirs()) {
            JobBundle.unpack(there, packed, false);
            JobBundle.unpack(there, packed, false);
            assertEquals(there.jobs().size(), 1);
        }
    }

    @Test
    public void clashIsSaidAndNothingIsTaken() throws Exception {
        try (Ledger there = theirs()) {
            Board other = mine.document(Format.BOARD, "WB-7", Board.class).withParts(List.of());
            there.save(other);
            String said = expectThrows(JobBundle.ClashException.class,
                    () -> JobBundle.unpack(there, packed, false))
                    .getMessage();
            assertTrue(said.contains("board WB-7") && said.contains("--replace"), said);
            assertTrue(there.jobs().isEmpty());
            assertTrue(there.chips().isEmpty());
            assertEquals(there.document(Format.BOARD, "WB-7", Board.class), other);
            JobBundle.unpack(there, packed, true);
            assertEquals(there.jobs().size(), 1);
            try (var copies = Files.list(away.resolve("data").resolve("copies"))) {
                assertEquals(copies.count(), 1, "the ledger was copied before its board was replaced");
            }
        }
    }

    /** Further chips of a job go along, one of them from a donor's board; whichever of them is named. */
    @Test
    public void furtherChipsTravelWithTheirJob() throws Exception {
        Path copy = DemoFolder.copy();
        try (Ledger from = Ledger.open(copy, files, clock); Ledger there = theirs()) {
            Job main = from.job("SB-0415");
            Board own = from.document(Format.BOARD, main.board(), Board.class);
            String second = own.chips().stream().map(Chip::name).filter(n -> !n.equals(main.target()))
                    .findFirst().orElseThrow();
            Board donor = from.boards().stream().filter(b -> !b.id().equals(own.id())).findFirst()
                    .orElseThrow();
            Job beside = NewStrand.begin(from, main, own.id(), second, JobKind.REPLACE, Optional.empty(),
                    clock.instant(), "A");
            Job given = NewStrand.begin(from, main, donor.id(), donor.chips().getFirst().name(),
                    JobKind.HARVEST, Optional.of("donor"), clock.instant(), "A");
            from.save(from.document(Format.BENCH, main.bench(), Bench.class)
                    .with(Equipment.NONE.readWith("meter two")));
            Path zip = away.resolve("family.zip");
            try (var out = Files.newOutputStream(zip)) {
                JobBundle.Carried carried = JobBundle.pack(from, given.id(), out);
                assertEquals(carried.job(), "SB-0415", "packed with the job it belongs to");
                assertEquals(carried.strands(), 2);
            }
            assertEquals(JobBundle.unpack(there, zip, false).strands(), 2);
            assertEquals(there.job(beside.id()), from.job(beside.id()));
            assertEquals(there.job(given.id()), from.job(given.id()));
            assertEquals(there.document(Format.BOARD, donor.id(), Board.class), donor);
            assertEquals(there.history(given.id()).getFirst(), from.history(given.id()).getFirst());
            assertTrue(there.onBoard(there.job(given.id())).recipe().stages().size() > 2, "its heat as well");
            assertEquals(there.document(Format.BENCH, main.bench(), Bench.class).equipment().meter(),
                    "meter two");
            var strange = new LinkedHashMap<String, byte[]>();
            try (var read = new ZipFile(zip.toFile())) {
                for (var entry : java.util.Collections.list(read.entries())) {
                    strange.put(entry.getName(), read.getInputStream(entry).readAllBytes());
                }
            }
            strange.remove("manifest.json");
            for (var forged : Map.of("another's strand", "SB-0409", "no strand", "").entrySet()) {
                var all = new LinkedHashMap<>(strange);
                String name = "strands/" + given.id() + ".bead.json";
                String text = new String(all.get(name), StandardCharsets.UTF_8);
                all.put(name, text(forged.getValue().isEmpty()
                        ? text.replaceAll(",\\s*\"strand_of\" : \"SB-0415\"", "")
                        : text.replace("\"strand_of\" : \"SB-0415\"",
                                "\"strand_of\" : \"" + forged.getValue() + "\"")));
                refused(all, "no further chip of job SB-0415");
            }
            var boardless = new LinkedHashMap<>(strange);
            boardless.remove("boards/b1.bead.json");
            refused(boardless, "its board " + donor.id() + " is not in the bundle");
        } finally {
            Folders.remove(copy);
        }
    }

    private void refused(Map<String, byte[]> all, String says) throws Exception {
        Path bad = away.resolve("bad.zip");
        try (var to = Files.newOutputStream(bad)) {
            Bundle.write(to, "SB-0415", "2026", all, files);
        }
        Path empty = away.resolve("empty");
        try (Ledger there = Ledger.open(empty, files, clock)) {
            BadFileException e = expectThrows(BadFileException.class,
                    () -> JobBundle.unpack(there, bad, true));
            assertTrue(e.getMessage().contains(says), e.getMessage());
            assertTrue(there.jobs().isEmpty());
        }
        Folders.remove(empty);
    }

    /** The sound bundle with something changed. */
    private interface Change {
        void to(Map<String, byte[]> files) throws Exception;
    }

    private Path changed(Change change, boolean mendManifest) throws Exception {
        Map<String, byte[]> all = new LinkedHashMap<>();
        try (var zip = new ZipFile(packed.toFile())) {
            for (var entry : java.util.Collections.list(zip.entries())) {
                all.put(entry.getName(), zip.getInputStream(entry).readAllBytes());
            }
        }
        change.to(all);
        Path out = away.resolve("changed.zip");
        if (mendManifest) {
            all.remove("manifest.json");
            try (var to = Files.newOutputStream(out)) {
                Bundle.write(to, "SB-0417", "2026", all, files);
            }
        } else {
            Files.write(out, zip(all));
        }
        return out;
    }

    private static byte[] zip(Map<String, byte[]> all) throws IOException {
        var bytes = new ByteArrayOutputStream();
        try (var zip = new ZipOutputStream(bytes)) {
            for (var file : all.entrySet()) {
                zip.putNextEntry(new ZipEntry(file.getKey()));
                zip.write(file.getValue());
                zip.closeEntry();
            }
        }
        return bytes.toByteArray();
    }

    private static byte[] text(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    @DataProvider
    Object[][] hostile() {
        return new Object[][]{
                {"climbs out", (Change) f -> f.put("../../evil.run.jsonl", text("x")), false,
                        "does not stay inside"},
                {"absolute", (Change) f -> f.put("/etc/evil.conf", text("x")), false, "does not stay inside"},
                {"backslash", (Change) f -> f.put("runs\\..\\evil.txt", text("x")), false,
                        "does not stay inside"},
                {"stowaway", (Change) f -> f.put("photos/extra.png", text("x")), false,
                        "not in the manifest"},
                {"changed after packing", (Change) f -> f.put("job.bead.json", text("{}")), false,
                        "changed or damaged"},
                {"part taken out", (Change) f -> f.remove("board.bead.json"), false, "not there"},
                {"board missing", (Change) f -> f.remove("board.bead.json"), true, "not in the bundle"},
                {"no manifest", (Change) f -> f.remove("manifest.json"), false, "no job bundle"},
                {"newer bundle",
                        (Change) f -> f.put("manifest.json", text("{\"format\":\"greenbead/bundle/2\"}")),
                        false, "newer"},
                {"other manifest", (Change) f -> f.put("manifest.json", text("{\"format\":7}")), false,
                        "is not greenbead/bundle/1"},
                {"manifest cut", (Change) f -> f.put("manifest.json", text("{\"format\":\"greenbead/bu")),
                        false, "manifest"},
                {"newer job", (Change) f -> f.put("job.bead.json", text(new String(f.get("job.bead.json"),
                        StandardCharsets.UTF_8).replace("greenbead/job/1", "greenbead/job/2"))), true,
                        "newer Green Bead"},
                {"huge number", (Change) f -> f.put("job.bead.json", text(new String(f.get("job.bead.json"),
                        StandardCharsets.UTF_8).replace("\"length_mm\" : 6.0", "\"length_mm\" : 1e300"))),
                        true, "length_mm"},
                {"wrong type", (Change) f -> f.put("job.bead.json", text(new String(f.get("job.bead.json"),
                        StandardCharsets.UTF_8)
                        .replace("\"title\" : \"Wave buoy logger\"", "\"title\" : [1]"))), true, "/title"},
                {"unknown record",
                        (Change) f -> f.put("job.bead.json", text(new String(f.get("job.bead.json"),
                                StandardCharsets.UTF_8)
                                .replace("\"type\" : \"symptom\"", "\"type\" : \"gossip\""))),
                        true, "no type of record"},
                {"not JSON", (Change) f -> f.put("job.bead.json", text("not at all")), true, "not JSON"},
                {"deep", (Change) f -> f.put("job.bead.json", text("[".repeat(100_000))), true, "not JSON"},
                {"picture that is none",
                        (Change) f -> f.put("photos/0123456789abcdef0123.png", text("hello")), true,
                        "no PNG"},
                {"another's run", (Change) f -> f.put("runs.json", text(
                        "[{\"id\":\"../x\",\"job_id\":\"SB-0417\",\"bead\":\"lift_run\",\"outcome\":\"proven\"}]")),
                        true, "run"},
                {"runs are no list", (Change) f -> f.put("runs.json", text("{}")), true, "list of runs"},
                {"history is no list", (Change) f -> f.put("history.json", text("7")), true, "history"},
                {"job of another name",
                        (Change) f -> f.put("job.bead.json", text(new String(f.get("job.bead.json"),
                                StandardCharsets.UTF_8).replace("\"SB-0417\"", "\"SB-0999\""))),
                        true, "manifest says"}};
    }

    @Test(dataProvider = "hostile")
    public void refusesWithAReasonAndTakesNothing(String name, Change change, boolean mend, String says)
            throws Exception {
        Path bad = changed(change, mend);
        try (Ledger there = theirs()) {
            BadFileException e = expectThrows(BadFileException.class,
                    () -> JobBundle.unpack(there, bad, true));
            assertTrue(e.getMessage().contains(says), name + ": " + e.getMessage());
            assertFalse(e.remedy().isBlank(), name);
            assertTrue(there.jobs().isEmpty(), name);
            assertTrue(there.chips().isEmpty(), name);
            assertFalse(Files.exists(away.resolve("data").resolve("photos")), name);
            expectThrows(BadFileException.class, () -> there.document(Format.BOARD, "WB-7", Board.class));
            try (var all = Files.walk(away)) {
                assertTrue(all.noneMatch(p -> p.getFileName().toString().startsWith("evil")), name);
            }
        }
    }

    @Test
    public void bombIsNotUnpacked() throws Exception {
        Path bad = changed(f -> f.put("photos/bomb.png", new byte[80 << 20]), true);
        assertTrue(Files.size(bad) < 8 << 20, "it is small on the disk");
        try (Ledger there = theirs()) {
            assertTrue(expectThrows(BadFileException.class, () -> JobBundle.unpack(there, bad, true))
                    .getMessage()
                    .contains("more than is allowed"));
        }
    }

    @Test
    public void cutInTheMiddleIsNoBundle() throws Exception {
        byte[] whole = Files.readAllBytes(packed);
        for (int part : new int[]{0, 1, 3, 5, 7, 9}) {
            Path cut = away.resolve("cut.zip");
            Files.write(cut, java.util.Arrays.copyOf(whole, whole.length * part / 10));
            try (Ledger there = theirs()) {
                BadFileException e = expectThrows(BadFileException.class,
                        () -> JobBundle.unpack(there, cut, false));
                assertTrue(e.getMessage().contains("cut.zip"), e.getMessage());
                assertTrue(there.jobs().isEmpty());
            }
        }
        assertTrue(expectThrows(BadFileException.class, () -> Bundle.read(away.resolve("none.zip"), files))
                .getMessage()
                .contains("no such file"));
    }

    @Test
    public void recordsGoThroughTheOpenFormat() throws Exception {
        Job job = mine.job("SB-0417");
        assertTrue(job.records().size() > 10);
        Job again = files.parse(files.write(Format.JOB, job), "job", Format.JOB, Job.class);
        assertEquals(again, job);
        Kept screw = again.records("screw").getFirst();
        assertEquals(screw.number("length_mm"), 6.0);
        assertTrue(Double.isNaN(screw.number("in")), "not noted is no number");
    }
}
