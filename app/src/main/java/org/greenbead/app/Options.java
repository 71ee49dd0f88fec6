package org.greenbead.app;

import dev.dirs.ProjectDirectories;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/**
 * How the window was started.
 *
 * @param demo   on Skerry Bench
 * @param data   data folder
 * @param shots  folder for pictures; empty for none
 * @param walk   true to walk the demo job without a person
 * @param timing prints the time to the first paint
 */
public record Options(boolean demo, Path data, Optional<Path> shots, boolean walk, boolean timing) {
    static final String WALK_DATA = "walk-data";
    private static final String EMPTY = "empty";
    private static final String SKERRY = "skerry-bench";

    /** @throws IllegalArgumentException for a word it does not know */
    public static Options parse(List<String> words, boolean headless, Path home) {
        boolean demo = false;
        boolean timing = false;
        boolean still = false;
        Optional<Path> shots = Optional.empty();
        Optional<Path> data = Optional.empty();
        for (int i = 0; i < words.size(); i++) {
            switch (words.get(i)) {
                case "--demo" -> demo = true;
                case "--timing" -> timing = true;
                case "--headless" -> {
                    // The script has already chosen the platform.
                }
                case "--still" -> still = true;
                case "--shots" -> shots = Optional.of(Path.of(after(words, i++)));
                case "--data" -> data = Optional.of(Path.of(after(words, i++)));
                default -> throw new IllegalArgumentException("\"" + words.get(i)
                        + "\" is not understood; known are --demo, --data FOLDER, --shots FOLDER, --timing, --still");
            }
        }
        if (headless && !still && !demo && shots.isEmpty()) {
            throw new IllegalArgumentException(
                    "there is no display to open your ledger on; without one, greenbead demo walks by itself");
        }
        boolean walk = headless && !still || shots.isPresent();
        if (walk && shots.isEmpty()) {
            shots = Optional.of(home.resolve("target").resolve("shots"));
        }
        String usual = usual();
        boolean skerry = demo;
        Path folder = data.orElseGet(() -> walk
                ? home.resolve("target").resolve(WALK_DATA)
                : skerry ? Path.of(usual).resolve(SKERRY) : Path.of(usual));
        return new Options(demo, folder, shots, walk, timing);
    }

    /** A ledger with nothing in it, in a folder within that of the walk, as the demo's lies within one's own. */
    Options empty() {
        return new Options(false, data.resolve(EMPTY), Optional.empty(), false, timing);
    }

    /** The other world: the demo, in a folder within one's own, or one's own again. */
    public Options other() {
        Path demos = Path.of(SKERRY);
        boolean inside = data.endsWith(demos) && data.getParent() != null;
        return new Options(!demo, demo ? inside ? data.getParent() : Path.of(usual()) : data.resolve(demos),
                Optional.empty(), false, timing);
    }

    private static String usual() {
        String set = System.getenv("GREENBEAD_DATA");
        return set != null && !set.isBlank()
                ? set
                : ProjectDirectories.from("org", "Green Bead", "greenbead").dataDir;
    }

    private static String after(List<String> words, int at) {
        if (at + 1 >= words.size()) {
            throw new IllegalArgumentException(words.get(at) + " needs a folder after it");
        }
        return words.get(at + 1);
    }
}
