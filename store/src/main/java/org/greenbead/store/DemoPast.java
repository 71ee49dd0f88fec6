package org.greenbead.store;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.DoubleConsumer;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;
import org.greenbead.core.run.MeltProof;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunEvent;
import org.greenbead.core.run.RunJournal;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.RunSession;
import org.greenbead.core.run.SimulatedBench;
import org.greenbead.core.run.Verdict;

/**
 * The runs that Skerry Bench has behind it. They were made by running them on the simulated bench, and are shipped as their events, so that nobody
 * waits for a past to be lived again; {@link #record} makes the files anew.
 */
public final class DemoPast {
    private static final String FOLDER = "/org/greenbead/store/demo/past/";
    private static final List<Past> RUNS = List.of(new Past("SB-0409", "lift_run", 21, 12),
            new Past("SB-0409", "bead_form", 13, 11), new Past("SB-0409", "bead_shape", 17, 11),
            new Past("SB-0409", "seat_run", 34, 11), new Past("SB-0412", "lift_run", 5, 6),
            new Past("SB-0415", "lift_run", 8, 2), new Past("SB-0415", "bead_form", 3, 1),
            new Past("SB-0415", "bead_shape", 9, 1));

    /** One run of the past. @param seed of its bench */
    record Past(String job, String bead, long seed, int daysAgo) {
        String file() {
            return job.toLowerCase(java.util.Locale.ROOT) + "-" + bead.replace('_', '-') + ".jsonl.gz";
        }
    }

    /** What such a run came to: the first line of its file. */
    record Ended(Verdict.Outcome outcome, double peakJointC, double aboveS, double peakTopC, double lengthS) {
        static Ended of(Verdict v) {
            return new Ended(v.outcome(), v.peakJointC(), v.aboveLiquidusS(), v.peakTopC(), v.lengthS());
        }

        Verdict verdict() {
            return new Verdict(outcome, List.of(), peakJointC, aboveS, peakTopC, lengthS, MeltProof.NONE,
                    true, List.of());
        }
    }

    private final OpenFiles files;
    private final DemoWorld world;

    DemoPast(OpenFiles files, DemoWorld world) {
        this.files = files;
        this.world = world;
    }

    public static DemoPast of(OpenFiles files) {
        return new DemoPast(files, new DemoWorld(files));
    }

    static List<Past> runs() {
        return RUNS;
    }

    /** Writes them into a ledger as if they had been run there. */
    void tell(Ledger ledger, InstantSource clock, DoubleConsumer progress)
            throws BadFileException, IOException {
        for (int i = 0; i < RUNS.size(); i++) {
            Past past = RUNS.get(i);
            Instant at = clock.instant().minus(Duration.ofDays(past.daysAgo()))
                    .minus(Duration.ofMinutes(37L * i));
            RunPlan plan = world.plan(past.job(), past.bead());
            RunEntry entry = ledger.beginRun(plan, at, true);
            var header = new RunHeader(entry.id(), at, true, past.seed(), plan);
            try (BufferedReader lines = open(past);
                    OutputStream log = Files.newOutputStream(ledger.logFile(entry))) {
                Ended ended = files.unline(lines.readLine(), Ended.class);
                log.write((files.line(new RunLog.Headed(RunLog.TAG, header)) + "\n")
                        .getBytes(StandardCharsets.UTF_8));
                for (String line = lines.readLine(); line != null; line = lines.readLine()) {
                    log.write((line + "\n").getBytes(StandardCharsets.UTF_8));
                }
                ledger.endRun(entry.id(), at.plus(Duration.ofSeconds((long) ended.lengthS())),
                        ended.verdict());
            }
            progress.accept((i + 1.0) / RUNS.size());
        }
    }

    private static BufferedReader open(Past past) throws IOException, BadFileException {
        InputStream in = DemoPast.class.getResourceAsStream(FOLDER + past.file());
        if (in == null) {
            throw new BadFileException(past.file(), 0, "", "it is not in this build", "Build again");
        }
        return new BufferedReader(new InputStreamReader(new GZIPInputStream(in), StandardCharsets.UTF_8));
    }

    /** The lines that are shipped for a run: what it came to, then its events. */
    List<String> shipped(Past past) throws IOException, BadFileException {
        try (BufferedReader lines = open(past)) {
            return lines.lines().toList();
        }
    }

    /** Lives a run again. */
    List<String> live(Past past) throws BadFileException {
        RunPlan plan = world.plan(past.job(), past.bead());
        var bench = new SimulatedBench(plan, past.seed());
        var events = new ArrayList<RunEvent>();
        var journal = new RunJournal() {
            @Override
            public void append(RunEvent event) {
                events.add(event);
            }

            @Override
            public boolean recording() {
                return true;
            }

            @Override
            public void close() {
                // Nothing to close.
            }
        };
        try (var session = new RunSession(RunEngine.live(plan, Optional.empty()), bench, journal, bench)) {
            DemoWorld.drive(session, bench, plan, past.seed());
            var lines = new ArrayList<String>();
            lines.add(files.line(Ended.of(session.verdict())));
            events.forEach(e -> lines.add(files.line(e)));
            return lines;
        }
    }

    /** Makes the files anew in a folder. @return their names */
    public List<String> record(Path folder) throws BadFileException, IOException {
        Files.createDirectories(folder);
        for (Past past : RUNS) {
            try (OutputStream out = new GZIPOutputStream(
                    Files.newOutputStream(folder.resolve(past.file())))) {
                for (String line : live(past)) {
                    out.write((line + "\n").getBytes(StandardCharsets.UTF_8));
                }
            }
        }
        return RUNS.stream().map(Past::file).toList();
    }
}
