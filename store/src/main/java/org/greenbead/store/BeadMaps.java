package org.greenbead.store;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.regex.Pattern;
import org.greenbead.core.bead.BeadMap;

/** The bead maps of parts: one CSV file each, named by the part. */
public final class BeadMaps {
    private static final Pattern PLAIN = Pattern.compile("[A-Za-z0-9][A-Za-z0-9_-]{0,60}");
    private final Path folder;

    BeadMaps(Path folder) {
        this.folder = folder;
    }

    /** The map of a part; empty where none was taken in. @throws BadFileException when its file was damaged */
    public Optional<BeadMap> find(String part) throws BadFileException {
        Path file = file(part);
        return Files.isRegularFile(file) ? Optional.of(BeadMapCsv.read(file)) : Optional.empty();
    }

    /** Keeps the map of a part; an earlier one is replaced. @throws BadFileException when it cannot be written */
    public void save(String part, BeadMap map) throws BadFileException {
        try {
            Files.createDirectories(folder);
            SafeFiles.write(file(part), BeadMapCsv.write(map).getBytes(StandardCharsets.UTF_8));
        } catch (IOException e) {
            throw new BadFileException(part, 0, "", "its bead map cannot be kept (" + e.getMessage() + ")",
                    "Free space on the disk and take it in again");
        }
    }

    private Path file(String part) {
        String name = PLAIN.matcher(part).matches()
                ? part
                : Photos.sha256(part.getBytes(StandardCharsets.UTF_8)).substring(0, 20);
        return folder.resolve(name + ".map.csv");
    }
}
