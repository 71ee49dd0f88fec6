package org.greenbead.cli;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Callable;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.RunEngine;
import org.greenbead.store.KnownCsv;
import org.greenbead.store.Ledger;
import org.greenbead.store.RunLog;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Plays a log through the engine again. */
@Command(name = "replay", mixinStandardHelpOptions = true, description = "Plays a run log through the engine and judges it again.")
final class ReplayCommand implements Callable<Integer> {
    @Mixin
    private Shared shared;
    @Spec
    private CommandSpec spec;
    @Parameters(paramLabel = "LOG", description = "A .run.jsonl file, a run's id in the ledger, or \"last\".")
    private String log;
    @Option(names = "--trace", paramLabel = "OUT", description = "Write what was known and said, a line a second and at every event, as CSV.")
    private Path trace;

    @Override
    public Integer call() throws Exception {
        RunLog read = read(shared, log);
        var out = spec.commandLine().getOut();
        if (read.torn()) {
            spec.commandLine().getErr()
                    .println("The last line of the log was cut off; everything before it is whole.");
        }
        var told = new HashSet<String>();
        Words words = shared.words();
        if (trace != null) {
            try (var writer = Files.newBufferedWriter(trace)) {
                KnownCsv.write(read, writer);
            }
        }
        RunEngine engine = read.replay(Optional.of(Rehearsal.of(read.header().plan(), () -> false)),
                state -> {
                    for (Finding finding : state.findings()) {
                        if (told.add(finding.id())) {
                            out.printf(Locale.ROOT, "%6s%s%n", Words.clock(state.timeS()),
                                    FindingsCommand.text(finding, words));
                        }
                    }
                });
        return RunCommand.print(engine.verdict(), words, out);
    }

    /** A log by path, by run id, or the newest. */
    static RunLog read(Shared shared, String log) throws Exception {
        Path path = Path.of(log);
        if (Files.exists(path)) {
            return RunLog.read(path, shared.files());
        }
        try (Ledger ledger = shared.ledger()) {
            return RunLog.read(ledger.logFile(Shared.run(ledger, log)), shared.files());
        }
    }
}
