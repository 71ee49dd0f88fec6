package org.greenbead.store;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.core.chip.StockChip;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Job;
import tools.jackson.core.JacksonException;

/** Carries a job from one ledger to another. */
public final class JobBundle {
    /** The bead map of the chip that is worked. */
    private static final String LOGS = "logs/";
    private static final String MAP = "maps/target.map.csv";

    private JobBundle() {
    }

    /** What was carried. */
    public record Carried(String job, int recipes, int chips, int runs, int pictures) {}

    /** The ledger holds something else under the same name. */
    public static final class ClashException extends Exception {
        private static final long serialVersionUID = 1L;

        ClashException(String job, List<String> clashes) {
            super("The ledger holds another " + String.join(", another ", clashes) + ". Nothing of job " + job
                    + " was taken in. Rename yours, or take those of the bundle with --replace (the ledger is copied first).");
        }
    }

    /** Packs a job with all that belongs to it. @param to is closed */
    public static Carried pack(Ledger ledger, String jobId, OutputStream to)
            throws BadFileException, IOException {
        OpenFiles open = ledger.files();
        Job job = ledger.job(jobId);
        Map<String, byte[]> files = new LinkedHashMap<>();
        put(files, "job.bead.json", open.write(Format.JOB, job));
        put(files, "board.bead.json",
                open.write(Format.BOARD, ledger.document(Format.BOARD, job.board(), Board.class)));
        put(files, "bench.bead.json",
                open.write(Format.BENCH, ledger.document(Format.BENCH, job.bench(), Bench.class)));
        Set<String> recipes = new LinkedHashSet<>();
        job.beads().stream().flatMap(b -> b.recipe().stream()).forEach(recipes::add);
        int kept = 0;
        for (String recipe : recipes) {
            Optional<Recipe> there = recipe(ledger, recipe);
            if (there.isPresent()) {
                put(files, "recipes/r" + ++kept + ".bead.json", open.write(Format.RECIPE, there.get()));
            }
        }
        List<StockChip> chips = ledger.chips().stream().filter(c -> c.job().equals(Optional.of(jobId)))
                .toList();
        for (StockChip chip : chips) {
            put(files, "chips/" + chip.label() + ".bead.json", open.write(Format.CHIP, chip));
        }
        var runs = new ArrayList<RunEntry>();
        for (RunEntry run : ledger.runs()) {
            Path log = ledger.logFile(run);
            if (run.jobId().equals(jobId) && run.outcome().isPresent() && Files.isRegularFile(log)) {
                runs.add(run);
                files.put("runs/" + run.id() + ".run.jsonl", Files.readAllBytes(log));
            }
        }
        put(files, "runs.json", open.print(runs));
        put(files, "history.json", open.print(ledger.history(jobId)));
        String part = ledger.document(Format.BOARD, job.board(), Board.class).requireChip(job.target())
                .part();
        Optional<BeadMap> map = ledger.beadMaps().find(part);
        if (map.isPresent()) {
            put(files, MAP, BeadMapCsv.write(map.get()));
        }
        int pictures = 0;
        for (String name : pictures(job)) {
            Optional<Path> at = ledger.photos().find(name);
            if (at.isPresent()) {
                files.put("photos/" + name, Files.readAllBytes(at.get()));
                pictures++;
            }
        }
        for (Kept curve : job.records("curve")) {
            Optional<Path> at = ledger.curves().find(curve.text("file"));
            if (at.isPresent()) {
                files.put("curves/" + curve.text("file"), Files.readAllBytes(at.get()));
            }
        }
        for (Kept tested : job.records("tested")) {
            Optional<Path> at = ledger.testLogs().find(tested.text("log"));
            if (at.isPresent()) {
                files.put(LOGS + tested.text("log"), Files.readAllBytes(at.get()));
            }
        }
        Bundle.write(to, jobId, ledger.now().toString(), files, open);
        return new Carried(jobId, kept, chips.size(), runs.size(), pictures);
    }

    private static void put(Map<String, byte[]> files, String name, String text) {
        files.put(name, text.getBytes(StandardCharsets.UTF_8));
    }

    private static Optional<Recipe> recipe(Ledger ledger, String id) {
        try {
            return Optional.of(ledger.document(Format.RECIPE, id, Recipe.class));
        } catch (BadFileException e) {
            // A route may name a recipe that nobody has written yet.
            return Optional.empty();
        }
    }

    private static List<String> pictures(Job job) {
        return job.records("picture").stream().map(r -> r.text("file")).filter(f -> !f.isEmpty()).distinct()
                .toList();
    }

    /**
     * Takes a packed job in: all of it, or nothing.
     *
     * @param replace takes the bundle's where the ledger holds something else under the same name
     * @throws BadFileException when the bundle is not sound
     * @throws ClashException   when something else is there and {@code replace} is false
     */
    public static Carried unpack(Ledger ledger, Path file, boolean replace)
            throws BadFileException, IOException, ClashException {
        OpenFiles open = ledger.files();
        Bundle bundle = Bundle.read(file, open);
        Job job = open.parse(bundle.text("job.bead.json"), "job.bead.json", Format.JOB, Job.class);
        if (!job.id().equals(bundle.manifest().job())) {
            throw new BadFileException("job.bead.json", 0, "/id",
                    "the manifest says job " + bundle.manifest().job() + ", the file says " + job.id(),
                    "Make the bundle again");
        }
        Board board = open.parse(bundle.text("board.bead.json"), "board.bead.json", Format.BOARD,
                Board.class);
        Bench bench = open.parse(bundle.text("bench.bead.json"), "bench.bead.json", Format.BENCH,
                Bench.class);
        if (!job.board().equals(board.id()) || !job.bench().equals(bench.id())) {
            throw new BadFileException("job.bead.json", 0, "/board",
                    "it belongs to board " + job.board() + " on bench " + job.bench() + ", the bundle brings "
                            + board.id() + " and " + bench.id(),
                    "Make the bundle again");
        }
        var recipes = new ArrayList<Recipe>();
        for (String name : bundle.in("recipes")) {
            recipes.add(open.parse(bundle.text(name), name, Format.RECIPE, Recipe.class));
        }
        var chips = new ArrayList<StockChip>();
        for (String name : bundle.in("chips")) {
            chips.add(open.parse(bundle.text(name), name, Format.CHIP, StockChip.class));
        }
        List<RunEntry> runs = runs(bundle, job, open);
        List<JobEvent> history = history(bundle, open);
        var photos = new LinkedHashMap<String, byte[]>();
        for (String name : bundle.in("photos")) {
            byte[] bytes = bundle.bytes(name);
            String said = name.substring("photos/".length());
            if (!Photos.look(bytes, name).name().equals(said)) {
                throw new BadFileException(name, 0, "", "the picture is not the one that its name says",
                        "Make the bundle again");
            }
            photos.put(said, bytes);
        }
        var curves = new LinkedHashMap<String, byte[]>();
        for (String name : bundle.in("curves")) {
            byte[] bytes = bundle.bytes(name);
            String said = name.substring("curves/".length());
            CurrentCsv.parse(bundle.text(name), name);
            if (!Curves.name(bytes).equals(said)) {
                throw new BadFileException(name, 0, "", "the curve is not the one that its name says",
                        "Make the bundle again");
            }
            curves.put(said, bytes);
        }
        var logs = new LinkedHashMap<String, byte[]>();
        for (String name : bundle.in("logs")) {
            byte[] bytes = bundle.bytes(name);
            String said = name.substring(LOGS.length());
            if (!TestLogs.name(bytes).equals(said)) {
                throw new BadFileException(name, 0, "", "the log is not the one that its name says",
                        "Make the bundle again");
            }
            logs.put(said, bytes);
        }
        for (RunEntry run : runs) {
            String name = "runs/" + run.id() + ".run.jsonl";
            sound(bundle.bytes(name), name, run, ledger);
        }
        var arrival = new Ledger.Arrival(job, history, board, bench, recipes, chips, runs);
        Optional<BeadMap> map = bundle.in("maps").contains(MAP)
                ? Optional.of(BeadMapCsv.parse(bundle.text(MAP), MAP))
                : Optional.empty();
        String part = board.requireChip(job.target()).part();
        var clashes = new ArrayList<>(ledger.clashes(arrival));
        Optional<BeadMap> there = ledger.beadMaps().find(part);
        if (map.isPresent() && there.isPresent() && !there.equals(map)) {
            clashes.add("bead map " + part);
        }
        if (!clashes.isEmpty() && !replace) {
            throw new ClashException(job.id(), clashes);
        }
        // Files first: they are named by run and by content, so that what a failure leaves behind is no half job.
        for (Map.Entry<String, byte[]> log : logs.entrySet()) {
            ledger.testLogs().add(log.getValue());
        }
        for (Map.Entry<String, byte[]> photo : photos.entrySet()) {
            ledger.photos().add(photo.getValue(), photo.getKey());
        }
        for (Map.Entry<String, byte[]> curve : curves.entrySet()) {
            ledger.curves().add(curve.getValue());
        }
        for (RunEntry run : runs) {
            Path log = ledger.logFile(run);
            if (!Files.exists(log)) {
                SafeFiles.write(log, bundle.bytes("runs/" + run.id() + ".run.jsonl"));
            }
        }
        if (map.isPresent()) {
            ledger.beadMaps().save(part, map.get());
        }
        ledger.take(arrival, !clashes.isEmpty());
        return new Carried(job.id(), recipes.size(), chips.size(), runs.size(), photos.size());
    }

    private static List<RunEntry> runs(Bundle bundle, Job job, OpenFiles open) throws BadFileException {
        try {
            List<RunEntry> runs = List.of(open.unline(bundle.text("runs.json"), RunEntry[].class));
            for (RunEntry run : runs) {
                boolean bead = job.beads().stream().map(Bead::id).anyMatch(b -> b.equals(run.bead()));
                if (!run.jobId().equals(job.id()) || !run.id().matches("[A-Za-z0-9][A-Za-z0-9_-]{0,80}")
                        || run.outcome().isEmpty() || run.startedAt() == null
                        || !bead && run.bead() == null) {
                    throw new BadFileException("runs.json", 0, "",
                            "run " + run.id() + " does not belong to job "
                                    + job.id(),
                            "Make the bundle again");
                }
            }
            return runs;
        } catch (JacksonException | NullPointerException e) {
            throw new BadFileException("runs.json", 0, "", "the list of runs cannot be read",
                    "Make the bundle again");
        }
    }

    private static List<JobEvent> history(Bundle bundle, OpenFiles open) throws BadFileException {
        try {
            return List.of(open.unline(bundle.text("history.json"), JobEvent[].class));
        } catch (JacksonException | NullPointerException e) {
            throw new BadFileException("history.json", 0, "", "the history cannot be read",
                    "Make the bundle again");
        }
    }

    private static void sound(byte[] bytes, String name, RunEntry run, Ledger ledger)
            throws BadFileException, IOException {
        Path part = Files.createTempFile(ledger.folder().resolve("tmp"), "run", ".jsonl");
        try {
            Files.write(part, bytes);
            RunLog log = RunLog.read(part, ledger.files());
            if (!log.header().run().equals(run.id())) {
                throw new BadFileException(name, 1, "", "it is the log of run " + log.header().run(),
                        "Make the bundle again");
            }
        } finally {
            Files.deleteIfExists(part);
        }
    }
}
