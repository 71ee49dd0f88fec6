package org.greenbead.store;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.regex.Pattern;
import org.greenbead.core.electric.TestLog;
import org.greenbead.core.timer.LongTest;

/** Logs of long tests of all jobs: files named by what is in them, so that none is kept twice and none overwritten by another. */
public final class TestLogs {
    private static final Pattern NAME = Pattern.compile("[0-9a-f]{20}\\.txt");
    private final Path folder;

    TestLogs(Path folder) {
        this.folder = folder;
    }

    /**
     * Reads a log and keeps a copy of it.
     *
     * @throws BadFileException when it is no text, says nothing, is too large or cannot be kept
     */
    public LongTest take(Path file) throws BadFileException {
        LongTest told = look(file);
        add(OpenFiles.text(file).getBytes(StandardCharsets.UTF_8), told.file());
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
        return Photos.sha256(bytes).substring(0, 20) + ".txt";
    }

    void add(byte[] bytes, String name) throws BadFileException {
        try {
            Files.createDirectories(folder);
            if (!Files.exists(folder.resolve(name))) {
                SafeFiles.write(folder.resolve(name), bytes);
            }
        } catch (IOException e) {
            throw new BadFileException(name, 0, "", "the log cannot be kept (" + e.getMessage() + ")",
                    "Free space on the disk and take it in again");
        }
    }

    public Optional<Path> find(String name) {
        return Optional.of(name).filter(n -> NAME.matcher(n).matches()).map(folder::resolve)
                .filter(Files::isRegularFile);
    }
}
