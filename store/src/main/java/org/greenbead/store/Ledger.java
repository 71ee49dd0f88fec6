package org.greenbead.store;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.InstantSource;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.UUID;
import java.util.stream.Stream;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.FlywayException;
import org.flywaydb.core.api.MigrationInfo;
import org.flywaydb.core.api.MigrationVersion;
import org.flywaydb.core.api.configuration.FluentConfiguration;
import org.greenbead.core.account.Practice;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.chip.StockChip;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.HouseRoute;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.run.FormingHeats;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.ThisUnit;
import org.greenbead.core.run.Verdict;
import org.greenbead.core.stock.StockItem;
import org.greenbead.core.work.Opening;
import org.jdbi.v3.core.Handle;
import org.jdbi.v3.core.Jdbi;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.sqlite.SQLiteConfig;
import org.sqlite.SQLiteDataSource;

/**
 * Everything that was done: one SQLite file and a folder of run logs. Each change is one transaction that is on the disk when
 * the call returns. One writer connection is kept open; calls from several threads wait for each other.
 */
public final class Ledger implements AutoCloseable {
    /** Setting that names the photo a board was drawn from, then its four corners; the board's id follows. */
    public static final String BOARD_PHOTO = "board-photo.";
    private static final String ROUTE = "route.";
    private static final String REPORTED = "reported";
    private static final Logger LOG = LoggerFactory.getLogger(Ledger.class);
    private static final String FILE = "ledger.db";
    private static final String MIGRATIONS = "classpath:org/greenbead/store/migration";
    private final Path folder;
    private final OpenFiles files;
    private final InstantSource clock;
    private static final String DAILY = "daily";
    private static final int DAILY_KEPT = 14;
    private final FormingHeats forming;
    private final PracticeRuns practised = new PracticeRuns();
    private final JobRows rows;
    private final Ground ground;
    private final Handle handle;
    /** Empty when another process is the folder's writer. */
    private final Optional<FolderLock> lock;

    private Ledger(Path folder, OpenFiles files, InstantSource clock, FormingHeats forming, Handle handle,
            Optional<FolderLock> lock) {
        this.forming = forming;
        this.folder = folder;
        this.files = files;
        this.clock = clock;
        this.handle = handle;
        rows = new JobRows(handle, files);
        ground = new Ground(handle, clock);
        this.lock = lock;
    }

    /**
     * Opens the ledger in a folder as its one writer, making it when there is none. An older one is copied, then brought up to date.
     *
     * @throws LedgerException when the folder cannot be written or belongs to another process, the file is damaged, or a newer version wrote it
     */
    public static Ledger open(Path folder, OpenFiles files, InstantSource clock) throws LedgerException {
        return open(folder, files, clock, new FormingHeats());
    }

    /** As {@link #open(Path, OpenFiles, InstantSource)}, with the forming heats that this process has reckoned before. */
    public static Ledger open(Path folder, OpenFiles files, InstantSource clock, FormingHeats heats)
            throws LedgerException {
        return open(folder, files, clock, heats, List.of(), prepare(folder, clock));
    }

    /**
     * Opens it as {@link #open} does, or for reading alone while another process writes it.
     *
     * @throws LedgerException as there
     */
    public static Ledger openShared(Path folder, OpenFiles files, InstantSource clock)
            throws LedgerException {
        Path file = folder.resolve(FILE);
        Optional<FolderLock> lock = prepare(folder, clock);
        if (lock.isPresent() || !Files.exists(file)) {
            return open(folder, files, clock, new FormingHeats(), List.of(), lock);
        }
        var config = new SQLiteConfig();
        config.setReadOnly(true);
        config.setBusyTimeout(5000);
        var source = new SQLiteDataSource(config);
        source.setUrl("jdbc:sqlite:" + file);
        try {
            return new Ledger(folder, files, clock, new FormingHeats(), Jdbi.create(source).open(),
                    Optional.empty());
        } catch (RuntimeException e) {
            throw LedgerFault.of(file, e);
        }
    }

    /** False while another process is the writer. */
    public boolean writes() {
        return lock.isPresent();
    }

    private static Optional<FolderLock> prepare(Path folder, InstantSource clock) throws LedgerException {
        try {
            Files.createDirectories(folder.resolve("runs"));
            Files.createDirectories(folder.resolve("tmp"));
            System.setProperty("org.sqlite.tmpdir", folder.resolve("tmp").toString());
            return FolderLock.take(folder, clock);
        } catch (IOException e) {
            throw new LedgerException("The data folder " + folder + " cannot be written (" + e.getMessage()
                    + "). Nothing was changed. Give this user the right to write there, free space on the disk, or choose another folder with --data.",
                    e);
        }
    }

    static Ledger open(Path folder, OpenFiles files, InstantSource clock, List<String> moreMigrations)
            throws LedgerException {
        return open(folder, files, clock, new FormingHeats(), moreMigrations, prepare(folder, clock));
    }

    private static Ledger open(Path folder, OpenFiles files, InstantSource clock, FormingHeats heats,
            List<String> moreMigrations, Optional<FolderLock> lock) throws LedgerException {
        if (lock.isEmpty()) {
            throw new LedgerException("The data folder " + folder + " belongs to another Green Bead ("
                    + FolderLock.owner(folder, clock)
                    + "). Nothing was changed. Close that one, or choose another folder with --data.", null);
        }
        Path file = folder.resolve(FILE);
        try {
            boolean existed = Files.exists(file);
            var source = source(file);
            if (existed) {
                check(file, source);
            }
            migrate(folder, file, source, moreMigrations, existed, clock);
            if (existed) {
                daily(folder, file, source, clock);
            }
            return new Ledger(folder, files, clock, heats, Jdbi.create(source).open(), lock);
        } catch (LedgerException e) {
            lock.get().close();
            throw e;
        } catch (RuntimeException e) {
            lock.get().close();
            throw LedgerFault.of(file, e);
        }
    }

    /** The first opening of a day leaves a copy; the last fortnight's are kept. */
    private static void daily(Path folder, Path file, SQLiteDataSource source, InstantSource clock)
            throws LedgerException {
        String today = DateTimeFormatter.BASIC_ISO_DATE.withZone(ZoneOffset.UTC).format(clock.instant())
                .substring(0, 8);
        try {
            List<Path> kept = dailies(folder);
            if (kept.stream().anyMatch(c -> c.getFileName().toString().contains("-" + today + "-"))) {
                return;
            }
            copy(folder, source, DAILY, clock);
            List<Path> now = dailies(folder);
            for (int i = 0; i < now.size() - DAILY_KEPT; i++) {
                Files.deleteIfExists(now.get(i));
            }
        } catch (SQLException e) {
            throw LedgerFault.of(file, e);
        } catch (IOException e) {
            throw new LedgerException("The daily copy of the ledger could not be written to "
                    + folder.resolve("copies") + " (" + e.getMessage()
                    + "). The ledger is whole; free space on the disk and start again.", e);
        }
    }

    /** Daily copies, oldest first. */
    private static List<Path> dailies(Path folder) throws IOException {
        Path copies = folder.resolve("copies");
        if (!Files.isDirectory(copies)) {
            return List.of();
        }
        try (var all = Files.list(copies)) {
            return all.filter(c -> c.getFileName().toString().endsWith("-" + DAILY + ".db")).sorted()
                    .toList();
        }
    }

    private static SQLiteDataSource source(Path file) {
        var config = new SQLiteConfig();
        config.setJournalMode(SQLiteConfig.JournalMode.WAL);
        config.setSynchronous(SQLiteConfig.SynchronousMode.FULL);
        config.enforceForeignKeys(true);
        config.setBusyTimeout(5000);
        var source = new SQLiteDataSource(config);
        source.setUrl("jdbc:sqlite:" + file);
        return source;
    }

    private static void check(Path file, SQLiteDataSource source) throws LedgerException {
        String said;
        try (Connection c = source.getConnection();
                ResultSet r = c.createStatement().executeQuery("PRAGMA quick_check")) {
            said = r.next() ? r.getString(1) : "no answer";
        } catch (SQLException e) {
            throw LedgerFault.of(file, e);
        }
        if (!"ok".equals(said)) {
            throw new LedgerException(LedgerFault.damaged(file, said), null);
        }
    }

    private static void migrate(Path folder, Path file, SQLiteDataSource source, List<String> more,
            boolean existed, InstantSource clock) throws LedgerException {
        var locations = new ArrayList<>(List.of(MIGRATIONS));
        locations.addAll(more);
        FluentConfiguration setup = Flyway.configure(Ledger.class.getClassLoader()).dataSource(source)
                .locations(locations.toArray(String[]::new));
        try {
            Flyway flyway = setup.load();
            MigrationInfo[] known = flyway.info().all();
            MigrationVersion applied = flyway.info().current() == null
                    ? null
                    : flyway.info().current().getVersion();
            MigrationVersion newest = MigrationVersion.EMPTY;
            for (MigrationInfo info : known) {
                boolean ours = !info.getState().isApplied() || info.getState().isResolved();
                if (ours && info.getVersion() != null && info.getVersion().compareTo(newest) > 0) {
                    newest = info.getVersion();
                }
            }
            if (applied != null && applied.compareTo(newest) > 0) {
                throw new LedgerException("The ledger " + file + " was written by a newer Green Bead (schema "
                        + applied + ", this one knows " + newest
                        + "). Nothing was changed. Update Green Bead, or choose another folder with --data.",
                        null);
            }
            if (existed && applied != null && flyway.info().pending().length > 0) {
                copy(folder, source, "before-schema-" + newest, clock);
            }
            flyway.migrate();
        } catch (FlywayException | SQLException | IOException e) {
            if (LedgerFault.known(e)) {
                throw LedgerFault.of(file, e);
            }
            throw new LedgerException(
                    "The ledger " + file + " could not be brought up to date (" + firstLine(e.getMessage())
                            + "). It was left as it is; free space on the disk and start again.",
                    e);
        }
    }

    private static String firstLine(String text) {
        return text == null ? "" : text.lines().findFirst().orElse("");
    }

    private static Path copy(Path folder, SQLiteDataSource source, String why, InstantSource clock)
            throws SQLException, IOException {
        Path copies = Files.createDirectories(folder.resolve("copies"));
        String stamp = DateTimeFormatter.ofPattern("yyyyMMdd-HHmmss", Locale.ROOT).withZone(ZoneOffset.UTC)
                .format(clock.instant());
        Path copy = copies.resolve("ledger-" + stamp + "-" + why + ".db");
        Files.deleteIfExists(copy);
        try (Connection c = source.getConnection(); var statement = c.prepareStatement("VACUUM INTO ?")) {
            statement.setString(1, copy.toString());
            statement.execute();
        }
        return copy;
    }

    /** @throws LedgerReadOnlyException when another process is the writer */
    void mayWrite() {
        if (lock.isEmpty()) {
            throw new LedgerReadOnlyException(FolderLock.owner(folder, clock));
        }
        if (Files.notExists(folder.resolve(FILE))) {
            throw new IllegalStateException("The ledger " + folder.resolve(FILE)
                    + " is gone: somebody moved or deleted the data folder. What was just done is not in it. Put the folder back, or note it by hand.");
        }
    }

    /** "ok", or what is wrong. */
    public synchronized String integrity() {
        return handle.createQuery("PRAGMA integrity_check").mapTo(String.class).first();
    }

    /** What went wrong in words, where it was the database in a folder that failed; else as it is. */
    public static Throwable inWords(Path folder, Throwable fault) {
        return fault instanceof LedgerException || !LedgerFault.known(fault)
                ? fault
                : LedgerFault.of(folder.resolve(FILE), fault);
    }

    public Path folder() {
        return folder;
    }

    /** A day of runs with photos takes up to 200 MB. Judgement. */
    public static final long ROOM_BYTES = 200L << 20;

    /** Where the disk of the data folder is nearly full, how many MB are left on it. */
    public OptionalLong lowRoomMb() {
        java.io.File disk = folder.toFile();
        return lowRoomMb(disk.getTotalSpace(), disk.getUsableSpace());
    }

    /** @param wholeBytes 0 where the file system does not say */
    static OptionalLong lowRoomMb(long wholeBytes, long freeBytes) {
        return wholeBytes <= 0 || freeBytes > ROOM_BYTES
                ? OptionalLong.empty()
                : OptionalLong.of(freeBytes >> 20);
    }

    /** The one clock of this ledger. */
    Instant now() {
        return clock.instant();
    }

    public OpenFiles files() {
        return files;
    }

    // Documents.

    public synchronized void save(Board board) {
        document(Format.BOARD, board.id(), board);
    }

    /** Recipes that name one of its air stations name it as it is called now, unless another bench has one of the old name. */
    public synchronized void save(Bench bench) {
        handle.useTransaction(h -> {
            for (Recipe recipe : renamed(bench)) {
                document(Format.RECIPE, recipe.id(), recipe);
            }
            document(Format.BENCH, bench.id(), bench);
        });
    }

    private List<Recipe> renamed(Bench bench) {
        List<Bench> all = benches();
        Optional<Bench.Renamed> name = all.stream().filter(b -> b.id().equals(bench.id())).findFirst()
                .flatMap(bench::renamed)
                .filter(r -> all.stream().noneMatch(b -> !b.id().equals(bench.id()) && b.has(r.before())));
        return name.map(r -> all(Format.RECIPE, Recipe.class).stream()
                .filter(recipe -> recipe.station().filter(r.before()::equals).isPresent())
                .map(recipe -> recipe.by(r.now())).toList()).orElse(List.of());
    }

    public synchronized void save(Recipe recipe) {
        document(Format.RECIPE, recipe.id(), recipe);
    }

    public synchronized void save(StockItem item) {
        document(Format.STOCK, item.id(), item);
    }

    /** Everything in stock, by number, what was thrown away too. */
    public List<StockItem> stock() {
        return all(Format.STOCK, StockItem.class);
    }

    /**
     * Takes a thing out of stock that no job has used.
     *
     * @throws LedgerException naming the jobs that have: it then stays
     */
    public synchronized void remove(StockItem item) throws LedgerException {
        List<String> jobs = item.moments().stream().map(StockItem.Moment::job).filter(j -> !j.isEmpty())
                .distinct().toList();
        if (!jobs.isEmpty()) {
            throw new LedgerException(item.id() + " stays, since " + String.join(", ", jobs)
                    + " used it; note it as thrown away instead");
        }
        mayWrite();
        handle.createUpdate("DELETE FROM document WHERE kind = :kind AND id = :id")
                .bind("kind", Format.STOCK.word()).bind("id", item.id()).execute();
    }

    private void document(Format format, String id, Object value) {
        mayWrite();
        String body = files.write(format, value);
        handle.useTransaction(h -> {
            ground.before(format, id, body);
            h.createUpdate(
                    "INSERT INTO document (kind, id, body, updated_at) VALUES (:kind, :id, :body, :at) "
                            + "ON CONFLICT (kind, id) DO UPDATE SET body = :body, updated_at = :at")
                    .bind("kind", format.word()).bind("id", id)
                    .bind("body", body).bind("at", clock.instant().toString()).execute();
        });
    }

    /** The board of a job: as it is now, or for one that is at its end as it was then. */
    public synchronized Board board(Job job) throws BadFileException {
        return of(job, Format.BOARD, job.board(), Board.class);
    }

    /** The bench of a job: as it is now, or for one that is at its end as it was then. */
    public synchronized Bench bench(Job job) throws BadFileException {
        return of(job, Format.BENCH, job.bench(), Bench.class);
    }

    private <T> T of(Job job, Format format, String id, Class<T> type) throws BadFileException {
        Optional<String> then = ground.of(job, format, id);
        return then.isPresent()
                ? files.parse(then.get(), format.word() + " " + id + " of job " + job.id(), format, type)
                : document(format, id, type);
    }

    /** @throws BadFileException when it is not there or was changed by hand into something else */
    public synchronized <T> T document(Format format, String id, Class<T> type) throws BadFileException {
        String name = format.word() + " " + id;
        String body = handle.createQuery("SELECT body FROM document WHERE kind = :kind AND id = :id")
                .bind("kind", format.word()).bind("id", id)
                .mapTo(String.class).findOne().orElseThrow(() -> new BadFileException(name, 0, "",
                        "the ledger has none of this name", switch (format) {
                            case BOARD, BENCH ->
                                "Make it with greenbead " + format.word() + " new, or import it first";
                            case STOCK -> "Take it in with greenbead stock new, or import it first";
                            default -> "Import it first";
                        }));
        return files.parse(body, name, format, type);
    }

    /**
     * Takes a board or a bench out of the ledger.
     *
     * @throws LedgerException naming the jobs that stand on it: it then stays
     */
    public synchronized void remove(Format format, String id) throws LedgerException {
        if (format != Format.BOARD && format != Format.BENCH) {
            throw new IllegalArgumentException("a " + format.word() + " is not removed by itself");
        }
        List<String> on = usedBy(format, id);
        if (!on.isEmpty()) {
            throw new LedgerException(format.word() + " " + id + " stays: " + String.join(", ", on)
                    + (on.size() == 1 ? " stands on it" : " stand on it"));
        }
        mayWrite();
        handle.createUpdate("DELETE FROM document WHERE kind = :kind AND id = :id")
                .bind("kind", format.word()).bind("id", id).execute();
    }

    /** Jobs at their end that stood on a board or a bench: they keep it as it was. */
    public List<String> endedOn(Format format, String id) {
        return on(format, id).filter(j -> j.inHand().isEmpty()).map(Job::id).sorted().toList();
    }

    /** Jobs that stand on a board or a bench, those in the bin too: they can be taken back. */
    public List<String> usedBy(Format format, String id) {
        return on(format, id).map(Job::id).sorted().toList();
    }

    private Stream<Job> on(Format format, String id) {
        return Stream.concat(jobs().stream(), bin().all().stream().map(JobBin.Binned::job))
                .filter(j -> (format == Format.BOARD ? j.board() : j.bench()).equals(id));
    }

    public synchronized boolean holds(Format format, String id) {
        return handle.createQuery("SELECT count(*) FROM document WHERE kind = :kind AND id = :id")
                .bind("kind", format.word()).bind("id", id).mapTo(Integer.class).one() > 0;
    }

    public List<Board> boards() {
        return all(Format.BOARD, Board.class);
    }

    public List<Bench> benches() {
        return all(Format.BENCH, Bench.class);
    }

    private synchronized <T> List<T> all(Format format, Class<T> type) {
        var found = new ArrayList<T>();
        for (String id : handle.createQuery("SELECT id FROM document WHERE kind = :kind ORDER BY id")
                .bind("kind", format.word()).mapTo(String.class).list()) {
            try {
                found.add(document(format, id, type));
            } catch (BadFileException e) {
                LOG.warn("{}", e.getMessage());
            }
        }
        return found;
    }

    // Jobs.

    /** All jobs that can be read and do not lie in the bin, newest first; damaged ones are told by {@link #damaged}. */
    public synchronized List<Job> jobs() {
        return rows.live();
    }

    /** Jobs that were thrown away and can be taken back. */
    public JobBin bin() {
        return new JobBin(this, rows, handle, clock);
    }

    /** Runs that were thrown away and can be taken back. */
    public RunBin runBin() {
        return new RunBin(this, handle, clock);
    }

    /** A report was made of a job or of one of its runs. @param file its name; of a run's report it begins with the run's id */
    public synchronized void reported(String jobId, String file) {
        mayWrite();
        event(jobId, REPORTED, file);
    }

    /** Reports that were made of a job and its runs, the oldest first. */
    public List<JobEvent> reports(String jobId) {
        return history(jobId).stream().filter(e -> e.kind().equals(REPORTED)).toList();
    }

    /** Reports as a person tells them apart: file and day. */
    public static String named(List<JobEvent> reports) {
        return String.join(", ", reports.stream()
                .map(e -> e.detail() + " of " + LocalDate.ofInstant(e.at(), ZoneId.systemDefault()))
                .distinct()
                .toList());
    }

    /** Numbers that are given, those in the bin too. */
    public synchronized List<String> jobIds() {
        return handle.createQuery("SELECT id FROM job ORDER BY id").mapTo(String.class).list();
    }

    /** Every row that cannot be read, in words; empty when all is well. Nothing else is affected by one. */
    public synchronized List<String> damaged() {
        var found = new ArrayList<String>();
        rows.damaged().forEach(e -> found.add(oneRow(e)));
        handle.createQuery("SELECT label, body FROM chip ORDER BY label")
                .map((r, c) -> new String[]{r.getString(1), r.getString(2)}).list()
                .forEach(row -> tryOut(
                        () -> files.parse(row[1], "chip " + row[0], Format.CHIP, StockChip.class), found));
        for (Format format : List.of(Format.BOARD, Format.BENCH, Format.RECIPE, Format.STOCK)) {
            handle.createQuery("SELECT id, body FROM document WHERE kind = :kind ORDER BY id")
                    .bind("kind", format.word()).map((r, c) -> new String[]{r.getString(1), r.getString(2)})
                    .list().forEach(row -> tryOut(() -> files.parse(row[1], format.word() + " " + row[0],
                            format, format.record()), found));
        }
        return found;
    }

    /** Reading that may find a row damaged. */
    private interface Reading {
        Object read() throws BadFileException;
    }

    private static void tryOut(Reading row, List<String> found) {
        try {
            row.read();
        } catch (BadFileException e) {
            found.add(oneRow(e));
        }
    }

    private static String oneRow(BadFileException e) {
        return e.getMessage() + " Only this one is affected; restore it from a copy or write it anew.";
    }

    public synchronized Job job(String id) throws BadFileException {
        return rows.one(id);
    }

    /** Keeps a job and one line of its history, together or not at all. */
    public synchronized void save(Job job, String kind, String detail) {
        mayWrite();
        handle.useTransaction(h -> {
            String now = clock.instant().toString();
            h.createUpdate(
                    "INSERT INTO job (id, body, updated_at) VALUES (:id, :body, :at) ON CONFLICT (id) DO UPDATE SET body = :body, updated_at = :at")
                    .bind("id", job.id()).bind("body", files.write(Format.JOB, job)).bind("at", now)
                    .execute();
            ground.saved(job);
            event(job.id(), kind, detail);
        });
        rows.changed(job.id());
    }

    /** One line of a job's history. */
    void event(String jobId, String kind, String detail) {
        handle.createUpdate(
                "INSERT INTO job_event (id, job_id, seq, at, kind, detail) "
                        + "SELECT :id, :job, coalesce(max(seq), 0) + 1, :at, :kind, :detail FROM job_event WHERE job_id = :job")
                .bind("id", UUID.randomUUID().toString()).bind("job", jobId)
                .bind("at", clock.instant().toString()).bind("kind", kind).bind("detail", detail).execute();
    }

    public synchronized List<JobEvent> history(String jobId) {
        return handle
                .createQuery("SELECT at, kind, detail FROM job_event WHERE job_id = :job ORDER BY seq")
                .bind("job", jobId)
                .map((r, c) -> new JobEvent(Instant.parse(r.getString(1)), r.getString(2), r.getString(3)))
                .list();
    }

    // Chips and pictures.

    /** All chips, by label. */
    public synchronized List<StockChip> chips() {
        var chips = new ArrayList<StockChip>();
        for (String[] row : handle.createQuery("SELECT label, body FROM chip ORDER BY label")
                .map((r, c) -> new String[]{r.getString(1), r.getString(2)}).list()) {
            try {
                chips.add(files.parse(row[1], "chip " + row[0], Format.CHIP, StockChip.class));
            } catch (BadFileException e) {
                LOG.warn("{}", e.getMessage());
            }
        }
        return chips;
    }

    public synchronized void save(StockChip chip) {
        mayWrite();
        handle.createUpdate(
                "INSERT INTO chip (label, part, job_id, body, updated_at) VALUES (:label, :part, :job, :body, :at) "
                        + "ON CONFLICT (label) DO UPDATE SET part = :part, job_id = :job, body = :body, updated_at = :at")
                .bind("label", chip.label()).bind("part", chip.part()).bind("job", chip.job().orElse(null))
                .bind("body", files.write(Format.CHIP, chip)).bind("at", clock.instant().toString())
                .execute();
    }

    /** Bead maps of parts. */
    public BeadMaps beadMaps() {
        return new BeadMaps(folder.resolve("maps"));
    }

    public Photos photos() {
        return new Photos(folder.resolve("photos"));
    }

    /** Start-up curves that jobs keep. */
    public Curves curves() {
        return new Curves(folder.resolve("curves"));
    }

    /** Logs of long tests. */
    public TestLogs testLogs() {
        return new TestLogs(folder.resolve("logs"));
    }

    /** Tables of the user's own. */
    public OwnTables tables() {
        return new OwnTables(folder.resolve("tables"));
    }

    // A job from elsewhere.

    /**
     * What comes from elsewhere: a job that was packed there, or files of any kind.
     *
     * @param jobs    the job, then its further chips
     * @param history by number of the job; of one that came as a file alone there is none
     * @param from    file that a job alone came from, by its number
     * @param ground  what jobs at their end had otherwise than the boards, benches and recipes that come along
     */
    record Arrival(List<Job> jobs, Map<String, List<JobEvent>> history, Map<String, String> from,
            List<Board> boards,
            List<Bench> benches, List<Recipe> recipes, List<StockChip> chips, List<StockItem> stock,
            List<RunEntry> runs, List<Ground.Plot> ground) {}

    /** What a job at its end had otherwise than it is now. */
    synchronized List<Ground.Plot> ground(Job job) {
        return ground.all(job);
    }

    /** What the ledger holds under the same name and of another content: "board WB-7". */
    synchronized List<String> clashes(Arrival arrival) {
        var clashes = new ArrayList<String>();
        for (Job job : arrival.jobs()) {
            clash("job", "job", job.id(), files.write(Format.JOB, job), clashes);
        }
        for (Board board : arrival.boards()) {
            clash("document", "board", board.id(), files.write(Format.BOARD, board), clashes);
        }
        for (Bench bench : arrival.benches()) {
            clash("document", "bench", bench.id(), files.write(Format.BENCH, bench), clashes);
        }
        for (StockItem item : arrival.stock()) {
            clash("document", Format.STOCK.word(), item.id(), files.write(Format.STOCK, item), clashes);
        }
        for (Recipe recipe : arrival.recipes()) {
            clash("document", "recipe", recipe.id(), files.write(Format.RECIPE, recipe), clashes);
        }
        for (StockChip chip : arrival.chips()) {
            clash("chip", "chip", chip.label(), files.write(Format.CHIP, chip), clashes);
        }
        return clashes;
    }

    private void clash(String table, String kind, String id, String body, List<String> clashes) {
        String sql = switch (table) {
            case "job" -> "SELECT body FROM job WHERE id = :id";
            case "chip" -> "SELECT body FROM chip WHERE label = :id";
            default -> "SELECT body FROM document WHERE kind = :kind AND id = :id";
        };
        var query = handle.createQuery(sql).bind("id", id);
        if (table.equals("document")) {
            query.bind("kind", kind);
        }
        query.mapTo(String.class).findOne().filter(there -> !there.equals(body) && !same(kind, there, body))
                .ifPresent(there -> clashes.add(kind + " " + id));
    }

    /** Whether two texts say the same though they are written otherwise, as one of an earlier version is. */
    private boolean same(String kind, String there, String body) {
        Format format = Stream.of(Format.values()).filter(f -> f.word().equals(kind)).findFirst()
                .orElseThrow();
        try {
            return files.parse(there, kind, format, format.record())
                    .equals(files.parse(body, kind, format, format.record()));
        } catch (BadFileException e) {
            return false;
        }
    }

    /** Takes all of it or nothing. @param replacing keeps a copy of the whole ledger first */
    synchronized void take(Arrival arrival, boolean replacing) throws IOException {
        mayWrite();
        if (replacing) {
            try {
                copy(folder, source(folder.resolve(FILE)), "before-import", clock);
            } catch (SQLException e) {
                throw new IOException("the ledger could not be copied before the import: " + e.getMessage(),
                        e);
            }
        }
        handle.useTransaction(h -> {
            String now = clock.instant().toString();
            arrival.boards().forEach(b -> document(Format.BOARD, b.id(), b));
            arrival.benches().forEach(b -> document(Format.BENCH, b.id(), b));
            arrival.stock().forEach(s -> document(Format.STOCK, s.id(), s));
            arrival.recipes().forEach(r -> document(Format.RECIPE, r.id(), r));
            arrival.chips().forEach(this::save);
            arrival.jobs().forEach(j -> arrived(h, j, arrival.history().getOrDefault(j.id(), List.of()),
                    arrival.from().getOrDefault(j.id(), ""), now));
            arrival.jobs().forEach(j -> ground.forget(j.id()));
            arrival.ground().forEach(ground::keep);
            for (RunEntry run : arrival.runs()) {
                h.createUpdate(
                        "INSERT INTO run (id, job_id, bead, chip, recipe, started_at, simulated, log_file, ended_at, outcome, length_s, peak_joint_c, above_s, peak_top_c, no_probe_k) "
                                + "VALUES (:id, :job, :bead, :chip, :recipe, :at, :simulated, :file, :ended, :outcome, :length, :joint, :above, :top, :no_probe) ON CONFLICT (id) DO NOTHING")
                        .bind("id", run.id()).bind("job", run.jobId()).bind("bead", run.bead())
                        .bind("chip", run.chip())
                        .bind("recipe", run.recipe()).bind("at", run.startedAt().toString())
                        .bind("simulated", run.simulated()).bind("file", run.id() + ".run.jsonl")
                        .bind("ended", run.endedAt().map(Instant::toString).orElse(null))
                        .bind("outcome",
                                run.outcome().map(o -> o.name().toLowerCase(Locale.ROOT)).orElse(null))
                        .bind("length", finite(run.lengthS())).bind("joint", finite(run.peakJointC()))
                        .bind("above", finite(run.aboveS())).bind("top", finite(run.peakTopC()))
                        .bind("no_probe", run.noProbe().orElse(null)).execute();
            }
        });
        arrival.jobs().forEach(j -> rows.changed(j.id()));
    }

    private void arrived(Handle h, Job job, List<JobEvent> history, String from, String now) {
        h.createUpdate(
                "INSERT INTO job (id, body, updated_at) VALUES (:id, :body, :at) ON CONFLICT (id) DO UPDATE SET body = :body, updated_at = :at, binned_at = NULL")
                .bind("id", job.id()).bind("body", files.write(Format.JOB, job)).bind("at", now).execute();
        long seq = h.createQuery("SELECT coalesce(max(seq), 0) FROM job_event WHERE job_id = :job")
                .bind("job", job.id()).mapTo(Long.class).one();
        var events = new ArrayList<JobEvent>();
        if (seq == 0) {
            events.addAll(history);
        }
        events.add(new JobEvent(clock.instant(), "imported", from));
        for (JobEvent event : events) {
            seq++;
            h.createUpdate(
                    "INSERT INTO job_event (id, job_id, seq, at, kind, detail) VALUES (:id, :job, :seq, :at, :kind, :detail)")
                    .bind("id", UUID.randomUUID().toString()).bind("job", job.id()).bind("seq", seq)
                    .bind("at", event.at().toString()).bind("kind", event.kind())
                    .bind("detail", event.detail()).execute();
        }
    }

    // Runs.

    /**
     * How often the like of a job was done here.
     *
     * @param job    its next heat; empty where no board is known
     * @param madeUp whether the simulated bench is the one that this house has
     */
    public Practice practice(Optional<RunPlan> job, boolean madeUp) {
        return practised.of(this, job, madeUp);
    }

    /** Opens a run: its row first, so that a kill leaves it to be found. */
    public synchronized RunEntry beginRun(RunPlan plan, Instant at, boolean simulated) {
        mayWrite();
        String stamp = DateTimeFormatter.ofPattern("yyyyMMdd-HHmmss", Locale.ROOT).withZone(ZoneOffset.UTC)
                .format(at);
        String id = plan.job().id() + "-" + stamp + "-" + UUID.randomUUID().toString().substring(0, 4);
        handle.createUpdate(
                "INSERT INTO run (id, job_id, bead, chip, recipe, started_at, simulated, log_file) "
                        + "VALUES (:id, :job, :bead, :chip, :recipe, :at, :simulated, :file)")
                .bind("id", id).bind("job", plan.job().id()).bind("bead", plan.bead())
                .bind("chip", plan.target().name() + " " + plan.target().part())
                .bind("recipe", plan.recipe().title()).bind("at", at.toString())
                .bind("simulated", simulated).bind("file", id + ".run.jsonl").execute();
        return run(id).orElseThrow();
    }

    public synchronized void endRun(String id, Instant at, Verdict verdict) {
        mayWrite();
        handle.createUpdate(
                "UPDATE run SET ended_at = :at, outcome = :outcome, length_s = :length, peak_joint_c = :joint, above_s = :above, peak_top_c = :top, no_probe_k = :no_probe WHERE id = :id")
                .bind("id", id).bind("at", at.toString())
                .bind("outcome", verdict.outcome().name().toLowerCase(Locale.ROOT))
                .bind("length", verdict.lengthS())
                .bind("joint", finite(verdict.peakJointC())).bind("above", verdict.aboveLiquidusS())
                .bind("top", finite(verdict.peakTopC())).bind("no_probe", verdict.noProbe().orElse(null))
                .execute();
    }

    private static Double finite(double value) {
        return Double.isFinite(value) ? value : null;
    }

    /** Newest first, without those in the bin. */
    public synchronized List<RunEntry> runs() {
        return handle.createQuery("SELECT * FROM run WHERE binned_at IS NULL ORDER BY started_at DESC, id")
                .map((r, c) -> entry(r))
                .list();
    }

    public synchronized Optional<RunEntry> run(String id) {
        return handle.createQuery("SELECT * FROM run WHERE id = :id").bind("id", id).map((r, c) -> entry(r))
                .findOne();
    }

    /** Runs that were begun and never ended: the program stopped in the middle. */
    public synchronized List<RunEntry> openRuns() {
        return handle.createQuery("SELECT * FROM run WHERE outcome IS NULL ORDER BY started_at DESC")
                .map((r, c) -> entry(r)).list();
    }

    static RunEntry entry(ResultSet r) throws SQLException {
        String ended = r.getString("ended_at");
        String outcome = r.getString("outcome");
        return new RunEntry(r.getString("id"), r.getString("job_id"), r.getString("bead"),
                r.getString("chip"), r.getString("recipe"),
                Instant.parse(r.getString("started_at")), r.getBoolean("simulated"), r.getString("log_file"),
                Optional.ofNullable(ended).map(Instant::parse),
                Optional.ofNullable(outcome).map(o -> Verdict.Outcome.valueOf(o.toUpperCase(Locale.ROOT))),
                number(r, "length_s"), number(r, "peak_joint_c"),
                number(r, "above_s"), number(r, "peak_top_c"),
                Optional.of(number(r, "no_probe_k")).filter(Double::isFinite));
    }

    private static double number(ResultSet r, String column) throws SQLException {
        double value = r.getDouble(column);
        return r.wasNull() ? Double.NaN : value;
    }

    /** Where a run's log lies. The name comes from the ledger and is held inside the runs folder whatever it says. */
    public Path logFile(RunEntry run) {
        return folder.resolve("runs").resolve(Path.of(run.logFile()).getFileName());
    }

    // Settings.

    public synchronized Optional<String> setting(String name) {
        return handle.createQuery("SELECT value FROM setting WHERE name = :name").bind("name", name)
                .mapTo(String.class).findOne();
    }

    /** How this house works a kind of job; without steps where it works as shipped. */
    public HouseRoute houseRoute(JobKind kind) {
        return HouseRoute.read(kind, setting(ROUTE + kind.key()).orElse(""));
    }

    public void save(HouseRoute route) {
        setting(ROUTE + route.kind().key(), route.text());
    }

    public synchronized void setting(String name, String value) {
        mayWrite();
        handle.createUpdate(
                "INSERT INTO setting (name, value) VALUES (:name, :value) ON CONFLICT (name) DO UPDATE SET value = :value")
                .bind("name", name)
                .bind("value", value).execute();
    }

    /** What is printed on the chip a job works on, as its board names it; empty where the board is not in the ledger or has no such chip. */
    public synchronized String targetPart(Job job) throws BadFileException {
        if (!holds(Format.BOARD, job.board())) {
            return "";
        }
        return board(job).chip(job.target()).map(Chip::part).orElse("");
    }

    /** The plan of a bead that is worked with a recipe. */
    public synchronized RunPlan plan(Job job, String beadId) throws BadFileException {
        var bead = job.bead(beadId).orElseThrow(() -> new BadFileException("job " + job.id(), 0, "",
                "it has no bead " + beadId, "Choose one of its beads"));
        String recipe = bead.recipe().orElseThrow(() -> new BadFileException("job " + job.id(), 0, "",
                "bead " + beadId + " has no recipe", "Choose a bead that heats"));
        Board board = unit(job, RunPlan.Task.of(bead));
        Bench bench = bench(job).on(board);
        Optional<Recipe> written = written(job, recipe);
        if (written.isEmpty() && RunPlan.Task.of(bead) != RunPlan.Task.FORM) {
            written = Optional.of(Opening.firstGuess(job, bead, board, bench));
        }
        return RunPlan.of(job, bead, board, bench, written, forming);
    }

    /**
     * The board of a job as it lies on the bench: its type with what the unit has been through.
     *
     * @param next what it is heated for
     */
    public synchronized Board unit(Job job, RunPlan.Task next) throws BadFileException {
        return ThisUnit.of(board(job), job, related(job), chips(),
                next);
    }

    /** Jobs that may be on the same unit: strands, the job they belong to, and those that name its serial number. The rest of a large ledger is not read. */
    private List<Job> related(Job job) {
        if (rows.allRead()) {
            return rows.live();
        }
        List<Job> family = rows.live("id = ? OR instr(body, '\"strand_of\"') > 0",
                job.strandOf().orElse(job.id()));
        return ThisUnit.serial(job, family)
                .map(serial -> Stream.concat(family.stream(),
                        rows.live("instr(lower(body), lower(?)) > 0",
                                // As it stands in the text of a job.
                                serial.replace("\\", "\\\\").replace("\"", "\\\"")).stream())
                        .distinct().toList())
                .orElse(family);
    }

    private Optional<Recipe> written(Job job, String recipe) throws BadFileException {
        return holds(Format.RECIPE, recipe)
                ? Optional.of(of(job, Format.RECIPE, recipe, Recipe.class))
                : Optional.empty();
    }

    /** The same where the next run makes balls on the loose chip: its plan leaves the board out. */
    public synchronized RunPlan onBoard(Job job, RunPlan next) throws BadFileException {
        return next.forming().isEmpty() ? next : onBoard(job);
    }

    /** The job on its own board, for what is known of it. A recipe that nobody has written begins as a first guess. */
    public synchronized RunPlan onBoard(Job job) throws BadFileException {
        Board board = unit(job, Opening.nextTask(job));
        Bench bench = bench(job).on(board);
        var damaged = new ArrayList<BadFileException>();
        RunPlan plan = Opening.onBoard(job, board, bench, id -> {
            try {
                return written(job, id);
            } catch (BadFileException e) {
                damaged.add(e);
                return Optional.empty();
            }
        });
        if (!damaged.isEmpty()) {
            throw damaged.getFirst();
        }
        return plan;
    }

    @Override
    public synchronized void close() {
        handle.close();
        lock.ifPresent(FolderLock::close);
    }
}
