package org.greenbead.store;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.function.BooleanSupplier;
import java.util.function.Function;
import java.util.function.IntConsumer;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.core.chip.StockChip;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.route.Job;
import org.greenbead.core.stock.StockItem;

/**
 * Files, bundles and whole folders that come into a ledger, in whatever order they are named: a job may stand before its board. All of them are
 * read and held against each other and against the ledger before anything is kept, so that one bad file leaves the ledger as it was.
 */
public final class TakeIn {
    /** Folders within folders that are looked into. */
    private static final int DEEPEST = 8;
    /** So many files at most; more is hardly what was meant. */
    private static final int MOST = 5000;
    private static final String ENDS = ".bead.json";

    private final Ledger ledger;
    private final Map<String, Document> documents = new LinkedHashMap<>();
    private final Map<String, Bundled> bundles = new LinkedHashMap<>();
    private final Map<String, Object> fromBundles = new LinkedHashMap<>();
    private final List<Path> left = new ArrayList<>();
    private final IntConsumer told;
    private final BooleanSupplier cancelled;
    private int read;

    /** @param kind as in "board", @param file where it came from */
    private record Document(Format format, String kind, String id, Object value, String file) {}

    /**
     * A bundle that was found sound. Its pictures and logs are read again when it is kept: many bundles would not fit into memory together.
     *
     * @param clashes what the ledger holds under the same name and of another content
     */
    private record Bundled(Path file, Ledger.Arrival arrival, List<String> clashes) {}

    /**
     * What has come in.
     *
     * @param taken "board ES-5", "job J-1 with 2 recipes, ..."
     * @param jobs  numbers of the jobs among it
     * @param left  files of a folder that are nothing of a ledger: pictures, notes
     */
    public record Taken(List<String> taken, List<String> jobs, List<Path> left) {}

    /** The ledger holds something else under the same name, or two of the files do. Nothing was changed. */
    public static final class ClashException extends Exception {
        private static final long serialVersionUID = 1L;
        private final boolean withLedger;

        ClashException(String message, boolean withLedger) {
            super(message);
            this.withLedger = withLedger;
        }

        /** Whether what comes may be taken instead of what the ledger holds; else the files contradict one another. */
        public boolean withLedger() {
            return withLedger;
        }
    }

    private TakeIn(Ledger ledger, IntConsumer told, BooleanSupplier cancelled) {
        this.ledger = ledger;
        this.told = told;
        this.cancelled = cancelled;
    }

    /**
     * Takes all of it in, or nothing. Should the disk fail while several bundles are being kept, those that were kept stay, each of them whole.
     *
     * @param named   bundles (.zip), open files (.json), folders with such
     * @param replace takes what comes where the ledger holds something else under the same name; the ledger is copied first
     * @param told      how many files have been read
     * @param cancelled asked before each file is read; once all are read, what has begun to be kept is kept
     * @throws CancellationException when cancelled: the ledger is as it was
     * @throws BadFileException when one of them cannot be read, or a job stands on what is nowhere
     * @throws ClashException   where a name stands for two things and {@code replace} is false, or two of the files say different things
     */
    public static Taken from(Ledger ledger, List<Path> named, boolean replace, IntConsumer told,
            BooleanSupplier cancelled) throws BadFileException, IOException, ClashException {
        var in = new TakeIn(ledger, told, cancelled);
        for (Path path : named) {
            if (Files.isDirectory(path)) {
                in.readFolder(path);
            } else {
                in.read(path);
            }
        }
        return in.keep(replace);
    }

    private void readFolder(Path folder) throws BadFileException, IOException, ClashException {
        List<Path> files;
        try (Stream<Path> all = Files.walk(folder, DEEPEST)) {
            files = all.filter(Files::isRegularFile).limit(MOST + 1L).sorted().toList();
        } catch (UncheckedIOException e) {
            throw new BadFileException(folder.toString(), 0, "",
                    "a folder in it cannot be read (" + e.getCause().getMessage() + ")",
                    "Allow it to be read, or name the files one by one");
        }
        if (files.size() > MOST) {
            throw new BadFileException(folder.toString(), 0, "",
                    "there are more than " + MOST + " files in it",
                    "Name a folder that holds what is to come in, and little else");
        }
        boolean any = false;
        for (Path file : files) {
            String name = name(file).toLowerCase(Locale.ROOT);
            if (name.endsWith(".zip") || name.endsWith(ENDS)) {
                read(file);
                any = true;
            } else {
                left.add(file);
            }
        }
        if (!any) {
            throw new BadFileException(folder.toString(), 0, "",
                    "there is nothing in it that a ledger takes in",
                    "Name a folder with bundles (.zip) or open files (" + ENDS + ")");
        }
    }

    private static String name(Path file) {
        return String.valueOf(file.getFileName());
    }

    private void read(Path file) throws BadFileException, IOException, ClashException {
        onward();
        if (!Files.exists(file)) {
            throw new BadFileException(file.toString(), 0, "", "there is no such file or folder",
                    "Look at the name");
        }
        if (name(file).toLowerCase(Locale.ROOT).endsWith(".zip")) {
            JobBundle.Packed packed = JobBundle.read(ledger, file);
            var bundled = new Bundled(file, packed.arrival(), packed.clashes(ledger));
            if (bundles.putIfAbsent(packed.job(), bundled) != null) {
                throw two("job " + packed.job(), name(file));
            }
        } else {
            document(file);
        }
        told.accept(++read);
    }

    private void onward() {
        if (cancelled.getAsBoolean()) {
            throw new CancellationException("Stopped after " + read + " files; nothing was taken in.");
        }
    }

    private void document(Path file) throws BadFileException, ClashException {
        String text = OpenFiles.text(file);
        String name = name(file);
        Format format = ledger.files().formatOf(text, name);
        Document document = switch (format) {
            case JOB -> of(text, name, format, Job.class, Job::id);
            case BOARD -> of(text, name, format, Board.class, Board::id);
            case BENCH -> of(text, name, format, Bench.class, Bench::id);
            case RECIPE -> of(text, name, format, Recipe.class, Recipe::id);
            case CHIP -> of(text, name, format, StockChip.class, StockChip::label);
            case STOCK -> of(text, name, format, StockItem.class, StockItem::id);
            default -> throw new BadFileException(name, 1, "/format",
                    "a " + format.word() + " file is no document of the ledger",
                    "Import a job bundle, or a job, board, bench, recipe, chip or thing in stock");
        };
        Document twin = documents.putIfAbsent(document.kind() + " " + document.id(), document);
        if (twin != null && !twin.value().equals(document.value())) {
            throw two(document.kind() + " " + document.id(), twin.file() + " and " + name);
        }
    }

    private <T> Document of(String text, String name, Format format, Class<T> type, Function<T, String> id)
            throws BadFileException {
        T value = ledger.files().parse(text, name, format, type);
        return new Document(format, format.word(), id.apply(value), value, name);
    }

    private static ClashException two(String what, String files) {
        return new ClashException("There is another " + what + " among the files (" + files
                + "). Nothing was changed. Leave one of them out.", false);
    }

    private Taken keep(boolean replace) throws BadFileException, IOException, ClashException {
        onward();
        for (Map.Entry<String, Bundled> bundle : bundles.entrySet()) {
            brought(bundle.getKey(), bundle.getValue().arrival());
        }
        List<Job> jobs = values(Format.JOB, Job.class);
        for (Document document : documents.values()) {
            if (document.value() instanceof Job job) {
                standsOnSomething(job, document.file());
            }
        }
        Map<String, String> from = documents.values().stream().filter(d -> d.format() == Format.JOB)
                .collect(Collectors.toMap(Document::id, Document::file));
        var arrival = new Ledger.Arrival(jobs, Map.of(), from, values(Format.BOARD, Board.class),
                values(Format.BENCH, Bench.class), values(Format.RECIPE, Recipe.class),
                values(Format.CHIP, StockChip.class), values(Format.STOCK, StockItem.class), List.of(),
                List.of());
        List<String> clashes = ledger.clashes(arrival);
        var all = new ArrayList<>(clashes);
        bundles.values().forEach(b -> all.addAll(b.clashes()));
        if (!all.isEmpty() && !replace) {
            throw new ClashException("The ledger holds another " + String.join(", another ",
                    all.stream().distinct().toList()) + ". Nothing was changed.", true);
        }
        var taken = new ArrayList<String>();
        var numbers = new ArrayList<String>();
        if (!documents.isEmpty()) {
            ledger.take(arrival, !clashes.isEmpty());
            documents.values().forEach(d -> taken.add(d.kind() + " " + d.id()));
            jobs.forEach(j -> numbers.add(j.id()));
        }
        for (Map.Entry<String, Bundled> bundle : bundles.entrySet()) {
            try {
                taken.add("job " + JobBundle.unpack(ledger, bundle.getValue().file(), replace).said());
            } catch (JobBundle.ClashException e) {
                throw new ClashException(e.getMessage(), true);
            }
            numbers.add(bundle.getKey());
        }
        return new Taken(List.copyOf(taken), List.copyOf(numbers), List.copyOf(left));
    }

    /** What a bundle brings must not differ from what another of the files brings under the same name. */
    private void brought(String packed, Ledger.Arrival a) throws ClashException {
        for (Job job : a.jobs()) {
            same(Format.JOB, job.id(), job, packed);
        }
        for (Board board : a.boards()) {
            same(Format.BOARD, board.id(), board, packed);
        }
        for (Bench bench : a.benches()) {
            same(Format.BENCH, bench.id(), bench, packed);
        }
        for (Recipe recipe : a.recipes()) {
            same(Format.RECIPE, recipe.id(), recipe, packed);
        }
        for (StockChip chip : a.chips()) {
            same(Format.CHIP, chip.label(), chip, packed);
        }
    }

    private void same(Format format, String id, Object value, String packed) throws ClashException {
        String key = format.word() + " " + id;
        Document document = documents.get(key);
        Object before = fromBundles.putIfAbsent(key, value);
        if (document != null && !document.value().equals(value) || before != null && !before.equals(value)) {
            throw two(key, "the bundle of job " + packed
                    + (document == null ? " and another bundle" : " and " + document.file()));
        }
    }

    /** What a job stands on has to be there or to come along, or nothing of it could be opened. */
    private void standsOnSomething(Job job, String file) throws BadFileException {
        Board board = found(Format.BOARD, job.board(), Board.class, file);
        try {
            board.requireChip(job.target());
        } catch (IllegalArgumentException e) {
            throw new BadFileException(file, 0, "/target", e.getMessage(),
                    "Put the chip onto the board, or import the board that has it");
        }
        found(Format.BENCH, job.bench(), Bench.class, file);
    }

    private <T> T found(Format format, String id, Class<T> type, String file) throws BadFileException {
        String key = format.word() + " " + id;
        if (documents.containsKey(key)) {
            return type.cast(documents.get(key).value());
        }
        if (fromBundles.containsKey(key)) {
            return type.cast(fromBundles.get(key));
        }
        if (!ledger.holds(format, id)) {
            throw new BadFileException(file, 0, "/" + format.word(),
                    format.word() + " " + id + " is neither in the ledger nor among the files",
                    "Make it with greenbead " + format.word() + " new, or import its file too");
        }
        return ledger.document(format, id, type);
    }

    private <T> List<T> values(Format format, Class<T> type) {
        return documents.values().stream().filter(d -> d.format() == format).map(d -> type.cast(d.value()))
                .toList();
    }
}
