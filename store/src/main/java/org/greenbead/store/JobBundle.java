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
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.core.chip.StockChip;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.Strands;
import tools.jackson.core.JacksonException;

/** Carries a job from one ledger to another. */
public final class JobBundle {
    private static final String LOGS = "logs/";
    /** The bead map of the chip that is worked. */
    private static final String MAP = "maps/target.map.csv";
    private static final String MAPS = "maps/";
    private static final String STRANDS = "strands/";
    private static final String HISTORIES = "histories/";
    private static final String BOARDS = "boards/";
    /** Boards, benches and recipes as a job at its end had them, where they have been changed since. */
    private static final String GROUND = "ground.json";

    private JobBundle() {
    }

    /** What was carried. @param strands further chips of the job, each with a number of its own */
    public record Carried(String job, int strands, int recipes, int chips, int runs, int pictures) {
        /** "SB-0412 with 2 recipes, 1 chips, ..". */
        public String said() {
            return String.format(Locale.ROOT, "%s with %s%d recipes, %d chips, %d runs and %d pictures", job,
                    strands == 0 ? "" : strands + " further chips of the job, ", recipes, chips, runs,
                    pictures);
        }
    }

    /** The ledger holds something else under the same name. */
    public static final class ClashException extends Exception {
        private static final long serialVersionUID = 1L;

        ClashException(String job, List<String> clashes) {
            super("The ledger holds another " + String.join(", another ", clashes) + ". Nothing of job " + job
                    + " was taken in. Rename yours, or take those of the bundle with --replace (the ledger is copied first).");
        }
    }

    /**
     * Packs a job with all that belongs to it: further chips of it, the boards they come from, recipes, runs, pictures. A strand is packed
     * with the job it belongs to.
     *
     * @param to is closed
     */
    public static Carried pack(Ledger ledger, String jobId, OutputStream to)
            throws BadFileException, IOException {
        OpenFiles open = ledger.files();
        List<Job> all = ledger.jobs();
        Job named = ledger.job(jobId);
        Job job = Strands.main(named, all).orElse(named);
        // One whose job is gone stands for itself.
        List<Job> strands = job.strandOf().isPresent() ? List.of() : Strands.of(job, all);
        var family = new ArrayList<Job>();
        family.add(job);
        family.addAll(strands);
        Map<String, byte[]> files = new LinkedHashMap<>();
        put(files, "job.bead.json", open.write(Format.JOB, job));
        put(files, "board.bead.json",
                open.write(Format.BOARD, ledger.document(Format.BOARD, job.board(), Board.class)));
        Bench bench = ledger.document(Format.BENCH, job.bench(), Bench.class);
        put(files, "bench.bead.json", open.write(Format.BENCH, bench));
        for (Job strand : strands) {
            put(files, STRANDS + strand.id() + ".bead.json", open.write(Format.JOB, strand));
            put(files, HISTORIES + strand.id() + ".json", open.print(ledger.history(strand.id())));
        }
        int boards = 0;
        for (String board : new LinkedHashSet<>(strands.stream().map(Job::board).toList())) {
            if (!board.equals(job.board())) {
                put(files, BOARDS + "b" + ++boards + ".bead.json",
                        open.write(Format.BOARD, ledger.document(Format.BOARD, board, Board.class)));
            }
        }
        Set<String> ids = family.stream().map(Job::id).collect(Collectors.toSet());
        Set<String> recipes = new LinkedHashSet<>();
        family.stream().flatMap(j -> j.beads().stream()).flatMap(b -> b.recipe().stream())
                .forEach(recipes::add);
        int kept = 0;
        for (String recipe : recipes) {
            Optional<Recipe> there = recipe(ledger, recipe);
            if (there.isPresent()) {
                put(files, "recipes/r" + ++kept + ".bead.json", open.write(Format.RECIPE, there.get()));
            }
        }
        List<StockChip> chips = ledger.chips().stream().filter(c -> c.job().filter(ids::contains).isPresent())
                .toList();
        for (StockChip chip : chips) {
            put(files, "chips/" + chip.label() + ".bead.json", open.write(Format.CHIP, chip));
        }
        var runs = new ArrayList<RunEntry>();
        for (RunEntry run : ledger.runs()) {
            Path log = ledger.logFile(run);
            if (ids.contains(run.jobId()) && run.outcome().isPresent() && Files.isRegularFile(log)) {
                runs.add(run);
                files.put("runs/" + run.id() + ".run.jsonl", Files.readAllBytes(log));
            }
        }
        List<Ground.Plot> ground = family.stream().flatMap(j -> ledger.ground(j).stream()).toList();
        if (!ground.isEmpty()) {
            put(files, GROUND, open.print(ground));
        }
        put(files, "runs.json", open.print(runs));
        put(files, "history.json", open.print(ledger.history(job.id())));
        for (Job member : family) {
            String part = ledger.document(Format.BOARD, member.board(), Board.class)
                    .requireChip(member.target()).part();
            Optional<BeadMap> map = ledger.beadMaps().find(part);
            if (map.isPresent()) {
                put(files, member == job ? MAP : MAPS + member.id() + ".map.csv",
                        BeadMapCsv.write(map.get()));
            }
        }
        int pictures = 0;
        for (String name : pictures(family, bench)) {
            Optional<Path> at = ledger.photos().find(name);
            if (at.isPresent()) {
                files.put("photos/" + name, Files.readAllBytes(at.get()));
                pictures++;
            }
        }
        for (Kept curve : family.stream().flatMap(j -> j.records("curve").stream()).toList()) {
            Optional<Path> at = ledger.curves().find(curve.text("file"));
            if (at.isPresent()) {
                files.put("curves/" + curve.text("file"), Files.readAllBytes(at.get()));
            }
        }
        for (Kept tested : family.stream().flatMap(j -> j.records("tested").stream()).toList()) {
            Optional<Path> at = ledger.testLogs().find(tested.text("log"));
            if (at.isPresent()) {
                files.put(LOGS + tested.text("log"), Files.readAllBytes(at.get()));
            }
        }
        Bundle.write(to, job.id(), ledger.now().toString(), files, open);
        return new Carried(job.id(), strands.size(), kept, chips.size(), runs.size(), pictures);
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

    private static List<String> pictures(List<Job> family, Bench bench) {
        return Stream
                .concat(family.stream().flatMap(j -> j.records("picture").stream()).map(r -> r.text("file")),
                        Stream.of(bench.equipment().photo()))
                .filter(f -> !f.isEmpty()).distinct().toList();
    }

    /** Further chips of the job; each has to belong to it. */
    private static List<Job> strands(Bundle bundle, Job job, OpenFiles open) throws BadFileException {
        var strands = new ArrayList<Job>();
        for (String name : bundle.in("strands")) {
            Job strand = open.parse(bundle.text(name), name, Format.JOB, Job.class);
            if (!strand.strandOf().equals(Optional.of(job.id())) || !strand.bench().equals(job.bench())
                    || strands.stream().anyMatch(s -> s.id().equals(strand.id()))
                    || strand.id().equals(job.id())) {
                throw new BadFileException(name, 0, "/strand_of", "it is no further chip of job " + job.id(),
                        "Make the bundle again");
            }
            strands.add(strand);
        }
        return strands;
    }

    /** Board by id; every job of the bundle has to find its own. */
    private static Map<String, Board> boards(Bundle bundle, Board main, List<Job> family, OpenFiles open)
            throws BadFileException {
        Map<String, Board> boards = new LinkedHashMap<>();
        boards.put(main.id(), main);
        for (String name : bundle.in("boards")) {
            Board board = open.parse(bundle.text(name), name, Format.BOARD, Board.class);
            boards.put(board.id(), board);
        }
        for (Job member : family) {
            Board board = boards.get(member.board());
            if (board == null) {
                throw new BadFileException("job " + member.id(), 0, "/board",
                        "its board " + member.board() + " is not in the bundle", "Make the bundle again");
            }
            board.requireChip(member.target());
        }
        return boards;
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
        Packed packed = read(ledger, file);
        List<String> clashes = packed.clashes(ledger);
        if (!clashes.isEmpty() && !replace) {
            throw new ClashException(packed.job(), clashes);
        }
        return packed.keep(ledger, clashes);
    }

    /**
     * A bundle that was read whole and found sound, and of which nothing is kept yet.
     *
     * @param files what its pictures, curves, test logs and runs hold, by their name in the bundle
     */
    record Packed(String job, Ledger.Arrival arrival, Map<String, BeadMap> maps, Map<String, byte[]> photos,
            List<byte[]> curves, List<byte[]> logs, Map<String, byte[]> runs) {

        /** What the ledger holds under the same name and of another content. */
        List<String> clashes(Ledger ledger) throws BadFileException {
            var clashes = new ArrayList<>(ledger.clashes(arrival));
            for (Map.Entry<String, BeadMap> map : maps.entrySet()) {
                if (ledger.beadMaps().find(map.getKey()).filter(there -> !there.equals(map.getValue()))
                        .isPresent()) {
                    clashes.add("bead map " + map.getKey());
                }
            }
            return clashes;
        }

        /** Files first: they are named by run and by content, so that what a failure leaves behind is no half job. */
        Carried keep(Ledger ledger, List<String> clashes) throws BadFileException, IOException {
            for (byte[] log : logs) {
                ledger.testLogs().add(log);
            }
            for (Map.Entry<String, byte[]> photo : photos.entrySet()) {
                ledger.photos().add(photo.getValue(), photo.getKey());
            }
            for (byte[] curve : curves) {
                ledger.curves().add(curve);
            }
            for (RunEntry run : arrival.runs()) {
                Path log = ledger.logFile(run);
                if (!Files.exists(log)) {
                    SafeFiles.write(log, runs.get(run.id()));
                }
            }
            for (Map.Entry<String, BeadMap> map : maps.entrySet()) {
                ledger.beadMaps().save(map.getKey(), map.getValue());
            }
            ledger.take(arrival, !clashes.isEmpty());
            return new Carried(job, arrival.jobs().size() - 1, arrival.recipes().size(),
                    arrival.chips().size(), arrival.runs().size(), photos.size());
        }
    }

    /** Reads a bundle and looks at all of it; nothing is kept. @throws BadFileException when it is not sound */
    static Packed read(Ledger ledger, Path file) throws BadFileException, IOException {
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
        var family = new ArrayList<Job>();
        family.add(job);
        family.addAll(strands(bundle, job, open));
        Map<String, Board> boards = boards(bundle, board, family, open);
        List<RunEntry> runs = runs(bundle, family, open);
        var history = new LinkedHashMap<String, List<JobEvent>>();
        for (Job member : family) {
            history.put(member.id(), history(bundle,
                    member == job ? "history.json" : HISTORIES + member.id() + ".json", open));
        }
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
        var curves = new ArrayList<byte[]>();
        for (String name : bundle.in("curves")) {
            byte[] bytes = bundle.bytes(name);
            String said = name.substring("curves/".length());
            CurrentCsv.parse(bundle.text(name), name);
            if (!Curves.name(bytes).equals(said)) {
                throw new BadFileException(name, 0, "", "the curve is not the one that its name says",
                        "Make the bundle again");
            }
            curves.add(bytes);
        }
        var logs = new ArrayList<byte[]>();
        for (String name : bundle.in("logs")) {
            byte[] bytes = bundle.bytes(name);
            String said = name.substring(LOGS.length());
            if (!TestLogs.name(bytes).equals(said)) {
                throw new BadFileException(name, 0, "", "the log is not the one that its name says",
                        "Make the bundle again");
            }
            logs.add(bytes);
        }
        var told = new LinkedHashMap<String, byte[]>();
        for (RunEntry run : runs) {
            String name = "runs/" + run.id() + ".run.jsonl";
            byte[] bytes = bundle.bytes(name);
            sound(bytes, name, run, ledger);
            told.put(run.id(), bytes);
        }
        Map<String, BeadMap> maps = new LinkedHashMap<>();
        for (Job member : family) {
            String name = member == job ? MAP : MAPS + member.id() + ".map.csv";
            if (bundle.in("maps").contains(name)) {
                String part = boards.get(member.board()).requireChip(member.target()).part();
                maps.put(part, BeadMapCsv.parse(bundle.text(name), name));
            }
        }
        return new Packed(job.id(),
                new Ledger.Arrival(family, history, Map.of(), List.copyOf(boards.values()),
                        List.of(bench), recipes, chips, List.of(), runs, ground(bundle, family, open)),
                maps, photos, curves, logs, told);
    }

    private static List<RunEntry> runs(Bundle bundle, List<Job> family, OpenFiles open)
            throws BadFileException {
        try {
            List<RunEntry> runs = List.of(open.unline(bundle.text("runs.json"), RunEntry[].class));
            for (RunEntry run : runs) {
                Optional<Job> job = family.stream().filter(j -> j.id().equals(run.jobId())).findFirst();
                boolean bead = job.stream().flatMap(j -> j.beads().stream()).map(Bead::id)
                        .anyMatch(b -> b.equals(run.bead()));
                if (job.isEmpty() || !run.id().matches("[A-Za-z0-9][A-Za-z0-9_-]{0,80}")
                        || run.outcome().isEmpty() || run.startedAt() == null
                        || !bead && run.bead() == null) {
                    throw new BadFileException("runs.json", 0, "",
                            "run " + run.id() + " does not belong to job "
                                    + family.getFirst().id(),
                            "Make the bundle again");
                }
            }
            return runs;
        } catch (JacksonException | NullPointerException e) {
            throw new BadFileException("runs.json", 0, "", "the list of runs cannot be read",
                    "Make the bundle again");
        }
    }

    private static List<Ground.Plot> ground(Bundle bundle, List<Job> family, OpenFiles open)
            throws BadFileException {
        if (!bundle.holds(GROUND)) {
            return List.of();
        }
        try {
            List<Ground.Plot> plots = List.of(open.unline(bundle.text(GROUND), Ground.Plot[].class));
            for (Ground.Plot plot : plots) {
                Job job = family.stream().filter(j -> j.id().equals(plot.job())).findFirst()
                        .orElseThrow(() -> new BadFileException(GROUND, 0, "/job",
                                "job " + plot.job() + " is not in the bundle", "Make the bundle again"));
                plot.sound(job, open);
            }
            return plots;
        } catch (JacksonException | NullPointerException e) {
            throw new BadFileException(GROUND, 0, "",
                    "what the jobs were worked with cannot be read", "Make the bundle again");
        }
    }

    private static List<JobEvent> history(Bundle bundle, String name, OpenFiles open)
            throws BadFileException {
        try {
            return List.of(open.unline(bundle.text(name), JobEvent[].class));
        } catch (JacksonException | NullPointerException e) {
            throw new BadFileException(name, 0, "", "the history cannot be read",
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
