package org.greenbead.store;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Optional;
import org.greenbead.core.electric.TestLog;
import org.greenbead.core.timer.LongTest;

/** Logs of long tests of all jobs, named by what is in them. */
public final class TestLogs {
    private static final String ENDING = ".txt";
    private final ByContent files;

    TestLogs(Path folder) {
        files = new ByContent(folder, ENDING, "log");
    }

    /**
     * Reads a log and keeps a copy of it.
     *
     * @throws BadFileException when it is no text, says nothing, is too large or cannot be kept
     */
    public LongTest take(Path file) throws BadFileException {
        LongTest told = look(file);
        files.add(OpenFiles.text(file).getBytes(StandardCharsets.UTF_8));
        return told;
    }

    /** What a log says, without keeping it. @throws BadFileException as above */
    public static LongTest look(Path file) throws BadFileException {
        String text = OpenFiles.text(file);
        TestLog log = TestLog.read(text);
        if (log.lines() == 0) {
            throw new BadFileException(String.valueOf(file.getFileName()), 0, "", "nothing stands in it",
                    "Let the test write its log, and take that");
        }
        return new LongTest(log, name(text.getBytes(StandardCharsets.UTF_8)));
    }

    static String name(byte[] bytes) {
        return ByContent.name(bytes, ENDING);
    }

    void add(byte[] bytes) throws BadFileException {
        files.add(bytes);
    }

    public Optional<Path> find(String name) {
        return files.find(name);
    }
}
