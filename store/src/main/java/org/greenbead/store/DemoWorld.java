package org.greenbead.store;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.InstantSource;
import java.util.List;
import java.util.Optional;
import java.util.function.DoubleConsumer;
import org.greenbead.core.account.Account;
import org.greenbead.core.account.CurveRecords;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.chip.StockChip;
import org.greenbead.core.electric.CurrentTrace;
import org.greenbead.core.electric.CurveCompare;
import org.greenbead.core.electric.CurveReference;
import org.greenbead.core.electric.SimulatedStart;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.Eyes;
import org.greenbead.core.run.RunEvent;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.RunSession;
import org.greenbead.core.run.RunState;
import org.greenbead.core.run.SimulatedBench;
import org.greenbead.core.run.SimulatedTechnician;
import org.greenbead.core.stock.StockItem;
import org.greenbead.core.work.Opening;

/** Skerry Bench: an invented harbour workshop with four jobs at different points of their routes, and a past. */
public final class DemoWorld {
    /** Seed of the simulated bench unless another is asked for. */
    public static final long SEED = 417;
    private static final List<String> BOARDS = List.of("wb-7", "cp-12", "sr-3", "tg-2", "kc-1");
    private static final List<String> BENCHES = List.of("quay-1", "quay-2", "quay-3", "quay-4");
    private static final List<String> RECIPES = List.of("wb7-lift", "wb7-seat", "cp12-lift", "cp12-seat",
            "sr3-lift", "sr3-seat", "tg2-lift", "tg2-seat");
    private static final List<String> JOBS = List.of("sb-0405", "sb-0405-u6", "sb-0406", "sb-0417", "sb-0415",
            "sb-0412",
            "sb-0409");
    private static final List<String> CHIPS = List.of("gb-0041-5", "gb-0042-3", "gb-0043-1", "gb-0044-0",
            "gb-0045-8", "gb-0046-6", "gb-0047-4", "gb-0048-2");
    private static final List<String> STOCK = List.of("st-01", "st-02", "pa-01", "pa-02", "fl-01", "sp-01",
            "wi-01",
            "ti-01");
    /** The job whose chip has been balled and photographed. */
    private static final String BALLED = "SB-0415";
    /** The job whose board was photographed again after the lift. */
    /** The job that is at its proofs. */
    private static final String PROVING = "SB-0409";
    private static final List<Integer> HEALTHY_STARTS = List.of(1, 2);
    private static final double SUPPLY_V = 12;
    private static final double LIMIT_A = 3;
    private static final int START_S = 22;
    private static final String LIFTED = "SB-0412";
    /** Jobs whose board was photographed at intake. */
    private static final List<String> PHOTOGRAPHED = List.of("SB-0417", "SB-0406");
    private final OpenFiles files;

    public DemoWorld(OpenFiles files) {
        this.files = files;
    }

    /** The plan of a demo bead, straight from the shipped files. */
    public RunPlan plan(String jobId, String beadId) throws BadFileException {
        Job job = read(jobId.toLowerCase(java.util.Locale.ROOT), Format.JOB, Job.class);
        var bead = job.bead(beadId).orElseThrow();
        return RunPlan.of(job, bead,
                read(job.board().toLowerCase(java.util.Locale.ROOT), Format.BOARD, Board.class),
                read(job.bench(), Format.BENCH, Bench.class),
                RunPlan.Task.of(bead) == RunPlan.Task.FORM
                        ? Optional.empty()
                        : Optional.of(read(bead.recipe().orElseThrow(), Format.RECIPE, Recipe.class)));
    }

    /** One plan of every demo board. */
    public List<RunPlan> plans() throws BadFileException {
        var plans = new java.util.ArrayList<RunPlan>();
        for (String job : List.of("SB-0417", "SB-0415", "SB-0412", "SB-0409")) {
            plans.add(plan(job, "lift_run"));
        }
        return List.copyOf(plans);
    }

    /** Ids of its boards. */
    public List<String> boards() {
        return BOARDS.stream().map(b -> b.toUpperCase(java.util.Locale.ROOT)).toList();
    }

    /** A board, bench or recipe of this world; empty where it has none of this id. */
    public <T> Optional<T> find(Format format, String id, Class<T> type) {
        String name = id.toLowerCase(java.util.Locale.ROOT);
        List<String> known = switch (format) {
            case BOARD -> BOARDS;
            case BENCH -> BENCHES;
            case RECIPE -> RECIPES;
            default -> List.of();
        };
        try {
            return known.contains(name) ? Optional.of(read(name, format, type)) : Optional.empty();
        } catch (BadFileException e) {
            throw new IllegalStateException("a file of the demo world cannot be read", e);
        }
    }

    /**
     * A job on one of these boards, with its next heat there or a first guess of one.
     *
     * @throws BadFileException when board or bench are not of this world
     */
    public RunPlan onBoard(Job job) throws BadFileException {
        Board board = find(Format.BOARD, job.board(), Board.class)
                .orElseThrow(() -> new BadFileException("demo world", 0, "", "it has no board " + job.board(),
                        "Use one of " + String.join(", ", boards())));
        Bench bench = find(Format.BENCH, job.bench(), Bench.class)
                .orElseThrow(() -> new BadFileException("demo world", 0, "", "it has no bench " + job.bench(),
                        "Use one of " + String.join(", ", BENCHES)));
        return Opening.onBoard(job, board, bench, id -> find(Format.RECIPE, id, Recipe.class));
    }

    private <T> T read(String name, Format format, Class<T> type) throws BadFileException {
        String file = name + "." + format.word() + ".bead.json";
        try (InputStream in = DemoWorld.class.getResourceAsStream("/org/greenbead/store/demo/" + file)) {
            if (in == null) {
                throw new BadFileException(file, 0, "", "it is not in this build", "Build again");
            }
            return files.parse(new String(in.readAllBytes(), StandardCharsets.UTF_8), file, format, type);
        } catch (IOException e) {
            throw new BadFileException(file, 0, "", e.getMessage(), "Build again");
        }
    }

    /**
     * Fills an empty ledger; leaves one that has jobs alone.
     *
     * @param progress told the part done, 0 to 1
     * @return true when it was filled
     */
    public boolean fill(Ledger ledger, InstantSource clock, DoubleConsumer progress)
            throws BadFileException, IOException {
        if (!ledger.jobs().isEmpty()) {
            return false;
        }
        for (String id : BOARDS) {
            ledger.save(read(id, Format.BOARD, Board.class));
        }
        for (String id : BENCHES) {
            ledger.save(read(id, Format.BENCH, Bench.class));
        }
        for (String id : RECIPES) {
            ledger.save(read(id, Format.RECIPE, Recipe.class));
        }
        for (String id : CHIPS) {
            ledger.save(read(id, Format.CHIP, StockChip.class));
        }
        for (String id : STOCK) {
            ledger.save(read(id, Format.STOCK, StockItem.class));
        }
        for (String id : JOBS) {
            Job job = read(id, Format.JOB, Job.class);
            starting(ledger, job);
            Job seen = PHOTOGRAPHED.contains(job.id()) ? photographed(ledger, job) : job;
            seen = job.id().equals(LIFTED) ? lifted(ledger, photographed(ledger, job)) : seen;
            Job made = job.id().equals(BALLED) ? balled(ledger, seen) : seen;
            made = job.id().equals(PROVING) ? recorded(ledger, made) : made;
            ledger.save(Account.noted(Optional.empty(), made, clock.instant(), ""), "opened", "");
        }
        new DemoPast(files, this).tell(ledger, clock, progress);
        return true;
    }

    /** Recipes that nobody has written yet begin as first guesses. */
    private void starting(Ledger ledger, Job job) throws BadFileException {
        Board board = ledger.document(Format.BOARD, job.board(), Board.class);
        Bench bench = ledger.document(Format.BENCH, job.bench(), Bench.class);
        for (Recipe recipe : Opening.recipes(job, board, bench)) {
            if (!RECIPES.contains(recipe.id())) {
                ledger.save(recipe);
            }
        }
    }

    /** The chip after its balls were formed, with its bead map. */
    private static Job balled(Ledger ledger, Job job) throws BadFileException, IOException {
        Chip chip = ledger.document(Format.BOARD, job.board(), Board.class).requireChip(job.target());
        BeadMap map = DemoBalls.map(chip);
        ledger.beadMaps().save(chip.part(), map);
        Photos.Photo kept = ledger.photos().add(DemoBalls.photo(map), job.id() + "-balls.jpg");
        return job.with(new Kept(job.freeId("picture"), "picture", Instant.parse("2026-11-24T10:31:00Z"),
                "technician A",
                java.util.Map.of("view", "balls", "file", kept.name(), "caption", "after the melt")));
    }

    /** Starts of the unit at the supply: of two healthy ones, of this one as it came and as it is now. */
    private static Job recorded(Ledger ledger, Job job) throws BadFileException {
        Job told = job;
        for (int seed : HEALTHY_STARTS) {
            CurrentTrace trace = start(SimulatedStart.Fault.NONE, seed);
            told = curve(told, CurveRecords.fields(trace, CurveRecords.Taken.HEALTHY, Optional.empty(), 0,
                    ledger.curves().add(trace)));
        }
        CurrentTrace before = start(SimulatedStart.Fault.NO_MEMORY, 5);
        CurrentTrace after = start(SimulatedStart.Fault.NONE, 6);
        for (CurrentTrace trace : List.of(before, after)) {
            String file = ledger.curves().add(trace);
            Optional<CurveReference> healthy = ledger.curves()
                    .reference(CurveRecords.healthy(List.of(told), job.board(), file), trace);
            told = curve(told, CurveRecords.fields(trace,
                    trace == before ? CurveRecords.Taken.BEFORE : CurveRecords.Taken.AFTER,
                    healthy.map(r -> CurveCompare.of(trace, r)),
                    healthy.map(CurveReference::boards).orElse(0), file));
        }
        return told;
    }

    private static CurrentTrace start(SimulatedStart.Fault fault, long seed) {
        return new SimulatedStart(SUPPLY_V, LIMIT_A, fault).trace(seed, START_S);
    }

    private static Job curve(Job job, java.util.Map<String, Object> fields) {
        return job.with(
                new Kept(job.freeId("curve"), "curve", Instant.parse("2026-11-24T12:05:00Z"), "technician A",
                        fields));
    }

    /** The same board after the lift: the camera was held otherwise, and two small parts went with the air. */
    private static Job lifted(Ledger ledger, Job job) throws BadFileException, IOException {
        Board board = ledger.document(Format.BOARD, job.board(), Board.class);
        DemoPhoto photo = DemoPhoto.of(board, job.id().hashCode(), java.util.Set.of(17, 58), job.target(),
                22);
        Photos.Photo kept = ledger.photos().add(photo.png(), job.id() + "-lifted.png");
        return job.with(new Kept(job.freeId("picture"), "picture", Instant.parse("2026-11-24T11:20:00Z"),
                "technician A", java.util.Map.of("view", "board_top", "file", kept.name(), "caption",
                        "after the lift", "corners", photo.corners())));
    }

    /** The board as a camera would have seen it, drawn; its corners are known exactly. */
    private static Job photographed(Ledger ledger, Job job) throws BadFileException, IOException {
        Board board = ledger.document(Format.BOARD, job.board(), Board.class);
        DemoPhoto photo = DemoPhoto.of(board, job.id().hashCode());
        Photos.Photo kept = ledger.photos().add(photo.png(), job.id() + ".png");
        ledger.setting(Ledger.BOARD_PHOTO + board.id(), kept.name() + "|" + photo.corners());
        return job.with(new Kept(job.freeId("picture"), "picture", Instant.parse("2026-11-24T09:02:00Z"),
                "technician A", java.util.Map.of("view", "board_top", "file", kept.name(), "caption",
                        "as it came in", "corners", photo.corners())));
    }

    /** Runs a session to its end with a technician who follows the coach, at two samples a second. */
    public static RunState drive(RunSession session, SimulatedBench bench, RunPlan plan, long seed) {
        var eyes = new Eyes(bench, seed);
        var technician = new SimulatedTechnician(plan.task(), true);
        double time = 0;
        session.pump(0);
        RunState state = session.start(0);
        while (state.status() != RunState.Status.ENDED) {
            time += 0.5;
            state = session.pump(time);
            Optional<RunEvent> word = technician.act(state, session.plan(), eyes);
            if (word.isPresent()) {
                state = session.take(word.get());
            }
        }
        return state;
    }
}
