package org.greenbead.app;

import dev.dirs.ProjectDirectories;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import org.greenbead.core.quantity.Check;

/**
 * How the window was started.
 *
 * @param demo   on Skerry Bench
 * @param data   data folder
 * @param shots  folder for pictures; empty for none
 * @param walk   true to walk the demo job without a person
 * @param timing prints the time to the first paint
 * @param look   how large window and text are
 */
public record Options(boolean demo, Path data, Optional<Path> shots, boolean walk, boolean timing,
        Look look) {
    /**
     * Size of the window and of its text.
     *
     * @param widthPx     1100 to 2560
     * @param heightPx    700 to 1440
     * @param textPercent 100 to 175; empty where the ledger's own setting stands
     */
    public record Look(int widthPx, int heightPx, OptionalInt textPercent) {
        public static final Look USUAL = new Look(1280, 800, OptionalInt.empty());

        public Look {
            Check.within("width of the window", widthPx, 1100, 2560, "px");
            Check.within("height of the window", heightPx, 700, 1440, "px");
            textPercent.ifPresent(p -> Check.within("size of the text", p, 100, 175, "%"));
        }

        Look sized(String size) {
            String[] parts = size.split("x");
            if (parts.length != 2 || !parts[0].matches("\\d{3,4}") || !parts[1].matches("\\d{3,4}")) {
                throw new IllegalArgumentException("\"" + size + "\" is no size of a window; write 1280x800");
            }
            return new Look(Integer.parseInt(parts[0]), Integer.parseInt(parts[1]), textPercent);
        }

        Look written(String percent) {
            if (!percent.matches("\\d{2,3}")) {
                throw new IllegalArgumentException(
                        "\"" + percent + "\" is no size of text; write 100 to 175");
            }
            return new Look(widthPx, heightPx, OptionalInt.of(Integer.parseInt(percent)));
        }
    }

    public Options(boolean demo, Path data, Optional<Path> shots, boolean walk, boolean timing) {
        this(demo, data, shots, walk, timing, Look.USUAL);
    }

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
        Look look = Look.USUAL;
        for (int i = 0; i < words.size(); i++) {
            switch (words.get(i)) {
                case "--demo" -> demo = true;
                case "--timing" -> timing = true;
                case "--headless" -> {
                    // The script has already chosen the platform.
                }
                case "--still" -> still = true;
                case "--shots" -> shots = Optional.of(Path.of(after(words, i++, "a folder")));
                case "--size" -> look = look.sized(after(words, i++, "a size such as 1280x800"));
                case "--text" -> look = look.written(after(words, i++, "100 to 175"));
                case "--data" -> data = Optional.of(Path.of(after(words, i++, "a folder")));
                default -> throw new IllegalArgumentException("\"" + words.get(i)
                        + "\" is not understood; known are --demo, --data FOLDER, --shots FOLDER, --size 1280x800, --text 100, --timing, --still");
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
        return new Options(demo, folder, shots, walk, timing, look);
    }

    /** A ledger with nothing in it, in a folder within that of the walk, as the demo's lies within one's own. */
    Options empty() {
        return new Options(false, data.resolve(EMPTY), Optional.empty(), false, timing, look);
    }

    /** The other world: the demo, in a folder within one's own, or one's own again. */
    public Options other() {
        Path demos = Path.of(SKERRY);
        boolean inside = data.endsWith(demos) && data.getParent() != null;
        return new Options(!demo, demo ? inside ? data.getParent() : Path.of(usual()) : data.resolve(demos),
                Optional.empty(), false, timing, look);
    }

    private static String usual() {
        String set = System.getenv("GREENBEAD_DATA");
        return set != null && !set.isBlank()
                ? set
                : ProjectDirectories.from("org", "Green Bead", "greenbead").dataDir;
    }

    private static String after(List<String> words, int at, String what) {
        if (at + 1 >= words.size()) {
            throw new IllegalArgumentException(words.get(at) + " needs " + what + " after it");
        }
        return words.get(at + 1);
    }
}
