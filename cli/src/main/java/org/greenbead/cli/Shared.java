package org.greenbead.cli;

import dev.dirs.ProjectDirectories;
import java.nio.file.Path;
import java.time.InstantSource;
import java.util.Locale;
import java.util.Optional;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.store.BadFileException;
import org.greenbead.store.DemoWorld;
import org.greenbead.store.Ledger;
import org.greenbead.store.LedgerException;
import org.greenbead.store.OpenFiles;
import org.greenbead.store.RunEntry;
import picocli.CommandLine.Option;

/** What several commands share: the data folder and the unit. */
final class Shared {
    @Option(names = "--data", paramLabel = "FOLDER", description = "Data folder with the ledger (default: GREENBEAD_DATA, else the user's data folder).")
    private Path data;
    @Option(names = "--fahrenheit", description = "Show temperatures in degrees Fahrenheit; files stay in degrees Celsius.")
    private boolean fahrenheit;
    /** Only made when it is asked for: every command has its own copy of these options. */
    private OpenFiles files;

    /** A fault of the ledger by its own name. */
    Throwable inWords(Throwable fault) {
        return Ledger.inWords(data(), fault);
    }

    Path data() {
        if (data != null) {
            return data;
        }
        String set = System.getenv("GREENBEAD_DATA");
        return set != null && !set.isBlank()
                ? Path.of(set)
                : Path.of(ProjectDirectories.from("org", "Green Bead", "greenbead").dataDir);
    }

    Words words() {
        return new Words(Locale.ENGLISH, fahrenheit ? TempUnit.FAHRENHEIT : TempUnit.CELSIUS);
    }

    OpenFiles files() {
        if (files == null) {
            files = new OpenFiles();
        }
        return files;
    }

    DemoWorld world() {
        return new DemoWorld(files());
    }

    Ledger ledger() throws LedgerException {
        return Ledger.openShared(data(), files(), InstantSource.system());
    }

    /** The demo's own ledger: in the folder that was named, else beside one's own. */
    Ledger demoLedger() throws LedgerException {
        return Ledger.openShared(data != null ? data : data().resolve("skerry-bench"), files(),
                InstantSource.system());
    }

    /** The run of that id; the newest when it is "last". */
    static RunEntry run(Ledger ledger, String id) throws BadFileException {
        Optional<RunEntry> found = "last".equals(id) ? ledger.runs().stream().findFirst() : ledger.run(id);
        return found.orElseThrow(() -> new BadFileException("ledger", 0, "", "there is no run " + id,
                "List them with: greenbead ledger list"));
    }
}
