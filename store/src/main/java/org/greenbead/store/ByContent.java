package org.greenbead.store;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.regex.Pattern;

/** A folder of files that are named by what is in them: none is kept twice, and none can be overwritten by another. */
final class ByContent {
    private static final int LENGTH = 20;
    private final Path folder;
    private final String ending;
    private final String what;
    private final Pattern name;

    /** @param ending with its dot, @param what a file of it is called in a message */
    ByContent(Path folder, String ending, String what) {
        this.folder = folder;
        this.ending = ending;
        this.what = what;
        name = Pattern.compile("[0-9a-f]{" + LENGTH + "}" + Pattern.quote(ending));
    }

    static String name(byte[] bytes, String ending) {
        return Photos.sha256(bytes).substring(0, LENGTH) + ending;
    }

    /** @return the name it is found by */
    String add(byte[] bytes) throws BadFileException {
        String called = name(bytes, ending);
        try {
            Files.createDirectories(folder);
            if (!Files.exists(folder.resolve(called))) {
                SafeFiles.write(folder.resolve(called), bytes);
            }
        } catch (IOException e) {
            throw new BadFileException(called, 0, "",
                    "the " + what + " cannot be kept (" + e.getMessage() + ")",
                    "Free space on the disk and take it in again");
        }
        return called;
    }

    /** A name that leaves the folder finds nothing. */
    Optional<Path> find(String called) {
        return Optional.of(called).filter(n -> name.matcher(n).matches()).map(folder::resolve)
                .filter(Files::isRegularFile);
    }
}
