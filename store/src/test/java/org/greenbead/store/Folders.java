package org.greenbead.store;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;

/** Folders for one test, taken away after it. */
final class Folders {
    private Folders() {
    }

    static Path fresh() {
        try {
            return Files.createTempDirectory("greenbead-test");
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    static void remove(Path folder) {
        try (var all = Files.walk(folder)) {
            for (Path path : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.deleteIfExists(path);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
