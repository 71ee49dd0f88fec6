package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.InstantSource;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.forming.Act;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.run.Reading;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunEvent;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.RunSession;
import org.greenbead.core.run.RunState;
import org.greenbead.core.run.Say;
import org.greenbead.core.run.SimulatedBench;
import org.greenbead.core.run.Verdict;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

public class RunLogTest {
    private final OpenFiles files = new OpenFiles();
    private Path folder;
    private RunPlan plan;

    @BeforeMethod
    public void prepare() throws BadFileException {
        folder = Folders.fresh();
        plan = new DemoWorld(files).plan("SB-0417", "lift_run");
    }

    @AfterMethod
    public void remove() {
        Folders.remove(folder);
    }

    private RunHeader header() {
        return new RunHeader("run-1", Instant.parse("2026-11-25T08:00:00Z"), true, 5, plan);
    }

    private static List<RunEvent> someEvents(RunPlan plan) {
        return List.of(new RunEvent.Started(0),
                new RunEvent.Sampled(0.5,
                        List.of(new Reading.Measured("board_top", 23.1), new Reading.Open("board_under"))),
                new RunEvent.Sampled(1, List.of()),
                new RunEvent.Said(1.2, Say.NOTE, "lost a 1.2 mm part, \"north\" side\nsecond line"),
                new RunEvent.Changed(1.5, 0,
                        plan.recipe().stages().getFirst().withEnd(new StageEnd.TechnicianSays())),
                new RunEvent.Resumed(2, 31.5));
    }

    private Path written() throws IOException {
        Path file = folder.resolve("run-1.run.jsonl");
        try (var writer = RunLogWriter.begin(file, header(), files, InstantSource.system())) {
            someEvents(plan).forEach(writer::append);
        }
        return file;
    }

    @Test
    public void everyKindOfEventComesBackAsItWent() throws Exception {
        RunLog log = RunLog.read(written(), files);
        assertEquals(log.header(), header());
        assertEquals(log.events(), someEvents(plan));
        assertFalse(log.torn());
    }

    /** A log cut at any byte gives back every whole line before the cut. */
    @Test
    public void cutAnywhereNothingWholeIsLost() throws Exception {
        byte[] whole = Files.readAllBytes(written());
        int headerEnd = 0;
        while (whole[headerEnd++] != '\n') {
            // Bytes, not characters: what people wrote down may hold any letter.
        }
        Path cut = folder.resolve("cut.run.jsonl");
        for (int at = headerEnd; at <= whole.length; at += 23) {
            Files.write(cut, java.util.Arrays.copyOf(whole, at));
            long lines = new String(whole, 0, at, StandardCharsets.UTF_8).chars().filter(c -> c == '\n')
                    .count() - 1;
            RunLog log = RunLog.read(cut, files);
            assertEquals(log.events(), someEvents(plan).subList(0, (int) lines), "cut at " + at);
            assertEquals(log.torn(), whole[at - 1] != '\n', "cut at " + at);
        }
    }

    /** Taken up again, not a byte of what is there is touched: the torn line stays, and is read over. */
    @Test
    public void tornLogIsContinuedBehindItsTear() throws Exception {
        Path file = written();
        byte[] whole = Files.readAllBytes(file);
        byte[] cut = java.util.Arrays.copyOf(whole, whole.length - 9);
        Files.write(file, cut);
        assertTrue(RunLog.read(file, files).torn());
        try (var writer = RunLogWriter.resume(file, files, InstantSource.system())) {
            writer.append(new RunEvent.Resumed(3, 1));
            writer.append(new RunEvent.Said(3, Say.STOP, ""));
        }
        byte[] after = Files.readAllBytes(file);
        assertEquals(java.util.Arrays.copyOf(after, cut.length), cut);
        RunLog again = RunLog.read(file, files);
        assertTrue(again.torn());
        var wanted = new ArrayList<>(someEvents(plan).subList(0, 5));
        wanted.add(new RunEvent.Resumed(3, 1));
        wanted.add(new RunEvent.Said(3, Say.STOP, ""));
        assertEquals(again.events(), wanted);
    }

    /** A kill in the middle of a letter of two bytes loses that line and no other. */
    @Test
    public void tearInsideALetterLosesOnlyItsLine() throws Exception {
        Path file = folder.resolve("letter.run.jsonl");
        try (var writer = RunLogWriter.begin(file, header(), files, InstantSource.system())) {
            writer.append(new RunEvent.Started(0));
            writer.append(new RunEvent.Said(1, Say.NOTE, "at 180 °C"));
        }
        byte[] whole = Files.readAllBytes(file);
        int degree = new String(whole, StandardCharsets.ISO_8859_1).lastIndexOf("\u00c2\u00b0");
        Files.write(file, java.util.Arrays.copyOf(whole, degree + 1));
        RunLog log = RunLog.read(file, files);
        assertTrue(log.torn());
        assertEquals(log.events(), List.of(new RunEvent.Started(0)));
    }

    /** A log whose program was killed before its first line has its own name and remedy. */
    @Test
    public void emptyLogIsNamedAsSuch() throws Exception {
        Path file = folder.resolve("empty.run.jsonl");
        Files.createFile(file);
        BadFileException e = expectThrows(BadFileException.class, () -> RunLog.read(file, files));
        assertTrue(e.getMessage().contains("empty") && e.getMessage().contains("begin it anew"),
                e.getMessage());
        Files.writeString(file, "{\"format\": \"greenbead/runl");
        e = expectThrows(BadFileException.class, () -> RunLog.read(file, files));
        assertTrue(e.getMessage().contains("cut off") && e.getMessage().contains("begin it anew"),
                e.getMessage());
    }

    /** The data folder is deleted under a run: the log is put back with everything that was in it. */
    @Test
    public void deletedFolderIsPutBackWithItsLog() throws Exception {
        Path runs = Files.createDirectories(folder.resolve("data/runs"));
        Path file = runs.resolve("gone.run.jsonl");
        try (var writer = RunLogWriter.begin(file, header(), files, InstantSource.system())) {
            writer.append(new RunEvent.Started(0));
            Files.delete(file);
            Files.delete(runs);
            writer.append(new RunEvent.Said(1, Say.NOTE, "still here"));
            assertTrue(writer.recording());
        }
        assertEquals(RunLog.read(file, files).events().size(), 2);
    }

    /** Nobody's log is written over. */
    @Test
    public void existingLogIsNotBegunAnew() throws Exception {
        Path file = written();
        byte[] before = Files.readAllBytes(file);
        IOException e = expectThrows(IOException.class,
                () -> RunLogWriter.begin(file, header(), files, InstantSource.system()));
        assertTrue(e.getMessage().contains("already"), e.getMessage());
        assertEquals(Files.readAllBytes(file), before);
    }

    @Test
    public void damageInTheMiddleIsNamedByItsLine() throws Exception {
        Path file = written();
        List<String> lines = new ArrayList<>(Files.readAllLines(file));
        lines.set(2, lines.get(2).substring(5));
        Files.write(file, lines);
        BadFileException e = expectThrows(BadFileException.class, () -> RunLog.read(file, files));
        assertEquals(e.line(), 3);
        assertTrue(e.getMessage().contains("damaged"), e.getMessage());
    }

    @Test
    public void editedTimeIsSeen() throws Exception {
        Path file = written();
        Files.writeString(file, Files.readString(file).replace("\"time_s\":1.2", "\"time_s\":0.2"));
        assertTrue(expectThrows(BadFileException.class, () -> RunLog.read(file, files)).getMessage()
                .contains("time goes back"));
    }

    @Test
    public void whatIsNoLogIsRefused() throws Exception {
        for (String text : new String[]{"", "hello\n", "{}\n",
                "{\"format\":\"greenbead/runlog/9\",\"header\":null}\n"}) {
            Path file = Files.writeString(folder.resolve("x.run.jsonl"), text);
            expectThrows(BadFileException.class, () -> RunLog.read(file, files));
        }
    }

    /** A disk that is full for a while: nothing is lost, and the run knows that it is not recorded. */
    @Test
    public void fullDiskLosesNothing() throws Exception {
        var disk = new FullDisk();
        var writer = new RunLogWriter(disk, files, InstantSource.system());
        writer.append(new RunEvent.Started(0));
        assertTrue(writer.recording());
        disk.full = true;
        for (int i = 1; i <= 20; i++) {
            writer.append(new RunEvent.Sampled(i, List.of(new Reading.Measured("board_top", 20 + i))));
            assertFalse(writer.recording());
        }
        disk.full = false;
        writer.append(new RunEvent.Sampled(21, List.of()));
        assertTrue(writer.recording());
        writer.close();
        assertEquals(disk.lines.size(), 22);
        for (int i = 1; i <= 21; i++) {
            assertTrue(disk.lines.get(i).contains("\"time_s\":" + i + ".0"), disk.lines.get(i));
        }
        assertTrue(disk.closed);
    }

    /** Refuses every write while it is full. */
    private static final class FullDisk implements AppendTarget {
        private final List<String> lines = new ArrayList<>();
        private boolean full;
        private boolean closed;

        @Override
        public void append(byte[] record) throws IOException {
            if (full) {
                throw new IOException("No space left on device");
            }
            lines.add(new String(record, StandardCharsets.UTF_8));
        }

        @Override
        public void sync() throws IOException {
            if (full) {
                throw new IOException("No space left on device");
            }
        }

        @Override
        public void close() {
            closed = true;
        }
    }

    /** The real thing: a device that is always full refuses the very header, and says so. */
    @Test
    public void runDoesNotBeginUnrecorded() {
        Path full = Path.of("/dev/full");
        if (Files.exists(full)) {
            expectThrows(IOException.class,
                    () -> RunLogWriter.begin(full, header(), files, InstantSource.system()));
        }
        expectThrows(IOException.class, () -> RunLogWriter.begin(folder.resolve("no/such/folder.jsonl"),
                header(), files, InstantSource.system()));
    }

    /** kill -9 in the middle of a run: everything the child said it had taken is in the log. */
    @Test
    public void killedProcessLosesNothingItHadSaid() throws Exception {
        Path file = folder.resolve("killed.run.jsonl");
        Process child = new ProcessBuilder(Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-cp", System.getProperty("java.class.path"),
                KilledRun.class.getName(), file.toString()).redirectError(ProcessBuilder.Redirect.INHERIT)
                .start();
        double lastSaid = -1;
        try (var said = child.inputReader()) {
            for (String line = said.readLine(); line != null; line = said.readLine()) {
                lastSaid = Double.parseDouble(line);
                if (lastSaid >= 20) {
                    child.destroyForcibly();
                    break;
                }
            }
        }
        child.waitFor();
        assertTrue(lastSaid >= 20, "the child came to " + lastSaid);
        RunLog log = RunLog.read(file, files);
        assertTrue(log.lengthS() >= lastSaid,
                "log ends at " + log.lengthS() + ", the child had said " + lastSaid);
        RunState[] state = new RunState[1];
        RunEngine engine = log.replay(Optional.empty(), s -> state[0] = s);
        assertEquals(state[0].status(), RunState.Status.HEATING);
        assertEquals(engine.verdict().outcome(), Verdict.Outcome.BROKEN_OFF);
    }

    /** Runs in a process of its own until it is killed. */
    public static final class KilledRun {
        private KilledRun() {
        }

        public static void main(String[] args) throws Exception {
            var files = new OpenFiles();
            RunPlan plan = new DemoWorld(files).plan("SB-0417", "lift_run");
            var bench = new SimulatedBench(plan, 3);
            var writer = RunLogWriter.begin(Path.of(args[0]),
                    new RunHeader("killed", Instant.now(), true, 3, plan), files, InstantSource.system());
            try (var session = new RunSession(RunEngine.live(plan, Optional.empty()), bench, writer, bench)) {
                session.start(0);
                for (double t = 0.5; t < 100_000; t += 0.5) {
                    session.pump(t);
                    System.out.println(t);
                    System.out.flush();
                }
            }
        }
    }

    /** What hands did at the stencil is in the log before it is acted on, and a log taken up again knows it. */
    @Test
    public void actsAtTheStencilAreKeptAndTakenUpAgain() throws Exception {
        RunPlan balls = new DemoWorld(files).plan("SB-0409", "bead_form");
        Path log = folder.resolve("balls.jsonl");
        var head = new RunHeader("run-2", Instant.parse("2026-11-25T08:00:00Z"), true, 5, balls);
        var writer = RunLogWriter.begin(log, head, files, InstantSource.system());
        var bench = new SimulatedBench(balls, 5);
        var written = RunEngine.live(balls, Optional.empty());
        try (var session = new RunSession(written, bench, writer, bench)) {
            session.pump(0.5);
            double at = 1;
            for (Act act : List.of(Act.FILL, Act.FILL, Act.WIPE, Act.FLUX)) {
                session.act(at++, act);
            }
            assertEquals(session.state().status(), RunState.Status.READY, "nothing is hot yet");
        }
        RunLog read = RunLog.read(log, files);
        assertFalse(read.torn());
        assertEquals(read.header().plan(), balls, "the stencil set-up comes back");
        assertEquals(read.events().stream().filter(RunEvent.Acted.class::isInstance).count(), 4);
        RunEngine again = RunSession.replay(read.header().plan(), Optional.empty(), read.events());
        assertEquals(again.state().forming().orElseThrow().forming(),
                written.state().forming().orElseThrow().forming());
        assertEquals(again.state().forming().orElseThrow().forming().restarts(), 1);
        var csv = new java.io.StringWriter();
        RunCsv.write(read, csv);
        assertTrue(csv.toString().lines().anyMatch(l -> l.endsWith(",wipe")), "acts stand in the CSV");
    }

    @Test
    public void aPlanWithoutTheNewerWordsOfTheSetUpIsStillRead() throws Exception {
        RunPlan balls = new DemoWorld(files).plan("SB-0409", "bead_form");
        String text = files.write(Format.PLAN, balls);
        String older = text.replaceAll(",\\s*\"method\"\\s*:\\s*\"paste\"", "")
                .replaceAll(",\\s*\"melt\"\\s*:\\s*\"first\"", "");
        assertFalse(older.contains("\"melt\""), older.substring(0, 200));
        assertEquals(files.parse(older, "older", Format.PLAN, RunPlan.class), balls);
        BadFileException odd = expectThrows(BadFileException.class, () -> files.parse(
                text.replaceAll("\"method\"\\s*:\\s*\"paste\"", "\"method\": \"magic\""), "odd", Format.PLAN,
                RunPlan.class));
        assertTrue(odd.getMessage().contains("method"), odd.getMessage());
    }
}
