package org.greenbead.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.InstantSource;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.greenbead.store.BadFileException;
import org.greenbead.store.DemoWorld;
import org.greenbead.store.Ledger;
import org.greenbead.store.LedgerException;
import org.greenbead.store.OpenFiles;

/**
 * A run of the usual verbs on a demo ledger of its own, thrown away after. The JVM records what they load and which methods are hot, and keeps it
 * in its ahead-of-time cache (JEP 483, 514 and 515), from which every later verb starts.
 */
public final class TrainingRun {
    /** The photo judge is what takes longest to warm: it is gone through more than once. */
    private static final int PHOTOS = 3;

    private TrainingRun() {
    }

    public static void main(String[] args) throws IOException, LedgerException, BadFileException {
        System.exit(run(new PrintWriter(System.err, true)) ? 0 : 1);
    }

    /** @return whether every verb did its work, well or not; what one of them refuses is said */
    static boolean run(PrintWriter trouble) throws IOException, LedgerException, BadFileException {
        Path folder = Files.createTempDirectory("greenbead-training");
        try {
            var files = new OpenFiles();
            try (Ledger ledger = Ledger.open(folder, files, InstantSource.system())) {
                new DemoWorld(files).fill(ledger, InstantSource.system(), done -> {
                });
            }
            boolean all = true;
            for (List<String> verb : verbs(folder)) {
                var said = new StringWriter();
                var out = new PrintWriter(said, true);
                if (Main.execute(out, out, verb.toArray(String[]::new)) == 2) {
                    trouble.println(String.join(" ", verb) + ": " + said);
                    all = false;
                }
            }
            return all;
        } finally {
            try (var made = Files.walk(folder)) {
                for (Path path : made.sorted(Comparator.reverseOrder()).toList()) {
                    Files.deleteIfExists(path);
                }
            }
        }
    }

    private static List<List<String>> verbs(Path folder) throws IOException {
        String data = "--data=" + folder;
        var verbs = new ArrayList<List<String>>(List.of(
                List.of("ledger", "list", data), List.of("check", "SB-0412", data),
                List.of("steps", "SB-0412", data), List.of("account", "SB-0412", data),
                List.of("heats", "SB-0417", data), List.of("proofs", "SB-0412", data),
                List.of("export", "PLAN", "SB-0417/lift_run", folder.resolve("plan.json").toString(), data),
                List.of("rehearse", folder.resolve("plan.json").toString()),
                List.of("replay", "last", data),
                List.of("report", "SB-0406", folder.resolve("report.pdf").toString(), data)));
        String balls = first(folder.resolve("photos"), ".jpg");
        String map = first(folder.resolve("maps"), ".csv");
        for (int i = 0; i < PHOTOS; i++) {
            verbs.add(List.of("beads", balls, "--map=" + map));
        }
        return verbs;
    }

    private static String first(Path folder, String ends) throws IOException {
        try (var all = Files.list(folder)) {
            return all.map(Path::toString).filter(f -> f.endsWith(ends)).sorted().findFirst()
                    .orElseThrow(() -> new IOException("no " + ends + " in " + folder));
        }
    }
}
