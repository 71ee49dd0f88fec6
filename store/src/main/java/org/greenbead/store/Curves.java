package org.greenbead.store;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import org.greenbead.core.electric.CurrentTrace;
import org.greenbead.core.electric.CurveReference;

/** The start-up curves of all jobs: files named by what is in them, so that none is kept twice and none overwritten by another. */
public final class Curves {
    private static final Pattern NAME = Pattern.compile("[0-9a-f]{20}\\.csv");
    /** The newest of a board; more teach little and take long. */
    private static final int MOST = 12;
    private final Path folder;

    Curves(Path folder) {
        this.folder = folder;
    }

    /**
     * Keeps a curve.
     *
     * @return the name it is found by
     * @throws BadFileException when it cannot be written
     */
    public String add(CurrentTrace trace) throws BadFileException {
        byte[] bytes = CurrentCsv.print(trace).getBytes(StandardCharsets.UTF_8);
        String name = name(bytes);
        add(bytes, name);
        return name;
    }

    static String name(byte[] bytes) {
        return Photos.sha256(bytes).substring(0, 20) + ".csv";
    }

    void add(byte[] bytes, String name) throws BadFileException {
        try {
            Files.createDirectories(folder);
            if (!Files.exists(folder.resolve(name))) {
                SafeFiles.write(folder.resolve(name), bytes);
            }
        } catch (IOException e) {
            throw new BadFileException(name, 0, "", "the curve cannot be kept (" + e.getMessage() + ")",
                    "Free space on the disk and take it in again");
        }
    }

    public Optional<Path> find(String name) {
        return Optional.of(name).filter(n -> NAME.matcher(n).matches()).map(folder::resolve)
                .filter(Files::isRegularFile);
    }

    /** @throws BadFileException when it is gone or damaged */
    public CurrentTrace read(String name) throws BadFileException {
        Path file = find(name).orElseThrow(() -> new BadFileException(name, 0, "",
                "the curve is not there any more", "Record it once more"));
        return CurrentCsv.read(file);
    }

    /** What healthy boards do, of those curves that can still be read and were taken as the one in hand; empty where there is none. */
    public Optional<CurveReference> reference(List<String> names, CurrentTrace inHand) {
        var all = new ArrayList<CurrentTrace>();
        for (String name : names.reversed()) {
            try {
                CurrentTrace one = read(name);
                // What is not noted is like anything: the ones that are kept must be like one another too.
                if (all.size() < MOST && CurveReference.starts(one) && one.under().alike(inHand.under())
                        && all.stream().allMatch(a -> a.under().alike(one.under()))) {
                    all.add(one);
                }
            } catch (BadFileException e) {
                // One that is gone or damaged is no reference; the others are.
            }
        }
        return all.isEmpty() ? Optional.empty() : Optional.of(CurveReference.of(all));
    }
}
