package org.greenbead.device;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/**
 * A folder into which a camera drops its pictures. What lay there when it was first looked at is old; a new file counts once its size has
 * stayed the same from one look to the next, so that none is taken while it is being written. Not for several threads.
 */
public final class CameraFolder {
    private final Path folder;
    private final Set<Path> known = new HashSet<>();
    private final Map<Path, Long> growing = new HashMap<>();

    /** @throws IOException when it is no folder that can be read */
    public CameraFolder(Path folder) throws IOException {
        this.folder = folder;
        known.addAll(pictures());
    }

    private List<Path> pictures() throws IOException {
        if (!Files.isDirectory(folder)) {
            throw new IOException(
                    "the camera folder " + folder + " is not there; choose it again in the bench set-up");
        }
        try (var files = Files.list(folder)) {
            return files.filter(f -> String.valueOf(f.getFileName()).toLowerCase(Locale.ROOT)
                    .matches(".*\\.(png|jpe?g)")).filter(Files::isRegularFile).sorted().toList();
        }
    }

    /**
     * New and whole since the last look, by name.
     *
     * @throws IOException when the folder is gone
     */
    public List<Path> look() throws IOException {
        var fresh = new ArrayList<Path>();
        for (Path file : pictures()) {
            if (!known.contains(file)) {
                long size = Files.size(file);
                Long before = growing.put(file, size);
                if (before != null && before == size && size > 0) {
                    fresh.add(file);
                    known.add(file);
                    growing.remove(file);
                }
            }
        }
        return List.copyOf(fresh);
    }
}
