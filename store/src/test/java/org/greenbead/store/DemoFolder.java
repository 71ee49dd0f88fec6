package org.greenbead.store;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.InstantSource;
import java.util.Optional;

/** Folders with the demo's world in them: it is lived through once, the rest are copies. */
final class DemoFolder {
    /** When it was filled. */
    static final Instant AT = Instant.parse("2026-11-25T08:00:00Z");
    private static Optional<Path> made = Optional.empty();

    private DemoFolder() {
    }

    static synchronized Path copy() throws Exception {
        if (made.isEmpty()) {
            Path first = Files.createTempDirectory("greenbead-demo");
            var files = new OpenFiles();
            try (Ledger ledger = Ledger.open(first, files, InstantSource.fixed(AT))) {
                new DemoWorld(files).fill(ledger, InstantSource.fixed(AT), d -> {
                });
            }
            made = Optional.of(first);
        }
        Path copy = Files.createTempDirectory("greenbead-demo-copy");
        copy(made.get(), copy);
        return copy;
    }

    private static void copy(Path from, Path to) throws IOException {
        try (var all = Files.walk(from)) {
            for (Path path : all.toList()) {
                Path there = to.resolve(from.relativize(path).toString());
                if (Files.isDirectory(path)) {
                    Files.createDirectories(there);
                } else {
                    Files.copy(path, there);
                }
            }
        }
    }
}
