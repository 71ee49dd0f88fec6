package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.RunPlan;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** What a job at its end was worked with is no longer changed by anybody; what is still open takes up every change. */
public class GroundTest {
    private static final Instant NOW = Instant.parse("2026-11-01T08:00:00Z");
    private final OpenFiles files = new OpenFiles();
    private Path folder;
    private RunPlan plan;

    @BeforeMethod
    public void folder() throws Exception {
        folder = Files.createTempDirectory("greenbead-ground");
        plan = new DemoWorld(files).plan("SB-0417", "lift_run");
    }

    @AfterMethod(alwaysRun = true)
    public void remove() throws Exception {
        try (var all = Files.walk(folder)) {
            all.sorted(java.util.Comparator.reverseOrder()).forEach(p -> p.toFile().delete());
        }
    }

    private Ledger ledger(String name) throws Exception {
        return Ledger.open(folder.resolve(name), files, () -> NOW);
    }

    private Job named(String id) {
        Job any = plan.job();
        return new Job(id, any.title(), any.complaint(), any.customer(), any.board(), any.target(),
                any.bench(), any.beads());
    }

    private static Job ended(Job job) {
        for (var bead : job.beads()) {
            job = job.with(bead.id(), BeadState.GREEN);
        }
        return job;
    }

    /** One job over, one open, on the same board and bench, worked with the same recipe. */
    private Ledger two(String name) throws Exception {
        Ledger ledger = ledger(name);
        ledger.save(plan.board());
        ledger.save(plan.bench());
        ledger.save(plan.recipe());
        ledger.save(ended(named("J-0001")), "ended", "");
        ledger.save(named("J-0002"), "opened", "");
        return ledger;
    }

    @Test
    public void changesReachOpenJobsAlone() throws Exception {
        try (Ledger ledger = two("a")) {
            Recipe other = plan.recipe().by("elsewhere");
            ledger.save(plan.board().thick(plan.board().thicknessMm() + 0.3));
            ledger.save(plan.bench().in(plan.bench().ambientC() + 4));
            ledger.save(other);
            ledger.save(plan.board().thick(plan.board().thicknessMm() + 0.5));
            RunPlan then = ledger.plan(ledger.job("J-0001"), "lift_run");
            RunPlan now = ledger.plan(ledger.job("J-0002"), "lift_run");
            assertEquals(then.board().thicknessMm(), plan.board().thicknessMm(), 1e-9,
                    "the first one kept stays");
            assertEquals(now.board().thicknessMm(), plan.board().thicknessMm() + 0.5, 1e-9);
            assertEquals(then.bench(), plan.bench());
            assertEquals(now.bench().ambientC(), plan.bench().ambientC() + 4, 1e-9);
            assertEquals(then.recipe(), plan.recipe());
            assertEquals(now.recipe().station().orElseThrow(), "elsewhere");
            assertEquals(ledger.onBoard(ledger.job("J-0001")).bench(), plan.bench());
        }
    }

    @Test
    public void aJobTakenInHandAgainStandsOnWhatThereIsNow() throws Exception {
        try (Ledger ledger = two("a")) {
            ledger.save(plan.bench().in(30));
            Job again = ledger.job("J-0001").with("lift_run", BeadState.OPEN);
            ledger.save(again, "again", "");
            assertEquals(ledger.bench(again).ambientC(), 30, 1e-9);
            ledger.save(ended(again), "ended", "");
            assertEquals(ledger.bench(ended(again)).ambientC(), 30, 1e-9, "it ended with this one");
        }
    }

    @Test
    public void whatIsTakenInInPlaceOfOnesOwnIsNotPutUnderAnEndedJob() throws Exception {
        try (Ledger ledger = two("a")) {
            Path file = folder.resolve("other.board.bead.json");
            Board other = plan.board().thick(plan.board().thicknessMm() + 0.4);
            Files.writeString(file, files.write(Format.BOARD, other));
            TakeIn.from(ledger, List.of(file), true, n -> {
            }, () -> false);
            assertEquals(ledger.board(ledger.job("J-0001")), plan.board());
            assertEquals(ledger.board(ledger.job("J-0002")), other);
        }
    }

    @Test
    public void oneInTheBinKeepsItsOwnToo() throws Exception {
        try (Ledger ledger = two("a")) {
            ledger.bin().put("J-0001");
            ledger.save(plan.bench().in(30));
            ledger.bin().takeBack("J-0001");
            assertEquals(ledger.bench(ledger.job("J-0001")), plan.bench());
        }
    }

    @Test
    public void aBundleCarriesWhatWasKept() throws Exception {
        byte[] packed = packed();
        Path zip = folder.resolve("j.zip");
        Files.write(zip, packed);
        try (Ledger there = ledger("b")) {
            JobBundle.unpack(there, zip, false);
            Job job = there.job("J-0001");
            assertEquals(there.bench(job), plan.bench(), "as it was worked");
            assertNotEquals(there.document(Format.BENCH, job.bench(), Bench.class), plan.bench(), "as it is");
            there.save(plan.bench().in(12));
            assertEquals(there.bench(job), plan.bench());
        }
    }

    @Test
    public void whatTheJobDoesNotStandOnIsRefused() throws Exception {
        Path zip = folder.resolve("j.zip");
        Files.write(zip, packed());
        Bundle whole = Bundle.read(zip, files);
        Map<String, byte[]> inside = new LinkedHashMap<>();
        whole.manifest().files().forEach(i -> inside.put(i.name(), bytes(whole, i.name())));
        for (String forged : List.of(
                files.print(List.of(new Ground.Plot("J-0009", "bench", plan.bench().id(), "{}"))),
                files.print(List.of(new Ground.Plot("J-0001", "bench", "another", "{}"))),
                files.print(List.of(new Ground.Plot("J-0001", "chip", plan.bench().id(), "{}"))),
                files.print(List.of(new Ground.Plot("J-0001", "bench", plan.bench().id(), "{}"))),
                "[{}]", "nothing")) {
            inside.put("ground.json", forged.getBytes(StandardCharsets.UTF_8));
            var out = new ByteArrayOutputStream();
            Bundle.write(out, "J-0001", NOW.toString(), inside, files);
            Files.write(zip, out.toByteArray());
            try (Ledger there = ledger("c")) {
                var e = expectThrows(BadFileException.class, () -> JobBundle.unpack(there, zip, false));
                assertTrue(
                        e.getMessage().contains("Make the bundle again") || e.getMessage().contains("format"),
                        e.getMessage());
                assertTrue(there.jobs().isEmpty() && there.boards().isEmpty());
            }
        }
    }

    private byte[] packed() throws Exception {
        try (Ledger ledger = two("a")) {
            ledger.save(plan.bench().in(30));
            var out = new ByteArrayOutputStream();
            JobBundle.pack(ledger, "J-0001", out);
            return out.toByteArray();
        }
    }

    private static byte[] bytes(Bundle bundle, String name) {
        try {
            return bundle.bytes(name);
        } catch (BadFileException e) {
            throw new AssertionError(e);
        }
    }
}
