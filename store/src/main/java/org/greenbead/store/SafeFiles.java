package org.greenbead.store;

import java.io.IOException;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;

/** Writes a whole file or leaves the old one. */
public final class SafeFiles {
    private SafeFiles() {
    }

    /** @throws IOException with the path and the reason; what stood there before is untouched */
    public static void write(Path file, byte[] content) throws IOException {
        Path absolute = file.toAbsolutePath();
        Path folder = absolute.getParent();
        if (folder == null || !Files.isDirectory(folder)) {
            throw new IOException(file + " cannot be written: there is no folder " + folder);
        }
        Path part = Files.createTempFile(folder, ".greenbead", ".part");
        try {
            Files.write(part, content);
            try {
                Files.move(part, absolute, StandardCopyOption.ATOMIC_MOVE,
                        StandardCopyOption.REPLACE_EXISTING);
            } catch (AtomicMoveNotSupportedException e) {
                Files.move(part, absolute, StandardCopyOption.REPLACE_EXISTING);
            }
        } catch (IOException e) {
            throw new IOException(file + " cannot be written: " + e.getMessage(), e);
        } finally {
            Files.deleteIfExists(part);
        }
    }
}
